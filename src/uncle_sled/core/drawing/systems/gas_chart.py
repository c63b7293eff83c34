"""What a cylinder keeps up over the temperature, and how long each fuel lasts. In points, y up."""

from __future__ import annotations

import numpy as np

from uncle_sled.core.drawing.bar_rows import bar
from uncle_sled.core.drawing.plot import Plot, axes, level, names_at_ends, ticks, upright
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.studies.systems.gas import LEVELS, Gas
from uncle_sled.core.words import Words

LEFT, RIGHT, HEAD, FOOT = 52.0, 96.0, 50.0, 34.0
DASH: tuple[tuple[float, ...], ...] = ((), (7, 3), (2, 3))
NAMES = {"gas": "Gas", "diesel": "Diesel", "petrol": "Petrol"}


def boil_chart(made: Gas, coldest_c: float | None, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """A line a level of the cylinder; level across, what burns at once."""
    if not made.boil_off_kw:
        return ()
    temps = np.array([t for t, _ in made.boil_off_kw])
    table = np.array([kw for _, kw in made.boil_off_kw])
    order = np.argsort(temps)
    temps, table = temps[order], table[order]
    most = max(float(table.max()), made.most_kw, 1.0) * 1.1
    low_c, high_c = float(temps[0]), float(temps[-1])
    plot = Plot(low_c, high_c, y0=0.0, y1=most, left=LEFT, low=FOOT, right=width - RIGHT, top=height - HEAD)
    shapes = axes(plot, temps.tolist(), ticks(0.0, most, 4), words.degrees, lambda kw: f"{kw:g} kW")
    ends = []
    for k, full in enumerate(LEVELS):
        shapes += plot.curve(temps, table[:, k], "gas", 2.2 if full == 0.5 else 1.5, DASH[k])
        ends.append((float(table[-1, k]), {1.0: "full", 0.5: "half full", 0.2: "a fifth"}[full], "ink"))
    shapes += names_at_ends(plot, ends)
    if made.most_kw > 0:
        shapes += level(plot, made.most_kw, f"all burners {made.most_kw:.1f} kW", "ink", 1.6)
    if coldest_c is not None and low_c <= coldest_c <= high_c:
        shapes += upright(plot, coldest_c, f"coldest {words.degrees(coldest_c)}", "fresh", 1.4, told="ink")
    return tuple(shapes)


def fuel_bars(made: Gas, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Days of each fuel as bars, with the days that are wanted."""
    rows = [(fuel, days) for fuel, days in made.days.items()]
    if not rows:
        return ()
    told = [days for _, days in rows if days is not None]
    most = max([*told, made.wanted_days or 0.0, 1.0])
    room = max(width - 240, 30.0)
    shapes: list[Primitive] = []
    foot = height - 36 - 26 * len(rows)
    if made.wanted_days is not None:
        x = 70 + room * made.wanted_days / most
        shapes += [
            line((x, height - 28), (x, foot), "spruce", 1.4, (5.0, 3.0)),
            Text((x + 4, foot + 2), "wanted", 11, "spruce", anchor="left"),
        ]
    y = height - 40
    for fuel, days in rows:
        shapes.append(Text((62, y), NAMES[fuel], 12, "ink", anchor="right"))
        if made.kg.get(fuel, 0.0) <= 0 or days is None:
            shapes.append(Text((70, y), "none aboard", 11, "primer", anchor="left", ground="paper"))
        else:
            ink = "gas" if fuel == "gas" else "fuel"
            shapes.append(bar(70, y, room * days / most, ink, stroke=ink, width=0.9, tint=0.5))
            shapes.append(
                Text(
                    (76 + room * days / most, y), f"{days:.1f} days, {words.fine_kg(made.kg_day[fuel])} a day", 11, "pencil", anchor="left"
                )
            )
        y -= 26
    return tuple(shapes)
