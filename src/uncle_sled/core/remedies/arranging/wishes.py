"""What an arrangement must keep to: each wish by its name, as the places that it leaves to every piece and as sums over all.

A wish can be left out by itself, so that those which fight one another can be told.
"""

from __future__ import annotations

import math

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.placing import is_bed, state_in
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.parts.from_stow import home_of
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.remedies.arranging.pieces import Piece
from uncle_sled.core.remedies.arranging.places import Spots
from uncle_sled.core.studies.stow.room import Hole, floor_m, room_of
from uncle_sled.core.studies.stow.rooms import rooms_of

LOW_M = 0.35  # what is heavy stands no higher over the floor
AT_DOOR_M = 0.6  # so near to a door the kitchen is at it
WEIGHTS = ("ball", "level")  # wishes that are sums over all pieces


class Wish(msgspec.Struct, frozen=True, eq=False):
    """``says`` ends the sentence "it must be so that …". ``leaves``: of each piece in order, places that keep to it, (n,), or None: all.

    ``broken``: nothing that moves can keep it, in words; "" where it can be kept.
    """

    id: str
    says: str
    leaves: tuple[NDArray[np.bool_] | None, ...] = ()
    broken: str = ""


def wishes_of(build: Build, facts: Facts, framed: Framed, spots: tuple[Spots, ...], still: tuple[Piece, ...]) -> tuple[Wish, ...]:
    """Every wish that a build has, those of statics first. Args: still: pieces that stay, which may break a wish by themselves."""
    wanted = build.stow.arranging
    things = {thing.id: thing for thing in build.stow.things}
    made = [
        Wish("ball", "the ball or the axles are within their limits in every case"),
        Wish("level", "it stands level left and right in every case"),
    ]
    if wanted.locked:
        made.append(_locked(build, spots))
    if wanted.beds:
        made.append(_beds(build, things, spots, still))
    if wanted.kitchen:
        made.append(_kitchen(build, facts, things, spots, still))
    if wanted.toilet:
        made.append(_toilet(build, framed, things, spots, still))
    if wanted.low is not None:
        made.append(_low(build, things, spots, still))
    if wanted.battery is not None:
        made.append(Wish("battery", "the battery is near what its wires go to"))
    return tuple(made)


def _locked(build: Build, spots: tuple[Spots, ...]) -> Wish:
    """What is locked stands where it was put; nearest place of the grid."""
    locked = {place.id: place for place in build.stow.arranging.locked}
    leaves: list[NDArray[np.bool_] | None] = []
    for of in spots:
        place = locked.get(of.piece.id)
        if place is None:
            leaves.append(None)
            continue
        far = np.abs(of.x_m - place.x.si) + np.abs(of.y_m - place.y.si) + np.abs(of.z_m - place.z.si) + (of.turn != place.turn) * 1e3
        leaves.append(far < 1e-3)
    return Wish("locked", "what is locked stays where it was put", tuple(leaves))


def lying(thing: Thing, build: Build) -> bool:
    """Whether one lies on it in some mode."""
    return "mattress" in thing.roles or any(is_bed(thing, mode) for mode in build.stow.modes)


def _way(thing: Thing, build: Build, turn: int) -> str:
    """Which way a bed's long side points in the mode in which one lies on it, turned so from how it stands."""
    mode = next((mode for mode in build.stow.modes if is_bed(thing, mode) and not mode.towing), build.stow.modes[0])
    state = state_in(thing, mode)
    long, wide = (thing.length.si, thing.width.si) if state is None else (state.length.si, state.width.si)
    along = long >= wide
    return "along" if along == (turn % 180 == 0) else "across"


def _beds(build: Build, things: dict[str, Thing], spots: tuple[Spots, ...], still: tuple[Piece, ...]) -> Wish:
    way = build.stow.arranging.beds
    says = f"beds lie {'lengthwise' if way == 'along' else 'crosswise'}"
    beds = {id: thing for id, thing in things.items() if lying(thing, build) and not thing.outside and not thing.taken_out}
    wrong = [beds[id].name for piece in still for id in piece.ids if id in beds and _way(beds[id], build, beds[id].turn) != way]
    leaves: list[NDArray[np.bool_] | None] = []
    for of in spots:
        mine = [beds[id] for id in of.piece.ids if id in beds]
        if not mine:
            leaves.append(None)
            continue
        base = things[of.piece.ids[0]]
        turned = (of.turn - base.turn) % 360
        leaves.append(np.array([all(_way(bed, build, (bed.turn + int(by)) % 360) == way for bed in mine) for by in turned]))
    return Wish("beds", says, tuple(leaves), f"{wrong[0]} stays where it is and lies otherwise" if wrong else "")


