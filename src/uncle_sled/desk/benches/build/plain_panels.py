"""Today, Chance and Glue: a drawing, and what it hangs on beside it."""

from __future__ import annotations

from datetime import timedelta

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.drawing.build.cure_chart import cure_chart
from uncle_sled.core.drawing.build.plan_chart import chance_chart, day_words
from uncle_sled.core.drawing.build.today_card import today_card
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.studies.build.chance import Chance, chance_of
from uncle_sled.core.studies.build.days import days_of
from uncle_sled.core.studies.build.gluing import CAUTION, Bead, beads_of, cloth_m2, mass_ratio, resin_for
from uncle_sled.core.studies.build.schedule import best_schedule, least_set, prebuilt
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.kit.working import Working
from uncle_sled.desk.session import Session

SIDE_PX = 262


class TodayPanel(Guarded, QWidget):
    """The next three in large type, what can be prebuilt, and the least set that must roll or sleep."""

    def __init__(self, session: Session, bench: BuildBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(6)
        self.working = Working(session.answers, best_schedule)
        rows.addWidget(self.working)
        self.chart = Chart(session, "The next three things", self._shapes, "", self._why)
        rows.addWidget(self.chart, 1)
        self.says = label("", "", "ink", wrap=True)
        rows.addWidget(self.says)

    def _why(self) -> str:
        schedule = self.bench.schedule()
        if schedule.loop or schedule.never:
            return "Calendar says what keeps it from beginning."
        return "Nothing to be done next: nothing is drawn yet, or all of it is done."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return today_card(self.bench.schedule(), Words(self.session.shown), width, height)

    def refresh(self) -> None:
        self.chart.update()
        schedule = self.bench.schedule()
        told = []
        early = prebuilt(schedule)
        if early:
            names = ", ".join(one.task.name.lower() for one in early[:6])
            told.append(f"While something is late, these need not wait: {names}{' …' if len(early) > 6 else ''}.")
        tasks = tasks_of(self.session.build, self.session.project.facts)
        for word, mark in (("To roll", "roll"), ("To sleep in it", "sleep")):
            wanted = [one for one in least_set(tasks, mark) if (p := schedule.of(one)) is not None and not p.task.done]
            if wanted:
                last = max((p.free for one in wanted if (p := schedule.of(one)) is not None), default=0.0)
                hours = sum(p.task.left_h for one in wanted if (p := schedule.of(one)) is not None)
                told.append(
                    f"{word}: {len(wanted)} tasks, {hours:.0f} h, by {day_words(schedule.begin + timedelta(days=int(last)))} at the earliest; the rest can wait."
                )
        self.says.setText("\n".join(told))


class ChancePanel(Guarded, QWidget):
    """The finish as a chance, drawn five thousand times."""

    def __init__(self, session: Session, bench: BuildBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        self._made: tuple[object, object, Chance | None] | None = None
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(6)
        self.chart = Chart(session, "Chance of the finish", self._shapes, "How likely it is finished by each day", self._why)
        rows.addWidget(self.chart, 1)
        self.says = label("", "", "ink", wrap=True)
        rows.addWidget(self.says)

    def chance(self) -> Chance | None:
        schedule, work = self.bench.schedule(), self.session.build.work
        if self._made is None or self._made[0] is not schedule or self._made[1] is not work:
            self._made = schedule, work, chance_of(schedule, days_of(self.session.build), work.deadline)
        return self._made[2]

    def _why(self) -> str:
        return "There is no chance to draw: nothing is planned, or Calendar says what finds no day."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        chance = self.chance()
        if chance is None:
            return ()
        names = {one.task.id: one.task.name for one in self.bench.schedule().placed}
        return chance_chart(chance, names, width, height)

    def refresh(self) -> None:
        self.chart.update()
        chance = self.chance()
        if chance is None:
            self.says.setText("")
            return
        told = [f"Half of the draws are done by {day_words(chance.p50)}, four of five by {day_words(chance.p80)}."]
        if chance.by is None:
            told.append("No deadline is said; type it on Calendar.")
        else:
            told.append(f"By the deadline {chance.by * 100:.0f} %.")
        told.append("5,000 draws through the whole plan; all tasks are late together, as one person's are.")
        self.says.setText(" ".join(told))


class GluePanel(Guarded, QWidget):
    """How much of what in which pots, pieces that are bonded against their open time, and cure by the month."""

    def __init__(self, session: Session, bench: BuildBench) -> None:
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
            session, "Pot life and cure over the year", self._shapes, "Days of cure by the month, the shop’s warmth, the pot life"
        )
        left.addWidget(self.chart, 1)
        self.model = TableModel[Bead](
            (
                Column("Bonded piece", lambda one: one.name),
                Column("Bead", lambda one: Words(session.shown).m(one.bead_m), right=True),
                Column("Rivets", lambda one: str(one.rivets), right=True),
                Column("Takes", lambda one: f"{one.takes_min:.1f} min", right=True, ink=lambda one: "primer" if one.too_slow else ""),
                Column("Open", lambda one: f"{one.open_min:.0f} min", right=True),
                Column("Cartridges", lambda one: f"{one.cartridges:.2f}", right=True),
                Column("Cures", lambda one: f"{one.cure_days:.0f} days", right=True),
            )
        )
        self.table = Table(self.model, "Bonded pieces")
        left.addWidget(self.table, 1)
        across.addLayout(left, 1)
        resin = Form(
            session,
            "Resin, by its papers",
            plain("work.glue", "pot_min resin_parts resin_density hardener_density cloth_g_m2 coats pace_m2_min cure_h"),
            "Build",
            label_px=104,
        )
        bead = Form(session, "Bead adhesive", plain("work.glue", "bead_open_min bead_mm rivet_pitch cartridge_ml"), "Build", label_px=104)
        self.forms = [resin, bead]
        side = Columns(list(self.forms))
        side.setFixedWidth(SIDE_PX)
        across.addWidget(side)

    def _shop_c(self) -> float:
        shop = self.session.build.work.shop
        return shop.si if shop is not None else 20.0

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        build = self.session.build
        return cure_chart(build.work.glue, days_of(build), Words(self.session.shown), width, height)

    def refresh(self) -> None:
        for form in self.forms:
            form.refresh()
        self.chart.update()
        glue, words = self.session.build.work.glue, Words(self.session.shown)
        facts = self.session.project.facts
        off, library = take_off(self.session.build, facts), library_of(facts.materials)
        warm = self._shop_c()
        beads = beads_of(glue, off, library, warm)
        self.model.set_rows(beads, lambda a, b: a.name == b.name)
        self.table.setVisible(bool(beads))
        told = []
        area = cloth_m2(off, library)
        if area > 0:
            made = resin_for(glue, area, warm)
            told.append(
                f"Cloth on {words.m2(area)}: {words.fine_kg(made.mixed_kg)} mixed, {words.fine_kg(made.hardener_kg)} of it hardener ({mass_ratio(glue):.2f} to 1 by mass). At {words.degrees(warm)} a pot lasts {made.pot_min:.0f} min: {words.m2(made.batch_m2, 2)} and {made.batch_g:.0f} g a pot, {made.pots} pots."
            )
        else:
            told.append("No face has cloth and resin.")
        if beads:
            told.append(f"{sum(one.cartridges for one in beads):.1f} cartridges for {len(beads)} bonded pieces.")
        else:
            told.append("Nothing is bonded: no skin of metal, honeycomb or plastic.")
        told.append(CAUTION)
        self.says.setText(" ".join(told))
