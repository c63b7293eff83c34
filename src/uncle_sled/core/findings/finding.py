"""What the judging returns: one sentence with its number and limit, why, where, and what helps."""

from __future__ import annotations

from typing import Any, Literal

import msgspec
from msgspec.structs import replace

from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.project import SetAside
from uncle_sled.core.words import Words

Severity = Literal["stop", "mind", "note"]
TOLD = ("title", "says", "why", "caution", "why_none")  # what people read of it
RANK = {"stop": 0, "mind": 1, "note": 2}


class Remedy(msgspec.Struct, frozen=True):
    """An edit that can be tried: what it does in words, and the ball in every case after it."""

    says: str
    ops: tuple[Op, ...]
    after: tuple[tuple[str, float | None], ...]


class Finding(msgspec.Struct, frozen=True):
    """One judgement. ``code`` and ``where`` together say which one it is."""

    code: str
    severity: Severity
    stop: str  # of the trail
    title: str
    says: str
    why: str
    where: tuple[str, ...]
    case_id: str | None = None
    number: float | None = None  # the number that got too bad, for setting aside
    caution: str = ""
    remedy: Remedy | None = None
    why_none: str | None = None
    set_aside: SetAside | None = None

    @property
    def id(self) -> str:
        """Stable over sessions; no dots, so that it can stand in a path."""
        return "/".join((self.code, *self.where)).replace(".", "_")

    @property
    def key(self) -> tuple[str, tuple[str, ...]]:
        """Which one it is: its code and what it is about."""
        return self.code, self.where

    def settled_by(self, remedy: Remedy | None, why_none: str | None) -> Finding:
        """The same with its remedy, or why there is none."""
        return replace(self, remedy=remedy, why_none=why_none)


def told(found: Finding, words: Words) -> Finding:
    """A finding with every marked figure in the build's units."""
    new: dict[str, Any] = {name: words.told(text) for name in TOLD if "{" in (text := getattr(found, name) or "")}
    if found.remedy is not None and "{" in found.remedy.says:
        new["remedy"] = replace(found.remedy, says=words.told(found.remedy.says))
    return replace(found, **new) if new else found


def to_settle(found: tuple[Finding, ...], stop: str | None = None) -> int:
    """How many stop and mind findings there are, of one stop of the trail or of all."""
    return sum(1 for f in found if f.severity != "note" and f.set_aside is None and (stop is None or f.stop == stop))
