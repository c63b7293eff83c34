"""What carries and what it carries, from the build: sections, stuff, the weight of faces, spans and pitches."""

from __future__ import annotations

import itertools
import math

import numpy as np

from uncle_sled.core.document.shell import Face
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import framed_depth_m, skin_m
from uncle_sled.core.framing.frame_stuff import FRAME_STUFF
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.parts.face_build import family_of, library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell import strength as st
from uncle_sled.core.units import GRAVITY


def panel_of(s: Studied, face: Face | None) -> st.Panel | None:
    """The sandwich that a face is: skin, core, skin of known kinds; None where it is none."""
    if face is None or len(face.layers) < 3:
        return None
    thick = [(layer, layer.thickness.si) for layer in face.layers]
    at, (core, core_m) = max(enumerate(thick), key=lambda one: one[1][1])
    library = library_of(s.facts.materials)
    kind = library[core.material].core_pa if core.material in library else None
    if kind is None or core.framing > 0 or at in (0, len(thick) - 1):
        return None
    outer, outer_m = thick[at - 1]
    inner, inner_m = thick[at + 1]
    skins = [library[layer.material].skin_pa if layer.material in library else None for layer in (outer, inner)]
    if skins[0] is None or skins[1] is None or min(outer_m, inner_m) <= 0 or core_m <= max(outer_m, inner_m):
        return None
    weak = min(skins, key=lambda skin: skin[1])  # type: ignore[index]
    assert weak is not None
    return st.sandwich(min(outer_m, inner_m), core_m, weak[0], weak[1], *kind)


def slope_deg(surface: Surface) -> float:
    """Slope of a roof; of a swept one that of its chord."""
    if surface.chain is not None:
        rise, run = np.abs(surface.chain[-1] - surface.chain[0])[::-1]
        return math.degrees(math.atan2(float(rise), max(float(run), 1e-9)))
    return math.degrees(math.acos(min(abs(surface.inward[2]), 1.0)))


def apart_m(spars: list[Member], usual: float) -> float:
    """The widest gap between neighbours [m]."""
    at = sorted({round(float(np.mean([x for x, _ in m.outline])), 3) for m in spars})
    return max((b - a for a, b in itertools.pairwise(at)), default=usual)


def bearing_m(s: Studied) -> float:
    """What of a spar's length lies on its supports [m]."""
    sizes = s.framed.sizes
    assert sizes is not None
    return 2 * sizes.stick[1] if not sizes.side_thick else 0.0


def section_of(member: Member, stuff: st.Stuff) -> st.Section:
    wide, deep = member.section_m
    if member.wall_m > 0:
        return st.of_sheet(wide, deep, member.wall_m, open_c=member.channel)
    return st.solid(wide, deep, {"steel": st.STEEL_E, "plywood": st.PLY_E}.get(stuff, st.SOFTWOOD_E))


def stuff_of(s: Studied, member: Member) -> st.Stuff:
    """What a stick is reckoned as."""
    family = family_of(member.material, {**FRAME_STUFF, **library_of(s.facts.materials)})
    if member.wall_m > 0 or family == "metal":
        return "steel"
    return "plywood" if family == "plywood" else "softwood"


def source_of(stuff: st.Stuff) -> str:
    return {"softwood": "softwood by NDS habit", "plywood": "birch plywood, {15 MPa}", "steel": "mild steel, yield over 1.5"}[stuff]


def dead_pa(s: Studied, face: Face | None, surface: Surface) -> float:
    """Weight of a face with its sticks [Pa]."""
    kg = sum(m.mass_kg for m in s.framed.on(surface.id)) / max(surface.area_m2, 1e-6)
    if face is not None:
        sums = face_sums(face, s.build.shell, s.framed, library_of(s.facts.materials))
        if sums.build is not None:
            kg += sums.build.kg_m2
        elif face.mass is not None:
            kg += face.mass.si / max(sums.area_m2, 1e-6)
    return kg * GRAVITY


def sheath_m(_s: Studied, face: Face | None) -> float:
    """Thickness of the sheets outside of the sticks [m]."""
    return skin_m(face) if face is not None and framed_depth_m(face, 0.0) > 0 else 0.0


def heated(s: Studied) -> bool:
    return s.build.brief.inside is not None or any(t.burns not in ("none",) and t.room_sealed for t in s.build.stow.things)


def sheets_m(s: Studied, face: Face | None) -> float:
    """Thickness of all sheets of wood of a wall together [m]; 0 where its layers are not known or of other stuff."""
    if face is None:
        return 0.0
    library = library_of(s.facts.materials)
    wood = [layer for layer in face.layers if (m := library.get(layer.material)) and m.form == "sheet" and (m.density_kg_m3 or 0) < 1000]
    return sum(layer.thickness.si for layer in wood)


def standing_kg(s: Studied, heaviest: bool) -> float | None:
    """What stands on the frame, in the heaviest case; or the lightest trailer in all."""
    totals = [float(kg) for kg in s.readings.total_kg if math.isfinite(float(kg)) and float(kg) > 0]
    if not totals:
        return None
    return max(max(totals) - _rig_kg(s), 1.0) if heaviest else min(totals)


@keep()
def _rig_kg(s: Studied) -> float:
    return sum(p.mass_kg for p in s.parts if p.made_by.startswith("rig"))
