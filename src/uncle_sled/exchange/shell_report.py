"""The body's part of the report: its measures, every stick, every face, bends and holes."""

from __future__ import annotations

import math
from typing import Any

from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.bends import sheet_bends
from uncle_sled.core.studies.shell.holes import holes
from uncle_sled.core.studies.shell.shell_measures import bolts, measures


def number(value: Any) -> float | None:
    """A float for JSON; unknown is null."""
    return None if value is None or not math.isfinite(float(value)) else float(value)


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
                "id": one.id,
                "kind": one.kind,
                "face": one.face,
                "section": list(one.section_m),
                "material": one.material,
                "length_m": one.length_m,
                "ends_deg": list(one.ends_deg),
                "mass_kg": one.mass_kg,
                "x_m": one.at_m[0],
                "y_m": one.at_m[1],
                "z_m": one.at_m[2],
                "by_hand": one.by_hand,
            }
            for one in sorted(s.framed.members, key=lambda one: one.at_m[0])
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
        "bolts": down and {"many": down.many, "stations_m": list(down.stations_m), "pitch_m": down.pitch_m},
    }


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
                "mass_kg": weighs.get(face.id, 0.0),
            }
        )
    return made
