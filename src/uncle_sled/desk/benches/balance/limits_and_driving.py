"""Two views of the Balance bench: every limit with the cars side by side, and what driving does, drawn."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QGridLayout, QWidget

from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.balance import balance_bars, road_cards
from uncle_sled.core.drawing.balance.car_card import car_card
from uncle_sled.core.drawing.balance.size_card import size_card
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.findings.finding import Remedy
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.limits import Limit, Unchecked, use
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance import road_checks
from uncle_sled.core.studies.balance.road_size import every_limit
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.fields import QuantityField
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Drawing, Own, Says, Scrolled
from uncle_sled.desk.session import Session

Shapes = tuple[Primitive, ...]
Card = Callable[[Studied, Words, float, float], Shapes]
CARD_W, CARD_H = 236, 214  # least, so that a drawing and its words have room
GAP = 8
TRY_TIP = "See the ball and every limit with it before you keep it"
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


class LimitsPanel(Panel):
    """Every rating as a bar with number, limit and worst case; the cars' papers in columns under it."""

    def laid(self) -> Group:
        self.chart = self.put(
            Drawing(
                "Every limit of the rig",
                self._bars,
                "Nearest to their limits",
                "No rating is known yet: type plates, axles, tyres and coupler on Rig.",
                high=self._high,
            )
        )
        self.cars = self.put(
            Drawing(
                "The cars side by side",
                self._side_by_side,
                "The car in front",
                "No car yet: add one on Brief with the limits in its papers.",
                high=self._cars_high,
                when=lambda: self.session.build.rig.carrier != "vehicle bed",
                share=2,
            )
        )
        return rows(Scrolled(self.chart, share=3), self.cars, Says(self._told), gap=GAP)

    def _high(self) -> float:
        return balance_bars.rows_high(len(self._mine()) + len(self._unchecked()))

    def _cars_high(self) -> float:
        return balance_bars.cars_high() if vehicles_of(self.session.build.brief, self.session.facts) else 60.0

    def _side_by_side(self, width: float, height: float) -> Shapes:
        return balance_bars.car_bars(self.studied, self.words, width, height)

    def _told(self) -> str:
        return " ".join(
            [*self._counted(), *self._tyre_words(), *self._brake_words(), "Screening only: plates, papers and local law decide."]
        )

    def _mine(self) -> tuple[Limit, ...]:
        limits = sorted(every_limit(self.session.studied).limits, key=lambda limit: -use(limit))
        return tuple(limit for limit in limits if limit.vehicle_id is None)

    def _unchecked(self) -> tuple[Unchecked, ...]:
        return tuple(unchecked for unchecked in every_limit(self.session.studied).unchecked if unchecked.vehicle_id is None)

    def _bars(self, width: float, height: float) -> tuple[Primitive, ...]:
        mine, none = self._mine(), self._unchecked()
        words = self.words
        return balance_bars.limit_bars(self.session.studied, mine, none, words, width, height) if mine or none else ()

    def _counted(self) -> list[str]:
        """How many limits were held against a number at all; blue is computed, green is weighed."""
        held = every_limit(self.session.studied)
        checked, every = len(held.limits), len(held.limits) + len(held.unchecked)
        weighed = sum(limit.face == "measured" for limit in held.limits)
        how = f"{weighed} of them by weighing (green), the rest computed (blue)" if weighed else "computed (blue), none by weighing"
        return [f"{checked} of {every} limits checked, {how}." if checked else f"None of {every} limits could be checked."]

    def _tyre_words(self) -> list[str]:
        use, words = road_checks.tyre_use(self.session.studied), self.words
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
        s, words = self.session.studied, self.words
        if s.build.rig.carrier != "ball" or not s.towing_rows:
            return []
        total = float(max(s.readings.total_kg[row] for row in s.towing_rows))
        has = {"": "none said yet", "none": "it has none"}.get(s.build.rig.brakes, f"it has {s.build.rig.brakes} ones")
        return [
            f"Brakes: {words.kg(total)} at the most, {has}; {words.told(ASKS[s.build.brief.region])}. Ask for the rule where you drive."
        ]


