"""Pages of the work by kind: today, crew sheets, checklists, what I would do again."""

from __future__ import annotations

from uncle_sled.core.drawing.build.lift_sheet import crew_pages
from uncle_sled.core.drawing.build.paper import again_pages, checklist_pages
from uncle_sled.core.drawing.build.today_card import today_pages
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.errors import FileError
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.checklists import checklists
from uncle_sled.core.studies.build.lifting import lifts_of
from uncle_sled.core.studies.build.log import again_of
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.words import Words

NOTHING = {
    "today": "There is nothing to be done next: nothing is drawn, or all of it is done.",
    "crew-pdf": "No lift is planned yet; add one on the Build stop.",
    "checks-pdf": "No checklist has a line for this build yet.",
    "again-pdf": "Nothing was measured, decided or wished for yet; write it in the log on the Build stop.",
}


def work_pages(kind: str, s: Studied, name: str, day: str) -> tuple[Page, ...]:
    """Raises: FileError: where there is nothing of the kind yet."""
    words, american = Words(s.build.brief.reading.shown()), s.build.brief.region == "North American"
    whose = f"{name}, {s.build.name}, {day}"
    if kind == "today":
        pages = today_pages(schedule_of(s.build, s.facts), words, american, name)
    elif kind == "crew-pdf":
        pages = crew_pages(lifts_of(s), words, american, name, day)
    elif kind == "checks-pdf":
        pages = checklist_pages(checklists(s.build, s.facts), american, whose)
    else:
        pages = again_pages(again_of(s), words, american, whose)
    if not pages:
        raise FileError(NOTHING[kind])
    return pages
