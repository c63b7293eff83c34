"""Every bench at every size, theme and set of units: nothing clipped, lapped or pale, and no word in the other units."""

import os
import subprocess
import sys

import pytest

from tests.desk.walk import read_words, silent, walk, with_long_name
from tests.judging import SHARED
from tests.other_units import IMPERIAL, METRIC, names_of, read_in
from uncle_sled.desk.kit.dress import wear
from uncle_sled.exchange.demos import demo


# every demo in units that it is not kept in; the two others with larger letters, below
@pytest.mark.parametrize(
    ("name", "units", "wrong", "size", "theme"),
    [
        ("rosin-box", "metres", IMPERIAL, (1280, 800), "light"),
        ("dark-sky", "millimetres", IMPERIAL, (1280, 800), "dark"),
        ("ferry-bell", "feet", METRIC, (1100, 700), "dark"),
    ],
    ids=lambda one: one if isinstance(one, str) else str(one[0]) if isinstance(one, tuple) else "",
)
def test_walk(open_on, qapp, name, units, wrong, size, theme):
    project = with_long_name(read_in(demo(name), units))
    names, seen, abroad = names_of(project), set(), {}

    nameless = set()

    def read(window, where):
        if units == "metres":  # one walk is enough for what is said aloud
            nameless.update(silent(window))
        read_words(window, wrong, names, seen, abroad, where)

    wear(qapp, theme)
    try:
        window = open_on(project, size=size)
        found = walk(window, lambda where: read(window, where))
        session, build = window.session, project.build
        assert session.project is project  # looking changes nothing
        hands = {
            "Stow": build.stow.things[::4],
            "Shell": (*build.shell.openings[:3], *build.shell.partitions[:1], *build.shell.lofts),
            "Systems": (*build.systems.wires[:2], *build.systems.devices[:2], *build.systems.loads[:2]),
        }
        for stop, some in hands.items():
            session.go_to(stop)
            for one in some:
                session.select((one.id,))
                window.grab()
                read(window, f"{stop}, {one.id} in hand")
    finally:
        wear(qapp, "light")

    assert found == [] and not abroad and len(seen) > 1000 and sorted(nameless) == []


@pytest.mark.parametrize("scale", ["1.5", "2"])
def test_walk_with_larger_letters(scale):
    env = {**os.environ, "QT_SCALE_FACTOR": scale, "JUDGED_BESIDE": str(SHARED[0]) if SHARED else ""}
    done = subprocess.run([sys.executable, "-m", "tests.desk.walk"], capture_output=True, text=True, env=env)

    assert done.returncode == 0, done.stdout + done.stderr
