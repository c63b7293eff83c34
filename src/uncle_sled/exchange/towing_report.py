"""How it tows and what the frame feels, in the report: the keys ``braking``, ``sway`` and ``frame``."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.frame_beam import frame_under
from uncle_sled.core.studies.balance.road_checks import BRAKING_G, statics_of
from uncle_sled.core.studies.balance.sway import damping, sway
from uncle_sled.exchange.shell_report import number

ASKED_KMH = (80, 100, 120)


def towing_report(s: Studied) -> dict[str, Any]:
    made, under = sway(s), frame_under(s)
    worst = under.worst
    return {
        "braking": [
            {
                "case_id": s.table.cases[row].id,
                "decel_g": BRAKING_G,
                "brakes_n": one.brakes_n(BRAKING_G),
                "pushes_n": one.pushes_n(BRAKING_G),
                "tongue_kg": one.stopping_kg(BRAKING_G, braked=True),
            }
            for row in s.towing_rows
            if (one := statics_of(s, row)) is not None
        ],
        "sway": [
            {
                "case_id": swaying.case_id,
                "damping": {str(kmh): number(damping(swaying.train, kmh)) for kmh in ASKED_KMH},
                "critical_kmh": number(swaying.critical_kmh),
                "oversteer_kmh": number(swaying.oversteer_kmh),
            }
            for swaying in made.cases
        ],
        "sway_why": made.why or None,
        "frame": None
        if worst is None
        else {
            "max_moment_nm": worst.moment_most_nm,
            "max_stress_pa": worst.worst_pa,
            "utilisation": number(under.utilisation),
            "deflection_m": worst.sinks_most_m,
            "where_m": worst.worst_m,
            "case_id": worst.case_id,
            "how": worst.how,
        },
        "frame_why": under.why or None,
    }
