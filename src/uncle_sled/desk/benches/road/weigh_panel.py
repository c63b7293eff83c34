"""The weigh-in: a picture of where the wheels stand, its readings beside it, and what they say."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import msgspec
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.quantity import Mass
from uncle_sled.core.document.road import Reading, Ticket
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.road.weigh_picture import STAGED, weigh_picture
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.road.reconcile import accepted
from uncle_sled.core.studies.road.weighing import READINGS, WAY_WORDS, Weighed, case_row, stale, weighed
from uncle_sled.core.units import weight
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.road.bench import RoadBench
from uncle_sled.desk.benches.road.pad_scale import PadScale
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import ChoiceField, TextField, label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.refocus import focus_kept
from uncle_sled.desk.kit.taken_away import take_away
from uncle_sled.desk.session import Session

SIDE_PX = 304
USUAL_WAY = "platform with the car"  # shown before anything was weighed


class WeighPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: RoadBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        self.chosen = ""
        self._form_of: object = None
        self.form: Form | None = None
        self.cards: Columns | None = None
        across = QHBoxLayout(self)
        across.setContentsMargins(0, 0, 0, 0)
        across.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        self.which = ChoiceField("Ticket", [])
        self.which.setMinimumContentsLength(14)
        self.which.entered.connect(lambda id: self.choose(str(id)))
        tools.addWidget(self.which, 1)
        for text, tip, does in (("New weigh-in", "A ticket of today (T)", bench.add_ticket), ("Take it off", "This ticket", self.take_off)):
            tools.addWidget(act_button(text, tip, does))
        left.addLayout(tools)
        self.says = label("", "", "ink", wrap=True)
        left.addWidget(self.says)
        self.minds = label("", "", "primer", wrap=True)
        left.addWidget(self.minds)
        self.first = Chart(session, "Where the wheels stand, first", lambda w, h: self._picture(0, w, h))
        self.second = Chart(session, "Where the wheels stand, second", lambda w, h: self._picture(1, w, h))
        left.addWidget(self.first, 1)
        left.addWidget(self.second, 1)
        across.addLayout(left, 1)
        self.side = QVBoxLayout()
        self.side.setSpacing(6)
        self.scale = PadScale(self)
        self.scale.told.connect(self._scale_told)
        line = QHBoxLayout()
        line.setSpacing(4)
        self.port = TextField("Port of the scale", may_be_empty=True)
        self.port.setPlaceholderText("port")
        self.port.setToolTip("Of a pad scale on this computer, such as the stand-in: uncle-sled stand-in scale")
        self.port.setFixedWidth(64)
        self.listen = QPushButton("Listen")
        self.listen.setToolTip("Take readings from a pad scale on this computer")
        self.listen.setCheckable(True)
        self.listen.setProperty("kind", "view")
        self.listen.clicked.connect(self._listen)
        self.into = ChoiceField("Reading", [])
        self.into.setEnabled(False)
        self.into.setToolTip("Which reading the scale's steady number goes into")
        self.take = act_button("Take", "Take the steady number", self.take_reading)
        for widget in (self.port, self.listen, self.into, self.take):
            line.addWidget(widget, 1 if widget is self.into else 0)
        self.side.addLayout(line)
        self.live = label("", "small", "pencil", wrap=True)
        self.side.addWidget(self.live)
        self.holder = QWidget()
        self.holder.setLayout(self.side)
        self.holder.setFixedWidth(SIDE_PX)
        across.addWidget(self.holder)

    # the ticket
    def ticket(self) -> Ticket | None:
        tickets = self.session.build.road.tickets
        return next((one for one in tickets if one.id == self.chosen), tickets[-1] if tickets else None)

    def what(self) -> Weighed | None:
        one = self.ticket()
        return weighed(one, self.session.studied) if one is not None else None

    def choose(self, id: str) -> None:
        self.chosen = id
        self.refresh()

    def take_off(self) -> None:
        one = self.ticket()
        if one is None:
            return
        if one.id in accepted(self.session.studied):
            self.session.said.emit("This ticket was accepted: take the correction back on Taught first.", "note")
            return
        self.session.edit("Take off a ticket", [remove(f"road.tickets.{one.id}")], "Road")

    def _why(self) -> str:
        return "Nothing was weighed yet: New weigh-in (T). Any way will do; two tickets of a public platform, as drawn, are the usual one."

    def _picture(self, stage: int, width: float, height: float) -> tuple[Primitive, ...]:
        one = self.ticket()
        return weigh_picture(self.session.studied, one.way if one is not None else USUAL_WAY, stage, width, height, self.what())

    def _reading_ops(self, id: str) -> Callable[[Any], list[Op]]:
        def ops(text: Any) -> list[Op]:
            one = self.ticket()
            assert one is not None
            others = [msgspec.to_builtins(r) for r in one.readings if r.id != id]
            if not (text or "").strip():
                return [set_to(f"road.tickets.{one.id}.readings", others)]
            if str(text).strip().startswith(("-", "−")):
                raise EntryError(f"“{text}” is below nothing; a scale shows 0 or more. Which way round was it read?")
            value = Mass.read(str(text), self.session.shown).si
            return [set_to(f"road.tickets.{one.id}.readings", [*others, {"id": id, "kg": round(value, 3)}])]

        return ops

    def put(self, id: str, kg: float) -> bool:
        """A reading that came from a scale."""
        one = self.ticket()
        if one is None:
            return False
        others = [msgspec.to_builtins(r) for r in one.readings if r.id != id]
        ops = [set_to(f"road.tickets.{one.id}.readings", [*others, msgspec.to_builtins(Reading(id, round(kg, 2)))])]
        return bool(self.session.edit(f"{id}: {weight(kg, self.session.shown)}", ops, "Road"))

    def _build_form(self) -> None:
        one = self.ticket()
        cases = tuple((case.id, case.name) for case in self.session.studied.table.cases if case.mode.towing)
        shape = (one.id, one.way, cases) if one is not None else None
        if shape == self._form_of:
            return
        self._form_of = shape
        take_away(self.side, self.cards)
        self.cards, self.form = None, None
        self.into.offer([(id, id) for id, _ in READINGS[one.way]] if one is not None else [])
        self.into.setEnabled(one is not None)
        if one is None:
            return
        path, id = f"road.tickets.{one.id}", one.id

        def reading(of: str) -> Callable[[Any], str]:
            def read(_: Any) -> str:
                now = next((t for t in self.session.build.road.tickets if t.id == id), None)
                kg = next((r.kg for r in now.readings if r.id == of), None) if now is not None else None
                return "" if kg is None else weight(kg, self.session.shown)

            return read

        rows = [
            *plain(path, "on way"),
            *(
                Row(f"{path}.{of}", title=of[:1].upper() + of[1:], kind=str, tip=where, ops=self._reading_ops(of), read=reading(of))
                for of, where in READINGS[one.way]
            ),
            Row(f"{path}.case", kind=[("", "the nearest"), *cases]),
            Row(f"{path}.step_kg"),
        ]
        if one.way == "platform with the car":
            rows.append(Row(f"{path}.car_kg"))
        if one.way == "trailer on its jack":
            rows.append(Row(f"{path}.jack"))
        if one.way == "plank":
            rows += plain(path, "plank_scale plank_coupler")
        if one.way == "tilted":
            rows += plain(path, "tilt_deg coupler_height wheel_radius")
        self.form = Form(self.session, "This ticket", rows, "Road", label_px=104)
        self.cards = Columns([self.form])
        self.side.addWidget(self.cards, 1)

    # the scale
    def _listen(self, on: bool) -> None:
        if not on:
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
        if self.put(str(id), kg):
            at = self.into.currentIndex()
            if at + 1 < self.into.count():
                self.into.setCurrentIndex(at + 1)

    def refresh(self) -> None:
        tickets = self.session.build.road.tickets
        known = accepted(self.session.studied)
        self.which.offer([(one.id, f"{one.on}, {one.way}" + (" (accepted)" if one.id in known else "")) for one in tickets])
        one = self.ticket()
        self.which.show_value(one.id if one is not None else "")
        self.which.setEnabled(bool(tickets))
        with focus_kept(self):
            self._build_form()
        if self.form is not None:
            self.form.refresh()
        self.take.setEnabled(self.scale.steady_kg() is not None)
        self.second.setVisible((one.way if one is not None else USUAL_WAY) in STAGED)
        self.holder.setVisible(one is not None)
        told, minds = self._told()
        self.says.setText(told)
        self.minds.setText(minds)
        self.minds.setVisible(bool(minds))
        self.first.update()
        self.second.update()

    def _told(self) -> tuple[str, str]:
        one, what, words = self.ticket(), self.what(), Words(self.session.shown)
        if one is None or what is None:
            return self._why(), ""
        if what.faults:
            return WAY_WORDS[one.way], f"Still wanted: {'; '.join(what.faults[:3])}."
        s = self.session.studied
        told = []
        if what.tongue_kg is not None:
            told.append(f"On the ball {words.kg(what.tongue_kg)}, give or take {words.fine_kg(2 * what.sigma_tongue_kg)}.")
        if what.total_kg is not None:
            told.append(f"In all {words.kg(what.total_kg)}, give or take {words.fine_kg(2 * what.sigma_total_kg)}.")
        if what.left_kg is not None and what.right_kg is not None:
            told.append(f"Left {words.kg(what.left_kg)}, right {words.kg(what.right_kg)}.")
        if what.cg_m is not None and what.cg_per_kg_m is not None:
            told.append(f"The centre stands {words.m(what.cg_m)} high; a kilogram of the scale moves it {words.cut(what.cg_per_kg_m)}.")
        row = case_row(s, one, what)
        if row is not None:
            model = [f"{words.kg(float(s.readings.total_kg[row]))} in all"]
            if s.readings.tongue_kg[row] == s.readings.tongue_kg[row]:
                model.append(f"{words.kg(float(s.readings.tongue_kg[row]))} on the ball")
            told.append(f"Like {s.table.cases[row].name} ({s.table.cases[row].says}): the model says {', '.join(model)}.")
        off = stale(one, s, row)
        minds = [m[:1].upper() + m[1:] + "." for m in what.minds]
        if off is not None:
            ball = f", the ball {words.signed_kg(off.tongue_kg)}" if off.tongue_kg else ""
            minds.append(
                f"Since this ticket the model has changed by {off.total * 100:+.0f} %{ball}: it teaches nothing now, weigh it again.".replace(
                    "-", "−"
                )
            )
        return " ".join(told), " ".join(minds)
