"""Brief, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Shot, View


def standing(project: Project, _s: Studied) -> tuple[str, str]:
    n = len(project.facts.people)
    return (f"{n} sleep" if n != 1 else "1 sleeps", "good") if n else ("nobody yet", "none")


ABOUT = About(
    "Brief",
    "uncle_sled.desk.benches.brief.bench:BriefBench",
    standing,
    views=(
        View("Asked", "what is asked of it", "Who it is for, what tows it, where it goes"),
        View(
            "Trade",
            "what one would trade",
            "Two wishes that fight, and the best that is known between them",
            panel="trade_panel:TradePanel",
        ),
        View("Takes", "what it would take", "A wish in words, and the cheapest changes that get there", panel="takes_panel:TakesPanel"),
    ),
    shots=(
        Shot("1-brief", "Asked"),
        Shot("1b-brief-trade", "Trade", lambda bench: bench.panel("Trade").reckon(), demo="marsh-heron"),
        Shot("1c-brief-takes", "Takes", lambda bench: bench.panel("Takes").ask("6 nights"), demo="dark-sky"),
    ),
    drawn=True,
    shows=lambda _s, id: "Asked" if id == "brief" else None,
)
