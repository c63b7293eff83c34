"""One page for the shop wall: side and plan to scale, what weighs how much and where, every case, the limits, what to settle.

Lying, in points, y up; the same page goes to PDF and SVG.
"""

from __future__ import annotations

import numpy as np

from uncle_sled.core.drawing.balance.axle_order import towing_lines
from uncle_sled.core.drawing.page import POINTS_PER_M, Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Circle, Point, Primitive, Text, dimension, line, placed, rect
from uncle_sled.core.drawing.rig.rig_views import heights_m, whole_view
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.reading.limits import use
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.words import Words, lower_first

EDGE = 36.0
DRAWING_HIGH = 236.0
LIST_PX, LIST_ROW = 186.0, 11.5  # a column of the weights list
ROW = 14.0


def balance_sheet(s: Studied, found: tuple[Finding, ...], project_name: str, printed: str) -> Page:
    """The page of a build as judged. Args: printed: the date in words, put at the foot."""
    words, size = Words(s.build.brief.reading.shown()), paper_of(s.build).lying
    shapes: list[Primitive] = [
        Text((EDGE, size[1] - 47), elided(project_name, 22, 420, "head"), 22, "ink", "head", "left"),
        Text((size[0] - EDGE, size[1] - 44), f"Balance sheet · {elided(s.build.name, 11, 200)} · {printed}", 11, "pencil", "text", "right"),
        line((EDGE, size[1] - 60), (size[0] - EDGE, size[1] - 60), "rule"),
    ]
    wide = _drawing(size, s, words, shapes)
    shapes += _weights(size, s, words, EDGE + wide + 18)
    top = size[1] - 66 - DRAWING_HIGH - 18
    low = _cases(s, words, shapes, top)
    _limits(s, words, shapes, low - 12)
    _findings(size, found, shapes, top)
    shapes.append(
        Text(
            (EDGE, 24),
            f"{s.band.says}. Screening only: weigh it before you tow; plates, papers, local law and licensed people decide.",
            9,
            "pencil",
            "text",
            "left",
        )
    )
    return Page(size[0], size[1], tuple(shapes), f"{project_name}: balance sheet")


def _drawing(size: Point, s: Studied, words: Words, shapes: list[Primitive]) -> float:
    """Side over plan on one scale, at the left; how wide they came out [points]."""
    reach, (top, half) = length_m(s.build) + 0.35, heights_m(s.build)
    left = -1.0 if s.build.rig.carrier == "vehicle bed" else -0.3
    gap = 30.0  # between the views, with the measured line
    most = size[0] - 2 * EDGE - LIST_PX - 18
    scale = min(most / (reach - left), (DRAWING_HIGH - gap - 12) / max(top + 2 * half, 0.5))
    x0 = EDGE - left * scale
    ground = size[1] - 74 - top * scale
    middle = ground - gap - half * scale
    wide = scale * (reach - left)
    shapes += placed(whole_view(s, 0, "side", scale, (left, -4 / scale, reach, top + 6 / scale)), scale, x0, ground)
    shapes += placed(whole_view(s, 0, "plan", scale, (left, -half, reach, half)), scale, x0, middle)
    cg = s.readings.cg_m[0] if len(s.readings.cg_m) else np.full(3, np.nan)
    if not np.isnan(cg).any():
        for at in ((float(cg[0]) * scale + x0, float(cg[2]) * scale + ground), (float(cg[0]) * scale + x0, float(cg[1]) * scale + middle)):
            shapes += [
                Circle(at, 5, "ink", "paper", 1.4),
                line((at[0] - 5, at[1]), (at[0] + 5, at[1])),
                line((at[0], at[1] - 5), (at[0], at[1] + 5)),
            ]
    if s.support is not None and s.support.carrier == "ball":
        axle = s.support.mean_axle_m
        shapes += dimension((x0, ground - 12), (x0 + axle * scale, ground - 12), f"ball to axle {words.m(axle)}", 3, 9)
    shapes.append(Text((EDGE + wide, ground - 12), f"left side and plan, 1 : {round(POINTS_PER_M / scale)}", 8, "pencil", "text", "right"))
    return wide


