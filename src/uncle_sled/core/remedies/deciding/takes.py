"""What it would take: the cheapest set of changes of one step that reaches a goal, or how near they come and why no further.

Sets of up to three are ranked by what each change does by itself, as if that added up; the likeliest are then reckoned whole, since
it does not (a battery and a panel do more together than each). So it is the cheapest of those that were reckoned, not proven least.
"""

from __future__ import annotations

import itertools

import msgspec

from uncle_sled.core.document.edits import Op, apply
from uncle_sled.core.document.project import Project
from uncle_sled.core.errors import SledError
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.deciding.changes import Change, changes_of
from uncle_sled.core.remedies.deciding.goals import Goal, goal_of
from uncle_sled.core.remedies.deciding.points import BY_ID, Before, Point, found_of, more, told, values_of
from uncle_sled.core.slow import Tell, nobody
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.words import Words

MOST, RECKONED = 3, 12
NEAR = 0.45  # of what is wanted, by plain sums, from which on a set is worth reckoning


class Taken(msgspec.Struct, frozen=True):
    """One set of changes, reckoned whole. costs: money more than now, None where it is not known; stops, minds: new things to stop for and to mind."""

    says: tuple[str, ...]
    ops: tuple[Op, ...]
    value: float | None
    costs: float | None
    kg: float | None
    stops: int
    minds: int
    reaches: bool


class Takes(msgspec.Struct, frozen=True):
    """found: sets that reach it and bring nothing to stop for, the cheapest first. best: what came nearest, where none does.

    now: the measure as it is; why: in words, what keeps it; sets: how many were ranked; reckoned: how many of them whole.
    """

    goal: Goal
    now: float | None
    found: tuple[Taken, ...]
    best: Taken | None
    why: str
    sets: int
    reckoned: int


def what_it_takes(project: Project, tell: Tell = nobody, text: str = "") -> Takes:
    """The answer to a wish typed in words. Raises: EntryError: it is not understood."""
    build, facts = project.build, project.facts
    s = study(build, facts)
    goal = goal_of(text, schedule_of(build, facts).begin)
    now, before = values_of(build, facts), found_of(build, facts)
    base = now.get(goal.measure) if goal.measure else 0.0
    if base is None:
        return Takes(goal, None, (), None, f"{BY_ID[goal.measure].name} of the build as it is are not known, so nobody can say.", 0, 0)
    if goal.kind != "with" and _short(goal, base, base) <= 1e-9:
        return Takes(goal, base, (), None, "It is so already.", 0, 0)
    changes = list(changes_of(s))
    singles: dict[int, Point] = {}
    for k, change in enumerate(changes):
        tell(0.6 * k / max(len(changes), 1), Words(build.brief.reading.shown()).told(change.says))
        try:
            after = apply(build, change.ops)
            singles[k] = Point(change.id, change.says, change.ops, "", values_of(after, facts), *more(after, facts, before))
        except SledError:
            continue
    ranked = _ranked(goal, base, now, changes, singles)
    reckoned: list[Taken] = []
    for at, some in enumerate(ranked[:RECKONED]):
        if len([one for one in reckoned if one.reaches and not one.stops]) >= 3:
            break
        tell(0.6 + 0.4 * at / RECKONED, f"reckoning {len(some)} changes together")
        taken = _reckoned(project, goal, base, now, before, [changes[k] for k in some], singles[some[0]] if len(some) == 1 else None)
        if taken is not None:
            reckoned.append(taken)
    right = [one for one in reckoned if one.reaches and not one.stops]
    right = [one for one in right if not any(set(other.says) < set(one.says) for other in right)]  # what is more than needed
    good = sorted(right, key=lambda one: (one.costs or 0.0, one.minds, len(one.ops)))
    best = min(reckoned, key=lambda one: (one.stops, _left(goal, base, one.value)), default=None)
    return Takes(
        goal,
        base if goal.measure else None,
        tuple(good),
        None if good else best,
        "" if good else _why(goal, best, reckoned, Words(build.brief.reading.shown())),
        len(ranked),
        len(reckoned),
    )


def wanted(goal: Goal, base: float) -> float:
    """What the measure must reach, from what it is now."""
    return base - goal.value if goal.kind == "less" else goal.value


