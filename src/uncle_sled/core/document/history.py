"""Undo and redo: a list of projects, each with the name of the step that made it."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Project


class Step(msgspec.Struct, frozen=True):
    """One named change; it knows its stop of the trail and the ids it touched."""

    says: str
    stop: str
    ids: tuple[str, ...]
    before: Project
    after: Project
    merge: str | None = None


class History(msgspec.Struct, frozen=True):
    """Frozen like the projects in it; every verb gives the next history."""

    project: Project
    done: tuple[Step, ...] = ()
    undone: tuple[Step, ...] = ()
    saved: Project | None = None

    def took(self, says: str, stop: str, ids: tuple[str, ...], after: Project, merge: str | None = None) -> History:
        """The history after an edit. Steps of one merge key (a drag) become one; one that ends where it began vanishes."""
        if after is self.project or after == self.project:
            return self
        last = self.done[-1] if self.done else None
        if last and merge and last.merge == merge and not self.undone:
            if after == last.before:
                return History(last.before, self.done[:-1], (), self.saved)
            joined = Step(says, stop, ids, last.before, after, merge)
            return History(after, (*self.done[:-1], joined), (), self.saved)
        return History(after, (*self.done, Step(says, stop, ids, self.project, after, merge)), (), self.saved)

    def sealed(self) -> History:
        """No later edit merges into the last step (the hand let go)."""
        if not self.done or self.done[-1].merge is None:
            return self
        last = self.done[-1]
        step = Step(last.says, last.stop, last.ids, last.before, last.after, None)
        return History(self.project, (*self.done[:-1], step), self.undone, self.saved)

    def undo(self) -> History:
        """As it was before the last edit; itself where there is none."""
        if not self.done:
            return self
        step = self.done[-1]
        return History(step.before, self.done[:-1], (step, *self.undone), self.saved)

    def redo(self) -> History:
        """As it was before the last undo; itself where there is none."""
        if not self.undone:
            return self
        step = self.undone[0]
        return History(step.after, (*self.done, step), self.undone[1:], self.saved)

    def was_saved(self) -> History:
        """The same history, its present state counting as saved."""
        return History(self.project, self.done, self.undone, self.project)

    @property
    def modified(self) -> bool:
        """Whether something was decided since it was saved; which variant lies on the bench is not."""
        if self.saved is None or self.saved is self.project:
            return self.saved is None
        return msgspec.structs.replace(self.saved, open_variant=self.project.open_variant) != self.project
