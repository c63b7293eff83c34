"""The layout's part of the report: modes with their clashes, sleepers and ways out, tanks, the sweep, what holds things."""

from __future__ import annotations

from typing import Any

import msgspec

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.geometry.vessel import vessel_of
from uncle_sled.core.parts.from_stow import contents_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.sweep import Spot, Sweep, sweep
from uncle_sled.core.studies.stow.beds import sleepers_in
from uncle_sled.core.studies.stow.clashes import clashes, modes_in_use
from uncle_sled.core.studies.stow.restraints import restraints
from uncle_sled.core.studies.stow.ways_out import ways_out
from uncle_sled.exchange.shell_report import number


def modes_report(s: Studied) -> list[dict[str, Any]]:
    """The ``modes`` key; who sleeps and gets out is judged in the modes that stand."""
    found, used = clashes(s.build, s.facts), modes_in_use(s.build)
    made = []
    for mode in s.build.stow.modes:
        stands = mode.id in used
        made.append(
            {
                "id": mode.id,
                "name": mode.name,
                "towing": mode.towing,
                "clashes": [{"a": clash.a, "b": clash.b, "kind": clash.kind, "overlap_m3": clash.overlap_m3} for clash in found[mode.id]],
                "sleepers": [
                    {"id": sleeper.id, "name": sleeper.name, "bed": sleeper.bed, "fits": sleeper.fits, "why": sleeper.why}
                    for sleeper in (sleepers_in(s.build, s.facts, mode) if stands else ())
                ],
                "ways_out": [
                    {"id": way.id, "clear_m": list(way.clear_m), "through": way.through or None}
                    for way in (ways_out(s.build, s.facts, mode) if stands else ())
                    if way.good
                ],
            }
        )
    return made


def tanks_report(s: Studied, row: int) -> list[dict[str, Any]]:
    """The ``tanks`` key: each tank as it is in one case, with the centre of its contents."""
    if not s.table.cases:
        return []
    case = s.table.cases[row]
    levels = {lv.id: min(max(lv.level, 0.0), 1.0) for lv in case.case.levels}
    made = []
    for thing in s.build.stow.things:
        if thing.tank is None:
            continue
        held = contents_of(thing, stand_of(thing, case.mode))
        level = levels.get(thing.id, 0.0) if thing.id not in case.mode.absent else 0.0
        vessel = vessel_of(thing)
        made.append(
            {
                "id": thing.id,
                "contents": thing.tank.contents,
                "shape": thing.tank.shape,
                "volume_l": held.volume_m3 * 1000 if held else 0.0,
                "outside_l": vessel.volume_m3 * 1000 if vessel else None,
                "case_id": case.id,
                "level": level,
                "mass_kg": held.full_kg * level if held else 0.0,
                "cg_m": [float(v) for v in held.centres_m(level)] if held else None,
            }
        )
    return made


def sweep_report(s: Studied, row: int) -> dict[str, Any] | None:
    """The ``sweep`` key: the worst of every tank at every level; null where there is no reading. A bed has no ball: its rear axle is swept."""
    found = sweep(s, row)
    if found is None:
        return None
    return {
        "case_id": found.case_id,
        "combinations": len(found.load_kg),
        "worst_low": _spot(found, found.worst_low),
        "worst_high": _spot(found, found.worst_high),
    }


def _spot(found: Sweep, spot: Spot) -> dict[str, Any]:
    return {
        "levels": [{"id": id, "level": level} for id, level in spot.levels],
        "tongue_kg": spot.load_kg if found.of == "ball" else None,
        "rear_axle_kg": spot.load_kg if found.of == "rear axle" else None,
        "total_kg": spot.total_kg,
        "tongue_share": spot.load_kg / spot.total_kg if spot.total_kg and found.of == "ball" else None,
        "out_kg": number(spot.out_kg),
    }


def restraints_report(s: Studied) -> list[dict[str, Any]]:
    """The ``restraints`` key: pulls in newtons against what holds in each direction; capacity_n is that of the weakest."""
    return [
        {
            "id": hold.id,
            "mass_kg": hold.mass_kg,
            "pull_n": {"along": hold.along_n, "across": hold.wanted_n["side"], "up": hold.wanted_n["up"]},
            "hold": msgspec.to_builtins(hold.hold) if hold.hold else None,
            "in": hold.in_thing,
            "capacity_n": hold.weakest.capacity_n if hold.weakest else None,
            "directions": {way.way: [way.capacity_n, way.wanted_n] for way in hold.directions} or None,
            "angles_assumed": hold.assumed,
            "fault": hold.fault or None,
        }
        for hold in restraints(s.build, s.table)
    ]
