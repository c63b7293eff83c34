"""What does the wall beside a stove or cooker feel over an evening, and does it stand as far off as its papers ask?

One-dimensional: the wall's middle faces the side of the hot thing, a plate at one temperature, with the view factor of an element before
a rectangle; it loses to the room and through its layers to the night, by implicit steps of a minute over four hours. A shield is one
sheet with moving air on both sides. Source: Stefan and Boltzmann; view factor of parallel rectangle and element; finite volumes.
"""

from __future__ import annotations

import math
from functools import lru_cache

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.parts.face_build import R_OUTSIDE, Library, library_of, warm_layers
from uncle_sled.core.parts.from_stow import standing_size_m
from uncle_sled.core.studies.stow.solids import side_of
from uncle_sled.core.studies.systems.bank import stands_outside
from uncle_sled.core.studies.systems.by_walls import gaps_m
from uncle_sled.core.studies.systems.heat import TIMBER_J
from uncle_sled.core.tables import table

Floats = NDArray[np.float64]
SIGMA, KELVIN = 5.670e-8, 273.15
EMITS = 0.9  # of a painted plate, of wood
CONVECTS, SHIELD_CONVECTS = 2.5, 6.0  # of still air at a wall; of air that moves at each side of a shield [W/m2K]
ROOM_C, NIGHT_C = 25.0, 10.0  # while the stove is on; outside, so that the wall is not too cool
EVENING_H, STEP_S = 4, 60.0
CELL_M, MOST_CELLS = 0.002, 40
FAR_M = 1.0  # beyond it nothing is reckoned
LIMIT_C = 85.0  # wood kept warmer than that chars with the years; 65 K over a room is commonly the limit
TOUCHES_M = 0.005
WALLS = {"left side": "left", "right side": "right", "front": "front", "rear": "rear"}


class Hot(msgspec.Struct, frozen=True):
    """A line of the table: how hot the side of what does and burns so usually is."""

    does: str
    burns: str
    surface_c: float
    doubt_k: float
    source: str


class HotWall(msgspec.Struct, frozen=True, eq=False):
    """A hot thing and a wall beside it. papers_m: as typed for its heat on that side; hot_c: of its side, as is usual.

    at_c, up_to_c: of the first layer that can burn after an evening, and with the doubt of the hot side; None where the wall's layers
    are not known. depth_m: of the cells from inside out, (n,); hours_c: (4, n) after each hour.
    """

    thing: str
    name: str
    face: str
    gap_m: float
    papers_m: float | None
    hot_c: float
    doubt_k: float
    shielded: bool
    at_c: float | None
    up_to_c: float | None
    depth_m: Floats
    hours_c: Floats
    why: str = ""

    @property
    def near(self) -> bool | None:
        """Whether it stands nearer than its papers allow; None where they are not typed."""
        return None if self.papers_m is None else self.gap_m < self.papers_m - 1e-6


@lru_cache(maxsize=1)
def hot_surfaces() -> tuple[Hot, ...]:
    """The shipped table."""
    return table("catalogue/hot_surfaces.csv", Hot)


def view_factor(wide_m: float, high_m: float, gap_m: float) -> float:
    """Of an element before the middle of a parallel rectangle, 0 to 1. Check 1 x 1 m at 0.5 m: 0.554."""
    a, b = wide_m / 2 / max(gap_m, 1e-6), high_m / 2 / max(gap_m, 1e-6)
    ra, rb = math.hypot(1.0, a), math.hypot(1.0, b)
    return 4 / (2 * math.pi) * (a / ra * math.atan(b / ra) + b / rb * math.atan(a / rb))


Cells = tuple[tuple[float, float, float], ...]  # from inside out: thickness [m], conductivity [W/mK], heat [J/m3K]


@lru_cache(maxsize=64)
def evening(cells: Cells, hot_c: float, sees: float, shielded: bool) -> tuple[tuple[float, ...], ...]:
    """Temperatures of the cells after each hour [C], (4, n). Args: sees: view factor of the hot side from the wall's middle."""
    thick, conducts, holds = np.array(cells).T
    n = len(thick)
    between = 1 / (thick[:-1] / 2 / conducts[:-1] + thick[1:] / 2 / conducts[1:])
    inner, outer = 2 * conducts[0] / thick[0], 1 / (thick[-1] / 2 / conducts[-1] + R_OUTSIDE)
    resists = thick / conducts
    t = ROOM_C + (NIGHT_C - ROOM_C) * (np.cumsum(resists) - resists / 2) / resists.sum()  # as it was before the fire
    fixed = np.zeros((n, n))
    at = np.arange(n)
    fixed[at, at] += holds * thick / STEP_S
    fixed[at[:-1], at[:-1]] += between
    fixed[at[1:], at[1:]] += between
    fixed[at[:-1], at[1:]] -= between
    fixed[at[1:], at[:-1]] -= between
    fixed[-1, -1] += outer
    face = t[0]
    made = []
    for step in range(int(EVENING_H * 3600 / STEP_S)):
        # what comes to the face is drawn straight through the face of the step before: W = gives - takes x face
        takes, gives = _exchange(face, hot_c, sees, shielded)
        through = 1 / (1 / inner + 1 / takes)
        matrix, right = fixed.copy(), holds * thick / STEP_S * t
        matrix[0, 0] += through
        right[0] += through * gives / takes
        right[-1] += outer * NIGHT_C
        t = np.linalg.solve(matrix, right)
        face = (inner * t[0] + gives) / (inner + takes)
        if (step + 1) * STEP_S % 3600 == 0:
            made.append((float(face), *t[1:].tolist()))
    return tuple(made)


