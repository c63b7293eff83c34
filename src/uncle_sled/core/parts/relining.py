"""A face of a bought shell stripped and lined again: what goes off, what comes in, how thick and how warm it is then.

Foam lies between the posts, furring across them, the liner over it. Areas are net of openings; rows of furring are cut by
them. Fasteners are counted as everywhere. Screening only where metal goes through foam: both bounds of the warmth are told.
"""

from __future__ import annotations

import msgspec
from shapely import area as polygon_areas
from shapely.geometry import LineString
from shapely.ops import unary_union

from uncle_sled.core.document.shell import Relining, Shell
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.framing.frame_body import FASTENERS, Framed
from uncle_sled.core.geometry.surfaces import Surface, net
from uncle_sled.core.materials import TIMBER, Material, materials
from uncle_sled.core.parts.face_build import R_INSIDE, R_INSIDE_WALL, R_OUTSIDE, R_UNDER, Library
from uncle_sled.core.parts.wall_warmth import Slice, Warmth, tube_m2k_w, warmth

AIR_GAP_M2K_W = 0.18  # unventilated, 25 mm and more; none where foam fills it
HAT_WALL_M = 0.0012
LEAST_GAP_M = 0.005
LEAST_FILLED = 0.3  # of its rectangle: less is a strip round an edge, which nobody foams
POST_ROLES = ("post", "bow", "jamb", "rail")


class Bay(msgspec.Struct, frozen=True):
    """Foam to be cut: width and height of its rectangle [m], how many alike, and the true area of one [m2]."""

    wide_m: float
    high_m: float
    many: int
    area_m2: float


class Relined(msgspec.Struct, frozen=True):
    """What a relining does to its face. Weights in kg, lengths in m, money and hours to compare by."""

    face: str
    area_m2: float
    out_kg: float | None  # None where nobody said what goes off
    out_weighed: bool
    in_kg: float
    room_lost_m: float
    before: Warmth
    after: Warmth
    bays: tuple[Bay, ...]
    furring_m: tuple[float, ...]  # each row
    money: float
    hours: float


def relining_of(shell: Shell, kind: str) -> Relining | None:
    """How a face was lined again; None where it was not."""
    return next((relining for relining in shell.relined if relining.face == kind), None)


def _si(value: msgspec.Struct | None) -> float:
    return value.si if value is not None else 0.0  # type: ignore[attr-defined]


def added_m(relining: Relining) -> float:
    """How far the inside comes in by a relining [m]: furring and liner, less the old liner."""
    old = _si(relining.out_thickness) if relining.out_material or relining.out_mass or relining.out_thickness else 0.0
    return (relining.furring.deep.si if relining.furring else 0.0) + _si(relining.liner_thickness) - old


@keep(by_value("relining"), "shell", "framed", "library", most=32)
def relined(relining: Relining, shell: Shell, framed: Framed, library: Library) -> Relined | None:
    """None where its face is not there."""
    body = framed.body
    surfaces = body.of(relining.face) if body is not None else ()
    if not surfaces:
        return None
    shapes = {surface.id: net(surface.polygon, framed.holes_in(surface.id)) for surface in surfaces}
    area = sum(float(shape.area) for shape in shapes.values())
    posts = [m for m in framed.members if m.face in shapes and m.kind in POST_ROLES]
    share = min(sum(polygon_areas([m.shape for m in posts]).tolist()) / area, 0.9) if area > 0 else 0.0
    deep = posts[0].section_m[1] if posts else (shell.wall.si if shell.wall else 0.0)
    rows = tuple(float(row.length) for surface in surfaces for row in furring_rows(relining, surface, shapes[surface.id]))
    timber = materials()[TIMBER]
    foam, liner, old = (library.get(id) for id in (relining.foam, relining.liner, relining.out_material))
    out = relining.out_mass.si if relining.out_mass is not None else None
    if out is None and old is not None and relining.out_thickness is not None:
        out = area * old.weight_kg_m2(relining.out_thickness.si)
    furring_m3 = sum(rows) * relining.furring.thick.si * relining.furring.deep.si if relining.furring else 0.0
    bays = _bays(surfaces, framed)
    foam_area = sum(bay.area_m2 * bay.many for bay in bays) if bays else area
    weight = (
        (foam.weight_kg_m2(_si(relining.foam_thickness)) * foam_area if foam else 0.0)
        + furring_m3 * (timber.density_kg_m3 or 450.0)
        + (liner.weight_kg_m2(_si(relining.liner_thickness)) * area if liner else 0.0)
    )
    money = (
        (foam.price_m2(_si(relining.foam_thickness)) * foam_area if foam else 0.0)
        + furring_m3 * (timber.money_m3 or 0.0)
        + (liner.price_m2(_si(relining.liner_thickness)) * area if liner else 0.0)
    )
    hours = area * sum(material.hours_m2 for material in (foam, liner, timber if relining.furring else None) if material)
    return Relined(
        relining.face,
        area,
        out_kg=out,
        out_weighed=relining.out_mass is not None,
        in_kg=weight * (1 + FASTENERS),
        room_lost_m=added_m(relining),
        before=_warmth(None, relining.face, share, deep, old, _si(relining.out_thickness), None, 0.0),
        after=_warmth(relining, relining.face, share, deep, liner, _si(relining.liner_thickness), foam, _si(relining.foam_thickness)),
        bays=bays,
        furring_m=rows,
        money=money,
        hours=hours,
    )


