"""Every tank at every level, against the bare linear algebra of as many combinations.

Run: .venv/bin/python -m benchmarks.sweep
"""

from __future__ import annotations

import time

import numpy as np

from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance.sweep import sweep
from uncle_sled.exchange.demos import DEMOS, demo


def best_ms(work, times: int = 40) -> float:
    took = []
    for _ in range(times):
        begin = time.perf_counter()
        work()
        took.append((time.perf_counter() - begin) * 1000)
    return float(np.median(took))


def main() -> None:
    for name in DEMOS:
        project = demo(name)
        s = study(project.build, project.facts)
        found = sweep(s, 0)
        if found is None:
            continue
        many, wide = len(found.load_kg), s.table.mass_kg.shape[1]
        mass, arm = np.repeat(s.table.mass_kg[:1], many, axis=0), 1 - s.table.x_m[0] / 3.0
        bare = best_ms(lambda mass=mass, arm=arm: mass @ arm)
        whole = best_ms(lambda s=s: sweep.__wrapped__(s, 0))  # type: ignore[attr-defined]
        print(f"{name}: {many} combinations of {wide} masses, {whole:.2f} ms; bare product {bare:.3f} ms; ratio {whole / bare:.0f}")


if __name__ == "__main__":
    main()
