"""What rests of a sheet, painted once: only where shapes came, went or changed is it painted again.

A sheet says what rests as leaves: shapes in the order they lie. Two pictures are held against each other shape by shape
(the same objects first, equal ones then), and what differs is painted anew inside its own rectangles.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from operator import is_
from typing import cast

import msgspec
import numpy as np
from numpy.typing import NDArray
from PySide6.QtCore import QRect, QRectF, QSize
from PySide6.QtGui import QPainter, QPixmap, QRegion

from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Raster, Text
from uncle_sled.desk.kit.painting import Frame, Written, canvas, paint

ALIGN_PX = 4  # rectangles begin and end where pixels do at 125, 150 and 175 % as well
MOST_SHARE = 0.6  # of the sheet that is painted in part; more is painted whole
MOST_RECTS = 60
Boxes = NDArray[np.float64]
AT_ONCE = 3_000  # shapes of a picture that is painted in one go
A_TURN = 1_200  # shapes of one with more than that, painted before the hand gets through again
EMPTY: Boxes = np.empty((0, 5))
ANYWHERE = (-math.inf, -math.inf, math.inf, math.inf)


class Leaf(msgspec.Struct, frozen=True):
    """Shapes that lie together. ``by_hand`` paints what no shape says (a picture); it changes only with ``token``."""

    shapes: tuple[Primitive, ...]
    frame: Frame
    ground: str = "paper"
    told: bool = True  # its words are kept for whoever looks over them
    by_hand: Callable[[QPainter], None] | None = None
    token: object = None


def box_px(shape: Primitive, frame: Frame) -> QRectF:
    """All that a shape paints [px], its line's width with it."""
    if isinstance(shape, Text):
        at, wide = frame.point(shape.at), shape.width
        left = at.x() - wide * {"left": 0.0, "middle": 0.5, "right": 1.0}[shape.anchor]
        return QRectF(left - 4, at.y() - shape.size, wide + 8, 2 * shape.size)
    if isinstance(shape, Circle):
        at, r = frame.point(shape.centre), shape.radius * frame.scale + shape.width + 2
        return QRectF(at.x() - r, at.y() - r, 2 * r, 2 * r)
    if isinstance(shape, Raster):
        low, top = shape.at[1], shape.at[1] + shape.high
        return QRectF(frame.point((shape.at[0], top)), frame.point((shape.at[0] + shape.wide, low)))
    left, low, right, high = shape.box
    more = _reach_px(shape)
    return QRectF(frame.point((left, high)), frame.point((right, low))).adjusted(-more, -more, more, more)


def _reach_px(shape: Poly) -> float:
    """How far a line reaches out of what it goes round: a mitred corner does so."""
    return 2 * shape.width + 3


def changed(old: tuple[Primitive, ...], new: tuple[Primitive, ...]) -> list[Primitive] | None:
    """Shapes that are only in one of them; None where those in both lie in another order."""
    head, tail = _alike_at_ends(old, new)
    old, new = old[head : len(old) - tail], new[head : len(new) - tail]  # of thousands that lie as they lay few are left
    was, now = {id(shape) for shape in old}, {id(shape) for shape in new}
    kept_old = [shape for shape in old if id(shape) in now]
    kept_new = [shape for shape in new if id(shape) in was]
    if len(kept_old) != len(kept_new) or any(a is not b for a, b in zip(kept_old, kept_new, strict=True)):
        return None
    gone, come = [shape for shape in old if id(shape) not in now], [shape for shape in new if id(shape) not in was]
    if gone and come:
        equal = set(gone) & set(come)
        gone, come = [s for s in gone if s not in equal], [s for s in come if s not in equal]
    return gone + come


def _alike(old: tuple[Primitive, ...], new: tuple[Primitive, ...]) -> int:
    """How many shapes at the beginning of both are the same objects."""
    same = bytes(map(is_, old, new))
    return len(same) if (first := same.find(0)) < 0 else first


def _alike_at_ends(old: tuple[Primitive, ...], new: tuple[Primitive, ...]) -> tuple[int, int]:
    """How many are the same objects at the beginning, and of the rest at the end."""
    if len(old) == len(new):
        same = bytes(map(is_, old, new))
        first = same.find(0)
        return (len(old), 0) if first < 0 else (first, len(old) - 1 - same.rfind(0))
    head = _alike(old, new)
    return head, _alike(old[head:][::-1], new[head:][::-1])


