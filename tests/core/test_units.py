import re
from fractions import Fraction

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.builders import IMPERIAL, METRIC
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.quantity import Length, Mass, Volume
from uncle_sled.core.errors import EntryError
from uncle_sled.core.units import FACTORS, Shown, family, feet_inches, name_in_units, parse, plain_number, read_kept, shop_measure, show
from uncle_sled.core.words import Words

SPEED = field_of(Brief, "fastest_kmh")


@pytest.mark.parametrize(
    ("typed", "bare", "metres"),
    [
        ("6' 4 1/2\"", "mm", 1.9431),
        ("6ft 4-1/2", "mm", 1.9431),
        ("6 ft 4 1/2 in", "mm", 1.9431),
        ("6′ 4½″", "mm", 1.9431),
        ("12ft6", "mm", 3.81),
        ("1.95m", "mm", 1.95),
        ("1,95 m", "mm", 1.95),
        ("1950", "mm", 1.95),
        ("1.95", "m", 1.95),
        ("1 m 95 cm", "mm", 1.95),
        ("76.5", "ft-in", 1.9431),
        ("4-1/2", "ft-in", 0.1143),
        ("-3 in", "mm", -0.0762),
        ("−3 in", "mm", -0.0762),
        ('1/2"', "mm", 0.0127),
        ("2 fathom", "mm", 3.6576),
    ],
)
def test_lengths_are_read_as_people_write_them(typed, bare, metres):
    assert parse(typed, "length", bare) == pytest.approx(metres, abs=1e-4 if "fathom" in typed else 1e-12)


@pytest.mark.parametrize(
    ("typed", "dimension", "bare", "si"),
    [
        ("30 gal", "volume", "L", 0.11356235352),
        ("38", "volume", "L", 0.038),
        ("12 lb 4 oz", "mass", "kg", 5.5565065325),
        ("1.2 t", "mass", "kg", 1200.0),
        ("51 psi", "pressure", "kPa", 351632.62),
        ("64 degF", "temperature", "degC", 17.7778),
        ("-4 degF", "temperature", "degC", -20.0),
        ("3070 Btu/h", "power", "W", 899.73),
        ("60 N/mm", "stiffness", "N/mm", 60000.0),
    ],
)
def test_other_dimensions(typed, dimension, bare, si):
    assert parse(typed, dimension, bare) == pytest.approx(si, rel=1e-5)


@pytest.mark.parametrize(
    ("typed", "dimension", "says"),
    [
        ("", "length", "Nothing was typed"),
        ("abc", "length", "cannot be read"),
        ("5 kg", "length", "is a weight"),
        ("1,950", "length", "could be a thousand or a decimal"),
        ("3 1/0 in", "length", "no number"),
        ("4 in 6 ft", "length", "larger unit first"),
        ("5 m 3", "length", "without a unit"),
        ("9e99", "mass", "not a unit"),
        ("99999999 m", "length", "more than any build"),
        ("12 parsnips", "mass", "not a unit of weight"),
    ],
)
def test_what_cannot_be_read_says_what_would_be_right(typed, dimension, says):
    with pytest.raises(EntryError, match=says):
        parse(typed, dimension, "mm" if dimension == "length" else "kg")


def test_the_short_table_agrees_with_pint():
    registry = pint.UnitRegistry()
    base = {"length": "m", "mass": "kg", "volume": "m**3", "pressure": "Pa", "power": "W"}
    spelled = {
        '"': "inch",
        "'": "foot",
        "l": "liter",
        "gal": "gallon",
        "kilo": "kg",
        "kilos": "kg",
        "t": "tonne",
        "btu/h": "Btu/hour",
        "ml": "milliliter",
        "m3": "m**3",
        "pa": "Pa",
        "kpa": "kPa",
        "w": "W",
        "kw": "kW",
        "lbs": "lb",
        "qt": "quart",
        "litre": "liter",
        "litres": "liter",
    }

    for dimension, unit in base.items():
        for name, factor in FACTORS[dimension].items():
            theirs = registry.Quantity(1, spelled.get(name, name)).to(unit).magnitude
            assert float(factor) == pytest.approx(theirs, rel=1e-6), name


@pytest.mark.parametrize(
    ("metres", "shown"),
    [(1.9431, "6' 4 1/2\""), (0.3047, "1'"), (0.0, '0"'), (-0.0095, '−3/8"'), (0.3048 * 2 - 0.0001, "2'"), (0.0254, '1"')],
)
def test_feet_and_inches_carry(metres, shown):
    assert feet_inches(metres) == shown


@given(st.integers(0, 16 * 12 * 40))
def test_shown_feet_and_inches_read_back(sixteenths):
    metres = float(Fraction(sixteenths, 16) * FACTORS["length"]["in"])

    assert parse(feet_inches(metres), "length", "mm") == pytest.approx(metres, abs=1e-12)


@given(st.floats(-50, 50, allow_nan=False), st.sampled_from(["mm", "m", "in", "ft-in"]))
def test_what_is_shown_can_be_typed_again(metres, unit):
    assert parse(show(metres, "length", unit), "length", unit) == pytest.approx(metres, abs=0.0009)


def test_what_was_typed_comes_back_after_a_change_of_units():
    bed = Length.read("6' 4 1/2\"", IMPERIAL)

    assert bed.text(METRIC) == "1943 mm"
    assert bed.text(IMPERIAL) == "6' 4 1/2\""


