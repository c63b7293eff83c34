"""Judged of tickets, wishes and trips."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.road.reconcile import ODD, reconcile
from uncle_sled.core.studies.road.standing import stands
from uncle_sled.core.studies.road.trips import WORTH, taken
from uncle_sled.core.studies.road.weighing import CHANGED, case_row, stale, weighed
from uncle_sled.core.studies.road.wishes import traced
from uncle_sled.core.words import Words

SOURCE = "what was weighed and written down"  # of every rule here, said after its reason


def _as_taken(s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """Use figures of water as the trips took them."""
    made = next((t for t in taken(s) if t.unit == "L"), None)
    if made is None or not made.ratio:
        return None
    water = s.build.systems.water
    ops = tuple(
        set_to(f"systems.water.{name}", round(getattr(water, name) * made.ratio, 2)) for name in ("drink_l", "dishes_l", "shower_l")
    )
    return ops, f"Reckon with {{{made.took:.1f} L}} a person and day, as the trips took"


TICKET_ODD = Rule(
    "ticket-odd",
    "mind",
    "Road",
    "A ticket over three sigmas from the model",
    "Something is missing from the list, or a tank was not empty.",
    why_none="Look through the list against what was aboard, or weigh it once more.",
)
TICKETS_FIGHT = Rule(
    "tickets-fight",
    "mind",
    "Road",
    "Two tickets of one state that contradict each other",
    "One of them is wrong, and the model cannot tell which.",
    why_none="Weigh it a third time.",
)
TICKET_COARSE = Rule(
    "ticket-says-little",
    "note",
    "Road",
    "A ticket whose scale is too coarse, or that looks like another's",
    "It cannot tell whether the ball is in its band.",
    why_none="A plank or a tongue scale under the coupler.",
)
TICKET_WHOSE = Rule(
    "ticket-whose",
    "mind",
    "Road",
    "A ticket of which nobody said what was aboard",
    "Full or empty tanks and who had packed decide what a number means: until it is said the ticket teaches nothing.",
    why_none="Choose the case on Weigh: each is told with how far the ticket is from it.",
)
TICKET_OLD = Rule(
    "ticket-old",
    "note",
    "Road",
    "A ticket older than a change of 5 %, in all or on the ball",
    "It was another trailer then, and teaches nothing of this one.",
    why_none="Weigh it again.",
)
WISH_OPEN = Rule(
    "wish-open",
    "note",
    "Road",
    "A wish that nothing meets",
    "What was asked for is missed on the day it is handed over.",
    why_none="Point it at what meets it on Papers, or write down what was agreed.",
)
TRIP_TAUGHT = Rule(
    "trip-taught",
    "note",
    "Road",
    "Trips that take more or less water than planned",
    "The next trip runs dry, or carries too much.",
    helps="edit",
    cure=_as_taken,
)
BLOCK_LIFTS = Rule(
    "block-lifts",
    "mind",
    "Road",
    "A pair of blocks that carries nothing",
    "It rocks on the others.",
    why_none="Place the blocks about the centre of gravity, on Stand.",
)


def scale_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """What do the tickets contradict, and what do they prove? Silent without a ticket."""
    road = s.build.road
    if road.tickets:
        yield from _tickets(s, words)
    for each_traced in traced(s):
        if not each_traced.met and not each_traced.wish.agreed:
            yield WISH_OPEN.found("A wish is not met yet", f"{each_traced.wish.says}.", ("wish", each_traced.wish.id))
    for figure in taken(s) if road.trips else ():
        if figure.unit == "L" and figure.ratio is not None and abs(figure.ratio - 1) > WORTH:
            yield TRIP_TAUGHT.found(
                "Water goes otherwise than planned",
                f"{words.m3((figure.took or 0.0) / 1000)} a person and day, {words.m3((figure.plan or 0.0) / 1000)} planned.",
                ("trip", "water"),
                number=abs(figure.ratio - 1),
            )
    if road.standing.blocks:
        made = stands(s)
        if made.lifts:
            yield BLOCK_LIFTS.found(
                "A pair of blocks lifts off", f"At {words.m(made.lifts[0])} from the front nothing presses on it.", ("stand", "blocks")
            )


def _tickets(s: Studied, words: Words) -> Iterator[Finding]:
    made = reconcile(s)
    for said in made.tickets if made is not None else ():
        if said.surprise is not None and said.surprise > ODD:
            yield TICKET_ODD.found(
                "The ticket is far from the model",
                f"The ticket of {said.weighed.ticket.on} is {said.surprise:.1f} sigmas away.",
                ("ticket", said.weighed.ticket.id),
                number=said.surprise,
            )
    if made is not None and made.fights:
        yield TICKETS_FIGHT.found("Tickets contradict each other", made.fights[0], ("ticket", "fight"))
    for ticket in s.build.road.tickets:
        what = weighed(ticket, s)
        if what.faults:
            continue
        row = case_row(s, ticket)
        if row is None and s.towing_rows:
            yield TICKET_WHOSE.found(
                "What was aboard?", f"Of the ticket of {ticket.on or 'that day'} nobody said.", ("ticket", "whose", ticket.id)
            )
        off = stale(ticket, s, row)
        if off is not None:
            told = [f"in all {off.total * 100:+.0f} %".replace("-", "−")] if abs(off.total) > CHANGED else []
            if off.tongue_kg:
                told.append(f"on the ball {words.signed_kg(off.tongue_kg)}")
            yield TICKET_OLD.found(
                "A ticket is out of date",
                f"Since {ticket.on or 'that day'} the model has changed: {', '.join(told)}.",
                ("ticket", "old", ticket.id),
            )
        if what.minds:
            yield TICKET_COARSE.found(
                "A ticket says little", f"{what.minds[0][:1].upper()}{what.minds[0][1:]}.", ("ticket", "minds", ticket.id)
            )
