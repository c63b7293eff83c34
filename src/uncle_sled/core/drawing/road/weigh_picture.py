"""Where the wheels stand: this car and this trailer from the side, platforms and scales under what is read."""

from __future__ import annotations

import math

from msgspec.structs import replace

from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.car_side import NOSE_M, car_side, car_stations
from uncle_sled.core.drawing.rig.rig_views import side_wheels
from uncle_sled.core.drawing.shell.trailer_side import trailer_side
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.road.weighing import SHORT, WAY_WORDS, Weighed
from uncle_sled.core.words import Words, lower_first

SCALE_HIGH_M, LIFTED_M = 0.10, 0.45
STAGED = ("platform with the car", "trailer on its jack", "tilted", "vehicle axles")  # weighed twice


# Which readings are written under which of the marks of a picture, by the way and its stage.
READ_AT: dict[tuple[str, int], dict[str, tuple[str, ...]]] = {
    ("platform with the car", 0): {"steer": ("steer",), "drive": ("drive",), "trailer": ("trailer",)},
    ("platform with the car", 1): {"steer": ("steer alone",), "drive": ("drive alone",)},
    ("vehicle axles", 0): {"steer": ("steer",)},
    ("vehicle axles", 1): {"drive": ("drive",)},
    ("trailer on its jack", 0): {"whole": ("whole",)},
    ("trailer on its jack", 1): {"axles": ("axles",)},
    ("plank", 0): {"scale": ("plank", "bare plank")},
    ("tongue scale", 0): {"ball": ("ball",)},
    ("total and ball", 0): {"whole": ("total",), "ball": ("ball",)},
    ("ruler", 0): {"jack": ("jack",)},
    ("wheel pads", 0): {"pad": ("left", "right"), "ball": ("ball",)},
    ("tilted", 0): {"ball": ("level",)},
    ("tilted", 1): {"ball": ("raised",)},
}


def sum_of(what: Weighed, axle_m: float | None, words: Words) -> str:
    """The arithmetic of a ticket in one line; nothing where it says nothing."""
    if what.faults:
        return ""
    ticket, kg = what.ticket, {reading.id: words.bare_kg(reading.kg) for reading in what.ticket.readings}
    if ticket.way == "vehicle axles" and what.total_kg is not None:
        return f"In all: {kg['steer']} + {kg['drive']} = {words.kg(what.total_kg)}"
    if what.tongue_kg is None:
        return ""
    ball = words.kg(what.tongue_kg)
    if ticket.way == "platform with the car":
        car = f" − {words.bare_kg(ticket.car_kg)} that left the car" if ticket.car_kg else ""
        return f"Ball: {kg['steer']} + {kg['drive']} − {kg['steer alone']} − {kg['drive alone']}{car} = {ball}"
    if ticket.way == "trailer on its jack" and ticket.jack is not None and axle_m is not None:
        return f"Ball: ({kg['whole']} − {kg['axles']}) × ({words.m(axle_m)} − {words.m(ticket.jack.si)}) ÷ {words.m(axle_m)} = {ball}"
    if ticket.way == "plank" and ticket.plank_scale is not None and ticket.plank_coupler is not None:
        return (
            f"Ball: ({kg['plank']} − {kg['bare plank']}) × {words.m(ticket.plank_scale.si)} ÷ {words.m(ticket.plank_coupler.si)} = {ball}"
        )
    if ticket.way == "ruler" and what.total_kg is not None and what.left_kg is not None and what.right_kg is not None:
        return f"In all: {words.bare_kg(what.left_kg)} + {words.bare_kg(what.right_kg)} + {kg['jack']} = {words.kg(what.total_kg)}; ball {ball}"
    if ticket.way == "wheel pads" and what.total_kg is not None:
        return f"In all: {kg['left']} + {kg['right']} + {kg['ball']} = {words.kg(what.total_kg)}"
    if ticket.way == "tilted" and what.cg_m is not None and ticket.wheel_radius is not None and axle_m is not None:
        return f"Centre: {words.m(ticket.wheel_radius.si)} + (({kg['level']} − {kg['raised']}) × {words.m(axle_m)} ÷ tan {ticket.tilt_deg:g}° + {kg['raised']} × coupler over hub) ÷ {kg['total']} = {words.m(what.cg_m)} high"
    return ""


