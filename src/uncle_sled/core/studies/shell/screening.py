"""Does the body hold? Every check by its worst place: value, limit, and how it came; what cannot be said is not checked.

Screening only: local code and a licensed engineer decide. Spans are those of the drawn members, loads those of the brief;
skins help no stick. Source: shell notes (strength.py), the figures named with each check.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator

import msgspec
import numpy as np

from uncle_sled.core.document.shell import Face, Loft, Opening
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import face_of, framed_depth_m, skin_m
from uncle_sled.core.framing.frame_stuff import FRAME_STUFF
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.surfaces import SIDES, Surface
from uncle_sled.core.parts.face_build import family_of, library_of
from uncle_sled.core.parts.frame_steel import bars_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.parts.holding import FRICTION, capacities_n
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell import strength as st
from uncle_sled.core.studies.shell.ridge import TIE_PITCH_M, Pitch, beam_n_m, carries, held, pitch_of, thrust_n_m
from uncle_sled.core.studies.shell.seams import joints
from uncle_sled.core.studies.shell.shell_measures import BOLT_SHEAR_N, BOLT_TENSION_N, bolts
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.words import Words, lower_first

BOND_PA, BOND_WIDE_M = 0.15e6, 0.030
SCREW_N = 250.0  # one of 4.8 mm in 9 mm ply, pulled
SCREW_IN_STICK_N = 500.0  # one of 4.8 mm, 30 mm deep in a softwood stick, pulled
ROAD_DOWN = 2.5  # of a weight over a bump, as the frame study takes it
SCREW_PITCH_M = 0.15
FOOT_M = 0.3  # on which somebody stands
POINT_IN_M = 0.003  # a screw's point stays that far inside
PARKED_WIND_M_S = 25.0
LADDER_WIDE_M, LADDER_RAD, RUNG_N = 0.305, math.radians(75.0), 890.0
ON_ROOF = 0.75  # what stands outside and higher than this share of the body lies on its roof
ROOF_SPARS = ("rafter", "spar", "cross-tube", "rib", "bow")


class Check(msgspec.Struct, frozen=True):
    """One check. value, limit in SI, None where it cannot be said (``why``); how: the sum in words; spot: worst place [m].

    unit: Pa, m, N/m, m/s or N. face: measured, computed or not checked. where: ids of what is weak.
    """

    id: str
    name: str
    where: tuple[str, ...]
    value: float | None
    limit: float | None
    unit: str
    how: str
    source: str
    spot: tuple[float, float, float] | None = None
    why: str = ""

    @property
    def use(self) -> float | None:
        """Share of its limit that is used; None where it was not checked."""
        return self.value / self.limit if self.value is not None and self.limit else None

    @property
    def face(self) -> str:
        """How it is known."""
        return "not checked" if self.value is None else "computed"


@keep(
    *("s.build.shell", "s.build.rig", "s.build.brief", "s.build.stow", "s.facts.materials", "s.facts.people", "s.framed", "s.table"), most=4
)
def screening(s: Studied) -> tuple[Check, ...]:
    """All checks of a body, the nearest to its limit first, then those that could not be made; none without a body."""
    if s.framed.body is None or s.framed.body.width <= 0:
        return ()
    made = [*_roof(s), *_headers(s), *_floor(s), *_lofts(s), *_racking(s), *_wind(s), *_held_down(s)]
    words = Words(s.build.brief.reading.shown())
    made = [msgspec.structs.replace(check, how=words.told(check.how), source=words.told(check.source)) for check in made]
    known = sorted((check for check in made if check.use is not None), key=lambda check: -(check.use or 0.0))
    return (*known, *(check for check in made if check.use is None))


def _none(id: str, name: str, why: str, where: tuple[str, ...] = ()) -> Check:
    return Check(id, name, where=where, value=None, limit=None, unit="", how="", source="", spot=None, why=why)


# roofs
def _roof(s: Studied) -> Iterator[Check]:
    body = s.framed.body
    assert body is not None
    roofs = [face for face in body.surfaces if face.kind == "roof" or face.id.startswith("bevel")]
    made: list[Check] = []
    pitch = pitch_of(s.build.shell, body)
    if pitch is not None:
        yield from _ridge(s, pitch, roofs)
        if not held(s.build.shell.ridge, pitch):
            why = f"what holds the {_ridge_name(pitch)} is not said (Holds)"
            yield _none("roof-snow", "Snow on the rafters", why, tuple(face.id for face in roofs))
            yield _none("roof-sinks", "Sinking of the rafters", why, tuple(face.id for face in roofs))
            if not s.build.brief.nobody_on_roof:
                yield _none("roof-person", "Somebody on the rafters", why, tuple(face.id for face in roofs))
            return
    for surface in roofs:
        spars = [m for m in s.framed.on(surface.id) if m.role in ROOF_SPARS and not m.along_s and not m.strips]
        if spars:
            made += _sticks(s, surface, spars)
        elif any(m.strips for m in s.framed.on(surface.id)):
            made += _sticks(s, surface, [m for m in s.framed.on(surface.id) if m.strips])  # straight: an arch's thrust helps
        else:
            made += _bare(s, surface)
    if not roofs:
        made.append(_none("roof", "Roof", "no roof is drawn"))
    yield from (check for check in _worst(made) if check.id != "roof-person" or not s.build.brief.nobody_on_roof)


def _ridge_name(pitch: Pitch) -> str:
    return "valley" if pitch.valley else "ridge"


def roof_load_pa(s: Studied, roofs: list[Surface], pitch: Pitch) -> float | None:
    """Snow and the roof's own weight on its plan [Pa]; None where the ground snow is not said."""
    ground = s.build.brief.ground_snow_kpa
    if ground is None or not roofs:
        return None
    slope = math.degrees(math.atan2(pitch.rise_m, pitch.wide_m / 2))
    snow = st.snow_pa(ground * 1000, slope, s.build.brief.region == "North American", _heated(s), pitch.valley)
    dead = max(_dead_pa(s, face_of(s.build.shell, "roof"), face) for face in roofs) / math.cos(math.radians(slope))
    return snow + dead


