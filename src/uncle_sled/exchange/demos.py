"""The shelf of shipped demos, by name."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from uncle_sled.core.document.project import Project
from uncle_sled.core.errors import FileError
from uncle_sled.exchange import sled_file
from uncle_sled.shipped import shipped

DEMOS = ("marsh-heron", "rosin-box", "orchard-keeper", "dark-sky", "ferry-bell")


@cache
def demo(name: str) -> Project:
    """A shipped demo, read once: it is frozen, and what is known of it stays known. Raises: FileError: with the names there are."""
    if name not in DEMOS:
        raise FileError(f"There is no demo “{name}”; there are {', '.join(DEMOS)}.")
    return sled_file.read_bytes(shipped(f"demo/{name}.sled"), name)


def open_named(word: str) -> sled_file.Opened:
    """A project by file path or by the name of a demo, and what was mended in it; a file of that name comes first.

    Raises: FileError.
    """
    path = Path(word)
    if word in DEMOS and not path.exists():
        return sled_file.Opened(demo(word))
    return sled_file.opened(path)
