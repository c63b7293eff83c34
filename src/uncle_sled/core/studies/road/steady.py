"""When a scale is steady, and what a line of it says: one number a line in kilograms, everything else is survived.

Steady: the spread over three seconds is under half a kilogram. Source: balance notes.
"""

from __future__ import annotations

import re
from collections import deque

WINDOW_S, SPREAD_KG, LEAST = 3.0, 0.5, 5
CLOSEST_S = 0.004  # readings that come faster count as one: six seconds of them are held, however many there are
MOST_KG = 60_000.0
NUMBER = re.compile(r"[+-]?\d{1,7}(?:[.,]\d{1,4})?$")
LONGEST = 64  # letters of a line; what is longer is rubbish


def parsed_line(line: str) -> float | None:
    """A reading [kg]; None for rubbish, half lines, and numbers no scale shows."""
    body = line.strip().removesuffix("kg").strip()
    if len(line) > LONGEST or not NUMBER.match(body):
        return None
    value = float(body.replace(",", "."))
    return value if abs(value) <= MOST_KG else None


class Steadiness:
    """Readings with their times [s]; what is asked of them is the mean while they hold still."""

    def __init__(self) -> None:
        self.readings: deque[tuple[float, float]] = deque(maxlen=2000)

    def add(self, at_s: float, kg: float) -> None:
        """One more reading. Args: at_s: seconds since the first; a clock that runs back begins anew."""
        if self.readings and at_s < self.readings[-1][0]:
            self.readings.clear()  # the clock was set back
        if self.readings and at_s - self.readings[-1][0] < CLOSEST_S:
            first, last = self.readings[-1]  # of those the one that is furthest off: nothing is called steady that is not
            self.readings[-1] = (first, max(last, kg, key=lambda one: abs(one - self._before())))
            return
        self.readings.append((at_s, kg))
        while self.readings and self.readings[0][0] < at_s - 2 * WINDOW_S:
            self.readings.popleft()

    def _before(self) -> float:
        """The reading before the newest; the newest where there is one only."""
        return self.readings[-2][1] if len(self.readings) > 1 else self.readings[-1][1]

    def clear(self) -> None:
        """Forget all readings."""
        self.readings.clear()

    def last(self) -> float | None:
        """The newest reading [kg]; None before the first."""
        return self.readings[-1][1] if self.readings else None

    def steady_kg(self) -> float | None:
        """The mean of the last three seconds where they hold still; None where they do not, or are too few."""
        if not self.readings:
            return None
        end = self.readings[-1][0]
        recent = [kg for at, kg in self.readings if at >= end - WINDOW_S]
        if len(recent) < LEAST or end - self.readings[0][0] < WINDOW_S - 1e-6:
            return None
        return sum(recent) / len(recent) if max(recent) - min(recent) < SPREAD_KG else None

    def drift_kg(self) -> float | None:
        """How far the last second lies from the one six seconds before; None while that is not known."""
        if not self.readings:
            return None
        end = self.readings[-1][0]
        now = [kg for at, kg in self.readings if at >= end - 1.0]
        before = [kg for at, kg in self.readings if at <= end - 2 * WINDOW_S + 1.0]
        return sum(now) / len(now) - sum(before) / len(before) if before and now else None
