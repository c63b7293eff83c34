"""Every mass of every case as CSV, for whoever wants to add it up again."""

from __future__ import annotations

import csv
import io

from uncle_sled.core.document.catalogue_line import as_text
from uncle_sled.core.reading.studied import Studied


def csv_text(s: Studied) -> str:
    """One line a mass and case, SI, with a line of totals and the reading after each case."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["case", "id", "name", "group", "mass_kg", "station_m", "right_of_middle_m", "height_m"])
    for row, case in enumerate(s.table.cases):
        for at, id in enumerate(s.table.ids):
            mass = s.table.mass_kg[row, at]
            if mass != 0:
                cells = [case.name, id, s.table.names[at], s.table.groups[at]]
                writer.writerow(
                    [as_text(cell) for cell in cells]
                    + [f"{v:.4f}" for v in (mass, s.table.x_m[row, at], s.table.y_m[row, at], s.table.z_m[row, at])]
                )
        total = s.readings.total_kg[row]
        cg = s.readings.cg_m[row]
        writer.writerow([as_text(case.name), "total", "Whole", "", f"{total:.4f}", *("" if v != v else f"{v:.4f}" for v in cg)])
        tongue = s.readings.tongue_kg[row]
        if tongue == tongue and case.mode.towing:
            writer.writerow([as_text(case.name), "tongue", "On the ball", "", f"{tongue:.4f}", "0.0000", "", ""])
    return out.getvalue()
