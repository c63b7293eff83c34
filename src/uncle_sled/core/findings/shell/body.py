"""Judgements on the body: what cannot be built as drawn, sheets that will not go round, and the way of water."""

from __future__ import annotations

import math
from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import HUNG, Face, Layer, Leaf, Opening
from uncle_sled.core.engine import keep
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.framing.frame_body import Fault
from uncle_sled.core.framing.stick_timber import header_depth_m
from uncle_sled.core.geometry.bend_radius import judge
from uncle_sled.core.materials import Material
from uncle_sled.core.parts.bent_leaf import Bent
from uncle_sled.core.parts.face_build import VENTED_MM2_M, Library, face_build, library_of, material_of
from uncle_sled.core.parts.inside import thickness_m
from uncle_sled.core.parts.leaf import leaf_in
from uncle_sled.core.parts.leaf_side import leaf_side
from uncle_sled.core.reading.studied import Studied, silhouette_of
from uncle_sled.core.studies.shell.bends import SheetBend, sheet_bends
from uncle_sled.core.studies.shell.compare_ways import radius_of, way_ops
from uncle_sled.core.studies.shell.holes import SEALS, USUAL_SEAL, holes
from uncle_sled.core.words import Words, lower_first

SOURCE = "carpenters' rules and the geometry of the drawing"  # of every rule here, said after its reason

THINNEST_M = 0.0015  # half of the thinnest sheet that can be bought
LEAST_FALL_DEG = 1.0
LEAST_HEADER = 0.85  # of the depth that its span wants
TITLES = {
    "profile-crosses": "The profile crosses itself",
    "school-form": "This school cannot make this body",
    "body-too-big": "A body too big to frame",
    "too-many-sticks": "More sticks than anybody would cut",
    "no-pitch": "Framing too close",
    "will-not-bend": "A bar that does not go round",
    "no-section": "A stick of no size",
    "no-sheet": "A sheet of no size",
    "no-material": "Sticks of no material",
    "opening-nowhere": "An opening has no face",
    "openings-meet": "Openings lie over each other",
    "opening-over-edge": "An opening comes over the edge",
    "tail-nowhere": "The tail begins nowhere",
    "footprint-wrong": "A footprint that cannot be",
    "post-cut": "An opening takes a post that nothing carries over",
    "stick-too-deep": "Sticks deeper than their wall",
    "wall-too-low": "A wall too low to frame",
}


def thinner_layers(face: Face, radius: float, library: dict[str, Material]) -> tuple[tuple[Layer, ...], int] | None:
    """The face's layers with each sheet that is too thick parted in two or three, or None where that does not help."""
    for n in (2, 3):
        made: list[Layer] = []
        for layer in face.layers:
            bends = material_of(layer, library).bends
            if not bends or bends == "sandwich" or judge(bends, layer.thickness.si, radius).verdict != "refused":
                made.append(layer)
                continue
            thin = layer.thickness.si / n
            if thin < THINNEST_M or judge(bends, thin, radius).verdict == "refused":
                break
            made += [Layer(f"{layer.id}-{k}", layer.material, Length(round(thin, 5)), layer.framing) for k in range(1, n + 1)]
        else:
            if len(made) > len(face.layers):
                return tuple(made), n
    return None


def bend_ops(s: Studied, face_id: str) -> tuple[tuple[Op, ...], int] | None:
    """Ops that make a face of thinner sheets, and into how many each was parted."""
    body = silhouette_of(s.build.shell)
    face = next((f for f in s.build.shell.faces if f.id == face_id), None)
    found = (
        thinner_layers(face, radius_of(body, face.kind), library_of(s.facts.materials)) if body is not None and face is not None else None
    )
    if face is None or found is None:
        return None
    return way_ops((face.id,), f"{face.made_of}, in thin sheets", found[0]), found[1]


