"""One drag step of an opening on the largest framed demo: framing and judging alone, as a ratio to its Shapely operations,
and the whole step in the window; then stripping and relining a bought shell, with mass and findings. Run: .venv/bin/python -m benchmarks.reframe"""

from __future__ import annotations

import statistics
import time

from PySide6.QtCore import QEvent, QPointF
from shapely import affinity
from shapely.geometry import Polygon, box

from benchmarks.hand import drag, mouse
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Relining
from uncle_sled.core.findings.all_findings import findings_in_hand
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.shell.relining_effect import relining_ops
from uncle_sled.core.studies.shell.screening import screening
from uncle_sled.desk.app import application, open_window
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


def framed_and_judged() -> tuple[float, float, float]:
    """Seconds of the Shapely operations alone, of framing and of framing and judging a step (95th percentile)."""
    project = demo("orchard-keeper")
    build, facts = project.build, project.facts
    first = next(o for o in build.shell.openings if o.id == OPENING).along.si
    s, mode = study(build, facts), build.stow.modes[0].id
    shapes, holes = [m.shape for m in s.framed.on(FACE)], list(s.framed.holes_in(FACE))
    alone = statistics.median(shapely_alone_s(shapes, holes) for _ in range(30))
    took, framed, checked = [], [], []
    for step in range(STEPS):
        moved = apply(build, [set_to(f"shell.openings.{OPENING}.along", {"si": first + 0.0031 * step, "typed": None})])
        begin = time.perf_counter()
        framed_of(moved, facts)
        framed.append(time.perf_counter() - begin)
        now = study(moved, facts)
        findings_in_hand(now, s, mode, ())
        took.append(time.perf_counter() - begin)
        begin = time.perf_counter()
        screening(now)
        checked.append(time.perf_counter() - begin)
    print(f"{len(s.framed.members)} sticks; does it hold: median {statistics.median(checked) * 1e3:.1f} ms (target 20)")
    return alone, sorted(framed)[int(0.95 * STEPS)], sorted(took)[int(0.95 * STEPS)]


def framing() -> None:
    alone, framed, judged = framed_and_judged()
    print(f"framed alone: 95th percentile {framed * 1e3:.1f} ms (target 50), ratio to Shapely {framed / alone:.1f} (target 6)")
    print(f"framed and judged: 95th percentile {judged * 1e3:.1f} ms, ratio to Shapely alone {judged / alone:.1f} (target 3.5)")


def whole_step() -> None:
    app = application()
    window = open_window(demo("orchard-keeper"))
    window.show()
    session = window.session
    session.judge_now()
    session.go_to("Shell")
    window.bench("Shell").show_view("Openings")
    app.processEvents()
    sheet = window.bench("Shell").sheet
    assert sheet is not None and session.studied.framed.body is not None
    left, low, right, high = next(c for c in session.studied.framed.cuts if c.id == OPENING).shape.bounds
    body = session.studied.framed.body
    start = sheet.frame("side").point((body.front + (left + right) / 2, body.under + (low + high) / 2))
    mouse(sheet, QEvent.Type.MouseButtonPress, QPointF(start))
    cpu, median, p95 = drag(sheet, session, QPointF(start), STEPS, 8.3)
    print(f"in the window: CPU {cpu:.1f} ms a step, median {median:.1f} ms, 95th percentile {p95:.1f} ms")
    mouse(sheet, QEvent.Type.MouseButtonRelease, QPointF(start))
    session.history = session.history.was_saved()
    window.close()


def relining() -> None:
    project = demo("rosin-box")
    build, facts = project.build, project.facts
    s, mode = study(build, facts), build.stow.modes[0].id
    took = []
    for step in range(STEPS):
        draft = Relining(
            "", "left side", foam="xps", foam_thickness=Length(0.020 + 0.0001 * step), liner="light-ply", liner_thickness=Length(0.006)
        )
        begin = time.perf_counter()
        findings_in_hand(study(apply(build, relining_ops(build.shell, (draft,))), facts), s, mode, ())
        took.append(time.perf_counter() - begin)
    print(
        f"relined and judged: median {statistics.median(took) * 1e3:.1f} ms, "
        f"95th percentile {sorted(took)[int(0.95 * STEPS)] * 1e3:.1f} ms (target 50)"
    )


if __name__ == "__main__":
    framing()
    relining()
    whole_step()
