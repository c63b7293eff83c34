"""The arrangement as a program of whole numbers: one place for each piece, nothing in another, every case within its limits.

Two boxes overlap where the larger of their low corners lies in both. A lattice of such corners gives rows that are cheap and
cover nearly all; pairs that slip through are barred when they are met. Source: set packing (any text of integer programming).
"""

from __future__ import annotations

import itertools
from collections.abc import Iterable

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.from_stow import home_of
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.remedies.arranging.places import Ints, Spots, meets
from uncle_sled.core.remedies.arranging.runs import Join
from uncle_sled.core.remedies.arranging.wishes import Wish
from uncle_sled.core.remedies.least_moves import Allowed
from uncle_sled.core.remedies.linear_moves import rows_judged
from uncle_sled.core.solver import Rows, solved
from uncle_sled.core.studies.stow.clashes import modes_in_use
from uncle_sled.core.studies.stow.dangers import CLOTH_M, WATER_M, is_wet, wants_dry
from uncle_sled.core.studies.stow.solids import TOUCH_M

MOVE_COST, TURN_COST = 0.02, 0.02  # in metres of wire: among equals what is drawn is kept
Choice = tuple[int, ...]  # of every piece, its place


class Ends(msgspec.Struct, frozen=True, eq=False):
    """A join by its two ends: the piece that has it, -1 where it stays, and its middle by place in plan, (n, 2) [m]."""

    join: Join
    piece: tuple[int, int]
    middle_m: tuple[Floats, Floats]


class Program(msgspec.Struct, frozen=True, eq=False):
    """Columns: every place of every piece (``first`` of each piece), then the ways of joins along and across."""

    spots: tuple[Spots, ...]
    first: Ints  # (pieces + 1,)
    cost: Floats
    top: Floats
    rows: Rows
    along: Floats  # moment added aft by each place in every judged case [kg m], (places, cases)
    across: Floats
    ways: tuple[Ints, ...]  # of each join, its two columns
    ends: tuple[Ends, ...]


def program_of(s: Studied, spots: tuple[Spots, ...], joins: tuple[Join, ...]) -> Program:
    """All that holds whatever is wished."""
    first = np.concatenate([[0], np.cumsum([len(of) for of in spots])]).astype(np.int64)
    places = int(first[-1])
    rows = Rows()
    for k in range(len(spots)):
        rows.add(np.arange(first[k], first[k + 1]), 1.0, 1.0, 1.0)
    _cover(spots, first, rows)
    cost = np.concatenate([_moving(of) for of in spots]) if spots else np.zeros(0)
    ends = _ends_of(s, spots, joins)
    ways = tuple(places + 2 * k + np.arange(2) for k in range(len(ends)))
    for end, columns in zip(ends, ways, strict=True):
        _way(end, first, columns, rows)
    cost = np.concatenate([cost, np.ones(2 * len(ends))])
    top = np.concatenate([np.ones(places), np.full(2 * len(ends), np.inf)])
    along, across = _moments(s, spots)
    return Program(spots, first, cost, top, rows, along, across, ways, ends)


def _moving(of: Spots) -> Floats:
    """What it costs to leave where one stands."""
    if of.now < 0:
        return np.zeros(len(of))
    off = np.abs(of.middles_m[:, 0] - of.middles_m[of.now, 0]).sum(axis=1)
    return np.asarray(MOVE_COST * off + TURN_COST * (of.turn != of.turn[of.now]))


def _cover(spots: tuple[Spots, ...], first: Ints, rows: Rows) -> None:
    """Rows that let no point of the lattice be covered twice, mode by mode; those that say the same once."""
    if len(spots) < 2:
        return
    seen: set[bytes] = set()
    for mode in range(spots[0].boxes.shape[1]):
        lists = [_lattice(spots, mode, axis) for axis in range(3)]
        found: dict[int, list[Ints]] = {}
        shape = tuple(map(len, lists))
        for k, of in enumerate(spots):
            for j in range(of.boxes.shape[2]):
                boxes = of.boxes[:, mode, j]
                there = np.flatnonzero(~np.isnan(boxes[:, 0, 0]))
                inside = [
                    (lists[a][None] >= boxes[there, 0, a][:, None] - 1e-6) & (lists[a][None] < boxes[there, 1, a][:, None] - TOUCH_M)
                    for a in range(3)
                ]
                which, x, y, z = np.nonzero(inside[0][:, :, None, None] & inside[1][:, None, :, None] & inside[2][:, None, None, :])
                point = np.ravel_multi_index((x, y, z), shape)
                found.setdefault(k, []).append(np.unique(point * 2**32 + first[k] + there[which]))
        pairs = np.unique(np.concatenate([part for parts in found.values() for part in parts]))
        point, column = pairs >> 32, pairs & (2**32 - 1)
        ends = np.flatnonzero(np.diff(point)) + 1
        for group in np.split(column, ends):
            if len(group) > 1 and np.searchsorted(first, group[0], "right") != np.searchsorted(first, group[-1], "right"):
                key = group.tobytes()
                if key not in seen:
                    seen.add(key)
                    rows.add(group, 1.0, -np.inf, 1.0)


