"""The body's parts: each face's sheets, each face's sticks, doors and windows, wheel boxes and nose box."""

from __future__ import annotations

import msgspec
import numpy as np
from shapely import area as polygon_areas
from shapely import box as boxes
from shapely import centroid, get_x, get_y, intersection
from shapely.geometry import Polygon

from uncle_sled.core.document.shell import Face, Opening, Shell
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.bought_shell import come_in_since
from uncle_sled.core.framing.frame_body import FASTENERS, Framed, framed_depth_m, wheel_box_spans
from uncle_sled.core.framing.member import Member
from uncle_sled.core.framing.no_sticks import WITHOUT_STICKS
from uncle_sled.core.framing.welded_tube import tube_in_wall
from uncle_sled.core.geometry.body_joints import joints_of
from uncle_sled.core.geometry.surfaces import Body, Surface, lengths, net
from uncle_sled.core.materials import TIMBER, materials
from uncle_sled.core.parts.face_build import FaceBuild, Library, face_build, layer_kg_m2
from uncle_sled.core.parts.fillets import filleted
from uncle_sled.core.parts.leaf import leaf_in
from uncle_sled.core.parts.panel_glue import glue_kg_m2
from uncle_sled.core.parts.part import MEMBER_M, Part
from uncle_sled.core.parts.partitions import decks_of, walls_of
from uncle_sled.core.parts.relining import relined, why_not
from uncle_sled.core.parts.ridge_sticks import ridge_sticks
from uncle_sled.core.parts.rising import cloth_kg, fittings_kg, risen_of

# What a door, window or vent weighs per m2 of its opening where nobody said, as a guess [kg/m2].
USUAL_KG_M2 = {"door": 16.0, "hatch": 13.0, "window": 14.0, "vent": 18.0, "light": 6.0}
WHEEL_BOX_KG_M2 = 9.0
BOUGHT_WALL_KG_M2 = 8.0  # skin and posts of a bought shell's wall, where its layers are not known
NOSE_BOX_KG_M2 = 9.0
FULL_DEPTH = 0.5  # sticks shallower than this share of the framed layers do not bridge them
SUB_FRAME = "sub-frame"
BENT_STEPS = 48  # parts of a leaf that goes round a curve, for its centre
UNMEASURED = 0.75  # height of a bulkhead as a share of the body's


class FaceSums(msgspec.Struct, frozen=True):
    """A face over its surfaces: net area [m2], centre [m], share of sticks, and its build-up if it has layers."""

    area_m2: float
    centre_m: tuple[float, float, float]
    sticks: float | None
    build: FaceBuild | None


def parts_of_shell(
    shell: Shell, framed: Framed, library: Library, axle_m: float | None, weighed: bool = False, whole_kg: float | None = None
) -> tuple[Part, ...]:
    """Everything of the body that counts.

    Args: weighed: it was bought and weighed as one, with its doors and boxes; whole_kg: what the whole weighed then.
    """
    body = framed.body
    if body is None:
        return ()
    parts: list[Part] = []
    for face in shell.faces:
        sums = face_sums(face, shell, framed, library)
        if sums.build is not None:
            mass, source = (sums.build.kg_m2 + glue_kg_m2(face, shell)) * sums.area_m2, "computed"
        else:
            mass, source = (face.mass.si if face.mass else 0.0), face.source
        if mass > 0:
            x, y, z = sums.centre_m
            x = face.weight_at.si if face.weight_at else x
            parts.append(
                Part(
                    face.id,
                    face.name,
                    group="shell",
                    made_by=f"shell.faces.{face.id}",
                    source=source,
                    mass_kg=mass,
                    x_m=x,
                    y_m=y,
                    z_m=z,
                    size_m=extents_m(body.of(face.kind), body, sums.build.thickness_m if sums.build else 0.0),
                    station_sigma_m=MEMBER_M,
                    bias_group="shell" if source == "computed" else None,
                    base=True,
                )
            )
    parts += [*_ridge(shell, body, library), *_fillets(shell, body)]
    lining = [*_relined(shell, framed, library, whole_kg), *_inner(shell, body, library), *_rising(shell, body, library)]
    if weighed:
        return (*parts, *_sticks(shell, framed, weighed), *_cut_since(shell, framed, library), *lining)
    return (*parts, *_sticks(shell, framed), *_openings(shell, framed, library), *_boxes(shell, body, axle_m), *lining)


