"""The frame under load, under the side view at its scale: shear, moment, stress against yield, sinking; the worst place. Points."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, line, placed
from uncle_sled.core.drawing.rig.rig_views import side_body, side_rig, side_wheels
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.frame_beam import LABEL, Beam, FrameUnder
from uncle_sled.core.words import Words

Floats = NDArray[np.float64]
EDGE, NAMES = 12.0, 96.0
STRIPS = ("Shear", "Moment", "Stress", "Sinks")


def frame_drawn(s: Studied, made: FrameUnder, beam: Beam, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Four strips over one length under the trailer. Nothing where there is no room."""
    if min(wide, high) < 200 or made.length_m <= 0:
        return ()
    tall = max(top for top in (2.2, *(p[1] for shape in side_body(s.build) if isinstance(shape, Poly) for p in shape.points)))
    scale = min((wide - NAMES - 2 * EDGE - 20) / (made.length_m + 0.6), high * 0.38 / tall)
    x0 = NAMES + EDGE + 0.3 * scale
    foot = high - EDGE - tall * scale
    shapes: list[Primitive] = list(placed((*side_rig(s.build), *side_body(s.build), *side_wheels(s.build)), scale, x0, foot))
    for place, force in beam.supports:
        x = x0 + place * scale
        shapes += [
            line((x, foot - 20), (x, foot - 4), "chalk", 2.0),
            Poly(((x, foot - 2), (x - 4, foot - 9), (x + 4, foot - 9)), "chalk", "chalk", 1.0),
        ]
        shapes.append(Text((x, foot - 27), words.kg(force / 9.80665), 10, "chalk", ground="paper"))
    room = foot - 40 - EDGE
    each = room / len(STRIPS)
    pound = words.shown.mass == "lb"
    told: dict[str, tuple[Floats, Callable[[float], str]]] = {
        "Shear": (beam.shear_n, lambda v: words.fine_newtons(abs(v))),
        "Moment": (beam.moment_nm, lambda v: f"{abs(v) / 1.35582:.0f} lbf ft" if pound else words.of(abs(v), "N m", 0)),
        "Stress": (beam.stress_pa, lambda v: f"{abs(v) / 6894.757:.0f} psi" if pound else f"{abs(v) / 1e6:.0f} MPa"),
        "Sinks": (-beam.sinks_m, lambda v: words.thick(abs(v))),
    }
    for k, name in enumerate(STRIPS):
        values, says = told[name]
        base = foot - 40 - (k + 0.5) * each if name != "Stress" else foot - 40 - (k + 1) * each + 6
        most = max(float(np.abs(values).max()), 1e-12)
        limit = made.yield_pa if name == "Stress" else most
        room_up = (each - 14) if name == "Stress" else (each - 14) / 2
        up = room_up / max(most, limit if name == "Stress" else 0.0)
        points = tuple((x0 + float(x) * scale, base + float(v) * up) for x, v in zip(beam.x_m, values, strict=True))
        over = name == "Stress" and most > limit
        ink = "primer" if over else "ink"
        ring = ((points[0][0], base), *points, (points[-1][0], base))
        shapes += [Poly(ring, "", "primer" if over else "chalk", 0.0, tint=0.16), Poly(points, ink, "", 1.6, closed=False)]
        shapes.append(line((x0, base), (x0 + made.length_m * scale, base), "rule", 1.0))
        if name == "Stress":
            y = base + limit * up
            shapes += [
                line((x0, y), (x0 + made.length_m * scale, y), "primer", 1.2, (6, 4)),
                Text((x0 + made.length_m * scale - 2, y - 8), f"yields at {says(limit)}", 10, "primer", anchor="right", ground="paper"),
            ]
        shapes.append(Text((EDGE, base + (each / 4 if name == "Stress" else 0)), name, 12, "ink", "strong", "left"))
        shapes.append(
            Text(
                (EDGE, base + (each / 4 if name == "Stress" else 0) - 14),
                elided(says(float(values[int(np.argmax(np.abs(values)))])), 11, NAMES - 8),
                11,
                ink,
                anchor="left",
            )
        )
        at = int(np.argmax(np.abs(values)))
        shapes.append(Circle(points[at], 3.2, "primer", "primer", 1.0))
    x = x0 + beam.worst_m * scale
    shapes.append(line((x, EDGE), (x, foot - 40), "primer", 0.9, (3, 3)))
    shapes.append(
        Text(
            (wide - EDGE, high - 12),
            elided(f"{beam.name}, {LABEL[beam.how]}", 12, wide * 0.5),
            size=12,
            ink="ink",
            face="strong",
            anchor="right",
            ground="paper",
        )
    )
    return tuple(shapes)
