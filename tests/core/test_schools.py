"""Bodies of welded tube and of glued ribs: folds by the trade's check, members by hand, and what cannot be built."""

from __future__ import annotations

import math

import msgspec
import numpy as np
import pytest

from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.framing.frame_body import SCHOOLS
from uncle_sled.core.framing.member import steel_share
from uncle_sled.core.framing.pie_cuts import cut_widths_m, hoops, most_turn_rad, plain_turn_rad
from uncle_sled.core.framing.strip_ribs import jig_m, strip_m, strips_in
from uncle_sled.core.parts.frame_steel import BRACKETS, bars_of, frame_kg
from uncle_sled.core.reading.studied import study
from uncle_sled.core.sections import KG_M3, sections, tube_kg_m
from uncle_sled.core.studies.cut.sticks import STRIP_OVER_M
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.welds import welds, welds_of
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.shell_report import shell_report

SMALL = {"thick": {"si": 0.025}, "deep": {"si": 0.025}}
TUBE = {"school": "welded tube", "stick": SMALL, "rib": SMALL, "joist": SMALL, "tube_wall": {"si": 0.0015}}
STRIPS = {"school": "strip ribs"}


def built(name: str, framing: dict, *ops):  # type: ignore[no-untyped-def, type-arg]
    project = demo(name)
    build = apply(project.build, [set_to("shell.framing", framing), *ops])
    return study(build, project.facts)


# sections
def test_sections_weigh_and_bend_as_by_hand() -> None:
    tube = sections()["tube-100x50x4"]
    assert tube.kg_m == pytest.approx((0.1 * 0.05 - 0.092 * 0.042) * 7850, rel=1e-9)
    assert tube.inertia_m4 == pytest.approx((0.05 * 0.1**3 - 0.042 * 0.092**3) / 12, rel=1e-9)
    assert tube.modulus_m3 == pytest.approx(tube.inertia_m4 / 0.05)
    angle = sections()["angle-50x50x5"]
    area = 0.05 * 0.005 + 0.045 * 0.005
    centre = (0.05 * 0.005 * 0.0025 + 0.045 * 0.005 * 0.0275) / area
    assert angle.area_m2 == pytest.approx(area) and angle.centre_m == pytest.approx(centre)
    assert angle.modulus_m3 == pytest.approx(angle.inertia_m4 / (0.05 - centre))
    channel, beam = sections()["channel-100x50"], sections()["beam-100x55"]
    assert channel.kg_m == pytest.approx(10.6, rel=0.02)  # rolled: 10.6 in the lists
    assert beam.inertia_m4 == pytest.approx(171e-8, rel=0.06)
    assert tube_kg_m(0.03, 0.03, 0.002) == pytest.approx(1.758, abs=1e-3)
    assert len(sections()) > 50 and all(one.kg_m > 0.3 and one.source for one in sections().values())
    assert {one.metal for one in sections().values()} == set(KG_M3)


def test_a_frame_weighs_what_its_bars_do_and_they_go_to_the_saw() -> None:
    project = demo("orchard-keeper")
    build = apply(
        project.build,
        [
            set_to("rig.frame_mass", None),
            set_to("rig.rail", "beam-6x8.5"),
            set_to("rig.cross", "channel-4x5.4"),
            set_to("rig.cross_pitch", {"si": 0.6}),
        ],
    )
    rig = build.rig
    bars = {bar.role: bar for bar in bars_of(rig)}
    behind = rig.frame_length.si - rig.drawbar_length.si
    assert bars["rail"].many == 2 and bars["rail"].length_m == pytest.approx(behind)
    assert bars["cross-member"].many == math.ceil(behind / 0.6 - 1e-9) + 1
    assert bars["cross-member"].length_m == pytest.approx(rig.frame_width.si - 2 * 0.1)
    assert bars["drawbar leg"].length_m == pytest.approx(math.hypot(rig.drawbar_length.si, rig.frame_width.si / 2))
    by_hand = sum(b.many * b.length_m * b.section.kg_m for b in bars.values()) * (1 + BRACKETS)
    assert frame_kg(rig) == pytest.approx(by_hand)
    s = study(build, project.facts)
    frame = next(part for part in s.parts if part.id == "frame")
    assert frame.mass_kg == pytest.approx(by_hand) and frame.source == "computed"
    pieces = [one for one in take_off(build, project.facts).pieces if one.of == "frame"]
    assert len(pieces) == sum(b.many * (2 if b.length_m > 7.32 else 1) for b in bars.values())
    assert all(one.material.startswith("Steel") and one.kg_m for one in pieces)
    typed = apply(build, [set_to("rig.frame_mass", {"si": 500.0})])
    assert frame_kg(typed.rig) == 500.0
    for rail in ("", "no such bar"):
        assert bars_of(apply(build, [set_to("rig.rail", rail)]).rig) == ()


