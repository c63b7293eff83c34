"""A file written from the desk, and what the sheet then says of it."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from uncle_sled.core.errors import SledError


def written(path: Path, data: Callable[[], bytes]) -> tuple[str, str]:
    """Writes it whole; what to say and how bad it is. What cannot be drawn or written leaves what was there as it was."""
    from uncle_sled.exchange.export import write_file

    try:
        write_file(path, data())
    except SledError as fault:
        return str(fault), "stop"
    return f"Written: {path}", "note"
