"""Two views of the Balance bench: every limit with the cars side by side, and what driving does, drawn."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.balance import bars, road_cards
from uncle_sled.core.drawing.balance.car_card import car_card
from uncle_sled.core.drawing.balance.size_card import size_card
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.findings.finding import Remedy
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.limits import Unchecked, use
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance import road_checks
from uncle_sled.core.studies.balance.road_size import every_limit
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import QuantityField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

Shapes = tuple[Primitive, ...]
Card = Callable[[Studied, Words, float, float], Shapes]
CARD_W, CARD_H = 236, 214  # least, so that a drawing and its words have room
GAP = 8
ASKS = {
    "European": "brakes are usually asked for above {750 kg} or half of the car's weight",
    "North American": "states ask for brakes from {453.6 kg} to {2268 kg}, and for a breakaway switch",
    "Australian/New Zealand": "brakes are asked for by the weight on the wheels",
}


def try_edit(session: Session, says: str, ops: tuple[Op, ...]) -> None:
    """Try ops as a ghost; Ctrl+Enter keeps them."""
    if ops:
        session.try_it(Remedy(says, ops, ()))
        session.said.emit(f"Trying: {says}. Ctrl+Enter keeps it, Esc puts it back.", "note")


def worst_row(session: Session) -> int:
    """The shown case where it is on the road, else the first that is."""
    s = session.studied
    if s.table.cases and s.table.cases[session.row].mode.towing:
        return session.row
    return s.towing_rows[0] if s.towing_rows else 0


class Lines(Guarded, QFrame):
    """A card of plain sentences, a line each."""

    def __init__(self, title: str) -> None:
        super().__init__()
        self.setObjectName("card")
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(12, 8, 12, 8)
        self.rows.setSpacing(4)
        self.rows.addWidget(label(title, "title"))
        self.words = label("", wrap=True)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.rows.addWidget(scrolled(self.words), 1)

    def show_lines(self, lines: list[str]) -> None:
        text = "\n".join(lines)
        if self.words.text() != text:
            self.words.setText(text)


def scrolled(inner: QWidget) -> QScrollArea:
    """A widget that scrolls up and down where it has no room."""
    area = QScrollArea()
    area.setWidgetResizable(True)
    area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    area.setWidget(inner)
    return area


class LimitsPanel(Guarded, QWidget):
    """Every rating as a bar with number, limit and worst case; the cars' papers in columns under it."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(GAP)
        self.chart = Chart(
            session,
            "Every limit of the rig",
            self._bars,
            "Nearest to their limits",
            lambda: "No rating is known yet: type plates, axles, tyres and coupler on Rig.",
        )
        self.cars = Chart(
            session,
            "The cars side by side",
            lambda w, h: bars.car_bars(session.studied, Words(session.shown), w, h),
            "The car in front",
            lambda: "No car yet: add one on Brief with the limits in its papers.",
        )
        rows.addWidget(scrolled(self.chart), 3)
        rows.addWidget(self.cars, 2)
        self.says = label("", wrap=True)
        rows.addWidget(self.says)

    def _mine(self) -> tuple:  # type: ignore[type-arg]
        limits = sorted(every_limit(self.session.studied).limits, key=lambda one: -use(one))
        return tuple(one for one in limits if one.vehicle_id is None)

    def _unchecked(self) -> tuple[Unchecked, ...]:
        return tuple(one for one in every_limit(self.session.studied).unchecked if one.vehicle_id is None)

    def _bars(self, width: float, height: float) -> tuple[Primitive, ...]:
        mine, none = self._mine(), self._unchecked()
        words = Words(self.session.shown)
        return bars.limit_bars(self.session.studied, mine, none, words, width, height) if mine or none else ()

    def refresh(self) -> None:
        bed = self.session.build.rig.carrier == "vehicle bed"
        self.chart.setMinimumHeight(int(bars.rows_high(len(self._mine()) + len(self._unchecked()))))
        self.cars.setVisible(not bed)
        cars = vehicles_of(self.session.build.brief, self.session.facts)
        self.cars.setMinimumHeight(int(bars.cars_high()) if cars else 60)
        self.chart.update()
        self.cars.update()
        self.says.setText(
            " ".join([*self._counted(), *self._tyre_words(), *self._brake_words(), "Screening only: plates, papers and local law decide."])
        )

    def _counted(self) -> list[str]:
        """How many limits were held against a number at all; blue is computed, green is weighed."""
        held = every_limit(self.session.studied)
        checked, every = len(held.limits), len(held.limits) + len(held.unchecked)
        weighed = sum(one.face == "measured" for one in held.limits)
        how = f"{weighed} of them by weighing (green), the rest computed (blue)" if weighed else "computed (blue), none by weighing"
        return [f"{checked} of {every} limits checked, {how}." if checked else f"None of {every} limits could be checked."]

    def _tyre_words(self) -> list[str]:
        use, words = road_checks.tyre_use(self.session.studied), Words(self.session.shown)
        if use is None:
            return []
        told = []
        if use.speed_kmh:
            told.append(f"allowed to {words.kmh(use.speed_kmh)}")
        if use.pressure_kpa:
            whose = "cold for their load" if use.least_known else "cold, the rated one: ask the maker's table for less"
            told.append(f"want {words.of(use.pressure_kpa, 'kPa cold', 0)} {whose}")
        return ["Tyres: " + ", ".join(told) + "; never under their least pressure."] if told else []

    def _brake_words(self) -> list[str]:
        s, words = self.session.studied, Words(self.session.shown)
        if s.build.rig.carrier != "ball" or not s.towing_rows:
            return []
        total = float(max(s.readings.total_kg[row] for row in s.towing_rows))
        has = {"": "none said yet", "none": "it has none"}.get(s.build.rig.brakes, f"it has {s.build.rig.brakes} ones")
        return [
            f"Brakes: {words.kg(total)} at the most, {has}; {words.told(ASKS[s.build.brief.region])}. Ask for the rule where you drive."
        ]


