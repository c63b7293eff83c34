"""The water and air line within each face: seams of its outer sheets, laps of what comes on rolls, flanges, rows of screws.

The line runs in the outermost layer that sheds water; of boards before a ventilated gap it is what lies behind the gap. A seam
is tight where cloth and resin or a roofing lies over it, where the sheets are scarfed and glued, or where tape or sealant was
said; a row of screws where something lies over their heads or they are bedded; an opening's flange by its seal.
Source: shell notes, water; shop practice.
"""

from __future__ import annotations

import math

import msgspec
from msgspec.structs import replace
from shapely.geometry import LineString, Polygon

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Face, Layer, SeamMade
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.framing.member import Member
from uncle_sled.core.framing.sandwich_panels import PANELS
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.face_build import Library, library_of
from uncle_sled.core.studies.cut.sheet_seams import Run, What, line_of, long_m, runs_between, seam_id, sheets_of, without_stick
from uncle_sled.core.studies.cut.take_off import TakeOff, take_off
from uncle_sled.core.studies.shell.screws import screw_joints_of

ROLL_WIDE_M = 1.5
FLANGED = ("door", "hatch", "window", "vent", "light")
SHEATHING = "/sheathing-"
OUTER_JOINTS = ("/outer", SHEATHING)


class WithinSeam(msgspec.Struct, frozen=True):
    """One of them. runs: on the face laid flat [m]; bare: parts of them without a stick behind; many: screws.

    made: None where nobody said; whole: nothing is to be made here, says tells why; water, air: whether the line goes on.
    """

    id: str
    face: str
    what: What
    name: str
    runs: tuple[Run, ...]
    length_m: float
    bare: tuple[Run, ...]
    many: int
    made: SeamMade | None
    whole: bool
    water: bool
    air: bool
    says: str

    @property
    def bare_m(self) -> float:
        """Metres without a stick behind."""
        return long_m(self.bare)


def within_faces(build: Build, facts: Facts) -> tuple[WithinSeam, ...]:
    """All of them, those that leak first, then the longest; none without a body."""
    return _within(build, facts, take_off(build, facts), framed_of(build, facts))


@keep("build.shell", "build.brief.region", "build.cut.joint", "facts.materials", "off", "framed", most=4)
def _within(build: Build, facts: Facts, off: TakeOff, framed: Framed) -> tuple[WithinSeam, ...]:
    if framed.body is None or framed.body.width <= 0:
        return ()
    library = library_of(facts.materials)
    said = {made.id: made for made in build.shell.seams}
    made: list[WithinSeam] = []
    for face in build.shell.faces:
        for surface in framed.body.of(face.kind):
            made += _of_surface(build, face, surface, off, framed, library, said)
    made += _screw_rows(build, facts, framed, library, said)
    made += _flanges(build, framed)
    return tuple(sorted(made, key=lambda seam: (seam.water and seam.air, seam.water, -seam.length_m)))


def _bedded(made: SeamMade | None) -> bool:
    return made is not None and (made.tape != "" or made.sealant != "")


def _of_surface(
    build: Build, face: Face, surface: Surface, off: TakeOff, framed: Framed, library: Library, said: dict[str, SeamMade]
) -> list[WithinSeam]:
    layer, cover = line_of(face, library)
    of_panels = build.shell.framing.school == PANELS.name and any(piece.key.startswith(f"{surface.id}/panel") for piece in off.pieces)
    if of_panels:
        return _of_panels(surface, off, said)
    if layer is None:
        return []
    material = library[layer.material]
    made = said.get(seam_id(surface.id, "sheets"))
    if material.form == "roll":
        area = sum(spread.area_m2 for spread in off.spreads if spread.of == surface.id and spread.made_of == material.id)
        long = area / ROLL_WIDE_M if area > ROLL_WIDE_M else 0.0
        if long <= 0:
            return []
        says = f"laps of {material.name.lower()}, from rolls {{1.5 m}} wide"
        return [replace(_seam(surface.id, "laps", made, says, whole=False), length_m=long)]
    runs = runs_between(sheets_of(off.pieces, surface.id, layer.id))
    if not runs:
        return []
    bare = without_stick(runs, framed.on(surface.id))
    glued = build.cut.joint == "scarf" and material.bends in ("", "plywood")
    says = f"under {cover.lower()}" if cover else "scarfed and glued" if glued else f"sheets of {material.name.lower()}"
    return [replace(_seam(surface.id, "sheets", made, says, whole=bool(cover) or glued), runs=runs, bare=bare, length_m=long_m(runs))]


