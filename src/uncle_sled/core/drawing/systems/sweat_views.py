"""The body coloured by the temperature of its inner surfaces, the wet ones outlined and named; and one face in section.

Side view over plan, the section beside them; the colder the deeper the blue. In points, y up.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np
from shapely.geometry import LineString, Polygon

from uncle_sled.core.drawing.plot import Plot, names_at_ends, ticks, y_axis
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.studies.systems.glaser import Profile
from uncle_sled.core.studies.systems.sweat import Night, Surface, dew_c
from uncle_sled.core.words import Words

BAND_M = 0.10
HEAD, FOOT, GAP = 40.0, 46.0, 34.0
MOST_NAMES = 6
PATHS = ("door", "hatch", "window", "vent", "light")


def tint_of(night: Night, celsius: float) -> float:
    """How deep the blue of a surface is, 0.08 at the room's warmth to 0.95 at the outside's."""
    assert night.inside_c is not None and night.outside_c is not None
    share = (night.inside_c - celsius) / max(night.inside_c - night.outside_c, 0.1)
    return 0.08 + 0.87 * min(max(share, 0.0), 1.0)


def worst_of(night: Night, where: str) -> Surface | None:
    """The plain surface of a path, or the coldest of it where that one sweats."""
    mine = [face for face in night.surfaces if face.where == where or face.id.split("/")[0] == where]
    return next((face for face in mine if face.sweats), next((face for face in mine if face.id == where), None))


def sweat_picture(
    night: Night, framed: Framed, faces: dict[str, str], words: Words, width: float, height: float, chosen: frozenset[str] = frozenset()
) -> tuple[Primitive, ...]:
    """The three views. Args: faces: id of the path of each kind of face."""
    body = framed.body
    if body is None or night.inside_rh is None:
        return ()
    room = (width - 3 * GAP) / (body.length + body.width), (height - HEAD - FOOT - GAP) / (body.height + body.width)
    scale = max(min(room), 4.0)
    drawn = _Drawn(night, faces, chosen, [], [])
    shapes = drawn.shapes
    x = GAP + max(width - 3 * GAP - (body.length + body.width) * scale, 0) / 2
    base = FOOT + max(height - HEAD - FOOT - GAP - (body.height + body.width) * scale, 0) / 2
    over = base + body.width * scale + GAP
    _side(drawn, body, framed, (x, over), scale)
    shapes.append(Text((x + body.length * scale / 2, over - 11), "left side", 11, "pencil"))
    _plan(drawn, body, framed, (x, base), scale)
    shapes.append(Text((x + body.length * scale / 2, base - 11), "from above, right side up", 11, "pencil"))
    x += body.length * scale + GAP
    _section(drawn, body, (x, over), scale)
    shapes.append(Text((x + body.width * scale / 2, over - 11), "section", 11, "pencil"))
    shapes += _named(drawn.names, words, width, height)
    return (*shapes, *_key(night, words, width))


class _Drawn(NamedTuple):
    """A night as it is put on paper: what is drawn so far, and the wet ones that want a name, with where they are."""

    night: Night
    faces: dict[str, str]  # id of the path of each kind of face
    chosen: frozenset[str]
    shapes: list[Primitive]
    names: list[tuple[Point, Surface]]

    def face(self, kind: str, ring: tuple[Point, ...], named: bool = False) -> None:
        self.patch(self.faces.get(kind, kind), ring, named)

    def patch(self, where: str, ring: tuple[Point, ...], named: bool = False) -> None:
        """One surface, filled by its temperature, outlined where it is wet; dashed and bare where nobody knows.

        Args: named: whether its name is said here, where it is wet.
        """
        found = worst_of(self.night, where)
        if found is None:
            self.shapes.append(Poly(ring, "pencil", "", 1.0, dash=(3.0, 2.0), id=where))
            return
        ink, wide = ("primer", 2.4) if found.sweats else ("pencil", 0.8)
        if found.id in self.chosen or where in self.chosen:
            ink, wide = "chalk", 3.0
        self.shapes.append(Poly(ring, ink, "fresh", wide, tint=tint_of(self.night, found.t_c), id=found.id))
        if found.sweats and named:
            xs, ys = [p[0] for p in ring], [p[1] for p in ring]
            self.names.append((((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2), found))


def _box(x0: float, y0: float, x1: float, y1: float) -> tuple[Point, ...]:
    return (x0, y0), (x1, y0), (x1, y1), (x0, y1)


def _side(drawn: _Drawn, body: Body, framed: Framed, corner: Point, scale: float) -> None:
    def at(px: float, pz: float) -> Point:
        return corner[0] + (px - body.front) * scale, corner[1] + (pz - body.under) * scale

    drawn.face("left side", tuple(at(px, pz) for px, pz in body.side.polygon.tolist()), named=True)
    for kind in ("front", "roof", "rear"):
        chain = body.side.chain(kind)
        if len(chain) > 1:
            drawn.face(kind, _band(chain, at), named=True)
    floor = _box(body.front, body.under, body.front + body.length, body.under + BAND_M)
    drawn.face("floor", tuple(at(*p) for p in floor), named=True)
    surfaces = {face.id: face for face in body.surfaces}
    for cut in framed.cuts:
        if cut.kind not in PATHS:
            continue
        surface = surfaces[cut.surface]
        spots = [surface.place(s, t) for s, t in cut.shape.exterior.coords[:-1]]
        if surface.kind == "left side":
            drawn.patch(cut.id, tuple(at(px, pz) for px, _, pz in spots), named=True)
        elif surface.kind in ("roof", "front", "rear"):
            xs, zs = [p[0] for p in spots], [p[2] for p in spots]
            ends = (
                np.array([(min(xs), zs[xs.index(min(xs))]), (max(xs), zs[xs.index(max(xs))])])
                if max(xs) - min(xs) > max(zs) - min(zs)
                else np.array([(xs[zs.index(min(zs))], min(zs)), (xs[zs.index(max(zs))], max(zs))])
            )
            drawn.patch(cut.id, _band(ends, at, 1.3), named=True)


def _band(chain: np.ndarray, at: Callable[[float, float], Point], times: float = 1.0) -> tuple[Point, ...]:
    """A chain as a band of some thickness."""
    shape = LineString(chain).buffer(BAND_M * times / 2, cap_style="flat", join_style="mitre")
    outer = shape.exterior if isinstance(shape, Polygon) else max(shape.geoms, key=lambda g: g.area).exterior
    return tuple(at(px, pz) for px, pz in outer.coords[:-1])


def _plan(drawn: _Drawn, body: Body, framed: Framed, corner: Point, scale: float) -> None:
    half = body.width / 2

    def box_at(x0: float, y0: float, x1: float, y1: float) -> tuple[Point, ...]:
        return tuple((corner[0] + (px - body.front) * scale, corner[1] + (py + half) * scale) for px, py in _box(x0, y0, x1, y1))

    front, rear = body.front, body.front + body.length
    drawn.shapes.append(Poly(box_at(front, -half, rear, half), "pencil", "body", 0.8))
    drawn.face("left side", box_at(front, -half, rear, -half + BAND_M))
    drawn.face("right side", box_at(front, half - BAND_M, rear, half))
    drawn.face("front", box_at(front, -half, front + BAND_M, half))
    drawn.face("rear", box_at(rear - BAND_M, -half, rear, half))
    surfaces = {face.id: face for face in body.surfaces}
    for cut in framed.cuts:
        kind = surfaces[cut.surface].kind
        if cut.kind not in PATHS or kind == "floor":
            continue
        spots = [surfaces[cut.surface].place(s, t) for s, t in cut.shape.exterior.coords[:-1]]
        xs, ys = [p[0] for p in spots], [p[1] for p in spots]
        x0, x1, y0, y1 = min(xs), max(xs), min(ys), max(ys)
        if kind in ("left side", "right side"):
            y0, y1 = (-half, -half + BAND_M * 1.3) if kind == "left side" else (half - BAND_M * 1.3, half)
        elif kind in ("front", "rear") or x1 - x0 < 0.02:
            x0, x1 = (front, front + BAND_M * 1.3) if (x0 + x1) / 2 < (front + rear) / 2 else (rear - BAND_M * 1.3, rear)
        drawn.patch(cut.id, box_at(x0, y0, x1, y1), named=kind == "right side")


def _section(drawn: _Drawn, body: Body, corner: Point, scale: float) -> None:
    (x, base), wide, tall = corner, body.width * scale, body.height * scale
    b = BAND_M * scale
    drawn.shapes.append(rect(x, base, wide, tall, stroke="pencil", fill="body", width=0.8))
    drawn.face("floor", _box(x, base, x + wide, base + b))
    drawn.face("roof", _box(x, base + tall - b, x + wide, base + tall))
    drawn.face("left side", _box(x, base, x + b, base + tall))
    drawn.face("right side", _box(x + wide - b, base, x + wide, base + tall))
    for kind, cx in (("left side", x + b), ("right side", x + wide - b)):
        where = f"{drawn.faces.get(kind, kind)}/corner"
        spot = next((face for face in drawn.night.surfaces if face.id == where), None)
        if spot is not None:
            ink, fill = ("primer", "fresh") if spot.sweats else ("pencil", "body")
            drawn.shapes.append(Circle((cx, base + b), 5, ink, fill, 1.6, id=spot.id))


def _named(names: list[tuple[Point, Surface]], words: Words, width: float, height: float) -> list[Primitive]:
    """Names of the wet ones over the drawing, each with a leader; no leader runs through a name."""
    lines: list[Primitive] = []
    said: list[Primitive] = []
    seen: set[str] = set()
    x = 12.0
    y = height - 14
    for (px, py), face in names:
        if face.where in seen or len(seen) >= MOST_NAMES:
            continue
        seen.add(face.where)
        says = elided(f"{face.name} {words.degrees(face.t_c, 1)}", 11, 190)
        wide = text_width(says, 11)
        if x + wide > width - 12:
            x, y = 12.0, y - 15
        middle = x + wide / 2
        lines += [line((middle, y - 7), (px, py), "primer", 0.8), Circle((px, py), 2.2, "primer", "primer", 1.0)]
        said.append(Text((middle, y), says, size=11, ink="primer", face="strong", anchor="middle", ground="paper", id=face.id))
        x += wide + 18
    return [*lines, *said]


def _key(night: Night, words: Words, width: float) -> list[Primitive]:
    assert night.inside_c is not None and night.outside_c is not None and night.dew_c is not None
    shapes: list[Primitive] = []
    x, y = 12.0, 14.0
    steps = 9
    for k in range(steps):
        t = night.outside_c + (night.inside_c - night.outside_c) * k / (steps - 1)
        shapes.append(rect(x + 52 + k * 14, y - 5, 14, 10, stroke="pencil", fill="fresh", width=0.4, tint=tint_of(night, t)))
    dew = x + 52 + (night.dew_c - night.outside_c) / max(night.inside_c - night.outside_c, 0.1) * 14 * (steps - 1) + 7
    shapes += [
        Text((x, y), words.degrees(night.outside_c), 11, "pencil", anchor="left"),
        Text((x + 58 + steps * 14, y), words.degrees(night.inside_c), 11, "pencil", anchor="left"),
        *_meaning(night, words, x + 108 + steps * 14, y, width),
        line((dew, y - 8), (dew, y + 8), "primer", 2.0),
    ]
    return shapes


def _meaning(night: Night, words: Words, x: float, y: float, width: float) -> list[Primitive]:
    """What the marks mean, beside the scale or over it where there is no room."""
    assert night.dew_c is not None
    says = f"red: under the dew of {words.degrees(night.dew_c, 1)}; dashed: not checked"
    beside = x + text_width(says, 11) < width - 8
    return [Text((x, y) if beside else (12.0, y + 16), says, 11, "pencil", anchor="left")]


def face_section(profile: Profile, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Through a face from inside (left) to outside: its layers, the temperature and the dew point; wet where the two meet."""
    deep = profile.depth_m[-1]
    if deep <= 0:
        return ()
    temps, dews = np.array(profile.t_c), np.array([dew_c(p) for p in profile.vapour_pa])
    low, high = float(min(temps.min(), dews.min())) - 1.5, float(max(temps.max(), dews.max())) + 1.5
    plot = Plot(0.0, deep, y0=low, y1=high, left=50.0, low=38.0, right=width - 118.0, top=height - 34.0)
    shapes: list[Primitive] = []
    at, inks = 0.0, ("wood", "foam")
    for k, layer in enumerate(profile.layers):
        x0, _ = plot.at(at, low)
        x1, _ = plot.at(at + layer.thick_m, low)
        foam = layer.r_m2k_w / max(layer.thick_m, 1e-6) > 20
        shapes.append(
            rect(
                x0,
                plot.low,
                max(x1 - x0, 1.0),
                plot.top - plot.low,
                stroke="rule",
                fill=inks[1] if foam else inks[0],
                width=0.8,
                tint=0.35,
                hatch="foam" if foam else "",
            )
        )
        if x1 - x0 > 30 or k in (0, len(profile.layers) - 1):
            said = elided(words.material(layer.name), 10, max(x1 - x0 - 4, 56))
            anchor = "middle" if x1 - x0 > 60 else "left" if k == 0 else "right" if k == len(profile.layers) - 1 else "middle"
            spot = (x0 + x1) / 2 if anchor == "middle" else x0 if anchor == "left" else x1
            shapes.append(Text((spot, plot.low - (10 if k % 2 == 0 else 22)), said, 10, "pencil", "text", anchor))  # type: ignore[arg-type]
        at += layer.thick_m
    shapes += y_axis(plot, ticks(low, high, 5), words.degrees)
    xs = np.array(profile.depth_m)
    shapes += plot.curve(xs, temps, "gas", 2.4)
    shapes += plot.curve(xs, dews, "fresh", 2.0, (6.0, 3.0))
    shapes += names_at_ends(plot, [(float(temps[-1]), "temperature", "ink"), (float(dews[-1]), "dew point", "ink")])
    if profile.at_m is not None:
        x, _ = plot.at(profile.at_m, low)
        _, y = plot.at(profile.at_m, float(np.interp(profile.at_m, xs, temps)))
        shapes += [
            Circle((x, y), 6, "primer", "", 2.2),
            Text(
                (x + 10, y + 12),
                f"{words.of(profile.condenses_g_m2, 'g/m2 water', 1)} a night",
                size=11,
                ink="primer",
                face="strong",
                anchor="left",
                ground="paper",
            ),
        ]
    shapes += [
        Text((plot.left, plot.top + 9), "inside", 11, "pencil", anchor="left"),
        Text((plot.right, plot.top + 9), "outside", 11, "pencil", anchor="right"),
    ]
    return tuple(shapes)