def extents_m(surfaces: tuple[Surface, ...], body: Body, thick_m: float) -> tuple[float, float, float]:
    """What a face measures along, across and up [m]: a wall across is thin along. The whole body where it has no surface.

    Args: thick_m: of its build-up, the least that it measures any way.
    """
    spots: list[tuple[float, float, float]] = []
    for surface in surfaces:
        _, low, _, high = surface.polygon.bounds
        if surface.chain is not None:
            spots += [(float(x), surface.origin[1] + t, float(z)) for x, z in surface.chain for t in (low, high)]
        else:
            spots += [surface.place(s, t) for s, t in surface.polygon.exterior.coords]
    if not spots:
        return body.length, body.width, body.height
    x, y, z = (max(max(p[k] for p in spots) - min(p[k] for p in spots), thick_m) for k in range(3))
    return x, y, z


def _members_of(face: Face, framed: Framed) -> tuple[Member, ...]:
    ids = {surface.id for surface in framed.body.of(face.kind)} if framed.body is not None else set()
    return tuple([member for member in framed.members if member.face in ids])


def _holes_of(face: Face, framed: Framed) -> tuple[Polygon, ...]:
    return tuple(hole for surface in framed.body.of(face.kind) for hole in framed.holes_in(surface.id)) if framed.body is not None else ()


@keep("face", "shell.wall", "framed.body", by_value("framed.sizes"), "library", _members_of, by_value(_holes_of), most=64)
def face_sums(face: Face, shell: Shell, framed: Framed, library: Library) -> FaceSums:
    """Net area, centre and build-up of a face, with the share of its framed layers that members fill."""
    body = framed.body
    assert body is not None
    surfaces = body.of(face.kind)
    area, centre = net_area(framed, surfaces)
    if not surfaces:
        area = body.width * UNMEASURED * body.height
        centre = (body.front + body.length / 2, 0.0, body.under + body.height / 2)
    sticks = sticks_share(face, _members_of(face, framed), area)
    build = None
    if face.layers:
        try:
            build = face_build(face.layers, face.kind, library, sticks, tube_in_wall(framed.sizes) if sticks else None)
        except GeometryError:
            build = None  # said as a finding; the face keeps its typed mass, if it has one
    thick = build.thickness_m if build else shell.wall.si if shell.wall else 0.0
    return FaceSums(area, _sunk(centre, surfaces, thick), sticks, build)


def layers_kg_m2(face: Face, sums: FaceSums, framed: Framed, library: Library) -> list[float]:
    """What each layer of a face weighs a square metre, from outside in, as its part is weighed [kg/m2]. Args: sums: of the face."""
    timber = (tube_in_wall(framed.sizes) if sums.sticks else None) or materials()[TIMBER]
    return [layer_kg_m2(layer, library[layer.material], timber, sums.sticks) for layer in face.layers]


def _sunk(centre: tuple[float, float, float], surfaces: tuple[Surface, ...], thick_m: float) -> tuple[float, float, float]:
    """The centre half the build-up inside of the outer surface, where the face is one flat surface."""
    if len(surfaces) != 1 or surfaces[0].swept:
        return centre
    inward, half = surfaces[0].inward, thick_m / 2
    return centre[0] + inward[0] * half, centre[1] + inward[1] * half, centre[2] + inward[2] * half


def sticks_share(face: Face, members: tuple[Member, ...], area: float) -> float | None:
    """Share of the face's framed layers that is timber by its members; None where none were framed."""
    depth = framed_depth_m(face, 0.0)
    if not members or depth <= 0 or area <= 0:
        return None
    through = [m for m in members if m.section_m[1] >= FULL_DEPTH * depth]
    return float(min(sum(polygon_areas([m.shape for m in through]).tolist()) / area, 1.0))


def net_area(framed: Framed, surfaces: tuple[Surface, ...]) -> tuple[float, tuple[float, float, float]]:
    """Area less openings [m2] and its centre [m] over several surfaces."""
    total, moment = 0.0, np.zeros(3)
    for surface in surfaces:
        shape = net(surface.polygon, framed.holes_in(surface.id))
        area = float(shape.area)
        total += area
        moment += area * np.array(centre_on(surface, shape))
    at = moment / total if total > 0 else np.zeros(3)
    return total, (float(at[0]), float(at[1]), float(at[2]))


