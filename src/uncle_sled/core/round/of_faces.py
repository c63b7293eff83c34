"""What faces are made of, in the round: sticks by their section, skins, boards and fill where their layer lies, panels whole.

A piece lies where the take-off has it on its face laid flat; a bent face bends it. What lies deeper in a face ends where the faces
beside it begin, by as much as it lies deep. A notch in a stick, a fold in a tube and the mitre of a skin are not drawn.
"""

from __future__ import annotations

from collections.abc import Iterator

import msgspec
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.shell import Face, Shell
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.framing.bought_shell import BOUGHT, come_in_since
from uncle_sled.core.framing.frame_body import Framed, face_of, skin_m
from uncle_sled.core.framing.member import Member, steel_share
from uncle_sled.core.geometry.surfaces import Surface, lengths
from uncle_sled.core.parts.face_build import Library
from uncle_sled.core.parts.from_shell import SUB_FRAME, sticks_group, sticks_part
from uncle_sled.core.parts.inside import thickness_m
from uncle_sled.core.round.mesh import NO_MESH, Floats, Mesh, joined, prism, prism_of
from uncle_sled.core.round.round_piece import RoundPiece, Way
from uncle_sled.core.studies.build.what_it_is import Bringing, kind_of_sticks, kinds_of_layers
from uncle_sled.core.studies.cut.piece import Piece, polygons_of
from uncle_sled.core.studies.cut.take_off import TakeOff

APART_M, LAYERS_APART_M = 0.55, 0.22  # how far a face goes off when all is drawn apart, and each of its layers beside
MOST_KEPT = 16384
THIN_M = 0.0015  # a skin that is thinner is drawn so thick, to be seen at all


class _Layered(msgspec.Struct, frozen=True):
    """Where a layer lies: from and to [m] under the outside; its number, its kind, its ink."""

    low: float
    high: float
    number: int
    what: str
    ink: str


INKS = {
    "insulation": "foam",
    "paint": "body",
    "cloth": "body",
    "panel": "zinc",
    "floor finish": "foam",
    "lining": "body",
    "new lining": "body",
}


def of_faces(shell: Shell, framed: Framed, off: TakeOff, library: Library, bringing: Bringing) -> Iterator[RoundPiece]:
    """All of them; nothing where no body is drawn."""
    body = framed.body
    if body is None or body.width <= 0:
        return
    surfaces = {surface.id: surface for surface in body.surfaces}
    layered: dict[str, dict[str, _Layered]] = {face.kind: _layers(face, shell, library) for face in shell.faces}
    faces: dict[str, Face] = {face.kind: face for face in shell.faces}
    since = {member.id for member in come_in_since(shell, framed.members)}
    for member in framed.members:
        yield _stick(member, surfaces[member.face], shell, bringing, bought=member.id not in since)
    members = {member.id for member in framed.members}
    covered = set()
    for piece in off.pieces:
        surface = surfaces.get(piece.of)
        if surface is None or piece.inner or len(piece.place) < 3 or piece.whole in members:
            continue
        face = faces.get(surface.kind)
        under = _under(piece, face, layered.get(surface.kind, {}), shell, surface)
        if under is not None:
            if under.low <= 0 and not piece.lining:
                covered.add(surface.id)
            yield _flat(piece, surface, framed, under, bringing, face)

    for surface in body.surfaces:
        if surface.id not in covered and (shell.framing.school == BOUGHT.name or not faces.get(surface.kind, NO_FACE).layers):
            yield _skin(surface, framed, shell, bringing, faces.get(surface.kind, NO_FACE))


NO_FACE = Face("", "other", "")


def _skin(surface: Surface, framed: Framed, shell: Shell, bringing: Bringing, face: Face) -> RoundPiece:
    """The outside of a face of which no sheet is cut: it was bought so, or nobody said what it is made of."""
    what = "start" if shell.framing.school == BOUGHT.name else "sheathing"
    shape: BaseGeometry = surface.polygon
    for hole in framed.sawn_in(surface.id):
        shape = shape.difference(hole)
    mesh = joined([bent(part, surface, (0.0, THIN_M)) for part in polygons_of(shape)])
    return RoundPiece(
        face.id or surface.id, mesh, what, bringing.by(face.id, what), "shell", of=surface.kind, out=out_of(surface, 0), ink="zinc"
    )


def _layers(face: Face, shell: Shell, library: Library) -> dict[str, _Layered]:
    """Where each layer lies, by its id; nothing of a face with a stuff that nobody knows."""
    if any(layer.material not in library for layer in face.layers):
        return {}
    made, deep = {}, 0.0
    for number, (layer, what) in enumerate(zip(face.layers, kinds_of_layers(face, shell, library), strict=True)):
        family = library[layer.material].family
        ink = INKS.get(what, "zinc" if family == "metal" else "wood")
        made[layer.id] = _Layered(deep, deep + layer.thickness.si, number, what, ink)
        deep += layer.thickness.si
    return made


