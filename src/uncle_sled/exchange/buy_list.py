"""The shopping list as CSV and XLSX, and prices back in from CSV or XLSX: every faulty line by its number."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Callable
from pathlib import Path
from typing import Any

import msgspec

from uncle_sled.core.document.catalogue_line import as_text, from_text
from uncle_sled.core.document.cut import Bought
from uncle_sled.core.document.edits import Op, add_to, set_to
from uncle_sled.core.errors import FileError
from uncle_sled.core.studies.cut.bought_line import Line
from uncle_sled.exchange.weight_list import Fault, read_sheet

COLUMNS = (
    "id",
    "name",
    "heading",
    "stage",
    "shop",
    "need",
    "unit",
    "pack",
    "at_hand",
    "packs",
    "price_each",
    "low",
    "likely",
    "high",
    "sure",
    "quote_until",
    "lead_days",
    "ordered",
    "arrived",
    "batch",
    "spent",
    "why",
)
DAY = re.compile(r"\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$")
# what can be brought in, and the field that it goes to
TAKEN = {
    "price": "quote",
    "quote": "quote",
    "price_each": "quote",
    "quote_until": "quote_until",
    "lead_days": "lead_days",
    "at_hand": "at_hand",
    "pack": "pack",
    "low": "low",
    "likely": "likely",
    "high": "high",
}
DATES = ("quote_until",)


def _cells(line: Line) -> list[Any]:
    def two(value: float | None) -> Any:
        return "" if value is None else round(value, 2)

    return [
        line.id,
        line.name,
        line.heading,
        line.stage,
        line.shop,
        round(line.need, 3),
        line.unit,
        line.pack,
        line.at_hand,
        line.packs,
        two(line.each),
        two(line.low),
        two(line.likely),
        two(line.high),
        line.sure,
        line.quote_until,
        "" if line.lead_days is None else line.lead_days,
        line.ordered,
        line.arrived,
        line.batch,
        two(line.spent),
        line.why,
    ]


def buy_csv(lines: tuple[Line, ...]) -> str:
    out = io.StringIO()
    table = csv.writer(out, lineterminator="\n")
    table.writerow(COLUMNS)
    for line in lines:
        table.writerow([as_text(cell) if isinstance(cell, str) else cell for cell in _cells(line)])
    return out.getvalue()


# what stands in the book: heading, what of a line, width, number format
BOOK: tuple[tuple[str, Callable[[Line], Any], float, str], ...] = (
    ("Got it", lambda line: "x" if line.arrived else "", 7, ""),
    ("Name", lambda line: line.name, 44, ""),
    ("For", lambda line: line.heading, 16, ""),
    ("Need", lambda line: round(line.need, 3), 9, "#,##0.00"),
    ("Unit", lambda line: line.unit, 8, ""),
    ("Pack", lambda line: line.pack, 8, "#,##0.##"),
    ("At hand", lambda line: line.at_hand, 8, "#,##0.##"),
    ("Packs", lambda line: line.packs, 8, "0"),
    ("Price each", lambda line: None if line.each is None else round(line.each, 2), 11, "#,##0.00"),
    ("Sum", lambda _: None, 12, "#,##0.00"),
    ("Sure", lambda line: line.sure, 10, ""),
    ("Quote until", lambda line: line.quote_until, 12, ""),
    ("Lead days", lambda line: line.lead_days, 9, "0"),
    ("Ordered", lambda line: line.ordered, 12, ""),
    ("Arrived", lambda line: line.arrived, 12, ""),
    ("Batch", lambda line: line.batch, 10, ""),
    ("Spent", lambda line: None if line.spent is None else round(line.spent, 2), 11, "#,##0.00"),
    ("Why", lambda line: line.why, 40, ""),
    ("Id", lambda line: line.id, 18, ""),
)
LETTER = {name: chr(65 + k) for k, (name, *_) in enumerate(BOOK)}


def buy_xlsx(lines: tuple[Line, ...]) -> bytes:
    """A sheet a shop with sums as formulas, set up for print, and a last one of all shops. What begins like a formula is text.

    Money is in the builder's own, whatever that is: no sign of a currency is put beside it.
    """
    from openpyxl import Workbook
    from openpyxl.styles import Font

    book = Workbook()
    book.remove(book.active)
    totals: list[tuple[str, str, str]] = []
    for shop in dict.fromkeys(line.shop for line in lines):
        title = re.sub(r"[\[\]:*?/\\']", " ", shop)[:27].strip() or "shop"
        sheet = book.create_sheet(title)
        mine = [line for line in lines if line.shop == shop]
        sheet.append([name for name, *_ in BOOK])
        for row, line in enumerate(mine, 2):
            for at, (name, of, _, form) in enumerate(BOOK, 1):
                cell = sheet.cell(row, at)
                if name == "Sum":  # what has no price has no sum, and not nought
                    cell.value = f'=IF({LETTER["Price each"]}{row}="","",{LETTER["Packs"]}{row}*{LETTER["Price each"]}{row})'
                else:
                    value = of(line)
                    cell.value = as_text(value) if isinstance(value, str) else value
                    if isinstance(value, str):
                        cell.data_type = "s"
                if form:
                    cell.number_format = form
        last = len(mine) + 1
        _foot(sheet, last)
        _set_up(sheet, last + 2)
        totals.append((sheet.title, f"{LETTER['Sum']}{last + 1}", f"{LETTER['Spent']}{last + 1}"))
    whole = book.create_sheet("All shops")
    whole.append(["Shop", "Sum", "Spent"])
    for title, sums, spent in totals:
        whole.append([as_text(title), f"='{title}'!{sums}", f"='{title}'!{spent}"])
    whole.append(["All of it", f"=SUM(B2:B{len(totals) + 1})", f"=SUM(C2:C{len(totals) + 1})"])
    for row in whole.iter_rows():
        for cell in row:
            cell.font = Font(bold=cell.row in (1, len(totals) + 2))
            cell.number_format = "#,##0.00" if cell.column > 1 else "General"
    for letter, width in (("A", 28), ("B", 14), ("C", 14)):
        whole.column_dimensions[letter].width = width
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _foot(sheet: Any, last: int) -> None:
    """Totals of a shop, and how many lines have no price and so are not in them."""
    from openpyxl.styles import Font

    sheet.cell(last + 1, 2).value = "All from here"
    for name in ("Sum", "Spent"):
        cell = sheet.cell(last + 1, ord(LETTER[name]) - 64)
        cell.value = f"=SUM({LETTER[name]}2:{LETTER[name]}{last})"
        cell.number_format = "#,##0.00"
    sheet.cell(last + 2, 2).value = "Lines without a price, not in it"
    blank = sheet.cell(last + 2, ord(LETTER["Sum"]) - 64)
    blank.value = f'=COUNTIF({LETTER["Price each"]}2:{LETTER["Price each"]}{last},"")'
    for row in (1, last + 1):
        for cell in sheet[row]:
            cell.font = Font(bold=True)


def _set_up(sheet: Any, rows: int) -> None:
    """Lying, as wide as the page, heads again on every page, number of the page at the foot."""
    sheet.freeze_panes = "C2"
    for at, (_, _, width, _) in enumerate(BOOK):
        sheet.column_dimensions[chr(65 + at)].width = width
    sheet.column_dimensions[LETTER["Id"]].hidden = True
    sheet.page_setup.orientation = "landscape"
    sheet.page_setup.fitToWidth, sheet.page_setup.fitToHeight = 1, 0
    sheet.sheet_properties.pageSetUpPr.fitToPage = True
    sheet.print_title_rows = "1:1"
    sheet.print_area = f"A1:{LETTER['Batch']}{rows}"
    sheet.oddFooter.center.text = "&A, page &P of &N"


class Prices(msgspec.Struct, frozen=True):
    """What came in: ops of one edit, how many lines, faults by line, and names that the list does not have."""

    ops: tuple[Op, ...]
    taken: int
    faults: tuple[Fault, ...]
    strangers: tuple[str, ...]


def read_prices(path: Path, lines: tuple[Line, ...], known: tuple[Bought, ...]) -> Prices:
    """Quotes of a shop for lines of the list, by id or name. Raises: FileError: no such columns, or no file of the kind."""
    sheet = read_sheet(path)
    heads = [word.strip().lower().replace(" ", "_") for word in sheet.headings]
    if not {"id", "name"} & set(heads) or not set(TAKEN) & set(heads):
        raise FileError(
            f"{path.name} wants a column id or name and one of {', '.join(TAKEN)}; headings such as name, price, quote_until would be right."
        )
    by_id, by_name = {line.id: line for line in lines}, {line.name.lower(): line for line in lines}
    records = {bought.id: bought for bought in known}
    faults: list[Fault] = []
    strangers: list[str] = []
    ops: list[Op] = []
    taken = 0
    for number, cells in sheet.rows:
        row = {heads[at]: from_text(cell.strip()) for at, cell in enumerate(cells) if at < len(heads)}
        line = by_id.get(row.get("id", "")) or by_name.get(row.get("name", "").lower())
        if line is None:
            if any(row.values()):
                strangers.append(row.get("name") or row.get("id") or f"line {number}")
            continue
        found: dict[str, Any] = {}
        wrong = ""
        for head, field in TAKEN.items():
            text = row.get(head, "")
            if not text or field in found:
                continue
            if field in DATES:
                if not DAY.fullmatch(text):
                    wrong = f"{head}: “{text}” is no day; year-month-day such as 2027-03-31 would be right."
                found[field] = text
                continue
            try:
                value = float(text.replace(" ", "").replace(",", "."))
            except ValueError:
                value = -1.0
            if not 0 <= value < 1e9:
                wrong = f"{head}: “{text}” is no number; 42.50 would be right, without a sign."
            elif field == "pack" and value == 0:
                wrong = f"{head}: a pack of 0 holds nothing; empty where it is not known."
            elif field == "lead_days" and value > 2000:
                wrong = f"{head}: {value:g} days are over five years; a number of days would be right."
            found[field] = int(value) if field == "lead_days" and not wrong else value
        if wrong:
            faults.append(Fault(number, wrong))
            continue
        if found:
            now = records.get(line.id)
            after = msgspec.structs.replace(now or Bought(line.id), **found)
            ops.append(set_to(f"cut.bought.{line.id}", after) if now is not None else add_to("cut.bought", after))
            records[line.id] = after
            taken += 1
    return Prices(tuple(ops), taken, tuple(faults), tuple(strangers))
