"""The ``power`` and ``wiring`` keys of the report. Numbers are SI, shares 0 to 1; what is not known is null."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.findings.systems.power import stay_mode, the_stay
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.hazards import hazards_of
from uncle_sled.core.studies.systems.sizing import needs_of, ways_of
from uncle_sled.core.studies.systems.stay import Stay
from uncle_sled.core.wiring.wired import Laid, Wired, wired_of


def power_report(s: Studied) -> dict[str, Any]:
    """The ``power`` key: the day, the bank, the stay under every string of weather, the kinds of battery."""
    stay = the_stay(s)
    must = sum(float(stay.demand.wh[k].sum()) for k, load in enumerate(stay.demand.loads) if load.must_run)
    bank = stay.bank
    return {
        "mode": stay_mode(s.build),
        "daily_wh": stay.demand.daily_wh if stay.demand.loads else None,
        "usable_wh": bank.cold_wh if bank is not None and not bank.unknown else None,
        "must_run_wh": must if stay.demand.loads else None,
        "reserve_wh": stay.reserve_wh if stay.strings else None,
        "nights": stay.nights if stay.nights_said else None,
        "why": list(stay.why),
        "strings": [
            {
                "id": one.id,
                "hours_to_empty": one.hours_to_empty,
                "first_dark": None if one.first_dark_h is None else {"hour": one.first_dark_h, "load": one.first_dark},
                "soc": [round(float(wh) / max(bank.cold_wh, 1e-9), 9) for wh in one.soc_wh] if bank is not None else [],
                "in_wh": float((one.sun_wh + one.car_wh + one.generator_wh + one.mains_wh).sum()),
                "unserved_wh": one.unserved_wh,
                "lost_wh": one.lost_wh,
                "clipped_wh": one.clipped_wh,
            }
            for one in stay.strings
        ],
        "schools": _schools(s, stay),
    }


def _schools(s: Studied, stay: Stay) -> list[dict[str, Any]]:
    needs = next((one for one in needs_of(s.build, stay_mode(s.build)) if one.sky == "mixed"), None)
    if needs is None or needs.battery_wh is None:
        return []
    return [
        {
            "id": way.school.id,
            "usable_wh": way.usable_wh,
            "mass_kg": way.mass_kg,
            "money": way.money,
            "cold_share": way.cold,
        }
        for way in ways_of(s.build, stay, needs.battery_wh, None)
    ]


def wiring_report(s: Studied) -> dict[str, Any]:
    """The ``wiring`` key: every wire, the hazards, and what joins what."""
    wired = wired_of(s.build, s.framed)
    return {
        "volts": s.build.systems.volts,
        "circuits": [_circuit(wire) for wire in wired.wires],
        "hazards": [
            {"code": one.code, "where": list(one.where), "value": one.value, "limit": one.limit}
            for one in hazards_of(s.build, wired)
        ],
        "connections": [_connection(wire, wired) for wire in wired.wires],
    }


def _circuit(wire: Laid) -> dict[str, Any]:
    return {
        "id": wire.id,
        "from": wire.start,
        "to": wire.end,
        "kind": wire.kind,
        "volts": wire.volts,
        "current_a": wire.current_a,
        "length_m": wire.length_m,
        "length_face": wire.length_face,
        "area_mm2": wire.mm2,
        "gauge": wire.gauge or None,
        "class": wire.insulation,
        "derating": wire.derating,
        "drop_share": wire.drop_share,
        "fuse_a": wire.fuse_a,
        "mass_kg": wire.mass_kg,
        "why": wire.why or None,
    }


def _connection(wire: Laid, wired: Wired) -> dict[str, Any]:
    ends = wired.net.ends
    return {
        "id": wire.id,
        "number": wire.number,
        "from": ends[wire.start].name,
        "to": ends[wire.end].name,
        "colour": wire.colour,
        "fused": wire.fused,
    }
