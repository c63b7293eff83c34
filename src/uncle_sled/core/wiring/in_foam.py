"""How much of a wire's way lies in insulation, and how many loaded wires lie beside it in one tray.

A way is known point by point: what of it runs inside the thickness of a wall, roof or floor whose layers hold foam or wool lies
in that. Ampacity by length in insulation and by number in a bundle: BS 7671 practice (``conductors.derating``).
"""

from __future__ import annotations

import itertools
import math

from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.systems import Tray, Wire
from uncle_sled.core.engine import keep
from uncle_sled.core.materials import materials
from uncle_sled.core.wiring.route import AT_WALL_M, Inside, Spot

INSULATES_W_MK = 0.06  # foam, wool and cork lie under it, wood over it
STEP_M = 0.02
TRAY_NEAR_M = 0.01


@keep("shell", most=4)
def insulated_faces(shell: Shell) -> frozenset[str]:
    """Kinds of faces with a layer or a lining that insulates; of materials of one's own nobody says so here."""

    def insulates(material: str) -> bool:
        known = materials().get(material)
        return known is not None and known.conductivity_w_mk is not None and known.conductivity_w_mk <= INSULATES_W_MK

    found = {face.kind for face in shell.faces if any(insulates(layer.material) for layer in face.layers)}
    return frozenset(found | {relining.face for relining in shell.relined if relining.foam and insulates(relining.foam)})


def foam_m(points: tuple[Spot, ...], inside: Inside | None, insulated: frozenset[str]) -> float:
    """Length of a way inside insulated walls, roof or floor [m]; 0 without a body."""
    if inside is None or not insulated:
        return 0.0
    total = 0.0
    for a, b in itertools.pairwise(points):
        run = math.dist(a, b)
        if run <= 0 or _never(a, b, inside):
            continue
        steps = max(math.ceil(run / STEP_M), 1)
        for k in range(steps):
            share = (k + 0.5) / steps
            x, y, z = (p + (q - p) * share for p, q in zip(a, b, strict=True))
            if _within_a_face(x, y, z, inside) in insulated:
                total += run / steps
    return round(total, 4)


def _never(a: Spot, b: Spot, inside: Inside) -> bool:
    """Whether a straight run lies all in the room: between the walls' insides, over the floor and under the lowest ceiling of its stations."""
    thick = inside.thick
    front, rear = sorted((a[0], b[0]))
    if front < inside.front or rear > inside.rear or max(abs(a[1]), abs(b[1])) > inside.half - thick:
        return False
    ceiling = min(
        inside.top(front), inside.top(rear), *(h for x, h in zip(inside.stations, inside.ceiling, strict=True) if front <= x <= rear)
    )
    return min(a[2], b[2]) >= inside.under + thick and max(a[2], b[2]) <= ceiling + AT_WALL_M


def _within_a_face(x: float, y: float, z: float, inside: Inside) -> str:
    """The face whose thickness holds a spot; nothing where it is in the open, inside or outside."""
    thick = inside.thick
    if thick <= 0 or not (inside.front - thick < x < inside.rear + thick) or abs(y) > inside.half:
        return ""
    low, high = inside.under, inside.top(x) + AT_WALL_M + thick
    if not (low < z < high):
        return ""
    if abs(y) > inside.half - thick:
        return "left side" if y < 0 else "right side"
    if x < inside.front:
        return "front"
    if x > inside.rear:
        return "rear"
    if z < low + thick:
        return "floor"
    return "roof" if z > high - thick else ""


def in_trays(ways_of_wires: dict[str, tuple[Spot, ...]], wires: dict[str, Wire], trays: tuple[Tray, ...]) -> dict[str, int]:
    """How many loaded wires lie in the fullest tray that each wire runs in; wires in no tray are left out."""
    many: dict[str, int] = {}
    for tray in trays:
        inside = [id for id, points in ways_of_wires.items() if wires[id].kind != "earth" and _runs_in(points, tray)]
        for id in inside:
            many[id] = max(many.get(id, 0), len(inside))
    return many


def _runs_in(points: tuple[Spot, ...], tray: Tray) -> bool:
    low, high = sorted((tray.front.si, tray.rear.si))
    y, z = tray.y.si, tray.z.si
    for a, b in itertools.pairwise(points):
        near = all(abs(p[1] - y) < TRAY_NEAR_M and abs(p[2] - z) < TRAY_NEAR_M for p in (a, b))
        if near and min(max(a[0], b[0]), high) - max(min(a[0], b[0]), low) > TRAY_NEAR_M:
            return True
    return False
