"""Road, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Deed, Shot, View


def standing(project: Project, _s: Studied) -> tuple[str, str]:
    road = project.build.road
    if road.corrections:
        return "weighed, learnt", "good"
    if road.tickets:
        many = len(road.tickets)
        return f"{many} ticket{'s' if many > 1 else ''}", "good"
    return "not weighed", "none"


VIEW_OF = {"ticket": "Weigh", "taught": "Taught", "wish": "Papers", "trip": "Trips", "stand": "Stand"}


def shows(_s: Studied, id: str) -> str | None:
    return VIEW_OF.get(id)


ABOUT = About(
    "Road",
    "uncle_sled.desk.benches.road.bench:RoadBench",
    standing,
    views=(
        View("Weigh", "the weigh-in", "Where the wheels stand, what is read, and what it says", panel="weigh_panel:WeighPanel"),
        View(
            "Taught",
            "what the tickets taught",
            "Every group before and after, and what cannot be told apart",
            panel="taught_panel:TaughtPanel",
        ),
        View(
            "Papers",
            "wishes and papers",
            "What was asked for, where it is, and the papers for the office",
            panel="paper_panels:PapersPanel",
        ),
        View("Trips", "the trips", "Nights, litres, power and gas against the plan", panel="paper_panels:TripsPanel"),
        View("Stand", "how it stands for good", "Blocks, pads, the fall of the ground, the wind", panel="paper_panels:StandPanel"),
        View(
            "Drills",
            "the drills",
            "Questions from your own build: the ball, a thin wire, five in their places",
            panel="drill_panel:DrillPanel",
        ),
    ),
    deeds=(
        Deed("new-ticket", "A new weigh-in", "T", lambda bench: bench.add_ticket()),
        Deed("accept-tickets", "Accept what the tickets taught", "C", lambda bench: bench.accept()),
        Deed("add-wish", "Write down a wish", "W", lambda bench: bench.add_wish()),
        Deed("add-trip", "Write down a trip", "J", lambda bench: bench.add_trip()),
    ),
    mouse=("Drills: drag the pointer or a thing; elsewhere numbers are typed, or come from a scale",),
    shots=(Shot("10-road-taught", "Taught"),),
    shows=shows,
)
