"""What can be tried: single moves and, where it is not welded yet, another place for the axle.

Every candidate is first judged by the linear statics, then the whole build with it is judged
again: a remedy clears its finding, adds no stop and makes no case worse, or it is not offered.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from uncle_sled.core.document.edits import Op, apply, set_to
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.balance import LEAN_SHARE
from uncle_sled.core.findings.finding import RANK, Finding, Remedy
from uncle_sled.core.findings.stow import FAR_M
from uncle_sled.core.findings.words import Words, lower_first
from uncle_sled.core.parts.from_stow import standing_size_m
from uncle_sled.core.studies.axle_placing import axle_placing
from uncle_sled.core.studies.balance import Support, independent_axle_loads_kg
from uncle_sled.core.studies.free_places import free_places, inner_profile
from uncle_sled.core.studies.load_cases import Floats
from uncle_sled.core.studies.reading import Studied, study

MOVABLE = {
    "ball-light",
    "ball-heavy",
    "ball-unsure",
    "leans",
    "tank-far",
    "over-rear-axle",
    "over-front-axle",
    "over-least-front",
    "over-least-front-share",
    "over-axle",
    "jack-lifts",
    "over-tyre",
}
TRIES = 14
LEAST_KG = 1.5
# How far into the band a move should land at best, as a share of its width.
DEPTHS = (0.35, 0.2, 0.08, 0.0)


@dataclass(frozen=True)
class Candidate:
    """An edit and what it costs in trouble: metres times how hard the thing is to move."""

    cost: float
    ops: tuple[Op, ...]
    says: Callable[[str], str]


def with_remedies(s: Studied, stopped: Callable[[], bool] = lambda: False) -> tuple[Finding, ...]:
    """The findings of a build, each with a remedy that was tried or the reason why there is none."""
    found = findings(s)
    settled = []
    search: _Search | None = None
    for one in found:
        if one.remedy or one.why_none or stopped():
            settled.append(one)
        elif one.code not in MOVABLE:
            settled.append(
                one.settled_by(
                    None,
                    "Only less weight or a higher rating helps."
                    if one.code.startswith("over-")
                    else "No edit settles this by itself.",
                )
            )
        else:
            search = search or _Search(s)
            remedy = search.remedy_for(one, found, stopped)
            settled.append(one.settled_by(remedy, None if remedy else search.why_none(one)))
    return tuple(settled)


class _Search:
    """Candidate places of every movable thing, worked out once for all findings of a build."""

    def __init__(self, s: Studied) -> None:
        self.s = s
        self.words = Words(s.build.brief.reading.shown())
        self.before = _state(s, None)
        inner = inner_profile(s.build)
        self.moves = [move for thing in s.build.stow.things if (move := _moves_of(s, thing, inner)) is not None]

    def remedy_for(self, one: Finding, found: tuple[Finding, ...], stopped: Callable[[], bool]) -> Remedy | None:
        for depth in DEPTHS:
            for candidate in sorted(self._candidates(one, depth), key=lambda c: c.cost)[:TRIES]:
                if stopped():
                    return None
                remedy = self._tried(candidate, one, found)
                if remedy:
                    return remedy
        return None

    def _candidates(self, one: Finding, depth: float) -> Iterator[Candidate]:
        if one.code.startswith("ball-"):
            yield from self._axle_moves(depth)
        for move in self.moves:
            if one.code == "tank-far" and move.thing.id not in one.where:
                continue
            yield from self._best_places(one, move, depth)

    def _axle_moves(self, depth: float) -> Iterator[Candidate]:
        s = self.s
        if s.build.rig.axle_place != "to be placed" or s.support is None:
            return
        placing = axle_placing(s)
        if placing is None or placing.window_m is None:
            return
        low, high = placing.window_m
        inset = depth * (high - low)
        target = round(min(max(s.support.mean_axle_m, low + inset), high - inset), 2)
        by = target - s.support.mean_axle_m
        if abs(by) < 0.005 or not low <= target <= high:
            return
        ops = tuple(
            set_to(f"rig.axles.{a.id}.station", {"si": round(a.station.si + by, 4), "typed": None})
            for a in s.build.rig.axles
        )
        yield Candidate(
            abs(by) * 6.0,
            ops,
            lambda after: (
                f"Weld the axle {self.words.m(abs(by))} further {'back' if by > 0 else 'forward'}, at {self.words.m(target)} from the ball: {after}."
            ),
        )

    def _best_places(self, one: Finding, move: _Moves, depth: float) -> Iterator[Candidate]:
        s, thing = self.s, move.thing
        state = _state(s, move)
        clears, worse = _clears(one.code, state, self.before, depth, s), _worse(state, self.before, s)
        if one.code == "tank-far" and s.support is not None:
            clears = np.abs(move.x + standing_size_m(thing, thing.turn)[0] / 2 - s.support.mean_axle_m) <= FAR_M
        good = np.flatnonzero(clears & ~worse)
        away = np.abs(move.x - thing.x.si) + np.abs(move.y - thing.y.si) + 2 * np.abs(move.z - thing.z.si)
        good = good[away[good] > 0.015]
        near = good[np.argsort(away[good])]
        for at in near[:2]:
            yield self._move(move, int(at), float(away[at]))
        # Equal jugs side by side swing the nose least, and are the habit to keep.
        for at in [k for k in near if self._tank_beside(move, int(k))][:1]:
            yield self._move(move, int(at), 0.3 * float(away[at]))

    def _tank_beside(self, move: _Moves, at: int) -> str | None:
        if move.thing.tank is None:
            return None
        return next((t.name for t in self.s.build.stow.things if t.id == move.beside[at] and t.tank), None)

    def _move(self, move: _Moves, at: int, away: float) -> Candidate:
        thing, words = move.thing, self.words
        places = {
            "x": (thing.x.si, float(move.x[at])),
            "y": (thing.y.si, float(move.y[at])),
            "z": (thing.z.si, float(move.z[at])),
        }
        ops = tuple(
            set_to(f"stow.things.{thing.id}.{axis}", {"si": round(new, 4), "typed": None})
            for axis, (old, new) in places.items()
            if abs(new - old) > 1e-4
        )
        dx, dy = places["x"][1] - places["x"][0], places["y"][1] - places["y"][0]
        name = lower_first(thing.name)
        told = self._tank_beside(move, at)
        hardness = 1 + move.mass_kg / 25 + (0.6 if thing.kind in ("bed", "cabinet", "appliance") else 0.0)

        def says(after: str) -> str:
            if told and abs(dx) >= 0.05:
                return f"Set the {name} beside the {lower_first(told)}, {words.m(abs(dx))} further {'back' if dx > 0 else 'forward'}: {after}."
            if told:
                return f"Set the {name} beside the {lower_first(told)}: {after}."
            if abs(dx) >= abs(dy):
                return f"Slide the {name} {words.m(abs(dx))} {'back' if dx > 0 else 'forward'}: {after}."
            return f"Move the {name} {words.m(abs(dy))} to the {'right' if dy > 0 else 'left'}: {after}."

        return Candidate(away * hardness, ops, says)

    def _tried(self, candidate: Candidate, one: Finding, found: tuple[Finding, ...]) -> Remedy | None:
        """The remedy, where the whole build judged again says that it is one."""
        tried = study(apply(self.s.build, candidate.ops), self.s.facts)
        after = findings(tried)
        if any(f.key == one.key for f in after) or makes_worse(found, after):
            return None
        return Remedy(candidate.says(self._reading(one, tried)), candidate.ops, readings_after(tried))

    def _reading(self, one: Finding, tried: Studied) -> str:
        """The number that the remedy leaves, in the finding's own case."""
        rows = (
            [row for row, case in enumerate(tried.table.cases) if case.id == one.case_id]
            or tried.towing_rows[:1]
            or [0]
        )
        row, b, words = rows[0], tried.readings, self.words
        case = lower_first(tried.table.cases[row].name)
        if tried.build.rig.carrier == "vehicle bed":
            return f"front axle {words.kg(float(b.axle_kg[row, 0]))}, rear {words.kg(float(b.axle_kg[row, 1]))} {case}"
        if one.code == "leans":
            return f"{words.bare_kg(float(b.left_kg[row]))} left, {words.kg(float(b.right_kg[row]))} right {case}"
        if one.code == "tank-far":
            lowest = min(tried.towing_rows, key=lambda r: float(b.tongue_kg[r]))
            return f"{words.kg(float(b.tongue_kg[lowest]))} on the ball at the least"
        return f"{words.kg(float(b.tongue_kg[row]))} on the ball {case}"

    def why_none(self, one: Finding) -> str:
        placing = axle_placing(self.s) if one.code.startswith("ball-") else None
        if one.code == "ball-unsure":
            return "No place makes the guesses surer: weigh what owns the doubt."
        if placing and placing.fighting_cases and placing.fighting_cases[0] != placing.fighting_cases[1]:
            names = [
                lower_first(next(c.name for c in self.s.table.cases if c.id == id)) for id in placing.fighting_cases
            ]
            return f"No single move settles it: {names[0]} and {names[1]} pull against each other. Bring the tanks nearer the axle first."
        if not self.moves:
            return "There is nothing aboard yet that could be moved."
        return "No single move inside the body settles every case. Try two, the heaviest first."


