"""Drafts: sent once, named by their hash, laid out as patches of each other."""

import threading
import unittest
from unittest import mock

import jsonpatch
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.document import Finish, LineBand, TextPiece
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.moving import DragPieces
from lucky_margin.core.edits.steps import SetBorder
from lucky_margin.core.scene import scenes_of
from lucky_margin.web.drafts import Drafts, UnknownDraft
from lucky_margin.web.patches import patch
from tests.support import finish_of, noise, sources_of
from tests.web.client import ServiceTest

KEYS = st.sampled_from(["a", "b", "a/b", "~", "0", "-"])
JSON = st.recursive(
    st.none() | st.booleans() | st.integers(-2, 2) | st.sampled_from(["", "x"]),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(KEYS, inner, max_size=3),
    max_leaves=8,
)
DRAG = {"kind": "drag_pieces", "ids": ["text-1"], "dx": 4, "dy": 2}


class PatchTest(unittest.TestCase):
    @settings(max_examples=300)
    @given(JSON, JSON)
    def test_it_leads_from_any_value_to_any_other(self, old, new):
        """Carried out by another library."""
        operations = [one.model_dump() for one in patch(old, new)]
        self.assertEqual(jsonpatch.apply_patch(old, operations), new)

    def test_what_is_the_same_is_not_told(self):
        old = {"a": [1, {"b": 2, "c": 3}], "d": 4}
        new = {"a": [1, {"b": 5, "c": 3}], "d": 4}
        told = [(one.op, one.path, one.value) for one in patch(old, new)]
        self.assertEqual(told, [("replace", "/a/1/b", 5)])
        self.assertEqual(patch(old, old), [])


class DraftsTest(unittest.TestCase):
    def setUp(self):
        self.finish = finish_of(200, 100)
        self.drafts = Drafts(sources_of(noise(300, 200)))
        self.edit = SetBorder(changes={"bands": [{"kind": "line"}]})

    def test_the_same_document_has_the_same_name(self):
        draft = self.drafts.keep(self.finish)
        again = Finish.model_validate_json(self.finish.model_dump_json())
        self.assertEqual(self.drafts.keep(again).sha256, draft.sha256)
        self.assertEqual(self.drafts.read(again.model_dump_json().encode()).sha256, draft.sha256)
        self.assertNotEqual(self.drafts.keep(finish_of(200, 101)).sha256, draft.sha256)

    def test_those_unused_for_longest_are_forgotten(self):
        length = len(self.finish.model_dump_json())
        drafts = Drafts(sources_of(noise(9, 9)), kept_bytes=3 * length)
        names = [drafts.keep(finish_of(200, 100 + number)).sha256 for number in range(5)]
        self.assertIsNone(drafts.find(names[0]))
        self.assertIsNotNone(drafts.find(names[4]))
        with self.assertRaises(UnknownDraft):
            drafts.get(names[0])

    def test_an_edit_is_carried_out_once_however_many_ask(self):
        draft = self.drafts.keep(self.finish)
        results = []
        with mock.patch("lucky_margin.web.drafts.apply_edit", side_effect=apply_edit) as counted:
            ask = lambda: results.append(self.drafts.edited(draft.sha256, "main", self.edit))  # noqa: E731
            threads = [threading.Thread(target=ask) for _ in range(4)]
            for thread in threads:
                thread.start()
            for thread in threads:
                thread.join()
        self.assertEqual(counted.call_count, 1)
        self.assertEqual(len({after.sha256 for after, _ in results}), 1)
        self.assertEqual(results[0][0].finish.border.bands, (LineBand(),))


