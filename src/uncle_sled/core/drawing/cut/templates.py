"""Full-size templates of a build: sides, inner panels, boards that are no rectangles, folded tubes, jigs for slants and bevels.

Left and right are said: a pair is one template, turned over for the right. Inner panels are the outline less the build-up and
2 mm a side for fitting. Each carries its pieces' numbers. Source: shop notes.
"""

from __future__ import annotations

import math

import msgspec
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.drawing.cut.tiles import Drawn, ring_lines, wanted_of
from uncle_sled.core.drawing.primitives import Point
from uncle_sled.core.drawing.shell.offsets_page import offsets
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.bought_shell import BOUGHT
from uncle_sled.core.geometry.surfaces import SIDES, Surface, net
from uncle_sled.core.parts.inside import inside_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.numbers import Named, numbers_of
from uncle_sled.core.studies.shell.bought_panels import panels
from uncle_sled.core.words import Words

FIT_M = 0.002
LEAST_M, JIG_LONG_M, JIG_HIGH_M = 0.05, 0.20, 0.06
MOST = 200
Lines = list[tuple[tuple[Point, ...], str, tuple[float, ...]]]


class Template(msgspec.Struct, frozen=True):
    """One of them. kind: side, inner, board, tube, jig; side: which of a pair it is for; numbers: of the pieces cut by it."""

    id: str
    name: str
    kind: str
    side: str
    numbers: tuple[str, ...]
    drawn: Drawn

    @property
    def title(self) -> str:
        """Name, which of a pair, and the numbers of the pieces that are cut by it."""
        told = f" {', '.join(self.numbers[:6])}" if self.numbers else ""
        return f"{self.name}{f' ({self.side})' if self.side else ''}{told}"


def _numbers(s: Studied) -> tuple[object, ...]:
    return (numbers_of(s.build, s.facts),)


@keep(_numbers, "s.build.shell", "s.build.brief.reading", "s.framed", "s.facts.materials", most=2)
def templates_of(s: Studied) -> tuple[Template, ...]:
    """All of a build, sides first; none without a body or boards."""
    words = Words(s.build.brief.reading.shown())
    named = numbers_of(s.build, s.facts).named
    bought = s.build.shell.framing.school == BOUGHT.name  # its faces are there
    whole = [*_sides(s, named, words), *_inner(s, words)] if not bought else []
    faces = {number for template in whole for number in template.numbers}
    made = [*whole, *_boards(named, words, faces), *_tubes(s, named, words), *_jigs(s, named)]
    return tuple(template for template in made if not template.drawn.curves_only or wanted_of(template.drawn))[:MOST]


def _drawn(lines: Lines, words: list[tuple[Point, str]], curves_only: bool = False) -> Drawn:
    """Shifted so that the low left corner is nought."""
    xs = [x for points, *_ in lines for x, _ in points]
    ys = [y for points, *_ in lines for _, y in points]
    left, low = min(xs), min(ys)
    moved = tuple((tuple((x - left, y - low) for x, y in points), ink, dash) for points, ink, dash in lines)
    return Drawn(max(xs) - left, max(ys) - low, moved, tuple(((x - left, y - low), text) for (x, y), text in words), curves_only)


def _sides(s: Studied, named: tuple[Named, ...], words: Words) -> list[Template]:
    """The left side with its openings and sticks, for both where both are alike; plumb ends that are no rectangles."""
    made: list[Template] = []
    body = s.framed.body
    if body is None or body.width <= 0:
        return made
    sides = {face.id: face for face in body.surfaces if face.kind in SIDES}
    left, right = sides.get("left side"), sides.get("right side")
    alike = left is not None and right is not None and _same(s, left, right)
    for surface in body.surfaces:
        if surface.chain is not None:
            continue
        if surface is right and alike:
            continue
        shape = net(surface.polygon, s.framed.sawn_in(surface.id))
        if shape.is_empty or not isinstance(shape, Polygon):
            continue
        lines: Lines = ring_lines(shape)
        for member in s.framed.on(surface.id):
            ring = (*member.outline, member.outline[0])
            lines.append((tuple(ring), "wood", (4.0, 3.0)))
        words_at = (
            [((offset.along, offset.high), words.cut(offset.high)) for offset in offsets(surface, s.build.brief.reading.shown())]
            if _curved(surface)
            else []
        )
        words_at = [((shape.bounds[0] + x, y), text) for (x, y), text in words_at]
        numbers = tuple(
            dict.fromkeys(numbered.label for numbered in named if numbered.piece.of == surface.id and numbered.piece.kind == "sheet")
        )
        whose = (
            "left; turn it over for the right"
            if surface is left and alike
            else {"left side": "left", "right side": "right"}.get(surface.id, "")
        )
        made.append(
            Template(f"side/{surface.id}", surface.id.capitalize(), "side", whose, numbers, _drawn(lines, words_at, curves_only=True))
        )
    return made


def _same(s: Studied, a: Surface, b: Surface) -> bool:
    one, other = net(a.polygon, s.framed.sawn_in(a.id)), net(b.polygon, s.framed.sawn_in(b.id))
    return bool(one.symmetric_difference(other).area < 1e-4)


def _is_box(shape: Polygon) -> bool:
    return bool(abs(shape.area - shape.envelope.area) < 1e-6)


def _curved(surface: Surface) -> bool:
    return len(surface.polygon.exterior.coords) > 7


