"""Pictures of every main view, made from a demo by driving the window itself."""

from __future__ import annotations

import json
import os
import sys
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING

from uncle_sled.core.errors import FileError
from uncle_sled.core.trail import HOME

if TYPE_CHECKING:
    from PySide6.QtWidgets import QWidget

    from uncle_sled.desk.benches.about import About, Shot
    from uncle_sled.desk.session import Session
    from uncle_sled.desk.window import Window


SMALL_PX = 580  # width of the guide's pictures, which its window shows whole


def take_shots(folder: Path, demo_name: str, theme: str, size: tuple[int, int], scale: float, small: Path | None = None) -> int:
    """Write one PNG a view into a folder. Args: small: where those that the guide names go once more, smaller.

    Raises: FileError: where a folder cannot be written.
    """
    for place in (folder, small):
        try:
            if place is not None:
                place.mkdir(parents=True, exist_ok=True)
        except OSError as fault:
            raise FileError(f"{place} cannot hold the pictures: {fault.strerror}.") from None
    screen = _offscreen(size, scale)
    try:
        with nobodys_home():
            _take(folder, demo_name, theme, size, small)
    finally:
        if screen:
            os.unlink(screen)
    return 0


@contextmanager
def nobodys_home() -> Iterator[None]:
    """Within this there are no settings, no autosaves and no files of before: pictures are the same whoever makes them."""
    names = [f"XDG_{what}_HOME" for what in ("CONFIG", "STATE", "CACHE")]
    before = {name: os.environ.get(name) for name in names}
    with tempfile.TemporaryDirectory() as home:
        os.environ |= {name: f"{home}/{name}" for name in names}
        try:
            yield
        finally:
            for name, value in before.items():
                os.environ.pop(name)
                if value is not None:
                    os.environ[name] = value


def _take(folder: Path, demo_name: str, theme: str, size: tuple[int, int], small: Path | None) -> None:
    from PySide6.QtCore import Qt
    from PySide6.QtWidgets import QApplication

    from uncle_sled.core.remedies.remedies import with_remedies
    from uncle_sled.desk.app import application, open_window
    from uncle_sled.desk.benches.about import abouts
    from uncle_sled.desk.kit.dress import wear
    from uncle_sled.exchange.demos import DEMOS, demo
    from uncle_sled.shipped import shipped

    app = application(theme)
    window = open_window(demo(demo_name))
    session = window.session
    window.resize(*size)
    window.show()

    told = shipped("guide/guide.md").decode()

    def shot(name: str, widget: QWidget = window) -> None:
        for _ in range(6):
            QApplication.processEvents()
        picture = widget.grab()
        path = folder / f"{name}.png"
        if not picture.save(str(path)):
            raise FileError(f"{path} could not be written.")
        if small is not None and f"screenshots/{name}.png" in told:  # the guide's window shows what the guide names
            less = picture.toImage().scaledToWidth(SMALL_PX, Qt.TransformationMode.SmoothTransformation)
            if not less.save(str(small / path.name)):
                raise FileError(f"{small / path.name} could not be written.")
        print(path)

    session.judge(with_remedies(session.studied))
    for said in abouts():
        for each_shot in said.shots:
            if each_shot.demo:
                if demo_name in (each_shot.demo, DEMOS[0]):
                    _decision(shot, said.stop, each_shot, size)
                continue
            _make_ready(window, said, each_shot)
            shot(each_shot.name)
            if each_shot.after is not None:
                each_shot.after(window.bench(said.stop))
        if said.views:
            window.bench(said.stop).show_view(said.views[0].name)
    session.select(())
    session.go_to(HOME)
    window.show_first_page()
    shot("0-first-page")
    papers = _papers(session)
    papers.show()
    shot("11-papers", papers)
    papers.close()
    if theme == "light":
        wear(app, "dark")
        window.show_build()
        session.go_to(HOME)
        window.notice.hide()
        shot("10-stow-night")
    window.close()
    app.processEvents()


def _decision(shot: Callable[..., None], stop: str, one: Shot, size: tuple[int, int]) -> None:
    """What the guide tells of a demo: one decision with its picture, in a window of its own."""
    from uncle_sled.desk.app import open_window
    from uncle_sled.exchange.demos import demo

    window = open_window(demo(one.demo))
    window.resize(*size)
    window.show()
    window.session.judge_now()
    window.session.go_to(stop)
    bench = window.bench(stop)
    bench.show_view(one.view)
    if one.ready is not None:
        one.ready(bench)
    bench.refresh()
    window.notice.hide()
    shot(one.name, window)
    window.session.put_back()
    window.session.history = window.session.history.was_saved()
    window.close()


def _papers(session: Session) -> QWidget:
    """One page of each kind that is built from: a face, the frame or a cabinet, a sheet, a template."""
    from PySide6.QtWidgets import QGridLayout, QWidget

    from uncle_sled.core.drawing.cut.cut_sheets import cut_sheets
    from uncle_sled.core.drawing.cut.templates import templates_of
    from uncle_sled.core.drawing.cut.tiles import PAPERS, tile_pages
    from uncle_sled.core.drawing.paper import paper_of
    from uncle_sled.core.words import Words
    from uncle_sled.desk.frame.page_view import PageSheet
    from uncle_sled.exchange.drawing_set import drawing_set

    s, name = session.studied, session.project.name
    drawn = drawing_set(s, name, "the day of print")
    wanted = (": Left side", ": frame", "hatch on its struts", "(2)", ": Floor")
    pages = [next((page for page in drawn if page.title.endswith(end)), None) for end in wanted]
    sheets = [page for page in cut_sheets(s, name, "the day of print") if "sheet" in page.title]
    pages.insert(2, max(sheets, key=lambda page: len(page.shapes), default=None))
    curved = next((t for t in templates_of(s) if t.drawn.curves_only), None)
    if curved is not None:
        words, paper = Words(s.build.brief.reading.shown()), PAPERS[paper_of(s.build).name]
        pages.insert(3, tile_pages(curved.drawn, words.told(curved.title), name, paper, words)[0])
    whole = QWidget()
    whole.resize(1280, 920)
    grid = QGridLayout(whole)
    for k, page in enumerate([page for page in pages if page is not None][:4]):
        grid.addWidget(PageSheet(page), k // 2, k % 2)
    return whole


def _make_ready(window: Window, said: About, shot: Shot) -> None:
    """The stop, its view and mode, and what is worth having in hand on it."""
    session = window.session
    session.go_to(said.stop)
    bench, modes = window.bench(said.stop), session.build.stow.modes
    mode = next((m.id for m in modes if m.towing != shot.standing), None)
    if shot.standing and mode is not None:
        session.show_mode(mode)
    elif session.studied.table.cases:
        session.show_case(session.studied.table.cases[0].id)
    session.select(())
    if shot.view:
        bench.show_view(shot.view)
        picks = said.view(shot.view).picks
        if picks is not None:
            session.select(picks(session.build, session.studied))
    if shot.ready is not None:
        shot.ready(bench)
    window.notice.hide()


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
