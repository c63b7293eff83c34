"""Walls and lofts inside the body: their outline from the profile, their sticks, what they weigh, and what cannot be.

Coordinates of an outline are (u, z) [m]: u is the station for a wall along the body, the side (right positive) for one
across; z above the ground. A pocket door goes between the two skins: no stud and no screw may be there.
"""

from __future__ import annotations

import itertools
import math

import msgspec
from shapely import box
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.shell import Loft, Partition, Shell
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import FASTENERS
from uncle_sled.core.geometry.footprint import ends_m, plan_of
from uncle_sled.core.geometry.surfaces import Body, section_points, sectioned
from uncle_sled.core.geometry.tops import edges_of, top_m
from uncle_sled.core.materials import TIMBER, materials
from uncle_sled.core.parts.face_build import Library
from uncle_sled.core.parts.inner_leaf import LEAF_M, InnerLeaf, leaf_of, skin_m
from uncle_sled.core.parts.inside import inside_of, thickness_m

STICK_M, PITCH_M = 0.045, 0.40
PLAY_M = 0.008  # air on each side of a pocket's leaf
POCKET_MORE_M = 0.02  # how much longer a pocket is than its opening
LOFT_KG_M2 = 17.0  # 12 mm ply on 45 x 70 at 400 mm, where nobody said
LEAST_M = 0.02


class Stick(msgspec.Struct, frozen=True):
    """One piece of a partition's frame: what it is, its section and length [m], and where along the wall it stands."""

    kind: str
    section_m: tuple[float, float]
    length_m: float
    u_m: float


class Wall(msgspec.Struct, frozen=True, eq=False):
    """A partition as built: its outline, its door's notch and leaf, its box in plan, its sticks and weight; what is wrong with it."""

    id: str
    name: str
    way: str
    outline: Polygon  # with the door cut out
    door: Polygon | None
    leaf: InnerLeaf | None
    pocket: tuple[float, float] | None  # along it [m]
    low: tuple[float, float]  # corners in plan (x, y)
    high: tuple[float, float]
    sticks: tuple[Stick, ...]
    mass_kg: float
    centre_m: tuple[float, float, float]
    kg_m2: float
    fault: str

    @property
    def boxes(self) -> tuple[tuple[tuple[float, float, float], tuple[float, float, float]], ...]:
        """What it takes of the room, as boxes: beside its door, and over it."""
        u0, low, u1, top = self.outline.bounds
        spans = [(u0, u1, low, top)]
        if self.door is not None:
            left, _, right, head = self.door.bounds
            spans = [(u0, left, low, top), (right, u1, low, top), (left, right, head, top)]
        made = []
        for a, b, c, d in spans:
            if b - a > 1e-4 and d - c > 1e-4:
                if self.way == "across":
                    made.append(((self.low[0], a, c), (self.high[0], b, d)))
                else:
                    made.append(((a, self.low[1], c), (b, self.high[1], d)))
        return tuple(made)


def inner_plan_m(shell: Shell, body: Body) -> tuple[float, float, float, float]:
    """The room inside in plan [m]: front, left, rear, right."""
    left, _, right, _ = inside_of(shell, body).bounds
    half = body.width / 2
    return left, -half + thickness_m(shell, "left side"), right, half - thickness_m(shell, "right side")


def inner_shape(shell: Shell, body: Body) -> Polygon | None:
    """The room in plan where the footprint is no rectangle: each wall's own thickness inside of it."""
    plan = plan_of(shell)
    if plan is None:
        return None
    front, left, rear, right = inner_plan_m(shell, body)
    shape: BaseGeometry = plan.intersection(box(front - 1, left, rear + 1, right))
    for kind in ("front", "rear"):
        thick = thickness_m(shell, kind)
        for a, b in ends_m(shell, kind):
            edge = LineString([(a[0] + body.front, a[1]), (b[0] + body.front, b[1])])
            if thick > 0:
                shape = shape.difference(edge.buffer(thick, cap_style="square", join_style="mitre"))
    return _one(shape)


SHAPES = ("partitions", "nose_point", "tail_clip", "tail_clip_across", "clipped", "faces", "wall", "relined", "survey")