def centre_on(surface: Surface, shape: Polygon) -> tuple[float, float, float]:
    """Centre of an area of a surface [m]; a swept one is summed chord by chord."""
    if shape.is_empty:
        return surface.place(0.0, 0.0)
    if surface.chain is None:
        return surface.place(shape.centroid.x, shape.centroid.y)
    runs = lengths(surface.chain)
    _, low, _, high = shape.bounds
    parts = intersection(shape, boxes(runs[:-1], low, runs[1:], high))
    areas, centres = polygon_areas(parts), centroid(parts)
    there = areas > 0
    spots = surface.places(get_x(centres[there]), get_y(centres[there]))
    x, y, z = (areas[there] @ spots / max(float(areas.sum()), 1e-12)).tolist()
    return x, y, z


def sticks_group(member: Member) -> str:
    """What a stick is weighed with: its kind of face, or the sub-frame, which no typed weight of a floor holds."""
    return SUB_FRAME if member.role == SUB_FRAME else member.face_kind


def sticks_part(group: str) -> str:
    """Id of the part that the sticks of a kind of face make, or those of the sub-frame."""
    return f"sticks-{group.replace(' ', '-')}"


def _sticks(shell: Shell, framed: Framed, weighed: bool = False) -> list[Part]:
    """The members of each face as one part; those of a face with a typed weight are in that weight already.

    Of a bought shell that was weighed only what came in since: headers, bridges and jambs of what was cut since.
    """
    typed = {face.kind for face in shell.faces if not face.layers and face.mass is not None}
    all_members = framed.members
    if weighed:
        all_members = come_in_since(shell, all_members)
    made = []
    for kind in dict.fromkeys(sticks_group(m) for m in all_members):
        if kind in typed:
            continue
        members = [m for m in all_members if sticks_group(m) == kind]
        mass = sum(m.mass_kg for m in members)
        at = [sum(m.mass_kg * m.at_m[k] for m in members) / mass for k in range(3)]
        body = framed.body
        assert body is not None
        made.append(
            Part(
                sticks_part(kind),
                f"{kind.capitalize()} framing" if kind != SUB_FRAME else "Sub-frame",
                group="shell",
                made_by="shell.framing",
                source="computed",
                mass_kg=mass,
                x_m=at[0],
                y_m=at[1],
                z_m=at[2],
                size_m=extents_m(_of_members(members, body), body, shell.wall.si if shell.wall else 0.0),
                station_sigma_m=MEMBER_M,
                bias_group="shell",
                base=True,
            )
        )
    return made


def _ridge(shell: Shell, body: Body, library: Library) -> list[Part]:
    """What holds a ridge or valley: its beam, ties or collars; of ties whose size nobody said nothing counts."""
    made = []
    for stick in ridge_sticks(shell, body):
        thick, deep = stick.section_m
        mass = thick * deep * stick.length_m * (library[TIMBER].density_kg_m3 or 450.0) * (1 + FASTENERS)
        x, y, z = stick.at_m
        size = (stick.length_m, thick, deep) if stick.lengthways else (thick, stick.length_m, deep)
        made.append(Part(stick.id, stick.name, "shell", "shell.ridge", "computed", mass, x, y, z, size, MEMBER_M, "shell", base=True))
    return made


def _of_members(members: list[Member], body: Body) -> tuple[Surface, ...]:
    """The surfaces that members lie on; none where they lie on none, as those of a sub-frame do."""
    faces = {member.face for member in members}
    return tuple(surface for surface in body.surfaces if surface.id in faces)


def _relined(shell: Shell, framed: Framed, library: Library, whole_kg: float | None) -> list[Part]:
    """Each relined face as two parts: what went off, negative, and what came in; at the inside of its face."""
    body, made = framed.body, list[Part]()
    for relining in shell.relined:
        found = relined(relining, shell, framed, library)
        if body is None or found is None or why_not(relining, shell, framed, library, whole_kg):
            continue
        surfaces = body.of(relining.face)
        _, centre = net_area(framed, surfaces)
        x, y, z = _sunk(centre, surfaces, 2 * (shell.wall.si if shell.wall else 0.0))
        size = extents_m(surfaces, body, 0.0)
        for id, name, kg, source in (
            (
                f"liner-off-{relining.id}",
                f"Liner off, {relining.face}",
                -(found.out_kg or 0.0),
                "weighed" if found.out_weighed else "computed",
            ),
            (f"relined-{relining.id}", f"Relined, {relining.face}", found.in_kg, "computed"),
        ):
            if kg:
                made.append(
                    Part(
                        id,
                        name,
                        group="shell",
                        made_by=f"shell.relined.{relining.id}",
                        source=source,
                        mass_kg=kg,
                        x_m=x,
                        y_m=y,
                        z_m=z,
                        size_m=size,
                        station_sigma_m=MEMBER_M,
                        bias_group="shell",
                        base=True,
                    )  # type: ignore[arg-type]
                )
    return made


