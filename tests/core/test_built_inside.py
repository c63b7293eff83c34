"""Lids on the body's curve, what carries people, what is in the way of what, changing over, figures; findings with their cures."""

from __future__ import annotations

import math

import msgspec
import numpy as np
import pytest

from tests.builders import a_body, a_build, a_hole, a_rig, a_thing
from tests.judging import settled_one
from uncle_sled.core.document.becoming import into_a_bed, into_boards
from uncle_sled.core.document.edits import add_to, apply, set_to
from uncle_sled.core.document.joinery import Bay, BedBase, Cabinet, Lid, PullOut, Strut, Winch
from uncle_sled.core.document.placing import place_ops, state_ops
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.roles import FIGURES_DRAWN as NAMES
from uncle_sled.core.document.shell import Leaf, Loft, Section
from uncle_sled.core.document.stow import Clear, State, Tank, TankPoint
from uncle_sled.core.drawing.pencil_figures import FIGURES, figure
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.stow.bed_drawn import bed_drawn
from uncle_sled.core.drawing.stow.cabinet_drawn import cabinet_drawn, piece_lines
from uncle_sled.core.drawing.stow.lid_drawn import hand_chart, lid_drawn
from uncle_sled.core.drawing.stow.reach_plan import reach_plan
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.figure_of import figure_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.stow.at_hand import passing
from uncle_sled.core.studies.stow.beds import beds_in
from uncle_sled.core.studies.stow.cabinets_in_place import blocked_drawers
from uncle_sled.core.studies.stow.carries import carries, sleepers_kg
from uncle_sled.core.studies.stow.conversions import conversion
from uncle_sled.core.studies.stow.hinged import hinged
from uncle_sled.core.studies.stow.reach import COOK_M, accesses, bays_hold, cook, fits_in, litres_by_reach
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo

WORDS = Words(Shown())


def studied(name, *ops):
    project = demo(name)
    return study(apply(project.build, list(ops)), project.facts)


def codes(s):
    return {one.code for one in findings(s)}


def settled_by(s, code):
    """The build after the first remedy of a finding."""
    one = settled_one(s, code)
    assert one.remedy is not None, one.why_none
    return study(apply(s.build, one.remedy.ops), s.facts)


def a_home(*things, **shell):
    return a_build(things, a_rig(), a_body(**shell))


def checks(build, facts=None):
    return {one.id: one for one in carries(study(build, facts or Facts()))}


# lids
def test_a_tail_hatch_follows_the_curve_and_its_remedy_holds_it() -> None:
    s = studied("marsh-heron")
    (one,) = hinged(s)
    hatch = next(o for o in s.build.shell.openings if o.id == one.id)
    assert one.turning.mass_kg == pytest.approx(hatch.mass.si) and one.turning.opens_deg == 130
    assert one.outline[0] == (0.0, 0.0) and one.outline[-1][1] < -0.8  # it hangs down, shut
    assert one.turning.hand_m == pytest.approx(math.hypot(*one.outline[-1]))
    assert one.turning.r_m == pytest.approx(one.turning.hand_m / 2, rel=0.03)
    assert "hatch-falls" in codes(s)
    cured = settled_by(s, "hatch-falls")
    assert "hatch-falls" not in codes(cured) and hinged(cured)[0].verdict.good
    bare = studied("marsh-heron", set_to(f"shell.openings.{one.id}.strut", None))
    assert hinged(bare)[0].why == "no struts are said" and "strut-unsaid" in codes(bare)
    assert "strut-unsaid" not in codes(settled_by(bare, "strut-unsaid"))