@keep("body", "library", *(f"shell.{name}" for name in SHAPES), most=8)
def walls_of(shell: Shell, body: Body, library: Library) -> tuple[Wall, ...]:
    """Every partition as it would be built; one with a fault has no outline to speak of, and no weight."""
    return tuple(_wall(partition, shell, body, library) for partition in shell.partitions)


def _si(value: object, other: float) -> float:
    return value.si if value is not None else other  # type: ignore[attr-defined,no-any-return]


def _wall(partition: Partition, shell: Shell, body: Body, library: Library) -> Wall:
    front, left, rear, right = inner_plan_m(shell, body)
    floor = body.under + thickness_m(shell, "floor")
    thick = partition.thick.si
    across = partition.way == "across"
    base, end = (left, right) if across else (front, rear)
    shape = inner_shape(shell, body)
    if shape is not None:  # a pointed nose or clipped corner leaves less of it
        near = (body.front if across else left) + partition.at.si + thick / 2
        run = shape.intersection(LineString([(near, left - 1), (near, right + 1)] if across else [(front - 1, near), (rear + 1, near)]))
        if not run.is_empty:
            base, end = (run.bounds[1], run.bounds[3]) if across else (run.bounds[0], run.bounds[2])
    u0, u1 = base + _si(partition.start, 0.0), base + _si(partition.end, end - base)
    at = (body.front if across else left) + partition.at.si
    low = (at, u0) if across else (u0, at)
    high = (at + thick, u1) if across else (u1, at + thick)
    fault = _misplaced(partition, (front, left, rear, right), low, high)
    whole = _whole(partition, shell, body, u0, u1, at, thick, floor) if not fault else Polygon()
    if not fault and (whole.is_empty or whole.area < 1e-4):
        fault = "stands where the body has no height"
    door = pocket = None
    if not fault and partition.door != "none":
        door, pocket, fault = _door(partition, whole, u0, u1, floor)
    if fault:
        return Wall(
            partition.id,
            partition.name,
            way=partition.way,
            outline=Polygon(),
            door=None,
            leaf=None,
            pocket=None,
            low=low,
            high=high,
            sticks=(),
            mass_kg=0.0,
            centre_m=(0.0, 0.0, 0.0),
            kg_m2=0.0,
            fault=fault,
        )
    outline = _one(whole.difference(door)) if door is not None else whole
    sticks = tuple(_sticks(partition, whole, door, pocket)) if partition.made == "sticks" else ()
    leaf = None
    if door is not None:
        left, foot, right, head = door.bounds
        leaf = leaf_of(partition, right - left, head - foot, library)
    mass, kg_m2 = _mass(partition, outline, leaf, sticks, library)
    middle = outline.centroid
    centre = (at + thick / 2, middle.x, middle.y) if across else (middle.x, at + thick / 2, middle.y)
    return Wall(
        partition.id,
        partition.name,
        way=partition.way,
        outline=outline,
        door=door,
        leaf=leaf,
        pocket=pocket,
        low=low,
        high=high,
        sticks=sticks,
        mass_kg=mass,
        centre_m=centre,
        kg_m2=kg_m2,
        fault="",
    )


def _misplaced(partition: Partition, room: tuple[float, ...], low: tuple[float, float], high: tuple[float, float]) -> str:
    front, left, rear, right = room
    if partition.thick.si <= 0:
        return "has no thickness"
    if high[0] - low[0] < LEAST_M / 10 or high[1] - low[1] < LEAST_M / 10:
        return "ends before it begins"
    over = max(front - low[0], left - low[1], high[0] - rear, high[1] - right)
    return f"reaches {{{over * 1000:.0f} mm}} out of the room" if over > 1e-3 else ""


def _whole(partition: Partition, shell: Shell, body: Body, u0: float, u1: float, at: float, thick: float, floor: float) -> Polygon:
    """The wall without its door: what the profile (and the cross-section) leave of it."""
    side = inside_of(shell, body)
    if side.is_empty:
        return Polygon()  # no room is left between the body's walls
    _, low, _, high = side.bounds
    top = floor + _si(partition.height, high - low + 1.0)
    shape: BaseGeometry
    if partition.way == "along":
        shape = side.intersection(box(u0, floor, u1, top))
        if sectioned(shell):
            shape = shape.intersection(box(u0, floor, u1, _section_top(shell, body, at, at + thick)))
    else:
        heights = [_ceiling(side, x) for x in (at + 1e-4, at + thick - 1e-4)]
        shape = box(u0, floor, u1, min([top, *heights]))
        if sectioned(shell):
            shape = shape.intersection(_section(shell, body))
    return _one(shape)


