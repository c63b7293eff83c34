"""Free air behind fridges, hot sides of coolers, noise at heads: each one whole case by hand, what nobody said, what is said of it."""

import math

import msgspec
import pytest

from tests.builders import METRIC, a_body, a_build, a_hole, a_thing
from tests.judging import settled_one
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import Partition
from uncle_sled.core.document.stow import Figures, Mode, Stow
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.systems.air_rows import alarm_words, cooler_words, noise_chart, slots_chart
from uncle_sled.core.drawing.systems.comfort_sheets import comfort_sheets
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.parts.partitions import quieter_db
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.systems.fridge_slots import fridge_slots, heat_w, wanted_cm2
from uncle_sled.core.studies.systems.noise import in_room_db, inside_m2, noise_at_heads, room_constant_m2, together_db
from uncle_sled.core.studies.systems.wall_cooler import wall_coolers
from uncle_sled.core.words import Words
from uncle_sled.exchange.systems_report import air_report

CAMP = (Mode("road", "Road"), Mode("camp", "Camp", towing=False))


def built(things, **shell):
    made = a_build(things, shell=a_body("box", "stick timber", **shell))
    return msgspec.structs.replace(made, stow=Stow(tuple(things), CAMP))


def a_fridge(x=2.0, y=-0.6, watts=45.0, high=0.5, **figures):
    told = Figures(power_w=watts, hours_day=8.0, **figures)
    return a_thing("fr", x=x, y=y, z=0.55, size=(0.4, 0.5, high), name="Fridge", roles=("keeps food cold",), figures=told)


def a_bed(x=3.0):
    return a_thing("bed", x=x, y=0.0, z=0.55, size=(2.0, 1.4, 0.4), name="Bed", kind="bed", roles=("mattress",))


def codes(build):
    return {found.code: found for found in findings(study(build, Facts()))}


def slots_of(build):
    s = study(build, Facts())
    return fridge_slots(s.build, s.framed)


def test_free_air_of_a_fridge_by_hand():
    """45 W take and lift 45 x 2.3 = 103.5 W. Openings 0.5 m apart, 10 K: sqrt(2 x 9.80665 x 0.5 x 10/293) = 0.5785 m/s, times 0.61/sqrt 2:
    0.2495 m/s; each m2 carries 1206 x 10 x 0.2495 = 3009 W; 103.5/3009 m2 = 344 cm2.
    """
    rise = math.sqrt(2 * 9.80665 * 0.5 * 10 / 293)
    assert rise == pytest.approx(0.57854, abs=1e-4)
    by_hand = 103.5 / (1206 * 10 * 0.61 / math.sqrt(2) * rise) * 1e4
    assert by_hand == pytest.approx(344, abs=0.5)
    (slots,) = slots_of(built((a_fridge(slot_cm2=200.0),)))
    assert slots.heat_w == pytest.approx(103.5)
    assert slots.wanted_cm2 == pytest.approx(by_hand)
    assert slots.short
    assert wanted_cm2(103.5, 2.0) == pytest.approx(by_hand / 2)
    gas = msgspec.structs.replace(a_fridge(watts=None, gas_g_h=9.0), burns="gas")
    assert heat_w(gas) == (pytest.approx(9 * 12.87 * 1.2), True)
    texts = [shape.text for shape in slots_chart((slots,), Words(METRIC), 500, 200) if isinstance(shape, Text)]
    assert "200 cm² of 344 cm²" in texts


def test_built_in_is_seen_by_what_shuts_it_in_and_standing_free_is_left_alone():
    free = slots_of(built((a_fridge(),)))
    assert not free[0].built_in
    wall = built(
        (
            a_fridge(y=-0.635),
            a_thing("l", x=1.6, y=-0.6, z=0.55, size=(0.4, 0.5, 0.5)),
            a_thing("r", x=2.4, y=-0.6, z=0.55, size=(0.4, 0.5, 0.5)),
        )
    )
    assert slots_of(wall)[0].built_in
    assert codes(wall)["fridge-air"].severity == "note"
    assert "nobody said" in codes(wall)["fridge-air"].says
    within = built((a_thing("cab", x=1.9, y=0.6, z=0.55, size=(0.6, 0.6, 0.9)), msgspec.structs.replace(a_fridge(y=0.6), inside="cab")))
    assert slots_of(within)[0].built_in
    assert "fridge-air" not in codes(built((a_fridge(),)))
    assert slots_of(built((msgspec.structs.replace(a_fridge(), outside=True),))) == ()


