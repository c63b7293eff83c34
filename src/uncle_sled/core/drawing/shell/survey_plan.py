"""The survey drawn: the plan as it was meant, and as it was measured with what is off shown many times as large."""

from __future__ import annotations

from uncle_sled.core.document.shell import Survey
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.framing.bought_shell import POST_MARKS
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.survey import surveyed_of
from uncle_sled.core.words import Words

EDGE, TIMES = 46.0, 10.0


def survey_plan(s: Studied, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Points with y up; front at the left, the right side up. Nothing where there is no body."""
    body, shell = s.framed.body, s.build.shell
    if body is None or body.width <= 0:
        return ()
    survey = shell.survey or Survey()
    found = surveyed_of(shell, words)
    scale = max(min((width - 2 * EDGE) / body.length, (height - 2 * EDGE) / body.width), 4.0)
    x0, y0 = (width - body.length * scale) / 2, height / 2
    half = body.width / 2

    def at(x: float, y: float) -> Point:
        return x0 + x * scale, y0 + y * scale

    shapes: list[Primitive] = [
        Poly((at(0, -half), at(body.length, -half), at(body.length, half), at(0, half)), "pencil", "", 1.0, dash=(5, 4))
    ]
    racked = (found.racked_m or 0.0) * TIMES if found else 0.0
    widths = [
        (w.si - body.width) / 2 * TIMES if w is not None else 0.0 for w in (survey.width_front, survey.width_middle, survey.width_rear)
    ]
    left = [at(body.length * k / 2, -half - widths[k] + racked * k / 2) for k in range(3)]
    right = [at(body.length * k / 2, half + widths[k] + racked * k / 2) for k in range(3)]
    shapes.append(Poly((*left, *reversed(right)), "ink", "body", 1.8))
    for member in s.framed.on("left side"):
        if member.kind in POST_MARKS:
            x = sum(p[0] for p in member.outline) / len(member.outline)
            for y in (-half, half):
                shapes.append(line(at(x, y - 0.02), at(x, y + 0.02), "zinc", 2.2, id=member.id))
    for ends, value, share in (((left[0], right[2]), survey.diagonal_left, 0.30), ((right[0], left[2]), survey.diagonal_right, 0.30)):
        shapes.append(line(*ends, "chalk" if value is not None else "rule", 1.0, () if value is not None else (3, 3)))
        spot = tuple(a + (b - a) * share for a, b in zip(*ends, strict=True))
        said = words.cut(value.si) if value is not None else "diagonal ?"
        shapes.append(_tag((spot[0], spot[1]), said, value is not None))
    for k, (value, name) in enumerate(((survey.width_front, "front"), (survey.width_middle, "middle"), (survey.width_rear, "rear"))):
        x = (left[k][0] + right[k][0]) / 2
        shapes.append(line((x, left[k][1]), (x, right[k][1]), "pencil", 0.9, () if value is not None else (3, 3)))
        said = words.cut(value.si) if value is not None else f"{name} ?"
        shapes.append(_tag((x, y0 + (0.0 if k == 1 else 0.3 * half * scale)), said, value is not None))
    for spot, value, up in (
        (left[0], survey.left_front, -1),
        (right[0], survey.right_front, 1),
        (left[2], survey.left_rear, -1),
        (right[2], survey.right_rear, 1),
    ):
        shapes.append(Circle(spot, 3.0, "ink", "paper", 1.2))
        said = f"height {words.cut(value.si)}" if value is not None else "height ?"
        shapes.append(_tag((spot[0], spot[1] + up * 13), said, value is not None))
    told = _told(found, words)
    shapes += [
        Text((10, height - 12), elided(told, 12, width - 20), 12, "ink", "strong", "left"),
        Text(
            (10, 10),
            elided(f"front at the left, right side up; what is off is drawn {TIMES:.0f} times as large", 10, width - 20),
            10,
            "pencil",
            anchor="left",
        ),
    ]
    return tuple(shapes)


def _tag(at: Point, words: str, known: bool) -> Text:
    return Text(at, words, 10, "ink" if known else "ochre word", ground="paper")


def _told(found: object, words: Words) -> str:
    racked, twist = getattr(found, "racked_m", None), getattr(found, "twist_m", None)
    made = []
    if racked is not None:
        made.append(f"out of square {words.cut(abs(racked))}")
    if twist is not None:
        made.append(f"twisted {words.cut(abs(twist))}")
    return ", ".join(made) if made else "Not surveyed yet"
