"""Points and handles of a profile: tangents kept, the curve unchanged by one more point, bad shapes refused."""

import numpy as np
import pytest

from tests.builders import a_body
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.project import Build
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.geometry.profile import flatten, outline
from uncle_sled.core.geometry.profile_edit import is_smooth, moved, profile_ops, smoothed, with_point, without_point

NODES = PRESETS["round nose, straight tail"]
TOP = 2  # the smooth point on the roof


def test_a_handle_turns_the_other_one_with_it_unless_the_tangent_is_broken():
    assert is_smooth(NODES[TOP]) and not is_smooth(NODES[3])
    kept = moved(NODES, TOP, "in", 0.2, 0.9)[TOP]
    before, after = NODES[TOP], kept
    assert is_smooth(kept)
    assert np.hypot(after.out_u - after.u, after.out_v - after.v) == pytest.approx(
        np.hypot(before.out_u - before.u, before.out_v - before.v)
    )
    broken = moved(NODES, TOP, "in", 0.2, 0.9, break_tangent=True)[TOP]
    assert not is_smooth(broken) and (broken.out_u, broken.out_v) == (before.out_u, before.out_v)


def test_a_point_takes_its_handles_along_and_the_feet_stay():
    node = moved(NODES, TOP, "node", 0.4, 0.95)[TOP]
    assert node.in_u - node.u == pytest.approx(NODES[TOP].in_u - NODES[TOP].u)
    assert moved(NODES, 0, "node", 0.3, 0.3) is NODES and moved(NODES, len(NODES) - 1, "node", 0.3, 0.3) is NODES


@pytest.mark.parametrize(("u", "v"), [(0.1, 0.8), (0.7, 0.95), (0.98, 0.4)])
def test_one_more_point_does_not_change_the_curve(u, v):
    nodes, at = with_point(NODES, u, v)
    before, after = flatten(NODES, (60.0, 60.0)), flatten(nodes, (60.0, 60.0))

    assert len(nodes) == len(NODES) + 1 and 0 < at < len(nodes) - 1
    area = [abs(np.trapezoid(p[:, 1], p[:, 0])) for p in (before, after)]
    assert area[0] == pytest.approx(area[1], rel=1e-4)
    assert len(without_point(nodes, at)) == len(NODES)


def test_rounding_and_creasing():
    assert is_smooth(smoothed(NODES, 3)[3]) and not is_smooth(smoothed(NODES, TOP)[TOP])
    for bad in (0, len(NODES) - 1):
        with pytest.raises(GeometryError, match="foot"):
            smoothed(NODES, bad)
        with pytest.raises(GeometryError, match="feet"):
            without_point(NODES, bad)
    with pytest.raises(GeometryError, match="three points"):
        without_point(NODES[:2] + NODES[-1:], 1)


def test_the_height_follows_the_highest_point():
    build = Build("b", "b", shell=a_body("profile"))
    higher = apply(build, profile_ops(build.shell, moved(NODES, TOP, "node", 0.38, 1.1)))

    assert higher.shell.height.si > 2.1 * 1.08 and higher.shell.height.typed is None
    assert max(p.v for p in higher.shell.profile) <= 1.0 + 1e-6
    top = outline(higher.shell).polygon[:, 1].max()
    assert top == pytest.approx(0.5 + higher.shell.height.si, abs=2e-3)


@pytest.mark.parametrize(("at", "u", "v", "says"), [(3, -0.3, 0.5, "cross itself"), (3, 0.94, -0.4, "under the floor")])
def test_a_profile_that_cannot_be_is_refused(at, u, v, says):
    with pytest.raises(GeometryError, match=says):
        profile_ops(a_body("profile"), moved(NODES, at, "node", u, v))


def test_a_profile_without_height_is_refused():
    flat = NODES
    for at in range(1, len(NODES) - 1):
        flat = (*flat[:at], type(NODES[0])(at / 5, 0.0, at / 5, 0.0, at / 5, 0.0), *flat[at + 1 :])
    with pytest.raises(GeometryError, match="no height"):
        profile_ops(a_body("profile"), flat)
