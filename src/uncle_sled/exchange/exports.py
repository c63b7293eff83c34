"""Every kind of file that a build can be exported to: one record each, with its words, its stop and what writes it.

The window's menus, the list of all exports, the finder and the command line read this table; a writer loads what it needs
when it is first asked.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from datetime import date
from typing import TYPE_CHECKING, TypeVar

import msgspec

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import Paper, paper_of
from uncle_sled.core.errors import FileError, GeometryError
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Tell, nobody
from uncle_sled.core.words import Words

if TYPE_CHECKING:  # at the start of the window no study of cutting is wanted
    from uncle_sled.core.studies.cut.bought_line import Line

One = TypeVar("One")
NO_BODY = "There is no body to draw yet: give it a form, a length, a width and a height on the Shell stop."
NO_TEMPLATES = "There is nothing to make a template of yet: a drawn side, a board with an outline of its own, or a folded tube is wanted."
NO_FRAME = "There is no frame to weld: an own frame with its length and the section of its rails is wanted, on Rig."
NOTHING_TO_BUY = "There is nothing to buy yet: nothing is drawn."
NO_STEPS = "There is no book yet: no task has a day. Draw a body or a frame, or add a task of your own; Calendar says what finds no day."
NO_PIECES = "There is nothing to be seen in the round yet: draw a body on Shell, a frame on Rig, or put something in on Stow."
MOST_PAGES = 1200


class Asked(msgspec.Struct, frozen=True):
    """What a writer is given. ids, paper: of templates; day: of writing, year-month-day."""

    s: Studied
    name: str
    found: tuple[Finding, ...] = ()
    ids: tuple[str, ...] = ()
    paper: str = ""
    tell: Tell = nobody
    day: str = ""

    @property
    def words(self) -> Words:
        return Words(self.s.build.brief.reading.shown())

    @property
    def sheet(self) -> Paper:
        """What it is printed on."""
        return paper_of(self.s.build)


Written = bytes | tuple[Page, ...]  # pages are written as PDF or SVG by the kind's ending


class Export(msgspec.Struct, frozen=True):
    """One kind of file. what: its line in lists; what_for: who wants it; menu: its line under Export of a stop, "": what.

    heavy: drawn by the helper, with Stop.
    """

    kind: str
    ending: str
    what: str
    what_for: str
    write: Callable[[Asked], Written]
    stop: str = ""
    menu: str = ""
    heavy: bool = False
    judged: bool = False  # tells what was found wrong, and what mends it

    @property
    def title(self) -> str:
        return f"{self.menu or self.what}…"

    @property
    def paper(self) -> str:
        """What it is called where its pages are looked at."""
        return self.title.removesuffix("…").removesuffix(", PDF").removesuffix(" as PDF").removesuffix(" as one PDF")


def _some(pages: Iterable[One] | None, missing: str) -> tuple[One, ...]:
    """Raises: FileError: there are none."""
    made = tuple(pages or ())
    if not made:
        raise FileError(missing)
    return made


def _body(asked: Asked) -> Studied:
    if asked.s.framed.body is None:
        raise FileError(NO_BODY)
    return asked.s


# balance
def _sheet(asked: Asked) -> Written:
    from uncle_sled.core.drawing.balance.balance_sheet import balance_sheet

    return (balance_sheet(asked.s, asked.found, asked.name, asked.day),)


def _frame(asked: Asked) -> Written:
    from uncle_sled.core.drawing.cut.frame_page import frame_pages

    return _some(frame_pages(asked.s, asked.name, asked.day), NO_FRAME)


def _masses(asked: Asked) -> Written:
    from uncle_sled.exchange.case_list import csv_text

    return csv_text(asked.s).encode()


def _axle(asked: Asked) -> Written:
    from uncle_sled.core.drawing.balance.axle_order import axle_order

    order = axle_order(asked.s, asked.name, asked.day)
    return _some(
        (order,) if order is not None else (), "There is no axle to order yet: a ball, an axle and something to carry are wanted first."
    )


def _trailer(asked: Asked) -> Written:
    from uncle_sled.core.drawing.balance.trailer_order import trailer_order

    pages = trailer_order(asked.s, asked.name, asked.day)
    return _some(pages, "There is no trailer to order yet: it has to stand on a ball, and a body or a frame is wanted first.")


def _card(asked: Asked) -> Written:
    from uncle_sled.core.drawing.shop_card import shop_card

    return (shop_card("Balance", asked.s, asked.found, asked.name, asked.day),)


# the body
def _framing(asked: Asked) -> Written:
    from uncle_sled.core.drawing.cut.framing_sheets import framing_sheets

    return framing_sheets(_body(asked), asked.name, asked.day)


def _laid(asked: Asked) -> Written:
    from uncle_sled.exchange.dxf import dxf_bytes

    return dxf_bytes(_body(asked))


def _solid(asked: Asked) -> Written:
    from uncle_sled.exchange.solid_stl import stl_bytes

    return stl_bytes(_body(asked))


def _model(asked: Asked) -> Written:
    from uncle_sled.core.drawing.shell.paper_model import paper_model

    pages = paper_model(_body(asked), asked.name, asked.day, asked.sheet)
    return _some(pages, "The body is too large for a paper model at 1 : 100.")


# things
def _gauges(asked: Asked) -> Written:
    from uncle_sled.core.drawing.stow.gauge_strips import gauge_strips

    pages = gauge_strips(asked.s, asked.name, asked.day)
    return _some(pages, "No tank has a size and a volume yet; type them in In hand on the Stow stop.")


def _things(asked: Asked) -> Written:
    from uncle_sled.core.document.catalogue_line import csv_text

    return csv_text(asked.s.build.stow.things).encode()


# systems
def _wiring(asked: Asked) -> tuple[Page, ...]:
    from uncle_sled.core.drawing.systems.wiring_sheets import wiring_sheets

    pages = wiring_sheets(asked.s, asked.name, asked.day)
    return _some(pages, "Nothing is wired yet; Wire it up on the Systems stop joins what is aboard.")


def _diagram(asked: Asked) -> Written:
    return _wiring(asked)[:1]


def _comfort(asked: Asked) -> Written:
    from uncle_sled.core.drawing.systems.comfort_sheets import comfort_sheets

    pages = comfort_sheets(asked.s, asked.name, asked.day)
    return _some(pages, "Nothing is known of water, gas or warmth yet; the Systems stop says what is wanted.")


# cutting and buying
def _cuts(asked: Asked) -> Written:
    from uncle_sled.core.drawing.cut.cut_sheets import cut_sheets
    from uncle_sled.exchange.pieces_list import NOTHING_TO_CUT

    return _some(cut_sheets(asked.s, asked.name, asked.day), NOTHING_TO_CUT)


def _labels(asked: Asked) -> Written:
    from uncle_sled.core.drawing.cut.labels import label_pages
    from uncle_sled.exchange.pieces_list import NOTHING_TO_CUT

    return _some(label_pages(asked.s, asked.name, asked.day), NOTHING_TO_CUT)


def _pieces(asked: Asked) -> Written:
    from uncle_sled.exchange.pieces_list import pieces_csv

    return pieces_csv(asked.s).encode()


def _lines(asked: Asked) -> tuple[Line, ...]:
    from uncle_sled.core.studies.cut.buying import lines_of
    from uncle_sled.core.studies.cut.cut_from_stock import plan_of

    return _some(lines_of(asked.s, plan_of(asked.s.build, asked.s.facts)), NOTHING_TO_BUY)


def _buy_csv(asked: Asked) -> Written:
    from uncle_sled.exchange.buy_list import buy_csv

    return buy_csv(_lines(asked)).encode()


def _router_sheets(asked: Asked) -> Written:
    from uncle_sled.exchange.pieces_list import NOTHING_TO_CUT
    from uncle_sled.exchange.router_sheets import sheets_zip

    made = sheets_zip(asked.s, tell=asked.tell)
    if not made:
        raise FileError(NOTHING_TO_CUT)
    return made


def _buy_pages(asked: Asked) -> Written:
    from uncle_sled.core.drawing.cut.buy_pages import buy_pages

    return buy_pages(asked.s, _lines(asked), asked.name, asked.day)


def _buy_xlsx(asked: Asked) -> Written:
    from uncle_sled.exchange.buy_list import buy_xlsx

    return buy_xlsx(_lines(asked))


def _templates(asked: Asked) -> Written:
    return template_pages(asked.s, asked.name, asked.day, asked.ids, asked.paper, asked.tell)


def _router(asked: Asked, ending: str) -> bytes:
    from uncle_sled.core.drawing.cut.templates import templates_of
    from uncle_sled.exchange.router import router_dxf, router_svg

    templates = templates_of(asked.s)
    if not templates:
        raise FileError(NO_TEMPLATES)
    return router_dxf(templates) if ending == "dxf" else router_svg(templates)


def _router_dxf(asked: Asked) -> Written:
    return _router(asked, "dxf")


def _router_svg(asked: Asked) -> Written:
    return _router(asked, "svg")


def _set(asked: Asked) -> Written:
    from uncle_sled.exchange.drawing_set import drawing_set

    pages = drawing_set(asked.s, asked.name, asked.day, asked.tell)
    return _some(pages, "There is nothing to draw yet: a frame with an axle, or a body, is wanted first.")


# the work
def _calendar(asked: Asked) -> Written:
    from uncle_sled.core.studies.build.schedule import schedule_of
    from uncle_sled.exchange.ics import ics_bytes

    schedule = schedule_of(asked.s.build, asked.s.facts)
    return ics_bytes(schedule, asked.name, date.fromisoformat(asked.day), asked.words)


def _today(asked: Asked) -> Written:
    from uncle_sled.core.drawing.build.today_card import today_pages
    from uncle_sled.core.studies.build.schedule import schedule_of

    pages = today_pages(schedule_of(asked.s.build, asked.s.facts), asked.words, asked.sheet, asked.name)
    return _some(pages, "There is nothing to be done next: nothing is drawn, or all of it is done.")


def _book(asked: Asked) -> Written:
    from uncle_sled.core.drawing.build.book import book_pages
    from uncle_sled.core.studies.build.schedule import schedule_of
    from uncle_sled.core.studies.cut.cut_from_stock import plan_of

    s, tell = asked.s, asked.tell
    tell(0.0, "what is cut from what")
    plan = plan_of(s.build, s.facts, tell=lambda share, words: tell(0.1 * (share or 0.0), words))
    pages = book_pages(
        s, asked.name, asked.day, schedule_of(s.build, s.facts), plan, lambda share, words: tell(0.1 + 0.8 * (share or 0.0), words)
    )
    return _some(pages, NO_STEPS)


def _round_picture(asked: Asked) -> Written:
    from uncle_sled.core.drawing.build.round_asked import picture_asked
    from uncle_sled.exchange.svg import png_bytes

    made = picture_asked(asked.s, asked.ids)
    if made is None:
        raise FileError(NO_PIECES)
    return png_bytes(made)


def _pieces_solid(asked: Asked) -> Written:
    from uncle_sled.exchange.solid_stl import pieces_stl

    made = pieces_stl(asked.s)
    if not made:
        raise FileError(NO_PIECES)
    return made


def _crew(asked: Asked) -> Written:
    from uncle_sled.core.drawing.build.lift_sheet import crew_pages
    from uncle_sled.core.studies.build.lifting import lifts_of

    pages = crew_pages(asked.s, lifts_of(asked.s), asked.sheet, asked.name, asked.day)
    return _some(pages, "No lift is planned yet; add one on the Build stop.")


def _checks(asked: Asked) -> Written:
    from uncle_sled.core.drawing.build.paper import checklist_pages
    from uncle_sled.core.studies.build.checklists import checklists

    pages = checklist_pages(checklists(asked.s.build, asked.s.facts), asked.sheet, _whose(asked))
    return _some(pages, "No checklist has a line for this build yet.")


def _again(asked: Asked) -> Written:
    from uncle_sled.core.drawing.build.paper import again_pages
    from uncle_sled.core.studies.build.log import again_of

    pages = again_pages(again_of(asked.s), asked.words, asked.sheet, _whose(asked))
    return _some(pages, "Nothing was measured, decided or wished for yet; write it in the log on the Build stop.")


def _whose(asked: Asked) -> str:
    return f"{asked.name}, {asked.s.build.name}, {asked.day}"


# the road
def _data_sheet(asked: Asked) -> Written:
    from uncle_sled.core.drawing.road.papers import data_sheet

    return data_sheet(asked.s, asked.name, asked.day)


def _hand_over(asked: Asked) -> Written:
    from uncle_sled.core.drawing.road.papers import hand_over

    return hand_over(asked.s, asked.name, asked.day)


def _standing(asked: Asked) -> Written:
    from uncle_sled.core.drawing.road.papers import standing_pages
    from uncle_sled.core.studies.road.standing import stands

    pages = standing_pages(stands(asked.s), asked.s, asked.name, asked.day)
    return _some(pages, "There is no body to stand on blocks yet: draw one on Shell.")


_ALL = (
    Export("pdf", "pdf", "Balance sheet as PDF", "the wall of the shop, and whoever tows it", _sheet, judged=True),
    Export("svg", "svg", "Balance sheet as SVG", "to draw on, or for the web", _sheet, judged=True),
    Export("csv", "csv", "Every mass as CSV", "a spreadsheet of one's own", _masses),
    Export(
        "framing-pdf",
        "pdf",
        what="Framing drawings as PDF, a page a face",
        what_for="who frames the body",
        write=_framing,
        stop="Shell",
        menu="Framing drawings as PDF",
    ),
    Export(
        "framing-svg",
        "svg",
        what="Framing drawings as SVG, one below the other",
        what_for="to draw on",
        write=_framing,
        stop="Shell",
        menu="Framing drawings as SVG",
    ),
    Export(
        "dxf",
        "dxf",
        what="Faces laid flat at full size as DXF",
        what_for="a saw, or another drawing program",
        write=_laid,
        stop="Shell",
        menu="Faces laid flat as DXF",
    ),
    Export(
        "frame-pdf", "pdf", "Frame from above, bars, welds and diagonals, PDF", "the welder", _frame, "Rig", menu="Frame to weld as PDF"
    ),
    Export("trailer-order", "pdf", "Order sheet for the trailer as PDF", "who makes the trailer", _trailer, "Rig"),
    Export("axle-order", "pdf", "Order sheet for the axle as PDF", "who makes the axle", _axle, "Balance"),
    Export(
        "wiring-pdf",
        "pdf",
        what="Wiring as PDF: diagram, every connection, labels",
        what_for="who wires it, and who looks it over",
        write=_wiring,
        stop="Systems",
        menu="Wiring: diagram, connections, labels as PDF",
    ),
    Export("wiring-svg", "svg", "Wiring diagram as SVG", "to draw on", _diagram, "Systems"),
    Export(
        "comfort",
        "pdf",
        what="Water, gas, warmth and sweat as PDF, a page each",
        what_for="who fits water, gas and heat",
        write=_comfort,
        stop="Systems",
        menu="Water, gas, warmth and sweat as PDF",
    ),
    Export(
        "gauges",
        "pdf",
        what="Gauge strips of the tanks at full size as PDF",
        what_for="stuck beside the tanks",
        write=_gauges,
        stop="Stow",
        menu="Gauge strips of the tanks as PDF",
    ),
    Export("cut-pdf", "pdf", "Sheets and bars with their cuts as PDF", "at the saw", _cuts, "Cut"),
    Export(
        "labels-pdf",
        "pdf",
        what="Labels for the pieces as PDF",
        what_for="on the pieces",
        write=_labels,
        stop="Cut",
        menu="Labels for the pieces as PDF",
    ),
    Export(
        "router-sheets",
        "zip",
        what="Sheets of the cut plan for a router, a DXF each, ZIP",
        what_for="a router or a cutter with one",
        write=_router_sheets,
        stop="Cut",
        menu="Sheets of the cut plan as DXF, packed",
        heavy=True,
    ),
    Export("buy-pdf", "pdf", "Shopping list shop by shop, PDF", "the shop", _buy_pages, "Cut", menu="Shopping list as PDF"),
    Export("buy-csv", "csv", "Shopping list as CSV", "a spreadsheet of one's own", _buy_csv, "Cut"),
    Export(
        "buy-xlsx",
        "xlsx",
        what="Shopping list as XLSX, a sheet a shop",
        what_for="at the shops",
        write=_buy_xlsx,
        stop="Cut",
        menu="Shopping list as XLSX",
    ),
    Export(
        "pieces",
        "csv",
        what="Sticks and sheets to cut as CSV, for the command that lays them out",
        what_for="the command that lays pieces out",
        write=_pieces,
        stop="Cut",
        menu="Pieces as CSV",
    ),
    Export(
        "today",
        "pdf",
        what="The next three things in large type for the shop wall, PDF",
        what_for="the wall of the shop",
        write=_today,
        stop="Build",
        menu="The next three for the shop wall as PDF",
    ),
    Export(
        "ics",
        "ics",
        what="Calendar of the work as iCalendar",
        what_for="a calendar",
        write=_calendar,
        stop="Build",
        menu="Calendar as iCalendar",
    ),
    Export(
        "crew-pdf",
        "pdf",
        what="Crew sheets of the lifts as PDF, a page a lift",
        what_for="those who lift",
        write=_crew,
        stop="Build",
        menu="Crew sheets of the lifts as PDF",
    ),
    Export(
        "book-pdf",
        "pdf",
        what="The book of the build, a step a page with its picture and pieces, PDF",
        what_for="whoever builds it",
        write=_book,
        stop="Build",
        menu="The book of the build, step by step, as PDF",
        heavy=True,
    ),
    Export("round-png", "png", "The body in the round as PNG", "to show it", _round_picture, "Build", menu="The body in the round as PNG"),
    Export(
        "pieces-stl",
        "stl",
        what="Every piece in three dimensions as STL",
        what_for="a three-dimensional viewer",
        write=_pieces_solid,
        stop="Build",
        menu="Every piece as STL",
    ),
    Export("checks-pdf", "pdf", "Checklists as PDF", "at the trailer", _checks, "Build"),
    Export(
        "again-pdf",
        "pdf",
        what="What I would do again, from what was measured, as PDF",
        what_for="the next build",
        write=_again,
        stop="Build",
        menu="What I would do again as PDF",
    ),
    Export("data-sheet", "pdf", "Data sheet for the office as PDF", "the licensing office", _data_sheet, "Road"),
    Export("hand-over", "pdf", "Customer's brief and hand-over as PDF", "the customer", _hand_over, "Road"),
    Export("standing-pdf", "pdf", "Blocks and levels as PDF", "who sets it on blocks", _standing, "Road"),
    Export(
        "templates-pdf",
        "pdf",
        what="Templates of sides, inner panels, tubes and jigs at full size over many sheets, PDF",
        what_for="paper on plywood, with a print that is true",
        write=_templates,
        stop="Cut",
        menu="Templates at full size as PDF",
        heavy=True,
    ),
    Export(
        "router-dxf",
        "dxf",
        what="Templates with a layer a tool for a router, DXF",
        what_for="a router or laser",
        write=_router_dxf,
        stop="Cut",
        menu="Templates for a router as DXF",
    ),
    Export(
        "router-svg",
        "svg",
        what="Templates at full size for a router, SVG",
        what_for="a router or laser",
        write=_router_svg,
        stop="Cut",
        menu="Templates for a router as SVG",
    ),
    Export(
        "set-pdf",
        "pdf",
        what="All working drawings as one PDF with contents, numbers and revision",
        what_for="everybody in the shop",
        write=_set,
        stop="Cut",
        menu="All working drawings as one PDF",
        heavy=True,
    ),
    Export(
        "model-pdf",
        "pdf",
        what="Paper model of the body with tabs, PDF",
        what_for="to hold before building",
        write=_model,
        stop="Shell",
        menu="Paper model of the body as PDF",
    ),
    Export("stl", "stl", "Body and things in three dimensions as STL", "a three-dimensional viewer or printer", _solid, "Shell"),
    Export(
        "card-pdf",
        "pdf",
        what="Shop card: the balance in type that is read from two metres, PDF",
        what_for="to read from across the shop",
        write=_card,
        judged=True,
        stop="Balance",
        menu="Shop card of the balance as PDF",
    ),
    Export(
        "things",
        "csv",
        what="All things as a catalogue that can be brought in again, CSV",
        what_for="another build",
        write=_things,
        stop="Stow",
        menu="All things as CSV",
    ),
)
EXPORTS: dict[str, Export] = {export.kind: export for export in _ALL}


def exports_of(stop: str) -> tuple[Export, ...]:
    """What a stop can write."""
    return tuple(export for export in _ALL if export.stop == stop)


def template_pages(s: Studied, name: str, today: str, ids: tuple[str, ...] = (), paper: str = "", tell: Tell = nobody) -> tuple[Page, ...]:
    """Templates over many sheets: those named, else sides, inner panels, tubes and jigs (boards by themselves, on Cut).

    Raises: FileError: there is none, or no such paper, or it takes too many sheets.
    """
    from uncle_sled.core.drawing.cut.templates import templates_of
    from uncle_sled.core.drawing.cut.tiles import PAPERS, tile_pages

    chosen = paper or paper_of(s.build).name
    if chosen not in PAPERS:
        raise FileError(f"There is no paper “{chosen}”; {', '.join(PAPERS)} would be right.")
    made = [each_template for each_template in templates_of(s) if (each_template.id in ids if ids else each_template.kind != "board")]
    if not made:
        raise FileError(NO_TEMPLATES)
    pages: list[Page] = []
    words = Words(s.build.brief.reading.shown())
    try:
        for at, template in enumerate(made):
            tell(0.9 * at / len(made), f"drawing {template.name}, {at + 1} of {len(made)}")
            note = f"{name}, {s.build.name}, {today}" + (f"; {template.side}" if template.side else "")
            pages += tile_pages(template.drawn, words.told(template.title), note, PAPERS[chosen], words)
            if len(pages) > MOST_PAGES:
                raise FileError(
                    f"More than {MOST_PAGES} sheets of {chosen}; one template at a time (Cut, Templates), a roll, or a DXF would be right."
                )
    except GeometryError as fault:
        raise FileError(Words(s.build.brief.reading.shown()).told(str(fault))) from None
    return tuple(pages)
