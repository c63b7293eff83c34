"""Papers, Trips and Stand: tables that are typed into, and a drawing beside."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.quantity import Length, Mass, Quantity, Temperature, Volume
from uncle_sled.core.document.road import Trip
from uncle_sled.core.drawing.primitives import Primitive, Text, line, rect
from uncle_sled.core.drawing.road.papers import standing_drawn
from uncle_sled.core.drawing.road.wish_map import wish_map
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.road.standing import stands, usual_blocks
from uncle_sled.core.studies.road.trips import WORTH, nights_of, taken
from uncle_sled.core.studies.road.wishes import Traced, places, traced
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.road.bench import RoadBench
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

SIDE_PX = 262


class PapersPanel(Guarded, QWidget):
    """Wishes with what meets them, and what the office asks for."""

    def __init__(self, session: Session, bench: RoadBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        left = QVBoxLayout(self)
        left.setContentsMargins(0, 0, 0, 0)
        left.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        tools.addWidget(act_button("Add a wish", "Something that was asked for (W)", bench.add_wish))
        self.where = ChoiceField("Met by", [])
        self.where.setToolTip("The thing, opening or face that meets the chosen wish")
        self.where.setMinimumContentsLength(16)
        self.where.entered.connect(self._meet)
        tools.addWidget(self.where, 1)
        tools.addWidget(act_button("Take it off", "The chosen wish", self.take_off))
        left.addLayout(tools)
        self.model = TableModel[Traced](
            (
                Column("", lambda one: str(self._number(one)), right=True),
                Column("Wish", lambda one: one.wish.says, enter=lambda one, text: self._say(one, "says", text)),
                Column("Met by", lambda one: one.where_name if one.met else "not met yet", ink=lambda one: "" if one.met else "primer"),
                Column(
                    "Weighs",
                    lambda one: Words(session.shown).kg(one.mass_kg) if one.mass_kg is not None else "?" if one.met else "",
                    right=True,
                ),
                Column("Costs", lambda one: f"{one.money:.0f}" if one.money is not None else "?" if one.met else "", right=True),
                Column("Agreed", lambda one: one.wish.agreed, enter=lambda one, text: self._say(one, "agreed", text)),
            )
        )
        self.table = Table(self.model, "Wishes")
        self.table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        left.addWidget(self.table, 2)
        self.map = Chart(session, "Where each wish is", self._map, "", lambda: "Nothing is drawn yet: Rig and Shell come first.")
        across = QHBoxLayout()
        across.setSpacing(8)
        across.addWidget(self.map, 1)
        left.addLayout(across, 3)
        self.says = label("", "", "ink", wrap=True)
        left.addWidget(self.says)
        who = Form(session, "For the office", plain("road", "builder owner frame_number lights"), "Road", label_px=92)
        self.forms = [who]
        side = Columns(list(self.forms))
        side.setFixedWidth(SIDE_PX)
        across.addWidget(side)

    def chosen(self) -> Traced | None:
        at = self.table.marked()
        return self.model.rows[at] if at >= 0 else None

    def _number(self, one: Traced) -> int:
        ids = [wish.id for wish in self.session.build.road.wishes]
        return ids.index(one.wish.id) + 1 if one.wish.id in ids else 0

    def _map(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.session.studied
        return wish_map(s, traced(s), width, height)

    def _say(self, one: Traced, field: str, text: str) -> bool:
        return bool(self.session.edit(f"Wish: {text[:40]}", [set_to(f"road.wishes.{one.wish.id}.{field}", text.strip()[:2000])], "Road"))

    def _meet(self, id: object) -> None:
        one = self.chosen()
        if one is None:
            self.session.said.emit("Choose a wish first.", "note")
            return
        name = places(self.session.studied).get(str(id), "nothing")
        self.session.edit(f"Met by {name}", [set_to(f"road.wishes.{one.wish.id}.where", str(id or ""))], "Road")

    def take_off(self) -> None:
        one = self.chosen()
        if one is not None:
            self.session.edit("Take off a wish", [remove(f"road.wishes.{one.wish.id}")], "Road")

    def refresh(self) -> None:
        made = traced(self.session.studied)
        self.model.set_rows(made, lambda a, b: a.wish.id == b.wish.id)
        names = places(self.session.studied)
        self.where.offer([("", "not met yet"), *sorted(names.items(), key=lambda one: one[1].lower())])
        for form in self.forms:
            form.refresh()
        self.map.update()
        open_ = sum(1 for one in made if not one.met)
        told = (
            f"{len(made)} wishes, {open_} not met yet."
            if made
            else "No wish is written down: what was asked for, and where it is in the build."
        )
        self.says.setText(f"{told} The data sheet and the hand-over are under File, Export; what is not weighed says computed.")


class TripsPanel(Guarded, QWidget):
    """Trips in a table, and what they took against the plan."""

    def __init__(self, session: Session, bench: RoadBench) -> None:
        super().__init__()
        self.session = session
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        tools.addWidget(act_button("Add a trip", "Nights away, and what they took (J)", bench.add_trip))
        tools.addWidget(act_button("Take it off", "The chosen trip", self.take_off))
        tools.addWidget(
            act_button(
                "Battery record …", "Watt hours of the chosen trip from a CSV with time and watts, or volts and amps", self.ask_record
            )
        )
        self.says = label("", "", "ink", wrap=True)
        tools.addWidget(self.says, 1)
        rows.addLayout(tools)
        self.complaint = label("", "small", "primer", wrap=True)
        self.complaint.hide()
        rows.addWidget(self.complaint)
        number, measure = self._number, self._measure
        self.model = TableModel[Trip](
            (
                Column("Trip", lambda one: one.name, enter=lambda one, text: self._word(one, "name", text)),
                Column("Day", lambda one: one.on, enter=lambda one, text: self._word(one, "on", text)),
                Column("Nights", lambda one: str(one.nights), right=True, enter=number("nights", True)),
                Column("Planned", lambda one: _told(one.planned_nights), right=True, enter=number("planned_nights", True)),
                Column("People", lambda one: str(one.people), right=True, enter=number("people", True)),
                Column("Water", lambda one: self._as(one.water_l, Volume, 1e-3), right=True, enter=measure("water_l", Volume, 1e-3)),
                Column("Power, Wh", lambda one: _told(one.power_wh), right=True, enter=number("power_wh")),
                Column("Gas", lambda one: self._as(one.gas_kg, Mass), right=True, enter=measure("gas_kg", Mass)),
                Column("Coldest", lambda one: self._as(one.coldest_c, Temperature), right=True, enter=measure("coldest_c", Temperature)),
                Column("Inside", lambda one: self._as(one.inside_c, Temperature), right=True, enter=measure("inside_c", Temperature)),
                Column(
                    "Wet",
                    lambda one: _told(one.wet_mornings),
                    right=True,
                    enter=number("wet_mornings", True),
                    tip="Mornings with wet windows or bedding",
                ),
                Column("What it taught", lambda one: one.says, enter=lambda one, text: self._word(one, "says", text)),
            )
        )
        self.table = Table(self.model, "Trips")
        rows.addWidget(self.table, 1)
        self.chart = Chart(session, "Taken against the plan", self._shapes, "A day: what the trips took, and the plan", self._why)
        rows.addWidget(self.chart, 1)

    def _why(self) -> str:
        return "Neither planned nor taken yet: water, power and gas are planned on Systems."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        words = Words(self.session.shown)
        known = [one for one in taken(self.session.studied) if one.took is not None or one.plan is not None]
        shapes: list[Primitive] = []
        for k, one in enumerate(known):
            y = height - 60 - k * 46
            top = max(one.took or 0.0, one.plan or 0.0) or 1.0
            room = width - 330
            shapes.append(Text((12, y), one.name, 12, "ink", "strong", "left"))
            for off, value, ink in ((8.0, one.took, "chalk"), (-8.0, one.plan, "pencil")):
                if value is not None:
                    shapes.append(rect(140, y + off - 6, max(room * value / top, 2.0), 11, stroke="ink", fill=ink, tint=0.5))
            plan = "no plan" if one.plan is None else f"planned {_figure(one.plan, one.unit, words)}"
            ratio = f", {one.ratio:.2f} times" if one.ratio is not None else ""
            took = "not said yet" if one.took is None else _figure(one.took, one.unit, words)
            shapes.append(Text((width - 10, y), elided(f"{took}, {plan}{ratio}", 11, 180), 11, "ink", anchor="right"))
        if shapes:
            shapes.append(line((140, 14), (140, height - 40), "rule"))
        return tuple(shapes)

    def _word(self, one: Trip, field: str, text: str) -> bool:
        return bool(self.session.edit(f"{one.name}: {text[:40]}", [set_to(f"road.trips.{one.id}.{field}", text.strip()[:2000])], "Road"))

    def _as(self, value: float | None, kind: type[Quantity], per: float = 1.0) -> str:
        return "" if value is None else kind(value * per).text(self.session.shown)

    def _measure(self, field: str, kind: type[Quantity], per: float = 1.0) -> Callable[[Trip, str], bool]:
        """Enters a measure in the builder's units; the file keeps litres, kilograms and degrees."""

        def enter(one: Trip, text: str) -> bool:
            try:
                value = kind.read(text, self.session.shown).si / per if text.strip() else None
                if value is not None and kind is not Temperature and value < 0:
                    raise EntryError(f"“{text}” is below nothing; 0 or more would be right.")
            except EntryError as fault:
                self.complaint.setText(str(fault))
                self.complaint.show()
                return False
            self.complaint.hide()
            value = None if value is None else round(value, 4)
            return bool(
                self.session.edit(f"{one.name}: {field.split('_')[0]} {text}", [set_to(f"road.trips.{one.id}.{field}", value)], "Road")
            )

        return enter

    def _number(self, field: str, whole: bool = False) -> Callable[[Trip, str], bool]:
        def enter(one: Trip, text: str) -> bool:
            body = text.replace(",", ".").strip()
            try:
                value: Any = None if not body else int(body) if whole else float(body)
                if value is not None and field != "coldest_c" and not 0 <= value < 1e7:
                    raise ValueError
            except ValueError:
                self.complaint.setText(f"“{text}” cannot be taken; a {'whole ' if whole else ''}number, 0 or more, would be right.")
                self.complaint.show()
                return False
            self.complaint.hide()
            if value is None and field in ("nights", "people"):
                value = 1
            return bool(
                self.session.edit(f"{one.name}: {field.replace('_', ' ')} {text}", [set_to(f"road.trips.{one.id}.{field}", value)], "Road")
            )

        return enter

    def chosen(self) -> Trip | None:
        at = self.table.marked()
        return self.model.rows[at] if at >= 0 else None

    def take_off(self) -> None:
        one = self.chosen()
        if one is not None:
            self.session.edit("Take off a trip", [remove(f"road.trips.{one.id}")], "Road")

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

        one = self.chosen() or (self.model.rows[0] if self.model.rows else None)
        if one is None:
            self.session.said.emit("Add a trip first.", "note")
            return
        try:
            read = read_record(Path(name))
        except SledError as fault:
            self.session.said.emit(str(fault), "stop")
            return
        self.session.edit(f"{one.name}: battery record", [set_to(f"road.trips.{one.id}.power_wh", round(read.out_wh, 1))], "Road")
        self.session.said.emit(read.says(), "note")

    def refresh(self) -> None:
        trips = self.session.build.road.trips
        self.model.set_rows(trips, lambda a, b: a.id == b.id)
        nights = nights_of(trips)
        told = (
            [f"{len(trips)} trip{'s' * (len(trips) != 1)}, {nights} night{'s' * (nights != 1)}."]
            if trips
            else ["No trip yet: what is planned a day stands below."]
        )
        for one in taken(self.session.studied):
            if one.ratio is not None and abs(one.ratio - 1) > WORTH:
                told.append(f"{one.name[:1].upper()}{one.name[1:]}: {one.ratio:.2f} times the plan.")
        self.says.setText(" ".join(told))
        self.chart.update()


