"""Panels in rows before their controller: volts on the coldest morning and the hottest noon, amps, and what unlike ones cost.

Open volts of a row: sum of Voc (1 + beta (25 - T)), T the coldest night, 25 where nobody said; running volts 0.82 Voc, of cells 30 K
over the hottest day. A panel is taken as a source of its amps up to its volts: a row gives the best I x sum of V of those that give I
(the others are bypassed), rows side by side the best V x sum of I of those that reach V. Source: the panels' plates, Kirchhoff.
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.wiring.appliances import ASK_VOC_SHARE, figures_of, units_of
from uncle_sled.core.wiring.network import network_of
from uncle_sled.core.wiring.reachable import PANEL, joined
from uncle_sled.core.wiring.rows import panel_rows

Floats = NDArray[np.float64]
PLATE_C = 25.0  # at which a panel's plate tells its volts
VOLTS_IN_HAND = 1.05
BETA_PCT_K = 0.30  # of its volts a degree, where nobody typed it
CELL_OVER_K, USUAL_HOT_C = 30.0, 35.0  # a cell in the sun over the air; a hot day where nobody said
CHARGE_V, OVER_V = 14.4, 1.0  # of a 12 V battery while it is charged; a controller wants so much over it
UNLIKE = 0.03  # what is lost of the watts before it is told


class PanelRow(msgspec.Struct, frozen=True):
    """Panels in series. open_v: cold, runs_v: hot, both None where a panel's open volts are not said.

    amps: at its best, under full sun; plate_w: by the plates; gives_w: of that with one current through all.
    """

    panels: tuple[str, ...]
    name: str
    open_v: float | None
    runs_v: float | None
    amps: float | None
    plate_w: float | None
    gives_w: float | None


class Strung(msgspec.Struct, frozen=True):
    """All rows of one controller, or of all that is aboard while nothing is wired.

    most_v: what it takes, needs_v: what it wants to charge the bank; gives_w: of all rows at one voltage.
    """

    controllers: tuple[str, ...]
    name: str
    rows: tuple[PanelRow, ...]
    coldest_c: float
    cold_said: bool
    hot_c: float
    most_v: float | None
    needs_v: float
    plate_w: float | None
    gives_w: float | None

    @property
    def open_v(self) -> float | None:
        """Of the highest row on the coldest morning; None where a row's is not known."""
        told = [row.open_v for row in self.rows]
        return None if None in told else max((volts for volts in told if volts is not None), default=None)

    @property
    def fits(self) -> bool | None:
        """Whether the controller stands it, with a twentieth in hand; None where that is not known."""
        if self.most_v is None or self.open_v is None:
            return None
        over = self.open_v * VOLTS_IN_HAND > self.most_v
        return False if over else True if self.cold_said else None  # at 25 degrees it may yet be too much in frost

    @property
    def charges(self) -> bool | None:
        """Whether the lowest row still charges a full bank at a hot noon; None where its volts are not known."""
        told = [row.runs_v for row in self.rows]
        return None if not told or None in told else min(volts for volts in told if volts is not None) >= self.needs_v

    @property
    def lost_w(self) -> float | None:
        """What unlike panels and rows cost of the plates' watts."""
        return None if self.plate_w is None or self.gives_w is None else max(self.plate_w - self.gives_w, 0.0)


def string_v(voc_v: float, series: int, beta_pct_k: float, coldest_c: float) -> float:
    """Open voltage of a string in the cold [V]: Voc N (1 + beta (25 - T)). Source: the panel's plate."""
    return voc_v * series * (1 + beta_pct_k / 100 * (25 - coldest_c))


def best_w(flows: Floats, pushes: Floats) -> Floats:
    """The most of one flow through several, each weaker one stepped round: max over i of flow_i x sum of push_j with flow_j >= flow_i.

    Args: flows: (n, h), amps of panels in a row, or volts of rows side by side; pushes: (n,) volts, or amps. Returns: (h,) watts.
    """
    tried = [flow * ((flows >= flow - 1e-12) * pushes[:, None]).sum(axis=0) for flow in flows]
    return np.max(tried, axis=0) if tried else np.zeros(flows.shape[1:])


def strung(build: Build) -> tuple[Strung, ...]:
    """Every controller with the rows that come into it; none without panels."""
    panels = {thing.id: thing for thing in units_of(build, "panel")}
    controllers = {thing.id: thing for thing in units_of(build, "solar charger") or units_of(build, "station")}
    series, net = max(build.systems.panels_in_series, 1), network_of(build)
    if not panels:
        return ()
    if not any(wire.kind == "panel" for wire in net.wires.values()):
        ids = tuple(panels)
        rows = tuple(ids[at : at + series] for at in range(0, len(ids), series))
        return (_strung(build, tuple(controllers.values()), [[panels[id] for id in row] for row in rows]),)
    of: dict[tuple[str, ...], list[list[Thing]]] = {}
    for at, end in net.ends.items():
        if end.kind == "panel":
            continue
        into = tuple(id for id in net.into[at] if net.wires[id].kind == "panel" and net.ends[net.wires[id].start].kind == "panel")
        for row in panel_rows(net.wires, into, net.into, series):
            mine = [panels[net.wires[id].start] for id in row if net.wires[id].start in panels]
            reached = tuple(sorted(id for id in joined(net, at, PANEL) if id in controllers)) or ((at,) if at in controllers else ())
            if mine:
                of.setdefault(reached, []).append(mine)
    return tuple(_strung(build, tuple(controllers[id] for id in ids), rows) for ids, rows in of.items())


