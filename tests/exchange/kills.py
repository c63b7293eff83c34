"""A program that is killed while it saves, at moments drawn from a seed: what is on the disk is whole each time.

    python -m tests.exchange.kills [--saves 500] [--autosaves 200] [--seed 5]

A nursery loads the program once and forks a saver for each kill. It ends with 1 on a fault.
"""

from __future__ import annotations

import argparse
import os
import random
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from tests.builders import a_project, a_thing
from uncle_sled.exchange import recovery, sled_file

SIZES = (5, 400)  # things of the two builds that are written in turn: half of one is not the other
LATEST_S = 0.03  # after this a saver has written each of them
ROUNDS = 3000  # a saver that nobody kills ends by itself


def projects():
    return [a_project([a_thing(f"t{k}") for k in range(many)]) for many in SIZES]


def save_on(path: Path) -> None:
    for at in range(ROUNDS):
        sled_file.save(made[at % 2], path)
        wrote(at)


def autosave_on(path: Path) -> None:
    mine = recovery.new_autosave(path, "Heron")
    for at in range(ROUNDS):
        recovery.write_autosave(mine, sled_file.to_bytes(made[at % 2]))
        wrote(at)


def wrote(at: int) -> None:
    if at == 0:
        print("wrote", flush=True)


def nurse() -> None:
    """One saver a line read, until nobody asks any more."""
    for line in sys.stdin:
        what, path = line.rstrip("\n").split(" ", 1)
        child = os.fork()
        if not child:
            print(os.getpid(), flush=True)  # its own number before anything it writes: the nursery may come late
            {"save": save_on, "autosave": autosave_on}[what](Path(path))
            os._exit(0)
        os.waitpid(child, 0)
        print("gone", flush=True)


@contextmanager
def nursery() -> Iterator[subprocess.Popen[str]]:
    with subprocess.Popen([sys.executable, "-m", "tests.exchange.kills", "--nurse"], stdin=-1, stdout=-1, text=True) as nurse:
        yield nurse
        nurse.stdin.close()


def killed(nurse: subprocess.Popen[str], what: str, path: Path, rng: random.Random, at: int) -> bool:
    """Have something saved over and over, and kill whoever does it at some moment; every other time not before it wrote once.

    Gives whether it wrote.
    """
    nurse.stdin.write(f"{what} {path}\n")
    nurse.stdin.flush()
    child = int(nurse.stdout.readline())
    said = [nurse.stdout.readline()] if at % 2 else []
    time.sleep(rng.uniform(0.0, LATEST_S))
    os.kill(child, signal.SIGKILL)
    while "gone\n" not in said:
        said.append(nurse.stdout.readline())
    return said[0] == "wrote\n"


def is_whole(path: Path) -> bool:
    return len(sled_file.read(path).build.stow.things) in (0, *SIZES)


def kill_saves(path: Path, many: int, seed: int) -> int:
    """How many wrote before they were killed; file and backup are read after each. Raises: AssertionError, FileError."""
    rng, wrote = random.Random(seed), 0
    sled_file.save(a_project(), path)
    backup = path.with_name(path.name + ".bak")
    with nursery() as nurse:
        for at in range(many):
            wrote += killed(nurse, "save", path, rng, at)
            assert is_whole(path) and (not backup.exists() or is_whole(backup))
    return wrote


def kill_autosaves(many: int, seed: int) -> tuple[int, int]:
    """How many wrote before they were killed, and how many were offered again, each whole. Raises: AssertionError, FileError."""
    rng, wrote, left = random.Random(seed), 0, 0
    with nursery() as nurse:
        for at in range(many):
            wrote += killed(nurse, "autosave", Path("/nowhere/heron.sled"), rng, at)
            for autosave in recovery.left_behind():
                assert autosave.name == "Heron" and is_whole(autosave.path)
                recovery.drop_autosave(autosave)
                left += 1
    return wrote, left


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--saves", type=int, default=500)
    asked.add_argument("--autosaves", type=int, default=200)
    asked.add_argument("--seed", type=int, default=5)
    wanted = asked.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        os.environ["XDG_STATE_HOME"] = folder
        wrote = kill_saves(Path(folder) / "heron.sled", wanted.saves, wanted.seed)
        print(f"{wanted.saves} kills in saves, {wrote} after the first: file and backup whole each time", flush=True)
        wrote, left = kill_autosaves(wanted.autosaves, wanted.seed)
        print(f"{wanted.autosaves} kills in autosaves, {wrote} after the first: {left} offered again, each whole", flush=True)
    return int(left < wrote)


if __name__ == "__main__":
    if sys.argv[1:] == ["--nurse"]:
        made = projects()
        nurse()
    else:
        raise SystemExit(main())
