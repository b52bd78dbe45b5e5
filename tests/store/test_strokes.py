"""Brush strokes are stored once for each finish, and come back in every change that has them."""

import json

from lucky_margin.core.document import Box, CutOut, Stroke
from lucky_margin.store import ThinningRule
from tests.store.test_store import StoreTest


def strokes(count):
    return tuple(
        Stroke(brush="keep", radius=0.01, points=((0.001 * number, 0.5), (0.2, 0.25)))
        for number in range(count)
    )


class StrokesTest(StoreTest):
    def rows(self, query):
        with self.store._database.read() as connection:
            return [row[0] for row in connection.execute(query)]

    def mended(self, record, count):
        cut_out = CutOut(
            on=True, boxes=(Box(left=0, top=0, width=1, height=1),), strokes=strokes(count)
        )
        return self.saved(record, cut_out=cut_out)

    def test_each_is_stored_once_and_comes_back_in_every_change(self):
        record = self.started()
        for count in (1, 2, 3):
            record = self.mended(record, count)
        record = self.saved(record, name="Cups")
        self.assertEqual(len(self.rows("SELECT key FROM strokes")), 3)
        revisions = self.store.finishes.revisions(record.id)
        found = [
            self.store.finishes.revision_document(record.id, one.id).cut_out.strokes
            for one in revisions
        ]
        self.assertEqual(found, [strokes(3), strokes(3), strokes(2), strokes(1), ()])
        self.assertEqual(self.store.finishes.get(record.id).document, record.document)
        self.assertEqual(self.store.finishes.list()[0].document, record.document)
        for document in self.rows("SELECT document FROM revisions"):
            self.assertNotIn("points", document)

    def test_a_document_that_holds_its_strokes_itself_is_read(self):
        record = self.mended(self.started(), 2)
        with self.store._database.write() as connection:
            connection.execute("DELETE FROM strokes")
            connection.execute(
                "UPDATE revisions SET document = ? WHERE id = ?",
                (record.document.model_dump_json(), record.revision),
            )
        self.assertEqual(self.store.finishes.get(record.id).document, record.document)

    def test_one_that_is_gone_is_damage_of_its_finish_alone(self):
        sound = self.mended(self.started("Bowls"), 1)
        damaged = self.mended(self.started("Mugs"), 2)
        with self.store._database.write() as connection:
            connection.execute("DELETE FROM strokes WHERE finish_id = ?", (damaged.id,))
        found = {entry.name: entry for entry in self.store.finishes.list()}
        self.assertEqual(found["Mugs"].problem, "Its document is damaged.")
        self.assertEqual(found["Bowls"].document, sound.document)

    def test_they_go_with_the_last_change_that_has_them(self):
        record = self.started()
        for count in (3, 1):
            record = self.mended(record, count)
        other = self.mended(self.started("Bowls"), 3)
        with self.store._database.write() as connection:
            connection.execute("UPDATE revisions SET created_at = '2020-01-01T00:00:00+00:00'")
        self.store.thin(ThinningRule(days=1), remove=True)
        kept = "SELECT stroke FROM strokes WHERE finish_id = '%s'"
        (left,) = self.rows(kept % record.id)
        self.assertEqual(Stroke.model_validate(json.loads(left)), strokes(1)[0])
        self.assertEqual(self.store.finishes.get(record.id).document.cut_out.strokes, strokes(1))
        self.store.finishes.set_binned(other.id, True)
        self.store.delete_finish(other.id)
        self.assertEqual(self.rows(kept % other.id), [])
