"""The body's part of the report: its measures, every stick, every face, bends and holes."""

from __future__ import annotations

import math
from typing import Any

from msgspec import to_builtins

from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.parts.partitions import decks_of, walls_of
from uncle_sled.core.parts.relining import relined
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.within_faces import within_faces
from uncle_sled.core.studies.shell.bends import sheet_bends
from uncle_sled.core.studies.shell.bought_panels import panels
from uncle_sled.core.studies.shell.built_sections import sections_of
from uncle_sled.core.studies.shell.check import Check
from uncle_sled.core.studies.shell.holes import holes
from uncle_sled.core.studies.shell.screening import screening
from uncle_sled.core.studies.shell.seams import seams
from uncle_sled.core.studies.shell.shell_measures import bolts, measures
from uncle_sled.core.studies.shell.survey import planned_on_old, surveyed_of
from uncle_sled.core.studies.shell.welds import welds
from uncle_sled.core.studies.stow.carries import Carry
from uncle_sled.core.words import Words


def number(value: Any) -> float | None:
    """A float for JSON; unknown is null."""
    return None if value is None or not math.isfinite(float(value)) else float(value)


def check_record(one: Check | Carry) -> dict[str, Any]:
    """What every check says of itself, in SI: value and limit, the share used, which face it is, and how it came."""
    return {
        "id": one.id,
        "name": one.name,
        "value": number(one.value),
        "limit": number(one.limit),
        "unit": one.unit or None,
        "utilisation": number(one.use),
        "face": one.face,
        "how": one.how or None,
        "why": one.why or None,
    }


def shell_report(s: Studied) -> dict[str, Any] | None:
    """The ``shell`` key; null while there is no body."""
    m, shell = measures(s), s.build.shell
    if m is None:
        return None
    down = bolts(s)
    return {
        "form": shell.form,
        "school": shell.framing.school,
        "outline_area_m2": m.outline_area_m2,
        "inside_length_m": number(m.inside_length_m),
        "inside_height_m": number(m.inside_height_m),
        "inside_width_m": number(m.inside_width_m),
        "departure_deg": number(m.departure_deg),
        "members": [
            {
                "id": each_member.id,
                "kind": each_member.kind,
                "face": each_member.face,
                "section": list(each_member.section_m),
                "material": each_member.material,
                "length_m": each_member.length_m,
                "ends_deg": list(each_member.ends_deg),
                "mass_kg": each_member.mass_kg,
                "wall_m": each_member.wall_m or None,
                "strips": each_member.strips or None,
                "cuts": [
                    {"kind": "pie", "at_m": cut.at_m, "turn_deg": cut.turn_deg, "width_m": cut.width_m, "inside": cut.inside}
                    for cut in each_member.cuts
                ],
                "x_m": each_member.at_m[0],
                "y_m": each_member.at_m[1],
                "z_m": each_member.at_m[2],
                "by_hand": each_member.by_hand,
            }
            for each_member in sorted(s.framed.members, key=lambda member: member.at_m[0])
        ],
        "faces": _faces(s),
        "bends": [
            {
                "face": bend.face_id,
                "layer": bend.layer_id,
                "material": bend.material,
                "thickness_m": bend.thickness_m,
                "radius_m": number(bend.radius_m),
                "tightest_m": number(bend.tightest_m),
                "verdict": bend.verdict,
                "formed_m": number(bend.formed_m),
            }
            for bend in sheet_bends(s)
        ],
        "holes": [
            {
                "id": hole.opening.id,
                "kind": hole.opening.kind,
                "face": hole.opening.face,
                "seal": hole.opening.seal,
                "drip": hole.opening.drip,
                "seam_m": hole.seam_m,
                "on_roof": hole.on_roof,
                "many": hole.many,
            }
            for hole in holes(s)
        ],
        "survey": _survey(s),
        "relined": _relined(s),
        "partitions": _partitions(s),
        "lofts": loft_checks(s),
        "welds": to_builtins(welds(s)),
        "sections": _sections(s),
        "panels": _panels(s),
        "seams": [
            {
                "id": seam.id,
                "a": seam.joint.a,
                "b": seam.joint.b or None,
                "length_m": seam.joint.length_m,
                "turn_deg": seam.joint.turn_deg,
                "trim": seam.made.trim if seam.made else None,
                "tape": seam.made.tape if seam.made else None,
                "sealant": seam.made.sealant if seam.made else None,
                "water": seam.water,
                "air": seam.air,
            }
            for seam in seams(s)
        ],
        "seams_within": [
            {
                "id": seam.id,
                "face": seam.face,
                "what": seam.what,
                "length_m": seam.length_m,
                "bare_m": seam.bare_m,
                "screws": seam.many,
                "trim": seam.made.trim if seam.made else None,
                "tape": seam.made.tape if seam.made else None,
                "sealant": seam.made.sealant if seam.made else None,
                "water": seam.water,
                "air": seam.air,
            }
            for seam in within_faces(s.build, s.facts)
        ],
        "checks": [{**check_record(check), "where": list(check.where)} for check in screening(s)],
        "bolts": down and {"many": down.many, "stations_m": list(down.stations_m), "pitch_m": down.pitch_m},
    }


