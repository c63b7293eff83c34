"""What one does at a stop, what it still wants to be told, and where to go on: a sentence for its head.

Wanted is what the stop's numbers cannot do without and nobody gave; it judges nothing, the findings do that.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from uncle_sled.core.findings.finding import Finding, to_settle
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.trail import TRAIL, does_at
from uncle_sled.core.wiring.wire_up import loose_of

NAMED = 3  # of what is wanted; the rest is counted


def wanted(s: Studied, stop: str) -> tuple[str, ...]:
    """What a stop still wants to be told, in words that follow “Still wanted:”. Nothing where it knows what it needs."""
    return tuple(_WANTED.get(stop, _nothing)(s))


def lead(s: Studied, found: tuple[Finding, ...], stop: str) -> str:
    """The sentence at a stop's head. Args: found: what is judged so far."""
    does = does_at(stop)
    lacks = wanted(s, stop)
    if lacks:
        more = f" and {len(lacks) - NAMED} more" if len(lacks) > NAMED else ""
        return f"{does} Still wanted: {', '.join(lacks[:NAMED])}{more}."
    for other in TRAIL:
        lacks, many = wanted(s, other), to_settle(found, other)
        if other == stop and many:
            return f"{does} Next: what Uncle says here."
        if lacks or many:
            return f"{does} Next: {other}, for {lacks[0]}." if lacks else f"{does} Next: {other}, {many} to settle."
    return does


def _nothing(_s: Studied) -> Iterator[str]:
    yield from ()


def _brief(s: Studied) -> Iterator[str]:
    if not s.facts.people:
        yield "who goes along"
    for person in s.facts.people:
        if person.height is None:
            yield f"how tall {person.name} is"
    brief = s.build.brief
    if s.build.rig.carrier == "ball":
        cars = vehicles_of(brief, s.facts)
        if not cars:
            yield "the car that tows it"
        for car in cars:
            if car.tongue_limit is None:
                yield f"what {car.name} may carry on its ball"
            if car.tow_limit is None:
                yield f"what {car.name} may tow"
    if brief.latitude_deg is None:
        yield "where it goes"
    if brief.coldest is None:
        yield "the coldest night"


def _rig(s: Studied) -> Iterator[str]:
    for unknown in s.unknown:
        if unknown.field.startswith("rig"):
            yield unknown.says
    for axle in s.build.rig.axles:
        if axle.rating is None:
            yield "what the axle is rated for"
            break


def _shell(s: Studied) -> Iterator[str]:
    shell = s.build.shell
    if shell.form == "none":
        yield "a body"
        return
    bare = [face.name for face in shell.faces if not face.layers and face.mass is None]
    yield from (f"what the {name.lower()} is made of" for name in bare)
    if shell.framing.school == "none":
        yield "how it is built"


def _stow(s: Studied) -> Iterator[str]:
    if not s.build.stow.things:
        yield "what goes along"


def _balance(s: Studied) -> Iterator[str]:
    if s.support is None or s.trouble:
        yield "an axle, and something to carry" if s.build.rig.carrier == "ball" else "the vehicle's axles"


def _systems(s: Studied) -> Iterator[str]:
    loose = loose_of(s.build)
    if loose:
        yield f"wires to {len(loose)} things" if len(loose) > 1 else "a wire to one thing"
    elif not s.build.systems.wires and any(
        t.figures is not None and (t.figures.unit or t.figures.power_w) and not t.taken_out for t in s.build.stow.things
    ):
        yield "wires"


def _cut(s: Studied) -> Iterator[str]:
    if not s.build.cut.prints and s.framed.members:
        yield "numbers on the pieces, before the first is sawn"


def _build(s: Studied) -> Iterator[str]:
    if not s.build.work.begin:
        yield "the day when it begins"


def _road(s: Studied) -> Iterator[str]:
    if not s.build.road.tickets:
        yield "a ticket of the scale, when it stands on its wheels"


_WANTED: dict[str, Callable[[Studied], Iterator[str]]] = {
    "Brief": _brief,
    "Rig": _rig,
    "Shell": _shell,
    "Stow": _stow,
    "Balance": _balance,
    "Systems": _systems,
    "Cut": _cut,
    "Build": _build,
    "Road": _road,
}
