"""Judgements on the survey of a bought frame and shell, and on faces that were stripped and lined again."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.relining import why_not
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.survey import planned_on_old, surveyed_of
from uncle_sled.core.words import Words, upper_first

SOURCE = "what was measured, against what was planned"  # of every rule here, said after its reason

SQUARE_M, TOE_M, WIDTH_M = 0.010, 0.003, 0.010
OLD_YEARS, TOO_OLD_YEARS = 6.0, 10.0
CAUTION = "Screening only: a trailer workshop sees what a tape does not."


def _shift(s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    ops: list[Op] = []
    things = {thing.id: thing for thing in s.build.stow.things}
    for planned in planned_on_old(s.build, Words(s.build.brief.reading.shown())):
        thing = things.get(planned.id)
        for axis, by in (("x", planned.dx_m), ("y", planned.dy_m)):
            if thing is not None and by:
                at = round(getattr(thing, axis).si + by, 4)
                ops.append(set_to(f"stow.things.{thing.id}.{axis}", {"si": at, "typed": None}))
    if not ops:
        return None
    ops += [set_to("shell.survey.planned_width", None), set_to("shell.survey.planned_length", None)]
    return tuple(ops), "Set what stood against the old walls against the measured ones"


def _on_again(_s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    return (remove(f"stow.things.{finding.where[0]}"),), "Take it off the list of what is gone"


IMPOSSIBLE = Rule(
    "survey-impossible",
    "mind",
    "Shell",
    "Diagonals that no body of this length and width has",
    "A tape read from the wrong corner, or a figure turned round.",
    why_none="Measure both diagonals again.",
)
RACKED = Rule(
    "survey-racked",
    "mind",
    "Shell",
    f"Out of square by {{{SQUARE_M * 1000:.0f} mm}} or more",
    "Sheets and cupboards cut square leave a wedge in such a body.",
    CAUTION,
    why_none="Cut to what is there, or have it pulled square before anything is built in.",
)
TWISTED = Rule(
    "survey-twisted",
    "mind",
    "Shell",
    f"One corner {{{SQUARE_M * 1000:.0f} mm}} or more out of the plane of the others",
    "Doors bind and tracks wear on a twisted frame.",
    CAUTION,
    why_none="Set it level on stands and measure again; then ask a workshop.",
)
UNEVEN = Rule(
    "survey-uneven",
    "note",
    "Shell",
    f"Widths that differ by {{{WIDTH_M * 1000:.0f} mm}} or more",
    "What is cut to one width does not go in at the other end.",
    why_none="Cut each piece to its own place.",
)
TOE = Rule(
    "survey-toe",
    "mind",
    "Rig",
    f"Wheels out of line by {{{TOE_M * 1000:.0f} mm}} or more",
    "A bent axle wears a tyre in a season and wants to steer.",
    CAUTION,
    why_none="Have the axle straightened or changed.",
)
OLD_TYRES = Rule(
    "survey-tyres",
    "stop",
    "Rig",
    f"Tyres {OLD_YEARS:.0f} years old or more (practice)",
    "Rubber ages standing still, and a trailer mostly stands.",
    CAUTION,
    why_none="Plan for new ones.",
)
STATE = Rule(
    "survey-state",
    "stop",
    "Shell",
    "Rust through, a rotten or soft floor, worn bearings, papers missing",
    "What is built on it lasts no longer than it does.",
    CAUTION,
    why_none="Mend it before anything is built on it.",
)
TYPED_WRONG = Rule(
    "survey-typed",
    "note",
    "Shell",
    "A date in the survey that is none",
    "The tyres' age is reckoned from both dates.",
    why_none="Type it again.",
)
ON_OLD = Rule(
    "planned-on-old",
    "mind",
    "Shell",
    "Planned on a size that was measured otherwise",
    "What was set against the old walls is not against the real ones.",
    why_none="Look each over and set it right by hand.",
    helps="edit",
    cure=_shift,
)
RELINED_WRONG = Rule(
    "relined-wrong",
    "mind",
    "Shell",
    "A lining that cannot be as typed",
    "It is left out of the weight until it is mended.",
    why_none="Mend it on Reline.",
)


def survey_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """What does the bought shell as surveyed forbid or ask for? Yields nothing without a survey."""
    yield from _lining(s)
    yield from _came_off(s, words)
    found, survey = surveyed_of(s.build.shell, words), s.build.shell.survey
    if found is None or survey is None:
        return
    if found.impossible:
        yield IMPOSSIBLE.found("No body has these diagonals", found.impossible, ("survey", "survey"))
    if found.racked_m is not None and abs(found.racked_m) >= SQUARE_M:
        way = "right" if found.racked_m > 0 else "left"
        yield RACKED.found(
            "Out of square",
            f"By its diagonals the rear stands {words.cut(abs(found.racked_m))} to the {way} of square.",
            ("survey", "racked"),
            number=abs(found.racked_m),
        )
    if found.twist_m is not None and abs(found.twist_m) >= SQUARE_M:
        yield TWISTED.found(
            "Twisted",
            f"By its corners one stands {words.cut(abs(found.twist_m))} out of the plane of the others.",
            ("survey", "twist"),
            number=abs(found.twist_m),
        )
    if found.width_spread_m is not None and found.width_spread_m >= WIDTH_M:
        yield UNEVEN.found(
            "Not of one width",
            f"Its widths differ by {words.cut(found.width_spread_m)}.",
            ("survey", "widths"),
            number=found.width_spread_m,
        )
    if found.toe_m is not None and abs(found.toe_m) >= TOE_M:
        yield TOE.found(
            "Wheels out of line",
            f"Between the tyres it is {words.cut(abs(found.toe_m))} {'less' if found.toe_m > 0 else 'more'} ahead of the axle than behind it.",
            ("wheels", "toe"),
            number=abs(found.toe_m),
        )
    if found.tyre_fault:
        yield TYPED_WRONG.found("A date that is none", found.tyre_fault, ("survey", "tyre-date"))
    if found.tyre_years is not None and found.tyre_years >= OLD_YEARS:
        yield OLD_TYRES.found(
            "Old tyres",
            f"They were {found.tyre_years:.1f} years old on {survey.date}; {OLD_YEARS:.0f} is where one thinks of new ones, {TOO_OLD_YEARS:.0f} where nobody drives on them.",
            ("wheels", "tyre-age"),
            number=found.tyre_years,
            severity=None if found.tyre_years >= TOO_OLD_YEARS else "mind",
        )
    yield from _states(s)
    planned = planned_on_old(s.build, words)
    if planned:
        more = f", and {len(planned) - 3} more" if len(planned) > 3 else ""
        yield ON_OLD.found(
            "Planned on the old size",
            f"{upper_first('; '.join(each_planned.says for each_planned in planned[:3]))}{more}.",
            tuple(each_planned.id for each_planned in planned),
        )


def _states(s: Studied) -> Iterator[Finding]:
    survey = s.build.shell.survey
    assert survey is not None
    for bad, title, says, where, stop in (
        (survey.rust == "through", "Rusted through", "The survey says that the frame is rusted through.", "rust", True),
        (survey.floor_state == "rotten", "A rotten floor", "The survey says that the floor is rotten.", "floor", True),
        (survey.floor_state == "soft", "A soft floor", "The survey says that the floor is soft.", "floor", False),
        (survey.bearings == "worn", "Worn bearings", "The survey says that the wheel bearings are worn.", "bearings", False),
        (survey.papers == "missing", "No papers", "The survey says that the papers are missing.", "papers", False),
    ):
        if bad:
            yield STATE.found(title, says, ("survey", where), severity="stop" if stop else "mind")


OFF_TOO_MUCH = Rule(
    "off-too-much",
    "stop",
    "Rig",
    "More came off a trailer than it weighed",
    "What is gone counts negative against the weighing.",
    why_none="Weigh what came off, or the trailer as it is now (Rig).",
)
MOST_OFF = 0.5  # of a trailer's own weight: more is a weight typed wrong
FOREIGN = Rule(
    "off-nothing-weighed",
    "mind",
    "Rig",
    "Something came off of what was never weighed whole",
    "A negative weight belongs to a weighing that had the thing in it.",
    helps="edit",
    cure=_on_again,
)


def _came_off(s: Studied, words: Words) -> Iterator[Finding]:
    """What is gone since the weighing, against the weighing."""
    rig = s.build.rig
    gone = [thing for thing in s.build.stow.things if thing.taken_out]
    if not gone:
        return
    if rig.base != "as bought" and rig.carrier == "ball":
        for thing in gone:
            yield FOREIGN.found(
                f"{thing.name} came off of nothing",
                "It counts negative, but this trailer is the sum of its parts: what is not there is not in it.",
                (thing.id,),
            )
        return
    total, off = rig.bought_total.si if rig.bought_total else None, sum(thing.mass.si for thing in gone)
    if total is not None and off > MOST_OFF * total:
        yield OFF_TOO_MUCH.found(
            "Too much came off",
            f"{words.kg(off)} came off a trailer that weighed {words.kg(total)}: more than half of it.",
            tuple(thing.id for thing in gone),
            number=off - MOST_OFF * total,
        )


def _lining(s: Studied) -> Iterator[Finding]:
    rig = s.build.rig
    whole = rig.bought_total.si if rig.base == "as bought" and rig.bought_total else None
    for relining in s.build.shell.relined:
        wrong = why_not(relining, s.build.shell, s.framed, library_of(s.facts.materials), whole)
        if wrong:
            yield RELINED_WRONG.found(f"The lining of the {relining.face} cannot be so", wrong, ("reline", relining.id))
