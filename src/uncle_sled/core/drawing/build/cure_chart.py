"""How long glue cures in the shop, month by month, and how long a pot lasts at that warmth."""

from __future__ import annotations

from datetime import timedelta

from uncle_sled.core.document.work import Glue
from uncle_sled.core.drawing.primitives import Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.build.days import Days
from uncle_sled.core.studies.build.gluing import cure_days, pot_min
from uncle_sled.core.words import Words

EDGE, BASE, HEAD = 20.0, 46.0, 48.0
TALLEST_DAYS = 8.0  # a bar grows no taller: what cures longer says so in its number
SLOW_DAYS, NEVER_DAYS = 3, 60


def cure_chart(glue: Glue, days: Days, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Twelve bars, one a month from the day that the work begins; each for the first day of its month that is planned."""
    first: dict[int, int] = {}
    for day in range(365):
        first.setdefault((days.begin + timedelta(days=day)).month, day)
    cures = {day: cure_days(glue, days, day) for day in first.values()}
    most = min(max((cure for cure in cures.values() if cure is not None), default=1.0), TALLEST_DAYS)
    each, room = (width - 2 * EDGE) / 12, height - HEAD - BASE
    shapes: list[Primitive] = [line((EDGE, BASE), (width - EDGE, BASE), "pencil")]
    for at, (day, cure) in enumerate(cures.items()):
        x, warm = EDGE + at * each, float(days.shop_c[day])
        high = max(room if cure is None else min(cure, most) / most * room, 2.0)
        ink = "primer" if cure is None or cure > NEVER_DAYS else "ochre" if cure > SLOW_DAYS else "spruce"
        told = "never" if cure is None else f"{cure:.0f} d" if cure >= 9.5 else f"{cure:.1f} d"
        name = (days.begin + timedelta(days=day)).strftime("%b")
        shapes += [
            rect(x + each * 0.2, BASE, each * 0.6, high, stroke="ink", fill=ink, tint=0.5),
            Text((x + each / 2, BASE + high + 9), told, 11, ink if ink != "ochre" else "ochre word", "strong"),
            Text((x + each / 2, BASE - 12), elided(f"{name} {words.degrees(warm)}", 10, each), 10, "ink"),
            Text((x + each / 2, BASE - 26), elided(f"{pot_min(glue.pot_min, warm):.0f} min", 10, each), 10, "pencil"),
        ]
    return tuple(shapes)
