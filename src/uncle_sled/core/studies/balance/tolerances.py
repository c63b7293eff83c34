"""How true must each measure be, so that the ball, the squareness and the doors come right nine times of ten, at the least measuring?

From the outcome backwards: what each measure does to each outcome is linear, an outcome has its room either way, a measure that
holds to t is normal with half of t as its sigma. From 1 mm up every measure is loosened step by step, the one that saves most
measuring for the chance it costs first, while nine of ten draws still come right. Measuring to t costs 1/t. How far that may be
from the least is told by a bound: for one outcome alone the least has a closed form (Lagrange), and outcomes that share no
measure add up. Source: tolerance allocation (any text of tolerancing).
"""

from __future__ import annotations

import math

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import leaf_in
from uncle_sled.core.reading.balance import normal_cdf
from uncle_sled.core.reading.band import band_kg
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Tell, nobody, slow
from uncle_sled.core.studies.balance.sweep import span_kg

Floats = NDArray[np.float64]

LEVELS_M = (0.001, 0.002, 0.003, 0.005, 0.010, 0.020, 0.030, 0.050, 0.100)
WANTED = 0.90
DRAWS, SEED = 4000, 11
SURE = 0.01  # over what is wanted, since what is loosened by some draws looks better in them than in others
TOLD_BY, TOLD_SEED = 20_000, 12
SQUARE = 0.001  # of the diagonal: a sheet's own corners are no truer (shop practice)
BINDS_M, TAKES_M = 0.002, 0.006  # a leaf has so much play until it binds; a bulb seal takes up so much more (shop practice)
HOLE_M = 0.003  # a bought door or window goes into a hole that is so much off, either way
LEAST_KG_M = 0.02  # what moves the ball less by a metre is no matter


class Outcome(msgspec.Struct, frozen=True):
    """What must come right. room: how far it may go down and up, in its own unit (kg or m); short: why it does not, as drawn."""

    id: str
    says: str
    room: tuple[float, float]
    unit: str
    short: str = ""


class Dimension(msgspec.Struct, frozen=True):
    """One measure. does: what a metre more of it does to each outcome that it touches. tolerance_m: what it must hold to, either way."""

    id: str
    name: str
    value_m: float
    does: tuple[tuple[str, float], ...]
    tolerance_m: float


class Tolerances(msgspec.Struct, frozen=True):
    """chance: of draws that come right; cost, bound: of measuring, one measure to 1 mm is 1, and what no set of them undercuts.

    reached: whether 1 mm each is enough; if not, narrow names the outcomes that fail most.
    """

    dimensions: tuple[Dimension, ...]
    outcomes: tuple[Outcome, ...]
    chance: float
    cost: float
    bound: float
    reached: bool
    narrow: tuple[str, ...]

    def of(self, id: str) -> float | None:
        """What a measure must hold to [m]; None where it is no matter or not known."""
        return next((one.tolerance_m for one in self.dimensions if one.id == id and self.reached), None)


Pull = dict[str, dict[str, float]]  # what a metre of a measure does to outcomes


@keep(most=4)
def outcomes_of(s: Studied) -> tuple[tuple[Outcome, ...], tuple[Dimension, ...]]:
    """What must come right, and all measures with what they do; their tolerances are not known yet (nought)."""
    outcomes: list[Outcome] = []
    named: dict[str, tuple[str, float]] = {}
    pulls: Pull = {}
    for made in (_ball(s), _square(s), _doors(s)):
        outcomes += made[0]
        for id, (name, value, does) in made[1].items():
            named[id] = (name, value)
            pulls.setdefault(id, {}).update(does)
    dimensions = tuple(Dimension(id, *named[id], tuple(does.items()), 0.0) for id, does in pulls.items() if does)
    return tuple(outcomes), dimensions


Made = tuple[list[Outcome], dict[str, tuple[str, float, dict[str, float]]]]


