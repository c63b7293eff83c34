"""The body as the surfaces it is built of: flat walls and slopes, and skins that are swept over the width.

A body is a side silhouette swept over its width, or cut by a cross-section (gable, butterfly, sideways
shed, bevelled edges). Each surface has its own flat coordinates (s, t) [m]: s along it, t up or across,
and is laid flat as it will be cut. Source: developable surfaces, any sheet-metal text.
"""

from __future__ import annotations

import itertools
import math

import msgspec
import numpy as np
from shapely import box
from shapely.geometry import LineString, Polygon

from uncle_sled.core.document.shell import Opening, Shell
from uncle_sled.core.engine import keep
from uncle_sled.core.geometry.footprint import ends_m, plan_of, run_m, side_span_m
from uncle_sled.core.geometry.profile import TRUE_M, Outline, Points, outline, parted_at_corners

Vector = tuple[float, float, float]
SIDES = ("left side", "right side")
FLAT_M = 2e-3
SHORT_M = 0.1  # of a floor: shorter it is none
FALL = 1 / 40  # of a flat roof, where its low edge is not given
FIRST_EAVES, FIRST_BEVEL = 0.7, 0.25  # of height; metres


class Surface(msgspec.Struct, frozen=True):
    """One face or part of a face, laid flat.

    Flat: ``origin`` and the unit vectors of s and t, ``inward`` pointing into the body. Swept: ``chain``
    of (station, height) that s runs along, t from the left edge across.
    """

    id: str
    kind: str
    polygon: Polygon
    origin: Vector = (0.0, 0.0, 0.0)
    along: Vector = (1.0, 0.0, 0.0)
    up: Vector = (0.0, 0.0, 1.0)
    inward: Vector = (0.0, 1.0, 0.0)
    chain: Points | None = None
    roof_edges: tuple[LineString, ...] = ()  # edges that roof or nose lies over

    @property
    def area_m2(self) -> float:
        """Area as it lies flat, openings and all."""
        return float(self.polygon.area)

    @property
    def swept(self) -> bool:
        """Whether it bends: it follows a chain over the body."""
        return self.chain is not None

    @property
    def curved(self) -> bool:
        """Whether a swept skin is bent, and not one flat slope."""
        if self.chain is None:
            return False
        (ax, az), (bx, bz) = self.chain[0], self.chain[-1]
        long = max(math.hypot(bx - ax, bz - az), 1e-9)
        off = (bx - ax) * (az - self.chain[:, 1]) - (ax - self.chain[:, 0]) * (bz - az)
        return bool(np.abs(off).max() / long > FLAT_M)

    def place(self, s: float, t: float, depth_m: float = 0.0) -> Vector:
        """Station, side and height [m] of a point of the surface, moved inward by a depth."""
        if self.chain is None:
            x, y, z = (self.origin[k] + self.along[k] * s + self.up[k] * t + self.inward[k] * depth_m for k in range(3))
            return x, y, z
        x, y, z = self.places(np.array([s]), np.array([t]), depth_m)[0].tolist()
        return x, y, z

    def places(self, s: Points, t: Points, depth_m: float = 0.0) -> Points:
        """The same of many points, shape (n,) each to (n, 3)."""
        if self.chain is None:
            run, rise, deep = (np.array(way) for way in (self.along, self.up, self.inward))
            return np.array(self.origin) + np.outer(s, run) + np.outer(t, rise) + deep * depth_m
        runs = lengths(self.chain)
        at = np.clip(np.searchsorted(runs, s, side="right") - 1, 0, len(self.chain) - 2)
        a, b = self.chain[at], self.chain[at + 1]
        long = np.maximum(runs[at + 1] - runs[at], 1e-9)[:, None]
        share, run = (s - runs[at])[:, None] / long, (b - a) / long
        # walking from the front foot over the roof, the inside is on the right hand
        flat = a + (b - a) * share + np.stack([run[:, 1], -run[:, 0]], axis=1) * depth_m
        return np.stack([flat[:, 0], self.origin[1] + t, flat[:, 1]], axis=1)


