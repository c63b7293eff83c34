"""Judgements on what is made of boards, what turns on struts, and what people lie, sit and lean on."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.cabinets_in_place import blocked_drawers, cut_fronts
from uncle_sled.core.studies.stow.carries import Carry, carries
from uncle_sled.core.studies.stow.clashes import modes_in_use
from uncle_sled.core.studies.stow.hinged import Hinged, hinged
from uncle_sled.core.studies.stow.reach import COOK_M, cook
from uncle_sled.core.studies.stow.struts import HOLD_SHARE, SAYS, search
from uncle_sled.core.words import Words, lower_first

SOURCE = "statics; gas struts by their data; shop rules for drawers and beds"  # of every rule here, said after its reason

Made = tuple[tuple[Op, ...], str]
STEP_M = 0.003  # boards come thicker by that
THICKEST_M = 0.030
HEAVY_KG = 5.0  # a leaf that nobody holds up with one finger
CAUTION = "Screening only: what falls or gives way under somebody hurts. Test it loaded, with somebody beside it."
STRUT_CAUTION = "A strut gives way without a warning: nobody's head under it without a second support."


def _hinged_of(s: Studied, finding: Finding) -> Hinged | None:
    return next((made for made in hinged(s) if made.id in finding.where), None)


def _strut(s: Studied, finding: Finding) -> Made | None:
    """The strut and mounts of those that are sold that meet the limits, or come nearest."""
    made = _hinged_of(s, finding)
    if made is None or made.turning is None:
        return None
    many = max(made.strut.many, 2) if made.strut is not None else 2
    found = search(made.turning, many)
    if found is None or "hold" in found.verdict.fails or not found.verdict.fits:
        return None
    words = Words(s.build.brief.reading.shown())
    size = f"{words.thick(found.strut.shut.si)} to {words.thick(found.strut.open.si)}"
    told = f"{many} struts of {words.fine_newtons(found.strut.force_n)}, {size}, mounted as drawn"
    return (set_to(f"{made.path}.strut", msgspec.to_builtins(found.strut)),), told


def _thicker(s: Studied, finding: Finding) -> Made | None:
    """The next thicker board that carries."""
    thing = next((t for t in s.build.stow.things if t.id in finding.where), None)
    if thing is None:
        return None
    board = thing.base is not None and thing.base.kind == "board"
    path, thick = (f"stow.things.{thing.id}.base.thick", thing.base.thick.si) if board and thing.base else ("", 0.0)
    if not path and thing.cabinet is not None:
        path, thick = f"stow.things.{thing.id}.cabinet.thick", thing.cabinet.thick.si
    worst = max((c.use or 0.0 for c in carries(s) if c.thing == thing.id and c.id.split("/")[1] in ("base", "lid")), default=0.0)
    if not path or worst <= 1:
        return None
    wanted = thick
    while wanted < THICKEST_M and max((thick / wanted) ** 2, (thick / wanted) ** 3) * worst > 1:
        wanted = round(wanted + STEP_M, 4)
    words = Words(s.build.brief.reading.shown())
    return (set_to(path, {"si": wanted, "typed": None}),), f"Boards {words.thick(wanted)} thick"


def _screwed(s: Studied, finding: Finding) -> Made | None:
    thing = next((t for t in s.build.stow.things if t.id in finding.where and t.pull_out is not None), None)
    if thing is None:
        return None
    return (set_to(f"stow.things.{thing.id}.pull_out.screwed", value=True),), "Screw its cabinet to the body"


def _held_after(s: Studied, finding: Finding) -> str:
    made = _hinged_of(s, finding)
    if made is None or made.verdict is None or made.verdict.hold_share is None:
        return "it is judged again"
    words = Words(s.build.brief.reading.shown())
    return f"{made.verdict.hold_share * 100:.0f} % at {words.degrees(-10)}, {words.fine_newtons(made.verdict.raise_n)} to raise"


def _carried_after(s: Studied, finding: Finding) -> str:
    worst = max((check.use for check in carries(s) if check.thing == finding.where[0] and check.use is not None), default=None)
    return f"{worst * 100:.0f} % of what is allowed" if worst is not None else "it is judged again"


CABINET_WRONG = Rule(
    "cabinet-wrong",
    "mind",
    "Stow",
    "A cabinet that cannot be built as typed",
    "No board of it goes to the saw, and its weight stays as typed.",
    why_none="Change the size named (Built).",
)
FRONT_CUT = Rule(
    "front-cut",
    "mind",
    "Stow",
    "A drawer or door that the body's curve or a wheel box cuts",
    "A box with a corner off holds nothing and runs on no slide.",
    why_none="Shelves in that bay, a shorter bay, or the cabinet elsewhere (Built).",
)
DRAWER_HITS = Rule(
    "drawer-hits",
    "mind",
    "Stow",
    "A drawer that comes up against something",
    "One finds out when it is full.",
    why_none="Doors instead of drawers, or one of the two elsewhere.",
)
HATCH_FALLS = Rule(
    "hatch-falls",
    "mind",
    "Stow",
    "A hatch or lid that comes down in frost",
    "Gas loses a third of a percent a degree; what was fixed to the lid later is not in the strut.",
    STRUT_CAUTION,
    helps="edit",
    cure=_strut,
    after=_held_after,
)
STRUT_HARD = Rule(
    "strut-hard",
    "note",
    "Stow",
    "A hatch or lid that is heavy to raise or shut, or flies up",
    "{120 N} to raise, {100 N} to shut, {80 N} by itself are what hands put up with.",
    STRUT_CAUTION,
    helps="edit",
    cure=_strut,
    after=_held_after,
)
STRUT_WRONG = Rule(
    "strut-wrong",
    "mind",
    "Stow",
    "A strut that cannot be there",
    "Too long or too short it tears its mounts out.",
    STRUT_CAUTION,
    helps="edit",
    cure=_strut,
    after=_held_after,
)
STRUT_UNSAID = Rule(
    "strut-unsaid",
    "note",
    "Stow",
    "A heavy hatch or lid of which nobody said what holds it up",
    "It is worked out before the mounts are screwed on.",
    STRUT_CAUTION,
    helps="edit",
    cure=_strut,
    after=_held_after,
)
STRUT_ALONE = Rule(
    "strut-alone",
    "mind",
    stop="Stow",
    when="A single strut and nothing else that holds",
    why="When it gives way the lid comes down.",
    caution=STRUT_CAUTION,
    why_none="A second strut, a prop, a pin or a catch (Lids).",
)
SECOND_UNSAID = Rule(
    "second-hold-unsaid",
    "mind",
    stop="Stow",
    when="A lifted bed, hatch or lid without a second hold that is said",
    why="Struts of one age lose their gas together; ropes and catches give way once.",
    caution=STRUT_CAUTION,
    why_none="A prop, pin, ledge or chain, said on Lids or Built.",
)
BED_WEAK = Rule(
    "bed-weak",
    "mind",
    "Stow",
    "Boards, slats or bearers that do not carry people",
    "Somebody kneels on it, with all the weight on one place.",
    CAUTION,
    helps="edit",
    cure=_thicker,
    after=_carried_after,
)
PULL_TIPS = Rule(
    "pull-out-tips",
    "stop",
    "Stow",
    "A pull-out that tips its cabinet over",
    "Pulled out and leaned on it is a lever.",
    CAUTION,
    helps="edit",
    cure=_screwed,
    after=_carried_after,
)
PULL_WEAK = Rule(
    "pull-out-weak",
    "mind",
    stop="Stow",
    when="Slides or a latch too weak for what is pulled out",
    why="In a stop it all leans on its latch, pulled out on its slides.",
    caution=CAUTION,
    why_none="Slides and latch rated for it (Built).",
)
LIFT_WEAK = Rule(
    "lift-weak",
    "stop",
    stop="Stow",
    when="Rope, pins or crank of a lifting bed that do not do",
    why="Ropes at five times what they carry; nobody sleeps on a rope.",
    caution=CAUTION,
    why_none="Stronger ropes and pins, more parts to the rope (Built).",
)
LIFT_FREE = Rule(
    "lift-no-brake",
    "mind",
    stop="Stow",
    when="A winch that does not hold by itself",
    why="A ratchet alone slips while one looks for the pin.",
    caution=CAUTION,
    why_none="A winch with a brake.",
)
COOK_STEPS = Rule(
    "cook-steps",
    "note",
    "Stow",
    "Something of the kitchen that the cook cannot reach from one place",
    "A hot pan is not walked about with.",
    why_none="Move it beside the others.",
)


def built_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Can the cabinets be built, do their bays open, do beds and lids carry? Yields what is not so."""
    things = {thing.id: thing for thing in s.build.stow.things}
    yield from _cabinets(s, things, words)
    for leaf in hinged(s):
        yield from _lid(leaf, words)
    for check in carries(s):
        yield from _carried(check, things[check.thing])
    for thing in things.values():
        if thing.winch is not None and not thing.winch.second and not thing.taken_out:
            yield SECOND_UNSAID.found(
                f"A second hold of {lower_first(thing.name)}",
                "It is lifted over people, and nobody said what holds it up when a rope gives way: not checked.",
                (thing.id, "second"),
                severity="mind",
            )
    used = modes_in_use(s.build)
    for mode in s.build.stow.modes:
        if mode.id in used:
            far = [each_cook for each_cook in cook(s.build, s.facts, mode).things if not each_cook.good]
            if far:
                worst = max(far, key=lambda cook: cook.far_m)
                yield COOK_STEPS.found(
                    f"{worst.name} is away from the cook",
                    f"{words.m(worst.far_m)} from where the cook stands, {words.m(COOK_M)} is in reach{f'; {len(far) - 1} more' if len(far) > 1 else ''}.",
                    (worst.id,),
                    number=worst.far_m,
                )
                break