def makes_worse(before: tuple[Finding, ...], after: tuple[Finding, ...]) -> bool:
    """Whether judging again shows a finding that was not there, or a worse one."""
    was = {f.key: f for f in before}
    for f in after:
        old = was.get(f.key)
        if old is None and f.severity != "note":
            return True
        if old is not None and RANK[f.severity] < RANK[old.severity]:
            return True
    return False


def readings_after(tried: Studied) -> tuple[tuple[str, float | None], ...]:
    tongue = tried.readings.tongue_kg
    return tuple(
        (case.id, None if np.isnan(tongue[row]) else float(tongue[row])) for row, case in enumerate(tried.table.cases)
    )


@dataclass(frozen=True)
class _Moves:
    """Free places of one thing and what it weighs in each case."""

    thing: Thing
    x: Floats
    y: Floats
    z: Floats
    beside: tuple[str | None, ...]
    case_kg: Floats  # (cases,)
    rows: tuple[int, ...]  # cases in which its home place counts
    mass_kg: float


def _moves_of(s: Studied, thing: Thing, inner: object) -> _Moves | None:
    if thing.stays or thing.taken_out or min(thing.length.si, thing.width.si, thing.height.si) <= 0:
        return None
    columns = [at for at, id in enumerate(s.table.ids) if id.split("/")[0] == thing.id]
    case_kg = s.table.mass_kg[:, columns].sum(axis=1)
    if case_kg.max(initial=0.0) < LEAST_KG:
        return None
    elsewhere = {mode.id for mode in s.build.stow.modes if any(p.id == thing.id for p in mode.places)}
    rows = tuple(row for row, case in enumerate(s.table.cases) if case.mode.id not in elsewhere)
    free = free_places(s.build, thing, inner)  # type: ignore[arg-type]
    if not len(free.x_m):
        return None
    return _Moves(thing, free.x_m, free.y_m, free.z_m, free.beside, case_kg, rows, float(case_kg.max()))


