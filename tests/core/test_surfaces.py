"""Bodies as surfaces: areas and centres against closed forms, openings there and back, what a face weighs without them."""

import math

import msgspec
import numpy as np
import pytest

from tests.builders import a_body, a_build, a_hole
from uncle_sled.core.document.project import Facts, OwnMaterial
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import Face, Framing, Layer, NoseBox, WheelBoxes
from uncle_sled.core.geometry.surfaces import body_of, cut_in, place_after
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.face_build import face_build, library_of
from uncle_sled.core.parts.from_shell import centre_on, face_sums
from uncle_sled.core.reading.studied import study

L, W, H = 4.0, 2.0, 2.1


def areas(shell):
    made = {}
    for one in body_of(shell).surfaces:
        made[one.kind] = made.get(one.kind, 0.0) + one.area_m2
    return made


def test_a_box_by_hand():
    assert areas(a_body("box")) == pytest.approx(
        {"floor": L * W, "left side": L * H, "right side": L * H, "front": W * H, "rear": W * H, "roof": L * W}
    )


def test_a_gable_by_hand():
    low = 1.5
    made = areas(a_body("gable", eaves=Length(low)))

    assert made["roof"] == pytest.approx(2 * L * math.hypot(W / 2, H - low))
    assert made["front"] == pytest.approx(W * low + W * (H - low) / 2)
    assert made["left side"] == pytest.approx(L * low)
    over = areas(a_body("gable", eaves=Length(low), roof_overhang=Length(0.1)))
    assert over["roof"] == pytest.approx(2 * (L + 0.2) * (math.hypot(W / 2, H - low) + 0.1))


def test_a_shed_falls_to_any_side():
    low = 1.7
    for side, run in (("rear", L), ("front", L), ("left", W), ("right", W)):
        made = areas(a_body("shed", eaves=Length(low), low_side=side))
        other = W if run == L else L
        assert made["roof"] == pytest.approx(other * math.hypot(run, H - low)), side
    left = areas(a_body("shed", eaves=Length(low), low_side="left"))
    assert (left["left side"], left["right side"]) == pytest.approx((L * low, L * H))
    front = areas(a_body("shed", eaves=Length(low), low_side="front"))
    assert (front["front"], front["rear"]) == pytest.approx((W * low, W * H))


def test_bevelled_edges_by_hand():
    b = 0.3
    made = areas(a_body("bevelled", bevel=Length(b)))
    slant = b * math.sqrt(2)
    bevels = 2 * slant * (L + L - 2 * b) / 2 + 2 * slant * (W + W - 2 * b) / 2

    assert made["roof"] == pytest.approx((L - 2 * b) * (W - 2 * b) + bevels)
    assert made["left side"] == pytest.approx(L * (H - b)) and made["rear"] == pytest.approx(W * (H - b))


def test_a_butterflys_valley_and_a_flat_roofs_fall():
    made = areas(a_body("butterfly", eaves=Length(1.8)))
    assert made["roof"] == pytest.approx(2 * L * math.hypot(W / 2, 0.3)) and made["left side"] == pytest.approx(L * H)
    flat = areas(a_body("flat"))
    assert flat["rear"] == pytest.approx(W * (H - L / 40))


def test_centres_of_slopes_and_of_a_swept_skin():
    body = body_of(a_body("gable", eaves=Length(1.5)))
    left = next(one for one in body.surfaces if one.id == "roof left")
    assert centre_on(left, left.polygon) == pytest.approx((1.2 + L / 2, -W / 4, 0.5 + (1.5 + H) / 2))
    profile = body_of(a_body("profile"))
    roof = profile.of("roof")[0]
    chain = profile.side.chain("roof")
    step, middle = np.hypot(*np.diff(chain, axis=0).T), (chain[:-1] + chain[1:]) / 2
    x, z = (middle * step[:, None]).sum(axis=0) / step.sum()
    assert centre_on(roof, roof.polygon) == pytest.approx((x, 0.0, z), abs=0.01)


@pytest.mark.parametrize("form", ["box", "profile", "gable", "shed", "bevelled"])
@pytest.mark.parametrize("face", ["left side", "front", "rear", "roof", "floor"])
def test_an_opening_moved_on_its_surface_comes_back(form, face):
    body = body_of(a_body(form))
    hole = a_hole("o", face, 1.5 if face in ("left side", "roof", "floor") else 0.5, 0.4, 0.2, 0.2)
    surface, shape = cut_in(body, hole)
    assert surface.polygon.buffer(1e-6).contains(shape) and shape.area == pytest.approx(0.04)
    along, up = place_after(body, hole, surface, 0.03, 0.02)
    moved = msgspec.structs.replace(hole, along=Length(along), up=Length(up))
    _, after = cut_in(body, moved)

    assert after.bounds == pytest.approx([v + d for v, d in zip(shape.bounds, (0.03, 0.02) * 2, strict=True)], abs=2e-3)