def weigh_picture(s: Studied, way: str, stage: int, wide: float, high: float, what: Weighed | None = None) -> tuple[Primitive, ...]:
    """One stage of a way of weighing. Args: stage: 0, or 1 for what is weighed second; what: readings to write into it."""
    words = Words(s.build.brief.reading.shown())
    cars = vehicles_of(s.build.brief, s.facts)
    with_car = way == "platform with the car" and bool(cars)
    shapes: list[Primitive] = []
    ball = s.build.rig.ball_height.si if s.build.rig.ball_height else 0.45
    long = length_m(s.build)
    axles = [axle.station.si for axle in s.build.rig.axles] or [long * 0.6]
    nose = car_stations(cars[0])[0] - NOSE_M - 0.3 if with_car else -1.6
    left, right = nose, long + 0.4
    trailer_here = not (with_car and stage == 1)
    on: list[tuple[float, float, str]] = []
    if with_car:
        shapes += car_side(cars[0], ball)
        front, rear, _ = car_stations(cars[0])
        on += [(front, front, "steer"), (rear, rear, "drive")]
    tilt = LIFTED_M if way == "tilted" and stage == 1 else 0.0
    if trailer_here:
        shapes += _trailer(s, axles[-1], tilt)
        if way == "vehicle axles":
            at = (s.build.rig.bed.wheelbase.si if s.build.rig.bed.wheelbase is not None else 3.0) if stage else 0.0
            on.append((at, at, "drive" if stage else "steer"))
        elif way == "platform with the car":
            on.append((min(axles), max(axles), "trailer"))
        elif way == "trailer on its jack":
            jack = s.build.rig.jack_station.si if s.build.rig.jack_station else 0.5
            shapes += [line((jack, 0.0), (jack, ball), "zinc", 5.0)]
            on.append((min(axles) if stage else min(jack, *axles), max(axles), "whole" if not stage else "axles"))
        elif way == "total and ball":
            shapes.append(line((0.0, SCALE_HIGH_M), (0.0, ball), "zinc", 5.0))
            on += [(min(axles), max(axles), "whole"), (0.0, 0.0, "ball")]
        elif way == "wheel pads":
            shapes.append(line((0.0, SCALE_HIGH_M), (0.0, ball), "zinc", 5.0))
            on += [(min(axles), max(axles), "pad"), (0.0, 0.0, "ball")]
        elif way == "ruler":
            jack = s.build.rig.jack_station.si if s.build.rig.jack_station else 0.5
            shapes.append(line((jack, SCALE_HIGH_M), (jack, ball), "zinc", 5.0))
            on.append((jack, jack, "jack"))
            for axle in axles:  # a ruler at the spring, and a print under the wheel
                shapes += [
                    line((axle + 0.34, 0.1), (axle + 0.34, 0.62), "ochre", 3.0),
                    line((axle - 0.08, 0.0), (axle + 0.08, 0.0), "primer", 5.0),
                ]
        elif way == "plank":
            shapes += [
                line((-0.35, 0.12), (0.9, 0.12), "wood", 6.0),
                Poly(((-0.4, 0.0), (-0.3, 0.0), (-0.35, 0.1)), "ink", "zinc"),
                line((0.0, 0.14), (0.0, ball), "zinc", 5.0),
            ]
            on.append((0.9, 0.9, "scale"))
        else:
            shapes.append(line((0.0, SCALE_HIGH_M), (0.0, ball + tilt), "zinc", 5.0))
            on.append((0.0, 0.0, "ball"))
    for a, b, name in on:
        reach = 0.42 if a != b or name not in ("scale", "ball", "jack") else 0.25
        shapes.append(
            rect(a - reach, -SCALE_HIGH_M, b - a + 2 * reach, SCALE_HIGH_M, stroke="chalk", fill="chalk", width=1.6, tint=0.35, id=name)
        )
    read = {reading.id: reading.kg for reading in what.ticket.readings} if what is not None else {}
    tall = max((float(z) for _, z in s.framed.body.side.polygon), default=2.2) if s.framed.body is not None else 1.8
    scale = max(min((wide - 30) / (right - left), (high - 112) / (tall + tilt + 0.2)), 4.0)
    ground = 64.0 + max(high - 112 - (tall + tilt + 0.2) * scale, 0.0) / 2
    made = list(placed(shapes, scale, 15 - left * scale, ground))
    made.append(line((8, ground), (wide - 8, ground), "pencil", 1.2))
    taken = -1e9
    for a, b, name in sorted(on):
        x = 15 + ((a + b) / 2 - left) * scale
        made.append(Text((x, ground - 22), lower_first(SHORT.get(name, name)), 11, "chalk", "strong"))
        told = [
            f"{lower_first(SHORT.get(id, id))} {words.kg(read[id])}" if len(ids) > 1 else words.kg(read[id])
            for ids in [READ_AT.get((way, stage), {}).get(name, ())]
            for id in ids
            if id in read
        ]
        if told:
            read_off = Text((x, ground - 38), ", ".join(told), 12, "ink", "strong", ground="paper")
            if x - read_off.width / 2 < taken + 6:  # it would touch the one before: under it
                read_off = replace(read_off, at=(x, ground - 54))
            taken = x + read_off.width / 2
            made.append(read_off)
    sum_ = sum_of(what, _axle(s), words) if what is not None and stage == (1 if way in STAGED else 0) else ""
    if sum_:
        made.append(Text((12, high - 32), elided(sum_, 12, wide - 24), 12, "chalk", "text", "left"))
    stages = {
        "platform with the car": ("1: hitched, bars slack", "2: the car alone, the same people in it"),
        "vehicle axles": ("1: front wheels on the platform", "2: rear wheels on the platform"),
        "trailer on its jack": ("1: wheels and jack on the platform", "2: only the wheels"),
        "tilted": ("1: level", "2: raised ten degrees or more, springs blocked"),
    }
    title = stages.get(way, (WAY_WORDS[way], WAY_WORDS[way]))[stage]
    made.append(Text((12, high - 14), title, 12, "ink", "strong", "left"))
    return tuple(made)


def _axle(s: Studied) -> float | None:
    """Where the axles act together [m]; None without a reading."""
    rows = s.towing_rows
    at = float(s.readings.effective_axle_m[rows[0]]) if rows and len(s.readings.effective_axle_m) else math.nan
    return at if math.isfinite(at) else None


def _trailer(s: Studied, rear_m: float, tilt: float) -> list[Primitive]:
    """The trailer; a raised nose lifts the coupler, its rear wheels stay. Args: rear_m: its last axle; tilt: of the coupler [m]."""

    def up(p: Point) -> Point:
        return p[0], p[1] + tilt * max(1.0 - p[0] / max(rear_m, 0.1), -0.4)

    wheels = side_wheels(s.build)
    shapes: list[Primitive] = []
    for shape in trailer_side(s):
        if isinstance(shape, Poly) and tilt:
            shape = replace(shape, points=tuple(up(p) for p in shape.points))
        elif isinstance(shape, Circle) and tilt and shape not in wheels:
            shape = replace(shape, centre=up(shape.centre))
        shapes.append(shape)
    return shapes
