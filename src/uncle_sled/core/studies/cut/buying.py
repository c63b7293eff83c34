"""The shopping list: what the plan, the faces, things, openings, wires and rules come to; a line of it is in ``bought_line.py``."""

from __future__ import annotations

import math
import re

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.materials import Material
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.frame_steel import bars_of, frame_kg
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.as_sold import AsSold, comes_from
from uncle_sled.core.studies.cut.bought_line import STAGES, Draft, Line, in_feet, line_of, own_line, prices
from uncle_sled.core.studies.cut.consumables import Rule, shipped_rules, used_up
from uncle_sled.core.studies.cut.cut_from_stock import RACK, BuildPlan
from uncle_sled.core.studies.cut.piece import Piece
from uncle_sled.core.studies.cut.small_parts import small_parts
from uncle_sled.core.studies.cut.take_off import TakeOff, take_off
from uncle_sled.core.studies.cut.wanted import Stock
from uncle_sled.core.studies.shell.screws import screw_joints_of, screw_size, screws_by_size
from uncle_sled.core.studies.systems.water import water_of
from uncle_sled.core.wiring.wired import Wired, wired_of
from uncle_sled.core.words import MILLIMETRES, Words

NOT_BOUGHT = ("gear", "vehicle aboard", "kit")  # is there already, and comes along
ROLL_M2, WIRE_MORE = 30.0, 1.10
LAPS = 1.10


def shopping(build: Build, facts: Facts, _framed: Framed, made: BuildPlan, wired: Wired, hose_m: float) -> tuple[Line, ...]:
    """Everything to buy. Args: made: what is cut from what; wired: for its wires; hose_m: of water, in all."""
    off = take_off(build, facts)
    drafts = [
        *_cut_stock(build, made, library_of(facts.materials), off),
        *_spread(off, library_of(facts.materials)),
        *_openings(build),
        *_things(build),
        *_wires(build, wired, hose_m),
        *_small(build, wired),
        *_rig(build),
        *_used(build, facts, off),
        *_screws(build, facts),
    ]
    known = {bought.id: bought for bought in build.cut.bought}
    words = Words(build.brief.reading.shown())
    if words.shown.imperial:
        drafts = [in_feet(draft) for draft in drafts]
    drafts = [msgspec.structs.replace(draft, name=words.told(draft.name), why=words.told(draft.why)) for draft in drafts]
    lines = [line_of(draft, known.get(draft.id)) for draft in drafts if draft.need > 1e-9]
    lines += [own_line(bought) for bought in build.cut.bought if bought.own]
    return tuple(sorted(lines, key=lambda line: (STAGES.index(line.stage) if line.stage in STAGES else 99, line.shop, line.name)))


def slug(text: str) -> str:
    """An id from words: no dots, so that it can stand in a path."""
    return re.sub(r"[^A-Za-z0-9 ,&/()+-]", "_", text)[:200]


