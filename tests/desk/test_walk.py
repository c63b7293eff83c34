"""Every bench at every size, theme and set of units: nothing clipped, lapped or pale."""

import os
import subprocess
import sys

import pytest

from tests.desk.walk import hurried_project, walk
from uncle_sled.desk.theme.theme import use_theme


@pytest.mark.parametrize("imperial", [False, True], ids=["metric", "imperial"])
@pytest.mark.parametrize("theme", ["light", "dark"])
@pytest.mark.parametrize("size", [(1280, 800), (1100, 700)], ids=["1280x800", "1100x700"])
def test_walk(open_on, qapp, size, theme, imperial):
    use_theme(qapp, theme)
    try:
        found = walk(open_on(hurried_project(imperial), size=size))
    finally:
        use_theme(qapp, "light")

    assert found == []


def test_walk_at_150_percent():
    env = {**os.environ, "QT_SCALE_FACTOR": "1.5"}
    done = subprocess.run([sys.executable, "-m", "tests.desk.walk"], capture_output=True, text=True, env=env)

    assert done.returncode == 0, done.stdout + done.stderr
