"""When what is done: within hands, spaces, weather, cure and what has to arrive first.

Tasks are laid one after another into half hours in which there are hands enough, their space is free and the weather
allows it (serial schedule generation, Kelley 1963); a task may be taken up again on another day, a wait runs by the clock.
Orders by slack and by what follows are tried at once; beside the desk more of them are drawn about what follows (sampling by
biased priorities, Drexl 1991) and bettered by moving one task at a time, always the same ones, and the earliest finish is kept.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.reading.studied import Studied, whole
from uncle_sled.core.slow import Tell, nobody, slow
from uncle_sled.core.studies.build.days import FIRST_HOUR, HORIZON_DAYS, SLOT_H, Days, cured_h, days_of, parsed
from uncle_sled.core.studies.build.order import Critical, critical_path, loop_in, reaches, sorted_tasks
from uncle_sled.core.studies.build.tasks import Task, tasks_of

RAIN_EVERY = 2  # in a wet month every other day is dry enough
DRAWN, MOVED = 60, 180  # orders that are drawn, and single moves that are tried after that
SPREAD = 0.35  # of the drawn priorities, as a share, one sigma
SPACES = ("shop", "outside")
WARMEST_C = 100.0  # nothing is glued in more


class Placed(msgspec.Struct, frozen=True):
    """A task in the calendar. begin, end: days from the first [d], as fractions of a day by the clock; free: it has cured.

    days: on which it is worked; why: what it waited for, where it did not begin at once.
    """

    task: Task
    begin: float
    end: float
    free: float
    days: tuple[int, ...]
    why: str


class Schedule(msgspec.Struct, frozen=True):
    """loop: tasks that wait for each other, and then nothing is placed; never: tasks for which no day was found, and why."""

    begin: date
    placed: tuple[Placed, ...]
    critical: Critical
    loop: tuple[str, ...]
    never: tuple[tuple[str, str], ...]
    now: int  # day up to which it is written down
    moves: frozenset[str] | None = None  # tasks of which a day more moves the end; None: not tried

    @property
    def finish_day(self) -> int | None:
        """The day when all is done and cured; None where something never is."""
        return int(max((placed.free for placed in self.placed), default=0)) if self.placed and not self.never else None

    def of(self, id: str) -> Placed | None:
        """A task where it was placed; None where it was not."""
        return next((placed for placed in self.placed if placed.task.id == id), None)


class _Grid(msgspec.Struct, frozen=True):
    """Half hours of all days (slots,): how many hands work, their day, and the hour of the clock they begin at."""

    hands: NDArray[np.int64]
    day: NDArray[np.int64]
    clock: NDArray[np.float64]


@keep(most=4)
def _grid(days: Days) -> _Grid:
    day = np.repeat(np.arange(HORIZON_DAYS), days.slots)
    slot = np.tile(np.arange(days.slots), HORIZON_DAYS)
    return _Grid(np.repeat(days.hands, days.slots), day, day * 24.0 + FIRST_HOUR + slot * SLOT_H)


class Board:
    """How many hands are free in each half hour, and which space is."""

    def __init__(self, days: Days) -> None:
        grid = _grid(days)
        self.day, self.clock = grid.day, grid.clock
        self.hands: NDArray[np.int64] = grid.hands.copy()
        self.free: dict[str, NDArray[np.bool_]] = {space: np.ones(len(self.hands), dtype=bool) for space in SPACES}

    def first(self, known: _Known, early_h: float) -> NDArray[np.int64]:
        """The first free half hours of a task from an hour on, as many as it needs, fewer where there are no more."""
        allowed, free, hands, need = known.allowed, self.free[known.task.space], known.task.hands, known.need
        at, size, last = int(self.clock.searchsorted(early_h - 1e-9)), 8 * need + 256, len(self.clock)
        while True:
            end = min(at + size, last)
            found = (allowed[at:end] & free[at:end] & (self.hands[at:end] >= hands)).nonzero()[0][:need] + at
            if len(found) == need or end == last:
                return found
            size *= 4


class _Known(msgspec.Struct, frozen=True):
    """What of a task no order of the work changes. after: what it waits for; ready_h: hour from which it can be begun.

    need: half hours of work; allowed: (slots,) where its weather and hands are, whatever else is done then.
    """

    task: Task
    after: tuple[str, ...]
    ready_h: float | None
    need: int
    allowed: NDArray[np.bool_]


@keep(most=8)
def _known(tasks: Sequence[Task], days: Days) -> tuple[dict[str, _Known], dict[str, list[str]]]:
    """Each task by its id, and what follows it."""
    ids = {task.id for task in tasks}
    known: dict[str, _Known] = {}
    follow: dict[str, list[str]] = {id: [] for id in ids}
    alike: dict[object, NDArray[np.bool_]] = {}
    for task in tasks:
        outside, ready = task.space == "outside", parsed(task.ready)
        key = outside, task.least_c, task.dry and outside, task.hands
        if key not in alike:
            alike[key] = allowed_slots(task, days)
        known[task.id] = _Known(
            task,
            after=tuple(dict.fromkeys(id for id in task.after if id in ids)),
            ready_h=days.day_of(ready) * 24.0 if ready is not None else None,
            need=max(int(np.ceil(task.left_h / SLOT_H - 1e-9)), 1),
            allowed=alike[key],
        )
        for other in known[task.id].after:
            follow[other].append(task.id)
    return known, follow


def allowed_slots(task: Task, days: Days) -> NDArray[np.bool_]:
    """In which half hours (slots,) its weather and hands are, whatever else is done then."""
    ok, outside = np.ones(HORIZON_DAYS, dtype=bool), task.space == "outside"
    if task.least_c is not None:
        ok &= (days.outside_c if outside else days.shop_c) >= task.least_c
    if task.dry and outside:
        ok &= ~days.wet | (np.arange(HORIZON_DAYS) % RAIN_EVERY == 0)
    return np.repeat(ok, days.slots) & (_grid(days).hands >= task.hands)


def schedule_with(
    tasks: Sequence[Task], days: Days, order: Sequence[str], now: int, held_h: Mapping[str, float] | None = None
) -> tuple[tuple[Placed, ...], tuple[tuple[str, str], ...]]:
    """Tasks in the calendar, each after what it waits for, in an order of preference; and those that find no day.

    Args: held_h: hours from day 0 before which some task is not begun, to try what it being late does.
    """
    board = Board(days)
    rank = {id: k for k, id in enumerate(order)}
    known, follow = _known(tasks, days)
    waits = {id: len(one.after) for id, one in known.items()}  # for how many that are not settled yet
    placed: dict[str, Placed] = {}
    never: dict[str, str] = {}

    def settle(id: str, way: Placed | str) -> None:
        if isinstance(way, str):
            never[id] = way
        else:
            placed[id] = way
        for other in follow[id]:
            waits[other] -= 1

    # what is booked for a day takes its hands first
    queue = sorted(known, key=lambda id: (not known[id].task.fixed, rank.get(id, len(rank))))
    while queue:
        id = queue.pop(next((k for k, one in enumerate(queue) if not waits[one] or known[one].task.fixed), 0))
        one = known[id]
        task = one.task
        lost = next((other for other in one.after if other in never), None) if never else None
        if lost is not None and not task.fixed:
            settle(id, f"it waits for {known[lost].task.name.lower()}")
            continue
        if task.done:
            since = max((parsed(task.done) or days.begin), days.begin)
            end = float(days.day_of(since)) + 1.0
            settle(id, Placed(task, end - 1.0, end, end, (days.day_of(since),), "done"))
            continue
        early, why = now * 24.0, ""
        for other in one.after:
            if other in placed and placed[other].free * 24.0 > early:
                early, why = placed[other].free * 24.0, f"after {placed[other].task.name.lower()}"
        if one.ready_h is not None and one.ready_h > early:
            early, why = one.ready_h, task.because
        if task.fixed and one.ready_h is not None:
            early = one.ready_h
        if held_h is not None and held_h.get(id, early) > early:
            early, why = held_h[id], why or "late"
        at = board.first(one, early)
        if len(at) < one.need:
            settle(id, _why_never(task, days, one.allowed))
            continue
        board.hands[at] -= task.hands
        board.free[task.space][at] = False
        begin, end = float(board.clock[at[0]]), float(board.clock[at[-1]]) + SLOT_H
        free = cured_h(end, task.cure_h, task.floor_c, days.outside_c if task.space == "outside" else days.shop_c)
        if free is None:
            settle(
                id,
                f"it will not cure: never {{{task.floor_c:.0f} °C}} or more in this calendar"
                if task.floor_c is not None
                else "it never cures",
            )
            continue
        settle(id, Placed(task, begin / 24.0, end / 24.0, free / 24.0, tuple(dict.fromkeys(board.day[at].tolist())), why))
    return tuple([placed[task.id] for task in tasks if task.id in placed]), tuple(never.items())


def _why_never(task: Task, days: Days, allowed: NDArray[np.bool_]) -> str:
    if not (days.hands > 0).any():
        return "no day of the week is a working day"
    if not (days.hands >= task.hands).any():
        return f"it wants {task.hands} pairs of hands and there are never so many"
    if task.least_c is not None and not allowed.any():
        return f"it wants {{{task.least_c:.0f} °C}} and it is never so warm"
    return f"no day was found in {HORIZON_DAYS} days"


def schedule_of(build: Build, facts: Facts, best: bool = False, tell: Tell = nobody) -> Schedule:
    """The calendar of a build. Args: best: drawn orders are tried as well."""
    return _scheduled(sorted_tasks(tasks_of(build, facts)), days_of(build), _now_of(build), best, tell)


@keep(by_value("tasks"), "days", "last", "best", most=6)
def _scheduled(tasks: tuple[Task, ...], days: Days, last: date | None, best: bool, tell: Tell) -> Schedule:
    """Kept by what the tasks are, so that what only moves a thing about plans nothing again. Args: last: written down."""
    hours, waits = weights(tasks, days)
    loop = loop_in(tasks)
    critical = critical_path(tasks, hours, waits)
    now = max(min(days.day_of(last), HORIZON_DAYS - 1), 0) if last is not None else 0
    if loop:
        return Schedule(days.begin, (), critical, loop, (), now)
    orders: list[Sequence[str]] = list(orders_of(tasks, critical))
    if best:
        orders.append(_drawn(tasks, days, now, orders, critical, tell))
    made = [schedule_with(tasks, days, order, now) for order in orders]
    placed, never = min(made, key=lambda one: (len(one[1]), max((p.free for p in one[0]), default=0.0)))
    schedule = Schedule(days.begin, placed, critical, (), never, now)
    if not best:
        return schedule
    return msgspec.structs.replace(schedule, moves=_tried(tasks, days, tuple(map(tuple, orders)), now, schedule, tell))


def orders_of(tasks: Sequence[Task], critical: Critical) -> tuple[tuple[str, ...], ...]:
    """The two orders that are tried at once: by slack, and by what follows."""
    by_slack = sorted((task.id for task in tasks), key=lambda id: (critical.slack_h[id], critical.begin_h[id]))
    by_tail = sorted((task.id for task in tasks), key=lambda id: -critical.tail_h[id])
    return tuple(by_slack), tuple(by_tail)


LATE_H, LATER_D = 24.0, 0.01


def moves_the_end(tasks: Sequence[Task], days: Days, orders: Sequence[Sequence[str]], now: int, schedule: Schedule, id: str) -> bool:
    """Whether the end comes later when a task is begun a day later than planned, tried on the calendar.

    Helpers' days, weather, cure and what is booked stay as they are; the work is put in every order there is, and the end
    counts as moved only where it comes later in all of them.
    """
    task = schedule.of(id)
    if task is None or task.task.done or task.task.fixed:
        return False
    end = max((p.free for p in schedule.placed), default=0.0)
    held = {id: task.begin * 24.0 + LATE_H}
    for order in orders:
        placed, never = schedule_with(tasks, days, order, now, held)
        if len(never) <= len(schedule.never) and max((p.free for p in placed), default=0.0) <= end + LATER_D:
            return False
    return True


def _tried(tasks: Sequence[Task], days: Days, orders: Sequence[Sequence[str]], now: int, schedule: Schedule, tell: Tell) -> frozenset[str]:
    found = set()
    for at, placed in enumerate(schedule.placed):
        tell(0.85 + 0.15 * at / max(len(schedule.placed), 1), "trying what a day more does")
        if moves_the_end(tasks, days, orders, now, schedule, placed.task.id):
            found.add(placed.task.id)
    return frozenset(found)


def moving_tasks(build: Build, facts: Facts, ids: Sequence[str] | None = None) -> frozenset[str]:
    """Of some tasks, or of all, those of which a day more moves the end (of the two orders that are tried at once)."""
    tasks = sorted_tasks(tasks_of(build, facts))
    return _moving(tasks, days_of(build), _now_of(build), tuple(ids) if ids is not None else None)


def late_costs_d(build: Build, facts: Facts, id: str) -> float:
    """How many days sooner the end would come if what a task waits for were there, tried on the calendar; 0 or more."""
    return _late_costs(sorted_tasks(tasks_of(build, facts)), days_of(build), _now_of(build), id)


@keep(by_value("tasks"), "days", "last", "id", most=24)
def _late_costs(tasks: tuple[Task, ...], days: Days, last: date | None, id: str) -> float:
    schedule = _scheduled(tasks, days, last, best=False, tell=nobody)
    if schedule.loop or not schedule.placed:
        return 0.0
    late = next((task for task in tasks if task.id == id), None)
    if late is None:
        return 0.0
    # the same delivery may hold up more than one task
    there = tuple(
        msgspec.structs.replace(task, ready="", because="") if (task.ready, task.because) == (late.ready, late.because) else task
        for task in tasks
    )
    end = max(placed.free for placed in schedule.placed)
    tried = [schedule_with(there, days, order, schedule.now) for order in orders_of(tasks, schedule.critical)]
    best = min((max((p.free for p in placed), default=end) for placed, never in tried if len(never) <= len(schedule.never)), default=end)
    return max(end - best, 0.0)


@keep(by_value("tasks"), "days", "last", by_value("ids"), most=6)
def _moving(tasks: tuple[Task, ...], days: Days, last: date | None, ids: tuple[str, ...] | None) -> frozenset[str]:
    schedule = _scheduled(tasks, days, last, best=False, tell=nobody)
    if schedule.loop:
        return frozenset()
    orders = orders_of(tasks, schedule.critical)
    wanted = ids if ids is not None else tuple(placed.task.id for placed in schedule.placed)
    return frozenset(id for id in wanted if moves_the_end(tasks, days, orders, schedule.now, schedule, id))


def _now_of(build: Build) -> date | None:
    """The day up to which it is written down: of the last entry of work; None where nothing is."""
    logged = [parsed(entry.on) for entry in build.work.log if entry.kind == "work"]
    done = [parsed(change.done) for change in build.work.changes if change.done]
    return max((day for day in (*logged, *done) if day is not None), default=None)


def weights(tasks: Sequence[Task], days: Days) -> tuple[dict[str, float], dict[str, float]]:
    """Hours of work and of waiting of each task; a wait counts by the share of the clock that is worked, at its month's warmth."""
    share = days.worked_share
    half_year = np.sort(days.shop_c[:180])
    middle = float(half_year[(len(half_year) - 1) // 2] + half_year[len(half_year) // 2]) / 2
    hours, waits = {}, {}
    for task in tasks:
        hours[task.id] = task.left_h
        warm = min(max(middle, task.floor_c if task.floor_c is not None else -40.0), WARMEST_C)
        waits[task.id] = 0.0 if task.done else task.cure_h / 2.0 ** ((warm - 20.0) / 10.0) * share
    return hours, waits


def _drawn(tasks: Sequence[Task], days: Days, now: int, orders: Sequence[Sequence[str]], critical: Critical, tell: Tell) -> tuple[str, ...]:
    """The best order that is found by drawing and moving, judged on the calendar itself; the same for the same build."""

    def ends(order: Sequence[str]) -> tuple[int, float]:
        placed, never = schedule_with(tasks, days, order, now)
        return len(never), max((p.free for p in placed), default=0.0)

    ids = [task.id for task in tasks]
    if not ids:
        return ()
    rng = np.random.default_rng(7)
    tails = np.array([critical.tail_h[id] for id in ids])
    best_end, best = min(((ends(order), tuple(order)) for order in orders), key=lambda one: one[0])
    for k in range(DRAWN + MOVED):
        tell(0.8 * k / (DRAWN + MOVED), "trying orders of the work")
        if k < DRAWN:
            drawn = tails * np.exp(rng.normal(0.0, SPREAD, len(ids)))
            order = [ids[at] for at in np.argsort(-drawn, kind="stable")]
        else:
            order = list(best)
            order.insert(int(rng.integers(len(ids))), order.pop(int(rng.integers(len(ids)))))
        end = ends(order)
        if end < best_end:
            best_end, best = end, tuple(order)
    return best


@slow(whole, lane="schedule")
def best_schedule(s: Studied, tell: Tell) -> Schedule:
    """The calendar with drawn orders as well."""
    return schedule_of(s.build, s.facts, best=True, tell=tell)


def startable(schedule: Schedule) -> tuple[Placed, ...]:
    """What can be taken up first from now on: three of least slack, then what the longest wait hangs on."""
    open_ = [placed for placed in schedule.placed if not placed.task.done]
    by_day = sorted(open_, key=lambda placed: placed.begin)
    if not by_day:
        return ()
    done = {placed.task.id for placed in schedule.placed if placed.task.done}
    here = {placed.task.id for placed in schedule.placed}
    soon = [placed for placed in open_ if all(id in done or id not in here for id in placed.task.after)]
    critical = schedule.critical
    soon.sort(key=lambda placed: (placed.begin > by_day[0].begin + 7, critical.slack_h.get(placed.task.id, 0.0), -placed.task.cure_h))
    return tuple(soon[:3])


def prebuilt(schedule: Schedule) -> tuple[Placed, ...]:
    """What need not wait for what is late: not done, and not reached from it by any way through the tasks."""
    late = [placed for placed in schedule.placed if placed.task.because and not placed.task.done and placed.why == placed.task.because]
    if not late:
        return ()
    before = reaches([placed.task for placed in schedule.placed])
    ids = {placed.task.id for placed in late}
    return tuple(
        placed
        for placed in schedule.placed
        if not placed.task.done and not placed.task.fixed and placed.task.id not in ids and not before[placed.task.id] & ids
    )


def least_set(tasks: Sequence[Task], least: str) -> tuple[str, ...]:
    """Tasks that are marked as the least to roll or to sleep in it, in order: proposed by the table, changed by hand."""
    return tuple(task.id for task in sorted_tasks(tasks) if least in task.least)
