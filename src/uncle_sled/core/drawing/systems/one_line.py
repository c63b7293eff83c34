"""The one-line diagram: boxes, wires with number, size, length, drop and fuse, and what hangs on nothing. In points, y up."""

from __future__ import annotations

import itertools

import msgspec
from msgspec.structs import replace

from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.systems.one_line_layout import GAP_W, LaidOut, LineAt, Wants, laid_out
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.engine import keep
from uncle_sled.core.units import feet_inches
from uncle_sled.core.wiring.appliances import usable_wh
from uncle_sled.core.wiring.network import End
from uncle_sled.core.wiring.supply_states import Live
from uncle_sled.core.wiring.wired import Laid, Wired
from uncle_sled.core.words import Words

EDGE, HEAD = 14.0, 26.0
SIZE, SMALL = 11.5, 10.0
INK = {"DC": "ink", "panel": "power", "AC": "zinc", "earth": "spruce"}
WIDE = {"DC": 1.6, "panel": 1.6, "AC": 2.4, "earth": 1.4}
SOURCES = ("battery", "station", "panel", "inlet", "generator", "car plug")
NARROW, NARROW_W = ("main switch", "switch", "shunt", "bus bar", "RCD", "transfer switch", "inlet"), 72.0
SPREADS = ("bus bar", "fuse box", "AC board")


class Diagram(msgspec.Struct, frozen=True, eq=False):
    """The diagram of the wiring as shapes, with its size [points]."""

    shapes: tuple[Primitive, ...]
    width: float
    height: float
    layout: LaidOut


def one_line(wired: Wired, words: Words) -> Diagram:
    """The whole diagram at its own size."""
    return _one_line(wired, words, words.shown)


def _wires(wired: Wired) -> tuple[Laid, ...]:
    return wired.wires


@keep("wired.net", _wires, "_shown.length", most=2)
def _one_line(wired: Wired, words: Words, _shown: object) -> Diagram:
    net = wired.net
    drawn = [w for w in wired.wires if w.kind != "earth"]
    used = {end for wire in wired.wires for end in (wire.start, wire.end)}
    ids = [id for id in net.ends if id in used and (net.ends[id].kind != "earth stud" or any(w.end == id or w.start == id for w in drawn))]
    ids.sort(key=lambda id: (net.ends[id].kind not in SOURCES,))
    last = [id for id in ids if net.ends[id].runs is not None or net.ends[id].kind.endswith("socket")]
    narrow = {id: NARROW_W for id in ids if net.ends[id].kind in NARROW}
    layout = laid_out(ids, [Wants(w.id, w.start, w.end) for w in drawn], last, narrow)
    loose = [end for id, end in net.ends.items() if id not in used]
    foot = _foot(loose)
    rise = EDGE + foot
    shapes: list[Primitive] = []
    by_id = {wire.id: wire for wire in wired.wires}
    for at in layout.lines:
        shapes += _wire(at, by_id[at.id], rise, words)
    for box in layout.boxes:
        left, low = EDGE + box.x - box.width / 2, rise + box.y - box.height / 2
        shapes += _box(net.ends[box.id], left, low, box.width, box.height)
        shapes += _earth(box.id, wired, left, low)
    width = layout.width + 2 * EDGE
    shapes += _loose(loose, width)
    over = max((y for at in layout.lines for _, y in at.points), default=0.0)
    return Diagram(tuple(shapes), max(width, 360.0), max(layout.height, over) + rise + HEAD, layout)