def _strung(build: Build, controllers: tuple[Thing, ...], rows: list[list[Thing]]) -> Strung:
    said = build.brief.coldest is not None
    cold = build.brief.coldest.si if build.brief.coldest is not None else PLATE_C
    hot = (build.brief.hottest.si if build.brief.hottest is not None else USUAL_HOT_C) + CELL_OVER_K
    # one panel of a row that is said to be longer: its volts count as many times, or a controller would pass that the row ruins
    many = build.systems.panels_in_series if len(rows) == 1 and len(rows[0]) == 1 else 1
    made = tuple(_row(row, cold, hot, many) for row in rows)
    limits = [f.most_v for f in map(figures_of, controllers)]
    known = [row for row in made if row.gives_w is not None and row.amps]
    gives = plate = None
    if len(known) == len(made) and made:
        volts = np.array([[(row.gives_w or 0.0) / (row.amps or 1.0)] for row in known])
        gives = float(best_w(volts, np.array([row.amps or 0.0 for row in known]))[0])
        plate = sum(row.plate_w or 0.0 for row in known)
    return Strung(
        tuple(thing.id for thing in controllers),
        " and ".join(thing.name for thing in controllers),
        made,
        coldest_c=cold,
        cold_said=said,
        hot_c=hot,
        most_v=None if not limits or None in limits else min(limit for limit in limits if limit is not None),
        needs_v=CHARGE_V * build.systems.volts / 12 + OVER_V,
        plate_w=plate,
        gives_w=gives,
    )


def _row(things: list[Thing], cold_c: float, hot_c: float, many: int) -> PanelRow:
    told = [figures_of(thing) for thing in things]
    names = dict.fromkeys(thing.name for thing in things)
    name = f"{many * len(things)} × {things[0].name}" if len(names) == 1 else " + ".join(names)
    ids = tuple(thing.id for thing in things)
    plate = sum(f.solar_wp or 0.0 for f in told) if all(f.solar_wp for f in told) else None
    if not all(f.voc_v for f in told):
        return PanelRow(ids, name, None, None, None, plate, None)
    beta = [f.beta_pct_k if f.beta_pct_k is not None else BETA_PCT_K for f in told]
    opens = sum(string_v(f.voc_v or 0.0, many, b, cold_c) for f, b in zip(told, beta, strict=True))
    runs = sum(string_v((f.voc_v or 0.0) * ASK_VOC_SHARE, many, b, hot_c) for f, b in zip(told, beta, strict=True))
    if plate is None:
        return PanelRow(ids, name, opens, runs, None, None, None)
    flows, pushes = _plates(things)
    gives = float(best_w(flows[:, None], pushes)[0])
    return PanelRow(ids, name, opens, runs, float(gives / pushes.sum()), plate, gives)


def _plates(things: list[Thing]) -> tuple[Floats, Floats]:
    """Amps and volts of panels at their best, (n,) each; where a panel's volts are not said all count as of one current."""
    told = [figures_of(thing) for thing in things]
    watts = np.array([f.solar_wp or 0.0 for f in told])
    if not all(f.voc_v for f in told):
        return np.ones(len(told)), watts
    volts = np.array([(f.voc_v or 0.0) * ASK_VOC_SHARE for f in told])
    return watts / volts, volts


def lit_w(panels: tuple[Thing, ...], rows: tuple[Strung, ...], lit: dict[str, Floats]) -> Floats:
    """What panels give by the hour as they are strung [W], shape of each in ``lit``.

    Args: rows: of the whole build; lit: by a panel's id, its share of a full sun in each hour. Panels that stand in no row count by themselves.
    """
    wanted = {thing.id: thing for thing in panels}
    shape = next(iter(lit.values())).shape if lit else (0,)
    whole, placed = np.zeros(shape), set()
    for one in rows:
        mine = np.zeros(shape)
        for row in one.rows:
            things = [wanted[id] for id in row.panels if id in wanted]
            placed |= {thing.id for thing in things}
            if things:
                flows, pushes = _plates(things)
                mine += best_w(flows[:, None] * np.array([lit[thing.id] for thing in things]), pushes)
        rows_w = sum(row.gives_w or 0.0 for row in one.rows)
        whole += mine * (one.gives_w / rows_w if one.gives_w is not None and rows_w > 0 else 1.0)
    for id, thing in wanted.items():
        if id not in placed:
            whole += (figures_of(thing).solar_wp or 0.0) * lit[id]
    return whole
