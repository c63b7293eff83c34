"""Systems, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.desk.benches.about import About, Deed, Shot, View


def standing(project: Project, s: Studied) -> tuple[str, str]:
    systems = project.build.systems
    if systems.wires:
        many = len(systems.wires)
        blank = sum(1 for laid in wired_of(s.build, s.framed).wires if laid.current_a is None or laid.length_face == "guessed")
        if blank:
            return f"{blank} wires unknown" if blank > 1 else "1 wire unknown", "none"
        return f"{many} wire{'s' if many > 1 else ''}", "good"
    units = any(t.figures is not None and (t.figures.unit or t.figures.power_w) for t in project.build.stow.things)
    return ("not wired", "none") if units or systems.loads else ("not begun", "none")


def _a_wire(build: Build, _s: Studied) -> tuple[str, ...]:
    """A wire that has something to tell: the first with a fuse that is not the main one."""
    fused = [wire.id for wire in build.systems.wires if wire.fused != "none"]
    return tuple(fused[1:2] or fused[:1])


VIEW_OF = {
    "power": "Charge",
    "water": "Water",
    "gas": "Gas",
    "warmth": "Warmth",
    "sweat": "Sweat",
    "frost": "Frost",
    "air": "Air",
    "inside": "Sweat",
}


def shows(s: Studied, id: str) -> str | None:
    systems = s.build.systems
    if any(wire.id == id for wire in systems.wires) or any(device.id == id for device in systems.devices):
        return "Diagram"
    if any(load.id == id for load in systems.loads):
        return "Loads"
    if id in VIEW_OF:
        return VIEW_OF[id]
    thing = next((t for t in s.build.stow.things if t.id == id), None)
    if thing is not None and thing.figures is not None:
        wired = any(id in (wire.start, wire.end) for wire in systems.wires)
        return "Diagram" if wired else "Loads"
    return None


ABOUT = About(
    "Systems",
    "uncle_sled.desk.benches.systems.bench:SystemsBench",
    standing,
    views=(
        View("Loads", "what runs", "What runs, how long, and what it takes a day", panel="loads_panel:LoadsPanel"),
        View(
            "Charge",
            "the battery over the stay",
            "What is in the battery over the stay, and what goes dark first",
            panel="charge_panel:ChargePanel",
        ),
        View(
            "Sizes",
            "sizes of battery and panel",
            "The smallest that carries the stay, and the kinds of battery side by side",
            panel="sizes_panel:SizesPanel",
        ),
        View(
            "Together",
            "what may run together",
            "Which loads go together, and how long each runs alone",
            panel="together_panel:TogetherPanel",
        ),
        View(
            "Wires",
            "the wires in the body",
            "Every wire along walls and posts, with its size, drop and fuse",
            picks=_a_wire,
            panel="wires_panel:WiresPanel",
        ),
        View(
            "Diagram",
            "the one-line diagram",
            "Sources, switches, fuses and loads on one page",
            picks=_a_wire,
            panel="diagram_panel:DiagramPanel",
        ),
        View("Water", "water", "How many days of water, and the way that it goes", panel="comfort_panels:WaterPanel"),
        View("Gas", "gas and flames", "How long fuel lasts, the cold, and the air that flames want", panel="comfort_panels:GasPanel"),
        View("Warmth", "warmth", "Where the warmth goes, and whether the heater holds the night", panel="comfort_panels:WarmthPanel"),
        View("Sweat", "what sweats", "Which surfaces sweat on the coldest night, and what stops it", panel="sweat_panel:SweatPanel"),
        View(
            "Air", "air and noise", "Free air behind fridges, hot sides, noise at heads, places of alarms", panel="comfort_panels:AirPanel"
        ),
        View("Frost", "water in frost", "When water freezes, what keeps it, and how it is emptied", panel="comfort_panels:FrostPanel"),
    ),
    deeds=(
        Deed("wire-up", "Wire up what is loose", "W", lambda bench: bench.wire_up()),
        Deed("add-load", "Add a load that is no thing", "A", lambda bench: bench.add_load()),
        Deed("take-off", "Take off the chosen wire, device or load", "Delete", lambda bench: bench.take_off()),
    ),
    mouse=(
        "Drag a wire to bend it; double-click a bend: it goes; Ctrl: free",
        "Drag a small box to move a device",
        "Click a wire on the diagram: it lights up in the body as well",
        "The pointer reads the charge off",
    ),
    shots=(Shot("7b-systems-wires", "Wires"),),
    shows=shows,
)
