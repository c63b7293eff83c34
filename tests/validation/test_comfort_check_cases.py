"""The trade's check cases of water, gas, warmth and what sweats, and closed forms beside them.

Vapour: Magnus and ISO 13788. Boil-off, head and stack: the sums of the notes on gas and water.
"""

import math
from typing import Any

import msgspec
import pytest

from tests.builders import a_body, a_build, a_hole, a_tank, a_thing
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Temperature
from uncle_sled.core.document.shell import Face
from uncle_sled.core.document.shell import Layer as FaceLayer
from uncle_sled.core.document.stow import Figures
from uncle_sled.core.document.systems import Air, Systems, Water
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.studies.systems import gas, glaser, heat, sweat, water
from uncle_sled.core.studies.systems.glaser import Layer


def test_vapour_dew_and_a_single_pane():
    assert sweat.saturation_pa(20) == pytest.approx(2333, abs=1)
    assert sweat.dew_c(0.6 * sweat.saturation_pa(20)) == pytest.approx(12.0, abs=0.05)
    pane = sweat.surface_c(5.6, 0.13, 0.13, 18, 0)
    assert pane == pytest.approx(4.9, abs=0.05) and sweat.saturation_pa(pane) / sweat.saturation_pa(18) == pytest.approx(0.42, abs=0.005)


def test_inside_surfaces_of_roof_and_floor_with_their_own_films():
    assert sweat.surface_c(0.70, heat.film_of("roof"), 0.25, 16, 2) == pytest.approx(13.78, abs=0.005)
    assert sweat.surface_c(0.75, heat.film_of("floor"), 0.25, 16, 2) == pytest.approx(13.52, abs=0.005)


OUT = sweat.vapour_kg_m3(0.85 * sweat.saturation_pa(2), 2)


@pytest.mark.parametrize(("flow", "rh"), [(10, 1.08), (20, 0.72), (30, 0.59)])
def test_humidity_of_two_sleepers_by_air_change(flow, rh):
    assert sweat.rh_at(100, flow, 16, OUT) == pytest.approx(rh, abs=0.006)


def test_dew_point_at_twenty():
    assert sweat.dew_c(sweat.rh_at(100, 20, 16, OUT) * sweat.saturation_pa(16)) == pytest.approx(10.9, abs=0.06)


PLY = 1 / (0.13 + 0.018 / 0.13 + 0.04)


@pytest.mark.parametrize(
    ("u", "local", "behind", "t", "flow", "watts"),
    [
        (5.6, 0.13, 0.0, 5.81, 46, 215),
        (2.8, 0.13, 0.0, 10.90, 20, 93),
        (PLY, 0.13, 0.0, 10.10, 22, 104),
        (0.80, 0.25, 0.0, 13.45, 15, 69),
        (0.80, 0.13, 1.5, 7.70, 32, 149),
    ],
)
def test_what_stops_a_surface_from_sweating_and_its_price(u, local, behind, t, flow, watts):
    surface = sweat.surface_c(u, 0.13, local, 16, 2, behind)
    stops = sweat.flow_against_m3h(100, surface, 16, OUT)

    assert surface == pytest.approx(t, abs=0.006) and stops == pytest.approx(flow, abs=0.55)
    assert 0.335 * stops * 14 == pytest.approx(watts, abs=1.5)
    assert sweat.flow_against_m3h(100, 0.0, 16, OUT) is None  # colder than the dew outside: no air will


def test_inside_a_wall_behind_the_foam():
    ply, xps, birch = (
        Layer("ply", 0.003, 0.003 / 0.13, 0.3),
        Layer("xps", 0.025, 0.025 / 0.033, 3.75),
        Layer("birch", 0.006, 0.006 / 0.12, 0.9),
    )
    inside, outside = 0.70 * sweat.saturation_pa(16), 0.85 * sweat.saturation_pa(-2)
    made = glaser.profile("f", "Wall", (ply, xps, birch), 16, inside, -2, outside, (0.13, 0.04))

    assert made.sd_m[-1] == pytest.approx(4.95)
    behind = next(k for k, sd in enumerate(made.sd_m) if sd == pytest.approx(4.05))
    assert made.t_c[behind] == pytest.approx(-0.44, abs=0.15) and made.saturation_pa[behind] == pytest.approx(592, abs=6)
    straight = inside + (outside - inside) * 4.05 / 4.95
    assert straight == pytest.approx(598, abs=2)
    through = glaser.DELTA * (inside - outside) / 4.95 * 8 * 3600 * 1000
    assert through == pytest.approx(0.96, abs=0.01)
    assert (made.condenses_g_m2 > 0) == (straight > made.saturation_pa[behind])


