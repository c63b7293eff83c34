"""What is used up by the metre and the square metre: rules as data, each with its source, changed by the builder at will.

Source: shop notes, consumables by rule. Edges and areas come from the take-off.
"""

from __future__ import annotations

from functools import lru_cache

import msgspec

from uncle_sled.core.document.cut import Cut
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.material_words import WOOD_SHEETS
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.face_build import family_of, library_of
from uncle_sled.core.parts.panel_glue import line_kg_m2
from uncle_sled.core.parts.panel_rails import rails_of
from uncle_sled.core.studies.cut.take_off import TakeOff
from uncle_sled.core.studies.cut.within_faces import within_faces
from uncle_sled.core.studies.shell.bought_panels import blanks_glued_up
from uncle_sled.core.studies.shell.screws import screw_joints_of
from uncle_sled.core.studies.shell.seams import fillets_of, joints_kept
from uncle_sled.core.tables import table
from uncle_sled.core.units import FOOT_M
from uncle_sled.core.words import Words

# What rules count by: in what, and its words.
PER = {
    "ply_edge_m": ("m", "of panel edges"),
    "ply_m2": ("m2", "of panels"),
    "stick_ends": ("", "ends of sticks"),
    "metal_edge_m": ("m", "of metal edges"),
    "glue_m2": ("m2", "of glued sticks"),
    "bead_m": ("m", "of bonded edges"),
    "opening_m": ("m", "round openings"),
    "seam_m": ("m", "of seams"),
    "paint_m2": ("m2", "of paint"),
    "laminate_m2": ("m2", "of cloth"),
    "panel_glue_kg": ("kg", "of glue in panels"),
    "fillet_kg": ("kg", "of filled resin in fillets"),
    "fillet_strip_m": ("m", "of strips over fillets"),
    "ribbed_m2": ("m2", "of ribbed sheets"),
    "rail_m": ("m", "of rails under panels"),
    "butyl_m": ("m", "of joints taped with butyl"),
    "foam_tape_m": ("m", "of joints on foam tape"),
    "acrylic_m": ("m", "of joints taped with acrylic"),
    "cloth_strip_m": ("m", "of joints under cloth and resin"),
    "joint_bead_m": ("m", "of joints with sealant"),
    "bulb_m": ("m", "of seals round openings"),
}


class Rule(msgspec.Struct, frozen=True):
    """So much of a thing for each of what it counts by. pack: what one pack holds; price: of a pack; changed: by the builder."""

    id: str
    name: str
    per: str
    rate: float
    unit: str
    pack: float
    price: float
    shop: str
    stage: str
    source: str
    task: tuple[str, ...] = ()  # that takes it all, the first that there is; none: it goes with the pieces that it is counted by
    off: bool = False
    changed: bool = False


class Used(msgspec.Struct, frozen=True):
    """What a rule comes to. base: of what it counts by; need: in its unit."""

    rule: Rule
    base: float
    need: float


@lru_cache(maxsize=1)
def shipped_rules() -> tuple[Rule, ...]:
    """The shipped rules of consumption, each with its source."""
    return table("catalogue/consumables.csv", Rule)


def rules_of(cut: Cut) -> tuple[Rule, ...]:
    """The rules as this builder has them."""
    own = {change.id: change for change in cut.rules}
    made = []
    for rule in shipped_rules():
        change = own.get(rule.id)
        if change is not None:
            said = {name: getattr(change, name) for name in ("rate", "pack", "price") if getattr(change, name) is not None}
            rule = msgspec.structs.replace(rule, **said, off=change.off, changed=bool(said) or change.off)
        made.append(rule)
    return tuple(made)


def counted(used: Used, words: Words) -> str:
    """How much of it there is, as "21.4 m of panel edges" or "70.2 ft of panel edges"."""
    unit, of = PER[used.rule.per]
    if unit == "m" and words.shown.imperial:
        return f"{used.base / FOOT_M:.1f} ft {of}"
    return f"{words.of(used.base, unit, 1) if unit == 'm2' else f'{used.base:.1f} {unit}'.strip()} {of}"


