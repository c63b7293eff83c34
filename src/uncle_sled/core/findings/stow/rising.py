"""Judgements on a roof that goes up: what cannot be, what lifts it, and what holds it when a strut gives way."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.rising_roof import HAND_N, HANDS, RoofUp, roof_up, struts_for
from uncle_sled.core.studies.stow.struts import HOLD_SHARE, SAYS
from uncle_sled.core.words import Words, upper_first

SOURCE = "statics of gas struts; practice"  # of every rule here, said after its reason
CAUTION = "A strut gives way without a warning: nobody's head or hand under a roof without a second hold."


def _pins(_s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    return (set_to("shell.rising.second", "pin"),), "Pins that are put in as soon as it is up"


def _struts(s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    roof, words = roof_up(s), Words(s.build.brief.reading.shown())
    strut = struts_for(roof) if roof is not None else None
    if strut is None:
        return None
    return (set_to("shell.rising.strut", msgspec.to_builtins(strut)),), f"{strut.many} struts of {words.fine_newtons(strut.force_n)}"


WRONG = Rule(
    "roof-up-wrong",
    "mind",
    "Shell",
    "A roof that cannot go up as typed",
    "It is left down in every mode until it is mended.",
    why_none="Mend it on Roof up.",
)
SECOND = Rule(
    "roof-up-second",
    "mind",
    "Shell",
    "A roof that is up and held by its struts alone",
    "Gas goes slowly, and in frost at once; people sleep under it.",
    CAUTION,
    helps="edit",
    cure=_pins,
)
LIFT = Rule(
    "roof-up-strut",
    "mind",
    "Shell",
    "Struts that do not lift, hold or let down the roof",
    "It comes down in frost, or two people hang on it in the heat.",
    CAUTION,
    helps="edit",
    cure=_struts,
)
HEAVY = Rule(
    "roof-up-heavy",
    "mind",
    "Shell",
    "A roof without struts that is too heavy to lift by hand",
    "It is lifted over the head, at arm's length.",
    CAUTION,
    helps="edit",
    cure=_struts,
)


def rising_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Can the roof go up, does it stay there, and what holds it then? Yields what does not."""
    roof, rising = roof_up(s), s.build.shell.rising
    if roof is None or rising is None:
        return
    if roof.risen.fault:
        what = "The side cannot fold so" if roof.risen.folds else "The roof cannot go up so"
        yield WRONG.found(what, f"It {roof.risen.fault}.", ("rising", "wrong"))
        return
    if rising.second in ("", "none"):
        says = (
            "Nobody said what holds it when a strut gives way: not checked."
            if not rising.second
            else "Nothing holds it when a strut gives way."
        )
        if roof.risen.folds:
            says = (
                "Nobody said what holds it level while somebody stands on it."
                if not rising.second
                else "Nothing holds it level but its hinges."
            )
        yield SECOND.found(f"A second hold of the {'side' if roof.risen.folds else 'roof'}", says, ("rising", "second"))
    if roof.unknown or roof.mass_kg is None:
        names = ", ".join(roof.unknown) or "the roof"
        yield LIFT.found("What lifts the roof is not checked", f"Not known: what {names} weighs.", ("rising", "weight"), severity="note")
    if roof.risen.lifts or roof.risen.folds:
        yield from _lifted(roof, words)


def _lifted(roof: RoofUp, words: Words) -> Iterator[Finding]:
    if roof.mass_kg is None:
        return
    if roof.strut is None:
        each = (roof.by_hand_n or 0.0) / HANDS
        if each > HAND_N:
            told = f"{words.kg(roof.mass_kg)}: {words.fine_newtons(each)} for each of two, and {words.fine_newtons(HAND_N)} is the most overhead."
            yield HEAVY.found(f"The {'side' if roof.risen.folds else 'roof'} is heavy to lift", told, ("rising", "heavy"), number=each)
        return
    if roof.verdict is None:
        yield LIFT.found("The roof's struts cannot be so", f"{upper_first(roof.why)}.", ("rising", "strut"))
        return
    judged = roof.verdict
    if not judged.fits:
        yield LIFT.found("The roof's struts are not long or short enough", "They would leave their stroke on the way.", ("rising", "strut"))
    elif judged.fails:
        numbers = f"{words.fine_newtons(judged.raise_n)} to raise in frost, {words.fine_newtons(judged.close_n)} to pull down in the heat, for two"
        held = f"in frost the gas gives {(judged.hold_share or 0.0) * 100:.0f} % of {words.kg(roof.mass_kg)}, {HOLD_SHARE * 100:.0f} % would be right"
        yield LIFT.found(
            f"The roof {SAYS[judged.fails[-1]]}",
            f"{upper_first(numbers)}; {held}.",
            ("rising", "strut"),
            number=max(judged.raise_n, judged.close_n),
        )
