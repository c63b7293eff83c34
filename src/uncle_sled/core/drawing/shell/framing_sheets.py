"""Pages for the shop wall: the side with its sticks, every face laid flat with its cutting list, the layers cut through."""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.drawing.page import POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.primitives import Point, Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.rig_views import heights_m, side_rig, side_wheels
from uncle_sled.core.drawing.shell.offsets_page import EDGE, HEIGHT, WIDTH, head, offsets_page
from uncle_sled.core.drawing.shell.school_pages import school_pages
from uncle_sled.core.drawing.shell.shell_views import body_line, flat_face, layer_section, layer_words, side_openings, side_sticks
from uncle_sled.core.drawing.text_width import elided, text_width, wrapped
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.laid import laid, laid_title
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.shell.holes import SEALS, holes
from uncle_sled.core.studies.shell.shell_measures import bolts, measures
from uncle_sled.core.words import Words

LIST_WIDE, ROW = 260.0, 11.5
BESIDE = 68.0  # room at the right of a face for its height in words


class Piece(msgspec.Struct, frozen=True):
    """Sticks that are cut alike: letter, their ids, and one of them."""

    mark: str
    ids: tuple[str, ...]
    member: Member

    @property
    def many(self) -> int:
        return len(self.ids)


def pieces_of(members: tuple[Member, ...]) -> tuple[Piece, ...]:
    """Sticks of one face gathered by kind, section, length and end cuts, longest first; lengths to the millimetre."""
    alike: dict[tuple[object, ...], list[Member]] = {}
    for m in members:
        ends = tuple(sorted(abs(round(e)) for e in m.ends_deg))
        alike.setdefault((m.kind, m.section_m, round(m.length_m, 3), ends), []).append(m)
    order = sorted(alike.values(), key=lambda group: (-group[0].length_m, group[0].kind))
    return tuple(Piece(_letter(at), tuple(m.id for m in group), group[0]) for at, group in enumerate(order))


def _letter(at: int) -> str:
    return chr(65 + at) if at < 26 else f"{chr(64 + at // 26)}{chr(65 + at % 26)}"


def framing_sheets(s: Studied, project_name: str, printed: str) -> tuple[Page, ...]:
    """All pages of a body; none where there is no body yet."""
    if s.framed.body is None:
        return ()
    pages = [_side_page(s, project_name, printed)]
    for surface in s.framed.body.surfaces:
        pages.append(_face_page(s, surface, project_name, printed))
        if surface.id == "left side" and s.build.shell.form == "profile":
            pages.append(offsets_page(s, surface, project_name, printed))
    if any(face.layers for face in s.build.shell.faces) or s.build.shell.openings:
        pages.append(_section_page(s, project_name, printed))
    return (*pages, *school_pages(s, project_name, printed))


def _side_page(s: Studied, name: str, printed: str) -> Page:
    words = Words(s.build.brief.reading.shown())
    top, _ = heights_m(s.build)
    left = 0.95 if s.build.rig.carrier == "vehicle bed" else 0.4
    reach = length_m(s.build) + left + 0.6
    scale = scale_for(reach, top + 0.3, (WIDTH - 2 * EDGE, 400.0))
    per_m = POINTS_PER_M / scale
    x0, y0 = (WIDTH - reach * per_m) / 2 + left * per_m, HEIGHT - EDGE - 34 - (top + 0.1) * per_m
    inside = (*side_rig(s.build), *body_line(s), *side_sticks(s), *side_openings(s, words, per_m), *side_wheels(s.build))
    shapes = head(f"{name}: left side, framing", f"1 : {scale} on A4, {printed}")
    shapes += placed(inside, per_m, x0, y0)
    shapes += _sums(s, words, y0 - 24)
    return Page(WIDTH, HEIGHT, tuple(shapes), f"{name}: left side")


def _sums(s: Studied, words: Words, top: float) -> list[Primitive]:
    m, down = measures(s), bolts(s)
    said = []
    sticks = sum(member.mass_kg for member in s.framed.members)
    if s.framed.members:
        metres = sum(member.length_m for member in s.framed.members)
        said.append(f"{len(s.framed.members)} sticks, {words.m(metres)} in all, {words.kg(sticks)}")
    if m and m.inside_height_m and m.inside_length_m:
        said.append(f"Inside {words.cut(m.inside_length_m)} at the mattress, head room {words.cut(m.inside_height_m)}")
    if down is not None:
        said.append(
            f"Bolts to the frame: {down.many} of M10, at most {words.cut(down.pitch_m)} apart, for {words.newtons(down.shear_n)} of braking and {words.newtons(down.uplift_n)} of wind"
        )
        said.append("Bolt stations from the ball: " + ", ".join(words.cut(x) for x in down.stations_m[:14]))
    shapes: list[Primitive] = []
    for text in said:
        for row in wrapped(text, 10, WIDTH - 2 * EDGE):
            if top > EDGE:
                shapes.append(Text((EDGE, top), row, 10, "ink", "text", "left"))
            top -= 13
    return shapes


