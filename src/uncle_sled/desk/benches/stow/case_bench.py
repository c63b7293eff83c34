"""Load cases as columns: what each weighs and puts where, with levels and cargo edited in place; the sweep under it."""

from __future__ import annotations

import math
from typing import Any, Literal

import msgspec
from PySide6.QtCore import QAbstractTableModel, QEvent, QModelIndex, QObject, QPersistentModelIndex, Qt
from PySide6.QtGui import QBrush
from PySide6.QtWidgets import QAbstractItemView, QHBoxLayout, QHeaderView, QPushButton, QSplitter, QTableView, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove
from uncle_sled.core.document.stow import LoadCase, Thing
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.fan import fan, levels_words, read_off
from uncle_sled.core.reading.limits import axle_ratings_kg
from uncle_sled.core.reading.load_cases import Case, is_own, is_standing
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.sureness import chances
from uncle_sled.core.studies.balance.sweep import sweep
from uncle_sled.core.studies.balance.tow_vehicle import front_axle, most_total_kg, payload_left_kg, rear_axle
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.ask import ask_text
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour

Index = QModelIndex | QPersistentModelIndex
Kind = Literal["reading", "level", "aboard", "head"]
COLUMN_PX, FIRST_PX = 86, 140


class Line(msgspec.Struct, frozen=True):
    """One row of the bench: what it shows, and the thing whose level or presence it is."""

    title: str
    kind: Kind
    key: str
    thing: Thing | None = None