def _of_panels(surface: Surface, off: TakeOff, said: dict[str, SeamMade]) -> list[WithinSeam]:
    """Parts of a bought panel with their strips over the joint: tight where they are bedded."""
    begins = f"{surface.id}/panel"
    parts = [Polygon(piece.place) for piece in off.pieces if piece.key.startswith(begins) and len(piece.place) > 2]
    runs = runs_between(parts)
    if not runs:
        return []
    made = said.get(seam_id(surface.id, "sheets"))
    return [replace(_seam(surface.id, "sheets", made, "panels under their strips", whole=False), runs=runs, length_m=long_m(runs))]


WORDS: dict[What, str] = {"sheets": "seams", "laps": "laps", "screws": "screws", "flange": "flange"}


def _seam(face: str, what: What, made: SeamMade | None, says: str, whole: bool) -> WithinSeam:
    """One of a face without its lines yet: tight where nothing is to be made, or what was said is bedded."""
    tight = whole or _bedded(made)
    return WithinSeam(
        seam_id(face, what),
        face,
        what=what,
        name=f"{face[:1].upper()}{face[1:]}, {WORDS[what]}",
        runs=(),
        length_m=0.0,
        bare=(),
        many=0,
        made=made,
        whole=whole,
        water=tight,
        air=tight,
        says=says,
    )


def _middle_line(stick: Member) -> Run:
    left, low, right, high = stick.shape.bounds
    if stick.along_s:
        return ((left, (low + high) / 2), (right, (low + high) / 2))
    return (((left + right) / 2, low), ((left + right) / 2, high))


def _screw_rows(build: Build, facts: Facts, framed: Framed, library: Library, said: dict[str, SeamMade]) -> list[WithinSeam]:
    """Rows of screws through the layer that the line runs in, where nothing lies over their heads."""
    assert framed.body is not None
    outer = {
        joint.face_id: joint
        for joint in screw_joints_of(build, facts, framed)
        if any(joint.id.startswith(f"{joint.face_id}{mark}") for mark in OUTER_JOINTS)
    }
    made = []
    for face in build.shell.faces:
        layer, cover = line_of(face, library)
        joint = outer.get(face.id)
        if joint is None or layer is None or not library[layer.material].screwed:
            continue
        surfaces = framed.body.of(face.kind)
        total = sum(stick.length_m for surface in surfaces for stick in framed.on(surface.id))
        for surface in surfaces:
            sticks = framed.on(surface.id)
            long = sum(stick.length_m for stick in sticks)
            if long <= 0 or total <= 0:
                continue
            covered = bool(cover) or SHEATHING in joint.id
            says = f"under {cover.lower()}" if cover else "behind boards and a gap" if covered else f"through {layer_name(layer, library)}"
            row = _seam(surface.id, "screws", said.get(seam_id(surface.id, "screws")), says, whole=covered)
            runs = tuple([_middle_line(stick) for stick in sticks if not stick.cuts and not stick.strips])
            made.append(replace(row, runs=runs, length_m=long, many=math.ceil(joint.many * long / total)))
    return made


def layer_name(layer: Layer, library: Library) -> str:
    """What a layer is of, as within a sentence."""
    return library[layer.material].name.lower()


def _flanges(build: Build, framed: Framed) -> list[WithinSeam]:
    """Round every opening, by the seal that it is said to have."""
    shapes = {cut.id: (cut.surface, cut.skin) for cut in framed.cuts if cut.good}
    made = []
    for opening in build.shell.openings:
        if opening.kind not in FLANGED or opening.id not in shapes:
            continue
        surface, hole = shapes[opening.id]
        run = tuple((float(x), float(y)) for x, y in hole.exterior.coords)
        tight = opening.seal != "none"
        says = f"its seal, {opening.seal}" if tight else "no seal on Openings"
        seam = _seam(opening.id, "flange", None, says, whole=True)
        long = float(LineString(run).length)
        made.append(replace(seam, face=surface, name=f"{opening.name}, flange", runs=(run,), length_m=long, water=tight, air=tight))
    return made


def usual_within(seam: WithinSeam) -> SeamMade | None:
    """What is usual on it: a strip bedded in butyl over seams, acrylic tape on laps, sealant under the heads of screws."""
    if seam.whole:
        return None
    if seam.what == "sheets":
        return SeamMade(seam.id, "strip", "butyl", "")
    if seam.what == "laps":
        return SeamMade(seam.id, "", "acrylic", "")
    return SeamMade(seam.id, "", "", "bead")
