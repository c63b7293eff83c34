"""A line with its verdict: what a card of the desk or a page says of one thing."""

from __future__ import annotations

from typing import Literal

import msgspec

Verdict = Literal["good", "mind", "bad", "none"]
MOST_LINES = 9  # on one card


class Said(msgspec.Struct, frozen=True):
    """One line: its verdict (none: it is only told), what it says, and what it points at."""

    verdict: Verdict
    text: str
    ids: tuple[str, ...] = ()