def _fillets(shell: Shell, body: Body) -> list[Part]:
    """Fillets and strips of a body without sticks, as one, at the middle of its joints."""
    made = filleted(shell, joints_of(body)) if shell.framing.school in WITHOUT_STICKS and body.width > 0 else None
    if made is None or made.mass_kg <= 0:
        return []
    at = (body.front + body.length / 2, 0.0, body.under + body.height / 2)
    size = (body.length, body.width, body.height)
    return [
        Part("fillets", "Fillets and strips", "shell", "shell.framing", "computed", made.mass_kg, *at, size, MEMBER_M, "shell", base=True)
    ]


def _rising(shell: Shell, body: Body, library: Library) -> list[Part]:
    """Cloth and fittings of a roof that goes up, folded at its edge as on the road."""
    rising, risen = shell.rising, risen_of(shell, body)
    if rising is None or risen is None or risen.fault:
        return []
    cloth = cloth_kg(risen, rising, library)
    fittings, known_by = fittings_kg(risen, rising)
    x, z = (risen.a_m + risen.b_m) / 2, risen.top_down_m
    size = (risen.long_m, risen.wide_m, 0.0)
    made = []
    for id, name, source, kg in (
        ("rising-cloth", "Cloth sides", "computed", cloth or 0.0),
        ("rising-fittings", "Roof fittings", known_by, fittings),
    ):
        if kg > 0:
            made.append(
                Part(
                    id,
                    name,
                    group="shell",
                    made_by="shell.rising",
                    source=source,
                    mass_kg=kg,
                    x_m=x,
                    y_m=0.0,
                    z_m=z,
                    size_m=size,
                    station_sigma_m=MEMBER_M,
                    bias_group=None,
                    base=True,
                )  # type: ignore[arg-type]
            )
    return made


def _inner(shell: Shell, body: Body, library: Library) -> list[Part]:
    """Partitions and lofts: they came in later than whatever was weighed as one."""
    made = []
    for wall, partition in zip(walls_of(shell, body, library), shell.partitions, strict=True):
        if wall.mass_kg > 0:
            size = (wall.high[0] - wall.low[0], wall.high[1] - wall.low[1], body.height)
            source = partition.source if partition.mass is not None else "computed"
            made.append(
                Part(
                    wall.id,
                    wall.name,
                    "shell",
                    f"shell.partitions.{wall.id}",
                    source,
                    wall.mass_kg,
                    *wall.centre_m,
                    size,
                    MEMBER_M,
                    "shell" if source == "computed" else None,
                    base=True,
                )
            )
    for deck in decks_of(shell, body):
        if deck.mass_kg > 0:
            x, y, z = ((a + b) / 2 for a, b in zip(deck.low, deck.high, strict=True))
            size = (deck.high[0] - deck.low[0], deck.high[1] - deck.low[1], deck.high[2] - deck.low[2])
            made.append(
                Part(
                    deck.id,
                    deck.name,
                    group="shell",
                    made_by=f"shell.lofts.{deck.id}",
                    source=deck.source,
                    mass_kg=deck.mass_kg,
                    x_m=x,
                    y_m=y,
                    z_m=z,
                    size_m=size,
                    station_sigma_m=MEMBER_M,
                    bias_group=None,
                    base=True,
                )
            )
    return made


def usual_mass_kg(opening: Opening) -> float:
    """What the door or window itself is guessed to weigh [kg]."""
    return USUAL_KG_M2.get(opening.kind, 0.0) * opening.width.si * opening.height.si


