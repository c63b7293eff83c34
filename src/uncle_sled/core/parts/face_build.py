"""What does a face weigh, how warm is it, what does it cost, and how tight does it bend?

R is the mean of both bounds. Source: ISO 6946 (``core/parts/wall_warmth.py``). A gap that is open to the outside ends the sum:
it and all outside of it keep nothing warm. Check: boards 18, gap, ply 9, wool 95 at 0.036, ply 9: 2.968, not 3.208.
"""

from __future__ import annotations

from collections.abc import Mapping

import msgspec
import numpy as np

from uncle_sled.core.document.project import OwnMaterial
from uncle_sled.core.document.shell import Layer
from uncle_sled.core.engine import keep
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.frame_body import FASTENERS
from uncle_sled.core.geometry.bend_radius import tightest_radius_m
from uncle_sled.core.material_words import WOOD_SHEETS, Family
from uncle_sled.core.materials import TIMBER, Material, materials
from uncle_sled.core.parts.wall_warmth import Slice, Warmth, tube_m2k_w, warmth

R_INSIDE = {"roof": 0.10, "floor": 0.17}
R_INSIDE_WALL, R_OUTSIDE, R_UNDER = 0.13, 0.04, 0.17
R_VENTED = 0.13  # film of a layer that stands behind a ventilated gap
VENTED_MM2_M, SHUT_MM2_M = 1500.0, 500.0  # from so much on a gap is ventilated; with less than this it is shut
GAP_M, GAP_R = (0.0, 0.005, 0.007, 0.010, 0.015, 0.025), (0.0, 0.11, 0.13, 0.15, 0.17, 0.18)  # of a still gap in a wall
MOST_GAP_R = {"roof": 0.16, "floor": 0.19}  # heat up through it, and down
BATTEN_M, BATTEN_PITCH_M = 0.045, 0.40


class FaceBuild(msgspec.Struct, frozen=True):
    """Per m2 of face: mass, R and U, thickness; money and hours to compare by; tightest radius of its sheets [m]."""

    kg_m2: float
    r_m2k_w: float
    u_w_m2k: float
    thickness_m: float
    money_m2: float
    hours_m2: float
    tightest_m: float
    warmth: Warmth


FRAME_M, FRAME_WALL_M = 0.045, 0.004  # of a trailer's cross-member as heat meets it: a usual one
Library = Mapping[str, Material]


@keep(most=4)
def library_of(own: tuple[OwnMaterial, ...]) -> dict[str, Material]:
    """The shipped materials with one's own beside them; one's own of the same id takes the place of a shipped one.

    Two of one name are told apart by their ids, on paper too.
    """
    made = dict(materials())
    taken = {each_material.name: each_material.id for each_material in made.values()}
    for material in own:
        made[material.id] = Material(
            material.id,
            material.name if taken.setdefault(material.name, material.id) == material.id else f"{material.name} ({material.id})",
            density_kg_m3=material.density_kg_m3,
            conductivity_w_mk=material.conductivity_w_mk,
            mu=material.mu,
            kg_m2=material.kg_m2,
            r_m2k_w=material.r_m2k_w,
            money_m3=material.money_m3,
            money_m2=material.money_m2,
            hours_m2=material.hours_m2,
            bends=material.bends,
            source=f"{material.source or 'own'} {material.date}".strip(),
            form=material.form,
            family=material.family,
            screwed=material.family in WOOD_SHEETS,
            heat_j_kgk=material.heat_j_kgk,
        )
    return made


def family_of(id: str, library: Library) -> Family:
    """What kind of stuff a material of that id is; "" where the library does not have it or nobody said."""
    known = library.get(id)
    return known.family if known is not None else ""


def material_of(layer: Layer, library: Library | None = None) -> Material:
    """Raises: GeometryError: names the layer whose material is not in the library."""
    found = (library or materials()).get(layer.material)
    if found is None:
        raise GeometryError(f"There is no material “{layer.material}” (layer {layer.id}).")
    return found


def battens_m(layer: Layer) -> tuple[float, float]:
    """How wide the battens of a gap are, and how far apart [m]; usual ones where nobody said."""
    wide = layer.batten_wide.si if layer.batten_wide else BATTEN_M
    return wide, layer.batten_pitch.si if layer.batten_pitch else BATTEN_PITCH_M


def batten_share(layer: Layer) -> float:
    """Share of a gap that its battens fill."""
    if not layer.battens:
        return 0.0
    wide, pitch = battens_m(layer)
    return min(wide / max(pitch, 1e-6), 1.0)


def is_vented(layer: Layer, material: Material) -> bool:
    """Whether air from outside runs through a gap: it is meant to, and nobody said that it is as good as shut."""
    return material.air == "vented" and (layer.open_mm2_m is None or layer.open_mm2_m >= SHUT_MM2_M)


