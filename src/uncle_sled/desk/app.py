"""Start the application on a build."""

from __future__ import annotations

import os
import sys
from pathlib import Path

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication

from uncle_sled.core.document.project import Project, empty_project
from uncle_sled.core.errors import FileError
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import load_fonts, use_theme
from uncle_sled.desk.window import Window
from uncle_sled.desk.worker import Worker
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.sled_file import read


def application(theme: str = "light") -> QApplication:
    """The one QApplication, with fonts and theme; made where there is none yet."""
    app = QApplication.instance()
    if not isinstance(app, QApplication):
        app = QApplication(["uncle-sled"])
        app.setApplicationName("uncle-sled")
        app.setApplicationDisplayName("Uncle Sled")
        app.setStyle("Fusion")
        load_fonts()
    use_theme(app, theme)
    return app


def open_window(project: Project, path: Path | None = None, worker: Worker | None = None) -> Window:
    window = Window(Session(project, path, worker))
    window.resize(1280, 800)
    return window


def run(word: str | None) -> int:
    """Open the window on a file, a demo, or an empty build; returns when it is closed. Raises: FileError."""
    if sys.platform.startswith("linux") and not any(
        os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")
    ):
        raise FileError(
            "There is no screen here: neither DISPLAY nor WAYLAND_DISPLAY is set. Start it on a desktop, or under xvfb-run. `uncle-sled report FILE` needs no screen."
        )
    path = None
    if word is None:
        project = empty_project()
    elif word in DEMOS and not Path(word).exists():
        project = demo(word)
    else:
        path = Path(word)
        project = read(path)
    app = application()
    window = open_window(project, path, Worker())
    if word is None:
        window.session.go_to("Rig")
    window.show()
    QTimer.singleShot(400, window.session._ask)  # the worker warms up after the first reading is on the screen
    return app.exec()
