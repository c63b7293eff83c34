"""Lift day: the lift drawn to scale, its numbers with their limits beside it, and who stands where."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.edits import remove, set_to
from uncle_sled.core.document.work import Lift
from uncle_sled.core.drawing.build.lift_drawn import lift_drawn
from uncle_sled.core.drawing.build.lift_sheet import said_words
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.build.lifting import Lifted, liftable, lifted
from uncle_sled.core.studies.build.machines import chart_words, read_chart
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Group, PanelOf, across, card, rows
from uncle_sled.desk.kit.parts import Act, Cards, Choice, Complaint, Drawing, Entry, Fields, Remade, Says
from uncle_sled.exchange.clock import today

SIDE_PX = 262


class LiftPanel(PanelOf[BuildBench]):
    chosen = ""

    def laid(self) -> Group:
        left = rows(
            across(
                Choice("Lift", self._lifts, lambda id: self.choose(str(id)), self._shown_lift, letters=16, share=1),
                Act("Plan a lift", "One more: a wall, the whole body, the frame (P)", self.bench.add_lift),
                Act("Done", "It was lifted today; again: it was not", self.turn_done),
                Act("Take it off", "This lift", self.take_off),
            ),
            Says(self._told),
            Says(
                lambda: " ".join(f"Not like this: {refusal}." for refusal in made.refusals) if (made := self.known()) else "",
                "primer",
                hides=True,
            ),
            Drawing("The lift to scale", self._shapes, "", self._why, share=1),
            Says(lambda: "Who stands where: " + "; ".join(made.crew) + "." if (made := self.known()) and made.crew else ""),
            share=1,
        )
        return across(left, rows(Says(self._numbers), Remade(self._shown_lift, self._form, share=1), wide=SIDE_PX), gap=8)

    def known(self) -> Lifted | None:
        """The lift worked out, where all that it wants is known."""
        made = self.made()
        return None if made is None or made.why else made

    def _lifts(self) -> list[tuple[object, str]]:
        names = dict(liftable(self.studied))
        lifts = self.session.build.work.lifts
        return [
            (lift.id, f"{k}: {names.get(lift.what, lift.what)}, {lift.way}" + (" (done)" if lift.done else ""))
            for k, lift in enumerate(lifts, 1)
        ]

    def _shown_lift(self) -> str | None:
        lift = self.lift()
        return lift.id if lift is not None else None

    def _told(self) -> str:
        made, words = self.known(), self.words
        if made is None:
            return ""
        return f"{made.name}: {words.kg(made.mass_kg)}, give or take {words.kg(2 * made.sigma_kg)} (computed); reckoned with {words.kg(made.taken_kg)}."

    def _numbers(self) -> list[str]:
        made = self.known()
        return (
            [said_words(said, self.words) + (" !" if said.verdict in ("warn", "refuse") else "") for said in made.said]
            if made is not None
            else []
        )

    def lift(self) -> Lift | None:
        lifts = self.session.build.work.lifts
        return next((lift for lift in lifts if lift.id == self.chosen), lifts[0] if lifts else None)

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
        return lift_drawn(self.studied, made, Words(self.session.shown), width, height) if made is not None else ()

    def take_off(self) -> None:
        lift = self.lift()
        if lift is not None:
            self.session.edit("Take off a lift", [remove(f"work.lifts.{lift.id}")], "Build")

    def turn_done(self) -> None:
        lift = self.lift()
        if lift is not None:
            done = "" if lift.done else today()
            self.session.edit(f"Lift {'done' if done else 'not done'}", [set_to(f"work.lifts.{lift.id}.done", done)], "Build")

    def _form(self) -> Cards:
        """Fields of the chosen lift; another lift has other places."""
        path = f"work.lifts.{self._shown_lift()}"
        crane = lambda b: self._way(b) == "crane"
        hung = lambda b: self._way(b) in ("crane", "turn over")
        fields = [
            Row(f"{path}.what", kind=list(liftable(self.studied))),
            Row(f"{path}.way"),
            Row(
                f"{path}.after",
                kind=[("", "all of it"), *((task.id, task.name) for task in tasks_of(self.session.build, self.session.facts))],
            ),
            *plain(path, "pick_front pick_rear", when=crane),
            Row(f"{path}.hook", when=hung),
            *plain(path, "spreader choked", when=crane),
            *plain(path, "machine reach", when=crane),
            Row(f"{path}.sling_n", when=hung),
            Row(f"{path}.hands_at", when=lambda b: self._way(b) in ("tilt up", "by hand")),
            Row(f"{path}.wind_m_s", when=lambda b: self._way(b) in ("crane", "tilt up")),
            Row(f"{path}.people"),
        ]
        chart = card(
            "Its own chart",
            Entry(
                "Chart",
                self.type_chart,
                chart_words(((2.0, 3000.0), (4.0, 1600.0)), self.session.shown),
                "Typed from the plate on the machine: reach and load, reach and load; it goes before the usual one",
                self._chart,
                self._by_crane,
                share=1,
            ),
            Complaint(),
        )
        return Cards([Fields("This lift", fields, "Build"), chart])

    def _by_crane(self) -> bool:
        return self._way(None) == "crane"

    def _chart(self) -> str:
        lift = self.lift()
        return chart_words([(line.reach.si, line.load.si) for line in lift.chart], self.session.shown) if lift is not None else ""

    def type_chart(self, text: str) -> None:
        """A machine's chart as it is typed; nothing takes it off."""
        lift = self.lift()
        if lift is None:
            return
        try:
            lines = read_chart(text, self.session.shown)
        except EntryError as fault:
            self.complain(str(fault))
            return
        self.complain("")
        self.session.edit(
            "The machine's chart", [set_to(f"work.lifts.{lift.id}.chart", [msgspec.to_builtins(line) for line in lines])], "Build"
        )

    def _way(self, _build: object) -> str:
        lift = self.lift()
        return lift.way if lift is not None else ""
