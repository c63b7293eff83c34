"""Judgements on single things: no size, no volume, out of the drawing, a tank far from the axle, guesses that matter."""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np

from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep, keep_each
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.parts.from_stow import homes_of, standing_size_m
from uncle_sled.core.reading.studied import Studied, silhouette_of
from uncle_sled.core.studies.balance.sureness import weigh_first
from uncle_sled.core.words import Words

SOURCE = "the geometry of what is aboard"  # of every rule here, said after its reason

FAR_TANK_M3, FAR_M = 0.040, 0.5
GUESS_SHARE = 0.25
Size = tuple[float, float, float]


def stow_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Does everything lie inside, apart from each other, on something? Yields what does not."""
    body = silhouette_of(s.build.shell) is not None
    axled = s.build.rig.carrier == "ball" and s.support is not None
    things, room = s.build.stow.things, sizes_m(s.build.shell)
    long, wide, high = (side if side > 0 else math.inf for side in room)
    for thing, home, plain in zip(things, homes_of(things), _unmeasured(things), strict=True):
        if plain:
            yield from plain
        size = home.size
        if body and (size[0] > long or size[1] > wide or size[2] > high) and not thing.outside:
            yield from _too_big(thing, size, room, words)
        if axled and thing.tank:
            yield from _far_tank(s, thing, words)
    yield from _guesses(s, words)


@keep_each
def _unmeasured(thing: Thing) -> tuple[Finding, ...]:
    return tuple(_plain_faults(thing))


NO_SIZE = Rule(
    "no-size",
    "note",
    "Stow",
    "A thing with a side of nothing",
    "A thing without a size can stand nowhere for certain.",
    why_none="Only a tape measure helps.",
)
TANK_NO_VOLUME = Rule(
    "tank-no-volume", "note", "Stow", "A tank of no volume", "What a tank holds is most of its weight.", why_none="Type how much it holds."
)
NO_WEIGHT = Rule(
    "no-weight", "note", "Stow", "A thing that weighs nothing", "A marked guess is better than nothing.", why_none="Weigh it, or guess."
)


def _plain_faults(thing: Thing) -> Iterator[Finding]:
    if min(thing.length.si, thing.width.si, thing.height.si) <= 0:
        yield NO_SIZE.found(
            f"{thing.name} has no size",
            f"{thing.name} has a side of nothing, so it is drawn as a mark. Tape it and type its size.",
            (thing.id,),
        )
    if thing.tank and (thing.tank.volume is None or thing.tank.volume.si == 0):
        yield TANK_NO_VOLUME.found(
            f"{thing.name} holds nothing yet", f"{thing.name} has no volume, so full weighs the same as empty.", (thing.id,)
        )
    if thing.mass.si == 0 and not thing.tank:
        yield NO_WEIGHT.found(
            f"{thing.name} weighs nothing", f"{thing.name} has no weight yet; guess one and mark it as a guess.", (thing.id,)
        )


@keep(most=2)
def sizes_m(shell: Shell) -> Size:
    """Length, width and height of a body as typed [m], nothing where not known."""
    long, wide, high = (side.si if side else 0.0 for side in (shell.length, shell.width, shell.height))
    return long, wide, high


TOO_BIG = Rule(
    "too-big",
    "mind",
    "Stow",
    "A thing larger than the body",
    "Nothing goes in that is bigger than the body.",
    why_none="A smaller thing, a turn, or a place outside.",
)


def _too_big(thing: Thing, size_m: Size, room_m: Size, words: Words) -> Iterator[Finding]:
    for name, has, room in zip(("long", "wide", "high"), size_m, room_m, strict=True):
        if room > 0 and has > room:
            yield TOO_BIG.found(
                f"{thing.name} does not go in", f"{thing.name} is {words.m(has)} {name}; the body is {words.m(room)}.", (thing.id,)
            )
            return


TANK_FAR = Rule(
    "tank-far",
    "mind",
    "Stow",
    "A tank over {40 L} more than {500 mm} from the axle",
    "A tank over the axle hardly shows on the ball.",
    helps="moves",
)


def _far_tank(s: Studied, thing: Thing, words: Words) -> Iterator[Finding]:
    if s.support is None or not thing.tank or not thing.tank.volume or thing.tank.volume.si < FAR_TANK_M3:
        return
    middle = thing.x.si + standing_size_m(thing, thing.turn)[0] / 2
    off = middle - s.support.mean_axle_m
    if abs(off) <= FAR_M:
        return
    side = "behind" if off > 0 else "ahead of"
    swing = abs(thing.tank.volume.si * 1000 * off / s.support.mean_axle_m)
    yield TANK_FAR.found(
        f"{thing.name} swings the nose",
        f"It stands {words.m(abs(off))} {side} the axle, want {words.m(FAR_M)} at most: full to empty changes the ball by {words.kg(swing)}.",
        (thing.id,),
        number=abs(off),
    )


GUESS_MATTERS = Rule(
    "guess-matters",
    "note",
    "Stow",
    "A guess that owns over a quarter of the doubt",
    "One weighing shrinks the doubt more than all the rest.",
    why_none="Put it on a scale.",
)


def _guesses(s: Studied, words: Words) -> Iterator[Finding]:
    if s.build.rig.carrier != "ball" or not s.towing_rows or np.isnan(s.readings.tongue_sigma_kg).all():
        return
    row = s.towing_rows[0]
    by_id = {part.id: part for part in s.parts}
    for id, name, share in weigh_first(s, row, 3):
        part = by_id.get(id)
        if part and part.source == "guessed" and share > GUESS_SHARE:
            yield GUESS_MATTERS.found(
                f"{name} is a guess that matters",
                f"It owns {share:.0%} of the doubt on the ball".replace("%", " %")
                + f", which is give or take {words.kg(float(s.readings.tongue_sigma_kg[row]))}. Weigh it first.",
                (id,),
                number=share,
            )
