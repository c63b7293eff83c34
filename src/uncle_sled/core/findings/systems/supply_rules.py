"""Judged of the states of supply: what the car's thin wire asks of its plug, what empties the battery in the store."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.supply import PIN_A, Supply, supplies
from uncle_sled.core.wiring.network import Network
from uncle_sled.core.wiring.supply_states import leads_nowhere
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.core.words import Words, all_of, lower_first, upper_first

SOURCE = "systems notes, states of supply"
CAUTION = "Screening only: batteries and mains burn and kill. Licensed people and local codes decide."
WINTER_DAYS = 120.0

CAR_PLUG = Rule(
    "car-plug-over",
    "mind",
    "Systems",
    "More from the car than its plug is made for",
    "Pins that carry too much melt in their socket, out of sight under the bumper.",
    CAUTION,
    why_none="A charger from the car with fewer watts, or a plug and wire of its own that are fused for it.",
)
CAR_WEAK = Rule(
    "car-wire-thin",
    "mind",
    "Systems",
    "A wire from the car over which its charger never gets its watts",
    "It lets go, the volts come back, and it tries again all the way.",
    CAUTION,
    why_none="A thicker wire, a shorter one, or a smaller charger.",
)
STORE = Rule(
    "store-drains",
    "note",
    "Systems",
    "A battery that is empty before the winter is over with every switch open",
    "A bank that stands empty is ruined.",
    why_none="Part the battery from what still draws: wire it behind the main switch, or take its fuse.",
)


NOWHERE = Rule(
    "supply-nowhere",
    "mind",
    "Systems",
    "A hookup, car plug, generator or panel that reaches neither a battery nor anything that runs",
    "One plugs in, drives or waits for the sun, and nothing comes.",
    CAUTION,
    why_none="Wire it on to a charger or a board; Wire it up joins what is loose.",
)


def supply_findings(s: Studied, _words: Words) -> Iterator[Finding]:
    """Silent where nothing is wired."""
    made = supplies(s)
    yield from _nowhere(made, wired_of(s.build, s.framed).net)
    for supply in made:
        arrives = supply.arrives
        if arrives is not None and arrives.falls:
            yield CAR_WEAK.found(
                "The car's wire is too thin",
                f"Over {arrives.ohm or 0.0:.2f} ohm {arrives.booster} cannot be fed.",
                ("driving",),
                number=arrives.ohm,
            )
        elif arrives is not None and arrives.over and arrives.amps is not None:
            yield CAR_PLUG.found(
                f"{arrives.amps:.0f} A from the car", f"Its plug is usually fused at {PIN_A:.0f} A.", ("driving",), number=arrives.amps
            )
        if supply.days is not None and supply.days < WINTER_DAYS:
            told = [draw for draw in supply.draws if draw.always and draw.stored]
            yield STORE.found(
                f"Empty after {supply.days:.0f} days in the store",
                f"With every switch open {told[0].name} still draws {told[0].watts or 0.0:.1f} W"
                + (f", and {len(told) - 1} more with it." if len(told) > 1 else "."),
                ("stored", told[0].id),
                number=supply.days,
            )


def _nowhere(made: tuple[Supply, ...], net: Network) -> Iterator[Finding]:
    """Each source once, with the states in which it should give."""
    told: dict[str, list[str]] = {}
    for supply in made:
        for id in leads_nowhere(net, supply.live):
            told.setdefault(id, []).append(lower_first(supply.live.state.name))
    for id, states in told.items():
        yield NOWHERE.found(
            f"{net.ends[id].name} feeds nothing", f"{upper_first(all_of(states))}: no battery and nothing that runs gets any of it.", (id,)
        )
