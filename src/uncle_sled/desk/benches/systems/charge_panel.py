"""What is in the battery over the stay: the chart, and what it hangs on beside it."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent

from uncle_sled.core.document.edits import Op, add_to, remove, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.primitives import Primitive, Text, line, rect
from uncle_sled.core.drawing.systems.stay_chart import stay_chart, stay_words
from uncle_sled.core.drawing.systems.year_strip import year_strip, year_words
from uncle_sled.core.findings.systems.power import day_words
from uncle_sled.core.studies.systems.stay import Stay, own_shade, shade_on, stay_of
from uncle_sled.core.studies.systems.sun import HOURS, sun_stays
from uncle_sled.core.studies.systems.systems_as_built import stay_mode
from uncle_sled.core.studies.systems.year import all_year
from uncle_sled.core.wiring.appliances import units_of
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.systems.sky_bar import sky_bar
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Gap, Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Act, Busy, Choice, Drawing, Fields, Own, Says
from uncle_sled.desk.session import Session

SIDE_PX = 262


def shaded_ops(build: Build, id: str, shade: list[float]) -> list[Op]:
    """Ops that give one panel a shade of its own."""
    if own_shade(build, id) is not None:
        return [set_to(f"systems.shaded.{id}.shade", shade)]
    return [add_to("systems.shaded", {"id": id, "shade": shade})]


class ShadePad(Chart):
    """Shade by the hour as 24 bars that are pulled; full height is full shade. Of all panels, or of the one that is chosen."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Shade on the panels by hour", self._bars, "Shade by hour: pull the bars")
        self.setMinimumHeight(104)
        self.setMaximumHeight(132)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.hand: Any = None
        self.at = 12  # the hour that arrow keys change
        self.of: str | None = None  # the panel, None: of all

    def panel(self) -> Thing | None:
        """Whose shade is shown; None where it is that of all, or where that panel is gone."""
        return next((thing for thing in units_of(self.session.build, "panel") if thing.id == self.of), None)

    def shade(self) -> list[float]:
        """What is drawn: of one panel its own, and that of all while it has none."""
        panel = self.panel()
        if panel is not None:
            return [float(share) for share in shade_on(self.session.build, panel)]
        told = self.session.build.systems.shade
        return list(told) if len(told) == HOURS else [0.0] * HOURS

    def ops(self, shade: list[float]) -> list[Op]:
        """Ops that make it the shade of what is chosen. A panel's own strip stays its own also where it is all light."""
        panel = self.panel()
        if panel is None:
            return [set_to("systems.shade", shade if any(shade) else [])]
        return shaded_ops(self.session.build, panel.id, shade)

    def _bars(self, width: float, height: float) -> tuple[Primitive, ...]:
        step, top = (width - 24) / HOURS, height - 52
        panel = self.panel()
        borrowed = panel is not None and own_shade(self.session.build, panel.id) is None
        shapes: list[Primitive] = [line((12, 20), (width - 12, 20), "pencil")]
        for hour, share in enumerate(self.shade()):
            x = 12 + hour * step
            shapes.append(
                rect(x + 1, 20, step - 2, top, stroke="chalk" if self.hasFocus() and hour == self.at else "rule", fill="", width=0.8)
            )
            if share > 0:
                tint = 0.25 if borrowed else 0.6  # what is that of all panels stands paler
                shapes.append(rect(x + 1, 20, step - 2, top * share, stroke="pencil", fill="pencil", width=0.6, tint=tint))
            if hour % 6 == 0:
                shapes.append(Text((x + step / 2, 10), f"{hour}:00", 10, "pencil"))
        return tuple(shapes)

    def _put(self, event: QMouseEvent) -> None:
        step, top = (self.width() - 24) / HOURS, self.height() - 52
        self.at = min(max(int((event.position().x() - 12) / max(step, 1)), 0), HOURS - 1)
        share = min(max((self.height() - event.position().y() - 20) / max(top, 1), 0.0), 1.0)
        shade = self.shade()
        shade[self.at] = round(share, 1)
        if self.hand is not None:
            self.hand.put(self.ops(shade))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self.hand = self.session.take_up("Shade on the panels", ("power",))
            self._put(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.hand is not None:
            self._put(event)

    def mouseReleaseEvent(self, _event: QMouseEvent) -> None:
        if self.hand is not None:
            self.hand.let_go()
            self.hand = None

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            self.at = (self.at + (1 if key == Qt.Key.Key_Right else -1)) % HOURS
            self.update()
        elif key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            shade = self.shade()
            shade[self.at] = round(min(max(shade[self.at] + (0.1 if key == Qt.Key.Key_Up else -0.1), 0.0), 1.0), 1)
            self.session.edit("Shade on the panels", self.ops(shade), "Systems", merge=f"shade {self.of}")
        else:
            super().keyPressEvent(event)


class ChargePanel(Panel):
    sky = "dull"

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        session.answers.changed.connect(self._answered)

    def laid(self) -> Group:
        self.chart = self.put(Drawing("State of charge over the stay", self._shapes, "", self._why, reads=self._read, share=4))
        rows_of = [Row("brief.nights_off"), *plain("systems", "drive_hours generator_w generator_hours plugged hookup_a")]
        year = Drawing(
            "How many nights hold in each month", self._year, "Nights that hold, month by month", self._no_year, least=(0, 128), share=1
        )
        left = rows(
            sky_bar("In and out under", lambda: self.sky, self.show_sky),
            self.chart,
            Says(self._first),
            Busy(all_year),
            year,
            Says(self._year_told, face="small", hides=True),
            share=1,
        )
        self.shade = self.put(Own(lambda: ShadePad(self.session), ShadePad.update))
        whose = Choice(
            "Shade of", self._panels, self._shade_of, lambda: self.shade.of, "One panel alone, or all of them", when=self._several
        )
        alike = Act("as all panels", "It has no shade of its own any more", self._alike, self._has_own, link=True, when=self._has_own)
        shading = rows(across(whose, alike), self.shade, gap=4)
        side = rows(Fields("The stay", rows_of, "Systems"), shading, Says(self._told), Gap(), gap=8, wide=SIDE_PX)
        return across(left, side, gap=8)

    def _panels(self) -> list[tuple[object, str]]:
        return [(None, "all panels"), *((thing.id, thing.name) for thing in units_of(self.session.build, "panel"))]

    def _several(self) -> bool:
        return len(units_of(self.session.build, "panel")) > 1

    def _shade_of(self, id: Any) -> None:
        self.shade.of = id
        self.refresh()

    def _has_own(self) -> bool:
        panel = self.shade.panel()
        return panel is not None and own_shade(self.session.build, panel.id) is not None

    def _alike(self) -> None:
        panel = self.shade.panel()
        if panel is not None:
            self.session.edit(f"Shade of {lower_first(panel.name)}", [remove(f"systems.shaded.{panel.id}")], "Systems")

    def _build(self) -> Build:
        ghost = self.session.ghost
        return ghost[1].build if ghost is not None else self.session.build

    def _mode(self, build: Build) -> str:
        """The mode that is looked at, where one stands in it."""
        mode = self.session.mode
        return mode.id if not mode.towing and mode.id in {known.id for known in build.stow.modes} else stay_mode(build)

    def stay(self) -> Stay:
        build = self._build()
        return stay_of(build, self._mode(build))

    def show_sky(self, id: str) -> None:
        self.sky = id
        self.refresh()

    def _year(self, width: float, height: float) -> tuple[Primitive, ...]:
        made = self.session.answers.of(all_year).value
        return year_strip(made.year, self.sky, width, height) if made is not None else ()

    def _no_year(self) -> str:
        made = self.session.answers.of(all_year).value
        return " ".join(made.year.why) if made is not None else "Looking at every month…"

    def _year_told(self) -> str:
        made = self.session.answers.of(all_year)
        if made.value is None:
            return ""
        return year_words(made.value, self.sky, self.words) if made.fresh else "As it was before the last change; looking again…"

    def refreshed(self) -> None:
        if self.isVisible() and not self.session.dragging and not self.session.answers.of(all_year).fresh:
            self.session.answers.ask(all_year)

    def _answered(self, study: object) -> None:
        if study is all_year and self.isVisible():
            self.refresh()

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return stay_chart(self.stay(), self.sky, self.words, width, height)

    def _read(self, x: float, _up: float, width: float, height: float) -> str:
        return stay_words(self.stay(), x, self.words, width, height)

    def _why(self) -> str:
        stay = self.stay()
        if stay.bank is None and self.session.build.systems.plugged:
            return "No battery aboard: the hookup runs it all. Together shows what its breaker stands."
        return " ".join(stay.why) or "Nothing to draw yet."

    def _first(self) -> str:
        stay = self.stay()
        if not stay.strings:
            return ""
        told = []
        for string in stay.strings:
            if string.first_dark_h is None:
                told.append(f"{string.name}: nothing goes dark")
            else:
                told.append(f"{string.name}: {string.first_dark} dark on {day_words(string.first_dark_h)}")
        guessed = "" if stay.nights_said else " Nights are not said; seven are drawn."
        return ". ".join(told) + "." + guessed

    def _told(self) -> list[str]:
        stay, words = self.stay(), self.words
        lines = [f"Out {words.wh(stay.demand.daily_wh)} a day."]
        if stay.bank is not None:
            cold = "" if stay.bank.cold_known else "; how cold is not said"
            share = f", {stay.bank.cold * 100:.0f} % of it in the cold" if stay.bank.cold_known and stay.bank.cold < 0.995 else ""
            lines.append(f"Battery {words.wh(stay.bank.usable_wh)} to use{share}{cold}.")
        string = stay.of(self.sky)
        if string is not None:
            nights = max(stay.nights, 1)
            lines.append(f"{string.name} sky: sun {words.wh(float(string.sun_wh.sum()) / nights)} a day.")
            if string.clipped_wh > 1:
                lines.append(f"{words.wh(string.clipped_wh)} of the stay found no room in the battery or controller.")
            if string.frost_wh > 1:
                lines.append(f"{words.wh(string.frost_wh)} not taken: battery below freezing.")
        latitude = self.session.build.brief.latitude_deg
        if latitude is not None and stay.day is not None and (where := sun_stays(latitude, stay.day)):
            lines.append(f"The sun does not {'rise' if where == 'down' else 'set'} there in the darkest of these months.")
        if stay.reserve_wh > 0:
            lines.append(f"Reserve {words.wh(stay.reserve_wh)}: a day of what must run.")
        lines.append("By typed watts and usual weather, not a promise.")
        return lines
