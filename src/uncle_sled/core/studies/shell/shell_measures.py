"""What room does the body give, how does it leave the ground, and how is it bolted down?

Inside is the silhouette less the roof's and floor's build-up. Departure by the tangent from the tail to the
rear tyre. Bolts: 1.0 g of braking in shear and towing air under the roof in tension, on working loads of a
10 mm bolt in timber; a screening only (docs/methods.md).
"""

from __future__ import annotations

import itertools
import math

import msgspec
import numpy as np
from shapely import bounds, get_parts, intersection, length, linestrings
from shapely.geometry import LineString
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.project import Build
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import Framed, wheel_box_spans
from uncle_sled.core.geometry.bend_radius import least_radius_m
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.parts.all_parts import axle_middle_m
from uncle_sled.core.parts.from_rig import wheel_radius_m
from uncle_sled.core.parts.inside import inside_of, thickness_m
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.units import GRAVITY

MATTRESS_M = 0.40  # top of a mattress above the underside, where nobody said
GUST_PA, UPLIFT = 735.0, 1.2  # 35 m/s of towing air, on a roof's edge
# Working shear of a 10 mm bolt in 18 mm plywood (45 mm softwood: 2.1 kN). Source: timber code estimate (docs/methods.md).
BOLT_SHEAR_N, BOLT_TENSION_N, MOST_BOLT_PITCH_M = 1600.0, 2500.0, 0.6
BESIDE_M, MOST_BOLTS = 0.05, 200
HEAD_STEP_M = 0.05


class Measures(msgspec.Struct, frozen=True):
    """Room and outside of a body [m, m2, degrees]; None where it cannot be said yet."""

    outline_area_m2: float
    skin_area_m2: float
    inside_length_m: float | None
    mattress_m: float  # height above the ground that the length was taken at
    mattress_span_m: tuple[float, float] | None
    inside_height_m: float | None
    inside_width_m: float | None
    head_room: tuple[tuple[float, float], ...]  # station, height over the floor
    departure_deg: float | None
    overhang_m: float | None  # past the frame's end
    hatch_line: tuple[float, float] | None  # station and height of its hinge edge
    radii_m: tuple[tuple[str, float], ...]  # tightest of each curved face


class Bolts(msgspec.Struct, frozen=True):
    """Bolts from body to frame: how many, their stations on each rail, their greatest distance [m]."""

    many: int
    stations_m: tuple[float, ...]
    pitch_m: float
    shear_n: float
    uplift_n: float


@keep("s.build.shell", "s.build.rig", "s.framed", most=4)
def measures(s: Studied) -> Measures | None:
    """The body's measures, or None without one."""
    shell, body = s.build.shell, s.framed.body
    if body is None:
        return None
    level = body.under + (shell.mattress.si if shell.mattress else MATTRESS_M)
    span, rooms = _lying_and_standing(inside_of(shell, body), level)
    side = thickness_m(shell, "left side")
    return Measures(
        body.side.area_m2,
        sum(surface.area_m2 for surface in body.surfaces),
        inside_length_m=span[1] - span[0] if span else None,
        mattress_m=level,
        mattress_span_m=span,
        inside_height_m=max((room for _, room in rooms), default=None),
        inside_width_m=body.width - 2 * side if body.width > 2 * side else None,
        head_room=tuple(rooms),
        departure_deg=departure_deg(s.build, body),
        overhang_m=_overhang(s.build, body),
        hatch_line=_hatch_line(s.framed),
        radii_m=tuple((kind, least_radius_m(body.side.chain(kind))) for kind in ("front", "roof", "rear")),
    )


@keep("inside", "level", most=4)
def _lying_and_standing(inside: BaseGeometry, level: float) -> tuple[tuple[float, float] | None, list[tuple[float, float]]]:
    """The longest run at a level from station to station, and the height of the room by station [m]."""
    left, low, right, high = inside.bounds if not inside.is_empty else (0.0,) * 4
    span = _longest(inside, LineString([(left - 1, level), (right + 1, level)]))
    return span, _head_room(inside, left, low, right, high) if right - left < 40 else []


def _head_room(inside: BaseGeometry, left: float, low: float, right: float, high: float) -> list[tuple[float, float]]:
    """Height of the longest upright run at every step along a room [m], all cut at once."""
    xs = np.arange(left + HEAD_STEP_M / 2, right, HEAD_STEP_M)
    if not len(xs):
        return []
    lines = linestrings([[(x, low - 1), (x, high + 1)] for x in xs.tolist()])
    runs, of = get_parts(intersection(inside, lines), return_index=True)
    tops: dict[int, tuple[float, float]] = {}
    for at, long, top in zip(of.tolist(), length(runs).tolist(), bounds(runs)[:, 3].tolist(), strict=True):
        if long > tops.get(at, (0.0, 0.0))[0]:
            tops[at] = (long, top)
    return [(float(xs[at]), top - low) for at, (_, top) in sorted(tops.items())]


