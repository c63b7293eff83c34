"""Every stick of a body: its faces are framed one by one by the school that was chosen.

What cannot be framed is said with its place, and only that is left out. Hand changes are matched to
the sticks that are there now; one that matches none waits as a loose one.
"""

from __future__ import annotations

from collections.abc import Hashable, Iterable

import msgspec
from shapely import box
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry
from shapely.validation import explain_validity

from uncle_sled.core.document.shell import Face, HandChange, Opening, Shell
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.framing.bought_shell import BOUGHT
from uncle_sled.core.framing.cut_plywood import PLYWOOD
from uncle_sled.core.framing.cutter import MOST_STICKS, Cutter
from uncle_sled.core.framing.light_steel import LIGHT_STEEL
from uncle_sled.core.framing.member import Member
from uncle_sled.core.framing.no_sticks import CLOTHED, STITCHED, WITHOUT_STICKS
from uncle_sled.core.framing.sandwich_panels import PANELS, profiles
from uncle_sled.core.framing.school import Hole, SchoolOf, Sizes, sizes_for, surveyed
from uncle_sled.core.framing.stick_timber import STICK
from uncle_sled.core.framing.strip_ribs import STRIPS
from uncle_sled.core.framing.sub_frame import sub_frame
from uncle_sled.core.framing.welded_tube import TUBE
from uncle_sled.core.geometry.footprint import footprint_fault
from uncle_sled.core.geometry.surfaces import Body, Surface, body_of, cut_in, rounded
from uncle_sled.core.materials import Material

SCHOOLS: dict[str, SchoolOf] = {
    school.name: school for school in (STICK, LIGHT_STEEL, PLYWOOD, TUBE, STRIPS, PANELS, STITCHED, CLOTHED, BOUGHT)
}
FASTENERS = 0.04  # of the mass: screws, glue, sealant, never zero
LEAST_WALL_M = 0.15  # lower than this there is nothing to frame
LEAST_PITCH_M = 0.1
LONGEST_M = 30.0
FRAMED = ("door", "hatch", "window", "vent")  # what is too large to go beside a stick


class Fault(msgspec.Struct, frozen=True):
    """What cannot be built as drawn: where, in words, and whether it keeps something from being framed."""

    code: str
    where: tuple[str, ...]
    says: str


class Cut(msgspec.Struct, frozen=True):
    """An opening or wheel box as it is cut into one surface."""

    id: str
    name: str
    kind: str
    surface: str
    shape: Polygon
    good: bool
    corner_m: float = 0.0

    @property
    def skin(self) -> Polygon:
        """The hole that is sawn, its corners round as they were said [m]; the frame about it is square."""
        left, low, right, high = self.shape.bounds
        r = min(self.corner_m, (right - left) / 2, (high - low) / 2)
        return rounded(self.shape, r) if r > LEAST_CORNER_M else self.shape


LEAST_CORNER_M = 0.001


class Framed(msgspec.Struct, frozen=True):
    """The body's surfaces, what is cut into them, its sticks, and what was wrong."""

    body: Body | None
    cuts: tuple[Cut, ...]
    members: tuple[Member, ...]
    faults: tuple[Fault, ...]
    loose: tuple[HandChange, ...]
    sizes: Sizes | None

    def on(self, surface: str) -> tuple[Member, ...]:
        """The sticks of a surface."""
        return tuple(m for m in self.members if m.face == surface)

    def holes_in(self, surface: str) -> tuple[Polygon, ...]:
        """The openings of a surface as the frame is built round them [m]: square."""
        return tuple(c.shape for c in self.cuts if c.surface == surface and c.good)

    def sawn_in(self, surface: str) -> tuple[Polygon, ...]:
        """The holes of a face as they are sawn into its skins: round corners are round."""
        return tuple(c.skin for c in self.cuts if c.surface == surface and c.good)


NOTHING = Framed(None, (), (), (), (), None)


