"""A roof that goes up where one camps: which part, the room it opens, the cloth that closes it, and what it weighs.

Straight up, the part of the roof between two stations is lifted with all of its curve. About an edge, it turns on that edge
until the other edge is up by the rise: sin(turn) = rise / length. Cloth: the sides that open, triangles where it turns.
Check 2.0 x 1.5 m, 0.4 up straight: 2 x 0.4 x 3.5 = 2.8 m2; about its front: 1.5 x 0.4 + 2.0 x 0.4 cos(11.5 deg) = 1.384 m2.
"""

from __future__ import annotations

import math

import msgspec
from shapely import affinity, box
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from uncle_sled.core.document.shell import Rising, Shell
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.engine import keep
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.geometry.tops import edges_of, top_m
from uncle_sled.core.parts.face_build import Library

FITTINGS_KG_M = 1.4  # of its edge, where nobody said: rails, hinges, struts, frames
SHORTEST_M, STEEPEST_DEG = 0.3, 60.0
U_CLOTH_W_M2K = 1 / (0.13 + 0.04)  # two films of air and nothing between


class Risen(msgspec.Struct, frozen=True):
    """The roof as it stands up. a_m, b_m: stations of its part; turn_deg: 0 where it goes straight.

    around_m: its edge; long_m, wide_m: of the part; top_down_m, top_up_m: highest point over the ground; fault: why it cannot be.
    """

    way: str
    rise_m: float
    a_m: float
    b_m: float
    long_m: float
    wide_m: float
    turn_deg: float
    cloth_m2: float
    top_down_m: float
    top_up_m: float
    fault: str

    @property
    def around_m(self) -> float:
        """All of its edge [m]."""
        return 2 * (self.long_m + self.wide_m)

    @property
    def folds(self) -> bool:
        """Whether it is a side that folds down about its foot."""
        return self.way.startswith("fold ")

    @property
    def out(self) -> float:
        """Which way a side folds: -1 to the left, 1 to the right."""
        return -1.0 if self.way == "fold left" else 1.0

    @property
    def lifts(self) -> bool:
        """Whether it goes straight up."""
        return self.way == "lifts"

    @property
    def side_m2(self) -> float:
        """Of the cloth on one long side, which a wind from that side meets [m2]."""
        if self.way not in ("front", "rear"):
            return self.long_m * self.rise_m
        return self.long_m * math.cos(math.radians(self.turn_deg)) * self.rise_m / 2


def risen_of(shell: Shell, body: Body | None) -> Risen | None:
    """What a body's roof does; None where it stays down."""
    rising = shell.rising
    if rising is None or body is None or body.width <= 0:
        return None
    return _risen(body, rising)


@keep("body", "rising", most=4)
def _risen(body: Body, rising: Rising) -> Risen:
    front = body.front
    a = front + (rising.part_from.si if rising.part_from is not None else 0.0)
    b = front + (rising.part_to.si if rising.part_to is not None else body.length)
    rise, long, wide = rising.rise.si, b - a, body.width
    run = long if rising.way in ("front", "rear") else wide
    fault, turn = "", 0.0
    if rising.way.startswith("fold "):
        return _folded(body, rising, a, b)
    if rise <= 0:
        fault = "does not go up at all"
    else:
        fault = _along_fault(body, a, b)
    if not fault and rising.way != "lifts":
        share = rise / max(run, 1e-9)
        turn = math.degrees(math.asin(min(share, 1.0)))
        if turn > STEEPEST_DEG:
            fault = f"would turn {turn:.0f}°; {STEEPEST_DEG:.0f}° is the most"
    flat = run * math.cos(math.radians(turn))
    if rising.way == "lifts":
        cloth = 2 * rise * (long + wide)
    else:
        other = wide if rising.way in ("front", "rear") else long
        cloth = other * rise + flat * rise
    side = Polygon(body.side.polygon)
    top = float(side.bounds[3])
    up = top if fault else max(float(_raised(side.buffer(0), rising.way, rise, turn, a, b).bounds[3]), top)
    return Risen(
        rising.way,
        rise,
        a_m=a,
        b_m=b,
        long_m=max(long, 0.0),
        wide_m=wide,
        turn_deg=turn,
        cloth_m2=0.0 if fault else cloth,
        top_down_m=top,
        top_up_m=up,
        fault=fault,
    )


def _along_fault(body: Body, a: float, b: float) -> str:
    """What is wrong with where a part begins and ends; nothing where it lies on the body and is long enough."""
    over, long = max(body.front - a, b - body.front - body.length), b - a
    if over > 1e-6:
        return f"reaches {{{over * 1000:.0f} mm}} past the body"
    return "" if long >= SHORTEST_M else f"is {{{long * 1000:.0f} mm}} long; {{{SHORTEST_M * 1000:.0f} mm}} is the least"


