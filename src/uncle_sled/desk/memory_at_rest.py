"""What is loaded stays: the collector need not walk over it in the middle of a drag."""

from __future__ import annotations

import gc

from PySide6.QtCore import QTimer

from uncle_sled.desk.session import Session

AFTER_MS = 1500  # a build just opened is still being drawn and judged


class MemoryAtRest:
    """Some time after a build is opened, what it left behind is collected and what there is stands aside from the collector."""

    def __init__(self, session: Session) -> None:
        self.timer = QTimer()
        self.timer.setSingleShot(True)
        self.timer.setInterval(AFTER_MS)
        self.timer.timeout.connect(settle_memory)
        session.opened.connect(self.timer.start)
        self.timer.start()

    def end(self) -> None:
        self.timer.stop()


def settle_memory() -> None:
    """Collect what nobody holds; whatever is left is not walked over again."""
    gc.unfreeze()
    gc.collect()
    gc.freeze()
