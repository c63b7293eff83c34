"""Road: the scale and what it teaches, papers, trips, and standing for good."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.edits import add_to, fresh_id, remove
from uncle_sled.core.document.road import Ticket, Trip, Wish
from uncle_sled.core.studies.road.reconcile import correction_of, reconcile
from uncle_sled.core.studies.road.weighing import modelled, ways_for
from uncle_sled.desk.benches.bench import PanelBench
from uncle_sled.desk.session import Session
from uncle_sled.exchange.clock import today

CAUTION = "Chocks in, nobody under it, nobody between car and trailer. What is not weighed says computed; the office and its rules decide."


class RoadBench(PanelBench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop, CAUTION)
        self.show_view("Weigh")

    # what can be done
    def add_ticket(self) -> None:
        self.show_view("Weigh")
        id = fresh_id("tk", [ticket.id for ticket in self.session.build.road.tickets])
        record = Ticket(id, today(), ways_for(self.session.studied)[0], model=modelled(self.session.studied))
        if self.session.edit("A new weigh-in", [add_to("road.tickets", msgspec.to_builtins(record))], "Road"):
            self.made["Weigh"].choose(id)

    def accept(self) -> bool:
        """What the tickets taught becomes a correction that later cases carry."""
        s = self.session.studied
        made = reconcile(s)
        if made is None:
            self.session.said.emit("No ticket is open that says anything: weigh it first, or its tickets are accepted already.", "note")
            return False
        id = fresh_id("co", [correction.id for correction in self.session.build.road.corrections])
        record = msgspec.to_builtins(correction_of(s, made, id))
        return bool(self.session.edit("Accept what the tickets taught", [add_to("road.corrections", record)], "Road"))

    def forget(self) -> None:
        """Take the last correction back; its tickets are kept as a record."""
        known = self.session.build.road.corrections
        if known:
            self.session.edit("Take the last correction back", [remove(f"road.corrections.{known[-1].id}")], "Road")

    def add_wish(self) -> None:
        self.show_view("Papers")
        id = fresh_id("ws", [wish.id for wish in self.session.build.road.wishes])
        self.session.edit("Write down a wish", [add_to("road.wishes", msgspec.to_builtins(Wish(id, "A new wish")))], "Road")

    def add_trip(self) -> None:
        self.show_view("Trips")
        id = fresh_id("tp", [trip.id for trip in self.session.build.road.trips])
        many = len(self.session.build.road.trips) + 1
        people = max(len(self.session.build.brief.sleepers), 1)
        record = Trip(id, f"Trip {many}", today(), people=people)
        self.session.edit("Write down a trip", [add_to("road.trips", msgspec.to_builtins(record))], "Road")