def _ridge(s: Studied, pitch: Pitch, roofs: list[Surface]) -> Iterator[Check]:
    """The beam under a ridge or valley, or the ties against the thrust of its rafters."""
    body, words, ridge = s.framed.body, Words(s.build.brief.reading.shown()), s.build.shell.ridge
    assert body is not None
    name, ids = _ridge_name(pitch), tuple(face.id for face in roofs)
    spot = (body.front + body.length / 2, 0.0, pitch.at_m)
    load = roof_load_pa(s, roofs, pitch)
    title = f"{'Valley' if pitch.valley else 'Ridge'}"
    if ridge is None or not held(ridge, pitch):
        lacks = "a beam on posts" if pitch.valley else "a beam, ties or collars"
        yield _none("ridge", title, f"{lacks}: nobody said what holds it (Holds)", ids)
        return
    if load is None:
        yield _none("ridge", title, "the ground snow is not said (Brief)", ids)
        return
    source = "three-hinged roof, softwood by NDS habit"
    if ridge.held_by == "beam" and ridge.beam is not None:
        thick, deep = ridge.beam.thick.si, ridge.beam.deep.si
        span = ridge.span.si if ridge.span is not None and ridge.span.si > 0 else pitch.long_m
        w = beam_n_m(load, pitch)
        bends, sinks, moment = carries(thick, deep, span, w)
        limit = st.allowable_pa("softwood", deep, st.SNOW, together=False)
        how = f"{words.section((thick, deep))} on edge over {words.m(span)}; {words.of(load / 1000, 'kPa', 2)} on half of each slope, {words.of(w, 'N/m', 0)}; {words.of(moment, 'N m', 0)}"
        yield Check("ridge", f"{title} beam", where=ids, value=bends * limit, limit=limit, unit="Pa", how=how, source=source, spot=spot)
        yield Check(
            "ridge-sinks",
            f"Sinking of the {name} beam",
            where=ids,
            value=sinks * span / st.SOFT,
            limit=span / st.SOFT,
            unit="m",
            how=f"{how}; span/240",
            source="usual limit of a ceiling",
            spot=spot,
        )
        return
    up = ridge.collar_up.si if ridge.held_by == "collars" and ridge.collar_up is not None else 0.0
    pitch_m = ridge.tie_pitch.si if ridge.tie_pitch is not None and ridge.tie_pitch.si > 0 else TIE_PITCH_M
    pull = thrust_n_m(load, pitch, up) * pitch_m
    what = "collar" if ridge.held_by == "collars" else "tie"
    how = f"{words.of(load / 1000, 'kPa', 2)} over {words.m(pitch.wide_m)}, rise {words.m(pitch.rise_m)}{f', {words.m(up)} over the plates' if up else ''}; one every {words.m(pitch_m)}"
    if ridge.held_by == "collars" and ridge.collar_up is None:
        yield _none("ridge", "Collars", "how high over the plates they are is not said (Holds)", ids)
    elif not math.isfinite(pull):
        yield _none("ridge", "Collars", "at the ridge a collar holds nothing; lower would be right", ids)
    elif ridge.tie_holds_n is None:
        yield _none("ridge", f"Each {what}", f"it pulls {words.fine_newtons(pull)}; what it holds with its joints is not said (Holds)", ids)
    else:
        yield Check(
            "ridge",
            f"Each {what}",
            where=ids,
            value=pull,
            limit=ridge.tie_holds_n,
            unit="N",
            how=how,
            source="w B²/(8 rise), as typed",
            spot=spot,
        )


def _worst(made: list[Check]) -> list[Check]:
    """Of each check the surface in which it is worst; one that was not made only where none was."""
    kept: dict[str, Check] = {}
    for check in made:
        old = kept.get(check.id)
        if old is None or (check.use or -1.0) > (old.use or -1.0):
            kept[check.id] = check
    return list(kept.values())


