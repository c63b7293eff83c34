"""A door or hatch of one's own, flat or round a curve: gaps, pieces, weight, what shuts it and what pulls at its hinges.

Gap at the lock side: what the edge sweeps, sqrt(w^2 + t^2) - w, the coats of leaf and jamb, and 2 mm; the other sides the
coats and 2 mm. Seal 40 N/m squeezed by a third. Source: stow notes, doors of one's own. Checks: 0.60 x 0.04 sweeps 1.33 mm,
0.50 1.60; 16 kg, 0.60 wide, hinges 0.70 apart: 67 N, with 100 N at its end 153 N.
"""

from __future__ import annotations

import math
from collections.abc import Mapping

import msgspec
import numpy as np
from shapely.geometry import Polygon

from uncle_sled.core.document.shell import Leaf, Opening
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.materials import TIMBER, Material
from uncle_sled.core.parts.bent_leaf import Bent, LeafPiece, bent_leaf, swing_gap_m
from uncle_sled.core.parts.leaf_side import LeafSide, leaf_side
from uncle_sled.core.units import GRAVITY

PLAY_M, SEAL_N_M, SQUEEZED = 0.002, 40.0, 0.33
WINDOW_KG_M2, FITTINGS_KG = 12.0, 0.8
LEANS_N = 100.0  # of somebody at its free end


class LeafBuilt(msgspec.Struct, frozen=True):
    """As built: size outside, thickness, gaps [m], pieces, mass, force of the seal to shut it, pull at the upper hinge [N].

    hinge_leaning_n: with somebody leaning on its end; None where nobody said how far its hinges are apart. fault: why not.
    bent: how it is made where it goes round a curve; its height is then that along the curve.
    """

    width_m: float
    height_m: float
    thick_m: float
    lock_gap_m: float
    gap_m: float
    pieces: tuple[LeafPiece, ...] = ()
    mass_kg: float = 0.0
    seal_n: float = 0.0
    hinge_n: float | None = None
    hinge_leaning_n: float | None = None
    fault: str = ""
    bent: Bent | None = None


def sweep_m(width_m: float, thick_m: float) -> float:
    """How far the edge of a leaf sticks out as it turns on its hinge. Check 0.60 x 0.04: 1.33 mm."""
    return math.hypot(width_m, thick_m) - width_m


def hinge_n(mass_kg: float, width_m: float, spacing_m: float, leaning_n: float = 0.0) -> float:
    """Pull at the upper hinge. Check 16 kg, 0.60, 0.70: 67 N; with 100 N at the end 153."""
    return (mass_kg * GRAVITY * width_m / 2 + leaning_n * width_m) / spacing_m


OPENS_DEG = 90.0


def leaf_in(framed: Framed, opening: Opening, library: Mapping[str, Material]) -> LeafBuilt | None:
    """The leaf of an opening as it is cut into the body; None where it has none of one's own."""
    return leaf_of(opening, library, leaf_side(framed, opening)) if opening.leaf is not None else None


def leaf_of(opening: Opening, library: Mapping[str, Material], side_of: LeafSide | None = None) -> LeafBuilt | None:
    """The leaf of an opening; None where it has none of one's own. Args: side_of: how it lies; flat where it is not given."""
    leaf = opening.leaf
    if leaf is None:
        return None
    if side_of is not None and side_of.bent:
        return _bent(opening, leaf, library, side_of)
    deep = leaf.stick.deep.si
    thick = deep + 2 * leaf.skin_thick.si
    side = 2 * leaf.coat.si + PLAY_M
    hung = opening.width.si if opening.hung not in ("top", "bottom") else opening.height.si
    lock = sweep_m(max(hung - side, 0.01), thick) + side
    across = (opening.width.si - side - lock, opening.height.si - 2 * side)
    if opening.hung in ("top", "bottom"):
        across = (opening.width.si - 2 * side, opening.height.si - side - lock)
    wide, high = across
    fault = _fault(leaf, wide, high, library)
    if fault:
        return LeafBuilt(wide, high, thick_m=thick, lock_gap_m=lock, gap_m=side, fault=fault)
    pieces = _pieces(leaf, wide, high)
    mass = _mass_kg(leaf, pieces, library)
    if leaf.window_width is not None and leaf.window_height is not None:
        area = leaf.window_width.si * leaf.window_height.si
        mass -= 2 * area * library[leaf.skin].weight_kg_m2(leaf.skin_thick.si)  # cut out of both skins
        mass += leaf.window_mass.si if leaf.window_mass is not None else WINDOW_KG_M2 * area
    spacing = leaf.hinge_spacing.si if leaf.hinge_spacing is not None else None
    turns = wide if opening.hung not in ("top", "bottom") else 0.0  # hung at the top its hinges share the weight
    pull = leaning = None
    if spacing and turns:
        pull, leaning = hinge_n(mass, turns, spacing), hinge_n(mass, turns, spacing, LEANS_N)
    return LeafBuilt(
        wide,
        high,
        thick_m=thick,
        lock_gap_m=lock,
        gap_m=side,
        pieces=pieces,
        mass_kg=mass,
        seal_n=SEAL_N_M * 2 * (wide + high),
        hinge_n=pull,
        hinge_leaning_n=leaning,
    )


