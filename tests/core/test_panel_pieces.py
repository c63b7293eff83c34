"""A box of bought panels and one with a corner cut off: each face one panel, nothing of it bought twice, walls that meet."""

import pytest

from tests.builders import a_build, a_hole, a_rig, a_shell
from uncle_sled.core.document.beginnings import Answers, begin
from uncle_sled.core.document.brief import Reading
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Framing
from uncle_sled.core.document.work import Glue
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.geometry.body_joints import joints_of
from uncle_sled.core.geometry.surfaces import body_of, cut_in, place_after
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.panel_press import panels_pressed, pressed
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.studies.cut.buying import shopping
from uncle_sled.core.studies.cut.consumables import used_up
from uncle_sled.core.studies.cut.cut_from_stock import plan_of
from uncle_sled.core.studies.cut.money import money_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.bought_panels import blanks_glued_up, sizes_from_panel
from uncle_sled.core.wiring.wired import wired_of

WALL, FLOOR = 0.033, 0.0505
LONG, WIDE, HIGH = 2.44, 1.83, 1.83


@pytest.fixture(scope="module")
def box():
    """As New build makes it: laminate over 30 mm of foam, on a truck's bed."""
    project = begin("Box", Answers("a vehicle with a bed", "European", Reading(), body="box on a bed"))
    return project.with_build(apply(project.build, [set_to("shell.openings", [])]))


def areas(pieces):
    found = {}
    for piece in pieces:
        if piece.kind == "sheet":
            found[piece.of] = found.get(piece.of, 0.0) + piece.area_m2
    return found


def test_each_face_is_a_panel_cut_back_for_those_that_run_over_it(box):
    off = take_off(box.build, box.facts)
    high, between = HIGH - WALL - FLOOR, WIDE - 2 * WALL  # walls stand on the floor and under the roof, ends between the sides

    assert areas(off.pieces) == pytest.approx(
        {
            "floor": LONG * WIDE,
            "roof": LONG * WIDE,
            **dict.fromkeys(("left side", "right side"), LONG * high),
            **dict.fromkeys(("front", "rear"), between * high),
        }
    )
    assert off.spreads == () and not [piece for piece in off.pieces if piece.kind == "fill"]
    wall = next(piece for piece in off.pieces if piece.of == "front" and piece.kind == "sheet")
    # 1.5 and 30 and 1.5 mm at 1,750 and 31 kg/m3
    assert wall.thickness_m == pytest.approx(WALL) and wall.kg_m2 == pytest.approx(2 * 1750 * 0.0015 + 31 * 0.030)
    # 1.25 m wide as they are sold: the rest of each wall is a second part, with a strip over the joint on both sides
    strips = [piece for piece in off.pieces if piece.of == "front" and piece.name.startswith("joining strip")]
    assert len(strips) == 2 and all(piece.length_m == pytest.approx(between) for piece in strips)


def test_it_is_laid_onto_panels_and_nothing_of_it_is_bought_beside(box):
    build, facts = box.build, box.facts
    made = plan_of(build, facts)
    panel = next(plan for plan in made.plan.sheets if "33 mm" in plan.material)
    lines = shopping(build, facts, study(build, facts).framed, made, wired_of(build, study(build, facts).framed), 0.0)
    of_panels = {line.name: line for line in lines if "panel" in line.name and line.unit == "pieces"}

    assert made.plan.unplaced == () and panel.used >= panel.bound
    assert {layout.length_m for layout in panel.layouts} == {3.0} and {layout.width_m for layout in panel.layouts} == {1.25}
    assert not [line.name for line in lines if line.unit == "m²" and ("foam" in line.name or "laminate" in line.name)]
    line = next(line for name, line in of_panels.items() if "33" in name)
    wall = next(piece for piece in take_off(build, facts).pieces if piece.of == "front" and piece.kind == "sheet")
    assert line.packs == panel.used and line.each == pytest.approx(wall.money_m2 * 3.0 * 1.25)


