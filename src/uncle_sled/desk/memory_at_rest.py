"""What is loaded stays: the collector need not walk over it in the middle of a drag."""

from __future__ import annotations

import gc

from PySide6.QtCore import QTimer

from uncle_sled.desk.session import Session

AFTER_MS = 1500  # a build just opened is still being drawn and judged


def settle_after_opening(session: Session) -> None:
    """Some time after a build is opened, what the last one left is collected and what there is stands aside from the collector."""
    timer = QTimer(session)
    timer.setSingleShot(True)
    timer.setInterval(AFTER_MS)
    timer.timeout.connect(settle_memory)
    session.opened.connect(timer.start)
    timer.start()


def settle_memory() -> None:
    """Collect what nobody holds; whatever is left is not walked over again."""
    gc.unfreeze()
    gc.collect()
    gc.freeze()
