"""The keys ``schedule``, ``lift``, ``checklists`` and ``log`` of the report."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import msgspec

from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.at_the_dealer import to_survey
from uncle_sled.core.studies.build.chance import chance_of
from uncle_sled.core.studies.build.checklists import checklists
from uncle_sled.core.studies.build.days import days_of
from uncle_sled.core.studies.build.least_trip import Least, LeastTrip, least_trip
from uncle_sled.core.studies.build.lifting import lifts_of
from uncle_sled.core.studies.build.log import pairs_of
from uncle_sled.core.studies.build.schedule import moving_tasks, schedule_of
from uncle_sled.core.studies.build.standing import Standing, standing


def _then(one: Standing) -> dict[str, Any]:
    """What stands there when a task is done, tanks empty."""
    return {
        "brings_kg": round(one.brings_kg, 3),
        "total_kg": round(one.total_kg, 3),
        "tongue_kg": round(one.tongue_kg, 3) if one.tongue_kg is not None else None,
        "on_wheels": one.on_wheels,
        "centre_m": [round(v, 4) for v in one.centre_m] if one.centre_m is not None else None,
        "axle_kg": [round(v, 3) for v in one.axle_kg],
        "lifts_kg": round(one.lifts_kg, 2) if one.lifts_kg is not None else None,
        "open_to_rain": list(one.rain),
        "to_be_towed": None if one.tongue_kg is None or one.band_kg is None else not one.off_band,
    }


LEASTS: tuple[Least, ...] = ("roll", "sleep")


def _rounded(value: float | None, digits: int) -> float | None:
    return None if value is None else round(value, digits)


def _least(trip: LeastTrip) -> dict[str, Any]:
    """What must at least be done."""
    return {
        "least": trip.least,
        "tasks": list(trip.tasks),
        "hours": round(trip.hours, 2),
        "first": trip.first.isoformat(),
        "half": trip.half.isoformat() if trip.half is not None else None,
        "by_first_trip": trip.by,
        "lacks": list(trip.lacks),
        "then": _then(trip.stands) if trip.stands is not None else None,
    }


def work_report(s: Studied) -> dict[str, Any]:
    schedule = schedule_of(s.build, s.facts)
    chance = chance_of(schedule, days_of(s.build), s.build.work.deadline)

    moving = moving_tasks(s.build, s.facts)

    def day(at: float) -> str:
        return (schedule.begin + timedelta(days=int(at))).isoformat()

    after = {one.task: one for one in standing(s, schedule)}
    finish = schedule.finish_day
    return {
        "schedule": {
            "tasks": [
                {
                    "id": placed.task.id,
                    "name": placed.task.name,
                    "start": day(placed.begin),
                    "end": day(placed.end),
                    "critical": placed.task.id in moving,
                    "least_for": list(placed.task.least),
                    "wait": round(max(placed.free - placed.end, 0.0), 3),
                    "hours": round(placed.task.mean_h, 2),
                    "hands": placed.task.hands,
                    "done": bool(placed.task.done),
                    "then": _then(after[placed.task.id]),
                }
                for placed in schedule.placed
            ],
            "never": [{"id": id, "why": why} for id, why in schedule.never],
            "loop": list(schedule.loop),
            "finish_date": day(finish) if finish is not None and not schedule.loop else None,
            "chance_by_deadline": chance.by if chance is not None else None,
            "p50": chance.p50.isoformat() if chance is not None else None,
            "p80": chance.p80.isoformat() if chance is not None else None,
            "least": [_least(trip) for least in LEASTS if (trip := least_trip(s, schedule, least)) is not None and trip.tasks],
            "measure_first": [
                {"name": size.name, "drawn_m": round(size.drawn_m, 4), "within_m": _rounded(size.within_m, 4), "why": size.why}
                for size in to_survey(s)
            ],
        },
        "lift": [
            {
                "id": lifted.lift.id,
                "what": lifted.name,
                "way": lifted.lift.way,
                "mass_kg": round(lifted.mass_kg, 2) if not lifted.why else None,
                "sigma_kg": round(lifted.sigma_kg, 2) if not lifted.why else None,
                "hands": lifted.hands,
                "said": [msgspec.to_builtins(said) for said in lifted.said],
                "refusals": list(lifted.refusals),
                "why": lifted.why or None,
            }
            for lifted in lifts_of(s)
        ],
        "checklists": [
            {
                "name": checklist.name,
                "lines": [
                    {"id": c.id, "says": c.says, "on": c.tick.on if c.tick else None, "who": c.tick.who if c.tick else None}
                    for c in checklist.lines
                ],
            }
            for checklist in checklists(s.build, s.facts)
        ],
        "log": {
            "entries": [msgspec.to_builtins(entry) for entry in s.build.work.log],
            "pairs": [{"name": p.name, "unit": p.unit, "plan": p.plan, "fact": p.fact} for p in pairs_of(s)],
        },
    }
