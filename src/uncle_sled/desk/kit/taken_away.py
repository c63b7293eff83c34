"""Widgets that make room for others: out of sight at once, out of memory when there is time."""

from __future__ import annotations

from PySide6.QtWidgets import QLayout, QWidget


def take_away(rows: QLayout, old: QWidget | None) -> None:
    """Out of its row for good; nothing where there is none."""
    if old is None:
        return
    old.hide()
    rows.removeWidget(old)
    old.deleteLater()