def _bent(opening: Opening, leaf: Leaf, library: Mapping[str, Material], side_of: LeafSide) -> LeafBuilt:
    """A leaf over a curve: it is hung across the body, at its upper edge, and as high as the curve is long."""
    outline = np.array(side_of.outline)
    thick, side = leaf.stick.deep.si + 2 * leaf.skin_thick.si, 2 * leaf.coat.si + PLAY_M
    opens = float(opening.open_deg) if opening.open_deg is not None else OPENS_DEG
    lock = swing_gap_m(outline, thick, opens) + side
    wide = opening.width.si - 2 * side
    high = float(np.hypot(*np.diff(outline, axis=0).T).sum()) - side - lock
    fault = _fault(leaf, wide, high, library)
    if not fault and side_of.hinge_bends:
        fault = "its hinges would lie on the curve; hung at its top they lie straight across"
    bent = fault or bent_leaf(leaf, wide, outline, (side, lock))
    if isinstance(bent, str):
        return LeafBuilt(wide, high, thick_m=thick, lock_gap_m=lock, gap_m=side, fault=bent)
    return LeafBuilt(
        wide,
        high,
        thick_m=thick,
        lock_gap_m=lock,
        gap_m=side,
        pieces=bent.pieces,
        mass_kg=_mass_kg(leaf, bent.pieces, library),
        seal_n=SEAL_N_M * 2 * (wide + high),
        bent=bent,
    )


def _mass_kg(leaf: Leaf, pieces: tuple[LeafPiece, ...], library: Mapping[str, Material]) -> float:
    """With its fittings and what is fixed to it."""
    fixed = FITTINGS_KG + (leaf.hangs_on.si if leaf.hangs_on is not None else 0.0)
    return fixed + sum(piece.many * _area_m2(piece) * library[piece.material].weight_kg_m2(piece.thick_m) for piece in pieces)


def _area_m2(piece: LeafPiece) -> float:
    return float(Polygon(piece.outline).area) if piece.outline else piece.length_m * piece.width_m


def _fault(leaf: Leaf, wide: float, high: float, library: Mapping[str, Material]) -> str:
    seen, deep = leaf.stick.thick.si, leaf.stick.deep.si
    for id in (TIMBER, leaf.skin, leaf.foam, leaf.rib):
        if id and id not in library:
            return f"there is no material “{id}”"
    if min(seen, deep) <= 0 or leaf.skin_thick.si <= 0:
        return "a stick or skin of no size"
    if min(wide, high) <= 2 * seen + 0.02:
        return "its sticks leave nothing between them"
    if (leaf.window_width is None) != (leaf.window_height is None):
        return "its window wants both width and height"
    if leaf.window_width is not None and leaf.window_height is not None:
        if leaf.window_width.si > wide - 4 * seen or leaf.window_height.si > high - 4 * seen:
            return "its window leaves no room for the sticks around it"
        if min(leaf.window_width.si, leaf.window_height.si) <= 0:
            return "its window has no size"
    return ""


def _pieces(leaf: Leaf, wide: float, high: float) -> tuple[LeafPiece, ...]:
    """Stiles through, rails between them, a frame around the window, skins on both sides, foam in what is left."""
    seen, deep, skin = leaf.stick.thick.si, leaf.stick.deep.si, leaf.skin_thick.si
    made = [
        LeafPiece("stile", "bar", material=TIMBER, length_m=high, width_m=seen, thick_m=deep, many=2),
        LeafPiece("rail", "bar", material=TIMBER, length_m=wide - 2 * seen, width_m=seen, thick_m=deep, many=2),
    ]
    foam = (wide - 2 * seen) * (high - 2 * seen)
    if leaf.window_width is not None and leaf.window_height is not None:
        w, h = leaf.window_width.si, leaf.window_height.si
        made += [
            LeafPiece("window rail", "bar", material=TIMBER, length_m=wide - 2 * seen, width_m=seen, thick_m=deep, many=2),
            LeafPiece("window jamb", "bar", material=TIMBER, length_m=h, width_m=seen, thick_m=deep, many=2),
        ]
        foam -= 2 * seen * (wide - 2 * seen) + h * (w + 2 * seen)
    made.append(LeafPiece("skin", "sheet", material=leaf.skin, length_m=high, width_m=wide, thick_m=skin, many=2))
    if leaf.foam and foam > 0:
        made.append(
            LeafPiece("foam", "fill", material=leaf.foam, length_m=high - 2 * seen, width_m=foam / (high - 2 * seen), thick_m=deep, many=1)
        )
    return tuple(made)
