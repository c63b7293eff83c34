"""The people of the brief, standing beside the rig to scale."""

from __future__ import annotations

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.drawing.person import upright
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.studied import length_m

APART_M = 0.75


def standing_people(build: Build, facts: Facts) -> tuple[Primitive, ...]:
    """A plain figure for everyone whose height is known, behind the tail."""
    shapes: list[Primitive] = []
    people = [p for p in facts.people if p.height and 0.3 < p.height.si < 2.6]
    over = max((p.height.si for p in people if p.height), default=0.0)
    for at, person in enumerate(people[:6]):
        tall = person.height.si if person.height else 1.7
        x = length_m(build) + 0.55 + APART_M * at
        shapes += [
            *upright(x, 0.0, tall, id=person.id),
            Text((x, over + (0.46 if at % 2 else 0.12)), elided(person.name, 11, 62), 11.0, "ink", id=person.id),
        ]
    return tuple(shapes)