def _ball(s: Studied) -> Made:
    """The ball in every towed case over stations of axle, body and things; of a bed its rear axle."""
    if s.support is None:
        return [], {}
    ball = s.support.carrier == "ball"
    rows = s.towed_rows if ball else list(range(len(s.table.cases)))
    total = s.readings.total_kg[rows]
    load = s.readings.tongue_kg[rows] if ball else s.readings.axle_kg[rows, 1]
    low, high = band_kg(s.band, total) if ball else span_kg(s, total)
    arm = s.readings.effective_axle_m[rows]
    what = "on the ball" if ball else "on the rear axle"
    outcomes = []
    for k, row in enumerate(rows):
        case = s.table.cases[row]
        down, up = float(load[k] - low[k]), float(high[k] - load[k])
        short = "" if down > 0 and up > 0 else "as drawn it is out of its limits: no measuring mends that"
        outcomes.append(Outcome(f"ball/{case.id}", f"{case.name}, {what}", (down, up), "kg", short))
    kept = [(k, f"ball/{s.table.cases[row].id}") for k, row in enumerate(rows) if not outcomes[k].short]
    made: dict[str, tuple[str, float, dict[str, float]]] = {}
    sign = -1.0 if ball else 1.0

    def add(id: str, name: str, value: float, per_m: Floats) -> None:
        does = {outcome: float(per_m[k]) for k, outcome in kept if abs(per_m[k]) > LEAST_KG_M}
        if does:
            made[id] = (name, value, does)

    def mass(prefixes: set[str]) -> Floats:
        columns = [at for at, id in enumerate(s.table.ids) if id.split("/")[0] in prefixes]
        return np.asarray(s.table.mass_kg[rows][:, columns].sum(axis=1))

    if ball:
        moment = (s.table.mass_kg[rows] * s.table.x_m[rows]).sum(axis=1)
        add("axle", "Ball to the middle of the axles", s.support.mean_axle_m, moment / arm**2)
    homes = {mode.id: {place.id for place in mode.places} for mode in s.build.stow.modes}
    for thing in s.build.stow.things:
        if thing.taken_out or thing.inside is not None:
            continue
        ids = {thing.id, *(other.id for other in s.build.stow.things if other.inside == thing.id)}
        at_home = np.array([thing.id not in homes.get(s.table.cases[row].mode.id, set()) for row in rows], dtype=float)
        add(f"stow.things.{thing.id}.x", f"{thing.name}, its front edge", thing.x.si, sign * mass(ids) * at_home / arm)
    if s.build.shell.front is not None and s.build.shell.form != "none":
        shell = {part.id.split("/")[0] for part in s.parts if part.group == "shell"}
        add("shell.front", "Body's front", s.build.shell.front.si, sign * mass(shell) / arm)
    return outcomes, made


def _square(s: Studied) -> Made:
    """Both diagonals of the floor alike."""
    shell, body = s.build.shell, s.framed.body
    if body is None or shell.width is None or shell.form == "none" or body.width <= 0:
        return [], {}
    diagonal = math.hypot(body.length, body.width)
    room = SQUARE * diagonal
    outcome = Outcome("square", "Floor, one diagonal against the other", (room, room), "m")
    return [outcome], {
        "diagonal 1": ("Floor, diagonal from the left front", diagonal, {"square": 1.0}),
        "diagonal 2": ("Floor, diagonal from the right front", diagonal, {"square": -1.0}),
    }


def _doors(s: Studied) -> Made:
    """Leaves that neither bind nor stand off their seal, and holes that what is bought goes into."""
    outcomes, made = [], {}
    library = library_of(s.facts.materials)
    framed = framed_of(s.build, s.facts)
    cuts = {cut.id for cut in framed.cuts if cut.good}
    for opening in s.build.shell.openings:
        if opening.kind not in ("door", "hatch", "window") or opening.id not in cuts:
            continue
        leaf = leaf_in(framed, opening, library)
        own = leaf is not None and not leaf.fault
        for side, wide in (("width", opening.width.si), ("height", opening.height.si)):
            id = f"{opening.id}/{side}"
            name = f"{opening.name}, hole {'wide' if side == 'width' else 'high'}"
            if own and leaf is not None:
                outcomes.append(Outcome(id, f"{opening.name} shuts, {side}", (2 * BINDS_M, TAKES_M), "m"))
                made[f"shell.openings.{opening.id}.{side}"] = (name, wide, {id: 1.0})
                across = leaf.width_m if side == "width" else leaf.height_m
                made[f"leaf/{id}"] = (f"{opening.name}, leaf {'wide' if side == 'width' else 'high'}", across, {id: -1.0})
            else:
                outcomes.append(Outcome(id, f"{opening.name} goes in, {side}", (HOLE_M, HOLE_M), "m"))
                made[f"shell.openings.{opening.id}.{side}"] = (name, wide, {id: 1.0})
    return outcomes, made