def test_cladding_added_later_makes_it_heavier_by_as_much() -> None:
    s = studied("marsh-heron")
    id = hinged(s)[0].id
    stick = Section(Length(0.045), Length(0.021))
    leaf = msgspec.to_builtins(Leaf(stick))
    plain = studied("marsh-heron", set_to(f"shell.openings.{id}.mass", None), set_to(f"shell.openings.{id}.leaf", leaf))
    clad = study(apply(plain.build, [set_to(f"shell.openings.{id}.leaf.hangs_on", {"si": 2.5})]), plain.facts)
    a, b = hinged(plain)[0], hinged(clad)[0]
    assert b.turning.mass_kg - a.turning.mass_kg == pytest.approx(2.5) and (a.added_kg, b.added_kg) == (0.0, 2.5)
    assert b.verdict.hold_share < a.verdict.hold_share
    falls = [one for one in findings(clad) if one.code == "hatch-falls"]
    if falls:
        assert "2.5 kg of it were fixed to it" in falls[0].says or "2 kg" in falls[0].says


def test_strut_findings_say_what_is_wrong() -> None:
    s = studied("marsh-heron")
    path = f"shell.openings.{hinged(s)[0].id}.strut"
    wrong = studied("marsh-heron", set_to(f"{path}.open", {"si": 0.2}))
    assert "strut-wrong" in codes(wrong) and "longer open than shut" in hinged(wrong)[0].why
    assert "strut-wrong" not in codes(settled_by(wrong, "strut-wrong"))
    alone = studied("marsh-heron", set_to(f"{path}.many", 1))
    assert "strut-alone" in codes(alone)
    assert "strut-alone" not in codes(study(apply(alone.build, [set_to(f"{path}.second", "prop")]), alone.facts))
    short = studied("marsh-heron", set_to(path, msgspec.to_builtins(Strut(Length(0.240), Length(0.385), Length(0.145), 300.0))))
    one = hinged(short)[0]
    assert one.verdict is not None and not one.verdict.fits and "strut-wrong" in codes(short)


def test_a_bench_lid_turns_level_and_weighs_its_board() -> None:
    bench = a_thing(
        "b1",
        20.0,
        2.0,
        0.0,
        0.62,
        (1.2, 0.5, 0.45),
        kind="furniture",
        roles=("seat",),
        source="computed",
        cabinet=Cabinet("left", top="lid", bays=(Bay("a"),)),
        lid=Lid("right", 80),
    )
    s = study(a_home(bench), Facts())
    one = next(h for h in hinged(s) if h.id == "b1")
    lid = next(b for b in cabinets_of(s.build, s.facts)["b1"].boards if b.id == "lid")
    assert one.turning.mass_kg == pytest.approx(lid.shape.area * 0.012 * 540) and one.turning.shut_deg == 0.0
    assert one.turning.hand_m == pytest.approx(0.5) and one.turning.r_m == pytest.approx(0.25)
    heavy = msgspec.structs.replace(bench, lid=Lid("right", 80, Mass(9.0)))
    assert "strut-unsaid" in codes(study(a_home(heavy), Facts()))
    unknown = msgspec.structs.replace(bench, cabinet=None)
    assert "not known" in next(h for h in hinged(study(a_home(unknown), Facts())) if h.id == "b1").why


def test_a_hatch_in_a_flat_side_hangs_straight_down() -> None:
    hole = a_hole("h", "left side", 1.0, 0.7, 0.9, 0.6, kind="hatch", hung="top", mass=Mass(8.0))
    s = study(a_home(openings=(hole,)), Facts())
    (one,) = hinged(s)
    assert one.turning.shut_deg == pytest.approx(-90.0) and one.turning.r_m == pytest.approx(0.3)
    assert one.turning.mass_kg == pytest.approx(8.0)


# carrying
def test_beds_say_what_carries_and_what_is_not_known() -> None:
    bed = a_thing("b", 20.0, 2.0, 0.0, 0.9, (1.9, 1.2, 0.1), kind="bed", name="Bunk")
    assert checks(a_home(bed))["b/base"].face == "not checked"
    thin = msgspec.structs.replace(bed, base=BedBase("board", thick=Length(0.012), span=Length(0.6)))
    got = checks(a_home(thin))
    assert got["b/base"].use == pytest.approx(1200 * 0.6 / 4 / (0.3 * 0.012**2 / 6) / 15e6)
    assert got["b/bearer"].face == "not checked" and "not said" in got["b/bearer"].why
    s = study(a_home(thin), Facts())
    assert "bed-weak" in codes(s)
    cured = settled_by(s, "bed-weak")
    assert "bed-weak" not in codes(cured)
    none = msgspec.structs.replace(thin, base=msgspec.structs.replace(thin.base, bearers=0))
    assert "without bearers" in checks(a_home(none))["b/bearer"].why


