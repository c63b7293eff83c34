"""What can be tried: one move or two and, where it is not welded yet, another place for the axle.

Every candidate is first judged by the linear statics, then the whole build with it is judged
again: a remedy clears its finding, adds no stop and makes no case worse, or it is not offered.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from functools import cached_property

import msgspec
import numpy as np
from msgspec.structs import replace
from numpy.typing import NDArray

from uncle_sled.core.document.edits import Op, apply, set_to
from uncle_sled.core.document.placing import axle_shift_ops
from uncle_sled.core.findings.all_findings import RULES, findings, judged
from uncle_sled.core.findings.finding import RANK, Finding, Remedy, told
from uncle_sled.core.findings.rule import Cure
from uncle_sled.core.findings.stow.single_things import FAR_M
from uncle_sled.core.findings.stow.tie_downs import held_words
from uncle_sled.core.parts.from_stow import standing_size_m
from uncle_sled.core.reading.limits import use
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied, study, whole
from uncle_sled.core.remedies.linear_moves import Moves, carry_ops, clears, hardness, heaviest_first, moves_of, shift_of, state, worse
from uncle_sled.core.slow import Tell, nobody, slow
from uncle_sled.core.studies.balance.axle_placing import axle_placing
from uncle_sled.core.studies.stow.free_places import LONGEST_M
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.words import Words, lower_first

TRIES = 14
ON_THE_WHEELS = ("ball-", "over-", "leans", "jack", "tail-", "tank-far", "axle")  # codes that are told by the reading
TOLD_KG = 0.5  # less on the ball is not worth a word
CLEARINGS = 16
HEIGHTS = 6  # of the hitch that are tried for one finding
PAIR_THINGS, PAIR_PLACES = 8, 42
MOST_MOVED = 40
BUDGET = 60_000  # things judged over all tries: bounded by tries, never by a clock
SPLIT = "\x1f"
# How far into the band a move should land at best, as a share of its width.
DEPTHS = (0.35, 0.2, 0.08, 0.0)


FIRST = 1e3  # what stands before every other candidate costs so much less


class Candidate(msgspec.Struct, frozen=True):
    """An edit and what it costs in trouble: metres times how hard the thing is to move."""

    cost: float
    ops: tuple[Op, ...]
    says: Callable[[str], str]


@slow(whole, lane="remedies")
def with_remedies(s: Studied, tell: Tell) -> tuple[Finding, ...]:
    """The findings of a build, each with a remedy that was tried or the reason why there is none."""
    return settled(s, findings(s), tell)


def settled(s: Studied, wanted: Sequence[Finding], tell: Tell = nobody) -> tuple[Finding, ...]:
    """The same of some of the findings of a build alone."""
    made = []
    search = _Search(s, findings(s), tell)
    for at, finding in enumerate(wanted):
        if finding.remedy or finding.why_none or finding.set_aside:
            made.append(finding)
            continue
        tell(at / len(wanted), f"looking for what helps: {lower_first(finding.title)}")
        remedy = search.remedy_for(finding)
        made.append(finding.settled_by(remedy, None if remedy else search.why_none(finding)))
    return tuple(told(search.refer(each), search.words) for each in made)


class _Search:
    """Candidate places of every movable thing, worked out once for all findings of a build."""

    def __init__(self, s: Studied, found: tuple[Finding, ...], tell: Tell) -> None:
        self.s, self.found, self.tell = s, found, tell
        self.left = max(BUDGET // (len(s.build.stow.things) + 20), 2 * TRIES)  # whole builds that may be judged
        self.words = Words(s.build.brief.reading.shown())
        self.before = state(s)
        self.screened: Counter[str] = Counter()  # free places held against a finding by the statics, by its id
        self.held: Counter[str] = Counter()  # how many things were
        self.judged: Counter[str] = Counter()  # single moves judged whole
        self.paired: Counter[str] = Counter()  # pairs held against it by the statics
        self.settles: dict[tuple[str, tuple[str, ...]], list[Finding]] = {}  # what a remedy of another finding settles too
        self.edits_tried: set[tuple[str, tuple[str, ...]]] = set()  # findings whose plain edit was tried and did not do
        self.room = room_of(s.build, s.facts)

    @cached_property
    def moves(self) -> list[Moves]:
        """Free places of the heaviest things: what weighs little settles little."""
        heavy = heaviest_first(self.s.build)[:MOST_MOVED]
        found = []
        for at, thing in enumerate(heavy):
            self.tell(None, f"looking for free places: {lower_first(thing.name)}, {at + 1} of {len(heavy)}")
            found.append(moves_of(self.s, thing, self.room))
        return [move for move in found if move is not None]

    def remedy_for(self, finding: Finding) -> Remedy | None:
        rule = RULES[finding.code]
        if rule.helps == "nothing":
            return None
        if rule.cure is not None:
            for cure in (rule.cure, *rule.more):
                remedy = self._edited(finding, cure)
                if remedy is not None:
                    return remedy
            return None
        if rule.helps == "free place":
            return self._cleared(finding)
        for depth in DEPTHS:
            remedy = self._first_that_helps(sorted(self._candidates(finding, depth), key=lambda c: c.cost)[:TRIES], finding)
            if remedy:
                return remedy
        if finding.code == "tank-far":
            return None
        for depth in DEPTHS[1:]:
            remedy = self._first_that_helps(self._pairs(finding, depth), finding)
            if remedy:
                return remedy
        return self._axle_at_least(finding)

    def _axle_at_least(self, finding: Finding) -> Remedy | None:
        """An axle that stands nowhere yet gets its place whatever else stands: only a stop is a reason against it, the rest is told."""
        if not finding.code.startswith("ball-"):
            return None
        return next((remedy for axle in self._axle_moves(DEPTHS[0]) if (remedy := self._tried(axle, finding, telling=True))), None)

    def _first_that_helps(self, candidates: list[Candidate], finding: Finding) -> Remedy | None:
        for candidate in candidates:
            if self.left <= 0:
                return None
            self.left -= 1
            self.judged[finding.id] += 1
            self.tell(None, f"trying what helps: {lower_first(finding.title)}")
            remedy = self._tried(candidate, finding)
            if remedy:
                return remedy
        return None

    def _candidates(self, finding: Finding, depth: float) -> Iterator[Candidate]:
        if finding.code.startswith("ball-"):
            yield from self._axle_moves(depth)
        if self.s.support is not None and self.s.support.independent and finding.code != "leans":
            yield from self._hitch_heights(finding, depth)
        own = [move for move in self.moves if finding.code != "tank-far" or move.thing.id in finding.where]
        self.screened[finding.id] = sum(len(move.x) for move in own)
        self.held[finding.id] = len(own)
        for move in own:
            yield from self._best_places(finding, move, depth)

    def _edited(self, finding: Finding, cure: Cure) -> Remedy | None:
        """One plain edit: thin sheets for a thick one, a seal, a drip edge, straps."""
        made = cure(self.s, finding)
        if made is None:
            return None
        self.edits_tried.add(finding.key)
        return self._tried(Candidate(0.0, made[0], lambda after: f"{made[1]}: {after}."), finding)

    def _cleared(self, finding: Finding) -> Remedy | None:
        """The nearest free place of either party, the lighter one first."""
        things = [t for t in self.s.build.stow.things if t.id in finding.where]
        candidates: list[Candidate] = []
        for thing in sorted(things, key=lambda t: t.mass.si):
            self.tell(None, f"looking for free places: {lower_first(thing.name)}")
            move = moves_of(self.s, thing, self.room, keeps_clear=True)
            if move is None:
                continue
            away = _away(move)
            near: dict[tuple[int, int, int], int] = {}
            for at in np.argsort(away):
                spot = (round(float(move.x[at]) / 0.2), round(float(move.y[at]) / 0.2), round(float(move.z[at]) / 0.1))
                near.setdefault(spot, int(at))
            chosen = [at for at in near.values() if away[at] > 0.002][:CLEARINGS]
            candidates += [self._move(move, at, float(away[at])) for at in chosen]
        return self._first_that_helps(sorted(candidates, key=lambda c: c.cost), finding)

    def _axle_moves(self, depth: float) -> Iterator[Candidate]:
        """An axle that is not welded yet: the nearest place so deep in its window, the window's middle, and the best.

        Where no place serves every case the best still takes the worst away, which a negative ball waits for.
        """
        s = self.s
        if s.build.rig.axle_place != "to be placed" or s.support is None:
            return
        placing = axle_placing(s)
        if placing is None:
            return
        now, targets = s.support.mean_axle_m, [placing.best_m]
        low, high = placing.window_m or (-LONGEST_M, LONGEST_M)
        if placing.window_m is not None:
            inset = depth * (high - low)
            targets = [min(max(now, low + inset), high - inset), (low + high) / 2, placing.best_m]
        for target in dict.fromkeys(round(at, 2) for at in targets):
            by = target - now
            if abs(by) < 0.005 or target > LONGEST_M or not low <= target <= high:
                continue
            yield self._axle_at(target, by)

    def _axle_at(self, target: float, by: float) -> Candidate:
        def says(after: str) -> str:
            way = "back" if by > 0 else "forward"
            return f"Weld the axle {self.words.m(abs(by))} further {way}, at {self.words.m(target)} from the ball: {after}."

        # before anything is moved: where it will be welded is open, and everything else follows from it
        return Candidate(abs(by) - FIRST, tuple(axle_shift_ops(self.s.build, by)), says)

    def _hitch_heights(self, finding: Finding, depth: float) -> Iterator[Candidate]:
        """Independent axles share by the hitch's height: the smallest change that helps."""
        s, rig = self.s, self.s.build.rig
        if rig.ball_height is None or rig.reference_height is None or s.support is None:
            return
        offered = 0
        for by in sorted(np.arange(-0.15, 0.151, 0.01), key=abs):
            if abs(by) < 0.005 or rig.ball_height.si + by < 0.25:
                continue
            after = state(s, support=replace(s.support, nose_up_m=s.support.nose_up_m + float(by)))
            if clears(finding.code, after, self.before, depth, s).all():
                height = round(rig.ball_height.si + float(by), 4)
                how, far = ("Lower" if by < 0 else "Raise"), self.words.m(abs(float(by)))
                ops = (set_to("rig.ball_height", {"si": height, "typed": None}),)

                def says(after: str, how: str = how, far: str = far, height: float = height) -> str:
                    return f"{how} the hitch {far}, to {self.words.m(height)}: {after}."

                yield Candidate(abs(float(by)) * 4, ops, says)
                offered += 1
                if offered == HEIGHTS:
                    return

    def _pairs(self, finding: Finding, depth: float) -> list[Candidate]:
        """Two moves at once, where no single one helps: the heaviest things, on a coarser grid."""
        heavy = [m for m in sorted(self.moves, key=lambda m: -m.mass_kg)[:PAIR_THINGS] if len(_few_places(m))]
        few = [_few_places(move) for move in heavy]
        found: list[tuple[float, int, int, int, int]] = []
        counted = 0
        for i in range(len(heavy)):
            for j in range(i + 1, len(heavy)):
                self.tell(None, "trying two moves at once")
                (along_a, across_a), (along_b, across_b) = (shift_of(self.s, heavy[i], few[i]), shift_of(self.s, heavy[j], few[j]))
                shape = (len(few[i]) * len(few[j]), -1)
                after = state(
                    self.s, (along_a[:, None] + along_b[None]).reshape(shape), (across_a[:, None] + across_b[None]).reshape(shape)
                )
                counted += shape[0]
                good = clears(finding.code, after, self.before, depth, self.s) & ~worse(after, self.before, self.s)
                cost = (_trouble(heavy[i], few[i])[:, None] + _trouble(heavy[j], few[j])[None]).ravel()
                for at in np.flatnonzero(good)[np.argsort(cost[good])][:3]:
                    found.append((float(cost[at]), i, j, int(few[i][at // len(few[j])]), int(few[j][at % len(few[j])])))
        self.paired[finding.id] = counted
        made = []
        for _, i, j, a, b in sorted(found)[: 4 * TRIES]:
            one_, two = heavy[i], heavy[j]
            if not _meet(one_, a, two, b):
                made.append(_both(self._move(one_, a, _away(one_)[a]), self._move(two, b, _away(two)[b])))
        return made[:TRIES]

    def _best_places(self, finding: Finding, move: Moves, depth: float) -> Iterator[Candidate]:
        s, thing = self.s, move.thing
        after = state(s, *shift_of(s, move))
        good_enough, bad = clears(finding.code, after, self.before, depth, s), worse(after, self.before, s)
        if finding.code == "tank-far" and s.support is not None:
            good_enough = np.abs(move.x + standing_size_m(thing, thing.turn)[0] / 2 - s.support.mean_axle_m) <= FAR_M
        good = np.flatnonzero(good_enough & ~bad)
        away = _away(move)
        good = good[away[good] > 0.015]
        near = good[np.argsort(away[good])]
        for at in near[:2]:
            yield self._move(move, int(at), float(away[at]))
        # Equal jugs side by side swing the nose least, and are the habit to keep.
        for at in [k for k in near if self._tank_beside(move, int(k))][:1]:
            yield self._move(move, int(at), 0.3 * float(away[at]))

    def _tank_beside(self, move: Moves, at: int) -> str | None:
        if move.thing.tank is None:
            return None
        return next((t.name for t in self.s.build.stow.things if t.id == move.beside[at] and t.tank), None)

    def _move(self, move: Moves, at: int, away: float) -> Candidate:
        thing, words = move.thing, self.words
        dx, dy, dz = (float(to[at]) - now.si for to, now in ((move.x, thing.x), (move.y, thing.y), (move.z, thing.z)))
        ops = carry_ops(self.s.build, thing, {"x": dx, "y": dy, "z": dz})
        name = lower_first(thing.name)
        told = self._tank_beside(move, at)

        def says(after: str) -> str:
            if told and abs(dx) >= 0.05:
                return (
                    f"Set the {name} beside the {lower_first(told)}, {words.m(abs(dx))} further {'back' if dx > 0 else 'forward'}: {after}."
                )
            if told:
                return f"Set the {name} beside the {lower_first(told)}: {after}."
            if abs(dx) > 0.1 and abs(dy) > 0.1:
                return (
                    f"Set the {name} {words.m(abs(dx))} further {'back' if dx > 0 else 'forward'} and "
                    f"{words.m(abs(dy))} to the {'right' if dy > 0 else 'left'}: {after}."
                )
            if abs(dx) >= abs(dy):
                return f"Slide the {name} {words.m(abs(dx))} {'back' if dx > 0 else 'forward'}: {after}."
            return f"Move the {name} {words.m(abs(dy))} to the {'right' if dy > 0 else 'left'}: {after}."

        return Candidate(away * hardness(move), ops, says)

    def _tried(self, candidate: Candidate, finding: Finding, *, telling: bool = False) -> Remedy | None:
        """The remedy, where the whole build judged again says that it is one.

        Args: telling: what it brings besides is told and no reason against it, but where it stops.
        """
        tried = study(apply(self.s.build, candidate.ops), self.s.facts)
        if further_out(self.s, tried):
            return None
        worse, there = worse_than(self.found, finding), set()
        then: list[str] = []
        for f in judged(tried, finding.code):
            if f.key == finding.key:
                return None
            if worse(f):
                if not telling or f.severity == "stop":
                    return None
                then.append(lower_first(f.title))
            there.add(f.key)
        for other in self.found:
            if other.key not in there and other.key != finding.key:
                self.settles.setdefault(other.key, []).append(finding)
        says = candidate.says(self._reading(finding, tried))
        if then:
            says = f"{says} Then: {'; '.join(dict.fromkeys(then))}."
        return Remedy(says, candidate.ops, readings_after(tried))

    def refer(self, finding: Finding) -> Finding:
        """A finding without a remedy of its own, sent to a card above whose remedy settles it as well."""
        if finding.remedy is not None or finding.set_aside or RULES[finding.code].helps == "nothing":
            return finding
        order = {other.key: at for at, other in enumerate(self.found)}
        above = next((o for o in self.settles.get(finding.key, []) if order[o.key] < order[finding.key]), None)
        if above is None:
            return finding
        return finding.settled_by(None, f"What helps against “{above.title}” above settles this too.")

    def _why_stuck(self, finding: Finding) -> str:
        things = [t for t in self.s.build.stow.things if t.id in finding.where]
        if any(t.inside for t in things):
            return "What is built into another thing is moved with it, or set apart by hand."
        if any(t.id in mode.touched for t in things for mode in self.s.build.stow.modes):
            return "It has a place of its own in that mode; move it there by hand."
        return "None of the free places that were tried settles it without another trouble. A smaller thing, or say that one is built into the other."

    def _reading(self, finding: Finding, tried: Studied) -> str:
        """The number that the remedy leaves, in the finding's own case."""
        rows = [row for row, case in enumerate(tried.table.cases) if case.id == finding.case_id] or tried.towing_rows[:1] or [0]
        row, b, words = rows[0], tried.readings, self.words
        said = RULES[finding.code].after
        if said is not None:
            return said(tried, finding)
        if RULES[finding.code].helps in ("edit", "free place") and not finding.code.startswith(ON_THE_WHEELS):
            return self._settled(tried)
        if not tried.table.cases:
            return "no load case to read yet"
        case = lower_first(tried.table.cases[row].name)
        if finding.code.startswith("held-"):
            return held_words(tried, finding.where[0], words)
        of_things = finding.code != "tank-far" and any(t.id in finding.where for t in self.s.build.stow.things)
        if of_things and tried.build.rig.carrier == "ball" and tried.towing_rows:
            row = min(tried.towing_rows, key=lambda r: float(b.chance[r]) if np.isfinite(b.chance[r]) else 1.0)
            return f"{words.kg(float(b.tongue_kg[row]))} on the ball {lower_first(tried.table.cases[row].name)}"
        if tried.build.rig.carrier == "vehicle bed":
            if b.axle_kg.shape[1] < 2:
                return "no axles of the vehicle to read yet"
            return f"front axle {words.kg(float(b.axle_kg[row, 0]))}, rear {words.kg(float(b.axle_kg[row, 1]))} {case}"
        if finding.code == "over-axle":
            return f"{words.kg(float(b.axle_kg[row].max()))} on the heavier axle {case}"
        if finding.code == "leans":
            return f"{words.bare_kg(float(b.left_kg[row]))} left, {words.kg(float(b.right_kg[row]))} right {case}"
        if finding.code == "tank-far" and tried.towing_rows:
            lowest = min(tried.towing_rows, key=lambda r: float(b.tongue_kg[r]))
            return f"{words.kg(float(b.tongue_kg[lowest]))} on the ball at the least"
        return f"{words.kg(float(b.tongue_kg[row]))} on the ball {case}"

    def _settled(self, tried: Studied) -> str:
        """What a plain edit leaves: its finding gone, and the ball only where the edit moves it."""
        now, then = self.s, tried
        if now.build.rig.carrier != "ball" or len(now.table.cases) != len(then.table.cases) or not then.towed_rows:
            return "that settles it"
        row = max(then.towed_rows, key=lambda r: abs(float(then.readings.tongue_kg[r] - now.readings.tongue_kg[r])))
        moved = float(then.readings.tongue_kg[row] - now.readings.tongue_kg[row])
        if not np.isfinite(moved) or abs(moved) < TOLD_KG:
            return "that settles it, and the ball stays"
        more = "more" if moved > 0 else "less"
        return f"that settles it, with {self.words.kg(abs(moved))} {more} on the ball {lower_first(then.table.cases[row].name)}"

    def why_none(self, finding: Finding) -> str:
        placing = axle_placing(self.s) if finding.code.startswith("ball-") else None
        if finding.code == "will-not-bend":
            return "Thinner sheets do not go round either: a larger radius or another material."
        helps, by_hand = RULES[finding.code].helps, RULES[finding.code].why_none
        if by_hand is not None:
            return by_hand
        if helps == "nothing":
            return "No edit settles this by itself."
        if helps == "edit":
            if finding.key in self.edits_tried:
                return "The usual edit was tried, and it would make something else worse or not be enough; settle it by hand."
            return "There is no plain edit for it here; settle it by hand."
        if self.left <= 0:
            return "There is too much aboard to search it all. Move the heaviest by hand."
        if helps == "free place":
            return self._why_stuck(finding)
        if finding.code == "ball-unsure":
            return "A place elsewhere does not make guesses surer: weigh what owns the doubt."
        if placing and placing.fighting_cases and placing.fighting_cases[0] != placing.fighting_cases[1]:
            names = [lower_first(next(c.name for c in self.s.table.cases if c.id == id)) for id in placing.fighting_cases]
            return f"No place of the axle serves both {names[0]} and {names[1]}. {self._what_was_tried(finding)}"
        if not self.moves:
            return "Nothing aboard has another free place to go to."
        if helps == "moves" and room_of(self.s.build, self.s.facts) is not None:
            return f"{self._what_was_tried(finding)} Stow, Arrange looks for places of everything at once."
        return self._what_was_tried(finding)

    def _what_was_tried(self, finding: Finding) -> str:
        """What was looked at for this very finding, and no more than that."""
        places, whole, pairs = self.screened[finding.id], self.judged[finding.id], self.paired[finding.id]
        if not places and not pairs:
            return "No move was looked for here; settle it by hand."
        many = self.held[finding.id]
        told = f"{many} thing{'s' if many != 1 else ''} at {places} free places were held against it"
        told += f", and {pairs} pairs of places" if pairs else ""
        if whole:
            return f"{told}: {whole} of them were judged whole, and each leaves it, or makes something else worse."
        return f"{told}: none settles every case it names."


def _away(move: Moves) -> Floats:
    thing = move.thing
    return np.asarray(np.abs(move.x - thing.x.si) + np.abs(move.y - thing.y.si) + 2 * np.abs(move.z - thing.z.si))


def _trouble(move: Moves, chosen: NDArray[np.intp]) -> Floats:
    return _away(move)[chosen] * (1 + move.mass_kg / 25)


def _few_places(move: Moves) -> NDArray[np.intp]:
    """At most some forty places of a thing, a hand apart, the nearest of each."""
    away = _away(move)
    kept: dict[tuple[int, int], int] = {}
    for at in np.argsort(away):
        kept.setdefault((round(float(move.x[at]) / 0.15), round(float(move.y[at]) / 0.3)), int(at))
    return np.array([at for at in list(kept.values())[:PAIR_PLACES] if away[at] > 0.015], dtype=np.intp)


def _meet(a: Moves, at: int, b: Moves, bt: int) -> bool:
    """Whether two things would stand in each other at their new places."""
    (al, aw, ah), (bl, bw, bh) = standing_size_m(a.thing, a.thing.turn), standing_size_m(b.thing, b.thing.turn)
    return bool(
        a.x[at] < b.x[bt] + bl
        and b.x[bt] < a.x[at] + al
        and abs(a.y[at] - b.y[bt]) < (aw + bw) / 2
        and a.z[at] < b.z[bt] + bh
        and b.z[bt] < a.z[at] + ah
    )


def _both(first: Candidate, second: Candidate) -> Candidate:
    """Two moves as one: the sentence of the first without its reading, then the second with it."""

    def says(after: str) -> str:
        return f"{first.says(SPLIT).split(': ' + SPLIT)[0]}. {second.says(after)}"

    return Candidate(first.cost + second.cost, (*first.ops, *second.ops), says)


NEARLY_KG, NEARLY_USE = 0.25, 0.002  # less than any number on the screen shows


def further_out(before: Studied, after: Studied) -> bool:
    """Whether the ball of any case that is towed, or any limit, comes further out than it was; findings apart.

    A case is out by what lacks to its band, to its least share, or is over its most [kg]; a limit by what is over it.
    """
    was, now = out_kg(before), out_kg(after)
    if any(kg > was.get(id, 0.0) + NEARLY_KG for id, kg in now.items()):
        return True
    used = {limit.id: use(limit) for limit in before.limits}
    return any(use(limit) > max(used.get(limit.id, 1.0), 1.0) + NEARLY_USE for limit in after.limits if limit.severity == "stop")


def out_kg(s: Studied) -> dict[str, float]:
    """How far out of its band each towed case stands [kg on the ball], by its id; 0 inside."""
    b = s.readings
    least = np.asarray(s.band.least_kg(b.total_kg))
    made = {}
    for row in s.towed_rows:
        ball = float(b.tongue_kg[row])
        low, high = max(float(b.band_kg[row, 0]), float(least[row])), float(b.band_kg[row, 1])
        if np.isfinite(ball) and np.isfinite(low):
            made[s.table.cases[row].id] = max(low - ball, ball - high, 0.0)
    return made


DOUBTS = ("ball-unsure", "axles-unsure")


def worse_than(before: tuple[Finding, ...], cleared: Finding | None = None) -> Callable[[Finding], bool]:
    """Says of one finding that is there afterwards whether it is a new one, or a worse one."""
    doubt_passes = cleared is not None and cleared.severity == "stop"
    was = {f.key: f for f in before}
    # of a crowd only the largest clashes are told by name: one that comes up in its place is not a new one
    crowd = any(f.code == "clash-many" for f in before)

    def worse(f: Finding) -> bool:
        old = was.get(f.key)
        if doubt_passes and old is None and f.code in DOUBTS and f.severity != "stop":
            return False
        if old is None:
            return f.severity != "note" and not (crowd and RULES[f.code].helps == "free place")
        return RANK[f.severity] < RANK[old.severity]

    return worse


def readings_after(tried: Studied) -> tuple[tuple[str, float | None], ...]:
    """The ball in every case as it would be [kg], by the case's name; None where there is no reading."""
    tongue = tried.readings.tongue_kg
    return tuple((case.id, None if np.isnan(tongue[row]) else float(tongue[row])) for row, case in enumerate(tried.table.cases))
