"""One drag step of an opening on the largest framed demo as the desk does it, as a ratio to its Shapely operations. Run: .venv/bin/python -m benchmarks.reframe"""

from __future__ import annotations

import statistics
import time

from shapely import affinity
from shapely.geometry import Polygon, box

from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.findings.all_findings import findings_in_hand
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange.demos import demo

STEPS, OPENING, FACE = 120, "win1", "left side"


def shapely_alone_s(shapes: list[Polygon], holes: list[Polygon]) -> float:
    """The cuts that one face needs, and nothing else: every stick's strip by the region, its neighbours and the holes."""
    region = box(*(f(s.bounds[k] for s in shapes) for k, f in ((0, min), (1, min), (2, max), (3, max))))
    begin = time.perf_counter()
    for at, shape in enumerate(shapes):
        free = affinity.translate(shape, 1e-6).intersection(region)
        for other in shapes[max(at - 3, 0) : at]:
            free = free.difference(other)
        for hole in holes:
            free = free.difference(hole)
    return time.perf_counter() - begin


def main() -> None:
    project = demo("orchard-keeper")
    build, facts = project.build, project.facts
    first = next(o for o in build.shell.openings if o.id == OPENING).along.si
    s, mode = study(build, facts), build.stow.modes[0].id
    shapes, holes = [m.shape for m in s.framed.on(FACE)], list(s.framed.holes_in(FACE))
    alone = statistics.median(shapely_alone_s(shapes, holes) for _ in range(30))
    took = []
    for step in range(STEPS):
        ops = [set_to(f"shell.openings.{OPENING}.along", {"si": first + 0.0031 * step, "typed": None})]
        begin = time.perf_counter()
        findings_in_hand(study(apply(build, ops), facts), s, mode, ())
        took.append(time.perf_counter() - begin)
    p95 = sorted(took)[int(0.95 * STEPS)]
    print(
        f"{len(s.framed.members)} sticks; drag step median {statistics.median(took) * 1e3:.1f} ms, "
        f"95th percentile {p95 * 1e3:.1f} ms (target 50), ratio to Shapely alone {p95 / alone:.1f}"
    )


if __name__ == "__main__":
    main()
