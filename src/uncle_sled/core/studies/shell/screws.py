"""Screws by joint: for each pair of layers the stack, the least bite, the longest that stays inside, and how many.

A screw bites at least a quarter deeper than what it holds is thick, and 15 mm, 40 being always enough; its point stays 3 mm inside of all that
it goes through. Boards go into their battens, battens through the sheathing into the sticks, sheets into the sticks. Where
no length does both, the longest that stays inside is named, and that it bites too little. Into a tube or C of steel a screw
holds by the wall, with three turns of thread behind it. Source: shop rules; the point
inside as in the shell notes. Check 6 mm of ply on a stick 45 deep: 21 mm at least, 48 at most: 25.
"""

from __future__ import annotations

import math
from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Face, Layer, Partition
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.materials import TIMBER
from uncle_sled.core.parts.face_build import BATTEN_PITCH_M, Library, battens_m, family_of, library_of
from uncle_sled.core.parts.inner_leaf import skin_m
from uncle_sled.core.parts.partitions import PLAY_M, Wall, walls_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words

BITES, LEAST_BITE_M, MOST_BITE_M, POINT_IN_M = 1.25, 0.015, 0.040, 0.003
SOLD_M = (0.016, 0.020, 0.025, 0.030, 0.035, 0.040, 0.045, 0.050, 0.060, 0.070, 0.080, 0.090, 0.100, 0.120)
SOLD_IN = tuple(inches * 0.0254 for inches in (0.625, 0.75, 1.0, 1.25, 1.5, 1.625, 2.0, 2.5, 3.0, 3.5, 4.0))
THICK_FROM_M = 0.055  # longer ones are 5 mm thick, shorter 4
TURNS_M = 0.006  # three turns of thread behind sheet steel
OF_WOOD = ("/boards",)  # joints whose screws end in a batten
PITCH_M, BOARD_SCREWS = 0.15, 2  # along a stick where nobody said; of a board on each batten

SCREWED = ("timber", "plywood", "strand board", "metal")  # cladding and sheets that screws hold


class ScrewJoint(msgspec.Struct, frozen=True):
    """One kind of joint of a face. held_m: thickness of what is held; into_m: depth of what holds it, at most [m].

    layers: (material, thickness [m]) that the screw goes through and into, from its head on. long_m: a length that is sold, the
    shortest that bites enough; else the longest that stays inside, bites is False then; None: none is short enough.
    """

    id: str
    face_id: str
    face: str
    name: str
    layers: tuple[tuple[str, float], ...]
    held_m: float
    into_m: float
    long_m: float | None
    bites: bool
    many: int
    layer: str = ""  # id of the layer under its heads; "" of a wall inside
    thread_m: float | None = None  # that must come out behind sheet steel; None: it bites in wood

    @property
    def least_m(self) -> float:
        """The shortest that bites enough [m]."""
        return least_m(self.held_m) if self.thread_m is None else self.held_m + self.thread_m

    @property
    def most_m(self) -> float:
        """The longest whose point stays inside [m]."""
        return most_m(self.held_m, self.into_m)

    @property
    def thick_m(self) -> float:
        """Of its shank, as such screws are sold [m]."""
        return 0.005 if (self.long_m or 0.0) > THICK_FROM_M else 0.004


def screw_size(thick_m: float, long_m: float, words: Words) -> str:
    """A screw as it is asked for: "4 x 25 mm", or by its number and inches."""
    if words.shown.imperial:
        return f"#{8 if thick_m < 0.0045 else 10} × {words.thick(long_m)}"
    return f"{thick_m * 1e3:g} × {long_m * 1e3:g} mm"


def screws_by_size(joints: tuple[ScrewJoint, ...]) -> dict[tuple[float, float], int]:
    """How many of each thickness and length [m], the shortest first."""
    made: dict[tuple[float, float], int] = {}
    for joint in sorted(joints, key=lambda each: each.long_m or 0.0):
        if joint.long_m is not None:
            made[joint.thick_m, joint.long_m] = made.get((joint.thick_m, joint.long_m), 0) + joint.many
    return made


