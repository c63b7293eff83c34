"""Pages of the other schools: pie cuts with their tape at full size, panels with tilts, sections with weights, own leaves."""

from __future__ import annotations

import math

from uncle_sled.core.document.shell import Opening
from uncle_sled.core.drawing.page import POINTS_PER_M, Page, bar_of_100_mm
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.sheets import EDGE, Column, Sheets
from uncle_sled.core.drawing.shell.jamb import jamb, leaf_words
from uncle_sled.core.drawing.shell.leaf_drawn import bent_leaf_drawn
from uncle_sled.core.drawing.shell.rafter_drawn import rafter_drawn, rafter_words
from uncle_sled.core.drawing.shell.unfolded import panels_drawn, sections_drawn
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.framing.member import Member
from uncle_sled.core.framing.pie_cuts import KERF_M, plain_turn_rad
from uncle_sled.core.framing.strip_ribs import jig_m
from uncle_sled.core.geometry.bend_radius import least_radius_m
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import leaf_in
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.bought_panels import joined, panels
from uncle_sled.core.studies.shell.built_sections import sections_of
from uncle_sled.core.studies.shell.rafters import RafterCuts, rafter_cuts
from uncle_sled.core.studies.shell.welds import weld_words, welds
from uncle_sled.core.words import Words

TAPE_GAP, MOST_TAPE = 30.0, 90.0
FOLD_CAUTION = "Test-bend one first. Weld only what you know how to weld; grind in goggles."


def school_pages(s: Studied, name: str, printed: str) -> tuple[Page, ...]:
    """Whatever the body has of them; none for a body of sawn sticks."""
    pages: list[Page] = []
    seen: set[object] = set()
    for member in s.framed.members:
        if member.cuts and member.cuts not in seen:  # left and right are sawn from one list
            seen.add(member.cuts)
            pages += _tube_pages(s, member, name, printed)
    ribs = [m for m in s.framed.members if m.strips > 1]
    if ribs:
        pages += _ribs_pages(s, ribs, name, printed)
    if s.build.shell.framing.school == "sandwich panels" and s.framed.body is not None:
        pages += _panels_pages(s, name, printed)
    for cuts in rafter_cuts(s):
        pages += _rafter_pages(s, cuts, name, printed)
    for opening in s.build.shell.openings:
        if opening.leaf is not None:
            pages += _leaf_pages(s, opening, name, printed)
    if s.build.shell.splits:
        pages += _sections_pages(s, name, printed)
    return tuple(pages)


def _sheets(s: Studied, title: str, right: str) -> tuple[Sheets, Words]:
    return Sheets(paper_of(s.build).lying, title, right), Words(s.build.brief.reading.shown())


def _tube_pages(s: Studied, member: Member, name: str, printed: str) -> tuple[Page, ...]:
    """The list of cuts of a hoop, and its tape at full size to be wrapped along the outer face."""
    title = f"{name}: hoop of the sides, {len(member.cuts)} folds"
    sheets, words = _sheets(s, title, f"left and right alike, {printed}")
    size = f"{words.section(member.section_m)}, wall {words.thick(member.wall_m)}"
    kerf = s.build.shell.framing.saw_kerf.si if s.build.shell.framing.saw_kerf else KERF_M
    made = welds(s)
    turn = sum(cut.turn_deg for cut in member.cuts)
    plain = math.degrees(plain_turn_rad(kerf, member.section_m[0], member.wall_m))
    sheets.words(f"Tube {size}; {words.cut(member.length_m)} long on its outer face, from the foot at the front.")
    sheets.words(
        f"Pie cuts through all but the outer wall; {turn:.1f}° in all. Width at the sawn face: to the inner wall's corners, and by the fold's mid-plane, which closes it really."
    )
    sheets.words(
        f"With a plain {words.thick(kerf)} saw cut instead: each closes {plain:.2f}°, so {math.ceil(turn / max(plain, 1e-6))} cuts in all, each as wide as the saw; what stays open is filled by weld."
    )
    if made is not None:
        sheets.words(f"The whole body: {weld_words(made, words.m(made.run_m), words.kg(made.metal_kg))}.")
    sheets.words(FOLD_CAUTION)
    sheets.gap()
    heads = [Column(text, right=True) for text in ("No.", "At", "Turn", "Width", "By mid-plane")]
    rows = [
        (
            str(k),
            words.cut(c.at_m),
            f"{c.turn_deg:.2f}°",
            words.thick(c.width_m),
            words.thick(c.width_mid_m),
            "inner" if c.inside else "outer",
        )
        for k, c in enumerate(member.cuts, 1)
    ]
    sheets.table((*heads, Column("Sawn face")), rows)
    sheets.fresh()
    _tape(sheets, member, words)
    return sheets.done()


