"""What a file holds comes back: every writing of a value, and nonsense that is left out and said."""

import json
import random

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.builders import a_build, a_project, a_tank, a_thing
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Project
from uncle_sled.core.document.quantity import Length, Mass, Quantity, Stiffness, Volume
from uncle_sled.core.errors import EditError, EntryError, FileError
from uncle_sled.core.units import Shown
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.typed_pairs import PairsDisagree, settled

UNITS = {"length": ("mm", "m", "ft-in", "in"), "mass": ("kg", "lb"), "volume": ("L", "gal")}
NUMBERS = ("½", "19½", "1 1/2", "12-3/4", "5-", "1.5", "1,5", ".5", "+3", "−2", "0", "7/16", "¼", " 8 ", "3 ⅜")
UNITED = ("{} mm", "{}m", "{}ft", "{}'", '{}"', "{}in", "6ft {}", "6' {}", "{} kg", "{}lb", "3 lb {}", "{} L", "{} gal", "{}")
_shown = st.builds(Shown, *(st.sampled_from(units) for units in UNITS.values()))
_text = st.builds(lambda words, number: words.format(number), st.sampled_from(UNITED), st.sampled_from(NUMBERS))


@given(st.sampled_from((Length, Mass, Volume, Stiffness)), _text, _shown, _shown)
def test_what_a_field_takes_says_the_same_in_any_unit_and_comes_back(kind, text, typed_in, read_in):
    try:
        value = kind.read(text, typed_in)
    except EntryError:
        return
    assert kind.read(value.typed, read_in).si == pytest.approx(value.si, abs=1e-12)
    if kind is Length:
        project = a_project([msgspec.structs.replace(a_thing(), x=value)])
        assert sled_file.read_bytes(sled_file.to_bytes(project), "x") == project


def spoiled(spoil, project=None):
    raw = json.loads(sled_file.to_bytes(project or a_project([a_thing(), a_tank()])))
    spoil(raw)
    return json.dumps(raw).encode()


def test_a_bare_number_of_an_older_file_is_read_as_its_number_says():
    data = spoiled(lambda r: r["variants"][0]["stow"]["things"][0].update(x={"si": 0.0127, "typed": "½"}))
    opened = sled_file.opened_bytes(data, "x.sled")

    assert opened.project.build.stow.things[0].x == Length(0.0127, '½"')
    assert len(opened.said) == 1 and "stow.things.t1.x" in opened.said[0]
    assert sled_file.opened_bytes(sled_file.to_bytes(opened.project), "x").said == ()


def test_pairs_that_disagree_are_carried_to_whoever_asks():
    def spoil(raw):
        things = raw["variants"][0]["stow"]["things"]
        things[0].update(x={"si": 1.0, "typed": "9 m"}, mass={"si": 4.0, "typed": "mumble"})

    with pytest.raises(PairsDisagree, match="typed “9 m”, that is 9 m, but the number beside it is 1 m") as fault:
        sled_file.read_bytes(spoiled(spoil), "x.sled")
    pairs = fault.value.pairs
    assert [pair.said_si for pair in pairs] == [9.0, None]

    words = settled(fault.value.project, [(pair, "typed") for pair in pairs]).build.stow.things[0]
    assert words.x == Length(9.0, "9 m") and words.mass == Mass(4.0)
    numbers = settled(fault.value.project, [(pair, "number") for pair in pairs]).build.stow.things[0]
    assert numbers.x == Length(1.0) and numbers.mass == Mass(4.0)


def _in_ring(raw):
    things = raw["variants"][0]["stow"]["things"]
    things[0]["inside"], things[1]["inside"] = things[1]["id"], things[0]["id"]


