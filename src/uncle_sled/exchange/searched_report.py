"""The key ``searched`` of the report: what takes a search of its own, told only where it is asked for."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.document.project import Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.remedies.arranging.arrange import Arrangement, arrangements
from uncle_sled.core.remedies.deciding.points import TRADES, Known, front, known_builds
from uncle_sled.core.studies.balance.tolerances import Tolerances, tolerances
from uncle_sled.core.studies.cut.stairs import STAIRS, Stair, boards_stairs
from uncle_sled.exchange.shell_report import number


def searched_report(s: Studied, project: Project) -> dict[str, Any]:
    """Other arrangements, or the wishes that fight; sheets over the sizes of the body and of what is made of boards."""
    found = arrangements(s)
    fight = found.fight
    return {
        "arrangements": {
            "found": [_arrangement(one) for one in found.found],
            "stays": [{"id": one.id, "why": one.why} for one in found.stays],
            "fight": fight and {"wishes": list(fight.ids), "why": fight.why, "proven": fight.proven, "smallest": fight.smallest},
            "why": found.why,
            "judged": found.tried,
            "places": found.places,
        },
        "trades": _trades(known_builds(project)),
        "tolerances": _tolerances(tolerances(s)),
        "stairs": [_stair(stair) for stair in (*(study(s) for study in STAIRS.values()), *boards_stairs(s)) if stair is not None],
    }


def _arrangement(one: Arrangement) -> dict[str, Any]:
    return {
        "pieces": [
            {
                "id": put.id,
                "x_m": put.now[0],
                "y_m": put.now[1],
                "z_m": put.now[2],
                "turn": put.now[3],
                "part": put.part,
                "moved": put.moved,
            }
            for put in one.puts
        ],
        "differs_by": list(one.keys),
        "run_m": one.run_m,
        "run_drawn_m": one.run_before_m,
        "cost_m": one.cost_m,
        "bound_m": number(one.bound_m),
        "settled": one.settled,
        "least_chance": number(one.least_chance),
        "most_lean": number(one.most_lean),
        "after": [{"case_id": case, "tongue_kg": number(kg)} for case, kg in one.after],
    }


def _stair(stair: Stair) -> dict[str, Any]:
    return {
        "path": stair.path,
        "now_m": stair.now_m,
        "steps": [
            {
                "size_m": one.size_m,
                "sheets": one.sheets,
                "sheets_least": one.least,
                "bars": one.bars,
                "money": one.money,
                "prices_unknown": one.unknown,
                "unplaced": one.unplaced,
            }
            for one in stair.steps
        ],
        "failed_m": list(stair.failed),
    }


def _tolerances(found: Tolerances) -> dict[str, Any]:
    return {
        "measures": [{"id": one.id, "name": one.name, "value_m": one.value_m, "tolerance_m": one.tolerance_m} for one in found.dimensions],
        "chance": found.chance,
        "cost": found.cost,
        "cost_bound": found.bound,
        "reached": found.reached,
        "narrow": list(found.narrow),
        "out_as_drawn": [outcome.says for outcome in found.outcomes if outcome.short],
    }


def _trades(known: Known) -> dict[str, Any]:
    return {
        "builds": [
            {
                "id": p.id,
                "says": p.says,
                "variant": p.variant or None,
                "values": {k: number(v) for k, v in p.values.items()},
                "stops": p.stops,
                "minds": p.minds,
            }
            for p in known.points
        ],
        "fronts": [{"of": list(trade), "builds": [p.id for p in front(known.points, *trade)]} for trade in TRADES],
        "failed": list(known.failed),
    }