def test_slats_share_only_where_they_lie_close_and_tied() -> None:
    base = BedBase("slats", thick=Length(0.02), slat=Length(0.07), gap=Length(0.06), span=Length(0.65))
    bed = a_thing("b", 20.0, 2.0, 0.0, 0.9, (1.9, 1.2, 0.1), kind="bed", base=base)

    def stress(**changes):
        return checks(a_home(msgspec.structs.replace(bed, base=msgspec.structs.replace(base, **changes))))["b/base"].value

    assert stress() == pytest.approx(41.8e6 / 2, rel=2e-3)
    assert stress(gap=Length(0.08)) == pytest.approx(41.8e6, rel=2e-3) == stress(tied=False)


def test_bearers_carry_those_who_sleep() -> None:
    project = demo("marsh-heron")
    kg, many, known = sleepers_kg(study(project.build, project.facts))
    assert many == 2 and known and kg == pytest.approx(sum(p.mass.si for p in project.facts.people))
    nobody, none, _ = sleepers_kg(study(a_home(), Facts()))
    assert (nobody, none) == (0.0, 0)


def test_a_lifting_bed_by_hand_and_its_findings() -> None:
    winch = Winch(1, 3, rope_n=4000.0, pin_n=2000.0, brake=True)
    bed = a_thing("b", 75.0, 2.0, 0.0, 1.6, (1.9, 1.3, 0.2), kind="bed", winch=winch)
    got = checks(a_home(bed))
    assert got["b/crank"].value == pytest.approx(53, abs=0.5) and got["b/rope"].value == pytest.approx(5 * 1009, rel=2e-3)
    assert got["b/rope"].use > 1 and "lift-weak" in codes(study(a_home(bed), Facts()))
    strong = msgspec.structs.replace(bed, winch=msgspec.structs.replace(winch, rope_n=6000.0))
    assert not {"lift-weak", "lift-no-brake"} & codes(study(a_home(strong), Facts()))
    free = msgspec.structs.replace(strong, winch=msgspec.structs.replace(winch, rope_n=6000.0, brake=False))
    assert "lift-no-brake" in codes(study(a_home(free), Facts()))
    none = msgspec.structs.replace(bed, winch=msgspec.structs.replace(winch, parts=0))
    assert "no part of rope" in checks(a_home(none))["b/winch"].why
    unrated = checks(a_home(msgspec.structs.replace(bed, winch=Winch(1, 3))))
    assert unrated["b/rope"].use is None and unrated["b/pins"].use is None  # unknown is not good


def test_a_pull_out_tips_what_it_stands_in_until_it_is_screwed() -> None:
    """38 kg out 0.60 of 0.60: 231.8 N m with a hand; 30 kg, 0.60 deep, hold 88.3: tips."""
    box = a_thing("c", 30.0, 2.0, 0.0, 0.62, (0.6, 0.7, 0.6), kind="cabinet", name="Carcass")
    tray = a_thing(
        "t",
        38.0,
        2.0,
        0.0,
        0.65,
        (0.6, 0.5, 0.3),
        name="Tray",
        inside="c",
        pull_out=PullOut(Length(0.6), "rear", Mass(45.0), latch_n=400.0),
    )
    got = checks(a_home(box, tray))
    assert got["t/tips"].value == pytest.approx(231.8, abs=0.1) and got["t/tips"].limit == pytest.approx(30 * 9.80665 * 0.3)
    assert got["t/slides"].use == pytest.approx(38 / 45) and got["t/latch"].value == pytest.approx(373, abs=0.5)
    s = study(a_home(box, tray), Facts())
    assert "pull-out-tips" in codes(s)
    cured = settled_by(s, "pull-out-tips")
    assert "pull-out-tips" not in codes(cured) and checks(cured.build)["t/screws"].value == pytest.approx(515, abs=0.5)
    weak = msgspec.structs.replace(tray, pull_out=msgspec.structs.replace(tray.pull_out, rated=Mass(30.0)))
    assert "pull-out-weak" in codes(study(a_home(box, weak), Facts()))
    far = msgspec.structs.replace(tray, pull_out=PullOut(Length(0.9)))
    assert "no longer than it" in checks(a_home(box, far))["t/slides"].why
    alone = msgspec.structs.replace(tray, inside=None)
    assert "not said" in checks(a_home(box, alone))["t/tips"].why


