"""Judgements on strength: what a screening finds over its limit. It judges sticks alone; a licensed engineer decides."""

from __future__ import annotations

import math
from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.shell import Ridge
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.framing.frame_body import face_of, framed_depth_m
from uncle_sled.core.parts.rising import risen_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.check import Check
from uncle_sled.core.studies.shell.rafters import LEAST_SEAT_M, rafter_cuts
from uncle_sled.core.studies.shell.ridge import held, pitch_of, proposed
from uncle_sled.core.studies.shell.roof_holds import roof_load_pa
from uncle_sled.core.studies.shell.screening import screening
from uncle_sled.core.studies.shell.wind_holds import parked_wind_m_s, pushed_n
from uncle_sled.core.units import INCH_M
from uncle_sled.core.words import Words, upper_first

SOURCE = "statics, NDS habit for softwood, Allen's sandwich theory"  # of every rule here, said after its reason

SCREEN = "Screening only: sticks alone are reckoned, skins help none; local code and a licensed engineer decide."
CLOSEST_M, STEP_M = 0.2, 0.005
Made = tuple[tuple[Op, ...], str]


def _words_in(s: Studied) -> Words:
    return Words(s.build.brief.reading.shown())


def _check(s: Studied, id: str) -> Check | None:
    return next((check for check in screening(s) if check.id == id), None)


def _stronger_roof(s: Studied, _finding: Finding) -> Made | None:
    """Deeper ribs where their layer is deep enough, else closer ones, by what is lacking."""
    worst = max((c.use or 0.0 for c in screening(s) if c.id in ("roof-snow", "roof-sinks")), default=0.0)
    snow, sizes, words = _check(s, "roof-snow"), s.framed.sizes, _words_in(s)
    if snow is None or snow.use is None or sizes is None:
        return None
    framing, wide, deep = s.build.shell.framing, sizes.rib[0], sizes.rib[1]
    face = face_of(s.build.shell, "roof")
    room = framed_depth_m(face, 0.0)
    wanted = math.ceil(deep * math.sqrt(snow.use * 1.02) / STEP_M) * STEP_M
    if wanted <= room + 1e-9 and worst > 0:
        section = {"thick": {"si": wide}, "deep": {"si": round(wanted, 4)}}
        return (set_to("shell.framing.rib", section),), f"Make the roof's sticks {words.thick(wanted)} deep"
    pitch = math.floor(sizes.rib_pitch / (snow.use * 1.02) / STEP_M) * STEP_M
    if pitch >= CLOSEST_M and framing.school != "bought shell":
        return (set_to("shell.framing.pitch", {"si": round(pitch, 4)}),), f"Set all sticks {words.cut(pitch)} apart"
    return None


def _ridge_beam(s: Studied, _finding: Finding) -> Made | None:
    """The least beam as sold from what carries it to what carries it; nothing where none as sold does."""
    body, shell = s.framed.body, s.build.shell
    pitch = pitch_of(shell, body)
    if body is None or pitch is None:
        return None
    load = roof_load_pa(s, [surface for surface in body.surfaces if surface.kind == "roof"], pitch)
    if load is None:
        return None
    span = shell.ridge.span.si if shell.ridge is not None and shell.ridge.span is not None else pitch.long_m
    found = proposed(pitch, load, span, s.build.brief.region == "North American")
    if found is None:
        return None
    was = msgspec.to_builtins(shell.ridge or Ridge())
    made = {**was, "held_by": "beam", "beam": {"thick": {"si": round(found[0], 5)}, "deep": {"si": round(found[1], 5)}}}
    name = "valley" if pitch.valley else "ridge"
    return (set_to("shell.ridge", made),), f"Put a {name} beam of {_words_in(s).section(found)} over {_words_in(s).m(span)}"


def _ridge_after(s: Studied, _finding: Finding) -> str:
    made = _check(s, "ridge")
    return f"{(made.use or 0.0) * 100:.0f} % of what it may carry" if made is not None and made.use is not None else "it is judged again"


def _shorter_screws(s: Studied, _finding: Finding) -> Made | None:
    made = _check(s, "screw")
    if made is None or made.limit is None or made.limit < 0.01:
        return None
    step = INCH_M / 8 if s.build.brief.reading.shown().imperial else STEP_M
    long = math.floor(made.limit / step + 1e-9) * step
    return (set_to("shell.framing.screw", {"si": round(long, 5)}),), f"Take screws {_words_in(s).thick(long)} long"


