"""Where else could a thing stand: inside the body, on the floor or at its height, in nobody's way?

Elevation by Shapely (the box must lie within the inner profile), plan and height by boxes.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from shapely import box, contains, prepare
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.placing import Spot, spot_of
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.from_stow import standing_size_m
from uncle_sled.core.studies.load_cases import Floats
from uncle_sled.core.studies.reading import silhouette_of

STEP_M = 0.02
LONGEST_M = 30.0  # nothing on the road is longer; a body typed larger is not searched
TOUCH_M = 0.002
MOST_THINGS = 600  # beyond, the search would take minutes and gigabytes


@dataclass(frozen=True)
class Places:
    """Candidate places of one thing: front edge, middle and underside [m], each shape (k,), and whom each stands beside."""

    thing: Thing
    x_m: Floats
    y_m: Floats
    z_m: Floats
    beside: tuple[str | None, ...]


def box_at(thing: Thing, spot: Spot, turn: int) -> Floats:
    """Lower and upper corner of a thing at a place [m], shape (2, 3)."""
    size = standing_size_m(thing, turn)
    low = np.array([spot[0], spot[1] - size[1] / 2, spot[2]])
    return np.stack([low, low + size])


def neighbours(build: Build, thing: Thing) -> list[tuple[str, Floats]]:
    """Boxes of all other things, wherever they stand in the modes in which this one stands at home."""
    found: dict[tuple[str, bytes], tuple[str, Floats]] = {}
    for mode in build.stow.modes:
        if thing.id in mode.absent or any(place.id == thing.id for place in mode.places):
            continue
        for other in build.stow.things:
            if other.id != thing.id and other.id not in mode.absent:
                box_ = box_at(other, *spot_of(other, mode))
                found[other.id, box_.tobytes()] = (other.id, box_)
    return list(found.values())


def inner_profile(build: Build) -> BaseGeometry | None:
    """The side profile less the wall's thickness, or None without a body."""
    body = silhouette_of(build.shell)
    if body is None:
        return None
    wall = build.shell.wall.si if build.shell.wall else 0.0
    inner = Polygon(body.polygon).buffer(0).buffer(TOUCH_M - wall)  # what stands on the floor touches it
    prepare(inner)
    return inner if not inner.is_empty else None


def free_places(build: Build, thing: Thing, inner: BaseGeometry | None) -> Places:
    """Every place on a grid, and beside every other thing, where the thing stands free in every mode that has it at home.

    A thing outside stays on the drawbar, between the coupler and the body.
    """
    lx, ly, lz = standing_size_m(thing, thing.turn)
    own = box_at(thing, (thing.x.si, thing.y.si, thing.z.si), thing.turn)
    shell = build.shell
    floor = (shell.floor.si if shell.floor else 0.0) + (shell.wall.si if shell.wall else 0.0)
    front = shell.front.si if shell.front else 0.0
    others = [(id, b) for id, b in neighbours(build, thing) if not _overlap(b[0], b[1], own[0], own[1])]
    corners = np.array([b for _, b in others]).reshape(-1, 2, 3)
    if thing.outside or inner is None:
        nose = min(front if shell.form != "none" else own[1][0] + 1.0, LONGEST_M)
        xs = (
            np.arange(max(0.35, 0.0), max(nose - lx, 0.35) + 1e-9, STEP_M)
            if own[0][0] < nose
            else np.array([thing.x.si])
        )
        ys, zs = [thing.y.si], [thing.z.si]
        half = None
    else:
        half = (shell.width.si if shell.width else 2.0) / 2 - (shell.wall.si if shell.wall else 0.0)
        low, high = inner.bounds[0], inner.bounds[2]
        if high - low > LONGEST_M or max(lx, ly, lz) > LONGEST_M or len(build.stow.things) > MOST_THINGS:
            return Places(thing, np.empty(0), np.empty(0), np.empty(0), ())
        xs = np.unique(
            np.round(np.concatenate([np.arange(np.ceil(low / STEP_M) * STEP_M, high - lx, STEP_M), [thing.x.si]]), 4)
        )
        ys = sorted(
            {
                round(y, 4)
                for y in (
                    thing.y.si,
                    -thing.y.si,
                    0.0,
                    -half + ly / 2,
                    half - ly / 2,
                    *(b[0][1] - ly / 2 for _, b in others),
                    *(b[1][1] + ly / 2 for _, b in others),
                )
                if abs(y) + ly / 2 <= half + 1e-9
            }
        )
        resting = _rests(own, floor, corners)
        zs = sorted(
            {round(thing.z.si, 4)}
            | ({round(max(floor, thing.z.si if abs(thing.z.si - floor) < 0.03 else floor), 4)} if resting else set())
        )
    grid = np.array([(x, y, z) for z in zs for y in ys for x in xs]).reshape(-1, 3)
    if not len(grid):
        return Places(thing, np.empty(0), np.empty(0), np.empty(0), ())
    lows = grid - [0, ly / 2, 0]
    highs = lows + [lx, ly, lz]
    both = (lows[:, None] < corners[None, :, 1] - TOUCH_M) & (highs[:, None] > corners[None, :, 0] + TOUCH_M)
    clash = np.all(both, axis=2).any(axis=1)
    good = ~clash
    if inner is not None and not thing.outside:
        spots = {z: contains(inner, box(xs, np.full(len(xs), z), xs + lx, np.full(len(xs), z + lz))) for z in zs}
        where = np.searchsorted(xs, grid[:, 0])
        fits = np.array([spots[round(z, 4)][min(at, len(xs) - 1)] for at, z in zip(where, grid[:, 2], strict=True)])
        good &= fits | (np.abs(grid - [thing.x.si, thing.y.si, thing.z.si]).max(axis=1) < 1e-6)
        if _rests(own, floor, corners):
            good &= np.array([_rests(np.stack([lo, hi]), floor, corners) for lo, hi in zip(lows, highs, strict=True)])
    grid, lows, highs = grid[good], lows[good], highs[good]
    return Places(
        thing,
        grid[:, 0],
        grid[:, 1],
        grid[:, 2],
        tuple(_beside(lo, hi, others) for lo, hi in zip(lows, highs, strict=True)),
    )


def _overlap(low_a: Floats, high_a: Floats, low_b: Floats, high_b: Floats) -> bool:
    return bool(((low_a < high_b - TOUCH_M) & (high_a > low_b + TOUCH_M)).all())


def _rests(own: Floats, floor_m: float, corners: Floats) -> bool:
    """Whether a box stands on the floor or with its middle on top of another thing."""
    if abs(own[0][2] - floor_m) < 0.03:
        return True
    if not len(corners):
        return False
    middle = own.mean(axis=0)[:2]
    under = (
        (np.abs(corners[:, 1, 2] - own[0][2]) < 0.03)
        & (corners[:, 0, :2] <= middle).all(axis=1)
        & (corners[:, 1, :2] >= middle).all(axis=1)
    )
    return bool(under.any())


def _beside(low: Floats, high: Floats, others: list[tuple[str, Floats]]) -> str | None:
    """The thing whose side this one touches, if any."""
    for id, (lo, hi) in others:
        gap = np.maximum(lo - high, low - hi)
        if gap[2] < 0 and ((abs(gap[1]) < 0.06 and gap[0] < -0.05) or (abs(gap[0]) < 0.06 and gap[1] < -0.05)):
            return id
    return None