# folds
def test_pie_cuts_are_those_of_the_notes() -> None:
    assert math.ceil(math.pi / 2 / most_turn_rad(0.6, 0.001)) == 14
    assert [round(w * 1000, 2) for w in cut_widths_m(math.radians(90 / 14), 0.03, 0.002)] == [3.14, 3.26]
    assert math.degrees(plain_turn_rad(0.002, 0.03, 0.002)) == pytest.approx(3.950, abs=1e-3)
    assert math.ceil(math.pi / 2 / plain_turn_rad(0.002, 0.03, 0.002)) == 23


def arc(radius: float, many: int = 2000):
    """Half a metre up, a quarter round to the right, a metre on: the body on the right hand."""
    t = np.linspace(0, math.pi / 2, many)
    bend = np.stack([-radius * np.cos(t), radius * np.sin(t)], 1)
    return np.vstack([[-radius, -0.5], bend, [1.0, radius]])


def test_a_hoop_runs_outside_of_its_curve_by_no_more_than_the_tolerance() -> None:
    (bar,) = hoops(arc(0.6), 0.03, 0.002, 0.001)
    assert len(bar.cuts) == 14 and all(cut.turn_deg == pytest.approx(6.429, abs=0.01) and cut.inside for cut in bar.cuts)
    gaps = np.diff([cut.at_m for cut in bar.cuts])
    assert gaps == pytest.approx(0.06739, abs=5e-5)
    assert bar.cuts[0].at_m == pytest.approx(0.5 + 0.03370, abs=3e-4)
    corners = np.array(bar.points[1:-1])
    proud = np.hypot(*corners.T) - 0.6
    assert proud == pytest.approx(0.000945, abs=2e-5)
    loose = hoops(arc(0.6), 0.03, 0.002, 0.004)[0]
    assert len(loose.cuts) == math.ceil(math.pi / 2 / (2 * math.acos(0.6 / 0.604)) - 1e-9)
    back = hoops(arc(0.6) * [1, -1], 0.03, 0.002)[0]
    assert not any(cut.inside for cut in back.cuts)  # bent the other way the cut is on the other face
    assert len(hoops(np.array([[0, 0], [0, 1.0], [1.0, 1.0]]), 0.03, 0.002)) == 2  # a corner is a joint


def test_what_cannot_be_folded_is_refused_in_words() -> None:
    with pytest.raises(GeometryError, match=r"does not go round a radius of \{25 mm\}"):
        hoops(arc(0.025), 0.03, 0.002)
    with pytest.raises(GeometryError, match="no hollow"):
        hoops(arc(0.6), 0.03, 0.015)
    with pytest.raises(GeometryError, match="leave no tube between"):
        hoops(arc(0.035), 0.034, 0.002, 0.008)


# strips
def test_strips_and_their_jig_are_those_of_the_notes() -> None:
    assert strip_m(0.6) == pytest.approx(0.003) and strip_m(0.6, "light hardwood") == pytest.approx(0.0048)
    assert jig_m(0.6, 6) == pytest.approx(0.583, abs=1e-3) and jig_m(0.6, 3) == pytest.approx(0.533, abs=1e-3)
    assert jig_m(0.6, 2) == pytest.approx(0.45)
    assert strips_in(0.025, 0.6, 0.0) == 9 and strips_in(0.025, math.inf, 0.0) == 1


