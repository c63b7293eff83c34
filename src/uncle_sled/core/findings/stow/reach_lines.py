"""The cook's place, litres by reach, boxes for every bay, changing over: one line each."""

from __future__ import annotations

from uncle_sled.core.document.stow import Mode
from uncle_sled.core.findings.stow.said import Said
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.conversions import conversion
from uncle_sled.core.studies.stow.reach import COOK_M, HOWS, bays_hold, cook, litres_by_reach
from uncle_sled.core.units import show
from uncle_sled.core.words import Words, lower_first


def cook_lines(s: Studied, mode: Mode, words: Words) -> list[Said]:
    """Where the cook stands, and what is in reach from there."""
    got = cook(s.build, s.facts, mode)
    if got.stands is None:
        return [Said("none", words.told(f"Not said: {got.why}."))]
    lines = [Said("none", f"Stands {'on ' if got.where == 'the floor' else ''}{got.where}; {words.m(COOK_M)} is in reach.")]
    return lines + [Said("good" if cook.good else "mind", f"{cook.name}: {words.m(cook.far_m)}", (cook.id,)) for cook in got.things[:7]]


def litres_lines(s: Studied, mode: Mode, words: Words) -> list[Said]:
    """Litres of kit by how one gets at them."""
    sums = litres_by_reach(s.build, s.facts, mode)
    if not any(sums.values()):
        return [Said("none", "No kit or gear is aboard.")]
    return [
        Said("none" if how != "out of reach" else "mind", f"{show(sums[how] / 1000, 'volume', words.shown.volume, 0)} {how}")
        for how in HOWS
        if sums[how] > 0
    ]


def boxes_lines(s: Studied, words: Words) -> list[Said]:
    """Boxes that are sold for every bay of a cabinet of boards."""
    names = {t.id: t.name for t in s.build.stow.things}
    lines = []
    for holds in bays_hold(s.build, s.facts):
        size = " × ".join(words.cut(v) for v in holds.size_m)
        fits = ", ".join(f"{many * holds.many} × {name}" for name, many in holds.boxes) or "none of those that are sold"
        lines.append(
            Said(
                "none" if holds.boxes else "mind",
                f"{names[holds.cabinet]}, bay {holds.bay}: {holds.many} of {size}: {fits}",
                (holds.cabinet,),
            )
        )
    return lines[:9] or [Said("none", "No cabinet is made of boards yet (Built).")]


def changes_lines(s: Studied, mode: Mode) -> list[Said]:
    """What changes from the road to standing, in which order and how long it takes."""
    build = s.build
    other = next((m for m in build.stow.modes if m.towing != mode.towing), None)
    if other is None:
        return [Said("none", "There is one mode only.")]
    a, b = (other, mode) if other.towing else (mode, other)
    made = conversion(build, a, b)
    if not made.changes:
        return [Said("none", f"Nothing changes from {a.name.lower()} to {b.name.lower()}.")]
    names = {t.id: lower_first(t.name) for t in build.stow.things}
    time = (
        f"{made.minutes} {'minute' if made.minutes == 1 else 'minutes'}, {made.hands or 1} {'person' if (made.hands or 1) == 1 else 'people'}"
        if made.minutes is not None
        else f"time not said of {made.unsaid} (In hand, Forms)"
    )
    lines = [Said("none", f"{a.name} to {b.name}: {time}.")]
    for change in made.changes[:8]:
        first = f"; first: {', '.join(names[id] for id in change.first)}" if change.first else ""
        shared = f", {change.overlap * 100:.0f} % in the same place" if 0.005 < change.overlap < 0.995 else ""
        lines.append(
            Said("mind" if change.blocked else "none", f"{change.name}: {change.state}{shared}{first}", (change.id, *change.first))
        )
    return lines
