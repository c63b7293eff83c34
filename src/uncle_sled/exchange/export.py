"""Every kind of file that a build can be exported to, by name; the heavy writers load when first asked."""

from __future__ import annotations

from datetime import date
from pathlib import Path

from msgspec.structs import replace

from uncle_sled.core.document.project import Project
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.errors import FileError, GeometryError
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Tell, nobody
from uncle_sled.core.words import Words
from uncle_sled.exchange.whole_file import write_whole

MOST_BESIDE = 100  # exports of one name in one folder
# What can be written, with its file ending and what it is.
KINDS: dict[str, tuple[str, str]] = {
    "pdf": ("pdf", "Balance sheet as PDF"),
    "svg": ("svg", "Balance sheet as SVG"),
    "csv": ("csv", "Every mass as CSV"),
    "framing-pdf": ("pdf", "Framing drawings as PDF, a page a face"),
    "framing-svg": ("svg", "Framing drawings as SVG, one below the other"),
    "dxf": ("dxf", "Faces laid flat at full size as DXF"),
    "axle-order": ("pdf", "Order sheet for the axle as PDF"),
    "wiring-pdf": ("pdf", "Wiring as PDF: diagram, every connection, labels"),
    "wiring-svg": ("svg", "Wiring diagram as SVG"),
    "comfort": ("pdf", "Water, gas, warmth and sweat as PDF, a page each"),
    "gauges": ("pdf", "Gauge strips of the tanks at full size as PDF"),
    "cut-pdf": ("pdf", "Sheets and bars with their cuts as PDF"),
    "labels-pdf": ("pdf", "Labels for the pieces as PDF, with the jig for slanted boards"),
    "buy-csv": ("csv", "Shopping list as CSV"),
    "buy-xlsx": ("xlsx", "Shopping list as XLSX, a sheet a shop"),
    "pieces": ("csv", "Sticks and sheets to cut as CSV, for the command that lays them out"),
    "today": ("pdf", "The next three things in large type for the shop wall, PDF"),
    "ics": ("ics", "Calendar of the work as iCalendar"),
    "crew-pdf": ("pdf", "Crew sheets of the lifts as PDF, a page a lift"),
    "checks-pdf": ("pdf", "Checklists as PDF"),
    "again-pdf": ("pdf", "What I would do again, from what was measured, as PDF"),
    "data-sheet": ("pdf", "Data sheet for the office as PDF"),
    "hand-over": ("pdf", "Customer's brief and hand-over as PDF"),
    "standing-pdf": ("pdf", "Blocks and levels as PDF"),
    "templates-pdf": ("pdf", "Templates of sides, inner panels, tubes and jigs at full size over many sheets, PDF"),
    "router-dxf": ("dxf", "Templates with a layer a tool for a router, DXF"),
    "router-svg": ("svg", "Templates at full size for a router, SVG"),
    "set-pdf": ("pdf", "All working drawings as one PDF with contents, numbers and revision"),
    "model-pdf": ("pdf", "Paper model of the body with tabs, PDF"),
    "stl": ("stl", "Body and things in three dimensions as STL"),
    "card-pdf": ("pdf", "Shop card: the balance in type that is read from two metres, PDF"),
    "things": ("csv", "All things as a catalogue that can be brought in again, CSV"),
}


# What each is for, where its name does not say.
WHAT_FOR = {
    "pdf": "the wall of the shop, and whoever tows it", "svg": "to draw on, or for the web", "csv": "a spreadsheet of one's own",
    "framing-pdf": "who frames the body", "framing-svg": "to draw on", "dxf": "a saw, or another drawing program",
    "axle-order": "who makes the axle", "wiring-pdf": "who wires it, and who looks it over", "comfort": "who fits water, gas and heat",
    "gauges": "stuck beside the tanks", "cut-pdf": "at the saw", "labels-pdf": "on the pieces", "buy-csv": "a spreadsheet of one's own",
    "buy-xlsx": "at the shops", "pieces": "the command that lays pieces out", "today": "the wall of the shop", "ics": "a calendar",
    "crew-pdf": "those who lift", "checks-pdf": "at the trailer", "again-pdf": "the next build", "data-sheet": "the licensing office",
    "hand-over": "the customer", "standing-pdf": "who sets it on blocks", "templates-pdf": "paper on plywood, with a print that is true",
    "router-dxf": "a router or laser", "router-svg": "a router or laser", "set-pdf": "everybody in the shop", "model-pdf": "to hold before building",
    "stl": "a three-dimensional viewer or printer", "card-pdf": "to read from two metres", "things": "another build",
    "wiring-svg": "to draw on",
}  # fmt: skip
HEAVY = ("templates-pdf", "set-pdf")  # drawn by the helper, with Stop


def told_pages(pages: tuple[Page, ...], s: Studied) -> tuple[Page, ...]:
    """Pages with every marked figure in the build's units."""
    words = Words(s.build.brief.reading.shown())
    return tuple([replace(page, title=words.told(page.title), shapes=tuple([_told(one, words) for one in page.shapes])) for page in pages])  # fmt: skip


