"""How every check grows when a build is twice as large: things, circuits, tasks, sticks. Run: .venv/bin/python -m benchmarks growth"""

from __future__ import annotations

import math
import time
from collections.abc import Callable, Iterator

import msgspec

from benchmarks.big_build import big_project
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.project import Project
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.systems import Load
from uncle_sled.core.document.work import TaskChange
from uncle_sled.core.engine import forget
from uncle_sled.core.findings.all_findings import AT_REST, IN_FRAME
from uncle_sled.core.reading.studied import study
from uncle_sled.core.wiring.wire_up import wire_up_ops
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import demo

LINEARLY = 1.25  # as n log n grows from some hundred on, and what is not counted
LEAST_S = 0.01  # what takes less tells nothing of how it grows
TURNS = 3


def of_things(many: int) -> Project:
    return big_project(300 * many)


def of_circuits(many: int) -> Project:
    project = demo("dark-sky")
    loads = tuple([Load(f"ld{k}", f"Load {k}", power_w=10.0 + k, hours_day=0.5 + k % 9) for k in range(30 * many)])
    bare = msgspec.structs.replace(project.build.systems, loads=loads, wires=(), devices=())
    build = msgspec.structs.replace(project.build, systems=bare)
    return project.with_build(apply(build, wire_up_ops(build)))


def of_tasks(many: int) -> Project:
    project = demo("marsh-heron")
    own = tuple([TaskChange(f"own{k}", name=f"Task {k}", own=True, likely=1.0 + k % 3) for k in range(150 * many)])
    return project.with_build(msgspec.structs.replace(project.build, work=msgspec.structs.replace(project.build.work, changes=own)))


def of_sticks(many: int) -> Project:
    project = demo("orchard-keeper")
    framing = msgspec.structs.replace(project.build.shell.framing, pitch=Length(0.4 / many))
    return project.with_build(msgspec.structs.replace(project.build, shell=msgspec.structs.replace(project.build.shell, framing=framing)))


SIZES: dict[str, Callable[[int], Project]] = {"things": of_things, "circuits": of_circuits, "tasks": of_tasks, "sticks": of_sticks}


def _times(project: Project) -> dict[str, float]:
    """CPU seconds of the frame tier and of each check, fresh, the best of some turns."""
    best: dict[str, float] = {}
    for _ in range(TURNS):
        forget()
        begin = time.process_time()
        s = study(project.build, project.facts)
        took = {"the reading": time.process_time() - begin}
        words = Words(project.build.brief.reading.shown())
        for _, check in (*IN_FRAME, *AT_REST):
            begin = time.process_time()
            for _found in check(s, words):
                pass
            took[check.__name__] = time.process_time() - begin
        best = {name: min(seconds, best.get(name, seconds)) for name, seconds in took.items()}
    return best


def grown() -> Iterator[tuple[str, float, float]]:
    """Of each size the check that grows most: what, its power of the size, and the most that it should be."""
    for size, of in SIZES.items():
        small, large = _times(of(1)), _times(of(2))
        powers = {name: math.log2(large[name] / max(small[name], 1e-6)) for name in large if large[name] > LEAST_S}
        for name in sorted(powers, key=lambda name: -powers[name])[:3]:
            yield f"{name} by {size} ({large[name] * 1000:.0f} ms at twice)", powers[name], LINEARLY
