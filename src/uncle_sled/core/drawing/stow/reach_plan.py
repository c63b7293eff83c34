"""Reach from above: what is got at at once, what wants something moved, what is out of reach; the cook's circle; both states.

In points, y up; the right side is up, the front at the left.
"""

from __future__ import annotations

from uncle_sled.core.document.stow import Mode
from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.rig_views import plan_body, plan_rig, plan_wheels
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.conversions import conversion
from uncle_sled.core.studies.stow.reach import COOK_M, accesses, cook
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.words import Words

EDGE, FOOT = 12.0, 18.0
INKS = {"outside": ("pencil", 0.0), "at once": ("spruce", 0.16), "after moving": ("ochre", 0.3), "out of reach": ("primer", 0.22)}
KEY = (("spruce", "at once"), ("ochre", "something first"), ("primer", "out of reach"))


def reach_plan(s: Studied, mode: Mode, chosen: tuple[str, ...], words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The plan of a mode. () without anything aboard."""
    build, facts = s.build, s.facts
    got = {each_access.id: each_access for each_access in accesses(build, facts, mode)}
    if not got or min(width, height) < 80:
        return ()
    shapes: list[Primitive] = [*plan_rig(build), *plan_wheels(build), *plan_body(build)]
    names: list[tuple[float, float, float, str, str]] = []
    things = [p for p in things_in(s, 0, mode) if p.thing.id in got and min(p.size) > 0] if s.table.cases else []
    for p in sorted(things, key=lambda p: -p.size[0] * p.size[1]):
        ink, tint = INKS[got[p.thing.id].how]
        on = p.thing.id in chosen
        dash: tuple[float, ...] = (5, 3) if got[p.thing.id].how == "out of reach" else ()
        shapes.append(
            rect(
                p.x,
                p.y - p.size[1] / 2,
                p.size[0],
                p.size[1],
                stroke="chalk" if on else ink,
                fill=ink if tint else "",
                width=2.6 if on else 1.3,
                dash=dash,
                tint=tint or 1.0,
                id=p.thing.id,
            )
        )
        names.append((p.x + p.size[0] / 2, p.y, p.size[0], p.thing.name, p.thing.id))
    spots = {p.thing.id: (p.x + p.size[0] / 2, p.y) for p in things}
    for access in got.values():  # what comes first, as a line to what waits for it
        if access.id in chosen:
            shapes += [
                line(spots[id], spots[access.id], "ochre", 1.6, (5, 3), id=id) for id in access.first if id in spots and access.id in spots
            ]
    other = next((m for m in build.stow.modes if m.towing != mode.towing), None)
    if other is not None:
        for change in conversion(build, other, mode).changes:
            if change.before is not None and change.after is not None:
                (x0, y0, _), (x1, y1, _) = change.before
                shapes.append(rect(x0, y0, x1 - x0, y1 - y0, stroke="pencil", fill="", width=1.1, dash=(2, 3), id=change.id))
    stands = cook(build, facts, mode).stands
    if stands is not None:
        shapes += [Circle(stands, COOK_M, "chalk", "", 1.3, (7, 4)), Circle(stands, 0.08, "chalk", "chalk", 1.0)]
    room = room_of(build, facts, mode)
    left, right = room.span_m if room is not None else (0.0, 4.0)
    half = (room.outer_half_m if room is not None else 1.0) + 0.25
    reach = [x for shape in shapes if isinstance(shape, Poly) and shape.id in got for x, _ in shape.points]
    far = [abs(y) for shape in shapes if isinstance(shape, Poly) and shape.id in got for _, y in shape.points]
    left = max(min([left - 0.2, *reach]), left - 1.6)
    right = min(max([right + 0.2, *reach, *([stands[0] + 0.2] if stands else [])]), right + 1.6)
    half = min(max([half, *far]), half + 1.0)
    scale = max(min((width - 2 * EDGE) / (right - left), (height - 2 * EDGE - FOOT) / (2 * half)), 4.0)
    at = (width / 2 - scale * (left + right) / 2, FOOT + (height - FOOT) / 2)
    made = list(placed(shapes, scale, *at))
    taken: list[tuple[float, float, float, float]] = []
    for x, y, wide, name, id in sorted(names, key=lambda n: -n[2]):
        text = elided(name, 11, max(wide * scale - 6, 0.0))
        px, py = at[0] + x * scale, at[1] + y * scale
        spot = (px - wide * scale / 2, py - 7, px + wide * scale / 2, py + 7)
        if len(text) < 4 or any(spot[0] < t[2] and spot[2] > t[0] and spot[1] < t[3] and spot[3] > t[1] for t in taken):
            continue
        taken.append(spot)
        made.append(Text((px, py), text, 11, "ink", ground="body", id=id))
    x = EDGE
    for ink, text in KEY:
        made += [rect(x, 6, 12, 8, stroke=ink, fill=ink, tint=0.3), Text((x + 17, 10), text, 11, "ink", anchor="left")]
        x += 32 + made[-1].width  # type: ignore[union-attr]
    if stands is not None:
        says = elided(f"circle: the cook's {words.m(COOK_M)}; dotted: as it was before", 11, width - x - 8)
        made.append(Text((x, 10), says, 11, "pencil", anchor="left"))
    return tuple(made)
