"""Where the wheels stand: this car and this trailer from the side, platforms and scales under what is read."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.car_side import WHEEL_M, car_side, car_stations
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.studied import Studied, length_m, silhouette_of
from uncle_sled.core.studies.road.weighing import WAY_WORDS

SCALE_HIGH_M, LIFTED_M = 0.10, 0.45


def weigh_picture(s: Studied, way: str, stage: int, wide: float, high: float) -> tuple[Primitive, ...]:
    """One stage of a way of weighing. Args: stage: 0, or 1 for what is weighed second."""
    cars = vehicles_of(s.build.brief, s.facts)
    with_car = way == "platform with the car" and bool(cars)
    shapes: list[Primitive] = []
    ball = s.build.rig.ball_height.si if s.build.rig.ball_height else 0.45
    long = length_m(s.build)
    axles = [one.station.si for one in s.build.rig.axles] or [long * 0.6]
    left, right = (-5.2 if with_car else -1.6), long + 0.4
    trailer_here = not (with_car and stage == 1)
    on: list[tuple[float, float, str]] = []
    if with_car:
        shapes += car_side(cars[0], ball)
        front, rear, _ = car_stations(cars[0])
        on += [(front, front, "steer"), (rear, rear, "drive")]
    tilt = LIFTED_M if way == "tilted" and stage == 1 else 0.0
    if trailer_here:
        shapes += _trailer(s, axles, ball, long, tilt)
        if way == "platform with the car":
            on.append((min(axles), max(axles), "trailer"))
        elif way == "trailer on its jack":
            jack = s.build.rig.jack_station.si if s.build.rig.jack_station else 0.5
            shapes += [line((jack, 0.0), (jack, ball), "zinc", 5.0)]
            on.append((min(axles) if stage else min(jack, *axles), max(axles), "whole" if not stage else "axles"))
        elif way == "wheel pads":
            on += [(at, at, "pad") for at in axles] + [(0.0, 0.0, "ball")]
        elif way == "plank":
            shapes += [line((-0.35, 0.12), (0.9, 0.12), "wood", 6.0), Poly(((-0.4, 0.0), (-0.3, 0.0), (-0.35, 0.1)), "ink", "zinc"), line((0.0, 0.14), (0.0, ball), "zinc", 5.0)]  # fmt: skip
            on.append((0.9, 0.9, "scale"))
        else:
            shapes.append(line((0.0, SCALE_HIGH_M), (0.0, ball + tilt), "zinc", 5.0))
            on.append((0.0, 0.0, "ball"))
    for a, b, name in on:
        reach = 0.42 if a != b or name not in ("scale", "ball") else 0.25
        shapes.append(rect(a - reach, -SCALE_HIGH_M, b - a + 2 * reach, SCALE_HIGH_M, stroke="chalk", fill="chalk", width=1.6, tint=0.35, id=name))  # fmt: skip
    scale = min((wide - 30) / (right - left), (high - 66) / 3.2)
    made = list(placed(shapes, scale, 15 - left * scale, 34))
    made.append(line((8, 34), (wide - 8, 34), "pencil", 1.2))
    for a, b, name in on:
        made.append(Text((15 + ((a + b) / 2 - left) * scale, 14), name, 11, "chalk", "strong"))
    stages = {"platform with the car": ("1: hitched, bars slack", "2: the car alone, the same people in it"), "trailer on its jack": ("1: wheels and jack on the platform", "2: only the wheels"), "tilted": ("1: level", "2: raised ten degrees or more, springs blocked")}  # fmt: skip
    title = stages.get(way, (WAY_WORDS[way], WAY_WORDS[way]))[stage]
    made.append(Text((12, high - 14), title, 12, "ink", "strong", "left"))
    return tuple(made)


def _trailer(s: Studied, axles: list[float], ball: float, long: float, tilt: float) -> list[Primitive]:
    """Frame, body and wheels; a raised nose lifts the coupler."""

    def up(x: float, z: float) -> tuple[float, float]:
        return x, z + tilt * max(1.0 - x / max(axles[-1], 0.1), -0.4)

    top = s.build.rig.frame_top.si if s.build.rig.frame_top else 0.5
    shapes: list[Primitive] = [line(up(0.0, ball), up(long, top), "zinc", 4.0)]
    body = silhouette_of(s.build.shell)
    if body is not None and len(body.polygon) > 2:
        points = tuple(up(float(x), float(z)) for x, z in body.polygon)
        shapes.append(Poly(points, "ink", "wood", 1.4, hatch="wood", tint=0.3))
    for at in axles:
        shapes += [Circle((at, WHEEL_M), WHEEL_M, "ink", "tyre"), Circle((at, WHEEL_M), WHEEL_M * 0.55, "ink", "hub")]
    shapes.append(Circle(up(0.0, ball), 0.05, "ink", "zinc"))
    return shapes
