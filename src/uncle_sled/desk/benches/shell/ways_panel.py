"""The same faces made in several ways, beside each other for this very body, as it stands first; one may be kept."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainter, QPen
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QStyle, QStyledItemDelegate, QStyleOptionViewItem, QVBoxLayout, QWidget

from uncle_sled.core.document.shell import Layer
from uncle_sled.core.studies.shell.compare_ways import Way, compare_schools, compare_ways
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Index, Table, TableModel
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour

BAR_PX, CAPTION = (4, "Weights by the drawing, sticks and openings in; money and hours only compare. Dust and resin: mask and gloves.")


SCHOOLS_TOO = "schools"


def _thick(layers: tuple[Layer, ...], words: Words) -> str:
    """The layers' thicknesses from outside in."""
    thick = [layer.thickness.si for layer in layers if layer.thickness.si > 0]
    if words.shown.imperial:
        return " + ".join(words.layer(one) for one in thick)
    return " + ".join(f"{one * 1000:g}" for one in thick) + " mm"


class Bars(Guarded, QStyledItemDelegate):
    """A number with a bar under it, the longest of its column as wide as the cell."""

    def __init__(self, model: TableModel[Way], number: Callable[[Way], float | None], parent: QWidget) -> None:
        super().__init__(parent)
        self.model, self.number = model, number

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        super().paint(painter, option, index)
        numbers = [self.number(way) or 0.0 for way in self.model.rows]
        most = max(numbers, default=0.0)
        if most > 0 and 0 <= index.row() < len(numbers):
            box = QRectF(option.rect).adjusted(4, 0, -4, -2)  # type: ignore[attr-defined]
            wide = box.width() * numbers[index.row()] / most
            painter.fillRect(QRectF(box.right() - wide, box.bottom() - BAR_PX, wide, BAR_PX), colour("ochre", 0.8))


class Ticks(Guarded, QStyledItemDelegate):
    """Each wish with a drawn tick where it is kept and a cross where it is not."""

    def __init__(self, model: TableModel[Way], parent: QWidget) -> None:
        super().__init__(parent)
        self.model = model

    def initStyleOption(self, option: QStyleOptionViewItem, index: Index) -> None:
        super().initStyleOption(option, index)
        option.text = ""  # type: ignore[attr-defined]

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        super().paint(painter, option, index)
        if not 0 <= index.row() < len(self.model.rows):
            return
        box = QRectF(option.rect)  # type: ignore[attr-defined]
        chosen = bool(option.state & QStyle.StateFlag.State_Selected)  # type: ignore[attr-defined]
        x, y = box.left() + 5, box.center().y()
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setClipRect(box)
        for name, kept in self.model.rows[index.row()].wishes:
            ink = colour("on chalk" if chosen else "spruce" if kept else "primer")
            painter.setPen(QPen(ink, 2))
            if kept:
                painter.drawPolyline([QPointF(x, y), QPointF(x + 3, y + 4), QPointF(x + 9, y - 5)])
            else:
                painter.drawLine(QPointF(x + 1, y - 4), QPointF(x + 8, y + 4))
                painter.drawLine(QPointF(x + 8, y - 4), QPointF(x + 1, y + 4))
            painter.setPen(colour("on chalk" if chosen else "ink"))
            wide = painter.fontMetrics().horizontalAdvance(name)
            painter.drawText(QPointF(x + 13, y + painter.fontMetrics().ascent() / 2 - 1), name)
            x += wide + 24
        painter.restore()


