"""Everything that turns up on a hinge: hatches of the body, lids and lifting beds of things; with its struts and its verdict.

A hatch's mass is that of its part (leaf worked out, typed, or guessed by its size), spread evenly over its skin; its centre
follows the body's curve. A lid's is typed or that of its boards, its centre half way to its free edge.
"""

from __future__ import annotations

import itertools
import math
from typing import Literal

import msgspec

from uncle_sled.core.document.joinery import Strut
from uncle_sled.core.document.shell import Opening, Rising
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import OPENS_DEG, leaf_in
from uncle_sled.core.parts.leaf_side import Point, leaf_side
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.rising_roof import roof_up
from uncle_sled.core.studies.stow.struts import TEMPERATURES, Swing, Turning, Verdict, strut_fault, swing, verdict


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
    roof = roof_up(s)
    if roof is not None and roof.turning is not None:
        run = roof.turning.hand_m
        made.append(
            _judged(
                "rising",
                "Roof",
                "shell.rising",
                roof.turning,
                ((0.0, 0.0), (run, 0.0)),
                0.0,
                "computed",
                _held_twice(s.build.shell.rising, roof.strut),
            )
        )
    made += [_lid(s, thing) for thing in s.build.stow.things if thing.lid is not None and not thing.taken_out]
    return tuple(made)


SECOND: dict[str, Literal["", "prop", "pin", "catch", "ledge", "chain"]] = {"pin": "pin", "prop": "prop", "strap": "chain"}


def _held_twice(rising: Rising | None, strut: Strut | None) -> Strut | None:
    """The roof's struts with what holds it when one gives way."""
    if rising is None or strut is None or rising.second not in SECOND:
        return strut
    return msgspec.structs.replace(strut, second=SECOND[rising.second])


def _hatch(s: Studied, opening: Opening) -> Hinged:
    path = f"shell.openings.{opening.id}"
    part = next((p for p in s.parts if p.id == opening.id), None)
    leaf = leaf_in(s.framed, opening, library_of(s.facts.materials)) if opening.mass is None else None
    added = opening.leaf.hangs_on.si if leaf is not None and opening.leaf is not None and opening.leaf.hangs_on is not None else 0.0
    side = leaf_side(s.framed, opening)
    outline = side.outline if side is not None else ()
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