class Body(msgspec.Struct, frozen=True):
    """Silhouette and surfaces of a body; sizes in metres."""

    side: Outline
    surfaces: tuple[Surface, ...]
    front: float
    under: float
    length: float
    width: float
    height: float

    def of(self, kind: str) -> tuple[Surface, ...]:
        """All surfaces of a kind."""
        return tuple(face for face in self.surfaces if face.kind == kind)


def lengths(chain: Points) -> Points:
    """Running length along a chain [m], shape (n,)."""
    return np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(chain, axis=0).T))])


def eaves_m(shell: Shell, height: float) -> float:
    """Height of the low edge of the roof above the underside [m], as typed or as a first guess."""
    if shell.eaves is not None:
        return min(max(shell.eaves.si, 0.0), height)
    if shell.form == "flat":
        across = shell.width if shell.low_side in ("left", "right") else shell.length
        return max(height - (across.si if across else 0.0) * FALL, 0.2 * height)
    return height * (FIRST_EAVES if shell.form != "butterfly" else 0.85)


# all of a shell that its body follows: openings are cut into it, and one that is moved leaves it as it is
UNCUT = tuple(f"shell.{name}" for name in Shell.__struct_fields__ if name != "openings")


@keep(*UNCUT, most=4)
def body_of(shell: Shell) -> Body | None:
    """The body's surfaces, or None where there is none to build yet."""
    side = silhouette(shell)
    if side is None or not shell.length or not shell.height:
        return None
    wide = shell.width.si if shell.width and shell.width.si > 0 else 0.0
    made = Body(
        side,
        (),
        front=shell.front.si if shell.front else 0.0,
        under=shell.floor.si if shell.floor else 0.0,
        length=shell.length.si,
        width=wide,
        height=shell.height.si,
    )
    if wide <= 0:
        return made
    surfaces = _by_section(shell, made) if sectioned(shell) else _swept(made, shell)
    return Body(side, surfaces, front=made.front, under=made.under, length=made.length, width=made.width, height=made.height)


def sectioned(shell: Shell) -> bool:
    """Whether the body's cross-section is no rectangle: its ends are cut by it."""
    return shell.form in ("gable", "butterfly", "bevelled") or (shell.form in ("shed", "flat") and shell.low_side in ("left", "right"))


def silhouette(shell: Shell) -> Outline | None:
    """The outline of the left side [m]: front foot over the roof to the rear foot."""
    made = outline(shell)
    if made is None or shell.form in ("none", "profile", "box", "gable", "butterfly"):
        return made
    assert shell.length and shell.height
    x, z = (shell.front.si if shell.front else 0.0), (shell.floor.si if shell.floor else 0.0)
    long, high = shell.length.si, shell.height.si
    if shell.form == "bevelled":
        b = bevel_m(shell)
        points = [(0, 0), (0, high - b), (b, high), (long - b, high), (long, high - b), (long, 0)]
    elif shell.low_side in ("left", "right"):
        return made
    else:
        low = eaves_m(shell, high)
        front, rear = (high, low) if shell.low_side == "rear" else (low, high)
        points = [(0, 0), (0, front), (long, rear), (long, 0)]
    skin = np.array(points, dtype=float) + [x, z]
    return Outline(skin.copy(), skin)


def bevel_m(shell: Shell) -> float:
    """Side of the bevels along the roof of a bevelled body [m]."""
    assert shell.length and shell.height
    most = min(shell.length.si, shell.width.si if shell.width else shell.length.si, 2 * shell.height.si) / 2 - 0.01
    return max(min(shell.bevel.si if shell.bevel else FIRST_BEVEL, most), 0.01)


