"""How the body in the round is shown: which of it stands there, what is taken off, drawn how far apart, coloured by what."""

from __future__ import annotations

import colorsys
from collections.abc import Sequence
from typing import Literal

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.drawing.inks import THEMES, mixed, rgb_of
from uncle_sled.core.round.mesh import Floats
from uncle_sled.core.round.round_piece import RoundPiece
from uncle_sled.core.round.shaded import Tones
from uncle_sled.core.studies.build.what_it_is import START

Colours = Literal["stuff", "task", "stop", "mass"]
GOLDEN = 0.381966  # of the circle of colours between one task and the next: neighbours are told apart
OFF: tuple[tuple[str, str], ...] = (("roof", "Roof"), ("left side", "Left"), ("right side", "Right"), ("front", "Front"), ("rear", "Rear"))
INK_OF_STOP = {"rig": "zinc", "shell": "wood", "stow": "kit", "systems": "power"}
INK_OF_STUFF = {"water": "fresh"}
HEAVY_KG = 40.0  # from which a piece has the strongest colour


class RoundLook(msgspec.Struct, frozen=True):
    """off: kinds of faces that are taken off; apart: 0 together to 1; done: tasks whose pieces stand there, None: all."""

    colours: Colours = "stuff"
    off: tuple[str, ...] = ()
    apart: float = 0.0
    done: frozenset[str] | None = None


def shown_of(pieces: Sequence[RoundPiece], look: RoundLook) -> NDArray[np.bool_]:
    """Which pieces are drawn, shape (n,)."""
    return np.array([_there(piece, look) for piece in pieces], dtype=bool)


def _there(piece: RoundPiece, look: RoundLook) -> bool:
    return piece.of not in look.off and (look.done is None or piece.by == START or piece.by in look.done)


def moved_of(pieces: Sequence[RoundPiece], look: RoundLook) -> Floats | None:
    """By how much each is drawn away from its place [m], shape (n, 3); None where nothing is."""
    if look.apart <= 0 or not pieces:
        return None
    return np.array([piece.out for piece in pieces], dtype=float) * look.apart


def tones_of(pieces: Sequence[RoundPiece], look: RoundLook, order: Sequence[str], theme: str, chosen: Sequence[str] = ()) -> Tones:
    """Their colours. Args: order: tasks as the calendar ends them; theme: of the ink table; chosen: ids that are lit up."""
    inks = THEMES[theme]
    own = np.array([rgb_of(_colour(piece, look, order, inks)) for piece in pieces], dtype=float).reshape(-1, 3)
    line = np.broadcast_to(np.array(rgb_of(inks["ink"])), own.shape).copy()
    lit = tuple(k for k, piece in enumerate(pieces) if piece.id in chosen or (piece.key and piece.key in chosen))
    return Tones(own, line, rgb_of(inks["paper"]), lit, rgb_of(inks["chalk"]))


def _colour(piece: RoundPiece, look: RoundLook, order: Sequence[str], inks: dict[str, str]) -> str:
    if look.colours == "task":
        return task_colour(piece.by, order, inks)
    if look.colours == "stop":
        return inks[INK_OF_STOP.get(piece.stop, "kit")]
    if look.colours == "mass":
        return mass_colour(piece.mass_kg, inks)
    return inks[INK_OF_STUFF.get(piece.ink, piece.ink)]


def task_colour(task: str, order: Sequence[str], inks: dict[str, str]) -> str:
    """Of a task by its place in the order; what is there from the start is grey."""
    if task not in order:
        return inks["kit"]
    hue = (0.08 + GOLDEN * list(order).index(task)) % 1.0
    r, g, b = colorsys.hls_to_rgb(hue, 0.66, 0.42)
    return f"#{round(r * 255):02X}{round(g * 255):02X}{round(b * 255):02X}"


def mass_colour(kg: float | None, inks: dict[str, str]) -> str:
    """From light to dark with its mass; grey where it is known with others only."""
    if kg is None:
        return inks["hub"]
    share = min(max(kg / HEAVY_KG, 0.0), 1.0) ** 0.5
    return mixed(inks["primer"], inks["foam"], share)
