"""Pages for the shop wall: the side with its sticks, every face laid flat with its tables, the layers cut through, every hole."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.drawing.cut.face_page import face_pages
from uncle_sled.core.drawing.cut.water_line import water_pages
from uncle_sled.core.drawing.page import POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text, placed
from uncle_sled.core.drawing.rig.rig_views import heights_m, side_rig, side_wheels
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.drawing.shell.offsets_page import offsets_pages
from uncle_sled.core.drawing.shell.school_pages import school_pages
from uncle_sled.core.drawing.shell.shell_views import body_line, layer_section, layer_words, side_openings, side_sticks
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.drawing.text_width import wrapped
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.shell.holes import SEALS, holes
from uncle_sled.core.studies.shell.shell_measures import bolts, measures
from uncle_sled.core.words import Words

LAYERS_HIGH, LAYERS_WIDE = 70.0, 250.0


def framing_sheets(s: Studied, project_name: str, printed: str) -> tuple[Page, ...]:
    """All pages of a body; none where there is no body yet."""
    if s.framed.body is None:
        return ()
    pages = [*_side_pages(s, project_name, printed)]
    for surface in s.framed.body.surfaces:
        pages += face_pages(s, surface, project_name, printed)
        if surface.id == "left side" and s.build.shell.form == "profile":
            pages += offsets_pages(s, surface, project_name, printed)
    if any(face.layers for face in s.build.shell.faces) or s.build.shell.openings:
        pages += _section_pages(s, project_name, printed)
    return (*pages, *school_pages(s, project_name, printed), *water_pages(s, project_name, printed))


def _side_pages(s: Studied, name: str, printed: str) -> tuple[Page, ...]:
    words, size = Words(s.build.brief.reading.shown()), paper_of(s.build).lying
    top, _ = heights_m(s.build)
    left = 0.95 if s.build.rig.carrier == "vehicle bed" else 0.4
    reach = length_m(s.build) + left + 0.6
    n = scale_for(reach, top + 0.3, (size[0] - 68, size[1] - 195.0))
    per_m = POINTS_PER_M / n
    sheets = Sheets(size, f"{name}: left side", f"framing, 1 : {n}, {printed}")
    sheets.stops(stop_words(s, ("Shell",), where=("shell",)))
    inside = (*side_rig(s.build), *body_line(s), *side_sticks(s), *side_openings(s, words, per_m), *side_wheels(s.build))
    x0 = (sheets.room[0] - reach * per_m) / 2 + left * per_m
    sheets.picture((top + 0.2) * per_m, placed(inside, per_m, x0, 0.1 * per_m))
    for text in _sums(s, words):
        sheets.words(text)
    return sheets.done()


def _sums(s: Studied, words: Words) -> Iterator[str]:
    m, down = measures(s), bolts(s)
    sticks = sum(member.mass_kg for member in s.framed.members)
    if s.framed.members:
        metres = sum(member.length_m for member in s.framed.members)
        yield f"{len(s.framed.members)} sticks, {words.m(metres)} in all, {words.kg(sticks)}"
    if m and m.inside_height_m and m.inside_length_m:
        yield f"Inside {words.cut(m.inside_length_m)} at the mattress, head room {words.cut(m.inside_height_m)}"
    if down is not None:
        pull = f"{words.newtons(down.shear_n)} of braking and {words.newtons(down.uplift_n)} of wind"
        yield f"Bolts to the frame: {down.many} of M10, at most {words.cut(down.pitch_m)} apart, for {pull}"
        yield "Bolt stations from the ball: " + ", ".join(words.cut(x) for x in down.stations_m)


def _section_pages(s: Studied, name: str, printed: str) -> tuple[Page, ...]:
    words, size = Words(s.build.brief.reading.shown()), paper_of(s.build).lying
    library = library_of(s.facts.materials)
    sheets = Sheets(size, f"{name}: layers and holes", f"layers 1 : 2, {printed}")
    seen: dict[tuple[object, ...], list[str]] = {}
    for face in s.build.shell.faces:
        if face.layers:
            seen.setdefault(tuple((la.material, la.thickness.si, la.framing) for la in face.layers), []).append(face.id)
    faces = [(next(f for f in s.build.shell.faces if f.id == ids[0]), ids) for ids in seen.values()]
    across = max(int(sheets.room[0] // LAYERS_WIDE), 1)
    for begin in range(0, len(faces), across):
        row = faces[begin : begin + across]
        told = [[r for text in layer_words(face, library, words) for r in wrapped(text, 9, LAYERS_WIDE - 15)] for face, _ in row]
        named = [wrapped(", ".join(f.name for f in s.build.shell.faces if f.id in ids), 10, LAYERS_WIDE - 15, "strong") for _, ids in row]
        under, over = 22 + 11 * max(len(rows) for rows in told), 24 + 12 * max(len(rows) for rows in named)
        shapes: list[Primitive] = []
        for k, ((face, _), lines, titles) in enumerate(zip(row, told, named, strict=True)):
            x = k * LAYERS_WIDE
            shapes += [
                Text((x, under + LAYERS_HIGH + over - 8 - 12 * at), text, 10, "ink", "strong", "left") for at, text in enumerate(titles)
            ]
            shapes += layer_section(face, library, (x, under), LAYERS_HIGH, POINTS_PER_M / 2, words)
            shapes += [Text((x, under - 24 - 11 * at), text, 9, "ink", anchor="left") for at, text in enumerate(lines)]
        sheets.picture(under + LAYERS_HIGH + over, shapes)
    found = holes(s)
    sheets.head(f"Holes in the skin: {sum(h.many for h in found)}, of them {sum(h.many for h in found if h.on_roof)} in the roof")
    rows = []
    for hole in found:
        opening = hole.opening
        drip = "drip edge" if opening.drip else "NO drip edge" if hole.wants_drip else ""
        rows.append(("[  ]", opening.name, opening.face, SEALS[opening.seal], drip, words.cut(hole.seam_m)))
    heads = (
        Column(""),
        Column("What", wraps=True),
        Column("Face"),
        Column("Sealed with", wraps=True),
        Column("Over it"),
        Column("Seam", right=True),
    )
    sheets.table(heads, rows)
    return sheets.done()
