"""What is given to others: a wheel with all that belongs to it, and it runs where nothing else of this folder is."""

import os
import shutil
import subprocess
import sys
import sysconfig
import venv
import zipfile
from pathlib import Path

import pytest

from uncle_sled import __version__
from uncle_sled.exchange.desktop_entry import ENTRY

ROOT = Path(__file__).parents[1]


@pytest.fixture(scope="module")
def wheel(tmp_path_factory):
    folder, copy = tmp_path_factory.mktemp("wheel"), tmp_path_factory.mktemp("sources")
    for name in ("src", "docs"):  # a build leaves folders beside what it builds, and takes them up the next time
        shutil.copytree(ROOT / name, copy / name, ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    for name in ("pyproject.toml", "README.md", "NOTICES.md"):
        shutil.copy(ROOT / name, copy)
    build = [sys.executable, "-m", "pip", "wheel", str(copy), "--no-deps", "--no-build-isolation", "-q", "-w", str(folder)]
    done = subprocess.run(build, capture_output=True, text=True, cwd=folder, env={**os.environ, "PIP_DISABLE_PIP_VERSION_CHECK": "1"})
    assert done.returncode == 0, done.stdout + done.stderr
    return next(folder.glob("*.whl"))


def test_a_wheel_holds_what_belongs_to_it(wheel) -> None:
    names = set(zipfile.ZipFile(wheel).namelist())
    inside = {name.partition("uncle_sled/")[2] for name in names if name.startswith("uncle_sled/")}
    assert {"py.typed", "__main__.py", "catalogue/things.csv", "demo/marsh-heron.sled", "guide/guide.md", "desk/icon.svg"} <= inside
    assert any(name.endswith("share/man/man1/uncle-sled.1") for name in names)
    assert any(name.endswith("share/applications/uncle-sled.desktop") for name in names)
    assert any(name.endswith("NOTICES.md") for name in names) and any("OFL-plex" in name for name in names)
    assert f"uncle_sled-{__version__}-" in wheel.name and not any("tests/" in name or "benchmarks/" in name for name in names)


def test_a_wheel_runs_in_an_environment_of_its_own(wheel, tmp_path) -> None:
    venv.create(tmp_path / "env", with_pip=False)
    python = tmp_path / "env" / "bin" / "python"
    place = next((tmp_path / "env" / "lib").glob("python*/site-packages"))
    zipfile.ZipFile(wheel).extractall(place)
    (place / "libraries.pth").write_text(sysconfig.get_paths()["purelib"] + "\n")
    env = {key: value for key, value in os.environ.items() if key != "PYTHONPATH"}

    def run(*words):
        return subprocess.run([str(python), "-m", "uncle_sled", *words], capture_output=True, text=True, env=env, cwd=tmp_path)

    assert run("--version").stdout == f"Uncle Sled {__version__}\n"
    assert (
        str(place)
        in subprocess.run(
            [str(python), "-c", "import uncle_sled; print(uncle_sled.__file__)"], capture_output=True, text=True, env=env, cwd=tmp_path
        ).stdout
    )
    told = run("report", "dark-sky")
    assert told.returncode == 0 and "Dark Sky" in told.stdout, told.stderr


def test_the_shipped_menu_entry_is_that_of_the_program() -> None:
    assert (ROOT / "docs" / "uncle-sled.desktop").read_text() == ENTRY.format(program="uncle-sled")
    assert (ROOT / "docs" / "uncle-sled.svg").read_bytes() == (ROOT / "src" / "uncle_sled" / "desk" / "icon.svg").read_bytes()
