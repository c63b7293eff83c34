"""The log: what was measured beside what was planned, and what follows from it for the next build."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.file_beside import PHOTO, beside_fault
from uncle_sled.core.document.work import LogEntry
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.tasks import tasks_of

MOST_PHOTO_BYTES = 20_000_000


class Pair(msgspec.Struct, frozen=True):
    """A number planned and the same measured. unit: h, money, kg, L, Wh, degC or as typed; plan: None where none was made."""

    name: str
    unit: str
    plan: float | None
    fact: float

    @property
    def ratio(self) -> float | None:
        """Fact over plan; None without a plan."""
        return self.fact / self.plan if self.plan else None


def measurable(s: Studied) -> dict[str, tuple[str, str, float | None]]:
    """What can be measured: name and unit in words, and what the plan says now."""
    rows = s.towing_rows
    b = s.readings
    made: dict[str, tuple[str, str, float | None]] = {}
    if rows:
        row = rows[0]
        total, ball = float(b.total_kg[row]), float(b.tongue_kg[row])
        case = s.table.cases[row].name
        made["m-total"] = (f"weight, {case}", "kg", total if total == total else None)
        made["m-ball"] = (f"on the ball, {case}", "kg", ball if ball == ball else None)
    shell = sum(part.mass_kg for part in s.parts if part.group == "shell")
    made["m-shell"] = ("weight of the bare body", "kg", shell or None)
    frame = sum(part.mass_kg for part in s.parts if part.group == "frame")
    made["m-frame"] = ("weight of the frame", "kg", frame or None)
    made["m-inside"] = ("temperature inside at night", "degC", s.build.brief.inside.si if s.build.brief.inside else None)
    made["m-water"] = ("water a day", "L", None)
    made["m-power"] = ("power a day", "Wh", None)
    return made


def pairs_of(s: Studied) -> tuple[Pair, ...]:
    """Hours of tasks that are done, money paid, and measures, each beside its plan. The plan is as it was written down."""
    made: list[Pair] = []
    tasks = {task.id: task for task in tasks_of(s.build, s.facts)}
    hours: dict[str, float] = {}
    for entry in s.build.work.log:
        if entry.hours and entry.of in tasks:
            hours[entry.of] = hours.get(entry.of, 0.0) + entry.hours
    for id, fact in hours.items():
        if tasks[id].done:
            made.append(Pair(tasks[id].name, "h", tasks[id].mean_h, fact))
    known = {bought.id: bought for bought in s.build.cut.bought}
    for said in known.values():
        if said.spent is not None and said.quote is not None:
            made.append(Pair(said.name or said.id, "money", said.quote, said.spent))
        elif said.spent is not None and said.likely is not None:
            made.append(Pair(said.name or said.id, "money", said.likely, said.spent))
    measures = measurable(s)
    for entry in s.build.work.log:
        if entry.kind == "measure" and entry.value is not None:
            name, unit, plan = measures.get(entry.of, (entry.of or entry.says[:40] or "measure", "", None))
            made.append(Pair(name, unit, entry.plan if entry.plan is not None else plan, entry.value))
        elif entry.kind == "money" and entry.money is not None and entry.plan is not None:
            made.append(Pair(entry.says[:40] or entry.of, "money", entry.plan, entry.money))
    return tuple(made)


def photo_fault(path: str) -> str | None:
    """Why a photo's path cannot be kept: it must lie beside the file, by a relative path that does not climb out."""
    return beside_fault(path, PHOTO, "photos/day-3.jpg", "is no picture; a name that ends in jpg or png")


class Again(msgspec.Struct, frozen=True):
    """The page "what I would do again": numbers that were far off, what went wrong and what helped, wishes."""

    pairs: tuple[Pair, ...]
    problems: tuple[LogEntry, ...]
    decisions: tuple[LogEntry, ...]
    wishes: tuple[LogEntry, ...]


def again_of(s: Studied) -> Again:
    """What the log says about doing it again: hours, money and kilos, planned against found."""
    log = s.build.work.log
    pairs = sorted(pairs_of(s), key=lambda pair: -abs((pair.ratio or 1.0) - 1.0))
    return Again(
        tuple(pairs),
        tuple(entry for entry in log if entry.kind == "problem"),
        tuple(entry for entry in log if entry.kind == "decision"),
        tuple(entry for entry in log if entry.kind == "wish"),
    )
