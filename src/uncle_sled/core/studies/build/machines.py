"""What a machine lifts at a reach: three usual ones as a table, or the chart of one's own as it is typed from its plate.

Between two reaches of a chart the farther one holds: nothing is read between its lines. Past its last reach it lifts nothing.
Source: lifting practice; the plate on the machine decides.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import lru_cache

import msgspec

from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.work import Lift, ReachLine
from uncle_sled.core.errors import EntryError
from uncle_sled.core.tables import table
from uncle_sled.core.units import FOOT_M, POUND_KG, Shown

LEAST_REACH_M = 0.5
RIGGING_KG = 40.0  # slings, shackles and hook that hang there too: an estimate


class Machine(msgspec.Struct, frozen=True):
    """A usual machine. reach_m, kg: its chart, line by line."""

    id: str
    name: str
    reach_m: tuple[float, ...]
    kg: tuple[float, ...]
    source: str


@lru_cache(maxsize=1)
def machines() -> dict[str, Machine]:
    """The shipped ones by id."""
    return {machine.id: machine for machine in table("catalogue/machines.csv", Machine)}


def lifts_kg(chart: Sequence[tuple[float, float]], reach_m: float) -> float | None:
    """What a chart of (reach [m], load [kg]) gives at a reach; None past its last one.

    Check 2: 4,600, 4: 2,350, 6: 1,500: at 4.0 m 2,350, at 4.1 m 1,500, at 6.1 m nothing.
    """
    return next((kg for reach, kg in sorted(chart) if reach_m <= reach + 1e-9), None)


def chart_words(chart: Sequence[tuple[float, float]], shown: Shown) -> str:
    """A chart as it is typed in the units of a build: "2 m 3000 kg, 4 m 1600 kg", or "6.6 ft 6614 lb, 13.1 ft 3527 lb"."""
    if shown.imperial:
        return ", ".join(f"{reach / FOOT_M:.3g} ft {kg / POUND_KG:.0f} lb" for reach, kg in chart)
    return ", ".join(f"{reach:.3g} m {kg:.0f} kg" for reach, kg in chart)


def read_chart(text: str, shown: Shown) -> tuple[ReachLine, ...]:
    """A chart as it is typed: "2 m 3000 kg, 4 m 1600 kg"; nothing for nothing. Raises: EntryError: names what is not understood."""
    made = []
    right = chart_words(((4.0, 1600.0),), shown)
    for k, part in enumerate(filter(None, (part.strip() for part in re.split(r"[,;\n]", text))), 1):
        found = re.fullmatch(r"(\S+\s*[a-z'\"]*)\s+(\S+\s*[a-z]*)", part, re.IGNORECASE)
        if found is None:
            raise EntryError(f"“{part}” is no line of a chart; a reach and a load, such as {right}, would be right.")
        made.append(ReachLine(f"l{k}", Length.read(found[1], shown), Mass.read(found[2], shown)))
    short = next((line for line in made if line.reach.si < LEAST_REACH_M or line.load.si < 0), None)
    if short is not None:
        raise EntryError(
            f"“{short.reach.typed or text.strip()}” is no reach of a machine; with its unit, such as {right}, it would be right."
        )
    return tuple(made)


def chart_of(lift: Lift) -> tuple[tuple[float, float], ...]:
    """The chart that a lift is judged by: one's own, else that of its machine; nothing where neither is said."""
    if lift.chart:
        return tuple((line.reach.si, line.load.si) for line in lift.chart)
    machine = machines().get(lift.machine)
    return tuple(zip(machine.reach_m, machine.kg, strict=True)) if machine is not None else ()
