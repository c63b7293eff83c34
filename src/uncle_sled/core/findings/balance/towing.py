"""Judgements on how it tows and what the frame feels: swings that settle slowly, rails and tongue over their stress."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.placing import is_home
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Cure, Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance import frame_beam, sway
from uncle_sled.core.words import Words, lower_first

SOURCE = "linear car and trailer; Euler and Bernoulli's beam"  # of every rule here, said after its reason

Made = tuple[tuple[Op, ...], str]
CAUTION = sway.CAUTION
FRAME_CAUTION = frame_beam.CAUTION
ENOUGH = 0.95  # of yield, of a section that is offered
MOST_TRIED = 6


def _nearer(at: int) -> Cure:
    """Move the dearest mass that may be moved (the first, the second, ...) over the axle."""

    def cure(s: Studied, finding: Finding) -> Made | None:
        row = _row(s, finding)
        things = {t.id: t for t in s.build.stow.things}
        made: list[str] = []
        for cost in sway.costs(s, row):
            id = cost.id.split("/")[0]
            thing = things[id]
            if cost.gain > 0 and id not in made and not thing.inside and not thing.taken_out:
                made.append(id)
        if at >= len(made):
            return None
        thing = things[made[at]]
        axle = float(s.readings.effective_axle_m[row])
        long = thing.length.si if thing.turn % 180 == 0 else thing.width.si
        home = next((mode for mode in s.build.stow.modes if is_home(s.build, mode)), None)
        if home is None:
            return None
        spot = {"si": round(axle - long / 2, 3), "typed": None}
        return (set_to(f"stow.things.{thing.id}.x", spot),), f"Move the {lower_first(thing.name)} over the axle"

    return cure


def _row(s: Studied, finding: Finding) -> int:
    return next((row for row, case in enumerate(s.table.cases) if case.id == finding.case_id), s.towing_rows[0])


def _after(s: Studied, finding: Finding) -> str:
    made = next((c for c in sway.sway(s).cases if c.case_id == finding.case_id), None)
    return f"damping {made.damping_at:.2f}" if made is not None else "it is judged again"


def _next_rail(s: Studied, _finding: Finding) -> Made | None:
    """The lightest section of the table, sold where the builder is, that stays under its yield and its sinking."""
    words = Words(s.build.brief.reading.shown())
    inches = s.build.brief.region == "North American"
    metal = frame_beam.frame_under(s).rail
    for choice in frame_beam.choices(s):
        fits = choice.utilisation <= ENOUGH and choice.sinks_m <= choice.sinks_limit_m
        if fits and choice.section.inches == inches and metal is not None and choice.section.metal == metal.metal:
            return (set_to("rig.rail", choice.section.id),), f"Rails of {choice.section.says(words.shown)}"
    return None


def _stressed_after(s: Studied, _finding: Finding) -> str:
    made = frame_beam.frame_under(s)
    return f"{(made.utilisation or 0.0) * 100:.0f} % of its yield"


MORE = tuple(_nearer(k) for k in range(1, MOST_TRIED))
SWAY_CRITICAL = Rule(
    "sway-critical",
    "stop",
    "Balance",
    "Its swings grow not far over the fastest speed",
    "A gust, a ditch or a lorry starts it; going slower is the only thing that ends it.",
    CAUTION,
    helps="edit",
    cure=_nearer(0),
    more=MORE,
    after=_after,
)
SWAY_LOW = Rule(
    "sway-low",
    "mind",
    "Balance",
    "Its swings settle slowly at the fastest speed",
    "Under 0.1 it wags a dozen times after every gust.",
    CAUTION,
    helps="edit",
    cure=_nearer(0),
    more=MORE,
    after=_after,
)
OVERSTEERS = Rule(
    "car-oversteers",
    "mind",
    "Balance",
    "The car in front turns away by itself",
    "With its front so light the car is unsteady, whatever the trailer does.",
    CAUTION,
    why_none="Less on the ball, or less behind the car's rear axle.",
)
FRAME_WEAK = Rule(
    "frame-weak",
    "mind",
    "Balance",
    "Rails over their yield on the road, parked or lifted",
    "It bends for good, then cracks at a weld.",
    FRAME_CAUTION,
    helps="edit",
    cure=_next_rail,
    after=_stressed_after,
)
TONGUE_SLENDER = Rule(
    "tongue-slender",
    "mind",
    "Balance",
    "A drawbar too slender for what hangs on it",
    "All of the ball's load bends it at the first cross-member.",
    FRAME_CAUTION,
    why_none="A deeper drawbar, a shorter one, or a third leg (Rails, on Rig).",
)
FRAME_SOFT = Rule(
    "frame-soft",
    "mind",
    "Balance",
    "Rails that sink more than a 500th of their span",
    "Doors stick and skins crack; the body helps, and is not counted.",
    FRAME_CAUTION,
    helps="edit",
    cure=_next_rail,
    after=_stressed_after,
)
FRAME_MENDED = Rule(
    "frame-mended",
    "mind",
    "Balance",
    "A frame that was reinforced where it cracked",
    "A crack says that it was over its strength there; a plate over it moves the crack to the plate's end.",
    FRAME_CAUTION,
    why_none="Have it looked at by somebody who repairs frames before it carries more.",
)


def towing_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Does it swing, does the frame hold, does the car carry it? Yields what is not so."""
    yield from _swings(s, words)
    yield from _frame(s, words)


