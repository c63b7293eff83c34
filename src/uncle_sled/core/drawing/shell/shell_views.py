"""The body drawn: sticks in the side view, each face laid flat with its sizes, the layers of a face cut through.

Side view in metres as the rig's; flat faces in their own coordinates, t up.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

import numpy as np
from shapely import box

from uncle_sled.core.document.shell import Face, Shell
from uncle_sled.core.drawing.primitives import Circle, Hatch, Point, Poly, Primitive, Text, dimension, line, rect
from uncle_sled.core.drawing.text_width import text_width, wrapped
from uncle_sled.core.framing.frame_body import Cut, framed_depth_m, skin_m
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.footprint import plan_of, side_span_m
from uncle_sled.core.geometry.laid import laid
from uncle_sled.core.geometry.surfaces import SIDES, Surface
from uncle_sled.core.material_words import Family
from uncle_sled.core.materials import Material
from uncle_sled.core.parts.from_rig import wheel_radius_m
from uncle_sled.core.parts.inside import inside_of
from uncle_sled.core.parts.ridge_sticks import ridge_sticks
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.bends import sheet_bends
from uncle_sled.core.studies.shell.shell_measures import Measures
from uncle_sled.core.words import Words

LABEL = 11.0
STICK_TINT = 0.55
# Ink and hatch of a layer by what kind of stuff it is; wood for the rest.
LOOKS: dict[Family, tuple[str, Hatch]] = {
    "foam": ("foam", "foam"),
    "honeycomb": ("foam", "foam"),
    "cork": ("foam", "foam"),
    "wool": ("foam", "kit"),
    "metal": ("zinc", "metal"),
    "laminate": ("fresh", "outside"),
    "cloth": ("fresh", "outside"),
    "plastic": ("fresh", "outside"),
    "covering": ("kit", ""),
    "membrane": ("kit", ""),
    "paint": ("kit", ""),
    "air": ("paper", ""),
}


def look_of(material: Material) -> tuple[str, Hatch]:
    """Ink and hatch of a layer."""
    return LOOKS.get(material.family, ("wood", "wood"))


def side_sticks(s: Studied, faint: bool = False) -> tuple[Primitive, ...]:
    """Sticks of the left side, and spars, rafters and joists cut through, in the side view."""
    framed = s.framed
    if framed.body is None:
        return ()
    surfaces = {surface.id: surface for surface in framed.body.surfaces}
    shapes: list[Primitive] = []
    for member in framed.members:
        surface = surfaces[member.face]
        if member.face == "left side":
            points = tuple((surface.origin[0] + x, surface.origin[2] + z) for x, z in member.outline)
            shapes.append(_stick(member, points, faint))
        elif surface.kind == "roof" and not surface.swept and abs(surface.along[0]) > 0.5 and surface.up[2] > 0.05:
            # a slope that faces the left is seen foreshortened
            ends = (surface.place(x, t) for x, t in member.outline)
            shapes.append(_stick(member, tuple((p[0], p[2]) for p in ends), faint=True))
        elif member.face_kind in ("floor", "front", "rear", "roof") and not _along(member, surface):
            shapes += _cut_through(s, member, surface)
    return (*shapes, *_ridge_seen(s))


def _ridge_seen(s: Studied) -> Iterator[Primitive]:
    """What holds the ridge: a beam along it, ties and collars on their ends."""
    assert s.framed.body is not None
    for stick in ridge_sticks(s.build.shell, s.framed.body):
        thick, deep = stick.section_m
        long = stick.length_m if stick.lengthways else thick
        yield rect(
            stick.at_m[0] - long / 2,
            stick.at_m[2] - deep / 2,
            long,
            deep,
            stroke="ink",
            fill="wood",
            width=1.0,
            tint=STICK_TINT,
            id=stick.id,
        )


def _along(member: Member, surface: Surface) -> bool:
    """Whether a stick lies in the side view's own plane, so that it is not seen cut through."""
    if surface.swept or abs(surface.along[0]) > 0.5:
        return member.along_s
    return True


def _cut_through(s: Studied, member: Member, surface: Surface) -> list[Primitive]:
    """The cross-section of a stick that runs across the body."""
    b, deep = member.section_m
    face = next((f for f in s.build.shell.faces if f.kind == surface.kind), None)
    skin = skin_m(face)
    s_mid = sum(p[0] for p in member.outline) / len(member.outline)
    t_mid = sum(p[1] for p in member.outline) / len(member.outline)
    if not surface.swept and surface.up[1] and abs(surface.up[2]) > 0.05:
        return []  # rafters of a slope are seen along
    p = _section(surface, s_mid, b / 2, t_mid, skin, skin + deep)
    return [Poly(p, "ink", "wood", 0.9, id=member.id), line(p[0], p[2], width=0.6, id=member.id), line(p[1], p[3], width=0.6, id=member.id)]