def _sticks(s: Studied, surface: Surface, spars: list[Member]) -> Iterator[Check]:
    """The longest spar under snow and under a person."""
    body, sizes, words = s.framed.body, s.framed.sizes, Words(s.build.brief.reading.shown())
    assert body is not None and sizes is not None
    slope = slope_deg(surface)
    flat = math.cos(math.radians(slope))
    member = max(spars, key=lambda m: m.length_m)
    span = max(member.length_m - _bearing(s), 0.1) * (1.0 if surface.swept else flat)
    pitch = _pitch(spars, sizes.rib_pitch)
    face = face_of(s.build.shell, surface.kind)
    dead = _dead_pa(s, face, surface)
    stuff = stuff_of(s, member)
    section = _section(member, stuff)
    deep = member.section_m[1]
    place = f"{words.section(member.section_m)} at {words.m(pitch)}, span {words.m(span)}"
    ids, spot = (surface.id, member.id), member.at_m
    ground = s.build.brief.ground_snow_kpa
    name = {"cross-tube": "cross-tubes", "bow": "bows", "rib": "ribs", "spar": "spars"}.get(member.role, "rafters")
    if ground is None:
        yield _none("roof-snow", f"Snow on the {name}", "the ground snow is not said (Brief)", ids)
        yield _none("roof-sinks", f"Sinking of the {name}", "the ground snow is not said (Brief)", ids)
    else:
        snow = st.snow_pa(ground * 1000, slope, s.build.brief.region == "North American", _heated(s), s.build.shell.form == "butterfly")
        made = st.beam(section, span, (snow + dead) * pitch)
        limit = st.allowable_pa(stuff, deep, st.SNOW, len(spars) >= 3 and pitch <= 0.61)
        load = f"snow {words.of(snow / 1000, 'kPa', 2)} and {words.of(dead / 1000, 'kPa', 2)} of its own"
        rule = "0.7 p_g" if s.build.brief.region == "North American" else "0.8 s_k by slope"
        yield Check(
            "roof-snow",
            f"Snow on the {name}",
            where=ids,
            value=made.stress_pa,
            limit=limit,
            unit="Pa",
            how=f"{place}; {load}; {words.of(made.moment_nm, 'N m', 0)}",
            source=f"{rule}; {_source(stuff)}",
            spot=spot,
        )
        yield Check(
            "roof-sinks",
            f"Sinking of the {name}",
            where=ids,
            value=made.sinks_m,
            limit=span / st.SOFT,
            unit="m",
            how=f"{place}; {load}; span/240",
            source="usual limit of a ceiling",
            spot=spot,
        )
    share = st.SHARE_SHEATHED if _sheath_m(s, face) >= st.LEAST_SHEATH_M and pitch <= st.CLOSE_M else st.SHARE_BARE
    made = st.beam(section, span, dead * pitch, st.PERSON_N * share)
    limit = st.allowable_pa(stuff, deep, st.MINUTES, together=False)
    told = f"{{1.2 kN}}, {share:.1f} of it on one; {words.of(made.moment_nm, 'N m', 0)}"
    yield Check(
        "roof-person",
        f"Somebody on the {name}",
        where=ids,
        value=made.stress_pa,
        limit=limit,
        unit="Pa",
        how=f"{place}; {told}",
        source=f"shares by sheathing, practice; {_source(stuff)}",
        spot=spot,
    )


def _bare(s: Studied, surface: Surface) -> Iterator[Check]:
    """A roof without sticks: a sandwich from edge to edge, the short way."""
    face = face_of(s.build.shell, surface.kind)
    panel = panel_of(s, face)
    ids = (surface.id,)
    if panel is None:
        why = "the roof has neither sticks nor a sandwich of known skins and core"
        yield _none("roof-snow", "Snow on the roof", why, ids)
        yield _none("roof-person", "Somebody on the roof", why, ids)
        return
    left, low, right, high = surface.polygon.bounds
    span = min(right - left, high - low)
    words = Words(s.build.brief.reading.shown())
    middle = surface.polygon.centroid
    spot = surface.place(middle.x, middle.y)
    source = "sandwich theory, usual panel figures: ask for the data sheet"
    ground = s.build.brief.ground_snow_kpa
    if ground is None:
        yield _none("roof-snow", "Snow on the roof panel", "the ground snow is not said (Brief)", ids)
    else:
        slope = slope_deg(surface)
        snow = st.snow_pa(ground * 1000, slope, s.build.brief.region == "North American", _heated(s)) + _dead_pa(s, face, surface)
        sinks, stress, shear = st.panel_even(panel, span, snow)
        how = f"span {words.m(span)}, {words.of(snow / 1000, 'kPa', 2)}; core {words.of(shear / 1e6, 'MPa', 3)} of {words.of(panel.shear_pa / 1e6, 'MPa', 2)}"
        yield Check(
            "roof-snow",
            "Snow on the roof panel",
            where=ids,
            value=max(stress / panel.face_pa, shear / panel.shear_pa) * panel.face_pa,
            limit=panel.face_pa,
            unit="Pa",
            how=how,
            source=source,
            spot=spot,
        )
        yield Check(
            "roof-sinks",
            "Sinking of the roof panel",
            where=ids,
            value=sinks,
            limit=span / st.SOFT,
            unit="m",
            how=f"{how}; span/240",
            source=source,
            spot=spot,
        )
    _, stress, shear = st.panel_point(panel, span, st.PERSON_N)
    worst = max(stress / panel.face_pa, shear / panel.shear_pa) * panel.face_pa
    yield Check(
        "roof-person",
        "Somebody on the roof panel",
        where=ids,
        value=worst,
        limit=panel.face_pa,
        unit="Pa",
        how=f"span {words.m(span)}, {{1.2 kN}} on a strip of {{0.6 m}}",
        source=source,
        spot=spot,
    )


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


