"""What to move: single slides, swaps of two, and the least total movement over several things, ranked.

The ball is linear in every station, so each case gives one interval for the sum of mass times shift; free runs
along a thing's row keep it out of walls and neighbours. Source: a mixed-integer linear program (SciPy's milp);
what it finds is judged again as a whole build.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.edits import Op, apply
from uncle_sled.core.findings.balance import LEAN_SHARE
from uncle_sled.core.findings.linear_moves import (
    Moves,
    carry_ops,
    hardness,
    heaviest_first,
    moves_of,
    rows_judged,
    state,
)
from uncle_sled.core.parts.from_stow import standing_size_m
from uncle_sled.core.studies.balance import band_kg
from uncle_sled.core.studies.clashes import clashes
from uncle_sled.core.studies.limits import LEAST_FRONT_OF_EMPTY, LEAST_FRONT_SHARE
from uncle_sled.core.studies.reading import Studied, study
from uncle_sled.core.studies.room import room_of

Floats = NDArray[np.float64]
MOST_THINGS, MOST_MOVED, SHOWN = 14, 3, 6
LEAST_SHIFT_M, INSET = 0.01, 0.05
FIXED_COST = 0.15  # of taking hold of one more thing, in metres
SECONDS = 0.8
SWAPPED = 8
ROUND_KG_M = 0.02  # stations are rounded to a tenth of a millimetre


@dataclass(frozen=True)
class Shift:
    """One thing's station before and after [m] and, in a swap, its side."""

    id: str
    name: str
    from_m: float
    to_m: float
    to_y_m: float | None = None


@dataclass(frozen=True)
class Move:
    """One offer. ``after`` is the ball in every case [kg]; not feasible: it helps, but not every case is settled."""

    kind: str  # single, swap or set
    items: tuple[Shift, ...]
    cost: float
    feasible: bool
    ops: tuple[Op, ...]
    after: tuple[tuple[str, float | None], ...]


@dataclass(frozen=True)
class MoveSets:
    """What was found, cheapest first; where nothing serves every case, the cases that pull against each other."""

    moves: tuple[Move, ...]
    fights: tuple[str, ...]  # case ids
    why: str


@dataclass(frozen=True)
class _Item:
    move: Moves
    mass_kg: Floats  # by case
    runs: tuple[tuple[float, float], ...]  # free stations of its front edge
    hard: float


def spans_of(s: Studied) -> tuple[Floats, Floats]:
    """Least and most of the moment that may be added aft in each judged case [kg m] so that all is within its limits."""
    now, rows = state(s), rows_judged(s)
    total = now.total[0]
    if s.support is None:
        return np.full(len(rows), -np.inf), np.full(len(rows), np.inf)
    if s.build.rig.carrier == "vehicle bed":
        base, bed = s.support.axles_m[1], s.build.rig.bed
        front, rear = now.axles[0, :, 0], now.axles[0, :, 1]
        most = (bed.rear_rating.si - rear) * base if bed.rear_rating else np.full(len(rows), np.inf)
        least = LEAST_FRONT_SHARE * total
        if bed.front_empty:
            least = np.maximum(least, LEAST_FRONT_OF_EMPTY * bed.front_empty.si)
        most = np.minimum(most, (front - least) * base)
        low = (front - bed.front_rating.si) * base if bed.front_rating else np.full(len(rows), -np.inf)
        return low, most
    low, high = band_kg(s.band, total)
    group = s.build.rig.axle_group
    if group and group.si > 0:
        low = np.maximum(low, total - group.si)
    inset = INSET * np.maximum(high - low, 0.0)
    # dT/dM is constant for one or an equalised axle, and near enough for independent ones
    slope = (state(s, np.ones((1, len(rows)))).tongue - now.tongue)[0]
    slope = np.where(np.abs(slope) > 1e-9, slope, -1e-9)
    ends = np.stack([(low + inset - now.tongue[0]) / slope, (high - inset - now.tongue[0]) / slope])
    return ends.min(axis=0), ends.max(axis=0)


