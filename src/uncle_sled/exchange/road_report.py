"""The keys ``weigh_ins``, ``corrections``, ``wishes`` and ``trips`` of the report."""

from __future__ import annotations

from typing import Any

import msgspec

from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.road.reconcile import accepted, reconcile
from uncle_sled.core.studies.road.weighing import case_row, weighed
from uncle_sled.core.studies.road.wishes import traced


def road_report(s: Studied) -> dict[str, Any]:
    road = s.build.road
    made = reconcile(s, road.tickets) if road.tickets else None
    surprise = {ticket.weighed.ticket.id: ticket.surprise for ticket in made.tickets} if made is not None else {}
    known = accepted(s)
    tickets = []
    for ticket in road.tickets:
        what = weighed(ticket, s)
        row = None if what.faults else case_row(s, ticket)
        tickets.append(
            {
                "id": ticket.id,
                "date": ticket.on,
                "way": ticket.way,
                "tongue_kg": what.tongue_kg,
                "axle_kg": what.axle_kg,
                "total_kg": what.total_kg,
                "sigma_kg": what.sigma_tongue_kg or what.sigma_total_kg or None,
                "case_id": s.table.cases[row].id if row is not None else None,
                "surprise_sigma": surprise.get(ticket.id),
                "accepted": ticket.id in known,
                "faults": list(what.faults),
                "minds": list(what.minds),
            }
        )
    return {
        "weigh_ins": tickets,
        "corrections": [msgspec.to_builtins(correction) for correction in road.corrections],
        "wishes": [
            {
                "id": each_traced.wish.id,
                "says": each_traced.wish.says,
                "where": each_traced.wish.where or None,
                "met": each_traced.met,
                "mass_kg": each_traced.mass_kg,
                "money": each_traced.money,
            }
            for each_traced in traced(s)
        ],
        "trips": [msgspec.to_builtins(trip) for trip in road.trips],
    }
