"""What holds every thing, from above: straps as arrows from its corners, bolts as crosses, the weakest direction in red."""

from __future__ import annotations

import math

from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line, placed
from uncle_sled.core.drawing.rig.rig_views import plan_body
from uncle_sled.core.drawing.rig.things_placed import Placed, things_in
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.parts.holding import USUAL_DEG
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.stow.restraints import WAY_WORDS, Restraint, restraints
from uncle_sled.core.words import Words

EDGE, STRAP_M, PULL_M = 14.0, 0.22, 0.30


def held_plan(s: Studied, chosen: tuple[str, ...], _words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The plan of the first mode on the road, in points; () where nothing rides that wants holding."""
    found = {hold.id: hold for hold in restraints(s.build, s.table)}
    mode = next((mode for mode in s.build.stow.modes if mode.towing), None)
    if not found or mode is None:
        return ()
    things = [p for p in things_in(s, s.towing_rows[0] if s.towing_rows else 0, mode) if p.thing.id in found]
    if not things:
        return ()
    body = s.framed.body
    left = min([p.x for p in things] + ([body.front] if body else []))
    right = max([p.x + p.size[0] for p in things] + ([body.front + body.length] if body else [length_m(s.build)]))
    half = max([abs(p.y) + p.size[1] / 2 for p in things] + ([body.width / 2] if body else []))
    if right - left > 60 or half > 20:
        return ()
    scale = max(min((width - 2 * EDGE) / (right - left + 0.3), (height - 2 * EDGE - 18) / (2 * half + 0.3)), 6.0)
    dx, dy = (width - scale * (right + left)) / 2, EDGE + 18 + (height - 2 * EDGE - 18) / 2
    shapes: list[Primitive] = list(plan_body(s.build))
    for p in sorted(things, key=lambda p: p.z):
        shapes += _thing(p, found[p.thing.id], p.thing.id in chosen, scale)
    for p in things:  # over everything else
        least = found[p.thing.id].weakest
        if least is not None and not least.enough:
            shapes += _pull(least.way, (p.x + p.size[0] / 2, p.y), scale, p.thing.id)
    drawn = list(placed(tuple(shapes), scale, dx, dy))
    drawn += _names(things, scale, dx, dy)
    weak = [hold for hold in found.values() if hold.fault == "weak" and hold.weakest]
    says = "Arrows are straps, crosses are bolts and latches; the front is at the left."
    if weak:
        worst = min(weak, key=lambda hold: hold.weakest.capacity_n / max(hold.weakest.wanted_n, 1e-9) if hold.weakest else 0)
        assert worst.weakest is not None
        says = f"Red: {worst.name} would go {WAY_WORDS[worst.weakest.way]} first."
    drawn.append(Text((EDGE, 12.0), elided(says, 12, width - 2 * EDGE), 12, "primer" if weak else "pencil", anchor="left"))
    return tuple(drawn)


def _thing(p: Placed, restraint: Restraint, chosen: bool, scale: float) -> list[Primitive]:
    x0, x1 = p.x, p.x + p.size[0]
    y0, y1 = p.y - p.size[1] / 2, p.y + p.size[1] / 2
    ring = ((x0, y0), (x1, y0), (x1, y1), (x0, y1))
    loose = restraint.fault in ("loose", "unrated")
    shapes: list[Primitive] = [
        Poly(
            ring, "chalk" if chosen else "ink", "kraft", 2.0 if chosen else 1.0, dash=(3.0, 3.0) if loose else (), tint=0.5, id=restraint.id
        )
    ]
    hold = restraint.hold
    if hold is None:
        return shapes
    if hold.kind != "strap":
        for x, y in ((x0, y0), (x1, y1)):
            tick = 3.5 / scale
            shapes += [
                line((x - tick, y - tick), (x + tick, y + tick), "ink", 1.4, id=restraint.id),
                line((x - tick, y + tick), (x + tick, y - tick), "ink", 1.4, id=restraint.id),
            ]
    else:
        shapes += _straps(restraint, (x0, x1, y0, y1), scale)
    return shapes


def _straps(restraint: Restraint, box: tuple[float, float, float, float], scale: float) -> list[Primitive]:
    """One arrow a strap, at most four, along its own angle in plan."""
    hold = restraint.hold
    assert hold is not None
    b = math.radians(USUAL_DEG if hold.plan_deg is None else hold.plan_deg)
    x0, x1, y0, y1 = box
    ways = {"both ways": (1, -1), "aft": (1, 1), "fore": (-1, -1)}[hold.leads]
    shapes: list[Primitive] = []
    for k in range(min(hold.many, 4)):
        along, across = ways[k // 2 % 2], 1 if k % 2 == 0 else -1
        if hold.many == 2 and hold.leads == "both ways":
            along = ways[k]
        start = (x1 if along > 0 else x0, y1 if across > 0 else y0)
        end = (start[0] + along * STRAP_M * math.cos(b), start[1] + across * STRAP_M * math.sin(b))
        ink = "spruce" if restraint.fault == "" and not restraint.assumed else "chalk"
        shapes += [line(start, end, ink, 1.8, (4.0, 3.0) if restraint.assumed else (), restraint.id), *_head(start, end, ink, scale)]
        shapes.append(Circle(end, 2.0 / scale, ink, "paper", 1.0))
    return shapes


def _head(start: Point, end: Point, ink: str, scale: float) -> list[Primitive]:
    angle = math.atan2(end[1] - start[1], end[0] - start[0])
    size = 6.0 / scale
    wings = [(end[0] - size * math.cos(angle + by), end[1] - size * math.sin(angle + by)) for by in (0.45, -0.45)]
    return [Poly((end, *wings), ink, ink, 0.8)]


def _pull(way: str, middle: Point, scale: float, id: str) -> list[Primitive]:
    """Where the thing would go: forward is to the left; up is a ring around its middle."""
    if way == "up":
        return [Circle(middle, 7.0 / scale, "primer", "", 2.4, id=id)]
    by = {"fore": (-PULL_M, 0.0), "aft": (PULL_M, 0.0), "side": (0.0, PULL_M)}[way]
    end = (middle[0] + by[0], middle[1] + by[1])
    return [line(middle, end, "primer", 3.0, id=id), *_head(middle, end, "primer", scale / 1.5)]


def _names(things: list[Placed], scale: float, dx: float, dy: float) -> list[Primitive]:
    """Names that fit into their own box and over no other name, the largest things first; the list above has the rest."""
    made: list[Text] = []
    for p in sorted(things, key=lambda p: -p.size[0] * p.size[1]):
        room = p.size[0] * scale - 8
        words = p.thing.name.split()
        text = next((say for n in (len(words), 2) if text_width(say := " ".join(words[:n]), 11) <= room), "")
        if not text or p.size[1] * scale < 15:
            continue
        half = text_width(text, 11) / 2
        for share in (0.5, 0.25, 0.75):
            x, y = dx + (p.x + p.size[0] / 2) * scale, dy + (p.y + p.size[1] * (share - 0.5)) * scale
            if all(abs(x - o.at[0]) > half + text_width(o.text, 11) / 2 + 4 or abs(y - o.at[1]) > 14 for o in made):
                made.append(Text((x, y), text, 11, "ink", ground="kraft", id=p.thing.id))
                break
    return list(made)
