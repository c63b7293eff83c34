"""Judged of pieces, stock, shopping and money; silent until cutting or a budget was begun.

What a plan is needed for is judged by its first answer, so that judging waits for no search.
"""

from __future__ import annotations

import math
import re
import sys
from collections.abc import Iterator

from msgspec.structs import replace

from uncle_sled.core.document.cut import Cut
from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.findings.finding import RANK, Finding
from uncle_sled.core.findings.rule import Rule, rules_in
from uncle_sled.core.parts.face_build import family_of, library_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.as_built import misses_of
from uncle_sled.core.studies.cut.bought_line import Line
from uncle_sled.core.studies.cut.buying import lines_of
from uncle_sled.core.studies.cut.cut_from_stock import QUESTIONS, QUICK, BuildPlan, plan_of, sizes_now
from uncle_sled.core.studies.cut.layouts import piece_area_m2
from uncle_sled.core.studies.cut.money import money_of
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.words import Words, lower_first

SOURCE = "the take-off of the drawing against what is sold and paid"  # of every rule here, said after its reason

LONG_DAYS = 21
FILLS = 0.8  # of a sheet that outlines can be hoped to fill
LIFT = "Lift with two, or with a crane; a licensed lifter decides where it hangs over people."


def _free(_s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    return (set_to("cut.saw", "free"),), "Cut along the outlines with router or jigsaw"


BUDGET_OVER = Rule(
    "budget-over",
    "mind",
    "Cut",
    "Likely cost, or what four builds of five stay under, over the budget",
    "Builders exceed their budget by half; what is bought first is bought best.",
    why_none="Leave something out, buy it used, or raise the budget on Money.",
)
NO_STOCK_FITS = Rule(
    "piece-fits-no-stock",
    "mind",
    "Cut",
    "A piece that no size in stock holds, or of which there is too little",
    "It is not among the sheets and bars, so it would be missing on the day.",
    why_none="Join it over a stick, or add a larger size on Stock.",
)
TOO_HEAVY = Rule(
    "piece-too-heavy",
    "note",
    "Cut",
    "A piece heavier than one carries",
    "One person cannot hold it against the frame and screw.",
    LIFT,
    why_none="Two people, or part it at a stick.",
)
TWO_BATCHES = Rule(
    "veneer-two-batches",
    "note",
    "Cut",
    "Veneer of one face from two batches",
    "Colour and figure differ from batch to batch, and it is seen side by side.",
    why_none="Buy it at once, or keep each face to one batch.",
)
OUTLINES = Rule(
    "waste-by-boxes",
    "note",
    "Cut",
    "Curved pieces cut edge to edge that along their outlines may want fewer sheets",
    "Edge to edge an outline costs its whole box.",
    "A router or jigsaw throws dust and kicks: mask, eyes, both hands.",
    helps="edit",
    cure=_free,
)
RACK_UNUSED = Rule(
    "rack-would-do",
    "note",
    "Cut",
    "A board of the rack that would hold a piece but is called otherwise",
    "It is taken only where its material is written as the pieces call it.",
    why_none="Where it is as good, write its material on Stock as the pieces call it.",
)
LONG_LEAD = Rule(
    "long-lead-not-ordered",
    "mind",
    "Cut",
    "Something with a long lead time that is not ordered",
    "Windows and axles that come late stop the work for weeks.",
    why_none="Order it, or mark it ordered on Buy.",
)
LATE_ORDER = Rule(
    "quote-lapsed",
    "note",
    "Cut",
    "Ordered after the quote had lapsed",
    "The price may be another one now.",
    why_none="Ask again and type the new quote on Buy.",
)
PRINT_OLD = Rule(
    "print-out-of-date",
    "note",
    "Cut",
    "Pieces that changed since they were printed",
    "Whoever saws by the old sheet saws it wrong.",
    why_none="Number and print on Pieces once more, and take the old sheets away.",
)


CUT_SHORT = Rule(
    "cut-short",
    "mind",
    "Cut",
    "Pieces that are cut already and smaller than what is needed now",
    "What was built, or drawn since, wants them larger; nothing makes them longer.",
    why_none="See them on Built, and cut them anew from what is left over.",
)


def begun(s: Studied) -> bool:
    """Whether anybody has begun to cut, to buy or to count."""
    return s.build.cut != Cut() or s.build.brief.budget is not None


def on_the_whole_plan(s: Studied, found: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """The same findings with those of cutting and buying judged on the plan with all its patience, as a report tells it.

    Findings are judged on the first plan, since nobody waits for them; one report has one sum of money.
    """
    if not begun(s):
        return found
    words = Words(s.build.brief.reading.shown())
    whole = {each.key: each for each in cut_findings(s, words, QUESTIONS)}
    codes = {rule.code for rule in rules_in(sys.modules[__name__])}
    kept = []
    for finding in found:
        if finding.code not in codes:
            kept.append(finding)
        elif finding.key in whole:
            again = whole.pop(finding.key)
            kept.append(replace(again, remedy=finding.remedy, why_none=finding.why_none or again.why_none, set_aside=finding.set_aside))
    return tuple(sorted((*kept, *whole.values()), key=lambda each: RANK[each.severity]))


def cut_findings(s: Studied, words: Words, many: int = QUICK) -> Iterator[Finding]:
    """Can the pieces be cut, bought and paid for? Silent until somebody begins. Args: many: patience of the plan."""
    if not begun(s):
        return
    made = plan_of(s.build, s.facts, many)
    lines = lines_of(s, made)
    yield from _money(s, lines)
    yield from _pieces(s, made, words)
    yield from _stock(s, made, words)
    yield from _buying(s, lines)


def _money(s: Studied, lines: tuple[Line, ...]) -> Iterator[Finding]:
    money = money_of(s.build, s.facts, lines, take_off(s.build, s.facts))
    budget = money.budget
    if budget is None or not lines or money.total.p80 <= budget:
        return
    likely = money.total.mean > budget
    unknown = f" {money.total.unknown} lines have no price and are not in it." if money.total.unknown else ""
    yield BUDGET_OVER.found(
        "Over the budget" if likely else "The budget may not do",
        f"Likely {money.total.mean:.0f}, four of five under {money.total.p80:.0f}; the budget is {budget:.0f}.{unknown}",
        ("budget",),
        number=money.total.mean - budget if likely else money.total.p80 - budget,
        severity="mind" if likely else "note",
    )


def _pieces(s: Studied, made: BuildPlan, words: Words) -> Iterator[Finding]:
    if made.plan.unplaced:
        many = sum(count for _, count in made.plan.unplaced)
        first = made.plan.unplaced[0][0]
        yield NO_STOCK_FITS.found(
            "A piece fits no stock" if many == 1 else f"{many} pieces fit no stock",
            f"{first} is larger than what is sold or in stock, or there is too little of it.",
            ("piece", "stock"),
            number=float(many),
        )
    carry = s.build.cut.carry.si
    heavy = [(piece.kg_m2 * piece.area_m2, piece) for piece in take_off(s.build, s.facts).pieces if piece.kind == "sheet" and piece.kg_m2]
    heavy = [one for one in heavy if one[0] > carry]
    if heavy:
        kg, piece = max(heavy, key=lambda one: one[0])
        yield TOO_HEAVY.found(
            f"{piece.name} is heavy to carry",
            f"{words.kg(kg)}; one carries {words.kg(carry)}. {len(heavy)} such.",
            ("piece", "heavy"),
            number=kg - carry,
        )
    short = [miss for miss in misses_of(s.build, s.facts) if miss.state == "too short"]
    if short:
        yield CUT_SHORT.found(
            "A piece is cut too short" if len(short) == 1 else f"{len(short)} pieces are cut too short",
            f"{short[0].named.label} by {words.cut(short[0].worst_m)}, the worst.",
            ("built", "cut"),
            number=short[0].worst_m,
        )
    if not s.build.cut.prints:
        return
    numbers = numbers_of(s.build, s.facts)
    if numbers.changed:
        named = ", ".join(numbered.label for numbered in numbers.changed[:4]) + (" …" if len(numbers.changed) > 4 else "")
        yield PRINT_OLD.found(
            f"{len(numbers.changed)} changed since print {s.build.cut.prints}",
            f"{named} {'is' if len(numbers.changed) == 1 else 'are'} no longer as printed.",
            ("piece", "print"),
            number=float(len(numbers.changed)),
        )


def _stock(s: Studied, made: BuildPlan, words: Words) -> Iterator[Finding]:
    cut = s.build.cut
    if cut.saw == "edge to edge":
        by_id = {wanted.id: wanted for wanted in made.pieces}
        library, saves = library_of(s.facts.materials), []
        metal = {piece.material for piece in take_off(s.build, s.facts).pieces if family_of(piece.made_of, library) == "metal"}
        for plan in made.plan.sheets:
            area = sum(piece_area_m2(by_id[piece.piece]) for layout in plan.layouts for piece in layout.pieces)
            sheet = max((layout.length_m * layout.width_m for layout in plan.layouts), default=1.0)
            hoped = math.ceil(area / (sheet * FILLS) - 1e-9)
            curved = any(by_id[piece.piece].outline for layout in plan.layouts for piece in layout.pieces)
            if curved and hoped < plan.used and plan.material not in metal:
                saves.append((plan.used - hoped, plan.material, plan.used, hoped))
        if saves:
            many, material, used, hoped = max(saves)
            yield OUTLINES.found(
                "Outlines may save sheets",
                f"{words.material(material)}: {used} sheets edge to edge; by area {hoped} might do along the outlines, {FILLS:.0%} filled.",
                ("sheets", "outlines"),
                number=float(many),
            )
    wanted = made.pieces
    for size in sizes_now(cut, take_off(s.build, s.facts)).sizes:
        if not size.rack or any(piece.material == size.material for piece in wanted):
            continue
        thick = _thick(size.material)
        alike = [
            piece
            for piece in wanted
            if piece.kind == size.kind
            and thick
            and _thick(piece.material) == thick
            and piece.length_m <= size.length.si
            and (size.width is None or piece.width_m <= size.width.si)
        ]
        if alike:
            yield RACK_UNUSED.found(
                f"{size.material} lies on the rack",
                f"{words.cut(size.length.si)} long, it would hold {alike[0].id} ({alike[0].material}).",
                ("rack", size.id),
            )


def _thick(material: str) -> str:
    found = re.findall(r"[\d.]+(?: x [\d.]+)? mm", material)
    return found[-1] if found else ""


def _buying(s: Studied, lines: tuple[Line, ...]) -> Iterator[Finding]:
    for line in lines:
        batches = [one for one in re.split(r"[,;/+]| and ", line.batch) if one.strip()]
        if line.one_batch and len(batches) > 1:
            yield TWO_BATCHES.found(
                f"{line.name}: two batches", f"{line.name} comes of {' and '.join(batch.strip() for batch in batches)}.", ("buy", line.id)
            )
        if line.quote_until and line.ordered and line.ordered > line.quote_until:
            yield LATE_ORDER.found(
                f"{line.name}: the quote had lapsed",
                f"Good until {line.quote_until}, ordered on {line.ordered}.",
                ("buy", "quote", line.id),
            )
    if not s.build.cut.prints and not any(line.ordered for line in lines):
        return  # nobody orders yet
    late = [
        line
        for line in lines
        if (line.lead_days or 0) >= LONG_DAYS and line.packs > 0 and not line.ordered and not line.arrived and line.spent is None
    ]
    if late:
        late.sort(key=lambda line: -(line.lead_days or 0))
        named = ", ".join(f"{lower_first(line.name) if k else line.name} ({line.lead_days} days)" for k, line in enumerate(late[:3]))
        yield LONG_LEAD.found(
            f"{len(late)} with long lead times not ordered" if len(late) > 1 else f"{late[0].name} is not ordered",
            named + (f" and {len(late) - 3} more" if len(late) > 3 else "") + ".",
            ("buy", "lead"),
            number=float(len(late)),
        )
