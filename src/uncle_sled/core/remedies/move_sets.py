"""What to move: single slides, swaps of two, and the least total movement over several things, ranked.

Ball, axles and lean are linear in every shift, so that each case gives one interval; free lanes keep a thing out of
walls and neighbours. What is found (closed form, or the program of least_moves.py) is judged again as a whole build.
"""

from __future__ import annotations

import itertools

import msgspec
import numpy as np
from msgspec.structs import replace
from numpy.typing import NDArray

from uncle_sled.core.document.edits import Op, apply
from uncle_sled.core.parts.from_stow import home_of, standing_size_m
from uncle_sled.core.reading.studied import Studied, study, whole
from uncle_sled.core.remedies.judge import Judge
from uncle_sled.core.remedies.least_moves import FIXED_COST, Allowed, Lane, Mover, nearest_shift, solve_least
from uncle_sled.core.remedies.linear_moves import Moves, carry_ops, hardness, heaviest_first, moves_of, rows_judged
from uncle_sled.core.remedies.spans import allowed_of, asks_of, spans_of
from uncle_sled.core.slow import Tell, slow
from uncle_sled.core.studies.stow.free_places import LONGEST_M, box_at, boxes_meet
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.words import lower_first

Floats = NDArray[np.float64]
MOST_THINGS, MOST_MOVED, SHOWN = 14, 3, 6
MOST_LANES, TRIES = 7, 6
Barred = tuple[tuple[int, int], tuple[int, int]]  # lanes of two things, by their places in the list
LEAST_SHIFT_M = 0.01
SWAPPED = 8


class Shift(msgspec.Struct, frozen=True):
    """One thing's front edge and middle before and after [m]."""

    id: str
    name: str
    from_m: float
    to_m: float
    from_y_m: float
    to_y_m: float


class Move(msgspec.Struct, frozen=True):
    """One offer. ``after`` is the ball in every case [kg]; not feasible: it helps, but not every case is settled."""

    kind: str  # single, swap or set
    items: tuple[Shift, ...]
    cost: float
    feasible: bool
    ops: tuple[Op, ...]
    after: tuple[tuple[str, float | None], ...]


class MoveSets(msgspec.Struct, frozen=True):
    """What was found, cheapest first; where nothing serves every case, the cases that pull against each other."""

    moves: tuple[Move, ...]
    fights: tuple[str, ...]  # case ids
    why: str


class _Item(msgspec.Struct, frozen=True):
    move: Moves
    mover: Mover


@slow(whole, lane="moves")
def move_sets(s: Studied, tell: Tell) -> MoveSets:
    """Ranked offers for a build. Pins ("stays"), walls, neighbours and the left-right limit are kept."""
    if s.support is None or not rows_judged(s):
        return MoveSets((), (), "There is no reading yet that a move could better.")
    still = np.zeros(len(rows_judged(s)))
    if allowed_of(s).holds(still, still):
        return MoveSets((), (), "Every case is within its limits; nothing has to move.")
    items = _items(s, tell)
    if not items:
        return MoveSets((), (), "There is nothing aboard that may move: all of it stays, or weighs little.")
    sound: list[Move] = []
    judge = _Judge(s)
    for at, (asked, allowed) in enumerate(asks_of(s)):
        tell(0.3 + 0.15 * at, asked)
        sound = _found(s, items, allowed, judge, tell)
        if sound:
            break
    tell(0.9, "looking for cases that pull against each other")
    fights = () if any(move.feasible for move in sound) else _fighting(s, items)
    why = "" if sound else "No moves of what may move serve every case."
    return MoveSets(tuple(sound[:SHOWN]), fights, why)


def _found(s: Studied, items: list[_Item], allowed: Allowed, judge: _Judge, tell: Tell) -> list[Move]:
    """The sound offers, those that settle every case and are easiest first."""
    found = [*_singles(s, items, allowed)]
    found += _swaps(s, items, allowed)
    sound: list[Move] = []
    for move in sorted(found, key=lambda m: m.cost)[: 3 * SHOWN]:
        if len(sound) >= SHOWN:
            break
        tell(None, "judging whole builds")
        sound += judge.passed(move)
    for most in (2, MOST_MOVED):
        tell(None, f"looking for the least moves of {most} things")
        made = _least(s, items, allowed, most, judge)
        if made is not None:
            sound += made
            break
    return sorted(sound, key=lambda m: (not m.feasible, m.cost))