def _face_page(s: Studied, surface: Surface, name: str, printed: str) -> Page:
    words = Words(s.build.brief.reading.shown())
    on = laid(surface)
    left, low, right, high = on.bounds(surface.polygon.bounds)
    aside = 40.0 if on.turned else 10.0  # the stations of a turned face stand at its left
    room = (WIDTH - 2 * EDGE - LIST_WIDE - BESIDE - aside, HEIGHT - 2 * EDGE - 90)
    scale = scale_for(right - left, high - low, room)
    per_m = POINTS_PER_M / scale
    x0 = EDGE + aside - left * per_m
    y0 = HEIGHT - EDGE - 40 - high * per_m
    title = laid_title(surface)
    if surface.id == "right side":
        title += ", as seen from the left: the left one's mirror, good face out"
    shapes = head(f"{name}: {title}", f"1 : {scale} on A4, {printed}")
    shapes += placed(flat_face(s, surface, words, per_m), per_m, x0, y0)
    shapes += _middles(s, surface, words, per_m, x0, y0)
    made = pieces_of(s.framed.on(surface.id))
    shapes += _letters(s, surface, made, shapes, per_m, x0, y0)
    shapes += _list(made, words, WIDTH - EDGE - LIST_WIDE + 6, HEIGHT - EDGE - 34)
    return Page(WIDTH, HEIGHT, tuple(shapes), f"{name}: {title}")


LETTER = 7.0
ALONG = (0.5, 0.35, 0.65, 0.2, 0.8, 0.1, 0.9, 0.27, 0.73, 0.05, 0.95)


def _letters(
    s: Studied, surface: Surface, made: tuple[Piece, ...], over: list[Primitive], per_m: float, x0: float, y0: float
) -> list[Primitive]:
    """Every stick's letter on it, where no words and no other letter stand; beside it with a leader where it is full."""
    taken = [_box(text.at, text.text, text.size, text.anchor, text.face) for text in over if isinstance(text, Text)]
    marks = {id: piece.mark for piece in made for id in piece.ids}
    on, shapes = laid(surface), list[Primitive]()
    for m in s.framed.on(surface.id):
        outline = on.points(m.outline)
        xs, ys = [p[0] for p in outline], [p[1] for p in outline]
        left, right, low, high = min(xs), max(xs), min(ys), max(ys)
        upright = high - low > right - left
        spots = [((left + right) / 2, low + (high - low) * k) if upright else (left + (right - left) * k, (low + high) / 2) for k in ALONG]
        on_it = [(x * per_m + x0, y * per_m + y0) for x, y in spots]
        beside = [(x + dx, y + dy) for x, y in on_it for dx, dy in (((9, 0), (-9, 0)) if upright else ((0, 9), (0, -9)))]
        for at in (*on_it, *beside):
            box = _box(at, marks[m.id], LETTER, "middle")
            if any(box[0] < t[2] and box[2] > t[0] and box[1] < t[3] and box[3] > t[1] for t in taken):
                continue
            taken.append(box)
            if at not in on_it:
                shapes.append(line(at, min(on_it, key=lambda p, at=at: math.dist(p, at)), "pencil", 0.5))  # type: ignore[misc]
            shapes.append(Text(at, marks[m.id], LETTER, "ink", ground="paper", id=m.id))
            break
    return shapes


def _box(at: Point, text: str, size: float, anchor: str, face: str = "text") -> tuple[float, float, float, float]:
    wide = text_width(text, size, face) + 2
    left = at[0] - wide * {"left": 0.0, "middle": 0.5, "right": 1.0}[anchor]
    return left, at[1] - size * 0.62, left + wide, at[1] + size * 0.62


