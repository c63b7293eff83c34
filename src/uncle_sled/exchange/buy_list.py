"""The shopping list as CSV and XLSX, and prices back in from CSV or XLSX: every faulty line by its number."""

from __future__ import annotations

import csv
import io
import re
from pathlib import Path
from typing import Any

import msgspec

from uncle_sled.core.document.catalogue_line import as_text, from_text
from uncle_sled.core.document.cut import Bought
from uncle_sled.core.document.edits import Op, add_to, set_to
from uncle_sled.core.errors import FileError
from uncle_sled.core.studies.cut.buying import Line
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


def buy_xlsx(lines: tuple[Line, ...]) -> bytes:
    """A sheet for each shop; what begins like a formula is text."""
    from openpyxl import Workbook
    from openpyxl.styles import Font

    book = Workbook()
    book.remove(book.active)
    for shop in dict.fromkeys(line.shop for line in lines):
        sheet = book.create_sheet(re.sub(r"[\[\]:*?/\\']", " ", shop)[:31].strip() or "shop")
        sheet.append(list(COLUMNS))
        for cell in sheet[1]:
            cell.font = Font(bold=True)
        for line in (line for line in lines if line.shop == shop):
            sheet.append([None] * len(COLUMNS))
            for at, value in enumerate(_cells(line), 1):
                cell = sheet.cell(sheet.max_row, at)
                cell.value = as_text(value) if isinstance(value, str) else value
                if isinstance(value, str):
                    cell.data_type = "s"
        sheet.freeze_panes = "A2"
        sheet.column_dimensions["B"].width = 40
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


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
