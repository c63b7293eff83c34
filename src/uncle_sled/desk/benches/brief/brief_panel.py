"""The fields of the brief: which build, who sleeps in it, what it must do, what tows it, by which rules."""

from __future__ import annotations

import re
from collections.abc import Callable, Hashable
from functools import partial
from typing import Any

import msgspec

from uncle_sled.core.document.brief import CarLoad
from uncle_sled.core.document.edits import Op, add_to, remove, set_to
from uncle_sled.core.document.project import Project
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.systems.sun import places
from uncle_sled.core.wiring.appliances import loads_of
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Gap, Group, Panel, across, card
from uncle_sled.desk.kit.parts import Act, Cards, Fields, Remade, Says
from uncle_sled.desk.session import Session

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
        loads = next((vehicle.loads for vehicle in project.facts.vehicles if vehicle.id == car), ())
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


class BriefPanel(Panel):
    def laid(self) -> Remade:
        return Remade(self._made_for, self._cards, share=1)

    def _made_for(self) -> Hashable:
        """Whose cards there are."""
        facts = self.session.facts
        loads = tuple((appliance.id, appliance.name) for appliance in loads_of(self.session.build))
        return tuple(person.id for person in facts.people), tuple(car.id for car in facts.vehicles), loads

    def _cards(self) -> Cards:
        """In the order that one thinks."""
        facts = self.session.facts
        people = [self._person(person.id) for person in facts.people]
        cars = [self._car(car.id) for car in facts.vehicles]
        must = self._must_run()
        none_yet = [] if people or cars or must else [Says("Nobody yet. Everything here may stay empty; it only sharpens what is judged.")]
        where = [
            Row("brief.place", kind=_places(), ops=_place_ops),
            Row("brief.latitude_deg", kind=str, ops=_latitude_ops, read=lambda build: latitude_words(build.brief.latitude_deg)),
            *(
                Row(
                    "brief.months",
                    title=title,
                    kind=MONTHS,
                    tip="The darkest of the months counts",
                    ops=self._month_ops(end),
                    read=_month(end),
                )
                for title, end in (("From month", 0), ("To month", -1))
            ),
            *plain("brief", "nights_off coldest mains"),
        ]
        return Cards(
            (
                Fields("This build", [Row("name")], "Brief", facts=True),
                Fields("Read in", [*plain("brief.reading", "length mass volume"), *plain("brief", "paper")], "Brief"),
                *none_yet,
                *people,
                Fields("What is asked of it", plain("brief", "eats_inside pets sits_up stands lived_in notes"), "Brief"),
                Fields("Where and when", where, "Brief"),
                *must,
                *cars,
                Fields("On the road", plain("brief", "region band_low band_high fastest_kmh road_height road_width road_length"), "Brief"),
            )
        )

    def _person(self, id: str) -> Group:
        path = f"facts.people.{id}"
        return card(
            "Sleeps in it", Fields("", plain(path, "name height mass"), "Brief", facts=True, bare=True), self._off("a sleeper", path)
        )

    def _car(self, id: str) -> Group:
        path = f"facts.vehicles.{id}"
        names = "name tongue_limit tow_limit unbraked_limit train_limit rear_axle_rating front_axle_rating front_empty rear_empty wheelbase ball_overhang driver_counted hook"
        fields = [*plain(path, names), *_rows_of_a_car(self.session, id), *plain(path, "width bumper")]
        return card("Tows it", Fields("", fields, "Brief", facts=True, bare=True), self._off("a tow vehicle", path))

    def _off(self, what: str, path: str) -> Group:
        return across(Gap(), Act("take off", f"{what.capitalize()} less", partial(self._take_off, what, path), link=True))

    def _take_off(self, what: str, path: str) -> None:
        self.session.edit(f"Take off {what}", [remove(path)], "Brief", whole_project=True)

    def _must_run(self) -> list[Fields]:
        """What runs aboard, each to be ticked where it must."""
        made = []
        for load in loads_of(self.session.build):
            made.append(Row(f"{load.path}.must_run", title=load.name, kind=bool, tip="It has a reserve of its own in the battery"))
        return [Fields(MUST_RUN, made, "Brief")] if made else []

    def _month_ops(self, end: int) -> Callable[[Any], list[Op]]:
        """Months from one to another, over the turn of the year where the second is the earlier."""

        def ops(value: Any) -> list[Op]:
            if value is None:
                return [set_to("brief.months", [])]
            now = self.session.build.brief.months or (value, value)
            first, last = (value, now[-1]) if end == 0 else (now[0], value)
            return [set_to("brief.months", [(first - 1 + k) % 12 + 1 for k in range((last - first) % 12 + 1)])]

        return ops
