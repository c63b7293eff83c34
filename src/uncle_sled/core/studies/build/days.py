"""The calendar of the work: which days are worked by how many, and how warm and dry it is, all from the document.

Time is cut into half hours of work from the first day on. No clock is read: "now" is the last day that was logged.
"""

from __future__ import annotations

import math
from datetime import date, timedelta

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.work import Work
from uncle_sled.core.engine import by_value, keep

SLOT_H = 0.5
FIRST_HOUR = 8.0
HORIZON_DAYS = 1500
SHOP_OVER_C = 4.0  # an unheated shop over outside
DEFAULT_BEGIN = date(2027, 3, 1)  # where nobody said: a Monday in spring

Floats = NDArray[np.float64]


def parsed(text: str) -> date | None:
    """A date as the document keeps it; None where there is none, or none that can be read."""
    try:
        return date.fromisoformat(text) if text else None
    except ValueError:
        return None


class Days(msgspec.Struct, frozen=True, dict=True):
    """begin: day 0; slots: half hours of a working day; hands: (days,) how many work on each day, 0: nobody.

    outside_c, shop_c: (days,) mean of the day; wet: (days,) a month of rain.
    """

    begin: date
    slots: int
    hands: NDArray[np.int64]
    outside_c: Floats
    shop_c: Floats
    wet: NDArray[np.bool_]

    def on(self, day: int) -> date:
        """The date of a day of work."""
        return self.begin + timedelta(days=int(day))

    def day_of(self, when: date) -> int:
        """The day of work of a date, less than 0 before the first."""
        return (when - self.begin).days

    @property
    def worked_share(self) -> float:
        """Hours of work in an hour of the clock."""
        weeks = self.hands[: 7 * 52] > 0
        return float(weeks.mean()) * self.slots * SLOT_H / 24.0


def month_c(latitude_deg: float, month: int) -> float:
    """Mean temperature of a month by latitude [degC]; a guess for the level ground, an own shop's heat is typed.

    27 less 0.38 a degree from 10 on, swinging by 0.17 of the latitude, coldest in January (July in the south).
    """
    far = abs(latitude_deg)
    mean = 27.0 - 0.38 * max(far - 10.0, 0.0)
    phase = (month - (1 if latitude_deg >= 0 else 7)) / 12.0
    return mean - 0.17 * far * math.cos(2 * math.pi * phase)


def is_wet(latitude_deg: float, month: int, own: tuple[int, ...] | None) -> bool:
    """Whether a month counts as rainy: as typed, else the winter half of the year."""
    if own is not None:
        return month in own
    winter = (10, 11, 12, 1, 2, 3) if latitude_deg >= 0 else (4, 5, 6, 7, 8, 9)
    return month in winter


def days_of(build: Build) -> Days:
    """The calendar of a build from its first day on, with nobody on free days."""
    return _days(build.work, build.brief.latitude_deg)


@keep(
    "work.begin",
    by_value("work.days"),
    "work.hours_day",
    by_value("work.free_days"),
    by_value("work.helpers"),
    by_value("work.shop"),
    by_value("work.wet_months"),
    "latitude_deg",
    most=6,
)
def _days(work: Work, latitude_deg: float | None) -> Days:
    begin = parsed(work.begin) or DEFAULT_BEGIN
    latitude = latitude_deg if latitude_deg is not None else 50.0
    free = set(work.free_days)
    hands, outside, wet = [], [], []
    for day in range(HORIZON_DAYS):
        when = begin + timedelta(days=day)
        works = when.weekday() in work.days and when.isoformat() not in free and work.hours_day > 0
        hands.append(1 + sum(1 for helper in work.helpers if when.weekday() in helper.days) if works else 0)
        outside.append(month_c(latitude, when.month))
        wet.append(is_wet(latitude, when.month, work.wet_months))
    outside_c = np.array(outside)
    shop = outside_c + SHOP_OVER_C if work.shop is None else np.maximum(outside_c, work.shop.si)
    return Days(begin, max(round(work.hours_day / SLOT_H), 1), np.array(hands, dtype=np.int64), outside_c, shop, np.array(wet, dtype=bool))


def cured_h(begin_h: float, need_h: float, floor_c: float | None, day_c: Floats) -> float | None:
    """When something has cured that was put on at begin_h [hours from day 0, by the clock]; None: not in this calendar.

    Sum of hours x 2^((T - 20) / 10) against the hours at 20 degrees; nothing counts under the floor. Source: shop notes.
    """
    if need_h <= 0:
        return begin_h
    left, at = need_h, begin_h
    for day in range(max(int(begin_h // 24), 0), len(day_c)):
        end = (day + 1) * 24.0
        temperature = float(day_c[day])
        pace = 0.0 if floor_c is not None and temperature < floor_c else 2.0 ** ((temperature - 20.0) / 10.0)
        hours = end - at
        if pace * hours >= left:
            return at + left / pace
        left -= pace * hours
        at = end
    return None