def _thin_sheets(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    parted = bend_ops(s, finding.where[0])
    if parted is None:
        return None
    name = next(face.name for face in s.build.shell.faces if face.id == finding.where[0])
    return parted[0], f"Make the {lower_first(name)} of {({2: 'two', 3: 'three'})[parted[1]]} thin sheets for one"


def _drop_change(_s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    return (remove(f"shell.framing.changes.{finding.where[0]}"),), "Drop the change by hand"


def _let_it_fall(s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    if s.framed.body is None:
        return None
    low = {"si": round(s.framed.body.height - s.framed.body.length / 40, 3), "typed": None}
    ops = (set_to("shell.form", "flat"), set_to("shell.eaves", low), set_to("shell.low_side", "rear"))
    return ops, "Let the roof fall 1 in 40 to the rear"


def _opening(s: Studied, finding: Finding) -> Opening:
    return next(o for o in s.build.shell.openings if o.id in finding.where)


def _seal(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    opening = _opening(s, finding)
    seal = USUAL_SEAL[opening.kind]
    ops = (set_to(f"shell.openings.{opening.id}.seal", seal),)
    return ops, f"Seal the {lower_first(opening.name)} with {SEALS[seal]}"


def _open_gap(_s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    face, layer = finding.where[:2]
    return (set_to(f"shell.faces.{face}.layers.{layer}.open_mm2_m", VENTED_MM2_M),), "Leave it open above and below"


def _hang_at_top(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    opening = _opening(s, finding)
    return (set_to(f"shell.openings.{opening.id}.hung", "top"),), f"Hang the {lower_first(opening.name)} at its top"


def _drip(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    opening = _opening(s, finding)
    return (set_to(f"shell.openings.{opening.id}.drip", value=True),), f"Put a drip edge over the {lower_first(opening.name)}"


FAULTS = {
    code: Rule(
        code,
        "mind",
        "Shell",
        title,
        "What cannot be built as drawn is left out of the framing and its weight until it is mended.",
        why_none="Move or size it by hand: what is right only you know.",
    )
    for code, title in TITLES.items()
}


@keep("s.build.shell", "s.build.rig", "s.build.brief", "s.facts.materials", "s.framed", most=4)  # a dragged thing leaves the body as it is
def shell_findings(s: Studied, words: Words) -> tuple[Finding, ...]:
    """Is the body whole: its profile, its faces, its sticks, its openings? Yields what is not."""
    return tuple(_judged(s, words))


def _judged(s: Studied, words: Words) -> Iterator[Finding]:
    for fault in s.framed.faults:
        yield _fault(fault)
    yield from _loose(s)
    yield from _layers(s)
    yield from _water(s, words)
    yield from _headers(s, words)
    yield from _bends(s, words)
    yield from _leaves(s, words)


def _leaves(s: Studied, words: Words) -> Iterator[Finding]:
    """Leaves of one's own that do not go into their wall, or cannot be."""
    library = library_of(s.facts.materials)
    for opening in s.build.shell.openings:
        side = leaf_side(s.framed, opening) if opening.kind in ("door", "hatch") else None
        if side is not None and side.bent and side.hinge_bends:
            yield HINGE_BENDS.found(
                f"{opening.name}: hinges on a curve",
                f"It goes round a curve of {side.turn_deg:.0f}° and is hung {HUNG[opening.hung]}: a hinge turns on a straight line only.",
                (opening.id,),
            )
        leaf = leaf_in(s.framed, opening, library)
        if leaf is None:
            continue
        wall = thickness_m(s.build.shell, opening.face)
        if leaf.fault:
            yield LEAF_WRONG.found(f"{opening.name}: no leaf", f"{leaf.fault[:1].upper()}{leaf.fault[1:]}.", (opening.id,))
        elif 0 < wall < leaf.thick_m - 1e-6:
            yield LEAF_WRONG.found(
                f"{opening.name} is thicker than its wall",
                f"Sticks and skins are {words.layer(leaf.thick_m)}, the wall is {words.layer(wall)}.",
                (opening.id,),
                number=leaf.thick_m - wall,
            )
        if opening.leaf is not None and leaf.bent is not None:
            yield from _leaf_bends(opening, opening.leaf, leaf.bent, library, words)


def _leaf_bends(opening: Opening, leaf: Leaf, bent: Bent, library: Library, words: Words) -> Iterator[Finding]:
    """Skins of a leaf that goes round a curve: does the sheet?"""
    material = library[leaf.skin]
    radius = min(bent.outer_radius_m, bent.inner_radius_m)
    if not material.bends or not math.isfinite(radius):
        return
    bend = judge(material.bends, leaf.skin_thick.si, radius)
    if bend.verdict != "refused":
        return
    tightest = f"takes {words.m(bend.tightest_m)} at the tightest" if math.isfinite(bend.tightest_m) else "does not bend at all"
    yield LEAF_WONT_BEND.found(
        f"{opening.name}: its skin does not go round",
        f"Its curve is {words.m(radius)} at the tightest; {words.material(material.name)} {words.layer(leaf.skin_thick.si)} {tightest}, bent across its grain.",
        (opening.id,),
        number=radius,
    )


def _fault(fault: Fault) -> Finding:
    return FAULTS[fault.code].found(TITLES[fault.code], fault.says, fault.where)


HINGE_BENDS = Rule(
    "hinge-bends",
    "mind",
    "Shell",
    "A leaf over a curve, hung along the curve",
    "Hinges turn about one straight line.",
    helps="edit",
    cure=_hang_at_top,
)
LEAF_WONT_BEND = Rule(
    "leaf-will-not-bend",
    "mind",
    "Shell",
    "A skin of one's own leaf that is too thick for its curve",
    "A sheet forced tighter than it goes cracks, or springs off its ribs.",
    why_none="A thinner skin, two glued over each other, or a rounder profile.",
)
LEAF_WRONG = Rule(
    "leaf-wrong",
    "mind",
    "Shell",
    "A leaf of one's own that cannot be, or is thicker than its wall",
    "It closes on nothing, or stands out of the wall.",
    why_none="Shallower sticks or thinner skins (Openings).",
)
LOOSE_CHANGE = Rule(
    "loose-change",
    "mind",
    "Shell",
    "A change by hand to a stick that is gone",
    "Changes by hand are kept by face, kind of stick and place.",
    helps="edit",
    cure=_drop_change,
)


def _loose(s: Studied) -> Iterator[Finding]:
    for change in s.framed.loose:
        yield LOOSE_CHANGE.found(
            "A change by hand waits",
            f"The {change.role} at {change.anchor} on the {change.face} is gone, and your change ({change.op}) with it. Keep it for later or drop it.",
            (change.id,),
        )


LAYERS_WRONG = Rule(
    "layers-wrong",
    "mind",
    "Shell",
    "Layers that make no face",
    "A face is weighed from its layers.",
    why_none="Mend the layer on the Shell stop.",
)
LAYER_NO_THICKNESS = Rule(
    "layer-no-thickness",
    "mind",
    "Shell",
    "A layer of no thickness",
    "A layer without a thickness is no layer.",
    why_none="Type how thick it is, or take it out.",
)


def _layers(s: Studied) -> Iterator[Finding]:
    library = library_of(s.facts.materials)
    for face in s.build.shell.faces:
        if not face.layers:
            continue
        try:
            face_build(face.layers, face.kind, library)
        except GeometryError as fault:
            yield LAYERS_WRONG.found(f"{face.name} cannot be made so", str(fault), (face.id,))
            continue
        for layer in face.layers:
            material = material_of(layer, library)
            if layer.thickness.si <= 0 and material.kg_m2 is None:
                yield LAYER_NO_THICKNESS.found(
                    f"{material.name} of no thickness",
                    f"{material.name} in the {lower_first(face.name)} has no thickness, so it weighs and warms nothing.",
                    (face.id,),
                )
                break
        for layer in face.layers:
            if material_of(layer, library).air == "vented" and (layer.open_mm2_m is None or layer.open_mm2_m < VENTED_MM2_M):
                yield _gap(face, layer)


GAP_UNSAID = Rule(
    "gap-unsaid",
    "note",
    "Shell",
    "A ventilated gap of which nobody said whether it is open",
    "Boards dry from behind only where air comes in below and out above.",
    helps="edit",
    cure=_open_gap,
)
GAP_SHUT = Rule(
    "gap-shut",
    "mind",
    "Shell",
    "A ventilated gap that is barely open, or shut",
    "Boards dry from behind only where air comes in below and out above.",
    helps="edit",
    cure=_open_gap,
)


def _gap(face: Face, layer: Layer) -> Finding:
    """What is wrong with a gap that is meant to be open."""
    if layer.open_mm2_m is None:
        says = (
            f"It counts as open, so it keeps nothing warm outside of it. {{{VENTED_MM2_M:.0f} mm2}} a metre above and below would be right."
        )
        return GAP_UNSAID.found(f"Is the gap in the {lower_first(face.name)} open?", says, (face.id, layer.id))
    says = f"{{{layer.open_mm2_m:.0f} mm2}} a metre; {{{VENTED_MM2_M:.0f} mm2}} above and below lets the boards dry."
    return GAP_SHUT.found(
        f"The gap in the {lower_first(face.name)} is no way for air", says, (face.id, layer.id), number=VENTED_MM2_M - layer.open_mm2_m
    )


NO_SEAL = Rule(
    "no-seal", "mind", "Shell", "An opening without a seal", "Water gets in at the holes, not through the skin.", helps="edit", cure=_seal
)
HATCH_ONE_LINE = Rule(
    "hatch-one-line",
    "mind",
    "Shell",
    "A hatch sealed in one line",
    "Hatches flex on the road and open a single line.",
    helps="edit",
    cure=_seal,
)
NO_DRIP = Rule(
    "no-drip",
    "mind",
    "Shell",
    "An opening in a wall without a drip edge",
    "A drip edge over every opening in a wall.",
    helps="edit",
    cure=_drip,
)
ROOF_HOLES = Rule(
    "roof-holes",
    "note",
    "Shell",
    "More than one hole in the roof",
    "Every hole in a roof leaks one day; the fewer the better.",
    why_none="Glue rather than screw, and lead cables through a wall.",
)


def _water(s: Studied, words: Words) -> Iterator[Finding]:
    found = holes(s)
    for hole in found:
        opening = hole.opening
        if opening.seal == "none":
            yield NO_SEAL.found(
                f"{opening.name} has no seal",
                f"{opening.name} has {words.m(hole.seam_m)} of open seam; nothing is said of how it is sealed.",
                (opening.id,),
                number=hole.seam_m,
            )
        elif opening.kind == "hatch" and opening.seal != "two lines":
            yield HATCH_ONE_LINE.found(
                f"{opening.name} has one line of seal",
                f"{opening.name} is sealed in one line ({SEALS[opening.seal]}); a hatch wants two, the outer against rain, the inner against what passed it.",
                (opening.id,),
            )
        if hole.wants_drip and not opening.drip:
            yield NO_DRIP.found(
                f"{opening.name} has no drip edge",
                f"Rain runs down the wall onto the top seal of {lower_first(opening.name)}; a drip edge {words.m(opening.width.si + 0.1)} long throws it off.",
                (opening.id,),
            )
    in_roof = [hole for hole in found if hole.on_roof]
    if len(in_roof) > 1:  # one is the least that a vent needs; the bench counts it
        many = sum(hole.many for hole in in_roof)
        named = ", ".join(lower_first(hole.opening.name) for hole in in_roof[:4])
        yield ROOF_HOLES.found(
            f"{many} hole{'' if many == 1 else 's'} in the roof",
            f"{named}: {words.m(sum(h.seam_m for h in in_roof))} of seam that water stands on. Look at them every autumn.",
            tuple(h.opening.id for h in in_roof),
            number=float(many),
        )
    yield from _roof_fall(s, words)


BUTTERFLY = Rule(
    "butterfly",
    "mind",
    "Shell",
    "A roof with a valley",
    "Snow in a valley is taken double. Screening only: local code and a licensed engineer decide.",
    why_none="A gable or a shed of the same size sheds it all.",
)
ROOF_LEVEL = Rule(
    "roof-level",
    "note",
    "Shell",
    "A roof without a fall",
    "Standing water finds every seam, and freezes in it.",
    helps="edit",
    cure=_let_it_fall,
)


def _roof_fall(s: Studied, words: Words) -> Iterator[Finding]:
    shell, body = s.build.shell, s.framed.body
    roof = next((face for face in shell.faces if face.kind == "roof"), None)
    if body is None or roof is None or body.width <= 0:
        return
    if shell.form == "butterfly":
        yield BUTTERFLY.found(
            "The valley collects water and snow",
            "A butterfly roof leads every drop and twice the snow into its valley, over the middle of your bed. It wants a fall along the valley, a wide outlet and a second one for when leaves block the first.",
            (roof.id,),
        )
    if shell.form in ("box", "bevelled") or (shell.form in ("flat", "shed") and _fall_deg(s) < LEAST_FALL_DEG):
        yield ROOF_LEVEL.found(
            "Water stands on the roof",
            f"The roof lies level; a fall of 1 in 40 ({words.m(body.length / 40)} over its length) lets it run off.",
            (roof.id,),
            why_none=None if shell.form == "box" else "Lay it on tapered strips, or park nose down.",
        )


def _fall_deg(s: Studied) -> float:
    slopes = [surface for surface in s.framed.body.surfaces if surface.kind == "roof"] if s.framed.body else []
    falls = [0.0]
    for face in slopes:
        if face.chain is not None:
            run, rise = abs(face.chain[-1][0] - face.chain[0][0]), abs(face.chain[-1][1] - face.chain[0][1])
            falls.append(math.degrees(math.atan2(rise, run)))
        else:
            falls.append(math.degrees(math.asin(min(abs(face.up[2]), 1.0))))
    return max(falls)


HEADER_NO_ROOM = Rule(
    "header-no-room",
    "mind",
    "Shell",
    "Less depth over an opening than its header wants",
    "Headers by span for light roofs. Screening only: local code and a licensed engineer decide.",
    why_none="Lower the opening, or make it narrower.",
)


def _headers(s: Studied, words: Words) -> Iterator[Finding]:
    if s.build.shell.framing.school != "stick timber":
        return
    for member in s.framed.members:
        if member.role != "header" or member.face_kind in ("floor", "roof") or not member.along_s or "/" in member.anchor:
            continue
        heights = [z for _, z in member.outline]
        opening = next((o for o in s.build.shell.openings if o.id == member.anchor), None)
        wanted = header_depth_m(opening.width.si) if opening else 0.0
        if opening and max(heights) - min(heights) < LEAST_HEADER * wanted:
            yield HEADER_NO_ROOM.found(
                f"No room for a header over {lower_first(opening.name)}",
                f"{words.m(max(heights) - min(heights))} is left over it; a span of {words.m(opening.width.si)} wants {words.m(wanted)}.",
                (opening.id,),
                number=wanted,
            )


def _bends(s: Studied, words: Words) -> Iterator[Finding]:
    bends = sheet_bends(s)
    for face in s.build.shell.faces:
        worst = next((b for b in bends if b.face_id == face.id and b.verdict != "allowed"), None)
        if worst is not None:
            yield _bend(face, worst, words)


_RADII = "Radius table for cold, dry sheets. Two thin sheets glued over each other go round where one thick one breaks."
_STRAIN = "Sheets under strain spring: clamp both ends, wear eye protection."
WILL_NOT_BEND = Rule(
    "will-not-bend", "mind", "Shell", "A sheet thicker than its face's curve takes", _RADII, _STRAIN, helps="edit", cure=_thin_sheets
)
BENDS_TIGHT = Rule(
    "bends-tight",
    "note",
    stop="Shell",
    when="A sheet near the tightest curve it takes",
    why=_RADII,
    caution=_STRAIN,
    why_none="Only a test strip tells.",
)


def _bend(face: Face, bend: SheetBend, words: Words) -> Finding:
    radius, tightest, refused = bend.radius_m, bend.tightest_m, bend.verdict == "refused"
    thick = f"{words.layer(bend.thickness_m)} {bend.material.lower()}"
    says = (
        f"{thick} takes {words.m(tightest)} bent cold across the grain; {face.name.lower()} turns on {words.m(radius)}."
        if refused
        else f"{thick} takes {words.m(tightest)} and {face.name.lower()} turns on {words.m(radius)}: bend a test strip first."
    )
    number = tightest / max(radius, 1e-6)
    if refused:
        return WILL_NOT_BEND.found(f"{face.name} will not bend", says, (face.id,), number=number)
    return BENDS_TIGHT.found(f"{face.name} bends tight", says, (face.id,), number=number)