def _radiates(a_c: float, b_c: float) -> float:
    """Heat that goes between two grey plates by the kelvin between them [W/m2K]."""
    a, b = a_c + KELVIN, b_c + KELVIN
    return EMITS * EMITS * SIGMA * (a * a + b * b) * (a + b)


def _exchange(face_c: float, hot_c: float, sees: float, shielded: bool) -> tuple[float, float]:
    """Of the wall's inner face: what it gives off by its kelvin [W/m2K], and what comes to it [W/m2] with a face at nought."""
    if shielded:
        sheet = sheet_c(face_c, hot_c, sees)
        by_sheet = _radiates(sheet, face_c)
        return SHIELD_CONVECTS + by_sheet, SHIELD_CONVECTS * ROOM_C + by_sheet * sheet
    by_hot, by_room = sees * _radiates(hot_c, face_c), (1 - sees) * _radiates(ROOM_C, face_c)
    return CONVECTS + by_hot + by_room, (CONVECTS + by_room) * ROOM_C + by_hot * hot_c


def sheet_c(face_c: float, hot_c: float, sees: float) -> float:
    """Temperature of a shield between hot side and wall [C]: what it gets it gives to the air on both sides, the room and the wall."""
    low, high = min(face_c, ROOM_C), hot_c
    for _ in range(40):
        sheet = (low + high) / 2
        gets = sees * _radiates(hot_c, sheet) * (hot_c - sheet)
        gives = 2 * SHIELD_CONVECTS * (sheet - ROOM_C) + (1 - sees) * _radiates(sheet, ROOM_C) * (sheet - ROOM_C)
        gives += _radiates(sheet, face_c) * (sheet - face_c)
        low, high = (sheet, high) if gets > gives else (low, sheet)
    return high


def how_hot(thing: Thing) -> Hot | None:
    """What is usual of its side; None of what is not hot."""
    return next((line for line in hot_surfaces() if line.burns == thing.burns and line.does in thing.roles), None)


@keep("build.shell", "build.stow", "facts.materials", "framed", most=3)
def hot_walls(build: Build, facts: Facts, framed: Framed) -> tuple[HotWall, ...]:
    """Every hot thing inside and every wall within a metre of it, the warmest wall first, unknown ones before all."""
    library = library_of(facts.materials)
    made = []
    for thing in build.stow.things:
        told = None if thing.taken_out or thing.cargo else how_hot(thing)
        if told is None or stands_outside(build, thing):
            continue
        for face, gap in gaps_m(build.shell, framed, thing).items():
            if gap <= FAR_M:
                made.append(_wall(build, library, thing, face, max(gap, 0.0), told))
    return tuple(sorted(made, key=lambda one: (one.up_to_c is not None, -(one.up_to_c or 0.0), one.thing, one.face)))


def _wall(build: Build, library: Library, thing: Thing, face: str, gap_m: float, told: Hot) -> HotWall:
    hot_c, doubt_k = told.surface_c, told.doubt_k
    typed = [c.deep.si for c in thing.clear if c.kind == "heat" and side_of(c.side, thing.turn) == WALLS[face]]
    along, across, _ = standing_size_m(thing, thing.turn)
    wide = along if face in ("left side", "right side") else across
    cells = cells_of(build, library, face)
    at = up_to = None
    depth, hours, why = np.zeros(0), np.zeros((0, 0)), ""
    if cells is None:
        why = "what it is made of is not said (layers on Shell, Faces)"
    else:
        stuff, first = cells
        sees = view_factor(wide, thing.height.si, max(gap_m, TOUCHES_M))
        hours = np.array(evening(stuff, hot_c, sees, thing.shielded))
        at = float(hours[-1, first:].max())
        up_to = float(np.array(evening(stuff, hot_c + doubt_k, sees, thing.shielded))[-1, first:].max())
        depth = np.cumsum([one[0] for one in stuff]) - np.array([one[0] for one in stuff]) / 2
    return HotWall(
        thing.id,
        thing.name,
        face=face,
        gap_m=gap_m,
        papers_m=max(typed) if typed else None,
        hot_c=hot_c,
        doubt_k=doubt_k,
        shielded=thing.shielded,
        at_c=at,
        up_to_c=up_to,
        depth_m=depth,
        hours_c=hours,
        why=why,
    )


def cells_of(build: Build, library: Library, face: str) -> tuple[Cells, int] | None:
    """Cells of a face's layers from inside out and the first of stuff that can burn; None where its layers are not known."""
    found = next((f for f in build.shell.faces if f.kind == face), None)
    if found is None or not found.layers:
        return None
    made: list[tuple[float, float, float]] = []
    first: int | None = None
    for layer in reversed(warm_layers(found.layers, library)):
        material, thick = library.get(layer.material), layer.thickness.si
        if material is None:
            return None
        if thick <= 0:
            continue
        r = material.resistance_m2k_w(thick)
        conducts = thick / r if r > 1e-9 else 50.0
        holds = material.weight_kg_m2(thick) / thick * (material.heat_j_kgk or TIMBER_J)
        if first is None and material.family != "metal":
            first = len(made)
        many = max(min(round(thick / CELL_M), MOST_CELLS // 3), 1)
        made += [(thick / many, conducts, max(holds, 1000.0))] * many
    return (tuple(made), first if first is not None else 0) if made else None