def _pitch(spars: list[Member], usual: float) -> float:
    """The widest gap between neighbours [m]."""
    at = sorted({round(float(np.mean([x for x, _ in m.outline])), 3) for m in spars})
    return max((b - a for a, b in itertools.pairwise(at)), default=usual)


def _bearing(s: Studied) -> float:
    """What of a spar's length lies on its supports [m]."""
    sizes = s.framed.sizes
    assert sizes is not None
    return 2 * sizes.stick[1] if not sizes.side_thick else 0.0


def _section(member: Member, stuff: st.Stuff) -> st.Section:
    wide, deep = member.section_m
    if member.wall_m > 0:
        return st.tube(wide, deep, member.wall_m)
    return st.solid(wide, deep, {"steel": st.STEEL_E, "plywood": st.PLY_E}.get(stuff, st.SOFTWOOD_E))


def stuff_of(s: Studied, member: Member) -> st.Stuff:
    """What a stick is reckoned as."""
    family = family_of(member.material, {**FRAME_STUFF, **library_of(s.facts.materials)})
    if member.wall_m > 0 or family == "metal":
        return "steel"
    return "plywood" if family == "plywood" else "softwood"


def _source(stuff: st.Stuff) -> str:
    return {"softwood": "softwood by NDS habit", "plywood": "birch plywood, {15 MPa}", "steel": "mild steel, yield over 1.5"}[stuff]


def _dead_pa(s: Studied, face: Face | None, surface: Surface) -> float:
    """Weight of a face with its sticks [Pa]."""
    kg = sum(m.mass_kg for m in s.framed.on(surface.id)) / max(surface.area_m2, 1e-6)
    if face is not None:
        sums = face_sums(face, s.build.shell, s.framed, library_of(s.facts.materials))
        if sums.build is not None:
            kg += sums.build.kg_m2
        elif face.mass is not None:
            kg += face.mass.si / max(sums.area_m2, 1e-6)
    return kg * GRAVITY


def _sheath_m(_s: Studied, face: Face | None) -> float:
    """Thickness of the sheets outside of the sticks [m]."""
    return skin_m(face) if face is not None and framed_depth_m(face, 0.0) > 0 else 0.0


def _heated(s: Studied) -> bool:
    return s.build.brief.inside is not None or any(t.burns not in ("none",) and t.room_sealed for t in s.build.stow.things)


# openings
def _headers(s: Studied) -> Iterator[Check]:
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    headers = [
        m
        for m in s.framed.members
        if m.role in ("header", "frame") and m.face in SIDES and m.along_s and m.anchor.split("/")[-1] != "under"
    ]
    if s.build.shell.framing.school == "cut plywood sides" and headers:
        yield _none("headers", "Over the openings", "the cut sides carry, not the furring in them")
        return
    ground = s.build.brief.ground_snow_kpa
    if not headers:
        return
    if ground is None:
        yield _none("headers", "Over the openings", "the ground snow is not said (Brief)")
        return
    american = s.build.brief.region == "North American"
    roof = next((face for face in body.surfaces if face.kind == "roof"), None)
    face = face_of(s.build.shell, "roof")
    over = st.snow_pa(ground * 1000, slope_deg(roof) if roof is not None else 0.0, american, _heated(s)) + (
        _dead_pa(s, face, roof) if roof is not None else 0.0
    )
    made = []
    for member in headers:
        surface = next(b for b in body.surfaces if b.id == member.face)
        wall = _dead_pa(s, face_of(s.build.shell, surface.kind), surface)
        top = surface.polygon.bounds[3]
        above = max(top - max(y for _, y in member.outline), 0.0) * wall
        span = member.length_m
        stuff = stuff_of(s, member)
        deep, thick = member.section_m
        section = st.tube(thick, deep, member.wall_m) if member.wall_m > 0 else st.solid(thick, deep)
        result = st.beam(section, span, over * body.width / 2 + above)
        limit = st.allowable_pa(stuff, deep, st.SNOW, together=False)
        how = f"{words.section((thick, deep))} on edge over {words.m(span)}; {words.of(over / 1000, 'kPa', 2)} on half the roof; {words.of(result.moment_nm, 'N m', 0)}, sinks {words.thick(result.sinks_m)}"
        made.append(
            Check(
                "headers",
                "Over the openings",
                where=(member.anchor.split("/")[0], member.id),
                value=result.stress_pa,
                limit=limit,
                unit="Pa",
                how=how,
                source=_source(stuff),
                spot=member.at_m,
            )
        )
    yield max(made, key=lambda check: check.use or 0.0)


