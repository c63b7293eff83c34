"""Today, Chance and Glue: a drawing, and what it hangs on beside it."""

from __future__ import annotations

from uncle_sled.core.drawing.build.cure_chart import cure_chart
from uncle_sled.core.drawing.build.plan_chart import chance_chart, day_words
from uncle_sled.core.drawing.build.today_card import today_card
from uncle_sled.core.drawing.build.trip_words import trip_words
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.panel_glue import glued_up
from uncle_sled.core.studies.build.at_the_dealer import ToSurvey, still_to_survey
from uncle_sled.core.studies.build.chance import Chance, chance_of
from uncle_sled.core.studies.build.days import days_of
from uncle_sled.core.studies.build.gluing import CAUTION, Bead, beads_of, cloth_m2, mass_ratio, resin_for
from uncle_sled.core.studies.build.least_trip import Least, LeastTrip, least_trip
from uncle_sled.core.studies.build.panel_press import CAUTION as PRESS_CAUTION
from uncle_sled.core.studies.build.panel_press import Pressed, panels_pressed, vacuum_is_enough
from uncle_sled.core.studies.build.schedule import best_schedule, prebuilt
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.kit.form import plain
from uncle_sled.desk.kit.panel import Group, Panel, PanelOf, across, rows
from uncle_sled.desk.kit.parts import Busy, Cards, Drawing, Fields, Listed, Says
from uncle_sled.desk.kit.table import Column

SIDE_PX, WIDE_PX = 262, 420
LEASTS: tuple[Least, ...] = ("roll", "sleep")
HEAVY_KG = 1000.0  # of weights, from which nobody would carry them


class TodayPanel(PanelOf[BuildBench]):
    """The next three in large type, what can be prebuilt, and the least set that must roll or sleep."""

    def laid(self) -> Group:
        least: tuple[Column[LeastTrip], ...] = (
            Column("Least to", lambda trip: trip.least, tip="Tasks marked on Calendar, with all that they wait for"),
            Column("Tasks", lambda trip: str(len(trip.tasks)), right=True, from_px=WIDE_PX),
            Column("Hours", lambda trip: f"{trip.hours:.0f}", right=True, from_px=WIDE_PX),
            Column("As planned", lambda trip: day_words(trip.first), right=True, tip="The day on which the calendar has it done"),
            Column(
                "Done first",
                lambda trip: day_words(trip.half) if trip.half else "",
                right=True,
                tip="Half of the draws, if nothing else is done before",
            ),
            Column(
                "By trip",
                lambda trip: f"{trip.by * 100:.0f} %" if trip.by is not None else "no day",
                right=True,
                tip="The chance by the first trip, which is typed on Calendar",
            ),
        )
        size: tuple[Column[ToSurvey], ...] = (
            Column("Measure first", lambda one: one.name),
            Column("Drawn", lambda one: self.words.cut(one.drawn_m), right=True),
            Column("Within", lambda one: self.words.cut(one.within_m) if one.within_m is not None else "not known", right=True),
            Column("Else", lambda one: one.why, from_px=WIDE_PX),
        )
        self.least = self.put(
            Listed[LeastTrip](
                "The least to roll and to sleep",
                least,
                self.trips,
                lambda trip: trip.least,
                lambda _: self.refresh(),
                when=lambda: bool(self.trips()),
                share=1,
            )
        )
        self.sizes = self.put(
            Listed[ToSurvey](
                "Measured at the dealer", size, self.to_measure, lambda one: one.name, when=lambda: bool(self.to_measure()), share=1
            )
        )
        return rows(
            Busy(best_schedule),
            Drawing("The next three things", self._shapes, "", self._why, share=5),
            across(self.least, self.sizes, gap=8, share=2),
            Says(self._told, face="small"),
        )

    def trips(self) -> tuple[LeastTrip, ...]:
        """What must at least be done, where something of it is still to come."""
        schedule = self.bench.schedule()
        found = (least_trip(self.studied, schedule, least) for least in LEASTS)
        return tuple(trip for trip in found if trip is not None and trip.tasks)

    def to_measure(self) -> tuple[ToSurvey, ...]:
        """Sizes of what is not there yet."""
        return still_to_survey(self.studied, self.bench.schedule())

    def _why(self) -> str:
        schedule = self.bench.schedule()
        if schedule.loop or schedule.never:
            return "Calendar says what keeps it from beginning."
        return "Nothing to be done next: nothing is drawn yet, or all of it is done."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return today_card(self.bench.schedule(), self.words, width, height)

    def _told(self) -> list[str]:
        schedule = self.bench.schedule()
        told = []
        early = prebuilt(schedule)
        if early:
            names = ", ".join(placed.task.name.lower() for placed in early[:6])
            told.append(f"While something is late, these need not wait: {names}{' …' if len(early) > 6 else ''}.")
        trip = self.least.row() or next(iter(self.trips()), None)
        if trip is not None:
            told.append(trip_words(trip, self.bench.name_of, self.words, self.session.build.rig.carrier == "vehicle bed"))
        return told


class ChancePanel(PanelOf[BuildBench]):
    """The finish as a chance, drawn five thousand times."""

    def laid(self) -> Group:
        return rows(
            Drawing(
                "Chance of the finish",
                self._shapes,
                "How likely it is finished by each day",
                "There is no chance to draw: nothing is planned, or Calendar says what finds no day.",
                share=1,
            ),
            Says(self._told, joined=" "),
        )

    def chance(self) -> Chance | None:
        build = self.session.build
        return chance_of(self.bench.schedule(), days_of(build), build.work.deadline)

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        chance = self.chance()
        if chance is None:
            return ()
        names = {placed.task.id: placed.task.name for placed in self.bench.schedule().placed}
        return chance_chart(chance, names, width, height)

    def _told(self) -> list[str]:
        chance = self.chance()
        if chance is None:
            return []
        told = [f"Half of the draws are done by {day_words(chance.p50)}, four of five by {day_words(chance.p80)}."]
        if chance.by is None:
            told.append("No deadline is said; type it on Calendar.")
        else:
            told.append(f"By the deadline {chance.by * 100:.0f} %.")
        return [*told, "5,000 draws through the whole plan; all tasks are late together, as one person's are."]


