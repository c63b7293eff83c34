"""A step in the round: what was there before it light, what it puts on strong, from where most of that is seen.

Of a few sides, with and without the roof and the walls before it, the one is taken that shows the most of the new pieces; a face that
has to go off for that costs a little. Grey, for any printer.
"""

from __future__ import annotations

import itertools
import math

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.drawing.primitives import Poly, Primitive, Raster, Text
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.round.round_piece import RoundPiece
from uncle_sled.core.round.seen import Picture, Scene, Sight, fitting, seen
from uncle_sled.core.round.shaded import Tones, shaded
from uncle_sled.core.studies.build.what_it_is import START

PIXELS_PT = 200 / 72  # of the print, a point: 200 to the inch
LIGHT, LIGHT_LINE, STRONG, STRONG_LINE, PALEST = 248.0, 186.0, 208.0, 0.0, 0.72
SMALL = (150, 100)  # of a trial picture
LEAST_PX, OFF_COST, BELOW_COST, ENOUGH = 3, 0.06, 0.15, 0.8
LABEL = 7.5
SIDES: tuple[tuple[float, float, tuple[str, str]], ...] = (
    (35.0, 25.0, ("left side", "rear")),
    (325.0, 25.0, ("right side", "rear")),
    (145.0, 25.0, ("left side", "front")),
    (215.0, 25.0, ("right side", "front")),
)
BELOW = (35.0, -32.0)


Run = tuple[str, tuple[tuple[float, float, float], ...]]


class StepView(msgspec.Struct, frozen=True, eq=False):
    """What of all pieces a step shows. there: (n,) that stand there or are put on; new: (n,) of those what it puts on."""

    there: NDArray[np.bool_]
    new: NDArray[np.bool_]


def step_view(pieces: tuple[RoundPiece, ...], task: str, before: frozenset[str], on: tuple[str, ...] = ()) -> StepView:
    """Args: before: tasks that are done when it begins; on: those whose pieces it works on, where it puts none on."""
    new = np.array([piece.by == task or (piece.made == task and piece.by not in before) for piece in pieces], dtype=bool)
    if not new.any():
        new = np.array([piece.by in on or piece.made in on for piece in pieces], dtype=bool)
    old = np.array([piece.by == START or piece.by in before for piece in pieces], dtype=bool)
    return StepView(old | new, new)


def best_look(scene: Scene, pieces: tuple[RoundPiece, ...], view: StepView) -> tuple[Sight, tuple[str, ...]]:
    """From where it is drawn, and which faces are taken off for that."""
    tried: list[tuple[float, Sight, tuple[str, ...]]] = []
    for cover in (False, True):  # with all that is there first: nothing is taken off without need
        for around, over, near in SIDES:
            sight = Sight(around, over)
            alone = _pixels(scene, pieces, view.new, view.there, sight)
            offs: tuple[tuple[str, ...], ...] = ((),) if not cover else (("roof",), (near[0],), ("roof", near[0]), ("roof", *near))
            for off in offs:
                tried.append((_score(scene, pieces, view, sight, off, alone), sight, off))
        if max(score for score, _, _ in tried) >= ENOUGH:
            break
    else:
        below = Sight(*BELOW)
        alone = _pixels(scene, pieces, view.new, view.there, below)
        tried.append((_score(scene, pieces, view, below, (), alone) - BELOW_COST, below, ()))
    _, sight, off = max(tried, key=lambda one: one[0])
    return sight, off


def _without(pieces: tuple[RoundPiece, ...], view: StepView, off: tuple[str, ...]) -> NDArray[np.bool_]:
    """What is drawn: what is taken off is of before the step only."""
    gone = np.array([piece.of in off for piece in pieces], dtype=bool)
    return np.asarray(view.there & (view.new | ~gone))


def _pixels(
    scene: Scene, pieces: tuple[RoundPiece, ...], shown: NDArray[np.bool_], fitted: NDArray[np.bool_], sight: Sight
) -> NDArray[np.int64]:
    """Of each piece the pixels of a small picture, shape (n,). Args: fitted: what the picture is as large as."""
    picture = seen(scene, fitting(scene, sight, SMALL, fitted), SMALL, shown)
    return np.bincount(scene.solid[picture.face[picture.face >= 0]], minlength=len(pieces))