def test_a_bare_number_keeps_the_unit_it_was_read_in():
    assert Length.read("1950", METRIC).typed == "1950 mm"
    assert Length.read("12", IMPERIAL).typed == '12"'
    assert Mass.read("5", Shown("ft-in", "lb", "gal")).typed == "5 lb"
    assert Volume.read("10", IMPERIAL).si == pytest.approx(0.0378541, rel=1e-5)


@pytest.mark.parametrize(
    ("word", "kind"), [("ft-in", "imperial"), ("6' 2\"", "imperial"), ("12lb", "imperial"), ("1950 mm", "metric"), ("2 L", "metric")]
)
def test_family(word, kind):
    assert family(word) == kind


@pytest.mark.parametrize(
    ("value", "says"), [(12.5, "12.5"), (0.1 + 0.2, "0.3"), (1e10, "10000000000"), (1e-5, "0.000010"), (0.0, "0"), (-2e7, "−20000000")]
)
def test_a_number_in_a_sentence_is_never_in_powers_of_ten(value, says):
    assert plain_number(value) == says


@pytest.mark.parametrize("text", ["101 m", "9" * 400, "1 " * 3000, "2000000 kg", "1 950"])
def test_what_no_build_can_be_is_said_at_the_field(text):
    with pytest.raises(EntryError):
        parse(text, "mass" if "kg" in text else "length", "mm")


def test_rare_units_are_looked_up_once():
    assert parse("1 fathom", "length", "mm") == pytest.approx(1.8288, rel=1e-4)
    with pytest.raises(EntryError, match="is not a unit"):
        parse("1 mumble", "length", "mm")


@pytest.mark.parametrize(
    ("metres", "metric", "inches"),
    [(1.2344, "1234 mm", "4' 5/8\""), (0.0, "0 mm", '0"'), (-0.05, "−50 mm", None), (2.4384, "2438 mm", "8'")],
)
def test_shop_measures_are_whole_millimetres_or_sixteenths(metres, metric, inches):
    assert shop_measure(metres, Shown("m", "kg", "L")) == metric
    if inches is not None:
        assert shop_measure(metres, Shown("ft-in", "lb", "gal")) == inches


@pytest.mark.parametrize("sixteenths", range(-40, 200, 7))
def test_a_shop_measure_in_inches_reads_back_to_the_sixteenth(sixteenths):
    metres = sixteenths / 16 * 0.0254
    said = shop_measure(metres, Shown("in", "lb", "gal"))
    assert Length.read(said.replace("−", "-"), Shown("in", "lb", "gal")).si == pytest.approx(metres, abs=1e-6)


def test_names_of_things_speak_in_the_units_of_the_build():
    imperial = Shown("ft-in", "lb", "gal")
    assert name_in_units("Fresh tank 20 L", imperial) == "Fresh tank 5 gal"
    assert name_in_units("Gas cylinder 2.5 kg", imperial) == "Gas cylinder 6 lb"
    assert name_in_units("Side awning 2 m rolled", imperial) == "Side awning 7 ft rolled"
    assert name_in_units("Battery 100 Ah LFP", imperial) == "Battery 100 Ah LFP"
    assert name_in_units("Fresh tank 20 L", Shown()) == "Fresh tank 20 L"
    foreign = re.compile(r"\d ?(kg|m|mm|cm|L)\b")
    assert not [e.name for e in entries() if foreign.search(name_in_units(e.name, imperial))]


@pytest.mark.parametrize(
    ("typed", "imperial", "kmh"),
    [("100", False, 100.0), ("62", True, 99.78), ("62 mph", False, 99.78), ("90 km/h", True, 90.0), ("", False, None)],
)
def test_speeds_are_read_as_typed(typed, imperial, kmh):
    assert SPEED.read(typed, Shown("in" if imperial else "mm")) == (None if kmh is None else pytest.approx(kmh, abs=0.01))


@pytest.mark.parametrize("typed", ["fast", "3", "900", "-60", "60 knots"])
def test_what_is_no_speed_is_refused_in_words(typed):
    with pytest.raises(EntryError, match="would be right"):
        SPEED.read(typed, Shown())


def test_sheets_keep_their_names_apart_in_inches_and_layers_add_up() -> None:
    """3 and 4 mm are 0.118 and 0.157 in: two names; 3 + 40 + 3 mm are 0.118 + 1.575 + 0.118 = 1.811 in."""
    feet = Words(Shown("ft-in", "lb", "gal"))
    assert (
        feet.material("Birch plywood 3 mm") == 'Birch plywood 1/8" (0.118")'
        and feet.material("Birch plywood 4 mm") == 'Birch plywood 5/32" (0.157")'
    )
    assert feet.material("Birch plywood 12 mm") == 'Birch plywood 1/2" (0.472")' and feet.material("Plywood 12.7 mm") == 'Plywood 1/2"'
    assert [feet.layer(v) for v in (0.003, 0.04, 0.003, 0.046)] == ['0.118"', '1.575"', '0.118"', '1.811"']
    names = [feet.material(f"Ply {k / 10} mm") for k in range(20, 260, 5)]
    assert len(set(names)) == len(names) and Words(Shown()).layer(0.004) == "4 mm"


@pytest.mark.parametrize("text", ["1e400", "-1e400", "1e999999999", "1e-999999999", "9" * 400])
def test_a_number_beyond_any_measure_is_refused_before_it_is_written_out(text):
    for kept in ("", "kg", "%"):
        with pytest.raises(EntryError, match=r"beyond any measure|is not a unit|too long"):
            read_kept(text, kept, Shown())
    assert read_kept("1e3", "", Shown()) == 1000.0
