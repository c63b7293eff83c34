"""Brief: who sleeps in it, what tows it, by which practice and in which units it is judged and read."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

import msgspec
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from uncle_sled.core.document.brief import CarLoad
from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.project import Project
from uncle_sled.core.drawing.rig.figures import standing_people
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.systems.sun import places
from uncle_sled.core.wiring.appliances import loads_of
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.kit.taken_away import take_away
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.measured_sheet import MeasuredSheet

MUST_RUN = "What must run"
_NAMES = ("January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December")
MONTHS: list[tuple[object, str]] = [(None, "not said"), *((at, name) for at, name in enumerate(_NAMES, 1))]


def _places() -> list[tuple[object, str]]:
    return [("", "not said"), *((place.name, place.name) for place in places())]


def _place_ops(name: Any) -> list[Op]:
    found = next((place for place in places() if place.name == name), None)
    return [set_to("brief.place", name), set_to("brief.latitude_deg", found.latitude_deg if found is not None else None)]


def latitude_words(degrees: float | None) -> str:
    return "" if degrees is None else f"{abs(degrees):g} {'N' if degrees >= 0 else 'S'}"


def _latitude_ops(text: str) -> list[Op]:
    """Ops of a latitude as typed. Raises: EntryError: over 90 degrees, or none."""
    body = text.strip().upper().replace("°", "").replace(",", ".").replace("−", "-")
    if not body:
        return [set_to("brief.latitude_deg", None), set_to("brief.place", "")]
    match = re.fullmatch(r"(-?\d+(?:\.\d+)?)\s*([NS]?)(?:ORTH|OUTH)?", body)
    value = None if match is None else float(match.group(1)) * (-1 if match.group(2) == "S" else 1)
    if value is None or abs(value) > 90:
        raise EntryError(f"“{text}” is no latitude; 54 N or 36 S would be right, 90 at the most.")
    return [set_to("brief.latitude_deg", value), set_to("brief.place", "")]


def _month(at: int) -> Callable[[Any], Any]:
    return lambda build: build.brief.months[at] if build.brief.months else None


CAR_ROWS = (
    ("front", "In front", "People and what lies with them in the front row"),
    ("rear", "Behind", "The same in the rear row"),
    ("boot", "Boot", "In the boot"),
    ("roof", "Roof", "On the roof, with the rack"),
)


def _rows_of_a_car(session: Session, car: str) -> list[Row]:
    """What a car carries by row, and how far that is behind its front axle."""
    path, made = f"facts.vehicles.{car}.loads", []

    def load_of(project: Project, id: str) -> CarLoad | None:
        loads = next((one.loads for one in project.facts.vehicles if one.id == car), ())
        return next((load for load in loads if load.id == id), None)

    def write(id: str, field: str) -> Callable[[Any], list[Op]]:
        def ops(value: Any) -> list[Op]:
            told = msgspec.to_builtins(value)
            if load_of(session.project, id) is None:
                return [add_to(path, {"id": id, field: told})] if value is not None else []
            return [set_to(f"{path}.{id}.{field}", told)]

        return ops

    def shown(id: str, field: str) -> Callable[[Any], Any]:
        return lambda project: getattr(load_of(project, id), field, None)

    for id, title, tip in CAR_ROWS:
        for field, name, says in (("mass", title, tip), ("at", f"{title} at", "")):
            made.append(Row(f"{path}.{id}.{field}", title=name, tip=says, ops=write(id, field), read=shown(id, field)))
    return made


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
        self.sheet = MeasuredSheet(session, "car")
        self.rows.addWidget(self.sheet, 4)
        self.reading = Form(session, "Read in", plain("brief.reading", "length mass volume"), "Brief")
        self.asked = Form(session, "What is asked of it", plain("brief", "eats_inside pets sits_up stands lived_in notes"), "Brief")
        self.road = Form(
            session, "On the road", plain("brief", "region band_low band_high fastest_kmh road_height road_width road_length"), "Brief"
        )
        self.place = Form(
            session,
            "Where and when",
            [
                Row("brief.place", kind=_places(), ops=_place_ops),
                Row("brief.latitude_deg", kind=str, ops=_latitude_ops, read=lambda build: latitude_words(build.brief.latitude_deg)),
                Row(
                    "brief.months",
                    title="From month",
                    kind=MONTHS,
                    tip="The darkest of the months counts",
                    ops=self._month_ops(0),
                    read=_month(0),
                ),
                Row(
                    "brief.months",
                    title="To month",
                    kind=MONTHS,
                    tip="The darkest of the months counts",
                    ops=self._month_ops(-1),
                    read=_month(-1),
                ),
                *plain("brief", "nights_off coldest mains"),
            ],
            "Brief",
        )
        self.named = Form(session, "This build", [Row("name")], "Brief", facts=True)
        self.standing = (self.named, self.reading, self.asked, self.place, self.road)
        self.columns: Columns | None = None
        self.made_for: object = None
        self.people: list[Form] = []
        session.changed.connect(self.refresh)
        self._make()

    def _month_ops(self, end: int) -> Callable[[Any], list[Op]]:
        """Months from one to another, over the turn of the year where the second is the earlier."""

        def ops(value: Any) -> list[Op]:
            if value is None:
                return [set_to("brief.months", [])]
            now = self.session.build.brief.months or (value, value)
            first, last = (value, now[-1]) if end == 0 else (now[0], value)
            return [set_to("brief.months", [(first - 1 + k) % 12 + 1 for k in range((last - first) % 12 + 1)])]

        return ops

    def showEvent(self, event: object) -> None:
        self.refresh()

    def _make(self) -> None:
        facts = self.session.facts
        self.made_for = self._made_for()
        self.people = [
            Form(self.session, "Sleeps in it", plain(f"facts.people.{p.id}", "name height mass"), "Brief", facts=True) for p in facts.people
        ]
        cars = [
            Form(
                self.session,
                "Tows it",
                [
                    *plain(
                        f"facts.vehicles.{v.id}",
                        "name tongue_limit tow_limit unbraked_limit train_limit rear_axle_rating front_axle_rating front_empty rear_empty wheelbase ball_overhang driver_counted hook",
                    ),
                    *_rows_of_a_car(self.session, v.id),
                    *plain(f"facts.vehicles.{v.id}", "width bumper"),
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
                    "Take off " + ("a sleeper" if "people" in path else "a tow vehicle"), [remove(path)], "Brief", whole_project=True
                )
            )
            row = QHBoxLayout()
            row.addStretch(1)
            row.addWidget(gone)
            form.whole.addLayout(row)
        if self.columns is not None:
            for form in self.standing:
                form.setParent(None)
            take_away(self.rows, self.columns)
        # in the order that one thinks: which build, who sleeps in it, what it must do, what tows it, by which rules
        cards: list[QWidget] = [self.named, self.reading, *self.people, self.asked, self.place, *self._must_run(), *cars, self.road]
        self.people += [*cars, *(one for one in cards if isinstance(one, Form) and one.accessibleName() == MUST_RUN)]
        if not self.people:
            cards.insert(2, label("Nobody yet. Everything here may stay empty; it only sharpens what is judged.", wrap=True))
        self.columns = Columns(cards)
        self.rows.addWidget(self.columns, 6)

    def _made_for(self) -> object:
        facts = self.session.facts
        loads = tuple((one.id, one.name) for one in loads_of(self.session.build))
        return tuple(p.id for p in facts.people), tuple(v.id for v in facts.vehicles), loads

    def _must_run(self) -> list[Form]:
        """What runs aboard, each to be ticked where it must."""
        rows = []
        for one in loads_of(self.session.build):
            path = f"systems.loads.{one.id}.must_run" if one.own else f"stow.things.{one.id}.figures.must_run"
            rows.append(Row(path, title=one.name, kind=bool, tip="It has a reserve of its own in the battery"))
        if not rows:
            return []
        form = Form(self.session, MUST_RUN, rows, "Brief")
        form.setAccessibleName(MUST_RUN)
        return [form]

    def refresh(self) -> None:
        if not self.isVisible():
            return
        facts = self.session.facts
        if self.made_for != self._made_for():
            self._make()
        for form in (*self.standing, *self.people):
            form.refresh()
        extra = standing_people(self.session.build, facts)
        if self.sheet is not None:
            self.sheet.set_extra(extra)

    def add_person(self) -> None:
        id = fresh_id("p", [p.id for p in self.session.facts.people])
        self.session.edit("Add a sleeper", [add_to("facts.people", {"id": id, "name": "Somebody"})], "Brief", (id,), whole_project=True)

    def add_vehicle(self) -> None:
        id = fresh_id("v", [v.id for v in self.session.facts.vehicles])
        self.session.edit(
            "Add a tow vehicle", [add_to("facts.vehicles", {"id": id, "name": "Tow vehicle"})], "Brief", (id,), whole_project=True
        )
