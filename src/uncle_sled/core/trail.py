"""The trail: the stops in the order people work. The one list of them; a stop more is a line here and a folder in the desk.

A change belongs to the stop that owns the root of its place in the document (``rig.axles.a1.station``: Rig).
"""

from __future__ import annotations

from collections.abc import Iterable

import msgspec


class Stop(msgspec.Struct, frozen=True):
    """``owns``: roots of the document that are decided here. ``does``: what one does there. ``will``: what it will add.

    ``edits``: roots of other stops that can be changed here as well; such a change belongs here while it is made here.
    """

    name: str
    owns: tuple[str, ...] = ()
    does: str = ""
    will: str = ""
    edits: tuple[str, ...] = ()


STOPS = (
    Stop("Brief", ("brief", "people", "vehicles", "facts"), "Say who goes, in which car, where and when."),
    Stop("Rig", ("rig",), "Give frame, axles and ball their places and ratings."),
    Stop("Shell", ("shell", "materials"), "Draw the body, cut its doors and windows, choose how it is made."),
    Stop("Stow", ("stow", "catalogue"), "Put in what goes along; it must fit, hold, and be reached."),
    Stop("Balance", does="See what ball and wheels carry, and mend it before it is built.", edits=("rig", "stow", "shell")),
    Stop("Systems", ("systems",), "Wire it, pipe it, warm it; see how long it lasts.", edits=("stow", "brief")),
    Stop("Cut", ("cut",), "Number the pieces, lay them on sheets and bars, buy.", edits=("brief",)),
    Stop("Build", ("work",), "Plan the days, lift and glue, tick off, write down.", edits=("cut",)),
    Stop("Road", ("road",), "Weigh it, let it teach the model, take its papers along.", edits=("brief",)),
)
HOME = "Stow"  # where an open build is shown first
TRAIL = tuple(stop.name for stop in STOPS)


def does_at(name: str) -> str:
    """What one does at a stop."""
    return next(stop.does for stop in STOPS if stop.name == name)


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
