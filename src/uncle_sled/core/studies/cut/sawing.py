"""The cuts of a sheet in the order in which one person can make them, each with fence, stop, what falls off and what to mind.

Whatever is heavier or larger than one carries is parted before anything is cut to size. Source: shop notes: 25 kg and
1.5 m2, nothing shorter than 150 mm against a fence on a table saw.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.studies.cut.layouts import Cut, Layout

SHORT_M = 0.150


class Step(msgspec.Struct, frozen=True):
    """One cut. off: sizes of what falls off past the fence side [m]; heavy: two carry it; short: not on a table saw."""

    cut: Cut
    keeps: tuple[float, float]
    off: tuple[float, float]
    heavy: bool
    short: bool


def steps_of(layout: Layout, kerf_m: float, carry_m2: float, carry_kg: float = 1e9, kg_m2: float | None = None) -> tuple[Step, ...]:
    """Cuts in their order. Args: carry_m2, carry_kg: what one lifts; kg_m2: of the sheet, None where nobody knows."""
    steps = []
    for cut in layout.cuts:
        _, _, w, h = cut.part
        if cut.along == "x":
            keeps, off = (cut.fence_m, h), (max(w - cut.fence_m - kerf_m, 0.0), h)
        else:
            keeps, off = (w, cut.fence_m), (w, max(h - cut.fence_m - kerf_m, 0.0))
        area = w * h
        heavy = area > carry_m2 + 1e-9 or (kg_m2 is not None and area * kg_m2 > carry_kg + 1e-9)
        run = h if cut.along == "x" else w
        steps.append(Step(cut, keeps, off, heavy, run < SHORT_M or min(keeps) < SHORT_M / 3))
    return tuple(sorted(steps, key=lambda step: not step.heavy))


class Offcut(msgspec.Struct, frozen=True):
    """What is left over of a sheet: its corner and sizes [m]."""

    x_m: float
    y_m: float
    w_m: float
    h_m: float


def offcuts_of(layout: Layout, kerf_m: float, least_m2: float) -> tuple[Offcut, ...]:
    """Rectangles that are left and worth keeping, the largest first. Edge to edge they fall off so; free: cut them out.

    Largest empty rectangles between the boxes of the pieces, one after the other (greedy).
    """
    boxes = [(piece.x_m, piece.y_m, piece.x_m + piece.w_m, piece.y_m + piece.h_m) for piece in layout.pieces]
    found: list[Offcut] = []
    for _ in range(6):
        best = _largest(boxes, layout.length_m, layout.width_m, kerf_m)
        if best is None or best.w_m * best.h_m < least_m2:
            break
        found.append(best)
        boxes.append((best.x_m, best.y_m, best.x_m + best.w_m, best.y_m + best.h_m))
    return tuple(found)


def _largest(boxes: list[tuple[float, float, float, float]], long: float, wide: float, kerf: float) -> Offcut | None:
    """The largest rectangle that keeps a kerf from every box: between edges of boxes, by trying every left edge."""
    best: Offcut | None = None
    lefts = sorted({0.0, *(b[2] + kerf for b in boxes)})
    for left in lefts:
        right_of = sorted((b for b in boxes if b[2] + kerf > left + 1e-9), key=lambda b: b[0])
        tops = sorted({0.0, *(b[3] + kerf for b in right_of)})
        for low in tops:
            high = wide
            near = [b for b in right_of if b[3] + kerf > low + 1e-9]
            for b in [*near, (long + kerf, 0.0, long + kerf, 0.0)]:
                right = min(b[0] - kerf, long)
                if right - left > 1e-6 and high - low > 1e-6:
                    area = (right - left) * (high - low)
                    if best is None or area > best.w_m * best.h_m + 1e-9:
                        best = Offcut(left, low, right - left, high - low)
                if b[1] > low - 1e-9:
                    high = min(high, b[1] - kerf)
                else:
                    break  # it stands across the strip
                if high - low < 1e-6:
                    break
    return best