def _cut_stock(build: Build, made: BuildPlan, library: dict[str, Material], off: TakeOff) -> list[Draft]:
    """Sheets and bars that the plan takes from what is sold; the rack's cost nothing and are not bought.

    Sticks of a section that no yard has are bought as what they are ripped from or glued up of, so many of it.
    """
    words = Words(build.brief.reading.shown())
    sample = {piece.material: piece for piece in off.pieces}  # one of each material: the others differ in their sizes only
    taken: dict[str, int] = {}
    for plan in made.plan.sheets:
        for layout in plan.layouts:
            taken[layout.stock] = taken.get(layout.stock, 0) + 1
    for bars in made.plan.bars:
        for pattern in bars.patterns:
            taken[pattern.stock] = taken.get(pattern.stock, 0) + pattern.times
    drafts = []
    for stock in made.stocks:
        if not taken.get(stock.id) or stock.id.startswith(RACK):
            continue
        piece = sample.get(stock.material)
        material = library.get(piece.made_of) if piece is not None else None
        of = _sold_as(stock, piece)
        table = prices()[of]
        each = own = stock.price
        t, w = (piece.thickness_m, piece.width_m) if piece is not None else (0.0, 0.0)
        source = comes_from(piece, build) if piece is not None and own is None else None
        need, name = float(taken[stock.id]), _stock_name(stock, words)
        if source is not None and source.how in ("ripped", "glued up") and material is not None:
            size, long = words.section(source.from_m), words.cut(stock.length_m)
            name, need = f"{material.name} {size}, {long}, for {words.section((w, t))}", math.ceil(need / source.many) * float(source.plies)
            w, t = source.from_m
        if each is None and of == "trim":
            each = table.likely * stock.length_m
        if each is None and piece is not None and piece.kg_m is not None:
            each = prices()["rig steel"].likely * piece.kg_m * stock.length_m
        if each is None and material is not None and (source is None or source.how != "not sold"):
            across = stock.width_m if stock.kind == "sheet" else w if piece is not None and piece.kind == "bar" else 0.0
            of_panel = piece.money_m2 if piece is not None else None
            each = (of_panel if of_panel is not None else material.price_m2(t)) * stock.length_m * across or None
        shares = (table.low / table.likely, 1.0, table.high / table.likely) if own is None else (1.0, 1.0, 1.0)
        low, likely, high = (None if each is None else each * share for share in shares)
        drafts.append(
            Draft(
                slug(stock.id),
                name,
                of=of,
                unit="pieces",
                need=need,
                pack=1.0,
                low=low,
                likely=likely,
                high=high,
                why=_why(source, words),
                one_batch=of == "sheet" and material is not None and material.family == "plywood",
                sure="typed" if own is not None else "guessed",
            )
        )
    return drafts


def _sold_as(stock: Stock, piece: Piece | None) -> str:
    """Which line of the price table it goes by."""
    if piece is not None and piece.kind == "trim":
        return "trim"
    if piece is not None and piece.kg_m is not None:
        return "metal"
    if piece is not None and piece.money_m2 is not None:
        return "panel"
    if stock.kind == "sheet":
        return "sheet"
    return "board" if piece is not None and piece.cladding else "timber"


def _why(source: AsSold | None, words: Words) -> str:
    if source is None or source.how == "sold":
        return "by the cutting plan"
    if source.how == "not sold":
        return "by the cutting plan; no yard has this section and it comes out of none: ask for it"
    if source.how == "ripped":
        return f"by the cutting plan; {source.many} from each, ripped"
    return f"by the cutting plan; {source.plies} glued up to one" + (
        f" with {words.thick(source.between_m)} of plywood between" if source.between_m else ""
    )


def _stock_name(stock: Stock, words: Words) -> str:
    size = words.cut(stock.length_m) + (f" x {words.cut(stock.width_m)}" if stock.kind == "sheet" else "")
    return f"{words.material(stock.material)}, {size}"


def _spread(off: TakeOff, library: dict[str, Material]) -> list[Draft]:
    """What comes on rolls and in tins, and fill by its boards: by area, laps and offcuts counted."""
    areas: dict[tuple[str, str, str, float], float] = {}
    for spread in off.spreads:
        key = (spread.material, spread.made_of, spread.form, spread.thickness_m)
        areas[key] = areas.get(key, 0.0) + spread.area_m2
    for piece in off.pieces:
        if piece.kind == "fill":
            key = (piece.material, piece.made_of, "fill", piece.thickness_m)
            areas[key] = areas.get(key, 0.0) + piece.area_m2
    several = {(name, form) for name, _, form, _ in areas if sum(1 for area in areas if (area[0], area[2]) == (name, form)) > 1}
    drafts = []
    for (name, made_of, form, thick_m), area in areas.items():
        material, shown = library.get(made_of), MILLIMETRES.sub(r"{\1 mm}", name)
        if (name, form) in several:  # the same stuff in two thicknesses is bought twice
            name, shown = f"{name} {thick_m * 1e3:.4g} mm", f"{name} {{{thick_m * 1e3:.4g} mm}}"
        table = prices().get(form, prices()["roll"])
        pack = {"fill": (material.pack_m2 if material is not None else None) or 1.0, "roll": ROLL_M2}.get(form, 1.0)
        each = material.price_m2(thick_m) * pack if material is not None else None
        low, likely, high = (None if not each else each * share for share in (table.low, table.likely, table.high))
        drafts.append(
            Draft(
                slug(f"{form} {name}"),
                shown,
                of=form,
                unit="m²",
                need=area * LAPS,
                pack=pack,
                low=low,
                likely=likely,
                high=high,
                why="by area, a tenth more for laps and offcuts",
            )
        )
    return drafts


