"""The trailer or truck seen from its left side and from above, to scale, with everything in it.

Side view: station to the right, height up. Plan: station to the right, the right side of the
rig up. Both in metres; ``px_per_m`` is only asked for to know which labels have room.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import chain

import msgspec
import numpy as np
from msgspec.structs import replace
from shapely import box as shapely_box
from shapely.geometry import Polygon

from uncle_sled.core.document.placing import Stand, on_roof, stand_of
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Mode, Thing
from uncle_sled.core.drawing.pencil_figures import figure
from uncle_sled.core.drawing.primitives import HATCH_OF_GROUP, Circle, Point, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.rig.things_placed import MOST_KEPT, Placed, things_in
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.engine import from_last, keep, keep_each
from uncle_sled.core.geometry.cab import cab_outline
from uncle_sled.core.geometry.footprint import corners_m
from uncle_sled.core.geometry.ring import corners_of
from uncle_sled.core.geometry.vessel import vessel_of
from uncle_sled.core.parts.figure_of import figure_of
from uncle_sled.core.parts.from_rig import wheel_radius_m
from uncle_sled.core.parts.from_stow import group_of, home_of
from uncle_sled.core.parts.heights import ball_height_m, frame_top_m
from uncle_sled.core.parts.rising import up_in
from uncle_sled.core.reading.studied import Studied, length_m, silhouette_of
from uncle_sled.core.sameness import places_changed
from uncle_sled.core.studies.stow.solids import outline_of
from uncle_sled.core.units import weight

LABEL = 11.0
LEADING = 1.2
MOST_HATCHED = 150  # hatches and labels of more than this overlap into a blur
MOST_LEADERS = 60  # more things than this leave their names to hovering
Box = tuple[float, float, float, float]


def side_rig(build: Build, *, ground: bool = True) -> tuple[Primitive, ...]:
    """Ground, frame and coupler (or the truck), without body and wheels."""
    reach = length_m(build)
    shapes: list[Primitive] = [line((-0.35, 0.0), (reach + 0.55, 0.0), "pencil", 1.4)] if ground else []
    wheel = wheel_radius_m(build.rig)
    if build.rig.carrier == "vehicle bed":
        return (*shapes, *_truck_side(build, wheel))
    top = frame_top_m(build)
    end = build.rig.frame_length.si if build.rig.frame_length else reach
    ball = ball_height_m(build)
    shapes.append(
        Poly(
            ((0.05, ball - 0.03), (0.35, top - 0.07), (end, top - 0.07), (end, top), (0.35, top), (0.05, ball + 0.03)),
            "zinc",
            "zinc",
            1.0,
            id="frame",
        )
    )
    shapes.append(Circle((0.0, ball), 0.055, "ink", "zinc", 1.2, id="ball"))
    if build.rig.jack_station:
        at = build.rig.jack_station.si
        shapes.append(rect(at - 0.02, 0.08, 0.04, top - 0.08, stroke="zinc", fill="zinc", id="jack"))
        shapes.append(rect(at - 0.06, 0.05, 0.12, 0.03, stroke="zinc", fill="zinc", id="jack"))
    if build.rig.stabiliser_station:
        at = build.rig.stabiliser_station.si
        shapes.append(Poly(((at, top - 0.07), (at + 0.12, top * 0.45), (at + 0.06, top * 0.45)), "zinc", "zinc", 1.0, id="stabiliser"))
    return tuple(shapes)


def side_wheels(build: Build) -> tuple[Primitive, ...]:
    """Wheels last, over the body's edge."""
    wheel = wheel_radius_m(build.rig)
    if build.rig.carrier == "vehicle bed":
        stations = [("front-axle", 0.0)] + ([("rear-axle", build.rig.bed.wheelbase.si)] if build.rig.bed.wheelbase else [])
    else:
        stations = [(axle.id, axle.station.si) for axle in build.rig.axles]
    shapes: list[Primitive] = []
    for id, at in stations:
        shapes += [
            Circle((at, wheel), wheel, "ink", "tyre", 1.0, id=id),
            Circle((at, wheel), wheel * 0.56, "ink", "hub", 1.0, id=id),
            Circle((at, wheel), wheel * 0.1, "ink", "ink", 1.0, id=id),
        ]
    return tuple(shapes)


