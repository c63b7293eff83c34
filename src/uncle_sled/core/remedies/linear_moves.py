"""The linear statics by which candidate moves are judged, thousands at a time.

A candidate is a shift of moments along and across the rig in every case; nothing else changes.
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.placing import with_inner
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.findings.balance.ball import LEAN_SHARE
from uncle_sled.core.parts.support import Support, independent_axle_loads_kg
from uncle_sled.core.reading.band import band_kg
from uncle_sled.core.reading.limits import TYRE_RESERVE
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.free_places import free_places
from uncle_sled.core.studies.stow.room import Room

LEAST_KG = 1.5


class Moves(msgspec.Struct, frozen=True):
    """Free places of one thing and what it weighs in each case."""

    thing: Thing
    x: Floats
    y: Floats
    z: Floats
    beside: tuple[str | None, ...]
    case_kg: Floats  # (cases,)
    rows: tuple[int, ...]  # cases in which its home place counts
    mass_kg: float


def moves_of(s: Studied, thing: Thing, room: Room | None, keeps_clear: bool = False) -> Moves | None:
    """Free places of a thing with all that is in it; None for what stays, weighs little or stands in another thing.

    keeps_clear: it is to be moved out of what it stands in, whatever it weighs.
    """
    if thing.stays or thing.inside is not None or thing.taken_out or min(thing.length.si, thing.width.si, thing.height.si) <= 0:
        return None
    along = with_inner(s.build.stow, (thing.id,))
    columns = [at for at, id in enumerate(s.table.ids) if id.split("/")[0] in along]
    case_kg = s.table.mass_kg[:, columns].sum(axis=1)
    if case_kg.max(initial=0.0) < LEAST_KG and not keeps_clear:
        return None
    elsewhere = {mode.id for mode in s.build.stow.modes if thing.id in mode.touched}
    rows = tuple(row for row, case in enumerate(s.table.cases) if case.mode.id not in elsewhere)
    free = free_places(s.build, thing, room, keeps_clear)
    if not len(free.x_m):
        return None
    return Moves(
        thing, free.x_m, y=free.y_m, z=free.z_m, beside=free.beside, case_kg=case_kg, rows=rows, mass_kg=float(case_kg.max(initial=0.0))
    )


def heaviest_first(build: Build) -> list[Thing]:
    """Things by what they weigh with a full tank."""
    return sorted(build.stow.things, key=lambda t: -(t.mass.si + (t.tank.volume.si * 1000 if t.tank and t.tank.volume else 0.0)))


def hardness(move: Moves) -> float:
    """Trouble a metre: weight, and more for what is built in."""
    return 1 + move.mass_kg / 25 + (0.6 if move.thing.kind in ("bed", "cabinet", "appliance") else 0.0)


def carry_ops(build: Build, thing: Thing, by: dict[str, float]) -> tuple[Op, ...]:
    """Ops that shift a thing by so much along each axis [m], and what stands in it with it."""
    along = with_inner(build.stow, (thing.id,))
    return tuple(
        set_to(f"stow.things.{thing.id}.{axis}", {"si": round(getattr(thing, axis).si + shift, 4), "typed": None})
        for thing in build.stow.things
        if thing.id in along
        for axis, shift in by.items()
        if abs(shift) > 1e-4
    )


class State(msgspec.Struct, frozen=True):
    """Readings of the towing cases for every candidate place, shape (k, cases)."""

    tongue: Floats
    total: Floats
    axle_most: Floats  # heaviest axle
    axles: Floats  # (k, cases, axles)
    lean: Floats  # share


def rows_judged(s: Studied) -> list[int]:
    """Cases that a move is judged by: on a vehicle's bed all of them."""
    return s.towed_rows if s.build.rig.carrier == "ball" else list(range(len(s.table.cases)))


def shift_of(s: Studied, move: Moves, chosen: slice | NDArray[np.intp] = slice(None)) -> tuple[Floats, Floats]:
    """What each place of a thing adds to the moments along and across [kg m], shape (k, cases)."""
    rows = rows_judged(s)
    carried = move.case_kg[rows] * [row in move.rows for row in rows]
    x, y = move.x[chosen], move.y[chosen]
    return (x - move.thing.x.si)[:, None] * carried, (y - move.thing.y.si)[:, None] * carried


