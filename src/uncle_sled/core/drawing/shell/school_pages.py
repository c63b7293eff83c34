"""Pages of the other schools: pie cuts with their tape at full size, panels with tilts, sections with weights, seams. Landscape A4."""

from __future__ import annotations

import math

from uncle_sled.core.document.shell import Opening
from uncle_sled.core.drawing.page import POINTS_PER_M, Page
from uncle_sled.core.drawing.primitives import Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.shell.jamb import jamb, leaf_words
from uncle_sled.core.drawing.shell.offsets_page import EDGE, HEIGHT, WIDTH, head
from uncle_sled.core.drawing.shell.unfolded import panels_drawn, seams_drawn, sections_drawn
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.framing.member import Member
from uncle_sled.core.framing.pie_cuts import KERF_M, plain_turn_rad
from uncle_sled.core.framing.strip_ribs import jig_m
from uncle_sled.core.geometry.bend_radius import least_radius_m
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import leaf_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.bought_panels import joined, panels
from uncle_sled.core.studies.shell.built_sections import sections_of
from uncle_sled.core.studies.shell.seams import runs_over, seams
from uncle_sled.core.studies.shell.welds import weld_words, welds
from uncle_sled.core.words import Words

ROW = 12.0
TAPE_GAP = 30.0
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
        pages.append(_ribs_page(s, ribs, name, printed))
    if s.build.shell.framing.school == "sandwich panels" and s.framed.body is not None:
        pages.append(_panels_page(s, name, printed))
    for opening in s.build.shell.openings:
        if opening.leaf is not None:
            pages += _leaf_page(s, opening, name, printed)
    if s.build.shell.splits:
        pages.append(_sections_page(s, name, printed))
    if s.build.shell.seams:
        pages.append(_seams_page(s, name, printed))
    return tuple(pages)


def _tube_pages(s: Studied, member: Member, name: str, printed: str) -> list[Page]:
    """The list of cuts of a hoop, and its tape at full size to be wrapped along the outer face."""
    words = Words(s.build.brief.reading.shown())
    size = f"{words.section(member.section_m)}, wall {words.thick(member.wall_m)}"
    kerf = s.build.shell.framing.saw_kerf.si if s.build.shell.framing.saw_kerf else KERF_M
    title = f"{name}: hoop of the sides, {len(member.cuts)} folds"
    shapes = head(title, f"left and right alike, {printed}")
    y = HEIGHT - EDGE - 40
    made = welds(s)
    turn = sum(cut.turn_deg for cut in member.cuts)
    plain = math.degrees(plain_turn_rad(kerf, member.section_m[0], member.wall_m))
    for text in (
        f"Tube {size}; {words.cut(member.length_m)} long on its outer face, from the foot at the front.",
        f"Pie cuts through all but the outer wall; {turn:.1f}° in all. Width at the sawn face: to the inner wall's corners, and by the fold's mid-plane, which closes it really.",
        f"With a plain {words.thick(kerf)} saw cut instead: each closes {plain:.2f}°, so {math.ceil(turn / max(plain, 1e-6))} cuts in all, each as wide as the saw; what stays open is filled by weld.",
        f"The whole body: {weld_words(made, words.m(made.run_m), words.kg(made.metal_kg))}." if made is not None else "",
        FOLD_CAUTION,
    ):
        shapes.append(Text((EDGE, y), elided(text, 10, WIDTH - 2 * EDGE), 10, "ink", "text", "left"))
        y -= ROW + 1
    y -= 6
    columns = (0, 60, 170, 260, 370, 480)
    heads = ("No.", "At", "Turn", "Width", "By mid-plane", "Sawn face")
    shapes += [Text((EDGE + dx, y), text, 9, "pencil", "strong", "left") for dx, text in zip(columns, heads, strict=True)]
    for k, cut in enumerate(member.cuts, 1):
        y -= ROW
        if y < EDGE + 6:
            shapes.append(Text((EDGE, y), f"and {len(member.cuts) - k + 1} more, on the tape", 9, "pencil", anchor="left"))
            break
        cells = (
            str(k),
            words.cut(cut.at_m),
            f"{cut.turn_deg:.2f}°",
            words.thick(cut.width_m),
            words.thick(cut.width_mid_m),
            "inner" if cut.inside else "outer",
        )
        shapes += [Text((EDGE + dx, y), text, 10, "ink", "text", "left") for dx, text in zip(columns, cells, strict=True)]
    return [Page(WIDTH, HEIGHT, tuple(shapes), title), *_tape(member, title, words, printed)]