def _score(
    scene: Scene, pieces: tuple[RoundPiece, ...], view: StepView, sight: Sight, off: tuple[str, ...], alone: NDArray[np.int64]
) -> float:
    """How much of the new pieces is seen: the mean of every piece's share, and of all of them together, less what goes off for it.

    Args: alone: their pixels with nothing before them.
    """
    px = _pixels(scene, pieces, _without(pieces, view, off), view.there, sight)
    mine = view.new & (alone >= LEAST_PX)
    if not mine.any():
        return 0.0
    each = np.minimum(px[mine] / alone[mine], 1.0)
    return float(0.5 * each.mean() + 0.5 * px[mine].sum() / alone[mine].sum()) - OFF_COST * len(off)


def step_picture(
    scene: Scene,
    pieces: tuple[RoundPiece, ...],
    view: StepView,
    labels: dict[str, str],
    room: tuple[float, float],
    runs_m: tuple[Run, ...] = (),
) -> tuple[tuple[Primitive, ...], tuple[str, ...]]:
    """The picture in a room of points with numbers on what is new, and the faces that were taken off for it.

    Args: labels: numbers by the keys of pieces; runs_m: wires and the like, each with its number and its way through space [m].
    """
    wide, high = room
    if view.new.any():
        sight, off = best_look(scene, pieces, view)
    else:
        sight, off = Sight(35.0, 25.0), ("roof", "left side", "rear") if runs_m else ()
    size = (round(wide * PIXELS_PT), round(high * PIXELS_PT))
    shown = _without(pieces, view, off)
    sight = fitting(scene, sight, size, shown)
    shapes = _seen(scene, pieces, view, sight, shown, labels, size, room)
    return (*shapes, *_runs(runs_m, sight, size, high)), off


SQUARE: dict[str, tuple[float, float]] = {
    "floor": (90.0, 89.0),
    "left side": (90.0, 0.0),
    "right side": (270.0, 0.0),
    "front": (180.0, 0.0),
    "rear": (0.0, 0.0),
    "roof": (90.0, 89.0),
}
MANY, LEAST_ON_FACE = 14, 4  # pieces of a step from which each face has its own picture; and of a face


def face_pictures(
    scene: Scene, pieces: tuple[RoundPiece, ...], view: StepView, labels: dict[str, str], room: tuple[float, float]
) -> tuple[tuple[str, tuple[Primitive, ...]], ...]:
    """Each face of a step with many pieces, seen square on with what is new of it alone: kind of face and picture."""
    of: dict[str, list[int]] = {}
    for k, piece in enumerate(pieces):
        if view.new[k] and piece.of in SQUARE and piece.key in labels:
            of.setdefault(piece.of, []).append(k)
    if sum(len(mine) for mine in of.values()) < MANY:
        return ()
    made = []
    size = (round(room[0] * PIXELS_PT), round(room[1] * PIXELS_PT))
    for kind, mine in of.items():
        if len(mine) < LEAST_ON_FACE:
            continue
        shown = np.zeros(len(pieces), dtype=bool)
        shown[mine] = True
        alone = StepView(shown, shown)
        sight = fitting(scene, Sight(*SQUARE[kind]), size, shown)
        made.append((kind, _seen(scene, pieces, alone, sight, shown, labels, size, room)))
    return tuple(made)


def _seen(
    scene: Scene,
    pieces: tuple[RoundPiece, ...],
    view: StepView,
    sight: Sight,
    shown: NDArray[np.bool_],
    labels: dict[str, str],
    size: tuple[int, int],
    room: tuple[float, float],
) -> tuple[Primitive, ...]:
    picture = seen(scene, sight, size, shown)
    tone, line = np.where(view.new, STRONG, LIGHT)[:, None], np.where(view.new, STRONG_LINE, LIGHT_LINE)[:, None]
    grey = shaded(scene, picture, Tones(tone, line, (255.0,), heavy=view.new, darkest=PALEST))
    return (Raster((0.0, 0.0), *room, grey.tobytes(), size), *_numbers(scene, pieces, view, picture, labels, room[1]))


