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

DARKEST = 0.55  # share of its colour that a face keeps which looks away from the light
CREASE = 0.45  # how strong the line between two faces of one piece is, of that between two pieces


class Tones(msgspec.Struct, frozen=True, eq=False):
    """Colours 0 to 255. piece: (n, 3) of every piece; line: (n, 3) of its edges; ground: (3,) of the paper; chosen: numbers lit up.

    heavy: (n,) pieces whose edges are drawn twice as strong, or None.
    """

    piece: Floats
    line: Floats
    ground: tuple[float, float, float]
    chosen: tuple[int, ...] = ()
    lit: tuple[float, float, float] = (40.0, 85.0, 154.0)
    heavy: NDArray[np.bool_] | None = None


def shaded(scene: Scene, picture: Picture, tones: Tones) -> Bytes:
    """The picture in colours, shape (h, w, 3)."""
    face = picture.face
    if not len(scene.solid):
        return np.broadcast_to(np.array(tones.ground, dtype=np.uint8), (*face.shape, 3)).copy()
    light = LIGHT / np.linalg.norm(LIGHT)
    shine = DARKEST + (1 - DARKEST) * np.clip(scene.normal @ picture.sight.axes.T @ light, 0.0, 1.0)
    own = tones.piece.copy()
    for k in tones.chosen:
        own[k] = 0.45 * own[k] + 0.55 * np.array(tones.lit)
    table = np.empty((len(scene.solid) + 1, 3))
    table[:-1] = own[scene.solid] * shine[:, None]
    table[NOTHING] = tones.ground
    rgb = table[face]
    piece = np.append(scene.solid, NOTHING)[face]
    strong, faint = _edges(piece), _edges(face)
    lines = np.append(tones.line, [tones.line.mean(axis=0) if len(tones.line) else (0, 0, 0)], axis=0)
    for k in tones.chosen:
        lines[k] = tones.lit
    at = strong & (piece >= 0)
    rgb[at] = lines[piece[at]]
    if tones.heavy is not None:
        firm = at & np.append(tones.heavy, False)[piece]
        rows, columns = np.nonzero(firm)
        for down, across in ((1, 0), (0, 1)):
            beside = (np.minimum(rows + down, len(piece) - 1), np.minimum(columns + across, piece.shape[1] - 1))
            rgb[beside] = lines[piece[rows, columns]]
    at = faint & ~strong & (piece >= 0)
    rgb[at] = (1 - CREASE) * rgb[at] + CREASE * lines[piece[at]]
    return np.clip(rgb, 0, 255).astype(np.uint8)


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
    return np.asarray(rgb[:h, :w].reshape(h // by, by, w // by, by, 3).mean(axis=(1, 3)).round(), dtype=np.uint8)
