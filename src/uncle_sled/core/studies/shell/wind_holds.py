"""Does it stand in the wind: turning over on its pads, pulls at the frame, and its bolts."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.framing.frame_body import face_of, framed_depth_m, skin_m
from uncle_sled.core.parts.rising import Risen, guys_hold_n, risen_of, up_in
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell import strength as st
from uncle_sled.core.studies.shell.check import Check, unchecked
from uncle_sled.core.studies.shell.openings_hold import hatch_check
from uncle_sled.core.studies.shell.roof_holds import ROOF_SPARS
from uncle_sled.core.studies.shell.roof_loads import POINT_IN_M, roof_load_checks
from uncle_sled.core.studies.shell.seams import joints
from uncle_sled.core.studies.shell.shell_measures import BOLT_SHEAR_N, BOLT_TENSION_N, bolts
from uncle_sled.core.studies.shell.walls_hold import BOND_PA, BOND_WIDE_M, SCREW_N, SCREW_PITCH_M
from uncle_sled.core.studies.shell.what_carries import standing_kg
from uncle_sled.core.words import Words

PARKED_WIND_M_S = 25.0


# wind
def parked_wind_m_s(s: Studied) -> float:
    """The wind that a parked rig is held against, a usual one where nobody said [m/s]."""
    return s.build.brief.parked_wind_m_s or PARKED_WIND_M_S


def pushed_n(risen: Risen, wind_m_s: float) -> float:
    """What a wind from the side pushes at a raised roof's edge [N]: half of what it pushes on the cloth.

    Check 2.0 x 0.4 m at 20 m/s: 0.6 x 400 x 1.3 x 0.8 / 2 = 124.8 N.
    """
    return st.AIR * wind_m_s**2 * st.CD_PARKED * risen.side_m2 / 2


def wind_checks(s: Studied) -> Iterator[Check]:
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    mass, track = standing_kg(s, heaviest=False), s.build.rig.track
    name = "Wind from the side, parked"
    if track is None or track.si <= 0:
        yield unchecked("wind-parked", name, "the track is not said (Rig)")
    elif mass is None:
        yield unchecked("wind-parked", name, "no weight is known")
    else:
        area, height = body.side.area_m2, body.side.centroid[1]
        wind = parked_wind_m_s(s)
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


def risen_checks(s: Studied) -> Iterator[Check]:
    """With the roof up, where one stands so: does it turn over, and what holds the roof against a wind from the side."""
    body, rising, words = s.framed.body, s.build.shell.rising, Words(s.build.brief.reading.shown())
    risen = risen_of(s.build.shell, body)
    if body is None or rising is None or risen is None or risen.fault or not any(up_in(s.build.shell, m) for m in s.build.stow.modes):
        return
    wind = parked_wind_m_s(s)
    whose = f"{{{wind:g} m/s}} as typed" if s.build.brief.parked_wind_m_s else "{25 m/s} where nobody said"
    spot = ((risen.a_m + risen.b_m) / 2, 0.0, risen.top_up_m)
    name = "Roof up, pushed by wind from the side"
    holds, pushed = guys_hold_n(rising), pushed_n(risen, wind)
    if holds is None:
        yield unchecked("risen-push", name, "what a guy holds is not said (Roof up)", ("rising",))
    elif holds <= 0:
        told = f"{words.fine_newtons(pushed)} push by {whose}; struts hold nothing sideways, and no guys are said"
        yield unchecked("risen-push", name, told, ("rising",))
    else:
        how = f"half of {words.m2(risen.side_m2)} of cloth; {whose}; half of {rising.guys} guys at 45°"
        yield Check(
            "risen-push", name, where=("rising",), value=pushed, limit=holds, unit="N", how=how, source="q = 0.6 V², C_d 1.3", spot=spot
        )
    mass, track = standing_kg(s, heaviest=False), s.build.rig.track
    name = "Wind from the side, parked with the roof up"
    if track is None or track.si <= 0 or mass is None:
        yield unchecked("wind-risen", name, "track or weight is not known (Rig)", ("rising",))
        return
    area, height = body.side.area_m2, body.side.centroid[1]
    both = area + risen.side_m2
    middle = (area * height + risen.side_m2 * (risen.top_down_m + risen.rise_m / 2)) / max(both, 1e-9)
    tips = st.tips_at_m_s(mass, track.si, max(both, 1e-3), max(middle, 0.1))
    how = f"{words.kg(mass)} at its lightest, {words.m2(both)} at {words.m(middle)}, track {words.m(track.si)}; {whose}"
    yield Check("wind-risen", name, where=("rising",), value=wind, limit=tips, unit="m/s", how=how, source="q = 0.6 V², C_d 1.3", spot=spot)


def _front_pushed(s: Studied, words: Words) -> Iterator[Check]:
    """A front of panels against the air it meets, on the laps of its bond to the faces round it."""
    body = s.framed.body
    assert body is not None
    fronts = body.of("front")
    long = sum(joint.length_m for joint in joints(s) if joint.b and "front" in joint.kinds and set(joint.kinds) != {"front"})
    if not fronts or long <= 0:
        return
    area = sum(face.area_m2 - sum(hole.area for hole in s.framed.holes_in(face.id)) for face in fronts)
    middle = fronts[0].polygon.centroid
    yield Check(
        "front-pushed",
        "Front panel, pushed by towing air",
        where=("front",),
        value=st.facing_n(area) / (long * BOND_WIDE_M),
        limit=BOND_PA,
        unit="Pa",
        how=f"{{735 Pa}} x 0.8 on {words.m2(area)}, on {words.m(long)} of lap {words.thick(BOND_WIDE_M)} wide",
        source="a tenth of an adhesive's sheet figure; rivets not counted",
        spot=fronts[0].place(middle.x, middle.y),
    )


def held_down_checks(s: Studied) -> Iterator[Check]:
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
        yield from _front_pushed(s, words)
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
    yield from bolt_checks(s)
    for opening in s.build.shell.openings:
        if opening.kind == "hatch" and opening.opens:
            yield hatch_check(s, opening)
    yield from roof_load_checks(s)
    faces = [face_of(s.build.shell, kind) for kind in ("left side", "roof", "front")]
    through = [skin_m(f) + framed_depth_m(f, 0.0) for f in faces if f is not None and framed_depth_m(f, 0.0) > 0]
    if through and s.framed.members:
        limit = min(through) - POINT_IN_M
        if framing.screw is None:
            yield unchecked("screw", f"Screws, {words.thick(limit)} at most", "how long they are is not said (Framing)")
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


def bolt_checks(s: Studied) -> Iterator[Check]:
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