def frame_body(shell: Shell, axle_m: float | None, imperial: bool, library: dict[str, Material]) -> Framed:
    """Frame a shell. Args: axle_m: middle of the wheels that wheel boxes stand over [m]; library: materials by id."""
    body = body_of(shell)
    if body is None:
        return NOTHING
    faults = list(_profile_faults(body))
    plan = footprint_fault(shell)
    if plan:
        faults.append(Fault("footprint-wrong", ("shell", "footprint"), plan))
    school = SCHOOLS.get(shell.framing.school)
    sizes = sizes_for(school, shell.framing, imperial) if school is not None else None
    if school is BOUGHT and sizes is not None:
        sizes = surveyed(sizes, shell.framing, shell.survey)
    cuts, bad = _cuts(shell, body, axle_m, school, sizes)
    faults += bad
    if school is None or (faults and faults[0].code == "profile-crosses"):
        return Framed(body, cuts, (), tuple(faults), (), None)
    assert sizes is not None
    if school.name in WITHOUT_STICKS:
        return Framed(body, cuts, (), tuple(faults), tuple(c for c in shell.framing.changes if c.school == school.name), sizes)
    wrong = _unbuildable(shell, body, school, sizes, library)
    if wrong:
        return Framed(body, cuts, (), (*faults, *wrong), (), sizes)
    if school is PANELS:
        loose_ones = tuple(c for c in shell.framing.changes if c.school == school.name)
        under = sub_frame(body, sizes) if shell.framing.joist is not None else ()
        return Framed(body, cuts, (*_profiles(body, sizes), *under), tuple(faults), loose_ones, sizes)
    timber = school.material or library[shell.framing.material]
    mine = tuple(c for c in shell.framing.changes if c.school == school.name)
    members: list[Member] = []
    loose: list[HandChange] = []
    for surface in body.surfaces:
        made, bad, left = _frame_face(_Job(shell, surface, cuts=cuts, school=school, sizes=sizes, timber=timber, changes=mine))
        members += made
        faults += bad
        loose += left
    here = {surface.id for surface in body.surfaces}
    loose += [c for c in mine if c.face not in here]
    return Framed(body, cuts, tuple(members), tuple(faults), tuple(loose), sizes)


def _as_drawn(body: Body) -> Hashable:
    return tuple((s.id, s.polygon.wkb, s.origin) for s in body.surfaces)


@keep(by_value(_as_drawn), by_value("sizes"), most=6)
def _profiles(body: Body, sizes: Sizes) -> tuple[Member, ...]:
    return profiles(body, sizes)


def _profile_faults(body: Body) -> Iterable[Fault]:
    shape = Polygon(body.side.polygon)
    if not shape.is_valid:
        where = explain_validity(shape)
        spot = where[where.find("[") + 1 : where.find("]")].split()
        place = f" about {{{float(spot[0]) - body.front:.2f} m}} from the body's front" if len(spot) == 2 else ""
        yield Fault("profile-crosses", ("shell",), f"The profile crosses itself{place}; pull its points apart.")
    if not body.side.tail_found and body.side.tail_m is not None:
        at = body.side.tail_m - body.front
        says = f"The tail is said to begin {{{at:.2f} m}} from the body's front, where the skin is no roof; between nose and tail would be right."
        yield Fault("tail-nowhere", ("shell.tail_from",), says)


def _unbuildable(shell: Shell, body: Body, school: SchoolOf, sizes: Sizes, library: dict[str, Material]) -> list[Fault]:
    found = []
    most = max(size.si if size else 0.0 for size in (shell.length, shell.width, shell.height))
    if most > LONGEST_M:
        says = f"The body is {{{most:.0f} m}} on its longest side; nothing on the road is over {{{LONGEST_M:.0f} m}}, so it is not framed."
        found.append(Fault("body-too-big", ("shell",), says))
    bent = next((surface for surface in body.surfaces if surface.curved), None) if school is PANELS else None
    if shell.form not in school.forms:
        found.append(Fault("school-form", ("shell",), _no_form(school, shell.form)))
    elif bent is not None:
        says = (
            f"Sandwich panels do not bend, and the {bent.id} is round. Draw the profile of straight lines, or take another school or body."
        )
        found.append(Fault("school-form", ("shell",), says))
    for name, size in (("pitch", sizes.pitch), ("rib pitch", sizes.rib_pitch)):
        if size < LEAST_PITCH_M:
            found.append(
                Fault(
                    "no-pitch",
                    ("shell",),
                    f"The framing {name} is {{{size * 1000:.0f} mm}}; {{{LEAST_PITCH_M * 1000:.0f} mm}} or more would be right.",
                )
            )
    for name, pair in (("stick", sizes.stick), ("rib", sizes.rib), ("joist", sizes.joist)):
        if min(pair) <= 0:
            found.append(Fault("no-section", ("shell",), f"The {name} has a side of nothing; type both its sizes."))
    if min(sizes.sheet_width, sizes.sheet_length) < 0.3:
        found.append(Fault("no-sheet", ("shell",), "A sheet must be {300 mm} at least on both sides."))
    if max(sizes.stick[0] / max(sizes.pitch, 1e-9), sizes.rib[0] / max(sizes.rib_pitch, 1e-9)) >= 1:
        says = f"A stick {{{sizes.stick[0] * 1000:.0f} mm}} wide does not fit into a pitch of {{{sizes.pitch * 1000:.0f} mm}}; narrower sticks or a wider pitch would be right."
        found.append(Fault("no-pitch", ("shell",), says))
    if school.material is None and shell.framing.material not in library:
        found.append(Fault("no-material", ("shell",), f"There is no material “{shell.framing.material}” for the sticks."))
    return found


