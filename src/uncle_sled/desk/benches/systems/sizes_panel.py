"""The smallest sizes that carry the stay, tried as ghosts; and the kinds of battery side by side."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.systems.needs_chart import needs_chart
from uncle_sled.core.findings.finding import Remedy
from uncle_sled.core.studies.balance.moves import ball_per_100_mm_kg
from uncle_sled.core.studies.systems.bank import fault_a
from uncle_sled.core.studies.systems.of_the_build import stay_mode
from uncle_sled.core.studies.systems.sizing import (
    VOLTS_IN_HAND,
    Least,
    Needs,
    Way,
    battery_ops,
    least_of,
    needs_of,
    panel_ops,
    strings_v,
    ways_of,
)
from uncle_sled.core.studies.systems.stay import panels_wp, stay_of
from uncle_sled.core.wiring.appliances import figures_of, units_of
from uncle_sled.core.wiring.conductors import breaking_type
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.systems.sky_bar import sky_bar
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

NO_NEEDS = "What is needed is drawn here once something runs (Loads) and Brief says where, when and for how many nights."


class SizesPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.sky = "mixed"
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(8)
        bar, self.sky_buttons = sky_bar(self, "Carry the stay under a", self.sky, self.show_sky, True)
        rows.addLayout(bar)
        middle = QHBoxLayout()
        middle.setSpacing(8)
        card = QFrame()
        card.setObjectName("card")
        self.card = QVBoxLayout(card)
        self.card.setContentsMargins(12, 8, 12, 8)
        self.card.setSpacing(5)
        self.card.addWidget(label("The smallest that does", "title"))
        self.lines: list[tuple[QLabel, QPushButton]] = []
        self.tried: dict[int, tuple[str, tuple[Op, ...] | None]] = {}
        for _ in range(5):
            line = QHBoxLayout()
            words = label("", wrap=True)
            button = QPushButton("Try it")
            button.clicked.connect(partial(self._try, len(self.lines)))
            line.addWidget(words, 1)
            line.addWidget(button, 0, Qt.AlignmentFlag.AlignTop)
            button.hide()
            self.card.addLayout(line)
            self.lines.append((words, button))
        self.chart = Chart(session, "What is needed under each sky, beside what is there", self._chart, "", lambda: NO_NEEDS)
        self.chart.setMinimumHeight(130)
        self.card.addWidget(self.chart, 1)
        middle.addWidget(card, 3)
        self.form = Form(session, "The bank", plain("systems", "volts panels_in_series gauge"), "Systems")
        self.form.setFixedWidth(262)
        beside = QVBoxLayout()
        beside.addWidget(self.form)
        self.facts = label("", wrap=True)
        self.facts.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.facts.setFixedWidth(262)
        beside.addWidget(self.facts, 1)
        middle.addLayout(beside)
        rows.addLayout(middle, 3)
        rows.addWidget(label("Kinds of battery that carry it, at this place", "title"))
        self.model = TableModel[Way](
            (
                Column("Kind", lambda way: way.school.name, ink=lambda way: "chalk" if self._is_now(way) else ""),
                Column("To use", lambda way: self.words.wh(way.usable_wh), right=True, tip="On the coldest night, where that is said"),
                Column("As sold", lambda way: self.words.wh(way.whole_wh), right=True),
                Column("Weighs", lambda way: self.words.kg(way.mass_kg), right=True),
                Column(
                    "On the ball",
                    lambda way: "" if way.ball_kg is None else self.words.kg(way.ball_kg),
                    right=True,
                    tip="From where the battery stands now",
                ),
                Column("Money", lambda way: f"{way.money:.0f}", right=True, tip="A usual price, to compare with only"),
                Column(
                    "In the cold",
                    lambda way: "not said" if way.cold is None else f"{way.cold * 100:.0f} %",
                    right=True,
                    tip="Share that it gives on the coldest night",
                ),
                Column("Times", lambda way: f"{way.school.cycles}", right=True, tip="How often it can be used so deep, usual figures"),
                Column("In frost", lambda way: way.school.in_frost),
            )
        )
        self.table = Table(self.model, "Kinds of battery")
        rows.addWidget(self.table, 2)

    @property
    def words(self) -> Words:
        return Words(self.session.shown)

    def _is_now(self, way: Way) -> bool:
        stores = units_of(self.session.build, "battery", "station")
        if not stores:
            return False
        f = figures_of(stores[0])
        now = "station" if f.unit == "station" else {"LFP": "lfp", "AGM": "agm"}.get(f.chemistry, "lead")
        return way.school.id == now

    def show_sky(self, id: str) -> None:
        self.sky = id
        self.sky_buttons[id].setChecked(True)
        self.refresh()

    def refresh(self) -> None:
        build = self.session.build
        self.form.refresh()
        mode = stay_mode(build)
        stay = stay_of(build, mode)
        needs = next((one for one in needs_of(build, mode) if one.sky == self.sky), None)
        told = self._needs(needs) + [self._least(one) for one in least_of(build)]
        if not told:
            told = [(" ".join(stay.why) or "Nothing to size yet.", "", None)]
        for at, (words, button) in enumerate(self.lines):
            says, title, ops = told[at] if at < len(told) else ("", "", None)
            words.setText(says)
            button.setVisible(ops is not None)
            self.tried[at] = (title, ops)
        needed = needs.battery_wh if needs is not None and needs.battery_wh is not None else None
        share = self._ball_share()
        self.model.set_rows(ways_of(build, stay, needed, share) if needed else (), lambda a, b: a.school.id == b.school.id)
        self.chart.update()
        self.facts.setText("\n".join(self._facts()))

    def _try(self, at: int) -> None:
        title, ops = self.tried.get(at, ("", None))
        if ops is not None:
            self.session.try_it(Remedy(title, ops, ()))
            self.session.said.emit(f"Trying: {title}. Ctrl+Enter keeps it, Esc puts it back.", "note")

    def _chart(self, width: float, height: float) -> tuple[Primitive, ...]:
        build = self.session.build
        stay = stay_of(build, stay_mode(build))
        have = stay.bank.usable_wh if stay.bank is not None else 0.0
        return needs_chart(needs_of(build, stay_mode(build)), have, panels_wp(build), self.sky, self.words, width, height)

    def _needs(self, needs: Needs | None) -> list[tuple[str, str, tuple[Op, ...] | None]]:
        if needs is None:
            return []
        build, words = self.session.build, self.words
        made: list[tuple[str, str, tuple[Op, ...] | None]] = []
        stay = stay_of(build, stay_mode(build))
        have = stay.bank.usable_wh if stay.bank is not None else 0.0
        batteries = units_of(build, "battery")
        if needs.battery_wh is None:
            made.append(("Battery: no size that is sold carries it with these panels.", "", None))
        else:
            enough = have >= needs.battery_wh - 1
            says = f"Battery: {words.wh(needs.battery_wh)} to use are enough with these panels; there are {words.wh(have)}."
            each = battery_ops(batteries[0], needs.battery_wh / len(batteries)) if batteries and not enough else None
            ops = None
            if each is not None:
                all_ops = [battery_ops(t, needs.battery_wh / len(batteries)) for t in batteries]
                ops = tuple(op for one in all_ops if one is not None for op in one[0])
            made.append((says, f"{'Batteries' if len(batteries) > 1 else 'A battery'} of {each[1]:.0f} Ah" if each else "", ops))
        panels = units_of(build, "panel")
        if panels and needs.panel_wp is None:
            made.append(("Panels: none that is sold carries it with this battery.", "", None))
        elif panels and needs.panel_wp is not None:
            now = panels_wp(build)
            says = f"Panels: {needs.panel_wp:.0f} W are enough with this battery; there are {now:.0f} W."
            last = max(panels, key=lambda t: figures_of(t).solar_wp or 0.0)
            grown = panel_ops(last, needs.panel_wp - (now - (figures_of(last).solar_wp or 0.0))) if needs.panel_wp > now else None
            made.append((says, f"A panel of {grown[1]:.0f} W" if grown else "", grown[0] if grown else None))
        return made

    def _least(self, one: Least) -> tuple[str, str, tuple[Op, ...] | None]:
        build = self.session.build
        if one.wanted is None:
            return f"{one.name}: none that is sold is large enough ({one.why}).", "", None
        have = "none is aboard, or nobody said" if one.there is None else f"there are {one.there:.0f} {one.unit}"
        says = f"{one.name}: {one.wanted:.0f} {one.unit} by {one.why}; {have}."
        things = units_of(build, *one.units)
        if not things or (one.there is not None and one.there >= one.wanted - 0.5):
            return says, "", None
        value = one.wanted if one.unit == "W" else one.wanted * build.systems.volts
        field = "power_w" if one.unit == "W" else "charge_w"
        return (says, f"{one.name} of {one.wanted:.0f} {one.unit}", (set_to(f"stow.things.{things[0].id}.figures.{field}", value),))

    def _ball_share(self) -> float | None:
        """What a kilogram at the battery puts on the ball; None on a bed."""
        s = self.session.studied
        stores = units_of(s.build, "battery", "station")
        if not stores or s.support is None or s.support.carrier != "ball" or not s.towing_rows:
            return None
        per = ball_per_100_mm_kg(s, stores[0].id, s.towing_rows[0])
        if per is None or not stores[0].mass.si:
            return None
        axle = s.support.mean_axle_m
        along = stores[0].length.si if stores[0].turn % 180 == 0 else stores[0].width.si
        return 1 - (stores[0].x.si + along / 2) / axle if axle else None

    def _facts(self) -> list[str]:
        build, words = self.session.build, self.words
        told = []
        for one in strings_v(build):
            limit = "no limit said at the controller" if one.limit_v is None else f"controller takes {one.limit_v:.0f} V"
            told.append(
                f"{one.series} × {one.name}: {one.cold_v:.1f} V open at {words.degrees(one.coldest_c)}, {one.cold_v * VOLTS_IN_HAND:.1f} V with 5 % in hand; {limit}."
            )
        if units_of(build, "panel") and not told:
            told.append("Panel volts not checked: the coldest night (Brief) and the open volts on the plate are wanted.")
        told += self._short()
        return told

    def _short(self) -> list[str]:
        """What a short at the main fuse draws, and which type of fuse breaks it."""
        s = self.session.studied
        wired = wired_of(s.build, s.framed)
        batteries = units_of(s.build, "battery")
        first = next((w for w in wired.wires if wired.net.ends[w.start].kind == "battery" and w.mm2 is not None), None)
        ah = [figures_of(t).amp_hours for t in batteries]
        if first is None or not ah or None in ah:
            return []
        whole = sum(one for one in ah if one is not None) / max(s.build.systems.volts / 12, 1)
        amps = fault_a(whole, figures_of(batteries[0]).chemistry, float(s.build.systems.volts), first.length_m, first.mm2 or 1.0)
        kind = breaking_type(amps)
        return [
            f"A short at the main wire draws about {amps / 1000:.1f} kA: main fuse of type {kind}."
            if kind
            else f"A short draws {amps / 1000:.1f} kA, more than any fuse listed breaks: ask the battery's maker."
        ]
