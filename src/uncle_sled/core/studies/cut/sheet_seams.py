"""Where the sheets of a skin meet: the edges that two pieces of one layer share, on the face laid flat.

Source: plane geometry of the pieces as they are taken off. Pieces that lap (scarfed ones) share no edge.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Literal

import numpy as np
import shapely
from shapely import STRtree, line_merge
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.framing.member import Member
from uncle_sled.core.parts.face_build import Library
from uncle_sled.core.studies.cut.piece import Piece

What = Literal["sheets", "laps", "screws", "flange"]
COVERS = ("cloth", "membrane", "covering", "laminate")  # families that run over seams and heads of screws
Run = tuple[tuple[float, float], ...]
LEAST_M, LEAST_BARE_M = 0.005, 0.03
ON_M = 0.001  # so near to a stick's edge a seam is still on it


def sheets_of(pieces: Iterable[Piece], surface: str, layer: str) -> list[Polygon]:
    """The sheets of one layer of a surface where they lie [m]."""
    begins = f"{surface}/{layer}/"
    return [Polygon(piece.place) for piece in pieces if piece.kind == "sheet" and piece.key.startswith(begins) and len(piece.place) > 2]


def runs_between(sheets: Sequence[Polygon]) -> tuple[Run, ...]:
    """The edges that two of them share, as runs of points [m]."""
    if len(sheets) < 2:
        return ()
    tree = STRtree(sheets)
    lines: list[LineString] = []
    for k, sheet in enumerate(sheets):
        for other in sorted(tree.query(sheet)):
            if other > k:
                shared = sheet.exterior.intersection(sheets[other].exterior)
                lines += [line for line in getattr(shared, "geoms", [shared]) if isinstance(line, LineString)]
    if not lines:
        return ()
    merged = line_merge(unary_union(lines))
    return tuple(
        [
            tuple((float(x), float(y)) for x, y in line.coords)
            for line in getattr(merged, "geoms", [merged])
            if isinstance(line, LineString) and line.length > LEAST_M
        ]
    )


def long_m(runs: Iterable[Run]) -> float:
    """How long they are together [m]."""
    return float(sum(LineString(run).length for run in runs))


def without_stick(runs: Sequence[Run], sticks: Sequence[Member]) -> tuple[Run, ...]:
    """The parts of seams that no stick lies behind."""
    if not runs:
        return ()
    shapes = np.array([stick.shape for stick in sticks], dtype=object)
    tree, behind = STRtree(shapes), shapely.buffer(shapes, ON_M)
    bare: list[Run] = []
    for run in runs:
        left: BaseGeometry = LineString(run)
        for near in sorted(tree.query(left, "dwithin", ON_M)):  # a line less one after the other: no union of them all is needed
            left = left.difference(behind[near])
        bare += [
            tuple((float(x), float(y)) for x, y in part.coords)
            for part in getattr(left, "geoms", [left])
            if isinstance(part, LineString) and part.length > LEAST_BARE_M
        ]
    return tuple(bare)


def line_of(face: Face, library: Library) -> tuple[Layer | None, str]:
    """The layer that the line runs in, and the name of what covers its seams; None where no layer sheds water."""
    layers = list(face.layers)
    sticks = next((k for k, layer in enumerate(layers) if layer.framing > 0), len(layers))
    gaps = [k for k, layer in enumerate(layers[:sticks]) if layer.material in library and library[layer.material].air == "vented"]
    cover = ""
    for layer in layers[gaps[-1] + 1 if gaps else 0 : sticks]:
        material = library.get(layer.material)
        if material is None or material.air:
            continue
        if material.family in COVERS:
            if material.form == "roll" and material.family != "laminate":
                return layer, cover
            cover = cover or material.name
        elif material.form == "sheet":
            return layer, cover
    return None, cover


def seam_id(of: str, what: What) -> str:
    """How a build names them: of its face, or of its opening."""
    return f"{of}|{'within' if what in ('sheets', 'laps') else what}"
