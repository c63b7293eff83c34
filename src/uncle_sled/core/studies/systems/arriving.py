"""What of all that charges reaches a battery: by the wires, where any are laid.

While nothing is wired all that is aboard is taken as joined in the usual way. Once a wire is laid, a panel counts only with a
way to a controller (or a station) that has a way to a battery, and a charger only with its way in and out.
Source: systems notes, charging.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.wiring.appliances import figures_of, units_of
from uncle_sled.core.wiring.network import network_of
from uncle_sled.core.wiring.reachable import AC, DC, PANEL, behind, joined

STORES = ("battery", "station")
BY_MAINS = ("mains charger", "inverter charger", "station")


class String(msgspec.Struct, frozen=True):
    """Panels that share controllers. limit_w: what those pass on at the most [W]; None where one of them has no figure."""

    panels: tuple[Thing, ...]
    limit_w: float | None


def strings_arriving(build: Build) -> tuple[String, ...]:
    """Panels by the controllers they reach, without those that reach none."""
    panels, controllers = units_of(build, "panel"), units_of(build, "solar charger") or units_of(build, "station")
    net = network_of(build)
    if not net.wires:
        return (String(panels, limit_w(controllers)),) if panels else ()
    reached: dict[tuple[str, ...], list[Thing]] = {}
    charging = set(charging_ids(build, ("solar charger", "station")))
    for panel in panels:
        near = joined(net, panel.id, PANEL)
        ends = tuple(sorted(id for id in near if id in charging))
        if ends:
            reached.setdefault(ends, []).append(panel)
    things = {thing.id: thing for thing in build.stow.things}
    return tuple(String(tuple(own), limit_w([things[id] for id in ends])) for ends, own in reached.items())


def limit_w(controllers: Iterable[Thing]) -> float | None:
    """What controllers pass on at the most, together [W]; None where one has no figure or none is there."""
    told = [figures_of(thing).charge_w for thing in controllers]
    return None if not told or None in told else sum(watts for watts in told if watts is not None)


def charging_ids(build: Build, kinds: Collection[str]) -> tuple[str, ...]:
    """Things of these kinds aboard that reach a battery; all of them while nothing is wired."""
    mine = units_of(build, *kinds)
    net = network_of(build)
    if not net.wires:
        return tuple(thing.id for thing in mine)
    near = {id for store, end in net.ends.items() if end.kind in STORES for id in joined(net, store, DC)}
    return tuple(thing.id for thing in mine if thing.id in near and (figures_of(thing).unit != "car charger" or net.into[thing.id]))


def by_mains_ids(build: Build) -> tuple[str, ...]:
    """Chargers aboard that a hookup or generator reaches and that reach a battery; all of them while nothing is wired."""
    chargers = charging_ids(build, ("mains charger", "inverter charger")) or charging_ids(build, ("station",))
    net = network_of(build)
    if not net.wires:
        return chargers
    fed = {id for source, end in net.ends.items() if end.kind in ("inlet", "generator") for id in behind(net, source, AC, BY_MAINS)}
    return tuple(id for id in chargers if id in fed)