def test_too_little_air_is_cured_by_larger_openings():
    build = built((a_fridge(slot_cm2=200.0),))
    told = settled_one(study(build, Facts()), "fridge-air")
    assert told.severity == "mind"
    after = apply(build, told.remedy.ops)
    assert after.stow.things[0].figures.slot_cm2 == pytest.approx(350.0)
    assert "fridge-air" not in codes(after)


def test_noise_at_a_head_by_hand():
    """A fan of 45 dB at 1 m, its middle 1.5 m from the ear: Lw = 56; inside S m2: R = S/3; L = 56 + 10 lg(1/(4 pi 1.5^2) + 4/R)."""
    bed = a_bed()
    ear = (3.25, 0.0, 0.55 + 0.4 + 0.1)
    fan = a_thing(
        "fan", x=3.25 - 0.2, y=0.0, z=ear[2] + 1.5 - 0.15, size=(0.4, 0.4, 0.3), name="Fan", roles=("airs",),
        figures=Figures(power_w=20.0, hours_day=8.0, when="night", noise_db=45.0),
    )  # fmt: skip
    s = study(built((bed, fan)), Facts())
    heads = {head.end: head for head in noise_at_heads(s)}
    inside = inside_m2(room_of(s.build, s.facts))
    by_hand = 56 + 10 * math.log10(1 / (4 * math.pi * 1.5**2) + 4 / (inside / 3))
    assert heads["front"].heard[0].far_m == pytest.approx(1.5)
    assert heads["front"].db == pytest.approx(by_hand)
    assert heads["rear"].db < heads["front"].db
    assert room_constant_m2(40.0) == pytest.approx(13.333, abs=1e-3)
    assert in_room_db(50.0, 1.5, 13.3333) == pytest.approx(56.27, abs=0.02)
    assert in_room_db(50.0, 1.0, None) == pytest.approx(50.0, abs=0.02)
    assert together_db([30.0, 30.0]) == pytest.approx(33.01, abs=0.01)
    assert together_db([]) is None
    told = codes(s.build)["noise-at-head"]
    assert told.number == pytest.approx(heads["rear"].db - 35.0)
    assert "head to the rear" in told.says


def test_a_wall_inside_takes_off_its_weight_a_door_leaves_some_and_a_doorway_all():
    fan = a_thing("fan", x=1.6, y=0.0, z=1.0, size=(0.4, 0.4, 0.3), roles=("airs",), figures=Figures(power_w=20.0, noise_db=45.0))

    def level(**wall):
        inner = (Partition("p1", "Wall", "across", Length(1.2), Length(0.05), **wall),) if wall else ()
        s = study(built((a_bed(), fan), partitions=inner), Facts())
        return next(head for head in noise_at_heads(s) if head.end == "front")

    bare, walled = level(), level(door="none")
    assert walled.heard[0].through == ("Wall",)
    assert bare.db - walled.db > 3
    assert bare.db - level(door="opening").db == pytest.approx(0.0)
    heavy = {"mass": Mass(300.0), "skin_thickness": Length(0.02)}
    assert bare.db - level(door="none", **heavy).db > 15.5
    assert bare.db - level(door="hinged", door_width=Length(0.5), door_height=Length(1.4), **heavy).db == pytest.approx(15.0)


def test_outside_is_heard_through_the_lightest_face():
    things = (a_bed(), a_thing("g", x=0.2, y=0.0, z=0.6, outside=True, figures=Figures(power_w=10.0, noise_db=70.0, when="night")))
    s = study(built(things), Facts())
    head = next(head for head in noise_at_heads(s) if head.end == "front")
    assert head.heard[0].db is None  # no face is known to weigh anything
    from tests.builders import a_shell

    known = study(msgspec.structs.replace(s.build, shell=a_shell()), Facts())
    heard = noise_at_heads(known)[0].heard[0]
    assert heard.through == ("the body",)
    assert heard.db is not None
    kept = 70.0 - 20 * math.log10(heard.far_m) - heard.db
    assert 0 <= kept <= 25.0
    assert quieter_db(10.0) == pytest.approx(20 * math.log10(5000) - 47)


