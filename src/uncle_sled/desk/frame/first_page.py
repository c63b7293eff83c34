"""What is shown when nothing is open: begin anew, go on with a file, or look at a demo, with pictures."""

from __future__ import annotations

from functools import lru_cache
from pathlib import Path

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QPushButton, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from uncle_sled.core.drawing.rig import rig_views
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.errors import SledError
from uncle_sled.core.reading.studied import Studied, length_m, study
from uncle_sled.desk.kit.elided import ElidedLabel
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Frame, canvas, paint
from uncle_sled.desk.theme.theme import colour
from uncle_sled.exchange.clock import moment_words
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.recovery import Autosave
from uncle_sled.exchange.sled_file import read

IN_A_ROW, IN_MORE_ROWS = 4, 3
SAYS = {
    "marsh-heron": "A teardrop on an own frame: the nose goes light coming home.",
    "rosin-box": "A bought shell made into a workshop: heavy nose, heavy left.",
    "orchard-keeper": "A tiny house on torsion axles: where to weld them, how high to hitch.",
    "dark-sky": "A camper box on a truck's bed: the rear axle is over its rating.",
    "ferry-bell": "A camper whose roof goes up: a shelf meets it on the road, and it asks for guys.",
}


class Picture(Guarded, QWidget):
    """A build's side view, small."""

    def __init__(self, s: Studied | None) -> None:
        super().__init__()
        self.s = s
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        return QSize(220, 136)

    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(QPen(colour("rule"), 1))
            painter.setBrush(colour("body"))
            painter.drawRoundedRect(QRectF(0.5, 0.5, self.width() - 1, self.height() - 1), 4, 4)
            if self.s is None:
                return
            build = self.s.build
            left = 1.0 if build.rig.carrier == "vehicle bed" else 0.3
            reach, top = length_m(build) + left + 0.2, rig_views.heights_m(build)[0]
            scale = min((self.width() - 16) / reach, (self.height() - 18) / max(top, 0.5))
            spare = max(self.height() - 18 - scale * top, 0)
            frame = Frame(scale, (self.width() - scale * reach) / 2 + left * scale, self.height() - 9 - spare / 2)
            painter.setClipRect(QRectF(2, 2, self.width() - 4, self.height() - 4))
            paint(painter, (*rig_views.side_rig(build), *rig_views.side_body(build)), frame)
            for p in things_in(self.s, 0):
                paint(painter, rig_views.thing_shapes(p, "side"), frame, None, "body")
            paint(painter, rig_views.side_wheels(build), frame)


@lru_cache(maxsize=8)
def _demo_studied(name: str) -> Studied:
    project = demo(name)
    return study(project.build, project.facts)


class Tile(Guarded, QFrame):
    """A picture with a name, a line about it, and a button."""

    chosen = Signal()

    def __init__(self, name: str, says: str, picture: QWidget, word: str = "Open") -> None:
        super().__init__()
        self.setObjectName("card")
        rows = QVBoxLayout(self)
        rows.setContentsMargins(10, 10, 10, 10)
        rows.setSpacing(4)
        rows.addWidget(picture)
        title = ElidedLabel("title")
        title.show_text(name)
        rows.addWidget(title)
        words = label(says, "small", "pencil", wrap=True)
        words.setMinimumHeight(34)
        words.setAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop)
        rows.addWidget(words)
        self.button = QPushButton(word)
        self.button.setAccessibleName(f"{word} {name}")
        self.button.clicked.connect(self.chosen)
        rows.addWidget(self.button)


class FirstPage(Guarded, QWidget):
    wants_new = Signal()
    wants_open = Signal()
    wants_list = Signal()
    wants_file = Signal(str)
    wants_demo = Signal(str)
    wants_recovered = Signal(object)
    throws_away = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        self.area = QScrollArea()
        self.area.setWidgetResizable(True)
        outer.addWidget(self.area)

    def show_page(self, recent: list[str], recovered: list[Autosave]) -> None:
        """Make the page anew from what there is."""
        inside = QWidget()
        rows = QVBoxLayout(inside)
        rows.setContentsMargins(40, 26, 40, 26)
        rows.setSpacing(10)
        rows.addWidget(label("Uncle Sled: whatever you change, you feel it on the ball.", "head"))
        rows.addWidget(label("Begin with what you have: a few answers give a drawing and a first reading.", "", "pencil"))
        row = QHBoxLayout()
        new, open_ = QPushButton("New build…"), QPushButton("Open a file…")
        new.setProperty("kind", "main")
        new.clicked.connect(self.wants_new)
        open_.clicked.connect(self.wants_open)
        for button in (new, open_):
            row.addWidget(button)
        row.addStretch(1)
        rows.addLayout(row)
        if recovered:
            rows.addSpacing(6)
            rows.addWidget(label("Not saved when it stopped", "title", "primer"))
            for autosave in recovered[:4]:
                rows.addLayout(self._recovered(autosave))
        there = [Path(word) for word in recent if Path(word).exists()][:4]
        if there:
            rows.addSpacing(6)
            rows.addWidget(label("Where you left off", "title"))
            rows.addLayout(self._tiles([self._file_tile(path) for path in there]))
        rows.addSpacing(6)
        rows.addWidget(label("Builds to look at", "title"))
        tiles = []
        for name in DEMOS:
            tile = Tile(name.replace("-", " ").title(), SAYS[name], Picture(_demo_studied(name)))
            tile.chosen.connect(lambda name=name: self.wants_demo.emit(name))
            tiles.append(tile)
        rows.addLayout(self._tiles(tiles))
        rows.addStretch(1)
        self.area.setWidget(inside)
        new.setFocus()

    def _tiles(self, tiles: list[Tile]) -> QGridLayout:
        grid = QGridLayout()
        grid.setSpacing(10)
        many = IN_A_ROW if len(tiles) <= IN_A_ROW else IN_MORE_ROWS
        for at in range(many):
            grid.setColumnStretch(at, 1)
        for at, tile in enumerate(tiles):
            grid.addWidget(tile, at // many, at % many)
        return grid

    def _file_tile(self, path: Path) -> Tile:
        kept = 0.0
        try:
            at = path.stat()
            kept = at.st_mtime
            project = read(path) if at.st_size < 4_000_000 else None
            picture, name = (Picture(study(project.build, project.facts) if project else None), project.name if project else path.stem)
        except (SledError, OSError):
            picture, name = Picture(None), f"{path.stem} (damaged)"
        tile = Tile(name, f"{path.name}, {moment_words(kept)}", picture)
        tile.setToolTip(str(path))
        tile.chosen.connect(lambda: self.wants_file.emit(str(path)))
        return tile

    def _recovered(self, autosave: Autosave) -> QHBoxLayout:
        row = QHBoxLayout()
        when = moment_words(autosave.when)
        of = f"of {autosave.of}" if autosave.of else "never saved to a file"
        words = label(f"{autosave.name}, kept {when}, {of}", wrap=True)
        take, drop = QPushButton("Go on with it"), QPushButton("Throw it away")
        take.setProperty("kind", "main")
        take.clicked.connect(lambda: self.wants_recovered.emit(autosave))
        drop.clicked.connect(lambda: self.throws_away.emit(autosave))
        row.addWidget(words, 1)
        row.addWidget(take)
        row.addWidget(drop)
        return row