def _tape(member: Member, title: str, words: Words, printed: str) -> list[Page]:
    """The outer face at 1 : 1 in strips, laid end to end by their letters; a bar to check the print by."""
    long = (WIDTH - 2 * EDGE) / POINTS_PER_M
    strips = [k * long for k in range(math.ceil(member.length_m / long - 1e-9))]
    pages: list[Page] = []
    shapes: list[Primitive] = []
    y = 0.0
    wide = min(member.section_m[0] * POINTS_PER_M, 90.0)
    for k, start in enumerate(strips):
        if y < EDGE + 60:
            if shapes:
                pages.append(Page(WIDTH, HEIGHT, tuple(shapes), f"{title}, tape {len(pages) + 1}"))
            shapes = head(f"{title}: tape at full size", f"print at 100 %, {printed}")
            bar = 0.1 * POINTS_PER_M
            shapes += [
                line((EDGE, HEIGHT - EDGE - 32), (EDGE + bar, HEIGHT - EDGE - 32), "ink", 1.4),
                Text((EDGE + bar + 6, HEIGHT - EDGE - 32), "100 mm: measure it before you saw", 9, "pencil", anchor="left"),
            ]
            y = HEIGHT - EDGE - 60 - wide
        end = min(start + long, member.length_m)
        shapes.append(rect(EDGE, y, (end - start) * POINTS_PER_M, wide, stroke="ink", width=0.8))
        shapes.append(Text((EDGE + 2, y - 8), f"{chr(65 + k % 26)}: {words.cut(start)} to {words.cut(end)}", 8, "pencil", anchor="left"))
        for n, cut in enumerate(member.cuts, 1):
            half = cut.width_mid_m / 2
            if start - half <= cut.at_m <= end + half:
                x = EDGE + (cut.at_m - start) * POINTS_PER_M
                for at in (x - half * POINTS_PER_M, x + half * POINTS_PER_M):
                    if EDGE - 0.1 <= at <= EDGE + (end - start) * POINTS_PER_M + 0.1:
                        shapes.append(line((at, y), (at, y + wide), "primer", 0.6))
                if EDGE <= x <= EDGE + (end - start) * POINTS_PER_M:
                    shapes.append(line((x, y), (x, y + wide), "ink", 0.4, (2.0, 2.0)))
                    shapes.append(Text((x, y + wide + 6), str(n), 8, "ink", "strong"))
        y -= wide + TAPE_GAP
    pages.append(Page(WIDTH, HEIGHT, tuple(shapes), f"{title}, tape {len(pages) + 1}"))
    return pages


