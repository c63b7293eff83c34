"""A bought shell: hat posts at the maker's pitch between two rails, bows under the roof, and openings framed between posts.

A post that an opening takes is carried over by a header and a bridge from the post before to the post behind; where that
cannot be, the opening is refused. Source: the trade's rule, never to cut a post without both.
"""

from __future__ import annotations

from shapely import box
from shapely.geometry import Polygon

from uncle_sled.core.document.shell import Shell
from uncle_sled.core.framing.cutter import Cutter
from uncle_sled.core.framing.laying import MOST_STATIONS, name_at
from uncle_sled.core.framing.member import Member
from uncle_sled.core.framing.school import Hole, SchoolOf, Sizes
from uncle_sled.core.materials import Material

HEADER_M = 0.05  # of steel angle or tube, seen in the wall
# A hat of 1.2 mm sheet, about 1.2 kg a metre: its weight over what it covers.
HAT = Material(
    "hat-steel",
    "Hat section, steel 1.2 mm",
    density_kg_m3=None,
    conductivity_w_mk=50.0,
    mu=1e6,
    kg_m2=31.5,
    r_m2k_w=None,
    money_m3=None,
    money_m2=30.0,
    hours_m2=0.3,
    bends="",
    source="estimated",
    family="metal",
)
ADDED = ("header", "bridge", "jamb")  # what is not the maker's
POST_MARKS = ("post",)


def posts_of(left: float, right: float, sizes: Sizes) -> list[float]:
    """Middles of the posts of a wall [m]: one at each corner, and from the first one on at the pitch."""
    b = sizes.stick[0]
    first = sizes.first if sizes.first > 0 else sizes.pitch
    made = [left + b / 2]
    for k in range(MOST_STATIONS):
        at = left + first + k * sizes.pitch
        if at > right - 1.5 * b:
            break
        if at > left + 1.5 * b:
            made.append(at)
    return [*made, right - b / 2]


def cut_posts(posts: list[float], b: float, left: float, right: float) -> list[float]:
    """Those of the posts that a hole from left to right takes."""
    return [at for at in posts if at + b / 2 > left + 1e-6 and at - b / 2 < right - 1e-6]


def bridged(posts: list[float], b: float, hole: Hole) -> tuple[float, float] | None:
    """From which post to which a header over a hole runs; None where it cuts no post, or one has none to hold on to."""
    if not cut_posts(posts, b, hole.left, hole.right):
        return None
    before = [at for at in posts if at + b / 2 <= hole.left + 1e-6]
    behind = [at for at in posts if at - b / 2 >= hole.right - 1e-6]
    return (before[-1], behind[0]) if before and behind else None


def why_not(shape: Polygon, wall: Polygon, sizes: Sizes, others: list[Polygon]) -> str:
    """Why an opening cannot be cut into a wall of posts, as the middle of a sentence; nothing where it can."""
    left, low, right, high = shape.bounds
    start, foot, end, top = wall.bounds
    posts, b = posts_of(start, end, sizes), sizes.stick[0]
    taken = cut_posts(posts, b, left, right)
    if not taken:
        return ""
    if posts[0] in taken or posts[-1] in taken:
        return "takes a corner post, which carries the roof"
    span = bridged(posts, b, Hole("", "", left, low, right, high))
    if span is None:
        return "cuts a post and leaves none beside it for a header to hold on to"
    if high + HEADER_M > top - b + 1e-6:
        return f"cuts a post and leaves {{{max(top - b - high, 0) * 1000:.0f} mm}} over it; the header wants {{{HEADER_M * 1000:.0f} mm}}"
    header = box(span[0], high, span[1], high + HEADER_M)
    bridge = box(span[0], low - HEADER_M, span[1], low)
    for other in others:
        if header.intersection(other).area > 1e-6 or (low - HEADER_M > foot + b and bridge.intersection(other).area > 1e-6):
            return "cuts a post, and its header would run through another opening"
    return ""


def wall(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """Rails at foot and top, then what holds the openings, then the posts that are left."""
    b = sizes.stick[0]
    left, low, right, high = cut.region.bounds
    cut.lay(box(left, low, right, low + b), "rail", "foot", sizes.stick, (1.0, 0.0))
    cut.lay(box(left, high - b, right, high), "rail", "top", sizes.stick, (1.0, 0.0))
    posts = posts_of(left, right, sizes)
    for at in (posts[0], posts[-1]):
        cut.upright(at, "post", name_at(at), sizes.stick, low, high)
    for hole in holes:
        span = bridged(posts, b, hole) if hole.kind != "wheel box" else None
        if span is None:
            continue
        section = (HEADER_M, sizes.stick[1])
        start, end = span[0] + b / 2, span[1] - b / 2
        cut.lay(box(start, hole.high, end, hole.high + HEADER_M), "header", hole.id, section, (1.0, 0.0))
        if hole.low - HEADER_M > low + b:
            cut.lay(box(start, hole.low - HEADER_M, end, hole.low), "bridge", hole.id, section, (1.0, 0.0))
        for side, s in (("front", hole.left - b / 2), ("rear", hole.right + b / 2)):
            cut.upright(s, "jamb", f"{hole.id}/{side}", sizes.stick, max(hole.low, low + b), hole.high)
    for at in posts[1:-1]:
        cut.upright(at, "post", name_at(at), sizes.stick, low, high)


def ribs(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """Bows across under the roof; what is under the floor is the frame's."""
    if cut.surface.kind == "floor":
        return
    left, low, right, high = cut.region.bounds
    section, b = sizes.rib, sizes.rib[0]
    first = sizes.rib_first if sizes.rib_first > 0 else sizes.rib_pitch
    stations = [left + b / 2]
    for k in range(MOST_STATIONS):
        at = left + first + k * sizes.rib_pitch
        if at > right - 1.5 * b:
            break
        if at > left + 1.5 * b:
            stations.append(at)
    stations.append(right - b / 2)
    for hole in holes:
        taken = cut_posts(stations, b, hole.left, hole.right)
        span = bridged(stations, b, hole) if taken else None
        if span is None:
            continue
        for side, t in (("low", hole.low - b / 2), ("high", hole.high + b / 2)):
            cut.level(t, "header", f"{hole.id}/{side}", section, span[0] + b / 2, span[1] - b / 2)
    for at in stations:
        cut.upright(at, "bow", name_at(at), section, low, high)


def come_in_since(shell: Shell, members: tuple[Member, ...]) -> tuple[Member, ...]:
    """Of all sticks those that are not the maker's: headers, bridges and jambs of what was cut since it was bought; all of any other shell."""
    if shell.framing.school != BOUGHT.name:
        return members
    since = {opening.id for opening in shell.openings if opening.cut_since}
    return tuple(m for m in members if m.role in ADDED and m.anchor.split("/")[0] in since)


BOUGHT = SchoolOf(
    "bought shell",
    "Hat posts and bows as the maker set them; openings framed between posts",
    sizes=Sizes(
        0.50, 0.60, stick=(0.038, 0.025), rib=(0.038, 0.025), joist=(0.038, 0.025), sheet_width=1.22, sheet_length=2.44, side_thick=0.0
    ),
    imperial=Sizes(
        0.4064,
        0.6096,
        stick=(0.0381, 0.0254),
        rib=(0.0381, 0.0254),
        joist=(0.0381, 0.0254),
        sheet_width=1.2192,
        sheet_length=2.4384,
        side_thick=0.0,
    ),
    wall=wall,
    ribs=ribs,
    forms=("profile", "box", "flat", "shed", "gable", "bevelled"),
    feet=True,
    material=HAT,
    refuses=why_not,
)
