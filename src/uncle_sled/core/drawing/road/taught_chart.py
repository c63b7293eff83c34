"""What the tickets taught: every group before and after with its doubt, and estimate against ticket over time."""

from __future__ import annotations

from uncle_sled.core.drawing.bar_rows import Scale, named
from uncle_sled.core.drawing.primitives import Circle, Primitive, Text, line
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.road.reconcile import Reconciled
from uncle_sled.core.words import Words


def groups_chart(made: Reconciled, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """A row a group: pencil what was thought, chalk what it weighs by the tickets, each with two sigmas."""
    top = (
        max(
            max(each_group.before_kg + 2 * each_group.sigma_before_kg, each_group.after_kg + 2 * each_group.sigma_kg)
            for each_group in made.groups
        )
        or 1.0
    )
    scale = Scale(150.0, wide - 120.0, top)
    row = min((high - 50) / max(len(made.groups), 1), 56.0)
    shapes: list[Primitive] = []

    for k, group in enumerate(made.groups):
        y = high - 44 - k * row - row / 2
        shapes.append(named(10, y, group.name, scale.left - 20, 12, strong=True))
        for off, kg, sigma, ink in (
            (7.0, group.before_kg, group.sigma_before_kg, "pencil"),
            (-7.0, group.after_kg, group.sigma_kg, "chalk"),
        ):
            least, most = max(kg - 2 * sigma, 0.0), max(kg + 2 * sigma, 0.0)
            shapes += [
                scale.span(y + off, least, most, half=4.0, least=2.0, stroke=ink, fill=ink, width=0.8, tint=0.25),
                scale.post(y + off, max(kg, 0.0), ink, half=6.0, width=2.4),
            ]
        change = group.after_kg - group.before_kg
        told = f"{words.bare_kg(group.before_kg)} → {words.kg(group.after_kg)}"
        shapes.append(Text((wide - 8, y + 6), told, 11, "ink", anchor="right"))
        shapes.append(
            Text((wide - 8, y - 8), f"{words.signed_kg(change)} ± {words.fine_kg(2 * group.sigma_kg)}", 10, "chalk", anchor="right")
        )
    return tuple(shapes)


def tickets_chart(made: Reconciled, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Ticket by ticket, in the order of their days: the weighed ball as a dot with its doubt, the model's as a line."""
    known = [
        each_ticket for each_ticket in made.tickets if each_ticket.weighed.tongue_kg is not None and each_ticket.model_tongue_kg is not None
    ]
    known.sort(key=lambda each_ticket: each_ticket.weighed.ticket.on)
    if not known:
        return ()
    values = [v for each_ticket in known for v in (each_ticket.weighed.tongue_kg or 0.0, each_ticket.model_tongue_kg or 0.0)]
    low, top = min(values), max(values)
    span = max(top - low, 5.0)
    base, roof = 34.0, high - 44.0

    def y(kg: float) -> float:
        return base + (kg - low + 0.15 * span) / (1.3 * span) * (roof - base)

    step = (wide - 80) / max(len(known), 1)
    shapes: list[Primitive] = [line((40, base - 6), (wide - 12, base - 6), "pencil")]
    for k, ticket in enumerate(known):
        x = 60 + (k + 0.5) * step
        weighed, model, sigma = ticket.weighed.tongue_kg or 0.0, ticket.model_tongue_kg or 0.0, ticket.weighed.sigma_tongue_kg
        shapes.append(line((x, y(weighed - 2 * sigma)), (x, y(weighed + 2 * sigma)), "chalk", 1.6))
        shapes.append(Circle((x, y(weighed)), 5, "chalk", "chalk"))
        shapes.append(line((x - 22, y(model)), (x + 22, y(model)), "ink", 2.2))
        says = f"model {words.kg(model)}" if step > 170 else words.kg(model)
        if step > 80:
            shapes.append(Text((x - 27, y(model)), says, 10, "ink", anchor="right", ground="paper"))
        shapes.append(Text((x, base - 16), elided(ticket.weighed.ticket.on, 10, step), 10, "pencil"))
        shapes.append(Text((x + 9, y(weighed)), words.kg(weighed), 10, "chalk", anchor="left", ground="paper"))
    return tuple(shapes)