def _cabinets(s: Studied, things: dict[str, Thing], words: Words) -> Iterator[Finding]:
    for id, fitted in cabinets_of(s.build, s.facts).items():
        for fault in fitted.faults[:1]:
            yield CABINET_WRONG.found(f"{fitted.name} cannot be built so", f"{fault[:1].upper()}{fault[1:]}.", (id,))
    seen: set[str] = set()
    for id, board, what in cut_fronts(s.build, s.facts):
        if id not in seen:
            seen.add(id)
            whose = "the wheel box" if what == "wheel box" else "the body's curve"
            yield FRONT_CUT.found(f"{things[id].name}: a front is cut", f"The {board} runs into {whose}.", (id,))
    used = modes_in_use(s.build)
    hit: set[tuple[str, str]] = set()
    for mode in s.build.stow.modes:
        for drawer in blocked_drawers(s.build, s.facts, mode) if mode.id in used else ():
            if (drawer.cabinet, drawer.by) not in hit:
                hit.add((drawer.cabinet, drawer.by))
                yield DRAWER_HITS.found(
                    f"{things[drawer.cabinet].name}: a drawer hits the {lower_first(things[drawer.by].name)}",
                    f"It comes out {words.m(drawer.free_m)} of {words.m(drawer.travel_m)} in {mode.name.lower()}.",
                    (drawer.cabinet, drawer.by),
                    number=drawer.travel_m - drawer.free_m,
                )


