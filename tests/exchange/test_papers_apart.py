"""No words on any paper stand in others or run off it: every kind of PDF of every demo, and 50 random walls."""

from __future__ import annotations

import json
import random
import re

import numpy as np
import pytest
from msgspec.structs import replace

from tests.builders import a_body, a_build, a_hole
from tests.other_units import IMPERIAL, METRIC, UNITS, foreign, names_of
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.cut.framing_sheets import framing_sheets
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import PAPERS
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.errors import FileError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.finding import TOLD
from uncle_sled.core.framing.frame_body import SCHOOLS
from uncle_sled.core.framing.no_sticks import WITHOUT_STICKS
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange import pdf
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.export import export_bytes
from uncle_sled.exchange.exports import EXPORTS
from uncle_sled.exchange.report import report

TOUCH = 0.5  # points
FEET, MILLIMETRES = UNITS["feet"], UNITS["millimetres"]
MARKED = re.compile(r"\{[\d.]+ \w")
NOTHING_OF_IT = {
    "marsh-heron": set(),
    "rosin-box": {"crew-pdf", "again-pdf", "templates-pdf", "frame-pdf"},
    "orchard-keeper": {"again-pdf", "frame-pdf"},
    "dark-sky": {"axle-order", "trailer-order", "again-pdf", "frame-pdf"},
}


def boxes(page: Page) -> list[tuple[float, float, float, float, str]]:
    """Left, low, right, high [pt] and the words, as high as figures are."""
    made = []
    for one in page.shapes:
        if isinstance(one, Text) and one.text.strip():
            wide = text_width(one.text, one.size, one.face)
            left = one.at[0] - wide * {"left": 0.0, "middle": 0.5, "right": 1.0}[one.anchor]
            made.append((left, one.at[1] - one.size * 0.36, left + wide, one.at[1] + one.size * 0.36, one.text))
    return made


def faults(page: Page) -> list[tuple[str, ...]]:
    """Pairs of words that stand in each other, and words that leave the paper."""
    found: list[tuple[str, ...]] = []
    seen = boxes(page)
    if not seen:
        return found
    left, low, right, high = np.array([box[:4] for box in seen]).T
    over = (np.minimum.outer(right, right) - np.maximum.outer(left, left) > TOUCH) & (
        np.minimum.outer(high, high) - np.maximum.outer(low, low) > TOUCH
    )
    off = (left < 0) | (low < 0) | (right > page.width) | (high > page.height)
    earlier = np.tril(over, -1)
    for at in np.flatnonzero(off | earlier.any(axis=1)).tolist():
        if off[at]:
            found.append((page.title, "off the paper", seen[at][4]))
        found += [(page.title, seen[at][4], seen[other][4]) for other in np.flatnonzero(earlier[at]).tolist()]
    return found


def test_the_check_itself_finds_what_stands_in_other_words() -> None:
    page = Page(200.0, 100.0, (Text((50, 50), "one"), Text((55, 52), "two"), Text((50, 70), "three"), Text((199, 20), "four")), "t")
    assert faults(page) == [("t", "two", "one"), ("t", "off the paper", "four")]


@pytest.mark.parametrize(
    ("name", "reading"),
    [("marsh-heron", FEET), ("rosin-box", MILLIMETRES), ("rosin-box", FEET), ("orchard-keeper", MILLIMETRES), ("dark-sky", FEET)],
)
def test_every_paper_of_every_demo(name, reading, monkeypatch) -> None:
    project = demo(name)
    s = study(apply(project.build, [set_to("brief.reading", reading)]), project.facts)
    found, pages, refused = findings(s), [], set()
    monkeypatch.setattr(pdf, "pdf_bytes", lambda *made, **_: pages.extend(made) or b"")
    for kind, one in EXPORTS.items():
        if one.ending == "pdf":
            try:
                export_bytes(kind, project.name, s, found)
            except FileError as error:
                refused.add(kind)
                assert str(error).endswith(".") and len(str(error)) > 30
    assert refused == NOTHING_OF_IT[name]
    wrong, names = (METRIC if reading is FEET else IMPERIAL), names_of(project)
    told = {shape.text for page in pages for shape in page.shapes if isinstance(shape, Text)} | {p.title for p in pages}
    told |= {getattr(one, field) or "" for one in found for field in TOLD}
    assert {text: said for text in told if (said := foreign(text, wrong, names)) or MARKED.search(text)} == {}
    report_words = json.dumps(report(s, found, project), ensure_ascii=False)
    assert not MARKED.search(report_words)
    assert len(pages) > 45 and [one for page in pages for one in faults(page)] == []
    sizes = {tuple(sorted((round(sheet.wide), round(sheet.high)))) for sheet in PAPERS.values()}
    odd = {page.title for page in pages if tuple(sorted((round(page.width), round(page.height)))) not in sizes}
    assert {title for title in odd if not title.endswith("gauge strip")} == set(), "but a gauge, which is as long as its tank"


def random_wall(seed: int):
    """A body of one of the schools with up to four holes in its sides or roof."""
    r = random.Random(seed)
    school = r.choice([one for one in SCHOOLS if one != "none" and one not in WITHOUT_STICKS])
    long, high, wide = r.uniform(1.6, 8.5), r.uniform(1.1, 2.7), r.uniform(1.3, 2.5)
    form = r.choice(["box", "box", "profile", "shed", "gable"])
    holes, along = [], 0.4
    for at in range(r.randint(1, 4)):
        w, h = r.uniform(0.25, 0.9), r.uniform(0.2, min(0.9, high * 0.5))
        if along + w > long - 0.3:
            break
        up = r.uniform(0.15, max(0.16, high * 0.8 - h))
        holes.append(a_hole(f"h{at}", r.choice(["left side", "right side", "roof"]), along, up, w, h))
        along += w + r.uniform(0.02, 0.7)
    sizes = {name: Length(value) for name, value in (("length", long), ("height", high), ("width", wide))}
    build = a_build(shell=a_body(form=form, school=school, openings=tuple(holes), **sizes))
    reading = replace(build.brief.reading, length=r.choice(["mm", "ft-in", "in"]))
    return study(replace(build, brief=replace(build.brief, reading=reading)), Facts())


def test_labels_of_random_walls_stand_apart() -> None:
    framed = 0
    for seed in range(0, 50, 2):
        s = random_wall(seed)
        framed += bool(s.framed.members)
        for page in framing_sheets(s, "Wall", "2026-01-31"):
            assert faults(page) == [], seed
    assert framed >= 20