def used_up(build: Build, facts: Facts, off: TakeOff) -> tuple[Used, ...]:
    """What every rule comes to for a build; rules that count nothing here are left out."""
    base = bases(build, facts, off)
    made = []
    for rule in rules_of(build.cut):
        many = base.get(rule.per, 0.0)
        if many > 1e-9 and not rule.off:
            made.append(Used(rule, many, many * rule.rate))
    return tuple(made)


def bases(build: Build, facts: Facts, off: TakeOff) -> dict[str, float]:
    """Metres, square metres and numbers that the rules count by."""
    library = library_of(facts.materials)
    base = dict.fromkeys(PER, 0.0)
    framed = framed_of(build, facts)
    kinds = {joint.face for joint in screw_joints_of(build, facts, framed)}
    counted_by_joint = {surface.id for surface in framed.body.surfaces if surface.kind in kinds} if framed.body is not None else set()
    for piece in off.pieces:
        edge = 2 * (piece.length_m + piece.width_m)
        family = family_of(piece.made_of, library)
        if piece.kind == "sheet":
            if family == "metal":
                base["metal_edge_m"] += edge
                base["bead_m"] += edge
            elif family in WOOD_SHEETS:
                if piece.of not in counted_by_joint:  # their screws are bought by the joint
                    base["ply_edge_m"] += edge
                    base["ply_m2"] += piece.area_m2
            else:
                base["bead_m"] += edge
        elif piece.kind == "bar" and not piece.cladding and piece.kg_m is None:  # metal is welded, riveted or screwed by its own rules
            base["stick_ends"] += 2
            base["glue_m2"] += piece.length_m * piece.thickness_m
    for spread in off.spreads:
        family = family_of(spread.made_of, library)
        if spread.form == "roll":
            base["seam_m"] += spread.area_m2 / 1.5 if spread.area_m2 > 1.5 else 0.0  # rolls 1.5 m wide
        elif family == "paint":
            base["paint_m2"] += spread.area_m2
        elif family == "cloth":
            base["laminate_m2"] += spread.area_m2
    base["ribbed_m2"] = sum(p.area_m2 for p in off.pieces if p.made_of in library and library[p.made_of].cover_mm is not None)
    base["rail_m"] = sum(rails.length_m for rails in rails_of(build.shell, build.stow, library))
    held = fillets_of(build.shell, framed)
    if held is not None:
        base["fillet_kg"], base["fillet_strip_m"] = held.resin_kg, held.strips_m
    blanks = blanks_glued_up(build.shell, framed, {material.id for material in facts.materials})
    base["panel_glue_kg"] = sum(blank.outline.area * (blank.layers - 1) for blank in blanks) * line_kg_m2(build.shell)
    for key, long in sealed_m(build, facts, framed).items():
        base[key] = long
    base["opening_m"] = sum(2 * (opening.width.si + opening.height.si) for opening in build.shell.openings)
    return base


TAPES = {"butyl": "butyl_m", "foam": "foam_tape_m", "acrylic": "acrylic_m", "cloth and resin": "cloth_strip_m"}
SEAL_LINES = {"bulb": 1.0, "two lines": 2.0}


def sealed_m(build: Build, facts: Facts, framed: Framed) -> dict[str, float]:
    """Metres of each tape, of sealant and of bulb seal that joints, seams within faces and openings were said to have."""
    made = dict.fromkeys((*TAPES.values(), "joint_bead_m", "bulb_m"), 0.0)
    joints = joints_kept(framed.body) if framed.body is not None and framed.body.width > 0 and build.shell.seams else ()
    long = {joint.id: joint.length_m for joint in joints}
    long |= {seam.id: seam.length_m for seam in within_faces(build, facts) if not seam.whole} if build.shell.seams else {}
    for said in build.shell.seams:
        if said.tape:
            made[TAPES[said.tape]] += long.get(said.id, 0.0)
        if said.sealant:
            made["joint_bead_m"] += long.get(said.id, 0.0) * (2.0 if said.sealant == "fillet" else 1.0)
    for opening in build.shell.openings:
        around = 2 * (opening.width.si + opening.height.si)
        made["bulb_m"] += SEAL_LINES.get(opening.seal, 0.0) * around
        made["butyl_m"] += around if opening.seal == "tape" else 0.0
    return made