def _warmth(
    relining: Relining | None,
    kind: str,
    share: float,
    deep: float,
    liner: Material | None,
    liner_m: float,
    foam: Material | None,
    foam_m: float,
) -> Warmth:
    """Skin, posts with foam or air between them, furring with air between, liner."""
    films = R_INSIDE.get(kind, R_INSIDE_WALL) + (R_UNDER if kind == "floor" else R_OUTSIDE)
    between = min(foam_m, deep)
    fill = (foam.resistance_m2k_w(between) if foam else 0.0) + (AIR_GAP_M2K_W if deep - between > LEAST_GAP_M else 0.0)
    posts = Slice(max(fill, 1e-6), tube_m2k_w(deep, 0.038, HAT_WALL_M) if deep > 0 else None, share if deep > 0 else 0.0)
    crossing: tuple[Slice, ...] = ()
    if relining is not None and relining.furring is not None and relining.furring.deep.si > 0:
        timber = materials()[TIMBER]
        high = relining.furring.deep.si
        over = max(foam_m - deep, 0.0)
        gap = (foam.resistance_m2k_w(min(over, high)) if foam and over > 0 else 0.0) + (AIR_GAP_M2K_W if high - over > LEAST_GAP_M else 0.0)
        wide = relining.furring.thick.si / max(_si(relining.furring_pitch) or 0.4, relining.furring.thick.si)
        crossing = (Slice(max(gap, 1e-6), timber.resistance_m2k_w(high), min(wide, 1.0)),)
    inner = (Slice(liner.resistance_m2k_w(liner_m)),) if liner is not None else ()
    return warmth((posts, *inner), films, crossing)


def furring_rows(relining: Relining, surface: Surface, shape: object) -> list[LineString]:
    """Middles of the furring's rows on a face laid flat [m], across the posts, cut by openings."""
    if relining.furring is None or relining.furring.thick.si <= 0:
        return []
    pitch = max(_si(relining.furring_pitch) or 0.4, relining.furring.thick.si)
    left, low, right, high = surface.polygon.bounds
    half = relining.furring.thick.si / 2
    at, made = low + half, list[LineString]()
    while at < high - half + 1e-9 and len(made) < 400:
        run = LineString([(left - 1, at), (right + 1, at)]).intersection(shape)
        made += [part for part in getattr(run, "geoms", [run]) if isinstance(part, LineString) and part.length > 0.04]
        at += pitch
    return made


def _bays(surfaces: tuple[Surface, ...], framed: Framed) -> tuple[Bay, ...]:
    """What is left between the sticks of the surfaces, gathered by size to the millimetre, largest first."""
    found: dict[tuple[float, float], list[float]] = {}
    for surface in surfaces:
        sticks = [m.shape for m in framed.on(surface.id)]
        free = net(surface.polygon, framed.holes_in(surface.id))
        if not sticks:
            continue
        free = free.difference(unary_union(sticks))
        for part in getattr(free, "geoms", [free]):
            left, low, right, high = part.bounds
            square = part.area > LEAST_FILLED * (right - left) * (high - low)
            if square and part.area > 0.002 and min(right - left, high - low) > 0.03:
                found.setdefault((round(right - left, 3), round(high - low, 3)), []).append(float(part.area))
    order = sorted(found.items(), key=lambda pair: (-pair[0][0] * pair[0][1], pair[0]))
    return tuple(Bay(wide, high, len(areas), sum(areas) / len(areas)) for (wide, high), areas in order)


def why_not(relining: Relining, shell: Shell, framed: Framed, library: Library, whole_kg: float | None) -> str:
    """What is wrong with a relining, as a sentence; nothing where it can be. Args: whole_kg: the trailer as weighed."""
    for id, what in ((relining.foam, "foam"), (relining.liner, "liner"), (relining.out_material, "old liner")):
        if id and id not in library:
            return f"There is no material “{id}” for the {what}."
    for value, what in ((relining.foam_thickness, "foam"), (relining.liner_thickness, "liner"), (relining.out_thickness, "old liner")):
        if value is not None and value.si < 0:
            return f"The {what} is {{{value.si * 1000:.0f} mm}} thick; 0 or more would be right."
    made = relined(relining, shell, framed, library)
    if made is None:
        return f"There is no {relining.face} to line."
    if made.out_kg is not None and made.out_kg < 0:
        return f"What goes off the {relining.face} weighs {{{made.out_kg:.1f} kg}}; 0 or more would be right."
    if made.out_kg is not None and whole_kg is not None and made.out_kg > whole_kg:
        return f"What goes off the {relining.face} weighs {{{made.out_kg:.0f} kg}}, more than the whole trailer as weighed."
    posts = [m for m in framed.members if m.face_kind == relining.face]
    room = (posts[0].section_m[1] if posts else 0.0) + (relining.furring.deep.si if relining.furring else 0.0)
    if relining.foam and posts and _si(relining.foam_thickness) > room + 1e-6:
        return f"Foam {{{_si(relining.foam_thickness) * 1000:.0f} mm}} thick does not go between posts and under furring {{{room * 1000:.0f} mm}} deep."
    if relining.furring is not None and min(relining.furring.thick.si, relining.furring.deep.si) <= 0:
        return "Furring has a side of nothing; type both its sizes."
    return ""
