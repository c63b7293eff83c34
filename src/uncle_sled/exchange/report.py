"""The report as JSON: the contract other programs read. Its schema is docs/report.schema.json."""

from __future__ import annotations

from typing import Any

import msgspec
import numpy as np

from uncle_sled.core.document.project import Project
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.sources import why_of
from uncle_sled.core.parts.support import Support
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.limits import Held, front_axle_of, rear_axle_of, riding_in_car, use
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.remedies.move_sets import move_sets
from uncle_sled.core.studies.balance.axle_placing import axle_placing
from uncle_sled.core.studies.balance.road_size import every_limit
from uncle_sled.core.studies.balance.sureness import chances, load_sigma_kg, owners
from uncle_sled.core.words import Words
from uncle_sled.exchange.built_report import built_report
from uncle_sled.exchange.pieces_list import pieces_report
from uncle_sled.exchange.road_report import road_report
from uncle_sled.exchange.shell_report import number, shell_report
from uncle_sled.exchange.shop_report import shop_report
from uncle_sled.exchange.stow_report import modes_report, restraints_report, sweep_report, tanks_report
from uncle_sled.exchange.systems_report import (
    air_report,
    gas_report,
    moisture_report,
    power_report,
    warmth_report,
    water_report,
    wiring_report,
)
from uncle_sled.exchange.towing_report import towing_report
from uncle_sled.exchange.variants_report import variants_report
from uncle_sled.exchange.work_report import work_report

SCHEMA_VERSION = 1


def report(s: Studied, found: tuple[Finding, ...], project: Project, case_rows: list[int] | None = None) -> dict[str, Any]:
    """The whole report of the open build; ``case_rows`` filters the cases only. Numbers are SI, shares 0 to 1."""
    rig = s.build.rig
    rows = list(range(len(s.table.cases))) if case_rows is None else case_rows
    placing = axle_placing(s) if rig.carrier == "ball" else None
    made = {
        "schema_version": SCHEMA_VERSION,
        "build": {"name": project.name, "variant": s.build.name, "carrier": rig.carrier, "region": s.build.brief.region},
        "rig": {
            "axles": _axles(s),
            "suspension": rig.suspension,
            "effective_axle_m": _effective(s.support),
            "track_m": number(s.support.track_m if s.support else None),
            "ball_height_m": number(rig.ball_height.si if rig.ball_height else None),
        },
        "parts": [
            {
                "id": p.id,
                "name": p.name,
                "group": p.group,
                "source": p.source,
                "made_by": p.made_by,
                "mass_kg": p.mass_kg,
                "x_m": p.x_m,
                "y_m": p.y_m,
                "z_m": p.z_m,
                "sigma_kg": p.sigma_kg,
                "bias_group": p.bias_group,
            }
            for p in s.parts
        ],
        "shell": shell_report(s),
        "cases": [_case(s, row) for row in rows],
        "modes": modes_report(s),
        "tanks": tanks_report(s, rows[0] if rows else 0),
        "sweep": sweep_report(s, _on_road(s, rows)),
        "restraints": restraints_report(s),
        **built_report(s),
        **towing_report(s),
        "findings": [_finding(finding) for finding in found],
        "axle_placing": placing
        and {
            "window_m": list(placing.window_m) if placing.window_m else None,
            "best_m": placing.best_m,
            "worst_violation_kg": placing.worst_violation_kg,
            "fighting_cases": list(placing.fighting_cases) if placing.fighting_cases else None,
        },
        "moves": moves_report(s),
        "power": power_report(s),
        "wiring": wiring_report(s),
        "water": water_report(s),
        "gas": gas_report(s),
        "warmth": warmth_report(s),
        "moisture": moisture_report(s),
        "air": air_report(s),
        "pieces": pieces_report(s),
        **shop_report(s),
        **work_report(s),
        **road_report(s),
        "variants": variants_report(project),
        "sureness": sureness_report(s),
        "limits": [*_limits(every_limit(s)), *_unchecked(every_limit(s))],
    }
    told: dict[str, Any] = _told(made, Words(s.build.brief.reading.shown()))
    return told


def _told(part: Any, words: Words) -> Any:
    """The report with every marked figure of its sentences in the build's units."""
    if isinstance(part, str):
        return words.told(part)
    if isinstance(part, dict):
        return {key: _told(one, words) for key, one in part.items()}
    return [_told(one, words) for one in part] if isinstance(part, list | tuple) else part


def _limits(held: Held) -> list[dict[str, Any]]:
    return [
        {
            "id": lim.id,
            "case_id": lim.case_id,
            "vehicle_id": lim.vehicle_id,
            "value": lim.value,
            "limit": lim.limit,
            "unit": lim.unit,
            "utilisation": use(lim),
            "severity": lim.severity,
            "face": lim.face,
            "why": None,
        }
        for lim in held.limits
    ]


def _unchecked(held: Held) -> list[dict[str, Any]]:
    """Limits that nothing could be held against, with null for what is not known."""
    return [
        {
            "id": unchecked.id,
            "case_id": None,
            "vehicle_id": unchecked.vehicle_id,
            "value": None,
            "limit": None,
            "unit": "kg",
            "utilisation": None,
            "severity": None,
            "face": "not checked",
            "why": unchecked.why,
        }
        for unchecked in held.unchecked
    ]


