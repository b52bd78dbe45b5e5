"""Documents in work. A page sends one once and then names it by the SHA-256 of its JSON.

What is kept here can always be sent again, so those that were not used for longest are forgotten.
"""

import hashlib
import json
import threading
from dataclasses import dataclass

from cachetools import LRUCache, cachedmethod

from lucky_margin.core.document import Finish, Sha256, read_finish
from lucky_margin.core.edits import EditBase, Edited, apply_edit
from lucky_margin.core.errors import BadDocument, NotFound
from lucky_margin.core.scene import Scene, Scenes, Sources, scenes_of

MAX_DOCUMENT_BYTES = 4_000_000
"""JSON of one document."""

KEPT_BYTES = 32_000_000
"""JSON of all documents that are kept."""

KEPT_EDITS = 64
"""Edits whose outcome is remembered: the screen asks for words and for pictures of each."""


class UnknownDraft(NotFound):
    """A draft was named that is not (or no longer) kept here; it has to be sent again."""


@dataclass(frozen=True, eq=False)
class Draft:
    """A finish in one state of work."""

    sha256: Sha256
    finish: Finish
    scenes: Scenes
    bytes: int
    """Of its JSON."""

    def scene(self, size_id: str) -> Scene:
        """
        Raises:
            NotFound: the finish has no such size.
        """
        return self.scenes[self.finish.size(size_id).id]


class Drafts:
    """The documents in work of one application. Safe to use from several threads."""

    def __init__(self, sources: Sources, kept_bytes: int = KEPT_BYTES) -> None:
        self._sources = sources
        self._kept: LRUCache[str, Draft] = LRUCache(kept_bytes, lambda draft: draft.bytes)
        self._edited: LRUCache[object, tuple[Draft, Edited]] = LRUCache(KEPT_EDITS)
        self._lock = threading.Lock()
        self._changed = threading.Condition()

    def read(self, data: bytes) -> Draft:
        """Keep a document that came as JSON, of this version or an older one.

        Raises:
            BadDocument: it is none.
        """
        try:
            document = json.loads(data)
        except ValueError as error:
            raise BadDocument("This is not a finish: it is not JSON.") from error
        return self.keep(read_finish(document))

    def keep(self, finish: Finish) -> Draft:
        """Keep a document. Whether it can be shown is found out when it is laid out."""
        return self._keep(finish, scenes_of(finish, self._sources))

    def get(self, sha256: str) -> Draft:
        """
        Raises:
            UnknownDraft: it is not kept.
        """
        draft = self.find(sha256)
        if draft is None:
            raise UnknownDraft("The service has forgotten this draft; send it again.")
        return draft

    def find(self, sha256: str | None) -> Draft | None:
        """The draft, if it is named and kept."""
        with self._lock:
            return None if sha256 is None else self._kept.get(sha256)

    def edited(self, sha256: str, size_id: str, edit: EditBase) -> tuple[Draft, Edited]:
        """A draft after an edit, and what there is to say of it. The same is worked out once.

        Raises:
            UnknownDraft: the draft is not kept.
            BadDocument, BadInput, NotFound, TooLarge: as for ``apply_edit``.
        """
        return self._outcome((sha256, size_id, edit.model_dump_json()), edit)

    def forget(self) -> None:
        """Forget all drafts, so that they are laid out anew: a font came or went."""
        with self._changed:
            self._edited.clear()
        with self._lock:
            self._kept.clear()

    @cachedmethod(
        lambda self: self._edited,
        key=lambda _self, key, _edit: key,
        condition=lambda self: self._changed,
    )
    def _outcome(self, key: tuple[str, str, str], edit: EditBase) -> tuple[Draft, Edited]:
        sha256, size_id, _ = key
        draft = self.get(sha256)
        edited = apply_edit(draft.scene(size_id), edit, draft.scenes)
        return self._keep(edited.finish, edited.scenes), edited

    def _keep(self, finish: Finish, scenes: Scenes) -> Draft:
        data = finish.model_dump_json().encode()
        draft = Draft(hashlib.sha256(data).hexdigest(), finish, scenes, len(data))
        with self._lock:
            self._kept[draft.sha256] = draft
        return draft