def _truck_side(build: Build, wheel: float) -> list[Primitive]:
    bed = build.rig.bed
    base = bed.wheelbase.si if bed.wheelbase else 3.0
    front = bed.bed_front.si if bed.bed_front else 0.8
    top = bed.bed_top.si if bed.bed_top else 0.95
    end = front + (bed.bed_length.si if bed.bed_length else base)
    window: tuple[Point, ...] = ((-0.2, 1.22), (0.14, 1.82), (front - 0.3, 1.84), (front - 0.3, 1.22))
    return [
        Poly(cab_outline(wheel, front), "vehicle", "vehicle", 1.2, tint=0.35, id="vehicle"),
        Poly(window, "vehicle", "body", 1.0, id="vehicle"),
        rect(-0.1, wheel * 1.1, end + 0.1, 0.14, stroke="zinc", fill="zinc", id="frame"),
        rect(front, top - 0.1, end - front, 0.1, stroke="zinc", fill="zinc", id="bed"),
    ]


def side_body(build: Build) -> tuple[Primitive, ...]:
    """The body's profile with its wall to scale."""
    body = silhouette_of(build.shell)
    if body is None:
        return ()
    wall = build.shell.wall.si if build.shell.wall else 0.0
    points = tuple((float(x), float(z)) for x, z in body.polygon)
    return (Poly(points, "ink", "body", 1.6, band=wall, hatch="wood" if wall else "", id="shell"),)


def plan_rig(build: Build) -> tuple[Primitive, ...]:
    """Drawbar, rails, tyres and the middle line from above."""
    reach = length_m(build)
    shapes: list[Primitive] = [line((-0.35, 0.0), (reach + 0.55, 0.0), "rule", 1.0, (8, 3, 2, 3))]
    if build.rig.carrier == "vehicle bed":
        bed = build.rig.bed
        front, width = (bed.bed_front.si if bed.bed_front else 0.8), (bed.bed_width.si if bed.bed_width else 1.9)
        end = front + (bed.bed_length.si if bed.bed_length else 3.0)
        shapes.append(rect(-0.85, -0.85, front + 0.75, 1.7, stroke="vehicle", fill="vehicle", tint=0.35, width=1.2, id="vehicle"))
        shapes.append(rect(front, -width / 2, end - front, width, stroke="zinc", fill="", width=1.6, id="bed"))
        return tuple(shapes)
    width = build.rig.frame_width.si if build.rig.frame_width else (build.shell.width.si * 0.85 if build.shell.width else 1.4)
    end = build.rig.frame_length.si if build.rig.frame_length else reach
    nose = (
        build.rig.drawbar_length.si
        if build.rig.drawbar_length
        else (build.shell.front.si if build.shell.front and build.shell.form != "none" else 0.3 * end)
    )
    for side in (-1, 1):
        shapes.append(line((0.05, 0.0), (nose, side * width / 2), "zinc", 4.0, id="frame"))
        shapes.append(line((nose, side * width / 2), (end, side * width / 2), "zinc", 3.0, id="frame"))
    shapes += [
        line((nose, -width / 2), (nose, width / 2), "zinc", 3.0, id="frame"),
        line((end, -width / 2), (end, width / 2), "zinc", 3.0, id="frame"),
        Circle((0.0, 0.0), 0.055, "ink", "zinc", 1.2, id="ball"),
    ]
    return tuple(shapes)


