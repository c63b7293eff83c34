"""The shopping list on paper: shop by shop, a box a line, what is not known told and not nought. Upright pages."""

from __future__ import annotations

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.bought_line import Line

CAUTION = "What is guessed is guessed: ask for quotes. Measure the real frame before anything is bought to size."
HEADS = (
    Column(""),
    Column("What", wraps=True),
    Column("Need", right=True),
    Column("Buy", right=True),
    Column("Each", right=True),
    Column("Sum", right=True),
    Column("Sure"),
    Column("Days", right=True),
)


def buy_pages(s: Studied, lines: tuple[Line, ...], name: str, day: str) -> tuple[Page, ...]:
    """Every line with its shop's sum; none where there is nothing to buy. Sums leave out what has no price, and say how many."""
    if not lines:
        return ()
    sheets = Sheets(paper_of(s.build).upright, "Shopping list", f"{name[:40]}, {day}", CAUTION)
    sheets.stops(stop_words(s, ("Cut",)))
    whole, blank = 0.0, 0
    for shop in dict.fromkeys(line.shop for line in lines):
        mine = [line for line in lines if line.shop == shop]
        sheets.head(shop or "Anywhere")
        sheets.table(HEADS, [_row(line) for line in mine])
        money, missing = _sum(mine)
        sheets.words(f"{money:,.2f} here" + (f", and {missing} without a price" if missing else ""), face="strong")
        whole, blank = whole + money, blank + missing
    sheets.gap()
    sheets.words(f"All of it {whole:,.2f}" + (f", and {blank} lines without a price" if blank else ""), 12, face="strong")
    return sheets.done()


def _sum(lines: list[Line]) -> tuple[float, int]:
    known = [line.packs * line.each for line in lines if line.each is not None]
    return sum(known), len(lines) - len(known)


def _row(line: Line) -> tuple[str, ...]:
    each = "?" if line.each is None else f"{line.each:,.2f}"
    money = "?" if line.each is None else f"{line.packs * line.each:,.2f}"
    days = "" if line.lead_days is None else str(line.lead_days)
    pack = f"{line.packs} × {line.pack:g} {line.unit}" if line.pack != 1 else f"{line.packs} {line.unit}"
    told = f"{line.name} ({line.heading})" if line.heading else line.name
    return ("[x]" if line.arrived else "[  ]", told, f"{line.need:.4g} {line.unit}", pack, each, money, line.sure, days)
