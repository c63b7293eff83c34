"""What is seen of solids in colours: every face by how it stands to the light, an edge where faces or pieces meet.

Edges lie in the picture and not in space: between two pixels of different faces. Two pieces part with a strong line, two faces of
one piece with a faint one.
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.round.mesh import Floats
from uncle_sled.core.round.seen import LIGHT, NOTHING, Bytes, Picture, Scene

DARKEST = 0.55
CREASE = 0.45  # how strong the line between two faces of one piece is, of that between two pieces


class Tones(msgspec.Struct, frozen=True, eq=False):
    """Colours 0 to 255. piece: (n, c) of every piece; line: (n, c) of its edges; ground: (c,) of the paper; chosen: numbers lit up.

    heavy: (n,) pieces whose edges are drawn twice as strong, or None; darkest: share of its colour that a face keeps which looks away from the light.
    """

    piece: Floats
    line: Floats
    ground: tuple[float, ...]
    chosen: tuple[int, ...] = ()
    lit: tuple[float, ...] = (40.0, 85.0, 154.0)
    heavy: NDArray[np.bool_] | None = None
    darkest: float = DARKEST


def shaded(scene: Scene, picture: Picture, tones: Tones) -> Bytes:
    """The picture in colours, shape (h, w, c), as many channels as the tones have."""
    face = picture.face
    if not len(scene.solid):
        return np.broadcast_to(np.array(tones.ground, dtype=np.uint8), (*face.shape, len(tones.ground))).copy()
    light = LIGHT / np.linalg.norm(LIGHT)
    shine = tones.darkest + (1 - tones.darkest) * np.clip(scene.normal @ picture.sight.axes.T @ light, 0.0, 1.0)
    own, lines = tones.piece.copy(), tones.line.copy()
    for k in tones.chosen:
        own[k] = 0.45 * own[k] + 0.55 * np.array(tones.lit)
        lines[k] = tones.lit
    ground = np.array([tones.ground])
    plain = np.concatenate([own[scene.solid] * shine[:, None], ground])
    creased = np.concatenate([(1 - CREASE) * plain[:-1] + CREASE * lines[scene.solid], ground])
    edge = np.concatenate([lines, ground])
    plain, creased, edge = (np.clip(table, 0, 255).astype(np.uint8) for table in (plain, creased, edge))
    rgb = plain[face]
    piece = np.append(scene.solid, NOTHING).astype(np.int32)[face]
    strong = _edges(piece)
    at = _edges(face) & ~strong
    rgb[at] = creased[face[at]]
    rgb[strong] = edge[piece[strong]]
    if tones.heavy is not None:
        rows, columns = np.nonzero(strong & np.append(tones.heavy, False)[piece])
        ink = edge[piece[rows, columns]]
        rgb[np.minimum(rows + 1, len(piece) - 1), columns] = ink
        rgb[rows, np.minimum(columns + 1, piece.shape[1] - 1)] = ink
    return np.asarray(rgb)


def _edges(of: np.ndarray) -> np.ndarray:
    """Pixels that another one lies beside: over or left, and at the edge of all on the side of what is there."""
    edge = np.zeros(of.shape, dtype=bool)
    across, down = of[:, 1:] != of[:, :-1], of[1:] != of[:-1]
    edge[:, 1:] |= across & (of[:, 1:] >= 0)
    edge[:, :-1] |= across & (of[:, 1:] < 0)
    edge[1:] |= down & (of[1:] >= 0)
    edge[:-1] |= down & (of[1:] < 0)
    return edge


def halved(rgb: Bytes, by: int = 2) -> Bytes:
    """The mean of every square of pixels: lines without steps."""
    h, w = rgb.shape[0] // by * by, rgb.shape[1] // by * by
    parts = [rgb[k:h:by, j:w:by].astype(np.uint16) for k in range(by) for j in range(by)]
    return np.asarray(sum(parts[1:], parts[0]) // (by * by), dtype=np.uint8)
