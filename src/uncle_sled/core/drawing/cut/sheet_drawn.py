"""One sheet, or one bar, with its pieces to scale: for the bench and for paper alike, in points with y up."""

from __future__ import annotations

import math
from collections.abc import Callable, Container

from uncle_sled.core.drawing.cut.look import look_of_face
from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.studies.cut.handed import OnBars, OnSheet
from uncle_sled.core.studies.cut.layouts import Lies
from uncle_sled.core.studies.cut.numbers import Named
from uncle_sled.core.studies.cut.piece import Piece
from uncle_sled.core.studies.cut.sawing import Offcut, Step
from uncle_sled.core.studies.cut.wanted import Wanted
from uncle_sled.core.words import Words

SMALL = 9.0

At = Callable[[float, float], Point]  # where a place of the sheet lies on the drawing


def ring_of(lying: Lies, piece: Wanted) -> tuple[Point, ...]:
    """The outline of a piece as it lies on its sheet [m]."""
    if lying.ring:
        return lying.ring
    if piece.outline:
        turned = tuple((piece.width_m - y, x) for x, y in piece.outline) if lying.turned else piece.outline
        return tuple((lying.x_m + x, lying.y_m + y) for x, y in turned)
    return box_of(lying)


def box_of(piece: Lies) -> tuple[Point, ...]:
    """Corners of what a piece takes of its sheet, anticlockwise [m]."""
    return tuple((piece.x_m + dx, piece.y_m + dy) for dx, dy in ((0, 0), (piece.w_m, 0), (piece.w_m, piece.h_m), (0, piece.h_m)))


def sheet_drawn(
    on: OnSheet,
    wanted: dict[str, Wanted],
    words: Words,
    scale: float,
    corner: Point,
    marked: Container[str] = (),
    done: tuple[Step, ...] | None = None,
    keep: tuple[Offcut, ...] = (),
) -> list[Primitive]:
    """A sheet with its low left corner there. Args: scale: points per metre; marked: keys in chalk; done: cuts made so far."""
    layout = on.layout
    left, low = corner

    def at(x: float, y: float) -> Point:
        return left + x * scale, low + y * scale

    shapes: list[Primitive] = [rect(left, low, layout.length_m * scale, layout.width_m * scale, stroke="ink", fill="body", width=1.4)]
    for piece in keep:
        corners = tuple(at(piece.x_m + dx, piece.y_m + dy) for dx, dy in ((0, 0), (piece.w_m, 0), (piece.w_m, piece.h_m), (0, piece.h_m)))
        shapes.append(Poly(corners, "spruce", "", 1.0, dash=(2.0, 3.0)))
        text = f"rack {words.cut(piece.w_m)} x {words.cut(piece.h_m)}"
        if text_width(text, SMALL) < piece.w_m * scale - 4 and piece.h_m * scale > 12:
            shapes.append(Text(at(piece.x_m + piece.w_m / 2, piece.y_m + piece.h_m / 2), text, SMALL, "spruce"))
    for lying, named in zip(layout.pieces, on.named, strict=True):
        shapes += _piece(lying, wanted[lying.piece], named, words, at, scale, named.piece.key in marked)
    if done is not None:
        for k, step in enumerate(done):
            shapes.append(_cut_line(step, at, "chalk" if k == len(done) - 1 else "primer", k == len(done) - 1))
    return shapes


def _cut_line(step: Step, at: At, ink: str, last: bool) -> Poly:
    x, y, w, h = step.cut.part
    f = step.cut.fence_m
    a, b = ((x + f, y), (x + f, y + h)) if step.cut.along == "x" else ((x, y + f), (x + w, y + f))
    return line(at(*a), at(*b), ink, 2.6 if last else 1.4, () if last else (5.0, 3.0))