# floors
def _floor(s: Studied) -> Iterator[Check]:
    """The floor's sheets between what carries them: joists, and the frame's cross-members where they are said."""
    body, words, rig = s.framed.body, Words(s.build.brief.reading.shown()), s.build.rig
    assert body is not None
    name = "Floor under a foot"
    if rig.carrier == "vehicle bed":
        yield _none("floor", name, "the bed carries it")
        return
    cross = next((bar for bar in bars_of(rig) if bar.role == "cross-member"), None)
    joists = [m for m in s.framed.on("floor") if m.role in ("joist", "floor tube") and not m.along_s]
    if cross is None or cross.many < 2:
        yield _none("floor", name, "where the frame's cross-members lie is not said (Rails, on Rig)")
        return
    face = face_of(s.build.shell, "floor")
    thick = _sheets_m(s, face)
    if thick <= 0:
        yield _none("floor", name, "what the floor is made of is not said (Faces)")
        return
    assert rig.frame_length is not None
    between = (rig.frame_length.si - (rig.drawbar_length.si if rig.drawbar_length else 0.0)) / (cross.many - 1)
    span = min(between, _pitch(joists, between)) if joists else between
    section = st.solid(FOOT_M, thick, st.PLY_E)
    foot, even = st.beam(section, span, 0.0, st.PERSON_N), st.beam(section, span, st.FLOOR_PA * FOOT_M)
    worst = max(foot, even, key=lambda beam: beam.stress_pa)
    how = f"sheets {words.thick(thick)} in all over {words.m(span)}, {{1.2 kN}} on {{0.3 m}}; {words.of(worst.moment_nm, 'N m', 0)}; joists lie on the rails and cross-members"
    spot = (body.front + body.length / 2, 0.0, body.under)
    yield Check(
        "floor",
        name,
        where=("floor",),
        value=worst.stress_pa,
        limit=st.PLY_PA,
        unit="Pa",
        how=how,
        source="birch plywood, {15 MPa}",
        spot=spot,
    )


def _lofts(s: Studied) -> Iterator[Check]:
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    for loft in s.build.shell.lofts:
        if loft.climb == "ladder":
            yield _rung(s, loft, words)
        if loft.joist is None or loft.joist_pitch is None:
            yield _none("loft", f"{loft.name}", "its joists and their pitch are not said (Walls)", (loft.id,))
            continue
        span, pitch = body.width, loft.joist_pitch.si
        wide, deep = loft.joist.thick.si, loft.joist.deep.si
        made = st.beam(st.solid(wide, deep), span, st.FLOOR_PA * pitch)
        how = f"{words.section((wide, deep))} at {words.m(pitch)} from wall to wall {words.m(span)}; {{1.9 kPa}}; sinks {words.thick(made.sinks_m)}"
        spot = (body.front + (loft.front.si + loft.rear.si) / 2, 0.0, body.under + loft.top.si)
        yield Check(
            "loft",
            loft.name,
            where=(loft.id,),
            value=made.stress_pa,
            limit=st.softwood_pa(deep, 1.0, pitch <= 0.61),
            unit="Pa",
            how=how,
            source="{1.9 kPa}; softwood by NDS habit",
            spot=spot,
        )


def _rung(_s: Studied, loft: Loft, words: Words) -> Check:
    """One rung under one foot, from stile to stile; the ladder leans at 75 degrees."""
    id, name = f"rung/{loft.id}", f"{loft.name}, a rung of its ladder"
    if loft.rung is None or min(loft.rung.thick.si, loft.rung.deep.si) <= 0:
        return _none(id, name, "the section of its rungs is not said (Walls)", (loft.id,))
    high, deep = loft.rung.thick.si, loft.rung.deep.si
    made = st.beam(st.solid(deep, high), LADDER_WIDE_M, 0.0, RUNG_N)
    long, floor = loft.top.si / math.sin(LADDER_RAD), loft.top.si / math.tan(LADDER_RAD)
    how = f"{words.section((high, deep))} over {words.cut(LADDER_WIDE_M)}, {words.fine_newtons(RUNG_N)}; at 75° the ladder is {words.m(long)} long and wants {words.m(floor)} of floor"
    return Check(
        id,
        name,
        where=(loft.id,),
        value=made.stress_pa,
        limit=st.softwood_pa(high, st.MINUTES, together=False),
        unit="Pa",
        how=how,
        source="model house code for tiny houses; local rule decides",
    )


