"""Battery and panels that each sky asks for, beside what is there: bars with a mark. In points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.bar_rows import Scale
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.studies.systems.sizing import Needs
from uncle_sled.core.studies.systems.sun import skies
from uncle_sled.core.words import Words

NAME_W, NUMBER_W, HEAD = 56.0, 74.0, 20.0


def needs_chart(
    needs: tuple[Needs, ...], have_wh: float, have_wp: float, sky: str, words: Words, width: float, height: float
) -> tuple[Primitive, ...]:
    """Two fields side by side; a bar is what is needed, the upright mark what is there."""
    if not needs:
        return ()
    panels = any(each_needs.panel_wp is not None for each_needs in needs) or have_wp > 0
    half = width / 2 if panels else width
    shapes = _field(
        [(each_needs.sky, each_needs.battery_wh) for each_needs in needs], have_wh, "Battery, to use", words.wh, sky, 8.0, half - 8, height
    )
    if panels:
        shapes += _field(
            [(each_needs.sky, each_needs.panel_wp) for each_needs in needs],
            have_wp,
            "Panels",
            lambda w: f"{w:.0f} W",
            sky,
            half + 8,
            half - 16,
            height,
        )
    return tuple(shapes)


def _field(
    rows: list[tuple[str, float | None]], have: float, title: str, says: object, sky: str, left: float, wide: float, height: float
) -> list[Primitive]:
    assert callable(says)
    names = {sky.id: sky.name.lower() for sky in skies()}
    most = max([have, *[value for _, value in rows if value is not None], 1.0])
    scale = Scale(left + NAME_W, left + NAME_W + max(wide - NAME_W - NUMBER_W, 20.0), most)
    pitch = min((height - HEAD - 26) / max(len(rows), 1), 34.0)
    top = height - 12
    shapes: list[Primitive] = [Text((left, top), title, 12, "ink", "strong", "left")]
    y = top - HEAD - pitch / 2 + 6
    mark = scale.x(have) - scale.left
    for id, value in rows:
        shapes.append(Text((left + NAME_W - 6, y), names[id], 12, "ink", "strong" if id == sky else "text", "right"))
        if value is None:
            shapes.append(Text((left + NAME_W, y), "none that is sold", 11, "primer", anchor="left"))
        else:
            long = max(scale.x(value) - scale.left, 1.0)
            enough = have >= value - 1
            ink = "spruce" if enough else "ochre"
            shapes.append(scale.bar(y, value, ink, stroke=ink, width=0.9, tint=0.45, hatch="" if enough else "wood"))
            shapes.append(
                Text((left + NAME_W + (long if long < mark - 70 else max(long, mark)) + 5, y), says(value), 11, "pencil", anchor="left")
            )
        y -= pitch
    x = left + NAME_W + mark
    foot = y + pitch / 2 + 2
    shapes += [
        line((x, foot), (x, top - HEAD + 6), "ink", 1.6),
        Text((x, foot - 9), f"there: {says(have)}", 11, "ink", "text", "middle" if x < left + wide * 0.75 else "right"),
    ]
    return shapes
