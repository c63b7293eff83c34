"""Each state of supply in figures: what charges, what arrives from the car over its thin wire, what still draws in the store.

From the car: its volts less what its own wire and every wire up to the charger lose; a booster takes constant watts, so that the amps
are the smaller root of I (V - I R) = P; a lithium bank without one takes all that its low resistance lets through. Source: Ohm's law;
figures of the car are usual ones and are said.
"""

from __future__ import annotations

import math
from functools import lru_cache

import msgspec

from uncle_sled.core.document.roles import ALARMS
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.tables import table
from uncle_sled.core.wiring.appliances import BOOSTER_ETA, usable_wh
from uncle_sled.core.wiring.conductors import RHO_60
from uncle_sled.core.wiring.network import STORES, Network
from uncle_sled.core.wiring.supply_states import Live, SupplyState, live_in, states_here
from uncle_sled.core.wiring.wired import Wired, wired_of

CAR_V, CAR_MM2, CAR_M, PIN_A = 13.8, 2.5, 6.0, 15.0  # usual: volts while driving, the car's own wire one way, what its plug is fused at
BANK_V = {"LFP": 13.2, "AGM": 12.5, "lead": 12.4, "": 12.5}  # half full, at rest
BANK_OHM = {"LFP": 0.01, "AGM": 0.03, "lead": 0.04, "": 0.03}


class Arrives(msgspec.Struct, frozen=True):
    """From the car. ohm: all of the way there and back; amps, volts, watts: what gets there, None where a wire has no size.

    booster: its name, "" without one; falls: no amps give that power over this wire; over: more than its plug is fused at.
    """

    ohm: float | None
    amps: float | None
    volts: float | None
    watts: float | None
    booster: str
    falls: bool
    over: bool


class Draw(msgspec.Struct, frozen=True):
    """Something that is live in the store. watts: on the mean where it draws by itself, else while it runs; None where nobody knows.

    always: it draws without anybody switching it on; stored: a battery feeds it then, and not the panels alone.
    """

    id: str
    name: str
    watts: float | None
    always: bool
    stored: bool


class Supply(msgspec.Struct, frozen=True):
    """A state in figures. charge_w: into the stores, at the most; None where a charger has no watts.

    draws: in the store what is still live; days: until what can be used is gone by what always draws, None where nothing does.
    """

    live: Live
    charge_w: float | None
    arrives: Arrives | None
    draws: tuple[Draw, ...]
    days: float | None


@lru_cache(maxsize=1)
def standby_w() -> dict[str, float]:
    """Watts that each kind of device draws while it only waits."""
    return {line.kind: line.watts for line in table("catalogue/standby.csv", _Standby)}


class _Standby(msgspec.Struct, frozen=True):
    kind: str
    watts: float
    source: str


def supplies(s: Studied) -> tuple[Supply, ...]:
    """Every state that the wiring can be in; none where nothing is wired."""
    wired = wired_of(s.build, s.framed)
    if not wired.wires:
        return ()
    return tuple(supply_in(wired, state) for state in states_here(wired.net, s.build.systems.generator_w is not None))


def supply_in(wired: Wired, state: SupplyState) -> Supply:
    """One state."""
    net = wired.net
    live = live_in(net, state)
    draws = _draws(net, live) if state.id == "stored" else ()
    arrives = arrives_from_car(net, wired) if state.id == "driving" else None
    drain = sum(draw.watts or 0.0 for draw in draws if draw.always and draw.stored)
    stored = [usable_wh(end.figures) for end in net.ends.values() if end.kind in STORES and end.figures is not None]
    days = sum(wh or 0.0 for wh in stored) / drain / 24.0 if drain > 0 and None not in stored else None
    return Supply(live, _charge_w(net, live, arrives), arrives, draws, days)


