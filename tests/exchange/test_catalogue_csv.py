"""The catalogue as a table: round trip, units in headings, faulty lines by number, nothing lost."""

import pytest

from tests.builders import a_tank, a_thing
from uncle_sled.catalogue.things import entries, matches, placed
from uncle_sled.core.document.catalogue_line import csv_text
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Clear, Figures, State
from uncle_sled.core.errors import FileError
from uncle_sled.exchange.catalogue_csv import read_catalogue


def written(tmp_path, text, name="things.csv"):
    path = tmp_path / name
    path.write_text(text, encoding="utf-8")
    return path


def test_the_shipped_catalogue_is_large_sound_and_comes_back_the_same(tmp_path):
    there = entries()

    assert len(there) >= 150 and len({t.id for t in there}) == len(there)
    assert all(min(t.length.si, t.width.si, t.height.si) > 0 and t.mass.si > 0 and t.source == "estimated" for t in there)
    assert all(t.tank is None or 0 < t.tank.volume.si <= t.length.si * t.width.si * t.height.si for t in there)
    kinds = {t.kind for t in there}
    assert {"tank", "battery", "solar", "charger", "appliance", "bed", "furniture", "cabinet", "gear"} <= kinds
    assert {"vehicle aboard", "outside carrier", "spare wheel"} <= kinds
    assert read_catalogue(written(tmp_path, csv_text(there))).things == there


def test_every_kind_that_runs_on_something_says_on_what():
    for entry in entries():
        f = entry.figures
        if entry.kind == "battery" and entry.id != "battery-box":
            assert f and f.store_wh
        if entry.kind == "solar":
            assert f and f.solar_wp
        if entry.kind == "charger" and entry.id not in ("fuse-board",):
            assert f and f.unit and (f.charge_w or f.power_w or f.unit == "inlet")


def test_search_finds_by_name_kind_and_contents():
    found = [e.id for e in entries() if matches(e, "jug grey 20")]

    assert found == ["grey-jug-20"]
    assert any(matches(e, "fresh water") for e in entries()) and not any(matches(e, "zeppelin") for e in entries())


def test_a_thing_keeps_its_swings_states_and_figures(tmp_path):
    rich = a_thing(
        "own1",
        clear=(Clear("c1", "door", "front", Length(0.45)),),
        states=(State("s1", "folded", Length(0.4), Length(0.1), Length(0.3), None, Length(0.2)),),
        figures=Figures(power_w=60.0, gas_g_h=12.5),
        roles=("seat",),
        places=2,
        arrival=True,
    )
    back = read_catalogue(written(tmp_path, csv_text((rich, a_tank("own2", 25))))).things

    assert back[0].clear == rich.clear and back[0].states == rich.states and back[0].figures == rich.figures
    assert (back[0].roles, back[0].places, back[0].arrival) == (("seat",), 2, True)
    assert back[1].tank.volume.si == pytest.approx(0.025)


def test_headings_carry_the_unit_and_cells_may_say_another(tmp_path):
    path = written(tmp_path, "Name;Length in;Width in;Height in;Mass lb;Colour\nBox;20;10;12;44,1;red\nCrate;0,5 m;10;12;20 kg;-\n")
    read = read_catalogue(path)

    assert read.left_out == ("Colour",) and read.faults == ()
    assert read.things[0].length.si == pytest.approx(0.508) and read.things[0].mass.si == pytest.approx(20.0, abs=0.01)
    assert read.things[1].length.si == pytest.approx(0.5) and read.things[1].mass.si == pytest.approx(20.0)


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("Box,banana,100,100,2,,", "length"),
        ("Box,100,100,-5,2,,", "less than nothing"),
        ("Box,100,100,,2,,", "height: it is empty"),
        (",100,100,100,2,,", "what is it called"),
        ("Box,100,100,100,2,submarine,", "none of tank"),
        ("Box,100000,100,100,2,,", "is the unit right"),
        ("Box,100,100,100,2,,door:roof:3", "door:front:450"),
    ],
)
def test_a_faulty_line_is_told_by_its_number_and_the_others_come_in(tmp_path, line, says):
    head = "name,length_mm,width_mm,height_mm,mass_kg,kind,clear\n"
    read = read_catalogue(written(tmp_path, f"{head}Good,100,100,100,1,,\n{line}\n"))

    assert [t.name for t in read.things] == ["Good"]
    assert [f.line for f in read.faults] == [3] and says in read.faults[0].says


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("name,length_kg,width_mm,height_mm,mass_kg\nBox,1,1,1,1\n", "no unit that fits"),
        ("name,weight\nBox,1\n", "no column for length, width, height, mass"),
        ("", "empty"),
    ],
)
def test_wrong_units_and_columns_are_refused_with_what_would_be_right(tmp_path, text, says):
    with pytest.raises(FileError, match=says):
        read_catalogue(written(tmp_path, text))


def test_ids_that_are_taken_get_new_ones(tmp_path):
    path = written(tmp_path, "id,name,length_mm,width_mm,height_mm,mass_kg\nx,A,1,1,1,1\nx,B,1,1,1,1\na.b,C,1,1,1,1\n")

    assert [t.id for t in read_catalogue(path, ("x",)).things] == ["own1", "own2", "own3"]


def test_a_name_that_looks_like_a_formula_is_only_a_name(tmp_path):
    text = csv_text((a_thing("own1", name="=1+1"), a_thing("own2", name='Say "hi", twice')))

    assert "\n'=" not in text and "'=1+1" in text
    assert read_catalogue(written(tmp_path, text)).things[1].name == 'Say "hi", twice'


def test_a_thing_is_placed_where_it_is_said():
    thing = placed(entries()[0], "t9", 2.0, -0.3, 0.6)

    assert (thing.id, thing.x.si, thing.y.si, thing.z.si) == ("t9", 2.0, -0.3, 0.6)