def _ceiling(side: BaseGeometry, x: float) -> float:
    top = top_m(edges_of(side), x, 0.0)
    return top if top is not None else float(side.bounds[1])


def _section(shell: Shell, body: Body) -> Polygon:
    """The cross-section inside, (side, height)."""
    points = [(y - body.width / 2, body.under + z) for y, z in section_points(shell, body)]
    roof = LineString(points[1:-1]).buffer(thickness_m(shell, "roof"), cap_style="square", join_style="mitre")
    return _one(Polygon(points).difference(roof))


def _section_top(shell: Shell, body: Body, left: float, right: float) -> float:
    section = _section(shell, body)
    return min(_ceiling(section, left + 1e-4), _ceiling(section, right - 1e-4))


def _one(shape: BaseGeometry) -> Polygon:
    parts = [part for part in getattr(shape, "geoms", [shape]) if isinstance(part, Polygon) and not part.is_empty]
    return max(parts, key=lambda part: part.area) if parts else Polygon()


def _door(
    partition: Partition, whole: Polygon, u0: float, u1: float, floor: float
) -> tuple[Polygon | None, tuple[float, float] | None, str]:
    wide, high = _si(partition.door_width, 0.6), _si(partition.door_height, 1.8)
    begin = u0 + _si(partition.door_from, max((u1 - u0 - wide) / 2, 0.0))
    if wide <= 0 or high <= 0:
        return None, None, "has a door of no size"
    door = box(begin, floor, begin + wide, floor + high)
    if door.difference(whole).area > 1e-5:
        _, _, _, top = whole.bounds
        over = max(u0 - begin, begin + wide - u1, floor + high - top, 0.001)
        return None, None, f"has a door that reaches {{{over * 1000:.0f} mm}} over its edge"
    pocket = None
    if partition.door == "sliding":
        short = u0 - (begin - wide) if partition.hung == "start" else begin + 2 * wide - u1
        if short > 1e-4:
            return None, None, f"has a door that slides {{{short * 1000:.0f} mm}} past its end"
    if partition.door == "pocket":
        need = wide + POCKET_MORE_M
        pocket = (begin - need, begin) if partition.hung == "start" else (begin + wide, begin + wide + need)
        short = max(u0 - pocket[0], pocket[1] - u1)
        if short > 1e-4:
            return None, None, f"has a pocket {{{short * 1000:.0f} mm}} longer than the wall beside the door"
        skin = skin_m(partition)
        least = LEAF_M + 2 * PLAY_M + 2 * skin
        if partition.made == "sticks" and partition.thick.si < least - 1e-6:
            return None, None, f"is {{{partition.thick.si * 1000:.0f} mm}} thick; its pocket wants {{{least * 1000:.0f} mm}}"
        if partition.made == "panel":
            return None, None, "is a panel, and a pocket wants two skins with air between"
    return door, pocket, ""


def _sticks(partition: Partition, whole: Polygon, door: Polygon | None, pocket: tuple[float, float] | None) -> list[Stick]:
    """Sole, plate along the top, uprights at the ends, beside the door and at the pitch; none where the pocket is."""
    u0, low, u1, _ = whole.bounds
    deep = max(partition.thick.si - 2 * skin_m(partition), 0.005)
    section, b = (STICK_M, deep), STICK_M
    pitch = max(_si(partition.pitch, PITCH_M), b * 1.05)
    gap = (door.bounds[0], door.bounds[2]) if door is not None else None
    made = []
    for a, c in [(u0, gap[0]), (gap[1], u1)] if gap is not None else [(u0, u1)]:
        if c - a > LEAST_M:
            made.append(Stick("sole", section, c - a, (a + c) / 2))
    ring = list(whole.exterior.coords)
    for (x0, z0), (x1, z1) in itertools.pairwise(ring):
        if max(z0, z1) > low + 1e-4 and abs(x1 - x0) > LEAST_M:
            made.append(Stick("plate", section, float(((x1 - x0) ** 2 + (z1 - z0) ** 2) ** 0.5), (x0 + x1) / 2))
    stations = [u0 + b / 2, u1 - b / 2]
    if gap is not None:
        stations += [gap[0] - b / 2, gap[1] + b / 2]
        made.append(Stick("header", section, gap[1] - gap[0] + 2 * b, (gap[0] + gap[1]) / 2))
    at = u0 + pitch
    while at < u1 - b and len(stations) < 200:
        if all(abs(at - other) >= b for other in stations) and not (gap and gap[0] - b < at < gap[1] + b):
            stations.append(at)
        at += pitch
    for u in sorted(stations):
        if pocket is not None and pocket[0] - 1e-6 < u < pocket[1] + 1e-6:
            continue
        if not u0 <= u <= u1:
            continue
        tall = _ceiling(whole, min(max(u, u0 + 1e-4), u1 - 1e-4)) - low - 2 * b
        if tall > LEAST_M:
            made.append(Stick("upright", section, tall, u))
    return made