def chance_of(outcomes: tuple[Outcome, ...], dimensions: tuple[Dimension, ...], draws: int = DRAWS, seed: int = SEED) -> float:
    """Share of draws in which every outcome that can come right does."""
    good = [outcome for outcome in outcomes if not outcome.short]
    pull = _pull(good, dimensions)
    sigma = np.array([one.tolerance_m for one in dimensions]) / 2
    drawn = np.random.default_rng(seed).standard_normal((draws, len(dimensions)))
    off = (drawn * sigma) @ pull
    low, high = np.array([o.room[0] for o in good]), np.array([o.room[1] for o in good])
    return float(((off >= -low) & (off <= high)).all(axis=1).mean()) if good else 1.0


def _pull(outcomes: list[Outcome], dimensions: tuple[Dimension, ...]) -> Floats:
    """What a metre of every measure does to every outcome, (measures, outcomes)."""
    at = {outcome.id: k for k, outcome in enumerate(outcomes)}
    pull = np.zeros((len(dimensions), len(outcomes)))
    for i, one in enumerate(dimensions):
        for id, per_m in one.does:
            if id in at:
                pull[i, at[id]] = per_m
    return pull


def _reads(s: Studied) -> tuple[object, ...]:
    """What tolerances depend on."""
    return s.build.stow, s.build.rig, s.build.shell, s.build.brief, s.build.road, s.facts


@slow(_reads)
def tolerances(s: Studied, tell: Tell = nobody) -> Tolerances:
    """What every measure must hold to."""
    tell(None, "loosening every measure")
    return tolerances_of(s)


@keep("s.build.stow", "s.build.rig", "s.build.shell", "s.build.road.corrections", "s.facts.materials", by_value("s.band"), most=4)
def tolerances_of(s: Studied) -> Tolerances:
    """The same, for whoever prints it."""
    outcomes, dimensions = outcomes_of(s)
    good = [outcome for outcome in outcomes if not outcome.short]
    pull = _pull(good, dimensions)
    groups = _groups(pull)
    found = np.full(len(dimensions), LEVELS_M[0])
    drawn = np.random.default_rng(SEED).standard_normal((DRAWS, len(dimensions)))
    low, high = np.array([o.room[0] for o in good]), np.array([o.room[1] for o in good])
    narrow: list[str] = []
    able: list[int] = []
    for measures, ends in groups:
        failed = _failing(pull[np.ix_(measures, ends)], low[ends], high[ends], drawn[:, measures])
        narrow += [good[ends[o]].says for o in failed]
        able += [] if failed else measures
    if able:
        ends = [o for measures, ends in groups if measures[0] in able for o in ends]
        levels = _loosened(pull[np.ix_(able, ends)], low[ends], high[ends], drawn[:, able])
        found[able] = np.array(LEVELS_M)[levels]
    made = tuple(msgspec.structs.replace(one, tolerance_m=float(t)) for one, t in zip(dimensions, found, strict=True))
    cost = float((0.001 / found).sum())
    bound = sum(_least_cost(pull[np.ix_(measures, ends)], [good[o].room for o in ends]) for measures, ends in groups)
    order = tuple(sorted(made, key=lambda one: (one.tolerance_m, -abs(one.does[0][1]))))
    chance = chance_of(outcomes, made, TOLD_BY, TOLD_SEED)
    return Tolerances(order, outcomes, chance, cost, bound=min(bound, cost), reached=not narrow, narrow=tuple(narrow))