def _piece(lying: Lies, piece: Wanted, named: Named, words: Words, at: At, scale: float, marked: bool) -> list[Primitive]:
    """A piece as it lies, its true outline, and as many words as fit it; what changed since its print is in primer."""
    ink, hatch = look_of_face(named.piece.of)
    stroke = "chalk" if marked else "primer" if named.standing == "changed" else "ink"
    ring = tuple(at(x, y) for x, y in ring_of(lying, piece))
    shapes: list[Primitive] = [
        Poly(
            ring,
            stroke,
            "chalk wash" if marked else ink,
            2.4 if marked else 1.0,
            hatch=hatch,
            id=named.piece.key,
            tint=1.0 if marked else 0.25,
        )
    ]
    shapes += [
        Poly(tuple(at(*p) for p in hole_on(hole, named.piece, lying)), stroke, "body", 0.9, id=named.piece.key)
        for hole in named.piece.holes
    ]
    if piece.outline and not lying.ring:
        shapes.append(Poly(tuple(at(x, y) for x, y in box_of(lying)), "pencil", "", 0.6, dash=(3.0, 2.0)))
    wide, high = lying.w_m * scale - 6, lying.h_m * scale
    middle = at(lying.x_m + lying.w_m / 2, lying.y_m + lying.h_m / 2)
    label = ("! " if named.standing == "changed" else "") + named.label + (" held" if lying.pinned else "")
    lines = [label] if text_width(label, SMALL + 1, "strong") <= wide else []
    sizes = f"{words.cut(piece.length_m)} x {words.cut(piece.width_m)}"
    if text_width(sizes, SMALL) <= wide:
        lines.append(sizes)
    lines = lines[: max(int(high // 12), 0)]
    for k, text in enumerate(lines):
        y = middle[1] + (len(lines) - 1) * 6.0 - k * 12
        face = "strong" if text == label else "text"
        shapes.append(Text((middle[0], y), text, SMALL + (1 if text == label else 0), "ink", face, ground="paper"))  # type: ignore[arg-type]
    return shapes


def hole_on(hole: tuple[Point, ...], piece: Piece, lying: Lies) -> tuple[Point, ...]:
    """A hole of a piece as it lies on its sheet [m]: turned with it, from the corner of its box."""
    long, wide = piece.length_m, piece.width_m
    turned = {
        0: hole,
        90: tuple((wide - y, x) for x, y in hole),
        180: tuple((long - x, wide - y) for x, y in hole),
        270: tuple((y, long - x) for x, y in hole),
    }[lying.turn_deg]
    return tuple((lying.x_m + u, lying.y_m + v) for u, v in turned)


def bar_drawn(
    on: OnBars, wanted: dict[str, Wanted], words: Words, scale: float, begin: Point, high: float, kerf_m: float, marked: Container[str] = ()
) -> list[Primitive]:
    """One bar with its pieces from the stop on, slanted ends as they are sawn. Args: begin: of its middle line; scale: a metre."""
    pattern, (left, middle) = on.pattern, begin
    shapes: list[Primitive] = [rect(left, middle - high / 2, bar_long_m(on, wanted, kerf_m) * scale, high, stroke="ink", fill="body")]
    overlap = dict(pattern.overlaps)
    x = left
    for k, (name, cuts) in enumerate(zip(pattern.pieces, on.named, strict=True)):
        if k in overlap:
            x -= overlap[k] * scale
        first = cuts[0]
        run = wanted[name].length_m * scale
        turned = k in overlap
        skew = tuple(min(max(by, -run / 2), run / 2) for by in _skew(first.piece.ends_deg, first.piece.width_m, scale, turned))
        low, top = middle - high / 2, middle + high / 2
        ring = ((x + skew[0], low), (x + run + skew[2], low), (x + run + skew[3], top), (x + skew[1], top))
        ink, hatch = look_of_face(first.piece.of)
        lit = any(numbered.piece.key in marked for numbered in cuts)
        stroke = "chalk" if lit else "primer" if any(numbered.standing == "changed" for numbered in cuts) else "ink"
        shapes.append(
            Poly(
                ring, stroke, "chalk wash" if lit else ink, 2.4 if lit else 1.0, hatch=hatch, id=first.piece.key, tint=1.0 if lit else 0.25
            )
        )
        size = words.cut(wanted[name].length_m)
        if text_width(size, SMALL) < run - 8:
            shapes.append(Text((x + run / 2, middle), size, SMALL, "ink", ground="paper"))
        label = next((text for text in _labels(cuts) if text_width(text, SMALL) < run - 2), "")
        if label:
            shapes.append(Text((x + run / 2, middle - high / 2 - 8), label, SMALL, "pencil"))
        x += run + kerf_m * scale
    return shapes


def _labels(cuts: tuple[Named, ...]) -> tuple[str, ...]:
    """All numbers, or the first and how many more: never a number cut short."""
    names = [numbered.label for numbered in cuts]
    return (", ".join(names), *([f"{names[0]} +{len(names) - 1}"] if len(names) > 1 else []))


def _skew(ends: tuple[float, float], wide_m: float, scale: float, turned: bool) -> tuple[float, float, float, float]:
    """How far the four corners of a stick stand in from its full length: foot low, foot top, head low, head top."""
    begin, end = (math.tan(math.radians(max(min(deg, 80.0), -80.0))) * wide_m * scale for deg in ends)
    foot = (0.0, begin) if begin >= 0 else (-begin, 0.0)
    head = (-end, 0.0) if end >= 0 else (0.0, end)
    if turned:
        return -head[1], -head[0], -foot[1], -foot[0]
    return foot[0], foot[1], head[0], head[1]


def bar_long_m(on: OnBars, wanted: dict[str, Wanted], kerf_m: float) -> float:
    """How long the bar is [m]."""
    run = sum(wanted[name].length_m for name in on.pattern.pieces) + kerf_m * (len(on.pattern.pieces) - 1)
    return run - sum(by for _, by in on.pattern.overlaps) + on.pattern.left_m