def test_a_larger_panel_of_ones_own_takes_a_whole_wall(box):
    wall = next(piece for piece in take_off(box.build, box.facts).pieces if piece.of == "front" and piece.kind == "sheet")
    own = {"id": "big", "kind": "sheet", "material": wall.material, "stuff": wall.stuff, "length": {"si": 5.0}, "width": {"si": 2.0}}
    build = apply(box.build, [set_to("shell.framing.sheet_width", {"si": 1.0}), set_to("cut.sizes", [own])])
    of_walls = [piece for piece in take_off(build, box.facts).pieces if piece.kind == "sheet" and piece.of != "floor"]

    assert len(of_walls) == 5 and {piece.sold_m for piece in of_walls} == {(5.0, 2.0)}
    assert not [piece for piece in take_off(build, box.facts).pieces if piece.name.startswith("joining strip") and piece.of != "floor"]
    assert len([layout for plan in plan_of(build, box.facts).plan.sheets if "33" in plan.material for layout in plan.layouts]) == 3


def test_its_hours_go_by_the_metre_of_edge(box):
    edges = sum(2 * (piece.length_m + piece.width_m) for piece in take_off(box.build, box.facts).pieces if piece.kind == "sheet")

    assert money_of(box.build, box.facts, (), take_off(box.build, box.facts)).hours == pytest.approx(0.15 * edges)


SCHOOLS = ("stick timber", "cut plywood sides", "welded tube", "strip ribs", "sandwich panels")


@pytest.mark.parametrize("school", SCHOOLS)
@pytest.mark.parametrize("profile", ["square, tail corner off", "square, both corners off"])
def test_a_corner_cut_off_is_a_face_of_its_own_in_every_school(school, profile):
    shell = a_shell(profile=PRESETS[profile], faces=(), framing=Framing(school), wall=Length(0.10))
    s = study(a_build(rig=a_rig(), shell=shell), Facts())
    faces = {surface.id: surface for surface in s.framed.body.surfaces}
    long, wide, high = (getattr(shell, name).si for name in ("length", "width", "height"))

    assert s.framed.faults == ()
    assert faces["rear"].area_m2 == pytest.approx(wide * 0.65 * high)
    assert faces["rear below"].area_m2 == pytest.approx(wide * ((0.16 * long) ** 2 + (0.35 * high) ** 2) ** 0.5)
    assert faces["floor"].area_m2 == pytest.approx(wide * 0.84 * long)
    fore = 0.5 * 0.16 * 0.38 if "both" in profile else 0.0
    assert faces["left side"].area_m2 == pytest.approx(long * high * (1 - 0.5 * 0.16 * 0.35 - fore))
    framed = {member.face for member in s.framed.members}
    assert {"rear below", "roof"} <= framed or school == "sandwich panels"
    # every edge meets a face: no joint is open
    assert not [joint.id for joint in joints_of(s.framed.body) if not joint.b]


def test_an_opening_is_cut_into_the_wall_at_its_height_and_comes_back():
    shell = a_shell(profile=PRESETS["square, both corners off"])
    body = body_of(shell)
    for face, up, where in (("rear", 0.7, "rear"), ("rear", 0.1, "rear below"), ("front", 0.3, "front")):
        hole = a_hole("o", face, 0.4, up, 0.3, 0.2)
        surface, shape = cut_in(body, hole)
        assert surface.id == where and shape.within(surface.polygon.buffer(1e-6))
        lowest = min(surface.place(s, t)[2] for s, t in shape.exterior.coords)
        assert lowest == pytest.approx(body.under + up)
        assert place_after(body, hole, surface, 0.0, 0.0) == pytest.approx((0.4, up))


def test_a_round_profile_is_refused_by_its_face():
    shell = a_shell(framing=Framing("sandwich panels"))
    found = [finding for finding in findings(study(a_build(rig=a_rig(), shell=shell), Facts())) if finding.code == "school-form"]

    assert len(found) == 1 and "the front is round" in found[0].says


def test_a_box_of_the_panels_own_sizes_has_no_joint_in_wall_or_roof(box):
    framed = study(box.build, box.facts).framed
    build = apply(box.build, sizes_from_panel(box.build.shell, framed.sizes))
    shell = build.shell

    assert (shell.length.si, shell.width.si, shell.height.si) == pytest.approx((3.0, 1.25, 1.25 + WALL + FLOOR))
    pieces = [piece for piece in take_off(build, box.facts).pieces if piece.kind == "sheet"]
    assert len(pieces) == 6 and next(p for p in pieces if p.of == "left side").width_m == pytest.approx(1.25)


