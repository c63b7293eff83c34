"""What does a face weigh, how warm is it, what does it cost, and how tight does it bend?

R is the mean of both bounds. Source: ISO 6946 (``core/parts/wall_warmth.py``).
"""

from __future__ import annotations

from collections.abc import Mapping

import msgspec

from uncle_sled.core.document.project import OwnMaterial
from uncle_sled.core.document.shell import Layer
from uncle_sled.core.engine import keep
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.frame_body import FASTENERS
from uncle_sled.core.geometry.bend_radius import tightest_radius_m
from uncle_sled.core.material_words import WOOD_SHEETS, Family
from uncle_sled.core.materials import TIMBER, Material, materials
from uncle_sled.core.parts.wall_warmth import Slice, Warmth, warmth

R_INSIDE = {"roof": 0.10, "floor": 0.17}
R_INSIDE_WALL, R_OUTSIDE, R_UNDER = 0.13, 0.04, 0.17


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
    outside = R_UNDER if kind == "floor" else R_OUTSIDE
    slices: list[Slice] = []
    mass = money = hours = thickness = tightest = 0.0
    timber = frame or materials()[TIMBER]
    for layer in layers:
        material, t = material_of(layer, library), layer.thickness.si
        if t < 0 or not 0 <= layer.framing <= 1:
            raise GeometryError(f"Layer {layer.id} ({material.name}): its thickness must be 0 or more and its framing between 0 and 1.")
        f = layer.framing if sticks is None or layer.framing == 0 else sticks
        mass += (1 - f) * material.weight_kg_m2(t) + (f * timber.weight_kg_m2(t) if sticks is None else 0.0)
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
