"""Every kind of file that a build can be exported to, by name; the heavy writers load when first asked."""

from __future__ import annotations

from datetime import date
from pathlib import Path

from uncle_sled.core.errors import FileError
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.studies.reading import Studied
from uncle_sled.exchange import sled_file


def export_bytes(kind: str, name: str, s: Studied, found: tuple[Finding, ...]) -> bytes:
    """The balance sheet (pdf, svg) or the masses (csv) of a build as a file's bytes."""
    if kind == "csv":
        from uncle_sled.exchange.case_list import csv_text

        return csv_text(s).encode()
    from uncle_sled.core.drawing.balance_sheet import balance_sheet

    page = balance_sheet(s, found, name, date.today().isoformat())
    if kind == "svg":
        from uncle_sled.exchange.svg import svg_bytes

        return svg_bytes(page)
    from uncle_sled.exchange.pdf import pdf_bytes

    return pdf_bytes(page)


def write_file(path: Path, data: bytes) -> None:
    """Raises: FileError: in words, nothing half written over what was there."""
    if path.is_dir():
        raise FileError(f"{path} is a folder; name a file in it.")
    try:
        sled_file.write_whole(path, data)
    except OSError as fault:
        raise FileError(f"{path} could not be written: {fault.strerror or fault}.") from None
