"""A few questions beside a drawing that answers at once; everything can be changed later."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.beginnings import Answers, Have, begin
from uncle_sled.core.document.bodies import BODIES, BY_KIND, BodyKind
from uncle_sled.core.document.brief import Brief, Reading
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.document.quantity import Length, Mass, Quantity
from uncle_sled.core.errors import EntryError
from uncle_sled.core.reading.studied import Studied, study
from uncle_sled.core.units import Shown
from uncle_sled.desk.frame.body_buttons import BodyButtons
from uncle_sled.desk.frame.sled_reading import reading
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.fields import ChoiceField, QuantityField, label
from uncle_sled.desk.session import Session
from uncle_sled.desk.settings import Settings
from uncle_sled.desk.sheet.sheet_view import SheetView

READINGS = {"North American": Reading("ft-in", "lb", "gal")}
SLEEPERS: list[tuple[object, str]] = [(n, f"{n}") for n in range(1, 7)]
# Title of each of the five sizes by what one has got; empty: not asked.
ASKS: dict[Have, tuple[str, ...]] = {
    "a bought shell": ("Body length", "Width", "Height", "Axle from ball", "Weighed total", "On the ball"),
    "a bare trailer": ("Body length", "Width", "Height", "Axle from ball", "Frame weighs", ""),
    "a vehicle with a bed": ("Body length", "Width", "Height", "Wheelbase", "Front axle empty", "Rear axle empty"),
    "nothing yet": ("Body length", "Width", "Height", "", "", ""),
}
KINDS: tuple[type[Quantity], ...] = (Length, Length, Length, Length, Mass, Mass)
NAMES = ("length", "width", "height", "axle", "total", "ball")
# A body that stands on something of its own kind; the others stand on a trailer that is there or still to be made.
ONLY: dict[BodyKind, Have] = {"bought trailer": "a bought shell", "box on a bed": "a vehicle with a bed"}
UNDER: list[tuple[object, str]] = [("nothing yet", "nothing yet: I make it"), ("a bare trailer", "a bare trailer")]


class NewBuild(Dialog):
    """At most eight inputs. ``project`` is what the answers give."""

    made = Signal(object)

    def __init__(self, settings: Settings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle("New build")
        self.resize(920, 640)
        self.region = settings.get("region")
        own = Reading(settings.get("length"), settings.get("mass"), settings.get("volume"))  # type: ignore[arg-type]
        self.reading = READINGS.get(self.region, own) if own == Reading() else own
        self.typed: dict[str, Quantity | None] = dict.fromkeys(NAMES)
        self.project: Project | None = None
        self.kind: BodyKind = "teardrop"
        self.have = ChoiceField("What have you got?", UNDER)
        self.where = ChoiceField("Where is it towed?", list(field_of(Brief, "region").choices))
        self.where.show_value(self.region)
        self.sleep = ChoiceField("Who sleeps in it?", SLEEPERS)
        self.sleep.show_value(2)
        self.sleep_label, self.have_label = label("Sleepers", "", "pencil"), label("It stands on", "", "pencil")
        self.fields = [QuantityField(kind, name, self.shown) for kind, name in zip(KINDS, NAMES, strict=True)]
        self.labels = [label("", "", "pencil") for _ in NAMES]
        self.bodies = BodyButtons({body.kind: self._studied(body.kind) for body in BODIES})
        self.bodies.show_value(self.kind)
        self.bodies.chosen.connect(self.take_body)
        self.told = label("", "small", "pencil", wrap=True)
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
            number.wrong.connect(self._field_wrong)
        self.refresh()

    def _lay(self) -> None:
        grid = QGridLayout()
        grid.setColumnMinimumWidth(1, 170)
        rows: list[tuple[QWidget, QWidget]] = [
            (self.have_label, self.have),
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
        whole.addWidget(label("What will it be?", "head"))
        whole.addWidget(self.bodies)
        whole.addWidget(self.told)
        whole.addLayout(body, 1)
        whole.addLayout(keys)

    def shown(self) -> Shown:
        return self.reading.shown()

    def what_is_had(self) -> Have:
        """What it stands on: what the body asks for, else as chosen."""
        had: Have = self.have.currentData()
        return ONLY.get(self.kind, had)

    def answers(self) -> Answers:
        had = self.what_is_had()
        typed: dict[str, Any] = {name: v for name, v in self.typed.items() if v is not None and ASKS[had][NAMES.index(name)]}
        return Answers(had, self.where.currentData(), self.reading, self.sleep.currentData(), self.kind, **typed)

    def _studied(self, kind: BodyKind) -> Studied:
        made = begin("A picture", Answers(ONLY.get(kind, "nothing yet"), self.where.currentData(), self.reading, body=kind))
        return study(made.build, made.facts)

    def take_body(self, kind: BodyKind) -> None:
        """Another body; what was typed of its size stays."""
        self.kind = kind
        self.refresh()

    def _chosen(self, _: object) -> None:
        region = self.where.currentData()
        if region != self.region:
            self.region = region
            self.reading = READINGS.get(region, Reading("mm", "kg", "L"))
        self.refresh()

    fault = ""  # why there is no build of the answers

    def _field_wrong(self, says: str) -> None:
        """What is wrong with one field, else with all of them together."""
        self.complaint.setText(says or self.fault)

    def _typed(self, name: str, value: Quantity | None) -> None:
        self.typed[name] = value
        self.refresh()

    def refresh(self) -> None:
        """The drawing and the reading of the answers so far; a wrong answer leaves the last good ones."""
        for field, words, title, name in zip(self.fields, self.labels, ASKS[self.what_is_had()], NAMES, strict=True):
            words.setText(title or " ")
            field.setAccessibleName(title)
            field.name = title or name
            field.setVisible(bool(title))
            words.setVisible(bool(title))
            field.show_value(self.typed[name])
        self.told.setText(f"{BY_KIND[self.kind].says}: {BY_KIND[self.kind].about}.")
        self.have.setVisible(self.kind not in ONLY)
        self.have_label.setVisible(self.kind not in ONLY)
        # eight inputs are enough for a first reading; who sleeps can be told later on the Brief
        few = not ASKS[self.what_is_had()][5]
        self.sleep.setVisible(few)
        self.sleep_label.setVisible(few)
        try:
            self.project = begin("My build", self.answers())
        except EntryError as fault:
            self.fault = str(fault)
            self.complaint.setText(self.fault)
            self.begin_button.setEnabled(False)
            return
        self.fault = ""
        self.complaint.setText("")
        self.begin_button.setEnabled(True)
        self.session.open(self.project, None)
        self._say_usual(self.project.build)
        said = reading(self.session.studied, 0)
        self.first.setText(
            f"{said.title} {said.big}, {said.beside[0]}; {said.beside[1]}" if said.kg is not None else f"{said.title}: {said.beside[0]}"
        )

    def _say_usual(self, build: Build) -> None:
        """What a size that is left open comes to, in its empty field."""
        shell, rig = build.shell, build.rig
        on_bed = rig.carrier == "vehicle bed"
        under = (
            (rig.bed.wheelbase, rig.bed.front_empty, rig.bed.rear_empty)
            if on_bed
            else (None, rig.bought_total or rig.frame_mass, rig.bought_ball)
        )
        for field, usual in zip(self.fields, (shell.length, shell.width, shell.height, *under), strict=True):
            field.blank = f"usually {usual.text(self.shown())}" if usual is not None else None
            field.show_value(field.value)

    def _begin(self) -> None:
        if self.project is not None:
            self.made.emit(self.project)
            self.accept()