def _ribs_page(s: Studied, ribs: list[Member], name: str, printed: str) -> Page:
    """Glued ribs: of how many strips each, and the jig's tightest radius."""
    words, body = Words(s.build.brief.reading.shown()), s.framed.body
    title = f"{name}: glued ribs"
    shapes = head(title, printed)
    y = HEIGHT - EDGE - 40
    shapes.append(
        Text(
            (EDGE, y),
            "Strips dry and straight in the grain; bend one cold round the jig first. It springs back: the jig is tighter by 1/n².",
            10,
            "ink",
            anchor="left",
        )
    )
    y -= 24
    columns = (0, 60, 210, 330, 430, 560)
    heads = ("Many", "Face", "Rib", "Strips", "Long", "Jig, tightest")
    shapes += [Text((EDGE + dx, y), text, 9, "pencil", "strong", "left") for dx, text in zip(columns, heads, strict=True)]
    alike: dict[tuple[object, ...], list[Member]] = {}
    for member in ribs:
        alike.setdefault((member.face, member.section_m, member.strips, round(member.length_m, 3)), []).append(member)
    for group in alike.values():
        member = group[0]
        y -= ROW + 2
        surface = next((x for x in body.surfaces if x.id == member.face), None) if body is not None else None
        radius = least_radius_m(surface.chain) if surface is not None and surface.chain is not None else math.inf
        deep = member.section_m[1] if member.face_kind not in ("left side", "right side") else member.section_m[0]
        jig = words.cut(jig_m(radius, member.strips)) if math.isfinite(radius) else "by the side's outline"
        cells = (
            str(len(group)),
            member.face,
            words.section(member.section_m),
            f"{member.strips} of {words.thick(deep / member.strips)}",
            words.cut(member.length_m),
            jig,
        )
        shapes += [Text((EDGE + dx, y), text, 10, "ink", "text", "left") for dx, text in zip(columns, cells, strict=True)]
    return Page(WIDTH, HEIGHT, tuple(shapes), title)


def _panels_page(s: Studied, name: str, printed: str) -> Page:
    words, made, held = Words(s.build.brief.reading.shown()), panels(s), joined(s)
    title = f"{name}: panels"
    shapes = head(title, f"blue: saw tilted, ochre: cut back, {printed}")
    shapes += placed(panels_drawn(s, made, "", words, WIDTH * 0.5, HEIGHT - 2 * EDGE - 40), 1.0, EDGE - 10, EDGE)
    x, y = WIDTH * 0.53, HEIGHT - EDGE - 40
    for panel in made:
        tilts = ", ".join(f"{e.tilt_deg:.1f}° at {e.other}" for e in panel.edges if e.tilt_deg > 0.5)
        shapes.append(
            Text(
                (x, y),
                f"{panel.id}: {words.cut(panel.outside_m[0])} × {words.cut(panel.outside_m[1])}, inside {words.cut(panel.inside_m[0])} × {words.cut(panel.inside_m[1])}",
                10,
                "ink",
                "strong",
                "left",
            )
        )
        y -= ROW
        told = panel.fault or tilts or "square edges"
        mass = f", {words.kg(panel.mass_kg)}" if panel.mass_kg is not None else ""
        shapes.append(
            Text((x + 8, y), elided(f"{told}{mass}", 9, WIDTH - EDGE - x - 8), 9, "primer" if panel.fault else "pencil", anchor="left")
        )
        y -= ROW + 3
    told = f"{words.m(held.profile_m)} of corner profile, {held.rivets} rivets, {words.m2(held.bond_m2)} of bond"
    shapes.append(Text((x, max(y - 6, EDGE + 4)), told, 10, "ink", anchor="left"))
    return Page(WIDTH, HEIGHT, tuple(shapes), title)


def _sections_page(s: Studied, name: str, printed: str) -> Page:
    words, made = Words(s.build.brief.reading.shown()), sections_of(s)
    title = f"{name}: sections, in the order of setting"
    shapes = head(title, f"triangles: picks, dot: centre of gravity, {printed}")
    shapes += placed(sections_drawn(s, made, "", words, WIDTH * 0.56, HEIGHT - 2 * EDGE - 40), 1.0, EDGE - 10, EDGE)
    x, y = WIDTH * 0.6, HEIGHT - EDGE - 38
    for section in made.sections:
        if y < EDGE + 80:
            break
        mass = words.kg(section.mass_kg) if section.mass_kg is not None else "weight not known"
        bolts = f", {section.bolts} bolts to the next" if section.bolts else ""
        shapes.append(
            Text(
                (x, y),
                elided(
                    f"{section.order}  {section.name}: {words.m(section.size_m[0])} × {words.m(section.size_m[1])}, {mass}{bolts}",
                    10,
                    WIDTH - EDGE - x,
                ),
                10,
                "ink",
                anchor="left",
            )
        )
        y -= ROW
    y -= 6
    lines = [
        "Stacked for the way: "
        + ", ".join(str(next(o.order for o in made.sections if o.id == id)) for id in made.stacked[:24])
        + ", the first of these lowest.",
        "True before anything is cut: " + ", ".join(f"{what} {words.cut(m)}" for what, m in made.true_sizes),
        f"Slack of {made.joints} joints in a row: {words.thick(made.worst_m)} at worst, {words.thick(made.likely_m)} likely.",
        "A qualified lifter decides.",
    ]
    for text in lines:
        shapes.append(Text((x, y), elided(text, 9, WIDTH - EDGE - x), 9, "pencil", anchor="left"))
        y -= ROW
    return Page(WIDTH, HEIGHT, tuple(shapes), title)


