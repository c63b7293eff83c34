"""Every goal for speed as one table: what was measured, at the machine's usual pace or as a ratio, beside what it should be.

    python -m benchmarks [WORD ...] [--one NAME]

Each measure runs in a process of its own. Words choose the measures whose name holds one of them; all, where none is given.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys
from collections.abc import Callable, Iterator
from typing import NamedTuple

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")


class Row(NamedTuple):
    """One measure: what, its value, its goal (None: told only) and its unit ("": a ratio)."""

    what: str
    value: float
    goal: float | None
    unit: str


def _start() -> Iterator[Row]:
    from benchmarks.start import first_reading

    bare, ours = first_reading()
    yield Row("start to the first reading over a bare window", ours / bare, 1.8, "")


def _open_big() -> Iterator[Row]:
    from benchmarks.open_big import opening

    bare, ours = opening()
    yield Row("a file of 2,000 things over its JSON and a bare window", ours / bare, 2.5, "")


def _drag() -> Iterator[Row]:
    from benchmarks.drag_step import dragged
    from benchmarks.pace import Timed

    with Timed() as took:
        few, many = dragged(200, 300), dragged(100, 2000)
    yield Row("a drag step of 300 things, CPU", few.cpu_ms / took.pace, None, "ms")
    yield Row("the same, its longest moves (95th percentile)", few.p95_ms / took.pace, 16.0, "ms")
    yield Row("2,000 things over 300, CPU", many.cpu_ms / few.cpu_ms, 3.0, "")
    yield Row("2,000 things over 300, the window's thread", many.median_ms / few.median_ms, 3.0, "")


def _framing() -> Iterator[Row]:
    from benchmarks.reframe import framed_and_judged

    alone, framed, judged = framed_and_judged()
    yield Row("a dragged opening framed, over its Shapely operations", framed / alone, 6.0, "")
    yield Row("the same, framed and judged", judged / alone, 3.5, "")


def _edit() -> Iterator[Row]:
    from benchmarks.at_rest import edited

    for many, goal in ((300, None), (1000, 16.0), (9900, 100.0)):
        edit_ms, paint_ms = edited(many)
        yield Row(f"an edit at rest of {many:,} things", edit_ms, goal, "ms")
        yield Row("  and its picture", paint_ms, goal, "ms")


def _desk() -> Iterator[Row]:
    from benchmarks.at_rest import walked

    seen = walked()
    first, again, wide = (max(some, key=lambda one: some[one]) for some in (seen.first_ms, seen.again_ms, seen.resized_ms))
    yield Row(f"a stop shown first, the longest ({first})", seen.first_ms[first], 150.0, "ms")
    yield Row(f"a stop shown again, the longest ({again})", seen.again_ms[again], 30.0, "ms")
    yield Row(f"resizing, the longest ({wide})", seen.resized_ms[wide], 50.0, "ms")
    yield Row("day to night, all views seen", seen.night_ms, 300.0, "ms")


def _report() -> Iterator[Row]:
    from benchmarks.at_rest import reported_s

    for name in ("marsh-heron", "orchard-keeper"):
        first, again = reported_s(name)
        yield Row(f"report --json of {name}, CPU, told for the first time", first, 1.0, "s")
        yield Row("  told again", again, 1.0, "s")


def _memory() -> Iterator[Row]:
    from benchmarks.at_rest import grown_mb

    drags, builds = grown_mb(2000, 100)
    yield Row("memory that 2,000 drags leave", drags, 10.0, "MB")
    yield Row("memory that 100 builds opened and closed leave", builds, 10.0, "MB")


def _growth() -> Iterator[Row]:
    from benchmarks.growth import grown

    for what, power, most in grown():
        yield Row(f"growth: {what}, as a power of its size", power, most, "")


MEASURES: dict[str, Callable[[], Iterator[Row]]] = {
    "start": _start,
    "file": _open_big,
    "drag": _drag,
    "framing": _framing,
    "edit": _edit,
    "desk": _desk,
    "report": _report,
    "memory": _memory,
    "growth": _growth,
}


def table(rows: list[Row]) -> str:
    """As Markdown."""
    lines = ["| What | Measured | Goal |", "|---|---|---|"]
    for row in rows:
        unit = f" {row.unit}" if row.unit else ""
        goal = "" if row.goal is None else f"{row.goal:g}{unit}" + ("" if row.value <= row.goal else ", not met")
        lines.append(f"| {row.what} | {row.value:.3g}{unit} | {goal} |")
    return "\n".join(lines)


def main() -> int:
    words = sys.argv[1:]
    if words[:1] == ["--one"]:
        print(json.dumps([list(row) for row in MEASURES[words[1]]()]))
        return 0
    rows: list[Row] = []
    for name in MEASURES:
        if words and not any(word in name for word in words):
            continue
        done = subprocess.run([sys.executable, "-m", "benchmarks", "--one", name], capture_output=True, text=True)
        if done.returncode:
            print(f"{name}: could not be measured\n{done.stderr[-800:]}", file=sys.stderr)
            continue
        rows += [Row(*row) for row in json.loads(done.stdout.splitlines()[-1])]
    print(table(rows))
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
