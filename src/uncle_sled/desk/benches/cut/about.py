"""Cut, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Project
from uncle_sled.core.parts.frame_steel import bars_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Deed, Shot, View


def anything_to_cut(s: Studied) -> bool:
    """Whether anything drawn goes to the saw: sticks, layers, walls and lofts inside, cabinets, leaves, rails of a section."""
    shell = s.build.shell
    drawn = s.framed.members or shell.inner or any(face.layers for face in shell.faces) or any(opening.leaf for opening in shell.openings)
    made = any(thing.cabinet is not None or thing.base is not None for thing in s.build.stow.things if not thing.taken_out)
    return bool(drawn or made or bars_of(s.build.rig) or shell.relined)


def standing(project: Project, s: Studied) -> tuple[str, str]:
    cut = project.build.cut
    if cut.prints:
        return f"print {cut.prints}", "good"
    return ("not numbered", "none") if anything_to_cut(s) else ("nothing to cut", "none")


VIEW_OF = {
    "built": "Built",
    "budget": "Money",
    "money": "Money",
    "buy": "Buy",
    "rack": "Stock",
    "sheets": "Sheets",
    "bars": "Bars",
    "piece": "Pieces",
}


def shows(_s: Studied, id: str) -> str | None:
    return VIEW_OF.get(id)


ABOUT = About(
    "Cut",
    "uncle_sled.desk.benches.cut.bench:CutBench",
    standing,
    views=(
        View("Pieces", "the pieces", "Every piece with its number, and where it is on the body", panel="pieces_panel:PiecesPanel"),
        View("Sheets", "the sheets", "What is cut from which sheet, cut by cut", panel="sheets_panel:SheetsPanel"),
        View("Bars", "the bars", "What is cut from which bar, by the stop", panel="bars_panel:BarsPanel"),
        View(
            "Templates",
            "the templates",
            "Templates at full size over many sheets, and the drawing set",
            panel="templates_panel:TemplatesPanel",
        ),
        View(
            "Steps",
            "where a little less saves a sheet",
            "Sheets and money over the body's sizes, with the edge to drag",
            panel="steps_panel:StepsPanel",
        ),
        View("Built", "what was really built", "A measure of the work, and what is cut held against it", panel="built_panel:BuiltPanel"),
        View("Stock", "saw and stock", "The saw, sizes that are sold, and the rack", panel="stock_panel:StockPanel"),
        View("Buy", "the shopping list", "What to buy, in whole packs, with what is known of it", panel="buy_panel:BuyPanel"),
        View("Money", "the money", "What it comes to, how sure that is, and over the stages of the work", panel="money_panel:MoneyPanel"),
    ),
    deeds=(
        Deed("number-and-print", "Number the pieces and print them", "N", lambda bench: bench.number_and_print()),
        Deed("lay-out-again", "Lay the pieces out again", "L", lambda bench: bench.lay_out()),
        Deed("hold-piece", "Hold the chosen piece in its place, or let it go", "H", lambda bench: bench.hold()),
        Deed("next-cut", "The next cut", ".", lambda bench: bench.step(1)),
        Deed("cut-before", "The cut before", ",", lambda bench: bench.step(-1)),
        Deed("rack-offcuts", "Offcuts worth keeping to the rack", "R", lambda bench: bench.keep_offcuts()),
    ),
    mouse=(
        "Point at a piece: it lights up on the body, and back; click: it stays lit",
        "Drag a piece on its sheet: it is held there, the others are laid out around it",
    ),
    shots=(
        Shot("8-cut-sheets", "Sheets", ready=lambda bench: bench.show_fullest()),
        Shot("8c-cut-built", "Built", lambda bench: bench.panel("Built").as_if("/stud/", "shell.height", -0.012), demo="orchard-keeper"),
    ),
    shows=shows,
)
