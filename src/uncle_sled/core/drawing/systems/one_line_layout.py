"""The wiring as a diagram that lays itself out: columns from the sources to the loads, and rows without crossings where it can.

Layered drawing after Sugiyama: ranks by the longest way from a source, what runs in the last column; long wires pass columns in
lanes of their own; rows ordered depth first (no crossing in a tree), then by the middle of the neighbours where that crosses
less; heights by isotonic regression, so that nothing overlaps. In points, y up.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterable, Mapping, Sequence

import msgspec

Point = tuple[float, float]
BOX_W, BOX_H, PORT = 108.0, 38.0, 32.0
GAP_W, ROW, LANE = 84.0, 16.0, 28.0  # between columns; air between boxes; height of a lane that passes
TRACK, FIRST_TRACK = 7.0, 10.0
SWEEPS, PULLS = 8, 60


class Wants(msgspec.Struct, frozen=True):
    """A wire to be drawn from one box to another."""

    id: str
    start: str
    end: str


class BoxAt(msgspec.Struct, frozen=True):
    """Where a box stands: its middle, and its sizes."""

    id: str
    x: float
    y: float
    width: float
    height: float
    column: int


class LineAt(msgspec.Struct, frozen=True):
    """A wire's corners from box to box, and where its words stand: over the last level part of it."""

    id: str
    points: tuple[Point, ...]
    words_at: Point
    level_from: float  # x where its last level part begins
    back: bool = False  # it closes a ring, and runs back over all of it


class LaidOut(msgspec.Struct, frozen=True):
    """Where every box and wire of a diagram lies [points]."""

    boxes: tuple[BoxAt, ...]
    lines: tuple[LineAt, ...]
    width: float
    height: float


class _Node:
    """A box, or a lane that a long wire passes a column in."""

    def __init__(self, id: str, rank: int, lane: bool) -> None:
        self.id, self.rank, self.lane = id, rank, lane
        self.before: list[_Node] = []
        self.after: list[_Node] = []
        self.y = 0.0
        self.high = LANE if lane else BOX_H


def laid_out(ids: Sequence[str], wires: Sequence[Wants], last: Iterable[str] = (), widths: Mapping[str, float] | None = None) -> LaidOut:
    """Places of boxes and wires. Args: last: what stands in the last column, the loads; widths: of boxes that are no usual ones."""
    if not ids:
        return LaidOut((), (), 0.0, 0.0)
    forward = _without_rings(ids, wires)
    ranks = _ranks(ids, forward, set(last))
    nodes = {id: _Node(id, ranks[id], lane=False) for id in ids}
    chains: dict[str, list[_Node]] = {}
    lanes: list[_Node] = []
    for wire in forward:
        chain = [nodes[wire.start]]
        for rank in range(ranks[wire.start] + 1, ranks[wire.end]):
            lane = _Node(f"{wire.id}\n{rank}", rank, lane=True)
            lanes.append(lane)
            chain.append(lane)
        chain.append(nodes[wire.end])
        chains[wire.id] = chain
        for a, b in itertools.pairwise(chain):
            a.after.append(b)
            b.before.append(a)
    for node in nodes.values():
        many = max(len(node.before), 1)
        node.high = max(BOX_H, PORT * many + 6)
    layers = _ordered([*nodes.values(), *lanes], ids)
    _set_heights(layers)
    return _drawn(nodes, layers, chains, wires, widths or {})


def _without_rings(ids: Sequence[str], wires: Sequence[Wants]) -> list[Wants]:
    """The wires that lead onwards; one that closes a ring is turned round for the ranks, and drawn all the same."""
    out: dict[str, list[Wants]] = {id: [] for id in ids}
    for wire in wires:
        out[wire.start].append(wire)
    state: dict[str, int] = {}
    kept: list[Wants] = []

    def visit(id: str) -> None:
        stack = [(id, iter(out[id]))]
        state[id] = 1
        while stack:
            now, rest = stack[-1]
            for wire in rest:
                if state.get(wire.end) == 1 or wire.end == wire.start:
                    continue  # closes a ring
                kept.append(wire)
                if wire.end not in state:
                    state[wire.end] = 1
                    stack.append((wire.end, iter(out[wire.end])))
                    break
            else:
                state[now] = 2
                stack.pop()

    fed = {wire.end for wire in wires}
    for id in [*[each_id for each_id in ids if each_id not in fed], *ids]:
        if id not in state:
            visit(id)
    order = {wire.id: at for at, wire in enumerate(wires)}
    return sorted(kept, key=lambda wire: order[wire.id])


