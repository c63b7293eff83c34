import json
import os
import stat

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builders import a_build, a_project, a_shell, a_tank, a_thing
from uncle_sled.core.document.brief import Person
from uncle_sled.core.document.project import Build, Facts, Project
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.errors import FileError
from uncle_sled.core.units import Shown
from uncle_sled.exchange import sled_file, sled_schema
from uncle_sled.exchange.demos import DEMOS, demo, open_named

_typed = st.one_of(
    st.builds(lambda n: Length.read(f"{n} mm", Shown()), st.integers(0, 9000)),
    st.builds(lambda f, i: Length.read(f"{f}' {i} 1/2\"", Shown()), st.integers(0, 30), st.integers(0, 11)),
    st.builds(Length, st.floats(-9, 9)),
)


# signs that cannot be seen are a space by the time they are in a build
_words = st.text(st.characters(exclude_categories=["Cs", "Cc"], exclude_characters="\ufffe\uffff"), max_size=12)


@settings(max_examples=50)
@given(st.lists(st.tuples(_typed, st.floats(0, 900), _words), max_size=5), _words)
def test_every_project_comes_back_as_it_was(things, name):
    made = tuple(a_thing(f"t{at}", m, name=text, x=0.0) for at, (_, m, text) in enumerate(things))
    import msgspec

    made = tuple(msgspec.structs.replace(t, x=x) for t, (x, _, _) in zip(made, things, strict=True))
    project = Project(name, (a_build(made), Build("b2", "twin", "as-drawn")), "b2", Facts((Person("p1", name, Length(1.8)),)))

    assert sled_file.read_bytes(sled_file.to_bytes(project), "x") == project


@pytest.mark.parametrize("name", DEMOS)
def test_demos_are_written_as_they_would_be_saved(name):
    project = demo(name)

    assert sled_file.read_bytes(sled_file.to_bytes(project), name) == project


def test_the_shipped_schema_is_the_models(tmp_path):
    assert sled_schema.schema() == json.loads(json.dumps(sled_schema.make_schema()))


def _raw(change=None):
    raw = json.loads(sled_file.to_bytes(a_project([a_thing("t1"), a_tank("w1")], shell=a_shell())))
    if change:
        change(raw)
    return json.dumps(raw).encode()


def _build(raw):
    return raw["variants"][0]


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "damaged"),
        (b"{", "damaged"),
        (b'{"format": "uncle-sled",\n "version": oops}', "line 2"),
        (_raw()[:-40], "ends too soon"),
        (b"\xff\xfe\x00", "damaged"),
        (b"[" * 100_000, "damaged"),
        (b'"just words"', "not a build file"),
        (b'{"format": "other"}', "not a build file"),
        (b'{"format": "uncle-sled"}', "no version"),
        (b'{"format": "uncle-sled", "version": true}', "no version"),
        (b'{"format": "uncle-sled", "version": 99}', "newer"),
        (b'{"format": "uncle-sled", "version": 1}', "'name' is a required property"),
        (_raw(lambda r: r.update(name=5)), "name: 5 is not of type"),
        (_raw(lambda r: _build(r)["rig"].update(carrier="sky")), "variants.as-drawn.rig.carrier"),
        (_raw(lambda r: _build(r)["stow"]["things"][0].update(mass={"si": "heavy"})), "stow.things.t1.mass"),
        (_raw(lambda r: _build(r)["stow"]["things"][0]["x"].update(typed="9 m")), "the two of each pair must say the same"),
        (_raw(lambda r: _build(r)["stow"]["things"][0]["x"].update(typed="mumble")), "stow.things.t1.x"),
        (_raw(lambda r: _build(r)["stow"]["things"][0]["mass"].update(si=-4)), "is less than the minimum of 0"),
        (_raw(lambda r: _build(r)["stow"]["things"][1].update(id="t1")), "used more than once"),
        (_raw(lambda r: _build(r)["stow"]["things"][1].update(id="a.b")), "holds a dot"),
        (_raw(lambda r: r.update(open_variant="gone")), "no variant “gone”"),
        (_raw(lambda r: r.update(variants=[])), "at least one"),
        (_raw(lambda r: _build(r)["stow"].update(modes=[])), "at least one is needed"),
        (_raw(lambda r: _build(r)["stow"].update(cases=[{"id": "c", "name": "c", "mode": "sea"}])), "no mode “sea”"),
        (
            _raw(
                lambda r: _build(r)["stow"].update(cases=[{"id": "c", "name": "c", "mode": "road", "levels": [{"id": "w1", "level": 1.3}]}])
            ),
            "greater than the maximum of 1",
        ),
        (_raw().replace(b'"si": 2.0', b'"si": NaN', 1), "damaged"),
        (_raw().replace(b'"si": 2.0', b'"si": 1e999', 1), "damaged"),
    ],
)
def test_hostile_files_are_refused_with_their_place(data, says):
    with pytest.raises(FileError) as fault:
        sled_file.read_bytes(data, "x.sled")

    assert says in str(fault.value)