def test_a_rung_is_screened_with_its_loft() -> None:
    from uncle_sled.core.studies.shell.screening import screening

    loft = Loft("loft", "Loft", Length(0.2), Length(2.2), Length(2.0), Length(0.15), climb="ladder")
    lofted = add_to("shell.lofts", msgspec.to_builtins(loft))
    s = studied("orchard-keeper", lofted)
    found = {one.id: one for one in screening(s)}
    assert found[f"rung/{loft.id}"].face == "not checked"
    thin = {"thick": {"si": 0.018}, "deep": {"si": 0.045}}
    weak = studied("orchard-keeper", lofted, set_to(f"shell.lofts.{loft.id}.rung", thin))
    one = {c.id: c for c in screening(weak)}[f"rung/{loft.id}"]
    assert one.value == pytest.approx(890 * 0.305 / 4 / (0.045 * 0.018**2 / 6)) and "rung-weak" in codes(weak)


# reach
def test_what_stands_before_and_on_top_is_moved_first() -> None:
    door = a_hole("d", "left side", 1.0, 0.2, 0.8, 1.6, kind="door")
    near = a_thing("near", 10.0, 2.3, -0.6, 0.62, (0.5, 0.3, 0.6))
    behind = a_thing("behind", 10.0, 2.3, -0.25, 0.62, (0.5, 0.3, 0.5))
    top = a_thing("top", 10.0, 2.3, -0.25, 1.12, (0.5, 0.3, 0.2))
    build = a_home(near, behind, openings=(door,))
    camp = next(m for m in build.stow.modes if not m.towing)
    got = {one.id: one for one in accesses(build, Facts(), camp)}
    assert got["near"].how == "at once" and got["near"].first == ()
    lidded = msgspec.structs.replace(behind, clear=(Clear("c", "lid", "top", Length(0.3)),))
    got = {one.id: one for one in accesses(a_home(near, lidded, top, openings=(door,)), Facts(), camp)}
    assert "top" in got["behind"].first and got["behind"].how == "after moving"
    shut = a_home(near, behind)  # no door is drawn at all
    assert {one.how for one in accesses(shut, Facts(), camp)} == {"out of reach"}
    outside = a_home(msgspec.structs.replace(near, outside=True))
    assert accesses(outside, Facts(), camp)[0].how == "outside"


@pytest.mark.parametrize("name", list(DEMOS))
def test_every_thing_of_a_demo_is_got_at_somehow_and_litres_add_up(name) -> None:
    project = demo(name)
    for mode in project.build.stow.modes:
        got = accesses(project.build, project.facts, mode)
        ids = {t.id for t in project.build.stow.things}
        assert {one.id for one in got} <= ids and all(set(one.first) <= ids - {one.id} for one in got)
        assert all((one.how == "after moving") == bool(one.first) for one in got)
        litres = litres_by_reach(project.build, project.facts, mode)
        kit = [t for t in project.build.stow.things if t.kind in ("kit", "gear") and t.id in {o.id for o in got}]
        assert sum(litres.values()) == pytest.approx(sum(t.length.si * t.width.si * t.height.si for t in kit) * 1000)
        stands = cook(project.build, project.facts, mode)
        assert stands.stands is not None or stands.why
        assert all(one.good == (one.far_m <= COOK_M + 1e-6) for one in stands.things)


