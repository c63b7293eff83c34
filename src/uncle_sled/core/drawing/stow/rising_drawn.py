"""A roof that goes up: on the rig's drawings, by itself down and up with somebody under it, and the hand's force on the way."""

from __future__ import annotations

import math

from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.drawing.person import tallest_m, upright
from uncle_sled.core.drawing.plot import Plot, axes, ticks
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, dimension, line, placed, rect
from uncle_sled.core.drawing.stow.lid_drawn import DASHES, INKS
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.rising import Risen, raised_section, raised_side, risen_of, up_in
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.rising_roof import CLOSE_N, RAISE_N, RoofUp
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.words import Words

POUND_N = 4.4482216  # a pound of force
MARGIN, NARROW_MARGIN = 130.0, 116.0  # for both heights beside it
ROOMY = 260.0


def _rings(shape: BaseGeometry) -> list[tuple[Point, ...]]:
    return [
        tuple((float(x), float(z)) for x, z in list(part.exterior.coords)[:-1])
        for part in getattr(shape, "geoms", [shape])
        if isinstance(part, Polygon) and part.area > 1e-6
    ]


def rising_view(build: Build, facts: Facts, mode: Mode, view: str) -> tuple[Primitive, ...]:
    """The cloth and the roof over it in a mode in which it is up: from the side, from above its outline, from behind."""
    if build.shell.rising is None or not up_in(build.shell, mode):
        return ()
    body = framed_of(build, facts).body
    risen = risen_of(build.shell, body)
    if body is None or risen is None or risen.fault:
        return ()
    if view == "plan" and risen.folds:
        edge = risen.out * body.width / 2
        low = min(edge, edge + risen.out * risen.rise_m)
        return (rect(risen.a_m, low, risen.long_m, risen.rise_m, stroke="ink", fill="outside", tint=0.3, width=1.2, id="rising"),)
    if view == "side" and risen.folds:
        return (
            rect(
                risen.a_m,
                body.under,
                risen.long_m,
                risen.rise_m,
                stroke="ink",
                fill="outside",
                tint=0.2,
                width=1.2,
                dash=(6, 3),
                id="rising",
            ),
        )
    if view == "plan":
        half = body.width / 2
        return (rect(risen.a_m, -half, risen.long_m, 2 * half, stroke="pencil", width=1.2, dash=(2, 3), id="rising"),)
    return tuple(_opened(body, risen, view))


def roof_outline(s: Studied) -> tuple[Primitive, ...]:
    """From the side, dashed: where the roof is while it is up."""
    body, risen = s.framed.body, risen_of(s.build.shell, s.framed.body)
    if body is None or risen is None or risen.fault:
        return ()
    outline = _outline(body, "side")
    return tuple(
        [Poly(ring, "pencil", "", 1.1, dash=(6, 4), id="rising") for ring in _rings(raised_side(outline, risen).difference(outline))]
    )


def _outline(body: Body, view: str) -> Polygon:
    if view == "side":
        return Polygon(body.side.polygon).buffer(0)
    half = body.width / 2
    top = float(Polygon(body.side.polygon).bounds[3])
    return Polygon([(-half, body.under), (half, body.under), (half, top), (-half, top)])


def _opened(body: Body, risen: Risen, view: str) -> list[Primitive]:
    outline = _outline(body, view)
    whole = raised_side(outline, risen) if view == "side" else raised_section(outline, risen)
    return [Poly(ring, "ink", "outside", 1.4, hatch="", tint=0.35, id="rising") for ring in _rings(whole.difference(outline))]