def _openings(build: Build) -> list[Draft]:
    drafts = []
    for opening in build.shell.openings:
        table = prices().get(f"opening {opening.kind}") or prices()["opening flap"]
        drafts.append(
            Draft(
                f"opening {opening.id}",
                opening.name,
                of=table.of,
                unit="pieces",
                need=1.0,
                pack=1.0,
                low=table.low,
                likely=table.likely,
                high=table.high,
                why=f"{opening.kind} on {opening.face}, {{{opening.width.si * 1e3:.0f} × {opening.height.si * 1e3:.0f} mm}}",
            )
        )
    return drafts


def _is_cut(build: Build, thing: Thing) -> bool:
    """Whether it comes out of the cutting plan: nobody buys it beside its boards. A bed's mattress is bought, what carries it cut."""
    return thing.id in build.cut.made or thing.cabinet is not None or (thing.base is not None and thing.kind != "bed")


def _things(build: Build) -> list[Draft]:
    drafts = []
    for thing in build.stow.things:
        table = prices().get(f"thing {thing.kind}")
        if table is None or thing.kind in NOT_BOUGHT or thing.cargo or thing.taken_out or _is_cut(build, thing):
            continue
        drafts.append(
            Draft(
                f"thing {thing.id}",
                thing.name,
                of=table.of,
                unit="pieces",
                need=1.0,
                pack=1.0,
                low=table.low,
                likely=table.likely,
                high=table.high,
                why="drawn on Stow",
            )
        )
    return drafts


def _wires(build: Build, wired: Wired, hose_m: float) -> list[Draft]:
    """Wire by gauge, a tenth more; plus and minus each for themselves. Devices; hose."""
    metres: dict[tuple[str, float], list[float]] = {}
    for wire in wired.wires:
        if wire.mm2 is not None:
            cores = 1 if wire.kind == "earth" else 3 if wire.kind == "AC" else 2
            metres.setdefault((wire.gauge, wire.mm2), []).append(wire.length_m * cores)
    table, drafts = prices()["wire"], []
    for (gauge, mm2), runs in sorted(metres.items(), key=lambda metre: metre[0][1]):
        size = max(mm2, 1.0)
        drafts.append(
            Draft(
                slug(f"wire {gauge}"),
                f"Wire {gauge}",
                of="wire",
                unit="m",
                need=sum(runs) * WIRE_MORE,
                pack=1.0,
                low=table.low * size,
                likely=table.likely * size,
                high=table.high * size,
                why=f"{len(runs)} runs, every core, a tenth more",
            )
        )
    for device in build.systems.devices:
        price = prices()["device"]
        drafts.append(
            Draft(
                f"device {device.id}",
                device.name,
                of="device",
                unit="pieces",
                need=1.0,
                pack=1.0,
                low=price.low,
                likely=price.likely,
                high=price.high,
                why="on the diagram",
            )
        )
    if hose_m > 0.05:
        price = prices()["hose"]
        drafts.append(
            Draft(
                "hose",
                "Water hose",
                of="hose",
                unit="m",
                need=hose_m * WIRE_MORE,
                pack=1.0,
                low=price.low,
                likely=price.likely,
                high=price.high,
                why="tank to tap and back, a tenth more",
            )
        )
    return drafts


