"""The list that people keep (name, weight, distance from the ball): CSV or XLSX into things.

Nothing is taken that was not understood: every faulty line is told by its number, and columns
are matched by asking, with a guess to begin from.
"""

from __future__ import annotations

import csv
import io
import re
from itertools import islice, zip_longest
from pathlib import Path
from typing import Any

import msgspec

from uncle_sled.core import units
from uncle_sled.core.document.bounds import STRANGE
from uncle_sled.core.document.edits import fresh_id
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.errors import EntryError, FileError
from uncle_sled.exchange.roles_guessed import with_roles_guessed
from uncle_sled.exchange.whole_file import IsAFolder, read_plain

MOST_LINES = 2000
MOST_COLUMNS = 200
MOST_ROWS = 5000  # of a spreadsheet, empty ones among them
MOST_UNFOLDED = 12 * 1024 * 1024  # ten times a full list; the reader takes a second for each few megabytes
LARGEST_BYTES = 8 * 1024 * 1024
SAMPLE = 32_768  # signs that are looked at for what parts the columns
# What a list may tell, with the words its heading may use.
FIELDS: dict[str, tuple[str, str]] = {
    "name": ("Name", r"name|item|what|part|thing|bezeichnung|description|nom"),
    "mass": ("Weight", r"weight|mass|kg|lb|gewicht|poids|pounds"),
    "x": ("From the ball", r"ball|station|distance|hitch|coupler|from|arm\b|abstand"),
    "y": ("Right of middle", r"side|right|left|across|lateral"),
    "z": ("Above ground", r"above ground|underside|off the ground"),
    "length": ("Length", r"^l$|length|long|länge"),
    "width": ("Width", r"^w$|^b$|width|wide|breite"),
    "height": ("Height", r"^h$|height|high|tall|höhe"),
}
DIMENSION = {"mass": "mass", "x": "length", "y": "length", "z": "length", "length": "length", "width": "length", "height": "length"}
MOST = {"mass": 20_000.0, "length": 15.0}


class Sheet(msgspec.Struct, frozen=True):
    """A table as read: headings, and rows with the number of their line in the file."""

    headings: tuple[str, ...]
    rows: tuple[tuple[int, tuple[str, ...]], ...]
    note: str = ""


class Fault(msgspec.Struct, frozen=True):
    line: int
    says: str


class Taken(msgspec.Struct, frozen=True):
    """What a list gives: things, and the lines that could not be understood."""

    things: tuple[Thing, ...]
    faults: tuple[Fault, ...]


def read_sheet(path: Path) -> Sheet:
    """A CSV or XLSX file as a table. Raises: FileError: in words."""
    try:
        data = read_plain(path, LARGEST_BYTES)
    except IsAFolder:
        raise FileError(f"{path} is a folder, not a list. Choose a CSV or XLSX file in it.") from None
    except (OSError, ValueError) as fault:
        raise FileError(f"{path} could not be read: {getattr(fault, 'strerror', None) or fault}.") from None
    if len(data) > LARGEST_BYTES:
        raise FileError(f"{path.name} is over 8 MB; a list of weights is smaller. Cut it down first.")
    if data[:4] == b"PK\x03\x04":
        return _xlsx(path)
    if data[:8] == b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1":
        raise FileError(f"{path.name} is an old binary spreadsheet. Save it as XLSX or CSV first.")
    return _csv(data, path.name)


def _csv(data: bytes, name: str) -> Sheet:
    text, note = _decoded(data, name)
    if "\x00" in text:
        raise FileError(f"{name} is not a text file. A list is a CSV or XLSX file.")
    delimiter = _delimiter(text)
    lines: list[tuple[int, tuple[str, ...]]] = []
    try:
        reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
        at = 1  # a cell in quotes may go over several lines; a row is where it begins
        for row in reader:
            if any(cell and not cell.isspace() for cell in row):
                lines.append((at, tuple(cell.strip() for cell in row)))
                if len(lines) > MOST_LINES + 1:
                    break  # _sheet says that they are too many
                if len(row) > MOST_COLUMNS:
                    raise FileError(f"{name}, line {at}: {len(row)} columns; a list has {MOST_COLUMNS} at most.")
            at = reader.line_num + 1
    except csv.Error as fault:
        raise FileError(f"{name} cannot be read as lines with columns: {fault}.") from None
    return _sheet(lines, name, note)


def _delimiter(text: str) -> str:
    """What parts the columns: the sign that most of the first lines hold, a semicolon before a comma.

    Where lines are parted by semicolons, commas are decimals.
    """
    sample = text[:SAMPLE].split("\n")[:30]
    lines = {sign: sum(sign in line for line in sample) for sign in ";\t|,"}
    return max(lines, key=lambda sign: (lines[sign], sign != ","))


def _decoded(data: bytes, name: str) -> tuple[str, str]:
    if data[:2] in (b"\xff\xfe", b"\xfe\xff"):
        try:
            return data.decode("utf-16"), ""
        except UnicodeDecodeError:
            raise FileError(f"{name} begins like UTF-16 text but is damaged further on. Save it again as UTF-8.") from None
    try:
        return data.decode("utf-8-sig"), ""
    except UnicodeDecodeError:
        return data.decode("cp1252", errors="replace"), "It was not UTF-8 and was read as Western text; look whether names came out right."