def _seams_page(s: Studied, name: str, printed: str) -> Page:
    words, made = Words(s.build.brief.reading.shown()), seams(s)
    title = f"{name}: every joint and how it is kept dry"
    shapes = head(title, f"red: nothing keeps water out, {printed}")
    shapes += placed(seams_drawn(s, made, "", WIDTH * 0.5, HEIGHT - 2 * EDGE - 40), 1.0, EDGE - 10, EDGE)
    x, y = WIDTH * 0.53, HEIGHT - EDGE - 40
    for seam in made:
        if y < EDGE + 8:
            break
        how = (
            "one skin runs over"
            if runs_over(seam.joint)
            else ", ".join(p for p in ((seam.made.trim, seam.made.tape, seam.made.sealant) if seam.made else ()) if p) or "nothing said"
        )
        wet = "" if seam.water else ", WATER GETS IN"
        shapes.append(
            Text(
                (x, y),
                elided(f"{seam.name}, {words.cut(seam.joint.length_m)}: {how}{wet}", 10, WIDTH - EDGE - x),
                10,
                "ink" if seam.water else "primer",
                anchor="left",
            )
        )
        y -= ROW
    return Page(WIDTH, HEIGHT, tuple(shapes), title)


def _leaf_page(s: Studied, opening: Opening, name: str, printed: str) -> list[Page]:
    """A door of one's own: its pieces, and a cut through its jamb at full size."""
    words = Words(s.build.brief.reading.shown())
    library = library_of(s.facts.materials)
    made = leaf_of(opening, library)
    if made is None:
        return []
    title = f"{name}: {opening.name}, made by yourself"
    shapes = head(title, f"the cut at full size: print at 100 %, {printed}")
    y = HEIGHT - EDGE - 40
    for text in wrapped(leaf_words(made, words), 10, WIDTH - 2 * EDGE):
        shapes.append(Text((EDGE, y), text, 10, "ink", anchor="left"))
        y -= ROW + 1
    y -= 6
    for piece in made.pieces:
        size = (
            f"{words.thick(piece.width_m)} × {words.thick(piece.thick_m)}"
            if piece.kind == "bar"
            else f"{words.cut(piece.width_m)} wide, {words.thick(piece.thick_m)}"
        )
        shapes.append(
            Text(
                (EDGE, y),
                f"{piece.many} × {piece.name}, {library[piece.material].name}, {words.cut(piece.length_m)} long, {size}",
                10,
                "ink",
                anchor="left",
            )
        )
        y -= ROW
    cut, wide, _ = jamb(s, opening, words)
    if cut:
        shapes += placed(cut, POINTS_PER_M, WIDTH - EDGE - wide * POINTS_PER_M - 20, EDGE + 60)
        bar = 0.1 * POINTS_PER_M
        shapes += [
            line((EDGE, EDGE + 40), (EDGE + bar, EDGE + 40), "ink", 1.4),
            Text((EDGE + bar + 6, EDGE + 40), "100 mm: measure it before you saw", 9, "pencil", anchor="left"),
        ]
    return [Page(WIDTH, HEIGHT, tuple(shapes), title)]