def _on_road(s: Studied, rows: list[int]) -> int:
    """The first towing case among the rows, or of all."""
    return next((row for row in (*rows, *s.towing_rows) if s.table.cases[row].mode.towing), 0)


def moves_report(s: Studied) -> list[dict[str, Any]]:
    """The ``moves`` key: what move_sets offers, the easiest first."""
    return [
        {
            "kind": move.kind,
            "items": [{"id": i.id, "from_m": i.from_m, "to_m": i.to_m, "from_y_m": i.from_y_m, "to_y_m": i.to_y_m} for i in move.items],
            "cost": move.cost,
            "feasible": move.feasible,
            "after": [{"case_id": case, "tongue_kg": number(kg)} for case, kg in move.after],
        }
        for move in move_sets(s).moves
    ]


def sureness_report(s: Studied) -> list[dict[str, Any]]:
    """The ``sureness`` key: doubt and chance of every towing case, and what to weigh first. A bed has no ball: its rear axle."""
    if s.support is None:
        return []
    ball, sigmas, chance = s.support.carrier == "ball", load_sigma_kg(s), chances(s)
    return [
        {
            "case_id": s.table.cases[row].id,
            "tongue_sigma_kg": number(sigmas[row]) if ball else None,
            "chance_in_band": number(chance[row]) if ball else None,
            "rear_axle_sigma_kg": None if ball else number(sigmas[row]),
            "chance_in_limits": None if ball else number(chance[row]),
            "weigh_first": [
                {"id": owner.id, "share": owner.share, "sigma_weighed_kg": owner.left_weighed_kg, "sigma_kg": owner.left_kg}
                for owner in owners(s, row, 6)
            ],
        }
        for row in s.towing_rows
    ]


def _axles(s: Studied) -> list[dict[str, Any]]:
    rig = s.build.rig
    if rig.carrier == "vehicle bed":
        bed = rig.bed
        both = [(0.0, bed.front_rating)] + ([(bed.wheelbase.si, bed.rear_rating)] if bed.wheelbase else [])
        altered = rig.frame_altered
        return [{"station_m": at, "rating_kg": rating.si if rating else None, "altered": altered} for at, rating in both]
    return [
        {"station_m": a.station.si, "rating_kg": a.rating.si if a.rating else None, "altered": a.altered}
        for a in sorted(rig.axles, key=lambda a: a.station.si)
    ]


def _effective(support: Support | None) -> float | None:
    """The station the axle group acts at; null for independent axles, where it moves with the load, and for a bed."""
    return None if support is None or support.carrier != "ball" or support.independent else support.mean_axle_m


def _case(s: Studied, row: int) -> dict[str, Any]:
    b, t, case = s.readings, s.table, s.table.cases[row]
    return {
        "id": case.id,
        "name": case.name,
        "mode": case.case.mode,
        "towing": case.mode.towing,
        "total_kg": number(b.total_kg[row]),
        "tongue_kg": number(b.tongue_kg[row]),
        "tongue_share": number(b.share[row]),
        "axle_kg": [number(kg) for kg in b.axle_kg[row]],
        "vehicle_axles_kg": _car_axles(s, row),
        "left_kg": number(b.left_kg[row]),
        "right_kg": number(b.right_kg[row]),
        "cg_m": None if np.isnan(b.cg_m[row]).any() else [float(v) for v in b.cg_m[row]],
        "tongue_sigma_kg": number(b.tongue_sigma_kg[row]),
        "chance_in_band": number(b.chance[row]),
        "band_kg": None if np.isnan(b.band_kg[row]).any() else [number(kg) for kg in b.band_kg[row]],
        "same_as": list(case.same_as),
        "masses": [
            {
                "id": t.ids[at],
                "mass_kg": float(t.mass_kg[row, at]),
                "x_m": float(t.x_m[row, at]),
                "y_m": float(t.y_m[row, at]),
                "z_m": float(t.z_m[row, at]),
            }
            for at in np.flatnonzero(t.mass_kg[row])
        ],
    }


def _car_axles(s: Studied, row: int) -> dict[str, list[float | None] | None]:
    """Front and rear axle of every car that tows it, with what rides in it; null for a car that does not tell them."""
    riding, tongue = riding_in_car(s.build), s.readings.tongue_kg[row : row + 1]
    made: dict[str, list[float | None] | None] = {}
    if s.build.rig.carrier != "ball" or not s.table.cases[row].mode.towing:
        return made
    for car in vehicles_of(s.build.brief, s.facts):
        axles = front_axle_of(car, tongue, riding), rear_axle_of(car, tongue, riding)
        told = [None if point is None else number(point[0]) for point in axles]
        made[car.id] = None if told == [None, None] else told
    return made


def _finding(finding: Finding) -> dict[str, Any]:
    remedy = finding.remedy and {
        "says": finding.remedy.says,
        "ops": msgspec.to_builtins(list(finding.remedy.ops)),
        "after": [{"case_id": case, "tongue_kg": number(kg)} for case, kg in finding.remedy.after],
    }
    return {
        "id": finding.id,
        "code": finding.code,
        "severity": finding.severity,
        "says": f"{finding.title}. {finding.says}",
        "why": why_of(finding),
        "where": list(finding.where),
        "case_id": finding.case_id,
        "remedy": remedy,
        "why_none": finding.why_none,
        "set_aside": finding.set_aside and {"reason": finding.set_aside.reason, "date": finding.set_aside.date},
    }