class _Begun(msgspec.Struct):
    """A picture that is being painted, at once or in turns.

    Args:
        shapes: What of each leaf is painted.
        dirty: Where; None: everywhere.
        shown: What is seen until it is finished.
        at: The leaf that comes next, and the shape of it.
    """

    key: object
    picture: QPixmap
    shown: QPixmap
    leaves: tuple[Leaf, ...]
    shapes: tuple[tuple[Primitive, ...], ...]
    dirty: QRegion | None
    at: tuple[int, int] = (0, 0)
    written: list[Written] = []
    boxes: list[list[Boxes]] = []  # of all shapes, where they are painted in turns

    @property
    def many(self) -> int:
        return sum(map(len, self.shapes))

    @property
    def at_once(self) -> bool:
        return self.many <= (AT_ONCE if self.dirty is None else A_TURN)

    def turn(self, painter: QPainter, left: int) -> bool:
        """Paint as many shapes as are left for this turn; whether it is finished."""
        while left > 0 and self.at[0] < len(self.leaves):
            n, begin = self.at
            leaf, shapes = self.leaves[n], self.shapes[n][begin : begin + left]
            if leaf.by_hand is not None:
                leaf.by_hand(painter)
            else:
                paint(painter, shapes, leaf.frame, self.written if leaf.told else None, leaf.ground)
            if self.dirty is None and not self.at_once:  # the first edit would wait for all of them
                if begin == 0:
                    self.boxes.append([])
                self.boxes[n].append(_boxes(shapes))
            left -= len(shapes) + 1
            end = begin + len(shapes)
            self.at = (n, end) if end < len(self.shapes[n]) else (n + 1, 0)
        return self.at[0] == len(self.leaves)


class Layer:
    """The picture of what rests, and the leaves that it was painted from.

    More shapes than a frame has time for are painted in turns, so that the hand gets through; until then it is unfinished, and
    whoever shows it asks again.
    """

    def __init__(self) -> None:
        self.picture: QPixmap | None = None
        self.written: list[Written] = []
        self._key: object = None
        self._leaves: tuple[Leaf, ...] = ()
        self._boxes: dict[int, tuple[tuple[Primitive, ...], Boxes]] = {}  # by leaf
        self._begun: _Begun | None = None
        self.whole_paints = 0  # how often it was painted whole, for tests and measuring

    def drop(self) -> None:
        self.picture = self._begun = None

    @property
    def unfinished(self) -> bool:
        return self._begun is not None

    def show(
        self,
        key: object,
        size: QSize,
        ratio: float,
        room: QRect,
        leaves: tuple[Leaf, ...],
        ground: Callable[[QPainter], None],
        edge: Callable[[QPainter, list[Written]], None],
    ) -> QPixmap:
        """The picture of the leaves; of very many shapes as far as it is.

        Args:
            key: Whatever else it depends on (theme, people shown); another key is another picture.
            room: Where leaves are painted [px].
            ground: Paints the paper under them; also in part, inside a clip.
            edge: Paints what frames them (the ruler), which no leaf touches.
        """
        key = (key, size.width(), size.height(), ratio)
        if self._begun is not None and self._begun.key != key:
            self._begun = None
        if self._begun is not None and not self._go_on(self._begun, A_TURN, room, ground, edge):
            return self._begun.shown
        dirty = self._dirty(leaves, room) if self.picture is not None and key == self._key else None
        if dirty is not None and dirty.isEmpty():
            self._leaves = leaves
            assert self.picture is not None
            return self.picture
        if dirty is None or self.picture is None:
            self.whole_paints += 1
            picture = QPixmap(round(size.width() * ratio), round(size.height() * ratio))
            picture.setDevicePixelRatio(ratio)
            begun = _Begun(key, picture, picture, leaves, tuple([leaf.shapes for leaf in leaves]), None)
            self.picture, self.written = None, []  # until it is finished
        else:
            near = tuple([tuple(_near(leaf, self._boxes_of(at, leaf.shapes), dirty)) for at, leaf in enumerate(leaves)])
            begun = _Begun(key, self.picture, self.picture, leaves, near, dirty)
            if not begun.at_once:
                begun.picture = self.picture.copy()
        self._begun = begun
        self._go_on(begun, begun.many + len(leaves) if begun.at_once else A_TURN, room, ground, edge)
        return begun.shown

    def _go_on(
        self, begun: _Begun, many: int, room: QRect, ground: Callable[[QPainter], None], edge: Callable[[QPainter, list[Written]], None]
    ) -> bool:
        """Paint so many shapes more; whether the picture is finished with them, and is the one that is shown from now on."""
        try:
            with canvas(begun.picture) as painter:
                inside = QRegion(room) if begun.dirty is None else begun.dirty
                if begun.at == (0, 0):
                    if begun.dirty is not None:
                        painter.setClipRegion(inside)
                    ground(painter)
                painter.setClipRegion(inside)
                painter.setRenderHint(QPainter.RenderHint.Antialiasing)  # which the ground sets for the first turn alone
                if not begun.turn(painter, many):
                    return False
                if begun.dirty is None:
                    painter.setClipping(False)
                    edge(painter, begun.written)
        except Exception:
            self.drop()  # what is half painted is painted whole the next time
            raise
        written = begun.written
        if begun.dirty is not None:
            again = {(each.text, each.rect.center().toTuple()) for each in written}
            kept = [w for w in self.written if not begun.dirty.intersects(w.rect.toAlignedRect())]
            written = [*written, *[w for w in kept if (w.text, w.rect.center().toTuple()) not in again]]
        self._boxes |= {n: (leaf.shapes, np.concatenate(of)) for n, (leaf, of) in enumerate(zip(begun.leaves, begun.boxes, strict=False))}
        begun.shown = begun.picture
        self.picture, self.written, self._leaves, self._key, self._begun = begun.picture, written, begun.leaves, begun.key, None
        return True

    def _boxes_of(self, at: int, shapes: tuple[Primitive, ...]) -> Boxes:
        """The boxes of a leaf's shapes: those of the last ones where the same shapes lie at its beginning and end."""
        before, boxes = self._boxes.get(at, ((), EMPTY))
        if before is not shapes:
            head, tail = _alike_at_ends(before, shapes)
            boxes = np.concatenate([boxes[:head], _boxes(shapes[head : len(shapes) - tail]), boxes[len(before) - tail :]])
            self._boxes[at] = (shapes, boxes)
        return boxes

    def _dirty(self, leaves: tuple[Leaf, ...], room: QRect) -> QRegion | None:
        """Where the picture differs from what it shows; None where it is better painted whole."""
        old = self._leaves
        if len(old) != len(leaves):
            return None
        found: list[tuple[Primitive, Frame]] = []
        for a, b in zip(old, leaves, strict=True):
            if a.frame != b.frame or a.ground != b.ground or a.token != b.token or (a.by_hand is None) != (b.by_hand is None):
                return None
            if a.shapes is b.shapes:
                continue
            shapes = changed(a.shapes, b.shapes)
            if shapes is None:
                return None
            found += [(shape, b.frame) for shape in shapes]
        if len(found) > MOST_RECTS:
            return None
        region = QRegion()
        for shape, frame in found:
            region += _aligned(box_px(shape, frame))
        region &= room.adjusted(0, 0, 0, -1)  # the line of the ruler reaches into the last row
        covered = sum(rect.width() * rect.height() for rect in cast(Iterable[QRect], region))
        return None if covered > MOST_SHARE * room.width() * room.height() else region


