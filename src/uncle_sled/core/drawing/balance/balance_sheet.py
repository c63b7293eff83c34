"""One page for the shop wall: the trailer to scale, every case's reading, the limits, what to settle.

A4 landscape, in points, y up; the same page goes to PDF and SVG.
"""

from __future__ import annotations

import numpy as np

from uncle_sled.core.drawing.page import POINTS_PER_M, Page
from uncle_sled.core.drawing.primitives import Circle, Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.rig_views import heights_m, whole_view
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.reading.limits import use
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.words import Words

WIDTH, HEIGHT, EDGE = 842.0, 595.0, 36.0
DRAWING_HIGH = 200.0
ROW = 14.0


def balance_sheet(s: Studied, found: tuple[Finding, ...], project_name: str, printed: str) -> Page:
    """The page of a build as judged. Args: printed: the date in words, put at the foot."""
    words = Words(s.build.brief.reading.shown())
    shapes: list[Primitive] = [
        Text((EDGE, HEIGHT - 50), elided(project_name, 22, 420, "head"), 22, "ink", "head", "left"),
        Text(
            (WIDTH - EDGE, HEIGHT - 44),
            f"Balance sheet · {elided(s.build.name, 11, 200)} · {printed}",
            11,
            "pencil",
            "text",
            "right",
        ),
        line((EDGE, HEIGHT - 60), (WIDTH - EDGE, HEIGHT - 60), "rule"),
    ]
    shapes += _drawing(s, words)
    top = HEIGHT - 70 - DRAWING_HIGH - 26
    low = _cases(s, words, shapes, top)
    _limits(s, words, shapes, low - 12)
    _findings(found, shapes, top)
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
    return Page(WIDTH, HEIGHT, tuple(shapes), f"{project_name}: balance sheet")


def _drawing(s: Studied, words: Words) -> list[Primitive]:
    reach, (top, _) = length_m(s.build) + 0.6, heights_m(s.build)
    left = -1.0 if s.build.rig.carrier == "vehicle bed" else -0.4
    scale = min((WIDTH - 2 * EDGE) / (reach - left), (DRAWING_HIGH - 24) / max(top, 0.5))
    x0 = (WIDTH - scale * (reach + left)) / 2
    y0 = HEIGHT - 70 - DRAWING_HIGH + 12
    shapes: list[Primitive] = list(
        placed(whole_view(s, 0, "side", scale, (left, -4 / scale, reach, 1e9)), scale, x0, y0)
    )
    shapes.append(
        Text(
            (WIDTH - EDGE, HEIGHT - 76),
            f"left side, 1 : {round(POINTS_PER_M / scale)}",
            9,
            "pencil",
            "text",
            "right",
        )
    )
    cg = s.readings.cg_m[0] if len(s.readings.cg_m) else np.full(3, np.nan)
    if not np.isnan(cg).any():
        at = (x0 + float(cg[0]) * scale, y0 + float(cg[2]) * scale)
        shapes += [
            Circle(at, 6, "ink", "paper", 1.4),
            line((at[0] - 6, at[1]), (at[0] + 6, at[1])),
            line((at[0], at[1] - 6), (at[0], at[1] + 6)),
        ]
    if s.support is not None and s.support.carrier == "ball":
        axle = s.support.mean_axle_m
        y = y0 - 10
        shapes += [
            line((x0, y), (x0 + axle * scale, y), "pencil"),
            Text((x0 + axle * scale / 2, y), f"ball to axle {words.m(axle)}", 10, "ink", ground="paper"),
        ]
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
    sides = (
        ""
        if np.isnan(b.left_kg[row])
        else f"{words.bare_kg(float(b.left_kg[row]))} / {words.bare_kg(float(b.right_kg[row]))}"
    )
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
    for limit in s.limits[: max(0, int((top - 50) // ROW))]:
        y -= ROW
        if y < 40:
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
            Text(
                (EDGE + 270, y), f"{words.bare_kg(limit.value)} of {words.kg(limit.limit)}", 10, "ink", "text", "left"
            ),
            Text(
                (EDGE + 546, y),
                next(c.name for c in s.table.cases if c.id == limit.case_id),
                10,
                "pencil",
                "text",
                "right",
            ),
        ]


def _findings(found: tuple[Finding, ...], shapes: list[Primitive], top: float) -> None:
    left, wide = EDGE + 562, WIDTH - 2 * EDGE - 562
    shapes.append(
        Text((left, top), "Uncle says" if found else "Uncle says: nothing to settle", 12, "ink", "head", "left")
    )
    y = top - 18
    for one in found:
        words = [
            (
                one.title,
                "strong",
                "primer" if one.severity == "stop" else "ochre word" if one.severity == "mind" else "ink",
            )
        ]
        words += [(text, "text", "ink") for text in wrapped(one.says, 10, wide)[:4]]
        if one.remedy:
            words += [(text, "text", "spruce") for text in wrapped(one.remedy.says, 10, wide)[:3]]
        if y - 12 * len(words) < 40:
            shapes.append(Text((left, y), "more on screen", 10, "pencil", "text", "left"))
            return
        for text, face, ink in words:
            shapes.append(Text((left, y), elided(text, 10, wide, face), 10, ink, face, "left"))  # type: ignore[arg-type]
            y -= 12
        y -= 6
