"""A year at the place as a strip: a column a month, a row a sky, in each square how many nights of the stay hold. In points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive, Text, rect
from uncle_sled.core.studies.systems.sun import skies
from uncle_sled.core.studies.systems.year import AllYear, Year
from uncle_sled.core.words import MONTHS, Words

NAME_W, HEAD, EDGE = 52.0, 40.0, 10.0


def year_strip(made: Year, chosen: str, width: float, height: float) -> tuple[Primitive, ...]:
    """Args: chosen: the sky whose row is strong. Months of Brief stand in a frame; a square with all nights has a full wash."""
    if not made.months:
        return ()
    rows = skies()
    wide, high = (width - NAME_W - 2 * EDGE) / 12, min((height - HEAD - EDGE) / len(rows), 26.0)
    shapes: list[Primitive] = []
    top = height - HEAD
    for at, month in enumerate(made.months):
        x = EDGE + NAME_W + at * wide
        aimed = month.month in made.aimed
        name = MONTHS[month.month - 1] if wide > 26 else MONTHS[month.month - 1][:1]
        shapes.append(Text((x + wide / 2, top + 8), name, 11, "ink" if aimed else "pencil", "strong" if aimed else "text"))
        for row, sky in enumerate(rows):
            nights = month.of(sky.id) or 0.0
            whole = nights >= made.nights
            ink = "spruce" if whole else "ochre" if nights >= made.nights / 2 else "primer"
            y = top - (row + 1) * high
            shapes.append(rect(x + 1, y + 1, wide - 2, high - 2, stroke=ink, fill=ink, tint=0.25, width=1.4 if sky.id == chosen else 0.6))
            told = "all" if whole else f"{int(nights)}"
            shapes.append(Text((x + wide / 2, y + high / 2), told, 11, "ink", "strong" if sky.id == chosen else "text"))
        if aimed:
            shapes.append(rect(x, top - len(rows) * high - 1, wide, len(rows) * high + 2, stroke="chalk", fill="", width=1.6))
    for row, sky in enumerate(rows):
        y = top - (row + 0.5) * high
        strong = sky.id == chosen
        shapes.append(
            Text((EDGE + NAME_W - 8, y), sky.name, 11, "ink" if strong else "pencil", "strong" if strong else "text", anchor="right")
        )
    return tuple(shapes)


def year_words(all_of_it: AllYear, sky: str, words: Words) -> str:
    """The worst month, and what carries it."""
    made, needs = all_of_it.year, all_of_it.of(sky)
    worst = made.worst(sky)
    if worst is None:
        return ""
    name = next(one.name for one in skies() if one.id == sky).lower()
    if made.all_year(sky):
        nights = "The night holds" if made.nights == 1 else f"All {made.nights} nights hold"
        return f"{nights} in every month under a {name} sky."
    told = f"Worst under a {name} sky: {MONTHS[worst.month - 1]}, {int(worst.of(sky) or 0.0)} of {made.nights} nights."
    if needs is None:
        return told
    ways = [f"{words.wh(needs.battery_wh)} to use"] if needs.battery_wh is not None else []
    ways += [f"{needs.panel_wp:.0f} W of panels"] if needs.panel_wp is not None else []
    return (
        f"{told} {' or '.join(ways)} would carry the year."
        if ways
        else f"{told} Nothing that is sold carries it: a generator, or a hookup."
    )