def _small(build: Build, wired: Wired) -> list[Draft]:
    """What wires, pipes and gas want besides themselves; priced by the piece or metre, sold in packs."""
    drafts = []
    for part in small_parts(build, wired):
        price = prices()[part.of]
        drafts.append(
            Draft(
                slug(part.id),
                part.name,
                of=part.of,
                unit=part.unit,
                need=part.need,
                pack=part.pack,
                low=price.low * part.pack,
                likely=price.likely * part.pack,
                high=price.high * part.pack,
                why=part.why,
            )
        )
    return drafts


def _rig(build: Build) -> list[Draft]:
    """What an own frame wants; a rig that was bought whole is a line of one's own."""
    rig = build.rig
    if rig.carrier != "ball" or rig.base != "own frame" or not (rig.axles or rig.frame_length):
        return []
    drafts = []
    wanted: list[tuple[str, str, str, float]] = [(f"axle {axle.id}", f"Axle {k}", "rig axle", 1.0) for k, axle in enumerate(rig.axles, 1)]
    wanted += [
        ("coupling", "Coupling", "rig coupling", 1.0),
        ("jack", "Jack", "rig jack", 1.0),
        ("lights", "Lights and reflectors", "rig lights", 1.0),
    ]
    for id, name, of, many in wanted:
        price = prices()[of]
        drafts.append(
            Draft(
                f"rig {id}",
                name,
                of=of,
                unit="pieces",
                need=many,
                pack=1.0,
                low=price.low,
                likely=price.likely,
                high=price.high,
                why="own frame",
            )
        )
    kg = frame_kg(rig)
    if kg and not bars_of(rig):  # else its bars are in the cutting plan
        price = prices()["rig steel"]
        drafts.append(
            Draft(
                "rig steel",
                "Steel for the frame",
                of="rig steel",
                unit="kg",
                need=kg * LAPS,
                pack=1.0,
                low=price.low,
                likely=price.likely,
                high=price.high,
                why="by the frame's weight, a tenth more",
            )
        )
    return drafts


def _used(build: Build, facts: Facts, off: TakeOff) -> list[Draft]:
    return [
        msgspec.structs.replace(_by_rule(used.rule), id=f"rule {used.rule.id}", name=used.rule.name, need=used.need, why=used.rule.source)
        for used in used_up(build, facts, off)
    ]


def _by_rule(rule: Rule) -> Draft:
    """What a rule of consumption says of a pack: unit, price and shop; how much is wanted, and what for, says who asks."""
    table = prices()["consumable"]
    low, likely, high = (rule.price * share for share in (table.low, table.likely, table.high))
    return Draft(
        "",
        "",
        of="consumable",
        unit=rule.unit,
        need=0.0,
        pack=rule.pack,
        low=low,
        likely=likely,
        high=high,
        shop=rule.shop,
        stage=rule.stage,
    )


BOX_OF, MORE_SCREWS = {0.004: "screws-field", 0.005: "screws-frame"}, 1.1  # rule whose box they come in, by their shank [m]


def _screws(build: Build, facts: Facts) -> list[Draft]:
    """Screws of the faces by their size, a tenth more for what is dropped; priced as the shipped rules have a box."""
    words, rules = Words(build.brief.reading.shown()), {rule.id: rule for rule in shipped_rules()}
    joints = screw_joints_of(build, facts, framed_of(build, facts))
    return [
        msgspec.structs.replace(
            _by_rule(rules[BOX_OF[thick]]),
            id=f"screws {thick * 1e3:g} x {long * 1e3:.4g}".replace(".", ","),
            name=f"Screws {screw_size(thick, long, words)}",
            need=many * MORE_SCREWS,
            why="by the joints of the faces (Shell, Joints, Screws)",
        )
        for (thick, long), many in screws_by_size(joints).items()
    ]


@keep(most=2)
def lines_of(s: Studied, made: BuildPlan) -> tuple[Line, ...]:
    """The shopping list of a build by a plan of it."""
    hose_m = (
        water_of(s.build, len(s.build.brief.sleepers)).hose_m
        if any(t.tank and t.tank.contents == "fresh" for t in s.build.stow.things)
        else 0.0
    )
    return shopping(s.build, s.facts, s.framed, made, wired_of(s.build, s.framed), hose_m)
