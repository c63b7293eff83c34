"""Walls, lofts and beams inside the body, doors and windows in it, boxes over the wheels and on the nose, in the round."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from uncle_sled.core.document.shell import Shell
from uncle_sled.core.framing.frame_body import Framed, wheel_box_spans
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.parts.face_build import Library
from uncle_sled.core.parts.inside import thickness_m
from uncle_sled.core.parts.part import Part
from uncle_sled.core.parts.partitions import Wall, decks_of, walls_of
from uncle_sled.core.parts.ridge_sticks import ridge_sticks
from uncle_sled.core.round.mesh import Floats, Mesh, block, joined, prism_of
from uncle_sled.core.round.of_faces import APART_M, bent, out_of
from uncle_sled.core.round.round_piece import RoundPiece
from uncle_sled.core.studies.build.what_it_is import Bringing

BOARD_M = 0.012  # what boxes over wheels are made of
LEAF_M = 0.03  # of a door or window whose thickness nobody said
UP = (0.0, 0.0, APART_M)


def of_inside(
    shell: Shell, framed: Framed, library: Library, bringing: Bringing, axle_m: float | None, parts: dict[str, Part]
) -> Iterator[RoundPiece]:
    """All of them. Args: parts: what weighs, by id."""
    body = framed.body
    if body is None or body.width <= 0:
        return

    def kg(id: str) -> float | None:
        part = parts.get(id)
        return part.mass_kg if part is not None and part.mass_kg > 0 else None

    for wall in walls_of(shell, body, library):
        if not wall.fault:
            yield RoundPiece(
                wall.id, _wall(wall), "inner wall", bringing.by(wall.id, "inner wall"), "shell", mass_kg=wall.mass_kg, ink="body"
            )
    for deck in decks_of(shell, body):
        if not deck.fault:
            yield RoundPiece(deck.id, block(deck.low, deck.high), "loft", bringing.by(deck.id, "loft"), "shell", mass_kg=deck.mass_kg)
    for stick in ridge_sticks(shell, body):
        thick, deep = stick.section_m
        half = (stick.length_m / 2, thick / 2) if stick.lengthways else (thick / 2, stick.length_m / 2)
        x, y, z = stick.at_m
        mesh = block((x - half[0], y - half[1], z - deep / 2), (x + half[0], y + half[1], z + deep / 2))
        by = bringing.by(stick.id, "roof sticks")
        yield RoundPiece(stick.id, mesh, "roof sticks", by, "shell", key=f"roof/{stick.id}", of="roof", out=UP, mass_kg=kg(stick.id))
    own = {opening.id for opening in shell.openings if opening.leaf is not None}  # made here, and not bought
    for cut in framed.cuts:
        if cut.good and cut.kind != "wheel box" and cut.kind in ("door", "hatch", "window", "vent"):
            surface = next(surface for surface in body.surfaces if surface.id == cut.surface)
            thick = min(max(thickness_m(shell, surface.kind), LEAF_M), 0.06)
            mesh = bent(cut.skin, surface, (0.0, thick))
            ink = "body" if cut.kind == "window" else "wood"
            by = bringing.by(cut.id, "opening")
            made = bringing.made(cut.id, "leaf") if cut.id in own else ""
            out = out_of(surface, 0)
            yield RoundPiece(cut.id, mesh, "opening", by, "shell", of=surface.kind, out=out, mass_kg=kg(cut.id), ink=ink, made=made)
    yield from _boxes(shell, body, bringing, axle_m, kg("wheel-boxes"), kg("nose-box"))


def _wall(wall: Wall) -> Mesh:
    across = wall.way == "across"
    span = (wall.low[0], wall.high[0]) if across else (wall.low[1], wall.high[1])

    def place(s: Floats, t: Floats, depth: float) -> Floats:
        there = np.full(len(s), depth)
        return np.stack([there, s, t] if across else [s, there, t], axis=1)

    meshes = [prism_of(wall.outline, place, span)]
    if wall.door is not None and wall.leaf is not None:
        middle, half = sum(span) / 2, min(wall.leaf.thick_m, span[1] - span[0]) / 2
        meshes.append(prism_of(wall.door, place, (middle - half, middle + half)))
    return joined(meshes)


def _boxes(
    shell: Shell, body: Body, bringing: Bringing, axle_m: float | None, wheels_kg: float | None, nose_kg: float | None
) -> Iterator[RoundPiece]:
    spans = wheel_box_spans(shell, body, axle_m)
    if spans is not None and wheels_kg is not None:
        a, b, wide, high = spans
        a, b, z = body.front + a, body.front + b, body.under
        for side in (-1.0, 1.0):
            outer, inner = side * body.width / 2, side * (body.width / 2 - wide)
            y = (inner, inner + side * BOARD_M)
            boards = [
                block((a, y[0], z), (b, y[1], z + high)),
                block((a, outer, z + high - BOARD_M), (b, y[1], z + high)),
                block((a, outer, z), (a + BOARD_M, y[1], z + high - BOARD_M)),
                block((b - BOARD_M, outer, z), (b, y[1], z + high - BOARD_M)),
            ]
            by = bringing.by("wheel-boxes", "wheel box")
            yield RoundPiece("wheel-boxes", joined(boards), "wheel box", by, "shell", mass_kg=wheels_kg / 2)
    if shell.nose_box is not None and nose_kg is not None:
        long, wide, high = shell.nose_box.length.si, shell.nose_box.width.si, shell.nose_box.height.si
        mesh = block((body.front - long, -wide / 2, body.under), (body.front, wide / 2, body.under + high))
        yield RoundPiece("nose-box", mesh, "nose box", bringing.by("nose-box", "nose box"), "shell", out=(-APART_M, 0, 0), mass_kg=nose_kg)
