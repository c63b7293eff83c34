"""The rig from behind inside the frame that the road leaves it: height and width against the brief's own limits."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.drawing.stow.rear_view import rear_size_m, rear_view
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.road_size import WAYS, RoadSize, worst_size
from uncle_sled.core.words import Words, upper_first

TITLE, FOOT, LINE = 26.0, 20.0, 16.0


def size_card(s: Studied, row: int, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Everything that rides, cut across, in a dashed frame of the limits; a line of words for each measure."""
    sizes = {way: worst_size(s, way) for way in WAYS}
    tall = sizes["height"]
    if tall is None or tall.value_m is None:
        return ()
    mode = tall.mode
    riding = things_in(s, row, mode)
    half, top = rear_size_m(s, riding)
    brief = s.build.brief
    limit_high, limit_wide = (limit.si if limit else None for limit in (brief.road_height, brief.road_width))
    top = max(top, limit_high or 0.0) + 0.1
    half = max(half, (limit_wide or 0.0) / 2 + 0.15)
    foot_y = FOOT + 3 * LINE + 4
    scale = max(min((width - 24) / (2 * half), (height - TITLE - foot_y) / top), 4.0)
    foot = (width / 2, foot_y)
    shapes: list[Primitive] = list(placed(rear_view(s, row, riding, scale), scale, *foot))
    shapes = [shape for shape in shapes if not isinstance(shape, Text)]  # names belong to other drawings
    if limit_high is not None or limit_wide is not None:
        wide, high = (limit_wide or 2 * half - 0.2) * scale, (limit_high or top - 0.05) * scale
        ink = "primer" if _over(sizes, limit_high, limit_wide) else "chalk"
        shapes.append(rect(foot[0] - wide / 2, foot[1], wide, high, stroke=ink, width=1.6, dash=(6.0, 4.0)))
    shapes.append(line((12, foot[1]), (width - 12, foot[1]), "pencil", 1.2))
    for at, way in enumerate(WAYS):
        says, ink = _says(sizes[way], getattr(brief, f"road_{way}"), words, way)
        spot = (12, FOOT - 6 + LINE * (len(WAYS) - 1 - at))
        shapes.append(Text(spot, elided(says, 12, width - 24), 12, ink, anchor="left"))
    return tuple(shapes)


def _over(sizes: dict, high: float | None, wide: float | None) -> bool:  # type: ignore[type-arg]
    pairs = ((sizes["height"], high), (sizes["width"], wide))
    return any(pair is not None and pair.value_m and limit and pair.value_m > limit for pair, limit in pairs)


def _says(size: RoadSize | None, limit: object, words: Words, way: str) -> tuple[str, str]:
    most = getattr(limit, "si", None)
    if size is None or size.value_m is None:
        return f"{upper_first(way)} not known.", "pencil"
    told = f"{upper_first(way)} {words.m(size.value_m)}, by {size.by}"
    if most is None:
        return f"{told}; no limit given.", "pencil"
    over = size.value_m > most + 1e-6
    return f"{told}; {words.m(most)} {'is the limit' if over else 'may be'}.", "primer" if over else "ink"