def _items(s: Studied, tell: Tell) -> list[_Item]:
    room, rows = room_of(s.build, s.facts), rows_judged(s)
    made: list[_Item] = []
    for thing in heaviest_first(s.build):
        if len(made) >= MOST_THINGS:
            break
        tell(0.3 * len(made) / MOST_THINGS, f"looking for free places: {lower_first(thing.name)}")
        if abs(thing.x.si) > LONGEST_M:  # typed by mistake; its shifts would swamp all the others
            continue
        move = moves_of(s, thing, room)
        if move is None:
            continue
        lanes = lanes_of(move)
        at_home = np.array([row in move.rows for row in rows])
        if lanes:
            mover = Mover(thing.x.si, thing.y.si, move.case_kg[rows] * at_home, lanes, hardness(move))
            made.append(_Item(move, mover))
    return made


def lanes_of(move: Moves) -> tuple[Lane, ...]:
    """Free runs at the thing's own height: in its own row, and in a few others spread over the width."""
    level = np.abs(move.z - move.thing.z.si) < 1e-3
    sides = np.unique(np.round(move.y[level], 4))
    own = sides[np.abs(sides - move.thing.y.si) < 1e-4]
    others = sides[np.abs(sides - move.thing.y.si) >= 1e-4]
    if len(others) > MOST_LANES - 1:
        others = others[np.unique(np.linspace(0, len(others) - 1, MOST_LANES - 1).round().astype(int))]
    return tuple(Lane(float(y), a, b) for y in (*own, *others) for a, b in runs_of(move.x[level & (np.abs(move.y - y) < 1e-3)]))


def runs_of(stations: Floats, step_m: float = 0.0201) -> tuple[tuple[float, float], ...]:
    """Stations on a grid as free runs [m]: neighbours a grid step apart belong together."""
    if not len(stations):
        return ()
    x = np.unique(np.round(stations, 4))
    breaks = np.flatnonzero(np.diff(x) > step_m) + 1
    return tuple((float(run[0]), float(run[-1])) for run in np.split(x, breaks))


def _singles(s: Studied, items: list[_Item], allowed: Allowed) -> list[Move]:
    """The easiest free place that settles every case, for each thing by itself."""
    made = []
    for item in items:
        mover = item.mover
        shifts = [(nearest_shift(mover, lane, allowed), lane) for lane in mover.lanes]
        far = [(abs(by) + abs(lane.y_m - mover.y_m), by, lane) for by, lane in shifts if by is not None]
        if far:
            _, by, lane = min(far, key=lambda one: one[0])
            made.append(_made(s, "single", [(item, by, lane.y_m)]))
    return made


def _swaps(s: Studied, items: list[_Item], allowed: Allowed) -> list[Move]:
    """Two things that change places, front edge for front edge, where that settles every case."""
    made = []
    for a, b in itertools.combinations(items[:SWAPPED], 2):
        mover, two = a.mover, b.mover
        dx, dy = two.x_m - mover.x_m, two.y_m - mover.y_m
        apart = mover.mass_kg - two.mass_kg
        if abs(dx) >= 0.05 and allowed.holds(apart * dx, apart * dy):
            made.append(_made(s, "swap", [(a, dx, two.y_m), (b, -dx, mover.y_m)]))
    return made


def _least(s: Studied, items: list[_Item], allowed: Allowed, most: int, judge: _Judge) -> list[Move] | None:
    """The least total of metres times trouble over at most so many things.

    What would stand in each other, or spoil something else, is barred and the next best looked for. Nothing where
    moving one thing alone is least (the singles have it), None where no shifts of so many do.
    """
    movers, rows = [item.mover for item in items], _rows(items)
    while judge.tries > 0:
        solved, _excess = solve_least(movers, allowed, most, rows, judge.barred)
        if solved is None:
            return None
        moved = [
            (i, by, k)
            for i, (by, k) in enumerate(solved)
            if abs(by) > LEAST_SHIFT_M or abs(movers[i].lanes[k].y_m - movers[i].y_m) > LEAST_SHIFT_M
        ]
        if len(moved) < 2:
            return []
        lanes = [(i, k) for i, _, k in moved]
        meet = [
            (a, b)
            for (a, combination), (b, two) in itertools.combinations(zip(lanes, moved, strict=True), 2)
            if _meet(items, combination, two)
        ]
        if not meet:
            made = judge.passed(_made(s, "set", [(items[i], by, movers[i].lanes[k].y_m) for i, by, k in moved]))
            if made:
                return made
            meet = _way_of_most(movers, lanes)
        judge.tries -= 1
        judge.barred += meet
    return None