def test_wool_under_a_metal_skin_and_with_a_vapour_barrier():
    def wall(*inner):
        layers = (*inner, Layer("wool", 0.04, 0.04 / 0.039, 0.06), Layer("aluminium", 0.001, 0.0, 1000.0))
        return glaser.profile("f", "Wall", layers, 16, 0.70 * sweat.saturation_pa(16), -2, 0.85 * sweat.saturation_pa(-2), (0.13, 0.04))

    ply = Layer("ply", 0.003, 0.003 / 0.13, 0.3)
    bare, tight = wall(ply), wall(ply, Layer("barrier", 0.0002, 0.0, 50.0))
    assert bare.t_c[-1] == pytest.approx(-1.41, abs=0.05)
    assert (bare.condenses_g_m2 == pytest.approx(11.5, abs=0.4) and not bare.dries) or bare.dries_g_m2 > 0
    assert tight.condenses_g_m2 == pytest.approx(0.08, abs=0.01)
    with pytest.raises(GeometryError, match="sd"):
        glaser.profile("f", "Air", (Layer("air", 0.01, 0.1, 0.0),), 16, 1000, 0, 500, (0.13, 0.04))


def test_the_string_lies_under_every_point_and_touches_both_ends():
    points = [(0.0, 10.0), (1.0, 12.0), (2.0, 3.0), (3.0, 9.0), (4.0, 2.0)]
    hull = glaser.lower_hull(points)
    assert hull[0] == points[0] and hull[-1] == points[-1] and (2.0, 3.0) in hull and (1.0, 12.0) not in hull


def test_heater_and_warm_up():
    k = 21.0 + 0.335 * 20
    assert k * 23 == pytest.approx(637, abs=1) and k * 23 * heat.IN_HAND == pytest.approx(796, abs=1)
    assert heat.warm_up_h(498_000, k, 1500, 0, 18, -5) == pytest.approx(2.28, abs=0.01)
    assert heat.warm_up_h(498_000, k, 400, 0, 18, -5) is None  # it never gets there


def test_sun_on_faces():
    assert heat.sol_air_k(0.9, False) == pytest.approx(27) and heat.sol_air_k(0.3, False) == pytest.approx(9)
    assert heat.sol_air_k(0.9, True) == pytest.approx(41)


def test_water_of_two_for_three_days():
    build = a_build([a_tank("w1", 100), a_tank("g1", 90, "grey")], systems=Systems(water=Water(showers_day=4 / 3)))
    made = water.water_of(build, 2)
    assert 3 * made.need_l_day == pytest.approx(100) and 3 * made.grey_l_day == pytest.approx(88)
    assert made.days_fresh == pytest.approx(3.0) and made.days_grey == pytest.approx(90 / 88 * 3)


def test_pump_hose_and_hot_water():
    loss, speed = water.hose_kpa_m(5, 0.010)
    assert speed == pytest.approx(1.06, abs=0.005) and loss == pytest.approx(1.87, abs=0.02)
    assert water.hose_kpa_m(5, 0.013)[0] == pytest.approx(0.54, abs=0.01)
    kpa = water.HEAD_KPA_M * 1 + loss * 4 + water.TAP_KPA
    assert kpa == pytest.approx(47, abs=0.5) and kpa * 5 / 60 / 0.4 == pytest.approx(9.9, abs=0.15)
    hot = water.HEAT_WH_LK * 10 * 35 / 1000
    assert hot == pytest.approx(0.407, abs=0.001) and hot / 0.8 / 12.87 * 1000 == pytest.approx(40, abs=0.6)


def test_eleven_kilograms_of_gas():
    heater = a_thing("h1", figures=Figures(gas_g_h=2 / 12.87 * 1000, hours_day=8), burns="gas", name="Heater")
    stove = a_thing("s1", figures=Figures(gas_g_h=1.6 / 12.87 * 1000, hours_day=0.75), burns="gas", name="Stove")
    made = gas.gas_of(a_build([heater, stove, a_tank("c1", 11 / 0.51, "gas")]))
    assert made.kg["gas"] == pytest.approx(11) and made.days["gas"] == pytest.approx(8.2, abs=0.05)
    assert made.open_kw == pytest.approx(3.6) and made.most_kw == pytest.approx(3.6)


