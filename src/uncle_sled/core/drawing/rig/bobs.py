"""Which plumb-bobs hang from the beam, how big, and how low, so that their labels keep clear."""

from __future__ import annotations

import math

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.from_wiring import WIRING
from uncle_sled.core.reading.load_cases import owners_of
from uncle_sled.core.reading.studied import Studied

MOST = 14
LABEL_PX = 12.0
GROUP_NAMES = {
    "frame": "Frame",
    "shell": "Shell",
    "fresh": "Fresh",
    "grey": "Grey",
    "gas": "Gas",
    "fuel": "Fuel",
    "power": "Power",
    "cargo": "Cargo",
    "kit": "Fittings",
    "outside": "Outside",
    "vehicle": "Vehicle",
}


Floats = NDArray[np.float64]


class Bob(msgspec.Struct, frozen=True):
    """A mass on the beam: station [m], mass [kg], and the parts that it stands for."""

    ids: tuple[str, ...]
    name: str
    group: str
    mass_kg: float
    x_m: float


class Hung(msgspec.Struct, frozen=True):
    """A bob with its place on the widget: middle, drop and radius [px], and its label's side (-1, 0 none, 1)."""

    bob: Bob
    x: float
    drop: float
    radius: float
    side: int
    label: str
    crowded: bool = False  # it found no free place


class Singles(msgspec.Struct, frozen=True):
    """Every part with its contents as one weight, heaviest first; the shell's faces as one. Arrays over them."""

    ids: tuple[tuple[str, ...], ...]
    names: tuple[str, ...]
    groups: tuple[str, ...]
    mass_kg: Floats
    moment_kg_m: Floats

    def __len__(self) -> int:
        return len(self.ids)

    def bob(self, at: int) -> Bob:
        """The bob of one thing by itself."""
        return Bob(self.ids[at], self.names[at], self.groups[at], *self._sum([at]))

    def together(self, many: list[int], name: str) -> Bob:
        """Several bobs as one: their sum where it acts."""
        ids = tuple([id for at in many for id in self.ids[at]])
        return Bob(ids, name, self.groups[many[0]], *self._sum(many))

    def _sum(self, many: list[int]) -> tuple[float, float]:
        mass, moment = float(self.mass_kg[many].sum()), float(self.moment_kg_m[many].sum())
        first = many[0]
        return mass, moment / mass if abs(mass) > 1e-9 else float(self.moment_kg_m[first] / self.mass_kg[first])


@keep("s", "row", most=4)
def single_bobs(s: Studied, row: int) -> Singles:
    """The weights of a case that bobs hang for."""
    owners = owners_of(s.table.ids)
    keys, first = owners.ids, owners.first
    kg, kg_m = owners.sums(s.table.mass_kg[row]), owners.sums(s.table.mass_kg[row] * s.table.x_m[row])
    names, groups = list(s.table.names), s.table.groups
    if WIRING in keys:
        names[first[keys.index(WIRING)]] = "Wiring"
    some = np.flatnonzero(np.abs(kg) > 1e-9)
    order = some[np.argsort(-np.abs(kg[some]), kind="stable")].tolist()
    shell = [k for k in order if groups[first[k]] == "shell"]
    if len(shell) < 2:
        return Singles(
            tuple([(keys[k],) for k in order]),
            tuple([names[first[k]] for k in order]),
            tuple([groups[first[k]] for k in order]),
            kg[order],
            kg_m[order],
        )
    others = [k for k in order if groups[first[k]] != "shell"]
    body = float(kg[shell].sum())
    before = int(np.count_nonzero(np.abs(kg[others]) > abs(body)))
    ids = [(keys[k],) for k in others]
    ids.insert(before, tuple([keys[k] for k in shell]))
    return Singles(
        tuple(ids),
        (*(names[first[k]] for k in others[:before]), "Shell", *(names[first[k]] for k in others[before:])),
        (*(groups[first[k]] for k in others[:before]), "shell", *(groups[first[k]] for k in others[before:])),
        np.insert(kg[others], before, body),
        np.insert(kg_m[others], before, float(kg_m[shell].sum())),
    )