def _wire(at: LineAt, wire: Laid, rise: float, words: Words) -> list[Primitive]:
    points = tuple((x + EDGE, y + rise) for x, y in at.points)
    ink = INK[wire.kind] if wire.mm2 is not None else "primer"
    dash = () if wire.mm2 is not None else (5.0, 3.0)
    shapes: list[Primitive] = [Poly(points, ink, "", WIDE[wire.kind], closed=False, dash=dash, id=wire.id)]
    level, (x, y) = at.level_from + EDGE, points[-1]
    if at.back:
        level, x, y = at.words_at[0] + EDGE - 30, at.words_at[0] + EDGE + 40, at.words_at[1] + rise
    middle = max(level, x - GAP_W + 8)
    said = wire.gauge if wire.mm2 is not None else "no size"
    shapes.append(
        Text(
            (x - 5, y + 6.5),
            f"{wire.number}  {said}",
            size=SMALL,
            ink=ink if ink != "power" else "ink",
            face="strong",
            anchor="right",
            ground="paper",
            id=wire.id,
        )
    )
    long = feet_inches(wire.length_m, 1) if words.shown.imperial else words.m(wire.length_m)
    low = f"~{long}" if wire.length_face == "guessed" else long
    fuse = wire.fuse_words
    shapes.append(
        Text(
            (x - 5, y - 6.5),
            "  ".join(word for word in (low, fuse) if word),
            size=SMALL,
            ink="pencil",
            face="text",
            anchor="right",
            ground="paper",
            id=wire.id,
        )
    )
    if wire.fused in ("start", "both"):
        shapes.append(_fuse(min(middle + 4, x - 62), y, wire.id))
    if wire.fused in ("end", "both"):
        shapes.append(_fuse(x - 12, y, wire.id))
    return shapes


def _fuse(x: float, y: float, id: str) -> Poly:
    return rect(x - 5, y - 2.6, 10, 5.2, stroke="ink", fill="body", width=1.1, id=id)


def _box(end: End, left: float, low: float, width: float, height: float) -> list[Primitive]:
    kind = end.kind
    middle = low + height / 2
    if kind in SPREADS:
        shapes: list[Primitive] = [
            rect(left, low, width, height, stroke="ink", fill="body", width=1.2, id=end.id),
            rect(left, low, 6, height, stroke="ink", fill="ink", width=1.0, id=end.id),
        ]
    elif kind in SOURCES:
        shapes = [
            rect(left, low, width, height, stroke="ink", fill="body", width=2.2, id=end.id),
            rect(left + 2.5, low + 2.5, width - 5, height - 5, stroke="power", fill="", width=1.0, id=end.id),
        ]
    elif end.runs is not None:
        r = min(height / 2, 12.0)
        shapes = [
            Poly(
                ((left, middle), (left + r, low + height), (left + width, low + height), (left + width, low), (left + r, low)),
                "ink",
                "body",
                1.2,
                id=end.id,
            )
        ]
    else:
        shapes = [rect(left, low, width, height, stroke="ink", fill="body", width=1.2, id=end.id)]
    inset = 14 if end.runs is not None else 10
    said = _caption(end)
    lines = wrapped(end.name, SIZE, width - inset - 6)[: 1 if said else 2]
    if len(lines) == 1 or said:
        lines = [elided(end.name, SIZE, width - inset - 6)]
    rows: list[tuple[str, float, str]] = [(line, SIZE, "ink") for line in lines]
    if said:
        rows.append((elided(said, SMALL, width - inset - 6), SMALL, "pencil"))
    top = middle + (len(rows) - 1) * 6.5
    for at, (text, size, ink) in enumerate(rows):
        shapes.append(
            Text(
                (left + inset, top - 13 * at),
                text,
                size=size,
                ink=ink,
                face="strong" if ink == "ink" else "text",
                anchor="left",
                ground="",
                id=end.id,
            )
        )
    return shapes


def _caption(end: End) -> str:
    f = end.figures
    if end.runs is not None:
        told = "watts not said" if end.runs.power_w is None else f"{end.runs.power_w:.0f} W{' mains' if end.runs.ac else ''}"
        return told
    if f is not None and end.kind == "battery":
        return (
            "amp hours not said"
            if f.amp_hours is None
            else f"{f.amp_hours:g} Ah {f.chemistry}".strip()
            if f"{f.amp_hours:g} Ah" not in end.name
            else f"{usable_wh(f) or 0:.0f} Wh to use"
        )
    if f is not None and end.kind == "panel":
        return f"{f.solar_wp:.0f} W peak" if f.solar_wp is not None else "watts not said"
    if f is not None and end.kind == "station":
        return f"12 V outlet {f.limit_a:g} A" if f.limit_a is not None else "outlet not said"
    if f is not None and f.charge_w is not None and "charger" in end.kind:
        return f"{f.charge_w:.0f} W"
    if end.kind in ("main switch", "switch"):
        return "parts the minus only" if end.breaks == "minus" else ""
    return f"{end.rating_a:g} A" if end.rating_a is not None else ""


