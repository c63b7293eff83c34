"""The trailer from its left over the axle's chart, with the axle where it is and where it is tried."""

from __future__ import annotations

from uncle_sled.core.document.project import Build
from uncle_sled.core.drawing.primitives import Circle, Primitive, Text, line, placed
from uncle_sled.core.drawing.rig.rig_views import heights_m, side_body, side_rig, side_wheels
from uncle_sled.core.parts.from_rig import wheel_radius_m
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.words import Words

EDGE = 12.0


def axle_over(s: Studied, tried: Build | None, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Side view in a strip of points; the tried axle in blue with how far it goes. () for a bed or without axles."""
    build = s.build
    if build.rig.carrier != "ball" or not build.rig.axles:
        return ()
    reach = length_m(build) + 0.9
    top = min(heights_m(build)[0], 6.0)
    scale = max(min((width - 2 * EDGE) / reach, (height - 2 * EDGE - 14) / top), 4.0)
    x0, y0 = (width - scale * reach) / 2 + 0.4 * scale, EDGE + 14
    shapes: list[Primitive] = [
        *placed(side_rig(build), scale, x0, y0),
        *placed(side_body(build), scale, x0, y0),
        *placed(side_wheels(build), scale, x0, y0),
    ]
    shapes = [shape for shape in shapes if not isinstance(shape, Text)]
    now = _middle(build)
    point = s.readings.cg_m[0] if len(s.readings.cg_m) else None
    if point is not None and point[0] == point[0]:
        at = (x0 + float(point[0]) * scale, y0 + float(point[2]) * scale)
        shapes += [
            Circle(at, 5, "ink", "paper", 1.4),
            line((at[0] - 5, at[1]), (at[0] + 5, at[1])),
            line((at[0], at[1] - 5), (at[0], at[1] + 5)),
        ]
    if tried is not None and tried.rig.axles and abs(_middle(tried) - now) > 1e-6:
        wheel = wheel_radius_m(build.rig)
        for axle in tried.rig.axles:
            spot = (x0 + axle.station.si * scale, y0 + wheel * scale)
            shapes.append(Circle(spot, wheel * scale, "chalk", "", 2.2))
            shapes.append(line((spot[0], y0 - 4), (spot[0], y0 + 2 * wheel * scale + 6), "chalk", 1.2, (4.0, 3.0)))
        by = _middle(tried) - now
        way = "back" if by > 0 else "forward"
        says = f"{words.cut(abs(by))} {way}, at {words.cut(_middle(tried))} from the ball"
        left = min(max(x0 + _middle(tried) * scale, 120.0), width - 120.0)
        shapes.append(Text((left, 11.0), says, 12, "chalk", "strong", ground="paper"))
    else:
        shapes.append(Text((x0 + now * scale, 11.0), f"axle {words.cut(now)} from the ball", 12, "pencil", ground="paper"))
    return tuple(shapes)


def _middle(build: Build) -> float:
    return sum(axle.station.si for axle in build.rig.axles) / len(build.rig.axles)
