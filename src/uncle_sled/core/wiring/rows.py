"""Rows: batteries in series for the volts of the build, and panels in series before their controller.

A battery counts by its own volts as sold (12.8 V is a 12 V battery, 51.2 V a 48 V one), a row of panels by how many Systems
says are in series, or by panels that are drawn wired one behind the other.
"""

from __future__ import annotations

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Figures
from uncle_sled.core.document.systems import Wire

NOMINAL_V = (12, 24, 48)


def nominal_v(figures: Figures) -> int:
    """Nominal volts of a battery: 12, 24 or 48, the one its own volts are nearest to; 12 where nobody said."""
    volts = figures.volts or 12.0
    return min(NOMINAL_V, key=lambda one: abs(one - volts))


def in_series(build: Build) -> int:
    """How many batteries stand in a row for the volts of the build, at least 1; by the first battery's own volts."""
    first = next((t.figures for t in build.stow.things if t.figures is not None and t.figures.unit == "battery" and not t.taken_out), None)
    return max(round(build.systems.volts / nominal_v(first or Figures())), 1)


def panel_rows(
    wires: dict[str, Wire], into: tuple[str, ...], ahead: dict[str, tuple[str, ...]], series: int
) -> tuple[tuple[str, ...], ...]:
    """The rows of panels that come into a controller, each as the wires of the panels in it.

    Args:
        wires: by id; into: those of the panels' kind that end at the controller; ahead: wires into each end; series: panels
            in a row where each panel is drawn with a wire of its own.
    """
    chains: list[tuple[str, ...]] = []
    single: list[str] = []
    for id in into:
        chain = [id]
        at = wires[id].start
        while True:
            behind = [w for w in ahead.get(at, ()) if wires[w].kind == "panel" and w not in chain]
            if len(behind) != 1:
                break
            chain.append(behind[0])
            at = wires[behind[0]].start
        if len(chain) > 1:
            chains.append(tuple(chain))
        else:
            single.append(id)
    rows = [tuple(single[at : at + series]) for at in range(0, len(single), max(series, 1))]
    return (*chains, *rows)
