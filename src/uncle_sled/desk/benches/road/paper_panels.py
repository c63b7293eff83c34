"""Papers, Trips and Stand: tables that are typed into, and a drawing beside."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.quantity import Length, Mass, Quantity, Temperature, Volume
from uncle_sled.core.document.road import Trip
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.road.loads_taught_chart import hours_plot, loads_rows, loads_taught_words
from uncle_sled.core.drawing.road.stand_drawn import standing_drawn
from uncle_sled.core.drawing.road.trips_chart import trips_chart
from uncle_sled.core.drawing.road.wish_map import wish_map
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.road.loads_taught import LoadsTaught, loads_taught, taught_ops
from uncle_sled.core.studies.road.standing import stands, usual_blocks
from uncle_sled.core.studies.road.trips import WORTH, nights_of, taken
from uncle_sled.core.studies.road.wishes import Traced, places, traced
from uncle_sled.core.studies.systems.systems_as_built import stay_mode
from uncle_sled.desk.benches.road.bench import RoadBench
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Group, Panel, PanelOf, across, rows
from uncle_sled.desk.kit.parts import Act, Cards, Choice, Complaint, Drawing, Fields, Listed, Says
from uncle_sled.desk.kit.table import Column

SIDE_PX = 262


class PapersPanel(PanelOf[RoadBench]):
    """Wishes with what meets them, and what the office asks for."""

    def laid(self) -> Group:
        columns: tuple[Column[Traced], ...] = (
            Column("", lambda traced: str(self._number(traced)), right=True),
            Column("Wish", lambda traced: traced.wish.says, enter=lambda traced, text: self._say(traced, "says", text)),
            Column(
                "Met by",
                lambda traced: traced.where_name if traced.met else "not met yet",
                ink=lambda traced: "" if traced.met else "primer",
            ),
            Column(
                "Weighs",
                lambda traced: self.words.kg(traced.mass_kg) if traced.mass_kg is not None else "?" if traced.met else "",
                right=True,
            ),
            Column("Costs", lambda traced: f"{traced.money:.0f}" if traced.money is not None else "?" if traced.met else "", right=True),
            Column("Agreed", lambda traced: traced.wish.agreed, enter=lambda traced, text: self._say(traced, "agreed", text)),
        )
        self.table = self.put(Listed[Traced]("Wishes", columns, lambda: traced(self.studied), lambda traced: traced.wish.id, share=2))
        office = Fields("For the office", plain("road", "builder owner frame_number lights"), "Road", 92)
        return rows(
            across(
                Act("Add a wish", "Something that was asked for (W)", self.bench.add_wish),
                Choice("Met by", self._places, self.meet, tip="The thing, opening or face that meets the chosen wish", letters=16, share=1),
                Act("Take it off", "The chosen wish", self.take_off),
            ),
            self.table,
            across(
                Drawing("Where each wish is", self._map, "", "Nothing is drawn yet: Rig and Shell come first.", share=1),
                Cards((office,), wide=SIDE_PX),
                gap=8,
                share=3,
            ),
            Says(self._told),
        )

    def _places(self) -> list[tuple[object, str]]:
        return [("", "not met yet"), *sorted(places(self.studied).items(), key=lambda place: place[1].lower())]

    def chosen(self) -> Traced | None:
        return self.table.row()

    def _number(self, traced: Traced) -> int:
        ids = [wish.id for wish in self.session.build.road.wishes]
        return ids.index(traced.wish.id) + 1 if traced.wish.id in ids else 0

    def _map(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.session.studied
        return wish_map(s, traced(s), width, height)

    def _say(self, traced: Traced, field: str, text: str) -> bool:
        return bool(self.session.edit(f"Wish: {text[:40]}", [set_to(f"road.wishes.{traced.wish.id}.{field}", text.strip()[:2000])], "Road"))

    def meet(self, id: object) -> None:
        traced = self.chosen()
        if traced is None:
            self.session.said.emit("Choose a wish first.", "note")
            return
        name = places(self.session.studied).get(str(id), "nothing")
        self.session.edit(f"Met by {name}", [set_to(f"road.wishes.{traced.wish.id}.where", str(id or ""))], "Road")

    def take_off(self) -> None:
        traced = self.chosen()
        if traced is not None:
            self.session.edit("Take off a wish", [remove(f"road.wishes.{traced.wish.id}")], "Road")

    def _told(self) -> str:
        made = traced(self.studied)
        left = sum(1 for traced in made if not traced.met)
        told = (
            f"{len(made)} wishes, {left} not met yet."
            if made
            else "No wish is written down: what was asked for, and where it is in the build."
        )
        return f"{told} The data sheet and the hand-over are under File, Export; what is not weighed says computed."


class TripsPanel(PanelOf[RoadBench]):
    """Trips in a table, and what they took against the plan."""

    def laid(self) -> Group:
        number, measure = self._number, self._measure
        columns: tuple[Column[Trip], ...] = (
            Column("Trip", lambda trip: trip.name, enter=lambda trip, text: self._word(trip, "name", text)),
            Column("Day", lambda trip: trip.on, enter=lambda trip, text: self._word(trip, "on", text)),
            Column("Nights", lambda trip: str(trip.nights), right=True, enter=number("nights", whole=True)),
            Column("Planned", lambda trip: _told(trip.planned_nights), right=True, enter=number("planned_nights", whole=True)),
            Column("People", lambda trip: str(trip.people), right=True, enter=number("people", whole=True)),
            Column("Water", lambda trip: self._as(trip.water_l, Volume, 1e-3), right=True, enter=measure("water_l", Volume, 1e-3)),
            Column("Power, Wh", lambda trip: _told(trip.power_wh), right=True, enter=number("power_wh")),
            Column("Gas", lambda trip: self._as(trip.gas_kg, Mass), right=True, enter=measure("gas_kg", Mass)),
            Column("Coldest", lambda trip: self._as(trip.coldest_c, Temperature), right=True, enter=measure("coldest_c", Temperature)),
            Column("Inside", lambda trip: self._as(trip.inside_c, Temperature), right=True, enter=measure("inside_c", Temperature)),
            Column(
                "Wet",
                lambda trip: _told(trip.wet_mornings),
                right=True,
                enter=number("wet_mornings", whole=True),
                tip="Mornings with wet windows or bedding",
            ),
            Column("What it taught", lambda trip: trip.says, enter=lambda trip, text: self._word(trip, "says", text)),
        )
        self.table = self.put(
            Listed[Trip]("Trips", columns, lambda: self.session.build.road.trips, lambda trip: trip.id, turns=True, share=1)
        )
        return rows(
            across(
                Act("Add a trip", "Nights away, and what they took (J)", self.bench.add_trip),
                Act("Take it off", "The chosen trip", self.take_off),
                Act("Battery record …", "Watt hours of the chosen trip from a CSV with time and watts, or volts and amps", self.ask_record),
                Says(self._told, share=1, joined=" "),
            ),
            Complaint(),
            self.table,
            Drawing(
                "Taken against the plan",
                self._shapes,
                "A day: what the trips took, and the plan",
                "Neither planned nor taken yet: water, power and gas are planned on Systems.",
                share=1,
            ),
            rows(
                across(
                    Act("Take these hours", "Every load gets the hours a day that the record taught", self.take_hours, self._teaches),
                    Says(self._hours_told, face="small", share=1, joined=" "),
                ),
                across(
                    Drawing("Watts by the hour", self._hours, "By the hour of the day", "", share=1),
                    Drawing(
                        "Loads before and after", self._loads, "What the record teaches of each load, Wh a day", self._no_loads, share=1
                    ),
                    gap=8,
                    share=1,
                ),
                when=self._recorded,
                share=2,
            ),
        )

    def _taught(self) -> LoadsTaught:
        return loads_taught(self.session.build, stay_mode(self.session.build))

    def _recorded(self) -> bool:
        return any(trip.drawn for trip in self.session.build.road.trips)

    def _teaches(self) -> bool:
        return bool(taught_ops(self.session.build, self._taught()))

    def _no_loads(self) -> str:
        return self._taught().why

    def _hours_told(self) -> list[str]:
        return loads_taught_words(self._taught())

    def _hours(self, width: float, height: float) -> tuple[Primitive, ...]:
        return hours_plot(self._taught(), width, height)

    def _loads(self, width: float, height: float) -> tuple[Primitive, ...]:
        return loads_rows(self._taught(), self.words, width, height)

    def take_hours(self) -> None:
        """Every load gets the hours that the record taught."""
        ops = taught_ops(self.session.build, self._taught())
        if ops:
            self.session.edit("Hours as the battery's record taught", list(ops), "Road")

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return trips_chart(taken(self.session.studied), self.words, width, height)

    def _word(self, trip: Trip, field: str, text: str) -> bool:
        return bool(self.session.edit(f"{trip.name}: {text[:40]}", [set_to(f"road.trips.{trip.id}.{field}", text.strip()[:2000])], "Road"))

    def _as(self, value: float | None, kind: type[Quantity], per: float = 1.0) -> str:
        return "" if value is None else kind(value * per).text(self.session.shown)

    def _measure(self, field: str, kind: type[Quantity], per: float = 1.0) -> Callable[[Trip, str], bool]:
        """Enters a measure in the builder's units; the file keeps litres, kilograms and degrees."""

        def enter(trip: Trip, text: str) -> bool:
            try:
                value = kind.read(text, self.session.shown).si / per if text.strip() else None
                if value is not None and kind is not Temperature and value < 0:
                    raise EntryError(f"“{text}” is below nothing; 0 or more would be right.")
            except EntryError as fault:
                return self.complain(str(fault))
            self.complain("")
            value = None if value is None else round(value, 4)
            return bool(
                self.session.edit(f"{trip.name}: {field.split('_')[0]} {text}", [set_to(f"road.trips.{trip.id}.{field}", value)], "Road")
            )

        return enter

    def _number(self, field: str, whole: bool = False) -> Callable[[Trip, str], bool]:
        def enter(trip: Trip, text: str) -> bool:
            body = text.replace(",", ".").strip()
            try:
                value: Any = None if not body else int(body) if whole else float(body)
                if value is not None and field != "coldest_c" and not 0 <= value < 1e7:
                    raise ValueError
            except ValueError:
                return self.complain(f"“{text}” cannot be taken; a {'whole ' if whole else ''}number, 0 or more, would be right.")
            self.complain("")
            if value is None and field in ("nights", "people"):
                value = 1
            return bool(
                self.session.edit(
                    f"{trip.name}: {field.replace('_', ' ')} {text}", [set_to(f"road.trips.{trip.id}.{field}", value)], "Road"
                )
            )

        return enter

    def chosen(self) -> Trip | None:
        return self.table.row()

    def take_off(self) -> None:
        trip = self.chosen()
        if trip is not None:
            self.session.edit("Take off a trip", [remove(f"road.trips.{trip.id}")], "Road")

    def ask_record(self) -> None:
        from PySide6.QtWidgets import QFileDialog

        name, _ = QFileDialog.getOpenFileName(self, "Record of the battery", "", "Tables (*.csv *.xlsx)")
        if name:
            self.record(name)

    def record(self, name: str) -> None:
        """Watt hours of a battery's record into the chosen trip."""
        from pathlib import Path

        from uncle_sled.core.errors import SledError
        from uncle_sled.exchange.battery_record import read_record

        trip = self.chosen() or (self.table.rows[0] if self.table.rows else None)
        if trip is None:
            self.session.said.emit("Add a trip first.", "note")
            return
        try:
            read = read_record(Path(name))
        except SledError as fault:
            self.session.said.emit(str(fault), "stop")
            return
        drawn = [{"hour": hour, "watts": watts, "hours": hours} for hour, watts, hours in read.drawn]
        path = f"road.trips.{trip.id}"
        self.session.edit(
            f"{trip.name}: battery record", [set_to(f"{path}.power_wh", round(read.out_wh, 1)), set_to(f"{path}.drawn", drawn)], "Road"
        )
        self.session.said.emit(read.says(), "note")

    def _told(self) -> list[str]:
        trips = self.session.build.road.trips
        if not trips:
            return ["No trip yet: what is planned a day stands below."]
        nights = nights_of(trips)
        told = [f"{len(trips)} trip{'s' * (len(trips) != 1)}, {nights} night{'s' * (nights != 1)}."]
        for each_taken in taken(self.studied):
            if each_taken.ratio is not None and abs(each_taken.ratio - 1) > WORTH:
                told.append(f"{each_taken.name[:1].upper()}{each_taken.name[1:]}: {each_taken.ratio:.2f} times the plan.")
        return told


