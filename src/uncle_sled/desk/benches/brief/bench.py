"""Brief: who sleeps in it, what tows it, by which practice and in which units it is judged and read."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.drawing.rig.figures import standing_people
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form, Row
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.sheet_view import SheetView

REGIONS: list[tuple[object, str]] = [
    ("European", "European"),
    ("North American", "North American"),
    ("Australian/New Zealand", "Australian, New Zealand"),
]
LENGTHS: list[tuple[object, str]] = [
    ("mm", "millimetres"),
    ("m", "metres"),
    ("ft-in", "feet and inches"),
    ("in", "inches"),
]
MASSES: list[tuple[object, str]] = [("kg", "kilograms"), ("lb", "pounds")]
VOLUMES: list[tuple[object, str]] = [("L", "litres"), ("gal", "gallons (US)")]


def _count(name: str) -> Callable[[int | None], list[Op]]:
    """Ops of a number that is nothing where it is left empty."""
    return lambda value: [set_to(f"brief.{name}", value or 0)]


class BriefBench(Bench):
    strip = True

    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop)
        for text, tip, run in (
            ("Add a sleeper", "Somebody who sleeps in it", self.add_person),
            ("Add a tow vehicle", "With the limits in its papers", self.add_vehicle),
        ):
            button = QPushButton(text)
            button.setToolTip(tip)
            button.clicked.connect(run)
            self.top.addWidget(button)
        self.end_top("who it is for, beside it to scale")
        self.sheet = SheetView(session, plan=False)
        self.rows.addWidget(self.sheet, 4)
        self.general = Form(
            session,
            "Judged and read",
            [
                Row(
                    "Practice",
                    "brief.region",
                    REGIONS,
                    "Sets the band on the ball and what is asked; your own numbers win",
                ),
                Row("Lengths in", "brief.reading.length", LENGTHS),
                Row("Weights in", "brief.reading.mass", MASSES),
                Row("Volumes in", "brief.reading.volume", VOLUMES),
                Row("Band from", "brief.band_low", float, "Share of the whole on the ball; empty: by practice"),
                Row("Band to", "brief.band_high", float, "Share of the whole on the ball; empty: by practice"),
                Row(
                    "Eat inside", "brief.eats_inside", int, "How many sit down to eat inside", ops=_count("eats_inside")
                ),
                Row("Pets", "brief.pets", int, "How many pets come along", ops=_count("pets")),
                Row("Sit up in bed", "brief.sits_up", bool),
                Row("Stand up inside", "brief.stands", bool),
                Row("Notes", "brief.notes", str),
            ],
            "Brief",
        )
        self.named = Form(session, "This build", [Row("Name", "name", str, empty=False)], "Brief", facts=True)
        self.columns: Columns | None = None
        self.made_for: object = None
        self.people: list[Form] = []
        session.changed.connect(self.refresh)
        self._make()

    def showEvent(self, event: object) -> None:
        self.refresh()

    def _make(self) -> None:
        facts = self.session.facts
        self.made_for = (tuple(p.id for p in facts.people), tuple(v.id for v in facts.vehicles))
        self.people = [
            Form(
                self.session,
                "Sleeps in it",
                [
                    Row("Name", f"facts.people.{p.id}.name", str, empty=False),
                    Row("Tall", f"facts.people.{p.id}.height", Length),
                    Row("Weighs", f"facts.people.{p.id}.mass", Mass),
                ],
                "Brief",
                facts=True,
            )
            for p in facts.people
        ]
        cars = [
            Form(
                self.session,
                "Tows it",
                [
                    Row("Name", f"facts.vehicles.{v.id}.name", str, empty=False),
                    Row(
                        "On the ball",
                        f"facts.vehicles.{v.id}.tongue_limit",
                        Mass,
                        "Vertical limit in its papers or on the hitch",
                    ),
                    Row("May tow", f"facts.vehicles.{v.id}.tow_limit", Mass),
                    Row("Train", f"facts.vehicles.{v.id}.train_limit", Mass, "Vehicle and trailer together"),
                    Row("Rear axle", f"facts.vehicles.{v.id}.rear_axle_rating", Mass, "Rating"),
                    Row("Front axle", f"facts.vehicles.{v.id}.front_axle_rating", Mass, "Rating"),
                    Row("Front empty", f"facts.vehicles.{v.id}.front_empty", Mass),
                    Row("Rear empty", f"facts.vehicles.{v.id}.rear_empty", Mass),
                    Row("Wheelbase", f"facts.vehicles.{v.id}.wheelbase", Length),
                    Row("Ball behind", f"facts.vehicles.{v.id}.ball_overhang", Length, "Ball behind the rear axle"),
                    Row("Wide", f"facts.vehicles.{v.id}.width", Length, "For the room in a tight bend"),
                    Row(
                        "Tail to ball",
                        f"facts.vehicles.{v.id}.bumper",
                        Length,
                        "From the car's tail or open tailgate back to the ball",
                    ),
                ],
                "Brief",
                facts=True,
            )
            for v in facts.vehicles
        ]
        for form, path in [(f, f"facts.people.{p.id}") for f, p in zip(self.people, facts.people, strict=True)] + [
            (f, f"facts.vehicles.{v.id}") for f, v in zip(cars, facts.vehicles, strict=True)
        ]:
            gone = QPushButton("take off")
            gone.setProperty("kind", "link")
            gone.clicked.connect(
                lambda _=False, path=path: self.session.edit(
                    "Take off " + ("a sleeper" if "people" in path else "a tow vehicle"),
                    [remove(path)],
                    "Brief",
                    whole_project=True,
                )
            )
            row = QHBoxLayout()
            row.addStretch(1)
            row.addWidget(gone)
            form.whole.addLayout(row)
        self.people += cars
        if self.columns is not None:
            self.general.setParent(None)
            self.named.setParent(None)
            self.rows.removeWidget(self.columns)
            self.columns.hide()
            self.columns.deleteLater()
        cards: list[QWidget] = [self.named, self.general, *self.people]
        if not self.people:
            cards.append(
                label("Nobody yet. Everything here may stay empty; it only sharpens what is judged.", wrap=True)
            )
        self.columns = Columns(cards)
        self.rows.addWidget(self.columns, 6)

    def refresh(self) -> None:
        if not self.isVisible():
            return
        facts = self.session.facts
        if self.made_for != (tuple(p.id for p in facts.people), tuple(v.id for v in facts.vehicles)):
            self._make()
        for form in (self.named, self.general, *self.people):
            form.refresh()
        extra = standing_people(self.session.build, facts)
        if self.sheet is not None:
            self.sheet.set_extra(extra)

    def add_person(self) -> None:
        id = fresh_id("p", [p.id for p in self.session.facts.people])
        self.session.edit(
            "Add a sleeper",
            [add_to("facts.people", {"id": id, "name": "Somebody"})],
            "Brief",
            (id,),
            whole_project=True,
        )

    def add_vehicle(self) -> None:
        id = fresh_id("v", [v.id for v in self.session.facts.vehicles])
        self.session.edit(
            "Add a tow vehicle",
            [add_to("facts.vehicles", {"id": id, "name": "Tow vehicle"})],
            "Brief",
            (id,),
            whole_project=True,
        )