def _no_form(school: SchoolOf, form: str) -> str:
    return f"{school.name.capitalize()} cannot make a {form} body: its sides are one profile. Take stick timber, or a profile, box, shed or flat body that falls to front or rear."


def wheel_box_spans(shell: Shell, body: Body, axle_m: float | None) -> tuple[float, float, float, float] | None:
    """Front and rear end on the body [m from its front], width inward and height of the wheel boxes, where there are any."""
    boxes = shell.wheel_boxes
    if boxes is None or axle_m is None or min(boxes.length.si, boxes.width.si, boxes.height.si) <= 0:
        return None
    middle = axle_m - body.front
    return middle - boxes.length.si / 2, middle + boxes.length.si / 2, boxes.width.si, boxes.height.si


def _cuts(
    shell: Shell, body: Body, axle_m: float | None, school: SchoolOf | None, sizes: Sizes | None
) -> tuple[tuple[Cut, ...], list[Fault]]:
    """Openings and wheel boxes as cut, with those marked that cannot be."""
    cuts: list[Cut] = []
    faults: list[Fault] = []
    spans = wheel_box_spans(shell, body, axle_m)
    if spans is not None:
        a, b, wide, high = spans
        a, b = max(a, 0.0), min(b, body.length)
        if b - a > 0.02:
            for side, t in (("left", (0.0, wide)), ("right", (body.width - wide, body.width))):
                cuts.append(Cut(f"wheel-box-{side}", f"the {side} wheel box", "wheel box", f"{side} side", box(a, 0.0, b, high), good=True))
                cuts.append(Cut(f"wheel-box-{side}", f"the {side} wheel box", "wheel box", "floor", box(a, t[0], b, t[1]), good=True))
    for opening in shell.openings:
        found = cut_in(body, opening)
        if found is None:
            faults.append(_opening_fault(opening, "has no size, or its face is not there", "opening-nowhere"))
            continue
        surface, shape = found
        wrong, other = _why_not(shape, surface, [c for c in cuts if c.surface == surface.id and c.good])
        if wrong:
            faults.append(_opening_fault(opening, wrong, "openings-meet" if other else "opening-over-edge", other))
        elif school is not None and school.refuses is not None and sizes is not None and _walls(surface):
            there = [c.shape for c in cuts if c.surface == surface.id and c.good]
            wrong = school.refuses(shape, surface.polygon, sizes, there) if opening.cut_since and opening.kind in FRAMED else ""
            if wrong:
                faults.append(_opening_fault(opening, wrong, "post-cut"))
        corner = opening.corner.si if opening.corner else 0.0
        cuts.append(Cut(opening.id, opening.name, opening.kind, surface.id, shape, not wrong, corner_m=corner))
    here = {surface.id for surface in body.surfaces}  # a side too low to be one has no wheel box either
    return tuple(cut for cut in cuts if cut.surface in here), faults


def _walls(surface: Surface) -> bool:
    return surface.kind in ("left side", "right side") or (surface.kind in ("front", "rear") and not surface.swept)


def _why_not(shape: Polygon, surface: Surface, others: list[Cut]) -> tuple[str, str]:
    over = shape.difference(surface.polygon)
    if over.area > 1e-5:
        left, low, right, high = over.bounds
        return (f"comes over the edge of the {surface.id} by up to {{{max(min(right - left, high - low), 0.001) * 1000:.0f} mm}}", "")
    for other in others:
        if shape.intersection(other.shape).area > 1e-6:
            return f"lies over {other.name}", other.id
    return "", ""


