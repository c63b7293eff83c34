"""Writing one of the exports: its bytes, in the window or in the worker, and its file without losing what was there."""

from __future__ import annotations

from pathlib import Path

from msgspec.structs import replace

from uncle_sled.core.document.project import Project
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.errors import FileError
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Tell, nobody
from uncle_sled.core.words import Words
from uncle_sled.exchange.clock import today
from uncle_sled.exchange.exports import EXPORTS, Asked
from uncle_sled.exchange.whole_file import write_whole

# Ending and words of every export by its kind, for whoever goes through all of them.
KINDS = {kind: (export.ending, export.what) for kind, export in EXPORTS.items()}
MOST_BESIDE = 100  # exports of one name in one folder


def told_pages(pages: tuple[Page, ...], s: Studied) -> tuple[Page, ...]:
    """Pages with every marked figure in the build's units."""
    words = Words(s.build.brief.reading.shown())
    return tuple(
        [replace(page, title=words.told(page.title), shapes=tuple([_told(shape, words) for shape in page.shapes])) for page in pages]
    )


def _told(shape: Primitive, words: Words) -> Primitive:
    return replace(shape, text=words.told(shape.text)) if isinstance(shape, Text) and "{" in shape.text else shape


def export_job(project: Project, tell: Tell, kind: str, ids: tuple[str, ...], paper: str) -> bytes:
    """A heavy export in the worker. Raises: FileError, Stopped."""
    from uncle_sled.core.reading.studied import study

    return export_bytes(kind, project.name, study(project.build, project.facts), (), ids, paper, tell)


def export_bytes(
    kind: str, name: str, s: Studied, found: tuple[Finding, ...], ids: tuple[str, ...] = (), paper: str = "", tell: Tell = nobody
) -> bytes:
    """One of EXPORTS of a build as a file's bytes. Args: ids, paper: of templates; all on the region's paper where not said.

    Raises: FileError: where the build has nothing of the kind yet.
    """
    export, day = EXPORTS[kind], today()
    made = _made(kind, Asked(s, name, found=found, ids=ids, paper=paper, tell=tell, day=day))
    if isinstance(made, bytes):
        return made
    tell(0.9, f"writing {len(made)} pages")
    if export.ending == "svg":
        from uncle_sled.exchange.svg import svg_bytes

        return svg_bytes(*made)
    from uncle_sled.exchange.pdf import pdf_bytes

    return pdf_bytes(*made, title=f"{name}: {export.what.partition(', PDF')[0]}", author=s.build.road.builder, day=day)


def _made(kind: str, asked: Asked) -> bytes | tuple[Page, ...]:
    """What an export writes: bytes, or pages with every figure in the build's units."""
    made = EXPORTS[kind].write(asked)
    return made if isinstance(made, bytes) else told_pages(made, asked.s)


def export_pages(
    kind: str, name: str, s: Studied, found: tuple[Finding, ...], ids: tuple[str, ...] = (), paper: str = "", tell: Tell = nobody
) -> tuple[Page, ...]:
    """The pages of one of EXPORTS that is a PDF, to be looked at or sent to a printer. Raises: FileError."""
    made = _made(kind, Asked(s, name, found=found, ids=ids, paper=paper, tell=tell, day=today()))
    return () if isinstance(made, bytes) else made


def pages_job(project: Project, tell: Tell, kind: str, ids: tuple[str, ...], paper: str) -> tuple[Page, ...]:
    """The same in the worker. Raises: FileError, Stopped."""
    from uncle_sled.core.reading.studied import study

    return export_pages(kind, project.name, study(project.build, project.facts), (), ids, paper, tell)


def write_file(path: Path, data: bytes) -> None:
    """Raises: FileError: in words, nothing half written over what was there."""
    try:
        if path.is_dir():
            raise FileError(f"{path} is a folder; name a file in it.")
        write_whole(path, data)
    except OSError as fault:
        raise FileError(f"{path} could not be written: {fault.strerror or fault}.") from None


def free_name(path: Path, data: bytes) -> Path:
    """The path, or the next of its kind (-2, -3 and so on) where a file of other content stands there already.

    Nobody chose that name, so nobody meant to write over it. Raises: FileError.
    """
    try:
        for number in range(2, MOST_BESIDE):
            if not path.exists() or (path.is_file() and path.stat().st_size == len(data) and path.read_bytes() == data):
                return path
            if path.is_dir():
                return path
            path = path.with_stem(f"{path.stem.removesuffix(f'-{number - 1}')}-{number}")
    except OSError as fault:
        raise FileError(f"{path} could not be written: {fault.strerror or fault}.") from None
    raise FileError(f"{path} and all before it are there already; say where to with --out.")