def _short(goal: Goal, base: float, value: float) -> float:
    """How much is missing, nought or less where it is reached."""
    if goal.kind == "least":
        return goal.value - value
    if goal.kind == "most":
        return value - goal.value
    if goal.kind == "less":
        return value - wanted(goal, base) if BY_ID[goal.measure].better < 0 else wanted(goal, base) - value
    return 0.0


def _left(goal: Goal, base: float, value: float | None) -> float:
    return float("inf") if value is None else max(_short(goal, base, value), 0.0)


def _ranked(
    goal: Goal, base: float, now: dict[str, float | None], changes: list[Change], singles: dict[int, Point]
) -> list[tuple[int, ...]]:
    """Sets that may reach it by plain sums, those that should first, then those that come near; each cheapest first."""
    missing = _short(goal, base, base)
    sign = BY_ID[goal.measure].better if goal.measure else 0
    gain = {k: sign * ((p.value(goal.measure) or base) - base) if goal.measure else 0.0 for k, p in singles.items()}
    cost = {k: (p.value("money") or 0.0) - (now.get("money") or 0.0) for k, p in singles.items()}
    if goal.kind == "with":
        must = [k for k in singles if changes[k].id == goal.change]
        others = [k for k in singles if changes[k].id.startswith("leave ")]
        with_it: list[tuple[int, ...]] = []
        for many in range(MOST):
            with_it.extend((k, *some) for k in must for some in itertools.combinations(others, many))
        return sorted(with_it, key=lambda some: (len(some), sum(max(cost[k], 0.0) for k in some)))
    useful = [k for k in singles if gain[k] > 1e-9]
    every: list[tuple[int, ...]] = []
    for many in range(1, MOST + 1):
        every.extend(itertools.combinations(useful, many))
    sets = [some for some in every if len({changes[k].id for k in some}) == len(some) and sum(gain[k] for k in some) >= NEAR * missing]

    def order(some: tuple[int, ...]) -> tuple[bool, float, int]:
        return sum(gain[k] for k in some) < missing - 1e-9, sum(max(cost[k], 0.0) for k in some), len(some)

    likely = sorted(sets, key=order)
    if likely or not useful:
        return likely
    by_gain = sorted(useful, key=lambda k: -gain[k])
    best: list[int] = []
    for k in by_gain:
        if changes[k].id not in {changes[b].id for b in best} and len(best) < MOST:
            best.append(k)
    return [tuple(best)]  # even all of the best together fall short: reckoned, so that the gap can be told


def _reckoned(
    project: Project, goal: Goal, base: float, now: dict[str, float | None], before: Before, some: list[Change], known: Point | None
) -> Taken | None:
    """A set of changes whole; None where they cannot be drawn together. Twins find their places one after another."""
    facts, words = project.facts, Words(project.build.brief.reading.shown())
    build, ops = project.build, ()
    try:
        for change in some:
            again = (
                next((c for c in changes_of(study(build, facts)) if c.id == change.id and c.says == change.says), change) if ops else change
            )
            build, ops = apply(build, again.ops), (*ops, *again.ops)  # type: ignore[assignment]
    except SledError:
        return None
    values = known.values if known is not None else values_of(build, facts)
    stops, minds = (known.stops, known.minds) if known is not None else more(build, facts, before)
    value = values.get(goal.measure) if goal.measure else 0.0
    money, was = values.get("money"), now.get("money")
    kg, kg_was = values.get("kg"), now.get("kg")
    return Taken(
        tuple(words.told(change.says) for change in some),
        ops,
        value,
        None if money is None or was is None else money - was,
        None if kg is None or kg_was is None else kg - kg_was,
        stops,
        minds,
        value is not None and _short(goal, base, value) <= 1e-6,
    )


def _why(goal: Goal, best: Taken | None, reckoned: list[Taken], words: Words) -> str:
    """Why nothing that was reckoned gets there."""
    if best is None:
        if goal.kind == "with":
            return f"There is nothing aboard of which one more could be taken ({goal.says}): put the first aboard on Stow."
        return "None of the changes of one step that are known does anything for it."
    if any(one.reaches for one in reckoned):
        return f"What reaches it brings {best.stops} new things to stop for: try it as a ghost and see them on the right."
    said = " and ".join(one[:1].lower() + one[1:] for one in best.says)
    if not goal.measure or best.value is None:
        return f"The nearest of them, {said}, does not bring {goal.says}."
    return f"The nearest of them, {said}, brings it to {told(goal.measure, best.value, words)}: not {goal.says}."