def _figure(value: float, unit: str, words: Words) -> str:
    """A figure of a day in the builder's units."""
    if unit == "L":
        return words.m3(value / 1000)
    return words.fine_kg(value) if unit == "kg" else f"{value:.0f} {unit}"


def _told(value: float | int | None) -> str:
    return "" if value is None else f"{value:g}"


class StandPanel(Guarded, QWidget):
    """Blocks, pads, levels and anchors."""

    def __init__(self, session: Session, bench: RoadBench) -> None:
        super().__init__()
        self.session = session
        across = QHBoxLayout(self)
        across.setContentsMargins(0, 0, 0, 0)
        across.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(6)
        self.says = label("", "", "ink", wrap=True)
        left.addWidget(self.says)
        self.chart = Chart(
            session, "The body on its blocks", self._shapes, "On its blocks: load, pad, height (levels five times)", self._why
        )
        left.addWidget(self.chart, 1)
        across.addLayout(left, 1)
        path = "road.standing"
        form = Form(
            session,
            "Where it stands",
            [Row("road.standing.blocks", ops=self._blocks, read=self._shown), *plain(path, "fall bearing_kpa snow_kpa wind_pa")],
            "Road",
            label_px=112,
        )
        self.forms = [form]
        side = QVBoxLayout()
        side.addWidget(act_button("Three pairs of blocks", "At even places under the body", lambda: self.usual(3)))
        side.addWidget(act_button("Four pairs of blocks", "At even places under the body", lambda: self.usual(4)))
        side.addWidget(Columns([form]), 1)
        holder = QWidget()
        holder.setLayout(side)
        holder.setFixedWidth(SIDE_PX)
        across.addWidget(holder)

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
        words = Words(self.session.shown)
        return "; ".join(words.m(one.si) for one in self.session.build.road.standing.blocks)

    def usual(self, many: int) -> None:
        import msgspec

        record = msgspec.to_builtins(usual_blocks(self.session.studied, many))
        self.session.edit(f"{many} pairs of blocks", [set_to("road.standing", record)], "Road")

    def _why(self) -> str:
        return "Nothing to stand up yet: draw a body on Shell."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.session.studied
        return standing_drawn(stands(s), s, Words(self.session.shown), width, height)

    def refresh(self) -> None:
        made, words = stands(self.session.studied), Words(self.session.shown)
        for form in self.forms:
            form.refresh()
        told = []
        if made.blocks:
            told.append(f"{words.kg(made.mass_kg)} on {2 * len(made.blocks)} blocks.")
            if made.snow_n:
                told.append(f"Snow {words.newtons(made.snow_n)}.")
            if made.wind_n:
                anchor = (
                    f"each of four anchors holds {words.fine_newtons(made.anchor_n)}"
                    if made.anchor_n
                    else "its weight holds it by this sum"
                )
                told.append(f"Wind {words.newtons(made.wind_n)} on the side: {anchor}.")
            if made.lifts:
                told.append("One pair lifts off: place the blocks about the centre of gravity.")
            if made.assumed:
                told.append(Words(self.session.shown).told(f"Taken: {', '.join(made.assumed)}."))
            told.append("Axles and ball free, never on corner jacks alone.")
        self.says.setText(" ".join(told))
        self.chart.update()