def _told(shape: Primitive, words: Words) -> Primitive:
    return replace(shape, text=words.told(shape.text)) if isinstance(shape, Text) and "{" in shape.text else shape


def export_job(project: Project, tell: Tell, kind: str, ids: tuple[str, ...], paper: str) -> bytes:
    """One of HEAVY in the worker. Raises: FileError, Stopped."""
    from uncle_sled.core.reading.studied import study
    from uncle_sled.exchange.pdf import pdf_bytes

    s = study(project.build, project.facts)
    pages = told_pages(_heavy_pages(kind, s, project.name, date.today().isoformat(), tuple(ids), paper, tell), s)
    tell(0.9, f"writing {len(pages)} pages")
    return pdf_bytes(*pages)


def _heavy_pages(kind: str, s: Studied, name: str, today: str, ids: tuple[str, ...], paper: str, tell: Tell = nobody) -> tuple[Page, ...]:  # fmt: skip
    if kind == "templates-pdf":
        return template_pages(s, name, today, ids, paper, tell)
    from uncle_sled.exchange.drawing_set import drawing_set

    pages = drawing_set(s, name, today, tell)
    if not pages:
        raise FileError("There is nothing to draw yet: a frame with an axle, or a body, is wanted first.")
    return pages


def export_bytes(kind: str, name: str, s: Studied, found: tuple[Finding, ...], ids: tuple[str, ...] = (), paper: str = "") -> bytes:  # fmt: skip
    """One of KINDS of a build as a file's bytes. Args: ids, paper: of templates; all on the region's paper where not said.

    Raises: FileError: where the build has nothing of the kind yet.
    """
    if kind == "csv":
        from uncle_sled.exchange.case_list import csv_text

        return csv_text(s).encode()
    if kind == "dxf":
        from uncle_sled.exchange.dxf import dxf_bytes

        _needs_body(s)
        return dxf_bytes(s)
    if kind == "stl":
        from uncle_sled.exchange.solid_stl import stl_bytes

        _needs_body(s)
        return stl_bytes(s)
    if kind.startswith("router-"):
        from uncle_sled.core.drawing.cut.templates import templates_of
        from uncle_sled.exchange.router import router_dxf, router_svg

        templates = templates_of(s)
        if not templates:
            raise FileError(NO_TEMPLATES)
        return router_dxf(templates) if kind == "router-dxf" else router_svg(templates)
    if kind == "things":
        from uncle_sled.core.document.catalogue_line import csv_text as things_csv

        return things_csv(s.build.stow.things).encode()
    if kind == "pieces":
        from uncle_sled.exchange.pieces_list import pieces_csv

        return pieces_csv(s).encode()
    if kind.startswith("buy-"):
        from uncle_sled.core.studies.cut.buying import lines_of
        from uncle_sled.core.studies.cut.of_the_build import plan_of
        from uncle_sled.exchange.buy_list import buy_csv, buy_xlsx

        lines = lines_of(s, plan_of(s.build, s.facts))
        if not lines:
            raise FileError("There is nothing to buy yet: nothing is drawn.")
        return buy_csv(lines).encode() if kind == "buy-csv" else buy_xlsx(lines)
    if kind == "ics":
        from uncle_sled.core.studies.build.schedule import schedule_of
        from uncle_sled.exchange.ics import ics_bytes

        return ics_bytes(schedule_of(s.build, s.facts), name, date.today(), Words(s.build.brief.reading.shown()))
    today = date.today().isoformat()
    if kind in ("today", "crew-pdf", "checks-pdf", "again-pdf"):
        from uncle_sled.exchange.work_pages import work_pages

        pages = work_pages(kind, s, name, today)
    elif kind in ("data-sheet", "hand-over", "standing-pdf"):
        from uncle_sled.core.drawing.road.papers import data_sheet, hand_over, standing_pages
        from uncle_sled.core.studies.road.standing import stands

        pages = {"data-sheet": data_sheet, "hand-over": hand_over}[kind](s, name, today) if kind != "standing-pdf" else standing_pages(stands(s), s, name, today)  # fmt: skip
        if not pages:
            raise FileError("There is no body to stand on blocks yet: draw one on Shell.")
    elif kind == "gauges":
        from uncle_sled.core.drawing.stow.gauge_strips import gauge_strips

        pages = gauge_strips(s, name, today)
        if not pages:
            raise FileError("No tank has a size and a volume yet; type them in In hand on the Stow stop.")
    elif kind == "axle-order":
        from uncle_sled.core.drawing.balance.axle_order import axle_order

        order = axle_order(s, name, today)
        if order is None:
            raise FileError("There is no axle to order yet: a ball, an axle and something to carry are wanted first.")
        pages = (order,)
    elif kind in HEAVY:
        pages = _heavy_pages(kind, s, name, today, ids, paper)
    elif kind == "model-pdf":
        from uncle_sled.core.drawing.shell.paper_model import paper_model

        _needs_body(s)
        pages = paper_model(s, name, today, s.build.brief.region == "North American")
        if not pages:
            raise FileError("The body is too large for a paper model at 1 : 100.")
    elif kind == "card-pdf":
        from uncle_sled.core.drawing.shop_card import shop_card

        pages = (shop_card("Balance", s, found, name, today),)
    elif kind.startswith("wiring-"):
        from uncle_sled.core.drawing.systems.wiring_sheets import wiring_sheets

        pages = wiring_sheets(s, name, today)
        if not pages:
            raise FileError("Nothing is wired yet; Wire it up on the Systems stop joins what is aboard.")
        pages = pages[:1] if kind == "wiring-svg" else pages
    elif kind == "cut-pdf":
        from uncle_sled.core.drawing.cut.cut_sheets import cut_sheets
        from uncle_sled.exchange.pieces_list import NOTHING_TO_CUT

        pages = cut_sheets(s, name, today)
        if not pages:
            raise FileError(NOTHING_TO_CUT)
    elif kind == "labels-pdf":
        from uncle_sled.core.drawing.cut.labels import label_pages
        from uncle_sled.exchange.pieces_list import NOTHING_TO_CUT

        pages = label_pages(s, name, today)
        if not pages:
            raise FileError(NOTHING_TO_CUT)
    elif kind == "comfort":
        from uncle_sled.core.drawing.systems.comfort_sheets import comfort_sheets

        pages = comfort_sheets(s, name, today)
        if not pages:
            raise FileError("Nothing is known of water, gas or warmth yet; the Systems stop says what is wanted.")
    elif kind.startswith("framing-"):
        from uncle_sled.core.drawing.shell.framing_sheets import framing_sheets

        _needs_body(s)
        pages = framing_sheets(s, name, today)
    else:
        from uncle_sled.core.drawing.balance.balance_sheet import balance_sheet

        pages = (balance_sheet(s, found, name, today),)
    pages = told_pages(pages, s)
    if kind.endswith("svg"):
        from uncle_sled.exchange.svg import svg_bytes

        return svg_bytes(*pages)
    from uncle_sled.exchange.pdf import pdf_bytes

    return pdf_bytes(*pages)


