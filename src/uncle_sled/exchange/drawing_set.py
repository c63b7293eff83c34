"""All working drawings of a build as one set: a page of contents, every page numbered with its revision, what changed marked.

A page counts as changed where anything that is drawn on it is not as it was when the set was last printed and written down.
"""

from __future__ import annotations

import hashlib
from collections.abc import Iterator

import msgspec
from msgspec.structs import replace

from uncle_sled.core.document.cut import PrintedPage
from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.drawing.balance.axle_order import axle_order
from uncle_sled.core.drawing.cut.built_pages import built_pages
from uncle_sled.core.drawing.cut.frame_page import frame_pages
from uncle_sled.core.drawing.cut.framing_sheets import framing_sheets
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.drawing.sheets import CAUTION, Column, Sheets
from uncle_sled.core.drawing.systems.comfort_sheets import comfort_sheets
from uncle_sled.core.drawing.systems.wiring_sheets import wiring_sheets
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Tell, nobody

A_COLUMN = 24
PRINTED = "on the day of print"  # stands for the date in what is compared


class Sheet(msgspec.Struct, frozen=True):
    """One page of the set with what it is known by, and whether it is as it was last printed."""

    page: Page
    mark: str
    standing: str  # new, changed, "" as printed


def sheets_of(s: Studied, name: str, printed: str, tell: Tell = nobody) -> tuple[Sheet, ...]:
    """Every page, in the order of the trail."""
    was = {page.id: page.mark for page in s.build.cut.printed}
    made = []
    seen: dict[str, int] = {}
    for at, page in enumerate(page for part in _parts(s, name, tell) for page in part):
        count = seen[page.title] = seen.get(page.title, 0) + 1
        title = page.title if count == 1 else f"{page.title} ({count})"
        mark = mark_of(page)
        standing = "" if was.get(title) == mark else "changed" if title in was else "new"
        made.append(Sheet(replace(page, shapes=_dated(page.shapes, printed), title=title), mark, standing))
        if at % 8 == 0:
            tell(None, f"drawing page {at + 1}")
    return tuple(made)


def _dated(shapes: tuple[Primitive, ...], printed: str) -> tuple[Primitive, ...]:
    """The day put in where a page says PRINTED: a page is known by what it is without its day, and drawn once."""
    return tuple(
        [
            replace(shape, text=shape.text.replace(PRINTED, printed)) if isinstance(shape, Text) and PRINTED in shape.text else shape
            for shape in shapes
        ]
    )


def _parts(s: Studied, name: str, tell: Tell) -> Iterator[tuple[Page, ...]]:
    order = axle_order(s, name, PRINTED)
    yield (order,) if order is not None else ()
    tell(0.2, "drawing the frame")
    yield frame_pages(s, name, PRINTED)
    yield framing_sheets(s, name, PRINTED) if s.framed.body is not None else ()
    tell(0.5, "drawing what is built inside")
    yield built_pages(s, name, PRINTED)
    tell(0.7, "drawing wires and water")
    yield wiring_sheets(s, name, PRINTED)
    yield comfort_sheets(s, name, PRINTED)


def mark_of(page: Page) -> str:
    """What a page is known by: a digest of all that is drawn on it, to a hundredth of a point."""
    digest = hashlib.sha256()
    for shape in page.shapes:
        told = (type(shape).__name__, *(getattr(shape, name) for name in shape.__struct_fields__))
        digest.update(repr(_rounded(told)).encode())
    return digest.hexdigest()[:16]


def _rounded(value: object) -> object:
    if isinstance(value, float):
        return round(float(value), 2) + 0.0
    return [_rounded(one) for one in value] if isinstance(value, tuple) else value


def drawing_set(s: Studied, name: str, printed: str, tell: Tell = nobody) -> tuple[Page, ...]:
    """Contents and all pages; none where nothing is drawn."""
    made = sheets_of(s, name, printed, tell)
    if not made:
        return ()
    revision = revision_words(s)
    contents = len(_contents(s, made, 1, name, printed))
    pages = [*_contents(s, made, contents + 1, name, printed)]
    for k, sheet in enumerate(made):
        number = f"{contents + k + 1} of {contents + len(made)}, {revision}"
        told = f"{number}, changed" if sheet.standing == "changed" and s.build.cut.printed else number
        foot = Text((sheet.page.width - 12, 9), told, 8, "primer" if "changed" in told else "pencil", anchor="right")
        pages.append(replace(sheet.page, shapes=(*sheet.page.shapes, foot)))
    return tuple(pages)


def revision_words(s: Studied) -> str:
    """The letter of the next print: A before anything was written down."""
    at = s.build.cut.revision
    return f"revision {chr(65 + at % 26)}{at // 26 or ''}"


def _contents(s: Studied, made: tuple[Sheet, ...], first: int, name: str, printed: str) -> tuple[Page, ...]:
    """Every page by its number. Args: first: number of the first of them."""
    sheets = Sheets(paper_of(s.build).lying, f"{name}: contents", f"{s.build.name}, {revision_words(s)}, {printed}", CAUTION)
    rows = [(str(first + k), sheet.page.title, sheet.standing or "as printed") for k, sheet in enumerate(made)]
    half = -(-len(rows) // 2) if len(rows) > A_COLUMN else len(rows)
    beside = [(*rows[k], *(rows[k + half] if k + half < len(rows) else ("", "", ""))) for k in range(half)]
    heads = (Column("Page", right=True), Column("Drawing", wraps=True), Column("Standing"))
    sheets.table((*heads, *heads), beside, size=11)
    sheets.words(f"{len(made)} drawings.", ink="pencil")
    return sheets.done()


def printed_ops(s: Studied, name: str) -> tuple[Op, ...]:
    """Ops that write down what the set was like, so that the next one marks what changed."""
    made = sheets_of(s, name, PRINTED)
    kept = [msgspec.to_builtins(PrintedPage(sheet.page.title, sheet.mark)) for sheet in made]
    return set_to("cut.printed", kept), set_to("cut.revision", s.build.cut.revision + 1)
