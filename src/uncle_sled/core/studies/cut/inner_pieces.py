"""Walls and doors inside the body as pieces: sticks, both skins parted over them, and the leaf with its ring of sticks.

A wall of one board is that board. Source: shop notes, take-off.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable

import msgspec
from shapely import affinity, box
from shapely.geometry import Polygon

from uncle_sled.core.document.shell import Partition, Shell
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.materials import TIMBER, Material
from uncle_sled.core.parts.face_build import Library
from uncle_sled.core.parts.inner_leaf import skin_m
from uncle_sled.core.parts.partitions import Wall, walls_of
from uncle_sled.core.studies.cut.piece import Piece, bar_piece, flat_piece
from uncle_sled.core.studies.cut.skins import LEAST_SKIN_M2, panels_of

SIDES = ("front or left", "rear or right")


def inner_pieces(shell: Shell, body: Body, library: Library, sheet: tuple[float, float]) -> list[Piece]:
    """Everything to cut for the walls inside that can be built as typed."""
    made: list[Piece] = []
    for wall, partition in zip(walls_of(shell, body, library), shell.partitions, strict=True):
        if not wall.fault:
            made += [*_sticks(wall, library), *_skins(wall, partition, library, sheet), *_leaf(wall, partition, library, sheet)]
    return made


def _bar(wall: Wall, key: str, name: str, section_m: tuple[float, float], long_m: float, library: Library) -> Piece:
    stuff = (library[TIMBER].name, TIMBER)
    return bar_piece(f"{wall.id}/{key}", f"{wall.name} {name}", wall.id, stuff, section_m, long_m, inner=True)


def _bars(wall: Wall, sticks: Iterable[tuple[str, tuple[float, float], float]], library: Library) -> list[Piece]:
    """Sticks by (kind, section, length), numbered within their kind."""
    counts: Counter[str] = Counter()
    made = []
    for kind, section_m, long_m in sticks:
        counts[kind] += 1
        made.append(_bar(wall, f"{kind}/{counts[kind]}", kind, section_m, long_m, library))
    return made


def _sticks(wall: Wall, library: Library) -> list[Piece]:
    return _bars(wall, ((stick.kind, stick.section_m, stick.length_m) for stick in wall.sticks), library)


def _skins(wall: Wall, partition: Partition, library: Library, sheet: tuple[float, float]) -> list[Piece]:
    material = library.get(partition.skin)
    if material is None or wall.outline.area < LEAST_SKIN_M2:
        return []
    if partition.made == "panel":
        return _sheets(wall, "board", wall.outline, (material, partition.thick.si), (), sheet)
    upright = tuple(sorted({round(stick.u_m, 4) for stick in wall.sticks if stick.kind == "upright"}))
    said = skin_m(partition)
    other = affinity.scale(wall.outline, -1, 1, origin=(0, 0))  # seen from its other side
    behind = tuple(sorted(-u for u in upright))
    return [
        *_sheets(wall, f"skin, {SIDES[0]}", wall.outline, (material, said), upright, sheet),
        *_sheets(wall, f"skin, {SIDES[1]}", other, (material, said), behind, sheet),
    ]


def _sheets(
    wall: Wall, name: str, shape: Polygon, stuff: tuple[Material, float], upright: tuple[float, ...], sheet: tuple[float, float]
) -> list[Piece]:
    parts = [part for part, _ in panels_of(shape, sheet, upright, ()) if part.area >= LEAST_SKIN_M2]
    made = []
    for k, part in enumerate(parts, 1):
        told = f"{wall.name} {name}" + (f", part {k}" if len(parts) > 1 else "")
        piece = flat_piece(f"{wall.id}/{name}/{k}", told, wall.id, "sheet", stuff, part, "any", ())
        made.append(_inner(piece))
    return made


def _inner(piece: Piece) -> Piece:
    return msgspec.structs.replace(piece, inner=True)


def _leaf(wall: Wall, partition: Partition, library: Library, sheet: tuple[float, float]) -> list[Piece]:
    leaf, material = wall.leaf, library.get(partition.skin)
    if leaf is None:
        return []
    made = _bars(wall, ((f"door {kind}", leaf.section_m, long) for kind, long in leaf.sticks), library)
    if material is not None:
        shape = box(0, 0, leaf.wide_m, leaf.high_m)
        for k in range(leaf.skins):
            made += _sheets(wall, f"door skin {k + 1}" if leaf.skins > 1 else "door leaf", shape, (material, leaf.skin_m), (), sheet)
    return made
