"""Does the roof hold: snow and dead load on spars, ridges and bare panels."""

from __future__ import annotations

import math
from collections.abc import Iterator

from uncle_sled.core.framing.frame_body import face_of
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.parts.ridge_sticks import TIE_PITCH_M
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell import strength as st
from uncle_sled.core.studies.shell.check import Check, unchecked
from uncle_sled.core.studies.shell.ridge import Pitch, beam_n_m, carries, held, pitch_of, thrust_n_m
from uncle_sled.core.studies.shell.what_carries import (
    apart_m,
    bearing_m,
    dead_pa,
    heated,
    panel_of,
    section_of,
    sheath_m,
    slope_deg,
    source_of,
    stuff_of,
)
from uncle_sled.core.words import Words

ROOF_SPARS = ("rafter", "spar", "cross-tube", "rib", "bow")


# roofs
def roof_checks(s: Studied) -> Iterator[Check]:
    body = s.framed.body
    assert body is not None
    roofs = [face for face in body.surfaces if face.kind == "roof" or face.id.startswith("bevel")]
    made: list[Check] = []
    pitch = pitch_of(s.build.shell, body)
    if pitch is not None:
        yield from _ridge(s, pitch, roofs)
        if not held(s.build.shell.ridge, pitch):
            why = f"what holds the {_ridge_name(pitch)} is not said (Holds)"
            yield unchecked("roof-snow", "Snow on the rafters", why, tuple(face.id for face in roofs))
            yield unchecked("roof-sinks", "Sinking of the rafters", why, tuple(face.id for face in roofs))
            if not s.build.brief.nobody_on_roof:
                yield unchecked("roof-person", "Somebody on the rafters", why, tuple(face.id for face in roofs))
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
        made.append(unchecked("roof", "Roof", "no roof is drawn"))
    yield from (check for check in _worst(made) if check.id != "roof-person" or not s.build.brief.nobody_on_roof)


def _ridge_name(pitch: Pitch) -> str:
    return "valley" if pitch.valley else "ridge"


def roof_load_pa(s: Studied, roofs: list[Surface], pitch: Pitch) -> float | None:
    """Snow and the roof's own weight on its plan [Pa]; None where the ground snow is not said."""
    ground = s.build.brief.ground_snow_kpa
    if ground is None or not roofs:
        return None
    slope = math.degrees(math.atan2(pitch.rise_m, pitch.wide_m / 2))
    snow = st.snow_pa(ground * 1000, slope, s.build.brief.region == "North American", heated(s), pitch.valley)
    dead = max(dead_pa(s, face_of(s.build.shell, "roof"), face) for face in roofs) / math.cos(math.radians(slope))
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
        yield unchecked("ridge", title, f"{lacks}: nobody said what holds it (Holds)", ids)
        return
    if load is None:
        yield unchecked("ridge", title, "the ground snow is not said (Brief)", ids)
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
        yield unchecked("ridge", "Collars", "how high over the plates they are is not said (Holds)", ids)
    elif not math.isfinite(pull):
        yield unchecked("ridge", "Collars", "at the ridge a collar holds nothing; lower would be right", ids)
    elif ridge.tie_holds_n is None:
        yield unchecked(
            "ridge", f"Each {what}", f"it pulls {words.fine_newtons(pull)}; what it holds with its joints is not said (Holds)", ids
        )
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
    span = max(member.length_m - bearing_m(s), 0.1) * (1.0 if surface.swept else flat)
    pitch = apart_m(spars, sizes.rib_pitch)
    face = face_of(s.build.shell, surface.kind)
    dead = dead_pa(s, face, surface)
    stuff = stuff_of(s, member)
    section = section_of(member, stuff)
    deep = member.section_m[1]
    place = f"{words.section(member.section_m)} at {words.m(pitch)}, span {words.m(span)}"
    ids, spot = (surface.id, member.id), member.at_m
    ground = s.build.brief.ground_snow_kpa
    name = {"cross-tube": "cross-tubes", "bow": "bows", "rib": "ribs", "spar": "spars"}.get(member.role, "rafters")
    if ground is None:
        yield unchecked("roof-snow", f"Snow on the {name}", "the ground snow is not said (Brief)", ids)
        yield unchecked("roof-sinks", f"Sinking of the {name}", "the ground snow is not said (Brief)", ids)
    else:
        snow = st.snow_pa(ground * 1000, slope, s.build.brief.region == "North American", heated(s), s.build.shell.form == "butterfly")
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
            source=f"{rule}; {source_of(stuff)}",
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
    share = st.SHARE_SHEATHED if sheath_m(s, face) >= st.LEAST_SHEATH_M and pitch <= st.CLOSE_M else st.SHARE_BARE
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
        source=f"shares by sheathing, practice; {source_of(stuff)}",
        spot=spot,
    )


def _bare(s: Studied, surface: Surface) -> Iterator[Check]:
    """A roof without sticks: a sandwich from edge to edge, the short way."""
    face = face_of(s.build.shell, surface.kind)
    panel = panel_of(s, face)
    ids = (surface.id,)
    if panel is None:
        why = "the roof has neither sticks nor a sandwich of known skins and core"
        yield unchecked("roof-snow", "Snow on the roof", why, ids)
        yield unchecked("roof-person", "Somebody on the roof", why, ids)
        return
    left, low, right, high = surface.polygon.bounds
    span = min(right - left, high - low)
    words = Words(s.build.brief.reading.shown())
    middle = surface.polygon.centroid
    spot = surface.place(middle.x, middle.y)
    source = "sandwich theory, usual panel figures: ask for the data sheet"
    ground = s.build.brief.ground_snow_kpa
    if ground is None:
        yield unchecked("roof-snow", "Snow on the roof panel", "the ground snow is not said (Brief)", ids)
    else:
        slope = slope_deg(surface)
        snow = st.snow_pa(ground * 1000, slope, s.build.brief.region == "North American", heated(s)) + dead_pa(s, face, surface)
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