def plan_wheels(build: Build) -> tuple[Primitive, ...]:
    """The wheels of every axle from above [m]."""
    wheel = wheel_radius_m(build.rig)
    wide = build.rig.tyre.width.si if build.rig.tyre.width else 0.17
    if build.rig.carrier == "vehicle bed":
        bed = build.rig.bed
        track = bed.track.si if bed.track else 1.6
        stations = [("front-axle", 0.0)] + ([("rear-axle", bed.wheelbase.si)] if bed.wheelbase else [])
    else:
        track = build.rig.track.si if build.rig.track else 1.5
        stations = [(axle.id, axle.station.si) for axle in build.rig.axles]
    return tuple(
        rect(at - wheel, side * track / 2 - wide / 2, 2 * wheel, wide, stroke="ink", fill="tyre", id=id)
        for id, at in stations
        for side in (-1, 1)
    )


def plan_body(build: Build) -> tuple[Primitive, ...]:
    """The body from above with the thickness of its walls [m]; nothing without one."""
    shell = build.shell
    if silhouette_of(shell) is None or not shell.length:
        return ()
    width, front = (shell.width.si if shell.width else 0.0), (shell.front.si if shell.front else 0.0)
    wall = shell.wall.si if shell.wall else 0.0
    if width <= 0:
        return ()
    return (
        Poly(
            tuple((front + x, y) for x, y in corners_m(shell)),
            stroke="ink",
            fill="body",
            width=1.6,
            band=wall,
            hatch="wood" if wall else "",
            id="shell",
        ),
    )


@keep(most=MOST_KEPT, of="p.thing.id")
def thing_shapes(p: Placed, view: str, hatched: bool = True) -> tuple[Primitive, ...]:
    """One thing's box with its level, without its label."""
    lx, ly, lz = p.size
    group = group_of(p.thing)
    low = p.z if view == "side" else p.y - ly / 2
    high = lz if view == "side" else ly
    if lx <= 0 or high <= 0:
        return (Circle((p.x, low), 0.04, group, group, 1.2, id=p.thing.id),)
    dash: tuple[float, ...] = () if p.aboard else (4, 3)
    if view == "plan" and on_roof(p.thing):  # it lies on the roof: an outline, so that the inside shows
        return (rect(p.x, low, lx, high, stroke=group, fill="", width=1.3, dash=(6, 3), id=p.thing.id),)
    hatch = HATCH_OF_GROUP[group] if hatched and p.thing.tank is None and p.aboard else ""
    fill = group if p.aboard else ""
    outline = tank_outline(p, view)
    box = ((p.x, low), (p.x + lx, low), (p.x + lx, low + high), (p.x, low + high))
    points = corners_of(outline.exterior) if outline is not None else box
    shapes: list[Primitive] = [Poly(points, group, fill, 1.3, hatch=hatch, dash=dash, tint=0.24, id=p.thing.id)]
    shapes += figure_shapes(p, view, p.x, low, lx, high)
    if p.level and view == "side":
        wet = _wet(p, outline, low, high)
        if wet:
            shapes.append(Poly(wet, group, group, 0.8, hatch="water", tint=0.62, id=p.thing.id))
    return tuple(shapes)


def _unhatched(view: str) -> Callable[[Placed], tuple[Primitive, ...]]:
    def shapes_of(p: Placed) -> tuple[Primitive, ...]:
        return thing_shapes(p, view, hatched=False)

    return shapes_of


_shapes_of_many = {view: keep_each(_unhatched(view)) for view in ("side", "plan", "rear")}


def figure_shapes(p: Placed, view: str, left: float, low: float, wide: float, high: float) -> list[Primitive]:
    """The pencil figure of what a thing is, inside of its box."""
    ink = group_of(p.thing)
    if p.thing.tank is not None and figure_of(p.thing) == "tank" and tank_outline(p, view) is not None:
        return []  # its own outline says it
    chains = figure(p.thing, view, wide, high, p.turn) if p.state is None else ()
    return [Poly(tuple([(left + x, low + y) for x, y in chain]), ink, "", 0.8, closed=False, id=p.thing.id) for chain in chains]