def _ranks(ids: Sequence[str], wires: Sequence[Wants], last: set[str]) -> dict[str, int]:
    ranks = dict.fromkeys(ids, 0)
    for _ in range(len(ids)):
        changed = False
        for wire in wires:
            if ranks[wire.end] < ranks[wire.start] + 1:
                ranks[wire.end], changed = ranks[wire.start] + 1, True
        if not changed:
            break
    far = max(ranks.values(), default=0)
    goes_on = {wire.start for wire in wires}
    for id in ids:
        if id in last and id not in goes_on and ranks[id] > 0:
            ranks[id] = far
    return ranks


def _ordered(nodes: list[_Node], ids: Sequence[str]) -> list[list[_Node]]:
    """Columns, each in its order from top to bottom."""
    deep = max(node.rank for node in nodes)
    layers: list[list[_Node]] = [[] for _ in range(deep + 1)]
    seen: set[str] = set()

    def visit(root: _Node) -> None:
        stack = [root]
        while stack:
            node = stack.pop()
            if node.id in seen:
                continue
            seen.add(node.id)
            layers[node.rank].append(node)
            stack += [each_node for each_node in reversed(node.after) if each_node.id not in seen]

    by_id = {node.id: node for node in nodes}
    for id in ids:
        if not by_id[id].before:
            visit(by_id[id])
    for node in nodes:
        visit(node)
    best, fewest = [list(layer) for layer in layers], _crossings(layers)
    for sweep in range(SWEEPS):
        if fewest == 0:
            break
        order = range(1, deep + 1) if sweep % 2 == 0 else range(deep - 1, -1, -1)
        for rank in order:
            at = {node.id: k for layer in layers for k, node in enumerate(layer)}
            side = "before" if sweep % 2 == 0 else "after"
            layers[rank].sort(key=lambda node: _middle([at[n.id] for n in getattr(node, side)], at[node.id]))
        now = _crossings(layers)
        if now < fewest:
            best, fewest = [list(layer) for layer in layers], now
    return best


def _middle(places: list[int], else_: int) -> float:
    return sum(places) / len(places) if places else float(else_)


def _crossings(layers: list[list[_Node]]) -> int:
    total = 0
    for left in layers:
        at = {node.id: k for k, node in enumerate(left)}
        right = layers[left[0].rank + 1] if left and left[0].rank + 1 < len(layers) else []
        to = {node.id: k for k, node in enumerate(right)}
        pairs = [(at[node.id], to[n.id]) for node in left for n in node.after if n.id in to]
        for (a, b), (c, d) in itertools.combinations(pairs, 2):
            if (a - c) * (b - d) < 0:
                total += 1
    return total


def _set_heights(layers: list[list[_Node]]) -> None:
    """Heights of the middles, growing downwards, as near to their neighbours as the order lets them."""
    for layer in layers:
        run = 0.0
        for node in layer:
            node.y = run + node.high / 2
            run += node.high + ROW
    for pull in range(PULLS):
        order = layers if pull % 2 == 0 else layers[::-1]
        for layer in order:
            wanted = [_wanted(node, pull % 2 == 0) for node in layer]
            for node, y in zip(layer, _apart(layer, wanted), strict=True):
                node.y = y
    low = min(node.y - node.high / 2 for layer in layers for node in layer)
    for layer in layers:
        for node in layer:
            node.y -= low


def _port(node: _Node, before: _Node) -> float:
    """How far off the middle of a box the wire from another comes in."""
    order = sorted(node.before, key=lambda n: (n.y, n.id))
    return 0.0 if node.lane else (order.index(before) - (len(order) - 1) / 2) * PORT


def _wanted(node: _Node, forward: bool) -> float:
    """The height at which its wires would run straight: those that come in, or those that go out."""
    near = (node.before if forward else node.after) or (node.after if forward else node.before)
    if not near:
        return node.y
    if near is node.before:
        return sum(n.y - _port(node, n) for n in near) / len(near)
    return sum(n.y + _port(n, node) for n in near) / len(near)


def _apart(layer: list[_Node], wanted: list[float]) -> list[float]:
    """The nearest heights that keep the order and the air between. Source: pool adjacent violators."""
    offsets, run = [], 0.0
    for a, b in itertools.pairwise([None, *layer]):
        run += 0.0 if a is None else (a.high + b.high) / 2 + ROW  # type: ignore[union-attr]
        offsets.append(run)
    pools: list[list[float]] = []  # sum, count
    for want, offset in zip(wanted, offsets, strict=True):
        pools.append([want - offset, 1.0])
        while len(pools) > 1 and pools[-2][0] / pools[-2][1] > pools[-1][0] / pools[-1][1]:
            last = pools.pop()
            pools[-1][0] += last[0]
            pools[-1][1] += last[1]
    flat = [total / count for total, count in pools for _ in range(int(count))]
    return [base + offset for base, offset in zip(flat, offsets, strict=True)]


