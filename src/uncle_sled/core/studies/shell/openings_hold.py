"""Does the frame round openings hold: headers over them, and the edge a hatch hangs on."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.shell import Opening
from uncle_sled.core.framing.frame_body import face_of
from uncle_sled.core.geometry.surfaces import SIDES
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell import strength as st
from uncle_sled.core.studies.shell.check import Check, unchecked
from uncle_sled.core.studies.shell.what_carries import dead_pa, heated, slope_deg, source_of, stuff_of
from uncle_sled.core.words import Words


# openings
def header_checks(s: Studied) -> Iterator[Check]:
    body, words = s.framed.body, Words(s.build.brief.reading.shown())
    assert body is not None
    headers = [
        m
        for m in s.framed.members
        if m.role in ("header", "frame") and m.face in SIDES and m.along_s and m.anchor.split("/")[-1] != "under"
    ]
    if s.build.shell.framing.school == "cut plywood sides" and headers:
        yield unchecked("headers", "Over the openings", "the cut sides carry, not the furring in them")
        return
    ground = s.build.brief.ground_snow_kpa
    if not headers:
        return
    if ground is None:
        yield unchecked("headers", "Over the openings", "the ground snow is not said (Brief)")
        return
    american = s.build.brief.region == "North American"
    roof = next((face for face in body.surfaces if face.kind == "roof"), None)
    face = face_of(s.build.shell, "roof")
    over = st.snow_pa(ground * 1000, slope_deg(roof) if roof is not None else 0.0, american, heated(s)) + (
        dead_pa(s, face, roof) if roof is not None else 0.0
    )
    made = []
    for member in headers:
        surface = next(b for b in body.surfaces if b.id == member.face)
        wall = dead_pa(s, face_of(s.build.shell, surface.kind), surface)
        top = surface.polygon.bounds[3]
        above = max(top - max(y for _, y in member.outline), 0.0) * wall
        span = member.length_m
        stuff = stuff_of(s, member)
        deep, thick = member.section_m
        section = st.of_sheet(thick, deep, member.wall_m, open_c=member.channel) if member.wall_m > 0 else st.solid(thick, deep)
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
                source=source_of(stuff),
                spot=member.at_m,
            )
        )
    yield max(made, key=lambda check: check.use or 0.0)


def hatch_check(s: Studied, opening: Opening) -> Check:
    """Towing air at a shut hatch: half of it on the hinges, half on the latches."""
    id, name, words = f"uplift/{opening.id}", f"{opening.name}, pulled open", Words(s.build.brief.reading.shown())
    if not opening.latch_n:
        return unchecked(id, name, "what its latches hold is not said (Openings)", (opening.id,))
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