def _opening_fault(opening: Opening, says: str, code: str, other: str = "") -> Fault:
    where = (opening.id, other) if other else (opening.id,)
    advice = "set them apart" if other else "move it or make it smaller"
    return Fault(code, where, f"{opening.name} {says}; {advice}.")


def skin_m(face: Face | None) -> float:
    """Thickness of what lies outside of the framed layer [m]."""
    if face is None:
        return 0.0
    before = 0.0
    for layer in face.layers:
        if layer.framing > 0:
            return before
        before += layer.thickness.si
    return 0.0


def framed_depth_m(face: Face | None, wall: float) -> float:
    """Depth that sticks have in a face [m]: its framed layers, or the whole wall where layers are not said."""
    if face is None or not face.layers:
        return wall
    return sum(layer.thickness.si for layer in face.layers if layer.framing > 0)


def face_of(shell: Shell, kind: str) -> Face | None:
    """The face of a kind as it was said; None where nobody did."""
    return next((face for face in shell.faces if face.kind == kind), None)


class _Job(msgspec.Struct, frozen=True):
    """What one face is framed by."""

    shell: Shell
    surface: Surface
    cuts: tuple[Cut, ...]
    school: SchoolOf
    sizes: Sizes
    timber: Material
    changes: tuple[HandChange, ...]


def _of_the_face(job: _Job) -> Hashable:
    """Everything that the result depends on, by value."""
    surface, shell = job.surface, job.shell
    return (
        surface.id,
        surface.origin,
        surface.polygon.wkb,
        None if surface.chain is None else surface.chain.tobytes(),
        tuple((c.id, c.kind, c.shape.wkb) for c in job.cuts if c.surface == surface.id and c.good),
        job.school.name,
        job.sizes,
        job.timber,
        shell.faces,
        shell.wall,
        tuple(c for c in job.changes if c.face == surface.id),
        shell.relined,
        shell.survey.floor if shell.survey else None,
    )


Made = tuple[list[Member], list[Fault], list[HandChange]]
MOST_KEPT = 160
NOMINAL_M = 0.0006  # an inch goes into 25 mm


@keep(by_value(_of_the_face), most=MOST_KEPT)  # a dragged opening reframes its own face only
def _frame_face(job: _Job) -> Made:
    shell, surface, cuts, school, sizes = job.shell, job.surface, job.cuts, job.school, job.sizes
    timber, changes = job.timber, job.changes
    face = face_of(shell, surface.kind)
    walls = _walls(surface)
    section = sizes.stick if walls else sizes.joist if surface.kind == "floor" else sizes.rib
    depth = framed_depth_m(face, shell.wall.si if shell.wall else 0.0)
    mine = tuple(c for c in changes if c.face == surface.id)
    if 0 < depth < section[1] - NOMINAL_M:
        says = f"A stick {{{section[1] * 1000:.0f} mm}} deep does not go into the {{{depth * 1000:.0f} mm}} of the {surface.id}; take a shallower stick or a thicker layer."
        return [], [Fault("stick-too-deep", (face.id if face else surface.id,), says)], []
    if face is not None and face.layers and depth == 0:
        return [], [], list(mine)  # nothing in it is framed: a bare sheet or a sandwich
    region = _region(shell, surface, sizes, school, walls)
    _, low, _, high = region.bounds if not region.is_empty else (0, 0, 0, 0)
    if region.is_empty or (walls and high - low < LEAST_WALL_M):
        says = f"The {surface.id} leaves {{{max(high - low, 0) * 1000:.0f} mm}} of height to frame; {{{LEAST_WALL_M * 1000:.0f} mm}} is the least."
        return [], [Fault("wall-too-low", (face.id if face else surface.id,), says)], list(mine)
    here = [cut for cut in cuts if cut.surface == surface.id and cut.good]
    holes = [_hole(cut) for cut in here if cut.kind not in ("gland", "light", "screw row")]
    framer = school.wall if walls else school.ribs

    def lay(by_key: dict[str, list[HandChange]]) -> Cutter:
        cut = Cutter(
            surface,
            region,
            blocked=[c.shape for c in here],
            material=timber,
            skin_m=skin_m(face),
            fasteners=FASTENERS,
            changes=by_key,
            wall_m=sizes.wall,
            channel=sizes.channel,
        )
        for change in mine:
            if change.op == "add":
                _add(cut, change, section)
        framer(cut, sizes, holes)
        return cut

    cut = lay({})
    if cut.faults:
        return [], [Fault("will-not-bend", (face.id if face else surface.id,), says) for says in cut.faults], list(mine)
    if len(cut.members) >= MOST_STICKS:
        says = f"The {surface.id} would take over {MOST_STICKS} sticks; a wider pitch or larger sheets would be right."
        return [], [Fault("too-many-sticks", (face.id if face else surface.id,), says)], list(mine)
    wanted = [c for c in mine if c.op != "add"]
    if not wanted:
        return cut.members, [], []
    matched, loose = match(wanted, cut.members, sizes.pitch)
    return lay(matched).members, [], loose