def test_a_jug_moved_beside_the_cook_is_no_longer_spoken_of() -> None:
    s = studied("marsh-heron")
    assert "cook-steps" in codes(s)
    near = study(apply(s.build, [set_to("stow.things.t1.x", {"si": 3.6}), set_to("stow.things.t1.y", {"si": 0.0})]), s.facts)
    assert "cook-steps" not in codes(near)


def test_boxes_that_fit_a_bay_by_hand() -> None:
    assert fits_in((0.4, 0.3, 0.22), (0.85, 0.62, 0.45)) == 2 * 2 * 2
    assert fits_in((0.4, 0.3, 0.22), (0.35, 0.41, 0.22)) == 1 and fits_in((0.4, 0.3, 0.22), (0.39, 0.39, 1.0)) == 0
    thing = a_thing("c", 20.0, 2.0, 0.0, 0.62, (0.5, 1.024, 0.8), kind="cabinet", cabinet=Cabinet("rear", bays=(Bay("a", shelves=1),)))
    (one,) = bays_hold(a_home(thing), Facts())
    assert one.many == 2 and one.size_m == pytest.approx((1.0, 0.484, (0.776 - 0.012) / 2))
    assert dict(one.boxes)["crate"] == 3 and "deep crate" in dict(one.boxes)


def test_a_drawer_that_hits_the_bed_is_found_and_only_then() -> None:
    drawers = a_thing(
        "c", 20.0, 2.0, 0.6, 0.62, (0.8, 0.5, 0.7), kind="cabinet", name="Chest", cabinet=Cabinet("left", bays=(Bay("a", "drawers"),))
    )
    bed = a_thing("b", 20.0, 2.0, 0.1, 0.62, (1.9, 0.3, 0.4), kind="bed", name="Bed")
    build = a_home(drawers, bed)
    camp = next(m for m in build.stow.modes if not m.towing)
    (one,) = blocked_drawers(build, Facts(), camp)
    assert one.travel_m == pytest.approx(0.45) and one.free_m == pytest.approx(0.1) and one.by == "b"
    assert "drawer-hits" in codes(study(build, Facts()))
    free = a_home(drawers, msgspec.structs.replace(bed, y=Length(-0.7)))
    assert not blocked_drawers(free, Facts(), camp) and "drawer-hits" not in codes(study(free, Facts()))


# changing over
def test_changing_over_says_overlap_order_and_time() -> None:
    bench = a_thing("bench", 20.0, 2.0, -0.6, 0.62, (1.9, 0.5, 0.45), kind="furniture", name="Bench", roles=("seat",))
    crate = a_thing("crate", 8.0, 2.5, -0.1, 0.62, (0.4, 0.3, 0.3), name="Crate")
    build = a_home(bench, crate)
    camp = next(m for m in build.stow.modes if not m.towing)
    state = State("wide", "made up", Length(1.9), Length(1.3), Length(0.45), dy=Length(0.4), minutes=4, hands=2, bed=True)
    build = apply(build, [add_to("stow.things.bench.states", msgspec.to_builtins(state)), *state_ops(camp, bench, "wide")])
    road, camp = build.stow.modes[0], next(m for m in build.stow.modes if not m.towing)
    made = conversion(build, road, camp)
    (one,) = made.changes
    assert one.state == "made up" and one.first == ("crate",) == one.blocked and made.minutes == 4 and made.hands == 2
    assert one.overlap == pytest.approx(1.0)  # the bench as it was lies within it
    away = apply(build, place_ops(build, camp, crate, (3.6, 0.8, 0.62)))
    camp = next(m for m in away.stow.modes if not m.towing)
    made = conversion(away, away.stow.modes[0], camp)
    assert [c.id for c in made.changes] == ["crate", "bench"] and not any(c.blocked for c in made.changes)
    assert made.minutes == 5
    unsaid = apply(away, [set_to("stow.things.bench.states.wide.minutes", None)])
    made = conversion(unsaid, unsaid.stow.modes[0], next(m for m in unsaid.stow.modes if not m.towing))
    assert made.minutes is None and made.unsaid == 1


