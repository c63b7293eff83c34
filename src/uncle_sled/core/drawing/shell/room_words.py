"""What is told of the room and the outside of a body, a sentence a line."""

from __future__ import annotations

from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.bends import sheet_bends
from uncle_sled.core.studies.shell.shell_measures import measures
from uncle_sled.core.words import Words

FLAT_M = 50.0  # a larger radius is called flat


def room_words(s: Studied, words: Words) -> list[str]:
    """Area, room inside, bends, departure, overhang and weight of the body as far as they are known."""
    found = measures(s)
    if found is None:
        return ["Take a silhouette or a form and type its sizes to begin."]
    lines = [f"Side {words.m2(found.outline_area_m2, 2)}, skin {words.m2(found.skin_area_m2)} in all."]
    if found.inside_length_m is not None:
        lines.append(f"Inside {words.m(found.inside_length_m)} long at the mattress")
    if found.inside_width_m is not None and found.inside_height_m is not None:
        lines[-1] += f", {words.m(found.inside_width_m)} wide, {words.m(found.inside_height_m)} head room at most."
    if s.build.shell.form == "profile":
        radii = [f"{kind} {words.m(radius)}" for kind, radius in found.radii_m if radius < FLAT_M]
        lines.append(f"Tightest radius: {', '.join(radii) or 'all flat'}.")
    formed = {bend.face_id: bend for bend in sheet_bends(s) if bend.formed_m is not None and bend.radius_m < FLAT_M}
    for face in s.build.shell.faces:
        bend = formed.get(face.id)
        if bend is not None and bend.formed_m is not None:
            lines.append(f"{face.name}: glue its sheets to a form of {words.m(bend.formed_m)}; they spring to {words.m(bend.radius_m)}.")
    if found.departure_deg is not None:
        lines.append(f"Departs at {found.departure_deg:.0f}° behind the rear tyre.")
    if found.overhang_m is not None and found.overhang_m > 0.01:
        lines.append(f"Reaches {words.m(found.overhang_m)} past the frame's end.")
    if found.hatch_line is not None:
        lines.append(f"Hatch line {words.m(found.hatch_line[1])} above the ground.")
    body_kg = sum(part.mass_kg for part in s.parts if part.made_by.startswith("shell."))
    bought = s.build.rig.base == "as bought" and s.build.rig.carrier == "ball"
    lines.append(
        f"What came into the shell since it was weighed: {words.kg(body_kg)}." if bought else f"The body weighs {words.kg(body_kg)}."
    )
    return lines