def move_sets(s: Studied, stopped: Callable[[], bool] = lambda: False) -> MoveSets:
    """Ranked offers for a build. Pins ("stays"), walls and neighbours are kept; sides change only in a swap."""
    if s.support is None or not rows_judged(s):
        return MoveSets((), (), "There is no reading yet that a move could better.")
    low, high = spans_of(s)
    if ((low <= 0) & (high >= 0)).all():
        return MoveSets((), (), "Every case is within its limits; nothing has to move.")
    items = _items(s, stopped)
    if not items:
        return MoveSets((), (), "There is nothing aboard that may move: all of it stays, or weighs little.")
    found = [*_singles(s, items, low, high)]
    if not stopped():
        found += _swaps(s, items, low, high)
    for most in (2, MOST_MOVED, len(items)):
        if stopped() or any(move.kind == "set" for move in found):
            break
        made = _least(s, items, low, high, most)
        if made is not None:
            found.append(made)
    sound = [move for move in _tried(s, sorted(found, key=lambda m: m.cost)) if not stopped()]
    fights = () if any(move.feasible for move in sound) else _fighting(s, items, low, high)
    why = "" if sound else "No slides of what may move serve every case."
    return MoveSets(tuple(sound[:SHOWN]), fights, why)


def _items(s: Studied, stopped: Callable[[], bool]) -> list[_Item]:
    room, rows = room_of(s.build, s.facts), rows_judged(s)
    made: list[_Item] = []
    for thing in heaviest_first(s.build):
        if stopped() or len(made) >= MOST_THINGS:
            break
        move = moves_of(s, thing, room)
        if move is None:
            continue
        own = (np.abs(move.y - thing.y.si) < 1e-6) & (np.abs(move.z - thing.z.si) < 1e-3)
        runs = runs_of(move.x[own])
        at_home = np.array([row in move.rows for row in rows])
        if runs:
            made.append(_Item(move, move.case_kg[rows] * at_home, runs, hardness(move)))
    return made


def runs_of(stations: Floats, step_m: float = 0.0201) -> tuple[tuple[float, float], ...]:
    """Stations on a grid as free runs [m]: neighbours a grid step apart belong together."""
    if not len(stations):
        return ()
    x = np.unique(np.round(stations, 4))
    breaks = np.flatnonzero(np.diff(x) > step_m) + 1
    return tuple((float(run[0]), float(run[-1])) for run in np.split(x, breaks))


def _singles(s: Studied, items: list[_Item], low: Floats, high: Floats) -> list[Move]:
    """The nearest free place along its row that settles every case, for each thing by itself."""
    made = []
    for item in items:
        window = window_m(item.mass_kg, low, high)
        if window is None:
            continue
        now = item.move.thing.x.si
        best: float | None = None
        for a, b in item.runs:
            left, right = max(a - now, window[0]), min(b - now, window[1])
            if left <= right:
                near = min(max(0.0, left), right)
                best = near if best is None or abs(near) < abs(best) else best
        if best is not None and abs(best) > LEAST_SHIFT_M:
            made.append(_made(s, "single", [(item, best)]))
    return made


def window_m(mass_kg: Floats, low: Floats, high: Floats) -> tuple[float, float] | None:
    """Shifts of one thing that put every case within its span [m]; None where there is none.

    A case in which it weighs nothing is skipped if it is in its span and empties the answer if not.
    """
    weighs = mass_kg > 1e-9
    if ((low > 0) | (high < 0))[~weighs].any() or not weighs.any():
        return None
    a, b = float((low[weighs] / mass_kg[weighs]).max()), float((high[weighs] / mass_kg[weighs]).min())
    return (a, b) if a <= b else None


def _swaps(s: Studied, items: list[_Item], low: Floats, high: Floats) -> list[Move]:
    """Two things that change places, front edge for front edge, where that settles every case."""
    made = []
    for a, b in itertools.combinations(items[:SWAPPED], 2):
        one, two = a.move.thing, b.move.thing
        dx = two.x.si - one.x.si
        added = (a.mass_kg - b.mass_kg) * dx
        if abs(dx) < 0.05 or not ((added >= low) & (added <= high)).all():
            continue
        shifts = [(a, dx, two.y.si), (b, -dx, one.y.si)]
        made.append(_made(s, "swap", [(item, by) for item, by, _ in shifts], [y for *_, y in shifts]))
    return made