# bodies
@pytest.mark.parametrize(
    ("name", "framing"), [("marsh-heron", TUBE), ("rosin-box", {"school": "welded tube"}), ("marsh-heron", STRIPS), ("rosin-box", STRIPS)]
)
def test_nothing_overlaps_and_everything_weighs_its_length(name, framing) -> None:
    s = built(name, framing)
    members = s.framed.members
    assert len(members) > 30 and not [f for f in s.framed.faults if f.code == "will-not-bend"]
    for i, one in enumerate(members):
        for other in members[i + 1 :]:
            if one.face == other.face:
                assert one.shape.intersection(other.shape).area < 2e-6, (one.id, other.id)
        density = 7850 if one.wall_m else 450
        solid = one.shape.area * one.section_m[1] * density * steel_share(one.section_m, one.wall_m)
        assert one.mass_kg == pytest.approx(solid * 1.04, rel=1e-6)
        by_length = one.length_m * one.section_m[0] * one.section_m[1]
        assert one.shape.area * one.section_m[1] <= by_length * 1.01
    pieces = take_off(s.build, s.facts).pieces
    assert {one.key.split("/strip")[0].split("/part")[0] for one in pieces} >= {m.id for m in members}


def test_a_tube_teardrop_by_hand() -> None:
    s = built("marsh-heron", TUBE)
    left = [m for m in s.framed.members if m.face == "left side"]
    base = next(m for m in left if m.role == "base")
    assert base.length_m == pytest.approx(3.05, abs=0.03)
    over = next(m for m in left if m.role == "hoop" and m.cuts)
    turned = sum(cut.turn_deg for cut in over.cuts)
    assert 90 < turned < 125  # from upright over the top to where the roof falls to the tail
    assert over.cuts == next(m for m in s.framed.members if m.face == "right side" and m.role == "hoop" and m.cuts).cuts
    assert all(b.at_m > a.at_m for a, b in zip(over.cuts[:-1], over.cuts[1:], strict=True))
    assert all(cut.width_m < cut.width_mid_m for cut in over.cuts)
    cross = [m for m in s.framed.members if m.role == "cross-tube"]
    width = s.framed.body.width
    assert all(m.length_m == pytest.approx(width - 2 * 0.025, abs=0.002) for m in cross if "/" not in m.anchor and m.length_m > 1.0)
    off = take_off(s.build, s.facts)
    tubes = [one for one in off.pieces if one.kg_m is not None and one.of != "frame"]
    assert {one.material for one in tubes} == {"Steel tube 25 x 25 x 1.5 mm"}
    face = next(f for f in s.build.shell.faces if f.kind == "left side")
    warm, wood = s, built("marsh-heron", {"school": "cut plywood sides"})
    from uncle_sled.core.parts.face_build import library_of
    from uncle_sled.core.parts.from_shell import face_sums

    steel = face_sums(face, warm.build.shell, warm.framed, library_of(warm.facts.materials)).build.warmth
    timber = face_sums(face, wood.build.shell, wood.framed, library_of(wood.facts.materials)).build.warmth
    assert steel.lower_m2k_w < timber.lower_m2k_w and not steel.trusted  # metal through foam: both bounds are shown


def test_a_rib_becomes_its_strips_at_the_saw() -> None:
    s = built("marsh-heron", STRIPS)
    rib = next(m for m in s.framed.members if m.strips > 1 and m.face == "front")
    strips = [one for one in take_off(s.build, s.facts).pieces if one.key.startswith(f"{rib.id}/strip")]
    assert len(strips) == rib.strips
    assert all(one.length_m == pytest.approx(rib.length_m + 2 * STRIP_OVER_M) for one in strips)
    assert sum(one.thickness_m for one in strips) == pytest.approx(rib.section_m[1])
    thick = built("marsh-heron", {**STRIPS, "strip": {"si": 0.02}})
    says = [f.says for f in thick.framed.faults if f.code == "will-not-bend"]
    assert says and "break on" in says[0] and "will-not-bend" in {one.code for one in findings(thick)}


