"""A build of many things and many cases, for measuring."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Project
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Level, LoadCase
from uncle_sled.exchange.demos import demo


def big_project(things: int = 300, own_cases: int = 5) -> Project:
    """Marsh Heron with its things repeated at other places, and cases of its own."""
    project = demo("marsh-heron")
    build = project.build
    made = list(build.stow.things)
    while len(made) < things:
        first = build.stow.things[len(made) % len(build.stow.things)]
        shift = (len(made) * 37 % 200) / 100
        made.append(
            msgspec.structs.replace(
                first,
                id=f"t{len(made) + 1}",
                name=f"{first.name} {len(made)}",
                x=Length(1.4 + shift),
                y=Length((len(made) % 13 - 6) / 10),
            )
        )
    tanks = [t.id for t in made if t.tank]
    cases = tuple(
        LoadCase(
            f"own{at}", f"Own {at}", "road", "loaded", tuple(Level(id, (at + k) % 4 / 4) for k, id in enumerate(tanks))
        )
        for at in range(own_cases)
    )
    stow = msgspec.structs.replace(build.stow, things=tuple(made), cases=cases)
    return project.with_build(msgspec.structs.replace(build, stow=stow))
