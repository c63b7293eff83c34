"""Every variant of a project over everything, its findings with it."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Project
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.finding import to_settle
from uncle_sled.core.reading.studied import study
from uncle_sled.core.slow import Tell, nobody
from uncle_sled.core.studies.compare_variants import Standing, same_stops, standing_of


class Beside(msgspec.Struct, frozen=True):
    """One variant. same: stops that say what the first says; stops, settle: findings that stop, and all to settle."""

    standing: Standing
    same: tuple[str, ...]
    stops: int
    settle: int


def beside(project: Project, tell: Tell = nobody) -> tuple[Beside, ...]:
    """All variants in the order of the file. Seconds where nothing is kept of them yet."""
    made = []
    for at, build in enumerate(project.variants):
        tell(at / len(project.variants), f"{build.name}, {at + 1} of {len(project.variants)}")
        found = findings(study(build, project.facts))
        stops = sum(finding.severity == "stop" and finding.set_aside is None for finding in found)
        same = same_stops(build, project.variants[0])
        made.append(Beside(standing_of(build, project.facts), same, stops, to_settle(found)))
    return tuple(made)
