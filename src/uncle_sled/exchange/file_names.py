"""What a file is called where nobody said: of the build's name and of what is in it, in signs that every folder takes."""

from __future__ import annotations

import re
from pathlib import Path

MOST_BYTES = 120  # of the stem; folders take 255 with what is added


def file_stem(name: str) -> str:
    """A build's name as a file's: letters, digits, dots, hyphens and underscores; ``build`` where nothing of it is left."""
    stem = re.sub(r"-{2,}", "-", re.sub(r"[^\w.-]+", "-", name.lower())).strip("-._")
    while len(stem.encode()) > MOST_BYTES:
        stem = stem[:-1]
    return stem.rstrip("-._") or "build"


def suggested(path: Path | None, name: str, kind: str, ending: str) -> Path:
    """Beside the build's own file, or at home, by what is in it: ``marsh-heron-templates.pdf``. Args: kind: of KINDS, or a word."""
    what = kind.removesuffix(f"-{ending}")
    folder, stem = (path.parent, path.stem) if path is not None else (Path.home(), file_stem(name))
    return folder / f"{stem}{'' if what in ('', ending) else '-' + file_stem(what)}.{ending}"