def _way_of_most(movers: list[Mover], lanes: list[tuple[int, int]]) -> list[Barred]:
    """What to bar where moving things to lanes spoils something: the side that the furthest goes to, or the pair."""

    def aside(i: int, k: int) -> float:
        return movers[i].lanes[k].y_m - movers[i].y_m

    i, k = max(lanes, key=lambda spot: abs(aside(*spot)))
    if abs(aside(i, k)) <= LEAST_SHIFT_M:
        return [(lanes[0], lanes[1])]
    side = [n for n in range(len(movers[i].lanes)) if aside(i, n) * aside(i, k) > 0]
    return [((i, n), (i, n)) for n in side]


def _meet(items: list[_Item], one: tuple[int, float, int], two: tuple[int, float, int]) -> bool:
    """Whether two moved things would stand in each other."""
    boxes = []
    for i, by, k in (one, two):
        thing, mover = items[i].move.thing, items[i].mover
        boxes.append(box_at(replace(home_of(thing), x=mover.x_m + by, y=mover.lanes[k].y_m)))
    return boxes_meet(boxes[0], boxes[1])


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


def _fighting(s: Studied, items: list[_Item]) -> tuple[str, ...]:
    """The cases that are still out when everything moves as well as it can, and one they pull against."""
    rows, (low, high) = rows_judged(s), spans_of(s)
    _, excess = solve_least([item.mover for item in items], allowed_of(s, ball_only=True), len(items), _rows(items), elastic=True)
    out = [int(at) for at in np.argsort(-excess) if excess[at] > 1e-6][:2]
    if len(out) == 1:
        # the one it fights is that with the least room on the other side
        at = out[0]
        light = low[at] > 0
        room = high if light else -low
        out += [int(k) for k in np.argsort(room) if k != at][:1]
    return tuple(s.table.cases[rows[at]].id for at in out)


def _made(s: Studied, kind: str, shifts: list[tuple[_Item, float, float]]) -> Move:
    """The offer as ops: what stands in a thing goes along."""
    ops: list[Op] = []
    told, cost = [], 0.0
    for item, by, to_y in shifts:
        thing, dy = item.move.thing, to_y - item.mover.y_m
        told.append(Shift(thing.id, thing.name, thing.x.si, round(thing.x.si + by, 4), thing.y.si, round(to_y, 4)))
        ops += carry_ops(s.build, thing, {"x": by, "y": dy})
        cost += item.mover.hard * (abs(by) + abs(dy)) + FIXED_COST
    return Move(kind, tuple(told), cost, feasible=True, ops=tuple(ops), after=())


class _Judge(Judge):
    """Judges an offer as a whole build: out with what settles one thing by spoiling another."""

    def __init__(self, s: Studied) -> None:
        super().__init__(s)
        self.s = s
        self.barred: list[Barred] = []  # what was tried together and spoilt something
        self.tries = TRIES

    def passed(self, move: Move) -> list[Move]:
        """The offer with its readings, and whether it settles every case; nothing where it does harm."""
        after = study(apply(self.s.build, move.ops), self.s.facts)
        if self.leans_more(after) or self.spoiled(after) is not None:
            return []
        return [replace(move, feasible=self.settled(after), after=balls_of(after))]


def balls_of(after: Studied) -> tuple[tuple[str, float | None], ...]:
    """The ball in every case [kg]; None where nothing carries it."""
    tongue = after.readings.tongue_kg
    return tuple((case.id, None if np.isnan(tongue[row]) else float(tongue[row])) for row, case in enumerate(after.table.cases))
