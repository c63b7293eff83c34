"""Where could everything stand so that it tows right: three arrangements that differ in kind, or the wishes that fight.

Places are searched on a grid (search.py); each arrangement is then judged as a whole build, by the same rules as what is set by
hand. How far it may be from the least run of wires and hoses is told by the program's relaxation (program.py), which no
arrangement on the grid can undercut.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.edits import Op, apply, set_to
from uncle_sled.core.document.placing import delete_ops, stand_of
from uncle_sled.core.document.project import Build
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied, study, whole
from uncle_sled.core.remedies.arranging.fights import Fight, fight_of
from uncle_sled.core.remedies.arranging.pieces import STAYS, pieces_of
from uncle_sled.core.remedies.arranging.places import Ints, Spots, moved_things, spots_of, with_place
from uncle_sled.core.remedies.arranging.program import Choice, Program, best_of_few, clashes_of, gaps_m, program_of, wished
from uncle_sled.core.remedies.arranging.runs import joins_of
from uncle_sled.core.remedies.arranging.search import Asked, cost_of, found, signs
from uncle_sled.core.remedies.arranging.wishes import Wish, lying, wishes_of
from uncle_sled.core.remedies.judge import Judge
from uncle_sled.core.remedies.least_moves import Allowed
from uncle_sled.core.remedies.move_sets import balls_of
from uncle_sled.core.remedies.spans import asks_of
from uncle_sled.core.slow import Tell, nobody, slow
from uncle_sled.core.solver import solved
from uncle_sled.core.studies.stow.at_hand import AISLE_M, walks
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.words import lower_first

MOST_PIECES = 14
WANTED, KEYS = 3, 4  # arrangements; pieces by which they differ in kind
SEARCHES, JUDGED = 8, 6  # for each, whatever is asked; builds that are judged of one search
SAME = 9  # times that one finding spoils before it is given up: no arrangement is to blame for it
FURTHER_M, WIDEN_M = 0.06, 0.25  # what was too near is kept so much further off
THIRDS = ("front", "middle", "rear")
SIDES = ("left", "centre", "right")
CENTRE = 0.2  # of half the width: what is nearer to the middle line is at the centre
FAR_M = 0.005  # less is no move


class Put(msgspec.Struct, frozen=True):
    """One piece of an arrangement: front edge, middle, underside [m] and turn of what bears it, before and after; in which part."""

    id: str
    name: str
    was: tuple[float, float, float, int]
    now: tuple[float, float, float, int]
    part: str

    @property
    def moved(self) -> bool:
        """Whether it stands elsewhere."""
        return self.was[3] != self.now[3] or max(abs(a - b) for a, b in zip(self.was[:3], self.now[:3], strict=True)) > FAR_M


class Arrangement(msgspec.Struct, frozen=True):
    """One that was judged as a build and spoils nothing.

    keys: ids of the pieces by which it differs from the others. run_m: wires, hoses and pipes along the axes; bound_m: no
    arrangement on the grid has less run, None where that was not worked out. settled: every case within its limits. after: the ball in
    every case [kg]. asked: how much was asked of it in words.
    """

    puts: tuple[Put, ...]
    keys: tuple[str, ...]
    ops: tuple[Op, ...]
    run_m: float
    run_before_m: float
    cost_m: float
    bound_m: float | None
    settled: bool
    asked: str
    after: tuple[tuple[str, float | None], ...]
    least_chance: float | None
    most_lean: float | None


class Stays(msgspec.Struct, frozen=True):
    """A piece that was left where it is, and why."""

    id: str
    name: str
    why: str


class Arranged(msgspec.Struct, frozen=True):
    """What was found. fight: what cannot be had together. why: why there is nothing, or less than three. tried: builds judged."""

    found: tuple[Arrangement, ...]
    stays: tuple[Stays, ...]
    fight: Fight | None
    why: str
    tried: int = 0
    places: int = 0


@slow(whole, lane="arrangements")
def arrangements(s: Studied, tell: Tell = nobody) -> Arranged:
    """Three arrangements that differ in kind, the shortest runs first. Wishes are those of ``stow.arranging``; what is marked as
    staying stays. Where nothing keeps to all wishes: the smallest set of them that fights, and whether that is proven.
    """
    build, room = s.build, room_of(s.build, s.facts)
    if room is None:
        return Arranged((), (), None, "There is no body yet to arrange things in: draw one on Shell.")
    if s.support is None:
        return Arranged(
            (), (), None, "There is no reading yet, so nobody can say which arrangement tows right: give axles and weights first."
        )
    pieces = pieces_of(s, MOST_PIECES)
    stays = tuple(Stays(piece.id, piece.name, STAYS[piece.stays]) for piece in pieces if piece.stays)
    movable = tuple(piece for piece in pieces if not piece.stays)
    if not movable:
        return Arranged((), stays, None, "Nothing aboard may move: all of it stays where it is." if pieces else "Nothing is aboard yet.")
    tell(0.02, "looking for places")
    down = build.stow.arranging.low.si if build.stow.arranging.low is not None else np.inf
    spots = with_locked(build, spots_of(build, s.facts, movable, down))
    still = tuple(piece for piece in pieces if piece.stays)
    wishes = wishes_of(build, s.facts, s.framed, spots, still)
    tell(0.08, "working out what is in whose way")
    program, clash = program_of(s, spots, joins_of(build)), clashes_of(build, spots)
    search = _Search(s, program, clash, wishes, tell)
    if not any(wish.broken for wish in wishes):
        search.run()
    fight, why = None, ""
    if not search.made:
        tell(0.85, "looking for wishes that fight")
        fight = fight_of(s, wishes, program)
        why = search.why()
    elif len(search.made) < WANTED:
        why = f"No more than {len(search.made)} that differ in kind were met; that does not prove that there are no others."
    return Arranged(tuple(search.made), stays, fight, why, search.tried, len(program.along))


def with_locked(build: Build, spots: tuple[Spots, ...]) -> tuple[Spots, ...]:
    """Places with those of what is locked among them, whether they lie on the grid or not."""
    locked = {place.id: place for place in build.stow.arranging.locked}
    return tuple(with_place(build, of, locked[of.piece.id]) if of.piece.id in locked else of for of in spots)


class _Search:
    """One arrangement after another, each of another kind than those before it."""

    def __init__(self, s: Studied, program: Program, clash: NDArray[np.bool_], wishes: tuple[Wish, ...], tell: Tell) -> None:
        self.s, self.program, self.clash, self.wishes, self.tell = s, program, clash, wishes, tell
        self.judge = Judge(s)
        self.made: list[Arrangement] = []
        self.signs: list[tuple[int, ...]] = []
        self.tried = 0
        self.barred: list[tuple[Ints, ...]] = []
        self.spoilt: Counter[str] = Counter()
        self.left = SEARCHES
        self.keys = self._keys()
        self.part = self._parts()
        self.may = np.ones(len(program.along), dtype=bool)
        for wish in wishes:
            for k, leaves in enumerate(wish.leaves):
                if leaves is not None:
                    self.may[program.first[k] : program.first[k + 1]] &= leaves
        near = s.build.stow.arranging.battery
        self.near_m = near.si if near is not None else None
        standing = [mode for mode in s.build.stow.modes if not mode.towing]
        gets_about = all(walks(s.build, s.facts, mode, AISLE_M) for mode in standing)
        self.wide_m = AISLE_M if standing and gets_about else None

    def _keys(self) -> tuple[int, ...]:
        """The pieces by which kinds differ: what one lies on first, then the heaviest that have a choice."""
        things = {thing.id: thing for thing in self.s.build.stow.things}
        spots = self.program.spots
        free = [k for k, of in enumerate(spots) if len(of) > 1]
        beds = [k for k in free if any(lying(things[id], self.s.build) for id in spots[k].piece.ids)]
        return tuple(sorted([*beds, *(k for k in free if k not in beds)][:KEYS]))

    def _parts(self) -> Ints:
        """In which part of the room each place of a key piece is: along, across and which way it is turned; -1 of the others."""
        room = room_of(self.s.build, self.s.facts)
        assert room is not None
        front, rear = room.span_m
        part = np.full(len(self.program.along), -1, dtype=np.int64)
        for k in self.keys:
            of = self.program.spots[k]
            middle = of.middles_m[:, 0]
            third = np.clip(((middle[:, 0] - front) / max(rear - front, 1e-9) * 3).astype(np.int64), 0, 2)
            side = np.where(np.abs(middle[:, 1]) <= CENTRE * room.half_m, 1, np.where(middle[:, 1] > 0, 2, 0))
            part[self.program.first[k] : self.program.first[k + 1]] = 3 * third + side
        return part

    def run(self) -> None:
        """Until three are found, or no more are met."""
        for words, allowed in asks_of(self.s):
            while len(self.made) < WANTED:
                self.tell(0.1 + 0.7 * len(self.made) / WANTED, f"arrangement {len(self.made) + 1} of {WANTED}, {words}")
                if not self._next(words, allowed):
                    break
            if self.made:
                self._bound(allowed)
                return

    def _next(self, words: str, allowed: Allowed) -> bool:
        """One more arrangement; False where none was met that spoils nothing."""
        most = max(len(self.keys) - 2, 0)
        while self.left > 0 and max(self.spoilt.values(), default=0) < SAME:
            self.left -= 1
            turn = SEARCHES - self.left
            asked = Asked(self.may, allowed, self.near_m, self.part, tuple(self.signs), most, tuple(self.barred))
            pool = (*self._proven(allowed), *found(self.program, self.clash, asked, seed=17 * len(self.made) + turn))
            if not pool:
                return False
            judged, narrow = 0, None
            for choice in pool:
                if judged >= JUDGED:
                    break
                if self._shut_out(choice):  # by what was learnt from the one before it
                    continue
                after = apply(self.s.build, ops_of(self.s.build, self.program.spots, choice))
                if not self._walks(after):
                    narrow = narrow or choice
                    continue
                judged += 1
                self.tell(None, f"judging whole builds, {self.tried + 1} so far")
                if self._judged(choice, after, words):
                    self.left = SEARCHES
                    self.spoilt.clear()
                    return True
            if narrow is not None:
                self._widen(narrow)
        return False

    def _proven(self, allowed: Allowed) -> tuple[Choice, ...]:
        """The best of all as the first, where the places are few enough to prove it."""
        if self.made or self.barred:
            return ()
        rows, top = wished(self.program, self.wishes, allowed, self.near_m)
        top[: len(self.may)][~self.may] = 0.0
        best = best_of_few(self.program, self.clash, rows, top)
        return (best[0],) if best is not None else ()

    def _walks(self, after: Build) -> bool:
        """Whether one still gets about as well as is asked, where one does in the build as it is."""
        if self.wide_m is None:
            return True
        return all(walks(after, self.s.facts, mode, self.wide_m) for mode in after.stow.modes if not mode.towing)

    def _shut_out(self, choice: Choice) -> bool:
        at = self.program.first[:-1] + np.array(choice)
        if all(place == of.now for place, of in zip(choice, self.program.spots, strict=True)):
            return True  # it stands so already
        if self.clash[np.ix_(at, at)].any() or not self.may[at].all():
            return True
        return any(all((places[:, None] == at).any() for places in barred) for barred in self.barred)

    def _judged(self, choice: Choice, moved: Build, words: str) -> bool:
        s, program = self.s, self.program
        after = study(moved, s.facts)
        self.tried += 1
        spoiled = self.judge.spoiled(after)
        if spoiled is not None or self.judge.leans_more(after):
            self.spoilt["it leans more than before" if spoiled is None else spoiled.title] += 1
            self._learn(choice, spoiled)
            return False
        at = [int(program.first[k] + c) for k, c in enumerate(choice)]
        tongue, lean = after.readings.chance, np.abs(after.readings.left_kg - after.readings.right_kg)
        rows = after.towed_rows
        wheels = (after.readings.left_kg + after.readings.right_kg)[rows]
        share = lean[rows] / np.where(wheels > 0, wheels, np.nan)
        self.made.append(
            Arrangement(
                puts=tuple(self._put(k, c) for k, c in enumerate(choice)),
                keys=tuple(program.spots[k].piece.id for k in self.keys),
                ops=ops_of(s.build, program.spots, choice),
                run_m=run_m(program, at),
                run_before_m=run_m(program, [int(program.first[k] + max(of.now, 0)) for k, of in enumerate(program.spots)]),
                cost_m=cost_of(program, at),
                bound_m=None,
                settled=self.judge.settled(after),
                asked=words,
                after=balls_of(after),
                least_chance=_known(tongue[rows], np.min),
                most_lean=_known(share, np.max),
            )
        )
        self.signs.append(signs(program, self.part, choice))
        return True

    def _learn(self, choice: Choice, spoiled: Finding | None) -> None:
        """What spoilt something is not met again: two things that were too near are kept further apart, one by itself is kept
        from that place, and all else is not met as it is.
        """
        where = spoiled.where if spoiled is not None else ()
        ends = {wire.id: (wire.start, wire.end) for wire in self.s.build.systems.wires}
        named = list(dict.fromkeys(id for place in where for id in ends.get(place, (place.split("/")[0],))))
        boxes = [box for box in (self._boxes_of(id) for id in named) if box is not None]
        learnt = False
        for other in boxes[1:]:
            learnt |= self._keep_apart(boxes[0], other, choice)
        movable = [k for k, _ in boxes if k >= 0]
        if not learnt and len({*movable}) == 1 and "shell" not in where:
            learnt = self._keep_off(movable[0], choice, FURTHER_M)
        if not learnt:
            self._bar(choice, range(len(choice)), 0.0)

    def _boxes_of(self, id: str) -> tuple[int, Floats] | None:
        """A thing's piece and boxes by place, (n, modes, 2, 3) [m]; -1 and where it is for one that stays; None for no thing."""
        for k, of in enumerate(self.program.spots):
            if id in of.piece.ids:
                return k, of.boxes[:, :, of.piece.ids.index(id)]
        thing = next((thing for thing in self.s.build.stow.things if thing.id == id), None)
        if thing is None:
            return None
        return -1, np.array([[stand_of(thing, mode).corners for mode in self.s.build.stow.modes]])

    def _keep_apart(self, one: tuple[int, Floats], other: tuple[int, Floats], choice: Choice) -> bool:
        """Two things are never again as near to each other as they are; False where neither moves, or both together."""
        (a, mine), (b, theirs) = one, other
        if a == b:
            return False
        gaps = gaps_m(mine, theirs)
        near = gaps <= gaps[choice[a] if a >= 0 else 0, choice[b] if b >= 0 else 0] + FURTHER_M
        near[self._now(a), self._now(b)] = False  # as it is drawn nothing is new
        first = self.program.first
        if a >= 0 and b >= 0:
            rows, columns = slice(first[a], first[a + 1]), slice(first[b], first[b + 1])
            self.clash[rows, columns] |= near
            self.clash[columns, rows] |= near.T
            return True
        k, shut = (a, near.any(axis=1)) if a >= 0 else (b, near.any(axis=0))
        kept = self.may[first[k] : first[k + 1]]
        if not (kept & ~shut).any():
            return False
        kept &= ~shut
        return True

    def _now(self, k: int) -> int | slice:
        """The place of a piece as it is drawn; none where that is none of its places."""
        if k < 0:
            return 0
        now = self.program.spots[k].now
        return now if now >= 0 else slice(0, 0)

    def _keep_off(self, k: int, choice: Choice, far_m: float) -> bool:
        """A piece never again stands within so much of where it stands, turned as it is; False where nothing else is left to it."""
        kept, near = self.may[self.program.first[k] : self.program.first[k + 1]], self._near(k, choice, far_m)
        near[self._now(k)] = False
        if not (kept & ~near).any():
            return False
        kept &= ~near
        return True

    def _near(self, k: int, choice: Choice, far_m: float) -> NDArray[np.bool_]:
        of, at = self.program.spots[k], choice[k]
        far = np.abs(of.middles_m[:, 0] - of.middles_m[at, 0]).max(axis=1)
        return np.asarray((far <= far_m + 1e-9) & (of.turn == of.turn[at]))

    def _bar(self, choice: Choice, pieces: Iterable[int], far_m: float) -> None:
        """Some pieces do not again stand together where they stand, or within so much of it."""
        spots, first = self.program.spots, self.program.first
        self.barred.append(tuple(first[k] + np.flatnonzero(self._near(k, choice, far_m)) for k in pieces if len(spots[k]) > 1))

    def _widen(self, choice: Choice) -> None:
        """The pieces without one of which one could walk do not again stand together so near to where they stand."""
        build = apply(self.s.build, ops_of(self.s.build, self.program.spots, choice))
        movers = [k for k, of in enumerate(self.program.spots) if len(of) > 1]
        culprits = [k for k in movers if self._walks(apply(build, delete_ops(build, self.program.spots[k].piece.ids)))]
        if not (len(culprits) == 1 and self._keep_off(culprits[0], choice, WIDEN_M)):
            self._bar(choice, culprits or range(len(choice)), WIDEN_M if culprits else 0.0)

    def _put(self, k: int, at: int) -> Put:
        of = self.program.spots[k]
        thing = next(thing for thing in self.s.build.stow.things if thing.id == of.piece.id)
        now = (round(float(of.x_m[at]), 4), round(float(of.y_m[at]), 4), round(float(of.z_m[at]), 4), int(of.turn[at]))
        part = int(self.part[self.program.first[k] + at])
        words = f"{THIRDS[part // 3]} {SIDES[part % 3]}" if part >= 0 else ""
        return Put(of.piece.id, of.piece.name, (thing.x.si, thing.y.si, thing.z.si, thing.turn), now, words)

    def _bound(self, allowed: Allowed) -> None:
        """What no arrangement on the grid undercuts, by the program with its whole numbers let go."""
        self.tell(0.92, "working out how good it could be at best")
        more, top = wished(self.program, self.wishes, allowed, self.near_m)
        rows = self.program.rows.joined(more)
        runs = msgspec.structs.replace(self.program, cost=np.where(np.arange(len(top)) < len(self.may), 0.0, self.program.cost))
        few = best_of_few(runs, self.clash, more, top)
        relaxed = solved(runs.cost, rows, top, np.zeros(len(top), dtype=bool), 1)
        if relaxed.values is None or not np.isfinite(relaxed.bound):
            return
        bound = few[1] if few is not None else relaxed.bound
        self.made = [
            msgspec.structs.replace(one, bound_m=max(min(round(bound, 6), one.run_m), 0.0))
            for one in sorted(self.made, key=lambda m: m.cost_m)
        ]

    def why(self) -> str:
        """Why nothing was found, in words."""
        if self.spoilt:
            most, times = self.spoilt.most_common(1)[0]
            return (
                f"{self.tried} arrangements were met that tow right, and each spoilt something else; {times} of them: {lower_first(most)}."
            )
        return "No arrangement was met that keeps to all of it."