def _section(surface: Surface, middle: float, half: float, t: float, near: float, far: float) -> tuple[Point, ...]:
    """Corners of a stick cut through, from near to far under the skin; on a bent one it is square to it at the stick's middle."""
    out, deep = surface.place(middle, t, near), surface.place(middle, t, far)
    if surface.swept:
        ahead, behind = surface.places(np.array([middle + 0.005, middle - 0.005]), np.array([t, t])).tolist()
        run_x, run_z = ahead[0] - behind[0], ahead[2] - behind[2]
        long = max(math.hypot(run_x, run_z), 1e-9)
        along = run_x / long * half, run_z / long * half
    else:
        along = surface.along[0] * half, surface.along[2] * half
    return tuple([(at[0] + sign * along[0], at[2] + sign * along[1]) for at, sign in ((out, -1), (out, 1), (deep, 1), (deep, -1))])


def _stick(member: Member, points: Iterable[Point], faint: bool = False) -> Poly:
    return Poly(
        tuple(points),
        "chalk" if member.by_hand else "pencil" if faint else "ink",
        "wood",
        1.4 if member.by_hand else 0.7,
        tint=0.3 if faint else STICK_TINT,
        id=member.id,
    )


def side_openings(s: Studied, words: Words, px_per_m: float, sides: tuple[str, ...] = SIDES) -> tuple[Primitive, ...]:
    """Openings of both sides in the side view; those of the right side are dashed, as seen through the body."""
    body = s.framed.body
    if body is None:
        return ()
    shapes: list[Primitive] = []
    near = [c.shape for c in s.framed.cuts if c.surface == "left side"]
    for cut in sorted(s.framed.cuts, key=lambda c: c.surface != "right side"):
        if cut.surface in sides:
            points = tuple((body.front + x, body.under + z) for x, z in list(cut.shape.exterior.coords)[:-1])
            far = cut.surface == "right side"
            # the far side's words stand in its lower half, and not where a near opening is
            left, low, right, high = cut.shape.bounds
            lower = box(left, low, right, low + 0.5 * (high - low))
            named = px_per_m if not far or all(one.intersection(lower).area < 1e-4 for one in near) else 0.0
            shapes += _opening(s, cut, points, words, named, far)
    return tuple(shapes)


def _opening(s: Studied, cut: Cut, points: tuple[Point, ...], words: Words, px_per_m: float, far: bool) -> list[Primitive]:
    ink = "primer" if not cut.good else "zinc" if cut.kind == "wheel box" else "ink"
    shape = _rounded(s, cut, points)
    made: list[Primitive] = [
        Poly(
            shape,
            ink,
            "" if far else "body",
            1.6,
            dash=(5, 4) if far or not cut.good else (),
            hatch="metal" if cut.kind == "wheel box" and not far else "",
            id=cut.id,
        )
    ]
    left, low = min(p[0] for p in points), min(p[1] for p in points)
    wide, high = max(p[0] for p in points) - left, max(p[1] for p in points) - low
    opening = next((o for o in s.build.shell.openings if o.id == cut.id), None)
    if opening is None or wide * px_per_m < 34 or high * px_per_m < 16:
        return made
    name = opening.name + (", right" if far else "")
    room, fit = wide * px_per_m - 6, max(int(high * px_per_m * 0.62 / (LABEL * 1.25)), 1)
    rows = wrapped(name, LABEL, room)
    if len(rows) > fit or any(text_width(row, LABEL) > room for row in rows):
        rows = [opening_number(s.build.shell, cut.id)]  # told by its number, with its name in the list beside
    size = f"{words.cut(opening.width.si)} × {words.cut(opening.height.si)}"
    if len(rows) < fit and text_width(size, LABEL) < room:
        rows.append(size)
    step = LABEL * 1.25 / px_per_m
    # the near side's words in the upper half, the far side's in the lower: both can be read where they overlap
    middle = low + high * (0.3 if far else 0.68)
    made += [
        Text(
            (left + wide / 2, middle + step * ((len(rows) - 1) / 2 - at)),
            row,
            LABEL,
            "pencil" if row == size or far else "ink",
            ground="body",
            id=cut.id,
        )
        for at, row in enumerate(rows)
    ]
    return made


def opening_number(shell: Shell, id: str) -> str:
    """Which of the body's openings it is, from 1, as lists and drawings call it."""
    return str(next((k for k, opening in enumerate(shell.openings, 1) if opening.id == id), "?"))


