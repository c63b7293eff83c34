"""What a builder takes to the workshop: the diagram, every connection in a list, and labels to cut out. Pages in points."""

from __future__ import annotations

from msgspec.structs import replace

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import larger_of, paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.sheets import SIZE, Column, Sheets
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.drawing.systems.one_line import Diagram, as_live, one_line
from uncle_sled.core.drawing.systems.supply_words import stop_words_of, supply_words
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.supply import Supply, supplies
from uncle_sled.core.wiring.network import Network
from uncle_sled.core.wiring.wired import Laid, Wired, wired_of
from uncle_sled.core.words import Words

EDGE = 36.0
ROW = 17.0
CAUTION = (
    "Screening only. Mains, batteries and gas burn and kill: licensed people and local codes decide, and check it before it is switched on."
)


def wiring_sheets(s: Studied, name: str, day: str) -> tuple[Page, ...]:
    """Diagram, connections and labels; none where nothing is wired."""
    wired = wired_of(s.build, s.framed)
    if not wired.wires:
        return ()
    words = Words(s.build.brief.reading.shown())
    large, small = larger_of(s.build).lying, paper_of(s.build).upright
    title = f"{name}, {s.build.name}"
    lists = _lists(s, wired, words, title, day)
    whole = one_line(wired, words)
    states = [_state(whole, wired.net, large, title, day, supply) for supply in supplies(s)]
    return (_diagram(s, whole, large, title, day), *states, *lists, *_labels(wired, words, small, title, day))


def _head(width: float, height: float, title: str, what: str, day: str) -> list[Primitive]:
    y = height - EDGE
    return [
        Text((EDGE, y), what, 16, "ink", "head", "left"),
        Text((width - EDGE, y), f"{elided(title, 11, width / 2)}, {day}", 11, "pencil", anchor="right"),
        line((EDGE, y - 14), (width - EDGE, y - 14), "rule"),
    ]


def _foot(width: float) -> list[Primitive]:
    return [
        Text((EDGE, EDGE - 14 - 11 * at), one, 9, "pencil", anchor="left") for at, one in enumerate(wrapped(CAUTION, 9, width - 2 * EDGE))
    ]


def _fitted(made: Diagram, shapes: tuple[Primitive, ...], size: tuple[float, float], over: float, under: float) -> list[Primitive]:
    """The diagram's shapes in the middle of a page. Args: over, under: room for words at its head and foot [points]."""
    room = (size[0] - 2 * EDGE, size[1] - 2 * EDGE - 40 - over - under)
    scale = min(room[0] / made.width, room[1] / made.height, 1.25)
    x, y = EDGE + (room[0] - made.width * scale) / 2, EDGE + under + (room[1] - made.height * scale) / 2
    return [_scaled(shape, scale) for shape in placed(shapes, scale, x, y)]


def _diagram(s: Studied, made: Diagram, size: tuple[float, float], title: str, day: str) -> Page:
    width, height = size
    stops = [row for text in stop_words(s, ("Systems",)) for row in wrapped(f"STOP: {text}", 11, width - 2 * EDGE, "strong")]
    told = [Text((EDGE, height - EDGE - 28 - 14 * k), row, 11, "primer", "strong", "left") for k, row in enumerate(stops)]
    shapes = _fitted(made, made.shapes, size, 14.0 * len(stops), 0.0)
    return Page(width, height, (*_head(width, height, title, "Wiring, one line", day), *told, *shapes, *_foot(width)), "wiring")


def _state(made: Diagram, net: Network, size: tuple[float, float], title: str, day: str, supply: Supply) -> Page:
    """The diagram in one state: what is live strong, what it means in words under it."""
    width, height = size
    stops = set(stop_words_of(supply, net))
    told = [(row, text in stops) for text in supply_words(supply, net) for row in wrapped(text, 11, width - 2 * EDGE)]
    below = 14.0 * len(told) + 10
    shapes = _fitted(made, as_live(made.shapes, supply.live), size, 0.0, below)
    lines = [
        Text((EDGE, EDGE + below - 14 - 14 * k), row, 11, "primer" if bad else "ink", "strong" if bad else "text", "left")
        for k, (row, bad) in enumerate(told)
    ]
    what = f"Wiring, {supply.live.state.name.lower()}"
    return Page(width, height, (*_head(width, height, title, what, day), *shapes, *lines, *_foot(width)), f"wiring {supply.live.state.id}")


