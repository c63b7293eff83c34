"""Where the warmth goes on the coldest night, and the heat comes from on the hottest day, as bars. In points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.bar_rows import bar, named
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.studies.systems.heat import IN_HAND, Gains, Losses
from uncle_sled.core.words import Words

NAME_W, NUMBER_W, NUMBER_BTU = 128.0, 74.0, 118.0


def loss_bars(made: Losses, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """A bar a face and opening, the largest first, then the air; under them all of it against the heater."""
    if made.loss_w is None or made.inside_c is None or made.outside_c is None:
        return ()
    dt = made.inside_c - made.outside_c
    rows: list[tuple[str, float | None, bool, str]] = [(p.name, p.loss_w(dt), p.rough, p.id) for p in made.paths]
    air = made.loss_w - sum(w for _, w, _, _ in rows if w is not None)
    rows.append(("Air let through", air, not made.air_said, "air"))
    rows.sort(key=lambda row: -(row[1] if row[1] is not None else 1e9))
    foot = 74.0
    pitch = min(max((height - foot - 34) / max(len(rows), 1), 13.0), 22.0)
    fits = max(int((height - foot - 34) / pitch), 1)
    known = [w for _, w, _, _ in rows if w is not None]
    most = max([*known, 1.0])
    room = max(width - NAME_W - (NUMBER_BTU if words.shown.imperial else NUMBER_W) - 24, 20.0)
    shapes: list[Primitive] = []
    y = height - 38
    for name, watts, rough, id in rows[:fits]:
        shapes.append(named(NAME_W, y, name, NAME_W - 10, 12, anchor="right", id=id))
        if watts is None:
            shapes.append(Text((NAME_W + 8, y), "not checked", 11, "ochre word", anchor="left", id=id))
        else:
            long = max(room * watts / most, 1.0)
            dash = (3.0, 2.0) if rough else ()
            shapes.append(
                bar(NAME_W + 8, y, long, "chalk", half=min(5, pitch / 2 - 1), stroke="chalk", width=0.8, tint=0.35, dash=dash, id=id)
            )
            shapes.append(Text((NAME_W + 14 + long, y), f"{words.heat(watts)}{' about' if rough else ''}", 11, "pencil", anchor="left"))
        y -= pitch
    if len(rows) > fits:
        shapes.append(Text((NAME_W, y), f"and {len(rows) - fits} more", 11, "pencil", anchor="right"))
    return (*shapes, *_against(made, words, width, foot))


def _against(made: Losses, words: Words, width: float, foot: float) -> list[Primitive]:
    """All of it, a quarter in hand, and what is aboard."""
    assert made.loss_w is not None
    most = max(made.loss_w * IN_HAND, made.there_w or 0.0, 1.0)
    room = max(width - NAME_W - (NUMBER_BTU if words.shown.imperial else NUMBER_W) - 24, 20.0)
    y = foot - 22
    least = "at least " if made.unknown else ""
    bad = made.there_w is not None and made.there_w < made.loss_w * IN_HAND - 0.5
    ink = "primer" if bad else "spruce" if made.there_w is not None and made.sure else "ochre"
    x = NAME_W + 8 + room * made.loss_w * IN_HAND / most
    shapes: list[Primitive] = [
        line((12, foot), (width - 12, foot), "rule"),
        Text((NAME_W, y), "All of it", 12, "ink", "strong", "right"),
        bar(NAME_W + 8, y, room * made.loss_w / most, "chalk", stroke="chalk", width=1.0, tint=0.6),
        Text((NAME_W + 14, y), f"{least}{words.heat(made.loss_w)}", size=11, ink="ink", face="strong", anchor="left", ground="paper"),
        line((x, y - 32), (x, y + 10), "ink", 1.4, (4.0, 2.0)),
    ]
    y -= 24
    shapes.append(Text((NAME_W, y), "Heater aboard", 12, "ink", "strong", "right"))
    if made.there_w is None:
        shapes.append(Text((NAME_W + 8, y), "not said what it gives" if made.unrated else "none aboard", 11, "ochre word", anchor="left"))
    else:
        shapes += [
            bar(NAME_W + 8, y, room * made.there_w / most, ink, stroke=ink, width=1.0, tint=0.5),
            Text((NAME_W + 14, y), words.heat(made.there_w), size=11, ink="ink", face="strong", anchor="left", ground="paper"),
        ]
    shapes.append(
        Text(
            (min(x + 5, width - (170 if words.shown.imperial else 110)), y - 13),
            f"wanted {words.heat(made.loss_w * IN_HAND)}",
            11,
            "pencil",
            anchor="left",
        )
    )
    return shapes


def summer_bars(made: Gains, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """What comes in on the hottest day."""
    if made.cooling_w is None:
        return ()
    rows = [
        ("Glass", made.glass_w),
        ("Faces in the sun", made.faces_w),
        ("Warm air", made.air_w),
        ("People", made.people_w),
        ("All of it", made.cooling_w),
    ]
    most = max([made.cooling_w, made.there_w or 0.0, 1.0])
    room = max(width - NAME_W - (NUMBER_BTU if words.shown.imperial else NUMBER_W) - 24, 20.0)
    shapes: list[Primitive] = []
    pitch = min(max((height - 44) / (len(rows) + 1), 14.0), 24.0)
    y = height - 38
    for name, watts in rows:
        strong = name == "All of it"
        shapes.append(Text((NAME_W, y), name, 12, "ink", "strong" if strong else "text", "right"))
        shapes.append(bar(NAME_W + 8, y, room * watts / most, "gas", half=5.0, stroke="gas", width=0.8, tint=0.6 if strong else 0.3))
        shapes.append(Text((NAME_W + 14 + room * max(watts, 0.0) / most, y), words.heat(watts), 11, "pencil", anchor="left"))
        y -= pitch
    there = "no cooler aboard" if made.there_w is None else f"cooler aboard takes {words.heat(made.there_w)}"
    shapes.append(
        Text(
            (NAME_W + 8, y), there, 11, "primer" if made.there_w is not None and made.there_w < made.cooling_w else "pencil", anchor="left"
        )
    )
    return tuple(shapes)