def test_what_nobody_gave_a_level_of_is_not_checked():
    fan = a_thing("fan", x=2.0, roles=("airs",), name="Fan", figures=Figures(power_w=20.0))
    s = study(built((a_bed(), fan)), Facts())
    heads = noise_at_heads(s)
    assert all(head.db is None and head.unknown == ("Fan",) for head in heads)
    texts = [shape.text for shape in noise_chart(heads, 500, 200) if isinstance(shape, Text)]
    assert "Fan: not checked" in texts
    assert "noise-at-head" not in codes(s.build)
    by_day = msgspec.structs.replace(fan, figures=Figures(power_w=20.0, when="day", noise_db=60.0))
    assert noise_at_heads(study(built((a_bed(), by_day)), Facts())) == ()
    assert noise_at_heads(study(built((fan,)), Facts())) == ()


def test_an_air_conditioner_by_hand_and_where_its_hot_side_blows():
    """1700 W of cooling by 650 W: 2350 W at its hot side; 1700 x 0.3 / 681 = 0.749 L of water an hour, 5 h a day: 3.74 L."""
    figures = Figures(power_w=650.0, cool_w=1700.0, hours_day=5.0)
    cooler = a_thing("ac", x=3.0, y=-0.62, z=0.55, size=(0.6, 0.4, 0.3), name="Cooler", roles=("cools the room",), figures=figures)

    def of(*holes, thing=cooler):
        s = study(built((thing,), openings=holes), Facts())
        return wall_coolers(s.build, s.facts)[0], s

    lone, s = of()
    assert lone.hot == ""
    assert lone.rejects_w == pytest.approx(2350.0)
    assert lone.water_l_h == pytest.approx(0.7489, abs=1e-4)
    assert lone.water_l_day == pytest.approx(3.744, abs=1e-3)
    assert "2350 W" in codes(s.build)["cooler-hot-side"].says
    behind = a_hole("grille", "left side", 1.9, 0.1, 0.4, 0.25, kind="vent")
    near = a_hole("pane", "left side", 1.9, 0.7, 0.5, 0.4)
    blown, s = of(behind)
    assert (blown.hot, blown.hole, blown.back_in) == ("hole", "Grille", ())
    assert "cooler-hot-side" not in codes(s.build)
    back, s = of(behind, near)
    assert back.back_in == ("Pane",)
    assert "cooler-back-in" in codes(s.build)
    assert of(a_hole("far", "right side", 1.9, 0.1, 0.4, 0.25, kind="vent"))[0].hot == ""
    assert of(a_hole("hatch", "roof", 2.0, 0.1, 0.4, 0.4, kind="vent"))[0].hot == ""  # over it, 1.6 m above its box
    roof = msgspec.structs.replace(cooler, roles=("cools the room", "rides on the roof"))
    assert of(thing=roof)[0].hot == "outside"
    blank = msgspec.structs.replace(cooler, figures=Figures(power_w=650.0))
    told = cooler_words((of(thing=blank)[0],), Words(METRIC))
    assert any("not checked" in line for line in told)


def test_paper_report_catalogue_and_words_of_alarms():
    alarm = a_thing("sm", x=3.0, z=0.7, size=(0.1, 0.1, 0.05), name="Smoke alarm", roles=("smoke alarm",))
    s = study(built((a_bed(), a_fridge(slot_cm2=200.0, noise_db=40.0), alarm)), Facts())
    assert any("too low" in line for line in alarm_words(s, Words(METRIC)))
    page = next(page for page in comfort_sheets(s, "Test", "2026-01-01") if page.title.startswith("Air"))
    assert any("200 cm² of 344 cm²" in shape.text for shape in page.shapes if isinstance(shape, Text))
    told = air_report(s)
    assert told["fridges"][0]["wanted_cm2"] == pytest.approx(344, abs=0.5)
    assert {each["end"] for each in told["heads"]} == {"front", "rear"}
    assert told["heads"][0]["db"] > told["heads"][1]["db"]
    assert next(entry for entry in entries() if entry.id == "fan-roof").figures.noise_db == 42.0
    bare = study(apply(s.build, [set_to("stow.things.fr.figures.slot_cm2", None)]), Facts())
    assert slots_chart(fridge_slots(bare.build, bare.framed), Words(METRIC), 500, 200)
