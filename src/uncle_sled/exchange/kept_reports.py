"""Reports that were made before: the same build told by the same program is told again without working it out.

They lie in the user's cache folder, never beside the build; what cannot be written there is made anew each time.
"""

from __future__ import annotations

import hashlib
import os
from collections.abc import Callable, Iterator
from contextlib import suppress
from pathlib import Path

import uncle_sled
from uncle_sled import __version__
from uncle_sled.core.document.project import Project
from uncle_sled.exchange.places import cache_folder
from uncle_sled.exchange.sled_file import to_bytes
from uncle_sled.exchange.whole_file import write_whole

MOST = 40  # reports that are kept, the newest


def told_before(project: Project, way: str, tell: Callable[[], str]) -> str:
    """What is told of a build, from before where it was told so by this very program. Args: way: how it is told."""
    try:
        program = _program()
    except OSError:  # it does not lie in a folder, or not in one that can be read
        return tell()
    of = hashlib.sha256()
    for part in (program.encode(), way.encode(), to_bytes(project)):
        of.update(hashlib.sha256(part).digest())
    file = cache_folder() / "reports" / f"{of.hexdigest()}.txt"
    with suppress(OSError, ValueError):
        return file.read_text("utf-8")
    text = tell()
    with suppress(OSError):
        file.parent.mkdir(parents=True, exist_ok=True)
        write_whole(file, text.encode())
        for old in sorted(file.parent.glob("*.txt"), key=lambda one: one.stat().st_mtime, reverse=True)[MOST:]:
            old.unlink(missing_ok=True)
    return text


def _program() -> str:
    """The version and every file of the program by size and time: what was told by another one is not told again."""
    root = Path(uncle_sled.__file__).parent
    return f"{__version__} {sorted(_files(root))}"


def _files(folder: Path) -> Iterator[tuple[str, int, int]]:
    for entry in os.scandir(folder):
        if entry.is_dir():
            if entry.name != "__pycache__":
                yield from _files(Path(entry.path))
        else:
            stat = entry.stat()
            yield entry.path, stat.st_size, stat.st_mtime_ns
