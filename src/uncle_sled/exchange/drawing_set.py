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
from uncle_sled.core.drawing.cut.framing_sheets import framing_sheets
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.drawing.systems.comfort_sheets import comfort_sheets
from uncle_sled.core.drawing.systems.wiring_sheets import wiring_sheets
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Tell, nobody

WIDTH, HEIGHT, EDGE, ROW = 842.0, 595.0, 44.0, 15.0
A_PAGE = 28
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
    contents = max(1, -(-len(made) // A_PAGE))
    pages = []
    for k in range(contents):
        pages.append(_contents(made[k * A_PAGE : (k + 1) * A_PAGE], k, contents, len(made), name, s.build.name, printed, revision))
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


def _contents(made: tuple[Sheet, ...], at: int, of: int, many: int, name: str, variant: str, printed: str, revision: str) -> Page:
    shapes: list[Primitive] = [
        Text((EDGE, HEIGHT - 52), elided(f"{name}: drawings", 24, 520, "head"), 24, "ink", "head", "left"),
        Text((WIDTH - EDGE, HEIGHT - 50), f"{variant}, {revision}, {printed}", 11, "pencil", anchor="right"),
        line((EDGE, HEIGHT - 66), (WIDTH - EDGE, HEIGHT - 66), "ink", 1.4),
    ]
    y = HEIGHT - 88
    changed = 0
    for k, sheet in enumerate(made):
        number = of + at * A_PAGE + k + 1
        ink = "primer" if sheet.standing == "changed" else "ink"
        changed += sheet.standing == "changed"
        shapes += [
            Text((EDGE, y), str(number), 11, "pencil", "strong", "left"),
            Text((EDGE + 40, y), elided(sheet.page.title, 11, 560), 11, ink, anchor="left"),
            Text((WIDTH - EDGE, y), sheet.standing or "as printed", 10, ink if sheet.standing == "changed" else "pencil", anchor="right"),
        ]
        y -= ROW
    shapes.append(
        Text(
            (EDGE, 26),
            f"{many} drawings. Screening only: measure the real frame first; local code and licensed people decide.",
            9,
            "pencil",
            anchor="left",
        )
    )
    return Page(WIDTH, HEIGHT, tuple(shapes), f"{name}: contents{f' {at + 1}' if of > 1 else ''}")


def printed_ops(s: Studied, name: str) -> tuple[Op, ...]:
    """Ops that write down what the set was like, so that the next one marks what changed."""
    made = sheets_of(s, name, PRINTED)
    kept = [msgspec.to_builtins(PrintedPage(sheet.page.title, sheet.mark)) for sheet in made]
    return set_to("cut.printed", kept), set_to("cut.revision", s.build.cut.revision + 1)