def _scaled(shape: Primitive, scale: float) -> Primitive:
    """Words that grow and shrink with their drawing, so that they stay over their wires."""
    return replace(shape, size=shape.size * scale) if isinstance(shape, Text) else shape


def _cells(wire: Laid, wired: Wired, words: Words) -> tuple[str, ...]:
    net = wired.net
    amps = "?" if wire.current_a is None else f"{wire.current_a:.1f}"
    fuse = "" if wire.fused == "none" else wire.fuse_words or "?"
    where = {"both": " both", "end": " end"}.get(wire.fused, "")
    drop = "" if wire.drop_share is None else f"{wire.drop_share * 100:.1f} %"
    about = "~" if wire.length_face == "guessed" else ""
    return (
        wire.number,
        net.ends[wire.start].name,
        net.ends[wire.end].name,
        "" if wire.kind == "earth" else amps,
        about + words.m(wire.length_m),
        wire.gauge if wire.mm2 is not None else "none",
        drop,
        fuse + where,
        wire.colour,
    )


def _lists(s: Studied, wired: Wired, words: Words, title: str, day: str) -> tuple[Page, ...]:
    """Every wire with its two ends; nothing of it is shortened."""
    sheets = Sheets(paper_of(s.build).upright, "Every connection", f"{elided(title, SIZE, 300)}, {day}", CAUTION)
    sheets.stops(stop_words(s, ("Systems",)))
    heads = [Column("No.", right=True), Column("From", wraps=True), Column("To", wraps=True)]
    heads += [Column(text, right=True) for text in ("A", "Length", "Size", "Drop", "Fuse")]
    sheets.table((*heads, Column("Colours", wraps=True)), [_cells(wire, wired, words) for wire in wired.wires], size=9)
    sheets.words("Lengths are one way along the route with its rises; ~ where an end has no place yet. Cut longer, then trim.", 9, "pencil")
    return tuple(replace(page, title=page.title.replace("Every connection", "connections")) for page in sheets.done())


def _labels(wired: Wired, _words: Words, size: tuple[float, float], title: str, day: str) -> list[Page]:
    """Two flags a wire, one for each end, to be cut out and folded round it."""
    width, height = size
    wide, high = (width - 2 * EDGE) / 3, 42.0
    per_page = 3 * int((height - 2 * EDGE - 40) / high)
    flags = [(wire, end) for wire in wired.wires for end in (wire.start, wire.end)]
    pages = []
    for first in range(0, len(flags), per_page):
        shapes = _head(width, height, title, "Labels, one for each end", day)
        for at, (wire, end) in enumerate(flags[first : first + per_page]):
            x, y = EDGE + (at % 3) * wide, height - EDGE - 30 - (at // 3 + 1) * high
            other = wire.end if end == wire.start else wire.start
            shapes.append(rect(x, y, wide, high, stroke="rule", fill="", width=0.6, dash=(3.0, 2.0)))
            shapes.append(Text((x + 8, y + high / 2), wire.number, 20, "ink", "head", "left"))
            shapes.append(
                Text((x + 44, y + high / 2 + 8), elided(f"to {wired.net.ends[other].name}", 10, wide - 52), 10, "ink", "strong", "left")
            )
            fuse = f", fuse {wire.fuse_words}" if wire.fuse_a is not None else ""
            volts = "mains" if wire.kind == "AC" else "earth" if wire.kind == "earth" else f"{wire.volts:.0f} V"
            shapes.append(
                Text(
                    (x + 44, y + high / 2 - 8),
                    elided(f"{volts}, {wire.gauge or 'no size'}{fuse}", 9, wide - 52),
                    9,
                    "pencil",
                    "text",
                    "left",
                )
            )
        pages.append(Page(width, height, (*shapes, *_foot(width)), "labels"))
    return pages