@pytest.mark.parametrize(("d", "liquid", "kw"), [(0.30, 0.15, (8.9, 6.9, 5.0, 3.0)), (0.20, 0.10, (3.9, 3.1, 2.2, 1.3))])
def test_boil_off_in_the_cold(d, liquid, kw):
    assert [gas.boil_off_kw(d, liquid, t) for t in (10, 0, -10, -20)] == pytest.approx(kw, abs=0.1)
    assert gas.boil_off_kw(d, liquid, -40) == 0.0


def test_a_fan_wants_its_inlet():
    assert sweat.inlet_pa(150, 100) == pytest.approx(28, abs=0.5)
    build = a_build(systems=Systems(air=Air(fan_m3h=150, inlet_cm2=100)))
    fan = sweat.fan_of(build)
    assert fan.speed_m_s == pytest.approx(4.2, abs=0.05) and fan.wanted_cm2 == pytest.approx(278, abs=1)


FOAM = (FaceLayer("l1", "light-ply", Length(0.006)), FaceLayer("l2", "xps", Length(0.04)), FaceLayer("l3", "light-ply", Length(0.003)))


def a_room(inside=18.0, coldest=-5.0, rh=0.85, vent=20.0, faces=FOAM, **brief):
    kinds: list[Any] = ["floor", "left side", "right side", "roof", "front", "rear"]
    shell = a_body("box", faces=tuple(Face(f"f{k}", kind, kind.capitalize(), layers=faces) for k, kind in enumerate(kinds)))
    people = Facts(people=())
    told = Brief(inside=Temperature(inside), coldest=Temperature(coldest), humidity_out=rh, wet_gear_g_h=100.0, **brief)
    build = a_build(shell=shell, brief=told, systems=Systems(air=Air(vent_m3h=vent)))
    return build, people, framed_of(build, people)


def test_losses_close_face_by_face():
    build, facts, framed = a_room()
    made = heat.losses(build, facts, framed)
    by_path = sum(p.loss_w(23) for p in made.paths)
    assert made.loss_w == pytest.approx(by_path + 0.335 * 20 * 23) and made.heater_w == pytest.approx(1.25 * made.loss_w)
    box = 2 * (4.0 * 2.0 + 4.0 * 2.1 + 2.0 * 2.1)
    assert sum(p.area_m2 for p in made.paths) == pytest.approx(box, rel=0.01)


@pytest.mark.parametrize("coldest", [-15.0, -5.0, 2.0, 8.0])
def test_vapour_closes_and_colder_surfaces_need_more_air(coldest):
    build, facts, framed = a_room(coldest=coldest)
    night = sweat.night_of(build, facts, framed)
    c_in = night.inside_rh * sweat.saturation_pa(18) / (sweat.GAS_J_KGK * 291.15)
    assert (c_in - night.out_kg_m3) * 20 * 1000 == pytest.approx(night.made_g_h)
    flows = [one.vent_m3h for one in night.surfaces if one.vent_m3h is not None]
    assert flows == sorted(flows, reverse=True)
    assert all(one.sweats == (one.t_c < night.dew_c) for one in night.surfaces)


@pytest.mark.parametrize("coldest", [-12.0, -4.0, 3.0])
def test_a_bare_hatch_sweats_and_a_good_wall_does_not(coldest):
    build, facts, _ = a_room(coldest=coldest, vent=15.0)
    shell = build.shell
    shell = msgspec.structs.replace(
        shell,
        openings=(a_hole("h1", "rear", 0.4, 0.4, 1.0, 0.9, kind="hatch"), a_hole("w1", "left side", 1.0, 1.0, 0.6, 0.5, glazing="single")),
    )
    build = msgspec.structs.replace(build, shell=shell)
    night = sweat.night_of(build, facts, framed_of(build, facts))
    by_name = {one.name: one for one in night.surfaces}
    assert by_name["H1"].sweats and by_name["W1"].sweats and by_name["W1"].t_c < by_name["H1"].t_c
    assert not by_name["Left side"].sweats


def test_what_is_not_known_is_said_and_never_counted_as_nothing():
    build, facts, framed = a_room(faces=())
    made, night = heat.losses(build, facts, framed), sweat.night_of(build, facts, framed)
    assert len(made.unknown) == 6 and not made.sure and "layers" in made.unknown[0]
    assert len(night.unknown) == 6 and not night.surfaces
    warm = heat.losses(*a_room(coldest=25.0))
    assert warm.loss_w is None and "warmer" in warm.why[0]
    assert heat.losses(a_build(), Facts(), framed_of(a_build(), Facts())).why
    assert math.isclose(sweat.rh_at(0.0, 20, 18, OUT), OUT * sweat.GAS_J_KGK * 291.15 / sweat.saturation_pa(18))