def least_m(held_m: float) -> float:
    """The shortest screw that bites enough [m]. Check 6 mm: 21 mm; 18 mm: 40.5; 40 mm: 80."""
    return held_m + min(max(BITES * held_m, LEAST_BITE_M), MOST_BITE_M)


def most_m(held_m: float, into_m: float) -> float:
    """The longest screw whose point stays inside [m]. Check 6 mm on 45: 48 mm."""
    return held_m + into_m - POINT_IN_M


def length_m(held_m: float, into_m: float, sold_m: tuple[float, ...] = SOLD_M, thread_m: float | None = None) -> tuple[float | None, bool]:
    """A length that is sold, and whether it bites enough; None where even the shortest comes out. Args: thread_m: into sheet steel."""
    least = least_m(held_m) if thread_m is None else held_m + thread_m
    inside = [sold for sold in sold_m if sold <= most_m(held_m, into_m) + 1e-9]
    enough = [sold for sold in inside if sold >= least - 1e-9]
    if enough:
        return enough[0], True
    return (inside[-1] if inside and inside[-1] > held_m else None), False


def screw_joints(s: Studied) -> tuple[ScrewJoint, ...]:
    """Every kind of joint of a build, face by face from outside in."""
    return screw_joints_of(s.build, s.facts, s.framed)


@keep("build.shell", "build.brief.region", "framed", "facts.materials", most=4)
def screw_joints_of(build: Build, facts: Facts, framed: Framed) -> tuple[ScrewJoint, ...]:
    """The same; none where nothing is screwed to sticks."""
    library, shell = library_of(facts.materials), build.shell
    sold = SOLD_IN if build.brief.region == "North American" else SOLD_M
    said = shell.framing.screw_pitch
    pitch = said.si if said is not None and said.si > 0 else PITCH_M
    made: list[ScrewJoint] = []
    sizes = framed.sizes
    steel = (sizes.wall, "light steel C" if sizes.channel else "steel tube") if sizes is not None and sizes.wall > 0 else None
    for face in shell.faces:
        runs = [sum(m.length_m for m in framed.on(surface.id)) for surface in framed.body.of(face.kind)] if framed.body else []
        if sum(runs) > 0:
            made += [_into_steel(joint, steel) for joint in _of_face(face, library, sum(runs), _area_m2(framed, face.kind), pitch)]
    if framed.body is not None:
        for wall, partition in zip(walls_of(shell, framed.body, library), shell.partitions, strict=True):
            made += _of_wall(wall, partition, library, pitch)
    return tuple([_sized(joint, sold) for joint in made])


def _into_steel(joint: ScrewJoint, steel: tuple[float, str] | None) -> ScrewJoint:
    """The same where the sticks are of sheet steel: it holds by its wall, and three turns of thread behind it are enough."""
    if steel is None or joint.layers[-1][1] != joint.into_m or joint.id.endswith(OF_WOOD):
        return joint
    wall, name = steel
    return msgspec.structs.replace(joint, layers=(*joint.layers[:-1], (name, joint.into_m)), thread_m=wall + TURNS_M)


def _of_wall(wall: Wall, partition: Partition, library: Library, pitch_m: float) -> Iterator[ScrewJoint]:
    """Both skins of a wall inside on its sticks; over the pocket of a door there is nothing to bite in but air and the leaf."""
    skin = library.get(partition.skin)
    if not wall.sticks or skin is None:
        return
    thick = skin_m(partition)
    run = sum(stick.length_m for stick in wall.sticks)
    held = (skin.name, thick)

    def joint(id: str, name: str, into: tuple[str, float], many: int) -> ScrewJoint:
        return ScrewJoint(
            f"{wall.id}/{id}",
            wall.id,
            face=wall.name,
            name=name,
            layers=(held, into),
            held_m=thick,
            into_m=into[1],
            long_m=None,
            bites=False,
            many=many,
        )

    yield joint("skins", "both skins", (library[TIMBER].name.lower(), wall.sticks[0].section_m[1]), 2 * math.ceil(run / pitch_m))
    if wall.pocket is not None:
        yield joint("pocket", "over the pocket", ("air, then the leaf", PLAY_M), 0)