def _tape(sheets: Sheets, member: Member, words: Words) -> None:
    """The outer face at 1 : 1 in strips, laid end to end by their letters."""
    long = sheets.room[0] / POINTS_PER_M
    wide = min(member.section_m[0] * POINTS_PER_M, MOST_TAPE)
    sheets.picture(18, bar_of_100_mm())
    for k in range(math.ceil(member.length_m / long - 1e-9)):
        start = k * long
        end = min(start + long, member.length_m)
        run = (end - start) * POINTS_PER_M
        shapes: list[Primitive] = [rect(0, 16, run, wide, stroke="ink", width=0.8)]
        shapes.append(Text((2, 8), f"{chr(65 + k % 26)}: {words.cut(start)} to {words.cut(end)}", 8, "pencil", anchor="left"))
        for n, cut in enumerate(member.cuts, 1):
            x, half = (cut.at_m - start) * POINTS_PER_M, cut.width_mid_m / 2 * POINTS_PER_M
            shapes += [line((at, 16), (at, 16 + wide), "primer", 0.6) for at in (x - half, x + half) if -0.1 <= at <= run + 0.1]
            if 0 <= x <= run:
                shapes.append(line((x, 16), (x, 16 + wide), "ink", 0.4, (2.0, 2.0)))
                shapes.append(Text((x, 22 + wide), str(n), 8, "ink", "strong"))
        sheets.picture(wide + TAPE_GAP, shapes)


def _ribs_pages(s: Studied, ribs: list[Member], name: str, printed: str) -> tuple[Page, ...]:
    """Glued ribs: of how many strips each, and the jig's tightest radius."""
    body = s.framed.body
    sheets, words = _sheets(s, f"{name}: glued ribs", printed)
    sheets.words("Strips dry and straight in the grain; bend one cold round the jig first. It springs back: the jig is tighter by 1/n².")
    sheets.gap()
    alike: dict[tuple[object, ...], list[Member]] = {}
    for member in ribs:
        alike.setdefault((member.face, member.section_m, member.strips, round(member.length_m, 3)), []).append(member)
    rows = []
    for group in alike.values():
        member = group[0]
        surface = next((x for x in body.surfaces if x.id == member.face), None) if body is not None else None
        radius = least_radius_m(surface.chain) if surface is not None and surface.chain is not None else math.inf
        deep = member.section_m[1] if member.face_kind not in ("left side", "right side") else member.section_m[0]
        jig = words.cut(jig_m(radius, member.strips)) if math.isfinite(radius) else "by the side's outline"
        strips = f"{member.strips} of {words.thick(deep / member.strips)}"
        rows.append((str(len(group)), member.face, words.section(member.section_m), strips, words.cut(member.length_m), jig))
    heads = (
        Column("Many", right=True),
        Column("Face"),
        Column("Rib"),
        Column("Strips"),
        Column("Long", right=True),
        Column("Jig, tightest", right=True),
    )
    sheets.table(heads, rows)
    return sheets.done()


def _panels_pages(s: Studied, name: str, printed: str) -> tuple[Page, ...]:
    made, held = panels(s), joined(s)
    sheets, words = _sheets(s, f"{name}: panels", f"blue: saw tilted, ochre: cut back, {printed}")
    wide, high = sheets.room
    sheets.picture(high * 0.62, panels_drawn(s, made, "", words, wide, high * 0.62))
    rows = []
    for panel in made:
        tilts = ", ".join(f"{e.tilt_deg:.1f}° at {e.other}" for e in panel.edges if e.tilt_deg > 0.5)
        outside, inside = (f"{words.cut(size[0])} × {words.cut(size[1])}" for size in (panel.outside_m, panel.inside_m))
        mass = words.kg(panel.mass_kg) if panel.mass_kg is not None else "not known"
        rows.append((panel.id, outside, inside, mass, panel.fault or tilts or "square edges"))
    heads = (
        Column("Panel"),
        Column("Outside", right=True),
        Column("Inside", right=True),
        Column("Weighs", right=True),
        Column("Edges", wraps=True),
    )
    sheets.table(heads, rows)
    sheets.words(f"{words.m(held.profile_m)} of corner profile, {held.rivets} rivets, {words.m2(held.bond_m2)} of bond")
    return sheets.done()


