"""The one place that asks which day it is: what is written down today carries its day, and nothing is reckoned by it."""

from __future__ import annotations

import time
from datetime import datetime


def today() -> str:
    """The day where the builder is, as it is written down: 2026-05-31."""
    return datetime.now().astimezone().date().isoformat()


def moment_words(when: float) -> str:
    """A moment of a file or note, where the builder is: 31 May 09:30. Args: when: seconds since 1970, as somebody wrote them."""
    try:
        return time.strftime("%d %B %H:%M", time.localtime(when))
    except (OverflowError, ValueError, OSError):  # no clock goes that far
        return "nobody knows when"
