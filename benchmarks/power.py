"""Fourteen days by the hour with 40 loads under three skies, and 60 circuits with routes, drops and fuses, beside bare arrays.

Run: .venv/bin/python -m benchmarks.power"""

from __future__ import annotations

import statistics
import time

import msgspec
import numpy as np

from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.systems import Load
from uncle_sled.core.engine import forget
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.systems.hazards import hazards_of
from uncle_sled.core.studies.systems.stay import stay_of
from uncle_sled.core.wiring.wire_up import wire_up_ops
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.exchange.demos import demo

LOADS, TURNS = 40, 40


def a_big_build() -> Build:
    build = demo("dark-sky").build
    loads = tuple(
        Load(f"ld{k}", f"Load {k}", power_w=10.0 + k, hours_day=0.5 + k % 9, when="night" if k % 2 else "any") for k in range(LOADS)
    )
    systems = msgspec.structs.replace(build.systems, loads=loads, wires=(), devices=())
    brief = msgspec.structs.replace(build.brief, nights_off=14)
    return msgspec.structs.replace(build, systems=systems, brief=brief)


def bare_s() -> float:
    """Three times fourteen days of 40 loads summed and run down, as arrays and nothing else."""
    demand = np.random.default_rng(1).uniform(0, 50, (LOADS, 24))
    begin = time.perf_counter()
    for _ in range(3):
        hours = np.tile(demand.sum(axis=0), 14)
        np.clip(5000 - np.cumsum(hours), 0, 5000)
    return time.perf_counter() - begin


def main() -> None:
    build, facts = a_big_build(), Facts()
    alone = statistics.median(bare_s() for _ in range(200))
    mode = build.stow.modes[1].id
    took = []
    for step in range(TURNS):
        changed = apply(build, [set_to("systems.loads.ld1.power_w", 20.0 + step)])
        begin = time.perf_counter()
        stay_of(changed, mode)
        took.append(time.perf_counter() - begin)
    p95 = sorted(took)[int(0.95 * TURNS)]
    print(
        f"stay, 14 days, {LOADS} loads, three skies: median {statistics.median(took) * 1e3:.1f} ms, 95th percentile {p95 * 1e3:.1f} ms (target 20), {p95 / alone:.0f} times the bare arrays"
    )

    wired = apply(build, wire_up_ops(build))
    framed = study(wired, facts).framed
    wired_of(wired, framed)
    hazards_of(wired, wired_of(wired, framed))
    fresh, moved = [], []
    for step in range(TURNS):
        forget()
        framed = study(wired, facts).framed
        changed = apply(wired, [set_to("systems.loads.ld1.power_w", 20.0 + step)])
        begin = time.perf_counter()
        hazards_of(changed, wired_of(changed, framed))
        fresh.append(time.perf_counter() - begin)
    for step in range(TURNS):
        device = wired.systems.devices[-1].id
        changed = apply(wired, [set_to(f"systems.devices.{device}.x", {"si": 3.0 + 0.01 * step, "typed": None})])
        begin = time.perf_counter()
        study(changed, facts)
        moved.append(time.perf_counter() - begin)
    print(f"{len(wired.systems.wires)} circuits laid, sized and checked afresh: median {statistics.median(fresh) * 1e3:.1f} ms (target 30)")
    print(
        f"a device moved, with mass and reading: median {statistics.median(moved) * 1e3:.1f} ms, 95th percentile {sorted(moved)[int(0.95 * TURNS)] * 1e3:.1f} ms (a frame 16)"
    )


if __name__ == "__main__":
    main()