class CaseModel(Guarded, QAbstractTableModel):
    """The build as it was at the last ``refresh``: while nobody looks, cases may come and go without it."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.studied = session.studied
        self.lines = self._lines()

    def refresh(self) -> None:
        self.beginResetModel()
        self.studied = self.session.studied
        self.lines = self._lines()
        self.endResetModel()

    def _lines(self) -> list[Line]:
        build, facts = self.studied.build, self.studied.facts
        bed = build.rig.carrier == "vehicle bed"
        names = [("total", "Whole weight")]
        if not bed:
            names += [("tongue", "On the ball"), ("share", "Share"), ("want", "Want"), ("chance", "Chance in band")]
        count = len(self.studied.readings.axle_kg[0]) if len(self.studied.readings.axle_kg) else 0
        if bed and count == 2:
            names += [("axle0", "Front axle"), ("axle1", "Rear axle"), ("within", "Chance within")]
        else:
            names += [(f"axle{k}", "Axle" if count == 1 else f"Axle {k + 1}") for k in range(count)]
        names += [("left", "Left wheels"), ("right", "Right wheels"), ("cgx", "Weight at"), ("cgz", "Weight up at")]
        names += [("payload", "Payload left")]
        if not bed and any(v.wheelbase and v.rear_empty for v in facts.vehicles):
            names.append(("car", "Car's rear axle"))
        if not bed and any(v.wheelbase and v.front_empty and v.ball_overhang for v in facts.vehicles):
            names.append(("nose", "Car's front axle"))
        lines = [Line(title, "reading", key) for key, title in names]
        tanks = [t for t in build.stow.things if t.tank]
        if tanks:
            lines += [Line("Levels", "head", "levels"), *(Line(t.name, "level", t.id, t) for t in tanks)]
        goes = [t for t in build.stow.things if t.cargo or t.kind in ("vehicle aboard", "spare wheel")]
        if goes:
            lines += [Line("Aboard", "head", "aboard"), *(Line(t.name, "aboard", t.id, t) for t in goes)]
        return lines

    @property
    def cases(self) -> tuple[Case, ...]:
        return self.studied.table.cases

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.lines)

    def columnCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.cases)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if orientation == Qt.Orientation.Horizontal:
            case = self.cases[section]
            if role == Qt.ItemDataRole.DisplayRole:
                return case.name + ("\u00a0•" if is_own(self.studied.build, case.case) else "")
            if role == Qt.ItemDataRole.ToolTipRole:
                same = f" Same as {', '.join(lower_first(n) for n in case.same_as)}." if case.same_as else ""
                return f"{case.mode.name}: {case.says}.{same}"
        elif role == Qt.ItemDataRole.DisplayRole:
            return self.lines[section].title
        elif role == Qt.ItemDataRole.FontRole and self.lines[section].kind == "head":
            return None
        return None

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        line, column = self.lines[index.row()], index.column()
        case = self.cases[column]
        if role == Qt.ItemDataRole.TextAlignmentRole:
            return int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        if role == Qt.ItemDataRole.BackgroundRole:
            if line.kind == "head":
                return QBrush(colour("kraft"))
            return QBrush(colour("chalk wash")) if column == self.session.row else None
        if line.kind == "level" and role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole):
            return self._level_words(case, line.key)
        if line.kind == "aboard":
            if role == Qt.ItemDataRole.CheckStateRole and case.case.stage == "loaded":
                return Qt.CheckState.Checked if self._aboard(case, line) else Qt.CheckState.Unchecked
            if role == Qt.ItemDataRole.DisplayRole:
                return "" if case.case.stage == "loaded" else "–"
            return None
        if line.kind == "reading":
            if role == Qt.ItemDataRole.DisplayRole:
                return self._reading(line.key, column)[0]
            if role == Qt.ItemDataRole.ForegroundRole:
                ink = self._reading(line.key, column)[1]
                return QBrush(colour(ink)) if ink else None
        return None

    def _level_words(self, case: Case, id: str) -> str:
        if case.case.stage != "loaded":
            return "–"
        level = next((lv.level for lv in case.case.levels if lv.id == id), 0.0)
        return f"{level * 100:.0f} %"

    def _aboard(self, case: Case, line: Line) -> bool:
        table = self.studied.table
        row, column = self.cases.index(case), table.ids.index(line.key) if line.key in table.ids else -1
        return column >= 0 and bool(table.mass_kg[row, column])

    def _reading(self, key: str, column: int) -> tuple[str, str]:
        s, words = self.studied, Words(self.session.shown)
        b, case = s.readings, self.cases[column]
        if key == "total":
            return _kg(b.total_kg[column], words), over(b.total_kg[column], most_total_kg(s))
        if key.startswith("axle"):
            kg = b.axle_kg[column, int(key[4:])]
            return _kg(kg, words), over(kg, axle_ratings_kg(s.build.rig)[int(key[4:])])
        if key == "within":
            chance = float(chances(s)[column])
            return words.share(chance, 0), "ochre word" if chance < 0.8 else ""
        if key in ("left", "right"):
            return _kg((b.left_kg if key == "left" else b.right_kg)[column], words), ""
        if key in ("cgx", "cgz"):
            at = float(b.cg_m[column, 0 if key == "cgx" else 2])
            return ("–" if math.isnan(at) else words.m(at)), ""
        if key == "payload":
            left = payload_left_kg(s, column)
            return ("–", "") if left is None else (words.kg(left), "primer" if left < 0 else "")
        if key in ("nose", "car"):
            axle = (front_axle if key == "nose" else rear_axle)(s, column)
            return ("–", "") if axle is None else (_kg(axle.kg, words), over(axle.kg, axle.rating_kg))
        return self._ball(key, column, s, words, case)

    def _ball(self, key: str, column: int, s: Studied, words: Words, case: Case) -> tuple[str, str]:
        b = s.readings
        tongue = float(b.tongue_kg[column])
        if math.isnan(tongue) or not case.mode.towing:
            return "–", ""
        low, high = (float(kg) for kg in b.band_kg[column])
        ink = "" if low <= tongue <= high else "primer" if tongue < 0 else "ochre word"
        if key == "tongue":
            return words.kg(tongue), ink
        if key == "share":
            return words.share(float(b.share[column])), ink
        if key == "want":
            return f"{words.bare_kg(low)} to {words.bare_kg(high)}", ""
        return words.share(float(b.chance[column]), 0), "ochre word" if b.chance[column] < 0.8 else ""

    def flags(self, index: Index) -> Qt.ItemFlag:
        line, case = self.lines[index.row()], self.cases[index.column()]
        if line.kind == "head":
            return Qt.ItemFlag.NoItemFlags
        made = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
        if case.case.stage == "loaded":
            if line.kind == "level":
                made |= Qt.ItemFlag.ItemIsEditable
            if line.kind == "aboard":
                made |= Qt.ItemFlag.ItemIsUserCheckable
        return made

    def setData(self, index: Index, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        line, case = self.lines[index.row()], self.cases[index.column()]
        if line.kind == "aboard" and role == Qt.ItemDataRole.CheckStateRole:
            on = Qt.CheckState(value) == Qt.CheckState.Checked
            return set_aboard(self.session, case.case, line.key, on)
        if line.kind == "level" and role == Qt.ItemDataRole.EditRole:
            level = read_level(str(value))
            if level is None:
                self.session.said.emit(
                    f"{line.title}: “{value}” is no level; 0 to 100 %, “full”, “half” or “empty” would be right.", "stop"
                )
                return False
            return set_level(self.session, case.case, line.key, level)
        return False


def over(kg: Any, limit_kg: float | None) -> str:
    """The ink of a load: red over its limit."""
    return "primer" if kg is not None and limit_kg is not None and kg > limit_kg else ""


def _kg(value: Any, words: Words) -> str:
    return "–" if value is None or math.isnan(float(value)) else words.kg(float(value))


def read_level(text: str) -> float | None:
    """A level as typed: a percentage, or full, half, empty; None for what is none."""
    body = text.strip().lower().replace("%", "").replace(",", ".").strip()
    words = {"full": 1.0, "half": 0.5, "empty": 0.0, "quarter": 0.25}
    if body in words:
        return words[body]
    try:
        value = float(body) / 100
    except ValueError:
        return None
    return value if 0.0 <= value <= 1.0 else None


def _with(session: Session, case: LoadCase) -> list[Op]:
    """Ops that put a case into the build in place of the one of its id."""
    have = any(one.id == case.id for one in session.build.stow.cases)
    return [*([remove(f"stow.cases.{case.id}")] if have else []), add_to("stow.cases", msgspec.to_builtins(case))]


def set_level(session: Session, case: LoadCase, id: str, level: float) -> bool:
    """A tank's level in a case; a standing case becomes the builder's own by it."""
    levels = [lv for lv in msgspec.to_builtins(case.levels) if lv["id"] != id] + [{"id": id, "level": level}]
    made = msgspec.convert({**msgspec.to_builtins(case), "levels": levels}, LoadCase)
    name = next((t.name for t in session.build.stow.things if t.id == id), id)
    return session.edit(f"{name} at {level * 100:.0f} %: {lower_first(case.name)}", _with(session, made), "Stow", (id,))


def set_aboard(session: Session, case: LoadCase, id: str, on: bool) -> bool:
    aboard = [one for one in msgspec.to_builtins(case.aboard) if one["id"] != id] + [{"id": id, "aboard": on}]
    made = msgspec.convert({**msgspec.to_builtins(case), "aboard": aboard}, LoadCase)
    name = next((t.name for t in session.build.stow.things if t.id == id), id)
    says = f"{name} {'comes along' if on else 'stays behind'}: {lower_first(case.name)}"
    return session.edit(says, _with(session, made), "Stow", (id,))


def swept_row(session: Session) -> int:
    """The case that is swept: the shown one, or the first on the road where that one stands."""
    cases = session.studied.table.cases
    if cases and cases[session.row].mode.towing:
        return session.row
    return next((row for row, case in enumerate(cases) if case.mode.towing), 0)


class Fan(Chart):
    """The sweep of the case that is shown; the pointer reads a combination off."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Every tank at every level", self._shapes, empty=self._why_none)
        self.setMinimumHeight(130)
        self.reads(self._read)

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.session.studied
        found = sweep(s, swept_row(self.session))
        return fan(s, found, Words(self.session.shown), width, height) if found is not None else ()

    def _read(self, x: float, y: float, width: float, height: float) -> str:
        s = self.session.studied
        found = sweep(s, swept_row(self.session))
        return read_off(s, found, Words(self.session.shown), (x, y), width, height) if found is not None else ""

    def _why_none(self) -> str:
        if self.session.studied.support is None:
            return "There is no reading yet, so there is nothing to sweep."
        return "Nothing is on the road yet that could be swept."


