"""A hatch over a curve, made by oneself: its rib with the cross-bars, skins and hinge from the side, and a cut through its hinge line.

Metres, the hinge at 0, 0, x the way that it opens.
"""

from __future__ import annotations

from uncle_sled.core.document.shell import Leaf, Opening, Shell
from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, dimension, line, placed, rect
from uncle_sled.core.framing.frame_body import face_of
from uncle_sled.core.parts.bent_leaf import Bent
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import LeafBuilt, leaf_in
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words

ROOF_M, LEAF_M = 0.09, 0.10  # of the cut through the hinge line
STRIP_M, STRIP_THICK_M, GUTTER_M = 0.032, 0.0025, 0.018
USUAL_ROOF_M = 0.03


def bent_leaf_drawn(s: Studied, opening: Opening, words: Words) -> tuple[tuple[Primitive, ...], float, float]:
    """The leaf from its side, and its size [m]; nothing where it does not go round a curve."""
    made = leaf_in(s.framed, opening, library_of(s.facts.materials))
    if made is None or made.bent is None or opening.leaf is None:
        return (), 0.0, 0.0
    bent, leaf = made.bent, opening.leaf
    outer, under, over, inner = bent.lines
    shapes: list[Primitive] = [
        Poly((*under, *reversed(over)), "ink", "wood", 1.2, hatch="wood", tint=0.3),
        Poly((*outer, *reversed(under)), "ink", "wood", 1.0, tint=0.55),
        Poly((*over, *reversed(inner)), "ink", "wood", 1.0, tint=0.55),
        *_bars(bent, leaf),
        Circle((0.0, 0.0), 0.012, "chalk", "paper", 1.6),
    ]
    low, high = min(z for _, z in inner), max(z for _, z in outer)
    left, right = min(x for x, _ in (*inner, *outer)), max(x for x, _ in outer)
    shapes += dimension((left, low - 0.06), (right, low - 0.06), words.cut(right - left), 0.012)
    shapes.append(Text((left + 0.02, high + 0.05), "hinge", 10, "chalk", anchor="left"))
    x, z, dx, dz = bent.bars_at[len(bent.bars_at) // 2]
    at = (x - dz * 0.07, z + dx * 0.07)
    shapes.append(Text(at, f"{words.cut(made.height_m)} along it", 10, "pencil", anchor="left"))
    return placed(shapes, 1.0, -left, 0.12 - low), right - left + 0.12, high - low + 0.24


def _bars(bent: Bent, leaf: Leaf) -> list[Primitive]:
    """Cross-bars, seen on their ends."""
    wide, deep = leaf.stick.thick.si / 2, leaf.stick.deep.si / 2
    made: list[Primitive] = []
    for x, z, dx, dz in bent.bars_at:
        corners = tuple(
            (x + a * dx * wide - b * dz * deep, z + a * dz * wide + b * dx * deep) for a, b in ((-1, -1), (1, -1), (1, 1), (-1, 1))
        )
        made.append(Poly(corners, "ink", "paper", 1.2))
        made += [line(corners[0], corners[2], "ink", 0.8), line(corners[1], corners[3], "ink", 0.8)]
    return made


def hinge_line(shell: Shell, leaf: Leaf, made: LeafBuilt, words: Words) -> tuple[tuple[Primitive, ...], float, float]:
    """A cut through the hinge line at full size: roof, gap, gutter under it, hinge strip over it, leaf; and its size [m]."""
    face, skin = face_of(shell, "roof"), leaf.skin_thick.si
    layers = face.layers if face is not None else ()
    roof = sum(layer.thickness.si for layer in layers) or USUAL_ROOF_M
    thick, gap = made.thick_m, made.gap_m
    top = max(roof, thick) + GUTTER_M + 0.004
    shapes: list[Primitive] = []
    y = top
    for layer in layers:
        y -= layer.thickness.si
        hatch = "wood" if layer.framing > 0 else ""
        shapes.append(rect(0.0, y, ROOF_M, layer.thickness.si, stroke="ink", fill="wood", width=1.0, hatch=hatch, tint=0.3))
    if not layers:
        shapes.append(rect(0.0, top - roof, ROOF_M, roof, stroke="ink", fill="wood", width=1.0, tint=0.3))
    x = ROOF_M + gap
    shapes += [
        rect(x, top - skin, LEAF_M, skin, stroke="ink", fill="wood", width=1.0, tint=0.55),
        rect(x, top - thick + skin, LEAF_M, thick - 2 * skin, stroke="ink", fill="wood", width=1.0, hatch="wood", tint=0.3),
        rect(x, top - thick, LEAF_M, skin, stroke="ink", fill="wood", width=1.0, tint=0.55),
        rect(ROOF_M - STRIP_M, top, STRIP_M, STRIP_THICK_M, stroke="ink", fill="tyre", width=1.0),
        rect(x, top, STRIP_M, STRIP_THICK_M, stroke="ink", fill="tyre", width=1.0),
        Circle((ROOF_M + gap / 2, top + STRIP_THICK_M), max(gap, 0.004), "ink", "paper", 1.2),
    ]
    # the gutter that takes what comes through, screwed under the roof's last spar and open at both sides
    under = top - roof
    g = GUTTER_M
    trough = (
        (ROOF_M - 0.03, under),
        (ROOF_M - 0.006, under),
        (ROOF_M - 0.006, under - g),
        (ROOF_M + gap + g, under - g),
        (ROOF_M + gap + g, under - 0.006),
    )
    shapes.append(Poly(trough, "chalk", "", 2.0, closed=False))
    high = top + 0.014
    shapes += dimension((ROOF_M, high), (x, high), "", 0.002)
    shapes.append(Text((ROOF_M - 0.004, high), f"gap {words.thick(gap)} under the strip", 10, "chalk", "strong", anchor="right"))
    shapes.append(Text((ROOF_M + gap + g + 0.004, under - g + 0.002), "gutter, out at both sides", 10, "chalk", anchor="left"))
    shapes.append(Text((0.002, under - 0.008), "roof", 10, "pencil", anchor="left"))
    shapes.append(Text((x + LEAF_M, high), "hatch", 10, "pencil", anchor="right"))
    return tuple(shapes), x + LEAF_M, high + 0.006