@dataclass(frozen=True)
class _State:
    """Readings of the towing cases for every candidate place, shape (k, cases)."""

    tongue: Floats
    total: Floats
    axle_most: Floats  # heaviest axle
    axles: Floats  # (k, cases, axles)
    lean: Floats  # share


def _state(s: Studied, move: _Moves | None) -> _State:
    rows = s.towing_rows if s.build.rig.carrier == "ball" else list(range(len(s.table.cases)))
    t = s.table
    total = t.mass_kg[rows].sum(axis=1)[None, :]
    moment = (t.mass_kg[rows] * t.x_m[rows]).sum(axis=1)[None, :]
    roll = (t.mass_kg[rows] * t.y_m[rows]).sum(axis=1)[None, :]
    if move is not None:
        carried = move.case_kg[rows] * [row in move.rows for row in rows]
        moment = moment + (move.x - move.thing.x.si)[:, None] * carried
        roll = roll + (move.y - move.thing.y.si)[:, None] * carried
    support = s.support
    if support is None:
        none = np.zeros_like(moment)
        return _State(none, none, none, none[..., None], none)
    axles = _axle_loads(moment, np.broadcast_to(total, moment.shape), support)
    tongue = total - axles.sum(axis=2) if support.carrier == "ball" else np.zeros_like(moment)
    wheels = axles.sum(axis=2)
    lean = np.abs(2 * roll / (support.track_m or np.inf)) / np.where(wheels > 0, wheels, np.inf)
    return _State(tongue, np.broadcast_to(total, moment.shape), axles.max(axis=2), axles, lean)


