"""The whole of a sound diagram: a charge controller where panels have none, then all that has no wire yet."""

from __future__ import annotations

from collections.abc import Sequence

from uncle_sled.core.document.edits import Op, apply
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.studies.stow.adding import add_ops
from uncle_sled.core.wiring.appliances import figures_of, units_of
from uncle_sled.core.wiring.wire_up import wire_up_ops

COLD_OVER = 1.25  # open volts of panels in hard frost, over those of their plate


def controller_for(build: Build, shelf: Sequence[Thing]) -> Thing | None:
    """The least controller of a shelf that takes the panels' watts and their volts in frost, else the largest; None where none is wanted."""
    panels = units_of(build, "panel")
    if not panels or not units_of(build, "battery") or units_of(build, "solar charger", "station"):
        return None
    watts = sum(figures_of(t).solar_wp or 0.0 for t in panels)
    volts = max(figures_of(t).voc_v or 0.0 for t in panels) * build.systems.panels_in_series * COLD_OVER
    there = [t for t in shelf if figures_of(t).unit == "solar charger"]
    there.sort(key=lambda t: (figures_of(t).charge_w or 0.0, t.id))
    takes = (t for t in there if (figures_of(t).charge_w or 0.0) >= watts and (figures_of(t).most_v or 0.0) >= volts)
    return next(takes, there[-1] if there else None)


def wire_whole_ops(build: Build, facts: Facts, framed: Framed, shelf: Sequence[Thing]) -> tuple[list[Op], Thing | None]:
    """Ops that put the controller aboard where one is wanted and join all that has no wire yet; the controller."""
    controller = controller_for(build, shelf)
    first = add_ops(build, facts, framed, (controller,))[0] if controller is not None else []
    wires = wire_up_ops(apply(build, first)) if first else wire_up_ops(build)
    return [*first, *wires], controller