def test_a_bench_turned_into_a_bed_is_slept_on_where_one_camps() -> None:
    bench = a_thing("bench", 20.0, 2.0, 0.0, 0.62, (1.6, 0.5, 0.45), kind="furniture", name="Bench")
    build = a_home(bench)
    build = apply(build, into_a_bed(build, bench))
    road, camp = build.stow.modes[0], next(m for m in build.stow.modes if not m.towing)
    assert beds_in(build, Facts(), road) == ()
    (bed,) = beds_in(build, Facts(), camp)
    assert bed.id == "bench" and (bed.long_m, bed.wide_m) == pytest.approx((1.95, 0.65))


def test_a_leaning_tank_passes_by_its_true_shape() -> None:
    """A slab standing on edge, drawn as a slanting outline in a square box: its least box is what must pass."""
    points = tuple(TankPoint(u, v) for u, v in ((0.0, 0.0), (0.2, 0.0), (1.0, 0.8), (1.0, 1.0), (0.8, 1.0), (0.0, 0.2)))
    slab = a_thing("w", 6.0, 2.0, 0.0, 0.62, (0.8, 0.9, 0.8), kind="tank", cargo=True, tank=Tank(None, "fresh", "outline", outline=points))
    door = a_hole("d", "left side", 1.0, 0.2, 0.5, 0.95, kind="door")
    build = a_home(slab, openings=(door,))
    (one,) = passing(build, Facts())
    square = (one.need_m[0] - 0.2 * 0.8 * math.sqrt(2)) / one.need_m[0]
    assert one.good and one.need_m[0] < 0.4 and abs(square) < 0.35
    plain = apply(build, [set_to("stow.things.w.tank.shape", "box")])
    assert not passing(plain, Facts())[0].good


# figures
@pytest.mark.parametrize("what", NAMES)
@pytest.mark.parametrize("view", ["side", "plan", "rear"])
def test_every_figure_stays_in_its_box_and_differs_from_the_next(what, view) -> None:
    for wide, high in ((0.6, 0.4), (0.3, 0.9), (1.9, 0.7), (0.5, 0.5)):
        thing = a_thing("t", figure=what, size=(wide, high, high))
        chains = figure(thing, view, wide, high, 0)
        assert 0 < len(chains) <= 30
        points = np.array([p for chain in chains for p in chain])
        assert points.min() > -0.02 * max(wide, high)
        assert points[:, 0].max() < 1.02 * wide and points[:, 1].max() < 1.02 * high
        back = figure(thing, view, wide, high, 180)
        if view != "rear":
            assert np.allclose(sorted(p[0] for c in back for p in c), sorted(wide - p[0] for c in chains for p in c))
    assert set(FIGURES) == set(NAMES)


def test_figures_are_told_apart_and_named_by_what_things_are() -> None:
    drawn = {what: figure(a_thing("t", figure=what), "side", 0.6, 0.5, 0) for what in NAMES}
    assert len(set(drawn.values())) >= len(NAMES) - 2  # a box and what is like one
    for told, what in (
        ({"tank": Tank(None, "fresh", "jug")}, "jug"),
        ({"roles": ("cooks",)}, "stove"),
        ({"roles": ("keeps food cold",)}, "fridge"),
        ({"roles": ("toilet",)}, "toilet"),
        ({"kind": "spare wheel"}, "wheel"),
        ({"kind": "vehicle aboard"}, "bicycle"),
        ({"figure": "kayak"}, "kayak"),
        ({"roles": ("airs",)}, "fan"),
        ({"roles": ("cools the room",)}, "cooler"),
        ({"roles": ("seat",)}, "chair"),
        ({"name": "Water jug"}, "box"),
    ):
        assert figure_of(a_thing("t", **told)) == what
    assert figure_of(a_thing("t", name="Fresh jug", figure="bed")) == "bed"
    assert figure(a_thing("t"), "side", 0.01, 0.01, 0) == () and figure(a_thing("t"), "side", 1e6, 1.0, 0) == ()