def state(s: Studied, along: Floats | None = None, across: Floats | None = None, support: Support | None = None) -> State:
    """The readings with moments added, shape (k, cases); without any, as it stands (k = 1)."""
    rows, t = rows_judged(s), s.table
    support = support or s.support
    total = t.mass_kg[rows].sum(axis=1)[None, :]
    moment = (t.mass_kg[rows] * t.x_m[rows]).sum(axis=1)[None, :] + (0.0 if along is None else along)
    roll = (t.mass_kg[rows] * t.y_m[rows]).sum(axis=1)[None, :] + (0.0 if across is None else across)
    if support is None:
        none = np.zeros_like(moment)
        return State(none, none, none, none[..., None], none)
    axles = _axle_loads(moment, np.broadcast_to(total, moment.shape), support)
    tongue = total - axles.sum(axis=2) if support.carrier == "ball" else np.zeros_like(moment)
    wheels = axles.sum(axis=2)
    lean = np.abs(2 * roll / (support.track_m or np.inf)) / np.where(wheels > 0, wheels, np.inf)
    return State(tongue, np.broadcast_to(total, moment.shape), axles.max(axis=2), axles, lean)


def _axle_loads(moment: Floats, total: Floats, support: Support) -> Floats:
    if support.carrier == "vehicle bed":
        rear = moment / support.axles_m[1]
        return np.stack([total - rear, rear], axis=2)
    n = len(support.axles_m)
    if not support.independent:
        return np.repeat((moment / support.mean_axle_m / n)[:, :, None], n, axis=2)
    return independent_axle_loads_kg(moment, support)


def _band(s: Studied, after: State, depth: float) -> tuple[Floats, Floats]:
    low, high = band_kg(s.band, after.total)
    inset = depth * np.maximum(high - low, 0.0)
    return low + inset, high - inset


def clears(code: str, after: State, before: State, depth: float, s: Studied) -> NDArray[np.bool_]:
    """Which candidates take the finding away, by the linear statics."""
    low, high = _band(s, after, depth)
    if code == "ball-light":
        return np.asarray((after.tongue >= low).all(axis=1))
    if code == "ball-heavy":
        return np.asarray((after.tongue <= high).all(axis=1))
    if code == "ball-unsure":
        return np.asarray(((after.tongue >= low) & (after.tongue <= high)).all(axis=1))
    if code == "leans":
        return np.asarray((after.lean <= LEAN_SHARE * (1 - depth)).all(axis=1))
    if code == "over-tyre":
        tyre = next((limit for limit in s.limits if limit.id == "tyre"), None)
        most = TYRE_RESERVE * tyre.limit if tyre else np.inf  # over that it would still be minded
        return np.asarray((after.axle_most * (0.5 + after.lean / 2) <= most).all(axis=1))
    if code == "jack-lifts":
        return np.asarray((after.tongue > 0).all(axis=1))
    bed = s.build.rig.bed
    if code == "over-rear-axle" and bed.rear_rating:
        return np.asarray((after.axles[:, :, 1] <= bed.rear_rating.si).all(axis=1))
    if code == "over-front-axle" and bed.front_rating:
        return np.asarray((after.axles[:, :, 0] <= bed.front_rating.si).all(axis=1))
    if code.startswith("over-least-front"):
        return np.asarray(after.axles[:, :, 0].min(axis=1) > before.axles[:, :, 0].min() + 1)
    if code == "over-axle":
        ratings = [axle.rating.si if axle.rating else np.inf for axle in sorted(s.build.rig.axles, key=lambda a: a.station.si)]
        return np.asarray((after.axles <= np.array(ratings)).all(axis=(1, 2)))
    return np.ones(len(after.tongue), dtype=bool)


def worse(after: State, before: State, s: Studied) -> NDArray[np.bool_]:
    """Which candidates lean more than before and more than is allowed, or put a case further out of its band."""
    bad = (after.lean > np.maximum(before.lean, LEAN_SHARE)).any(axis=1)
    if s.build.rig.carrier == "ball":
        (low, high), (low0, high0) = _band(s, after, 0.0), _band(s, before, 0.0)
        light, light0 = np.maximum(low - after.tongue, 0), np.maximum(low0 - before.tongue, 0)
        heavy, heavy0 = np.maximum(after.tongue - high, 0), np.maximum(before.tongue - high0, 0)
        bad = bad | (light > light0 + 0.01).any(axis=1) | (heavy > heavy0 + 0.01).any(axis=1)
    return np.asarray(bad)
