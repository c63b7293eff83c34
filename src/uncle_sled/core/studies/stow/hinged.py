"""Everything that turns up on a hinge: hatches of the body, lids and lifting beds of things; with its struts and its verdict.

A hatch's mass is that of its part (leaf worked out, typed, or guessed by its size), spread evenly over its skin; its centre
follows the body's curve. A lid's is typed or that of its boards, its centre half way to its free edge.
"""

from __future__ import annotations

import itertools
import math

import msgspec
import numpy as np

from uncle_sled.core.document.joinery import Strut
from uncle_sled.core.document.shell import Opening
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.geometry.surfaces import Surface, lengths
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import leaf_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.struts import TEMPERATURES, Swing, Turning, Verdict, strut_fault, swing, verdict

OPENS_DEG = 90.0
SLOPING = 0.3  # outward share of x over which a hatch opens fore or aft and not over its hinge
Point = tuple[float, float]


class Hinged(msgspec.Struct, frozen=True, eq=False):
    """One hatch or lid. outline: the shut lid seen from its side, from the hinge [m]; added_kg: fixed to it later.

    why: what keeps it from being judged; swings: at the three temperatures; all empty then.
    """

    id: str
    name: str
    path: str  # of what carries its strut
    turning: Turning | None
    outline: tuple[Point, ...]
    added_kg: float
    source: str
    strut: Strut | None
    swings: tuple[Swing, ...]
    verdict: Verdict | None
    why: str

    @property
    def second(self) -> bool:
        """Whether something holds it when a strut gives way: the other one of a pair, or what is said."""
        return self.strut is not None and (self.strut.many >= 2 or bool(self.strut.second))

    @property
    def propped(self) -> bool:
        """Whether a second hold of its own is said: a prop, pin, catch, ledge or chain."""
        return self.strut is not None and bool(self.strut.second)


@keep("s.build.shell", "s.build.stow", "s.parts", "s.framed", "s.facts.materials", most=3)
def hinged(s: Studied) -> tuple[Hinged, ...]:
    """Hatches first, then lids, each in the order of the build."""
    made = [
        _hatch(s, opening)
        for opening in s.build.shell.openings
        if opening.kind == "hatch" and opening.opens and opening.hung in ("", "top")
    ]
    made += [_lid(s, thing) for thing in s.build.stow.things if thing.lid is not None and not thing.taken_out]
    return tuple(made)


def _hatch(s: Studied, opening: Opening) -> Hinged:
    path = f"shell.openings.{opening.id}"
    part = next((p for p in s.parts if p.id == opening.id), None)
    leaf = leaf_of(opening, library_of(s.facts.materials)) if opening.mass is None else None
    added = opening.leaf.hangs_on.si if leaf is not None and opening.leaf is not None and opening.leaf.hangs_on is not None else 0.0
    outline = _side_of(s, opening)
    if not outline:
        return Hinged(
            opening.id,
            opening.name,
            path=path,
            turning=None,
            outline=(),
            added_kg=added,
            source="",
            strut=opening.strut,
            swings=(),
            verdict=None,
            why="it is not cut into any face",
        )
    if part is None or part.mass_kg <= 0:
        return Hinged(
            opening.id,
            opening.name,
            path=path,
            turning=None,
            outline=outline,
            added_kg=added,
            source="",
            strut=opening.strut,
            swings=(),
            verdict=None,
            why="what it weighs is not known",
        )
    opens = float(opening.open_deg) if opening.open_deg is not None else OPENS_DEG
    return _judged(opening.id, opening.name, path, _turning(part.mass_kg, outline, opens), outline, added, part.source, opening.strut)


