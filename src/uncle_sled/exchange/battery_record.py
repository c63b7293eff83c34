"""A record of the battery from CSV or XLSX: watt hours drawn and charged, gaps said and not bridged; what is drawn by the hour of the day.

By the hour only those hours count in which nothing charged: what sun or car put in hides what was drawn meanwhile.
"""

from __future__ import annotations

import itertools
from datetime import date, datetime, timedelta
from pathlib import Path

import msgspec

from uncle_sled.core.errors import FileError
from uncle_sled.exchange.weight_list import read_sheet

GAP_H = 1.0  # from which on nothing is known between two lines
CHARGES_W = 3.0  # from which on an hour counts as charged, and not the zero of a meter
LEAST_OF_HOUR = 0.5  # of an hour on one day, for it to count
TIMES = ("time", "date", "timestamp")


class Record(msgspec.Struct, frozen=True):
    """out_wh, in_wh: drawn and charged; hours known; gaps: hours of which nothing is known; left_out: lines without numbers.

    drawn: (hour of the day, mean watts, hours of record) where nothing charged.
    """

    out_wh: float
    in_wh: float
    hours: float
    gaps: float
    left_out: int
    drawn: tuple[tuple[int, float, float], ...] = ()

    def says(self) -> str:
        told = f"{self.out_wh:.0f} Wh drawn and {self.in_wh:.0f} Wh charged in {self.hours:.1f} hours."
        if self.gaps:
            told += f" {self.gaps:.1f} hours have no record and are not in it."
        if self.left_out:
            told += f" {self.left_out} lines were left out."
        told += f" {len(self.drawn)} hours of the day without charging are known." if self.drawn else ""
        return told


def read_record(path: Path) -> Record:
    """Columns time and watts, or time, volts and amps; charging is below nothing. Raises: FileError."""
    sheet = read_sheet(path)
    heads = [word.strip().lower() for word in sheet.headings]

    def column(*words: str) -> int | None:
        return next((at for at, head in enumerate(heads) if any(head.startswith(word) for word in words)), None)

    time, watts, volts, amps = column(*TIMES), column("watt", "power", "w"), column("volt", "v"), column("amp", "current", "a")
    if time is None or (watts is None and (volts is None or amps is None)):
        raise FileError(f"{path.name} wants the columns time and watts, or time, volts and amps.")
    points: list[tuple[datetime, float]] = []
    left_out = 0
    for _, cells in sheet.rows:
        try:
            when = datetime.fromisoformat(cells[time].strip().replace("Z", ""))
            if watts is not None:
                power = float(cells[watts].replace(",", "."))
            else:
                assert volts is not None and amps is not None
                power = float(cells[volts].replace(",", ".")) * float(cells[amps].replace(",", "."))
        except (ValueError, IndexError):
            left_out += 1
            continue
        points.append((when.replace(tzinfo=None), power))
    points.sort()
    if len(points) < 2:
        raise FileError(f"{path.name} holds fewer than two readings; lines such as 2027-05-01 21:00, 45 would be right.")
    out = back = hours = gaps = 0.0
    for (a, power), (b, after) in itertools.pairwise(points):
        span = (b - a).total_seconds() / 3600
        if span > GAP_H:
            gaps += span
            continue
        hours += span
        mean = (power + after) / 2 * span
        out, back = out + max(mean, 0.0), back + max(-mean, 0.0)
    return Record(out, back, hours, gaps, left_out, by_the_hour(points))


def by_the_hour(points: list[tuple[datetime, float]]) -> tuple[tuple[int, float, float], ...]:
    """Of readings in the order of time: each hour of the day with its mean watts and the hours it is known from.

    Between two readings watts change evenly. An hour of one day counts where half of it is known and nothing charged in it.
    """
    cells: dict[tuple[date, int], list[float]] = {}  # of one day's hour: watt hours, hours, whether something charged
    for (a, power), (b, after) in itertools.pairwise(points):
        span = (b - a).total_seconds()
        if not 0 < span <= GAP_H * 3600:
            continue
        at, watts = a, power
        while at < b:
            end = min((at + timedelta(hours=1)).replace(minute=0, second=0, microsecond=0), b)
            then = power + (after - power) * (end - a).total_seconds() / span
            long = (end - at).total_seconds() / 3600
            cell = cells.setdefault((at.date(), at.hour), [0.0, 0.0, 0.0])
            cell[0] += (watts + then) / 2 * long
            cell[1] += long
            cell[2] = max(cell[2], -min(watts, then))
            at, watts = end, then
    told: dict[int, tuple[float, float]] = {}
    for (_, hour), (wh, long, charged) in cells.items():
        if long >= LEAST_OF_HOUR and charged <= CHARGES_W:
            sums = told.get(hour, (0.0, 0.0))
            told[hour] = (sums[0] + max(wh, 0.0), sums[1] + long)
    return tuple((hour, round(wh / long, 3), round(long, 3)) for hour, (wh, long) in sorted(told.items()))
