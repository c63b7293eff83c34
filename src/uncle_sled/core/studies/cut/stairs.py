"""How many sheets does a size take, and where would a little less save one?

The body, or a thing made of boards, is taken off and laid out anew at every size; between two sizes that differ the edge of the
step is halved down to 2 mm. The plan at each size is the one that Sheets shows, with its own least number beside it: a stair is
as good as those plans, and no better.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Sequence

import msgspec

from uncle_sled.core.document.edits import apply, get, set_to
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.errors import SledError
from uncle_sled.core.reading.studied import Studied, study, whole
from uncle_sled.core.slow import Tell, nobody, slow
from uncle_sled.core.studies.cut.buying import lines_of
from uncle_sled.core.studies.cut.cut_from_stock import QUESTIONS, QUICK, plan_of
from uncle_sled.core.studies.cut.money import summed

LESS_M, MORE_M, STEP_M, EDGE_M = 0.30, 0.09, 0.03, 0.002
BOARDS_LESS_M, BOARDS_MORE_M = 0.09, 0.06
EDGES = (("shell.length", "Body's length"), ("shell.width", "Body's width"), ("shell.height", "Body's height"))
SIDES = ("length", "width", "height")


class At(msgspec.Struct, frozen=True):
    """What one size takes. sheets, bars: of the plan; least: sheets that no plan undercuts; money: of all that is to be bought.

    unknown: lines without a price, which the money lacks; unplaced: pieces that fit on nothing that is sold.
    """

    size_m: float
    sheets: int
    bars: int
    least: int
    money: float
    unknown: int
    unplaced: int

    @property
    def takes(self) -> tuple[int, int]:
        """What tells one step from another."""
        return self.unplaced, self.sheets


class Stair(msgspec.Struct, frozen=True):
    """One edge. at: every size that was laid out, from small to large; build: that it was laid out for, at whatever size."""

    path: str
    name: str
    now_m: float
    at: tuple[At, ...]
    build: Build
    failed: tuple[float, ...]  # sizes [m] at which it cannot be drawn

    def under(self, size_m: float) -> At | None:
        """What a size takes by the nearest that was laid out; None beyond them."""
        if not self.at or not self.at[0].size_m - STEP_M <= size_m <= self.at[-1].size_m + STEP_M:
            return None
        return min(self.at, key=lambda one: (abs(one.size_m - size_m), one.size_m))

    @property
    def steps(self) -> tuple[At, ...]:
        """Of every step the largest size that takes no more than it: where one would stop."""
        best: list[At] = []
        for one in reversed(self.at):
            if not best or one.takes < best[-1].takes:
                best.append(one)
        return tuple(reversed(best))

    def holds_for(self, build: Build) -> bool:
        """Whether a build differs from that which was laid out in this size alone, so that the stair still holds."""
        if build is self.build:
            return True
        try:
            back = apply(build, [set_to(self.path, get(self.build, self.path))])
        except SledError:
            return False
        return msgspec.structs.replace(back, road=self.build.road, work=self.build.work, set_aside=self.build.set_aside) == self.build


def at_size(build: Build, facts: Facts, path: str, size_m: float) -> At:
    """The build with one size changed, laid out. Raises: SledError: it cannot be drawn so."""
    there = apply(build, [set_to(path, {"si": round(size_m, 4), "typed": None})])
    made = plan_of(there, facts, QUICK)
    if any(plan.gap for plan in made.plan.sheets):  # where the first answer is proven least, no patience betters it
        made = plan_of(there, facts, QUESTIONS)
    money = summed(lines_of(study(there, facts), made))
    return At(
        round(size_m, 4),
        sheets=sum(plan.used for plan in made.plan.sheets),
        bars=sum(plan.used for plan in made.plan.bars),
        least=sum(plan.bound for plan in made.plan.sheets),
        money=money.mean,
        unknown=money.unknown,
        unplaced=sum(many for _, many in made.plan.unplaced),
    )


def stair_of(
    build: Build,
    facts: Facts,
    path: str,
    name: str,
    less_m: float = LESS_M,
    more_m: float = MORE_M,
    tell: Callable[[float], None] = lambda _: None,
) -> Stair | None:
    """The stair of one size, every 30 mm and at the edges of its steps to 2 mm; None where that size is not set."""
    now = get(build, path)
    if now is None or now.si <= 0:
        return None
    sizes = [now.si + STEP_M * k for k in range(-round(less_m / STEP_M), round(more_m / STEP_M) + 1) if now.si + STEP_M * k > STEP_M]
    found: dict[float, At] = {}
    failed: list[float] = []

    def look(size: float) -> At | None:
        try:
            return found.setdefault(size, at_size(build, facts, path, size))
        except SledError:
            failed.append(round(size, 4))
            return None

    for k, size in enumerate(sizes):
        tell(0.6 * k / len(sizes))
        look(size)
    known = sorted(found)
    pairs = [(a, b) for a, b in itertools.pairwise(known) if found[a].takes != found[b].takes and b - a < 1.5 * STEP_M]
    for k, (low, high) in enumerate(pairs):
        tell(0.6 + 0.4 * k / len(pairs))
        while high - low > EDGE_M + 1e-9:
            middle = low + EDGE_M * math.floor((high - low) / 2 / EDGE_M + 1e-6) if high - low > 2 * EDGE_M else low + EDGE_M
            one = look(middle)
            if one is None:
                break
            low, high = (middle, high) if one.takes == found[low].takes else (low, middle)
    return Stair(path, name, now.si, tuple(found[size] for size in sorted(found)), build, tuple(sorted(failed)))


def _one(s: Studied, tell: Tell, path: str, name: str) -> Stair | None:
    return stair_of(s.build, s.facts, path, name, tell=lambda share: tell(share, f"laying out the {name.lower()}, 30 mm at a time"))


@slow(whole)
def length_stair(s: Studied, tell: Tell = nobody) -> Stair | None:
    """The stair of the body's length."""
    return _one(s, tell, *EDGES[0])


@slow(whole)
def width_stair(s: Studied, tell: Tell = nobody) -> Stair | None:
    """The stair of the body's width."""
    return _one(s, tell, *EDGES[1])


@slow(whole)
def height_stair(s: Studied, tell: Tell = nobody) -> Stair | None:
    """The stair of the body's height."""
    return _one(s, tell, *EDGES[2])


def of_boards(things: Sequence[Thing]) -> tuple[Thing, ...]:
    """Things whose size changes what is cut."""
    return tuple(thing for thing in things if (thing.cabinet is not None or thing.base is not None) and not thing.taken_out)


@slow(whole)
def boards_stairs(s: Studied, tell: Tell = nobody) -> tuple[Stair, ...]:
    """The stairs of every size of the things made of boards that have more than one step."""
    edges = [(thing, side) for thing in of_boards(s.build.stow.things) for side in SIDES]
    made = []
    for k, (thing, side) in enumerate(edges):
        words = f"laying out {thing.name}, its {side}"
        stair = stair_of(
            s.build,
            s.facts,
            f"stow.things.{thing.id}.{side}",
            f"{thing.name}, its {side}",
            BOARDS_LESS_M,
            BOARDS_MORE_M,
            lambda share, k=k, words=words: tell((k + share) / len(edges), words),  # type: ignore[misc]
        )
        if stair is not None and len({one.takes for one in stair.at}) > 1:
            made.append(stair)
    return tuple(made)


STAIRS = {"shell.length": length_stair, "shell.width": width_stair, "shell.height": height_stair}