def test_schools_that_cannot_make_a_form_say_why() -> None:
    for school in ("welded tube", "strip ribs", "cut plywood sides"):
        s = built("orchard-keeper", {"school": school})
        assert not s.framed.members and "gable" in s.framed.faults[0].says
    assert set(SCHOOLS) >= {"stick timber", "cut plywood sides", "welded tube", "strip ribs", "bought shell"}
    deep = built("marsh-heron", {"school": "welded tube"})
    assert any("does not go into" in f.says for f in deep.framed.faults)
    assert Length(0.0015).text(demo("marsh-heron").build.brief.reading.shown()) == "0.0015 m"


def test_a_box_of_two_channels_bends_as_both_together() -> None:
    one, both = sections()["channel-100x50"], sections()["built-2-channels-100x50"]
    assert both.inertia_m4 == pytest.approx(2 * one.inertia_m4, rel=1e-9)
    assert both.kg_m == pytest.approx(2 * one.kg_m, rel=1e-9) and both.deep == one.deep
    project = demo("marsh-heron")
    rig = apply(project.build, [set_to("rig.rail", "built-plates-120x60")]).rig
    assert bars_of(rig)[0].section.says(project.build.brief.reading.shown()) == "box built up 120 × 60 × 4 mm"


# welds and what lies under panels
def test_welds_are_counted_by_hand() -> None:
    s = built("marsh-heron", TUBE)
    tubes = [m for m in s.framed.members if m.wall_m > 0]
    made = welds(s)
    assert made is not None and made.ends == 2 * len(tubes)
    folds = sum(len(m.cuts) for m in tubes)
    assert made.folds == folds > 20
    assert made.run_m == pytest.approx(2 * len(tubes) * 4 * 0.025 + folds * 3 * 0.025)
    assert made.metal_kg == pytest.approx(made.run_m * 0.0015**2 * 7850)
    alone = msgspec.structs.replace(next(m for m in tubes if not m.cuts), section_m=(0.03, 0.03), wall_m=0.002, cuts=())
    folded = msgspec.structs.replace(alone, cuts=next(m.cuts for m in tubes if m.cuts)[:2])
    assert welds_of((folded,)).run_m == pytest.approx(0.42) and welds_of((folded,)).metal_kg == pytest.approx(0.0132, abs=1e-4)
    assert welds(built("marsh-heron", STRIPS)) is None and welds_of(()) is None
    said = shell_report(s)["welds"]
    assert said["ends"] == made.ends and said["run_m"] == pytest.approx(made.run_m)


def test_a_joist_makes_a_sub_frame_under_panels_and_nothing_else_moves() -> None:
    plain = built("dark-sky", {"school": "sandwich panels"})
    with_it = built("dark-sky", {"school": "sandwich panels", "pitch": {"si": 0.5}, "joist": {"thick": {"si": 0.04}, "deep": {"si": 0.06}}})
    tubes = [m for m in with_it.framed.members if m.role == "sub-frame"]
    assert not [m for m in plain.framed.members if m.role == "sub-frame"]
    assert [m for m in with_it.framed.members if m.role != "sub-frame"] == list(plain.framed.members)
    body = with_it.framed.body
    rails = [m for m in tubes if m.along_s]
    cross = [m for m in tubes if not m.along_s]
    assert len(rails) == 2 and all(m.length_m == pytest.approx(body.length) for m in rails)
    assert len(cross) == math.ceil((body.length - 0.04) / 0.5 - 1e-9) + 1
    assert all(m.length_m == pytest.approx(body.width - 0.08) for m in cross)
    assert all(m.at_m[2] == pytest.approx(body.under - 0.03) for m in tubes)
    per_m = tube_kg_m(0.06, 0.04, 0.002)
    run = 2 * body.length + len(cross) * (body.width - 0.08)
    assert sum(m.mass_kg for m in tubes) == pytest.approx(per_m * run * 1.04, rel=1e-6)
    assert welds(with_it).ends == 2 * len(tubes) and welds(plain) is None
    total = [float(s.table.mass_kg[-1].sum()) for s in (plain, with_it)]
    assert total[1] - total[0] == pytest.approx(per_m * run * 1.04, rel=1e-3)
    to_saw = [one for one in take_off(with_it.build, with_it.facts).pieces if "sub-frame" in one.key]
    assert len(to_saw) == len(tubes) and {one.material for one in to_saw} == {"Steel tube 60 x 40 x 2 mm"}