def _rounded(s: Studied, cut: Cut, points: tuple[Point, ...]) -> tuple[Point, ...]:
    """The outline with its corner radius, where one was said."""
    opening = next((o for o in s.build.shell.openings if o.id == cut.id), None)
    left, low = min(p[0] for p in points), min(p[1] for p in points)
    right, high = max(p[0] for p in points), max(p[1] for p in points)
    r = min(opening.corner.si if opening and opening.corner else 0.0, (right - left) / 2, (high - low) / 2)
    if r <= 0:
        return points
    made = []
    for cx, cy, begin in ((right - r, high - r, 0), (left + r, high - r, 90), (left + r, low + r, 180), (right - r, low + r, 270)):
        for k in range(7):
            a = np.radians(begin + 15 * k)
            made.append((float(cx + r * np.cos(a)), float(cy + r * np.sin(a))))
    return tuple(made)


def body_line(s: Studied, *, filled: bool = True) -> tuple[Primitive, ...]:
    """The outline with its inside line, and the nose box. Args: filled: else what lies behind is seen through it."""
    body = s.framed.body
    if body is None:
        return ()
    shapes: list[Primitive] = [
        Poly(tuple((float(x), float(z)) for x, z in body.side.polygon), "ink", "body" if filled else "", 1.6, id="shell")
    ]
    inside = inside_of(s.build.shell, body)
    if not inside.is_empty and inside.geom_type == "Polygon":
        shapes.append(Poly(tuple((float(x), float(z)) for x, z in list(inside.exterior.coords)[:-1]), "pencil", "", 0.8, dash=(3, 3)))
    if plan_of(s.build.shell) is not None:  # where the nose's slanted walls and the clipped corner begin
        begins, _ = side_span_m(s.build.shell, "left side")
        ends = min(side_span_m(s.build.shell, side)[1] for side in SIDES)
        for x in (begins, ends):
            if 0.01 < x < body.length - 0.01:
                low, high = body.under, body.under + body.height
                shapes.append(line((body.front + x, low), (body.front + x, high), "pencil", 0.9, (7, 3)))
    nose = s.build.shell.nose_box
    if nose is not None and nose.length.si > 0:
        shapes.append(
            rect(
                body.front - nose.length.si, body.under, nose.length.si, nose.height.si, stroke="ink", fill="body", width=1.3, id="nose-box"
            )
        )
    return tuple(shapes)