def _longest(shape: BaseGeometry, line: LineString) -> tuple[float, float] | None:
    cut = shape.intersection(line)
    runs = [g for g in getattr(cut, "geoms", [cut]) if g.geom_type == "LineString" and g.length > 0]
    if not runs:
        return None
    left, _, right, _ = max(runs, key=lambda g: g.length).bounds
    return left, right


def departure_deg(build: Build, body: Body) -> float | None:
    """Angle from the ground, past the rear tyre, to the lowest corner of the tail [degrees]."""
    rig = build.rig
    stations = [a.station.si for a in rig.axles] if rig.carrier == "ball" else [axle_middle_m(rig) or 0.0]
    if not stations:
        return None
    axle, radius = max(stations), wheel_radius_m(rig)
    corners = [(float(x), float(z)) for x, z in body.side.polygon]
    if rig.frame_length and rig.frame_top:
        corners.append((rig.frame_length.si, rig.frame_top.si - 0.07))
    angles = []
    for x, z in corners:
        far = math.hypot(x - axle, z - radius)
        if x > axle and far > radius:
            angles.append(math.degrees(math.atan2(z - radius, x - axle) + math.asin(radius / far)))
    return min(angles, default=None)


def _overhang(build: Build, body: Body) -> float | None:
    if build.rig.carrier != "ball" or build.rig.frame_length is None:
        return None
    return body.front + body.length - build.rig.frame_length.si


def _hatch_line(framed: Framed) -> tuple[float, float] | None:
    """The edge of the rear hatch that is highest."""
    cut = next((c for c in framed.cuts if c.kind == "hatch" and c.good and c.surface in ("rear", "roof")), None)
    if cut is None or framed.body is None:
        return None
    surface = next(face for face in framed.body.surfaces if face.id == cut.surface)
    left, low, right, high = cut.shape.bounds
    ends = [surface.place(s, t) for s in (left, right) for t in (low, high)]
    top = max(ends, key=lambda p: p[2])
    return top[0], top[2]


def _bolt_places(
    front: float, a: float, b: float, many: int, joists: list[float], spans: tuple[float, float, float, float] | None
) -> tuple[float, ...]:
    """Stations of bolts on one rail, evenly from a to b, beside joists and clear of wheel boxes."""
    places = []
    for x in np.linspace(a, b, min(many, MOST_BOLTS)):
        at = float(x)
        near = min(joists, key=lambda j: abs(j - at), default=None)
        if near is not None and abs(near - at) < BESIDE_M:  # a bolt goes down beside a joist, not through it
            at = near + (BESIDE_M if at >= near else -BESIDE_M)
        if spans is None or not spans[0] <= at - front <= spans[1]:
            places.append(round(at, 3))
    return tuple(sorted(set(places)))


def bolts(s: Studied) -> Bolts | None:
    """Bolts from the body down to the frame. Source: statics; working loads as in docs/methods.md."""
    body = s.framed.body
    if body is None or not len(s.readings.total_kg) or body.length <= 0.4 or body.width <= 0:
        return None
    rig_kg = sum(p.mass_kg for p in s.parts if p.made_by.startswith("rig"))
    mass = max(float(np.nanmax(s.readings.total_kg)) - rig_kg, 0.0)
    shear, uplift = mass * GRAVITY, GUST_PA * UPLIFT * body.length * body.width
    wanted = max(math.ceil(shear / BOLT_SHEAR_N), math.ceil(uplift / BOLT_TENSION_N), 4)
    a, b = body.front + 0.1, body.front + body.length - 0.1
    typed = s.build.shell.framing.bolt_pitch
    most = typed.si - 2 * BESIDE_M if typed and typed.si > 3 * BESIDE_M else MOST_BOLT_PITCH_M - 2 * BESIDE_M
    # where the builder says how far apart, that many are laid, enough or not: Holds judges them
    a_side = max(math.ceil((b - a) / most) + 1, 2 if typed else math.ceil(wanted / 2))
    joists = sorted(
        body.front + sum(x for x, _ in m.outline) / len(m.outline)
        for m in s.framed.on("floor")
        if not m.along_s and m.role in ("joist", "trimmer")
    )
    spans = wheel_box_spans(s.build.shell, body, axle_middle_m(s.build.rig))
    # where the rails run inside of the wheel boxes, nothing is in the bolts' way
    frame = s.build.rig.frame_width.si if s.build.rig.frame_width else body.width
    if spans is not None and frame / 2 < body.width / 2 - spans[2]:
        spans = None
    stations = _bolt_places(body.front, a, b, a_side, joists, spans)
    while typed is None and 2 * len(stations) < wanted and a_side < MOST_BOLTS:  # the wheel boxes took some
        a_side += 1
        stations = _bolt_places(body.front, a, b, a_side, joists, spans)
    widest = max((q - p for p, q in itertools.pairwise(stations)), default=0.0)
    return Bolts(2 * len(stations), stations, widest, shear, uplift)
