"""Lift day: the lift drawn to scale, its numbers with their limits beside it, and who stands where."""

from __future__ import annotations

from datetime import date

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.work import Lift
from uncle_sled.core.drawing.build.lift_sheet import lift_drawn, said_words
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.studies.build.lifting import Lifted, liftable, lifted
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.refocus import focus_kept
from uncle_sled.desk.kit.taken_away import take_away
from uncle_sled.desk.session import Session

SIDE_PX = 262


class LiftPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: BuildBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        self.chosen = ""
        self._form_of = ""
        self.form: Form | None = None
        across = QHBoxLayout(self)
        across.setContentsMargins(0, 0, 0, 0)
        across.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        self.which = ChoiceField("Lift", [])
        self.which.setMinimumContentsLength(16)
        self.which.entered.connect(lambda id: self.choose(str(id)))
        tools.addWidget(self.which, 1)
        for text, tip, does in (
            ("Plan a lift", "One more: a wall, the whole body, the frame (P)", bench.add_lift),
            ("Done", "It was lifted today; again: it was not", self.turn_done),
            ("Take it off", "This lift", self.take_off),
        ):
            tools.addWidget(act_button(text, tip, does))
        left.addLayout(tools)
        self.says = label("", "", "ink", wrap=True)
        left.addWidget(self.says)
        self.refused = label("", "", "primer", wrap=True)
        left.addWidget(self.refused)
        self.chart = Chart(session, "The lift to scale", self._shapes, "", self._why)
        left.addWidget(self.chart, 1)
        self.crew = label("", "", "ink", wrap=True)
        left.addWidget(self.crew)
        across.addLayout(left, 1)
        self.side = QVBoxLayout()
        self.side.setSpacing(6)
        self.numbers = label("", "", "ink", wrap=True)
        self.side.addWidget(self.numbers)
        self.cards: Columns | None = None
        holder = QWidget()
        holder.setLayout(self.side)
        holder.setFixedWidth(SIDE_PX)
        across.addWidget(holder)

    def lift(self) -> Lift | None:
        lifts = self.session.build.work.lifts
        return next((one for one in lifts if one.id == self.chosen), lifts[0] if lifts else None)

    def made(self) -> Lifted | None:
        lift = self.lift()
        return lifted(self.session.studied, lift) if lift is not None else None

    def choose(self, id: str) -> None:
        self.chosen = id
        self.refresh()

    def _why(self) -> str:
        made = self.made()
        if made is None:
            return "No lift is planned: Plan a lift (P). A wall, the whole body, or the frame to be turned over."
        return f"Not known: {made.why}." if made.why else ""

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        made = self.made()
        return lift_drawn(made, Words(self.session.shown), width, height) if made is not None else ()

    def take_off(self) -> None:
        lift = self.lift()
        if lift is not None:
            self.session.edit("Take off a lift", [remove(f"work.lifts.{lift.id}")], "Build")

    def turn_done(self) -> None:
        lift = self.lift()
        if lift is not None:
            done = "" if lift.done else date.today().isoformat()
            self.session.edit(f"Lift {'done' if done else 'not done'}", [set_to(f"work.lifts.{lift.id}.done", done)], "Build")

    def _build_form(self) -> None:
        """Fields of the chosen lift; another lift has other places."""
        lift = self.lift()
        id = lift.id if lift is not None else ""
        if id == self._form_of:
            return
        self._form_of = id
        take_away(self.side, self.cards)
        self.cards, self.form = None, None
        if lift is None:
            return
        path = f"work.lifts.{id}"

        def people(value: int | None) -> list[Op]:
            return [set_to(f"{path}.people", 4 if value is None else value)]

        crane = lambda b: self._way(b) == "crane"  # noqa: E731
        self.form = Form(
            self.session,
            "This lift",
            [
                Row(f"{path}.what", kind=[(id_, name) for id_, name in liftable(self.session.studied)]),
                Row(f"{path}.way"),
                *plain(path, "pick_front pick_rear", when=crane),
                Row(f"{path}.hook", when=lambda b: self._way(b) in ("crane", "turn over")),
                *plain(path, "spreader choked", when=crane),
                Row(f"{path}.sling_n", when=lambda b: self._way(b) in ("crane", "turn over")),
                Row(f"{path}.hands_at", when=lambda b: self._way(b) in ("tilt up", "by hand")),
                Row(f"{path}.wind_m_s", when=lambda b: self._way(b) in ("crane", "tilt up")),
                Row(f"{path}.people"),
            ],
            "Build",
            label_px=104,
        )
        self.cards = Columns([self.form])
        self.side.addWidget(self.cards, 1)

    def _way(self, build: object) -> str:
        lift = self.lift()
        return lift.way if lift is not None else ""

    def refresh(self) -> None:
        lifts = self.session.build.work.lifts
        names = dict(liftable(self.session.studied))
        self.which.offer(
            [
                (one.id, f"{k}: {names.get(one.what, one.what)}, {one.way}" + (" (done)" if one.done else ""))
                for k, one in enumerate(lifts, 1)
            ]
        )
        lift = self.lift()
        self.which.show_value(lift.id if lift is not None else "")
        self.which.setEnabled(bool(lifts))
        with focus_kept(self):
            self._build_form()
        if self.form is not None:
            self.form.refresh()
        made, words = self.made(), Words(self.session.shown)
        if made is None or made.why:
            for one in (self.says, self.refused, self.crew, self.numbers):
                one.setText("")
        else:
            self.says.setText(
                f"{made.name}: {words.kg(made.mass_kg)}, give or take {words.kg(2 * made.sigma_kg)} (computed); reckoned with {words.kg(made.taken_kg)}."
            )
            self.refused.setText(" ".join(f"Not like this: {one}." for one in made.refusals))
            self.crew.setText("Who stands where: " + "; ".join(made.crew) + "." if made.crew else "")
            self.numbers.setText(
                "\n".join(said_words(one, words) + (" !" if one.verdict in ("warn", "refuse") else "") for one in made.said)
            )
        self.refused.setVisible(bool(self.refused.text()))
        self.chart.update()