def _xlsx(path: Path) -> Sheet:
    """The first sheet of a spreadsheet, as far as a list can go; results of formulas as they were stored."""
    try:
        import openpyxl  # a fifth of a second, only when a spreadsheet is read

        _weigh(path)
        book = openpyxl.load_workbook(path, data_only=True, read_only=True)
        formulas = openpyxl.load_workbook(path, data_only=False, read_only=True)
        if not book.worksheets:
            raise FileError(f"{path.name} holds no sheet with cells; a list stands in one.")
        lines, unsure = _cells(book.worksheets[0], formulas.worksheets[0])
        lines = _spread(lines, _merged(path, book))
    except FileError:
        raise
    except Exception as fault:  # whatever a damaged archive makes the reader raise
        raise FileError(f"{path.name} could not be read as a spreadsheet: {fault}. Save it again, or as CSV.") from None
    note = "Only the first sheet is read." if len(book.worksheets) > 1 else ""
    if unsure:
        note = f"{note} {unsure} cells hold formulas without a stored result; open it in your spreadsheet and save it again.".strip()
    return _sheet(lines, path.name, note)


def _weigh(path: Path) -> None:
    """Refuse an archive that would unfold beyond any list. Raises: FileError; whatever a damaged one makes it raise."""
    import zipfile

    with zipfile.ZipFile(path) as archive:
        unfolded = sum(entry.file_size for entry in archive.infolist())
    if unfolded > MOST_UNFOLDED:
        raise FileError(f"{path.name} unfolds to {unfolded // 1_000_000} MB; a list of weights is smaller. Save the list alone.")


def _cells(sheet: Any, written: Any) -> tuple[list[tuple[int, tuple[str, ...]]], int]:
    """Lines of a sheet with their numbers, and how many cells hold formulas without a result."""
    lines: list[tuple[int, tuple[str, ...]]] = []
    unsure = full = 0
    within = {"max_row": MOST_ROWS, "max_col": MOST_COLUMNS, "values_only": True}
    for at, (row, formulas) in enumerate(zip_longest(sheet.iter_rows(**within), written.iter_rows(**within), fillvalue=()), 1):
        cells = []
        for value, formula in zip_longest(row, formulas):
            if value is None and isinstance(formula, str) and formula.startswith("="):
                unsure += 1
                value = formula
            cells.append("" if value is None else f"{value:.10g}" if isinstance(value, float) else str(value).strip())
        lines.append((at, tuple(cells)))
        full += any(cells)
        if full > MOST_LINES + 1:
            break
    return lines, unsure


def _merged(path: Path, book: Any) -> list[tuple[int, int, int, int]]:
    """Areas of the first sheet that were made one cell: first and last row, first and last column, as far as a list goes."""
    import zipfile

    from openpyxl.utils.cell import range_boundaries

    where = book.worksheets[0]._worksheet_path.lstrip("/")
    with zipfile.ZipFile(path) as archive, archive.open(where) as file:
        text = file.read(MOST_UNFOLDED)
    areas = []
    for match in islice(re.finditer(rb'<(?:\w+:)?mergeCell[^>]*\bref="([A-Z0-9:]{2,30})"', text), MOST_LINES):
        left, top, right, low = range_boundaries(match.group(1).decode())
        areas.append((top, min(low, MOST_ROWS), left, min(right, MOST_COLUMNS)))
    return areas


def _spread(lines: list[tuple[int, tuple[str, ...]]], areas: list[tuple[int, int, int, int]]) -> list[tuple[int, tuple[str, ...]]]:
    """Lines whose merged cells all hold what stands in the first of them."""
    made = {at: list(row) for at, row in lines}
    for top, low, left, right in areas:
        first = made.get(top, [])
        value = first[left - 1] if left <= len(first) else ""
        for at in range(top, low + 1) if value else ():
            row = made.get(at)
            if row is not None:
                row += [""] * (min(right, max(len(row), len(first))) - len(row))
                row[left - 1 : right] = [value] * len(row[left - 1 : right])
    return [(at, tuple(made[at])) for at, _ in lines]


def _sheet(lines: list[tuple[int, tuple[str, ...]]], name: str, note: str) -> Sheet:
    full = [(at, row) for at, row in lines if any(row)]
    if not full:
        raise FileError(f"{name} is empty.")
    if len(full) > MOST_LINES + 1:
        raise FileError(
            f"{name} has more than {MOST_LINES} lines; a build holds {MOST_LINES} things at most. Cut the list down, or part it."
        )
    # headings are the first line without a number among its cells
    first = full[0][1]
    headed = not any(re.fullmatch(r"[-+]?[\d.,]+", cell) for cell in first if cell)
    wide = max(len(row) for _, row in full)
    headings = tuple((first[at] if headed and at < len(first) and first[at] else f"Column {at + 1}") for at in range(wide))
    rows = tuple((at, tuple(row) + ("",) * (wide - len(row))) for at, row in (full[1:] if headed else full))
    return Sheet(headings, rows, note)