def gap_m2k_w(thick_m: float, kind: str) -> float:
    """Resistance of a still gap [m2K/W]. Source: ISO 6946, by its thickness; check 25 mm: wall 0.18, roof 0.16, floor 0.19."""
    made = float(np.interp(thick_m, GAP_M, GAP_R))
    if kind == "floor" and thick_m >= GAP_M[-1]:
        return MOST_GAP_R["floor"]
    return min(made, MOST_GAP_R.get(kind, made))


def warm_layers(layers: tuple[Layer, ...], library: Library | None = None) -> tuple[Layer, ...]:
    """The layers that keep warm: those inside of the innermost ventilated gap, outside first."""
    known = library or materials()
    at = max((k for k, layer in enumerate(layers) if layer.material in known and is_vented(layer, known[layer.material])), default=-1)
    return layers[at + 1 :]


def film_outside(layers: tuple[Layer, ...], kind: str, library: Library | None = None) -> float:
    """Of the air at the outermost layer that keeps warm [m2K/W]."""
    if len(warm_layers(layers, library)) < len(layers):
        return R_VENTED
    return R_UNDER if kind == "floor" else R_OUTSIDE


def layer_kg_m2(layer: Layer, material: Material, timber: Material, sticks: float | None = None) -> float:
    """What a layer weighs a square metre of its face, fasteners left out [kg/m2].

    Args: timber: of what goes through it; sticks: share of it that drawn members fill, whose mass is theirs; None: the typed one,
    which weighs here. The steel of a frame between it weighs with the frame, battens of a gap here.
    """
    t = layer.thickness.si
    if material.air:
        return batten_share(layer) * timber.weight_kg_m2(t)
    if layer.steel_share > 0:
        return (1 - layer.steel_share) * material.weight_kg_m2(t)
    f = layer.framing if sticks is None or layer.framing == 0 else sticks
    return (1 - f) * material.weight_kg_m2(t) + (f * timber.weight_kg_m2(t) if sticks is None else 0.0)


def face_build(
    layers: tuple[Layer, ...], kind: str, library: Library | None = None, sticks: float | None = None, frame: Material | None = None
) -> FaceBuild:
    """Values of a face made of layers from outside in. Args: kind: of the face, for its air films; sticks: share of
    its framed layers that drawn members fill, in place of the typed one; their mass is then theirs and not the face's;
    frame: what they are of, softwood where nobody said.

    Raises: GeometryError: no layers, an unknown material, a thickness below nothing or a framing share outside 0 to 1.
    """
    if not layers:
        raise GeometryError("A face needs one layer at least.")
    inside = R_INSIDE.get(kind, R_INSIDE_WALL)
    outside = film_outside(layers, kind, library)
    slices: list[Slice] = []
    mass = money = hours = thickness = tightest = 0.0
    timber = frame or materials()[TIMBER]
    for layer in layers:
        material, t = material_of(layer, library), layer.thickness.si
        if t < 0 or not 0 <= layer.framing <= 1:
            raise GeometryError(f"Layer {layer.id} ({material.name}): its thickness must be 0 or more and its framing between 0 and 1.")
        mass += layer_kg_m2(layer, material, timber, sticks)
        if material.air:
            share = batten_share(layer)
            money += share * timber.price_m2(t)
            hours += share * timber.hours_m2
            thickness += t
            stick = timber.resistance_m2k_w(t) if share > 0 else None
            slices = [] if is_vented(layer, material) else [*slices, Slice(gap_m2k_w(t, kind), stick, share)]
            continue
        if layer.steel_share > 0:
            if layer.framing > 0 or layer.steel_share > 1:
                raise GeometryError(f"Layer {layer.id} ({material.name}): sticks and the frame's steel cannot both go through it.")
            through = tube_m2k_w(t, FRAME_M, FRAME_WALL_M) if t > 0 else 0.0
            money += (1 - layer.steel_share) * material.price_m2(t)
            hours += material.hours_m2
            slices.append(Slice(material.resistance_m2k_w(t), through, layer.steel_share))
            thickness += t
            continue
        f = layer.framing if sticks is None or layer.framing == 0 else sticks
        money += (1 - f) * material.price_m2(t) + f * timber.price_m2(t)
        hours += material.hours_m2 + f * timber.hours_m2
        slices.append(Slice(material.resistance_m2k_w(t), timber.resistance_m2k_w(t) if f > 0 else None, f))
        thickness += t
        if material.bends and material.bends != "sandwich":
            tightest = max(tightest, tightest_radius_m(material.bends, t))
    warm = warmth(tuple(slices), inside + outside)
    return FaceBuild(
        mass * (1 + FASTENERS),
        warm.r_m2k_w,
        u_w_m2k=warm.u_w_m2k,
        thickness_m=thickness,
        money_m2=money,
        hours_m2=hours,
        tightest_m=tightest,
        warmth=warm,
    )
