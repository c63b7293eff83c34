"""What is built inside, in the report: cabinets with their boards, hatches on struts, what carries people, reach by mode."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.drawing.primitives import Point
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.cabinet import polygons
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.carries import carries
from uncle_sled.core.studies.stow.hinged import hinged
from uncle_sled.core.studies.stow.reach import accesses, cook, litres_by_reach
from uncle_sled.exchange.shell_report import check_record, number


def built_report(s: Studied) -> dict[str, Any]:
    """The keys ``cabinets``, ``hatches``, ``strength`` and ``reach``."""
    return {"cabinets": _cabinets(s), "hatches": _hatches(s), "strength": _strength(s), "reach": _reach(s)}


def _cabinets(s: Studied) -> list[dict[str, Any]]:
    def ring(points: Any) -> list[Point]:
        return [(float(x), float(y)) for x, y in list(points)[:-1]]

    return [
        {
            "id": id,
            "mass_kg": number(fitted.mass_kg if fitted.good else None),
            "centre_m": list(fitted.centre) if fitted.good else None,
            "faults": list(fitted.faults),
            "cut_by": dict(fitted.by),
            "pieces": [
                {
                    "id": board.id,
                    "name": board.kind,
                    "material": board.material,
                    "thickness_m": board.thick,
                    "area_m2": float(shape.area),
                    "outline_m": ring(shape.exterior.coords),
                    "holes_m": [ring(hole.coords) for hole in shape.interiors],
                    "moves": board.moves,
                }
                for board in fitted.boards
                for shape in polygons(board.shape)
            ],
        }
        for id, fitted in cabinets_of(s.build, s.facts).items()
    ]


def _hatches(s: Studied) -> list[dict[str, Any]]:
    made = []
    for leaf in hinged(s):
        strut = leaf.strut
        made.append(
            {
                "id": leaf.id,
                "mass_kg": number(leaf.turning.mass_kg if leaf.turning else None),
                "centre_m": number(leaf.turning.r_m if leaf.turning else None),
                "opens_deg": number(leaf.turning.opens_deg if leaf.turning else None),
                "angles": [float(b) for b in leaf.swings[0].beta_deg] if leaf.swings else [],
                "hand_force_n": {f"{got.t_c:g}": [float(v) for v in got.raise_n] for got in leaf.swings},
                "strut": {
                    "shut_m": strut.shut.si,
                    "open_m": strut.open.si,
                    "force_n": strut.force_n,
                    "many": strut.many,
                    "body_m": [strut.body_x.si, strut.body_z.si],
                    "lid_m": [strut.lid_x.si, strut.lid_z.si],
                }
                if strut is not None
                else None,
                "holds": None if leaf.verdict is None else "hold" not in leaf.verdict.fails and leaf.verdict.fits,
                "hold_share": number(leaf.verdict.hold_share if leaf.verdict else None),
                "why": leaf.why or None,
            }
        )
    return made


def _strength(s: Studied) -> list[dict[str, Any]]:
    return [{**check_record(carry), "thing": carry.thing} for carry in carries(s)]


def _reach(s: Studied) -> list[dict[str, Any]]:
    made = []
    for mode in s.build.stow.modes:
        stands = cook(s.build, s.facts, mode)
        made.append(
            {
                "mode": mode.id,
                "things": [
                    {
                        "id": access.id,
                        "how": access.how,
                        "through": access.through or None,
                        "far_m": number(access.far_m),
                        "first": list(access.first),
                    }
                    for access in accesses(s.build, s.facts, mode)
                ],
                "cook_m": list(stands.stands) if stands.stands else None,
                "cook_reaches": {cook.id: cook.far_m for cook in stands.things},
                "litres": {how: number(litres) for how, litres in litres_by_reach(s.build, s.facts, mode).items()},
            }
        )
    return made
