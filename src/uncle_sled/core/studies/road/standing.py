"""Standing for good: what each block carries, how large its pad is, how high it is on ground that falls, and the wind.

Block load: the body as a stiff beam over its blocks, the least-squares line of loads with the right sum and moment; pad
side = sqrt(load / bearing). Source: work notes. Check: 5,300 kg on six: 8.66 kN each, 0.34 m at 75 kPa; with 1.05 kPa of
snow on 17.25 m2 0.39 m; fall 140 mm over 6.9 m: blocks at 0.4, 3.4, 6.5 m stand 8, 69, 132 mm higher.
"""

from __future__ import annotations

import math

import msgspec
import numpy as np

from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.road import Standing
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.units import GRAVITY

SOFT_KPA, FIRM_KPA = 75.0, 150.0
SIDES = 2  # a row of blocks on each side
CD_WALL = 1.3
HOLD_SHARE = 0.6  # of the weight against turning over, before anchors are wanted


class Block(msgspec.Struct, frozen=True):
    """A pair of blocks, one each side. at_m: from the front of the body; load_n: of one of them; pad_m: side of its pad; up_m."""

    at_m: float
    load_n: float
    pad_m: float
    up_m: float


class Stands(msgspec.Struct, frozen=True):
    """All of it. anchor_n: what each of four anchors must hold, 0: none wanted; wind_n: on the long side; why: what is missing."""

    blocks: tuple[Block, ...]
    mass_kg: float
    snow_n: float
    wind_n: float
    anchor_n: float
    assumed: tuple[str, ...]
    why: tuple[str, ...]
    lifts: tuple[float, ...]  # stations at which the line of loads comes out below nothing


def pad_side_m(load_n: float, bearing_kpa: float) -> float:
    """Side of a square pad under a load [m]. Source: load over bearing."""
    return math.sqrt(load_n / (bearing_kpa * 1000.0)) if bearing_kpa > 0 else math.inf


def up_m(at_m: float, fall_m: float, long_m: float) -> float:
    """How much higher a block stands where the ground falls towards the rear [m]."""
    return at_m * fall_m / long_m if long_m > 0 else 0.0


def block_loads_n(weight_n: float, cg_m: float, at_m: np.ndarray) -> np.ndarray:
    """Loads of pairs of blocks [n of them], with the right sum and moment, as even as can be."""
    many = len(at_m)
    mean = float(at_m.mean())
    spread = float(((at_m - mean) ** 2).sum())
    even = np.full(many, weight_n / many)
    if spread > 1e-9:
        even = even + weight_n * (cg_m - mean) * (at_m - mean) / spread
    return np.asarray(even)


def stands(s: Studied) -> Stands:
    """What the body stands on when parked: blocks, pads, ties, each with its load and limit."""
    said = s.build.road.standing
    body = s.framed.body
    if body is None:
        return Stands((), 0.0, snow_n=0.0, wind_n=0.0, anchor_n=0.0, assumed=(), why=("no body is drawn",), lifts=())
    long, wide = body.length, body.width
    row = max(range(len(s.table.cases)), key=lambda k: float(s.table.mass_kg[k].sum()), default=None)
    if row is None:
        return Stands((), 0.0, snow_n=0.0, wind_n=0.0, anchor_n=0.0, assumed=(), why=("there is no load case",), lifts=())
    # a box that is lifted off its vehicle stands without it
    drives_off = {part.id for part in s.parts if part.made_by.startswith("rig")} if s.build.rig.carrier == "vehicle bed" else set()
    stays = np.array([id not in drives_off for id in s.table.ids], dtype=bool)
    masses = s.table.mass_kg[row] * stays
    mass = float(masses.sum())
    cg = float((masses * s.table.x_m[row]).sum()) / max(mass, 1e-9) - body.front
    assumed = []
    bearing = said.bearing_kpa
    if not bearing:  # ground that bears nothing is ground that nobody asked about
        bearing = SOFT_KPA
        assumed.append(f"soft ground, {{{SOFT_KPA:.0f} kPa}}")
    snow_kpa = said.snow_kpa or 0.0
    if said.snow_kpa is None:
        assumed.append("no snow")
    roof = sum(face.area_m2 for face in body.surfaces if face.kind == "roof") or long * wide
    snow = snow_kpa * 1000.0 * roof
    at = np.array([length.si for length in said.blocks]) if said.blocks else np.array([0.06, 0.5, 0.94]) * long
    if not said.blocks:
        assumed.append("three pairs of blocks")
    weight = mass * GRAVITY + snow
    loads = block_loads_n(weight, (cg * mass * GRAVITY + long / 2 * snow) / weight, at) / SIDES
    fall = said.fall.si if said.fall is not None else 0.0
    blocks = tuple(
        Block(float(x), float(n), pad_side_m(max(float(n), 0.0), bearing), up_m(float(x), fall, long))
        for x, n in zip(at, loads, strict=True)
    )
    high = max((face.polygon.bounds[3] for face in body.surfaces if face.kind == "left side"), default=2.2)
    wind = (said.wind_pa or 0.0) * CD_WALL * long * high
    if said.wind_pa is None:
        assumed.append("no wind")
    turn, hold = wind * (high / 2 + body.under), mass * GRAVITY * wide / 2 * HOLD_SHARE
    anchor = max(turn - hold, 0.0) / wide / 2 if turn > hold else 0.0
    lifts = tuple(float(x) for x, n in zip(at, loads, strict=True) if n < 0)
    return Stands(blocks, mass, snow_n=snow, wind_n=wind, anchor_n=anchor, assumed=tuple(assumed), why=(), lifts=lifts)


def usual_blocks(s: Studied, many: int = 3) -> Standing:
    """Blocks at even places under the body."""
    long = s.framed.body.length if s.framed.body is not None else 0.0
    at = [long * (0.06 + 0.88 * k / max(many - 1, 1)) for k in range(many)]
    return msgspec.structs.replace(s.build.road.standing, blocks=tuple(Length(round(x, 3)) for x in at))
