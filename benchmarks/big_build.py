"""A build of many things and many cases, for measuring."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.joinery import Bay, Cabinet
from uncle_sled.core.document.project import Project
from uncle_sled.core.document.quantity import Length, Volume
from uncle_sled.core.document.stow import Level, LoadCase
from uncle_sled.exchange.demos import demo


def big_project(things: int = 300, own_cases: int = 5, cabinets: int = 0) -> Project:
    """Marsh Heron with its things repeated small, side by side on shelves over the bed, and cases of its own."""
    project = demo("marsh-heron")
    build = project.build
    made = list(build.stow.things)
    while len(made) < things:
        first = build.stow.things[len(made) % len(build.stow.things)]
        at = len(made)
        column, row, level = at % 12, at // 12 % 11, at // 132
        made.append(
            msgspec.structs.replace(
                first,
                id=f"t{at + 1}",
                name=f"{first.name} {at}",
                kind="gear" if first.kind == "bed" else first.kind,
                length=Length(0.10),
                width=Length(0.11),
                height=Length(0.08),
                x=Length(round(1.75 + 0.12 * column, 3)),
                y=Length(round(0.13 * (row - 5), 3)),
                z=Length(round(1.10 + 0.10 * level, 3)),
                turn=0,
                outside=False,
                inside=None,
                states=(),
                clear=(),
                tank=first.tank and msgspec.structs.replace(first.tank, volume=Volume(0.0004)),
            )
        )
    for at in range(len(made) - cabinets, len(made)):  # the last ones of boards, each with shelves and two doors
        size = {"length": Length(0.30), "width": Length(0.40), "height": Length(0.35)}
        carcass = Cabinet("rear", thick=Length(0.009), bays=(Bay("a", "pair", shelves=2),))
        made[at] = msgspec.structs.replace(made[at], kind="cabinet", cabinet=carcass, tank=None, source="computed", **size)
    tanks = [t.id for t in made if t.tank]
    cases = tuple(
        LoadCase(f"own{at}", f"Own {at}", "road", "loaded", tuple(Level(id, (at + k) % 4 / 4) for k, id in enumerate(tanks)))
        for at in range(own_cases)
    )
    stow = msgspec.structs.replace(build.stow, things=tuple(made), cases=cases)
    return project.with_build(msgspec.structs.replace(build, stow=stow))
