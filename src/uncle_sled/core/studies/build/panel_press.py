"""Panels glued up by oneself: glue by the line, the time to spread it against what it stays open, and the press.

A panel of n layers has n - 1 lines of glue; they are spread one after another, by as many hands as there are, and the press is
shut before the first of it skins. Weights: m = p A / g. A vacuum bag gives 80 kPa at the most. Cure doubles with each 10 K colder, open time as well, twice at the most.
Source: makers' papers of panel adhesives, their usual figures; the pressure is by the glue's own papers.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.work import Glue
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.panel_glue import line_kg_m2
from uncle_sled.core.studies.shell.bought_panels import blanks_glued_up
from uncle_sled.core.units import GRAVITY

VACUUM_KPA = 80.0
WASTE = 1.10  # of glue
SHUT_MIN = 4.0  # the layers put together and the press loaded or the bag shut
CAUTION = "Gloves, goggles and air; a heap of weights is built so that it cannot slide, and nobody reaches under it."


class Pressed(msgspec.Struct, frozen=True):
    """One panel. glue_kg with waste; takes_min to spread and shut, open_min; press_n on it, weights_kg that make it."""

    id: str
    area_m2: float
    lines: int
    glue_kg: float
    takes_min: float
    open_min: float
    press_n: float
    weights_kg: float
    press_h: float

    @property
    def too_slow(self) -> bool:
        """Whether the first of the glue skins before the press is shut."""
        return self.takes_min > self.open_min + 1e-9


def pressed(glue: Glue, id: str, area_m2: float, layers: int, temperature_c: float, line: float) -> Pressed:
    """One panel's figures. Args: line: of glue a line [kg/m2].

    Check 6 m2 of three layers at 20 degC, 250 g, two hands at 0.35: 3.3 kg; 2 x 6 / 0.7 + 4 = 21.1 min of 40; 10 kPa: 60 kN, 6,118 kg.
    """
    lines = max(layers - 1, 0)
    slower = 2.0 ** ((20.0 - temperature_c) / 10.0)
    pace = glue.panel_pace_m2_min * max(glue.panel_hands, 1)
    takes = lines * area_m2 / pace + SHUT_MIN if pace > 0 else math.inf
    press_n = glue.press_kpa * 1e3 * area_m2
    return Pressed(
        id,
        area_m2,
        lines=lines,
        glue_kg=lines * area_m2 * line * WASTE,
        takes_min=takes,
        open_min=glue.panel_open_min * min(slower, 2.0),
        press_n=press_n,
        weights_kg=press_n / GRAVITY,
        press_h=glue.press_h * slower,
    )


def panels_pressed(build: Build, facts: Facts, temperature_c: float) -> tuple[Pressed, ...]:
    """Every panel of a body that is glued up by oneself, the largest first; none where panels are bought."""
    blanks = blanks_glued_up(build.shell, framed_of(build, facts), {material.id for material in facts.materials})
    line, glue = line_kg_m2(build.shell), build.work.glue
    made = [pressed(glue, blank.surface, float(blank.outline.area), blank.layers, temperature_c, line) for blank in blanks]
    return tuple(sorted(made, key=lambda panel: -panel.area_m2))


def vacuum_is_enough(glue: Glue) -> bool:
    """Whether a bag at sea level presses as hard as the papers want."""
    return glue.press_kpa <= VACUUM_KPA