def _least(s: Studied, items: list[_Item], low: Floats, high: Floats, most: int) -> Move | None:
    """The least total of metres times trouble over at most so many things."""
    solved = _solved(items, low, high, most)
    if solved is None:
        return None
    chosen = [(item, float(by)) for item, by in zip(items, solved, strict=True) if abs(by) > LEAST_SHIFT_M]
    return _made(s, "set", chosen) if len(chosen) > 1 else None


def _solved(items: list[_Item], low: Floats, high: Floats, most: int, elastic: bool = False) -> Floats | None:
    masses, runs, hard = [i.mass_kg for i in items], [i.runs for i in items], [i.hard for i in items]
    now = [i.move.thing.x.si for i in items]
    return solve_least(masses, runs, now, hard, low, high, most, _rows(items), elastic)


def _rows(items: list[_Item]) -> list[tuple[int, int, float]]:
    """Pairs in one row: (the one ahead, the one behind, length of the first); they do not go through each other."""
    pairs = []
    for i, j in itertools.permutations(range(len(items)), 2):
        a, b = items[i].move.thing, items[j].move.thing
        (al, aw, ah), (_, bw, bh) = standing_size_m(a, a.turn), standing_size_m(b, b.turn)
        beside = abs(a.y.si - b.y.si) < (aw + bw) / 2 - 0.002
        level = a.z.si < b.z.si + bh - 0.002 and b.z.si < a.z.si + ah - 0.002
        if beside and level and a.x.si + al <= b.x.si + 0.002:
            pairs.append((i, j, al))
    return pairs


def solve_least(
    masses: list[Floats],
    runs: list[tuple[tuple[float, float], ...]],
    now: list[float],
    hard: list[float],
    low: Floats,
    high: Floats,
    most: int,
    rows: list[tuple[int, int, float]],
    elastic: bool = False,
) -> Floats | None:
    """Shifts [m] of least sum of hard times distance that bring every case into its span; None where there are none.

    Args:
        masses: Mass of each thing by case [kg], each shape (c,).
        runs: Free stations of each thing's front edge [m].
        low, high: Span of the added moment by case [kg m], shape (c,).
        most: How many things may move.
        rows: Pairs that keep their order: ahead, behind, length of the one ahead [m].
        elastic: Give the excess of each case instead [kg m], shape (c,): what no shift can take away.
    Source: mixed-integer linear programming; HiGHS through SciPy.
    """
    from scipy.optimize import Bounds, LinearConstraint, milp  # the first reading does not wait for SciPy
    from scipy.sparse import lil_matrix

    n, cases = len(masses), len(low)
    spans = [(i, a, b) for i in range(n) for a, b in runs[i]]
    # columns: forward and aft parts of each shift, whether it moves, whether it stands in a run, slack of each case
    back, ahead, used, stands, slack = 0, n, 2 * n, 3 * n, 3 * n + len(spans)
    width = slack + cases
    reach = 40.0
    lines: list[tuple[dict[int, float], float, float]] = []
    for j in range(cases):
        line = {back + i: float(masses[i][j]) for i in range(n)} | {ahead + i: -float(masses[i][j]) for i in range(n)}
        if np.isfinite(low[j]):
            lines.append((line | {slack + j: 1.0}, float(low[j]), np.inf))
        if np.isfinite(high[j]):
            lines.append((line | {slack + j: -1.0}, -np.inf, float(high[j])))
    for i in range(n):
        mine = [k for k, span in enumerate(spans) if span[0] == i]
        lines.append(({back + i: 1.0, ahead + i: 1.0, used + i: -reach}, -np.inf, 0.0))
        lines.append(({stands + k: 1.0 for k in mine}, 1.0, 1.0))
        shift = {back + i: 1.0, ahead + i: -1.0}
        # x lies between the ends of the run that it stands in
        lines.append((shift | {stands + k: -(spans[k][1] - now[i]) for k in mine}, 0.0, np.inf))
        lines.append((shift | {stands + k: -(spans[k][2] - now[i]) for k in mine}, -np.inf, 0.0))
    lines.append(({used + i: 1.0 for i in range(n)}, 0.0, float(most)))
    for i, j, long in rows:
        line = {back + i: 1.0, ahead + i: -1.0, back + j: -1.0, ahead + j: 1.0}
        lines.append((line, -np.inf, max(now[j] - now[i] - long, 0.0)))
    matrix = lil_matrix((len(lines), width))
    for at, (line, _, _) in enumerate(lines):
        for column, value in line.items():
            matrix[at, column] = value
    cost = np.zeros(width)
    cost[back : back + n] = cost[ahead : ahead + n] = [0.0 if elastic else h for h in hard]
    cost[used : used + n] = 0.0 if elastic else FIXED_COST
    cost[slack:] = 1.0 if elastic else 0.0
    top = np.full(width, reach)
    top[used:slack] = 1.0
    top[slack:] = np.inf if elastic else 0.0
    whole = np.zeros(width)
    whole[used:slack] = 1
    answer = milp(
        cost,
        constraints=LinearConstraint(matrix.tocsr(), [lo for _, lo, _ in lines], [hi for _, _, hi in lines]),
        bounds=Bounds(np.zeros(width), top),
        integrality=whole,
        options={"time_limit": SECONDS},
    )
    if answer.x is None:
        return None
    if elastic:
        return np.asarray(answer.x[slack:])
    return np.asarray(answer.x[back : back + n] - answer.x[ahead : ahead + n])