def _charge_w(net: Network, live: Live, arrives: Arrives | None) -> float | None:
    """Into the stores, charger by charger; the car's by what arrives."""
    total = 0.0
    for id in dict.fromkeys(source for source, _ in live.charges):
        end = net.ends[id]
        if end.kind in ("car charger", "car plug"):
            watts = arrives.watts if arrives is not None else None
        elif end.kind == "panel":
            watts = end.figures.solar_wp if end.figures is not None else None
        else:
            watts = end.figures.charge_w if end.figures is not None else None
            if end.kind == "solar charger":
                peak = [
                    p.figures.solar_wp
                    for pid, p in net.ends.items()
                    if p.kind == "panel" and p.figures is not None and pid in live.ends.get(id, ())
                ]
                if peak and None not in peak:
                    watts = min(sum(w or 0.0 for w in peak), watts) if watts is not None else sum(w or 0.0 for w in peak)
        if watts is None:
            return None
        total += watts
    return total


def amps_for(volts: float, ohm: float, watts: float) -> float | None:
    """Amps at which a wire gives so many watts at its far end; None where it never can. Check 13.8 V, 0.1 ohm, 240 W: 20.4 A."""
    under = volts**2 - 4 * ohm * watts
    if under < 0:
        return None
    return (volts - math.sqrt(under)) / (2 * ohm) if ohm > 0 else watts / volts


def arrives_from_car(net: Network, wired: Wired) -> Arrives | None:
    """Over the plug's wires to the first charger or battery; None where no plug of a car has a way to one."""
    laid = {wire.id: wire for wire in wired.wires}
    found = _way(net)
    if found is None:
        return None
    way, at = found
    end = net.ends[at]
    sizes = [(laid[id].length_m, laid[id].mm2) for id in way if id in laid]
    if any(mm2 is None for _, mm2 in sizes):
        return Arrives(None, None, None, None, end.name if end.kind == "car charger" else "", falls=False, over=False)
    ohm = 2 * CAR_M * RHO_60 / CAR_MM2 + sum(2 * length * RHO_60 / (mm2 or 1.0) for length, mm2 in sizes)
    if end.kind == "car charger":
        takes = end.figures.charge_w / BOOSTER_ETA if end.figures is not None and end.figures.charge_w is not None else None
        if takes is None:
            return Arrives(ohm, None, None, None, end.name, falls=False, over=False)
        amps = amps_for(CAR_V, ohm, takes)
        if amps is None:
            return Arrives(ohm, None, None, None, end.name, falls=True, over=True)
        return Arrives(ohm, amps, CAR_V - amps * ohm, takes * BOOSTER_ETA, end.name, falls=False, over=amps > PIN_A)
    bank = BANK_V.get(net.chemistry, BANK_V[""])
    amps = max((CAR_V - bank) / (ohm + BANK_OHM.get(net.chemistry, BANK_OHM[""])), 0.0)
    volts = CAR_V - amps * ohm
    return Arrives(ohm, amps, volts, amps * volts, "", falls=False, over=amps > PIN_A)


def _way(net: Network) -> tuple[list[str], str] | None:
    """The wires from a car's plug to the first charger or store, the fewest first."""
    for plug in (id for id, end in net.ends.items() if end.kind == "car plug"):
        todo: list[tuple[str, list[str]]] = [(plug, [])]
        seen = {plug}
        for at, way in todo:
            if net.ends[at].kind in ("car charger", *STORES):
                return way, at
            for id in (*net.out[at], *net.into[at]):
                wire = net.wires[id]
                other = wire.end if wire.start == at else wire.start
                if wire.kind == "DC" and other not in seen:
                    seen.add(other)
                    todo.append((other, [*way, id]))
    return None


def _draws(net: Network, live: Live) -> tuple[Draw, ...]:
    """What is live though every switch is open."""
    made = []
    for id, end in net.ends.items():
        if id not in live.ends or end.kind in ("battery", "panel"):
            continue
        fed = any(net.ends[source].kind in STORES for source in live.ends[id])
        if end.runs is not None:
            always = end.runs.must_run or not ALARMS.isdisjoint(end.runs.roles)
            mean = end.runs.daily_wh / 24.0 if end.runs.daily_wh is not None else None
            made.append(Draw(id, end.name, mean if always else end.runs.power_w, always, fed))
        elif end.kind in standby_w():
            own = end.figures.idle_w if end.figures is not None else None
            made.append(Draw(id, end.name, own if own is not None else standby_w()[end.kind], always=True, stored=fed))
    return tuple(sorted(made, key=lambda draw: (not draw.always, -(draw.watts or 0.0))))
