"""Every bench at every size, theme and set of units: nothing clipped, lapped or pale."""

import os
import subprocess
import sys

import pytest

from tests.desk.walk import hurried_project, walk
from uncle_sled.desk.theme.theme import use_theme


# each size and theme with each of the units once: colours do not change where words stand
@pytest.mark.parametrize(
    ("size", "theme", "imperial"),
    [((1280, 800), "light", True), ((1280, 800), "dark", False), ((1100, 700), "light", False), ((1100, 700), "dark", True)],
    ids=["1280-light-imperial", "1280-dark-metric", "1100-light-metric", "1100-dark-imperial"],
)
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
