"""Pages on paper at their true size, through the platform's print dialog."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from PySide6.QtCore import QMarginsF, QSizeF
from PySide6.QtGui import QPageLayout, QPageSize
from PySide6.QtWidgets import QDialog, QWidget

from uncle_sled.core.drawing.page import Page
from uncle_sled.desk.kit.painting import Frame, canvas, paint
from uncle_sled.desk.theme.theme import paper_colours


def page_printer(page: Page) -> Any:
    """A printer set up for a page of that size, no margins of its own."""
    from PySide6.QtPrintSupport import QPrinter  # only a print needs it

    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setFullPage(True)
    printer.setPageLayout(_layout(page))
    printer.setDocName(page.title)
    return printer


def _layout(page: Page) -> QPageLayout:
    short, long = sorted((page.width, page.height))
    way = QPageLayout.Orientation.Landscape if page.width > page.height else QPageLayout.Orientation.Portrait
    size = QPageSize(QSizeF(short, long), QPageSize.Unit.Point, "", QPageSize.SizeMatchPolicy.FuzzyMatch)
    return QPageLayout(size, way, QMarginsF(0, 0, 0, 0))


def choose_printer(printer: Any, parent: QWidget | None) -> bool:
    from PySide6.QtPrintSupport import QPrintDialog
    from shiboken6 import delete

    dialog = QPrintDialog(printer, parent)
    try:
        return dialog.exec() == QDialog.DialogCode.Accepted
    finally:
        delete(dialog)  # at once: it must not outlive the printer that it points to


def print_page(page: Page, printer: Any) -> None:
    """Paint the page one point to one point, in the day's colours whatever the theme."""
    print_pages((page,), printer)


def print_pages(pages: Sequence[Page], printer: Any) -> None:
    """Pages one after the other, each on paper of its size."""
    with canvas(printer) as painter:
        for number, page in enumerate(pages):
            if number:
                printer.setPageLayout(_layout(page))
                printer.newPage()
            painter.save()
            per_point = printer.resolution() / 72
            painter.scale(per_point, per_point)
            with paper_colours():
                paint(painter, page.shapes, Frame(1.0, 0.0, page.height), None, "paper")
            painter.restore()
