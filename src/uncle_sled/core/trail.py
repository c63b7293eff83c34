"""The trail: the stops in the order people work. The one list of them; a stop more is a line here and a folder in the desk.

A change belongs to the stop that owns the root of its place in the document (``rig.axles.a1.station``: Rig).
"""

from __future__ import annotations

from collections.abc import Iterable

import msgspec


class Stop(msgspec.Struct, frozen=True):
    """``owns``: roots of the document that are decided here. ``will``: what it will add, while it is not built.

    ``edits``: roots of other stops that can be changed here as well; such a change belongs here while it is made here.
    """

    name: str
    owns: tuple[str, ...] = ()
    will: str = ""
    edits: tuple[str, ...] = ()


STOPS = (
    Stop("Brief", ("brief", "people", "vehicles", "facts")),
    Stop("Rig", ("rig",)),
    Stop("Shell", ("shell", "materials")),
    Stop("Stow", ("stow", "catalogue")),
    Stop("Balance", edits=("rig", "stow", "shell")),
    Stop("Systems", ("systems",), edits=("stow", "brief")),
    Stop("Cut", ("cut",), edits=("brief",)),
    Stop("Build", ("work",), edits=("cut",)),
    Stop("Road", ("road",), edits=("brief",)),
)
HOME = "Stow"  # where an open build is shown first
TRAIL = tuple(stop.name for stop in STOPS)


def stop_of(paths: Iterable[str], here: str = "") -> str | None:
    """The stop that what stands at these places belongs to: the one at hand where it edits it, else its owner.

    None where no stop owns any of it.
    """
    owners = {root: stop.name for stop in STOPS for root in stop.owns}
    roots = [path.removeprefix("build.").removeprefix("facts.").split(".")[0] for path in paths]
    shown = next((stop for stop in STOPS if stop.name == here), None)
    if shown is not None and any(root in (*shown.owns, *shown.edits) for root in roots):
        return here
    return next((owners[root] for root in roots if root in owners), None)
