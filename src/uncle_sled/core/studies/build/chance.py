"""The finish as a chance: hours drawn task by task, late together, sent through the whole graph as the hands do it.

Every task is drawn from a beta of the classic mean and sd, all of them times one common lognormal factor of sd 0.15
(work notes); arcs of the calendar keep two tasks apart that the same hands or space do one after the other. Check: two
parallel paths of 10 +- 2 end at 11.13 on average.
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.engine import keep
from uncle_sled.core.studies.build.days import SLOT_H, Days, parsed
from uncle_sled.core.studies.build.order import sorted_tasks
from uncle_sled.core.studies.build.schedule import Placed, Schedule, weights
from uncle_sled.core.studies.build.tasks import Task

DRAWS = 5000
COMMON = 0.15
Floats = NDArray[np.float64]


class Chance(msgspec.Struct, frozen=True):
    """days: (draws,) when it is finished, sorted, days from the first; by: chance by the deadline, None without one.

    movers: tasks whose hours move the finish most, with the share of its spread (rank correlation squared).
    """

    begin: date
    days: tuple[float, ...]
    p50: date
    p80: date
    by: float | None
    deadline: date | None
    movers: tuple[tuple[str, float], ...]


def shape(low: float, likely: float, high: float) -> tuple[float, float] | None:
    """alpha and beta with the classic mean and sd; None where low is high. Check 2, 4, 9: 2.5948, 4.6706."""
    if high - low < 1e-9:
        return None
    u = ((low + 4 * likely + high) / 6 - low) / (high - low)
    v = 1 / 6
    both = u * (1 - u) / v**2 - 1
    return u * both, (1 - u) * both


def common_of(draws: int, seed: int = 11, common: float = COMMON) -> Floats:
    """By how much one person is late with everything, (draws,), mean 1."""
    if not common:
        return np.ones(draws)
    return np.exp(np.random.default_rng(seed).normal(-(common**2) / 2, common, draws))


def drawn(tasks: Sequence[Task], draws: int = DRAWS, seed: int = 11, common: float = COMMON) -> dict[str, Floats]:
    """Hours still to be worked of every task, (draws,) each."""
    rng = np.random.default_rng(seed + 1)
    late = common_of(draws, seed, common)
    made = {}
    for task in tasks:
        if task.done:
            made[task.id] = np.zeros(draws)
            continue
        of = shape(task.low, task.likely, task.high)
        hours = np.full(draws, task.likely) if of is None else task.low + (task.high - task.low) * rng.beta(*of, draws)
        made[task.id] = np.maximum(hours * late - task.logged, 0.1 * hours)
    return made


def through(
    order: Sequence[Task], hours: dict[str, Floats], waits: dict[str, float], arcs: dict[str, set[str]], early: dict[str, float]
) -> Floats:
    """When all is done, (draws,), in the unit of the hours. Args: arcs: of each task what must be done before it."""
    end: dict[str, Floats] = {}
    draws = len(next(iter(hours.values()))) if hours else 1
    last = np.zeros(draws)
    for task in order:
        begin = np.full(draws, early.get(task.id, 0.0))
        for id in arcs.get(task.id, set()):
            if id in end:
                begin = np.maximum(begin, end[id] + waits.get(id, 0.0) * (id in task.after))
        end[task.id] = begin + hours[task.id]
        last = np.maximum(last, end[task.id] + waits.get(task.id, 0.0))
    return last


def _arcs(order: Sequence[Placed], hands: int) -> dict[str, set[str]]:
    """Of each task what must be done before it: what it waits for, and whoever took its hands or its space in the calendar.

    Of those that crowd it only who waits for none of the others: the rest have ended before these begin, however long all take.
    """
    at = {placed.task.id: k for k, placed in enumerate(order)}
    ended = [0] * len(order)  # a bit for each task that has ended when this one begins
    arcs: dict[str, set[str]] = {}
    for k, placed in enumerate(order):
        arcs[placed.task.id] = set(placed.task.after)
        for id in placed.task.after:
            if at.get(id, k) < k:
                ended[k] |= ended[at[id]] | 1 << at[id]
        for j in range(k - 1, -1, -1):
            before = order[j]
            crowded = before.task.space == placed.task.space or before.task.hands + placed.task.hands > hands
            if crowded and not ended[k] >> j & 1 and before.end <= placed.begin + 1e-9 and not before.task.done:
                arcs[placed.task.id].add(before.task.id)
                ended[k] |= ended[j] | 1 << j
    return arcs


class _Drawn(msgspec.Struct, frozen=True, eq=False):
    """Days on which it is finished, in the order of the draws, and what went into them."""

    days: Floats
    total_h: Floats
    hours: dict[str, Floats]


def _draw(schedule: Schedule, days: Days, draws: int, of: frozenset[str] | None) -> _Drawn | None:
    """Every draw through the calendar. Args: of: only these tasks are done, in its order; None: all."""
    placed_here = [placed for placed in schedule.placed if of is None or placed.task.id in of]
    if not placed_here or schedule.never or schedule.loop:
        return None
    tasks = sorted_tasks([placed.task for placed in placed_here])
    hours = drawn(tasks, draws)
    _, waits = weights(tasks, days)
    order = sorted(placed_here, key=lambda task: task.begin)
    arcs = _arcs(order, int(days.hands.max()))
    worked = np.flatnonzero(days.hands > 0)
    per_day = days.slots * SLOT_H
    now_h = float(np.searchsorted(worked, schedule.now)) * per_day
    early = {}
    for placed in order:
        ready = parsed(placed.task.ready)
        at = max(days.day_of(ready), schedule.now) if ready is not None and not placed.task.done else schedule.now
        early[placed.task.id] = max(float(np.searchsorted(worked, at)) * per_day - now_h, 0.0)
    by_begin = [task.task for task in order]
    # helpers that come on few days are waited for: as much longer as the calendar took over the bare hours
    mean = {task.task.id: np.array([task.task.left_h]) for task in order}
    bare = float(through(by_begin, mean, waits, arcs, early)[0])
    finish_day = (schedule.finish_day or 0) if of is None else max((int(placed.free) for placed in order), default=0)
    real = max(float(np.searchsorted(worked, finish_day)) * per_day - now_h, 1e-6)
    # of a part of the tasks the calendar does others in between: who does the least first does not wait for them
    stretch = max(real / bare, 1.0) if bare > 0 and of is None else 1.0
    total = through(by_begin, hours, waits, arcs, early) * stretch + now_h
    index = np.minimum((total / per_day).astype(np.int64), len(worked) - 1)
    return _Drawn(worked[index].astype(np.float64), total, hours)


def finish_of(schedule: Schedule, days: Days, of: frozenset[str], draws: int = DRAWS) -> Floats | None:
    """Days from the first on which these tasks are all done where nothing else is done before them, (draws,); None without any."""
    made = _draw(schedule, days, draws, of)
    return made.days if made is not None else None


@keep("schedule", "days", "deadline", "draws", most=4)
def chance_of(schedule: Schedule, days: Days, deadline: str, draws: int = DRAWS) -> Chance | None:
    """The chance curve of a calendar; None where nothing is left to be placed."""
    made = _draw(schedule, days, draws, None)
    if made is None:
        return None
    tasks = sorted_tasks([task.task for task in schedule.placed])
    hours, total = made.hours, made.total_h
    finish = made.days.copy()
    finish.sort()
    until = parsed(deadline)
    by = float((finish <= days.day_of(until)).mean()) if until is not None else None
    late = common_of(draws)  # what they all share says nothing of one of them
    ranks = np.argsort(np.argsort(total / late))
    movers = []
    for task in tasks:
        if not task.done and hours[task.id].std() > 1e-9:
            mine = np.argsort(np.argsort(hours[task.id] / late)).astype(np.float64)
            r = float(np.corrcoef(mine, ranks.astype(np.float64))[0, 1])
            movers.append((task.id, r * r))
    movers.sort(key=lambda one: -one[1])
    p50, p80 = (days.begin + timedelta(days=int(np.quantile(finish, share))) for share in (0.5, 0.8))
    return Chance(days.begin, tuple(float(one) for one in finish), p50=p50, p80=p80, by=by, deadline=until, movers=tuple(movers[:5]))
