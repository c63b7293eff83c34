"""Edits of a profile's points and handles, in shares of length and height; tangents are kept unless they are broken.

The body's height follows its highest point, so that a curve pulled up makes a higher body and not a wrong one.
"""

from __future__ import annotations

import math
from typing import Any, Literal

import msgspec
import numpy as np
from shapely.geometry import Polygon

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.shell import ProfileNode, Shell
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.geometry.profile import flatten

Part = Literal["node", "in", "out"]
Nodes = tuple[ProfileNode, ...]
NO_CURVE = "There is no curve yet to put a point on; take one of the silhouettes first."
SMOOTH_DEG = 3.0  # handles nearer to one line than this are kept on one line


def is_smooth(node: ProfileNode) -> bool:
    """Whether both handles are out and on one line through the node."""
    a = (node.in_u - node.u, node.in_v - node.v)
    b = (node.out_u - node.u, node.out_v - node.v)
    la, lb = math.hypot(*a), math.hypot(*b)
    if la < 1e-6 or lb < 1e-6:
        return False
    return (a[0] * b[0] + a[1] * b[1]) / (la * lb) < -math.cos(math.radians(SMOOTH_DEG))


def moved(nodes: Nodes, at: int, part: Part, u: float, v: float, break_tangent: bool = False) -> Nodes:
    """A point or one of its handles at another place; the feet stay on the floor line at their ends."""
    node = nodes[at]
    foot = at in (0, len(nodes) - 1)
    if part == "node":
        if foot:
            return nodes
        du, dv = u - node.u, v - node.v
        new = ProfileNode(u, v, node.in_u + du, node.in_v + dv, node.out_u + du, node.out_v + dv)
    else:
        smooth = is_smooth(node) and not break_tangent
        new = msgspec.structs.replace(node, in_u=u, in_v=v) if part == "in" else msgspec.structs.replace(node, out_u=u, out_v=v)
        long = math.hypot(u - node.u, v - node.v)
        if smooth and long > 1e-6:
            other = (node.out_u, node.out_v) if part == "in" else (node.in_u, node.in_v)
            keep = math.hypot(other[0] - node.u, other[1] - node.v) / long
            far = (node.u - (u - node.u) * keep, node.v - (v - node.v) * keep)
            new = (
                msgspec.structs.replace(new, out_u=far[0], out_v=far[1])
                if part == "in"
                else msgspec.structs.replace(new, in_u=far[0], in_v=far[1])
            )
    return (*nodes[:at], new, *nodes[at + 1 :])


def with_point(nodes: Nodes, u: float, v: float) -> tuple[Nodes, int]:
    """One more point on the curve where it is nearest; the curve keeps its shape. Source: de Casteljau's division.

    Raises: GeometryError: no curve yet.
    """
    if len(nodes) < 2:
        raise GeometryError(NO_CURVE)
    best = (math.inf, 0, 0.5)
    for at in range(len(nodes) - 1):
        span = _span(nodes[at], nodes[at + 1])
        for t in np.linspace(0.02, 0.98, 49):
            p = _point(span, float(t))
            best = min(best, (math.hypot(p[0] - u, p[1] - v), at, float(t)))
    _, at, t = best
    a, b = nodes[at], nodes[at + 1]
    p = _span(a, b)
    ab, bc, cd = (p[k] + (p[k + 1] - p[k]) * t for k in range(3))
    abc, bcd = ab + (bc - ab) * t, bc + (cd - bc) * t
    mid = abc + (bcd - abc) * t
    straight = _straight(a, b)
    if straight:
        new = ProfileNode(*mid, *mid, *mid)
        return (*nodes[: at + 1], new, *nodes[at + 1 :]), at + 1
    first = msgspec.structs.replace(a, out_u=float(ab[0]), out_v=float(ab[1]))
    last = msgspec.structs.replace(b, in_u=float(cd[0]), in_v=float(cd[1]))
    new = ProfileNode(*(float(x) for x in (*mid, *abc, *bcd)))
    return (*nodes[:at], first, new, last, *nodes[at + 2 :]), at + 1


def without_point(nodes: Nodes, at: int) -> Nodes:
    """The profile without one of its points. Raises: GeometryError: the feet, or too few left."""
    if at in (0, len(nodes) - 1):
        raise GeometryError("The profile's two feet stay; take another point out.")
    if len(nodes) <= 3:
        raise GeometryError("A profile needs three points at least.")
    return (*nodes[:at], *nodes[at + 1 :])


def smoothed(nodes: Nodes, at: int) -> Nodes:
    """A corner made round, or a round point made a corner."""
    node = nodes[at]
    if at in (0, len(nodes) - 1):
        raise GeometryError("A foot is a corner; round the point above it.")
    if is_smooth(node):
        corner = ProfileNode(node.u, node.v, node.u, node.v, node.u, node.v)
        return (*nodes[:at], corner, *nodes[at + 1 :])
    before, after = nodes[at - 1], nodes[at + 1]
    du, dv = after.u - before.u, after.v - before.v
    reach = 0.22
    new = ProfileNode(node.u, node.v, node.u - du * reach, node.v - dv * reach, node.u + du * reach, node.v + dv * reach)
    return (*nodes[:at], new, *nodes[at + 1 :])


def profile_ops(shell: Shell, nodes: Nodes) -> list[Op]:
    """Ops that take a profile, with the body's height following its highest point.

    Raises: GeometryError: the profile crosses itself, runs under the floor or has no height.
    """
    share = flatten(nodes)
    top = float(share[:, 1].max())
    if top <= 0.02:
        raise GeometryError("The profile has no height; pull a point up.")
    if float(share[:, 1].min()) < -0.02:
        raise GeometryError("The profile would run under the floor.")
    if not Polygon(share).is_valid:
        raise GeometryError("The profile would cross itself.")
    ops: list[Op] = []
    if abs(top - 1) > 1e-6 and shell.height is not None:
        nodes = tuple(ProfileNode(n.u, n.v / top, n.in_u, n.in_v / top, n.out_u, n.out_v / top) for n in nodes)
        ops.append(set_to("shell.height", {"si": round(shell.height.si * top, 4), "typed": None}))
    return [set_to("shell.profile", _plain(nodes)), *ops]


def _plain(nodes: Nodes) -> Any:
    return msgspec.to_builtins(tuple(ProfileNode(*(round(float(v), 6) for v in msgspec.structs.astuple(node))) for node in nodes))


def _span(a: ProfileNode, b: ProfileNode) -> list[Any]:
    return [np.array(p) for p in ((a.u, a.v), (a.out_u, a.out_v), (b.in_u, b.in_v), (b.u, b.v))]


def _straight(a: ProfileNode, b: ProfileNode) -> bool:
    return math.hypot(a.out_u - a.u, a.out_v - a.v) < 1e-9 and math.hypot(b.in_u - b.u, b.in_v - b.v) < 1e-9


def _point(span: list[Any], t: float) -> Any:
    p0, p1, p2, p3 = span
    return (1 - t) ** 3 * p0 + 3 * (1 - t) ** 2 * t * p1 + 3 * (1 - t) * t**2 * p2 + t**3 * p3