def _swept(body: Body, shell: Shell) -> tuple[Surface, ...]:
    """Sides of the silhouette, and the skin in three runs: front, roof, rear; walls of a footprint that is no rectangle."""
    half, wide = body.width / 2, body.width
    plan = plan_of(shell)
    made = [_floor(body, plan)]
    flat = body.side.polygon - [body.front, body.under]
    runs = [(id, kind, chain) for kind in ("front", "roof", "rear") for id, chain in _runs_of(body, kind)]
    over = tuple(LineString(chain - [body.front, body.under]) for _, kind, chain in runs if not (kind != "roof" and _plumb(chain)))
    for name, y, inward in (("left side", -half, 1.0), ("right side", half, -1.0)):
        side = _valid(Polygon(flat))
        if plan is not None:
            begin, end = side_span_m(shell, name)
            side = _valid(side.intersection(box(begin, -1, end, body.height + 1)))
        made.append(Surface(name, name, side, (body.front, y, body.under), inward=(0.0, inward, 0.0), roof_edges=over))
    for id, kind, chain in runs:
        if kind != "roof" and plan is not None:
            made += _end_walls(body, shell, kind)
            continue
        if kind != "roof" and _plumb(chain):
            wall = box(0, 0, wide, float(np.ptp(chain[:, 1])))
            made.append(_end_wall(body, kind, wall, float(chain[0, 0]), id=id, foot_m=float(chain[:, 1].min())))
            continue
        long = float(lengths(chain)[-1])
        if long > 1e-6:
            shape = box(0, 0, long, wide)
            if plan is not None:  # one slope: along the run as along the body
                share = long / max(body.length, 1e-9)
                shape = _valid(Polygon([((x - body.front) * share, y + half) for x, y in plan.exterior.coords]))
            made.append(Surface(id, kind, shape, (0.0, -half, 0.0), chain=chain))
    return tuple(made)


def _runs_of(body: Body, kind: str) -> list[tuple[str, Points]]:
    """The skin that faces one way, parted at its corners, each with its id; a tail that was said to be one stays whole."""
    chain = body.side.chain(kind)
    if len(chain) < 2:
        return []
    parts = [chain] if kind == "rear" and body.side.tail_m is not None else parted_at_corners(chain)
    # the upper one of an end and the longest of a roof have its name, the others say where they are from there
    first = {"front": len(parts) - 1, "rear": 0}.get(kind, max(range(len(parts)), key=lambda at: float(lengths(parts[at])[-1])))
    named = []
    for at, part in enumerate(parts):
        where = ("fore" if at < first else "aft") if kind == "roof" else "below"
        many = abs(at - first)
        named.append((kind if at == first else f"{kind} {where}" + (f" {many}" if many > 1 else ""), part))
    return named


def _end_walls(body: Body, shell: Shell, kind: str) -> list[Surface]:
    """The upright walls of a pointed nose or a clipped tail, from left to right, each as high as the roof over its feet."""
    walls = ends_m(shell, kind)
    names = [kind] if len(walls) == 1 else [f"{kind} left", f"{kind} right"]
    chain = body.side.chain("roof")

    def top(x: float) -> float:
        return float(np.interp(x + body.front, chain[:, 0], chain[:, 1])) - body.under

    made = []
    for name, (a, b) in zip(names, walls, strict=True):
        run = run_m(a, b)
        dx, dy = (b[0] - a[0]) / run, (b[1] - a[1]) / run
        sign = 1.0 if kind == "front" else -1.0
        edge = LineString([(0, top(a[0])), (run, top(b[0]))])
        made.append(
            Surface(
                name,
                kind,
                polygon=Polygon([(0, 0), (run, 0), (run, top(b[0])), (0, top(a[0]))]),
                origin=(body.front + a[0], a[1], body.under),
                along=(dx, dy, 0.0),
                up=(0.0, 0.0, 1.0),
                inward=(sign * dy, -sign * dx, 0.0),
                roof_edges=(edge,),
            )
        )
    return made


