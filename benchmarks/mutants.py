"""Which small wrong changes of the studies turn a test red? ``python -m benchmarks.mutants [stop ...] [--jobs N]``.

Every change of ``small_wrongs`` is made in a copy of the sources, the tests of its stop are run on it, and the share that
was found is printed; what was not found is named. It ends with 1 under 95 %, and where one that can hurt was not found.
"""

from __future__ import annotations

import argparse
import compileall
import os
import shutil
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from queue import Queue

from benchmarks.small_wrongs import STOPS, Wrong

HERE = Path(__file__).resolve().parents[1]
LEAST = 0.95


def copied(folder: Path) -> Path:
    """A copy of the sources that may be changed."""
    shutil.copytree(HERE / "src", folder / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    compileall.compile_dir(folder / "src", quiet=2)  # what is changed is read anew by its time, the rest is not
    return folder / "src"


def stands(source: Path, tests: tuple[str, ...]) -> bool:
    """Whether all of these tests pass on these sources."""
    env = {**os.environ, "PYTHONPATH": str(source), "QT_QPA_PLATFORM": "offscreen", "PYTHONDONTWRITEBYTECODE": "1"}
    command = [sys.executable, "-m", "pytest", "-x", "-q", "--no-header", *tests]
    return subprocess.run(command, cwd=HERE, env=env, capture_output=True).returncode == 0


def found(one: Wrong, source: Path, tests: tuple[str, ...]) -> bool:
    """Whether a change turns a test red. Raises: ValueError: where what it changes does not stand there once."""
    file = source / "uncle_sled" / "core" / one.file
    text = file.read_text()
    if text.count(one.was) != 1:
        raise ValueError(f"{one.file}: {one.was!r} stands there {text.count(one.was)} times")
    file.write_text(text.replace(one.was, one.becomes))
    try:
        return not stands(source, tests)
    finally:
        file.write_text(text)


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("stops", nargs="*", choices=[*STOPS, []], help="only these")
    asked.add_argument("--jobs", type=int, default=os.cpu_count() or 1)
    said = asked.parse_args()
    work = [(stop, one, STOPS[stop][1]) for stop in said.stops or STOPS for one in STOPS[stop][0]]
    missed: list[tuple[str, Wrong]] = []
    begun = time.monotonic()
    with tempfile.TemporaryDirectory() as folder:
        free: Queue[Path] = Queue()
        for k in range(said.jobs):
            free.put(copied(Path(folder) / str(k)))

        def green(stop: str) -> bool:
            mine = free.get()
            try:
                return stands(mine, STOPS[stop][1])
            finally:
                free.put(mine)

        def tried(task: tuple[str, Wrong, tuple[str, ...]]) -> None:
            stop, one, tests = task
            mine = free.get()
            try:
                hit = found(one, mine, tests)
            finally:
                free.put(mine)
            if not hit:
                missed.append((stop, one))
            print(f"{'found ' if hit else 'MISSED'} {stop}: {one.file}: {one.was} -> {one.becomes}", flush=True)

        with ThreadPoolExecutor(said.jobs) as pool:
            stops = sorted({stop for stop, _, _ in work})
            for stop, stood in zip(stops, pool.map(green, stops), strict=True):
                if not stood:
                    print(f"{stop}: its tests are red before anything was changed")
                    return 2
            list(pool.map(tried, work))
    share = 1 - len(missed) / len(work)
    hurts = [one for _, one in missed if one.can_hurt]
    print(
        f"{len(work) - len(missed)} of {len(work)} found ({share:.0%}) in {time.monotonic() - begun:.0f} s; of those that can hurt {len(hurts)} were not"
    )
    return 0 if share >= LEAST and not hurts else 1


if __name__ == "__main__":
    sys.exit(main())
