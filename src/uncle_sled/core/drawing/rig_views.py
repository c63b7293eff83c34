"""The trailer or truck seen from its left side and from above, to scale, with everything in it.

Side view: station to the right, height up. Plan: station to the right, the right side of the
rig up. Both in metres; ``px_per_m`` is only asked for to know which labels have room.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Mode, Thing
from uncle_sled.core.drawing.primitives import HATCH_OF_GROUP, Circle, Point, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.parts.from_stow import group_of, standing_size_m
from uncle_sled.core.studies.reading import Studied, length_m, silhouette_of
from uncle_sled.core.units import weight

LABEL = 11.0
LEADING = 1.2


@dataclass(frozen=True)
class Placed:
    """A thing where one mode puts it: corner and size of its box [m], and its level if it is a tank."""

    thing: Thing
    x: float
    y: float  # middle
    z: float
    size: tuple[float, float, float]
    turn: int
    level: float | None
    mass_kg: float
    aboard: bool


def things_in(s: Studied, row: int, mode: Mode | None = None) -> tuple[Placed, ...]:
    """Every thing as it stands in a case (or another mode), heaviest first."""
    build, case = s.build, s.table.cases[row] if s.table.cases else None
    mode = mode or (case.mode if case else build.stow.modes[0])
    places = {place.id: place for place in mode.places}
    levels = {lv.id: lv.level for lv in case.case.levels} if case else {}
    weighs: dict[str, float] = {}
    if case:
        for column, id in enumerate(s.table.ids):
            key = id.split("/")[0]
            weighs[key] = weighs.get(key, 0.0) + float(s.table.mass_kg[row, column])
    made = []
    for thing in build.stow.things:
        if thing.id in mode.absent:
            continue
        place = places.get(thing.id)
        turn = place.turn if place else thing.turn
        x, y, z = (place.x.si, place.y.si, place.z.si) if place else (thing.x.si, thing.y.si, thing.z.si)
        mass = weighs.get(thing.id, thing.mass.si)
        made.append(Placed(thing, x, y, z, standing_size_m(thing, turn), turn, levels.get(thing.id, 0.0) if thing.tank else None, mass, mass != 0.0 or thing.mass.si == 0.0))
    return tuple(sorted(made, key=lambda p: -p.size[0] * p.size[2]))


def side_rig(build: Build) -> tuple[Primitive, ...]:
    """Ground, wheels, frame and coupler (or the truck), without the body."""
    reach = length_m(build)
    shapes: list[Primitive] = [line((-0.35, 0.0), (reach + 0.55, 0.0), "pencil", 1.4)]
    wheel = (build.rig.tyre.diameter.si if build.rig.tyre.diameter else 0.6) / 2
    if build.rig.carrier == "vehicle bed":
        return (*shapes, *_truck_side(build, wheel))
    top = frame_top_m(build)
    end = build.rig.frame_length.si if build.rig.frame_length else reach
    ball = ball_height_m(build)
    shapes.append(Poly(((0.05, ball - 0.03), (0.35, top - 0.07), (end, top - 0.07), (end, top), (0.35, top), (0.05, ball + 0.03)), "zinc", "zinc", 1.0, id="frame"))
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
    wheel = (build.rig.tyre.diameter.si if build.rig.tyre.diameter else 0.6) / 2
    if build.rig.carrier == "vehicle bed":
        stations = [("front-axle", 0.0)] + ([("rear-axle", build.rig.bed.wheelbase.si)] if build.rig.bed.wheelbase else [])
    else:
        stations = [(axle.id, axle.station.si) for axle in build.rig.axles]
    shapes: list[Primitive] = []
    for id, at in stations:
        shapes += [Circle((at, wheel), wheel, "ink", "tyre", 1.0, id=id), Circle((at, wheel), wheel * 0.56, "ink", "hub", 1.0, id=id), Circle((at, wheel), wheel * 0.1, "ink", "ink", 1.0, id=id)]
    return tuple(shapes)


def _truck_side(build: Build, wheel: float) -> list[Primitive]:
    bed = build.rig.bed
    base = bed.wheelbase.si if bed.wheelbase else 3.0
    front = bed.bed_front.si if bed.bed_front else 0.8
    top = bed.bed_top.si if bed.bed_top else 0.95
    end = front + (bed.bed_length.si if bed.bed_length else base)
    cab: tuple[Point, ...] = ((-0.85, wheel * 0.8), (-0.85, 1.05), (-0.45, 1.18), (0.05, 1.95), (front - 0.1, 2.0), (front - 0.1, wheel * 0.8))
    window: tuple[Point, ...] = ((-0.2, 1.22), (0.14, 1.82), (front - 0.3, 1.84), (front - 0.3, 1.22))
    return [
        Poly(cab, "vehicle", "vehicle", 1.2, tint=0.35, id="vehicle"), Poly(window, "vehicle", "body", 1.0, id="vehicle"),
        rect(-0.1, wheel * 1.1, end + 0.1, 0.14, stroke="zinc", fill="zinc", id="frame"), rect(front, top - 0.1, end - front, 0.1, stroke="zinc", fill="zinc", id="bed"),
    ]


def frame_top_m(build: Build) -> float:
    wheel = (build.rig.tyre.diameter.si if build.rig.tyre.diameter else 0.6) / 2
    if build.rig.frame_top:
        return build.rig.frame_top.si
    return build.shell.floor.si if build.shell.floor and build.shell.form != "none" else wheel + 0.15


def ball_height_m(build: Build) -> float:
    return build.rig.ball_height.si if build.rig.ball_height else max(frame_top_m(build) - 0.08, 0.2)


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
    nose = build.rig.drawbar_length.si if build.rig.drawbar_length else (build.shell.front.si if build.shell.front and build.shell.form != "none" else 0.3 * end)
    for side in (-1, 1):
        shapes.append(line((0.05, 0.0), (nose, side * width / 2), "zinc", 4.0, id="frame"))
        shapes.append(line((nose, side * width / 2), (end, side * width / 2), "zinc", 3.0, id="frame"))
    shapes += [line((nose, -width / 2), (nose, width / 2), "zinc", 3.0, id="frame"), line((end, -width / 2), (end, width / 2), "zinc", 3.0, id="frame"), Circle((0.0, 0.0), 0.055, "ink", "zinc", 1.2, id="ball")]
    return tuple(shapes)


def plan_wheels(build: Build) -> tuple[Primitive, ...]:
    wheel = (build.rig.tyre.diameter.si if build.rig.tyre.diameter else 0.6) / 2
    wide = build.rig.tyre.width.si if build.rig.tyre.width else 0.17
    if build.rig.carrier == "vehicle bed":
        bed = build.rig.bed
        track = bed.track.si if bed.track else 1.6
        stations = [("front-axle", 0.0)] + ([("rear-axle", bed.wheelbase.si)] if bed.wheelbase else [])
    else:
        track = build.rig.track.si if build.rig.track else 1.5
        stations = [(axle.id, axle.station.si) for axle in build.rig.axles]
    return tuple(
        rect(at - wheel, side * track / 2 - wide / 2, 2 * wheel, wide, stroke="ink", fill="tyre", id=id) for id, at in stations for side in (-1, 1)
    )


def plan_body(build: Build) -> tuple[Primitive, ...]:
    shell = build.shell
    if silhouette_of(shell) is None or not shell.length:
        return ()
    width, front = (shell.width.si if shell.width else 0.0), (shell.front.si if shell.front else 0.0)
    wall = shell.wall.si if shell.wall else 0.0
    if width <= 0:
        return ()
    return (rect(front, -width / 2, shell.length.si, width, stroke="ink", fill="body", width=1.6, band=wall, hatch="wood" if wall else "", id="shell"),)


def thing_shapes(p: Placed, view: str) -> tuple[Primitive, ...]:
    """One thing's box with its level, without its label."""
    lx, ly, lz = p.size
    group = group_of(p.thing)
    low = p.z if view == "side" else p.y - ly / 2
    high = lz if view == "side" else ly
    if lx <= 0 or high <= 0:
        return (Circle((p.x, low), 0.04, group, group, 1.2, id=p.thing.id),)
    dash: tuple[float, ...] = () if p.aboard else (4, 3)
    hatch = HATCH_OF_GROUP[group] if p.thing.tank is None and p.aboard else ""
    shapes: list[Primitive] = [rect(p.x, low, lx, high, stroke=group, fill=group if p.aboard else "", tint=0.24, hatch=hatch, width=1.3, dash=dash, id=p.thing.id)]
    if p.level and view == "side":
        shapes.append(rect(p.x, low, lx, high * p.level, stroke=group, fill=group, tint=0.62, width=0.8, hatch="water", id=p.thing.id))
    return tuple(shapes)