def _plumb(chain: Points) -> bool:
    return bool(np.ptp(chain[:, 0]) < 0.002)


def _end_wall(
    body: Body, kind: str, shape: Polygon, station: float, edges: tuple[LineString, ...] = (), id: str = "", foot_m: float | None = None
) -> Surface:
    top = float(shape.bounds[3])
    edges = edges or (LineString([(0, top), (body.width, top)]),)
    return Surface(
        id or kind,
        kind,
        polygon=shape,
        origin=(station, -body.width / 2, body.under if foot_m is None else foot_m),
        along=(0.0, 1.0, 0.0),
        up=(0.0, 0.0, 1.0),
        inward=(1.0 if kind == "front" else -1.0, 0.0, 0.0),
        roof_edges=edges,
    )


def _floor(body: Body, plan: Polygon | None = None) -> Surface:
    half = body.width / 2
    begin, end = float(body.side.skin[0, 0]) - body.front, float(body.side.skin[-1, 0]) - body.front
    shape = box(begin, 0, end, body.width) if end - begin > SHORT_M else box(0, 0, body.length, body.width)
    if plan is not None:
        shape = Polygon([(x - body.front, y + half) for x, y in plan.exterior.coords])
    return Surface(
        "floor",
        "floor",
        polygon=shape,
        origin=(body.front, -half, body.under),
        along=(1.0, 0.0, 0.0),
        up=(0.0, 1.0, 0.0),
        inward=(0.0, 0.0, 1.0),
    )


def _valid(shape: Polygon) -> Polygon:
    if shape.is_valid:
        return shape
    whole = shape.buffer(0)
    return max(whole.geoms, key=lambda g: g.area) if hasattr(whole, "geoms") and len(whole.geoms) else whole


def section_points(shell: Shell, body: Body) -> tuple[tuple[float, float], ...]:
    """The cross-section from its left foot over the roof to its right foot: (from the left edge, height) [m]."""
    w, h, low = body.width, body.height, eaves_m(shell, body.height)
    if shell.form == "gable":
        return ((0, 0), (0, low), (w / 2, h), (w, low), (w, 0))
    if shell.form == "butterfly":
        return ((0, 0), (0, h), (w / 2, low), (w, h), (w, 0))
    if shell.form == "bevelled":
        b = bevel_m(shell)
        return ((0, 0), (0, h - b), (b, h), (w - b, h), (w, h - b), (w, 0))
    if shell.form in ("shed", "flat") and shell.low_side in ("left", "right"):
        left, right = (low, h) if shell.low_side == "left" else (h, low)
        return ((0, 0), (0, left), (w, right), (w, 0))
    return ((0, 0), (0, h), (w, h), (w, 0))


def _by_section(shell: Shell, body: Body) -> tuple[Surface, ...]:
    """Walls up to where the roof begins, and the roof's slopes; bevels are slopes of their own."""
    points = section_points(shell, body)
    half, long, wide = body.width / 2, body.length, body.width
    made = [_floor(body)]
    b = bevel_m(shell) if shell.form == "bevelled" else 0.0
    for name, y, inward, top in (("left side", -half, 1.0, points[1][1]), ("right side", half, -1.0, points[-2][1])):
        made.append(
            Surface(
                name,
                name,
                box(0, 0, long, top),
                (body.front, y, body.under),
                inward=(0.0, inward, 0.0),
                roof_edges=(LineString([(0, top), (long, top)]),),
            )
        )
    slopes = list(itertools.pairwise(points[1:-1]))
    end = Polygon(points if not b else [(0, 0), (0, body.height - b), (wide, body.height - b), (wide, 0)])
    edges = tuple(LineString(pair) for pair in slopes) if not b else ()
    for kind, station in (("front", body.front), ("rear", body.front + long)):
        made.append(_end_wall(body, kind, end, station, edges))
    over = shell.roof_overhang.si if shell.roof_overhang and not b else 0.0
    for at, (p, q) in enumerate(slopes):
        made.append(_slope(body, at, p, q, b, over, len(slopes)))
    if b:
        made += [_end_bevel(body, "front", b), _end_bevel(body, "rear", b)]
    return tuple(made)