def roof_drawn(s: Studied, roof: RoofUp, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """The body with its roof down (light) and up, somebody standing under it, the heights on the road and up, struts. Points."""
    body, risen = s.framed.body, roof.risen
    margin = MARGIN if wide >= ROOMY else NARROW_MARGIN
    if body is None or wide < margin + 50 or high < 110:
        return ()
    across = risen.way in ("left", "right") or risen.folds
    outline = _outline(body, "rear" if across else "side")
    room = room_of(s.build, s.facts)
    left, _, right, _ = unary_union([outline, raised_section(outline, risen) if across else outline]).bounds
    top = risen.top_up_m
    scale = min((wide - margin) / max(right - left, 0.1), (high - 70) / max(top, 0.1))
    dx, dy = margin / 2 - left * scale + max((wide - margin - (right - left) * scale) / 2, 0.0), 26.0
    whole = raised_section(outline, risen) if across else raised_side(outline, risen)
    shapes: list[Primitive] = [Poly(ring, "ink", "outside", 1.6, tint=0.4, id="rising") for ring in _rings(whole.difference(outline))]
    shapes += [Poly(ring, "ink", "body", 1.8, id="shell") for ring in _rings(outline)]
    shapes.append(line((left - 0.3, 0.0), (right + 0.3, 0.0), "pencil", 1.4))
    if room is not None and not risen.fault:
        tall = tallest_m(s.facts)
        at = (risen.a_m + risen.b_m) / 2 if not across else 0.0
        shapes += upright(at, room.floor_m, tall)
    shapes += _struts(roof, outline, across)
    made: list[Primitive] = list(placed(tuple(shapes), scale, dx, dy))
    beside = margin / 2 - 35 if margin == MARGIN else 31.0
    for height, x, told in ((risen.top_down_m, left * scale + dx - beside, "down"), (risen.top_up_m, right * scale + dx + beside, "up")):
        made += dimension((x, dy), (x, height * scale + dy), words.m(height), 4.0, 11)
        made.append(Text((x, height * scale + dy + 9), told, 10, "pencil"))
    return tuple(made)


def _struts(roof: RoofUp, outline: Polygon, across: bool) -> list[Primitive]:
    """Straight up, one strut down and up at each end of the part; about an edge they are on Lids."""
    strut, risen = roof.strut, roof.risen
    if strut is None or not risen.lifts or across:
        return []
    made: list[Primitive] = []
    for at, sign in ((risen.a_m + 0.08, 1.0), (risen.b_m - 0.08, -1.0)):
        rim = outline.intersection(Polygon([(at - 1e-3, 0), (at + 1e-3, 0), (at + 1e-3, 99), (at - 1e-3, 99)]))
        if rim.is_empty:
            continue
        edge = float(rim.bounds[3])
        foot = (at + sign * strut.body_x.si, edge + strut.body_z.si - strut.lid_z.si)
        for up, thick in ((0.0, 2.0), (risen.rise_m, 3.6)):
            head = (at + sign * strut.lid_x.si, edge + up)
            made += [line(foot, head, "zinc", thick, id="rising"), *(Circle(p, 0.014, "ink", "paper", 1.0) for p in (foot, head))]
    return made


def lift_chart(roof: RoofUp, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Force of the hand over the way up: to raise over the line, to pull down under it, with both limits. Nothing without struts."""
    if not roof.curves or min(wide, high) < 110:
        return ()
    most = max(RAISE_N, *(float(c.raise_n.max()) for c in roof.curves)) * 1.12
    least = -max(CLOSE_N, *(float(c.close_n.max()) for c in roof.curves)) * 1.12
    pound = POUND_N if words.shown.mass == "lb" else 1.0
    plot = Plot(0.0, roof.risen.rise_m, y0=least, y1=most, left=52.0, low=44.0, right=wide - 30, top=high - 46)
    shapes: list[Primitive] = axes(
        plot,
        ticks(0.0, roof.risen.rise_m, 5),
        ticks(least, most, 7, pound),
        words.cut,
        lambda y: f"{y / pound:.0f}",
        "up",
        f"hands, {'lbf' if pound > 1 else 'N'}",
    )
    for value, text in ((RAISE_N, "to raise, at most"), (-CLOSE_N, "to pull down, at most")):
        left, y = plot.at(0.0, value)
        at, anchor = ((plot.right - 4.0, y + 8.0), "right") if value > 0 else ((left + 4, y + 8), "left")
        shapes += [line((left, y), (plot.right, y), "primer", 1.2, (6, 4)), Text(at, text, 10, "primer", anchor=anchor, ground="paper")]  # type: ignore[arg-type]
    shapes.append(line(plot.at(0.0, 0.0), plot.at(roof.risen.rise_m, 0.0), "ink", 1.0))
    for row, (curve, ink, dash) in enumerate(zip(roof.curves, INKS, DASHES, strict=True)):
        for values in (curve.raise_n, -curve.close_n):
            shapes += plot.curve(curve.up_m, values, ink, 1.8, dash)
        x, y = 12.0 + 70.0 * row, high - 13.0
        if x + 66 <= wide:
            shapes += [line((x, y), (x + 20, y), ink, 1.8, dash), Text((x + 25, y), words.degrees(curve.t_c), 11, "ink", anchor="left")]
    return tuple(shapes)


def angle_words(risen: Risen) -> str:
    """How far it turns, or that it goes straight."""
    if risen.folds:
        return f"level, {'to the left' if risen.out < 0 else 'to the right'}"
    return (
        "straight up"
        if risen.lifts
        else f"{risen.turn_deg:.0f}° about its {risen.way} edge, {math.sin(math.radians(risen.turn_deg)):.2f} of its length"
    )