def _known(values: Floats, of: object) -> float | None:
    known = values[np.isfinite(values)]
    return float(of(known)) if len(known) else None  # type: ignore[operator]


def run_m(program: Program, at: list[int]) -> float:
    """Metres of wires, hoses and pipes along the axes, without what moving costs."""
    return cost_of(program, at) - float(program.cost[at].sum())


def ops_of(build: Build, spots: tuple[Spots, ...], choice: Choice) -> tuple[Op, ...]:
    """The edits that put every piece where an arrangement has it; what stays keeps the words it was typed in."""
    things = {thing.id: thing for thing in build.stow.things}
    ops: list[Op] = []
    for of, at in zip(spots, choice, strict=True):
        if at == of.now:
            continue
        spot = (float(of.x_m[at]), float(of.y_m[at]), float(of.z_m[at]))
        for moved in moved_things(build, of.piece, spot, int(of.turn[at])):
            old = things[moved.id]
            for axis in ("x", "y", "z"):
                value = getattr(moved, axis).si
                if abs(value - getattr(old, axis).si) > 1e-4:
                    ops.append(set_to(f"stow.things.{moved.id}.{axis}", {"si": round(value, 4), "typed": None}))
            if moved.turn != old.turn:
                ops.append(set_to(f"stow.things.{moved.id}.turn", moved.turn))
    return tuple(ops)
