"""What is to be cut for a build, as the list that ``uncle-sled cut`` reads, and as the ``pieces`` key of the report."""

from __future__ import annotations

import csv
import io
from typing import Any

import msgspec

from uncle_sled.core.document.catalogue_line import as_text
from uncle_sled.core.errors import FileError
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.as_built import Miss, misses_of
from uncle_sled.core.studies.cut.lots import wanted_of
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.exchange.cut_lists import PIECE_COLUMNS

NOTHING_TO_CUT = "There is nothing to cut yet: choose a school of framing or layers of the faces on the Shell stop."


def pieces_csv(s: Studied) -> str:
    """Sticks and sheets, equal ones on one line. Raises: FileError: where nothing is drawn that could be cut."""
    wanted = wanted_of(take_off(s.build, s.facts))
    if not wanted:
        raise FileError(NOTHING_TO_CUT)
    out = io.StringIO()
    lines = csv.writer(out, lineterminator="\n")
    lines.writerow(PIECE_COLUMNS)
    for piece in wanted:
        outline = "; ".join(f"{x * 1e3:.2f} {y * 1e3:.2f}" for x, y in piece.outline)
        width = f"{piece.width_m * 1e3:.2f}" if piece.kind == "sheet" else ""
        grain = piece.grain if piece.kind == "sheet" else ""
        sizes = (f"{piece.length_m * 1e3:.2f}", width)
        lines.writerow([as_text(piece.id), piece.kind, as_text(piece.material), *sizes, piece.qty, grain, outline])
    return out.getvalue()


def pieces_report(s: Studied) -> list[dict[str, Any]]:
    """Every piece by itself. number: null before it was printed; standing: draft, as printed, changed; sawn: null before it was cut."""
    misses = {miss.named.piece.key: miss for miss in misses_of(s.build, s.facts)}
    return [
        {
            "number": named.number,
            "standing": named.standing,
            "name": piece.name,
            "of": piece.of,
            "kind": piece.kind,
            "material": piece.material,
            "length_m": round(piece.length_m, 6),
            "width_m": round(piece.width_m, 6),
            "qty": 1,
            "grain": piece.grain,
            "ends_deg": [round(deg, 1) for deg in piece.ends_deg],
            "rip_m": None if piece.rip_m is None else round(piece.rip_m, 6),
            "notches": [msgspec.to_builtins(notch) for notch in piece.notches],
            "corners_m": [[round(v, 6) for v in corner] for corner in piece.corners],
            "holes_m": [[[round(v, 6) for v in corner] for corner in ring] for ring in piece.holes],
            "pair": piece.pair,
            "key": piece.key,
            **_sawn(misses.get(piece.key)),
        }
        for named in numbers_of(s.build, s.facts).named
        for piece in (named.piece,)
    ]


def _sawn(miss: Miss | None) -> dict[str, Any]:
    """Whether it is cut, and by how much larger than what is needed now."""
    if miss is None or miss.state == "to cut":
        return {"sawn": None}
    return {"sawn": {"on": miss.sawn_on, "state": miss.state, "long_by_m": round(miss.long_m, 5), "wide_by_m": round(miss.wide_m, 5)}}
