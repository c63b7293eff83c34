"""Builds beside each other by what one would trade: nights, kilograms, room, sheets, money, weeks, warmth."""

from __future__ import annotations

import math
from typing import Literal

import msgspec

from uncle_sled.core.document.edits import Op, apply, set_to
from uncle_sled.core.document.project import Build, Facts, Project
from uncle_sled.core.errors import SledError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.deciding.changes import changes_of
from uncle_sled.core.slow import Tell, nobody
from uncle_sled.core.studies.build.least_trip import least_trip
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.studies.compare_variants import standing_of
from uncle_sled.core.studies.cut.cut_from_stock import QUICK, plan_of
from uncle_sled.core.words import Words

MOST_NIGHTS = 14
Unit = Literal["nights", "kg", "m3", "sheets", "money", "weeks", "W"]


class Measure(msgspec.Struct, frozen=True):
    """What builds are held against each other by. better: 1: more is, -1: less is."""

    id: str
    name: str
    unit: Unit
    better: int


MEASURES = (
    Measure("nights", "Nights off the grid", "nights", 1),
    Measure("kg", "Weight, fullest case", "kg", -1),
    Measure("room", "Room inside", "m3", 1),
    Measure("sheets", "Sheets to buy", "sheets", -1),
    Measure("money", "Money", "money", -1),
    Measure("weeks", "Weeks until done", "weeks", -1),
    Measure("rolls", "Weeks until it rolls", "weeks", -1),
    Measure("loss", "Heat lost, coldest night", "W", -1),
)
BY_ID = {measure.id: measure for measure in MEASURES}
TRADES = (("nights", "kg"), ("room", "sheets"), ("money", "weeks"), ("loss", "kg"))


class Point(msgspec.Struct, frozen=True):
    """One build. ops: from the open build, for a ghost; variant: the id of one that is a variant of its own.

    values: by measure, None where nobody knows; stops, minds: things to stop for and to mind that the open build has not.
    """

    id: str
    says: str
    ops: tuple[Op, ...]
    variant: str
    values: dict[str, float | None]
    stops: int
    minds: int = 0

    def value(self, id: str) -> float | None:
        return self.values.get(id)


class Known(msgspec.Struct, frozen=True):
    """The open build first, then its variants and changes of one step; failed: changes that cannot be drawn."""

    points: tuple[Point, ...]
    failed: tuple[str, ...]


def values_of(build: Build, facts: Facts) -> dict[str, float | None]:
    """What a build is by every measure; a stay of 14 nights is looked at, whatever the brief asks."""
    long = apply(build, [set_to("brief.nights_off", MOST_NIGHTS)])
    standing = standing_of(long, facts)
    nights = standing.days_off_grid
    if nights is None and standing.off_grid_says.startswith("all "):
        nights = float(MOST_NIGHTS)
    room = None
    if standing.inside_length_m and standing.inside_width_m and standing.inside_height_m:
        room = standing.inside_length_m * standing.inside_width_m * standing.inside_height_m
    plan = plan_of(build, facts, QUICK)
    weeks = None
    if standing.finish is not None:
        weeks = (standing.finish - schedule_of(build, facts).begin).days / 7
    return {
        "nights": nights,
        "kg": _finite(standing.total_kg),
        "room": room,
        "sheets": float(sum(one.used for one in plan.plan.sheets)) if plan.plan.sheets else None,
        "money": standing.money,
        "weeks": weeks,
        "rolls": _rolls(build, facts),
        "loss": standing.loss_w,
    }


def _rolls(build: Build, facts: Facts) -> float | None:
    """Weeks until the least that the road asks of it is done."""
    schedule = schedule_of(build, facts)
    least = least_trip(study(build, facts), schedule, "roll")
    return (least.first - schedule.begin).days / 7 if least is not None else None


def told(id: str, value: float | None, words: Words) -> str:
    """A value in the builder's units; a dash where nobody knows it."""
    if value is None:
        return "–"
    unit = BY_ID[id].unit
    if unit == "kg":
        return words.kg(value)
    if unit == "m3":
        return f"{value / 0.3048**3:.0f} cu ft" if words.shown.imperial else f"{value:.2f} m³"
    if unit == "nights":
        return f"{value:.0f} or more nights" if value >= MOST_NIGHTS else f"{value:.1f} nights"
    if unit == "W":
        return f"{value:.0f} W"
    if unit == "money":
        return f"{value:,.0f}".replace(",", "\u00a0")
    return f"{value:.0f} {unit}" if unit == "sheets" else f"{value:.1f} weeks"


def _finite(value: float | None) -> float | None:
    return value if value is not None and math.isfinite(value) else None


Before = dict[str, set[tuple[str, tuple[str, ...]]]]  # keys of findings by how bad they are


def found_of(build: Build, facts: Facts) -> Before:
    """What there is to stop for and to mind."""
    found = findings(study(build, facts))
    return {severity: {finding.key for finding in found if finding.severity == severity} for severity in ("stop", "mind")}


def more(build: Build, facts: Facts, before: Before) -> tuple[int, int]:
    """How many new things there are to stop for, and to mind."""
    now = found_of(build, facts)
    return len(now["stop"] - before["stop"]), len(now["mind"] - before["mind"] - before["stop"])


def known_builds(project: Project, tell: Tell = nobody) -> Known:
    """The open build, its variants and every change of one step, each over everything: about a second each."""
    build, facts = project.build, project.facts
    s, words = study(build, facts), Words(build.brief.reading.shown())
    before = found_of(build, facts)
    points = [Point("", build.name, (), "", values_of(build, facts), 0)]
    others = [one for one in project.variants if one.id != build.id]
    changes = changes_of(s)
    many = len(others) + len(changes)
    for k, other in enumerate(others):
        tell(k / max(many, 1), f"variant {other.name}")
        points.append(Point(f"variant {other.id}", other.name, (), other.id, values_of(other, facts), *more(other, facts, before)))
    failed = []
    for k, change in enumerate(changes, len(others)):
        says = words.told(change.says)
        tell(k / max(many, 1), says)
        try:
            after = apply(build, change.ops)
            points.append(Point(f"{change.id} {k}", says, change.ops, "", values_of(after, facts), *more(after, facts, before)))
        except SledError:
            failed.append(says)
    return Known(tuple(points), tuple(failed))


def front(points: tuple[Point, ...], a: str, b: str) -> tuple[Point, ...]:
    """Those that no other is better than in both, of builds with nothing new to stop for; in the order of the first measure."""
    known = [p for p in points if p.value(a) is not None and p.value(b) is not None and not p.stops]
    better = (BY_ID[a].better, BY_ID[b].better)

    def score(p: Point) -> tuple[float, float]:
        x, y = p.value(a), p.value(b)
        assert x is not None and y is not None
        return better[0] * x, better[1] * y

    kept = []
    for p in known:
        x, y = score(p)
        beaten = any(
            (u >= x - 1e-9 and v >= y - 1e-9 and (u > x + 1e-9 or v > y + 1e-9)) for u, v in (score(q) for q in known if q is not p)
        )
        if not beaten:
            kept.append(p)
    return tuple(sorted(kept, key=lambda p: (score(p), p.id)))