ROOF_SNOW = Rule(
    "roof-weak-snow",
    "mind",
    "Shell",
    "A roof whose sticks the snow bends too far",
    "Ground snow is what the place's code says; a roof carries a share of it.",
    SCREEN,
    helps="edit",
    cure=_stronger_roof,
)
ROOF_SOFT = Rule(
    "roof-soft",
    "mind",
    "Shell",
    "A roof that sinks more than a 240th of its span",
    "Water stands where a roof hangs through, and a ceiling cracks.",
    SCREEN,
    why_none="Deeper sticks, a shorter span, or skins glued on so that they help.",
)
ROOF_PERSON = Rule(
    "roof-no-person",
    "mind",
    "Shell",
    "A roof that bears nobody",
    "Somebody will want to wash it, or lift snow off.",
    SCREEN,
    why_none="Work from a ladder or a plank over two sticks, set deeper sticks closer, or say on Holds that nobody goes on this roof.",
)
HEADER = Rule(
    "header-weak",
    "mind",
    "Shell",
    "A header over an opening that bends too far under its load",
    "It carries half the roof over its span.",
    SCREEN,
    why_none="A deeper header (choose it, Deep), or a narrower opening.",
)
FLOOR = Rule(
    "floor-weak",
    "mind",
    "Shell",
    "A floor too thin under a foot",
    "Somebody stands on {0.3 m} between two joists or cross-members.",
    SCREEN,
    why_none="Thicker sheets, or joists and cross-members closer together.",
)
LOFT = Rule(
    "loft-weak",
    "mind",
    "Shell",
    "Loft joists that are too weak",
    "{1.9 kPa} lie and sit on a loft.",
    SCREEN,
    why_none="Deeper joists, or closer ones (Walls).",
)
RACKING = Rule(
    "racks",
    "mind",
    "Shell",
    "Walls that a firm stop pushes out of square",
    "Sheets on whole piers keep a box square; openings take them away.",
    SCREEN,
    why_none="Fewer or narrower openings, thicker sheets, a brace let in, or a cross wall inside.",
)
TIPS = Rule(
    "tips-in-wind",
    "mind",
    "Shell",
    "Parked, it tips in the wind that is said",
    "Empty it is lightest.",
    SCREEN,
    why_none="Anchors at its corners, or the long side into the wind.",
)
PULLED = Rule(
    "skin-pulled",
    "mind",
    "Shell",
    "A roof skin that its screws do not hold",
    "Towing air pulls at the roof's front edge.",
    SCREEN,
    why_none="Screws closer together, or glue (Screws every, on Holds).",
)
PUSHED = Rule(
    "front-pushed",
    "mind",
    "Shell",
    "A front panel whose bond towing air pushes too hard",
    "What faces the air is pushed with all of its area.",
    SCREEN,
    why_none="A wider lap, profiles on both sides, or rivets that are reckoned by whoever knows them.",
)
SCREW = Rule(
    "screw-through",
    "mind",
    "Shell",
    "Screws that come through the wall",
    "A point that shows inside pricks whoever leans there and lets water in.",
    SCREEN,
    helps="edit",
    cure=_shorter_screws,
)
RUNG = Rule(
    "rung-weak",
    "mind",
    "Shell",
    "A rung too thin under a foot",
    "One stands on it with a whole weight, and steps hard.",
    SCREEN,
    why_none="A deeper rung (Walls).",
)
HATCH = Rule(
    "hatch-latch-weak",
    "mind",
    "Shell",
    "A hatch whose latches towing air pulls open",
    "It flies open on the road, with whatever is behind it.",
    SCREEN,
    why_none="Stronger latches, or one more.",
)
BOLTS = Rule(
    "body-bolts-weak",
    "mind",
    "Shell",
    "Too few bolts between body and frame",
    "A stop pushes the body off, wind pulls it off.",
    SCREEN,
    why_none="Bolts closer together (Bolts every, on Holds; empty: as many as are wanted).",
)
ON_ROOF = Rule(
    "roof-load-lifts",
    "mind",
    "Shell",
    "Something on the roof that towing air pulls off",
    "It lands on the car behind.",
    SCREEN,
    why_none="More or stronger fixings, into framing and not the skin.",
)
GUY_N = 600.0  # of one with its peg in common ground (practice), where nobody said