class TakenOverTest(unittest.TestCase):
    """What an edit leaves alone is not worked out again, and comes out the same."""

    def test_a_scene_that_takes_over_equals_one_that_does_not(self):
        sources = sources_of(noise(300, 200))
        texts = [TextPiece(id=f"text-{n}", text=f"Number {n}").model_dump() for n in range(3)]
        finish = finish_of(200, 100, pieces=texts)
        before = scenes_of(finish, sources)
        before["main"].pieces  # noqa: B018 - laid out, as on the screen
        for edit in (
            DragPieces(ids=("text-1",), dx=5, dy=3),
            SetBorder(changes={"bands": [{"kind": "line"}]}),
        ):
            with self.subTest(edit.kind):
                quick = apply_edit(before["main"], edit, before)
                plain = apply_edit(before["main"], edit)
                self.assertEqual(quick.finish, plain.finish)
                one, other = quick.scenes["main"], scenes_of(plain.finish, sources)["main"]
                self.assertEqual(one.frame, other.frame)
                where = [(p.x, p.y, p.width, p.height) for p in one.pieces]
                self.assertEqual(where, [(p.x, p.y, p.width, p.height) for p in other.pieces])
        moved = apply_edit(before["main"], DragPieces(ids=("text-1",), dx=5, dy=3), before)
        self.assertIs(moved.scenes["main"].margins, before["main"].margins)
        self.assertIs(moved.scenes["main"].pieces[0], before["main"].pieces[0])


class DraftRouteTest(ServiceTest):
    def setUp(self):
        super().setUp()
        text = {"kind": "text", "id": "text-1", "text": "Mugs"}
        self.document = self.finish["document"] | {"pieces": [text]}
        self.named = self.ok("POST", "/drafts", json=self.document)["draft"]

    def lay_out(self, **body):
        return self.ok("POST", "/bench/draft", json={"size_id": "main"} | body)

    def test_a_patch_of_what_the_page_holds_leads_to_the_whole(self):
        held = self.lay_out(draft=self.named)
        told = self.lay_out(draft=self.named, edit=DRAG, since=self.named)
        self.assertIsNone(told["laid"])
        whole = self.lay_out(draft=self.named, edit=DRAG)
        self.assertIsNone(whole["patch"])
        self.assertEqual(jsonpatch.apply_patch(held["laid"], told["patch"]), whole["laid"])
        self.assertEqual(told["draft"], whole["draft"])
        self.assertLess(len(str(told)), len(str(whole)) / 4)

    def test_a_state_the_service_made_needs_no_sending(self):
        made = self.lay_out(draft=self.named, edit=DRAG)["draft"]
        self.ok("POST", "/bench/checks", json={"draft": made, "size_id": "main"})
        saved = self.ok("PUT", self.address, json={"etag": self.finish["etag"], "draft": made})
        self.assertEqual(saved["draft"], made)

    def test_a_forgotten_draft_is_said_by_its_own_name(self):
        self.app.state.shared.drafts.forget()
        picture = {"channel": "a", "scale": 1}
        for path, more in (("draft", {}), ("checks", {}), ("preview", picture)):
            body = {"draft": self.named, "size_id": "main"} | more
            problem = self.refused(404, "POST", f"/bench/{path}", json=body)
            self.assertEqual(problem["title"], "UnknownDraft")
        again = self.ok("POST", "/drafts", json=self.document)["draft"]
        self.assertEqual(again, self.named)
        self.lay_out(draft=again)

    def test_what_is_no_document_is_refused(self):
        for body in (b"", b"{", b"[]", b"\xff\xfe", b'{"format": "x"}'):
            with self.subTest(body):
                self.refused(422, "POST", "/drafts", content=body)

    def test_bodies_have_a_limit(self):
        self.refused(413, "POST", "/drafts", content=b" " * 4_000_001)
        long = {"colour": "#" * 1_000_001}
        problem = self.refused(413, "POST", "/bench/neutral", json=long)
        self.assertEqual(problem["title"], "TooLarge")
        headers = {"Content-Type": "application/json"}
        unmeasured = iter([b'{"colour": "#C8B090"}'])  # sent in parts, so without its length
        self.refused(411, "POST", "/bench/neutral", content=unmeasured, headers=headers)