def _earth(id: str, wired: Wired, left: float, low: float) -> list[Primitive]:
    """The earth of a box as a short stub under it, with the number of its wire."""
    shapes: list[Primitive] = []
    for wire in wired.wires:
        if wire.kind != "earth" or wire.start != id:
            continue
        x, y = left + 18, low
        shapes += [line((x, y), (x, y - 6), "spruce", 1.6, id=wire.id)]
        shapes += [line((x - w, y - 6 - d), (x + w, y - 6 - d), "spruce", 1.4, id=wire.id) for w, d in ((6, 0.0), (3.8, 2.4), (1.6, 4.8))]
        shapes.append(Text((x + 10, y - 7), wire.number, size=8.5, ink="spruce", face="strong", anchor="left", ground="", id=wire.id))
    return shapes


def _foot(loose: list[End]) -> float:
    return 30.0 if loose else 0.0


def _loose(loose: list[End], width: float) -> list[Primitive]:
    """What has no wire yet, along the foot."""
    if not loose:
        return []
    shapes: list[Primitive] = [Text((EDGE, 22), "not wired yet", SMALL, "ochre word", "strong", "left")]
    x = EDGE + 78
    for at, end in enumerate(loose):
        name = elided(end.name, SMALL, 110)
        if x + 130 > max(width, 420.0) and at < len(loose) - 1:
            shapes.append(Text((x, 22), f"and {len(loose) - at} more", SMALL, "pencil", "text", "left"))
            break
        shapes.append(rect(x, 13, 118, 18, stroke="ochre", fill="", width=1.0, dash=(3.0, 2.0), id=end.id))
        shapes.append(Text((x + 5, 22), name, size=SMALL, ink="ink", face="text", anchor="left", ground="", id=end.id))
        x += 126
    return shapes


def as_live(shapes: tuple[Primitive, ...], live: Live) -> tuple[Primitive, ...]:
    """The diagram in one state of supply: what is live strong, all else faint."""
    made: list[Primitive] = []
    for shape in shapes:
        on = shape.id in live.ends or shape.id in live.wires
        if isinstance(shape, Poly) and shape.id and not on:
            shape = replace(shape, stroke="rule", fill="" if shape.fill == "ink" else shape.fill, width=max(shape.width * 0.7, 0.8))
        elif isinstance(shape, Poly) and shape.id in live.wires:
            shape = replace(shape, stroke="spruce" if shape.stroke == "ink" else shape.stroke, width=shape.width * 1.5)
        elif isinstance(shape, Text) and shape.id and not on:
            shape = replace(shape, ink="pencil")
        made.append(shape)
    return tuple(made)


def wire_at(shapes: tuple[Primitive, ...], at: Point, reach: float = 5.0) -> str:
    """The id of what is drawn at a point: a box over a wire, the nearest wire within reach; nothing where nothing is."""
    found, best = "", reach
    for shape in shapes:
        if isinstance(shape, Poly) and shape.id:
            if shape.closed:
                xs, ys = [p[0] for p in shape.points], [p[1] for p in shape.points]
                if min(xs) <= at[0] <= max(xs) and min(ys) <= at[1] <= max(ys):
                    return shape.id
            else:
                for a, b in itertools.pairwise(shape.points):
                    gap = _off(at, a, b)
                    if gap < best:
                        found, best = shape.id, gap
        elif isinstance(shape, Text) and shape.id and not found:
            half = shape.width / 2
            middle = shape.at[0] + {"left": half, "middle": 0.0, "right": -half}[shape.anchor]
            if abs(at[0] - middle) <= half and abs(at[1] - shape.at[1]) <= shape.size / 2:
                found = shape.id
    return found


def _off(p: Point, a: Point, b: Point) -> float:
    dx, dy = b[0] - a[0], b[1] - a[1]
    long = dx * dx + dy * dy
    share = 0.0 if long <= 0 else min(max(((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / long, 0.0), 1.0)
    return float(((p[0] - a[0] - share * dx) ** 2 + (p[1] - a[1] - share * dy) ** 2) ** 0.5)