MOST_LINES = 24  # of the lattice along an axis


def _lattice(spots: tuple[Spots, ...], mode: int, axis: int) -> Floats:
    """Low edges along an axis, those that are met most often."""
    lows = np.concatenate([of.boxes[:, mode, :, 0, axis].ravel() for of in spots])
    values, times = np.unique(np.round(lows[~np.isnan(lows)], 4), return_counts=True)
    return np.sort(values[np.argsort(-times, kind="stable")[:MOST_LINES]])


def _ends_of(s: Studied, spots: tuple[Spots, ...], joins: tuple[Join, ...]) -> tuple[Ends, ...]:
    """Joins of which one end may move and the other does not move with it."""
    where = {id: (k, j) for k, of in enumerate(spots) for j, id in enumerate(of.piece.ids)}
    things = {thing.id: thing for thing in s.build.stow.things}
    made = []
    for join in joins:
        piece, middle = [], []
        for id in (join.a, join.b):
            if id in where:
                k, j = where[id]
                piece.append(k)
                middle.append(spots[k].middles_m[:, j, :2])
            else:
                at = join.at_m if join.at_m is not None and id == join.b else np.mean(home_of(things[id]).corners, axis=0)
                piece.append(-1)
                middle.append(np.array([at[:2]], dtype=float))
        if piece[0] != piece[1]:
            made.append(Ends(join, (piece[0], piece[1]), (middle[0], middle[1])))
    return tuple(made)


def _way(end: Ends, first: Ints, columns: Ints, rows: Rows) -> None:
    """Its way along and across is at least what lies between its ends."""
    for axis in (0, 1):
        at: list[Ints] = []
        value: list[Floats] = []
        fixed = 0.0
        for k, middle, sign in zip(end.piece, end.middle_m, (1.0, -1.0), strict=True):
            if k >= 0:
                at.append(np.arange(first[k], first[k + 1]))
                value.append(sign * middle[:, axis])
            else:
                fixed += sign * float(middle[0, axis])
        for sign in (1.0, -1.0):
            columns_, values = np.concatenate([columns[[axis]], *at]), np.concatenate([[1.0], *(-sign * part for part in value)])
            rows.add(columns_, values, sign * fixed, np.inf)


def _moments(s: Studied, spots: tuple[Spots, ...]) -> tuple[Floats, Floats]:
    """What each place adds to the moments aft and to the right in every judged case [kg m], (places, cases)."""
    rows = rows_judged(s)
    modes = [s.table.cases[row].mode for row in rows]
    along, across = [], []
    for of in spots:
        a, c = np.zeros((len(of), len(rows))), np.zeros((len(of), len(rows)))
        for j, id in enumerate(of.piece.ids):
            columns = [at for at, column in enumerate(s.table.ids) if column.split("/")[0] == id]
            kg = s.table.mass_kg[rows][:, columns].sum(axis=1)
            kg = kg * [all(place.id != id for place in mode.places) for mode in modes]
            a += of.shifts_m[:, j, 0][:, None] * kg
            c += of.shifts_m[:, j, 1][:, None] * kg
        along.append(a)
        across.append(c)
    none = np.zeros((0, len(rows)))
    return (np.concatenate(along), np.concatenate(across)) if spots else (none, none)