def _sections_pages(s: Studied, name: str, printed: str) -> tuple[Page, ...]:
    made = sections_of(s)
    sheets, words = _sheets(s, f"{name}: sections, in the order of setting", f"triangles: picks, dot: centre of gravity, {printed}")
    sheets.stops((*made.faults, *stop_words(s, ("Shell",), where=[section.face for section in made.sections])))
    wide, high = sheets.room
    sheets.picture(high * 0.6, sections_drawn(s, made, "", words, wide, high * 0.6))
    rows = []
    for section in sorted(made.sections, key=lambda section: section.order):
        mass = words.kg(section.mass_kg) if section.mass_kg is not None else "not known"
        size = f"{words.m(section.size_m[0])} × {words.m(section.size_m[1])}"
        picks = " and ".join(words.cut(pick[0]) for pick in section.picks)
        rows.append((str(section.order), section.name, size, mass, picks, str(section.bolts or "")))
    heads = (Column("Order", right=True), Column("Section", wraps=True), Column("Size", right=True), Column("Weighs", right=True))
    sheets.table((*heads, Column("Picks along", right=True), Column("Bolts to the next", right=True)), rows)
    orders = {section.id: section.order for section in made.sections}
    sheets.words("Stacked for the way: " + ", ".join(str(orders[id]) for id in made.stacked) + ", the first of these lowest.")
    sheets.words("True before anything is cut: " + ", ".join(f"{what} {words.cut(m)}" for what, m in made.true_sizes))
    sheets.words(f"Slack of {made.joints} joints in a row: {words.thick(made.worst_m)} at worst, {words.thick(made.likely_m)} likely.")
    sheets.words("A qualified lifter decides.")
    return sheets.done()


def _rafter_pages(s: Studied, cuts: RafterCuts, name: str, printed: str) -> tuple[Page, ...]:
    """The rafters of a slope: how their ends and bird's mouths are sawn."""
    sheets, words = _sheets(s, f"{name}: rafters of {cuts.surface}", f"saw one, try it, then the others, {printed}")
    wide, high = sheets.room
    sheets.picture(high * 0.6, rafter_drawn(cuts, words, wide, high * 0.6))
    sheets.words(rafter_words(cuts, words))
    return sheets.done()


def _leaf_pages(s: Studied, opening: Opening, name: str, printed: str) -> tuple[Page, ...]:
    """A door of one's own: its pieces, and a cut through its jamb at full size."""
    library = library_of(s.facts.materials)
    made = leaf_in(s.framed, opening, library)
    if made is None:
        return ()
    sheets, words = _sheets(s, f"{name}: {opening.name}, made by yourself", f"the cut at full size, {printed}")
    sheets.words(leaf_words(made, words))
    sheets.gap()
    rows = []
    for piece in made.pieces:
        wide = words.thick(piece.width_m) if piece.kind == "bar" else words.cut(piece.width_m)
        rows.append(
            (
                str(piece.many),
                piece.name,
                words.material(library[piece.material].name),
                words.cut(piece.length_m),
                wide,
                words.layer(piece.thick_m),
            )
        )
    heads = (
        Column("Many", right=True),
        Column("Piece"),
        Column("Of", wraps=True),
        Column("Long", right=True),
        Column("Wide", right=True),
        Column("Thick", right=True),
    )
    sheets.table(heads, rows)
    side, wide_m, high_m = bent_leaf_drawn(s, opening, words)
    if side:
        room = min(sheets.room[1], 330.0)
        scale = min(sheets.room[0] / wide_m, room / high_m)
        sheets.picture(room, placed(side, scale, max(sheets.room[0] - wide_m * scale, 0.0) / 2, 0.0))
    cut, wide_m, high_m = jamb(s, opening, words)
    if cut:
        high = max(high_m * POINTS_PER_M, 90.0) + 40
        shapes = [*placed(cut, POINTS_PER_M, max(sheets.room[0] - wide_m * POINTS_PER_M, 0.0) / 2, 30), *bar_of_100_mm()]
        sheets.picture(high, shapes, EDGE)
    return sheets.done()
