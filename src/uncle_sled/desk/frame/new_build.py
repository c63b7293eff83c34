"""A few questions beside a drawing that answers at once; everything can be changed later."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.beginnings import HAVES, Answers, begin
from uncle_sled.core.document.brief import Brief, Reading
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.project import Project
from uncle_sled.core.document.quantity import Length, Mass, Quantity
from uncle_sled.core.errors import EntryError
from uncle_sled.core.units import Shown
from uncle_sled.desk.frame.sled_reading import reading
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.fields import ChoiceField, QuantityField, label
from uncle_sled.desk.session import Session
from uncle_sled.desk.settings import Settings
from uncle_sled.desk.sheet.sheet_view import SheetView

READINGS = {"North American": Reading("ft-in", "lb", "gal")}
SLEEPERS: list[tuple[object, str]] = [(n, f"{n}") for n in range(1, 7)]
# Title of each of the five sizes by what one has got; empty: not asked.
ASKS = {
    "a bought shell": ("Body length", "Width", "Height", "Axle from ball", "Weighed total", "On the ball"),
    "a bare trailer": ("Body length", "Width", "Height", "Axle from ball", "Frame weighs", ""),
    "a vehicle with a bed": ("Body length", "Width", "Height", "Wheelbase", "Front axle empty", "Rear axle empty"),
    "nothing yet": ("Body length", "Width", "Height", "", "", ""),
}
KINDS: tuple[type[Quantity], ...] = (Length, Length, Length, Length, Mass, Mass)
NAMES = ("length", "width", "height", "axle", "total", "ball")


class NewBuild(Dialog):
    """At most eight inputs. ``project`` is what the answers give."""

    made = Signal(object)

    def __init__(self, settings: Settings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle("New build")
        self.resize(900, 560)
        self.region = settings.get("region")
        own = Reading(settings.get("length"), settings.get("mass"), settings.get("volume"))  # type: ignore[arg-type]
        self.reading = READINGS.get(self.region, own) if own == Reading() else own
        self.typed: dict[str, Quantity | None] = dict.fromkeys(NAMES)
        self.project: Project | None = None
        self.have = ChoiceField("What have you got?", [(have, have) for have in HAVES])
        self.where = ChoiceField("Where is it towed?", list(field_of(Brief, "region").choices))
        self.where.show_value(self.region)
        self.sleep = ChoiceField("Who sleeps in it?", SLEEPERS)
        self.sleep.show_value(2)
        self.sleep_label = label("Sleepers", "", "pencil")
        self.fields = [QuantityField(kind, name, self.shown) for kind, name in zip(KINDS, NAMES, strict=True)]
        self.labels = [label("", "", "pencil") for _ in NAMES]
        self.session = Session(begin("My build", self.answers()))
        self.sheet = SheetView(self.session, plan=False)
        self.complaint, self.first = label("", "", "primer", wrap=True), label("", "head", wrap=True)
        self.about = label(
            "What is left open is guessed, and marked as a guess. Everything can be changed later.", "small", "pencil", wrap=True
        )
        self._lay()
        for field in (self.have, self.where, self.sleep):
            field.entered.connect(self._chosen)
        for number, name in zip(self.fields, NAMES, strict=True):
            number.entered.connect(lambda value, name=name: self._typed(name, value))
            number.wrong.connect(self.complaint.setText)
        self.refresh()

    def _lay(self) -> None:
        grid = QGridLayout()
        grid.setColumnMinimumWidth(1, 170)
        rows: list[tuple[QWidget, QWidget]] = [
            (label("You have", "", "pencil"), self.have),
            (label("Towed in", "", "pencil"), self.where),
            (self.sleep_label, self.sleep),
            *zip(self.labels, self.fields, strict=True),
        ]
        for at, (words, field) in enumerate(rows):
            grid.addWidget(words, at, 0)
            grid.addWidget(field, at, 1)
        left = QVBoxLayout()
        left.addLayout(grid)
        left.addWidget(self.complaint)
        left.addStretch(1)
        left.addWidget(self.about)
        right = QVBoxLayout()
        right.addWidget(self.sheet, 1)
        right.addWidget(self.first)
        body = QHBoxLayout()
        body.addLayout(left, 0)
        body.addSpacing(10)
        body.addLayout(right, 1)
        keys = QHBoxLayout()
        self.begin_button, cancel = QPushButton("Begin with this"), QPushButton("Not now")
        self.begin_button.setProperty("kind", "main")
        self.begin_button.setDefault(False)
        self.begin_button.setAutoDefault(False)
        cancel.setAutoDefault(False)
        self.begin_button.clicked.connect(self._begin)
        cancel.clicked.connect(self.reject)
        keys.addStretch(1)
        keys.addWidget(cancel)
        keys.addWidget(self.begin_button)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(18, 16, 18, 14)
        whole.addLayout(body, 1)
        whole.addLayout(keys)

    def shown(self) -> Shown:
        return self.reading.shown()

    def answers(self) -> Answers:
        typed: dict[str, Any] = {
            name: value for name, value in self.typed.items() if value is not None and ASKS[self.have.currentData()][NAMES.index(name)]
        }
        return Answers(self.have.currentData(), self.where.currentData(), self.reading, self.sleep.currentData(), **typed)

    def _chosen(self, _: object) -> None:
        region = self.where.currentData()
        if region != self.region:
            self.region = region
            self.reading = READINGS.get(region, Reading("mm", "kg", "L"))
        self.refresh()

    def _typed(self, name: str, value: Quantity | None) -> None:
        self.typed[name] = value
        self.refresh()

    def refresh(self) -> None:
        """The drawing and the reading of the answers so far; a wrong answer leaves the last good ones."""
        for field, words, title, name in zip(self.fields, self.labels, ASKS[self.have.currentData()], NAMES, strict=True):
            words.setText(title or " ")
            field.setAccessibleName(title)
            field.name = title or name
            field.setVisible(bool(title))
            words.setVisible(bool(title))
            field.show_value(self.typed[name])
        # eight inputs are enough for a first reading; who sleeps can be told later on the Brief
        few = not ASKS[self.have.currentData()][5]
        self.sleep.setVisible(few)
        self.sleep_label.setVisible(few)
        try:
            self.project = begin("My build", self.answers())
        except EntryError as fault:
            self.complaint.setText(str(fault))
            self.begin_button.setEnabled(False)
            return
        self.complaint.setText("")
        self.begin_button.setEnabled(True)
        self.session.open(self.project, None)
        said = reading(self.session.studied, 0)
        self.first.setText(
            f"{said.title} {said.big}, {said.beside[0]}; {said.beside[1]}" if said.kg is not None else f"{said.title}: {said.beside[0]}"
        )

    def _begin(self) -> None:
        if self.project is not None:
            self.made.emit(self.project)
            self.accept()
