"""Lists of pieces and of stock, from CSV or XLSX files: every faulty line by its number, nothing cut by halves."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Literal, TypeVar

from uncle_sled.core import units
from uncle_sled.core.document.catalogue_line import from_text
from uncle_sled.core.errors import EntryError, FileError
from uncle_sled.core.studies.cut.wanted import NO_STOCK, Stock, Wanted, Wrong, wrong_pieces, wrong_saw, wrong_stocks
from uncle_sled.exchange.weight_list import read_sheet

LENGTHS = ("length", "width")
PIECE_COLUMNS = ("id", "kind", "material", "length_mm", "width_mm", "qty", "grain", "outline")
STOCK_COLUMNS = ("id", "kind", "material", "length_mm", "width_mm", "qty", "price")
NEEDED = ("id", "kind", "material", "length")
UNITS = ("mm", "cm", "m", "in", "ft")

T = TypeVar("T", Wanted, Stock)


def read_lists(pieces: Path, stock: Path, kerf_m: float, trim_m: float) -> tuple[tuple[Wanted, ...], tuple[Stock, ...]]:
    """Both lists, fit to be cut. Raises: FileError: with every fault of both and its line; columns that are missing."""
    wanted, of_pieces, piece_lines = _read(pieces, PIECE_COLUMNS, _piece)
    stocks, of_stock, stock_lines = _read(stock, STOCK_COLUMNS, _stock)
    faults = [f"{pieces.name}, line {line}: {says}" for line, says in of_pieces]
    faults += [f"{stock.name}, line {line}: {says}" for line, says in of_stock]
    if not faults:
        faults += [wrong.says for wrong in wrong_saw(kerf_m, trim_m)]
        faults += [_said(pieces, piece_lines, wrong) for wrong in wrong_pieces(wanted, kerf_m)]
        faults += [_said(stock, stock_lines, wrong) for wrong in wrong_stocks(stocks, trim_m)]
        faults += [] if stocks else [NO_STOCK.says]
    if faults:
        raise FileError("Nothing was cut: the lists hold faults.", tuple(dict.fromkeys(faults)))
    if not wanted:
        raise FileError(f"{pieces.name} holds no pieces; a line for each would be right.")
    return wanted, stocks


def _said(path: Path, lines: dict[str, int], wrong: Wrong) -> str:
    return f"{path.name}, line {lines[wrong.of]}: {wrong.says}" if wrong.of in lines else wrong.says


def _read(
    path: Path, columns: Sequence[str], made: Callable[[dict[str, str], dict[str, str]], T]
) -> tuple[tuple[T, ...], list[tuple[int, str]], dict[str, int]]:
    sheet = read_sheet(path)
    known = [name.removesuffix("_mm") for name in columns]
    fields: dict[int, str] = {}
    bare: dict[str, str] = {}
    for at, word in enumerate(sheet.headings):
        field, unit = _heading(word, path.name)
        if field in known and field not in fields.values():
            fields[at] = field
            bare[field] = unit
    missing = [field for field in NEEDED if field not in fields.values()]
    if missing:
        raise FileError(f"{path.name} has no column for {', '.join(missing)}. Headings such as {', '.join(columns)} would be right.")
    out: list[T] = []
    faults: list[tuple[int, str]] = []
    lines: dict[str, int] = {}
    for line, cells in sheet.rows:
        try:
            row = {field: from_text(cells[at].strip()) if at < len(cells) else "" for at, field in fields.items()}
            one = made(row, bare)
        except EntryError as fault:
            faults.append((line, str(fault)))
            continue
        lines[one.id] = line  # the last of several: it is the one that disagrees
        out.append(one)
    return tuple(out), faults, lines


def _heading(word: str, name: str) -> tuple[str, str]:
    whole = word.strip().lower().replace(" ", "_")
    field, _, unit = whole.rpartition("_")
    if field in LENGTHS:
        if unit not in UNITS:
            raise FileError(f"{name}: the heading “{word}” has no unit of length; {', '.join(UNITS)} would be right.")
        return field, unit
    return whole, "mm" if whole in LENGTHS else ""


def _piece(row: dict[str, str], bare: dict[str, str]) -> Wanted:
    kind = _kind(row)
    grain = _grain(row.get("grain", ""))
    qty = _count(row.get("qty", ""))
    return Wanted(
        _name(row),
        kind,
        material=_material(row),
        length_m=_length(row, "length", bare),
        width_m=_width(row, kind, bare),
        qty=1 if qty is None else qty,
        grain=grain,
        outline=_outline(row.get("outline", "")),
    )


def _stock(row: dict[str, str], bare: dict[str, str]) -> Stock:
    kind = _kind(row)
    return Stock(
        _name(row),
        kind,
        material=_material(row),
        length_m=_length(row, "length", bare),
        width_m=_width(row, kind, bare),
        qty=_count(row.get("qty", "")),
        price=_price(row.get("price", "")),
    )


def _name(row: dict[str, str]) -> str:
    if not row["id"]:
        raise EntryError("id is empty; a short name of its own would be right.")
    return row["id"]


def _material(row: dict[str, str]) -> str:
    if not row["material"]:
        raise EntryError("material is empty; the same word as in the other list would be right.")
    return row["material"]


def _kind(row: dict[str, str]) -> Literal["sheet", "bar"]:
    word = row["kind"].lower()
    if word == "sheet":
        return "sheet"
    if word == "bar":
        return "bar"
    raise EntryError(f"kind: “{row['kind']}” is neither; sheet or bar would be right.")


def _grain(text: str) -> Literal["along", "across", "any"]:
    word = text.lower() or "any"
    if word == "along":
        return "along"
    if word == "across":
        return "across"
    if word == "any":
        return "any"
    raise EntryError(f"grain: “{text}” is none; along, across or any would be right.")


def _length(row: dict[str, str], field: str, bare: dict[str, str]) -> float:
    try:
        return units.parse(row[field], "length", bare[field])
    except EntryError as fault:
        raise EntryError(f"{field}: {fault}") from None


def _width(row: dict[str, str], kind: str, bare: dict[str, str]) -> float:
    if not row.get("width"):
        if kind == "sheet":
            raise EntryError("width is empty; a sheet has one.")
        return 0.0
    return _length(row, "width", bare)


def _count(text: str) -> int | None:
    if not text:
        return None
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        value = 0.5
    if not abs(value) <= 1e6 or value != int(value):  # nan is no number either
        raise EntryError(f"qty: “{text}” is no whole number; 1, 2, 3 would be right.")
    return int(value)


def _price(text: str) -> float | None:
    if not text:
        return None
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        raise EntryError(f"price: “{text}” is no sum of money; write it like 42.50, without a sign.") from None
    if not abs(value) < 1e9:
        raise EntryError(f"price: “{text}” is no sum of money; write it like 42.50.")
    return value


def _outline(text: str) -> tuple[tuple[float, float], ...]:
    if not text:
        return ()
    corners = []
    for pair in text.split(";"):
        words = pair.replace(",", ".").split()
        if not words:
            continue
        try:
            x, y = (float(word) / 1e3 for word in words)
        except ValueError:
            raise EntryError(f"outline: “{pair.strip()}” is no corner; x y in mm would be right, corners parted by ;") from None
        if not (abs(x) < 1e3 and abs(y) < 1e3):
            raise EntryError(f"outline: “{pair.strip()}” is no corner of any sheet; x y in mm would be right.")
        corners.append((x, y))
    return tuple(corners)