def _swings(s: Studied, words: Words) -> Iterator[Finding]:
    made = sway.sway(s)
    if not made.said:
        return  # how fast it is to go nobody said; the curve stands on Sway
    ids = {s.table.cases[row].id for row in s.towed_rows}
    towed = [swaying for swaying in made.cases if swaying.case_id in ids]
    grows = [swaying for swaying in towed if swaying.critical_kmh is not None and swaying.critical_kmh < sway.MARGIN * made.at_kmh]
    if grows:
        first = min(grows, key=lambda swaying: swaying.critical_kmh or 0.0)
        low, high = sway.critical_span(first.train)
        span = (
            f" ({words.kmh(low)} to {words.kmh(high)}: the car's inertia is a guess)"
            if low is not None and high is not None and abs(high - low) > 1.0
            else ""
        )
        yield SWAY_CRITICAL.found(
            f"Swings grow: {lower_first(first.name)}",
            f"From {words.kmh(first.critical_kmh or 0.0)} on they grow by themselves{span}; {words.kmh(sway.MARGIN * made.at_kmh)} or more would be right for {words.kmh(made.at_kmh)}.{_also(first, grows)}",
            ("sway",),
            first.case_id,
            -(first.critical_kmh or 0.0),
        )
    slow = [swaying for swaying in towed if swaying not in grows and swaying.damping_at < sway.GOOD]
    if slow:
        least = min(slow, key=lambda swaying: swaying.damping_at)
        yield SWAY_LOW.found(
            f"Swings settle slowly: {lower_first(least.name)}",
            f"Damping {least.damping_at:.2f} at {words.kmh(made.at_kmh)}; {sway.GOOD:g} or more would be right.{_also(least, slow)}",
            ("sway",),
            least.case_id,
            -least.damping_at,
        )
    away = [swaying for swaying in made.cases if swaying.oversteer_kmh is not None and swaying.oversteer_kmh < sway.MARGIN * made.at_kmh]
    if away:
        worst = min(away, key=lambda swaying: swaying.oversteer_kmh or 0.0)
        yield OVERSTEERS.found(
            "The car turns away by itself",
            f"From {words.kmh(worst.oversteer_kmh or 0.0)} on, {lower_first(worst.name)}, without any swing.",
            ("vehicle",),
            worst.case_id,
            -(worst.oversteer_kmh or 0.0),
        )


def _also(first: sway.Swaying, all_of_them: list[sway.Swaying]) -> str:
    """The other cases of one cause, in one line."""
    others = [lower_first(swaying.name) for swaying in all_of_them if swaying is not first]
    return f" Also {', '.join(others[:3])}{' and others' if len(others) > 3 else ''}." if others else ""


def _frame(s: Studied, words: Words) -> Iterator[Finding]:
    if s.build.rig.frame_mended is not None:
        at = s.build.rig.frame_mended.si
        made = frame_beam.frame_under(s)
        near = ""
        if made.worst is not None:
            use = float(made.worst.stress_pa[abs(made.worst.x_m - at).argmin()]) / made.yield_pa
            near = f" It is at {use * 100:.0f} % of its yield there, sound."
        yield FRAME_MENDED.found(
            "The frame was reinforced where it cracked", f"At {words.m(at)} behind the ball.{near}", ("frame", "mended")
        )
    under = frame_beam.frame_under(s)
    worst = under.worst
    if worst is None or under.utilisation is None:
        return
    says: Callable[[float], str] = lambda pa: f"{pa / 6894.757:.0f} psi" if words.shown.imperial else f"{pa / 1e6:.0f} MPa"  # fmt: skip
    where = f"{frame_beam.LABEL[worst.how]}, {lower_first(worst.name)}, {words.m(worst.worst_m)} behind the ball"
    if under.utilisation > 1 and worst.worst_m >= under.nose_m + 1e-6:
        yield FRAME_WEAK.found(
            "The rails yield",
            f"{says(worst.worst_pa)} of {says(under.yield_pa)} {where}.",
            ("frame", "rails"),
            worst.case_id,
            under.utilisation,
        )
    tongue = max(under.beams, key=lambda beam: max(beam.tongue_pa, float(beam.stress_pa[beam.x_m <= under.nose_m + 1e-6].max(initial=0.0))))
    most = max(tongue.tongue_pa, float(tongue.stress_pa[tongue.x_m <= under.nose_m + 1e-6].max(initial=0.0)))
    if most > under.yield_pa:
        yield TONGUE_SLENDER.found(
            "The drawbar yields",
            f"{says(most)} of {says(under.yield_pa)} at its foot, {frame_beam.LABEL[tongue.how]}, {lower_first(tongue.name)}.",
            ("frame", "tongue"),
            tongue.case_id,
            most / under.yield_pa,
        )
    soft = max(
        (beam for beam in under.beams if beam.how == "road"),
        key=lambda beam: beam.sinks_most_m / max(beam.sinks_limit_m, 1e-9),
        default=None,
    )
    if soft is not None and soft.sinks_most_m > soft.sinks_limit_m:
        yield FRAME_SOFT.found(
            "The rails sink",
            f"{words.thick(soft.sinks_most_m)} of {words.thick(soft.sinks_limit_m)}, {lower_first(soft.name)}.",
            ("frame", "soft"),
            soft.case_id,
            soft.sinks_most_m / soft.sinks_limit_m,
        )