# glued up by oneself
@pytest.fixture(scope="module")
def own(box):
    """The same box, its walls of 4 mm ply on both sides of 30 mm of foam, glued up at home."""
    layers = [
        {"id": id, "material": of, "thickness": {"si": mm / 1e3}}
        for id, of, mm in (("a", "light-ply", 4), ("b", "xps", 30), ("c", "light-ply", 4))
    ]
    walls = [face for face in box.build.shell.faces if face.kind in ("left side", "right side", "front", "rear", "roof")]
    ops = [set_to(f"shell.faces.{face.id}.layers", layers) for face in walls]
    return box.with_build(apply(box.build, [*ops, set_to("shell.framing.panels", "own")]))


def test_a_panel_of_ones_own_by_hand():
    """6 m2 of three layers: two lines of 250 g, a tenth more; spread by two at 0.35 m2/min, four minutes to shut; 10 kPa."""
    made = pressed(Glue(), "p", 6.0, 3, 20.0, 0.25)
    assert made.glue_kg == pytest.approx(3.3) and made.takes_min == pytest.approx(12.0 / 0.7 + 4.0)
    assert (made.press_n, made.weights_kg) == (pytest.approx(60e3), pytest.approx(60e3 / 9.80665))
    assert (made.open_min, made.press_h, made.too_slow) == (40.0, 8.0, False)
    cold = pressed(Glue(), "p", 6.0, 3, 0.0, 0.25)
    assert (cold.open_min, cold.press_h) == (80.0, 32.0)  # open twice as long at the most; cured four times as late
    assert pressed(Glue(panel_hands=1), "p", 8.0, 3, 20.0, 0.25).too_slow


def test_its_skins_and_core_are_bought_and_its_glue_weighs(box, own):
    off, bought = take_off(own.build, own.facts), take_off(box.build, box.facts)
    roof = [piece for piece in off.pieces if piece.of == "roof"]
    blank = next(blank for blank in blanks_glued_up(own.build.shell, study(own.build, own.facts).framed, set()) if blank.surface == "roof")
    area = float(blank.outline.area)
    assert sum(piece.area_m2 for piece in roof if piece.kind == "sheet") == pytest.approx(2 * area)
    assert sum(piece.area_m2 for piece in roof if piece.kind == "fill") == pytest.approx(area)
    assert not [piece for piece in roof if piece.money_m2 is not None] and [piece for piece in bought.pieces if piece.money_m2 is not None]
    outer, inner = ([piece for piece in roof if piece.key.startswith(f"roof/{layer}/")] for layer in ("a", "b"))
    seams = [{x for piece in some for x, _ in piece.place} - {0.0, LONG} for some in (outer, inner)]
    assert not seams[0] & seams[1]  # no seam of a skin lies over one of the core
    weighs = {part.id: part.mass_kg for part in study(own.build, own.facts).parts}
    as_bought = own.with_build(apply(own.build, [set_to("shell.framing.panels", "bought")]))
    bare = {part.id: part.mass_kg for part in study(as_bought.build, as_bought.facts).parts}
    face = next(face for face in own.build.shell.faces if face.kind == "roof")
    assert weighs[face.id] - bare[face.id] == pytest.approx(2 * 0.25 * area, rel=1e-6)
    used = {used.rule.id: used.need for used in used_up(own.build, own.facts, off)}
    made = panels_pressed(own.build, own.facts, 20.0)
    assert used["panel-glue"] == pytest.approx(sum(panel.glue_kg for panel in made), rel=1e-6)
    hours = {task.id: task for task in tasks_of(own.build, own.facts)}
    assert hours["panels-own"].cure_h == 8.0 and "panels-own" in hours["box"].after if "box" in hours else hours["panels-own"]
    assert "panels-own" not in {task.id for task in tasks_of(box.build, box.facts)} and panels_pressed(box.build, box.facts, 20.0) == ()


def test_uncle_minds_glue_that_skins_and_a_bag_that_is_too_weak(own):
    assert not {"panel-glue-slow", "panel-press-weak"} & {one.code for one in findings(study(own.build, own.facts))}
    hurried = apply(own.build, [set_to("work.glue.panel_hands", 1), set_to("work.glue.panel_open_min", 20.0)])
    found = {one.code: one for one in findings(study(hurried, own.facts))}
    worst = panels_pressed(hurried, own.facts, 20.0)[0]
    assert f"{worst.takes_min:.0f} min to spread" in found["panel-glue-slow"].says and found["panel-glue-slow"].caution
    bag = apply(own.build, [set_to("work.glue.press_by", "vacuum"), set_to("work.glue.press_kpa", 150.0)])
    assert "150 kPa are wanted" in {one.code: one for one in findings(study(bag, own.facts))}["panel-press-weak"].says
