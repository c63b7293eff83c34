"""Frost: the closed form against small steps, one whole case by hand, where water stands, the order of emptying, what is said."""

import math

import msgspec
import pytest

from tests.builders import a_body, a_build, a_tank, a_thing
from uncle_sled.core.document.edits import add_to, apply, set_to
from uncle_sled.core.document.joinery import Cabinet
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import Face
from uncle_sled.core.document.stow import Figures
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.systems.frost_chart import frost_bars
from uncle_sled.core.drawing.systems.frost_words import drain_words, frost_words
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.systems.frost import ICE_J_KG, WATER_J_KGK, freezing, front_share, frost_of
from uncle_sled.core.studies.systems.heat import KINDS
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.export import export_bytes

COLD = {"coldest": {"si": -10.0, "typed": None}, "inside": {"si": 18.0, "typed": None}}


def stepped(mass_kg, skin_w_k, start_c, out_c, over_k, body_h, step_s=2.0):
    """Hours to nought and to ice by many small steps of the heat that goes, water first and ice after."""
    t, water_c, ice_kg, zero = 0.0, start_c, 0.0, None
    while ice_kg < mass_kg and t < 60 * 24 * 3600:
        air = out_c + over_k * (1.0 if body_h is None else math.exp(-t / 3600 / body_h))
        gone = skin_w_k * (water_c - air) * step_s
        if water_c > 0:
            water_c = water_c - gone / (mass_kg * WATER_J_KGK)
            zero = t / 3600 if water_c <= 0 else None
            water_c = max(water_c, 0.0)
        else:
            ice_kg += gone / ICE_J_KG
        t += step_s
    return zero, t / 3600


@pytest.mark.parametrize(
    ("mass_kg", "skin_w_k", "start_c", "out_c", "over_k", "body_h"),
    [
        (20.0, 5.0, 10.0, -10.0, 0.0, None),
        (20.0, 5.0, 18.0, -10.0, 28.0, 4.0),
        (0.3, 0.25, 20.0, -15.0, 28.7, 15.0),
        (0.2, 0.9, 17.0, -3.0, 20.0, 1e-3),
        (40.0, 6.0, 5.0, -12.0, 8.0, None),
    ],
)
def test_the_closed_form_is_what_small_steps_come_to(mass_kg, skin_w_k, start_c, out_c, over_k, body_h) -> None:
    told = freezing(mass_kg, skin_w_k, start_c, out_c, over_k, body_h)
    zero, solid = stepped(mass_kg, skin_w_k, start_c, out_c, over_k, body_h)
    assert told.zero_h == pytest.approx(zero, rel=2e-3, abs=2e-3) and told.solid_h == pytest.approx(solid, rel=2e-3)


def test_by_hand_and_never() -> None:
    # 20 kg x 4186 / 5 W/K = 4.651 h; ln(20/10) of it to nought; 20 x 333.5 kJ / (5 x 10 W) = 37.06 h of ice
    told = freezing(20.0, 5.0, 10.0, -10.0, 0.0, None)
    assert told.zero_h == pytest.approx(4.6511 * math.log(2), rel=1e-4)
    assert told.solid_h == pytest.approx(4.6511 * math.log(2) + 37.0556, rel=1e-4)
    assert freezing(20.0, 5.0, 10.0, 1.0, 0.0, None).zero_h is None, "no frost"
    assert freezing(20.0, 5.0, 10.0, -10.0, 11.0, None).zero_h is None, "heated air over nought"
    assert freezing(20.0, 5.0, 10.0, -10.0, 20.0, 4.6511).zero_h == pytest.approx(
        freezing(20.0, 5.0, 10.0, -10.0, 20.0, 4.652).zero_h, rel=1e-3
    )
    assert front_share(1.0) == pytest.approx((1 / 0.35231) / (1 / 0.35231 + 1.0), rel=1e-4)


def built(*things, **brief):
    faces = tuple(Face(kind.replace(" ", "-"), kind, kind.capitalize(), Mass(20.0), "computed", u_w_m2k=1.0) for kind in KINDS)  # type: ignore[arg-type]
    build = a_build(things, shell=a_body(wall=Length(0.012), faces=faces))
    build = apply(build, [set_to(f"brief.{field}", value) for field, value in {**COLD, **brief}.items()])
    return apply(build, [set_to("rig.track", {"si": 1.6, "typed": None}), set_to("systems.air.vent_m3h", 20.0)])


def of(build):
    return frost_of(study(build, Facts()))