def test_all_faults_are_told_at_once():
    def spoil(raw):
        raw["name"] = 3
        _build(raw)["rig"]["carrier"] = "sky"
        _build(raw)["stow"]["things"][0]["kind"] = "ghost"

    with pytest.raises(FileError) as fault:
        sled_file.read_bytes(_raw(spoil), "x.sled")

    assert len(fault.value.faults) == 3


def test_keys_of_a_later_day_are_kept():
    def later(raw):
        raw["shimmer"] = {"a": 1}
        _build(raw)["stow"]["things"][0]["glow"] = [1, 2]

    kept = json.loads(sled_file.to_bytes(sled_file.read_bytes(_raw(later), "x")))

    assert kept["shimmer"] == {"a": 1}
    assert _build(kept)["stow"]["things"][0]["glow"] == [1, 2]


def test_saving_keeps_the_last_good_file_beside_it(tmp_path):
    path = tmp_path / "heron.sled"
    sled_file.save(a_project(), path)
    first = path.read_bytes()
    sled_file.save(a_project([a_thing()]), path)

    assert path.with_name("heron.sled.bak").read_bytes() == first
    assert sled_file.read(path).build.stow.things[0].id == "t1"
    assert sorted(p.name for p in tmp_path.iterdir()) == ["heron.sled", "heron.sled.bak"]


def test_a_save_that_fails_leaves_the_old_file(tmp_path, monkeypatch):
    path = tmp_path / "heron.sled"
    sled_file.save(a_project(), path)
    before = path.read_bytes()

    def full(_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)

    with pytest.raises(FileError, match="No space left"):
        sled_file.save(a_project([a_thing()]), path)
    assert path.read_bytes() == before
    assert [p.name for p in tmp_path.iterdir()] == ["heron.sled"]


def test_the_rights_of_the_file_stay(tmp_path):
    path = tmp_path / "heron.sled"
    sled_file.save(a_project(), path)
    path.chmod(0o600)
    sled_file.save(a_project([a_thing()]), path)

    assert stat.S_IMODE(path.stat().st_mode) == 0o600


def test_reading_what_is_no_file(tmp_path):
    with pytest.raises(FileError, match="is a folder"):
        sled_file.read(tmp_path)
    with pytest.raises(FileError, match="There is no file"):
        sled_file.read(tmp_path / "gone.sled")
    with pytest.raises(FileError, match="There is no demo"):
        demo("sea-horse")
    with pytest.raises(FileError):
        sled_file.save(a_project(), tmp_path / "no" / "such" / "x.sled")


def test_a_file_of_a_demos_name_comes_before_the_demo(tmp_path, monkeypatch):
    sled_file.save(a_project(), tmp_path / "marsh-heron")
    monkeypatch.chdir(tmp_path)

    assert open_named("marsh-heron").project.name == "Test sled"
    assert open_named("dark-sky").project.name == "Dark Sky"
    assert Mass(4.0).typed is None
