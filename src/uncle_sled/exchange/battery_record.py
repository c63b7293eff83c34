"""A record of the battery from CSV or XLSX: watt hours drawn and charged, gaps said and not bridged."""

from __future__ import annotations

import itertools
from datetime import datetime
from pathlib import Path

import msgspec

from uncle_sled.core.errors import FileError
from uncle_sled.exchange.weight_list import read_sheet

GAP_H = 1.0  # from which on nothing is known between two lines
TIMES = ("time", "date", "timestamp")


class Record(msgspec.Struct, frozen=True):
    """out_wh, in_wh: drawn and charged; hours known; gaps: hours of which nothing is known; left_out: lines without numbers."""

    out_wh: float
    in_wh: float
    hours: float
    gaps: float
    left_out: int

    def says(self) -> str:
        told = f"{self.out_wh:.0f} Wh drawn and {self.in_wh:.0f} Wh charged in {self.hours:.1f} hours."
        if self.gaps:
            told += f" {self.gaps:.1f} hours have no record and are not in it."
        if self.left_out:
            told += f" {self.left_out} lines were left out."
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
    return Record(out, back, hours, gaps, left_out)
