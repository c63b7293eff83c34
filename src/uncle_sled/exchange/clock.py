"""The one place that asks which day it is: what is written down today carries its day, and nothing is reckoned by it."""

from __future__ import annotations

from datetime import datetime


def today() -> str:
    """The day where the builder is, as it is written down: 2026-05-31."""
    return datetime.now().astimezone().date().isoformat()
