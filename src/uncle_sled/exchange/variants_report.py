"""The key ``variants`` of the report: every variant over everything, and what it says otherwise than the first."""

from __future__ import annotations

from typing import Any

import msgspec

from uncle_sled.core.document.differences import differences, in_words
from uncle_sled.core.document.project import Project
from uncle_sled.core.findings.beside import beside
from uncle_sled.exchange.shell_report import number


def variants_report(project: Project) -> list[dict[str, Any]]:
    shown = project.build.brief.reading.shown()
    made = []
    for build, beside_ in zip(project.variants, beside(project), strict=True):
        record = {name: number(v) if isinstance(v, float) else v for name, v in msgspec.to_builtins(beside_.standing).items()}
        others = differences(project.variants[0], build)
        made.append(
            {
                **record,
                "same_as_first": list(beside_.same),
                "stops": beside_.stops,
                "to_settle": beside_.settle,
                "differences": [{"stop": d.stop, "says": in_words(d, shown)} for d in others],
            }
        )
    return made