def thing_label(p: Placed, view: str, px_per_m: float, words: str, taken: list[tuple[float, float, float, float]] | None = None) -> tuple[Text, ...]:
    """Name and mass where they fit inside the box; shortened or left to hovering where they do not.

    taken: label rectangles already set [m]; a label that would cross one is left out.
    """
    lx, ly, lz = p.size
    tall = lz if view == "side" else ly
    centre = (p.x + lx / 2, (p.z + lz / 2) if view == "side" else p.y)
    room, rows = lx * px_per_m - 5, int(max(tall * px_per_m - 2, 0) // (LABEL * LEADING))
    if rows < 1 or room < 14:
        return ()
    name, face = p.thing.name, "text"
    lines: list[str]
    if rows >= 2 and text_width(name, LABEL) > room and " " in name:
        lines = _wrapped(name, room, rows)
    else:
        short = elided(name, LABEL, room)
        lines = [short] if len(short) >= min(5, len(name)) else []
    if not lines:
        return ()
    if len(lines) < rows and text_width(words, LABEL) <= room:
        lines.append(words)
    step = LABEL * LEADING / px_per_m
    wide = max(text_width(text, LABEL) for text in lines) / px_per_m
    spot = (centre[0] - wide / 2, centre[1] - step * len(lines) / 2, centre[0] + wide / 2, centre[1] + step * len(lines) / 2)
    if taken is not None:
        if any(spot[0] < o[2] and spot[2] > o[0] and spot[1] < o[3] and spot[3] > o[1] for o in taken):
            return ()
        taken.append(spot)
    top = centre[1] + step * (len(lines) - 1) / 2
    return tuple(
        Text((centre[0], top - step * at), text, LABEL, "pencil" if text == words and at else "ink", face, id=p.thing.id)  # type: ignore[arg-type]
        for at, text in enumerate(lines)
    )


def _wrapped(name: str, room: float, rows: int) -> list[str]:
    lines: list[str] = []
    for word in name.split():
        joined = f"{lines[-1]} {word}" if lines else word
        if lines and text_width(joined, LABEL) <= room:
            lines[-1] = joined
        else:
            lines.append(word)
    if len(lines) > rows or any(text_width(text, LABEL) > room for text in lines):
        short = elided(name, LABEL, room)
        return [short] if len(short) >= 5 else []
    return lines


def things_view(s: Studied, row: int, view: str, px_per_m: float, things: Sequence[Placed]) -> tuple[Primitive, ...]:
    """All things of one view, big ones under small ones, with the labels that have room."""
    shown = s.build.brief.reading.shown()
    order = list(things) if view == "side" else sorted(things, key=lambda p: p.z + p.size[2])
    shapes: list[Primitive] = []
    for p in order:
        shapes += thing_shapes(p, view)
    taken: list[tuple[float, float, float, float]] = []
    for p in sorted(order, key=lambda p: -p.mass_kg):
        shapes += thing_label(p, view, px_per_m, weight(p.mass_kg, shown), taken)
    return tuple(shapes)


def whole_view(s: Studied, row: int, view: str, px_per_m: float) -> tuple[Primitive, ...]:
    """Rig, body, things and wheels of one view."""
    things = things_in(s, row)
    if view == "side":
        return (*side_rig(s.build), *side_body(s.build), *things_view(s, row, view, px_per_m, things), *side_wheels(s.build))
    return (*plan_rig(s.build), *plan_wheels(s.build), *plan_body(s.build), *things_view(s, row, view, px_per_m, things))


def heights_m(build: Build) -> tuple[float, float]:
    """Top of the side view and half width of the plan [m]."""
    body = silhouette_of(build.shell)
    tops = [frame_top_m(build) + 0.3] + ([float(body.skin[:, 1].max())] if body is not None else [])
    tops += [t.z.si + t.height.si for t in build.stow.things if 0 < t.z.si + t.height.si < 12]
    if build.rig.carrier == "vehicle bed":
        tops.append(2.1)
    halves = [(build.rig.track.si if build.rig.track else 1.6) / 2 + 0.12, (build.shell.width.si / 2 if build.shell.width and build.shell.form != "none" else 0.7)]
    if build.rig.carrier == "vehicle bed":
        halves.append((build.rig.bed.bed_width.si if build.rig.bed.bed_width else 2.0) / 2)
    return max(tops), max(halves)
