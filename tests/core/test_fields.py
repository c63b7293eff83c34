"""What a field is stands once, at the field: every one is typed in both families of units and comes back."""

import ast
import csv
import json
import re
from pathlib import Path
from typing import Any, get_origin

import msgspec
import pytest

from tests.builders import a_project, a_thing
from tests.other_units import IMPERIAL, METRIC, foreign
from uncle_sled.core.document.bounds import fields_of
from uncle_sled.core.document.catalogue_line import COLUMNS, csv_text, thing_of
from uncle_sled.core.document.field import About, field_at, field_of
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Figures
from uncle_sled.core.errors import EditError, EntryError
from uncle_sled.core.measures import KEPT, MEASURES, awg_mm2
from uncle_sled.core.tables import table
from uncle_sled.core.units import Shown, in_units, kept_text, read_kept
from uncle_sled.exchange.field_table import field_table, models
from uncle_sled.exchange.sled_schema import make_schema

SRC = Path(__file__).parents[2] / "src" / "uncle_sled"
FEET, INCHES, METRES, MILLIMETRES = (Shown(one, *("kg", "L") if "m" in one else ("lb", "gal")) for one in ("ft-in", "in", "m", "mm"))


def described():
    """Every field that says what it is."""
    for model in models():
        for info in fields_of(model):
            one = field_of(model, info.name)
            if one.described:
                yield one


TYPED = [one for one in described() if one.quantity is not None or (one.kind in (int, float) and not one.choices)]


def test_the_models_describe_most_of_what_they_hold():
    assert len(list(described())) > 400 and len(TYPED) > 250


@pytest.mark.parametrize("shown", [FEET, INCHES, METRES, MILLIMETRES], ids=["feet", "inches", "metres", "millimetres"])
def test_every_field_typed_comes_back(shown):
    """Shown, typed as it is shown, and shown again: the same words, and the same value within what the words say."""
    for one in TYPED:
        low = max(one.least if one.least is not None else 0.0, 0.0)
        for share in (0.011, 0.37, 2.9):
            top = one.most if one.most is not None and one.most < 1e6 else None
            bare = min(low + share * (top or 10.0) / 4, top or 1e6)
            dimension = one.quantity.dimension if one.quantity else ""
            bare *= 400_000 if dimension == "stiffness" else 1
            value = one.quantity(bare) if one.quantity is not None else one.kind(bare)
            words = one.text(value, shown)
            assert foreign(words, METRIC if shown.imperial else IMPERIAL, ()) is None, (one.name, words)
            again = one.read(words, shown)
            assert one.text(again, shown) == words, (one.model, one.name, words)
            if one.quantity is not None:
                assert again.typed and abs(again.si - value.si) <= 0.002 + 0.02 * abs(value.si) + (0.6 if dimension == "temperature" else 0)
            elif not one.is_share:
                assert again == pytest.approx(value, rel=2e-2, abs={"degC": 0.6, "mm": 0.02}.get(one.about.unit, 2e-4)), (one.name, words)


def test_what_a_hand_types_is_held_to_the_field_and_named():
    typed = {
        ("systems.wires.w1.amps", "0"): "Amps: “0” is none",
        ("systems.wires.w1.bundle", "2.5"): "In a bundle of: “2.5” is no whole number",
        ("brief.nights_off", "40"): "Nights off grid: “40” is too much; 1 to 14",
        ("systems.drive_hours", "30"): "Driven a day: “30” is too much; 0 to 24",
        ("brief.humidity_out", "130 %"): "0 % to 100 %",
        ("rig.tyre.rated_kpa", "-3"): "less than nothing",
        ("rig.tyre.rated_kpa", "5 kg"): "here a pressure",
        ("stow.things.t.figures.azimuth_deg", "190"): "-180 to 180",
        ("brief.ground_snow_kpa", "many"): "Ground snow",
        ("rig.gross_total", "0"): "Whole trailer: “0” is none",
        ("work.glue.pot_min", "1,500"): "thousand",
    }
    for (place, text), says in typed.items():
        with pytest.raises(EntryError, match=re.escape(says)) as told:
            field_at(Build, place).read(text, MILLIMETRES)
        assert str(told.value).count(field_at(Build, place).about.title) == 1
    assert field_at(Build, "systems.water.drink_l").read("", FEET) == 6.0  # nothing is its usual value
    assert field_at(Build, "rig.tyre.rated_kpa").read("51 psi", MILLIMETRES) == pytest.approx(351.63, abs=0.01)
    assert field_at(Build, "brief.ground_snow_kpa").read("30", FEET) == pytest.approx(1.4364, abs=1e-4)  # psf
    assert field_at(Build, "systems.wires.w1.area_mm2").read("AWG 10", MILLIMETRES) == pytest.approx(5.26, abs=0.01)
    assert field_at(Build, "systems.wires.w1.area_mm2").text(awg_mm2(-1), FEET) == "AWG 2/0"
    assert field_at(Build, "brief.fastest_kmh").read("60", INCHES) == pytest.approx(96.56, abs=0.01)
    with pytest.raises(EditError):
        field_at(Build, "systems.wires.w1.banana")