def _runs(runs_m: tuple[Run, ...], sight: Sight, size: tuple[int, int], high: float) -> list[Primitive]:
    """Wires over the picture, their numbers at the middle of their ways."""
    made: list[Primitive] = []
    numbers: list[Primitive] = []
    taken: list[Spot] = []
    axes, at = sight.axes, np.array(sight.at)
    for number, way in runs_m:
        if len(way) < 2:
            continue
        flat = (np.array(way, dtype=float) - at) @ axes[:2].T * sight.scale
        points = [((size[0] / 2 + x) / PIXELS_PT, high - (size[1] / 2 - y) / PIXELS_PT) for x, y in flat.tolist()]
        made.append(Poly(tuple(points), "ink", "", 1.1, closed=False))
        for place in _along(points):
            spot = _spot(place, number)
            if not _meets(spot, taken):
                taken.append(spot)
                numbers.append(Text(place, number, LABEL, "ink", "strong", ground="paper"))
                break
    return made + numbers


def _along(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """Places along a way: first its middle, then its halves, and so on."""
    ways = [math.dist(a, b) for a, b in itertools.pairwise(points)]
    whole = sum(ways)
    made = []
    for share in (0.5, 0.25, 0.75, 0.125, 0.375, 0.625, 0.875, 0.97):
        left = share * whole
        for k, long in enumerate(ways):
            if left <= long or k == len(ways) - 1:
                part = min(left / long, 1.0) if long > 0 else 0.0
                (ax, ay), (bx, by) = points[k], points[k + 1]
                made.append((ax + (bx - ax) * part, ay + (by - ay) * part))
                break
            left -= long
    return made


Spot = tuple[float, float, float, float]


def _spot(at: tuple[float, float], text: str) -> Spot:
    """The room that a number takes round its middle."""
    half = text_width(text, LABEL, "strong") / 2 + 3
    return at[0] - half, at[1] - LABEL * 0.7, at[0] + half, at[1] + LABEL * 0.7


def _meets(spot: Spot, taken: list[Spot]) -> bool:
    return any(spot[0] < b[2] and spot[2] > b[0] and spot[1] < b[3] and spot[3] > b[1] for b in taken)


def _numbers(
    scene: Scene, pieces: tuple[RoundPiece, ...], view: StepView, picture: Picture, labels: dict[str, str], high: float
) -> list[Primitive]:
    """Numbers on the new pieces where they are seen, the largest first; none over another."""
    rows, columns = np.nonzero(picture.face >= 0)
    of = scene.solid[picture.face[rows, columns]]
    px = np.bincount(of, minlength=len(pieces))
    order, first = np.argsort(of, kind="stable"), np.cumsum(px) - px
    named = [k for k, piece in enumerate(pieces) if view.new[k] and px[k] >= 40 and piece.key in labels]
    taken: list[Spot] = []
    made: list[Primitive] = []
    seen_: set[str] = set()
    for k in sorted(named, key=lambda k: (-int(px[k]), k)):
        text = labels[pieces[k].key]
        mine = order[first[k] : first[k] + px[k]]
        y, x = rows[mine], columns[mine]
        near = int(np.argmin((x - x.mean()) ** 2 + (y - y.mean()) ** 2))  # on the piece, also of one with a hole
        at = (float(x[near] + 0.5) / PIXELS_PT, high - float(y[near] + 0.5) / PIXELS_PT)
        spot = _spot(at, text)
        if text in seen_ or _meets(spot, taken):
            continue
        taken.append(spot)
        seen_.add(text)
        made.append(Text(at, text, LABEL, "ink", "strong", ground="paper"))
    return made


def runs(numbers: list[str]) -> str:
    """Numbers in words: neighbours as from and to."""
    parts = [(text.rpartition("-")[0], text.rpartition("-")[2]) for text in numbers]
    groups: list[list[str]] = []
    for (letters, count), text in zip(parts, numbers, strict=True):
        digits = count.split(" ")[0]
        last = groups[-1][-1] if groups else ""
        before, _, at = last.rpartition("-")
        follows = before == letters and digits.isdigit() and at.split(" ")[0].isdigit() and int(digits) == int(at.split(" ")[0]) + 1
        if follows and count.partition(" ")[2] == at.partition(" ")[2]:
            groups[-1].append(text)
        else:
            groups.append([text])
    return ", ".join(
        group[0] if len(group) == 1 else f"{group[0]} to {group[-1]}" if len(group) > 2 else ", ".join(group) for group in groups
    )
