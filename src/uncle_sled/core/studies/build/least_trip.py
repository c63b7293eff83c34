"""The least that must be done before it rolls, or before one sleeps in it: which tasks, the chance of the day, what it lacks then.

The marks are proposed by the table, from what the law asks of the road and the night of a bed, and changed by hand; with every marked
task goes all that it waits for. Source: the marks of ``catalogue/tasks.csv``; the chance as of the finish (``chance.py``).
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta
from typing import Literal

import msgspec
import numpy as np

from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.brought import brought
from uncle_sled.core.studies.build.chance import finish_of
from uncle_sled.core.studies.build.days import days_of, parsed
from uncle_sled.core.studies.build.schedule import Schedule
from uncle_sled.core.studies.build.standing import Standing, standing_of
from uncle_sled.core.studies.build.tasks import Task
from uncle_sled.core.studies.build.what_it_is import START

Least = Literal["roll", "sleep"]
DRAWS = 2000
TRIES = "measuring"  # kind of tasks that put nothing on


class LeastTrip(msgspec.Struct, frozen=True):
    """tasks: of the set that are not done, in the order of the calendar; hours: of work to come; first: the earliest day by the means.

    by: chance that it is all done by the day of the first trip, None without one; half: the day by which half of the draws are done;
    lacks: tasks that are not of it and bring something, not done either; stands: what it is then, tanks empty.
    """

    least: Least
    tasks: tuple[str, ...]
    hours: float
    first: date
    half: date | None
    by: float | None
    lacks: tuple[str, ...]
    stands: Standing | None


@keep("s.build", "s.facts", "schedule", by_value("least"), most=4)
def least_trip(s: Studied, schedule: Schedule, least: Least) -> LeastTrip | None:
    """None where nothing is marked, or no day is found for what is."""
    of = {placed.task.id: placed for placed in schedule.placed}
    wanted = with_all_before([placed.task for placed in schedule.placed], least)
    if not wanted or schedule.never or schedule.loop:
        return None
    mine = sorted((of[id] for id in wanted), key=lambda placed: (placed.end, placed.begin))
    left = [placed for placed in mine if not placed.task.done]
    last = max((placed.free for placed in left), default=0.0)
    finish = finish_of(schedule, days_of(s.build), frozenset(wanted), DRAWS)
    until = parsed(s.build.work.first_trip)
    by = float((finish <= (until - schedule.begin).days).mean()) if until is not None and finish is not None else None
    half = schedule.begin + timedelta(days=int(np.quantile(finish, 0.5))) if finish is not None else None
    done = frozenset(wanted) | {id for id, placed in of.items() if placed.task.done}
    brings = {one.by for one in brought(s.build, s.facts) if one.mass_kg > 0}
    lacks = tuple(
        placed.task.id
        for placed in sorted(schedule.placed, key=lambda p: p.begin)
        if placed.task.id not in done and placed.task.id in brings - {START}
    )
    return LeastTrip(
        least,
        tuple(placed.task.id for placed in left),
        hours=sum(placed.task.left_h for placed in left),
        first=schedule.begin + timedelta(days=int(last)),
        half=half,
        by=by,
        lacks=lacks,
        stands=standing_of(s, done),
    )


def with_all_before(tasks: Sequence[Task], least: Least) -> set[str]:
    """The marked tasks with all that they wait for. What only measures or tries waits for what is marked, not for the whole build."""
    of = {task.id: task for task in tasks}
    ask = [task.id for task in tasks if least in task.least]
    found: set[str] = set()
    while ask:
        id = ask.pop()
        if id in of and id not in found:
            found.add(id)
            before = of[id].after
            ask += [other for other in before if of[id].kind != TRIES or (other in of and least in of[other].least)]
    return found
