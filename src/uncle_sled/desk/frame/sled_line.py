"""The Sled line: the trailer as a beam under the drawing, its plumb-bobs, and the reading that never leaves."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import lru_cache

from PySide6.QtCore import QLineF, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPainterPath, QPaintEvent, QPen, QPixmap, QPolygonF
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from uncle_sled.core.document.placing import place_ops, spot_of
from uncle_sled.core.drawing.primitives import HATCH_OF_GROUP, Hatch, hatch_lines
from uncle_sled.core.drawing.rig.bobs import Bob, Hung, Singles, bobs, hang, single_bobs
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.engine import Same
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.units import distance, weight
from uncle_sled.core.words import lower_first
from uncle_sled.desk.frame.sled_reading import Reading, reading, reading_on
from uncle_sled.desk.hand import Hand
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Written, canvas, said_if_it_fails, write
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour, theme_name

FULL_PX, STRIP_PX = 150, 44
GAUGE_X, GAUGE_W = 16, 176
BEAM_Y = 30
SIDE_PX = 300
INK_OF_STATE = {"good": "sled good", "mind": "sled mind", "stop": "sled bad", "none": "sled pencil"}


@lru_cache(maxsize=256)
def _bob_path(r: float) -> QPainterPath:
    """A plumb-bob of a radius [px] about its own middle."""
    path = QPainterPath(QPointF(0, r * 1.3))
    path.cubicTo(QPointF(-r * 0.5, r * 0.8), QPointF(-r, r * 0.3), QPointF(-r, -r * 0.15))
    path.cubicTo(QPointF(-r, -r * 0.8), QPointF(-r * 0.5, -r), QPointF(0, -r))
    path.cubicTo(QPointF(r * 0.5, -r), QPointF(r, -r * 0.8), QPointF(r, -r * 0.15))
    path.cubicTo(QPointF(r, r * 0.3), QPointF(r * 0.5, r * 0.8), QPointF(0, r * 1.3))
    return path


@lru_cache(maxsize=256)
def _bob_hatch(hatch: Hatch, r: float) -> list[QLineF]:
    return [QLineF(*a, *b) for a, b in hatch_lines(hatch, -r, -r, r, r * 1.3, 5.0)]


def _draw_bob(painter: QPainter, tip: QPointF, group: str, r: float, here: bool) -> None:
    """A plumb-bob about its own middle: filled by kind and hatched, its edge strong where it is chosen."""
    painter.translate(tip)
    path = _bob_path(r)
    painter.setPen(QPen(colour("sled ink"), 2.2) if here else QPen(colour("sled"), 1))
    painter.setBrush(colour(group))
    painter.drawPath(path)
    if r >= 7:
        painter.save()
        painter.setClipPath(path, Qt.ClipOperation.IntersectClip)
        painter.setPen(QPen(colour("sled"), 0.9))
        painter.drawLines(_bob_hatch(HATCH_OF_GROUP.get(group, ""), r))
        painter.restore()
    painter.translate(-tip)


@lru_cache(maxsize=256)
def _bob_picture(group: str, r: float, here: bool, ratio: float, _theme: str) -> QPixmap:
    picture = QPixmap(math.ceil((2 * r + 6) * ratio), math.ceil((2.3 * r + 6) * ratio))
    picture.setDevicePixelRatio(ratio)
    picture.fill(Qt.GlobalColor.transparent)
    with canvas(picture) as painter:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        _draw_bob(painter, QPointF(r + 3, r + 3), group, r, here)
        return picture


class SledLine(Guarded, QWidget):
    """Along the bottom of every stop: in full under an elevation, else a strip."""

    picked = Signal(tuple)
    first_read = Signal()  # the first reading was painted
    _was_read = False

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.axis: tuple[float, float] | None = None  # pixel of station 0, pixels a metre
        self.strip = False
        self.hung: tuple[Hung, ...] = ()
        self.written: list[Written] = []
        self._case_spots: list[tuple[QRectF, str]] = []
        self._drag: tuple[Bob, float, Hand] | None = None
        self._most = 14
        self._hung_of: tuple[object, ...] = ()  # what the bobs were hung for
        self.setFixedHeight(FULL_PX)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)  # it fills all of itself
        self.setMouseTracking(True)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName("Sled line")
        for signal in (session.changed, session.selected, session.case_changed, session.day_changed):
            signal.connect(self._refresh)

    def _refresh(self) -> None:
        studied = self.session.ghost_studied or self.session.studied
        if studied.table.cases and not self.session.dragging:
            said = reading(studied, min(self.session.row, len(studied.table.cases) - 1))
            self.setAccessibleDescription(f"{said.title} {said.big}, {said.beside[0]}, {said.lean_words}")
        grown = not self.strip or self.session.ghost is not None
        high = FULL_PX if grown else STRIP_PX
        if self.height() != high:
            self.setFixedHeight(high)
        self.update()

    def set_axis(self, axis: tuple[float, float] | None) -> None:
        """Stand under a drawing: pixel of its station 0 in this widget, and its pixels a metre."""
        self.axis = axis
        self.update()

    def set_strip(self, strip: bool) -> None:
        self.strip = strip
        self._refresh()

    def _axis(self) -> tuple[float, float]:
        if self.axis is not None:
            return self.axis
        left, right = self._beam_room()
        start = 0.95 if self.session.build.rig.carrier == "vehicle bed" else 0.1
        scale = (right - left - 40) / max(length_m(self.session.build) + start + 0.2, 1.0)
        return left + 12 + start * scale, scale

    def _beam_room(self) -> tuple[float, float]:
        return GAUGE_X + GAUGE_W + 10, self.width() - SIDE_PX - 8

    # paint
    @said_if_it_fails
    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.fillRect(self.rect(), colour("sled"))
            self.written = []
            self._case_spots = []
            s = self.session.ghost_studied or self.session.studied
            if not s.table.cases:
                self._text(painter, 16, 22, "No load case yet", 15, "sled pencil")
                return
            row = min(self.session.row, len(s.table.cases) - 1)
            said = reading(s, row)
            was = reading(self.session.studied, self.session.row) if self.session.ghost is not None else None
            if self.height() < FULL_PX:
                if self.session.day is None or not self._paint_day(painter, s):
                    self._paint_strip(painter, s, said)
                return
            self._paint_gauge(painter, s, said, was)
            self._paint_beam(painter, s, row)
            self._paint_sides(painter, s, said, row)
            if not self._was_read:
                self._was_read = True
                self.first_read.emit()

    def _text(
        self, painter: QPainter, x: float, y: float, text: str, size: float, ink: str, face: str = "text", anchor: str = "left"
    ) -> QRectF:
        return write(painter, QPointF(x, y), text, size, ink, face, anchor, self.written, "sled")

    def _paint_strip(self, painter: QPainter, _s: Studied, said: Reading) -> None:
        x = self._text(painter, 16, 22, said.title, 13, "sled pencil").right() + 10
        x = (
            self._text(
                painter, x, 22, said.big, 22, INK_OF_STATE[said.state] if said.state in ("mind", "stop") else "sled ink", "head"
            ).right()
            + 12
        )
        x = self._text(painter, x, 22, said.beside[0], 13, "sled pencil").right() + 16
        if said.kg is not None:
            self._bar(painter, said, QRectF(x, 17, 150, 10), numbers=False)
            x += 168
        outs = [n for n in said.needles if n.out]
        names = ", ".join(f"{lower_first(n.name)} {n.words}" for n in outs[:3])
        worst = (
            f"Out of the band: {names}"
            if outs and said.band
            else f"Over: {names}"
            if outs
            else "every case in the band"
            if said.needles and said.band
            else ""
        )
        x = self._text(painter, x, 22, elided(worst, 13, max(self.width() - x - 230, 40)), 13, "sled bad" if outs else "sled good").right()
        self._text(painter, self.width() - 16, 22, said.lean_words, 13, "sled ink", anchor="right")

    def _paint_day(self, painter: QPainter, s: Studied) -> bool:
        """The reading of the half-built thing on a day, over the days of the work; whether there is one."""
        from uncle_sled.core.drawing.build.day_strip import ROWS, last_day, marked
        from uncle_sled.core.drawing.build.plan_chart import day_of
        from uncle_sled.core.studies.build.standing import on_day

        day, schedule = self.session.day or 0.0, self.session.schedule()
        one = on_day(s, schedule, day)
        if one is None:
            return False
        said = reading_on(s, one, f"On {day_of(schedule.begin, day)}")
        x = self._text(painter, 16, 19, said.title, 13, "sled chalk").right() + 10
        ink = "sled mind" if said.state == "mind" else "sled ink"
        x = self._text(painter, x, 19, said.big, 22, ink, "head").right() + 12
        x = self._text(painter, x, 19, said.beside[0], 13, "sled pencil").right() + 16
        if said.kg is not None:
            self._bar(painter, said, QRectF(x, 14, 150, 10), numbers=False)
            x += 168
        marks = [lower_first(name) for mark, name, _ in ROWS if marked(one, mark)]
        told = ", ".join(marks) if marks else "as it stands it may be towed"
        self._text(painter, x, 19, elided(told, 13, max(self.width() - x - 16, 40)), 13, "sled mind" if marks else "sled good")
        track = self.day_track()
        painter.fillRect(track, colour("sled track"))
        at = track.left() + track.width() * min(day / max(last_day(schedule), 1e-6), 1.0)
        painter.fillRect(QRectF(track.left(), track.top(), at - track.left(), track.height()), colour("sled wood"))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour("sled ink"))
        painter.drawEllipse(QPointF(at, track.center().y()), 5, 5)
        return True

    def day_track(self) -> QRectF:
        """Where the days of the work lie along the strip."""
        return QRectF(16, STRIP_PX - 9, max(self.width() - 32, 10), 4)

    def _to_day(self, x: float) -> None:
        from uncle_sled.core.drawing.build.day_strip import last_day

        track, last = self.day_track(), last_day(self.session.schedule())
        share = min(max((x - track.left()) / track.width(), 0.0), 1.0)
        self.session.show_day(None if share >= 1.0 else share * last)

    def _paint_gauge(self, painter: QPainter, _s: Studied, said: Reading, was: Reading | None) -> None:
        title = f"Tried: {lower_first(said.title)}" if was is not None else said.title
        self._text(painter, GAUGE_X, 16, title, 13, "sled chalk" if was is not None else "sled pencil")
        big = self._text(painter, GAUGE_X, 43, said.big, 28, INK_OF_STATE[said.state] if said.state != "good" else "sled ink", "head")
        room = GAUGE_X + GAUGE_W + 4 - big.right() - 10
        self._text(painter, big.right() + 10, 36, elided(said.beside[0], 12, room), 12, "sled pencil")
        second = f"was {was.big}" if was is not None else said.beside[1]
        self._text(painter, big.right() + 10, 52, elided(second, 12, room), 12, "sled chalk" if was is not None else "sled pencil")
        if said.kg is None:
            return
        self._bar(painter, said, QRectF(GAUGE_X, 84, GAUGE_W, 14), numbers=True)
        if said.last:
            self._text(painter, GAUGE_X, 138, elided(said.last, 12, GAUGE_W), 12, "sled pencil")

    def _bar(self, painter: QPainter, said: Reading, bar: QRectF, numbers: bool) -> None:
        low = min(0.0, *(n.kg for n in said.needles), said.kg or 0.0) if said.needles else min(0.0, said.kg or 0.0)
        span = max(said.most_kg - low, 1e-6)

        def at(kg: float) -> float:
            return bar.left() + bar.width() * min(max((kg - low) / span, 0.0), 1.0)

        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour("sled track"))
        painter.drawRoundedRect(bar, 3, 3)
        if said.band:
            painter.fillRect(
                QRectF(QPointF(at(said.band[0]), bar.top()), QPointF(at(said.band[1]), bar.bottom())),
                colour("sled good", 0.62, "sled track"),
            )
        if said.sigma_kg > 0 and said.kg is not None:
            for spread, alpha in ((2.0, 0.25), (1.0, 0.45)):
                soft = colour("sled mind")
                soft = type(soft)(soft)
                soft.setAlphaF(alpha)
                painter.fillRect(
                    QRectF(
                        QPointF(at(said.kg - spread * said.sigma_kg), bar.center().y() - 2.5),
                        QPointF(at(said.kg + spread * said.sigma_kg), bar.center().y() + 2.5),
                    ),
                    soft,
                )
        for needle in said.needles:
            painter.setPen(QPen(colour("sled bad" if needle.out else "sled ink"), 2.0 if needle.out else 1.2))
            painter.drawLine(
                QPointF(at(needle.kg), bar.top() - (4 if needle.out else 1)),
                QPointF(at(needle.kg), bar.bottom() + (4 if needle.out else 1)),
            )
        if said.limit_kg is not None and said.limit_kg <= said.most_kg:
            painter.setPen(QPen(colour("sled bad"), 2.4))
            painter.drawLine(QPointF(at(said.limit_kg), bar.top() - 5), QPointF(at(said.limit_kg), bar.bottom() + 5))
        if said.kg is not None:
            x = at(said.kg)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(colour("sled ink"))
            painter.drawPolygon(QPolygonF([QPointF(x - 6, bar.top() - 10), QPointF(x + 6, bar.top() - 10), QPointF(x, bar.top() + 1)]))
        if numbers:
            self._bar_numbers(painter, said, bar, at)

    def _bar_numbers(self, painter: QPainter, said: Reading, bar: QRectF, at: Callable[[float], float]) -> None:
        shown = self.session.shown
        taken: list[tuple[float, float]] = []

        def put(kg: float, text: str, ink: str, y: float, taken: list[tuple[float, float]]) -> None:
            half = text_width(text, 12) / 2 + 3
            x = min(max(at(kg), bar.left() + half - 3), bar.right() - half + 3)
            if not any(x - half < b and x + half > a for a, b in taken):
                taken.append((x - half, x + half))
                self._text(painter, x, y, text, 12, ink, anchor="middle")

        if said.band:
            put(said.band[0], weight(said.band[0], shown).split(" ")[0], "sled good", bar.bottom() + 13, taken)
            put(said.band[1], weight(said.band[1], shown).split(" ")[0], "sled good", bar.bottom() + 13, taken)
        if said.limit_kg is not None and said.limit_kg <= said.most_kg:
            put(said.limit_kg, f"limit {weight(said.limit_kg, shown).split(' ')[0]}", "sled bad", bar.bottom() + 13, taken)
        below: list[tuple[float, float]] = []
        for needle in sorted((n for n in said.needles if n.out), key=lambda n: n.kg):
            put(needle.kg, f"{lower_first(needle.name)} {needle.words}", "sled bad", bar.bottom() + 30, below)

    def _paint_beam(self, painter: QPainter, s: Studied, row: int) -> None:
        x0, scale = self._axis()
        left, right = self._beam_room()
        painter.setClipRect(QRectF(left - 12, 0, right - left + 24, self.height()))
        bed = s.build.rig.carrier == "vehicle bed"
        end = min(x0 + length_m(s.build) * scale, right)
        start = max(x0 - (0.9 * scale if bed else 0), left)
        painter.fillRect(QRectF(start, BEAM_Y - 2, max(end - start, 0), 4), colour("sled wood"))
        for beyond, x, way in ((x0 < left, left, -1), (x0 + length_m(s.build) * scale > right + 1, right, 1)):
            if beyond:  # panned out of sight
                painter.setPen(QPen(colour("sled wood"), 2))
                for step in (0, 5):
                    painter.drawLine(QPointF(x + way * step, BEAM_Y - 6), QPointF(x + way * (step + 5), BEAM_Y + 6))
        if not bed and left <= x0 <= right:
            hook = QPainterPath(QPointF(x0 + 3, BEAM_Y - 8))
            hook.arcTo(QRectF(x0 - 9, BEAM_Y - 9, 18, 18), 60, 240)
            painter.setPen(QPen(colour("sled ink"), 3))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawPath(hook)
        self._paint_bobs(painter, s, row, x0, scale, left, right)
        titles: list[tuple[float, str, str]] = []
        if s.support is not None:
            for number, station in enumerate(s.support.axles_m):
                x = x0 + station * scale
                painter.setPen(QPen(colour("sled"), 2))
                painter.setBrush(colour("sled ink"))
                painter.drawEllipse(QPointF(x, BEAM_Y + 8), 8, 8)
                painter.setBrush(colour("sled"))
                painter.drawEllipse(QPointF(x, BEAM_Y + 8), 2.6, 2.6)
                if s.readings.axle_kg.shape[1] > number:
                    titles.append((x, f"axle {weight(float(s.readings.axle_kg[row, number]), self.session.shown)}", "sled ink"))
        cg = float(s.readings.cg_m[row, 0])
        if cg == cg:
            x = x0 + cg * scale
            painter.setPen(QPen(colour("sled"), 1.5))
            for quarter in range(4):
                painter.setBrush(colour("sled ink" if quarter % 2 else "sled"))
                painter.drawPie(QRectF(x - 8, BEAM_Y - 8, 16, 16), quarter * 90 * 16, 90 * 16)
            painter.setPen(QPen(colour("sled ink"), 1.5))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawEllipse(QPointF(x, BEAM_Y), 8, 8)
            titles.append((x, f"balance point {distance(cg, self.session.shown)}", "sled pencil"))
        self._titles(painter, titles, left, right)
        painter.setClipping(False)

    def _titles(self, painter: QPainter, titles: list[tuple[float, str, str]], left: float, right: float) -> None:
        """Words over the beam, side by side; where they have no room the balance point's go first, which is drawn all the same."""
        titles = sorted(t for t in titles if left <= t[0] <= right)
        gap = 12.0
        while len(titles) > 1 and sum(text_width(text, 12) + gap for _, text, _ in titles) - gap > right - left:
            titles.remove(max(titles, key=lambda one: (one[2] == "sled pencil", one[0])))
        widths = [text_width(text, 12) for _, text, _ in titles]
        spots = [x - w / 2 for (x, _, _), w in zip(titles, widths, strict=True)]
        for _ in range(40):
            moved = False
            for at in range(len(spots) - 1):
                lap = spots[at] + widths[at] + gap - spots[at + 1]
                if lap > 0.5:
                    spots[at] -= lap / 2
                    spots[at + 1] += lap / 2
                    moved = True
            if not moved:
                break
        for at in range(len(spots)):  # none past the beam's ends
            spots[at] = max(spots[at], left if at == 0 else spots[at - 1] + widths[at - 1] + gap)
        for at in reversed(range(len(spots))):
            spots[at] = min(spots[at], (right if at == len(spots) - 1 else spots[at + 1] - gap) - widths[at])
        for (_, text, ink), spot in zip(titles, spots, strict=True):
            self._text(painter, spot, 10, text, 12, ink)

    def _paint_bobs(self, painter: QPainter, s: Studied, row: int, x0: float, scale: float, left: float, right: float) -> None:
        singles = single_bobs(s, row)
        key = (Same(singles), x0, scale, left, right, self.height(), self.session.dragging, self.session.shown)
        if key != self._hung_of:
            self._hung_of = key
            self.hung = self._hang(singles, x0, scale, left, right)
        chosen = set(self.session.selection)
        held = [not chosen.isdisjoint(hung.bob.ids) for hung in self.hung]
        for hung, here in zip(self.hung, held, strict=True):
            painter.setPen(QPen(colour("sled ink" if here else "sled pencil"), 1.6 if here else 0.9))
            painter.drawLine(QPointF(hung.x, BEAM_Y + 2), QPointF(hung.x, BEAM_Y + hung.drop - hung.radius))
        for hung, here in zip(self.hung, held, strict=True):
            tip = QPointF(hung.x, BEAM_Y + hung.drop)
            r = hung.radius
            if self.session.dragging:  # in a frame of a drag a picture of the bob serves, at whole pixels
                picture = _bob_picture(hung.bob.group, r, here, self.devicePixelRatioF(), theme_name())
                painter.drawPixmap(tip - QPointF(r + 3, r + 3), picture)
            else:
                _draw_bob(painter, tip, hung.bob.group, r, here)
            if hung.label:
                x = hung.x + hung.side * (r + 5)
                wide = text_width(hung.label, 12, "strong" if here else "text")
                painter.fillRect(QRectF(x - (0 if hung.side > 0 else wide) - 1, tip.y() - 7, wide + 2, 14), colour("sled"))
                self._text(
                    painter, x, tip.y(), hung.label, 12, "sled ink", "strong" if here else "text", "left" if hung.side > 0 else "right"
                )

    def _hang(self, singles: Singles, x0: float, scale: float, left: float, right: float) -> tuple[Hung, ...]:
        """Where the bobs hang. Where they crowd, the lightest are merged; a drag keeps to what it began with."""
        best: tuple[Hung, ...] = ()
        crowded = len(singles)
        for most in (self._most,) if self.session.dragging else (14, 12, 10, 8):
            made = bobs(singles, most)
            self._most = most
            words = {bob: f"{bob.name} {weight(bob.mass_kg, self.session.shown).split(' ')[0]}" for bob in made}
            hung = hang(made, x0, scale, left, right, self.height() - BEAM_Y - 4, words, crowded - 1)
            if hung or not best:
                best, crowded = hung, sum(bob.crowded for bob in hung)
            if not crowded:
                break
        return best

    def _paint_sides(self, painter: QPainter, s: Studied, said: Reading, row: int) -> None:
        x, wide = self.width() - SIDE_PX + 8, SIDE_PX - 24
        self._text(painter, x, 16, "Left and right" if said.lean is not None or said.lean_words else "", 13, "sled pencil")
        tube = QRectF(x, 28, wide, 16)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour("sled track"))
        painter.drawRoundedRect(tube, 8, 8)
        for mark in (-0.05, 0.05):
            at = tube.center().x() + mark / 0.15 * wide / 2
            painter.setPen(QPen(colour("sled pencil"), 1.2))
            painter.drawLine(QPointF(at, tube.top()), QPointF(at, tube.bottom()))
        if said.lean is not None:
            # a bubble goes to the high, light side
            at = tube.center().x() - min(max(said.lean / 0.15, -0.92), 0.92) * wide / 2
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(colour("sled good" if abs(said.lean) <= 0.05 else "sled mind"))
            painter.drawEllipse(QPointF(at, tube.center().y()), 13, 6)
            self._text(painter, x, 58, said.left, 12, "sled ink")
            self._text(painter, x + wide, 58, said.right, 12, "sled ink", anchor="right")
        self._text(painter, tube.center().x(), 58, said.lean_words, 12, "sled pencil", anchor="middle")
        column, y = 0, 80.0
        outs = {n.case_id: n for n in said.needles}
        for at, case in enumerate(s.table.cases):
            if y > self.height() - 8:
                break
            needle = outs.get(case.id)
            number = (
                needle.words
                if needle
                else weight(float(s.at_rest.jack_kg[at]), self.session.shown) + " jack"
                if s.at_rest is not None and not case.mode.towing
                else ""
            )
            text = f"{elided(case.name, 12, wide / 2 - 52)} {number}".strip()
            spot = QRectF(x + column * wide / 2 - 3, y - 8, wide / 2, 17)
            self._case_spots.append((spot, case.id))
            here = at == row
            if needle and needle.out:
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(colour("sled bad"))
                painter.drawRect(QRectF(spot.left() + 3, y - 3, 6, 6))
                self._text(painter, spot.left() + 13, y, text, 12, "sled bad", "strong" if here else "text")
            else:
                self._text(painter, spot.left() + 3, y, text, 12, "sled ink" if here else "sled pencil", "strong" if here else "text")
            if here:
                painter.fillRect(
                    QRectF(spot.left() + 3, y + 8, text_width(text, 12, "strong") + (10 if needle and needle.out else 0), 1.5),
                    colour("sled chalk"),
                )
            column = 1 - column
            if column == 0:
                y += 18.0

    # mouse
    def bob_at(self, at: QPointF) -> Hung | None:
        """The bob under the hand; its hit area is 24 px at least."""
        near = [
            (abs(at.x() - h.x) + abs(at.y() - BEAM_Y - h.drop), h)
            for h in self.hung
            if abs(at.x() - h.x) <= max(12, h.radius) and abs(at.y() - BEAM_Y - h.drop) <= max(12, h.radius * 1.3)
        ]
        return min(near, key=lambda pair: pair[0])[1] if near else None

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self.session.day is not None and self.height() < FULL_PX and event.position().y() > STRIP_PX - 16:
            self._to_day(event.position().x())
            return
        if self.height() < FULL_PX or event.button() != Qt.MouseButton.LeftButton:
            return
        for spot, id in self._case_spots:
            if spot.contains(event.position()):
                self.session.show_case(id)
                return
        hung = self.bob_at(event.position())
        if hung is not None:
            self.session.select(hung.bob.ids)
            self.picked.emit(hung.bob.ids)
            hand = self.session.take_up(f"Move the {lower_first(hung.bob.name)}", hung.bob.ids)
            self._drag = (hung.bob, event.position().x(), hand)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._drag is not None:
            self._move_bob(event.position().x())
            return
        if self.session.day is not None and event.buttons() & Qt.MouseButton.LeftButton and self.height() < FULL_PX:
            self._to_day(event.position().x())
            return
        hung = self.bob_at(event.position()) if self.height() >= FULL_PX else None
        if hung is not None:
            QToolTip.showText(
                event.globalPosition().toPoint(),
                f"{hung.bob.name}, {weight(hung.bob.mass_kg, self.session.shown)} at {distance(hung.bob.x_m, self.session.shown)}",
                self,
            )

    def _move_bob(self, x: float) -> None:
        assert self._drag is not None
        bob, start, hand = self._drag
        _, scale = self._axis()
        dx = round((x - start) / scale, 2)
        if not hand.moved and abs(x - start) < 4:
            return
        build = hand.build
        things = [t for t in build.stow.things if t.id in bob.ids]
        if not things:
            return
        # from where the hand took it up: the mode of the session holds already where it was put since
        mode = next((mode for mode in build.stow.modes if mode.id == self.session.mode.id), self.session.mode)
        ops = []
        for thing in things:
            (sx, sy, sz), _ = spot_of(thing, mode)
            ops += place_ops(build, mode, thing, (sx + dx, sy, sz))
        hand.put(ops)

    def mouseReleaseEvent(self, _event: QMouseEvent) -> None:
        if self._drag is not None:
            self._drag[2].let_go()
            self._drag = None
