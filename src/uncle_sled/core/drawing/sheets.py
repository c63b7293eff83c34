"""Pages that flow: a head with whose, scale and day, words, tables that go on over the page, pictures, a caution at every foot.

One way for every paper: what it says is put one under the other, and a new page with the same head begins where it is full.
Nothing in a table is shortened: what is too long for its column goes on in the next line.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Literal

import msgspec

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.primitives import Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.text_width import elided, text_width, wrapped

EDGE, GAP = 34.0, 9.0
SIZE, LEADING = 10.0, 1.3
CAUTION = "Screening only: measure the real frame first; local code and licensed people decide. Mask against dust and resin."


class Column(msgspec.Struct, frozen=True):
    """A column of a table. wraps: words that may go on in the next line; other columns are as wide as their longest."""

    name: str
    right: bool = False
    wraps: bool = False


class Sheets:
    """Pages of one paper; ``y`` is where the next thing may begin [points from below]."""

    def __init__(self, size: tuple[float, float], title: str, right: str, caution: str = CAUTION) -> None:
        self.wide, self.high = size
        self.title, self.right, self.caution = title, right, caution
        self.pages: list[Page] = []
        self.shapes: list[Primitive] = []
        self.y = 0.0
        self._begin()

    @property
    def room(self) -> tuple[float, float]:
        """Width, and height that is left on this page."""
        return self.wide - 2 * EDGE, self.y - self.low

    @property
    def low(self) -> float:
        """How far down things may stand on a page [points]."""
        return EDGE + 4

    @property
    def _told(self) -> str:
        """The title of the page that is written on, with its number from the second on."""
        return self.title if not self.pages else f"{self.title} ({len(self.pages) + 1})"

    def _begin(self) -> None:
        right = text_width(self.right, SIZE)
        top = self.high - EDGE - 6
        self.shapes = [
            Text((EDGE, top), elided(self._told, 16, self.wide - 2 * EDGE - right - 20, "head"), 16, "ink", "head", "left"),
            Text((self.wide - EDGE, top), self.right, SIZE, "pencil", anchor="right"),
            line((EDGE, top - 12), (self.wide - EDGE, top - 12), "rule"),
            *[Text((EDGE, EDGE - 12 - 10 * k), row, 8, "pencil", anchor="left") for k, row in enumerate(self._foot())],
        ]
        self.y = top - 24

    def _foot(self) -> list[str]:
        return wrapped(self.caution, 8, self.wide - 2 * EDGE)[:2]

    def _end(self) -> None:
        self.pages.append(Page(self.wide, self.high, tuple(self.shapes), self._told))

    def fresh(self) -> None:
        """Go on over the page."""
        self._end()
        self._begin()

    def needs(self, high: float) -> None:
        """Room of so much, on the next page where this one has it no more."""
        if high > self.y - self.low and self.y < self.high - EDGE - 31:
            self.fresh()

    def gap(self, high: float = GAP) -> None:
        """Leave so much empty."""
        self.y -= high

    def stops(self, said: Iterable[str]) -> None:
        """What stops it, in red and in words, over all else."""
        for text in said:
            rows = wrapped(f"STOP: {text}", SIZE, self.wide - 2 * EDGE - 14, "strong")
            high = len(rows) * SIZE * LEADING + 8
            self.needs(high)
            self.shapes.append(rect(EDGE, self.y - high, self.wide - 2 * EDGE, high, stroke="primer", fill="paper", width=1.4))
            for k, row in enumerate(rows):
                at = (EDGE + 7, self.y - 4 - SIZE * LEADING * (k + 0.5))
                self.shapes.append(Text(at, row, SIZE, "primer", "strong", "left"))
            self.y -= high + 5

    def head(self, text: str) -> None:
        """A heading that does not stand alone at the foot."""
        self.needs(60)
        self.y -= 8
        self.shapes.append(Text((EDGE, self.y - 6), text, 12, "ink", "head", "left"))
        self.y -= 18

    def words(self, text: str, size: float = SIZE, ink: str = "ink", face: Literal["text", "strong", "head"] = "text") -> None:
        """Words over the whole width, in as many lines as they take."""
        for row in wrapped(text, size, self.wide - 2 * EDGE, face):
            self.needs(size * LEADING)
            self.shapes.append(Text((EDGE, self.y - size * LEADING / 2), row, size, ink, face, "left"))
            self.y -= size * LEADING

    def row(self, name: str, value: str, face: str = "", size: float = 11.0) -> None:
        """A name, its value, and how it is known; a long value goes on in the next line."""
        begin, known = EDGE + 176, text_width(face, size - 1) + 10 if face else 0.0
        names = wrapped(name, size, 168) or [""]
        values = wrapped(value, size, self.wide - EDGE - begin - known) or [""]
        high = max(len(names), len(values)) * size * LEADING + 3
        self.needs(high)
        top = self.y - size * LEADING / 2
        self.shapes += [Text((EDGE + 6, top - k * size * LEADING), text, size, "pencil", anchor="left") for k, text in enumerate(names)]
        self.shapes += [Text((begin, top - k * size * LEADING), text, size, "ink", anchor="left") for k, text in enumerate(values)]
        if face:
            ink = "spruce" if face.startswith("weighed") else "pencil"
            self.shapes.append(Text((self.wide - EDGE, top), face, size - 1, ink, anchor="right"))
        self.y -= high

    def sign(self, name: str) -> None:
        """A line to be signed on."""
        self.needs(54)
        self.y -= 34
        self.shapes.append(line((EDGE + 6, self.y), (EDGE + 220, self.y), "ink"))
        self.shapes.append(Text((EDGE + 6, self.y - 10), name, 9, "pencil", anchor="left"))
        self.y -= 20

    def picture(self, high: float, shapes: Iterable[Primitive], x: float = EDGE) -> None:
        """A drawing so high, its low left corner at nought."""
        self.needs(high)
        self.shapes += placed(tuple(shapes), 1.0, x, self.y - high)
        self.y -= high + GAP

    def table(self, columns: Sequence[Column], rows: Sequence[Sequence[str]], size: float = SIZE, empty: str = "") -> None:
        """Rows under their heads, which stand again on every page; columns that are empty all the way are left out."""
        if not rows:
            if empty:
                self.words(empty, size, "pencil")
            return
        used = [k for k in range(len(columns)) if any(row[k] for row in rows)]
        heads = [columns[k] for k in used]
        wides = self._wides(heads, [[row[k] for k in used] for row in rows], size)
        self._table_head(heads, wides, size)
        for row in rows:
            cells = [wrapped(row[k], size, wide) if column.wraps else [row[k]] for k, column, wide in zip(used, heads, wides, strict=True)]
            high = max(len(cell) for cell in cells) * size * LEADING + 2
            if high > self.y - self.low:
                self.fresh()
                self._table_head(heads, wides, size)
            x = EDGE
            for cell, column, wide in zip(cells, heads, wides, strict=True):
                for k, text in enumerate(cell):
                    at = (x + (wide if column.right else 0), self.y - size * LEADING * (k + 0.5) - 1)
                    if text:
                        self.shapes.append(Text(at, text, size, "ink", anchor="right" if column.right else "left"))
                x += wide + GAP
            self.y -= high
            self.shapes.append(line((EDGE, self.y), (EDGE + sum(wides) + GAP * (len(wides) - 1), self.y), "rule", 0.4))

    def _table_head(self, heads: Sequence[Column], wides: Sequence[float], size: float) -> None:
        self.needs(3 * size * LEADING)
        rows = [wrapped(column.name, size - 1, wide, "strong") for column, wide in zip(heads, wides, strict=True)]
        most = max(len(row) for row in rows)
        x = EDGE
        for row, column, wide in zip(rows, heads, wides, strict=True):
            for k, text in enumerate(row):
                at = (x + (wide if column.right else 0), self.y - size * LEADING * (most - len(row) + k + 0.5))
                self.shapes.append(Text(at, text, size - 1, "pencil", "strong", "right" if column.right else "left"))
            x += wide + GAP
        self.y -= most * size * LEADING + 2
        self.shapes.append(line((EDGE, self.y), (EDGE + sum(wides) + GAP * (len(wides) - 1), self.y), "ink", 0.6))

    def _wides(self, heads: Sequence[Column], rows: Sequence[Sequence[str]], size: float) -> list[float]:
        """As wide as the longest cell, a head of two words in two lines; what is over is taken from columns that wrap."""
        wides = []
        for k, column in enumerate(heads):
            widest = max(text_width(word, size - 1, "strong") for word in (column.name or " ").split(" "))
            wides.append(max(widest, max((text_width(row[k], size) for row in rows), default=0.0)) + 1)
        room = self.wide - 2 * EDGE - GAP * (len(heads) - 1)
        over = sum(wides) - room
        soft = [k for k, column in enumerate(heads) if column.wraps]
        while over > 0 and soft:
            widest_at = max(soft, key=lambda k: wides[k])
            others = max([wides[k] for k in soft if k != widest_at], default=60.0)
            less = min(over, max(wides[widest_at] - max(others, 60.0), 1.0))
            if wides[widest_at] - less < 40:
                break
            wides[widest_at] -= less
            over -= less
        return wides

    def done(self) -> tuple[Page, ...]:
        """All pages; nothing is put on them after that."""
        self._end()
        return tuple(self.pages)
