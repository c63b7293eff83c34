"""Frame: what the rails feel under the trailer as it is, in every case and way; and which section would do."""

from __future__ import annotations

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.drawing.balance.frame_drawn import frame_drawn
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.studies.balance.frame_beam import CAUTION, HOWS, LABEL, LEFT_OUT, ROAD, Beam, FrameUnder, choices, frame_under
from uncle_sled.core.studies.balance.frame_beam import Choice as Section
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.balance.limits_and_driving import TRY_TIP, try_edit, worst_row
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Act, Choice, Drawing, Listed, Says, note
from uncle_sled.desk.kit.table import Column

WAYS: list[tuple[object, str]] = [("worst", "the worst of all"), *((how, LABEL[how]) for how in HOWS)]
SIDE_PX = 344


class FramePanel(Panel):
    how = "worst"

    def laid(self) -> Group:
        columns: tuple[Column[Section], ...] = (
            Column("Rails of", lambda choice: choice.section.says(self.session.shown)),
            Column(
                "More",
                lambda choice: self.words.kg(choice.more_kg),
                right=True,
                sort=lambda choice: choice.more_kg,
                tip="What the frame would weigh more",
            ),
            Column(
                "Ball",
                lambda choice: self.words.kg(choice.ball_kg),
                right=True,
                sort=lambda choice: choice.ball_kg,
                tip="What it puts on the ball",
            ),
            Column(
                "Yield",
                lambda choice: f"{choice.utilisation * 100:.0f} %",
                right=True,
                sort=lambda choice: choice.utilisation,
                ink=lambda choice: "primer" if choice.utilisation > 1 else "",
            ),
            Column(
                "Sinks",
                self._sinks,
                right=True,
                sort=lambda choice: choice.sinks_m,
                ink=lambda choice: "ochre word" if choice.sinks_m > choice.sinks_limit_m else "",
            ),
        )
        self.table = self.put(
            Listed[Section]("Sections for the rails, lightest first", columns, self._sections, lambda choice: choice.section.id, share=1)
        )
        self.try_button = self.put(Act("Try this section", TRY_TIP, self.try_section, plain=True))
        self.chart = self.put(
            Drawing("Shear, moment, stress and sinking of the rails", self._shapes, "", self._why, least=(220, 0), share=1)
        )
        self.ways = self.put(
            Choice(
                "How it stands",
                WAYS,
                lambda value: self.show_how(str(value)),
                lambda: self.how,
                "On the road in the case that is shown, parked or lifted; or whichever is worst",
                20,
                when=self._known,
            )
        )
        self.side = self.put(rows(self.table, self.try_button, gap=5, wide=SIDE_PX, when=self._known))
        return rows(
            across(self.ways, Says(self._told, share=1)),
            across(self.chart, self.side, gap=8, share=1),
            note(f"{LEFT_OUT} On the road {ROAD:g} times the static load. {CAUTION}"),
            gap=5,
        )

    def _known(self) -> bool:
        return not self.made().why

    def _sections(self) -> list[Section]:
        inches = self.session.build.brief.region == "North American"
        return [choice for choice in choices(self.studied) if choice.section.inches == inches]

    def refreshed(self) -> None:
        if self.table.marked() < 0:  # the rails that it has
            rail = self.made().rail
            self.table.mark_only(
                next((k for k, choice in enumerate(self.table.rows) if rail is not None and choice.section.id == rail.id), -1)
            )

    def _sinks(self, choice: Section) -> str:
        return (
            self.words.thick(round(choice.sinks_m, 3))
            if choice.sinks_m < 0.1
            else "over 0.1 m"
            if not self.session.shown.imperial
            else 'over 4"'
        )

    def made(self) -> FrameUnder:
        return frame_under(self.session.studied)

    def beam(self) -> Beam | None:
        made = self.made()
        if self.how == "worst" or not made.beams:
            return made.worst
        if self.how == "road":
            s = self.session.studied
            id = s.table.cases[worst_row(self.session)].id
            return next((beam for beam in made.beams if beam.how == "road" and beam.case_id == id), made.worst)
        return next((beam for beam in made.beams if beam.how == self.how), None)

    def show_how(self, how: str) -> None:
        self.how = how
        self.refresh()

    def try_section(self) -> None:
        choice = self.table.row()
        if choice is not None:
            try_edit(self.session, f"Rails of {choice.section.says(self.session.shown)}", (set_to("rig.rail", choice.section.id),))

    def _why(self) -> str:
        made = self.made()
        if made.why:
            return f"It cannot be answered because {made.why}."
        return "It cannot stand so: the jack's place is not said (Rig)."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        beam, made = self.beam(), self.made()
        return frame_drawn(self.session.studied, made, beam, self.words, width, height) if beam is not None else ()

    def _told(self) -> str:
        made, beam, words = self.made(), self.beam(), self.words
        if beam is None or made.rail is None:
            return ""
        use = beam.worst_pa / made.yield_pa * 100
        weld = " beside a weld" if made.rail.metal == "aluminium" else ""
        return (
            f"{beam.name}, {LABEL[beam.how]}: {use:.0f} % of yield{weld}, {words.m(beam.worst_m)} behind the ball; "
            f"drawbar's foot {beam.tongue_pa / made.yield_pa * 100:.0f} %; sinks {words.thick(beam.sinks_most_m)} of {words.thick(beam.sinks_limit_m)}. "
            f"Rails: {lower_first(made.rail.says(self.session.shown))}."
        )