# walls
def _racking(s: Studied) -> Iterator[Check]:
    """Shear of the walls that run along and across, on what of them is sheathed."""
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    mass = _standing_kg(s, heaviest=True)
    for id, name, kinds in (("racking-along", "Walls along, pushed", SIDES), ("racking-across", "Walls across, pushed", ("front", "rear"))):
        walls = [face for face in body.surfaces if face.kind in kinds and not face.swept]
        if id == "racking-across" and not walls:
            yield _none(id, name, "nose and tail are skins that run over, not walls")
            continue
        sheathed, thin, unsaid = 0.0, math.inf, ""
        for wall in walls:
            face = face_of(s.build.shell, wall.kind)
            thick = _sheets_m(s, face)
            if thick <= 0:
                unsaid = f"the {lower_first(wall.id)} has no sheets of wood that are known (Faces)"
            thin = min(thin, thick)
            sheathed += sum(_piers_m(wall, s.framed.holes_in(wall.id)))
        if s.build.shell.framing.school == "sandwich panels" and mass is not None and walls:
            yield _bonded(s, id, name, walls, mass)
            continue
        if unsaid:
            yield _none(id, name, unsaid, tuple(face.id for face in walls))
            continue
        if mass is None or sheathed <= 0:
            why = "no weight is known" if mass is None else "no pier is as wide as half its height"
            yield _none(id, name, why, tuple(face.id for face in walls))
            continue
        limit = st.RACKING_N_M * min(thin / st.RACKING_M, 1.0)
        how = f"0.8 g on {words.kg(mass)} over {words.m(sheathed)} sheathed in {words.thick(thin)}"
        spot = (body.front + body.length / 2, 0.0, body.under + body.height / 2)
        yield Check(
            id,
            name,
            where=tuple(face.id for face in walls),
            value=st.racking_n_m(mass, sheathed),
            limit=limit,
            unit="N/m",
            how=how,
            source="{2.5 kN/m} for {9 mm} fixed every {150 mm}, in proportion under that",
            spot=spot,
        )


def _bonded(s: Studied, id: str, name: str, walls: list[Surface], mass: float) -> Check:
    """Panels are stiff in their plane: what gives is the bond along their feet."""
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    foot = sum(sum(_piers_m(face, s.framed.holes_in(face.id))) for face in walls)
    if foot <= 0:
        return _none(id, name, "no pier is as wide as half its height", tuple(face.id for face in walls))
    shear = st.racking_n_m(mass, foot) / BOND_WIDE_M
    how = f"0.8 g on {words.kg(mass)} along {words.m(foot)} of bond {words.thick(BOND_WIDE_M)} wide"
    spot = (body.front + body.length / 2, 0.0, body.under + 0.1)
    return Check(
        id,
        name,
        where=tuple(face.id for face in walls),
        value=shear,
        limit=BOND_PA,
        unit="Pa",
        how=how,
        source="a tenth of an adhesive's sheet figure; rivets not counted",
        spot=spot,
    )


def _sheets_m(s: Studied, face: Face | None) -> float:
    """Thickness of all sheets of wood of a wall together [m]; 0 where its layers are not known or of other stuff."""
    if face is None:
        return 0.0
    library = library_of(s.facts.materials)
    wood = [layer for layer in face.layers if (m := library.get(layer.material)) and m.form == "sheet" and (m.density_kg_m3 or 0) < 1000]
    return sum(layer.thickness.si for layer in wood)


def _piers_m(wall: Surface, holes: tuple[object, ...]) -> list[float]:
    """Whole stretches of a wall between its openings that are at least half as wide as it is high [m]."""
    left, low, right, high = wall.polygon.bounds
    gaps = sorted((h.bounds[0], h.bounds[2]) for h in holes)  # type: ignore[attr-defined]
    piers, at = [], left
    for a, b in gaps:
        piers.append(a - at)
        at = max(at, b)
    piers.append(right - at)
    return [pier for pier in piers if pier >= (high - low) / 2]


def _standing_kg(s: Studied, heaviest: bool) -> float | None:
    """What stands on the frame, in the heaviest case; or the lightest trailer in all."""
    totals = [float(kg) for kg in s.readings.total_kg if math.isfinite(float(kg)) and float(kg) > 0]
    if not totals:
        return None
    rig = sum(p.mass_kg for p in s.parts if p.made_by.startswith("rig"))
    return max(max(totals) - rig, 1.0) if heaviest else min(totals)


# wind
def _wind(s: Studied) -> Iterator[Check]:
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    mass, track = _standing_kg(s, heaviest=False), s.build.rig.track
    name = "Wind from the side, parked"
    if track is None or track.si <= 0:
        yield _none("wind-parked", name, "the track is not said (Rig)")
    elif mass is None:
        yield _none("wind-parked", name, "no weight is known")
    else:
        area, height = body.side.area_m2, body.side.centroid[1]
        wind = s.build.brief.parked_wind_m_s or PARKED_WIND_M_S
        tips = st.tips_at_m_s(mass, track.si, max(area, 1e-3), max(height, 0.1))
        whose = "as typed" if s.build.brief.parked_wind_m_s else "{25 m/s} where nobody said"
        how = f"{words.kg(mass)} at its lightest, {words.m2(area)} at {words.m(height)}, track {words.m(track.si)}; {whose}"
        yield Check(
            "wind-parked",
            name,
            where=("shell",),
            value=wind,
            limit=tips,
            unit="m/s",
            how=how,
            source="q = 0.6 V², C_d 1.3",
            spot=(body.front + body.length / 2, 0.0, height),
        )


