"""Do floors, lofts and the rungs of a ladder hold."""

from __future__ import annotations

import math
from collections.abc import Iterator

from uncle_sled.core.document.shell import Loft
from uncle_sled.core.framing.frame_body import face_of
from uncle_sled.core.parts.frame_steel import bars_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell import strength as st
from uncle_sled.core.studies.shell.check import Check, unchecked
from uncle_sled.core.studies.shell.roof_loads import FOOT_M
from uncle_sled.core.studies.shell.what_carries import apart_m, sheets_m
from uncle_sled.core.words import Words

LADDER_WIDE_M, LADDER_RAD, RUNG_N = 0.305, math.radians(75.0), 890.0


# floors
def floor_checks(s: Studied) -> Iterator[Check]:
    """The floor's sheets between what carries them: joists, and the frame's cross-members where they are said."""
    body, words, rig = s.framed.body, Words(s.build.brief.reading.shown()), s.build.rig
    assert body is not None
    name = "Floor under a foot"
    if rig.carrier == "vehicle bed":
        yield unchecked("floor", name, "the bed carries it")
        return
    cross = next((bar for bar in bars_of(rig) if bar.role == "cross-member"), None)
    joists = [m for m in s.framed.on("floor") if m.role in ("joist", "floor tube") and not m.along_s]
    if cross is None or cross.many < 2:
        yield unchecked("floor", name, "where the frame's cross-members lie is not said (Rails, on Rig)")
        return
    face = face_of(s.build.shell, "floor")
    thick = sheets_m(s, face)
    if thick <= 0:
        yield unchecked("floor", name, "what the floor is made of is not said (Faces)")
        return
    assert rig.frame_length is not None
    between = (rig.frame_length.si - (rig.drawbar_length.si if rig.drawbar_length else 0.0)) / (cross.many - 1)
    span = min(between, apart_m(joists, between)) if joists else between
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


def loft_checks(s: Studied) -> Iterator[Check]:
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    for loft in s.build.shell.lofts:
        if loft.climb == "ladder":
            yield _rung(s, loft, words)
        if loft.joist is None or loft.joist_pitch is None:
            yield unchecked("loft", f"{loft.name}", "its joists and their pitch are not said (Walls)", (loft.id,))
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
        return unchecked(id, name, "the section of its rungs is not said (Walls)", (loft.id,))
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
