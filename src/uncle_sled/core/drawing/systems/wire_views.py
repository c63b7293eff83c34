"""Wires and devices as they lie in the body, in side view or plan, in metres; each with its id."""

from __future__ import annotations

import itertools

from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, rect
from uncle_sled.core.wiring.route import Spot
from uncle_sled.core.wiring.wired import Laid, Wired

DEVICE_M = 0.07
INK = {"DC": "ink", "panel": "power", "AC": "zinc", "earth": "spruce"}
WIDE = {"DC": 1.4, "panel": 1.6, "AC": 2.2, "earth": 1.2}
DASH: dict[str, tuple[float, ...]] = {"DC": (), "panel": (6.0, 2.0), "AC": (), "earth": (2.0, 2.0)}


def flat(spot: Spot, pane: str) -> Point:
    """A spot in the body [m] as the side or the plan sees it."""
    return (spot[0], spot[2]) if pane == "side" else (spot[0], spot[1])


def wires_view(wired: Wired, pane: str, chosen: frozenset[str]) -> tuple[Primitive, ...]:
    """All wires of a view, those chosen over the others."""
    order = sorted(wired.wires, key=lambda wire: wire.id in chosen)
    return tuple([wire_shape(wire, pane, wire.id in chosen) for wire in order])


def wire_shape(wire: Laid, pane: str, chosen: bool) -> Poly:
    """A wire along its way in one view [m]; chosen ones stand out, unsized ones are red."""
    ink = "chalk" if chosen else INK[wire.kind] if wire.mm2 is not None else "primer"
    wide = WIDE[wire.kind] * (2.2 if chosen else 1.0)
    return Poly(tuple(flat(p, pane) for p in wire.points), ink, "", wide, closed=False, dash=() if chosen else DASH[wire.kind], id=wire.id)


def devices_view(wired: Wired, pane: str, scale: float, chosen: frozenset[str]) -> tuple[Primitive, ...]:
    """Devices as small boxes; the name beside the one that is chosen."""
    shapes: list[Primitive] = []
    half = max(DEVICE_M / 2, 4 / scale)
    for device in wired.devices:
        x, up = flat((device.x.si, device.y.si, device.z.si), pane)
        on = device.id in chosen
        shapes.append(
            rect(
                x - half,
                up - half,
                2 * half,
                2 * half,
                stroke="chalk" if on else "ink",
                fill="power",
                width=2.0 if on else 1.0,
                tint=0.5,
                id=device.id,
            )
        )
        if on:
            shapes.append(Text((x, up + half + 9 / scale), device.name, 11, "chalk", "strong", ground="paper", id=device.id))
    return tuple(shapes)


def labels_view(wired: Wired, pane: str, scale: float) -> tuple[Primitive, ...]:
    """The number of every wire on the longest part of its way, where there is room for it."""
    shapes: list[Primitive] = []
    taken: list[Point] = []
    for wire in wired.wires:
        points = [flat(p, pane) for p in wire.points]
        runs = sorted(itertools.pairwise(points), key=lambda run: -(abs(run[1][0] - run[0][0]) + abs(run[1][1] - run[0][1])))
        for a, b in runs[:2]:
            at = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
            if abs(a[0] - b[0]) + abs(a[1] - b[1]) < 26 / scale or any(
                abs(at[0] - x) < 20 / scale and abs(at[1] - y) < 13 / scale for x, y in taken
            ):
                continue
            taken.append(at)
            shapes.append(Text(at, wire.number, 10, "ink", "strong", ground="paper", id=wire.id))
            break
    return tuple(shapes)