def _inner(s: Studied, _words: Words) -> list[Template]:
    """A bulkhead or liner across the whole side: the outline inside of the build-up, smaller by 2 mm all round."""
    body = s.framed.body
    if body is None:
        return []
    inside: BaseGeometry = inside_of(s.build.shell, body).buffer(-FIT_M, join_style="mitre")
    whole = max(getattr(inside, "geoms", [inside]), key=lambda part: part.area)
    if not isinstance(whole, Polygon) or whole.is_empty or _is_box(whole):
        return []
    return [
        Template(
            "inner/side",
            "Inside of the side, with {2 mm} to fit",
            "inner",
            "left and right alike",
            (),
            _drawn(ring_lines(whole), [], curves_only=True),
        )
    ]


def _boards(named: tuple[Named, ...], words: Words, faces: set[str]) -> list[Template]:
    """Every sheet piece with an outline or holes of its own: alike ones are one template, of a pair the left one.

    Args: faces: numbers that the template of a whole face has already.
    """
    made: dict[tuple[object, ...], Template] = {}
    of_pair: set[str] = set()
    for numbered in named:
        piece = numbered.piece
        if piece.kind != "sheet" or not (piece.outline or piece.holes) or max(piece.length_m, piece.width_m) < LEAST_M:
            continue
        if piece.key in of_pair or numbered.label in faces:
            continue
        numbers: tuple[str, ...] = (numbered.label,)
        side = ""
        if piece.pair is not None:
            of_pair.add(piece.pair)
            numbers = tuple(n.label for n in named if n.piece.key in (piece.key, piece.pair))
            side = "one of a pair; turn it over for the other"
        box = ((0.0, 0.0), (piece.length_m, 0.0), (piece.length_m, piece.width_m), (0.0, piece.width_m))
        shape = Polygon(piece.outline or box, piece.holes)
        if not shape.is_valid or shape.is_empty:
            continue
        key = (piece.outline, piece.holes, piece.length_m, piece.width_m, piece.material, side)
        if key in made:
            made[key] = msgspec.structs.replace(made[key], numbers=(*made[key].numbers, *numbers))
            continue
        name = f"{piece.name}, {words.material(piece.material)}"
        made[key] = Template(f"board/{piece.key}", name, "board", side, numbers, _drawn(ring_lines(shape), [], curves_only=True))
    return list(made.values())


def _tubes(s: Studied, named: tuple[Named, ...], _words: Words) -> list[Template]:
    """A tape along the outer face of every folded tube, both sides of each cut; left and right are sawn from one."""
    made, seen = [], set[object]()
    labels = {numbered.piece.whole: numbered.label for numbered in named}
    for member in s.framed.members:
        if not member.cuts or member.cuts in seen:
            continue
        seen.add(member.cuts)
        wide, long = member.section_m[0], member.length_m
        lines: Lines = [(((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide), (0.0, 0.0)), "ink", ())]
        places = []
        for k, cut in enumerate(member.cuts, 1):
            for at in (cut.at_m - cut.width_mid_m / 2, cut.at_m + cut.width_mid_m / 2):
                lines.append((((at, 0.0), (at, wide)), "primer", ()))
            places.append(((cut.at_m, wide / 2), str(k)))
        number = labels.get(member.id)
        made.append(
            Template(
                f"tube/{member.id}",
                f"Tape for the {member.role} of the {member.face}",
                "tube",
                "both sides from one",
                (number,) if number else (),
                _drawn(lines, places),
            )
        )
    return made


def _jigs(s: Studied, named: tuple[Named, ...]) -> list[Template]:
    """A wedge for every slant that sticks are sawn at, and for every tilt of the saw at panels."""
    slants: dict[float, list[str]] = {}
    for numbered in named:
        for angle in numbered.piece.ends_deg if not numbered.piece.corners else ():
            if abs(angle) >= 0.5:
                slants.setdefault(round(abs(angle), 1), []).append(numbered.label)
    made = [_jig(f"jig/slant/{a}", f"Slant jig {a:g}°", a, tuple(dict.fromkeys(labels))) for a, labels in sorted(slants.items())]
    tilts: dict[float, list[str]] = {}
    if s.build.shell.framing.school == "sandwich panels":
        for panel in panels(s):
            for edge in panel.edges:
                if edge.tilt_deg > 0.5:
                    tilts.setdefault(round(edge.tilt_deg, 1), []).append(panel.id)
    made += [_jig(f"jig/bevel/{a}", f"Bevel jig {a:g}°", a, tuple(dict.fromkeys(ids))) for a, ids in sorted(tilts.items())]
    return made


def _jig(id: str, name: str, angle_deg: float, numbers: tuple[str, ...]) -> Template:
    """A block whose slanted end stands off square by the angle; its base lies on the stick. Flatter where it would be long."""
    slope = math.tan(math.radians(angle_deg))
    high = min(JIG_HIGH_M, JIG_LONG_M / slope)
    shape = Polygon([(0, 0), (JIG_LONG_M, 0), (JIG_LONG_M + high * slope, high), (0, high)])
    told = f"{angle_deg:g}° off square, {90 - angle_deg:g}° to the edge"
    return Template(id, name, "jig", "", numbers, _drawn(ring_lines(shape), [((JIG_LONG_M / 2, high / 2), told)]))
