"""Instances whose least number of sheets is known: whole sheets cut up edge to edge at random by seed.

Three hardnesses: what share of every sheet is thrown away after the cutting (8 %, 4 %, nothing).
"""

from __future__ import annotations

import numpy as np

from uncle_sled.core.studies.cut.wanted import Stock, Wanted

SHEET_MM = (2440, 1220)
HARDNESS = (0.08, 0.04, 0.0)


def cut_up(seed: int, waste: float, sheets: int, per_sheet: int, kerf_mm: float = 3.2) -> tuple[list[Wanted], list[Stock]]:
    """Pieces that were cut from so many sheets, and the stock to cut them from again.

    With waste, every sheet's smallest pieces are thrown away and its last ones narrowed until that share is gone.
    """
    rng = np.random.default_rng(seed)
    kerf = round(kerf_mm * 10)
    out: list[Wanted] = []
    for sheet in range(sheets):
        parts = [(SHEET_MM[0] * 10, SHEET_MM[1] * 10)]
        while len(parts) < per_sheet:
            parts.sort(key=lambda one: -one[0] * one[1])
            k = int(rng.integers(0, min(3, len(parts))))
            w, h = parts.pop(k)
            long = w if rng.random() < w / (w + h) else 0
            whole = long or h
            if whole < 2400:
                parts.append((w, h))
                if max(max(one) for one in parts) < 2400:
                    break
                continue
            at = int(rng.integers(100, whole // 10 - 100)) * 10
            parts += [(at, h), (w - at - kerf, h)] if long else [(w, at), (w, h - at - kerf)]
        off = waste * SHEET_MM[0] * SHEET_MM[1] * 100
        parts.sort(key=lambda one: one[0] * one[1])
        while parts and off > 0 and parts[0][0] * parts[0][1] <= off:
            off -= parts[0][0] * parts[0][1]
            parts.pop(0)
        if off > 0:
            w, h = parts[-1]
            parts[-1] = (w - int(off / h), h) if off / h < w / 2 else (w, h)
        out += [Wanted(f"s{sheet}p{k}", "sheet", "ply", max(w, h) / 1e4, min(w, h) / 1e4, grain="any") for k, (w, h) in enumerate(parts)]
    return out, [Stock("full", "sheet", "ply", SHEET_MM[0] / 1e3, SHEET_MM[1] / 1e3, price=40.0)]
