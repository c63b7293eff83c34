"""One application for all desk tests, on an offscreen screen of the size that screens are judged at."""

import gc
import itertools
import json
import os
import tempfile
from pathlib import Path

import hypothesis
import pytest
from PySide6.QtCore import QEvent

from tests import judging
from uncle_sled.core import engine

# a busy machine is no reason to fail: neither a deadline nor a slow start of an example counts
hypothesis.settings.register_profile(
    "unhurried", deadline=None, max_examples=60, suppress_health_check=[hypothesis.HealthCheck.too_slow], print_blob=True
)
hypothesis.settings.load_profile("unhurried")

_screen = Path(tempfile.mkdtemp()) / "screen.json"
_screen.write_text(
    json.dumps(
        {"screens": [{"name": "s1", "x": 0, "y": 0, "width": 1920, "height": 1200, "logicalDpi": 96, "logicalBaseDpi": 96, "dpr": 1}]}
    )
)
os.environ["QT_QPA_PLATFORM"] = f"offscreen:configfile={_screen}"
os.environ.pop("DISPLAY", None)


gc.set_threshold(50_000, 20, 50)  # frozen data makes few circles: looking for them all the time is a twentieth of the tests


engine.ROOM = 4  # one test looks at this build, the next at that, and all come back to the demos


def pytest_collection_modifyitems(items):
    """The longest first: at the end no core waits for one that another began late."""
    items.sort(key=lambda item: not any(name in item.nodeid for name in ("test_walk", "test_house", "test_bad_days")))


@pytest.fixture(autouse=True, scope="session")
def faults_are_raised():
    """A check that fails is no finding in tests: the fault itself is wanted."""
    from uncle_sled.core.findings import faulted

    faulted.STRICT = True


@pytest.fixture(scope="session")
def qapp():
    from uncle_sled.desk.app import application
    from uncle_sled.desk.kit import painting

    painting.STRICT = True
    return application()


@pytest.fixture(autouse=True, scope="session")
def shared_folder(tmp_path_factory):
    """What the processes of one run share of what they worked out."""
    base = tmp_path_factory.getbasetemp()
    judging.SHARED[:] = [base.parent if "PYTEST_XDIST_WORKER" in os.environ else base]


@pytest.fixture(autouse=True)
def kept_on(request, monkeypatch):
    """What is known of the demos stays known from test to test; whoever looks at memory lets go of it as the desk does."""
    if "lets_go" not in request.keywords:
        monkeypatch.setattr("uncle_sled.desk.session.forget", lambda: None, raising=False)


@pytest.fixture
def open_on(qapp, qtbot):
    """Opens a window on a project, with remedies worked out in this process; closes it afterwards."""
    from uncle_sled.desk.app import open_window

    opened = []

    def make(project, path=None, size=(1280, 800), judged=True, worker=None):
        window = open_window(project, path, worker)
        window.resize(*size)
        window.show()
        qtbot.waitExposed(window)
        window.session.judge_now()
        if judged:
            window.session.judge(judging.judged_once(window.session.studied))
        qapp.processEvents()
        opened.append(window)
        return window

    yield make
    qapp.processEvents()  # what was put off for a moment happens while its window is there
    for window in opened:
        window.session.history = window.session.history.was_saved()
        window.close()
        window.deleteLater()
    # what is to be deleted goes now: hundreds of windows kept would be styled anew with every theme
    qapp.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    qapp.processEvents()


@pytest.fixture
def worker(qapp):
    """The helper process, ended with the test."""
    from uncle_sled.desk.worker import Worker

    made = Worker()
    yield made
    made.stop()


_homes = itertools.count()


@pytest.fixture(autouse=True)
def own_folders(tmp_path_factory, monkeypatch):
    """Settings and autosaves of a test stay in its own folders."""
    home = tmp_path_factory.getbasetemp() / f"home-{next(_homes)}"  # not numbered by looking through all that are there
    home.mkdir()
    for name in ("CONFIG", "STATE", "DATA", "CACHE"):
        monkeypatch.setenv(f"XDG_{name}_HOME", str(home / name.lower()))