def _fighting(s: Studied, items: list[_Item], low: Floats, high: Floats) -> tuple[str, ...]:
    """The cases that are still out when everything moves as well as it can, and one they pull against."""
    rows = rows_judged(s)
    excess = _solved(items, low, high, len(items), elastic=True)
    if excess is None:
        return ()
    out = [at for at in np.argsort(-excess) if excess[at] > 1e-6][:2]
    if len(out) == 1:
        # the one it fights is that with the least room on the other side
        at = out[0]
        light = low[at] > 0
        room = high if light else -low
        others = [k for k in np.argsort(room) if k != at]
        out += others[:1]
    return tuple(s.table.cases[rows[int(at)]].id for at in out)


def _made(s: Studied, kind: str, shifts: list[tuple[_Item, float]], sides: list[float] | None = None) -> Move:
    """The offer as ops: what stands in a thing goes along."""
    ops: list[Op] = []
    told = []
    for at, (item, by) in enumerate(shifts):
        thing = item.move.thing
        to_y = sides[at] if sides else None
        told.append(Shift(thing.id, thing.name, thing.x.si, round(thing.x.si + by, 4), to_y))
        ops += carry_ops(s.build, thing, {"x": by, "y": 0.0 if to_y is None else to_y - thing.y.si})
    cost = sum(item.hard * abs(by) + FIXED_COST for item, by in shifts)
    return Move(kind, tuple(told), cost, True, tuple(ops), ())


def _tried(s: Studied, found: list[Move]) -> list[Move]:
    """Each offer judged again as a whole build: out with those that make new clashes; readings with the rest."""
    before = {(c.a, c.b, c.kind) for of in clashes(s.build, s.facts).values() for c in of}
    lean_now = float(state(s).lean.max(initial=0.0))
    kept = []
    for move in found[: 3 * SHOWN]:
        after = study(apply(s.build, move.ops), s.facts)
        leans = state(after).lean.max(initial=0.0) > max(LEAN_SHARE, lean_now) + 1e-6
        new = {(c.a, c.b, c.kind) for of in clashes(after.build, after.facts).values() for c in of} - before
        if new or leans:
            continue
        low, high = spans_of(after)
        settled = bool(((low <= ROUND_KG_M) & (high >= -ROUND_KG_M)).all())
        tongue = after.readings.tongue_kg
        told = tuple(
            (case.id, None if np.isnan(tongue[row]) else float(tongue[row]))
            for row, case in enumerate(after.table.cases)
        )
        kept.append(Move(move.kind, move.items, move.cost, settled, move.ops, told))
    return sorted(kept, key=lambda m: (not m.feasible, m.cost))