def _groups(pull: Floats) -> list[tuple[list[int], list[int]]]:
    """Measures and outcomes that hang together."""
    left, groups = set(range(len(pull))), []
    while left:
        measures, ends = {min(left)}, set[int]()
        while True:
            more_ends = {int(o) for i in measures for o in np.flatnonzero(pull[i])}
            more = {int(i) for o in more_ends for i in np.flatnonzero(pull[:, o])}
            if more == measures and more_ends == ends:
                break
            measures, ends = measures | more, more_ends
        left -= measures
        if ends:
            groups.append((sorted(measures), sorted(ends)))
    return groups


def _right(off: Floats, low: Floats, high: Floats) -> float:
    return float(((off >= -low) & (off <= high)).all(axis=1).mean())


def _failing(pull: Floats, low: Floats, high: Floats, drawn: Floats) -> list[int]:
    """Outcomes of a group that fail too often where every measure is as true as can be."""
    off = (drawn * LEVELS_M[0] / 2) @ pull
    if _right(off, low, high) >= WANTED:
        return []
    often = ((off < -low) | (off > high)).mean(axis=0)
    return np.flatnonzero(often >= min(often.max(), (1 - WANTED) / 2)).tolist()


def _loosened(pull: Floats, low: Floats, high: Floats, drawn: Floats) -> NDArray[np.int64]:
    """Level of each measure, (measures,): loosened while so many draws come right, what saves most for its chance first."""
    levels = np.zeros(len(pull), dtype=np.int64)
    sigma = np.array(LEVELS_M) / 2
    touched = [np.flatnonzero(row) for row in pull]
    off = (drawn * sigma[0]) @ pull
    now = _right(off, low, high)

    def loosened(i: int) -> float:
        """Share of draws that come right with one measure a level looser."""
        step, ends = sigma[levels[i] + 1] - sigma[levels[i]], touched[i]
        tried = off[:, ends] + step * drawn[:, [i]] * pull[i, ends]
        broken = ((tried < -low[ends]) | (tried > high[ends])).any(axis=1)
        others = np.setdiff1d(np.arange(len(low)), ends)
        broken |= ((off[:, others] < -low[others]) | (off[:, others] > high[others])).any(axis=1)
        return float(1 - broken.mean())

    def worth(i: int, chance: float) -> float:
        saved = 0.001 / LEVELS_M[levels[i]] - 0.001 / LEVELS_M[levels[i] + 1]
        return saved / max(now - chance, 1e-6)

    # what it was worth when it was looked at last: only the one that seems best is looked at again
    seems = dict.fromkeys(range(len(pull)), np.inf)
    while seems:
        i = max(seems, key=lambda k: (seems[k], -k))
        chance = loosened(i)
        if chance < WANTED + SURE:  # a chance that is gone does not come back
            del seems[i]
            continue
        seems[i] = worth(i, chance)
        if seems[i] < max((value for k, value in seems.items() if k != i), default=-np.inf):
            continue
        off = off + (sigma[levels[i] + 1] - sigma[levels[i]]) * drawn[:, [i]] * pull[i]
        levels[i] += 1
        now = chance
        if levels[i] == len(LEVELS_M) - 1:
            del seems[i]
        else:
            seems[i] = np.inf
    return levels


def _least_cost(pull: Floats, rooms: list[tuple[float, float]]) -> float:
    """What no set of tolerances of a group can cost less: the hardest of its outcomes alone, each measure to any t.

    Least of sum 1/t with sum (s t / 2)^2 = V: (sum s^(2/3))^(3/2) / sqrt(4 V), by Lagrange; V from the chance of that outcome.
    """
    best = 0.0
    for o, (low, high) in enumerate(rooms):
        s = np.abs(pull[:, o])
        sigma = sigma_within(low, high, WANTED)
        if sigma > 0 and s.any():
            best = max(best, 0.001 * float((s ** (2 / 3)).sum()) ** 1.5 / (2 * sigma))
    return best


def sigma_within(low: float, high: float, chance: float) -> float:
    """The largest sigma with which a normal error stays between -low and high so often."""
    small, large = 0.0, 10.0 * max(low, high, 1e-9)
    for _ in range(80):
        middle = (small + large) / 2
        within = normal_cdf(np.array([high / middle]))[0] - normal_cdf(np.array([-low / middle]))[0]
        small, large = (middle, large) if within >= chance else (small, middle)
    return small