def _add(cut: Cutter, change: HandChange, section: tuple[float, float]) -> None:
    """A stick that a hand added: upright, at its station."""
    _, low, _, high = cut.region.bounds
    size = (change.section.thick.si, change.section.deep.si) if change.section else section
    s, b = float(change.anchor), size[0]
    cut.lay(box(s - b / 2, low, s + b / 2, high), "added", change.anchor, size, (0.0, 1.0), by_hand=True)


def match(changes: list[HandChange], members: list[Member], pitch: float) -> tuple[dict[str, list[HandChange]], list[HandChange]]:
    """Changes by the key that they hold for now: the same key, else the nearest of its role within half a pitch."""
    keys = {f"{m.face}/{m.role}/{m.anchor}": m for m in members}
    own = {f"{c.face}/{c.role}/{c.anchor}" for c in changes} & keys.keys()
    matched: dict[str, list[HandChange]] = {}
    loose: list[HandChange] = []
    for change in changes:
        key = f"{change.face}/{change.role}/{change.anchor}"
        at = station_of(change.anchor)
        if key not in keys:
            near = [
                (abs(other - at), k)
                for k, m in keys.items()
                if at is not None and m.role == change.role and k not in own and (other := station_of(m.anchor)) is not None
            ]
            if not near or min(near)[0] > pitch / 2:
                loose.append(change)
                continue
            key = min(near)[1]
        matched.setdefault(key, []).append(change)
    return matched, loose


def station_of(anchor: str) -> float | None:
    """The station that an anchor of a hand's change names [m]; None where it names none."""
    try:
        return float(anchor)
    except ValueError:
        return None


def _hole(cut: Cut) -> Hole:
    return Hole(cut.id, cut.kind, *cut.shape.bounds)


def _region(shell: Shell, surface: Surface, sizes: Sizes, school: SchoolOf, walls: bool) -> BaseGeometry:
    """Where sticks may lie on a surface: clear of the floor, of the roof's build-up and of the other walls."""
    shape: BaseGeometry = surface.polygon
    if walls and school.whole_sides and surface.kind in ("left side", "right side"):
        left, low, right, high = shape.bounds
        roof = skin_m(face_of(shell, "roof"))
        for edge in surface.roof_edges if roof > 0 else ():
            shape = shape.difference(edge.buffer(roof, cap_style="square", join_style="mitre"))
        shape = shape.intersection(box(left, low + skin_m(face_of(shell, "floor")), right, high))
        return max(shape.geoms, key=lambda g: g.area) if shape.geom_type == "MultiPolygon" else shape
    if not walls:
        left, low, right, high = shape.bounds
        side = sizes.side_thick
        if side and not surface.id.startswith("bevel"):
            shape = shape.intersection(box(left, low + side, right, high - side))
        return shape
    floor = build_up_m(shell, "floor", sizes.joist[1])
    roof = build_up_m(shell, "roof", sizes.rib[1])
    left, low, right, high = shape.bounds
    for edge in surface.roof_edges:
        shape = shape.difference(edge.buffer(roof, cap_style="square", join_style="mitre"))
    shape = shape.intersection(box(left, low + floor, right, high))
    if surface.kind in ("front", "rear"):
        inset = build_up_m(shell, "left side", sizes.stick[1]) if school.feet else sizes.side_thick + sizes.stick[1]
        shape = shape.intersection(box(left + inset, low, right - inset, high))
    if shape.geom_type == "MultiPolygon":
        shape = max(shape.geoms, key=lambda g: g.area)
    return shape


def build_up_m(shell: Shell, kind: str, stick: float) -> float:
    """Outer skin and sticks of a face [m]: how far another face's framing stays away from its outside."""
    face = face_of(shell, kind)
    if face is not None and face.layers:
        return skin_m(face) + min(max(framed_depth_m(face, 0.0), stick), sum(layer.thickness.si for layer in face.layers))
    return stick