def guess_columns(sheet: Sheet) -> dict[str, int | None]:
    """Which column is which, by the words of the headings; None where there is none."""
    taken: set[int] = set()
    found: dict[str, int | None] = {}
    for field, (_, words) in FIELDS.items():
        match = next((at for at, head in enumerate(sheet.headings) if at not in taken and re.search(words, head.lower())), None)
        found[field] = match
        if match is not None:
            taken.add(match)
    if found["name"] is None and 0 not in taken:
        found["name"] = 0
    return found


def guess_units(sheet: Sheet, columns: dict[str, int | None], shown: units.Shown) -> dict[str, str]:
    """The unit of bare numbers, from the headings where they say it, else as the build is read."""
    said = {"length": "in" if shown.length == "ft-in" else shown.length, "mass": shown.mass}
    for field, at in columns.items():
        if at is None or field == "name":
            continue
        for unit in re.findall(r"\b(mm|cm|m|in|ft|inches|feet|kg|g|lbs?|pounds)\b", sheet.headings[at].lower()):
            dimension = "mass" if unit in ("kg", "g", "lb", "lbs", "pounds") else "length"
            if DIMENSION[field] == dimension:
                said[dimension] = {"inches": "in", "feet": "ft", "lbs": "lb", "pounds": "lb"}.get(unit, unit)
    return said


def take(sheet: Sheet, columns: dict[str, int | None], bare: dict[str, str], taken_ids: list[str], floor_m: float) -> Taken:
    """Things from the lines of a sheet.

    Args:
        columns: The column of each field.
        bare: The unit of bare lengths and masses.
        taken_ids: Ids that are used already.
        floor_m: Where things stand whose height above ground is not told [m].
    """
    things: list[Thing] = []
    faults: list[Fault] = []
    ids = list(taken_ids)
    for line, row in sheet.rows:
        try:
            thing = _thing(row, columns, bare, fresh_id("t", ids[-1:] if len(ids) > 500 else ids), floor_m)
        except EntryError as fault:
            faults.append(Fault(line, str(fault)))
            continue
        if thing is not None:
            ids.append(thing.id)
            things.append(thing)
    return Taken(tuple(things), tuple(faults))


def _thing(row: tuple[str, ...], columns: dict[str, int | None], bare: dict[str, str], id: str, floor_m: float) -> Thing | None:
    def cell(field: str) -> str:
        at = columns.get(field)
        return row[at] if at is not None and at < len(row) else ""

    name = STRANGE.sub(" ", cell("name")).strip() or "Unnamed"
    if re.match(r"(?i)(sub)?total|sum\b|gesamt", name):
        return None  # a line of sums is no thing
    got: dict[str, float] = {}
    for field, dimension in DIMENSION.items():
        text = cell(field)
        if not text:
            continue
        if text.startswith("="):
            raise EntryError(f"{FIELDS[field][0]} is a formula without a stored result ({text[:30]}).")
        # in a cell there is no thousands comma to mistake: 1,950 is a decimal only with semicolons
        value = units.parse(_plain(text), dimension, bare[dimension])  # type: ignore[arg-type]
        if abs(value) > MOST[dimension]:
            raise EntryError(f"{FIELDS[field][0]} “{text}” is more than any build holds; is the unit right?")
        if field not in ("x", "y", "z") and value < 0:
            raise EntryError(f"{FIELDS[field][0]} “{text}” is less than nothing.")
        got[field] = value
    if "mass" not in got and not cell("name"):
        return None
    if "mass" not in got:
        raise EntryError(f"“{name}” has no weight.")
    size = [got.get(field, 0.3) for field in ("length", "width", "height")]
    made = Thing(
        id,
        name[:120],
        kind="gear",
        length=Length(size[0]),
        width=Length(size[1]),
        height=Length(size[2]),
        x=Length(round(got.get("x", 0.0) - (size[0] / 2 if "x" in got else 0.0), 4)),
        y=Length(got.get("y", 0.0)),
        z=Length(got.get("z", floor_m)),
        mass=Mass(got["mass"], _typed(cell("mass"), bare["mass"])),
        source="estimated",
    )
    return with_roles_guessed(made)


def _plain(text: str) -> str:
    """A number as spreadsheets write it: 1.234,5 or 1,234.5 without its thousands mark."""
    body = re.sub(r"[\s\u00a0\u202f]+", " ", text.strip())
    if re.fullmatch(r"[-+]?\d{1,3}(\.\d{3})+,\d+", body):
        return body.replace(".", "").replace(",", ".")
    if re.fullmatch(r"[-+]?\d{1,3}(,\d{3})+\.\d+", body):
        return body.replace(",", "")
    return body


def _typed(text: str, bare: str) -> str | None:
    try:
        return units.keep_typed(_plain(text), "mass", bare)
    except EntryError:
        return None