def _folded(body: Body, rising: Rising, a: float, b: float) -> Risen:
    """A side that lies level about its foot: as far out as it is high, cloth from its outer edge to the roof's, two ends of it."""
    name = "left side" if rising.way == "fold left" else "right side"
    shape = unary_union([surface.polygon for surface in body.of(name)])
    long, high = b - a, 0.0
    fault = "has no side that could fold" if shape.is_empty else _along_fault(body, a, b)
    if not fault:
        part = shape.intersection(box(a - body.front, -1, b - body.front, 99))
        tops = [height for _, height in _tops(part)] if not part.is_empty else [0.0]
        high = min(tops)  # a curve leaves it as high as where it is lowest
        if high < SHORTEST_M:
            fault = f"is {{{high * 1000:.0f} mm}} high at its lowest; {{{SHORTEST_M * 1000:.0f} mm}} is the least"
    top = float(Polygon(body.side.polygon).bounds[3])
    cloth = long * math.hypot(high, high) + high * high
    return Risen(
        rising.way,
        high,
        a_m=a,
        b_m=b,
        long_m=max(long, 0.0),
        wide_m=high,
        turn_deg=90.0,
        cloth_m2=0.0 if fault else cloth,
        top_down_m=top,
        top_up_m=top,
        fault=fault,
    )


def up_in(shell: Shell, mode: Mode) -> bool:
    """Whether the roof is up in a mode: where one stands, unless the mode says that it stays down."""
    return shell.rising is not None and not mode.towing and not mode.roof_down


def raised_side(shape: BaseGeometry, risen: Risen) -> BaseGeometry:
    """An outline seen from the side, (station, height), with what the roof opens over it; about a long edge: by its highest."""
    if risen.folds:
        return shape
    return _raised(shape, risen.way, risen.rise_m, risen.turn_deg, risen.a_m, risen.b_m)


def raised_section(shape: BaseGeometry, risen: Risen) -> BaseGeometry:
    """The same of a cross-section, (across, height)."""
    if risen.folds:
        left, low, right, _ = shape.bounds
        edge = left if risen.out < 0 else right
        return unary_union([shape, Polygon([(edge, low), (edge + risen.out * risen.rise_m, low), (edge, low + risen.rise_m)])])
    _, low, _, _ = shape.bounds
    if risen.way in ("left", "right"):
        return unary_union([shape, _turned_over(shape, risen.turn_deg, about_first=risen.way == "left")])
    return unary_union([shape, _swept_up(shape, low, risen.rise_m)])


def _raised(shape: BaseGeometry, way: str, rise: float, turn_deg: float, a: float, b: float) -> BaseGeometry:
    _, low, _, high = shape.bounds
    part = shape.intersection(box(a, low - 1, b, high + 1))
    if part.is_empty:
        return shape
    if way in ("front", "rear"):
        return unary_union([shape, _turned_over(part, turn_deg, about_first=way == "front")])
    return unary_union([shape, _swept_up(part, low, rise)])


def _tops(shape: BaseGeometry) -> list[tuple[float, float]]:
    """The upper edge of an outline, from its left to its right end."""
    outline = max((part for part in getattr(shape, "geoms", [shape])), key=lambda part: part.area)
    edges = edges_of(outline)
    stations = sorted({float(x) for x, _ in outline.exterior.coords})
    return [(x, top) for x in stations if (top := top_m(edges, x, 0.0)) is not None]


def _swept_up(part: BaseGeometry, low: float, rise: float) -> Polygon:
    """What an outline covers while it goes straight up, from its foot on."""
    tops = _tops(part)
    if len(tops) < 2:
        return Polygon()
    return Polygon([(tops[0][0], low), *((x, z + rise) for x, z in tops), (tops[-1][0], low)]).buffer(0)


def _turned_over(part: BaseGeometry, turn_deg: float, about_first: bool) -> BaseGeometry:
    """What opens under an upper edge that turns about its first or last end."""
    tops = _tops(part)
    if len(tops) < 2:
        return Polygon()
    hinge = tops[0] if about_first else tops[-1]
    turned = affinity.rotate(LineString(tops), turn_deg if about_first else -turn_deg, origin=hinge)
    up = [(float(x), float(z)) for x, z in turned.coords]
    back = list(reversed(tops))
    return Polygon([*up, *back]).buffer(0)


def cloth_kg(risen: Risen, rising: Rising, library: Library) -> float | None:
    """What its sides weigh [kg]; None where nobody knows the cloth."""
    material = library.get(rising.cloth)
    return risen.cloth_m2 * material.weight_kg_m2(0.0) if material is not None and material.kg_m2 is not None else None


def fittings_kg(risen: Risen, rising: Rising) -> tuple[float, str]:
    """Struts, hinges and frames [kg], and how that is known."""
    if rising.fittings is not None:
        return rising.fittings.si, "estimated"
    return FITTINGS_KG_M * risen.around_m, "guessed"


def guys_hold_n(rising: Rising) -> float | None:
    """What the guys hold against a wind from one side [N]; None where there are some and nobody said what one holds."""
    if rising.guys <= 0:
        return 0.0
    if rising.guy_n is None:
        return None
    return math.floor(rising.guys / 2) * rising.guy_n * math.cos(math.radians(45.0))