class DrivingPanel(Panel):
    """Eight small drawings of the shown case; in a narrow window two in a row, and they scroll."""

    columns = 0

    def laid(self) -> Group:
        self.cards = {
            title: self.put(Drawing(title, self._drawn(make), title, why, least=(CARD_W, CARD_H)))
            for title, (make, why) in self._kinds().items()
        }
        self.inner = QWidget()
        self.grid = QGridLayout(self.inner)
        self.grid.setContentsMargins(0, 0, 0, 0)
        self.grid.setSpacing(GAP)
        self._lay(3)
        self.swap = QuantityField(Length, "Other wheels", lambda: self.session.shown)
        self.swap.setMaximumWidth(110)
        self.swap.entered.connect(self._swapped)
        self.swap_says = self.put(Says(self._swap_told, share=1))
        return rows(
            Scrolled(self.inner, when=self._towed, share=1),
            across(Says("Wheels of another height", "pencil"), self.swap, self.swap_says, when=self._towed),
            Says(self._told),
            Own(lambda: QWidget(), when=lambda: not self._towed(), share=1),
            gap=4,
        )

    def _towed(self) -> bool:
        return self.session.build.rig.carrier != "vehicle bed"

    def _kinds(self) -> dict[str, tuple[Card, str]]:
        """The cards by their titles, and what each says where it cannot be drawn."""
        return {
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

    def _drawn(self, make: Card) -> Callable[[float, float], Shapes]:
        return lambda w, h: make(self.studied, self.words, w, h)

    def _at_row(self, card: Callable[..., Shapes]) -> Card:
        """A card of one load case: the shown one, or the first on the road."""

        def at_row(s: Studied, words: Words, width: float, height: float) -> Shapes:
            return card(s, worst_row(self.session), words, width, height) if s.towing_rows else ()

        return at_row

    def _lay(self, columns: int) -> None:
        if columns != self.columns:
            self.columns = columns
            for at, card in enumerate(self.cards.values()):
                self.grid.addWidget(card, at // columns, at % columns)

    def _swapped(self, value: Length | None) -> None:
        """Only looked at: nothing of the build changes. The tyre's own height is on Rig."""
        self.swap.show_value(value)
        self.refresh()

    def _swap_told(self) -> str:
        s, words, value = self.studied, self.words, self.swap.value
        now = s.build.rig.tyre.diameter
        if value is None or now is None:
            return "" if now is not None else "Type the height of today's tyres on Rig first."
        made = road_checks.wheel_swap(s, worst_row(self.session), value.si)
        if made is None:
            return "No such wheel: the height of the whole tyre is wanted."
        way = "higher" if made.raised_m >= 0 else "lower"
        told = [
            f"{words.m(now.si)} to {words.m(value.si)}: all of it {words.m(abs(made.raised_m))} {way}, coupler {words.m(made.coupler_m)}"
        ]
        told += [] if made.cg_m is None else [f"weight {words.m(made.cg_m)} up"]
        told += [] if made.over_tyre_m is None else [f"{words.thick(made.over_tyre_m)} left over the tyre"]
        told += [] if made.roll_g is None else [f"a wheel lifts at {made.roll_g:.2f} g"]
        return ", ".join(told) + "."

    def resizeEvent(self, _event: QResizeEvent) -> None:
        self._lay(3 if self.width() >= 3 * CARD_W + 2 * GAP + 4 else 2)

    def _told(self) -> str:
        s = self.studied
        if s.build.rig.carrier == "vehicle bed":
            return "A vehicle's bed has no ball: its limits are on the view before this one."
        if not s.towing_rows:
            return ""
        return f"Drawn for {s.table.cases[worst_row(self.session)].name}. Screening only: stiff tyres, level road, nobody's driving; makers of axle, tyre and car decide."