def _told(value: float | int | None) -> str:
    return "" if value is None else f"{value:g}"


class StandPanel(Panel):
    """Blocks, pads, levels and anchors."""

    def laid(self) -> Group:
        stands_at = [
            Row("road.standing.blocks", ops=self._blocks, read=self._shown),
            *plain("road.standing", "fall bearing_kpa snow_kpa wind_pa"),
        ]
        side = rows(
            Act("Three pairs of blocks", "At even places under the body", lambda: self.usual(3)),
            Act("Four pairs of blocks", "At even places under the body", lambda: self.usual(4)),
            Cards((Fields("Where it stands", stands_at, "Road", 112),), share=1),
            wide=SIDE_PX,
        )
        chart = Drawing(
            "The body on its blocks",
            self._shapes,
            "On its blocks: load, pad, height (levels five times)",
            "Nothing to stand up yet: draw a body on Shell.",
            share=1,
        )
        return across(rows(Says(self._told, joined=" "), chart, share=1), side, gap=8)

    def _blocks(self, text: Any) -> list[Op]:
        made = []
        for part in str(text or "").split(";"):
            if part.strip():
                value = Length.read(part.strip(), self.session.shown)
                if not 0 <= value.si <= 30:
                    raise EntryError(f"“{part.strip()}” is no place under the body; 0 to 30 m would be right.")
                made.append({"si": value.si, "typed": value.typed})
        return [set_to("road.standing.blocks", made)]

    def _shown(self, _: Any) -> str:
        words = self.words
        return "; ".join(words.m(length.si) for length in self.session.build.road.standing.blocks)

    def usual(self, many: int) -> None:
        import msgspec

        record = msgspec.to_builtins(usual_blocks(self.session.studied, many))
        self.session.edit(f"{many} pairs of blocks", [set_to("road.standing", record)], "Road")

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.session.studied
        return standing_drawn(stands(s), s, self.words, width, height)

    def _told(self) -> list[str]:
        made, words = stands(self.studied), self.words
        if not made.blocks:
            return []
        told = [f"{words.kg(made.mass_kg)} on {2 * len(made.blocks)} blocks."]
        if made.snow_n:
            told.append(f"Snow {words.newtons(made.snow_n)}.")
        if made.wind_n:
            anchor = (
                f"each of four anchors holds {words.fine_newtons(made.anchor_n)}" if made.anchor_n else "its weight holds it by this sum"
            )
            told.append(f"Wind {words.newtons(made.wind_n)} on the side: {anchor}.")
        if made.lifts:
            told.append("One pair lifts off: place the blocks about the centre of gravity.")
        if made.assumed:
            told.append(words.told(f"Taken: {', '.join(made.assumed)}."))
        return [*told, "Axles and ball free, never on corner jacks alone."]
