"""The small buttons that stand over a view: something to do, or a choice that stays down."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QPushButton


def act_button(text: str, tip: str, does: Callable[[], object], down: bool | None = None) -> QPushButton:
    """One that does something when it is pressed. Args: down: whether a choice is made; None: it is no choice."""
    button = QPushButton(text)
    button.setToolTip(tip)
    button.setProperty("kind", "view")
    if down is not None:
        button.setCheckable(True)
        button.setChecked(down)
    button.clicked.connect(lambda _=False: does())
    return button
