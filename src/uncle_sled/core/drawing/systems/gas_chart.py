"""What a cylinder keeps up over the temperature, and how long each fuel lasts. In points, y up."""

from __future__ import annotations

import numpy as np

from uncle_sled.core.drawing.plot import Plot, ticks
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, line, rect
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
    plot = Plot(low_c, high_c, 0.0, most, LEFT, FOOT, width - RIGHT, height - HEAD)
    shapes: list[Primitive] = [
        line((plot.left, plot.low), (plot.right, plot.low), "pencil"),
        line((plot.left, plot.low), (plot.left, plot.top), "pencil"),
    ]
    for y in ticks(0.0, most, 4):
        _, up = plot.at(low_c, y)
        shapes += [
            line((plot.left - 3, up), (plot.left, up), "pencil"),
            Text((plot.left - 6, up), f"{y:g} kW", 11, "pencil", anchor="right"),
        ]
    for t in temps.tolist():
        x, _ = plot.at(t, 0.0)
        shapes += [line((x, plot.low - 4), (x, plot.low), "pencil"), Text((x, plot.low - 13), words.degrees(t), 11, "pencil")]
    for k, level in enumerate(LEVELS):
        shapes += plot.curve(temps, table[:, k], "gas", 2.2 if level == 0.5 else 1.5, DASH[k])
        _, y = plot.at(high_c, float(table[-1, k]))
        shapes.append(Text((plot.right + 6, y), {1.0: "full", 0.5: "half full", 0.2: "a fifth"}[level], 11, "ink", anchor="left"))
    if made.most_kw > 0:
        _, y = plot.at(low_c, made.most_kw)
        shapes += [
            line((plot.left, y), (plot.right, y), "ink", 1.6),
            Text((plot.left + 6, y + 9), f"all burners {made.most_kw:.1f} kW", 11, "ink", anchor="left", ground="paper"),
        ]
    if coldest_c is not None and low_c <= coldest_c <= high_c:
        x, _ = plot.at(coldest_c, 0.0)
        shapes += [
            line((x, plot.low), (x, plot.top), "fresh", 1.4, (5.0, 3.0)),
            Text((x, plot.top + 9), f"coldest {words.degrees(coldest_c)}", 11, "ink"),
        ]
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
    y = height - 40
    for fuel, days in rows:
        shapes.append(Text((62, y), NAMES[fuel], 12, "ink", anchor="right"))
        if made.kg.get(fuel, 0.0) <= 0 or days is None:
            shapes.append(Text((70, y), "none aboard", 11, "primer", anchor="left"))
        else:
            ink = "gas" if fuel == "gas" else "fuel"
            shapes.append(rect(70, y - 6, max(room * days / most, 1.0), 12, stroke=ink, fill=ink, width=0.9, tint=0.5))
            shapes.append(
                Text(
                    (76 + room * days / most, y), f"{days:.1f} days, {words.fine_kg(made.kg_day[fuel])} a day", 11, "pencil", anchor="left"
                )
            )
        y -= 26
    if made.wanted_days is not None:
        x = 70 + room * made.wanted_days / most
        shapes += [
            Poly(((x, height - 28), (x, y + 4)), "spruce", "", 1.4, closed=False, dash=(5.0, 3.0)),
            Text((x + 4, y + 6), "wanted", 11, "spruce", anchor="left"),
        ]
    return tuple(shapes)