def tank_outline(p: Placed, view: str) -> Polygon | None:
    """A tank's true outline in a view (side, plan, rear), where it is no box."""
    stand = Stand(p.x, p.y, p.z, p.turn, p.size, p.state)
    plane, shape = outline_of(p.thing, stand) if p.thing.tank else (None, None)
    return shape if plane == {"side": "xz", "plan": "xy", "rear": "yz"}[view] else None


def _wet(p: Placed, outline: Polygon | None, low: float, high: float) -> tuple[Point, ...]:
    """What of a tank is under its level, seen from the side or the rear."""
    vessel = vessel_of(p.thing)
    rise = vessel.fill(p.level or 0.0).height_m if vessel is not None and p.state is None else high * (p.level or 0.0)
    if outline is None:
        return ((p.x, low), (p.x + p.size[0], low), (p.x + p.size[0], low + rise), (p.x, low + rise))
    left, under, right, _ = outline.bounds
    wet = outline.intersection(shapely_box(left - 1, under - 1, right + 1, low + rise))
    return corners_of(wet.exterior) if isinstance(wet, Polygon) and not wet.is_empty else ()


def thing_label(
    p: Placed, view: str, px_per_m: float, words: str, taken: list[Box] | None = None, over: Sequence[Box] = ()
) -> tuple[Text, ...]:
    """Name and mass where they fit inside the box; nothing where they do not.

    taken: label rectangles already set [m]; over: boxes painted over this one. A label that would
    meet either is left out.
    """
    lx, ly, lz = p.size
    tall = lz if view == "side" else ly
    low = p.z if view == "side" else p.y - ly / 2
    room, rows = lx * px_per_m - 6, int(max(tall * px_per_m - 2, 0) // (LABEL * LEADING))
    if rows < 1 or room < 14:
        return ()
    lines = _wrapped(p.thing.name, room, rows)
    if not lines:
        return ()
    if len(lines) < rows and text_width(words, LABEL) <= room:
        lines.append(words)
    step = LABEL * LEADING / px_per_m
    wide = max(text_width(text, LABEL) for text in lines) / px_per_m
    for share in (0.5, 0.25, 0.75, 0.12, 0.88):
        x, y = p.x + lx / 2, low + tall * share
        if (min(y - low, low + tall - y)) < step * len(lines) / 2:
            continue
        spot = (x - wide / 2, y - step * len(lines) / 2, x + wide / 2, y + step * len(lines) / 2)
        if _meets(spot, taken or ()) or _meets(spot, over):
            continue
        if taken is not None:
            taken.append(spot)
        top = y + step * (len(lines) - 1) / 2
        return tuple(
            Text((x, top - step * at), text, LABEL, "pencil" if text == words and at else "ink", ground="body", id=p.thing.id)
            for at, text in enumerate(lines)
        )
    return ()


def _wrapped(name: str, room: float, rows: int) -> list[str]:
    """The name in lines that fit, or nothing."""
    lines: list[str] = []
    for word in name.split():
        joined = f"{lines[-1]} {word}" if lines else word
        if lines and text_width(joined, LABEL) <= room:
            lines[-1] = joined
        else:
            lines.append(word)
    return [] if len(lines) > rows or any(text_width(text, LABEL) > room for text in lines) else lines


class Labels(msgspec.Struct):
    """What has been written in a view so far, so that nothing is written over it."""

    taken: list[Box]
    named: set[str]
    room: Box = (-1e9, -1e9, 1e9, 1e9)  # what of the view is in sight [m]


class _Laid(msgspec.Struct, frozen=True, eq=False):
    """How things lie in a view. order: their places in the list, largest first; heaviest: places in that order."""

    things: tuple[Placed, ...]
    order: tuple[int, ...]
    heaviest: tuple[int, ...]


def _laid_again(old: _Laid, _view: str, things: tuple[Placed, ...]) -> _Laid | None:
    """The same while those that moved kept their size and mass."""
    if len(old.things) != len(things):
        return None
    pairs = [(old.things[at], things[at]) for at in places_changed(old.things, things)]
    return _Laid(things, old.order, old.heaviest) if all(a.size == b.size and a.mass_kg == b.mass_kg for a, b in pairs) else None


@from_last(_laid_again, lambda view, _things: view, most=3)
def _laid(view: str, things: tuple[Placed, ...]) -> _Laid:
    across = 2 if view == "side" else 1
    order = tuple(np.argsort([-p.size[0] * p.size[across] for p in things], kind="stable").tolist())
    heaviest = np.argsort([-things[at].mass_kg for at in order], kind="stable")[:MOST_HATCHED]
    return _Laid(things, order, tuple(heaviest.tolist()))


def things_view(
    s: Studied,
    _row: int,
    view: str,
    px_per_m: float,
    things: Sequence[Placed],
    labels: Labels | None = None,
    under: frozenset[str] = frozenset(),
) -> tuple[Primitive, ...]:
    """All things of one view, big ones under small ones, with the labels that have room inside.

    under: ids that lie under something in this view: dashed lines and no label, as draughtsmen do.
    """
    shown = s.build.brief.reading.shown()
    labels = labels or Labels([], set())
    laid = _laid(view, tuple(things))
    order = [things[at] for at in laid.order]
    many = len(order) > MOST_HATCHED
    drawn = list(_shapes_of_many[view](tuple(order))) if many else [thing_shapes(p, view) for p in order]
    for at, p in enumerate(order) if under else ():
        if p.thing.id in under:
            drawn[at] = tuple(
                [
                    replace(shape, fill="", hatch="", dash=(4, 3), width=0.9) if isinstance(shape, Poly) else shape
                    for shape in thing_shapes(p, view)[:1]
                ]
            )
    shapes = list(chain.from_iterable(drawn))
    told: list[Text] = []
    boxes = [box_of(q, view) for q in order] if len(things) <= MOST_LEADERS else []
    for at in laid.heaviest:
        p = order[at]
        if p.thing.id in under:
            continue
        # a label inside a box must not lie under a smaller box
        over = [b for b in boxes[at + 1 :] if b[2] > b[0]]
        label = thing_label(p, view, px_per_m, weight(p.mass_kg, shown), labels.taken, over)
        told += label
        if label:
            labels.named.add(p.thing.id)
    return (*shapes, *_as_before(view, tuple(told)))


def _again_as_before(old: tuple[Text, ...], _view: str, told: tuple[Text, ...]) -> tuple[Text, ...] | None:
    if len(old) != len(told):
        return None
    return tuple([a if a == b else b for a, b in zip(old, told, strict=True)])


@from_last(_again_as_before, lambda view, _told: view, most=3)
def _as_before(_view: str, told: tuple[Text, ...]) -> tuple[Text, ...]:
    """The same words, as the same objects where they were told so before: whoever paints looks only at what is another one."""
    return told


def clear_of(shapes: Sequence[Primitive], labels: Labels, px_per_m: float) -> tuple[Primitive, ...]:
    """The shapes without those words that would be written over a label; what is written is noted."""
    kept: list[Primitive] = []
    for shape in shapes:
        if isinstance(shape, Text):
            half, tall = (shape.width + 4) / 2 / px_per_m, LABEL * LEADING / 2 / px_per_m
            spot = (shape.at[0] - half, shape.at[1] - tall, shape.at[0] + half, shape.at[1] + tall)
            if _meets(spot, labels.taken):
                continue
            labels.taken.append(spot)
        kept.append(shape)
    return tuple(kept)


def names_beside(s: Studied, view: str, px_per_m: float, things: Sequence[Placed], labels: Labels) -> tuple[Primitive, ...]:
    """Names with leaders for the things that found no room inside their box, heaviest first."""
    if len(things) > MOST_LEADERS:
        return ()
    boxes = [box_of(p, view) for p in things] + _structure(s.build, view)
    edges = _edges(s.build, view)
    shapes: list[Primitive] = []
    for p in sorted(things, key=lambda p: -p.mass_kg):
        if p.thing.id not in labels.named and p.aboard:
            made = _beside(p, px_per_m, boxes, labels, edges, view)
            if made:
                labels.named.add(p.thing.id)
                shapes += made
    return tuple(shapes)


def _structure(build: Build, view: str) -> list[Box]:
    """Rectangles that no name should cover: frame, drawbar, wheels."""
    wheel = wheel_radius_m(build.rig)
    stations = (
        [a.station.si for a in build.rig.axles]
        if build.rig.carrier == "ball"
        else [0.0, build.rig.bed.wheelbase.si if build.rig.bed.wheelbase else 3.0]
    )
    top = frame_top_m(build)
    if view == "side":
        made = [(x - wheel, 0.0, x + wheel, 2 * wheel) for x in stations]
        jack = build.rig.jack_station.si if build.rig.jack_station else None
        return (
            made
            + [(-0.1, top - 0.12, length_m(build) + 0.2, top + 0.01), (-1.0, -0.3, length_m(build) + 1, 0.03)]
            + ([(jack - 0.07, 0.0, jack + 0.07, top)] if jack is not None else [])
        )
    half = (build.rig.track.si if build.rig.track else 1.6) / 2
    return [(x - wheel, side * half - 0.12, x + wheel, side * half + 0.12) for x in stations for side in (-1, 1)] + [
        (-0.3, -0.012, 0.3, 0.012)
    ]


def _edges(build: Build, view: str) -> list[Point]:
    """Points along the body's outline, so that no name stands across the wall."""
    shell = build.shell
    body = silhouette_of(shell)
    if body is None:
        return []
    if view == "side":
        corners = [(float(x), float(z)) for x, z in body.polygon]
    else:
        front, length, half = (
            (shell.front.si if shell.front else 0.0),
            (shell.length.si if shell.length else 0.0),
            (shell.width.si if shell.width else 0.0) / 2,
        )
        corners = (
            [(front + x, y) for x, y in corners_m(shell)]
            if shell.length and shell.width
            else [(front, -half), (front, half), (front + length, half), (front + length, -half)]
        )
    points: list[Point] = []
    for a, b in zip(corners, corners[1:] + corners[:1], strict=True):
        steps = min(max(1, int(max(abs(b[0] - a[0]), abs(b[1] - a[1])) / 0.04)), 400)
        points += [(a[0] + (b[0] - a[0]) * k / steps, a[1] + (b[1] - a[1]) * k / steps) for k in range(steps)]
    return points


def box_of(p: Placed, view: str) -> Box:
    """The thing's rectangle in a view [m]: left, low, right, high."""
    low, tall = (p.z, p.size[2]) if view == "side" else (p.y - p.size[1] / 2, p.size[1])
    return p.x, low, p.x + p.size[0], low + tall


def _meets(a: Box, others: Sequence[Box]) -> bool:
    return any(a[0] < o[2] and a[2] > o[0] and a[1] < o[3] and a[3] > o[1] for o in others)


def _beside(p: Placed, px_per_m: float, boxes: list[Box], labels: Labels, edges: list[Point], view: str) -> tuple[Primitive, ...]:
    """A name set beside its box with a leader, in the nearest free spot; none where there is no room."""
    name = elided(p.thing.name, LABEL, 104)
    wide, tall = (text_width(name, LABEL) + 4) / px_per_m, LABEL * LEADING / px_per_m
    box, taken, room = box_of(p, view), labels.taken, labels.room
    middle = (box[0] + box[2]) / 2
    for up in (9, 20, 34, 50, 68):
        for side in (1, -1):
            y = box[3] + up / px_per_m if side > 0 else box[1] - up / px_per_m
            for aside in (0.0, -0.55, 0.55, -1.0, 1.0):
                x = middle + aside * wide
                spot = (x - wide / 2, y - tall / 2, x + wide / 2, y + tall / 2)
                if spot[0] < room[0] or spot[1] < room[1] or spot[2] > room[2] or spot[3] > room[3]:
                    continue
                if (
                    _meets(spot, boxes)
                    or _meets(spot, taken)
                    or any(spot[0] <= e[0] <= spot[2] and spot[1] <= e[1] <= spot[3] for e in edges)
                ):
                    continue
                start = (middle, box[3] if side > 0 else box[1])
                end = (min(max(middle, spot[0] + 3 / px_per_m), spot[2] - 3 / px_per_m), y - side * tall * 0.5)
                thin = 1.5 / px_per_m
                leader = (min(start[0], end[0]) - thin, min(start[1], end[1]), max(start[0], end[0]) + thin, max(start[1], end[1]))
                if _meets(leader, taken):
                    continue
                taken += [spot, leader]
                return (line(start, end, stroke="pencil", width=0.8, id=p.thing.id), Text((x, y), name, LABEL, "ink", id=p.thing.id))
    return ()


def whole_view(s: Studied, row: int, view: str, px_per_m: float, room: Box = (-1e9, -1e9, 1e9, 1e9)) -> tuple[Primitive, ...]:
    """Rig, body, things and wheels of one view; names keep within ``room`` [m]."""
    things, labels = things_in(s, row), Labels([], set(), room)
    inside = things_view(s, row, view, px_per_m, things, labels)
    beside = names_beside(s, view, px_per_m, things, labels)
    if view == "side":
        return (*side_rig(s.build), *side_body(s.build), *inside, *side_wheels(s.build), *beside)
    return (*plan_rig(s.build), *plan_wheels(s.build), *plan_body(s.build), *inside, *beside)


def _span(stand: Stand) -> tuple[float, float]:
    """Top and reach aside of what stands [m]; what was typed far beyond any rig does not count."""
    top, half = stand.z + stand.size[2], abs(stand.y) + stand.size[1] / 2
    return top if 0 < top < 12 else -1.0, half + 0.05 if half < 6 else 0.0


@keep_each
def _spans(thing: Thing) -> tuple[float, float]:
    return _span(home_of(thing))


@keep(most=4)
def heights_m(build: Build, mode: Mode | None = None) -> tuple[float, float]:
    """Top of the side view and half width of the plan [m], with all that stands about in a mode."""
    body = silhouette_of(build.shell)
    tops = [frame_top_m(build) + 0.3] + ([float(body.skin[:, 1].max()) + 0.22] if body is not None else [])
    things = build.stow.things
    spans = list(_spans(things))
    if mode is not None:
        odd = mode.touched | set(mode.absent)
        for at, thing in enumerate(things) if odd else ():
            if thing.id in odd:
                tops.append(spans[at][0])
                spans[at] = (-1.0, 0.0) if thing.id in mode.absent else _span(stand_of(thing, mode))
    tops += [top for top, _ in spans]
    if mode is not None and body is not None and build.shell.rising is not None and up_in(build.shell, mode):
        tops.append(float(body.skin[:, 1].max()) + build.shell.rising.rise.si + 0.22)
    if build.rig.carrier == "vehicle bed":
        tops.append(2.1)
    halves = [
        (build.rig.track.si if build.rig.track else 1.6) / 2 + 0.12,
        (build.shell.width.si / 2 if build.shell.width and build.shell.form != "none" else 0.7),
    ]
    if mode is not None:
        halves += [half for _, half in spans]
    if build.rig.carrier == "vehicle bed":
        halves.append((build.rig.bed.bed_width.si if build.rig.bed.bed_width else 2.0) / 2)
    return max(tops), max(halves)


def reach_m(build: Build, mode: Mode) -> float:
    """How far aft anything stands in a mode [m]."""
    touched = mode.touched
    stands = [stand_of(thing, mode) for thing in build.stow.things if thing.id in touched] if touched else []
    return max([length_m(build), *(s.x + s.size[0] for s in stands if s.x + s.size[0] < 40)])