class GluePanel(Panel):
    """How much of what in which pots, pieces that are bonded against their open time, and cure by the month."""

    def laid(self) -> Group:
        columns: tuple[Column[Bead], ...] = (
            Column("Bonded piece", lambda bead: bead.name),
            Column("Bead", lambda bead: self.words.m(bead.bead_m), right=True),
            Column("Rivets", lambda bead: str(bead.rivets), right=True),
            Column("Takes", lambda bead: f"{bead.takes_min:.1f} min", right=True, ink=lambda bead: "primer" if bead.too_slow else ""),
            Column("Open", lambda bead: f"{bead.open_min:.0f} min", right=True),
            Column("Cartridges", lambda bead: f"{bead.cartridges:.2f}", right=True),
            Column("Cures", lambda bead: f"{bead.cure_days:.0f} days", right=True),
        )
        self.table = self.put(
            Listed[Bead]("Bonded pieces", columns, self.beads, lambda bead: bead.name, when=lambda: bool(self.beads()), share=1)
        )
        press: tuple[Column[Pressed], ...] = (
            Column("Panel glued up", lambda panel: panel.id),
            Column("Glue", lambda panel: self.words.fine_kg(panel.glue_kg), right=True),
            Column("Takes", lambda panel: f"{panel.takes_min:.0f} min", right=True, ink=lambda panel: "primer" if panel.too_slow else ""),
            Column("Open", lambda panel: f"{panel.open_min:.0f} min", right=True),
            Column("Weights", self._weights, right=True, tip="On it, for the pressure that the glue's papers want"),
            Column("In the press", lambda panel: f"{panel.press_h:.0f} h", right=True),
        )
        self.press = self.put(
            Listed[Pressed]("Panels glued up", press, self.panels, lambda panel: panel.id, when=lambda: bool(self.panels()), share=1)
        )
        pressing = Fields(
            "Panels of your own",
            plain(
                "work.glue",
                "panel_open_min panel_pace_m2_min panel_hands press_kpa press_by press_h",
                when=lambda build: glued_up(build.shell),
            ),
            "Build",
        )
        resin = Fields(
            "Resin, by its papers",
            plain("work.glue", "pot_min resin_parts resin_density hardener_density cloth_g_m2 coats pace_m2_min cure_h"),
            "Build",
        )
        bead = Fields("Bead adhesive", plain("work.glue", "bead_open_min bead_mm rivet_pitch cartridge_ml"), "Build")
        chart = Drawing(
            "Pot life and cure over the year", self._shapes, "Days of cure by the month, the shop’s warmth, the pot life", share=1
        )
        return across(
            rows(Says(self._told, joined=" "), chart, self.table, self.press, share=1), Cards((pressing, resin, bead), wide=SIDE_PX), gap=8
        )

    def beads(self) -> tuple[Bead, ...]:
        build, facts = self.session.build, self.session.facts
        return beads_of(build.work.glue, take_off(build, facts), library_of(facts.materials), self._shop_c())

    def panels(self) -> tuple[Pressed, ...]:
        return panels_pressed(self.session.build, self.session.facts, self._shop_c())

    def _weights(self, panel: Pressed) -> str:
        return "a bag" if self.session.build.work.glue.press_by == "vacuum" else self.words.kg(panel.weights_kg)

    def _shop_c(self) -> float:
        shop = self.session.build.work.shop
        return shop.si if shop is not None else 20.0

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        build = self.session.build
        return cure_chart(build.work.glue, days_of(build), self.words, width, height)

    def _told(self) -> list[str]:
        glue, words, facts = self.session.build.work.glue, self.words, self.session.facts
        area, warm, beads = cloth_m2(take_off(self.session.build, facts), library_of(facts.materials)), self._shop_c(), self.beads()
        told = []
        if area > 0:
            made = resin_for(glue, area, warm)
            told.append(
                f"Cloth on {words.m2(area)}: {words.fine_kg(made.mixed_kg)} mixed, {words.fine_kg(made.hardener_kg)} of it hardener ({mass_ratio(glue):.2f} to 1 by mass). At {words.degrees(warm)} a pot lasts {made.pot_min:.0f} min: {words.m2(made.batch_m2, 2)} and {made.batch_g:.0f} g a pot, {made.pots} pots."
            )
        else:
            told.append("No face has cloth and resin.")
        panels = self.panels()
        if panels:
            kilos, most = sum(panel.glue_kg for panel in panels), max(panel.weights_kg for panel in panels)
            told.append(
                f"{len(panels)} panels of your own take {words.fine_kg(kilos)} of glue and {sum(panel.press_h for panel in panels):.0f} h in the press, one after another."
            )
            if glue.press_by == "weights" and most > HEAVY_KG and vacuum_is_enough(glue):
                told.append(f"{words.kg(most)} of weights on one: a vacuum bag presses as hard.")
            told.append(PRESS_CAUTION)
        if beads:
            told.append(f"{sum(bead.cartridges for bead in beads):.1f} cartridges for {len(beads)} bonded pieces.")
        else:
            told.append("Nothing is bonded: no skin of metal, honeycomb or plastic.")
        return [*told, CAUTION]
