"""The smallest sizes that carry the stay, tried as ghosts; and the kinds of battery side by side."""

from __future__ import annotations

from functools import partial

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.systems.needs_chart import needs_chart
from uncle_sled.core.drawing.systems.strings_chart import strings_chart, strung_words
from uncle_sled.core.findings.finding import Remedy
from uncle_sled.core.studies.balance.moves import ball_per_100_mm_kg
from uncle_sled.core.studies.systems.bank import fault_a
from uncle_sled.core.studies.systems.panel_strings import strung
from uncle_sled.core.studies.systems.sizing import Least, Needs, Way, battery_ops, least_of, needs_of, needs_under, panel_ops, ways_of
from uncle_sled.core.studies.systems.stay import panels_wp, stay_of
from uncle_sled.core.studies.systems.systems_as_built import stay_mode
from uncle_sled.core.wiring.appliances import figures_of, units_of
from uncle_sled.core.wiring.conductors import breaking_type
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.desk.benches.systems.sky_bar import sky_bar
from uncle_sled.desk.kit.form import plain
from uncle_sled.desk.kit.panel import Group, Panel, across, card, rows
from uncle_sled.desk.kit.parts import Act, Drawing, Fields, Listed, Says
from uncle_sled.desk.kit.table import Column

NO_NEEDS = "What is needed is drawn here once something runs (Loads) and Brief says where, when and for how many nights."
NO_PANELS = "No solar panel is aboard."

MOST_SIZES, SIDE_PX = 5, 262
Sized = tuple[str, str, tuple[Op, ...] | None]  # what is said of a size, what trying it is called, and how


class SizesPanel(Panel):
    sky = "mixed"
    sizes: list[Sized]

    def laid(self) -> Group:
        lines = [
            across(
                Says(partial(self._says, at), share=1),
                Act(
                    "Try it",
                    "See it with every limit before you keep it",
                    partial(self._try, at),
                    plain=True,
                    when=partial(self._can_try, at),
                ),
            )
            for at in range(MOST_SIZES)
        ]
        drawing = Drawing("What is needed under each sky, beside what is there", self._chart, "", NO_NEEDS, least=(0, 130), share=1)
        beside = rows(
            Fields("The bank", plain("systems", "volts panels_in_series gauge"), "Systems"),
            Drawing("Volts of rows of panels", self._rows_drawn, "Rows of panels, hot to cold", NO_PANELS, least=(0, 92), share=1),
            Says(self._facts),
            wide=SIDE_PX,
        )
        columns: tuple[Column[Way], ...] = (
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
        self.table = self.put(Listed[Way]("Kinds of battery", columns, self._ways, lambda way: way.school.id, share=2))
        return rows(
            sky_bar("Carry the stay under a", lambda: self.sky, self.show_sky, in_sentence=True),
            across(card("The smallest that does", *lines, drawing, share=3), beside, gap=8, share=3),
            Says("Kinds of battery that carry it, at this place", face="title"),
            self.table,
            gap=8,
        )

    def _is_now(self, way: Way) -> bool:
        stores = units_of(self.session.build, "battery", "station")
        if not stores:
            return False
        f = figures_of(stores[0])
        now = "station" if f.unit == "station" else {"LFP": "lfp", "AGM": "agm"}.get(f.chemistry, "lead")
        return way.school.id == now

    def show_sky(self, id: str) -> None:
        self.sky = id
        self.refresh()

    def needs(self) -> Needs | None:
        """What the stay wants under the sky that is shown."""
        build = self.session.build
        return needs_under(build, stay_mode(build), self.sky)

    def prepared(self) -> None:
        build = self.session.build
        self.sizes = self._needs(self.needs()) + [self._least(least) for least in least_of(build)]
        if not self.sizes:
            self.sizes = [(" ".join(stay_of(build, stay_mode(build)).why) or "Nothing to size yet.", "", None)]

    def _says(self, at: int) -> str:
        return self.sizes[at][0] if at < len(self.sizes) else ""

    def _can_try(self, at: int) -> bool:
        return at < len(self.sizes) and self.sizes[at][2] is not None

    def _ways(self) -> tuple[Way, ...]:
        build, needs = self.session.build, self.needs()
        if needs is None or not needs.battery_wh:
            return ()
        return ways_of(build, stay_of(build, stay_mode(build)), needs.battery_wh, self._ball_share())

    def _try(self, at: int) -> None:
        _, title, ops = self.sizes[at]
        if ops is not None:
            self.session.try_it(Remedy(title, ops, ()))
            self.session.said.emit(f"Trying: {title}. Ctrl+Enter keeps it, Esc puts it back.", "note")

    def _chart(self, width: float, height: float) -> tuple[Primitive, ...]:
        build = self.session.build
        stay = stay_of(build, stay_mode(build))
        have = stay.bank.usable_wh if stay.bank is not None else 0.0
        return needs_chart(needs_of(build, stay_mode(build)), have, panels_wp(build), self.sky, self.words, width, height)

    def _needs(self, needs: Needs | None) -> list[Sized]:
        if needs is None:
            return []
        build, words = self.session.build, self.words
        made: list[Sized] = []
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
                ops = tuple(op for tried in all_ops if tried is not None for op in tried[0])
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

    def _least(self, least: Least) -> Sized:
        build = self.session.build
        if least.wanted is None:
            return f"{least.name}: none that is sold is large enough ({least.why}).", "", None
        have = "none is aboard, or nobody said" if least.there is None else f"there are {least.there:.0f} {least.unit}"
        says = f"{least.name}: {least.wanted:.0f} {least.unit} by {least.why}; {have}."
        things = units_of(build, *least.units)
        if not things or (least.there is not None and least.there >= least.wanted - 0.5):
            return says, "", None
        value = least.wanted if least.unit == "W" else least.wanted * build.systems.volts
        field = "power_w" if least.unit == "W" else "charge_w"
        return (says, f"{least.name} of {least.wanted:.0f} {least.unit}", (set_to(f"stow.things.{things[0].id}.figures.{field}", value),))

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

    def _rows_drawn(self, width: float, height: float) -> tuple[Primitive, ...]:
        return strings_chart(strung(self.session.build), width, height)

    def _facts(self) -> list[str]:
        return [*strung_words(strung(self.session.build), self.words), *self._short()]

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