def _kitchen(build: Build, facts: Facts, things: dict[str, Thing], spots: tuple[Spots, ...], still: tuple[Piece, ...]) -> Wish:
    room = room_of(build, facts)
    id = build.stow.arranging.kitchen
    hole = next((hole for hole in room.holes if hole.opening.id == id), None) if room is not None else None
    if hole is None:
        return Wish("kitchen", "the kitchen is at its door", tuple(None for _ in spots), "that door cannot be built as it is drawn")
    says = f"the kitchen is at {hole.opening.name}"

    def cooks(thing: Thing) -> bool:
        return bool({"cooks", "tap or sink"} & {*thing.roles})

    far = [things[t].name for piece in still for t in piece.ids if cooks(things[t]) and not _at(_box(things[t]), hole)]
    leaves: list[NDArray[np.bool_] | None] = []
    for of in spots:
        mine = [k for k, t in enumerate(of.piece.ids) if cooks(things[t])]
        leaves.append(np.asarray(_near(of.boxes[:, 0, mine], hole).all(axis=1)) if mine else None)
    return Wish("kitchen", says, tuple(leaves), f"{far[0]} stays where it is, away from it" if far else "")


def _box(thing: Thing) -> Floats:
    return np.array(home_of(thing).corners)


def _at(box: Floats, hole: Hole) -> bool:
    return bool(_near(box[None, None], hole)[0, 0])


def _near(boxes: Floats, hole: Hole) -> NDArray[np.bool_]:
    """Which boxes, (n, k, 2, 3) [m], are in plan no further from an opening than one reaches through it."""
    low, high = np.array(hole.low)[:2], np.array(hole.high)[:2]
    gap = np.maximum(boxes[..., 0, :2] - high, low - boxes[..., 1, :2]).clip(min=0.0)
    near = np.hypot(gap[..., 0], gap[..., 1]) <= AT_DOOR_M
    return np.asarray(near | np.isnan(gap).any(axis=-1))


def _toilet(build: Build, framed: Framed, things: dict[str, Thing], spots: tuple[Spots, ...], still: tuple[Piece, ...]) -> Wish:
    says = "the toilet is behind a door"
    body = framed.body
    rooms = rooms_of(build.shell, body, shut=True) if body is not None else None
    if rooms is None or len(rooms.plans) < 2:
        return Wish("toilet", says, tuple(None for _ in spots), "no partition with a door parts a room")
    largest = max(range(len(rooms.plans)), key=lambda k: rooms.plans[k].area)
    toilets = {id for id, thing in things.items() if "toilet" in thing.roles}
    if not toilets:
        return Wish("toilet", says, tuple(None for _ in spots), "no thing aboard is said to be a toilet")

    def apart(box: Floats) -> bool:
        middle = box.mean(axis=0)
        return math.isnan(middle[0]) or rooms.of(float(middle[0]), float(middle[1])) != largest

    wrong = [things[id].name for piece in still for id in piece.ids if id in toilets and not apart(_box(things[id]))]
    leaves: list[NDArray[np.bool_] | None] = []
    for of in spots:
        mine = [k for k, id in enumerate(of.piece.ids) if id in toilets]
        leaves.append(np.array([all(apart(box) for box in boxes) for boxes in of.boxes[:, 0, mine]]) if mine else None)
    return Wish("toilet", says, tuple(leaves), f"{wrong[0]} stays where it is, in the open" if wrong else "")


def _low(build: Build, things: dict[str, Thing], spots: tuple[Spots, ...], still: tuple[Piece, ...]) -> Wish:
    least = build.stow.arranging.low
    assert least is not None
    top = floor_m(build) + LOW_M
    heavy = {id for id, thing in things.items() if thing.mass.si >= least.si and not thing.outside and not thing.taken_out}
    wrong = [things[id].name for piece in still for id in piece.ids if id in heavy and things[id].z.si > top]
    leaves: list[NDArray[np.bool_] | None] = []
    for of in spots:
        mine = [k for k, id in enumerate(of.piece.ids) if id in heavy]
        leaves.append(np.asarray((of.boxes[:, 0, mine, 0, 2] <= top).all(axis=1)) if mine else None)
    return Wish("low", "what is heavy stands low", tuple(leaves), f"{wrong[0]} stays where it is, higher" if wrong else "")