def _slope(body: Body, at: int, p: tuple[float, float], q: tuple[float, float], b: float, over: float, many: int) -> Surface:
    """A roof slope: s along the body, t up the slope from its left (or lower) edge."""
    run = math.hypot(q[0] - p[0], q[1] - p[1])
    up = (0.0, (q[0] - p[0]) / run, (q[1] - p[1]) / run)
    if b and many == 3 and at != 1:  # a bevel: as long as the body below, shorter above
        low, high = (0.0, b) if at == 0 else (b, 0.0)
        shape = Polygon([(low, 0), (body.length - low, 0), (body.length - high, run), (high, run)])
    elif b:
        shape = box(b, 0, body.length - b, run)
    else:
        left = over if at == 0 else 0.0
        right = over if at == many - 1 else 0.0
        shape = box(-over, -left, body.length + over, run + right)
    name = "roof" if many == 1 else ("roof left", "roof right")[at] if many == 2 else ("bevel left", "roof", "bevel right")[at]
    return Surface(
        name,
        "roof",
        polygon=shape,
        origin=(body.front, -body.width / 2 + p[0], body.under + p[1]),
        along=(1.0, 0.0, 0.0),
        up=up,
        inward=(0.0, up[2], -up[1]),
    )


def _end_bevel(body: Body, kind: str, b: float) -> Surface:
    run = b * math.sqrt(2)
    shape = Polygon([(0, 0), (body.width, 0), (body.width - b, run), (b, run)])
    forward = kind == "front"
    slant = 1 / math.sqrt(2)
    return Surface(
        f"bevel {kind}",
        "roof",
        polygon=shape,
        origin=(body.front if forward else body.front + body.length, -body.width / 2, body.under + body.height - b),
        along=(0.0, 1.0, 0.0),
        up=(slant if forward else -slant, 0.0, slant),
        inward=(slant if forward else -slant, 0.0, -slant),
    )


def cut_in(body: Body, opening: Opening) -> tuple[Surface, Polygon] | None:
    """The surface that an opening is cut into and its rectangle there [m]; None where its face is not there."""
    w, h = opening.width.si, opening.height.si
    a, u = opening.along.si, opening.up.si
    found = body.of(opening.face)
    if not found or w <= 0 or h <= 0:
        return None
    if opening.face in ("front", "rear") and len(found) > 1 and _over_each_other(found):
        found = (_at_height(found, u + body.under),)
    elif opening.face in ("front", "rear") and len(found) > 1:
        # from the left foot on along the walls of a nose or tail that has two
        for surface in found:
            run = float(surface.polygon.bounds[2])
            if a < run or surface is found[-1]:
                return surface, box(a, u, a + w, u + h)
            a -= run
    if opening.face in SIDES:
        return found[0], box(a, u, a + w, u + h)
    if opening.face in ("front", "rear") and not found[0].swept:
        low = u + body.under - found[0].origin[2]  # a wall over a corner that is cut off begins higher up
        return found[0], box(a, low, a + w, low + h)
    if opening.face == "floor":
        return found[0], box(a, u, a + w, u + h)
    if opening.face in ("front", "rear"):
        # up is height above the underside: find it along the skin
        chain = found[0].chain
        assert chain is not None
        s = run_at_height(chain, u + body.under, opening.face)
        return found[0], box(s, a, s + h, a + w) if opening.face == "front" else box(s - h, a, s, a + w)
    return _cut_in_roof(body, found, a, u, w, h)


