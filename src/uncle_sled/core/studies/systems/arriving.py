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
from uncle_sled.core.document.systems import WireKind
from uncle_sled.core.wiring.appliances import figures_of, units_of
from uncle_sled.core.wiring.network import Network, network_of

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
        near = _joined(net, (panel.id,), "panel")
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
    stores = [id for id, end in net.ends.items() if end.kind in STORES]
    near = _joined(net, stores, "DC")
    return tuple(thing.id for thing in mine if thing.id in near and (figures_of(thing).unit != "car charger" or net.into[thing.id]))


def by_mains_ids(build: Build) -> tuple[str, ...]:
    """Chargers aboard that a hookup or generator reaches and that reach a battery; all of them while nothing is wired."""
    chargers = charging_ids(build, ("mains charger", "inverter charger")) or charging_ids(build, ("station",))
    net = network_of(build)
    if not net.wires:
        return chargers
    seen = [id for id, end in net.ends.items() if end.kind in ("inlet", "generator")]
    for now in seen:
        if net.ends[now].kind in BY_MAINS:
            continue
        seen += [net.wires[w].end for w in net.out[now] if net.wires[w].kind == "AC" and net.wires[w].end not in seen]
    return tuple(id for id in chargers if id in seen)


def _joined(net: Network, start: Iterable[str], kind: WireKind) -> list[str]:
    """All ends that wires of one kind join with these, whichever way they run."""
    seen = [id for id in start if id in net.ends]
    for now in seen:
        for w in (*net.out[now], *net.into[now]):
            wire = net.wires[w]
            other = wire.end if wire.start == now else wire.start
            if wire.kind == kind and other not in seen:
                seen.append(other)
    return seen
