"""Start the application on a build."""

from __future__ import annotations

import os
import re
import socket
import sys
from contextlib import suppress
from pathlib import Path

from PySide6.QtGui import QIcon
from PySide6.QtWidgets import QApplication

from uncle_sled.core.document.project import Project, empty_project
from uncle_sled.core.errors import FileError
from uncle_sled.desk.memory_at_rest import settle_after_opening
from uncle_sled.desk.session import Session
from uncle_sled.desk.settings import Settings
from uncle_sled.desk.theme.theme import load_fonts, use_theme
from uncle_sled.desk.troubles import Troubles
from uncle_sled.desk.window import Window
from uncle_sled.desk.worker import Worker
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.recovery import left_behind
from uncle_sled.exchange.sled_file import read
from uncle_sled.exchange.typed_pairs import PairsDisagree

OURS = "UNCLE_SLED_LETTERS"  # how large letters were wanted, where the setting and not the desktop says so
LEAST = (960, 600)  # room in which every view has its words [px at the scale of its letters]


def application(theme: str = "light") -> QApplication:
    """The one QApplication, with fonts and theme; made where there is none yet."""
    app = QApplication.instance()
    if not isinstance(app, QApplication):
        app = QApplication(["uncle-sled"])
        app.setApplicationName("uncle-sled")
        app.setApplicationDisplayName("Uncle Sled")
        app.setDesktopFileName("uncle-sled")
        app.setWindowIcon(QIcon(str(Path(__file__).with_name("icon.svg"))))
        app.setStyle("Fusion")
        load_fonts()
    use_theme(app, theme)
    return app


def open_window(
    project: Project, path: Path | None = None, worker: Worker | None = None, settings: Settings | None = None, reading_first: bool = True
) -> Window:
    """A window on a project. Args: reading_first: its findings are judged once the first reading is painted."""
    session = Session(project, path, worker)
    session.reading_first = reading_first
    window = Window(session, settings)
    screen = window.screen().availableSize()
    window.resize(min(1280, screen.width()), min(800, screen.height()))
    return window


def _text_size(settings: Settings) -> None:
    """Larger text is a larger scale of everything; Qt reads it once, before the first window."""
    if settings.get("text_size") != "1" and QApplication.instance() is None and "QT_SCALE_FACTOR" not in os.environ:
        os.environ[OURS] = os.environ["QT_SCALE_FACTOR"] = settings.get("text_size")


def scale_that_fits(wanted: float, wide: int, high: int) -> float:
    """The scale that leaves room for every view. Args: wanted: as it is; wide, high: of the screen at that scale [px]."""
    return max(min(wanted, wanted * wide / LEAST[0], wanted * high / LEAST[1]), 1.0)


def _begin_smaller(app: QApplication) -> None:
    """The screen is known once the application is; letters that leave no room for a view are made as large as there is room."""
    wanted = os.environ.get(OURS, "")
    if not wanted or os.environ.get("QT_SCALE_FACTOR") != wanted:
        return
    screen = app.primaryScreen().availableGeometry()
    fits = scale_that_fits(float(wanted), screen.width(), screen.height())
    if fits < float(wanted) - 0.01:
        os.environ["QT_SCALE_FACTOR"] = f"{fits:.2f}"  # no more the one that was wanted: it is tried once
        os.execv(sys.executable, [sys.executable, "-m", "uncle_sled", *sys.argv[1:]])


def _needs_a_screen() -> None:
    """Qt ends a program that finds no screen; that is said before it does. Raises: FileError."""
    if not sys.platform.startswith("linux") or os.environ.get("QT_QPA_PLATFORM"):
        return
    hint = "Start it on a desktop, or under xvfb-run. `uncle-sled report FILE` needs no screen."
    if not any(os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY")):
        raise FileError(f"There is no screen here: neither DISPLAY nor WAYLAND_DISPLAY is set. {hint}")
    display = re.fullmatch(r"(?:unix)?:(\d+)(?:\.\d+)?", os.environ.get("DISPLAY", ""))
    if display and not os.environ.get("WAYLAND_DISPLAY") and not _answers(int(display.group(1))):
        raise FileError(f"There is no screen here: nothing answers as DISPLAY {display.group(0)}. {hint}")


def _answers(number: int) -> bool:
    """Whether anything takes a connection as that local display, by its file or by its name alone."""
    for name in (f"/tmp/.X11-unix/X{number}", f"\0/tmp/.X11-unix/X{number}"):
        with socket.socket(socket.AF_UNIX) as door, suppress(OSError):
            door.connect(name)
            return True
    return False


def run(word: str | None) -> int:
    """Open the window on a file, a demo, or an empty build; returns when it is closed. Raises: FileError."""
    _needs_a_screen()
    settings = Settings()
    _text_size(settings)
    path = Path(word) if word is not None and (word not in DEMOS or Path(word).exists()) else None
    if path is not None:
        with suppress(PairsDisagree):  # the window asks about those
            read(path)  # a file that cannot be read is said before a window opens
    project = demo(word) if word in DEMOS and path is None else empty_project()
    app = application(settings.get("theme"))
    _begin_smaller(app)
    troubles = Troubles()
    window = open_window(project, None, Worker(), settings)
    if word is None:
        window.show_first_page()
    window.show()
    troubles.watch(window.say)
    if os.environ.get(OURS, "") not in ("", os.environ.get("QT_SCALE_FACTOR")):
        window.say(f"Letters are {float(os.environ['QT_SCALE_FACTOR']):g} times as large: more has no room on this screen.", "note")
    if settings.trouble:
        window.say(settings.trouble, "stop")
    if path is not None and not window.open_path(path):
        window.show_first_page()
    elif word is not None and left_behind():
        window.say("Something was not saved when it stopped last. Close this build to see it.", "note")
    settle_after_opening(window.session)
    code = app.exec()
    troubles.end()
    return code