def _weights(size: Point, s: Studied, words: Words, left: float) -> list[Primitive]:
    """What weighs how much and where, heaviest first, in as many columns as there is room; the rest summed."""
    if not s.table.cases:
        return []
    kg = s.table.mass_kg[0]
    order = sorted(range(len(kg)), key=lambda at: -abs(float(kg[at])))
    order = [at for at in order if abs(float(kg[at])) > 1e-9]
    room = size[0] - EDGE - left
    many = max(int((room + 14) // (LIST_PX + 14)), 1)
    each = (room - 14 * (many - 1)) / many
    per = int((DRAWING_HIGH - 22) // LIST_ROW)
    top = size[1] - 76
    shapes: list[Primitive] = [
        Text((left, top), f"Weights, {lower_first(s.table.cases[0].name)}", 11, "ink", "head", "left"),
        Text(
            (size[0] - EDGE, top),
            "from the front axle" if s.build.rig.carrier == "vehicle bed" else "from the ball",
            8,
            "pencil",
            "text",
            "right",
        ),
    ]
    shown = order[: many * per - (1 if len(order) > many * per else 0)]
    for row, at in enumerate(shown):
        x, y = left + (each + 14) * (row // per), top - 5 - LIST_ROW * (row % per + 1)
        shapes += [
            Text((x, y), elided(s.table.names[at], 9, each - 108), 9, "ink", "text", "left"),
            Text((x + each - 58, y), words.kg(float(kg[at])), 9, "ink", "strong", "right"),
            Text((x + each, y), words.m(float(s.table.x_m[0, at])), 9, "pencil", "text", "right"),
        ]
    rest = order[len(shown) :]
    if rest:
        row = len(shown)
        x, y = left + (each + 14) * (row // per), top - 5 - LIST_ROW * (row % per + 1)
        said = f"and {len(rest)} more, {words.kg(sum(float(kg[at]) for at in rest))}"
        shapes.append(Text((x, y), elided(said, 9, each), 9, "pencil", "text", "left"))
    return shapes


def _cases(s: Studied, words: Words, shapes: list[Primitive], top: float) -> float:
    bed = s.build.rig.carrier == "vehicle bed"
    heads = (
        "Case",
        "Total",
        "Front" if bed else "On the ball",
        "Rear" if bed else "Share",
        "Want" if not bed else "",
        "Axle" if not bed else "",
        "Left / right",
        "In band",
    )
    stops = (0, 246, 298, 334, 404, 450, 508, 546)
    shapes += [
        Text((EDGE + x, top), head, 10, "pencil", "text", "left" if at == 0 else "right")
        for at, (x, head) in enumerate(zip(stops, heads, strict=True))
    ]
    y = top - 4
    b = s.readings
    for row, case in enumerate(s.table.cases):
        if not case.mode.towing or y < 120:
            continue
        y -= ROW
        tongue = float(b.tongue_kg[row])
        out = not bed and not np.isnan(tongue) and not b.band_kg[row, 0] <= tongue <= b.band_kg[row, 1]
        cells = _cells(s, row, words, bed)
        shapes.append(line((EDGE, y + ROW - 7), (EDGE + 546, y + ROW - 7), "rule", 0.5))
        shapes.append(Text((EDGE + 76, y), elided(case.says, 9, 124), 9, "pencil", "text", "left"))
        for at, (x, cell) in enumerate(zip(stops, (elided(case.name, 10, 72), *cells), strict=True)):
            shapes.append(
                Text(
                    (EDGE + x, y),
                    cell,
                    10,
                    "primer" if out and at in (2, 3) else "ink",
                    "strong" if at == 2 else "text",
                    "left" if at == 0 else "right",
                )
            )
    return y - 6


def _cells(s: Studied, row: int, words: Words, bed: bool) -> tuple[str, ...]:
    b = s.readings
    total = words.kg(float(b.total_kg[row]))
    sides = "" if np.isnan(b.left_kg[row]) else f"{words.bare_kg(float(b.left_kg[row]))} / {words.bare_kg(float(b.right_kg[row]))}"
    if bed:
        axles = [words.kg(float(kg)) for kg in b.axle_kg[row]] or ["", ""]
        return total, axles[0], axles[1], "", "", sides, ""
    if np.isnan(b.tongue_kg[row]):
        return total, "", "", "", "", "", ""
    low, high = (float(kg) for kg in b.band_kg[row])
    return (
        total,
        words.kg(float(b.tongue_kg[row])),
        words.share(float(b.share[row])),
        f"{words.bare_kg(low)} to {words.bare_kg(high)}",
        words.kg(float(b.total_kg[row] - b.tongue_kg[row])),
        sides,
        words.share(float(b.chance[row]), 0),
    )


def _limits(s: Studied, words: Words, shapes: list[Primitive], top: float) -> None:
    shapes.append(Text((EDGE, top), "Nearest to their limits", 12, "ink", "head", "left"))
    y = top - 4
    told = [f"{name}: {says}" for name, says in towing_lines(s, words)]
    for says in told:
        y -= ROW - 2
        shapes.append(Text((EDGE, y), elided(says, 9, 546), 9, "ink", "text", "left"))
    missing = _unchecked_words(s, 546)
    for at, says in enumerate(reversed(missing)):
        shapes.append(Text((EDGE, 38 + 11 * at), says, 9, "pencil", "text", "left"))
    for limit in s.limits[: max(0, int((top - 50) // ROW) - len(told))]:
        y -= ROW
        if y < 40 + 11 * len(missing):
            break
        share = min(use(limit), 1.2)
        shapes += [
            Text((EDGE, y), elided(limit.name, 10, 108), 10, "ink", "text", "left"),
            rect(EDGE + 112, y - 4, 150, 7, stroke="", fill="rule"),
            rect(
                EDGE + 112,
                y - 4,
                150 * min(share, 1.0),
                7,
                stroke="",
                fill="primer" if limit.severity == "stop" else "ochre" if limit.severity else "spruce",
            ),
            line((EDGE + 262, y - 6), (EDGE + 262, y + 5), "ink", 1.2),
            Text((EDGE + 270, y), f"{words.bare_kg(limit.value)} of {words.kg(limit.limit)}", 10, "ink", "text", "left"),
            Text((EDGE + 546, y), next(c.name for c in s.table.cases if c.id == limit.case_id), 10, "pencil", "text", "right"),
        ]


def _unchecked_words(s: Studied, wide: float) -> list[str]:
    """The limits that could not be checked, on two lines at most."""
    if not s.unchecked:
        return []
    names = ", ".join(lower_first(unchecked.name) for unchecked in s.unchecked)
    lines = wrapped(f"{len(s.unchecked)} not checked: {names}.", 9, wide)
    return lines if len(lines) <= 2 else [lines[0], elided(lines[1], 9, wide - 20) + " …"]


# paper tells it in words too: it may be printed in black
SAID_AS = {"stop": ("STOP: ", "primer"), "mind": ("Mind: ", "ochre word"), "note": ("", "ink")}


def _findings(size: Point, found: tuple[Finding, ...], shapes: list[Primitive], top: float) -> None:
    left, wide = EDGE + 562, size[0] - 2 * EDGE - 562
    shapes.append(Text((left, top), "Uncle says" if found else "Uncle says: nothing to settle", 12, "ink", "head", "left"))
    y = top - 18
    for finding in found:
        says, ink = SAID_AS[finding.severity]
        words = [(f"{says}{finding.title}", "strong", ink)]
        words += [(text, "text", "ink") for text in wrapped(finding.says, 10, wide)[:4]]
        if finding.remedy:
            words += [(text, "text", "spruce") for text in wrapped(finding.remedy.says, 10, wide)[:3]]
        if y - 12 * len(words) < 40:
            shapes.append(Text((left, y), "more on screen", 10, "pencil", "text", "left"))
            return
        for text, face, ink in words:
            shapes.append(Text((left, y), elided(text, 10, wide, face), 10, ink, face, "left"))  # type: ignore[arg-type]
            y -= 12
        y -= 6
