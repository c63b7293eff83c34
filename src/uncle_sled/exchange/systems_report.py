"""The ``power``, ``wiring``, ``water``, ``gas``, ``warmth``, ``moisture`` and ``air`` keys of the report. Numbers are SI, shares 0 to 1; what is not known is null."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.carried_out import Fills, carried_out
from uncle_sled.core.studies.systems.fridge_slots import fridge_slots
from uncle_sled.core.studies.systems.frost import frost_of
from uncle_sled.core.studies.systems.gas import LEVELS
from uncle_sled.core.studies.systems.glaser import profiles_of
from uncle_sled.core.studies.systems.hazards import hazards_of
from uncle_sled.core.studies.systems.noise import noise_at_heads
from uncle_sled.core.studies.systems.own_batteries import OnItsOwn, own_batteries
from uncle_sled.core.studies.systems.sizing import needs_under, ways_of
from uncle_sled.core.studies.systems.stay import Stay
from uncle_sled.core.studies.systems.supply import Supply, supplies
from uncle_sled.core.studies.systems.systems_as_built import stay_mode, the_gains, the_gas, the_losses, the_night, the_stay, the_water
from uncle_sled.core.studies.systems.wall_cooler import wall_coolers
from uncle_sled.core.studies.systems.water import uncounted
from uncle_sled.core.studies.systems.year import year_of
from uncle_sled.core.wiring.wired import Laid, Wired, wired_of


def power_report(s: Studied) -> dict[str, Any]:
    """The ``power`` key: the day, the bank, the stay under every string of weather, the kinds of battery."""
    stay = the_stay(s)
    must = sum(float(stay.demand.wh[k].sum()) for k, load in enumerate(stay.demand.loads) if load.must_run)
    bank = stay.bank
    return {
        "mode": stay_mode(s.build),
        "daily_wh": stay.demand.daily_wh if stay.demand.loads and not stay.demand.unknown else None,
        "usable_wh": bank.cold_wh if bank is not None and not bank.unknown else None,
        "must_run_wh": must if stay.demand.loads and not stay.demand.unknown else None,
        "reserve_wh": stay.reserve_wh if stay.strings else None,
        "nights": stay.nights if stay.nights_said else None,
        "why": list(stay.why),
        "strings": [
            {
                "id": string.id,
                "hours_to_empty": string.hours_to_empty,
                "first_dark": None if string.first_dark_h is None else {"hour": string.first_dark_h, "load": string.first_dark},
                "soc": [round(float(wh) / max(bank.cold_wh, 1e-9), 9) for wh in string.soc_wh] if bank is not None else [],
                "in_wh": float((string.sun_wh + string.car_wh + string.generator_wh + string.mains_wh).sum()),
                "unserved_wh": string.unserved_wh,
                "lost_wh": string.lost_wh,
                "clipped_wh": string.clipped_wh,
            }
            for string in stay.strings
        ],
        "own_batteries": [_on_its_own(thing) for thing in own_batteries(s.build, stay_mode(s.build), "mixed").things],
        "schools": _schools(s, stay),
        "year": [{"month": month.month, "nights": dict(month.held)} for month in year_of(s.build, stay_mode(s.build)).months],
    }


def _on_its_own(thing: OnItsOwn) -> dict[str, Any]:
    return {
        "id": thing.id,
        "holds_wh": thing.battery.holds_wh,
        "filled": thing.battery.filled,
        "alone_h": thing.alone_h,
        "fill_h": thing.fill_h,
        "fill_wh": thing.bank_wh,
        "empty_days": thing.empty_days,
        "unsaid": thing.unsaid or None,
    }


def _schools(s: Studied, stay: Stay) -> list[dict[str, Any]]:
    needs = needs_under(s.build, stay_mode(s.build), "mixed")
    if needs is None or needs.battery_wh is None:
        return []
    return [
        {"id": way.school.id, "usable_wh": way.usable_wh, "mass_kg": way.mass_kg, "money": way.money, "cold_share": way.cold}
        for way in ways_of(s.build, stay, needs.battery_wh, None)
    ]


def wiring_report(s: Studied) -> dict[str, Any]:
    """The ``wiring`` key: every wire, the hazards, and what joins what."""
    wired = wired_of(s.build, s.framed)
    return {
        "volts": s.build.systems.volts,
        "circuits": [_circuit(wire) for wire in wired.wires],
        "hazards": [
            {"code": hazard.code, "where": list(hazard.where), "value": hazard.value, "limit": hazard.limit}
            for hazard in hazards_of(s.build, wired)
        ],
        "connections": [_connection(wire, wired) for wire in wired.wires],
        "states": [_state(supply, wired) for supply in supplies(s)],
    }


def _state(supply: Supply, wired: Wired) -> dict[str, Any]:
    """A state of supply: ids of what is live and dead, what charges what, where mains would meet, and its figures."""
    live, arrives = supply.live, supply.arrives
    always = [draw for draw in supply.draws if draw.always and draw.stored]
    return {
        "id": live.state.id,
        "live": sorted(live.ends),
        "dead": sorted(set(wired.net.ends) - set(live.ends)),
        "charges": [list(pair) for pair in live.charges],
        "meets": [id for id, _ in live.meets],
        "charge_w": supply.charge_w,
        "arrives_a": arrives.amps if arrives is not None else None,
        "arrives_w": arrives.watts if arrives is not None else None,
        "draws_w": sum(draw.watts or 0.0 for draw in always) if live.state.id == "stored" else None,
        "empty_days": supply.days,
    }


def _circuit(wire: Laid) -> dict[str, Any]:
    return {
        "id": wire.id,
        "from": wire.start,
        "to": wire.end,
        "kind": wire.kind,
        "volts": wire.volts,
        "current_a": wire.current_a,
        "length_m": wire.length_m if wire.length_face != "guessed" else None,
        "length_face": wire.length_face,
        "area_mm2": wire.mm2,
        "gauge": wire.gauge or None,
        "class": wire.insulation,
        "derating": wire.derating,
        "drop_share": wire.drop_share,
        "fuse_a": wire.fuse_a,
        "mass_kg": wire.mass_kg if wire.mm2 is not None else None,
        "start_a": wire.start_a,
        "start_drop_share": wire.start_drop_share,
        "guard_a": wire.guard_a,
        "in_foam_m": wire.in_foam_m,
        "near_heat": [{"id": id, "length_m": long} for id, long in wire.near_heat],
        "slow_fuse": wire.slow,
        "bundle": wire.bundle,
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


def water_report(s: Studied) -> dict[str, Any]:
    """The ``water`` key: need, days, pump."""
    made = the_water(s)
    return {
        "people": made.people,
        "need_l_day": made.need_l_day if made.people else None,
        "grey_l_day": made.grey_l_day if made.people else None,
        "fresh_l": made.fresh_l if "fresh" not in made.unsaid else None,
        "grey_l": made.grey_room_l if "grey" not in made.unsaid else None,
        "days_fresh": made.days_fresh,
        "days_grey": made.days_grey,
        "wanted_days": made.wanted_days,
        "pump_w": made.pump_w,
        "pump_kpa": made.pump_kpa,
        "uncounted": list(uncounted(s.build)) if made.people else [],
        "carried": [_carried(fills) for fills in carried_out(s).fills],
        "frost": _frost(s),
    }


def _carried(fills: Fills) -> dict[str, Any]:
    return {
        "kind": fills.kind,
        "room_l": fills.room_l if not fills.unsaid else None,
        "day_l": fills.day_l,
        "days": fills.days,
        "by_hand": [{"id": carry.id, "full_kg": carry.kg, "times": carry.times} for carry in fills.carries],
    }


def _frost(s: Studied) -> list[dict[str, Any]]:
    """Each piece of water on the coldest night; hours are null where it does not freeze, all four where it was not checked."""
    return [
        {
            "id": wet.id,
            "name": wet.name,
            "kind": wet.kind,
            "stands": wet.place,
            "checked": wet.unheated is not None,
            "zero_h": wet.unheated.zero_h if wet.unheated is not None else None,
            "ice_h": wet.unheated.solid_h if wet.unheated is not None else None,
            "heated_zero_h": wet.heated.zero_h if wet.heated is not None else None,
        }
        for wet in frost_of(s).wets
    ]


def gas_report(s: Studied) -> dict[str, Any]:
    """The ``gas`` key: burners, days by fuel, boil-off by temperature at half full."""
    made = the_gas(s)
    half = LEVELS.index(0.5)
    return {
        "burners": [
            {"id": burner.id, "fuel": burner.fuel, "kw": burner.kw, "kg_day": burner.kg_day, "sealed": burner.sealed}
            for burner in made.burners
        ],
        "days": dict(made.days),
        "kg": dict(made.kg),
        "boil_off_kw": [[t, kw[half]] for t, kw in made.boil_off_kw],
        "most_kw": made.most_kw,
        "open_kw": made.open_kw,
        "why": list(made.why),
    }


def warmth_report(s: Studied) -> dict[str, Any]:
    """The ``warmth`` key: losses by path, heater, warm-up, cooling. A path that nobody knows has null."""
    made, hot = the_losses(s), the_gains(s)
    dt = made.inside_c - made.outside_c if made.loss_w is not None and made.inside_c is not None and made.outside_c is not None else None
    return {
        "paths": [
            {
                "id": p.id,
                "name": p.name,
                "area_m2": p.area_m2,
                "u_w_m2k": p.u_w_m2k,
                "loss_w": None if dt is None else p.loss_w(dt),
                "rough": p.rough,
            }
            for p in made.paths
        ],
        "ua_w_k": made.ua_w_k if not made.unknown and made.paths else None,
        "air_m3h": made.air_m3h,
        "loss_w": made.loss_w if not made.unknown else None,
        "least_loss_w": made.loss_w,
        "heater_w": made.heater_w if not made.unknown else None,
        "there_w": made.there_w,
        "warm_up_h": made.warm_up_h,
        "cooling_w": hot.cooling_w,
        "why": [*made.why, *made.unknown],
    }


def moisture_report(s: Studied) -> dict[str, Any]:
    """The ``moisture`` key: the air inside, every surface from the coldest, and what gets wet inside."""
    night = the_night(s)
    return {
        "inside_rh": None if night.inside_rh is None else min(night.inside_rh, 1.0),
        "dew_c": night.dew_c,
        "made_g_h": night.made_g_h,
        "surfaces": [
            {
                "name": face.name,
                "where": face.where,
                "t_c": face.t_c,
                "sweats": face.sweats,
                "vent_m3h": face.vent_m3h,
                "price_w": face.price_w,
            }
            for face in night.surfaces
        ],
        "faces": [
            {"id": profile.id, "condenses_g_night": profile.condenses_g_m2, "dries": profile.dries}
            for profile in profiles_of(s.build, s.facts, s.framed)
        ],
        "why": [*night.why, *night.unknown],
    }


def air_report(s: Studied) -> dict[str, Any]:
    """The ``air`` key: free air behind fridges, hot sides and condensate, noise at each end of the beds."""
    return {
        "fridges": [
            {
                "id": slots.id,
                "built_in": slots.built_in,
                "heat_w": slots.heat_w,
                "wanted_cm2": slots.wanted_cm2,
                "there_cm2": slots.there_cm2,
            }
            for slots in fridge_slots(s.build, s.framed)
        ],
        "coolers": [
            {
                "id": cooler.id,
                "hot_side": cooler.hot or None,
                "rejects_w": cooler.rejects_w,
                "water_l_h": cooler.water_l_h,
                "back_in": list(cooler.back_in),
            }
            for cooler in wall_coolers(s.build, s.facts)
        ],
        "heads": [{"bed": head.bed, "end": head.end, "db": head.db, "unknown": list(head.unknown)} for head in noise_at_heads(s)],
    }