def test_a_cabinet_shows_its_own_fronts_where_they_are_seen() -> None:
    thing = a_thing(
        "c",
        20.0,
        2.0,
        0.0,
        0.62,
        (0.8, 0.5, 0.7),
        kind="cabinet",
        cabinet=Cabinet("left", bays=(Bay("a", "drawers", drawers=4), Bay("b", "pair"))),
    )
    seen = figure(thing, "side", 0.8, 0.7, 0)
    boxes = [chain for chain in seen if len(chain) == 5]
    assert len(boxes) == 4 + 2
    turned = figure(thing, "side", 0.8, 0.7, 180)  # one looks at its back
    assert len([chain for chain in turned if len(chain) == 5]) == 1


# drawings
@pytest.mark.parametrize("size", [(560.0, 300.0), (330.0, 200.0), (900.0, 500.0)])
def test_drawings_stay_on_their_paper_and_say_nothing_where_there_is_nothing(size) -> None:
    wide, high = size
    s = studied("dark-sky")
    one = cabinets_of(s.build, s.facts)["t6"]
    cabinet = next(t.cabinet for t in s.build.stow.things if t.id == "t6")
    shapes = cabinet_drawn(one, cabinet, WORDS, wide, high)
    heron = studied("marsh-heron")
    lid = hinged(heron)[0]
    for drawn in (
        shapes,
        lid_drawn(lid, WORDS, wide, high),
        hand_chart(lid, WORDS, wide, high),
        reach_plan(heron, heron.build.stow.modes[1], ("t1",), WORDS, wide, high),
    ):
        assert drawn
        for shape in drawn:
            if isinstance(shape, Text):
                assert -2 <= shape.at[0] <= wide + 2 and -2 <= shape.at[1] <= high + 2, shape.text
    lines = piece_lines(one, WORDS, 40)
    assert sum(int(line.split(" × ")[0]) for line in lines) == len(one.boards)
    empty = study(a_home(), Facts())
    assert reach_plan(empty, empty.build.stow.modes[0], (), WORDS, wide, high) == ()
    unhung = msgspec.structs.replace(lid, turning=None)
    assert lid_drawn(unhung, WORDS, wide, high) == () and hand_chart(msgspec.structs.replace(lid, swings=()), WORDS, wide, high) == ()


def test_a_bed_base_is_drawn_with_its_bearers_and_says_what_does_not_agree() -> None:
    bed = a_thing("b", 20.0, 2.0, 0.0, 0.9, (1.9, 1.2, 0.1), kind="bed", base=BedBase("slats", span=Length(0.4), bearers=5))
    shapes = bed_drawn(bed, (), WORDS, 500.0, 300.0)
    texts = [shape.text for shape in shapes if isinstance(shape, Text)]
    assert any("slats 70 × 12" in text and "60 mm apart" in text for text in texts)
    assert any("5 bearers leave more" in text for text in texts)  # 1.9 over four gaps is more than 0.40
    red = msgspec.structs.replace(bed, base=BedBase("board", span=Length(0.6), bearers=4))
    weak = tuple(carries(study(a_home(red), Facts())))
    assert any(getattr(shape, "stroke", "") == "primer" for shape in bed_drawn(red, weak, WORDS, 500.0, 300.0))
    assert bed_drawn(msgspec.structs.replace(bed, base=None), (), WORDS, 500.0, 300.0) == ()


def test_making_it_of_boards_takes_its_size_and_undoes_to_the_same() -> None:
    thing = a_thing("c", 20.0, 2.0, 0.3, 0.62, (0.9, 0.5, 0.7), kind="cabinet")
    build = a_home(thing)
    made = apply(build, into_boards(thing))
    one = cabinets_of(made, Facts())["c"]
    assert one.good and one.carcass.size == pytest.approx((0.9, 0.5, 0.7)) and one.placing.opens == "left"
    back = apply(made, [set_to("stow.things.c.cabinet", None), set_to("stow.things.c.source", "estimated")])
    assert back == build
