"""What the tickets taught: every group before and after with its doubt, and estimate against ticket over time."""

from __future__ import annotations

from uncle_sled.core.drawing.before_after import Learnt, before_after
from uncle_sled.core.drawing.primitives import Circle, Primitive, Text, line
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.road.reconcile import Reconciled
from uncle_sled.core.words import Words


def groups_chart(made: Reconciled, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """A row a group: what was thought, and what it weighs by the tickets."""
    rows = [
        Learnt(
            group.name,
            group.before_kg,
            group.sigma_before_kg,
            group.after_kg,
            group.sigma_kg,
            told=f"{words.bare_kg(group.before_kg)} → {words.kg(group.after_kg)}",
            change=f"{words.signed_kg(group.after_kg - group.before_kg)} ± {words.fine_kg(2 * group.sigma_kg)}",
        )
        for group in made.groups
    ]
    return before_after(rows, wide, high)


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
