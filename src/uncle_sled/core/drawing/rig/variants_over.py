"""One variant drawn over another on one scale: what stands the same is faint, what differs is drawn, what moved has an arrow."""

from __future__ import annotations

import math

import msgspec
from msgspec.structs import replace

from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, line, placed
from uncle_sled.core.drawing.rig.rig_views import (
    box_of,
    heights_m,
    plan_body,
    plan_rig,
    plan_wheels,
    side_body,
    side_rig,
    side_wheels,
    thing_shapes,
)
from uncle_sled.core.drawing.rig.things_placed import Placed, things_in
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.words import Words, lower_first

EDGE_PX, HEAD_PX = 14.0, 18.0
NEAR_M = 0.002


class Moved(msgspec.Struct, frozen=True):
    """A thing of both variants that stands elsewhere or weighs otherwise, or of one of them only; in a few words."""

    id: str
    says: str


def what_moved(a: Studied, b: Studied, words: Words) -> tuple[Moved, ...]:
    """Differences of the second from the first, the axle first, then things in the order of the file."""
    made: list[Moved] = []
    axles = {axle.id: axle for axle in a.build.rig.axles}
    for axle in b.build.rig.axles:
        was = axles.get(axle.id)
        if was is not None and abs(was.station.si - axle.station.si) > NEAR_M:
            by = axle.station.si - was.station.si
            made.append(Moved(axle.id, f"axle {words.m(abs(by))} {'aft' if by > 0 else 'forward'}"))
    first = {thing.id: thing for thing in a.build.stow.things}
    for thing in b.build.stow.things:
        old = first.get(thing.id)
        name = lower_first(thing.name)
        if old is None:
            made.append(Moved(thing.id, f"{name}, new"))
            continue
        off = (thing.x.si - old.x.si, thing.y.si - old.y.si, thing.z.si - old.z.si)
        said = [
            f"{words.m(abs(d))} {way[d > 0]}"
            for d, way in zip(off, (("forward", "aft"), ("to the left", "to the right"), ("lower", "higher")), strict=True)
            if abs(d) > NEAR_M
        ]
        kg = thing.mass.si - old.mass.si
        if abs(kg) > 0.05:
            said.append(f"{words.fine_kg(abs(kg))} {'heavier' if kg > 0 else 'lighter'}")
        if said:
            made.append(Moved(thing.id, f"{name} {', '.join(said)}"))
    there = {thing.id for thing in b.build.stow.things}
    made += [Moved(thing.id, f"{lower_first(thing.name)}, gone") for thing in a.build.stow.things if thing.id not in there]
    if a.build.shell != b.build.shell:
        made.append(Moved("shell", "another body"))
    return tuple(made)


def variants_over(a: Studied, b: Studied, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Side and plan of ``b`` in ink over ``a`` as a ghost [px, y up], and in words what differs."""
    reach = max(length_m(a.build), length_m(b.build)) + 0.3
    left = -1.0 if "vehicle bed" in (a.build.rig.carrier, b.build.rig.carrier) else -0.35
    tops = [heights_m(studied.build) for studied in (a, b)]
    top, half = max(t for t, _ in tops), max(h for _, h in tops)
    room = ((width - 3 * EDGE_PX) / 2, height - EDGE_PX - 2 * HEAD_PX)
    scale = max(min(room[0] / (reach - left), room[1] / max(top + 0.15, 2 * half + 0.1)), 4.0)
    x0 = EDGE_PX - left * scale
    low = HEAD_PX + 8 + max(room[1] - scale * max(top, 2 * half), 0.0) / 2
    shapes: list[Primitive] = list(placed(tuple(_view(a, b, "side")), scale, x0, low))
    shapes += placed(tuple(_view(a, b, "plan")), scale, x0 + room[0] + EDGE_PX, low + half * scale)
    moved = what_moved(a, b, words)
    said = "; ".join(each_moved.says for each_moved in moved) or "nothing stands elsewhere"
    shapes += [
        Text(
            (EDGE_PX, height - 12),
            elided(f"{b.build.name}, over {a.build.name} dashed", 12, width - 2 * EDGE_PX),
            12,
            "ink",
            "strong",
            "left",
        ),
        Text((EDGE_PX, 12), elided(f"Other: {said}" if moved else said, 11, width - 2 * EDGE_PX), 11, "ink", "text", "left"),
    ]
    return tuple(shapes)


def _view(a: Studied, b: Studied, view: str) -> list[Primitive]:
    now = (
        (*side_rig(b.build), *side_body(b.build), *side_wheels(b.build))
        if view == "side"
        else (*plan_rig(b.build), *plan_wheels(b.build), *plan_body(b.build))
    )
    was = (*side_body(a.build), *side_wheels(a.build)) if view == "side" else (*plan_body(a.build), *plan_wheels(a.build))
    old = {p.thing.id: p for p in things_in(a, 0)} if a.table.cases else {}
    new = {p.thing.id: p for p in things_in(b, 0)} if b.table.cases else {}
    shapes: list[Primitive] = list(now)
    for id, p in new.items():
        same = id in old and _spot(old[id]) == _spot(p)
        for shape in thing_shapes(p, view, hatched=False):
            shapes.append(replace(shape, tint=0.1, stroke="rule") if same and isinstance(shape, Poly) else shape)
    shapes += [_ghost(shape) for shape in was if shape not in now]
    for id, p in old.items():
        if id in new and _spot(new[id]) == _spot(p):
            continue
        shapes += [_ghost(shape) for shape in thing_shapes(p, view, hatched=False)[:1]]
        if id in new:
            shapes += _arrow(_middle(p, view), _middle(new[id], view))
    return shapes


def _spot(p: Placed) -> tuple[object, ...]:
    return p.x, p.y, p.z, p.size, p.turn


def _middle(p: Placed, view: str) -> tuple[float, float]:
    left, low, right, high = box_of(p, view)
    return (left + right) / 2, (low + high) / 2


def _ghost(shape: Primitive) -> Primitive:
    if isinstance(shape, Poly):
        return replace(shape, stroke="chalk", fill="", hatch="", band=0.0, dash=(4, 3), width=1.3)
    return replace(shape, stroke="chalk", fill="", width=1.0) if isinstance(shape, Circle) else shape


def _arrow(a: tuple[float, float], b: tuple[float, float]) -> list[Primitive]:
    far = math.dist(a, b)
    if far < 0.03:
        return []
    u = ((b[0] - a[0]) / far, (b[1] - a[1]) / far)
    tip = min(0.1, far / 3)
    wings = [(b[0] - tip * (u[0] - 0.5 * w * u[1]), b[1] - tip * (u[1] + 0.5 * w * u[0])) for w in (1, -1)]
    return [line(a, b, "chalk", 1.4), Poly((wings[0], b, wings[1]), "chalk", "", 1.4, closed=False)]
