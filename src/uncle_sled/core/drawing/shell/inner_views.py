"""Walls and lofts inside the body, from the left and from above: doors with their leaves, pockets dashed, guards and ladders."""

from __future__ import annotations

from uncle_sled.core.document.shell import Loft, Partition, Shell
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, line, rect
from uncle_sled.core.engine import keep
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.inner_doors import leaf_arc, leaf_room, place_in_plan
from uncle_sled.core.parts.inside import inside_of
from uncle_sled.core.parts.partitions import Deck, Wall, decks_of, inner_plan_m, walls_of
from uncle_sled.core.reading.studied import Studied

RUNG_M = 0.28


@keep("s.framed", "s.build.shell", "view", "named", most=8)
def inner_view(s: Studied, view: str, named: bool) -> tuple[Primitive, ...]:
    """All of it in the side view or the plan, metres as the rig's. Args: named: with names in the plan."""
    body, shell = s.framed.body, s.build.shell
    if body is None or not (shell.partitions or shell.lofts):
        return ()
    shapes: list[Primitive] = []
    for deck, loft in zip(decks_of(shell, body), shell.lofts, strict=True):
        if not deck.fault:
            shapes += _deck_side(deck, loft, shell, body) if view == "side" else _deck_plan(deck, loft, shell, body)
    for wall, partition in zip(walls_of(shell, body, library_of(())), shell.partitions, strict=True):
        if wall.fault:
            continue
        shapes += _wall_side(wall) if view == "side" else _wall_plan(wall, partition, named)
    return tuple(shapes)


def _wall_side(wall: Wall) -> list[Primitive]:
    """Cut through where it runs across; its outline dashed where it runs along."""
    if wall.way == "across":
        _, low, _, high = wall.outline.bounds
        wide = wall.high[0] - wall.low[0]
        shapes: list[Primitive] = [rect(wall.low[0], low, wide, high - low, stroke="ink", fill="wood", tint=0.5, width=0.9, id=wall.id)]
        if wall.door is not None:
            _, _, _, head = wall.door.bounds
            shapes.append(rect(wall.low[0], low, wide, head - low, stroke="pencil", fill="body", width=0.8, dash=(3, 3), id=wall.id))
        return shapes
    ring = tuple((float(x), float(z)) for x, z in list(wall.outline.exterior.coords)[:-1])
    return [Poly(ring, "pencil", "", 0.9, dash=(6, 3), id=wall.id)]


def _wall_plan(wall: Wall, partition: Partition, named: bool) -> list[Primitive]:
    _, foot, _, _ = wall.outline.bounds
    shapes: list[Primitive] = []
    for low, high in wall.boxes:
        if low[2] <= foot + 0.05:
            shapes.append(
                rect(low[0], low[1], high[0] - low[0], high[1] - low[1], stroke="ink", fill="wood", tint=0.55, width=1.0, id=wall.id)
            )
    shapes += _leaf(wall, partition)
    if named:
        x = (wall.low[0] + wall.high[0]) / 2
        spot = (wall.high[0] + 0.04, wall.low[1] + 0.14) if wall.way == "across" else (x, wall.high[1] + 0.1)
        anchor = "left" if wall.way == "across" else "middle"
        shapes.append(Text(spot, wall.name, 11.0, "ink", anchor=anchor, ground="paper", id=wall.id))  # type: ignore[arg-type]
    return shapes


def _leaf(wall: Wall, partition: Partition) -> list[Primitive]:
    """The door's leaf as it stands open, the room it wants, and how it gets there."""
    if wall.door is None or partition.door == "opening":
        return []
    left, _, right, _ = wall.door.bounds
    wanted = leaf_room(wall, partition)
    if wanted is not None:
        swept = tuple((float(x), float(y)) for x, y in list(wanted.shape.exterior.coords)[:-1])
        shapes: list[Primitive] = [Poly(swept, "", "ochre", 0.0, tint=0.12, id=wall.id)]
        swing = leaf_arc(wall, partition)
        if swing is not None:
            hinge, *arc = swing
            shapes += [
                Poly(tuple(arc), "pencil", "", 0.9, closed=False, dash=(3, 3), id=wall.id),
                line(hinge, arc[-1], "ink", 2.0, id=wall.id),
            ]
            return shapes
        parks = tuple((float(x), float(y)) for x, y in list(wanted.parks.exterior.coords)[:-1])
        return [*shapes, Poly(swept, "pencil", "", 0.9, dash=(3, 3), id=wall.id), Poly(parks, "ink", "wood", 1.2, tint=0.4, id=wall.id)]
    assert wall.pocket is not None
    a, b = wall.pocket
    return [
        line(place_in_plan(wall, a, 0.0), place_in_plan(wall, b, 0.0), "ink", 1.6, (4, 3), id=wall.id),
        line(
            place_in_plan(wall, left if partition.hung == "end" else right, 0.0),
            place_in_plan(wall, (left + right) / 2, 0.0),
            "rule",
            1.2,
            id=wall.id,
        ),
    ]


def _open_edges(deck: Deck, shell: Shell, body: Body) -> list[float]:
    """Stations of a loft's edges that no end wall closes."""
    front, _, rear, _ = inner_plan_m(shell, body)
    return [x for x, end in ((deck.low[0], front), (deck.high[0], rear)) if abs(x - end) > 0.02]


def _deck_side(deck: Deck, loft: Loft, shell: Shell, body: Body) -> list[Primitive]:
    wide, thick = deck.high[0] - deck.low[0], deck.high[2] - deck.low[2]
    shapes: list[Primitive] = [rect(deck.low[0], deck.low[2], wide, thick, stroke="ink", fill="wood", tint=0.6, width=1.0, id=deck.id)]
    floor = inside_of(shell, body).bounds[1]
    for x in _open_edges(deck, shell, body):
        if loft.guard is not None and loft.guard.si > 0:
            shapes.append(line((x, deck.high[2]), (x, deck.high[2] + loft.guard.si), "ink", 2.0, id=deck.id))
    edges = _open_edges(deck, shell, body)
    if loft.climb and edges:
        x = edges[-1]
        out = (0.35 if loft.climb == "ladder" else 0.9) * (1 if x == deck.high[0] else -1)
        shapes.append(line((x + out, floor), (x, deck.high[2]), "ink", 1.4, id=deck.id))
        many = max(int((deck.high[2] - floor) / RUNG_M), 1)
        for k in range(1, many + 1):
            share = k / (many + 1)
            at = (x + out * (1 - share), floor + (deck.high[2] - floor) * share)
            shapes.append(line((at[0] - 0.04, at[1]), (at[0] + 0.04, at[1]), "ink", 1.2, id=deck.id))
    return shapes


def _deck_plan(deck: Deck, loft: Loft, shell: Shell, body: Body) -> list[Primitive]:
    wide, across = deck.high[0] - deck.low[0], deck.high[1] - deck.low[1]
    shapes: list[Primitive] = [rect(deck.low[0], deck.low[1], wide, across, stroke="pencil", fill="", width=1.0, dash=(7, 3), id=deck.id)]
    for x in _open_edges(deck, shell, body):
        shapes.append(line((x, deck.low[1]), (x, deck.high[1]), "ink" if loft.guard else "ochre", 1.4, (7, 3), id=deck.id))
    return shapes
