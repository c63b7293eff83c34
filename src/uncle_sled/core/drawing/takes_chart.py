"""From what is to what is wanted: each set of changes as a bar, the build as it is and the wish as posts. In points, y up."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from uncle_sled.core.drawing.bar_rows import Scale
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.drawing.text_width import elided

EDGE, ROW, HEAD = 14.0, 46.0, 34.0


def takes_chart(
    sets: Sequence[tuple[str, float, bool]], now: float, wanted: float, says: Callable[[float], str], width: float, height: float
) -> tuple[Primitive, ...]:
    """Args: sets: words, value, whether it reaches the wish; now, wanted: in the unit of ``says``. () where there are none."""
    if not sets:
        return ()
    values = [now, wanted, *(value for _, value, _ in sets)]
    low, high = min(values), max(values)
    span = max(high - low, abs(high) * 0.05, 1e-6)
    scale = Scale(EDGE, width - EDGE - 90, high + 0.08 * span, max(low - 0.25 * span, 0.0) if low >= 0 else low - 0.25 * span)
    room = max(int((height - HEAD - 10) / ROW), 1)
    top = height - HEAD
    shapes: list[Primitive] = []
    foot = top - ROW * min(len(sets), room)
    for value, word, ink in ((now, f"now {says(now)}", "pencil"), (wanted, f"wanted {says(wanted)}", "primer")):
        shapes.append(scale.post((top + foot) / 2, value, ink, half=(top - foot) / 2, width=1.6))
        shapes.append(Text((scale.x(value), top + (8 if value == now else 21)), word, 11, ink))
    for k, (words, value, reaches) in enumerate(sets[:room]):
        y = top - ROW * (k + 0.7)
        shapes.append(Text((EDGE, y + 15), elided(words, 12, width - 2 * EDGE), 12, "ink", "text", "left", ground="paper"))
        shapes.append(scale.bar(y, value, "chalk" if reaches else "ochre", half=7.0, tint=0.6))
        shapes.append(Text((scale.x(value) + 8, y), says(value), 12, "ink", "strong", "left", ground="paper"))
    return tuple(shapes)