def _drawn(
    nodes: dict[str, _Node], layers: list[list[_Node]], chains: dict[str, list[_Node]], wires: Sequence[Wants], widths: Mapping[str, float]
) -> LaidOut:
    high = max(node.y + node.high / 2 for layer in layers for node in layer)
    wide_of = {id: widths.get(id, BOX_W) for id in nodes}
    columns = [max((wide_of[n.id] for n in layer if not n.lane), default=0.0) for layer in layers]
    starts = [sum(columns[:k]) + k * GAP_W for k in range(len(columns))]
    width = starts[-1] + columns[-1]

    def x_of(node: _Node, side: int) -> float:
        """Its middle, or its left (-1) or right (1) edge; a lane is as wide as its column."""
        wide = columns[node.rank] if node.lane else wide_of[node.id]
        return starts[node.rank] + columns[node.rank] / 2 + side * wide / 2

    boxes = tuple(BoxAt(n.id, x_of(n, 0), high - n.y, wide_of[n.id], n.high, n.rank) for n in nodes.values())
    ports = _ports(nodes, chains)
    tracks = _tracks(layers, chains, ports)
    lines = []
    for wire in wires:
        chain = chains.get(wire.id)
        if chain is None:
            lines.append(_back(wire, nodes, high, x_of))
            continue
        points: list[Point] = [(x_of(chain[0], 1), high - chain[0].y)]
        level = points[0][0]
        for a, b in itertools.pairwise(chain):
            to = b.y if b.lane else ports[wire.id]
            x = starts[a.rank] + columns[a.rank] + tracks[a.id]
            if abs(a.y - to) > 0.01:
                points += [(x, high - a.y), (x, high - to)]
                level = x
            elif not a.lane:
                level = x_of(a, 1)
            points.append((x_of(b, -1), high - to))
        level = max(level, x_of(chain[-1], -1) - GAP_W)
        lines.append(LineAt(wire.id, tuple(points), ((level + points[-1][0]) / 2, points[-1][1]), level))
    return LaidOut(boxes, tuple(lines), width, high)


def _ports(nodes: dict[str, _Node], chains: dict[str, list[_Node]]) -> dict[str, float]:
    """Where each wire comes into its box, the upper ones above: heights downwards."""
    into: dict[str, list[tuple[float, str]]] = {id: [] for id in nodes}
    for id, chain in chains.items():
        into[chain[-1].id].append((chain[-2].y, id))
    made = {}
    for end, wires in into.items():
        node = nodes[end]
        for at, (_, id) in enumerate(sorted(wires)):
            made[id] = node.y + (at - (len(wires) - 1) / 2) * PORT
    return made


def _tracks(layers: list[list[_Node]], chains: dict[str, list[_Node]], ports: dict[str, float]) -> dict[str, float]:
    """How far behind its column each box's wires turn up and down, so that no two uprights lie in each other."""
    spans: dict[str, tuple[float, float]] = {}
    for id, chain in chains.items():
        for a, b in itertools.pairwise(chain):
            to = b.y if b.lane else ports[id]
            low, high = spans.get(a.id, (a.y, a.y))
            spans[a.id] = (min(low, to, a.y), max(high, to, a.y))
    made: dict[str, float] = {}
    for layer in layers:
        taken: list[list[tuple[float, float]]] = []
        for node in sorted((n for n in layer if n.id in spans), key=lambda n: n.y):
            span = spans[node.id]
            free = (at for at, uprights in enumerate(taken) if all(span[1] < low - 2 or span[0] > high + 2 for low, high in uprights))
            place = next(free, len(taken))
            if place == len(taken):
                taken.append([])
            taken[place].append(span)
            made[node.id] = FIRST_TRACK + place * TRACK
    most = max(made.values(), default=0.0)
    if most > GAP_W * 0.5:  # a crowd of them stands closer
        made = {id: FIRST_TRACK + (x - FIRST_TRACK) * (GAP_W * 0.5 - FIRST_TRACK) / (most - FIRST_TRACK) for id, x in made.items()}
    return made


def _back(wire: Wants, nodes: dict[str, _Node], high: float, x_of: Callable[[_Node, int], float]) -> LineAt:
    """A wire that closes a ring goes round over all of it."""
    a, b = nodes[wire.start], nodes[wire.end]
    over = high + 20 + 9 * (hash_of(wire.id) % 3)
    right, left = x_of(a, 1), x_of(b, -1)
    points = (
        (right, high - a.y + 8),
        (right + 6, high - a.y + 8),
        (right + 6, over),
        (left - 8, over),
        (left - 8, high - b.y + 10),
        (left, high - b.y + 10),
    )
    return LineAt(wire.id, points, ((right + left) / 2, over), min(left, right), back=True)


def hash_of(text: str) -> int:
    """A number from letters, the same on any machine."""
    return sum(ord(sign) * (at + 1) for at, sign in enumerate(text))
