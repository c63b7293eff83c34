"""What rests of a sheet, painted once: only where shapes came, went or changed is it painted again.

A sheet says what rests as leaves: shapes in the order they lie. Two pictures are held against each other shape by shape
(the same objects first, equal ones then), and what differs is painted anew inside its own rectangles.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from functools import partial
from operator import is_
from typing import cast

import msgspec
import numpy as np
from numpy.typing import NDArray
from PySide6.QtCore import QRect, QRectF, QSize
from PySide6.QtGui import QPainter, QPixmap, QRegion

from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text
from uncle_sled.desk.kit.painting import Frame, Written, canvas, paint

ALIGN_PX = 4  # rectangles begin and end where pixels do at 125, 150 and 175 % as well
MOST_SHARE = 0.6  # of the sheet that is painted in part; more is painted whole
MOST_RECTS = 60
ANYWHERE = (-math.inf, -math.inf, math.inf, math.inf)
Boxes = NDArray[np.float64]
MARGIN_PX = 12  # wider than half of any line with its mitre


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
    left, low, right, high = shape.box
    more = 2 * shape.width + 3  # a mitred corner reaches out
    return QRectF(frame.point((left, high)), frame.point((right, low))).adjusted(-more, -more, more, more)


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
    head = _alike(old, new)
    return head, _alike(old[head:][::-1], new[head:][::-1])


class Layer:
    """The picture of what rests, and the leaves that it was painted from."""

    def __init__(self) -> None:
        self.picture: QPixmap | None = None
        self.written: list[Written] = []
        self._key: object = None
        self._leaves: tuple[Leaf, ...] = ()
        self._boxes: dict[int, tuple[tuple[Primitive, ...], Boxes]] = {}  # by leaf
        self.whole_paints = 0  # how often it was painted whole, for tests and measuring

    def drop(self) -> None:
        self.picture = None

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
        """The picture of the leaves.

        Args:
            key: Whatever else it depends on (theme, people shown); another key is another picture.
            room: Where leaves are painted [px].
            ground: Paints the paper under them; also in part, inside a clip.
            edge: Paints what frames them (the ruler), which no leaf touches.
        """
        key = (key, size.width(), size.height(), ratio)
        dirty = self._dirty(leaves, room) if self.picture is not None and key == self._key else None
        if dirty is not None and dirty.isEmpty():
            self._leaves = leaves
            assert self.picture is not None
            return self.picture
        if dirty is None or self.picture is None:
            self.whole_paints += 1
            self.picture = QPixmap(round(size.width() * ratio), round(size.height() * ratio))
            self.picture.setDevicePixelRatio(ratio)
            self.written = []
            dirty = None
        fresh: list[Written] = []
        with canvas(self.picture) as painter:
            try:
                if dirty is not None:
                    painter.setClipRegion(dirty)
                ground(painter)
                if dirty is None:
                    painter.setClipRect(room)
                else:
                    painter.setClipRegion(dirty)
                for at, leaf in enumerate(leaves):
                    _paint_leaf(painter, leaf, dirty, fresh, partial(self._boxes_of, at, leaf.shapes))
                if dirty is None:
                    painter.setClipping(False)
                    edge(painter, fresh)
            except Exception:
                self._key = None  # what is half painted is painted whole the next time
                raise
        again = {(written.text, written.rect.center().toTuple()) for written in fresh}
        if dirty is not None:
            kept = (w for w in self.written if not dirty.intersects(w.rect.toAlignedRect()))
            fresh += [w for w in kept if (w.text, w.rect.center().toTuple()) not in again]
        self.written = fresh
        self._key, self._leaves = key, leaves
        return self.picture

    def _boxes_of(self, at: int, shapes: tuple[Primitive, ...]) -> Boxes:
        """The boxes of a leaf's shapes: those of the last ones where the same shapes lie at its beginning and end."""
        before, boxes = self._boxes.get(at, ((), np.empty((0, 4))))
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
    """Left, low, right and high of shapes [m], shape (n, 4); words and circles, whose size is in pixels, are anywhere."""
    return np.array([shape.box if isinstance(shape, Poly) else ANYWHERE for shape in shapes], dtype=float).reshape(-1, 4)


def _near(leaf: Leaf, boxes: Boxes, dirty: QRegion) -> list[Primitive]:
    """Shapes that may reach into a region, by their metres alone: thousands are passed over in a frame."""
    found = np.zeros(len(boxes), dtype=bool)
    for rect in cast(Iterable[QRect], dirty):
        around = QRectF(rect).adjusted(-MARGIN_PX, -MARGIN_PX, MARGIN_PX, MARGIN_PX)
        (left, high), (right, low) = leaf.frame.metres(around.topLeft()), leaf.frame.metres(around.bottomRight())
        found |= (boxes[:, 0] <= right) & (boxes[:, 2] >= left) & (boxes[:, 1] <= high) & (boxes[:, 3] >= low)
    return [leaf.shapes[at] for at in np.flatnonzero(found).tolist()]


def _paint_leaf(painter: QPainter, leaf: Leaf, dirty: QRegion | None, written: list[Written], boxes: Callable[[], Boxes]) -> None:
    if leaf.by_hand is not None:
        leaf.by_hand(painter)
        return
    shapes = leaf.shapes
    if dirty is not None:
        shapes = tuple([shape for shape in _near(leaf, boxes(), dirty) if dirty.intersects(box_px(shape, leaf.frame).toAlignedRect())])
    paint(painter, shapes, leaf.frame, written if leaf.told else None, leaf.ground)
