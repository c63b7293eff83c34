"""Pictures of every main view, made from a demo by driving the window itself."""

from __future__ import annotations

import json
import os
import sys
import tempfile
from pathlib import Path

from uncle_sled.core.errors import FileError


def take_shots(folder: Path, demo_name: str, theme: str, size: tuple[int, int], scale: float) -> int:
    """Write one PNG a view into a folder. Raises: FileError: where the folder cannot be written."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as fault:
        raise FileError(f"{folder} cannot hold the pictures: {fault.strerror}.") from None
    screen = _offscreen(size, scale)
    try:
        from PySide6.QtWidgets import QApplication, QWidget

        from uncle_sled.core.remedies.remedies import with_remedies
        from uncle_sled.desk.app import application, open_window
        from uncle_sled.desk.frame.new_build import NewBuild
        from uncle_sled.desk.theme.theme import use_theme
        from uncle_sled.exchange.demos import demo

        app = application(theme)
        window = open_window(demo(demo_name))
        session = window.session
        window.resize(*size)
        window.show()

        def shot(name: str, widget: QWidget = window) -> None:
            for _ in range(6):
                QApplication.processEvents()
            picture = widget.grab()
            path = folder / f"{name}.png"
            if not picture.save(str(path)):
                raise FileError(f"{path} could not be written.")
            print(path)

        session.judge(with_remedies(session.studied))
        for at, stop in enumerate(("Brief", "Rig", "Shell", "Stow"), 1):
            session.go_to(stop)
            if stop == "Stow":
                session.select(tuple(t.id for t in session.build.stow.things if t.tank)[:1])
            shot(f"{at}-{stop.lower()}")
            if stop == "Shell":
                _shell_shots(window, shot)
            elif stop == "Stow":
                _stow_shots(window, shot)
        _balance_shots(window, shot)
        worst = window.says.worst()
        if worst is not None:
            if worst.case_id:
                session.show_case(worst.case_id)
            window.try_worst()
            window.notice.hide()
            shot("5-stow-trying")
            session.put_back()
        session.go_to("Stow")
        session.select(())
        window.bench("Stow").show_table()
        window.notice.hide()
        shot("6-table")
        window.bench("Stow").show_table()
        window.show_first_page()
        shot("0-first-page")
        dialog = NewBuild(window.settings)
        dialog.show()
        shot("8-new-build", dialog)
        dialog.close()
        if theme == "light":
            use_theme(app, "dark")
            window.show_build()
            session.go_to("Stow")
            window.notice.hide()
            shot("10-stow-night")
        window.close()
        app.processEvents()
    finally:
        if screen:
            os.unlink(screen)
    return 0


def _shell_shots(window, shot) -> None:  # type: ignore[no-untyped-def]
    """The other views of the Shell stop, each with something in hand."""
    session = window.session
    for letter, view in zip("bcd", ("Openings", "Framing", "Faces"), strict=True):
        window.bench("Shell").show_view(view)
        framed = session.studied.framed
        if view == "Openings":
            session.select(tuple(o.id for o in session.build.shell.openings if o.kind == "door")[:1])
        elif view == "Framing":
            session.select(tuple(m.id for m in framed.members if m.face == "left side" and not m.along_s)[1:2])
        else:
            session.select(())
        shot(f"3{letter}-shell-{view.lower()}")
    session.select(())
    window.bench("Shell").show_view("Profile")


def _stow_shots(window, shot) -> None:  # type: ignore[no-untyped-def]
    """The other views of the Stow stop, in camp where there is one."""
    session, bench = window.session, window.bench("Stow")
    standing = next((mode.id for mode in session.build.stow.modes if not mode.towing), session.mode.id)
    for letter, view in zip("bcde", ("Solid", "Modes", "Cases", "Fits"), strict=True):
        if view != "Cases":
            session.show_mode(standing)
        else:
            session.show_case(session.studied.table.cases[0].id)
        bench.show_view(view)
        shot(f"4{letter}-stow-{view.lower()}")
    session.show_case(session.studied.table.cases[0].id)
    bench.show_view("Drawing")


def _balance_shots(window, shot) -> None:  # type: ignore[no-untyped-def]
    """The Balance bench: the axle's chart, and moves with the first of them tried."""
    from uncle_sled.core.remedies.move_sets import move_sets

    session = window.session
    session.go_to("Balance")
    bench = window.bench("Balance")
    shot("5a-balance-axle")
    bench.show_view("Moves")
    bench.asked_for = session.build
    bench._take_moves(move_sets(session.studied), "")
    if bench.offers.count():
        bench.offers.setCurrentRow(0)
        bench._offer(bench.offers.item(0))
    window.notice.hide()
    shot("5b-balance-moves")
    session.put_back()
    window.notice.hide()
    bench.show_view("Driving")
    shot("5c-balance-driving")
    bench.show_view("Axle")


def _offscreen(size: tuple[int, int], scale: float) -> str | None:
    """Use Qt's offscreen platform with a screen large enough, unless a platform was chosen."""
    if os.environ.get("QT_QPA_PLATFORM") or "PySide6.QtWidgets" in sys.modules:
        return None
    handle, name = tempfile.mkstemp(suffix=".json")
    with os.fdopen(handle, "w") as file:
        json.dump(
            {
                "screens": [
                    {
                        "name": "s1",
                        "x": 0,
                        "y": 0,
                        "width": round(size[0] * scale),
                        "height": round(size[1] * scale),
                        "logicalDpi": 96,
                        "logicalBaseDpi": 96,
                        "dpr": 1,
                    }
                ]
            },
            file,
        )
    os.environ["QT_QPA_PLATFORM"] = f"offscreen:configfile={name}"
    if scale != 1.0:
        os.environ["QT_SCALE_FACTOR"] = str(scale)
    return name
