"""Overrides of Qt's own methods that let no exception out.

An exception that leaves an override which Qt called from within a call of ours takes the whole program down inside the
binding (an IndexError of a double click did). So what goes wrong is told to ``sys.excepthook`` and Qt gets a plain answer.
"""

from __future__ import annotations

import sys
from collections.abc import Callable
from functools import wraps
from typing import Any

from PySide6.QtCore import QModelIndex, QSize, Qt

# what Qt is told where an override failed; every name that ends in "Event" is nothing
ANSWERS: dict[str, Callable[[], object]] = {
    "event": lambda: True,
    "eventFilter": lambda: False,
    "sizeHint": lambda: QSize(),
    "minimumSizeHint": lambda: QSize(),
    "hasHeightForWidth": lambda: False,
    "heightForWidth": lambda: -1,
    "focusNextPrevChild": lambda: False,
    "rowCount": lambda: 0,
    "columnCount": lambda: 0,
    "data": lambda: None,
    "setData": lambda: False,
    "headerData": lambda: None,
    "flags": lambda: Qt.ItemFlag.NoItemFlags,
    "index": lambda: QModelIndex(),
    "paint": lambda: None,
    "createEditor": lambda: None,
    "setEditorData": lambda: None,
    "setModelData": lambda: None,
}


def is_override(kind: type, name: str) -> bool:
    """Whether a method defined in this class is one that Qt itself calls."""
    if name not in ANSWERS and not name.endswith("Event"):
        return False
    return any(name in vars(base) for base in kind.__mro__[1:] if base.__module__.startswith("PySide6."))


def guarded(name: str, override: Callable[..., Any]) -> Callable[..., Any]:
    """The override, whose fault is told and answered for."""
    answer = ANSWERS.get(name, lambda: None)

    @wraps(override)
    def run(*args: Any, **named: Any) -> Any:
        try:
            return override(*args, **named)
        except Exception:
            sys.excepthook(*sys.exc_info())
            return answer()

    run.guards = override  # type: ignore[attr-defined]
    return run


class Guarded:
    """First among the bases of every widget, model and filter that overrides one of Qt's methods."""

    def __init_subclass__(cls, **named: Any) -> None:
        super().__init_subclass__(**named)
        for name, method in tuple(vars(cls).items()):
            if callable(method) and is_override(cls, name):
                setattr(cls, name, guarded(name, method))
