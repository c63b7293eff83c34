"""A hand on something: every put counts from where it was taken up, and letting go makes one step of it all.

Dragged things, profile points, openings, axles, bobs and sliders use it; nothing else says that somebody drags.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Protocol

from uncle_sled.core.document.edits import Op, apply
from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.trail import stop_of


class Holder(Protocol):
    """What a hand needs of the session."""

    @property
    def project(self) -> Project: ...

    stop: str

    def take(self, says: str, after: Project, stop: str | None = None, ids: tuple[str, ...] = (), merge: str | None = None) -> bool: ...
    def hand_moves(self, hand: Hand) -> None: ...
    def hand_rests(self, hand: Hand) -> None: ...


class Hand:
    """Made by ``Session.take_up``. ``moved``: something was put, so a drag is on; ``open``: it was not let go yet."""

    def __init__(self, holder: Holder, number: int, says: str, ids: tuple[str, ...]) -> None:
        self._holder, self._merge = holder, f"hand-{number}"
        self.says, self.ids = says, ids
        self.stop: str | None = None  # that owns what was put
        self.before = holder.project
        self.moved = False
        self.open = True

    @property
    def build(self) -> Build:
        """The build as it was when it was taken up."""
        return self.before.build

    def moves(self) -> None:
        """It moves from now on, also where it did not change anything yet."""
        if self.open and not self.moved:
            self.moved = True
            self._holder.hand_moves(self)

    def put(self, ops: Iterable[Op], says: str = "") -> bool:
        """The build as it was taken up, with these ops; False where nothing changed or it was let go already.

        Raises: EditError.
        """
        ops = tuple(ops)
        self.stop = self.stop or stop_of((op.path for op in ops), self._holder.stop)
        return self._put(self.before.with_build(apply(self.before.build, ops)), says)

    def _put(self, after: Project, says: str) -> bool:
        if not self.open:
            return False
        self.moves()
        return self._holder.take(says or self.says, after, self.stop, self.ids, self._merge)

    def let_go(self) -> None:
        """What was put stays, as one step."""
        if self.open:
            self.open = False
            self._holder.hand_rests(self)

    def give_back(self) -> None:
        """Everything goes back to where it was taken up, and no step is left."""
        if self.open and self.moved:
            self._put(self.before, "")
        self.let_go()