def _axle_loads(moment: Floats, total: Floats, support: Support) -> Floats:
    if support.carrier == "vehicle bed":
        rear = moment / support.axles_m[1]
        return np.stack([total - rear, rear], axis=2)
    n = len(support.axles_m)
    if not support.independent:
        return np.repeat((moment / support.mean_axle_m / n)[:, :, None], n, axis=2)
    return independent_axle_loads_kg(moment, support)


def _band(s: Studied, state: _State, depth: float) -> tuple[Floats, Floats]:
    low = s.band.low * state.total
    high = s.band.high * state.total
    if s.band.limit_kg is not None:
        high = np.minimum(high, s.band.limit_kg)
    inset = depth * np.maximum(high - low, 0.0)
    return low + inset, high - inset


def _clears(code: str, state: _State, before: _State, depth: float, s: Studied) -> np.ndarray:
    """Which candidates take the finding away, by the linear statics."""
    low, high = _band(s, state, depth)
    if code == "ball-light":
        return np.asarray((state.tongue >= low).all(axis=1))
    if code == "ball-heavy":
        return np.asarray((state.tongue <= high).all(axis=1))
    if code == "ball-unsure":
        return np.asarray(((state.tongue >= low) & (state.tongue <= high)).all(axis=1))
    if code == "leans":
        return np.asarray((state.lean <= LEAN_SHARE * (1 - depth)).all(axis=1))
    if code == "over-tyre":
        return np.asarray(state.lean.max(axis=1) < before.lean.max() - 0.01)
    if code == "jack-lifts":
        return np.asarray((state.tongue > 0).all(axis=1))
    bed = s.build.rig.bed
    if code == "over-rear-axle" and bed.rear_rating:
        return np.asarray((state.axles[:, :, 1] <= bed.rear_rating.si).all(axis=1))
    if code == "over-front-axle" and bed.front_rating:
        return np.asarray((state.axles[:, :, 0] <= bed.front_rating.si).all(axis=1))
    if code.startswith("over-least-front"):
        return np.asarray(state.axles[:, :, 0].min(axis=1) > before.axles[:, :, 0].min() + 1)
    if code == "over-axle":
        return np.asarray(state.axle_most.max(axis=1) < before.axle_most.max() - 1)
    return np.ones(len(state.tongue), dtype=bool)


def _worse(state: _State, before: _State, s: Studied) -> np.ndarray:
    """Which candidates lean more than before and more than is allowed, or put a case further out of its band."""
    worse = (state.lean > np.maximum(before.lean, LEAN_SHARE)).any(axis=1)
    if s.build.rig.carrier == "ball":
        (low, high), (low0, high0) = _band(s, state, 0.0), _band(s, before, 0.0)
        light, light0 = np.maximum(low - state.tongue, 0), np.maximum(low0 - before.tongue, 0)
        heavy, heavy0 = np.maximum(state.tongue - high, 0), np.maximum(before.tongue - high0, 0)
        worse = worse | (light > light0 + 0.01).any(axis=1) | (heavy > heavy0 + 0.01).any(axis=1)
    return np.asarray(worse)