def _sized(joint: ScrewJoint, sold_m: tuple[float, ...]) -> ScrewJoint:
    long, bites = length_m(joint.held_m, joint.into_m, sold_m, joint.thread_m)
    return msgspec.structs.replace(joint, long_m=long, bites=bites)


def _area_m2(framed: Framed, kind: str) -> float:
    assert framed.body is not None
    return float(sum(face.area_m2 - sum(hole.area for hole in framed.holes_in(face.id)) for face in framed.body.of(kind)))


def _of_face(face: Face, library: Library, run_m: float, area_m2: float, pitch_m: float) -> Iterator[ScrewJoint]:
    sticks = [k for k, layer in enumerate(face.layers) if layer.framing > 0]
    if not sticks:
        return
    deep = sum(face.layers[k].thickness.si for k in sticks)
    stick = (library[TIMBER].name.lower(), deep)
    many = math.ceil(run_m / pitch_m)
    outside, inside = face.layers[: sticks[0]], face.layers[sticks[-1] + 1 :]
    yield from _outside(face, library, tuple(reversed(outside)), stick, many, area_m2)
    held = [layer for layer in inside if _screwed(layer, library)]
    if held:
        yield _joint(face, "inner", "inner skin", [_told(layer, library) for layer in reversed(held)], stick, many, held[-1].id)


def _outside(
    face: Face, library: Library, layers: tuple[Layer, ...], stick: tuple[str, float], many: int, area_m2: float
) -> Iterator[ScrewJoint]:
    """Args: layers: outside of the sticks, the nearest to them first."""
    under: list[tuple[str, float]] = []  # what lies on the sticks so far, the outermost first
    battens: tuple[str, float] | None = None
    boards: list[tuple[str, float]] = []
    head = board_head = ""  # ids of the layers that the heads lie on
    rows_m2 = 0.0
    for layer in layers:
        known = library.get(layer.material)
        if known is None:
            continue
        if known.air:
            if under and battens is None:
                yield _joint(face, f"sheathing-{layer.id}", "sheathing", under, stick, many, head)
            if layer.battens:
                rows_m2 = 1 / max(battens_m(layer)[1], 1e-6)
                battens = ("batten", layer.thickness.si)
                bites = math.ceil(area_m2 * rows_m2 / BATTEN_PITCH_M)
                yield _joint(face, f"battens-{layer.id}", "battens", [battens, *under], stick, bites, layer.id)
        elif _screwed(layer, library):
            (boards if battens is not None else under).insert(0, _told(layer, library))
            head, board_head = (head, layer.id) if battens is not None else (layer.id, board_head)
    if battens is not None and boards:
        yield _joint(face, "boards", "boards", boards, battens, math.ceil(area_m2 * rows_m2 / 0.135) * BOARD_SCREWS, board_head)
    elif under and battens is None and not any(library[layer.material].air for layer in layers if layer.material in library):
        yield _joint(face, "outer", "outer skin", under, stick, many, head)


def _told(layer: Layer, library: Library) -> tuple[str, float]:
    return library[layer.material].name, layer.thickness.si


def _screwed(layer: Layer, library: Library) -> bool:
    known = library.get(layer.material)
    return known is not None and (known.screwed or known.form == "board") and family_of(layer.material, library) in SCREWED


def _joint(face: Face, id: str, name: str, held: list[tuple[str, float]], into: tuple[str, float], many: int, layer: str) -> ScrewJoint:
    held_m = sum(thick for _, thick in held)
    return ScrewJoint(
        f"{face.id}/{id}",
        face.id,
        face=face.kind,
        name=name,
        layers=(*held, into),
        held_m=held_m,
        into_m=into[1],
        long_m=None,
        bites=False,
        many=many,
        layer=layer,
    )