def _under(piece: Piece, face: Face | None, layers: dict[str, _Layered], shell: Shell, surface: Surface) -> _Layered | None:
    """Where a piece lies in its face; None of what is none of its layers."""
    made_by = piece.key.split("/")[1] if "/" in piece.key else ""
    if made_by in layers:
        return layers[made_by]
    if piece.lining:
        inner = thickness_m(shell, surface.kind)
        return _Layered(max(inner - piece.thickness_m, 0.0), inner, len(layers), "new lining", "body" if piece.kind == "sheet" else "wood")
    if face is not None and piece.money_m2 is not None:  # a bought panel is of all its layers
        return _Layered(0.0, piece.thickness_m, 0, "panel", "zinc")
    return None


def out_of(surface: Surface, number: int) -> Way:
    """Which way a face goes off: straight out of its middle, its outer layers farther."""
    middle = surface.polygon.centroid
    at, under = surface.place(middle.x, middle.y, 0.0), surface.place(middle.x, middle.y, 0.1)
    far = APART_M - LAYERS_APART_M * min(number, 2)
    x, y, z = ((a - b) / 0.1 * far for a, b in zip(at, under, strict=True))
    return x, y, z


def _stick(member: Member, surface: Surface, shell: Shell, bringing: Bringing, *, bought: bool) -> RoundPiece:
    under = member.role == SUB_FRAME
    part = sticks_part(sticks_group(member))
    what = "start" if bought else kind_of_sticks(part, shell)
    begin = -member.section_m[1] if under else 0.0 if member.role == "corner profile" else skin_m(face_of(shell, member.face_kind))
    return RoundPiece(
        member.id,
        _stick_mesh(member, surface, (begin, begin + member.section_m[1])),
        what,
        bringing.by(part, what),
        "shell",
        key=member.id,
        of="" if under else surface.kind,
        out=(0.0, 0.0, 0.0) if under else out_of(surface, 1),
        mass_kg=member.mass_kg,
        filled=steel_share(member.section_m, member.wall_m, channel=member.channel or member.role == "corner profile"),
        ink="zinc" if member.wall_m > 0 else "wood",
        part=part,
        made=bringing.made(part, what),
    )


def _flat(piece: Piece, surface: Surface, framed: Framed, at: _Layered, bringing: Bringing, face: Face | None) -> RoundPiece:
    part = face.id if face is not None else ""
    return RoundPiece(
        part or surface.id,
        _mesh(piece, surface, framed if piece.holes else None, (at.low, max(at.high, at.low + THIN_M))),
        at.what,
        bringing.by(part, at.what),
        "shell",
        key=piece.key,
        of=surface.kind,
        out=out_of(surface, min(at.number, 2)),
        mass_kg=piece.kg_m2 * piece.area_m2 if piece.kg_m2 else None,
        ink=at.ink,
        made=bringing.made(part, at.what),
    )


@keep("piece", "surface", "framed", by_value("span"), most=MOST_KEPT, of="piece.key")
def _mesh(piece: Piece, surface: Surface, framed: Framed | None, span: tuple[float, float]) -> Mesh:
    """Args: framed: where it has holes, which are sawn in the face; span: from and to, under the outside [m]."""
    plain = framed is None and len(piece.place) <= 5
    shape: BaseGeometry = Polygon(piece.place)
    if not plain:
        shape = shape.buffer(0)
    for hole in framed.sawn_in(surface.id) if framed is not None else ():
        shape = shape.difference(hole)
    room = _room(surface, span[0]) if span[0] > 1e-4 else None
    if room is not None and not room.covers(shape):
        shape, plain = shape.intersection(room), False
    if plain and surface.chain is None:
        return bent(Polygon(), surface, span, list(piece.place))
    parts = [bent(part, surface, span) for part in polygons_of(shape)]
    return joined(parts) if parts else NO_MESH


@keep("member", "surface", by_value("span"), most=MOST_KEPT, of="member.id")
def _stick_mesh(member: Member, surface: Surface, span: tuple[float, float]) -> Mesh:
    return bent(Polygon(member.outline), surface, span, list(member.outline))


@keep("surface", by_value("deep_m"), most=256)
def _room(surface: Surface, deep_m: float) -> BaseGeometry:
    """What of a face is left so deep in it, where the faces beside it end; a face that overhangs keeps its size."""
    room = surface.polygon.buffer(-deep_m, join_style="mitre")
    return surface.polygon if room.is_empty else room


def bent(shape: Polygon, surface: Surface, span: tuple[float, float], ring: list[tuple[float, float]] | None = None) -> Mesh:
    def place(s: Floats, t: Floats, depth: float) -> Floats:
        return surface.places(s, t, depth)

    if surface.chain is None:
        return prism(ring, place, span) if ring is not None else prism_of(shape, place, span)
    if not shape.is_valid:
        shape = max(polygons_of(shape.buffer(0)), key=lambda part: part.area, default=shape)
    stops = [float(at) for at in lengths(surface.chain)[1:-1]]
    left, _, right, _ = shape.bounds
    inside = [at for at in stops if left < at < right]
    return prism_of(shape, place, span, _thinned(inside))


def _thinned(stops: list[float], least_m: float = 0.03) -> list[float]:
    """Bends that stand nearer to each other are followed by one."""
    made: list[float] = []
    for at in stops:
        if not made or at - made[-1] >= least_m:
            made.append(at)
    return made
