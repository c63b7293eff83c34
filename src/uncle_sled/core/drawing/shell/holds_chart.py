"""Screening checks as bars against their limit, each with its sum; and where on the body the worst is. Points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.bar_rows import Scale, named, unchecked_bar
from uncle_sled.core.drawing.primitives import Circle, Primitive, Text
from uncle_sled.core.studies.shell.check import Check
from uncle_sled.core.words import Words, upper_first

NAME, BAR, ROW, EDGE = 178.0, 150.0, 34.0, 10.0
VALUE = 165.0
MOST = 1.5  # of the limit, at which a bar ends
MARK_PX = 8.0


def amount(value: float, unit: str, words: Words) -> str:
    """A value of a check in the builder's units."""
    if unit == "Pa":
        metric = f"{value / 1e6:.1f} MPa" if value >= 0.5e6 else f"{value / 1e3:.0f} kPa"
        return f"{value / 6894.757:.0f} psi" if words.shown.imperial else metric
    if unit == "m":
        return words.thick(value)
    if unit == "N/m":
        return f"{value / 14.5939:.0f} lbf/ft" if words.shown.imperial else f"{value / 1000:.2f} kN/m"
    if unit == "m/s":
        return f"{value / 0.44704:.0f} mph" if words.shown.imperial else f"{value:.1f} m/s"
    metric = f"{value / 1000:.1f} kN" if value >= 1000 else f"{value:.0f} N"
    return f"{value / 4.448222:.0f} lbf" if words.shown.imperial else metric


def ink_of(check: Check) -> str:
    """Nothing here was measured, so nothing is green: blue holds, ochre is near, red is over."""
    use = check.use or 0.0
    return "primer" if use > 1.0 else "ochre" if use > 0.85 else "chalk"


def _word_ink(ink: str) -> str:
    """The same for words, which want more contrast than a bar."""
    return "ochre word" if ink == "ochre" else ink


def holds_high(checks: tuple[Check, ...]) -> float:
    """Height that the checks take, a row each [points]."""
    return 2 * EDGE + ROW * len(checks)


def holds_chart(checks: tuple[Check, ...], words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """A row a check, numbered as on the body: its name, its bar, value of limit, and the sum under them."""
    shapes: list[Primitive] = []
    left = EDGE + 22
    name, long = _widths(wide)
    scale = Scale(left + name, left + name + long, MOST)
    for k, check in enumerate(checks):
        y = high - EDGE - ROW * k - 11
        ink = ink_of(check)
        shapes += _number(EDGE + 8, y - 3, str(k + 1), ink if check.use is not None else "pencil")
        strong = check.use is not None and check.use > 1
        shapes.append(named(left, y, check.name, name - 8, 12, strong=strong, id=check.id))
        if check.use is None or check.value is None or check.limit is None:
            shapes += [
                unchecked_bar(scale.left, y, scale.room, half=5.0),
                Text((scale.right + 10, y), "not checked", 11, "pencil", anchor="left", id=check.id),
                named(left, y - 14, f"{upper_first(check.why)}.", wide - left - EDGE, 10, ink="pencil"),
            ]
            continue
        shapes += [scale.whole(y, half=5.0), scale.bar(y, min(check.use, MOST), ink, half=5.0, id=check.id), scale.post(y, 1.0, half=9.0)]
        told = f"{amount(check.value, check.unit, words)} of {amount(check.limit, check.unit, words)}, {check.use * 100:.0f} %"
        shapes.append(Text((scale.right + 10, y), told, 12, "primer" if check.use > 1 else "ink", anchor="left"))
        how = f"{check.how}. {check.source[:1].upper()}{check.source[1:]}."
        shapes.append(named(left, y - 14, how, wide - left - EDGE, 10, ink="pencil"))
    return tuple(shapes)


def _widths(wide: float) -> tuple[float, float]:
    """Of the names and the bars: what is left beside the values, in a narrow sheet less of both."""
    spare = max(wide - EDGE - 22 - VALUE - 20, 120.0)
    name = min(NAME, spare * 0.74)
    return name, min(BAR, spare - name)


def _number(x: float, y: float, told: str, ink: str) -> list[Primitive]:
    return [Circle((x, y), MARK_PX, ink, "paper", 1.5), Text((x, y), told, 10, _word_ink(ink), "strong")]


def holds_marks(checks: tuple[Check, ...], px_per_m: float) -> tuple[Primitive, ...]:
    """The numbers of the checks at their worst places in the side view [m]; those that coincide stand in a row."""
    shapes: list[Primitive] = []
    taken: list[tuple[float, float]] = []
    step = 2.2 * MARK_PX / px_per_m
    for k, check in enumerate(checks, 1):
        if check.spot is None:
            continue
        x, z = check.spot[0], check.spot[2]
        while any(abs(x - a) < step * 0.9 and abs(z - b) < step * 0.9 for a, b in taken):
            x += step
        taken.append((x, z))
        ink = ink_of(check) if check.use is not None else "pencil"
        shapes += [Circle((x, z), MARK_PX / px_per_m, ink, "paper", 1.5, id=check.id), Text((x, z), str(k), 10, _word_ink(ink), "strong")]
    return tuple(shapes)