def test_a_whole_case_from_what_is_typed_to_the_shown_hours() -> None:
    """A jug of 20 L outside: 0.4 x 0.4 x 0.3 m, 0.8 m2, films 0.04 and 5 mm of polythene 0.0125: 15.24 W/K, 1.526 h x ln 2."""
    out = a_tank("w1", 20.0, x=1.9, y=0.4, outside=True, name="Jug")
    made = of(built(out))
    (jug,) = made.wets
    assert jug.place == "outside" and jug.skin_w_k == pytest.approx(0.8 / 0.0525, rel=1e-6)
    assert jug.unheated == jug.heated and jug.unheated.zero_h == pytest.approx(20 * 4186 / 15.238 / 3600 * math.log(2), rel=1e-4)
    assert jug.unheated.solid_h - jug.unheated.zero_h == pytest.approx(20 * 333500 / 15.238 / 10 / 3600, rel=1e-4)
    assert jug.own_w == pytest.approx(15.238 * 12, rel=1e-4), "from -10 to 2 degrees"
    assert jug.aside_kg == pytest.approx(20 * 0.4 / 1.6), "what goes over to the right wheels"
    words = Words(study(built(out), Facts()).build.brief.reading.shown())
    shown = [shape.text for shape in frost_bars(made, words, 700, 300) if isinstance(shape, Text)]
    assert "0 °C after 1.1 h, ice after 13 h" in shown and "outside" in shown
    assert any("183 W" in line for line in frost_words(made, words))
    found = {one.code: one for one in findings(study(built(out), Facts()))}
    assert "0 °C after 1 h" in found["tank-freezes"].says


def test_a_cupboard_against_a_cold_wall_freezes_while_the_room_is_warm() -> None:
    """Bare ply 12 mm: U = 1 / (0.13 + 0.0923 + 0.04) = 3.81; share of the room 0.43: 18 inside is 1.9 at -10, 10 inside is -1.4."""
    heater = a_thing("h1", 5.0, x=3.6, z=0.8, roles=("warms the room",), figures=Figures(heat_w=9000.0))
    base = built(heater)
    half = base.shell.width.si / 2
    box = a_thing("c1", 10.0, x=2.0, y=-half + 0.012 + 0.3, z=0.7, size=(0.6, 0.6, 0.8), name="Sink unit", cabinet=Cabinet())
    jug = a_tank("w1", 10.0, x=2.1, y=-half + 0.3, z=0.72, inside="c1", name="Jug")
    thin = [set_to(f"shell.faces.{face.id}.u_w_m2k", 3.81) for face in base.shell.faces]
    build = apply(apply(base, thin), [set_to("stow.things", [msgspec.to_builtins(t) for t in (heater, box, jug)])])
    (wet,) = of(build).wets
    assert wet.place == "cupboard" and wet.wall and wet.share == pytest.approx(front_share(3.81), rel=1e-6)
    assert wet.heated is not None and wet.heated.zero_h is None
    cool = apply(build, [set_to("brief.inside", {"si": 10.0, "typed": None})])
    told = of(cool)
    assert told.wets[0].heated is not None and told.wets[0].heated.zero_h is not None, "the room is at 10 degrees and the jug is not"
    assert told.least_c == pytest.approx(-10 + 12 / wet.share), "room air that keeps two degrees behind the front"
    both = apply(cool, [add_to("stow.things", msgspec.to_builtins(a_tank("w2", 10.0, x=4.0, y=0.0, z=0.9, name="Other")))])
    assert of(both).least_c == pytest.approx(told.least_c), "what stands open asks less"
    open_ = apply(cool, [set_to("stow.things.w1.inside", None)])
    assert of(open_).wets[0].place == "inside" and of(open_).wets[0].heated.zero_h is None


def test_walls_that_nobody_knows_are_not_checked_and_a_heater_without_litres_is_not_silent() -> None:
    jug, warms = a_tank("w1", 20.0, name="Jug"), a_thing("h1", 12.0, name="Boiler", roles=("warms water",))
    build = built(jug, warms)
    bare = apply(build, [set_to("shell.faces", [{**msgspec.to_builtins(f), "layers": [], "u_w_m2k": None} for f in build.shell.faces])])
    made = of(bare)
    by = {wet.id: wet for wet in made.wets if wet.kind != "hose"}
    assert by["w1"].unheated is None and "walls" in by["w1"].why and made.least_sure is False
    assert by["h1"].unheated is None and "not said" in by["h1"].why
    words = Words(bare.brief.reading.shown())
    texts = [shape.text for shape in frost_bars(made, words, 600, 300) if isinstance(shape, Text)]
    assert texts.count("not checked:") == 2
    assert made.first is None


def test_what_is_emptied_first_cannot_be_filled_again_by_what_follows() -> None:
    s = study(demo("orchard-keeper").build, demo("orchard-keeper").facts)
    made = frost_of(s)
    assert [drain.step for drain in made.drains] == ["heater off", "empty fresh", "taps open", "heater", "trap", "empty grey"]
    told = drain_words(s, made)
    assert told[0].startswith("1. Water heater: off") and told[-1].startswith("6. Grey tank")
    first = made.first
    assert first is not None and first.kind == "hose", "the thinnest is the first"
    assert export_bytes("comfort", "Orchard Keeper", s, findings(s)).startswith(b"%PDF")


def test_no_frost_no_water_and_nobody_said_are_three_sentences() -> None:
    jug = a_tank("w1", 20.0)
    assert "not said" in of(apply(built(jug), [set_to("brief.coldest", None)])).why[0]
    warm = of(built(jug, coldest={"si": 4.0, "typed": None}))
    assert "No frost" in warm.why[0] and warm.wets == () and warm.drains == ()
    assert "Nothing aboard holds water" in of(built()).why[0]
    assert frost_bars(of(built()), Words(built().brief.reading.shown()), 600, 300) == ()
    assert of(a_build(())).wets == ()
