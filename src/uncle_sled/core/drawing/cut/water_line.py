"""The line that sheds water, drawn unfolded: joints of the faces and what lies within them, gaps in it red. Points, y up."""

from __future__ import annotations

from collections.abc import Sequence

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Poly, Primitive
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.drawing.shell.unfolded import seams_drawn, unfold
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.within_faces import WithinSeam, within_faces
from uncle_sled.core.studies.shell.seams import Seam, seams
from uncle_sled.core.words import Words

Row = Seam | WithinSeam
WIDTH = {"sheets": 2.2, "laps": 2.2, "screws": 1.2, "flange": 2.4}


def rows_of(s: Studied) -> tuple[Row, ...]:
    """Every joint and everything within the faces, what leaks first, then the longest."""
    rows: tuple[Row, ...] = (*seams(s), *within_faces(s.build, s.facts))
    return tuple(sorted(rows, key=lambda row: (row.water and row.air, row.water, -row.length_m)))


def made_words(row: Row, nothing_said: str = "not said") -> str:
    """How one is made, in words."""
    if row.whole:
        return row.says
    if row.made is None:
        return nothing_said
    return ", ".join(part for part in (row.made.trim, row.made.tape, row.made.sealant) if part) or "nothing"


def water_line(s: Studied, chosen: str, wide: float, high: float) -> tuple[Primitive, ...]:
    """Joints and seams, red where nothing keeps water out, ochre where only air gets by; dashed beside a seam: no stick behind."""
    at = unfold(s, wide, high)
    if at is None:
        return ()
    shapes: list[Primitive] = list(seams_drawn(s, seams(s), chosen, wide, high))
    for seam in sorted(within_faces(s.build, s.facts), key=lambda seam: (seam.what != "screws", seam.id == chosen)):
        if seam.face not in at.surfaces:
            continue
        ink = "primer" if not seam.water else "ochre" if not seam.air else "pencil" if seam.whole else "chalk"
        thick = WIDTH[seam.what] * (2.0 if seam.id == chosen else 1.0)
        for run in seam.runs:
            points = tuple(at.on(seam.face, p) for p in run)
            dash = (1.5, 4.0) if seam.what == "screws" else ()
            shapes.append(Poly(points, ink, "", thick, closed=False, dash=dash, id=seam.id))
        for run in seam.bare:
            points = tuple((x + 3.0, y + 3.0) for x, y in (at.on(seam.face, p) for p in run))
            shapes.append(Poly(points, "ochre", "", 1.6, closed=False, dash=(5.0, 3.0), id=seam.id))
    return tuple(shapes)


def water_pages(s: Studied, name: str, printed: str) -> tuple[Page, ...]:
    """The line and its table on paper; none where nobody said of any seam how it is made."""
    if not s.build.shell.seams or s.framed.body is None:
        return ()
    words = Words(s.build.brief.reading.shown())
    title = f"{name}: the line that sheds water, every joint and seam"
    sheets = Sheets(paper_of(s.build).lying, title, f"red: nothing keeps water out, {printed}")
    wide, high = sheets.room
    sheets.picture(high * 0.6, water_line(s, "", wide, high * 0.6))
    sheets.words(
        "Thick lines: joints, seams of sheets, flanges of openings. Dotted: rows of screws. Dashed beside a seam: no stick behind it."
    )
    heads = (
        Column("Joint", wraps=True),
        Column("Long", right=True),
        Column("Without a stick", right=True),
        Column("Screws", right=True),
        Column("Kept dry by", wraps=True),
        Column("Mind"),
    )
    sheets.table(heads, [_cells(row, words) for row in rows_of(s)])
    return sheets.done()


def _cells(row: Row, words: Words) -> Sequence[str]:
    within = row if isinstance(row, WithinSeam) else None
    bare = words.cut(within.bare_m) if within is not None and within.bare_m > 0 else ""
    many = str(within.many) if within is not None and within.many else ""
    return (
        row.name,
        words.cut(row.length_m),
        bare,
        many,
        words.told(made_words(row, "nothing said")),
        "" if row.water else "WATER GETS IN",
    )
