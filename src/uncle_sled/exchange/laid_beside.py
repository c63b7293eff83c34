"""A picture laid beside a build's file: one from elsewhere is copied into a folder there, and only its path is kept in the build."""

from __future__ import annotations

import shutil
from collections.abc import Callable
from pathlib import Path

from uncle_sled.core.document.file_beside import MOST_BYTES
from uncle_sled.core.errors import FileError

SKETCHES, PHOTOS = "sketches", "photos"


def laid_beside(picture: Path, build: Path, into: str, fault_of: Callable[[str], str | None]) -> str:
    """The path of a picture from the build's folder; what lies elsewhere is copied, and nothing that is there is written over.

    Args: into: the folder beside the build; fault_of: why such a path cannot be kept.
    Raises: FileError: it cannot be read or copied, is too large, or is no picture.
    """
    folder = build.parent
    try:
        wrong = fault_of(picture.name)
        if wrong is not None:
            raise FileError(wrong)
        inside = picture.resolve().is_relative_to(folder.resolve())
        if picture.stat().st_size > MOST_BYTES:
            raise FileError(f"{picture.name} is over 20 MB; a smaller one would be right.")
        if not inside:
            (folder / into).mkdir(exist_ok=True)
            to, many = folder / into / picture.name, 1
            while to.exists() and to.read_bytes() != picture.read_bytes():
                many += 1
                to = folder / into / f"{picture.stem}-{many}{picture.suffix}"
            if not to.exists():
                shutil.copyfile(picture, to)
            picture = to
        path = picture.resolve().relative_to(folder.resolve()).as_posix()
    except OSError as fault:
        raise FileError(f"{picture.name} cannot be laid beside the build: {fault.strerror}.") from fault
    wrong = fault_of(path)
    if wrong is not None:
        raise FileError(wrong)
    return path