STRAYS = [
    (_in_ring, "the two would stand inside each other"),
    (lambda r: r["variants"][0]["stow"]["things"][0].update(inside="t99"), "there is no such thing"),
    (lambda r: r["variants"][0]["stow"]["modes"][0].update(absent=["t99"]), "modes.road.absent: “t99” was left out"),
    (lambda r: r["variants"][0]["stow"]["modes"][0].update(absent=["t1", "t1"]), "more than once and was kept once"),
    (lambda r: r["variants"][0]["stow"]["modes"][0].update(shut=["door9"]), "there is no such door or hatch"),
    (lambda r: r["variants"][0]["stow"]["modes"][0].update(states=[{"id": "t1", "state": "up"}]), "no such form"),
    (lambda r: r["variants"][0]["brief"].update(sleepers=["p9"]), "there is no such person"),
    (lambda r: r["variants"][0]["brief"].update(vehicles=["v9"]), "there is no such vehicle"),
    (lambda r: r["variants"][0].update(parent="as-drawn"), "it comes from itself"),
    (lambda r: r["variants"][0].update(parent="b9"), "there is no such variant"),
    (lambda r: r.update(name="Bell\u0007 box"), "a sign that cannot be read"),
]


@pytest.mark.parametrize(("spoil", "says"), STRAYS)
def test_what_names_nothing_is_left_out_and_said_once(spoil, says):
    opened = sled_file.opened_bytes(spoiled(spoil), "x.sled")

    assert len(opened.said) == 1 and says in opened.said[0]
    again = sled_file.opened_bytes(sled_file.to_bytes(opened.project), "x.sled")
    assert again == sled_file.Opened(opened.project)


BEYOND = [
    (lambda r: r["variants"][0]["rig"].update(track={"si": 1e12}), "rig.track.si: 1000000000000.0 is greater"),
    (lambda r: r["variants"][0]["rig"].update(track={"si": -1.0}), "rig.track: -1.0 is negative"),
    (lambda r: r["variants"][0]["stow"]["things"][0].update(hold={"rated": {"si": -5}}), "hold.rated"),
    (lambda r: r["variants"][0]["stow"]["things"][0].update(figures={"volts": -12}), "figures.volts"),
    (lambda r: r["variants"][0]["stow"]["modes"].append(dict(r["variants"][0]["stow"]["modes"][0])), "more than once"),
    (lambda r: r["variants"][0]["rig"].update(axles=[{"id": f"a{n}", "station": {"si": 3}} for n in range(13)]), "12 is the most"),
]


@pytest.mark.parametrize(("spoil", "says"), BEYOND)
def test_what_no_build_can_be_is_refused_with_its_place(spoil, says):
    with pytest.raises(FileError) as fault:
        sled_file.read_bytes(spoiled(spoil), "x.sled")
    assert says in str(fault.value)


@pytest.mark.parametrize(
    ("path", "value"),
    [("rig.track", {"si": -1.0}), ("rig.track", {"si": 101.0}), ("rig.tyre.rated_kpa", -3.0), ("rig.gross_total", {"si": float("nan")})],
)
def test_an_edit_lets_in_nothing_that_a_file_would_not(path, value):
    build = a_build()
    with pytest.raises(EditError):
        apply(build, [set_to(path, value)])


@pytest.mark.parametrize(("field", "value"), [("area_mm2", 0.0), ("length", {"si": 0.0, "typed": None})])
def test_a_wire_of_nothing_is_let_in_by_no_edit_as_by_no_file(field, value):
    """A file's 0 is read as not given; an edit's would be saved and come back otherwise."""
    build = demo("rosin-box").build
    wire = build.systems.wires[0]
    with pytest.raises(EditError, match="0 is none"):
        apply(build, [set_to(f"systems.wires.{wire.id}.{field}", value)])
    with pytest.raises(EditError, match="0 is none"):
        apply(build, [set_to(f"systems.wires.{wire.id}", {**msgspec.to_builtins(wire), field: value})])


def test_unknown_keys_stay_wherever_they_stand():
    def spoil(raw):
        raw["variants"][0]["stow"]["modes"][0]["colour"] = "red"
        raw["variants"][0]["stow"]["things"][0]["x"]["doubt"] = 3

    kept = json.loads(sled_file.to_bytes(sled_file.read_bytes(spoiled(spoil), "x")))["variants"][0]["stow"]
    assert kept["modes"][0]["colour"] == "red" and kept["things"][0]["x"]["doubt"] == 3