def _aligned(box: QRectF) -> QRect:
    left, top = math.floor(box.left() / ALIGN_PX) * ALIGN_PX, math.floor(box.top() / ALIGN_PX) * ALIGN_PX
    right, low = math.ceil(box.right() / ALIGN_PX) * ALIGN_PX, math.ceil(box.bottom() / ALIGN_PX) * ALIGN_PX
    return QRect(left, top, right - left, low - top)


def _boxes(shapes: Iterable[Primitive]) -> Boxes:
    """Left, low, right and high of shapes [m] and how far their lines reach out [px], shape (n, 5).

    Words and circles, whose size is in pixels, are anywhere.
    """
    rows = [(*shape.box, _reach_px(shape)) if isinstance(shape, Poly) else (*ANYWHERE, 0.0) for shape in shapes]
    return np.array(rows, dtype=float).reshape(-1, 5)


def _near(leaf: Leaf, boxes: Boxes, dirty: QRegion) -> list[Primitive]:
    """Shapes that may reach into a region: thousands are passed over in a frame."""
    left, low, right, high, reach = boxes.T
    frame, found = leaf.frame, np.zeros(len(boxes), dtype=bool)
    x0, x1 = frame.x0 + left * frame.scale - reach - 1, frame.x0 + right * frame.scale + reach + 1
    y0, y1 = frame.y0 - high * frame.scale - reach - 1, frame.y0 - low * frame.scale + reach + 1
    for rect in cast(Iterable[QRect], dirty):
        found |= (x0 <= rect.right() + 1) & (x1 >= rect.left()) & (y0 <= rect.bottom() + 1) & (y1 >= rect.top())
    near = [leaf.shapes[at] for at in np.flatnonzero(found).tolist()]
    return [shape for shape in near if isinstance(shape, Poly) or dirty.intersects(box_px(shape, frame).toAlignedRect())]
