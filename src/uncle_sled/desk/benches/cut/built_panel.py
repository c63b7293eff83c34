"""As built: a measure taken on the work goes into the log and the drawing; what is not cut yet follows, what is cut is held against it."""

from __future__ import annotations

from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.cut.miss_words import miss_words
from uncle_sled.core.drawing.cut.piece_map import piece_map
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.errors import SledError
from uncle_sled.core.studies.cut.as_built import Measure, Miss, built_ops, gone, measures_of, misses_of, sawn_ops
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.words import count_of, lower_first
from uncle_sled.desk.benches.cut.bench import CutBench, CutPanel
from uncle_sled.desk.benches.cut.piece_chart import PieceChart
from uncle_sled.desk.kit.fields import QuantityField
from uncle_sled.desk.kit.panel import Group, rows, tools
from uncle_sled.desk.kit.parts import Act, Choice, DrawingOf, Listed, Own, Says, Split
from uncle_sled.desk.kit.table import Column
from uncle_sled.desk.session import Session
from uncle_sled.exchange.clock import today

INKS = {"too short": "primer", "too long": "ochre word", "right": "spruce", "to cut": ""}


class BuiltPanel(CutPanel):
    def __init__(self, session: Session, bench: CutBench) -> None:
        self.what = ""
        super().__init__(session, bench)

    def laid(self) -> Group:
        columns: tuple[Column[Miss], ...] = (
            Column("No", lambda miss: miss.named.label, sort=lambda miss: miss.named.order),
            Column("What", lambda miss: miss.named.piece.name),
            Column("Of", lambda miss: miss.named.piece.of),
            Column("Is needed", lambda miss: self._size(miss), right=True, sort=lambda miss: miss.named.piece.length_m),
            Column(
                "Cut",
                lambda miss: miss.sawn_on,
                ticked=lambda miss: miss.state != "to cut",
                tick=self._saw,
                tip="As large as it is drawn now",
            ),
            Column(
                "Misses by",
                lambda miss: miss_words(miss, self.words),
                ink=lambda miss: INKS[miss.state],
                sort=lambda miss: -miss.worst_m,
                tip="Against what is needed now; what is too long is trimmed",
            ),
        )
        self.field = self.put(Own(self._field, self._show))
        self.table = self.put(
            Listed[Miss](
                "Pieces, cut and to cut",
                columns,
                self._misses,
                lambda miss: miss.named.piece.key,
                lambda miss: self.bench.mark((miss.named.piece.key,)),
            )
        )
        self.map = self.put(
            DrawingOf(
                "The body with what misses", self._map, "Blue: cut already and off", "Nothing is drawn yet that is cut.", kind=PieceChart
            )
        )
        return rows(
            tools(
                Choice("What was measured", self._choices, self._choose, lambda: self.what, "On the work, with a tape", 26),
                self.field,
                Act("Take it down", "Into the log with what was planned; the drawing gets it", self.take_down, self._may, plain=True),
                Act("All shown are cut", "Every piece that is to be cut, as large as it is drawn now", self.all_cut, plain=True),
            ),
            Says(self._told),
            Split((self.map, self.table), (230, 320), share=1),
        )

    def _field(self) -> QuantityField:
        made = QuantityField(Length, "Measured", lambda: self.session.shown)
        made.setMaximumWidth(130)
        made.wrong.connect(lambda says: self.session.said.emit(says, "stop") if says else None)
        made.entered.connect(lambda _: self.refresh())
        return made

    def _show(self, field: QuantityField) -> None:
        measure = self.measure
        field.setEnabled(measure is not None)
        field.setPlaceholderText(f"drawn {self.words.cut(measure.drawn_m)}" if measure is not None else "")

    def _choices(self) -> list[tuple[object, str]]:
        return [(measure.id, measure.name) for measure in measures_of(self.studied)]

    def _choose(self, what: str) -> None:
        self.what = what
        self.field.show_value(None)
        self.refresh()

    def prepared(self) -> None:
        known = [measure.id for measure in measures_of(self.studied)]
        if self.what not in known:
            self.what = known[0] if known else ""

    @property
    def measure(self) -> Measure | None:
        return next((measure for measure in measures_of(self.studied) if measure.id == self.what), None)

    def _may(self) -> bool:
        return self.measure is not None

    def take_down(self) -> None:
        """The measure that was typed goes into the log and the drawing."""
        self.field.commit()
        measure, value = self.measure, self.field.value
        if measure is None or not isinstance(value, Length):
            self.session.said.emit("Type what the tape says first, with its unit.", "note")
            return
        try:
            ops = built_ops(self.studied, measure, value.si, today())
        except SledError as fault:
            self.session.said.emit(str(fault), "stop")
            return
        if self.session.edit(f"Measured: {lower_first(measure.name)}", ops, "Cut"):
            self.field.show_value(None)
            self.session.said.emit(self._told(), "note")
        self.refresh()

    # pieces
    def _misses(self) -> tuple[Miss, ...]:
        return misses_of(self.session.build, self.session.facts)

    def _size(self, miss: Miss) -> str:
        piece = miss.named.piece
        return self.words.cut(piece.length_m) + (f" × {self.words.cut(piece.width_m)}" if piece.kind == "sheet" else "")

    def _saw(self, miss: Miss, on: bool) -> bool:
        key = (miss.named.piece.key,)
        says = f"{miss.named.label} is {'cut' if on else 'not cut yet'}"
        return self.session.edit(says, sawn_ops(self.session.build, self.session.facts, key, on, today()), "Cut")

    def all_cut(self) -> None:
        """Everything that is still to be cut is cut."""
        keys = tuple(miss.named.piece.key for miss in self._misses() if miss.state == "to cut")
        if keys:
            self.session.edit("All pieces are cut", sawn_ops(self.session.build, self.session.facts, keys, sawn=True, day=today()), "Cut")

    def as_if(self, cut: str, what: str, by_m: float) -> None:
        """As it looks when some pieces are cut and one measure came out otherwise: for its picture. Args: cut: part of their keys."""
        session, day = self.session, "2027-05-03"
        keys = tuple(miss.named.piece.key for miss in self._misses() if cut in miss.named.piece.key)
        session.edit("Cut", sawn_ops(session.build, session.facts, keys, sawn=True, day=day), "Cut")
        measure = next(one for one in measures_of(self.studied) if one.id == what)
        session.edit("Measured", built_ops(self.studied, measure, measure.drawn_m + by_m, day), "Cut")

    def _told(self) -> str:
        misses = self._misses()
        if not misses:
            return "Nothing to cut yet: choose a school of framing or the layers of faces on Shell."
        short = [miss for miss in misses if miss.state == "too short"]
        long = [miss for miss in misses if miss.state == "too long"]
        open_ = sum(miss.state == "to cut" for miss in misses)
        told = [f"{count_of(open_, 'piece')} still to cut, as the drawing is now"]
        if short:
            told.append(f"{len(short)} cut already and too short, the worst {short[0].named.label} by {self.words.cut(short[0].worst_m)}")
        if long:
            told.append(f"{len(long)} to trim")
        lost = gone(self.session.build, self.session.facts)
        if lost:
            told.append(f"{len(lost)} cut and no longer drawn")
        return "; ".join(told) + "."

    def _map(self, width: float, height: float) -> tuple[Primitive, ...]:
        numbers = numbers_of(self.session.build, self.session.facts)
        off = {miss.named.piece.key for miss in self._misses() if miss.state in ("too short", "too long")}
        return piece_map(self.studied.framed, numbers, off | {*self.bench.marked}, width, height - 16) if numbers.named else ()

    def marked(self) -> None:
        self.map.renew()
        self.table.mark_only(next((k for k, miss in enumerate(self.table.rows) if miss.named.piece.key in self.bench.marked), -1))