def _mass(
    partition: Partition, outline: Polygon, leaf: InnerLeaf | None, sticks: tuple[Stick, ...], library: Library
) -> tuple[float, float]:
    """Weight with its door [kg], and of the wall alone per m2."""
    area = max(float(outline.area), 1e-9)
    skin = library.get(partition.skin)
    timber = materials()[TIMBER]
    if partition.made == "panel":
        alone = skin.weight_kg_m2(partition.thick.si) * area if skin is not None else 0.0
    else:
        alone = 2 * (skin.weight_kg_m2(skin_m(partition)) if skin is not None else 0.0) * area
        alone += sum(s.section_m[0] * s.section_m[1] * s.length_m for s in sticks) * (timber.density_kg_m3 or 450.0)
    alone *= 1 + FASTENERS
    leaf_kg = leaf.mass_kg if leaf is not None else 0.0
    return (partition.mass.si if partition.mass is not None else alone + leaf_kg), alone / area


class Deck(msgspec.Struct, frozen=True):
    """A loft as built: its box [m], its weight; what is wrong with it."""

    id: str
    name: str
    low: tuple[float, float, float]
    high: tuple[float, float, float]
    mass_kg: float
    source: str
    fault: str


@keep(most=8)
def decks_of(shell: Shell, body: Body) -> tuple[Deck, ...]:
    """Every loft. Its underside is ``thick`` below its top."""
    return tuple([_deck(loft, shell, body) for loft in shell.lofts])


def _deck(loft: Loft, shell: Shell, body: Body) -> Deck:
    front, left, rear, right = inner_plan_m(shell, body)
    floor = body.under + thickness_m(shell, "floor")
    a, b = body.front + loft.front.si, body.front + loft.rear.si
    top = floor + loft.top.si
    side = inside_of(shell, body)
    fault = ""
    if loft.thick.si <= 0 or loft.top.si - loft.thick.si <= 0:
        fault = "has no thickness, or lies on the floor"
    elif b - a < LEAST_M:
        fault = "ends before it begins"
    elif a < front - 1e-3 or b > rear + 1e-3:
        fault = f"reaches {{{max(front - a, b - rear) * 1000:.0f} mm}} out of the room"
    elif min(_ceiling(side, a + 1e-3), _ceiling(side, b - 1e-3)) < top:
        fault = "lies higher than the ceiling over one of its ends"
    kg = loft.mass.si if loft.mass is not None else LOFT_KG_M2 * max(b - a, 0.0) * (right - left)
    source = loft.source if loft.mass is not None else "estimated"
    return Deck(
        loft.id,
        loft.name,
        low=(a, left, top - loft.thick.si),
        high=(b, right, top),
        mass_kg=0.0 if fault else kg,
        source=source,
        fault=fault,
    )


def inner_of(shell: Shell, body: Body, library: Library) -> tuple[Wall | Deck, ...]:
    """Walls and lofts as built, in the order of ``shell.inner``."""
    made: tuple[Wall | Deck, ...] = walls_of(shell, body, library)
    return made + decks_of(shell, body)


def quieter_db(kg_m2: float, hertz: float = 500.0) -> float:
    """What a plain wall keeps out of sound by its weight alone [dB], 0 or more. Source: mass law, 20 log10(m f) - 47."""
    return max(20 * math.log10(max(kg_m2, 0.1) * hertz) - 47, 0.0)