def _held_down(s: Studied) -> Iterator[Check]:
    """Roof skin against its screws, and screws against what they go through; hatches and what lies on the roof."""
    body, words, framing = s.framed.body, Words(s.build.brief.reading.shown()), s.build.shell.framing
    assert body is not None
    roofs = [face for face in body.surfaces if face.kind == "roof"]
    if roofs and framing.school == "sandwich panels":
        pull = st.uplift_n(sum(face.area_m2 for face in roofs))
        long = sum(joint.length_m for joint in joints(s) if joint.b and "roof" in joint.kinds)
        if long > 0:
            how = f"{{735 Pa}} x 1.2 on {words.m2(sum(face.area_m2 for face in roofs))}, on {words.m(long)} of lap {words.thick(BOND_WIDE_M)} wide"
            yield Check(
                "roof-uplift",
                "Roof panel, pulled off its bond",
                where=("roof",),
                value=pull / (long * BOND_WIDE_M),
                limit=BOND_PA,
                unit="Pa",
                how=how,
                source="a tenth of an adhesive's sheet figure; rivets not counted",
                spot=roofs[0].place(roofs[0].polygon.centroid.x, roofs[0].polygon.centroid.y),
            )
    elif roofs and s.framed.members and framing.school not in ("none", "bought shell"):
        pitch = framing.screw_pitch.si if framing.screw_pitch and framing.screw_pitch.si > 0 else SCREW_PITCH_M
        run = sum(float(face.polygon.length) for face in roofs)
        run += sum(m.length_m for face in roofs for m in s.framed.on(face.id) if m.role in ROOF_SPARS)
        pull = st.uplift_n(sum(face.area_m2 for face in roofs))
        holds = run / pitch * SCREW_N
        whose = "as typed" if framing.screw_pitch else "every {150 mm} where nobody said"
        top = max(roofs, key=lambda face: face.area_m2)
        spot = top.place(top.polygon.centroid.x, top.polygon.centroid.y)
        yield Check(
            "roof-uplift",
            "Roof skin, pulled up",
            where=("roof",),
            value=pull,
            limit=holds,
            unit="N",
            how=f"{{735 Pa}} x 1.2; screws {whose} along {words.m(run)}, {{250 N}} each",
            source="{4.8 mm} screws in {9 mm} ply, screening",
            spot=spot,
        )
    yield from _bolted(s)
    for opening in s.build.shell.openings:
        if opening.kind == "hatch" and opening.opens:
            yield _hatch(s, opening)
    yield from _on_the_roof(s)
    faces = [face_of(s.build.shell, kind) for kind in ("left side", "roof", "front")]
    through = [skin_m(f) + framed_depth_m(f, 0.0) for f in faces if f is not None and framed_depth_m(f, 0.0) > 0]
    if through and s.framed.members:
        limit = min(through) - POINT_IN_M
        if framing.screw is None:
            yield _none("screw", f"Screws, {words.thick(limit)} at most", "how long they are is not said (Framing)")
        else:
            yield Check(
                "screw",
                "Screws through the wall",
                where=("shell",),
                value=framing.screw.si,
                limit=limit,
                unit="m",
                how=f"skin and stick {words.thick(min(through))} together, less {{3 mm}}",
                source="shop rule",
                spot=None,
            )


def _bolted(s: Studied) -> Iterator[Check]:
    """Bolts from the body to the frame, in whichever way they are nearer to their limit."""
    made, words = bolts(s), Words(s.build.brief.reading.shown())
    if made is None or not made.many or not s.framed.members:
        return
    pushed, pulled = made.shear_n / made.many, made.uplift_n / made.many
    shear = pushed / BOLT_SHEAR_N >= pulled / BOLT_TENSION_N
    value, limit = (pushed, BOLT_SHEAR_N) if shear else (pulled, BOLT_TENSION_N)
    whose = "as typed" if s.build.shell.framing.bolt_pitch else "as they are laid out here"
    how = f"{made.many} of M10, {words.cut(made.pitch_m)} apart at most, {whose}; {'a stop of 1 g' if shear else 'wind under the roof'}"
    yield Check(
        "body-bolts",
        "Bolts, body to frame",
        where=("shell",),
        value=value,
        limit=limit,
        unit="N",
        how=how,
        source="M10 in {18 mm} plywood, timber code estimate",
    )


def _hatch(s: Studied, opening: Opening) -> Check:
    """Towing air at a shut hatch: half of it on the hinges, half on the latches."""
    id, name, words = f"uplift/{opening.id}", f"{opening.name}, pulled open", Words(s.build.brief.reading.shown())
    if not opening.latch_n:
        return _none(id, name, "what its latches hold is not said (Openings)", (opening.id,))
    area = opening.width.si * opening.height.si
    cut = next((cut for cut in s.framed.cuts if cut.id == opening.id and cut.good), None)
    surface = next((face for face in s.framed.body.surfaces if cut is not None and face.id == cut.surface), None) if s.framed.body else None
    spot = surface.place(cut.shape.centroid.x, cut.shape.centroid.y) if surface is not None and cut is not None else None
    how = f"{{735 Pa}} x 1.2 on {words.m2(area)}, half of it on the latches"
    return Check(
        id,
        name,
        where=(opening.id,),
        value=st.uplift_n(area) / 2,
        limit=opening.latch_n,
        unit="N",
        how=how,
        source="latches by their data sheet",
        spot=spot,
    )


