"""The whole build in the round: every piece with a shape, from the wheels to the last cabinet board.

What comes on rolls and in tins (membranes, paint, cloth), wires, pipes, edge trims, fillets and fasteners has no solid here; the book
of the build lists it beside its task. Source: the take-off, the parts.
"""

from __future__ import annotations

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.all_parts import axle_middle_m, cabinets_of, framed_of, parts_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.round.of_faces import of_faces
from uncle_sled.core.round.of_inside import of_inside
from uncle_sled.core.round.of_rig import of_rig
from uncle_sled.core.round.of_things import of_things
from uncle_sled.core.round.round_piece import RoundPiece
from uncle_sled.core.round.seen import Scene, scene_of
from uncle_sled.core.studies.build.what_it_is import bringing_of
from uncle_sled.core.studies.cut.take_off import take_off


@keep(most=2)
def round_pieces(build: Build, facts: Facts) -> tuple[RoundPiece, ...]:
    """All of them, what it stands on first; none where nothing is drawn yet."""
    framed, library, bringing = framed_of(build, facts), library_of(facts.materials), bringing_of(build, facts)
    parts = {part.id: part for part in parts_of(build, facts)}
    made = [
        *of_rig(build, bringing, parts),
        *of_faces(build.shell, framed, take_off(build, facts), library, bringing),
        *of_inside(build.shell, framed, library, bringing, axle_middle_m(build.rig), parts),
        *of_things(build, cabinets_of(build, facts), library, bringing, parts),
    ]
    return tuple(piece for piece in made if len(piece.mesh.triangles))


@keep(most=2)
def scene(pieces: tuple[RoundPiece, ...]) -> Scene:
    """The same as arrays for the painter."""
    return scene_of(pieces)
