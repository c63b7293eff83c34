"""Stow, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Deed, Shot, View


def standing(project: Project, s: Studied) -> tuple[str, str]:
    from uncle_sled.core.studies.stow.restraints import restraints

    n = len(project.build.stow.things)
    loose = sum(1 for hold in restraints(s.build, s.table) if hold.fault in ("loose", "unrated"))
    if loose:
        return f"{loose} hold unknown" if loose > 1 else "1 hold unknown", "none"
    return (f"{n} things" if n != 1 else "1 thing", "good") if n else ("empty", "none")


def _a_tank(build: Build, _s: Studied) -> tuple[str, ...]:
    return tuple(t.id for t in build.stow.things if t.tank)[:1]


def shows(s: Studied, id: str) -> str | None:
    return "Drawing" if id == "stow" or any(thing.id == id for thing in s.build.stow.things) else None


ABOUT = About(
    "Stow",
    "uncle_sled.desk.benches.stow.bench:StowBench",
    standing,
    views=(
        View("Drawing", "side and plan", "Left side and plan, to be dragged in", picks=_a_tank),
        View(
            "Solid",
            "from behind and in three directions",
            "From behind, and in three directions with the body peeled",
            panel="solid_view:SolidView",
        ),
        View("Modes", "all modes side by side", "All modes side by side", panel="mode_strip:ModeStrip"),
        View("Cases", "load cases and the sweep", "Load cases as columns, and every tank at every level", panel="case_bench:CaseBench"),
        View("Fits", "who fits", "Who sleeps, gets out, reaches and passes", panel="fit_panel:FitPanel"),
        View("Built", "what is made of boards", "Cabinets, beds and pull-outs of boards", panel="built_panel:BuiltPanel"),
        View("Lids", "hatches on their struts", "Hatches and lids turning on their struts", panel="lids_panel:LidsPanel"),
        View("Reach", "what is got at how", "What must be moved to get at each thing", panel="reach_panel:ReachPanel"),
        View("Held", "what holds things", "What holds every thing on the road", panel="held_table:HeldTable"),
        View(
            "Arrange", "other arrangements", "What must be so, and three arrangements that keep to it", panel="arrange_panel:ArrangePanel"
        ),
        View("Table", "the table of things", "All things as a table", panel="thing_table:ThingTable"),
    ),
    deeds=(
        Deed("table", "All things as a table", "L", lambda bench: bench.show_table()),
        Deed("people", "People in the drawing", "P", lambda bench: bench.show_people()),
        Deed("add-thing", "Add a thing from the catalogue", "A", lambda bench: bench.open_shelf()),
        Deed("measure", "Measure", "M", lambda bench: bench.measure()),
        Deed("turn", "Turn a quarter", "T", lambda bench: bench.turn()),
        Deed("copy", "Copy", "Ctrl+D", lambda bench: bench.copy()),
        Deed("delete", "Delete", "Delete", lambda bench: bench.delete()),
    ),
    mouse=(
        "Drag a thing: it snaps; Ctrl: free; type a number: exact",
        "Arrows nudge, Shift ten times",
        "Shift-click or pull a rectangle: several",
        "Wheel zooms, middle button or space pans",
    ),
    shots=(
        Shot("4-stow", "Drawing"),
        Shot("4e-stow-arrange", "Arrange", lambda bench: bench.panel("Arrange").try_first(), demo="rosin-box"),
    ),
    drawn=True,
    takes_things=True,
    shows=shows,
)