def _middles(s: Studied, surface: Surface, words: Words, per_m: float, x0: float, y0: float) -> list[Primitive]:
    """Stations of the sticks across the face from its end, as they are marked on the plate: from the left, or the foot."""
    on = laid(surface)
    left, low, _, _ = on.bounds(surface.polygon.bounds)
    middles = [
        on.point(((min(p[0] for p in m.outline) + max(p[0] for p in m.outline)) / 2, 0.0)) for m in s.framed.on(surface.id) if not m.along_s
    ]
    shapes: list[Primitive] = []
    if not middles:
        return shapes
    last = -1e9
    if on.turned:
        x = left * per_m + x0 - 22
        for at in sorted({round(p[1], 3) for p in middles}):
            y = at * per_m + y0
            shapes.append(line((x + 14, y), (x + 19, y), "pencil", 0.8))
            if y > last + 9:
                shapes.append(Text((x + 12, y), words.cut(at - low), 7.5, "pencil", anchor="right"))
                last = y
        shapes.append(Text((x, low * per_m + y0 - 34), "middles along the skin from the foot", 8, "pencil", anchor="left"))
        return shapes
    y = low * per_m + y0 - 32
    for at in sorted({round(p[0], 3) for p in middles}):
        x = at * per_m + x0
        shapes.append(line((x, y + 5), (x, y + 10), "pencil", 0.8))
        text = Text((x, y), words.cut(at), 7.5, "pencil")
        if x - text.width / 2 > last + 4:
            shapes.append(text)
            last = x + text.width / 2
    shapes.append(Text((x0, y - 11), "middles from the left end", 8, "pencil", anchor="left"))
    return shapes


def _list(made: tuple[Piece, ...], words: Words, x: float, top: float) -> list[Primitive]:
    shapes: list[Primitive] = [
        Text((x, top), "Sticks, draft", 11, "ink", "head", "left"),
        Text((x + LIST_WIDE - 8, top), "end cuts off square", 8, "pencil", "text", "right"),
    ]
    y = top - 6
    for at, piece in enumerate(made):
        y -= ROW
        if y < EDGE + 8:
            shapes.append(Text((x, y), f"and {len(made) - at} kinds more", 9, "pencil", "text", "left"))
            break
        m = piece.member
        size = words.section(m.section_m)
        ends = " / ".join(f"{abs(e):.0f}°" for e in m.ends_deg if abs(e) > 0.5)
        for text, dx, anchor in (
            (piece.mark, 0, "left"),
            (f"{piece.many} ×", 34, "right"),
            (elided(m.kind, 9, 150 - 46 - text_width(size, 9)), 40, "left"),
            (size, 150, "right"),
            (words.cut(m.length_m), 208, "right"),
            (ends, LIST_WIDE - 8, "right"),
        ):
            if text:
                shapes.append(Text((x + dx, y), text, 9, "ink", "strong" if dx == 0 else "text", anchor))  # type: ignore[arg-type]
    if not made:
        shapes.append(Text((x, y - ROW), "No sticks in this face", 9, "pencil", "text", "left"))
    return shapes


def _section_page(s: Studied, name: str, printed: str) -> Page:
    words = Words(s.build.brief.reading.shown())
    library = library_of(s.facts.materials)
    shapes = head(f"{name}: what the faces are made of, and every hole", f"layers 1 : 2, {printed}")
    seen: dict[tuple[object, ...], list[str]] = {}
    for face in s.build.shell.faces:
        if face.layers:
            seen.setdefault(tuple((la.material, la.thickness.si, la.framing) for la in face.layers), []).append(face.id)
    x, y, high = EDGE, HEIGHT - EDGE - 136, 70.0
    for ids in list(seen.values())[:8]:
        face = next(f for f in s.build.shell.faces if f.id == ids[0])
        named = ", ".join(f.name for f in s.build.shell.faces if f.id in ids)
        shapes.append(Text((x, y + high + 30), elided(named, 10, 240), 10, "ink", "strong", "left"))
        shapes += layer_section(face, library, (x, y), high, POINTS_PER_M / 2, words)
        for at, row in enumerate(layer_words(face, library, words)):
            shapes.append(Text((x, y - 22 - 11 * at), elided(row, 9, 235), 9, "ink", "text", "left"))
        x += 262
        if x + 200 > WIDTH - EDGE:
            x, y = EDGE, y - 190
    return Page(WIDTH, HEIGHT, (*shapes, *_holes(s, words, 150 if len(seen) <= 3 else 100)), f"{name}: layers and holes")


def _holes(s: Studied, words: Words, top: float) -> list[Primitive]:
    found = holes(s)
    shapes: list[Primitive] = [
        Text(
            (EDGE, top + 60),
            f"Holes in the skin: {sum(h.many for h in found)}, of them {sum(h.many for h in found if h.on_roof)} in the roof",
            11,
            "ink",
            "head",
            "left",
        )
    ]
    y, x = top + 46, EDGE
    for hole in found[:24]:
        opening = hole.opening
        drip = ", drip edge" if opening.drip else ", NO drip edge" if hole.wants_drip else ""
        text = f"{opening.name}, {opening.face}: {SEALS[opening.seal]}{drip}; {words.cut(hole.seam_m)} of seam"
        shapes += [rect(x, y - 3, 6, 6, stroke="ink"), Text((x + 11, y), elided(text, 9, 350), 9, "ink", "text", "left")]
        y -= 12
        if y < EDGE:
            y, x = top + 46, x + 380
    return shapes