NO_TEMPLATES = "There is nothing to make a template of yet: a drawn side, a board with an outline of its own, or a folded tube is wanted."
MOST_PAGES = 1200


def template_pages(s: Studied, name: str, today: str, ids: tuple[str, ...] = (), paper: str = "", tell: Tell = nobody) -> tuple[Page, ...]:  # fmt: skip
    """Templates over many sheets: those named, else sides, inner panels, tubes and jigs (boards by themselves, on Cut).

    Raises: FileError: there is none, or no such paper, or it takes too many sheets.
    """
    from uncle_sled.core.drawing.cut.templates import templates_of
    from uncle_sled.core.drawing.cut.tiles import PAPERS, tile_pages

    chosen = paper or ("Letter" if s.build.brief.region == "North American" else "A4")
    if chosen not in PAPERS:
        raise FileError(f"There is no paper “{chosen}”; {', '.join(PAPERS)} would be right.")
    made = [one for one in templates_of(s) if (one.id in ids if ids else one.kind != "board")]
    if not made:
        raise FileError(NO_TEMPLATES)
    pages: list[Page] = []
    try:
        for at, one in enumerate(made):
            tell(0.9 * at / len(made), f"drawing {one.name}, {at + 1} of {len(made)}")
            note = f"{name}, {s.build.name}, {today}" + (f"; {one.side}" if one.side else "")
            pages += tile_pages(one.drawn, one.title, note, PAPERS[chosen])
            if len(pages) > MOST_PAGES:
                raise FileError(f"More than {MOST_PAGES} sheets of {chosen}; one template at a time (Cut, Templates), a roll, or a DXF would be right.")  # fmt: skip
    except GeometryError as fault:
        raise FileError(Words(s.build.brief.reading.shown()).told(str(fault))) from None
    return tuple(pages)


def _needs_body(s: Studied) -> None:
    if s.framed.body is None:
        raise FileError(
            "There is no body to draw yet: give it a form, a length, a width and a height on the Shell stop."
        )


def write_file(path: Path, data: bytes) -> None:
    """Raises: FileError: in words, nothing half written over what was there."""
    try:
        if path.is_dir():
            raise FileError(f"{path} is a folder; name a file in it.")
        write_whole(path, data)
    except OSError as fault:
        raise FileError(f"{path} could not be written: {fault.strerror or fault}.") from None


def free_name(path: Path, data: bytes) -> Path:
    """The path, or the next of its kind (-2, -3 and so on) where a file of other content stands there already.

    Nobody chose that name, so nobody meant to write over it. Raises: FileError.
    """
    try:
        for number in range(2, MOST_BESIDE):
            if not path.exists() or (path.is_file() and path.stat().st_size == len(data) and path.read_bytes() == data):
                return path
            if path.is_dir():
                return path
            path = path.with_stem(f"{path.stem.removesuffix(f'-{number - 1}')}-{number}")
    except OSError as fault:
        raise FileError(f"{path} could not be written: {fault.strerror or fault}.") from None
    raise FileError(f"{path} and all before it are there already; say where to with --out.")