class CaseBench(Guarded, QWidget):
    """The table over the fan."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.model = CaseModel(session)
        self.view = QTableView()
        self.view.setModel(self.model)
        self.view.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.view.setAccessibleName("Load cases as columns")
        self.view.verticalHeader().setDefaultSectionSize(24)
        self.view.verticalHeader().setFixedWidth(FIRST_PX)
        self.view.verticalHeader().setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        self.view.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Interactive)
        self.view.horizontalHeader().setDefaultSectionSize(COLUMN_PX)
        self.view.horizontalHeader().setMinimumSectionSize(64)
        self.view.horizontalHeader().sectionClicked.connect(self._show)
        self.view.clicked.connect(lambda index: self._show(index.column()))
        self.view.setCornerButtonEnabled(False)
        self.view.installEventFilter(self)
        self.fan, self.says = Fan(session), label("", "small", "pencil", wrap=True)
        lower = QWidget()
        under = QVBoxLayout(lower)
        under.setContentsMargins(0, 0, 0, 0)
        under.setSpacing(3)
        self.title = label("Every tank at every level", "title")
        under.addWidget(self.title)
        under.addWidget(self.fan, 1)
        under.addWidget(self.says)
        self.split = QSplitter(Qt.Orientation.Vertical)
        self.split.setChildrenCollapsible(False)
        self.split.addWidget(self.view)
        self.split.addWidget(lower)
        self.split.setSizes([330, 230])
        top = QHBoxLayout()
        top.setSpacing(6)
        self.add_button = QPushButton("Add a case…")
        self.add_button.setToolTip("A copy of the case that is shown, under a name of your own")
        self.back_button = QPushButton("Give back")
        self.back_button.setToolTip("A standing case as it was; one of your own is taken away")
        self.add_button.clicked.connect(lambda _=False: self.ask_add())
        self.back_button.clicked.connect(lambda _=False: self.give_back())
        top.addWidget(self.add_button)
        top.addWidget(self.back_button)
        top.addStretch(1)
        top.addWidget(label("Type a level, tick what comes along. • is changed by you.", "small", "pencil"))
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.addLayout(top)
        rows.addWidget(self.split, 1)
        session.changed.connect(self.refresh)
        session.case_changed.connect(self.refresh)
        self.refresh()

    def showEvent(self, event: object) -> None:
        self.refresh()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """The columns share the room that there is."""
        if watched is self.view and event.type() == QEvent.Type.Resize:
            self._share()
        return super().eventFilter(watched, event)

    def _share(self) -> None:
        many = max(self.model.columnCount(), 1)
        room = self.view.width() - FIRST_PX - 16
        for at in range(many):
            self.view.setColumnWidth(at, max(room // many, COLUMN_PX))

    def refresh(self) -> None:
        if not self.isVisible():
            return
        at = self.view.currentIndex()
        spot = (at.row(), at.column())
        scrolled = self.view.verticalScrollBar().value()
        self.model.refresh()
        self._share()
        if spot[0] >= 0:
            self.view.setCurrentIndex(self.model.index(*spot))
        self.view.verticalScrollBar().setValue(scrolled)
        row = swept_row(self.session)
        swept = self.model.cases[row] if self.model.cases else None
        case = self.model.cases[self.session.row] if self.model.cases else None
        self.back_button.setEnabled(case is not None and is_own(self.session.build, case.case))
        found = sweep(self.session.studied, swept_row(self.session))
        if found is None or not found.tanks:
            self.says.setText("" if found is None else "No tank rides along, so there is nothing to sweep.")
            return
        words = Words(self.session.shown)
        worst = max((found.worst_low, found.worst_high), key=lambda spot: spot.out_kg)
        way = "light" if worst is found.worst_low else "heavy"
        if found.of == "rear axle":
            way = "much on the front axle" if worst is found.worst_low else "much on the rear axle"
        well = "in the band" if found.of == "ball" else "within both axles"
        tail = f" {found.left_out} small tanks keep their level." if found.left_out else ""
        tried = f"{len(found.load_kg)} combinations with the cargo of {lower_first(swept.name) if swept else ''}."
        self.says.setText(
            f"{tried} Worst: {words.kg(worst.out_kg)} too {way} with {levels_words(self.session.studied, worst)}.{tail}"
            if worst.out_kg > 0
            else f"{tried} All of them are {well}.{tail}"
        )

    def _show(self, column: int) -> None:
        if 0 <= column < len(self.model.cases):
            self.session.show_case(self.model.cases[column].id)

    def ask_add(self) -> None:
        if not self.model.cases:
            return
        name = ask_text(self, "A case of your own", "What is it called?", "Half full, no cargo")
        if name:
            self.add(name)

    def add(self, name: str) -> None:
        """The shown case under another name, to be changed."""
        case = self.model.cases[self.session.row].case
        id = fresh_id("case", [c.case.id for c in self.model.cases] + [c.id for c in self.session.build.stow.cases])
        made = msgspec.structs.replace(case, id=id, name=name.strip()[:40], mode=self.session.mode.id)
        if self.session.edit(f"Add the case {name.strip()[:40]}", _with(self.session, made), "Stow"):
            if not any(c.id == id for c in self.session.studied.table.cases):
                self.session.said.emit("It weighs as another one does, and is shown with it until a level or a thing is changed.", "note")
            self.session.show_case(id)

    def give_back(self) -> None:
        case = self.model.cases[self.session.row].case
        if not is_own(self.session.build, case):
            return
        word = "Give back" if is_standing(self.session.build, case.id) else "Take away"
        self.session.edit(f"{word} the case {lower_first(case.name)}", [remove(f"stow.cases.{case.id}")], "Stow")