def _sections(s: Studied) -> list[dict[str, Any]]:
    return [
        {
            "id": section.id,
            "face": section.face,
            "order": section.order,
            "size_m": list(section.size_m),
            "mass_kg": number(section.mass_kg),
            "x_m": section.at_m[0],
            "y_m": section.at_m[1],
            "z_m": section.at_m[2],
            "picks_m": [list(pick) for pick in section.picks],
            "bolts": section.bolts,
        }
        for section in sections_of(s).sections
    ]


def _panels(s: Studied) -> list[dict[str, Any]]:
    """Cuts of bought panels; nothing for other schools."""
    if s.build.shell.framing.school != "sandwich panels":
        return []
    return [
        {
            "id": panel.id,
            "outside_m": list(panel.outside_m),
            "inside_m": list(panel.inside_m),
            "mass_kg": number(panel.mass_kg),
            "edges": [
                {"other": e.other, "length_m": e.length_m, "turn_deg": e.turn_deg, "tilt_deg": e.tilt_deg, "narrower_m": e.narrower_m}
                for e in panel.edges
            ],
            "fault": panel.fault or None,
        }
        for panel in panels(s)
    ]


def _survey(s: Studied) -> dict[str, Any] | None:
    """What was measured comes to; null where nothing was."""
    words = Words(s.build.brief.reading.shown())
    found = surveyed_of(s.build.shell, words)
    if found is None:
        return None
    return {
        "racked_m": found.racked_m,
        "twist_m": found.twist_m,
        "width_spread_m": found.width_spread_m,
        "toe_m": found.toe_m,
        "bow_radius_m": found.bow_radius_m,
        "bow_arc_m": found.bow_arc_m,
        "tyre_years": found.tyre_years,
        "planned_on_old": [planned.id for planned in planned_on_old(s.build, words)],
    }


def _relined(s: Studied) -> list[dict[str, Any]]:
    library = library_of(s.facts.materials)
    made = []
    for relining in s.build.shell.relined:
        found = relined(relining, s.build.shell, s.framed, library)
        if found is not None:
            made.append(
                {
                    "face": relining.face,
                    "out_kg": found.out_kg,
                    "in_kg": found.in_kg,
                    "room_lost_m": found.room_lost_m,
                    "r_upper_m2k_w": found.after.upper_m2k_w,
                    "r_lower_m2k_w": found.after.lower_m2k_w,
                    "money": found.money,
                    "hours": found.hours,
                }
            )
    return made


def _partitions(s: Studied) -> list[dict[str, Any]]:
    body = s.framed.body
    made = []
    for wall, partition in zip(
        walls_of(s.build.shell, body, library_of(s.facts.materials)) if body is not None else (),
        s.build.shell.partitions,
        strict=body is not None,
    ):
        made.append(
            {
                "id": wall.id,
                "way": wall.way,
                "door": partition.door,
                "area_m2": float(wall.outline.area),
                "mass_kg": wall.mass_kg,
                "kg_m2": wall.kg_m2,
                "x_m": wall.centre_m[0],
                "y_m": wall.centre_m[1],
                "z_m": wall.centre_m[2],
                "sticks": [{"kind": st.kind, "section": list(st.section_m), "length_m": st.length_m} for st in wall.sticks],
                "fault": wall.fault or None,
            }
        )
    return made


def loft_checks(s: Studied) -> list[dict[str, Any]]:
    body = s.framed.body
    decks = decks_of(s.build.shell, body) if body is not None else ()
    return [
        {"id": deck.id, "low_m": list(deck.low), "high_m": list(deck.high), "mass_kg": deck.mass_kg, "fault": deck.fault or None}
        for deck in decks
    ]


def _faces(s: Studied) -> list[dict[str, Any]]:
    library = library_of(s.facts.materials)
    weighs = {part.id: part.mass_kg for part in s.parts}
    made = []
    for face in s.build.shell.faces:
        sums = face_sums(face, s.build.shell, s.framed, library)
        build = sums.build
        made.append(
            {
                "id": face.id,
                "area_m2": sums.area_m2,
                "kg_m2": build.kg_m2 if build else None,
                "u_w_m2k": build.u_w_m2k if build else None,
                "r_m2k_w": build.r_m2k_w if build else None,
                "thickness_m": build.thickness_m if build else None,
                "sticks_share": number(sums.sticks),
                "mass_kg": weighs.get(face.id),
                "source": "layers" if build else "typed" if face.mass is not None else None,
            }
        )
    return made
