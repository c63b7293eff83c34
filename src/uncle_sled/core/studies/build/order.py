"""What must come before what: loops, the critical path, and the traps of a wrong order.

Critical path method: earliest and latest by longest paths over the graph of tasks, hours of work, waits counted by the
share of the clock that is worked. Check: A 3, B 2 after A, C 4 after A, D 2 after B and C, E 1 after D: 10, B has 2 of slack.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import lru_cache

import msgspec

from uncle_sled.core.studies.build.tasks import Task
from uncle_sled.core.tables import table


class Critical(msgspec.Struct, frozen=True):
    """Earliest begin and slack of every task in hours of work, and how long all of it is."""

    begin_h: dict[str, float]
    slack_h: dict[str, float]
    tail_h: dict[str, float]
    long_h: float

    def critical(self, id: str) -> bool:
        """Whether a day lost on it is a day lost in all."""
        return self.slack_h[id] < 1e-6


class Trap(msgspec.Struct, frozen=True):
    """An order that spoils work: what comes before, what after, and why."""

    id: str
    before: str
    after: str
    why: str


@lru_cache(maxsize=1)
def traps() -> tuple[Trap, ...]:
    """The shipped order traps: what must not come after what, and why."""
    return table("catalogue/traps.csv", Trap)


def loop_in(tasks: Sequence[Task]) -> tuple[str, ...]:
    """Ids of tasks that wait for each other in a ring, in its order; nothing where there is none."""
    after = {task.id: list(task.after) for task in tasks}
    state: dict[str, int] = {}
    for first in after:
        stack: list[tuple[str, int]] = [(first, 0)]
        path: list[str] = []
        while stack:
            id, at = stack.pop()
            if at == 0:
                if state.get(id) == 2:
                    continue
                state[id] = 1
                path.append(id)
            before = [one for one in after.get(id, []) if one in after]
            if at < len(before):
                stack.append((id, at + 1))
                other = before[at]
                if state.get(other) == 1:
                    return (*path[path.index(other) :], other)[::-1]
                if state.get(other) != 2:
                    stack.append((other, 0))
            else:
                state[id] = 2
                path.pop()
    return ()


def sorted_tasks(tasks: Sequence[Task]) -> tuple[Task, ...]:
    """Every task after those it waits for, else in the order that they came in; tasks of a ring are broken at its end."""
    by_id = {each_task.id: each_task for each_task in tasks}
    made: dict[str, Task] = {}

    def put(each_task: Task, seen: frozenset[str]) -> None:
        for id in each_task.after:
            if id in by_id and id not in made and id not in seen:
                put(by_id[id], seen | {each_task.id})
        made.setdefault(each_task.id, each_task)

    for task in tasks:
        put(task, frozenset((task.id,)))
    return tuple(made.values())


def critical_path(tasks: Sequence[Task], hours: Mapping[str, float], wait_h: Mapping[str, float]) -> Critical:
    """Args: hours: of work of each task; wait_h: of each task after its work, before what follows it can begin, in hours of work."""
    order = sorted_tasks(tasks)
    here = {each_task.id for each_task in order}
    begin: dict[str, float] = {}
    for task in order:
        begin[task.id] = max((begin[id] + hours[id] + wait_h.get(id, 0.0) for id in task.after if id in begin), default=0.0)
    long = max((begin[each_task.id] + hours[each_task.id] for each_task in order), default=0.0)
    tail: dict[str, float] = {each_task.id: 0.0 for each_task in order}
    for task in reversed(order):
        for id in task.after:
            if id in here:
                tail[id] = max(tail[id], wait_h.get(id, 0.0) + hours[task.id] + tail[task.id])
    slack = {each_task.id: long - begin[each_task.id] - hours[each_task.id] - tail[each_task.id] for each_task in order}
    return Critical(begin, slack, tail, long)


def reaches(tasks: Sequence[Task]) -> dict[str, set[str]]:
    """Of every task all those that are done before it, however far back."""
    order = sorted_tasks(tasks)
    before: dict[str, set[str]] = {}
    for task in order:
        before[task.id] = set()
        for id in task.after:
            if id in before:
                before[task.id] |= {id, *before[id]}
    return before


def sprung(tasks: Sequence[Task]) -> tuple[Trap, ...]:
    """Traps that this plan walks into: both tasks are in it, and nothing keeps them in their order."""
    before = reaches(tasks)
    done = {task.id for task in tasks if task.done}
    return tuple(
        trap
        for trap in traps()
        if trap.before in before and trap.after in before and trap.before not in before[trap.after] and trap.before not in done
    )
