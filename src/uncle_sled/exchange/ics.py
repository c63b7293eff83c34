"""The calendar of the work as iCalendar, a day each: any calendar reads it."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta

from uncle_sled.core.document.bounds import UNSEEN
from uncle_sled.core.errors import FileError
from uncle_sled.core.studies.build.schedule import Schedule
from uncle_sled.core.words import Words


def ics_bytes(schedule: Schedule, name: str, written: date, words: Words) -> bytes:
    """An event for every run of days of a task, one for every wait. Raises: FileError: where nothing is placed."""
    from icalendar import Calendar, Event

    if not schedule.placed:
        raise FileError("There is nothing in the calendar yet: draw something on Shell, or add a task on Build.")
    book = Calendar()
    book.add("prodid", "-//Uncle Sled//plan of work//EN")
    book.add("version", "2.0")
    book.add("x-wr-calname", f"{UNSEEN.sub(' ', name)}: plan of work")  # a line of its own in the file
    stamp = datetime(written.year, written.month, written.day, tzinfo=UTC)
    for placed in schedule.placed:
        for k, (first, last) in enumerate(_runs(placed.days)):
            event = Event()
            event.add("uid", f"{placed.task.id}-{k}@uncle-sled")
            event.add("dtstamp", stamp)
            event.add("summary", placed.task.name + (f" ({placed.task.hands} hands)" if placed.task.hands > 1 else ""))
            event.add("dtstart", schedule.begin + timedelta(days=first))
            event.add("dtend", schedule.begin + timedelta(days=last + 1))
            if placed.task.needs:
                event.add("description", words.told(f"At hand: {placed.task.needs}"))
            book.add_component(event)
        if placed.free > placed.end + 0.25:
            event = Event()
            event.add("uid", f"{placed.task.id}-cure@uncle-sled")
            event.add("dtstamp", stamp)
            event.add("summary", f"{placed.task.name}: cures")
            event.add("dtstart", schedule.begin + timedelta(days=int(placed.end)))
            event.add("dtend", schedule.begin + timedelta(days=int(placed.free) + 1))
            event.add("transp", "TRANSPARENT")
            book.add_component(event)
    return bytes(book.to_ical())


def _runs(days: tuple[int, ...]) -> list[tuple[int, int]]:
    runs: list[list[int]] = []
    for day in days:
        if runs and day == runs[-1][1] + 1:
            runs[-1][1] = day
        else:
            runs.append([day, day])
    return [(a, b) for a, b in runs]