def _on_the_roof(s: Studied) -> Iterator[Check]:
    """Panels, racks and boxes on the roof, pulled up by towing air, against what holds them upward."""
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    low = body.under + ON_ROOF * body.height
    for thing in s.build.stow.things:
        if not thing.outside or thing.z.si < low or thing.taken_out or thing.rides:
            continue
        id, name = f"uplift/{thing.id}", f"{thing.name}, pulled up"
        hold, weight = thing.hold, thing.mass.si * GRAVITY
        rated = hold is not None and hold.rated is not None and hold.rated.si > 0
        up = capacities_n(hold, weight, FRICTION[thing.floor])["up"] if hold is not None and rated else None
        whose = "its holding as rated on Stow"
        if up is None and hold is not None and hold.kind in ("bolt", "built in") and hold.many > 0:
            # nobody typed a rating: as many screws as are said, into what they go
            each = BOLT_TENSION_N if hold.into == "frame" else SCREW_IN_STICK_N if hold.into == "framing" else SCREW_N
            up, whose = hold.many * each, f"{hold.many} screws of {{{each:.0f} N}} each, screening"
        area = thing.length.si * thing.width.si
        pull = st.uplift_n(area) - weight
        spot = (thing.x.si + thing.length.si / 2, thing.y.si, thing.z.si)
        if pull > 0:
            if up is None:
                yield _none(id, name, "what holds it is not rated (Held, on Stow)", (thing.id,))
            else:
                how = f"{{735 Pa}} x 1.2 on {words.m2(area)}, less its weight"
                yield Check(id, name, where=(thing.id,), value=pull, limit=up, unit="N", how=how, source=whose, spot=spot)
        yield from _pressed_down(s, thing, spot)


def _two_feet_nm(foot_n: float, feet_m: list[float], span_m: float) -> float:
    """Greatest moment of a beam on two ends under equal loads at places along it [N m]; those off its ends weigh on the ends."""
    on = [min(max(at, 0.0), span_m) for at in feet_m]
    left = sum(foot_n * (span_m - at) / span_m for at in on)
    return max((left * at - sum(foot_n * max(at - other, 0.0) for other in on) for at in on), default=0.0)


def _pressed_down(s: Studied, thing: Thing, spot: tuple[float, float, float]) -> Iterator[Check]:
    """What lies on the roof, pressed into the sticks under its feet: 2.5 times its weight over a bump, and people in a tent parked.

    Its four feet stand at its corners: two sticks carry two feet each, where they stand along their span. Source: statics;
    the road factor of the frame study; 1.0 parked.
    """
    words = Words(s.build.brief.reading.shown())
    roofs = [face for face in s.framed.body.surfaces if face.kind == "roof"] if s.framed.body is not None else []
    sticks = [m for face in roofs for m in s.framed.on(face.id) if m.role in ROOF_SPARS and not m.along_s and not m.strips]
    people = sum(p.mass.si for p in s.facts.people if p.mass) if "sleeps on the roof" in thing.roles else 0.0
    unweighed = "sleeps on the roof" in thing.roles and any(p.mass is None for p in s.facts.people)
    for id, name, newtons, lasts in (
        (f"down/{thing.id}", f"{thing.name}, pressed down by a bump", ROAD_DOWN * thing.mass.si * GRAVITY, st.MINUTES),
        (f"parked/{thing.id}", f"{thing.name}, with people in it", (thing.mass.si + people) * GRAVITY, st.MINUTES),
    ):
        if id.startswith("parked/"):
            if "sleeps on the roof" not in thing.roles:
                continue
            if not s.facts.people or unweighed:
                yield _none(id, name, "what the people weigh is not said (Brief)", (thing.id,))
                continue
        if not sticks:
            yield _none(id, name, "the roof has no sticks that are known", (thing.id,))
            continue
        at = min(sticks, key=lambda m: abs(m.at_m[0] - spot[0]))
        span = max(at.length_m - _bearing(s), 0.1)
        stuff = stuff_of(s, at)
        across = thing.width.si if thing.turn % 180 == 0 else thing.length.si
        feet = [span / 2 + spot[1] - at.at_m[1] + side * across / 2 for side in (-1, 1)]
        moment = _two_feet_nm(newtons / 4, feet, span)
        stress = moment / _section(at, stuff).modulus_m3
        limit = st.allowable_pa(stuff, at.section_m[1], lasts, together=False)
        factor = f"{ROAD_DOWN:g} x its weight" if id.startswith("down/") else f"{words.kg(thing.mass.si + people)}"
        how = f"{factor}, half of it on {words.section(at.section_m)} over {words.m(span)}; {words.of(moment, 'N m', 0)}"
        yield Check(id, name, where=(thing.id, at.id), value=stress, limit=limit, unit="Pa", how=how, source=_source(stuff), spot=spot)
