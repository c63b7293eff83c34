"""The weigh-in: a picture of where the wheels stand, its readings beside it, and what they say."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from functools import partial
from typing import Any

import msgspec

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.quantity import Mass
from uncle_sled.core.document.road import WAYS_SAID, Reading, Ticket
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.road.weigh_picture import STAGED, weigh_picture
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.road.reconcile import accepted
from uncle_sled.core.studies.road.weighing import (
    ON_A_BED,
    READINGS,
    SHORT,
    WAY_WORDS,
    Aboard,
    Weighed,
    case_row,
    cases_like,
    stale,
    ways_for,
    weighed,
)
from uncle_sled.core.units import weight
from uncle_sled.core.words import upper_first
from uncle_sled.desk.benches.road.bench import RoadBench
from uncle_sled.desk.benches.road.pad_scale import PadScale
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Group, PanelOf, across, rows
from uncle_sled.desk.kit.parts import Act, Cards, Choice, Drawing, Entry, Fields, Listed, Remade, Says
from uncle_sled.desk.kit.table import Column
from uncle_sled.desk.session import Session

SIDE_PX = 304


class WeighPanel(PanelOf[RoadBench]):
    chosen = ""

    def laid(self) -> Group:
        self.port = self.put(
            Entry(
                "Port of the scale",
                faint="port",
                tip="Of a pad scale on this computer, such as the stand-in: uncle-sled stand-in scale",
                wide=64,
            )
        )
        self.listen = self.put(
            Act("Listen", "Take readings from a pad scale on this computer", self._listen, down=lambda: self.scale.listening)
        )
        self.into = self.put(Choice("Reading", self._readings, tip="Which reading the scale's steady number goes into", share=1))
        self.live = self.put(Says(ink="pencil", face="small"))
        self.take = self.put(Act("Take", "Take the steady number", self.take_reading, lambda: self.scale.steady_kg() is not None))
        left = rows(
            across(
                Choice(
                    "Ticket",
                    self._tickets,
                    lambda id: self.choose(str(id)),
                    lambda: ticket.id if (ticket := self.ticket()) else "",
                    letters=14,
                    share=1,
                ),
                Act("New weigh-in", "A ticket of today (T)", self.bench.add_ticket),
                Act("Take it off", "This ticket", self.take_off),
            ),
            Says(lambda: self._told()[0]),
            Says(lambda: self._told()[1], "primer", hides=True),
            Says(self._asks, "primer", hides=True),
            Listed(
                "What was aboard: the cases, and what the ticket has more",
                (
                    Column("Like", lambda aboard: self.studied.table.cases[aboard.row].name),
                    Column("Aboard then", lambda aboard: self.studied.table.cases[aboard.row].says, from_px=520),
                    Column("In all", lambda aboard: self._more(aboard.more_kg), right=True, sort=lambda aboard: abs(aboard.more_kg or 0.0)),
                    Column(
                        "On ball or axle",
                        lambda aboard: self._more(self._on_it(aboard)),
                        right=True,
                        tip="On the ball; of a vehicle with a box on its bed on the rear axle",
                        sort=lambda aboard: abs(self._on_it(aboard) or 0.0),
                    ),
                ),
                self._like,
                same=lambda aboard: aboard.row,
                picked=self.was_aboard,
                marks=lambda aboard: aboard.row == self._case_row(),
                when=lambda: bool(self._like()),
                share=1,
            ),
            Drawing("Where the wheels stand, first", lambda w, h: self.picture(0, w, h), share=1),
            Drawing("Where the wheels stand, second", lambda w, h: self.picture(1, w, h), when=lambda: self._way() in STAGED, share=1),
            share=1,
        )
        side = rows(
            across(self.port, self.listen, self.into, self.take, gap=4),
            self.live,
            Remade(self._shape, self._form, share=1),
            wide=SIDE_PX,
            when=lambda: self.ticket() is not None,
        )
        return across(left, side, gap=8)

    def _way(self) -> str:
        ticket = self.ticket()
        return ticket.way if ticket is not None else ways_for(self.studied)[0]  # shown before anything was weighed

    def _tickets(self) -> list[tuple[object, str]]:
        known = accepted(self.studied)
        return [
            (ticket.id, f"{ticket.on}, {ticket.way}" + (" (accepted)" if ticket.id in known else ""))
            for ticket in self.session.build.road.tickets
        ]

    def _readings(self) -> list[tuple[object, str]]:
        ticket = self.ticket()
        return [(id, SHORT.get(id, id)) for id, _ in READINGS[ticket.way]] if ticket is not None else []

    def _cases(self) -> tuple[tuple[object, str], ...]:
        return tuple((case.id, case.name) for case in self.studied.table.cases if case.mode.towing)

    def _shape(self) -> Hashable | None:
        ticket = self.ticket()
        return (ticket.id, ticket.way, self._cases()) if ticket is not None else None

    def __init__(self, session: Session, bench: RoadBench) -> None:
        self.scale = PadScale()
        super().__init__(session, bench)
        self.scale.setParent(self)
        self.scale.told.connect(self._scale_told)

    # what was aboard
    def _like(self) -> tuple[Aboard, ...]:
        what = self.what()
        return cases_like(self.studied, what) if what is not None else ()

    def _case_row(self) -> int | None:
        ticket = self.ticket()
        return case_row(self.studied, ticket) if ticket is not None else None

    def _more(self, kg: float | None) -> str:
        return "not weighed" if kg is None else self.words.signed_kg(kg)

    def _on_it(self, aboard: Aboard) -> float | None:
        return aboard.rear_more_kg if self.session.build.rig.carrier == "vehicle bed" else aboard.ball_more_kg

    def _asks(self) -> str:
        if not self._like() or self._case_row() is not None:
            return ""
        return "What was aboard? Choose the case that it was like; until then the ticket teaches nothing."

    def was_aboard(self, aboard: Aboard) -> None:
        """The case that a ticket was like, chosen by whoever was there."""
        ticket = self.ticket()
        if ticket is not None:
            case = self.studied.table.cases[aboard.row]
            self.session.edit(f"Aboard: {case.name}", [set_to(f"road.tickets.{ticket.id}.case", case.id)], "Road")

    # the ticket
    def ticket(self) -> Ticket | None:
        tickets = self.session.build.road.tickets
        return next((ticket for ticket in tickets if ticket.id == self.chosen), tickets[-1] if tickets else None)

    def what(self) -> Weighed | None:
        ticket = self.ticket()
        return weighed(ticket, self.session.studied) if ticket is not None else None

    def choose(self, id: str) -> None:
        self.chosen = id
        self.refresh()

    def take_off(self) -> None:
        ticket = self.ticket()
        if ticket is None:
            return
        if ticket.id in accepted(self.session.studied):
            self.session.said.emit("This ticket was accepted: take the correction back on Taught first.", "note")
            return
        self.session.edit("Take off a ticket", [remove(f"road.tickets.{ticket.id}")], "Road")

    def _why(self) -> str:
        usual = "front wheels, then rear wheels" if self.session.build.rig.carrier == "vehicle bed" else "two tickets"
        return f"Nothing was weighed yet: New weigh-in (T). Any way will do; {usual} on a public platform, as drawn, are the usual one."

    def picture(self, stage: int, width: float, height: float) -> tuple[Primitive, ...]:
        return weigh_picture(self.studied, self._way(), stage, width, height, self.what())

    def _reading_ops(self, id: str) -> Callable[[Any], list[Op]]:
        def ops(text: Any) -> list[Op]:
            ticket = self.ticket()
            assert ticket is not None
            others = [msgspec.to_builtins(r) for r in ticket.readings if r.id != id]
            if not (text or "").strip():
                return [set_to(f"road.tickets.{ticket.id}.readings", others)]
            if str(text).strip().startswith(("-", "−")):
                raise EntryError(f"“{text}” is below nothing; a scale shows 0 or more. Which way round was it read?")
            value = Mass.read(str(text), self.session.shown).si
            return [set_to(f"road.tickets.{ticket.id}.readings", [*others, {"id": id, "kg": round(value, 3)}])]

        return ops

    def put_reading(self, id: str, kg: float) -> bool:
        """A reading that came from a scale."""
        ticket = self.ticket()
        if ticket is None:
            return False
        others = [msgspec.to_builtins(r) for r in ticket.readings if r.id != id]
        ops = [set_to(f"road.tickets.{ticket.id}.readings", [*others, msgspec.to_builtins(Reading(id, round(kg, 2)))])]
        return bool(self.session.edit(f"{id}: {weight(kg, self.session.shown)}", ops, "Road"))

    def _reading(self, id: str, of: str, _: Any) -> str:
        now = next((t for t in self.session.build.road.tickets if t.id == id), None)
        kg = next((r.kg for r in now.readings if r.id == of), None) if now is not None else None
        return "" if kg is None else weight(kg, self.session.shown)

    def _form(self) -> Cards:
        ticket = self.ticket()
        assert ticket is not None
        path, id = f"road.tickets.{ticket.id}", ticket.id
        fields = [
            Row(f"{path}.on"),
            Row(f"{path}.way", kind=[(way, WAYS_SAID[way]) for way in dict.fromkeys((*ways_for(self.studied), ticket.way))]),
            *(
                Row(
                    f"{path}.{of}",
                    title=SHORT.get(of, upper_first(of)),
                    kind=str,
                    tip=where,
                    ops=self._reading_ops(of),
                    read=partial(self._reading, id, of),
                )
                for of, where in READINGS[ticket.way]
            ),
            Row(f"{path}.case", kind=[("", "not said yet"), *self._cases()]),
            Row(f"{path}.step_kg"),
        ]
        if ticket.way == "platform with the car":
            fields.append(Row(f"{path}.car_kg"))
        if ticket.way == "trailer on its jack":
            fields.append(Row(f"{path}.jack"))
        if ticket.way == "plank":
            fields += plain(path, "plank_scale plank_coupler")
        if ticket.way == "ruler":
            fields += plain(
                path, "jack sag_left sag_right rate unsprung pressure_kpa print_left print_right print_wide tilt_deg wheel_radius"
            )
        if ticket.way == "tilted":
            fields += plain(path, "tilt_deg coupler_height wheel_radius")
        return Cards([Fields("This ticket", fields, "Road")])

    # the scale
    def _listen(self) -> None:
        if self.scale.listening:
            self.scale.stop()
            self.live.setText("")
            return
        text = self.port.text().strip()
        if not text.isdigit() or not 1 <= int(text) <= 65535:
            self.listen.setChecked(False)
            self.live.setText(f"“{text}” is no port; a number from 1 to 65535 would be right, as the scale says it.")
            return
        self.scale.listen(int(text))

    def _scale_told(self, words: str, steady: bool, lost: bool) -> None:
        self.live.setText(words)
        self.take.setEnabled(steady)
        if lost:
            self.listen.setChecked(False)

    def take_reading(self) -> None:
        kg, id = self.scale.steady_kg(), self.into.currentData()
        if kg is None or not id:
            self.session.said.emit("The scale is not steady yet, or none is listened to.", "note")
            return
        if self.put_reading(str(id), kg):
            at = self.into.currentIndex()
            if at + 1 < self.into.count():
                self.into.setCurrentIndex(at + 1)

    def _told(self) -> tuple[str, str]:
        ticket, what, words = self.ticket(), self.what(), self.words
        if ticket is None or what is None:
            return self._why(), ""
        if what.faults:
            return WAY_WORDS[ticket.way], f"Still wanted: {'; '.join(what.faults[:3])}."
        s = self.session.studied
        told = []
        if what.tongue_kg is not None:
            told.append(f"On the ball {words.kg(what.tongue_kg)}, give or take {words.fine_kg(2 * what.sigma_tongue_kg)}.")
        if ticket.way in ON_A_BED and what.axle_kg is not None:
            told.append(f"On the rear axle {words.kg(what.axle_kg)}.")
        if what.total_kg is not None:
            told.append(f"In all {words.kg(what.total_kg)}, give or take {words.fine_kg(2 * what.sigma_total_kg)}.")
        if what.left_kg is not None and what.right_kg is not None:
            told.append(f"Left {words.kg(what.left_kg)}, right {words.kg(what.right_kg)}.")
        if what.cg_m is not None and what.cg_per_kg_m is not None:
            told.append(f"The centre stands {words.m(what.cg_m)} high; a kilogram of the scale moves it {words.cut(what.cg_per_kg_m)}.")
        row = case_row(s, ticket)
        if row is not None:
            model = [f"{words.kg(float(s.readings.total_kg[row]))} in all"]
            if s.readings.tongue_kg[row] == s.readings.tongue_kg[row]:
                model.append(f"{words.kg(float(s.readings.tongue_kg[row]))} on the ball")
            elif ticket.way in ON_A_BED:
                model.append(f"{words.kg(float(s.readings.axle_kg[row, -1]))} on the rear axle")
            told.append(f"Like {s.table.cases[row].name} ({s.table.cases[row].says}): the model says {', '.join(model)}.")
        off = stale(ticket, s, row)
        minds = [m[:1].upper() + m[1:] + "." for m in what.minds]
        if off is not None:
            ball = f", the ball {words.signed_kg(off.tongue_kg)}" if off.tongue_kg else ""
            minds.append(
                f"Since this ticket the model has changed by {off.total * 100:+.0f} %{ball}: it teaches nothing now, weigh it again.".replace(
                    "-", "−"
                )
            )
        return " ".join(told), " ".join(minds)
