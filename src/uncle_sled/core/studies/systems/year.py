"""The same stay in each month of the year, at the place: how many nights hold, the worst month, and what would carry it.

Each month by its middle day's sun, with the nights, loads and coldest night of Brief (a summer night is warmer and gives more).
Source: the hourly balance of the stay.
"""

from __future__ import annotations

import msgspec
from msgspec.structs import replace

from uncle_sled.core.document.project import Build
from uncle_sled.core.engine import keep
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Tell, slow
from uncle_sled.core.studies.systems.sizing import Needs, needs_under
from uncle_sled.core.studies.systems.stay import power_key, stay_tried
from uncle_sled.core.studies.systems.sun import skies
from uncle_sled.core.studies.systems.systems_as_built import stay_mode

MONTHS = tuple(range(1, 13))


class Month(msgspec.Struct, frozen=True):
    """A month, 1 to 12. held: by sky its nights until something goes dark, all of them where nothing does."""

    month: int
    held: tuple[tuple[str, float], ...]
    sun_wh: tuple[tuple[str, float], ...]  # a day, by sky

    def of(self, sky: str) -> float | None:
        """Nights under one sky; None of any other."""
        return dict(self.held).get(sky)


class Year(msgspec.Struct, frozen=True):
    """Twelve months, or what nobody said. aimed: months of Brief."""

    months: tuple[Month, ...]
    nights: int
    nights_said: bool
    aimed: tuple[int, ...]
    why: tuple[str, ...]

    def worst(self, sky: str) -> Month | None:
        """The month that holds the fewest nights under a sky, of equal ones that with the least sun; None where nothing is told."""
        return min(self.months, key=lambda month: (month.of(sky) or 0.0, dict(month.sun_wh).get(sky, 0.0), month.month), default=None)

    def all_year(self, sky: str) -> bool:
        """Whether every month holds all nights."""
        return bool(self.months) and all((month.of(sky) or 0.0) >= self.nights for month in self.months)


def in_month(build: Build, month: int) -> Build:
    """The build as if its stay were in one month."""
    return replace(build, brief=replace(build.brief, months=(month,)))


@keep(power_key, "mode", most=3)
def year_of(build: Build, mode: str) -> Year:
    """Every month. Never raises: what cannot be told stands in ``why``."""
    first = stay_tried(in_month(build, MONTHS[0]), mode)
    why = [*first.why]
    if build.brief.latitude_deg is None and not why:
        why.append("Where is not said: the place on Brief tells how much sun there is.")
    if first.panels_wp <= 0 and not why:
        why.append("No panels are aboard: one month is as the other.")
    made = []
    for month in () if why else MONTHS:
        stay = stay_tried(in_month(build, month), mode)
        held = tuple((string.id, float(stay.nights) if string.nights is None else string.nights) for string in stay.strings)
        sun = tuple((string.id, float(string.sun_wh.sum()) / max(stay.nights, 1)) for string in stay.strings)
        made.append(Month(month, held, sun))
    return Year(tuple(made), first.nights, first.nights_said, tuple(build.brief.months), tuple(why))


class AllYear(msgspec.Struct, frozen=True):
    """A year, and by sky the least battery, or the least panels, that carry its worst month; nothing where every month holds."""

    year: Year
    needs: tuple[tuple[str, Needs], ...]

    def of(self, sky: str) -> Needs | None:
        """What carries it under one sky."""
        return dict(self.needs).get(sky)


def _reads(s: Studied) -> tuple[object, ...]:
    return s.build.systems, s.build.brief, s.build.stow, s.build.shell


@slow(_reads, lane="year")
def all_year(s: Studied, tell: Tell) -> AllYear:
    """The year of the mode that it is lived in, and what carries it."""
    mode = stay_mode(s.build)
    tell(0.1, "every month of the year")
    year = year_of(s.build, mode)
    needs = []
    for at, sky in enumerate(skies() if year.months else ()):
        tell(0.4 + 0.2 * at, f"what carries a {sky.name.lower()} year")
        worst = year.worst(sky.id)
        if worst is not None and not year.all_year(sky.id):
            found = needs_under(in_month(s.build, worst.month), mode, sky.id)
            if found is not None:
                needs.append((sky.id, found))
    return AllYear(year, tuple(needs))