def room_marks(s: Studied, m: Measures, words: Words) -> tuple[Primitive, ...]:
    """Inside length at mattress height, head room, departure and hatch line, where they are on the body."""
    shapes: list[Primitive] = []
    body = s.framed.body
    assert body is not None
    if m.mattress_span_m is not None and m.inside_length_m is not None:
        a, b = m.mattress_span_m
        shapes += dimension((a, m.mattress_m), (b, m.mattress_m), f"inside at mattress {words.m(m.inside_length_m)}", 0.025)
    if m.head_room:
        most = max(tall for _, tall in m.head_room)
        high_there = [pair for pair in m.head_room if pair[1] > most - 0.005]
        x, tall = high_there[len(high_there) // 2]
        floor = inside_of(s.build.shell, body).bounds[1]
        shapes += [
            line((x, floor), (x, floor + tall), "pencil", 0.9, (2, 3)),
            Text((x, floor + tall * 0.8), f"head room {words.m(tall)}", LABEL, "ink", ground="paper"),
        ]
    if m.hatch_line is not None:
        shapes += [
            Circle(m.hatch_line, 0.022, "chalk", "paper", 1.4, id="hatch-line"),
            Text((m.hatch_line[0] - 0.07, m.hatch_line[1] - 0.1), "hatch line", LABEL, "chalk", anchor="right", ground="body"),
        ]
    return tuple(shapes)


def departure_mark(s: Studied, m: Measures, _words: Words) -> tuple[Primitive, ...]:
    """The line from the rear tyre past the tail."""
    body = s.framed.body
    if m.departure_deg is None or body is None or not s.build.rig.axles:
        return ()
    end = max(float(body.side.polygon[:, 0].max()), s.build.rig.frame_length.si if s.build.rig.frame_length else 0.0)
    axle = max(a.station.si for a in s.build.rig.axles)
    radius = wheel_radius_m(s.build.rig)
    slope = np.radians(m.departure_deg)
    foot = (axle + radius * float(np.sin(slope)), radius * (1 - float(np.cos(slope))))
    reach = end + 0.15 - foot[0]
    tip = (foot[0] + reach, foot[1] + reach * float(np.tan(slope)))
    return (
        line(foot, tip, "pencil", 1.0, (6, 4)),
        Text((tip[0] + 0.03, tip[1] - 0.06), f"departs {m.departure_deg:.0f}°", LABEL, "pencil", anchor="left"),
    )


def bend_marks(s: Studied, _words: Words) -> tuple[Primitive, ...]:
    """Curved skins that will not go round, marked along the skin."""
    body = s.framed.body
    if body is None:
        return ()
    shapes: list[Primitive] = []
    bends = sheet_bends(s)
    for face in s.build.shell.faces:
        verdicts = {bend.verdict for bend in bends if bend.face_id == face.id}
        ink = "primer" if "refused" in verdicts else "ochre" if "warned" in verdicts else ""
        chain = body.side.chain(face.kind) if ink else ()
        if len(chain) > 1:
            shapes.append(Poly(tuple((float(x), float(z)) for x, z in chain), ink, "", 3.0, closed=False, id=face.id))
    return tuple(shapes)


def flat_face(s: Studied, surface: Surface, words: Words, px_per_m: float, sized: bool = True) -> tuple[Primitive, ...]:
    """One surface laid flat: its outline, sticks, openings and sizes, as ``laid`` puts it on paper."""
    shape, on = surface.polygon, laid(surface)
    points = on.points([(float(x), float(y)) for x, y in list(shape.exterior.coords)[:-1]])
    shapes: list[Primitive] = [Poly(points, "ink", "body", 1.4, id=surface.id)]
    for member in s.framed.on(surface.id):
        shapes.append(_stick(member, on.points(member.outline)))
    for cut in s.framed.cuts:
        if cut.surface == surface.id:
            corners = on.points([(float(x), float(y)) for x, y in list(cut.shape.exterior.coords)[:-1]])
            shapes += _opening(s, cut, corners, words, px_per_m, far=False)
    if sized:
        left, low, right, high = on.bounds(shape.bounds)
        gap = 14 / px_per_m
        tick = 3.5 / px_per_m
        shapes += dimension((left, low - gap), (right, low - gap), words.cut(right - left), tick)
        shapes += [
            line((right + gap, low), (right + gap, high), "pencil"),
            line((right + gap - tick, low - tick), (right + gap + tick, low + tick), "pencil"),
            line((right + gap - tick, high - tick), (right + gap + tick, high + tick), "pencil"),
            Text((right + gap + 4 / px_per_m, (low + high) / 2), words.cut(high - low), LABEL, "ink", anchor="left", ground="paper"),
        ]
    return tuple(shapes)


NUMBER_WIDE = 10.0  # points a layer's number takes along the section


def layer_section(face: Face, library: dict[str, Material], at: Point, high: float, scale: float, words: Words) -> tuple[Primitive, ...]:
    """A cut through a face's layers, outside at the left: bands to scale with their names.

    Args: at: lower left corner; high: of the bands; scale: drawing units a metre of thickness.
    """
    shapes: list[Primitive] = []
    x = at[0]
    written, lifted = -math.inf, False
    depth = framed_depth_m(face, 0.0)
    for number, layer in enumerate(face.layers, 1):
        material = library.get(layer.material)
        if material is None:
            continue
        wide = max(layer.thickness.si * scale, 2.0)
        ink, hatch = look_of(material)
        shapes.append(rect(x, at[1], wide, high, stroke="ink", fill=ink, tint=0.45, hatch=hatch, width=0.8))
        if layer.framing > 0 and depth > 0:
            stick = high * 0.22
            shapes.append(rect(x, at[1] + high * 0.12, wide, stick, stroke="ink", fill="wood", width=0.8))
            shapes.append(line((x, at[1] + high * 0.12), (x + wide, at[1] + high * 0.12 + stick), width=0.6))
            shapes.append(line((x, at[1] + high * 0.12 + stick), (x + wide, at[1] + high * 0.12), width=0.6))
        middle = x + wide / 2
        lifted = not lifted and middle - written < NUMBER_WIDE  # numbers of thin layers side by side stand in two rows
        shapes.append(Text((middle, at[1] + high + (17 if lifted else 8)), str(number), 9, "ink"))
        written, x = middle, x + wide
    total = sum(layer.thickness.si for layer in face.layers)
    shapes += [
        Text((at[0], at[1] - 10), "outside", 9, "pencil", anchor="left"),
        Text((x + 4, at[1] + high / 2), words.layer(total) if total > 0 else "", 9, "ink", anchor="left"),
    ]
    return tuple(shapes)


def layer_words(face: Face, library: dict[str, Material], words: Words) -> list[str]:
    """The layers from outside in, numbered as in the section."""
    made = []
    for number, layer in enumerate(face.layers, 1):
        material = library.get(layer.material)
        name = words.material(material.name) if material else f"{layer.material} (unknown)"
        thick = f"{words.layer(layer.thickness.si)} " if layer.thickness.si > 0 else ""
        battens = f", {layer.battens} battens" if layer.battens else ""
        made.append(f"{number}  {thick}{name}" + (" between sticks" if layer.framing > 0 else battens))
    return made
