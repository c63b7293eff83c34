"""Instances for free layouts: whole sheets cut up by slanted and curved cuts at random by seed, some thrown away."""

from __future__ import annotations

import numpy as np
from shapely import box, get_coordinates
from shapely.geometry import LineString, Polygon
from shapely.ops import split

from benchmarks.cut_up import SHEET_MM
from uncle_sled.core.studies.cut.wanted import Stock, Wanted


def cut_up_free(seed: int, waste: float, sheets: int, per_sheet: int, kerf_mm: float = 3.2) -> tuple[list[Wanted], list[Stock]]:
    """Pieces with outlines from so many sheets, the smallest of each thrown away up to that share of waste."""
    rng = np.random.default_rng(seed)
    wide, high = (one / 1e3 for one in SHEET_MM)
    out: list[Wanted] = []
    for sheet in range(sheets):
        parts = [box(0, 0, wide, high)]
        while len(parts) < per_sheet:
            parts.sort(key=lambda one: -one.area)
            part = parts.pop(0)
            x0, y0, x1, y1 = part.bounds
            upright = (x1 - x0) > (y1 - y0)
            at, lean, bow = rng.uniform(0.35, 0.65), rng.uniform(-0.12, 0.12), rng.uniform(-0.05, 0.05)
            t = np.linspace(-0.1, 1.1, 9)
            off = at + lean * (t - 0.5) + (bow * np.sin(np.pi * t) if rng.random() < 0.5 else 0 * t)
            if upright:
                line = np.stack([x0 + off * (x1 - x0), y0 + t * (y1 - y0)], axis=1)
            else:
                line = np.stack([x0 + t * (x1 - x0), y0 + off * (y1 - y0)], axis=1)
            made = [one for one in split(part, LineString(line)).geoms if isinstance(one, Polygon)]
            parts += made if len(made) > 1 else [part]
        parts.sort(key=lambda one: one.area)
        gone = 0.0
        while parts and gone + parts[0].area <= waste * wide * high:
            gone += parts.pop(0).area
        for k, part in enumerate(parts):
            shape = part.buffer(-kerf_mm / 2e3, join_style="mitre").simplify(1e-5)
            ring = get_coordinates(shape.exterior)[:-1]
            ring = np.round(ring - ring.min(axis=0), 6)
            corners = tuple((float(x), float(y)) for x, y in ring)
            out.append(Wanted(f"s{sheet}p{k}", "sheet", "ply", float(ring[:, 0].max()), float(ring[:, 1].max()), 1, "any", corners))
    return out, [Stock("ply", "sheet", "ply", wide, high, price=1.0)]