def test_thicknesses_of_a_build_in_metres_are_millimetres():
    stick = field_at(Build, "shell.framing.stick.deep")
    assert stick.text(stick.kind(0.045), METRES) == "45 mm" and stick.read("45", METRES).si == 0.045
    long = field_at(Build, "shell.length")
    assert long.text(long.kind(3.05), METRES) == "3.050 m"


def test_marked_figures_of_a_sentence_follow_the_build():
    says = "a trap of {50 mm} and {2.0 × 1.5 m}, {25 m/s}, {1.2 kN}, {8 degC}, {600 ml}, {40 L}, {80 km}"
    assert in_units(says, MILLIMETRES) == "a trap of 50 mm and 2.0 × 1.5 m, 25 m/s, 1.2 kN, 8 °C, 600 ml, 40 L, 80 km"
    told = in_units(says, FEET)
    assert told.endswith("50 mi")
    assert foreign(told, METRIC, ()) is None and "55.9 mph" in told and '1 15/16"' in told and "270 lbf" in told
    assert in_units("no figure, {name}", FEET) == "no figure, {name}"


def test_every_kept_unit_goes_there_and_back():
    for kept, (dimension, factor) in KEPT.items():
        assert factor > 0 and dimension in MEASURES
        if dimension in ("copper", "temperature", "length", "mass", "volume", "moment"):
            continue
        for shown in (FEET, MILLIMETRES):
            assert read_kept(kept_text(7.31, kept, shown), kept, shown) == pytest.approx(7.31, rel=2e-3), kept


def test_no_two_places_describe_one_field():
    """A form's row says of a field only what is the row's own: where it repeats its field, the field is told twice."""
    twice = []
    for file in (SRC / "desk").rglob("*.py"):
        for call in ast.walk(ast.parse(file.read_text())):
            if not (
                isinstance(call, ast.Call)
                and getattr(call.func, "id", "") == "Row"
                and call.args
                and isinstance(call.args[0], ast.Constant)
            ):
                continue
            try:
                about = field_at(Build, call.args[0].value).about
            except EditError:
                continue
            for key in call.keywords:
                if key.arg in ("title", "tip") and isinstance(key.value, ast.Constant) and key.value.value == getattr(about, key.arg):
                    twice.append((file.name, call.args[0].value, key.arg))
    assert twice == []


def test_the_schema_says_what_the_fields_say():
    made = json.dumps(make_schema(), ensure_ascii=False)
    for one in described():
        assert json.dumps(one.about.title, ensure_ascii=False) in made
        if one.about.tip:
            assert json.dumps(in_units(one.about.tip, Shown()), ensure_ascii=False) in made
    assert isinstance(field_of(Figures, "power_w").about, About)


def test_the_catalogue_s_columns_are_the_fields():
    figures = [one.name for one in fields_of(Figures)]
    assert set(figures) <= set(COLUMNS)
    told: dict[str, Any] = {"power_w": 45.0, "azimuth_deg": -30.0, "unit": "panel", "cold_cut": True, "duty": 0.5}
    thing = msgspec.structs.replace(a_thing("t"), figures=Figures(**told))
    (line,) = csv.DictReader(csv_text((thing,)).splitlines())
    bare = {"length": "mm", "width": "mm", "height": "mm", "mass": "kg", "volume": "l"}
    cells = {key.rpartition("_")[0] if key.rpartition("_")[0] in bare else key: cell for key, cell in line.items()}
    assert thing_of(cells, bare).figures == thing.figures
    with pytest.raises(EntryError, match=r"duty.*0 to 1"):
        thing_of({**cells, "duty": "3"}, bare)
    with pytest.raises(EntryError, match="azimuth_deg"):
        thing_of({**cells, "azimuth_deg": "-190"}, bare)


def test_a_hole_in_a_shipped_table_is_told_by_its_line(monkeypatch):
    class Two(msgspec.Struct):
        name: str
        many: float
        of: tuple[str, ...] = ()
        yes: bool = False

    def holds(text):
        monkeypatch.setattr("uncle_sled.core.tables.shipped", lambda name: text.encode())
        return table("x.csv", Two)

    assert holds("name,many,of,yes\na,2,b c,yes\nd,3,,\n") == (Two("a", 2.0, ("b", "c"), True), Two("d", 3.0))
    with pytest.raises(Exception, match=r"x.csv, line 3: .*many"):
        holds("name,many,of,yes\na,2,,\nb,,,\n")


def test_lists_of_plain_things_have_no_field_of_their_own():
    assert get_origin(field_of(Build, "set_aside").kind) is tuple
    assert a_project([]).build is not None


def test_the_page_of_the_file_format_is_printed_from_the_fields():
    page = (SRC.parents[1] / "docs" / "file-format.md").read_text()
    assert page.endswith(field_table())
    assert len(models()) > 60 and "| `wheelbase` | Wheelbase. " in page
