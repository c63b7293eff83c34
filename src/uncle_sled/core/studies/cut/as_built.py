"""What was really built takes the place of what was drawn: pieces not cut yet follow, those that are cut miss by so much.

A measure goes into the log beside its plan, and the drawing gets it; so cutting, weight and ball follow by themselves. What
is sawn keeps the size that it was sawn to, and is held against what is needed now.
"""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.cut import Sawn
from uncle_sled.core.document.edits import Op, add_to, fresh_id, get, set_to
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.work import LogEntry
from uncle_sled.core.engine import keep
from uncle_sled.core.errors import EditError
from uncle_sled.core.framing.by_hand import change_ops, changes_of
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.surfaces import SIDES
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.numbers import Named, numbers_of
from uncle_sled.core.studies.cut.stairs import SIDES as THING_SIDES
from uncle_sled.core.studies.cut.stairs import of_boards
from uncle_sled.core.studies.cut.take_off import take_off

RIGHT_M = 0.001  # so much off is right
STICK = "stick/"
MOST_OFF = 0.25  # of a measure: more is a slip of the pen
BODY = (("shell.length", "Body, long"), ("shell.width", "Body, wide"), ("shell.height", "Body, high"))
HOLE = (("width", "wide"), ("height", "high"), ("along", "near edge along"), ("up", "sill"))

State = Literal["to cut", "right", "too long", "too short"]


class Measure(msgspec.Struct, frozen=True):
    """Something built that can be measured: its id (a path, or ``stick/`` and a stick), name, and size as drawn [m]."""

    id: str
    name: str
    drawn_m: float


class Miss(msgspec.Struct, frozen=True):
    """A piece, what it is, and by how much what is sawn is larger than what is needed now [m]; nought where it is not sawn."""

    named: Named
    state: State
    long_m: float = 0.0
    wide_m: float = 0.0
    sawn_on: str = ""

    @property
    def worst_m(self) -> float:
        """The most that it misses by, either way [m]."""
        return max(abs(self.long_m), abs(self.wide_m))


def measures_of(s: Studied) -> tuple[Measure, ...]:
    """Body, openings, uprights of the sides, and things made of boards, as they are drawn."""
    build, made = s.build, []
    paths = list(BODY) if build.shell.form != "none" else []
    paths += [(f"shell.openings.{o.id}.{field}", f"{o.name}, {words}") for o in build.shell.openings for field, words in HOLE]
    paths += [(f"stow.things.{t.id}.{side}", f"{t.name}, its {side}") for t in of_boards(build.stow.things) for side in THING_SIDES]
    for path, name in paths:
        value = get(build, path)
        if value is not None and value.si > 0:
            made.append(Measure(path, name, value.si))
    for face in SIDES:
        uprights = sorted((m for m in s.framed.on(face) if not m.along_s and m.anchor), key=lambda m: m.shape.bounds[0])
        made += [Measure(f"{STICK}{m.id}", f"{face}, {m.kind} {k}: its front edge", edge_m(m)) for k, m in enumerate(uprights, 1)]
    return tuple(made)


def edge_m(member: Member) -> float:
    """Near edge of an upright along its face [m]."""
    return float(member.shape.bounds[0])


def built_ops(s: Studied, measure: Measure, measured_m: float, day: str) -> tuple[Op, ...]:
    """The edit that takes a measure down: a line of the log with what was planned, and the drawing as it was built.

    Raises: EditError: it is not more than nothing, or so far off that it must be a slip.
    """
    if not measured_m > 0 and not measure.id.endswith((".along", ".up")) and not measure.id.startswith(STICK):
        raise EditError(f"{measure.name}: a measure is more than nothing.")
    if abs(measured_m - measure.drawn_m) > max(MOST_OFF * measure.drawn_m, 0.3):
        raise EditError(
            f"{measure.name}: {measured_m:g} m is far from the {measure.drawn_m:.3f} m that are drawn; check the unit, or change the drawing itself."
        )
    id = fresh_id("lg", [entry.id for entry in s.build.work.log])
    entry = LogEntry(id, day, "measure", value=round(measured_m, 4), plan=round(measure.drawn_m, 4), says=f"{measure.name}, in metres")
    log = add_to("work.log", msgspec.to_builtins(entry))
    if not measure.id.startswith(STICK):
        return (log, set_to(measure.id, {"si": round(measured_m, 4), "typed": None}))
    member = next((m for m in s.framed.members if m.id == measure.id.removeprefix(STICK)), None)
    if member is None:
        raise EditError(f"{measure.name}: that stick is no longer drawn.")
    moved = next((change.by.si for change in changes_of(s.build.shell, member) if change.op == "move" and change.by is not None), 0.0)
    by = round(moved + measured_m - edge_m(member), 4)
    return (log, *change_ops(s.build.shell, member, "move", Length(by)))


def sawn_ops(build: Build, facts: Facts, keys: tuple[str, ...], sawn: bool, day: str) -> tuple[Op, ...]:
    """The edit that says of some pieces that they are cut, as large as they are drawn now, or that they are not."""
    pieces = {piece.key: piece for piece in take_off(build, facts).pieces}
    kept = [one for one in build.cut.sawn if one.piece not in keys]
    for key in keys if sawn else ():
        if key in pieces:
            size = Length(round(pieces[key].length_m, 5)), Length(round(pieces[key].width_m, 5))
            kept.append(Sawn(fresh_id("s", [one.id for one in kept]), key, day, *size))
    return (set_to("cut.sawn", [msgspec.to_builtins(one) for one in kept]),)


@keep("build.cut.sawn", numbers_of, most=4)
def misses_of(build: Build, facts: Facts) -> tuple[Miss, ...]:
    """Every piece that goes to a saw: still to be cut, right, or off by how much; the worst first."""
    sawn = {one.piece: one for one in build.cut.sawn}
    made = []
    for named in numbers_of(build, facts).named:
        piece = named.piece
        if piece.kind in ("wire", "fill"):
            continue
        one = sawn.get(piece.key)
        if one is None:
            made.append(Miss(named, "to cut"))
            continue
        long, wide = one.length.si - piece.length_m, one.width.si - piece.width_m
        state: State = "too short" if min(long, wide) < -RIGHT_M else "too long" if max(long, wide) > RIGHT_M else "right"
        made.append(Miss(named, state, long, wide, one.on))
    rank = {"too short": 0, "too long": 1, "right": 2, "to cut": 3}
    return tuple(sorted(made, key=lambda miss: (rank[miss.state], -miss.worst_m, miss.named.order)))


def gone(build: Build, facts: Facts) -> tuple[str, ...]:
    """Keys of pieces that are sawn and no longer drawn."""
    there = {piece.key for piece in take_off(build, facts).pieces}
    return tuple(one.piece for one in build.cut.sawn if one.piece not in there)
