"""A cut through the jamb of a door of one's own, at full size: wall, gap, seal, leaf. Metres, x along the wall, y through it."""

from __future__ import annotations

from uncle_sled.core.document.shell import Opening
from uncle_sled.core.drawing.primitives import Circle, Primitive, Text, dimension, rect
from uncle_sled.core.drawing.shell.leaf_drawn import hinge_line
from uncle_sled.core.framing.frame_body import face_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import SQUEEZED, LeafBuilt, leaf_in
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words

WALL_M, LEAF_M, BULB_M = 0.075, 0.085, 0.012
USUAL_WALL_M = 0.03


def jamb(s: Studied, opening: Opening, words: Words) -> tuple[tuple[Primitive, ...], float, float]:
    """The lock side seen from above (from the side where it is hung at its top), and its size [m]; nothing without a leaf.

    Of a leaf that goes round a curve its hinge line, where the water has to stay out.
    """
    made = leaf_in(s.framed, opening, library_of(s.facts.materials))
    if made is None or made.fault or opening.leaf is None:
        return (), 0.0, 0.0
    if made.bent is not None:
        return hinge_line(s.build.shell, opening.leaf, made, words)
    face = face_of(s.build.shell, opening.face)
    wall = sum(layer.thickness.si for layer in face.layers) if face is not None and face.layers else USUAL_WALL_M
    gap, thick = made.lock_gap_m, made.thick_m
    shapes: list[Primitive] = []
    y = 0.0
    for layer in reversed(face.layers) if face is not None and face.layers else ():
        hatch = "wood" if layer.framing > 0 else ""
        shapes.append(rect(0.0, y, WALL_M, layer.thickness.si, stroke="ink", fill="wood", width=1.0, hatch=hatch, tint=0.3))
        y += layer.thickness.si
    if not shapes:
        shapes.append(rect(0.0, 0.0, WALL_M, wall, stroke="ink", fill="wood", width=1.0, tint=0.3))
    x, low = WALL_M + gap, wall - thick
    skin, seen = opening.leaf.skin_thick.si, opening.leaf.stick.thick.si
    shapes += [
        rect(x, low, LEAF_M, skin, stroke="ink", fill="wood", width=1.0, tint=0.45),
        rect(x, low + thick - skin, LEAF_M, skin, stroke="ink", fill="wood", width=1.0, tint=0.45),
        rect(x, low + skin, min(seen, LEAF_M), thick - 2 * skin, stroke="ink", fill="wood", width=1.0, hatch="wood", tint=0.3),
    ]
    if seen < LEAF_M and opening.leaf.foam:
        shapes.append(rect(x + seen, low + skin, LEAF_M - seen, thick - 2 * skin, stroke="rule", fill="foam", width=0.8, tint=0.25))
    squeezed = BULB_M * (1 - SQUEEZED)
    shapes.append(Circle((x + BULB_M, low - squeezed / 2), squeezed / 2, "ink", "tyre"))
    shapes.append(rect(WALL_M - 0.004, low - squeezed - 0.006, 0.045, 0.006, stroke="ink", fill="wood", width=1.0, tint=0.45))
    foot = low - squeezed - 0.02
    shapes += dimension((WALL_M, foot), (x, foot), "", 0.002)
    shapes.append(Text((WALL_M + gap / 2, foot - 0.007), f"gap {words.thick(gap)}", 10, "chalk", "strong"))
    shapes += dimension((WALL_M, wall + 0.008), (x + LEAF_M, wall + 0.008), f"leaf {words.thick(thick)} thick", 0.002, 10)
    return tuple(shapes), x + LEAF_M, wall - foot + 0.03


def leaf_words(made: LeafBuilt, words: Words) -> str:
    """What a leaf of one's own comes to, in a sentence."""
    if made.fault:
        return f"It cannot be made so: {made.fault}."
    round_it = " along the curve" if made.bent is not None else ""
    size = f"{words.cut(made.width_m)} × {words.cut(made.height_m)}{round_it}"
    told = [f"Leaf {size}, {words.thick(made.thick_m)} thick, {words.fine_kg(made.mass_kg)}."]
    if made.bent is not None:
        ribs = next(piece.many for piece in made.pieces if piece.outline)
        bars = len(made.bent.bars_at)
        told.append(f"{ribs} ribs sawn to the curve, {bars} rows of cross-bars; hinged straight across, a gutter under the hinge.")
    told.append(
        f"Gaps {words.thick(made.gap_m)}, at the lock {words.thick(made.lock_gap_m)}. The seal wants {words.fine_newtons(made.seal_n)} to shut."
    )
    if made.hinge_n is not None and made.hinge_leaning_n is not None:
        told.append(
            f"The upper hinge is pulled with {words.fine_newtons(made.hinge_n)}, {words.fine_newtons(made.hinge_leaning_n)} when somebody leans on its end."
        )
    return " ".join(told)