def _leaves(node, path=()):
    for key, value in node.items() if isinstance(node, dict) else enumerate(node) if isinstance(node, list) else ():
        yield from _leaves(value, (*path, key))
        yield (*path, key)


@pytest.mark.parametrize("seed", range(120))
def test_whatever_the_reader_lets_in_is_written_and_read_the_same(seed):
    read_spoilt(seed)


def read_spoilt(seed):
    """A demo's file with some values put to anything: refused in words, or read, written and read the same. Raises: AssertionError."""
    rng = random.Random(seed)
    raw = json.loads(sled_file.to_bytes(demo(DEMOS[seed % 4])))
    places = list(_leaves(raw))
    odd = (
        None,
        True,
        0,
        -1,
        1,
        "",
        "x",
        "t1",
        [],
        {},
        {"si": 1},
        {"si": -1.0},
        {"si": 3.0, "typed": "1/8"},
        1e308,
        1e-320,
        0.5,
        "a\u0001b",
        "=1",
    )
    for _ in range(rng.choice((1, 1, 2, 4))):
        node = raw
        *way, last = rng.choice(places)
        try:
            for step in way:
                node = node[step]
            node[last] = (
                rng.choice(odd) if rng.random() < 0.7 else node[rng.choice(list(node))] if isinstance(node, dict) else rng.choice(node)
            )
        except (KeyError, IndexError, TypeError):
            continue  # an earlier change took it away
    try:
        opened = sled_file.opened_bytes(json.dumps(raw).encode(), "x.sled")
    except FileError as fault:
        assert "x.sled" in str(fault)
        return
    assert isinstance(opened.project, Project)
    assert sled_file.opened_bytes(sled_file.to_bytes(opened.project), "x") == sled_file.Opened(opened.project)


def test_every_kind_of_value_is_a_quantity_with_limits():
    for kind in (Length, Mass, Volume, Stiffness):
        assert issubclass(kind, Quantity)
        with pytest.raises(msgspec.ValidationError):
            msgspec.convert({"si": 1e300}, kind)


def _with(**changes):
    """The bytes of a demo with changes to its first build, by path."""
    raw = json.loads(sled_file.to_bytes(demo("marsh-heron")))
    for path, value in changes.items():
        node = raw
        *way, last = path.split("__")
        for step in way:
            node = node[int(step)] if step.isdigit() else node[step]
        node[last] = value
    return json.dumps(raw).encode()


def test_a_limit_of_nothing_in_an_older_file_is_read_as_not_given_and_said():
    nothing = {"si": 0.0, "typed": None}
    opened = sled_file.opened_bytes(_with(variants__0__rig__coupler_rating=nothing, facts__vehicles__0__tongue_limit=nothing), "x")

    assert opened.project.build.rig.coupler_rating is None and opened.project.facts.vehicles[0].tongue_limit is None
    assert len([says for says in opened.said if "0 is no limit" in says]) == 2
    again = sled_file.opened_bytes(sled_file.to_bytes(opened.project), "x")
    assert again.said == () and again.project == opened.project


def test_a_limit_below_nothing_is_refused_with_its_place():
    with pytest.raises(FileError, match=r"coupler_rating"):
        sled_file.opened_bytes(_with(variants__0__rig__coupler_rating={"si": -5.0, "typed": None}), "x")


def test_an_older_stove_is_read_as_the_flame_it_is_and_said():
    raw = json.loads(sled_file.to_bytes(demo("marsh-heron")))
    stove = next(t for t in raw["variants"][0]["stow"]["things"] if (t.get("figures") or {}).get("gas_g_h"))
    del stove["burns"]
    opened = sled_file.opened_bytes(json.dumps(raw).encode(), "x")

    assert next(t for t in opened.project.build.stow.things if t.id == stove["id"]).burns == "gas"
    assert any(stove["name"] in says and "gas flame" in says for says in opened.said)