def _side_of(s: Studied, opening: Opening) -> tuple[Point, ...]:
    """The shut leaf from its hinge to its free edge, x the way it opens [m]; nothing where it is not cut."""
    cut = next((c for c in s.framed.cuts if c.id == opening.id and c.good), None)
    if cut is None or s.framed.body is None:
        return ()
    surface = next(x for x in s.framed.body.surfaces if x.id == cut.surface)
    s0, t0, s1, t1 = cut.shape.bounds
    if surface.chain is None:
        foot, head = surface.place((s0 + s1) / 2, t0), surface.place((s0 + s1) / 2, t1)
        long = math.dist(foot, head)
        slope = math.asin(min(max((head[2] - foot[2]) / max(long, 1e-9), -1.0), 1.0))
        out = math.copysign(1.0, -surface.inward[2]) if abs(surface.inward[2]) > 1e-6 else 1.0
        return ((0.0, 0.0), (long * math.cos(slope) * out if out > 0 else 0.0, -long * math.sin(slope)))
    points = _chain(surface, s0, s1)
    if points[0][1] < points[-1][1]:
        points.reverse()  # its hinge is at the higher end
    hinge = points[0]
    middle = surface.place((s0 + s1) / 2, (t0 + t1) / 2, 0.01)
    outer = surface.place((s0 + s1) / 2, (t0 + t1) / 2, 0.0)
    outward = (outer[0] - middle[0]) / 0.01
    sign = math.copysign(1.0, outward) if abs(outward) > SLOPING else math.copysign(1.0, points[-1][0] - hinge[0])
    return tuple(((x - hinge[0]) * sign, z - hinge[1]) for x, z in points)


def _chain(surface: Surface, s0: float, s1: float) -> list[Point]:
    assert surface.chain is not None
    runs = lengths(surface.chain)
    at = [s0, *(float(r) for r in runs if s0 < r < s1), s1]
    return [(float(np.interp(r, runs, surface.chain[:, 0])), float(np.interp(r, runs, surface.chain[:, 1]))) for r in at]


def _turning(mass_kg: float, outline: tuple[Point, ...], opens_deg: float) -> Turning:
    """Centre of an even skin along its outline; the hand at its free end."""
    total = mx = mz = 0.0
    for (ax, az), (bx, bz) in itertools.pairwise(outline):
        long = math.hypot(bx - ax, bz - az)
        total, mx, mz = total + long, mx + long * (ax + bx) / 2, mz + long * (az + bz) / 2
    x, z = (mx / total, mz / total) if total > 0 else (0.0, 0.0)
    return Turning(mass_kg, math.hypot(x, z), math.degrees(math.atan2(z, x)), opens_deg, math.hypot(*outline[-1]))


def _lid(s: Studied, thing: Thing) -> Hinged:
    assert thing.lid is not None
    lid, path = thing.lid, f"stow.things.{thing.id}.lid"
    long = thing.length.si if lid.hinge in ("front", "rear") else thing.width.si
    outline = ((0.0, 0.0), (long, 0.0))
    mass, source = (lid.mass.si, "estimated") if lid.mass is not None else (None, "computed")
    if mass is None:
        board = cabinets_of(s.build, s.facts).get(thing.id)
        library = library_of(s.facts.materials)
        boards = [b for b in board.boards if b.id == "lid"] if board is not None else []
        mass = sum(b.shape.area * library[b.material].weight_kg_m2(b.thick) for b in boards) or None
    if mass is None:
        return Hinged(
            thing.id,
            thing.name,
            path=path,
            turning=None,
            outline=outline,
            added_kg=0.0,
            source="",
            strut=lid.strut,
            swings=(),
            verdict=None,
            why="what its lid weighs is not known",
        )
    return _judged(thing.id, thing.name, path, _turning(mass, outline, float(lid.opens_deg)), outline, 0.0, source, lid.strut)


def _judged(
    id: str, name: str, path: str, turning: Turning, outline: tuple[Point, ...], added: float, source: str, strut: Strut | None
) -> Hinged:
    if strut is None:
        return Hinged(
            id,
            name,
            path=path,
            turning=turning,
            outline=outline,
            added_kg=added,
            source=source,
            strut=None,
            swings=(),
            verdict=None,
            why="no struts are said",
        )
    fault = strut_fault(strut, turning)
    if fault:
        return Hinged(
            id,
            name,
            path=path,
            turning=turning,
            outline=outline,
            added_kg=added,
            source=source,
            strut=strut,
            swings=(),
            verdict=None,
            why=fault,
        )
    try:
        swings = tuple(swing(turning, strut, t) for t in TEMPERATURES)
    except GeometryError as wrong:
        return Hinged(
            id,
            name,
            path=path,
            turning=turning,
            outline=outline,
            added_kg=added,
            source=source,
            strut=strut,
            swings=(),
            verdict=None,
            why=str(wrong),
        )
    return Hinged(
        id,
        name,
        path=path,
        turning=turning,
        outline=outline,
        added_kg=added,
        source=source,
        strut=strut,
        swings=swings,
        verdict=verdict(turning, strut),
        why="",
    )