def _over_each_other(found: tuple[Surface, ...]) -> bool:
    """Whether the walls of an end stand over each other, and not beside each other in plan."""
    return all(surface.chain is not None or abs(surface.along[0]) < 1e-9 for surface in found)


def _heights(surface: Surface) -> tuple[float, float]:
    if surface.chain is not None:
        return float(surface.chain[:, 1].min()), float(surface.chain[:, 1].max())
    return surface.origin[2], surface.origin[2] + float(surface.polygon.bounds[3])


def _at_height(found: tuple[Surface, ...], height_m: float) -> Surface:
    """The one of an end's surfaces that a height lies in; the nearest where none does."""

    def apart(surface: Surface) -> float:
        low, high = _heights(surface)
        return max(low - height_m, height_m - high + 1e-9, 0.0)

    return min(found, key=apart)


def run_at_height(chain: Points, height_m: float, kind: str) -> float:
    """How far along the chain of a nose or tail a height is first met, going up from its foot [m]."""
    runs, heights = lengths(chain), chain[:, 1]
    if kind == "rear":
        return float(np.interp(height_m, np.maximum.accumulate(heights[::-1]), runs[::-1]))
    return float(np.interp(height_m, np.maximum.accumulate(heights), runs))


def _cut_in_roof(body: Body, found: tuple[Surface, ...], a: float, u: float, w: float, h: float) -> tuple[Surface, Polygon]:
    bent = [surface for surface in found if surface.chain is not None]
    if bent:
        first = next((surface for surface in bent if surface.chain is not None and a + body.front < surface.chain[:, 0].max()), bent[-1])
        chain = first.chain
        assert chain is not None
        s = float(np.interp(a, chain[:, 0] - body.front, lengths(chain)))
        return first, box(s, u, s + w, u + h)
    # the slope over whose width the middle of the opening lies
    middle = u + h / 2
    level = [surface for surface in found if abs(surface.along[0] - 1) < 1e-9]
    for face in level:
        left = face.origin[1] + body.width / 2
        run = float(face.polygon.bounds[3])
        if left - 1e-9 <= middle <= left + run * face.up[1] + 1e-9:
            t = (u - left) / max(face.up[1], 1e-6)
            return face, box(a, t, a + w, t + h)
    return level[0], box(a, u, a + w, u + h)


def net(shape: Polygon, holes: tuple[Polygon, ...]) -> Polygon:
    """A surface less what is cut out of it."""
    for hole in holes:
        shape = shape.difference(hole)
    return shape


def rounded(shape: Polygon, radius_m: float) -> Polygon:
    """A shape with its outer corners round, true to 0.2 mm: opened by its own radius. Source: r (1 - cos(a/2)) of a chord."""
    quarter = max(math.ceil(math.pi / 4 / math.acos(max(1 - TRUE_M / radius_m, 0.0))), 2) if radius_m > TRUE_M else 2
    made = shape.buffer(-radius_m * (1 - 1e-9), join_style="mitre").buffer(radius_m * (1 - 1e-9), quad_segs=quarter)
    return made if isinstance(made, Polygon) and not made.is_empty else shape


def place_after(body: Body, opening: Opening, surface: Surface, ds: float, dt: float) -> tuple[float, float]:
    """``along`` and ``up`` [m] of an opening after its rectangle was moved on its laid-flat surface by (ds, dt)."""
    a, u = opening.along.si, opening.up.si
    if not surface.swept:
        if surface.kind == "roof":
            return a + ds, u + dt * surface.up[1]
        return a + ds, u + dt
    chain = surface.chain
    assert chain is not None
    runs = lengths(chain)
    if opening.face == "roof":
        s = float(np.interp(a, chain[:, 0] - body.front, runs)) + ds
        return float(np.interp(s, runs, chain[:, 0] - body.front)), u + dt
    s = run_at_height(chain, u + body.under, opening.face) + ds
    return a + dt, float(np.interp(s, runs, chain[:, 1] - body.under))