class DrivingPanel(Guarded, QWidget):
    """Eight small drawings of the shown case; in a narrow window two in a row, and they scroll."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(4)
        self.inner = QWidget()
        self.grid = QGridLayout(self.inner)
        self.grid.setContentsMargins(0, 0, 0, 0)
        self.grid.setSpacing(GAP)
        cards: dict[str, tuple[Card, str]] = {
            "A firm stop": (self._at_row(road_cards.stop_card), "No ball and no reading, so nothing to brake."),
            "On a grade": (self._at_row(road_cards.grade_card), "No ball and no reading yet."),
            "Leaning over": (self._at_row(road_cards.lean_card), "Wants an axle with its track on Rig."),
            "Somebody on the tail": (self._at_row(road_cards.tail_card), "Wants the jack's place on Rig."),
            "Spring over or under": (
                self._at_row(road_cards.rides_card),
                "Wants a leaf-sprung axle and a body; torsion arms set the height by their start angle.",
            ),
            "Size on the road": (self._at_row(size_card), "Wants a body, or things that ride; limits are typed on Brief."),
            "What the car carries": (
                self._at_row(car_card),
                "Wants the car's empty axles, wheelbase and ball overhang on Brief, and where its loaded rows are.",
            ),
            "A tight bend": (road_cards.bend_card, "Wants the car's width and its tail to the ball on Brief."),
        }
        self.cards = {title: self._card(title, card, why) for title, (card, why) in cards.items()}
        self.columns = 0
        self._lay(3)
        self.area = scrolled(self.inner)
        rows.addWidget(self.area, 1)
        self.swap = QuantityField(Length, "Other wheels", lambda: session.shown)
        self.swap.setMaximumWidth(110)
        self.swap.entered.connect(self._swapped)
        self.swap_says = label("", wrap=True)
        self.swap_row = QWidget()
        beside = QHBoxLayout(self.swap_row)
        beside.setContentsMargins(0, 0, 0, 0)
        title = label("Wheels of another height", "", "pencil")
        title.setBuddy(self.swap)
        beside.addWidget(title)
        beside.addWidget(self.swap)
        beside.addWidget(self.swap_says, 1)
        rows.addWidget(self.swap_row)
        self.says = label("", wrap=True)
        rows.addWidget(self.says)
        self.rest = QWidget()
        rows.addWidget(self.rest)

    def _at_row(self, card: Callable[..., Shapes]) -> Card:
        """A card of one load case: the shown one, or the first on the road."""

        def at_row(s: Studied, words: Words, width: float, height: float) -> Shapes:
            return card(s, worst_row(self.session), words, width, height) if s.towing_rows else ()

        return at_row

    def _card(self, title: str, card: Card, why: str) -> Chart:
        session = self.session
        chart = Chart(session, title, lambda w, h: card(session.studied, Words(session.shown), w, h), title, lambda: why)
        chart.setMinimumSize(CARD_W, CARD_H)
        return chart

    def _lay(self, columns: int) -> None:
        if columns != self.columns:
            self.columns = columns
            for at, card in enumerate(self.cards.values()):
                self.grid.addWidget(card, at // columns, at % columns)

    def _swapped(self, value: Length | None) -> None:
        """Only looked at: nothing of the build changes. The tyre's own height is on Rig."""
        self.swap.show_value(value)
        self._show_swap()

    def _show_swap(self) -> None:
        s, words, value = self.session.studied, Words(self.session.shown), self.swap.value
        now = s.build.rig.tyre.diameter
        if value is None or now is None:
            self.swap_says.setText("" if now is not None else "Type the height of today's tyres on Rig first.")
            return
        made = road_checks.wheel_swap(s, worst_row(self.session), value.si)
        if made is None:
            self.swap_says.setText("No such wheel: the height of the whole tyre is wanted.")
            return
        way = "higher" if made.raised_m >= 0 else "lower"
        told = [
            f"{words.m(now.si)} to {words.m(value.si)}: all of it {words.m(abs(made.raised_m))} {way}, coupler {words.m(made.coupler_m)}"
        ]
        told += [] if made.cg_m is None else [f"weight {words.m(made.cg_m)} up"]
        told += [] if made.over_tyre_m is None else [f"{words.thick(made.over_tyre_m)} left over the tyre"]
        told += [] if made.roll_g is None else [f"a wheel lifts at {made.roll_g:.2f} g"]
        self.swap_says.setText(", ".join(told) + ".")

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._lay(3 if self.width() >= 3 * CARD_W + 2 * GAP + 4 else 2)

    def refresh(self) -> None:
        for card in self.cards.values():
            card.update()
        s = self.session.studied
        bed = s.build.rig.carrier == "vehicle bed"
        self.area.setVisible(not bed)
        self.rest.setVisible(bed)
        self.swap_row.setVisible(not bed)
        self._show_swap()
        if bed:
            self.says.setText("A vehicle's bed has no ball: its limits are on the view before this one.")
        elif s.towing_rows:
            self.says.setText(
                f"Drawn for {s.table.cases[worst_row(self.session)].name}. Screening only: stiff tyres, level road, nobody's driving; makers of axle, tyre and car decide."
            )
        else:
            self.says.setText("")