def bobs(made: Singles, most: int = MOST) -> tuple[Bob, ...]:
    """At most ``most`` bobs of the single ones: the lightest merged by group."""
    many = len(made)
    if many <= most:
        return tuple([made.bob(at) for at in range(many)])
    # groups of what is left over take a bob each, so fewer stay single
    last: dict[str, int] = {}
    for at, group in enumerate(made.groups):
        last[group] = at
    keep = next((keep for keep in range(most, 2, -1) if keep + sum(at >= keep for at in last.values()) <= most), 0)
    if keep:
        groups: dict[str, list[int]] = {}
        for at in range(keep, many):
            groups.setdefault(made.groups[at], []).append(at)
        rest = [_together(made, of, GROUP_NAMES.get(group, group)) for group, of in groups.items()]
        return (*(made.bob(at) for at in range(keep)), *rest)
    return (*(made.bob(at) for at in range(most - 1)), _together(made, list(range(most - 1, many)), "Others"))


def _together(made: Singles, many: list[int], name: str) -> Bob:
    return made.together(many, f"{name}, {len(many)} more") if len(many) > 1 else made.bob(many[0])


def hang(
    made: tuple[Bob, ...],
    x_of: float,
    scale: float,
    left: float,
    right: float,
    high: float,
    words: dict[Bob, str],
    most_crowded: int = MOST,
) -> tuple[Hung, ...]:
    """Place the bobs under the beam without their labels meeting. ``high`` is the room under the beam [px].

    Nothing where more than ``most_crowded`` find no free place: another hanging has fewer.
    """
    if not made:
        return ()
    heaviest = max(abs(bob.mass_kg) for bob in made)
    taken: list[tuple[float, float, float, float]] = []
    hung: list[Hung] = []
    for bob in made:
        x = x_of + bob.x_m * scale
        if not left <= x <= right:
            continue
        radius = max(6.0, 15.0 * math.sqrt(abs(bob.mass_kg) / heaviest))
        hung.append(_hang_one(bob, x, radius, left, right, high, words[bob], taken))
        most_crowded -= hung[-1].crowded
        if most_crowded < 0:
            return ()
    return tuple(hung)


def _hang_one(
    bob: Bob, x: float, radius: float, left: float, right: float, high: float, label: str, taken: list[tuple[float, float, float, float]]
) -> Hung:
    short = elided(label, LABEL_PX, 116)
    wide = text_width(short, LABEL_PX) + 6
    lowest = high - radius * 1.25 - 3
    drops = list(range(22, max(int(lowest) + 1, 23), 6))
    reach = max(radius + 2, radius + 4 + wide)
    everything, taken = taken, [o for o in taken if x - reach < o[2] and x + reach > o[0]]
    for with_label in (True, False):
        for drop in drops:
            body = (x - radius - 2, drop - radius - 4, x + radius + 2, drop + radius * 1.3 + 2)
            if _meets(body, taken):
                continue
            if not with_label:
                everything.append(body)
                return Hung(bob, x, drop, radius, 0, "")
            for side in (1, -1):
                start = x + side * (radius + 4)
                spot = (start, drop - 8, start + wide, drop + 8) if side > 0 else (start - wide, drop - 8, start, drop + 8)
                if spot[0] < left or spot[2] > right or _meets(spot, taken):
                    continue
                everything += [body, spot]
                return Hung(bob, x, drop, radius, side, short)
    # no free place: a small one where it covers least
    r = min(radius, 5.0)
    across = [o for o in taken if x - r < o[2] and x + r > o[0]]
    best = min(drops, key=lambda drop: (_covers((x - r, drop - r, x + r, drop + r * 1.3), across), drop))
    everything.append((x - r, best - r, x + r, best + r * 1.3))
    return Hung(bob, x, float(best), r, 0, "", crowded=True)


def _covers(spot: tuple[float, float, float, float], taken: list[tuple[float, float, float, float]]) -> float:
    """How much of what is hung already a spot would cover [px2]."""
    return sum(max(min(spot[2], o[2]) - max(spot[0], o[0]), 0.0) * max(min(spot[3], o[3]) - max(spot[1], o[1]), 0.0) for o in taken)


def _meets(spot: tuple[float, float, float, float], taken: list[tuple[float, float, float, float]]) -> bool:
    return any(spot[0] < o[2] and spot[2] > o[0] and spot[1] < o[3] and spot[3] > o[1] for o in taken)
