"""A drawing whose measures can be typed into: a click on a tag opens its field there."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.rig.car_side import NOSE_M, car_side, car_stations
from uncle_sled.core.drawing.rig.measure_lines import ROW_PX, Measure, Tag, car_measures, measure_shapes, rig_measures, rows_of, tags_of
from uncle_sled.core.parts.heights import ball_height_m
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.words import Words, upper_first
from uncle_sled.desk.kit.fields import QuantityField
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.layer import Leaf
from uncle_sled.desk.sheet.sheet_view import SheetView

FIELD_PX = (112, 26)


class MeasuredSheet(SheetView):
    """``shows`` is what is measured: the rig, or the first car of the brief standing before it."""

    def __init__(self, session: Session, shows: str, axle: bool = False) -> None:
        self.shows = shows
        super().__init__(session, plan=False, axle=axle)
        self.field: MeasureField | None = None

    # what is measured
    def measures(self) -> tuple[Measure, ...]:
        if self.shows == "rig":
            return rig_measures(self.session.build)
        cars = vehicles_of(self.session.build.brief, self.session.facts)
        return car_measures(cars[0]) if cars and self.session.build.rig.carrier == "ball" else ()

    def tags(self) -> tuple[Tag, ...]:
        return tags_of(self.measures(), Words(self.session.shown), self.scale)

    def _car(self) -> tuple[Primitive, ...]:
        if self.shows != "car" or not self.measures():
            return ()
        car = vehicles_of(self.session.build.brief, self.session.facts)[0]
        return car_side(car, ball_height_m(self.session.build))

    # drawing
    @property
    def below_px(self) -> float:  # type: ignore[override]
        return rows_of(self.measures()) * ROW_PX

    def left_m(self) -> float:
        if self.shows == "car" and self.measures():
            car = vehicles_of(self.session.build.brief, self.session.facts)[0]
            return max(car_stations(car)[0] - NOSE_M - 0.3, -12.0)
        return min(super().left_m(), -1.1)

    def _extra_reach(self) -> list[float]:
        more = [measure.b[0] + 1.1 for measure in self.measures() if not measure.row and measure.a != measure.b and measure.b[0] > 0]
        return [*super()._extra_reach(), *more]

    def leaves(self) -> Iterator[Leaf]:
        frame = self.frame("side")
        yield from super().leaves()
        yield Leaf(self._car(), frame)
        yield Leaf(measure_shapes(self.tags(), self.scale), frame)

    def _ball_to_axle(self) -> tuple[Primitive, ...]:
        return () if self.measures() else super()._ball_to_axle()

    def _shown(self) -> object:
        return self.session.shown, self.measures()

    # typing
    def tag_at(self, at: QPointF) -> Tag | None:
        return next((tag for tag in self.tags() if self.tag_box(tag).contains(at)), None)

    def tag_box(self, tag: Tag) -> QRectF:
        frame, (x, y), (wide, high) = self.frame("side"), tag.at, tag.size
        return QRectF(frame.point((x - wide / 2, y + high / 2)), frame.point((x + wide / 2, y - high / 2)))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        tag = self.tag_at(event.position())
        if tag is not None and event.button() == Qt.MouseButton.LeftButton:
            self.type_into(tag)
            return
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        super().mouseMoveEvent(event)
        if self.gesture is None and self.tag_at(event.position()) is not None:
            self.setCursor(Qt.CursorShape.IBeamCursor)

    def type_into(self, tag: Tag) -> None:
        """The tag's field, over it, with what stands there selected."""
        self.close_field()
        self.field = field = MeasureField(self, tag.measure)
        box = self.tag_box(tag).center()
        wide, high = FIELD_PX
        left = min(max(box.x() - wide / 2, 4.0), self.width() - wide - 4.0)
        top = min(max(box.y() - high / 2, 4.0), self.height() - high - 4.0)
        field.setGeometry(round(left), round(top), wide, high)
        field.show()
        field.setFocus(Qt.FocusReason.OtherFocusReason)
        field.selectAll()

    def close_field(self) -> None:
        field, self.field = self.field, None
        if field is not None:
            field.hide()
            field.deleteLater()

    def take(self, measure: Measure, value: Quantity | None) -> None:
        says = "nothing" if value is None else value.text(self.session.shown)
        told = None if value is None else msgspec.to_builtins(value)
        self.session.edit(
            f"{upper_first(measure.name)}: {says}",
            [set_to(measure.path, told)],
            "Brief" if measure.of_project else "Rig",
            whole_project=measure.of_project,
        )

    def next_tag(self, measure: Measure, step: int) -> None:
        """Tab goes on to the next measure and opens it."""
        tags = self.tags()
        at = next((k for k, tag in enumerate(tags) if tag.measure.path == measure.path), -1)
        if 0 <= at + step < len(tags):
            self.type_into(tags[at + step])
        else:
            self.close_field()
            self.setFocus()


class MeasureField(QuantityField):
    """Closes when it is left; Enter takes, Esc leaves as it was, Tab goes to the next measure."""

    def __init__(self, sheet: MeasuredSheet, measure: Measure) -> None:
        empty = not measure.path.startswith("rig.axles.")
        least = None if measure.path.endswith("bed_front") else 0.0
        super().__init__(measure.kind, upper_first(measure.name), lambda: sheet.session.shown, empty, least)
        self.setParent(sheet)
        self.sheet, self.measure = sheet, measure
        self.show_value(measure.value)
        self.entered.connect(lambda value: sheet.take(measure, value))
        self.wrong.connect(self._tell)

    def _tell(self, says: str) -> None:
        if says:
            self.sheet.session.said.emit(says, "stop")

    def focusNextPrevChild(self, forward: bool) -> bool:
        self.commit()
        if self.property("wrong") != "true":
            self.sheet.next_tag(self.measure, 1 if forward else -1)
        return True

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self._restore()
            self.sheet.close_field()
            self.sheet.setFocus()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.commit()
            if self.property("wrong") != "true":
                self.sheet.close_field()
                self.sheet.setFocus()
        else:
            super().keyPressEvent(event)

    def focusOutEvent(self, event: object) -> None:
        super().focusOutEvent(event)  # type: ignore[arg-type]
        if self.sheet.field is self and self.property("wrong") != "true":
            self.sheet.close_field()