LAYERS = (Layer("l1", "birch-ply", Length(0.006)), Layer("l2", "xps", Length(0.07), 0.15))


def test_openings_are_taken_out_of_their_face_and_weigh_for_themselves():
    face = Face("l", "left side", "Left", layers=LAYERS)
    shell = a_body("box", faces=(face,), openings=(a_hole("o", "left side", 1.0, 0.8, 1.0, 0.7, mass=Mass(12.0)),))
    build = a_build(shell=shell)
    parts = {p.id: p for p in study(build, Facts()).parts}
    net = L * H - 0.7

    assert parts["l"].mass_kg == pytest.approx(net * face_build(LAYERS, "left side").kg_m2)
    assert parts["o"].mass_kg == 12.0 and parts["o"].x_m == pytest.approx(1.2 + 1.5)
    assert parts["o"].y_m == pytest.approx(-W / 2) and parts["o"].z_m == pytest.approx(0.5 + 1.15)
    centre = (L * H * (L / 2) - 0.7 * 1.5) / net
    assert parts["l"].x_m == pytest.approx(1.2 + centre)


def test_sticks_carry_their_own_weight_and_give_the_framing_share():
    face = Face("l", "left side", "Left", layers=LAYERS)
    shell = a_body("box", "stick timber", faces=(face,))
    build = a_build(shell=shell)
    s = study(build, Facts())
    parts = {p.id: p for p in s.parts}
    members = [m for m in s.framed.members if m.face == "left side"]
    sums = face_sums(face, shell, framed_of(build, Facts()), library_of(()))

    assert parts["sticks-left-side"].mass_kg == pytest.approx(sum(m.mass_kg for m in members))
    moment = sum(m.mass_kg * m.at_m[0] for m in members) / sum(m.mass_kg for m in members)
    assert parts["sticks-left-side"].x_m == pytest.approx(moment)
    assert sums.sticks == pytest.approx(sum(m.shape.area for m in members) / (L * H))
    foam = (1 - sums.sticks) * 32 * 0.07
    assert parts["l"].mass_kg == pytest.approx((680 * 0.006 + foam) * 1.04 * L * H)
    r_fill, r_frame = 0.17 + 0.006 / 0.13 + 0.07 / 0.033, 0.17 + 0.006 / 0.13 + 0.07 / 0.12
    upper = 1 / (sums.sticks / r_frame + (1 - sums.sticks) / r_fill)
    lower = 0.17 + 0.006 / 0.13 + 1 / (sums.sticks / (0.07 / 0.12) + (1 - sums.sticks) / (0.07 / 0.033))
    assert sums.build.r_m2k_w == pytest.approx((upper + lower) / 2)


def test_a_typed_face_holds_its_sticks_in_its_weight():
    shell = a_body("box", "stick timber", faces=(Face("l", "left side", "Left", Mass(50.0), "weighed"),))
    parts = {p.id: p.mass_kg for p in study(a_build(shell=shell), Facts()).parts}

    assert parts["l"] == 50.0 and "sticks-left-side" not in parts and "sticks-right-side" in parts


def test_wheel_boxes_follow_the_axle_and_a_nose_box_hangs_ahead():
    shell = a_body(
        "box",
        wheel_boxes=WheelBoxes(Length(0.9), Length(0.2), Length(0.25)),
        nose_box=NoseBox(Length(0.4), Length(0.9), Length(0.5), Mass(15.0), "weighed"),
    )
    parts = {p.id: p for p in study(a_build(shell=shell), Facts()).parts}

    assert parts["wheel-boxes"].x_m == pytest.approx(3.0)  # where the axle is
    assert parts["nose-box"].x_m == pytest.approx(1.2 - 0.2) and parts["nose-box"].mass_kg == 15.0


def test_a_material_of_ones_own_weighs_and_stands_beside_the_shipped_ones():
    own = OwnMaterial("own1", "Old oak", density_kg_m3=700.0, conductivity_w_mk=0.18, source="own scale", date="2026-01-02")
    face = Face("l", "left side", "Left", layers=(Layer("l1", "own1", Length(0.02)),))
    shell = a_body("box", faces=(face,))
    parts = {p.id: p for p in study(a_build(shell=shell), Facts(materials=(own,))).parts}

    assert parts["l"].mass_kg == pytest.approx(L * H * 700 * 0.02 * 1.04)
    assert library_of((own,))["own1"].source == "own scale 2026-01-02" and "birch-ply" in library_of((own,))
    assert Framing().material == "softwood"
