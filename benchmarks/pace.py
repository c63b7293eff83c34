"""How fast this machine is at the moment: seconds are told at its usual pace, since a busy one changes its speed by three."""

from __future__ import annotations

import time

USUAL_S = 0.5  # for five million additions, on the machine that the goals were set on


def pace() -> float:
    """How many times its usual time a fixed sum takes now."""
    begin, total = time.process_time(), 0
    for at in range(5_000_000):
        total += at * at
    return (time.process_time() - begin) / USUAL_S


class Timed:
    """CPU seconds of this process between its beginning and its end, and the pace around it."""

    def __enter__(self) -> Timed:
        self.before = pace()
        self.begin = time.process_time()
        return self

    def __exit__(self, *_exc: object) -> None:
        self.raw_s = time.process_time() - self.begin
        self.pace = (self.before + pace()) / 2
        self.s = self.raw_s / self.pace