def _openings(shell: Shell, framed: Framed, library: Library) -> list[Part]:
    body = framed.body
    assert body is not None
    surfaces = {surface.id: surface for surface in body.surfaces}
    shapes = {cut.id: cut for cut in framed.cuts if cut.kind != "wheel box"}
    made = []
    for opening in shell.openings:
        cut = shapes.get(opening.id)
        own = leaf_in(framed, opening, library) if opening.mass is None else None
        built = own is not None and not own.fault
        mass = opening.mass.si if opening.mass else own.mass_kg if own is not None and built else usual_mass_kg(opening)
        if cut is None or mass <= 0:
            continue
        surface = surfaces[cut.surface]
        left, low, right, high = cut.shape.bounds
        x, y, z = _middle(surface, cut.shape, own.thick_m / 2 if own is not None and built else 0.0)
        ends = surface.place(left, low), surface.place(right, high)
        made.append(
            Part(
                opening.id,
                opening.name,
                group="shell",
                made_by=f"shell.openings.{opening.id}",
                source=opening.source if opening.mass else "computed" if built else "guessed",
                mass_kg=mass,
                x_m=x,
                y_m=y,
                z_m=z,
                size_m=(abs(ends[1][0] - ends[0][0]), abs(ends[1][1] - ends[0][1]), abs(ends[1][2] - ends[0][2])),
                station_sigma_m=MEMBER_M,
                bias_group=None,
                base=True,
            )
        )
    return made


def _middle(surface: Surface, shape: Polygon, depth_m: float) -> tuple[float, float, float]:
    """Centre of an even leaf in its hole, so deep in the face; one that goes round a curve has it inside of that."""
    left, low, right, high = shape.bounds
    if surface.chain is None:
        return surface.place(shape.centroid.x, shape.centroid.y, depth_m)
    edges = np.linspace(left, right, BENT_STEPS + 1)
    at = (edges[:-1] + edges[1:]) / 2
    x, y, z = surface.places(at, np.full(BENT_STEPS, (low + high) / 2), depth_m).mean(axis=0).tolist()
    return x, y, z


def _cut_since(shell: Shell, framed: Framed, library: Library) -> list[Part]:
    """Openings that were cut into a weighed shell: each with its leaf, less what was cut out of the wall."""
    since = {opening.id: opening for opening in shell.openings if opening.cut_since}
    made = []
    for leaf in _openings(shell, framed, library) if since else ():
        opening = since.get(leaf.id)
        if opening is None:
            continue
        face = next((face for face in shell.faces if face.kind == opening.face), None)
        build = face_sums(face, shell, framed, library).build if face is not None and face.layers else None
        kg_m2, source = (build.kg_m2, "computed") if build is not None else (BOUGHT_WALL_KG_M2, "guessed")
        gone = kg_m2 * opening.width.si * opening.height.si
        made += [leaf, msgspec.structs.replace(leaf, id=f"cut-{leaf.id}", name=f"Cut out for {leaf.name}", source=source, mass_kg=-gone)]
    return made


def _boxes(shell: Shell, body: Body, axle_m: float | None) -> list[Part]:
    made = []
    spans = wheel_box_spans(shell, body, axle_m)
    if spans is not None:
        a, b, wide, high = spans
        each = ((b - a) * (wide + high) + 2 * wide * high) * WHEEL_BOX_KG_M2
        made.append(
            Part(
                "wheel-boxes",
                "Wheel boxes",
                group="shell",
                made_by="shell.wheel_boxes",
                source="estimated",
                mass_kg=2 * each,
                x_m=body.front + (a + b) / 2,
                y_m=0.0,
                z_m=body.under + high * 0.65,
                size_m=(b - a, body.width, high),
                station_sigma_m=MEMBER_M,
                base=True,
            )
        )
    if shell.nose_box is not None:
        nose = shell.nose_box
        long, wide, high = nose.length.si, nose.width.si, nose.height.si
        usual = 2 * (long * wide + long * high + wide * high) * NOSE_BOX_KG_M2
        made.append(
            Part(
                "nose-box",
                "Nose box",
                group="shell",
                made_by="shell.nose_box",
                source=nose.source if nose.mass else "guessed",
                mass_kg=nose.mass.si if nose.mass else usual,
                x_m=body.front - long / 2,
                y_m=0.0,
                z_m=body.under + high / 2,
                size_m=(long, wide, high),
                station_sigma_m=MEMBER_M,
                base=True,
            )
        )
    return [part for part in made if part.mass_kg > 0]
