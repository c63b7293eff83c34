"""Walls beside what burns as bars: how warm after an evening, how warm with the doubt, against the limit of wood. In points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.bar_rows import Scale, named
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.studies.systems.hot_walls import LIMIT_C, ROOM_C, HotWall
from uncle_sled.core.words import Words, lower_first

NAME_SHARE, HEAD, FOOT, LEAST_PITCH, MOST_PITCH = 0.36, 44.0, 4.0, 27.0, 32.0
LOW_C = 20.0


def hot_walls_chart(made: tuple[HotWall, ...], words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """A row a wall, what is not known first, then the warmest."""
    if not made:
        return ()
    room = height - HEAD - FOOT
    pitch = min(max(room / len(made), LEAST_PITCH), MOST_PITCH)
    fits = max(int(room / pitch), 1)
    name_w = width * NAME_SHARE
    says = max(text_width(_says(one, words), 11) for one in made) + 16
    most = max([one.up_to_c or 0.0 for one in made] + [LIMIT_C + 10.0])
    scale = Scale(name_w + 8, max(width - says, name_w + 40), most, LOW_C)
    top = height - HEAD
    limit = f"{words.degrees(LIMIT_C)}: wood chars in time"
    half = text_width(limit, 11) / 2
    shapes: list[Primitive] = [
        line((scale.x(LIMIT_C), top + 4), (scale.x(LIMIT_C), top - min(fits, len(made)) * pitch), "ink", 1.4, (4.0, 2.0)),
        Text((min(max(scale.x(LIMIT_C), half + 4), width - half - 4), top + 12), limit, 11, "ink"),
    ]
    y = top - pitch / 2
    for one in made[:fits]:
        gap = words.thick(one.gap_m)
        shapes.append(named(name_w, y + 6, one.name, name_w - 10, 11, anchor="right", id=one.thing))
        shapes.append(named(name_w, y - 6, f"{gap} to the {one.face}", name_w - 10, 10, anchor="right", ink="pencil", id=one.thing))
        shapes += _bar(one, scale, y, words)
        y -= pitch
    if len(made) > fits:
        shapes.append(Text((name_w, y + 4), f"and {len(made) - fits} more, cooler", 11, "pencil", anchor="right"))
    return tuple(shapes)


def _bar(one: HotWall, scale: Scale, y: float, words: Words) -> list[Primitive]:
    if one.at_c is None or one.up_to_c is None:
        return [Text((scale.left + 4, y), "not checked: its layers are not said", 11, "ochre word", anchor="left", id=one.thing)]
    ink = "primer" if one.at_c > LIMIT_C or one.near else "ochre" if one.up_to_c > LIMIT_C else "spruce"
    return [
        scale.span(y, max(one.at_c, LOW_C), max(one.up_to_c, LOW_C), half=2.5, stroke=ink, fill=ink, width=0.6, tint=0.25, id=one.thing),
        scale.bar(y, max(one.at_c, LOW_C), ink, half=5.0, stroke=ink, width=0.8, tint=0.5, id=one.thing),
        Text((scale.right + 8, y), _says(one, words), 11, "primer" if ink == "primer" else "ink", anchor="left"),
    ]


def _says(one: HotWall, words: Words) -> str:
    if one.at_c is None or one.up_to_c is None:
        return ""
    return f"{words.degrees(one.at_c)}, up to {words.degrees(one.up_to_c)}"


def hot_words(made: tuple[HotWall, ...], words: Words) -> list[str]:
    """What is nearer than its papers allow, and what nobody typed."""
    told = [
        f"{one.name} stands {words.thick(one.gap_m)} from the {one.face}; its papers ask {words.thick(one.papers_m or 0.0)}."
        for one in made
        if one.near
    ]
    close = [one for one in made if one.papers_m is None and one.gap_m < 0.5]
    if close:
        told.append(
            f"Of {lower_first(close[0].name)} no distance to the {close[0].face} is typed (In hand, Room beside it, heat): usual sides of such fires are taken."
        )
    if made:
        told.append(f"After four hours in a room of {words.degrees(ROOM_C)}; papers and local rules decide.")
    return told
