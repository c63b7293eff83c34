"""Closed outlines in a DXF file: polylines, and lines, arcs and splines that meet end on end, the largest first, in metres."""

from __future__ import annotations

from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from shapely import line_merge, polygonize, set_precision
from shapely.geometry import LineString, MultiLineString
from shapely.ops import unary_union

from uncle_sled.core.errors import FileError
from uncle_sled.exchange.dxf_library import path_points, read_dxf

Floats = NDArray[np.float64]
TRUE_UNITS, MEET = 0.01, 0.001  # of a unit of the drawing: how far a chord stands off a curve; how near ends meet
MOST_BYTES, MOST_ENTITIES = 50_000_000, 20_000
UNIT_M = {0: 0.001, 1: 0.0254, 2: 0.3048, 4: 0.001, 5: 0.01, 6: 1.0, 14: 0.1}  # by $INSUNITS; nothing said: millimetres


def lines_in(path: Path) -> tuple[list[Floats], float]:
    """Every line of a drawing as points in its own units, and metres a unit. Raises: FileError: it cannot be read, or is too much."""
    try:
        if path.stat().st_size > MOST_BYTES:
            raise FileError(f"{path.name} is over 50 MB; a drawing of the outline alone would be right.")
    except OSError as fault:
        raise FileError(f"{path.name} cannot be read: {fault.strerror}.") from fault
    entities, units = read_dxf(path)
    if len(entities) > MOST_ENTITIES:
        raise FileError(f"{path.name} has {len(entities)} lines; a drawing of the outline alone would be right.")
    lines = [points for entity in entities if len(points := np.array(path_points(entity, TRUE_UNITS), dtype=float)) > 1]
    if not lines:
        raise FileError(f"{path.name} has no lines in it; polylines, lines, arcs or splines would be right.")
    return lines, UNIT_M.get(units, 0.001)


def outlines_in(path: Path) -> tuple[Floats, ...]:
    """The closed outlines of a drawing [m], shape (n, 2) each, the largest first. Raises: FileError: there is none, or as above."""
    lines, unit = lines_in(path)
    shapes = set_precision(MultiLineString([LineString(points) for points in lines]), MEET)
    merged = unary_union(line_merge(shapes))
    found = [part for part in polygonize([merged]).geoms if part.area > 0]
    if not found:
        raise FileError(f"No line in {path.name} closes; one closed line round the body would be right.")
    whole = unary_union(found)  # lines inside of the outline part it; what is round all of them is wanted
    parts = sorted(getattr(whole, "geoms", [whole]), key=lambda part: -part.area)
    return tuple([np.array(part.exterior.coords)[:-1] * unit for part in parts])
