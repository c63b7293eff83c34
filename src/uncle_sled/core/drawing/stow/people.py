"""The people of the brief to scale: lying in bed, sitting up, standing; from the side, from above, from behind.

Proportions of a plain figure as shares of its height (any drawing book): head 0.13, sitting height 0.52.
"""

from __future__ import annotations

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.drawing.person import HEAD, upright
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.stow.beds import Bed, Sleeper, beds_in, sleepers_in, standing_room_m
from uncle_sled.core.studies.stow.room import Room, room_of
from uncle_sled.core.studies.stow.solids import solids_in

THICK, SHOULDERS, SITTING = 0.12, 0.25, 0.52
HEADBOARD_M = 0.05


def people_view(build: Build, facts: Facts, mode: Mode, view: str) -> tuple[Primitive, ...]:
    """Everyone in a mode: lying where they fit, one sitting up on the bed, one standing where there is room."""
    if mode.towing:
        return ()
    shapes: list[Primitive] = []
    beds = {bed.id: bed for bed in beds_in(build, facts, mode)}
    sleepers = sleepers_in(build, facts, mode)
    for sleeper in sleepers:
        if sleeper.bed is not None and sleeper.tall_m is not None:
            shapes += _lying(sleeper, beds[sleeper.bed], view)
    room = room_of(build, facts, mode)
    if view == "side" and room is not None:
        shapes += _upright(build, facts, mode, room, list(beds.values()), sleepers)
    return tuple(shapes)


def _lying(sleeper: Sleeper, bed: Bed, view: str) -> list[Primitive]:
    """Head to the front, or to the left where the bed lies across."""
    assert sleeper.tall_m is not None
    tall, solid = sleeper.tall_m, bed.solid
    top = solid.high[2]
    each = bed.wide_m / max(bed.places, 1)
    if view == "plan":
        wide = min(SHOULDERS * tall, each * 0.92)
        if bed.lengthways:
            start, side = solid.low[0] + HEADBOARD_M, solid.low[1] + each * (sleeper.spot + 0.5)
            return [
                Circle((start + HEAD * tall, side), HEAD * tall, "pencil", "body", 1.0, id=sleeper.id),
                Poly(
                    _bodies((start + 2 * HEAD * tall, side), tall * (1 - 2 * HEAD), wide, along=True),
                    "pencil",
                    "kit",
                    1.0,
                    tint=0.35,
                    id=sleeper.id,
                ),
                Text((start + tall * 0.5, side), elided(sleeper.name, 11, 90), 11.0, "ink", ground="body", id=sleeper.id),
            ]
        start, side = solid.low[1] + HEADBOARD_M, solid.low[0] + each * (sleeper.spot + 0.5)
        return [
            Circle((side, start + HEAD * tall), HEAD * tall, "pencil", "body", 1.0, id=sleeper.id),
            Poly(
                _bodies((side, start + 2 * HEAD * tall), tall * (1 - 2 * HEAD), wide, along=False),
                "pencil",
                "kit",
                1.0,
                tint=0.35,
                id=sleeper.id,
            ),
        ]
    if view == "side" and bed.lengthways and sleeper.spot == 0:
        start, high = solid.low[0] + HEADBOARD_M, top
        thick = THICK * tall
        body = (
            (start + 2 * HEAD * tall, high),
            (start + tall, high),
            (start + tall, high + thick * 0.9),
            (start + tall * 0.93, high + thick * 0.55),
            (start + tall * 0.5, high + thick * 0.8),
            (start + tall * 0.28, high + thick),
            (start + 2 * HEAD * tall, high + thick * 0.7),
        )
        return [
            Poly(body, "pencil", "kit", 1.0, tint=0.35, id=sleeper.id),
            Circle((start + HEAD * tall, high + HEAD * tall), HEAD * tall, "pencil", "body", 1.0, id=sleeper.id),
        ]
    return []


def _bodies(at: Point, long: float, wide: float, along: bool) -> tuple[Point, ...]:
    """A body from above: shoulders, hips, feet."""
    outline = (
        (0.0, 0.30),
        (0.06, 0.5),
        (0.45, 0.38),
        (0.95, 0.22),
        (1.0, 0.16),
        (1.0, -0.16),
        (0.95, -0.22),
        (0.45, -0.38),
        (0.06, -0.5),
        (0.0, -0.30),
    )
    return tuple((at[0] + u * long, at[1] + v * wide) if along else (at[0] + v * wide, at[1] + u * long) for u, v in outline)


def _upright(build: Build, facts: Facts, mode: Mode, room: Room, beds: list[Bed], sleepers: tuple[Sleeper, ...]) -> list[Primitive]:
    """The tallest sitting up where the bed has most room over it, and standing where there is most."""
    known = [sleeper for sleeper in sleepers if sleeper.tall_m]
    if not known:
        return []
    tallest = max(known, key=lambda sleeper: sleeper.tall_m or 0.0)
    tall = tallest.tall_m or 0.0
    made: list[Primitive] = []
    has = standing_room_m(build, facts, mode)
    if has is not None and has >= tall * 0.98:
        left, right = room.span_m
        free = _free_station(room, left, right)
        ink = "spruce" if has >= tall + 0.05 else "ochre"
        made += upright(free, room.floor_m, tall, ink=ink, fill="", dash=(4, 2), id=tallest.id)
    if beds and build.brief.sits_up:
        bed = beds[0]
        share = 0.22
        x = bed.solid.low[0] + share * (bed.solid.high[0] - bed.solid.low[0])
        top = room.ceiling_m(x, (bed.solid.low[1] + bed.solid.high[1]) / 2)
        fits = top is not None and top - bed.solid.high[2] >= SITTING * tall
        made += sitting(x, bed.solid.high[2], tall, "spruce" if fits else "ochre", tallest.id)
    return made


def _free_station(room: Room, left: float, right: float) -> float:
    """Where the ceiling is highest, nearest the middle of the room."""
    spots = [left + (right - left) * k / 20 for k in range(2, 19)]
    return max(spots, key=lambda x: ((room.ceiling_m(x) or 0.0), -abs(x - (left + right) / 2)))


def sitting(x: float, z: float, tall: float, ink: str, id: str) -> list[Primitive]:
    """Upright in bed, legs out to the rear."""
    outline = ((-0.06, 0.0), (-0.07, 0.30), (-0.03, 0.39), (0.04, 0.38), (0.06, 0.12), (0.40, 0.10), (0.45, 0.12), (0.45, 0.0))
    return [
        Poly(tuple((x + u * tall, z + v * tall) for u, v in outline), ink, "", 1.2, dash=(4, 2), id=id),
        Circle((x, z + tall * (SITTING - HEAD)), HEAD * tall, stroke=ink, fill="", width=1.2, dash=(4, 2), id=id),
    ]


def under_sleepers(build: Build, facts: Facts, mode: Mode) -> frozenset[str]:
    """Things under a bed that somebody lies on: hidden from above."""
    if mode.towing:
        return frozenset()
    used = {sleeper.bed for sleeper in sleepers_in(build, facts, mode)}
    beds = [bed.solid for bed in beds_in(build, facts, mode) if bed.id in used]
    return frozenset(
        solid.id
        for solid in solids_in(build.stow, mode)
        for bed in beds
        if solid.high[2] <= bed.low[2] + 0.02
        and all(bed.low[k] < solid.high[k] and bed.high[k] > solid.low[k] for k in (0, 1))
        and solid.id != bed.id
    )
