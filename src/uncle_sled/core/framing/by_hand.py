"""Edits that a hand makes to generated sticks, as ops on the document."""

from __future__ import annotations

from typing import Any

import msgspec

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import HandChange, Section, Shell
from uncle_sled.core.framing.frame_body import station_of
from uncle_sled.core.framing.member import Member


def changes_of(shell: Shell, member: Member) -> tuple[HandChange, ...]:
    """The hand changes that hold for a stick: by its own key, else those of the nearest stick of its kind."""
    mine = [c for c in shell.framing.changes if c.school == shell.framing.school and (c.face, c.role) == (member.face, member.role)]
    same = tuple(c for c in mine if c.anchor == member.anchor)
    if same or not member.by_hand:
        return same
    at = station_of(member.anchor)
    near = [(abs(other - at), c.anchor) for c in mine if at is not None and (other := station_of(c.anchor)) is not None]
    return tuple(c for c in mine if near and c.anchor == min(near)[1])


def left_out(shell: Shell) -> tuple[HandChange, ...]:
    """Sticks that a hand left out of this school's framing; they cannot be picked on the drawing any more."""
    return tuple(c for c in shell.framing.changes if c.school == shell.framing.school and c.op == "leave out")


def change_ops(shell: Shell, member: Member, op: str, by: Length | None = None, section: Section | None = None) -> list[Op]:
    """Change a stick: "leave out", "move" by a length along its face, or another "section"; the same change again takes its place."""
    old = [c for c in changes_of(shell, member) if c.op == op]
    ops = [remove(f"shell.framing.changes.{c.id}") for c in old]
    if (op == "move" and (by is None or abs(by.si) < 1e-9)) or (op == "section" and section is None):
        return ops
    id = fresh_id("h", [c.id for c in shell.framing.changes])
    change = HandChange(id, shell.framing.school, face=member.face, role=member.role, anchor=member.anchor, op=op, by=by, section=section)  # type: ignore[arg-type]
    return [*ops, add_to("shell.framing.changes", _plain(change))]


def as_generated_ops(shell: Shell, member: Member) -> list[Op]:
    """Give a stick back to the school."""
    return [remove(f"shell.framing.changes.{c.id}") for c in changes_of(shell, member)]


def add_ops(shell: Shell, face: str, station_m: float) -> list[Op]:
    """One more upright on a face at a station [m]."""
    id = fresh_id("h", [c.id for c in shell.framing.changes])
    change = HandChange(id, shell.framing.school, face, "added", f"{station_m:.3f}", "add")
    return [add_to("shell.framing.changes", _plain(change))]


def _plain(change: HandChange) -> Any:
    return msgspec.to_builtins(change)