def _guys(s: Studied, _finding: Finding) -> Made | None:
    """As many pairs as hold what the wind pushes."""
    risen, rising = risen_of(s.build.shell, s.framed.body), s.build.shell.rising
    if risen is None or rising is None:
        return None
    each = rising.guy_n if rising.guy_n is not None else GUY_N
    pushed = pushed_n(risen, parked_wind_m_s(s))
    pairs = max(math.ceil(pushed / (each * math.cos(math.radians(45.0))) - 1e-9), 1)
    if pairs > 6:
        return None
    ops = (set_to("shell.rising.guys", 2 * pairs), set_to("shell.rising.guy_n", each))
    return ops, f"{2 * pairs} guys of {_words_in(s).fine_newtons(each)}, down before such a wind"


SEAT = Rule(
    "rafter-seat",
    "mind",
    "Shell",
    "Rafters whose bird's mouth bears on too little",
    f"A rafter wants {{{LEAST_SEAT_M * 1000:.0f} mm}} to bear on, and no more than a third of it is sawn out.",
    SCREEN,
    why_none="Deeper rafters, a ledger under them, or hangers.",
)
RIDGE = Rule(
    "ridge-unsaid",
    "mind",
    "Shell",
    "A pitched roof and nothing said that holds its ridge or valley",
    "Rafters that only lean on each other push the walls apart; the weakest form would read as the strongest.",
    SCREEN,
    helps="edit",
    cure=_ridge_beam,
    after=_ridge_after,
)
RIDGE_WEAK = Rule(
    "ridge-weak",
    "mind",
    "Shell",
    "A ridge or valley beam, tie or collar that is too weak",
    "It carries half of each slope, or all of its thrust.",
    SCREEN,
    helps="edit",
    cure=_ridge_beam,
    after=_ridge_after,
)
GUYS = Rule(
    "roof-up-guys",
    "mind",
    "Shell",
    "A roof that is up and has no guys, or too few, against the wind",
    "Its struts hold it up and nothing sideways; it folds over those who sleep under it.",
    SCREEN,
    helps="edit",
    cure=_guys,
)
OF = {
    "ridge": RIDGE_WEAK,
    "ridge-sinks": RIDGE_WEAK,
    "roof-snow": ROOF_SNOW,
    "roof-sinks": ROOF_SOFT,
    "roof-person": ROOF_PERSON,
    "headers": HEADER,
    "floor": FLOOR,
    "loft": LOFT,
    "racking-along": RACKING,
    "racking-across": RACKING,
    "wind-parked": TIPS,
    "wind-risen": TIPS,
    "risen-push": GUYS,
    "roof-uplift": PULLED,
    "front-pushed": PUSHED,
    "screw": SCREW,
    "body-bolts": BOLTS,
}


def holds_findings(s: Studied, _words: Words) -> Iterator[Finding]:
    """Does it hold snow, wind and feet? Yields checks that are over, near, or could not be made."""
    openings = {opening.id for opening in s.build.shell.openings}
    pitch = pitch_of(s.build.shell, s.framed.body)
    if pitch is not None and not held(s.build.shell.ridge, pitch):
        name, ways = ("valley", "a beam on posts") if pitch.valley else ("ridge", "a beam, ties or collars")
        yield RIDGE.found(
            f"What holds the {name}?", f"Nobody said: {ways}. Until then neither rafters nor {name} are checked.", ("holds", "ridge-unsaid")
        )
    for cuts in rafter_cuts(s):
        if cuts.too_short:
            words = _words_in(s)
            told = f"{words.thick(cuts.seat_m)} of seat in rafters {words.thick(cuts.section_m[1])} deep at {cuts.cut_deg:.0f}°."
            yield SEAT.found(f"Rafters of {cuts.surface}: little to bear on", told, ("holds", cuts.surface), number=-cuts.seat_m)
    for check in screening(s):
        if check.id in ("wind-parked", "wind-risen") and s.build.brief.parked_wind_m_s is None:
            continue  # shown among the checks; nobody said what blows there
        if check.id == "risen-push" and check.use is None:
            yield GUYS.found("With its roof up it asks for guys", f"{upper_first(check.why)}.", ("holds", check.id))
        if check.use is not None and check.use > 1.0:
            rule = (
                OF.get(check.id) or (RUNG if check.id.startswith("rung/") else None) or (HATCH if check.where[0] in openings else ON_ROOF)
            )
            yield rule.found(check.name, f"{check.use * 100:.0f} % of what is allowed: {check.how}.", ("holds", check.id), number=check.use)