class CompareWays(Dialog):
    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = session
        self.setWindowTitle("Compare ways of making it")
        self.resize(960, 440)
        faces = session.build.shell.faces
        groups: list[tuple[object, str]] = []
        skin = tuple(f.id for f in faces if f.kind in ("left side", "right side", "roof", "front", "rear"))
        sides = tuple(f.id for f in faces if f.kind in ("left side", "right side"))
        over = tuple(f.id for f in faces if f.kind in ("roof", "front"))
        groups += [
            (ids, words)
            for ids, words in ((skin, "sides, roof, nose and tail"), (sides, "both sides"), (over, "roof and nose"))
            if len(ids) > 1
        ]
        groups += [((face.id,), lower_first(face.name)) for face in faces]
        groups.append((SCHOOLS_TOO, "whole body, by school"))
        self.which = ChoiceField("Which faces", groups)
        self.which.setMinimumWidth(190)
        self.which.entered.connect(lambda _: self.refresh())
        self.words = words = Words(session.shown)
        mass, length = session.shown.mass, "" if session.shown.imperial else ", mm"
        self.model: TableModel[Way] = TableModel(
            (
                Column("Made of", self._name, 190),
                Column(f"Body, {mass}", lambda way: words.bare_kg(way.body_kg), right=True),
                Column(f"Ball, {mass}", self._ball, right=True, tip="In the worst case, named beside it"),
                Column("Worst case", lambda way: lower_first(way.worst_case)),
                Column(f"Inside wide{length}", self._wide, right=True),
                Column("Warmth", lambda way: words.resistance(way.r_m2k_w) if way.r_m2k_w is not None else "no layers", right=True),
                Column("Money", lambda way: f"{way.money:.0f}" if way.money is not None else "", right=True),
                Column("Hours", lambda way: f"{way.hours:.0f}" if way.hours is not None else "", right=True),
                Column("Wishes", _wishes, ink=lambda way: "" if all(kept for _, kept in way.wishes) else "primer"),
            )
        )
        self.table = Table(self.model, "Ways side by side")
        self.table.setItemDelegateForColumn(1, Bars(self.model, lambda way: way.body_kg, self.table))
        self.table.setItemDelegateForColumn(6, Bars(self.model, lambda way: way.money, self.table))
        self.table.setItemDelegateForColumn(8, Ticks(self.model, self.table))
        self.table.selectionModel().selectionChanged.connect(lambda *_: self._may())
        self.keep = QPushButton("Make it so")
        self.keep.setProperty("kind", "main")
        self.keep.clicked.connect(self._keep)
        close = QPushButton("Leave it as it is")
        close.clicked.connect(self.reject)
        top = QHBoxLayout()
        top.addWidget(label("Faces", "", "pencil"))
        top.addWidget(self.which)
        top.addStretch(1)
        keys = QHBoxLayout()
        keys.addWidget(label(CAPTION, "small", "pencil"))
        keys.addStretch(1)
        keys.addWidget(close)
        keys.addWidget(self.keep)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(18, 14, 18, 14)
        rows.addLayout(top)
        rows.addWidget(self.table, 1)
        rows.addLayout(keys)
        self.refresh()

    @property
    def ways(self) -> tuple[Way, ...]:
        return self.model.rows

    def _name(self, way: Way) -> str:
        return f"{way.name}: {_thick(way.layers, self.words)}" if way.layers else way.name

    def _ball(self, way: Way) -> str:
        return "" if way.worst_ball_kg is None else self.words.bare_kg(way.worst_ball_kg)

    def _wide(self, way: Way) -> str:
        if way.inside_width_m is None:
            return ""
        return self.words.cut(way.inside_width_m).removesuffix(" mm")

    def refresh(self) -> None:
        build, facts, which = self.session.build, self.session.facts, self.which.currentData()
        found = compare_schools(build, facts) if which == SCHOOLS_TOO else compare_ways(build, facts, which)
        self.model.set_rows(found, lambda a, b: a.name == b.name)
        self._may()

    def _row(self) -> int:
        rows = self.table.selectionModel().selectedRows() if self.table.selectionModel() is not None else []
        return rows[0].row() if rows else -1

    def _may(self) -> None:
        at = self._row()
        self.keep.setEnabled(0 <= at < len(self.ways) and bool(self.ways[at].ops))

    def _keep(self) -> None:
        way = self.ways[self._row()]
        whole = self.which.currentData() == SCHOOLS_TOO
        if self.session.edit(
            f"Made {'as' if whole else 'of'}: {way.name}", way.ops, "Shell", () if whole else tuple(self.which.currentData())
        ):
            self.accept()


def _wishes(way: Way) -> str:
    """As words, for who hears them; room for the ticks is in the spaces."""
    return "   ".join(f"{name} {'yes' if kept else 'no'}" for name, kept in way.wishes)