def _lid(leaf: Hinged, words: Words) -> Iterator[Finding]:
    if leaf.strut is None:
        if leaf.turning is not None and leaf.turning.mass_kg > HEAVY_KG:
            yield STRUT_UNSAID.found(
                f"What holds the {lower_first(leaf.name)} up?",
                f"{words.kg(leaf.turning.mass_kg)}, its centre {words.m(leaf.turning.r_m)} from the hinge, and no struts are said.",
                (leaf.id,),
            )
        return
    if leaf.verdict is None:
        if leaf.turning is not None:
            yield STRUT_WRONG.found(f"{leaf.name}: the strut cannot be so", f"{leaf.why[:1].upper()}{leaf.why[1:]}.", (leaf.id,))
        return
    judged = leaf.verdict
    added = f" {words.kg(leaf.added_kg)} of it were fixed to it." if leaf.added_kg else ""
    if not judged.fits:
        yield STRUT_WRONG.found(f"{leaf.name}: the strut is not long or short enough", "It would leave its stroke on the way.", (leaf.id,))
    elif "hold" in judged.fails and judged.hold_share is not None:
        assert leaf.turning is not None
        yield HATCH_FALLS.found(
            f"{leaf.name} comes down in frost",
            f"At {words.degrees(-10)} the gas gives {judged.hold_share * 100:.0f} % of what {words.kg(leaf.turning.mass_kg)} want, open; {HOLD_SHARE * 100:.0f} % would be right.{added}",
            (leaf.id,),
            number=-judged.hold_share,
        )
    elif judged.fails:
        numbers = f"{words.fine_newtons(judged.raise_n)} to raise, {words.fine_newtons(judged.close_n)} to shut, {words.fine_newtons(judged.self_n)} by itself"
        yield STRUT_HARD.found(
            f"{leaf.name} {SAYS[judged.fails[-1]]}", f"{numbers}.", (leaf.id,), number=max(judged.raise_n, judged.close_n)
        )
    if leaf.second and not leaf.propped and leaf.turning is not None and leaf.turning.mass_kg > HEAVY_KG:
        yield SECOND_UNSAID.found(
            f"A second hold of the {lower_first(leaf.name)}",
            "Nobody said what holds it when both struts have lost their gas: not checked.",
            (leaf.id, "second"),
            severity="note",
        )
    if not leaf.second:
        yield STRUT_ALONE.found(f"{leaf.name} hangs on one strut", "Nothing holds it when that gives way.", (leaf.id,))


def _carried(check: Carry, thing: Thing) -> Iterator[Finding]:
    what = check.id.split("/")[1]
    if what == "brake":
        yield LIFT_FREE.found(f"{thing.name}: its winch holds by nothing", f"{check.why[:1].upper()}{check.why[1:]}.", (thing.id, "brake"))
    if check.use is None or check.use <= 1:
        return
    rule = (
        BED_WEAK
        if what in ("base", "bearer", "lid")
        else PULL_TIPS
        if what == "tips"
        else LIFT_WEAK
        if what in ("crank", "rope", "pins")
        else PULL_WEAK
    )
    yield rule.found(check.name, f"{check.use * 100:.0f} % of what is allowed: {check.how}.", (thing.id, what), number=check.use)