def clashes_of(build: Build, spots: tuple[Spots, ...]) -> NDArray[np.bool_]:
    """Which places shut each other out, (places, places): a thing in another, or in the room that another needs, in any mode."""
    used = modes_in_use(build)
    standing = [mode.id in used for mode in build.stow.modes]
    things = {thing.id: thing for thing in build.stow.things}
    first = np.concatenate([[0], np.cumsum([len(of) for of in spots])])
    made = np.zeros((first[-1], first[-1]), dtype=bool)
    for (i, a), (j, b) in itertools.combinations(enumerate(spots), 2):
        block = np.zeros((len(a), len(b)), dtype=bool)
        for mode, stands in enumerate(standing):
            for p, q in itertools.product(range(a.boxes.shape[2]), range(b.boxes.shape[2])):
                block |= meets(a.boxes[:, None, mode, p], b.boxes[None, :, mode, q])
            if stands:
                for r, q in itertools.product(range(a.rooms.shape[1]), range(b.boxes.shape[2])):
                    block |= meets(a.rooms[:, None, r], b.boxes[None, :, mode, q])
                for p, r in itertools.product(range(a.boxes.shape[2]), range(b.rooms.shape[1])):
                    block |= meets(a.boxes[:, None, mode, p], b.rooms[None, :, r])
        for (p, one), (q, other) in itertools.product(enumerate(a.piece.ids), enumerate(b.piece.ids)):
            least = least_apart_m(things[one], things[other])
            if least:
                block |= gaps_m(a.boxes[:, :, p], b.boxes[:, :, q]) < least
        made[first[i] : first[i + 1], first[j] : first[j + 1]] = block
    return made | made.T


def gaps_m(one: Floats, other: Floats) -> Floats:
    """How far apart a thing of one piece and one of another are by the places of both [m], (n, m): the least over the modes.

    Args: one, other: their boxes, (n, modes, 2, 3) and (m, modes, 2, 3) [m].
    """
    found = np.full((len(one), len(other)), np.inf)
    for mode in range(one.shape[1]):
        a, b = one[:, None, mode], other[None, :, mode]
        apart = np.maximum(a[..., 0, :] - b[..., 1, :], b[..., 0, :] - a[..., 1, :]).clip(min=0.0)
        found = np.fmin(found, np.sqrt((apart**2).sum(axis=-1)))
    return found


def least_apart_m(a: Thing, b: Thing) -> float:
    """How far two things must be apart by the rules of dangers [m]; 0 where nothing is asked."""
    for one, other in ((a, b), (b, a)):
        if wants_dry(one) and is_wet(other) and (other.kind != "cabinet" or other.tank is not None):
            return WATER_M
        if one.near == "cloth" and other.burns != "none" and not other.room_sealed:
            return CLOTH_M
    return 0.0


def wished(program: Program, wishes: Iterable[Wish], allowed: Allowed, near_m: float | None) -> tuple[Rows, Floats]:
    """Rows and tops of columns that keep to some wishes."""
    rows, top = Rows(), program.top.copy()
    n = int(program.first[-1])
    every = np.arange(n)
    for wish in wishes:
        for k, leaves in enumerate(wish.leaves):
            if leaves is not None:
                top[program.first[k] : program.first[k + 1]][~leaves] = 0.0
        if wish.id == "ball":
            for j in range(len(allowed.low)):
                if np.isfinite(allowed.low[j]) or np.isfinite(allowed.high[j]):
                    rows.add(every, program.along[:, j], allowed.low[j], allowed.high[j])
        if wish.id == "level":
            for j in range(len(allowed.low)):
                if np.isfinite(allowed.arm_m[j]):
                    carried = allowed.arm_m[j] * allowed.wheels_per_kg_m[j] * program.along[:, j]
                    least = -allowed.arm_m[j] * allowed.wheels_kg[j]
                    for sign in (1.0, -1.0):
                        rows.add(every, carried - sign * program.across[:, j], sign * allowed.roll[j] + least, np.inf)
        if wish.id == "battery" and near_m is not None:
            for end, columns in zip(program.ends, program.ways, strict=True):
                if end.join.battery:
                    rows.add(columns, 1.0, -np.inf, near_m)
    return rows, top


def chosen(program: Program, values: Floats) -> Choice:
    """The place of every piece."""
    return tuple(int(values[a:b].argmax()) for a, b in itertools.pairwise(program.first.tolist()))


FEW, NODES = 180, 3000  # places up to which the best is proven; of the search tree


def best_of_few(program: Program, clash: NDArray[np.bool_], rows: Rows, top: Floats) -> tuple[Choice, float] | None:
    """The best arrangement and what none undercuts, where the places are few enough to prove it; None where they are not.

    Args: rows, top: what keeps to the wishes.
    """
    n = int(program.first[-1])
    if n > FEW:
        return None
    pairs = Rows()
    for (a, b), (c, d) in itertools.permutations(itertools.pairwise(program.first.tolist()), 2):
        for at in range(a, b):
            others = c + np.flatnonzero(clash[at, c:d])
            if len(others):
                pairs.add([at, *others], 1.0, -np.inf, 1.0)
    best = solved(program.cost, program.rows.joined(rows).joined(pairs), top, np.arange(len(top)) < n, NODES, 1e-6)
    return (chosen(program, best.values), best.bound) if best.values is not None else None
