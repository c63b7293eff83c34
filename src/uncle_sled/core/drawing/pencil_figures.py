"""Pencil figures: what a thing is, at a glance, inside of its box of true size; from the left, from above, from behind.

Each is a handful of chains in the box's own metres, from its low left corner, few enough to be read at 20 px. Our own hand.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import lru_cache

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.primitives import Point
from uncle_sled.core.parts.cabinet import carcass
from uncle_sled.core.parts.cabinet_cut import TURNED
from uncle_sled.core.parts.figure_of import figure_of

Chain = tuple[Point, ...]
Chains = list[Chain]
LEAST_M = 0.04  # smaller boxes are their own figure
SEEN_FROM = {"side": "left", "rear": "rear"}


def figure(thing: Thing, view: str, wide: float, high: float, turn: int) -> tuple[Chain, ...]:
    """Chains of a thing's figure [m] from its box's low left corner. Args: view: side, plan or rear; turn: how it stands."""
    if min(wide, high) < LEAST_M or max(wide, high) > 30.0:
        return ()
    if thing.cabinet is not None and view in SEEN_FROM:
        fronts = _fronts(thing, view, wide, high, turn)
        if fronts is not None:
            return fronts
    contents = thing.tank.contents if thing.tank is not None else ""
    return _drawn(figure_of(thing), view, round(wide, 4), round(high, 4), turn, contents)


@lru_cache(maxsize=4096)
def _drawn(what: str, view: str, wide: float, high: float, turn: int, _contents: str) -> tuple[Chain, ...]:
    make = FIGURES.get(what, _box)
    made = make(view, wide, high)
    if turn in (180, 270) and view != "rear":  # its front end is aft
        made = [tuple((wide - x, y) for x, y in chain) for chain in made]
    return tuple(chain for chain in made if len(chain) > 1)


def _fronts(thing: Thing, view: str, wide: float, high: float, turn: int) -> tuple[Chain, ...] | None:
    """The true fronts of a cabinet where they are seen; its shelves as lines where one looks at its end; None: not buildable."""
    made = carcass(thing)
    assert thing.cabinet is not None
    if made is None or made.faults:
        return None
    opens: str = thing.cabinet.opens
    for _ in range(turn // 90):
        opens = TURNED[opens]
    chains: Chains = []
    if opens == SEEN_FROM[view]:
        for board in made.boards:
            if board.kind in ("door", "drawer face", "sliding door", "divider", "shelf"):
                (w0, _, h0), (w1, _, h1) = board.box
                if board.moves:
                    chains.append(box(w0, h0, w1, h1))
                    chains.append(((w0 * 0.55 + w1 * 0.45, h1 - 0.03), (w0 * 0.45 + w1 * 0.55, h1 - 0.03)))
                elif board.kind == "divider":
                    chains.append(((w0, h0), (w0, h1)))
        return tuple(chains)
    inset = min(wide, high) * 0.06
    chains = [box(inset, inset, wide - inset, high - inset)]
    levels = sorted({round(b.box[0][2], 3) for b in made.boards if b.kind == "shelf"})
    chains += [((inset, h), (wide - inset, h)) for h in levels if inset < h < high - inset]
    return tuple(chains)


def box(x0: float, y0: float, x1: float, y1: float) -> Chain:
    """A closed box as one chain of points [m]."""
    return ((x0, y0), (x1, y0), (x1, y1), (x0, y1), (x0, y0))


def ring(x: float, y: float, r: float, many: int = 16) -> Chain:
    """A circle as a closed chain of so many sides [m]."""
    return tuple((x + r * math.cos(2 * math.pi * k / many), y + r * math.sin(2 * math.pi * k / many)) for k in range(many + 1))


def arc(x: float, y: float, r: float, a: float, b: float, many: int = 8) -> Chain:
    """From angle a to b, degrees."""
    turns = [math.radians(a + (b - a) * k / many) for k in range(many + 1)]
    return tuple((x + r * math.cos(t), y + r * math.sin(t)) for t in turns)


def soft(x0: float, y0: float, x1: float, y1: float, share: float = 0.3) -> Chain:
    """A box with cut corners, as cushions and jugs have them."""
    c = share * min(x1 - x0, y1 - y0)
    return ((x0 + c, y0), (x1 - c, y0), (x1, y0 + c), (x1, y1 - c), (x1 - c, y1), (x0 + c, y1), (x0, y1 - c), (x0, y0 + c), (x0 + c, y0))


def _bed(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        long = w >= h
        p = 0.16 * max(w, h)
        if long:
            return [soft(0.03 * w, 0.06 * h, p, 0.47 * h), soft(0.03 * w, 0.53 * h, p, 0.94 * h), ((p * 1.5, 0.0), (p * 1.5, h))]
        return [soft(0.06 * w, 0.03 * h, 0.47 * w, p), soft(0.53 * w, 0.03 * h, 0.94 * w, p), ((0.0, p * 1.5), (w, p * 1.5))]
    top = min(h, 0.14)
    return [soft(0.01 * w, h - top, 0.99 * w, h), *([soft(0.02 * w, h - top * 0.55, 0.14 * w, h)] if view == "side" else [])]


def _cushion(_view: str, w: float, h: float) -> Chains:
    return [soft(0.06 * w, 0.08 * h, 0.94 * w, 0.92 * h), ((0.2 * w, 0.5 * h), (0.8 * w, 0.5 * h))]


def _jug(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        r = 0.16 * min(w, h)
        return [soft(0.08 * w, 0.08 * h, 0.92 * w, 0.92 * h), ring(0.72 * w, 0.5 * h, r)]
    return [
        soft(0.06 * w, 0.02 * h, 0.94 * w, 0.84 * h, 0.18),
        box(0.64 * w, 0.84 * h, 0.84 * w, 0.96 * h),
        ((0.16 * w, 0.84 * h), (0.22 * w, 0.97 * h), (0.5 * w, 0.97 * h), (0.56 * w, 0.84 * h)),
    ]


def _tank(view: str, w: float, h: float) -> Chains:
    r = 0.09 * min(w, h)
    lines: Chains = [((k * w / 4, 0.12 * h), (k * w / 4, 0.88 * h)) for k in (1, 2, 3)]
    if view == "plan":
        return [*lines, ring(0.12 * w, 0.85 * h, r)]
    return [*lines, box(0.08 * w, 0.92 * h, 0.08 * w + 2 * r, h)]


def _drum(_view: str, w: float, h: float) -> Chains:
    if abs(w - h) < 0.1 * max(w, h):
        return [ring(w / 2, h / 2, 0.42 * min(w, h)), ring(w / 2, h / 2, 0.1 * min(w, h))]
    if w > h:
        return [
            ((0.12 * w, 0.04 * h), (0.12 * w, 0.96 * h)),
            ((0.88 * w, 0.04 * h), (0.88 * w, 0.96 * h)),
            ((0.12 * w, 0.5 * h), (0.88 * w, 0.5 * h)),
        ]
    return [((0.04 * w, 0.12 * h), (0.96 * w, 0.12 * h)), ((0.04 * w, 0.88 * h), (0.96 * w, 0.88 * h))]


def _cylinder(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        r = 0.44 * min(w, h)
        return [ring(w / 2, h / 2, r), ring(w / 2, h / 2, 0.42 * r), ((w / 2, h / 2), (w / 2 + 0.3 * r, h / 2))]
    m = w / 2
    return [
        (
            (0.08 * w, 0.05 * h),
            (0.08 * w, 0.66 * h),
            (0.24 * w, 0.78 * h),
            (0.76 * w, 0.78 * h),
            (0.92 * w, 0.66 * h),
            (0.92 * w, 0.05 * h),
            (0.08 * w, 0.05 * h),
        ),
        ((0.3 * w, 0.78 * h), (0.26 * w, 0.97 * h), (0.74 * w, 0.97 * h), (0.7 * w, 0.78 * h)),
        ((m, 0.78 * h), (m, 0.9 * h)),
    ]


def _battery(view: str, w: float, h: float) -> Chains:
    s = 0.1 * min(w, h)
    plus: Chains = [((0.25 * w - s, 0.5 * h), (0.25 * w + s, 0.5 * h)), ((0.25 * w, 0.5 * h - s), (0.25 * w, 0.5 * h + s))]
    minus: Chains = [((0.75 * w - s, 0.5 * h), (0.75 * w + s, 0.5 * h))]
    if view == "plan":
        return [ring(0.25 * w, 0.5 * h, 1.6 * s), ring(0.75 * w, 0.5 * h, 1.6 * s), *plus, *minus]
    return [
        ((0.0, 0.8 * h), (w, 0.8 * h)),
        box(0.18 * w, 0.8 * h, 0.32 * w, 0.97 * h),
        box(0.68 * w, 0.8 * h, 0.82 * w, 0.97 * h),
        *plus,
        *minus,
    ]


def _panel(view: str, w: float, h: float) -> Chains:
    if view != "plan":
        return [((0.04 * w, 0.5 * h), (0.96 * w, 0.5 * h))]
    across, up = (6, 3) if w >= h else (3, 6)
    lines: Chains = [((k * w / across, 0.0), (k * w / across, h)) for k in range(1, across)]
    return lines + [((0.0, k * h / up), (w, k * h / up)) for k in range(1, up)]


def _fridge(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        return [soft(0.06 * w, 0.06 * h, 0.94 * w, 0.94 * h, 0.12), ((0.12 * w, 0.86 * h), (0.88 * w, 0.86 * h))]
    if h > 1.2 * w:  # stands: a small door over a tall one
        return [
            ((0.05 * w, 0.72 * h), (0.95 * w, 0.72 * h)),
            ((0.84 * w, 0.8 * h), (0.84 * w, 0.92 * h)),
            ((0.84 * w, 0.45 * h), (0.84 * w, 0.64 * h)),
        ]
    return [((0.0, 0.78 * h), (w, 0.78 * h)), ((0.36 * w, 0.88 * h), (0.64 * w, 0.88 * h)), *_flake(0.5 * w, 0.4 * h, 0.2 * min(w, h))]


def _flake(x: float, y: float, r: float) -> Chains:
    made: Chains = []
    for k in range(3):
        t = math.pi * k / 3
        made.append(((x - r * math.cos(t), y - r * math.sin(t)), (x + r * math.cos(t), y + r * math.sin(t))))
    return made


def _stove(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        r = 0.2 * min(w, h) if max(w, h) > 1.3 * min(w, h) else 0.16 * min(w, h)
        spots = ((0.28 * w, 0.5 * h), (0.72 * w, 0.5 * h)) if w >= h else ((0.5 * w, 0.28 * h), (0.5 * w, 0.72 * h))
        made: Chains = []
        for x, y in spots:
            made += [ring(x, y, r), ring(x, y, 0.45 * r), ((x - 1.3 * r, y), (x + 1.3 * r, y)), ((x, y - 1.3 * r), (x, y + 1.3 * r))]
        return made
    top = 0.9 * h
    flames: Chains = []
    for x in (0.3 * w, 0.7 * w):
        f = 0.12 * min(w, h)
        flames.append(
            (
                (x - f, 0.35 * h),
                (x - 0.6 * f, 0.35 * h + 1.6 * f),
                (x, 0.35 * h + 2.6 * f),
                (x + 0.6 * f, 0.35 * h + 1.6 * f),
                (x + f, 0.35 * h),
                (x - f, 0.35 * h),
            )
        )
    return [((0.0, top), (w, top)), *flames, ((0.15 * w, 0.12 * h), (0.85 * w, 0.12 * h))]


def _sink(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        r = 0.06 * min(w, h)
        return [soft(0.1 * w, 0.1 * h, 0.9 * w, 0.78 * h, 0.35), ring(0.5 * w, 0.44 * h, r), ((0.5 * w, 0.92 * h), (0.5 * w, 0.62 * h))]
    return [
        ((0.05 * w, 0.8 * h), (0.15 * w, 0.25 * h), (0.85 * w, 0.25 * h), (0.95 * w, 0.8 * h)),
        ((0.2 * w, 0.8 * h), (0.2 * w, h), (0.45 * w, h), (0.45 * w, 0.9 * h)),
    ]


def _toilet(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        r = 0.32 * min(w, h)
        return [ring(0.5 * w, 0.45 * h, r), ring(0.5 * w, 0.45 * h, 0.6 * r), box(0.2 * w, 0.86 * h, 0.8 * w, 0.98 * h)]
    return [
        (
            (0.12 * w, 0.55 * h),
            (0.12 * w, 0.68 * h),
            (0.88 * w, 0.68 * h),
            (0.88 * w, 0.55 * h),
            (0.7 * w, 0.1 * h),
            (0.3 * w, 0.1 * h),
            (0.12 * w, 0.55 * h),
        ),
        ((0.12 * w, 0.68 * h), (0.2 * w, 0.98 * h), (0.36 * w, 0.98 * h), (0.4 * w, 0.68 * h)),
    ]


def _heater(_view: str, w: float, h: float) -> Chains:
    made: Chains = []
    for k in (0.3, 0.5, 0.7):
        wave = tuple((k * w + 0.05 * w * math.sin(4 * math.pi * t / 10), (0.2 + 0.6 * t / 10) * h) for t in range(11))
        made.append(wave)
    return [*made, box(0.1 * w, 0.1 * h, 0.9 * w, 0.9 * h)]


def _cooler(_view: str, w: float, h: float) -> Chains:
    lines: Chains = [((0.1 * w, y * h), (0.9 * w, y * h)) for y in (0.25, 0.4)]
    return [*lines, *_flake(0.5 * w, 0.7 * h, 0.16 * min(w, h))]


def _cabinet(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        return [((0.0, 0.9 * h), (w, 0.9 * h))]
    doors = max(1, round(w / 0.5))
    made: Chains = [((k * w / doors, 0.06 * h), (k * w / doors, 0.94 * h)) for k in range(1, doors)]
    made += [(((k + 0.8) * w / doors, 0.46 * h), ((k + 0.8) * w / doors, 0.6 * h)) for k in range(doors)]
    return [box(0.02 * w, 0.05 * h, 0.98 * w, 0.95 * h), *made]


def _chair(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        return [soft(0.12 * w, 0.1 * h, 0.88 * w, 0.75 * h, 0.2), ((0.1 * w, 0.9 * h), (0.9 * w, 0.9 * h))]
    seat = 0.5 * h
    return [
        ((0.15 * w, 0.0), (0.15 * w, seat), (0.85 * w, seat), (0.85 * w, 0.0)),
        ((0.15 * w, seat), (0.08 * w, h)),
        ((0.15 * w, 0.25 * h), (0.85 * w, 0.25 * h)),
    ]


def _table(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        return [box(0.05 * w, 0.08 * h, 0.95 * w, 0.92 * h), ((0.12 * w, 0.3 * h), (0.5 * w, 0.3 * h))]
    top = max(h - 0.05, 0.8 * h)
    return [((0.0, top), (w, top)), ((0.1 * w, 0.0), (0.1 * w, top)), ((0.9 * w, 0.0), (0.9 * w, top))]


def _wheel(_view: str, w: float, h: float) -> Chains:
    if abs(w - h) < 0.25 * max(w, h):
        r = min(w, h) / 2
        spokes: Chains = [((w / 2, h / 2), (w / 2 + 0.55 * r * math.cos(t), h / 2 + 0.55 * r * math.sin(t))) for t in (0.5, 2.6, 4.7)]
        return [ring(w / 2, h / 2, 0.96 * r), ring(w / 2, h / 2, 0.58 * r), ring(w / 2, h / 2, 0.12 * r), *spokes]
    if w > h:
        return [soft(0.0, 0.04 * h, w, 0.96 * h, 0.4), *((((k + 1) * w / 8, 0.08 * h), ((k + 1) * w / 8, 0.92 * h)) for k in range(7))]
    return [soft(0.04 * w, 0.0, 0.96 * w, h, 0.4), *(((0.08 * w, (k + 1) * h / 8), (0.92 * w, (k + 1) * h / 8)) for k in range(7))]


def _bicycle(view: str, w: float, h: float) -> Chains:
    if view != "side" and not (view == "rear" and w > 1.2):
        m = h / 2 if view == "plan" else w / 2
        if view == "plan":
            return [((0.05 * w, m), (0.95 * w, m)), ((0.78 * w, 0.08 * h), (0.78 * w, 0.92 * h)), ring(0.3 * w, m, 0.1 * min(w, h))]
        return [((m, 0.0), (m, 0.85 * h)), ((0.1 * w, 0.92 * h), (0.9 * w, 0.92 * h))]
    r = min(0.3 * h, 0.19 * w)
    a, b = (r, r), (w - r, r)
    crank, seat, head = (0.45 * w, r), (0.36 * w, 0.82 * h), (0.74 * w, 0.86 * h)
    return [
        ring(*a, r),
        ring(*b, r),
        (a, crank, seat, a),
        (crank, head, seat),
        (head, b),
        ((0.3 * w, 0.86 * h), (0.42 * w, 0.86 * h)),
        ((0.7 * w, 0.97 * h), (0.8 * w, 0.97 * h), head),
    ]


def _motorcycle(view: str, w: float, h: float) -> Chains:
    if view != "side":
        return _bicycle(view, w, h)
    r = min(0.3 * h, 0.17 * w)
    return [
        ring(r, r, r),
        ring(r, r, 0.5 * r),
        ring(w - r, r, r),
        ring(w - r, r, 0.5 * r),
        ((r, r), (0.34 * w, 0.6 * h), (0.6 * w, 0.62 * h), (0.72 * w, 0.8 * h), (w - r, r)),
        ((0.22 * w, 0.62 * h), (0.4 * w, 0.66 * h)),
        soft(0.36 * w, 0.22 * h, 0.58 * w, 0.5 * h),
        ((0.68 * w, 0.97 * h), (0.76 * w, 0.94 * h), (0.72 * w, 0.8 * h)),
    ]


def _kayak(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        m = h / 2
        return [
            ((0.0, m), (0.2 * w, 0.9 * h), (0.8 * w, 0.9 * h), (w, m), (0.8 * w, 0.1 * h), (0.2 * w, 0.1 * h), (0.0, m)),
            tuple((0.5 * w + 0.09 * w * math.cos(t / 8 * math.pi), m + 0.22 * h * math.sin(t / 8 * math.pi)) for t in range(17)),
        ]
    return [((0.0, 0.8 * h), (0.12 * w, 0.15 * h), (0.88 * w, 0.15 * h), (w, 0.8 * h)), ((0.4 * w, 0.66 * h), (0.6 * w, 0.66 * h))]


def _awning(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        return [((0.0, k * h / 4), (w, k * h / 4)) for k in (1, 2, 3)]
    return [tuple((k * w / 6, 0.5 * h + (0.15 * h if k % 2 else -0.15 * h)) for k in range(7))]


def _fan(view: str, w: float, h: float) -> Chains:
    if view != "plan":
        return [((0.1 * w, 0.7 * h), (0.9 * w, 0.7 * h)), ((0.2 * w, 0.7 * h), (0.5 * w, 0.95 * h), (0.8 * w, 0.7 * h))]
    r = 0.42 * min(w, h)
    blades: Chains = []
    for k in range(4):
        t = math.pi * k / 2
        blades.append(
            (
                (w / 2, h / 2),
                (w / 2 + r * math.cos(t), h / 2 + r * math.sin(t)),
                (w / 2 + r * math.cos(t + 0.6), h / 2 + r * math.sin(t + 0.6)),
                (w / 2, h / 2),
            )
        )
    return [ring(w / 2, h / 2, r), *blades]


def _tools(_view: str, w: float, h: float) -> Chains:
    return [
        ((0.2 * w, 0.2 * h), (0.62 * w, 0.62 * h)),
        arc(0.72 * w, 0.72 * h, 0.16 * min(w, h), -20, 250),
        ((0.3 * w, 0.75 * h), (0.75 * w, 0.3 * h)),
    ]


def _charger(_view: str, w: float, h: float) -> Chains:
    return [((0.56 * w, 0.88 * h), (0.36 * w, 0.48 * h), (0.6 * w, 0.52 * h), (0.42 * w, 0.12 * h))]


def _light(_view: str, w: float, h: float) -> Chains:
    r = 0.22 * min(w, h)
    rays: Chains = [
        ((w / 2 + 1.3 * r * math.cos(t), h / 2 + 1.3 * r * math.sin(t)), (w / 2 + 1.9 * r * math.cos(t), h / 2 + 1.9 * r * math.sin(t)))
        for t in (0.4, 1.45, 2.5, 3.55, 4.6, 5.65)
    ]
    return [ring(w / 2, h / 2, r), *rays]


def _telescope(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        return [soft(0.08 * w, 0.3 * h, 0.92 * w, 0.7 * h, 0.2), ((0.8 * w, 0.3 * h), (0.8 * w, 0.7 * h))]
    tripod: Chains = [((0.5 * w, 0.55 * h), (x * w, 0.02 * h)) for x in (0.2, 0.5, 0.8)]
    return [((0.12 * w, 0.58 * h), (0.8 * w, 0.92 * h), (0.88 * w, 0.78 * h), (0.18 * w, 0.48 * h), (0.12 * w, 0.58 * h)), *tripod]


def _bag(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        return [soft(0.06 * w, 0.1 * h, 0.94 * w, 0.9 * h, 0.45), ((0.2 * w, 0.5 * h), (0.8 * w, 0.5 * h))]
    return [
        (
            (0.12 * w, 0.05 * h),
            (0.04 * w, 0.5 * h),
            (0.3 * w, 0.8 * h),
            (0.7 * w, 0.8 * h),
            (0.96 * w, 0.5 * h),
            (0.88 * w, 0.05 * h),
            (0.12 * w, 0.05 * h),
        ),
        arc(0.5 * w, 0.8 * h, 0.16 * min(w, h), 0, 180),
    ]


def _shower(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        return [((0.0, 0.0), (w, h)), ((0.0, h), (w, 0.0)), ring(w / 2, h / 2, 0.08 * min(w, h))]
    return [
        ((0.7 * w, 0.05 * h), (0.7 * w, 0.9 * h), (0.45 * w, 0.9 * h)),
        *((((0.4 + d) * w, 0.82 * h), ((0.36 + 2 * d) * w, 0.66 * h)) for d in (-0.04, 0.02, 0.08)),
    ]


def _box(view: str, w: float, h: float) -> Chains:
    if view == "plan":
        return [((0.0, 0.5 * h), (w, 0.5 * h)) if w >= h else ((0.5 * w, 0.0), (0.5 * w, h))]
    return [((0.0, 0.8 * h), (w, 0.8 * h)), box(0.42 * w, 0.5 * h, 0.58 * w, 0.62 * h)]


FIGURES: dict[str, Callable[[str, float, float], Chains]] = {
    "bed": _bed,
    "cushion": _cushion,
    "jug": _jug,
    "tank": _tank,
    "drum": _drum,
    "cylinder": _cylinder,
    "battery": _battery,
    "panel": _panel,
    "fridge": _fridge,
    "stove": _stove,
    "sink": _sink,
    "toilet": _toilet,
    "heater": _heater,
    "cooler": _cooler,
    "cabinet": _cabinet,
    "chair": _chair,
    "table": _table,
    "wheel": _wheel,
    "bicycle": _bicycle,
    "motorcycle": _motorcycle,
    "kayak": _kayak,
    "box": _box,
    "awning": _awning,
    "fan": _fan,
    "tools": _tools,
    "charger": _charger,
    "light": _light,
    "telescope": _telescope,
    "bag": _bag,
    "shower": _shower,
}
