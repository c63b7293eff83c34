"""Brief, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Shot


def standing(project: Project, _s: Studied) -> tuple[str, str]:
    n = len(project.facts.people)
    return (f"{n} sleep" if n != 1 else "1 sleeps", "good") if n else ("nobody yet", "none")


ABOUT = About(
    "Brief",
    "uncle_sled.desk.benches.brief.bench:BriefBench",
    standing,
    shots=(Shot("1-brief"),),
    drawn=True,
    shows=lambda _s, id: "" if id == "brief" else None,
)
