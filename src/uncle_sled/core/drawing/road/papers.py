"""Papers: data sheet for the office, the customer's brief traced with a hand-over sheet, blocks and levels. Points, y up.

A number comes from a ticket ("weighed") or says "computed"; what nobody knows says so. Authorities differ: ask yours.
"""

from __future__ import annotations

import math

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Circle, Primitive, Text, dimension, line, placed
from uncle_sled.core.drawing.rig.rig_views import heights_m, side_body, side_rig, side_wheels
from uncle_sled.core.drawing.road.stand_drawn import standing_drawn
from uncle_sled.core.drawing.sheets import Sheets
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.build.checklists import checklists
from uncle_sled.core.studies.road.standing import Stands
from uncle_sled.core.studies.road.weighing import case_row, weighed
from uncle_sled.core.studies.road.wishes import traced
from uncle_sled.core.words import Words

OFFICE = "Rules differ: ask your authority what it wants. Nothing here is certified; what is not weighed says computed."


def _sheet(title: str, s: Studied, name: str, day: str) -> Sheets:
    return Sheets(paper_of(s.build).upright, title, f"{name[:60]}, {day}", OFFICE)


def as_drawn(s: Studied, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """The trailer from the side to scale, its length, its height and its lamps; nothing where nothing is drawn."""
    top, _ = heights_m(s.build)
    reach = length_m(s.build)
    if reach < 0.5:
        return ()
    scale = min((wide - 90) / (reach + 0.8), (high - 26) / (top + 0.1))
    left, foot = 24.0 + 0.4 * scale, 22.0
    shapes = list(placed((*side_rig(s.build), *side_body(s.build), *side_wheels(s.build)), scale, left, foot))
    shapes += dimension((left, 8.0), (left + reach * scale, 8.0), words.m(reach), 3, 9)
    body = s.framed.body
    if body is not None:
        tall = max(float(z) for _, z in body.side.polygon)
        x = left + (reach + 0.3) * scale + 10
        shapes += [
            line((x, foot), (x, foot + tall * scale), "pencil"),
            line((x - 3, foot), (x + 3, foot), "pencil"),
            line((x - 3, foot + tall * scale), (x + 3, foot + tall * scale), "pencil"),
        ]
        shapes.append(Text((x + 5, foot + tall * scale / 2), words.m(tall), 9, "ink", anchor="left"))
    spots = {part.id: part for part in s.parts}
    for lamp in s.build.shell.openings:
        if lamp.kind == "light" and lamp.id in spots:
            at = (left + spots[lamp.id].x_m * scale, foot + spots[lamp.id].z_m * scale)
            shapes += [Circle(at, 3.0, "primer", "primer"), Text((at[0], at[1] + 8), lamp.name, 8, "primer")]
    return tuple(shapes)


def data_sheet(s: Studied, name: str, day: str) -> tuple[Page, ...]:
    """Dimensions, masses by axle and ball, tyres, lights, plates, frame number, statement, receipts and photos."""
    words, rig, road = Words(s.build.brief.reading.shown()), s.build.rig, s.build.road
    sheet = _sheet("Data sheet", s, name, day)
    sheet.head("Whose and what")
    sheet.row("Builder", road.builder or "not said")
    sheet.row("Owner", road.owner or "not said")
    sheet.row("Frame number", road.frame_number or "not given yet")
    sheet.row("Carried by", "a ball coupling" if rig.carrier == "ball" else f"the bed of {rig.bed.name or 'a vehicle'}")
    body = s.framed.body
    picture = as_drawn(s, words, sheet.room[0], 120.0)
    if picture:
        sheet.picture(120.0, picture)
    sheet.head("Dimensions")
    sheet.row("Length in all", words.m(length_m(s.build)), "as drawn")
    if body is not None:
        sheet.row("Body", f"{words.m(body.length)} x {words.m(body.width)}", "as drawn")
        sheet.row("Height over the ground", words.m(max(float(z) for _, z in body.side.polygon)), "as drawn")
    if s.build.brief.nobody_on_roof:
        sheet.row("Roof", "nobody goes on it", "as said")
    for k, axle in enumerate(rig.axles, 1):
        sheet.row(f"Axle {k} from the ball", words.m(axle.station.si), "as drawn")
    if rig.track is not None:
        sheet.row("Track", words.m(rig.track.si), "as drawn")
    sheet.head("Masses")
    _masses(s, sheet, words)
    sheet.head("Plates and ratings")
    for title, mass in (
        ("Gross, by its plate", rig.gross_total),
        ("Axle group", rig.axle_group),
        ("Coupling", rig.coupler_rating),
        ("Towbar", rig.hitch_rating),
    ):
        sheet.row(title, words.kg(mass.si) if mass is not None else "not known", "as typed" if mass is not None else "")
    for k, axle in enumerate(rig.axles, 1):
        told = "rating unknown: altered" if axle.altered else words.kg(axle.rating.si) if axle.rating else "not known"
        sheet.row(f"Axle {k} rated", told)
    tyre = rig.tyre
    sheet.row("Tyres", f"load index {tyre.load_index}{tyre.speed_symbol}" if tyre.load_index else "not known")
    sheet.row("Brakes", rig.brakes or "not said")
    sheet.head("Lights and reflectors, with their places")
    sheet.words(road.lights or "Not described yet: each lamp and reflector with its height, distance from the side and mark.")
    lamps = [opening for opening in s.build.shell.openings if opening.kind == "light"]
    for lamp in lamps:
        sheet.row(lamp.name, f"{lamp.face}, {words.cut(lamp.along.si)} along, {words.cut(lamp.up.si)} up", "as drawn")
    sheet.head("Receipts and photos")
    paid = [bought for bought in s.build.cut.bought if bought.spent is not None]
    sheet.row("Receipts", f"{len(paid)} paid lines, {sum(bought.spent or 0 for bought in paid):.2f} in all")
    photos = [each_entry for each_entry in s.build.work.log if each_entry.photo]
    sheet.row("Photos", f"{len(photos)} in the log, beside the file")
    for entry in photos[:12]:
        sheet.row(entry.on, entry.photo)
    sheet.head("Statement of the builder")
    sheet.words("I built this trailer as described; what is not weighed is computed from its drawing.")
    sheet.sign("place, date, signature")
    return sheet.done()


def _masses(s: Studied, sheet: Sheets, words: Words) -> None:
    """By ticket where there is one, else computed, case by case."""
    weighed_rows: dict[int, tuple[float | None, float | None, str]] = {}
    for ticket in s.build.road.tickets:
        what = weighed(ticket, s)
        row = None if what.faults else case_row(s, ticket)
        if row is not None:
            weighed_rows[row] = (what.total_kg, what.tongue_kg, ticket.on)
    rows = s.towing_rows if s.build.rig.carrier == "ball" else list(range(len(s.table.cases)))
    for row in rows[:8]:
        total, tongue, on = weighed_rows.get(row, (None, None, ""))
        name = s.table.cases[row].name
        model = float(s.readings.total_kg[row])
        if not math.isfinite(model):
            sheet.row(name, "not known")
            continue
        told = words.kg(total if total is not None else model)
        ball = float(s.readings.tongue_kg[row])
        if s.build.rig.carrier == "ball" and math.isfinite(ball):
            told += f", {words.kg(tongue if tongue is not None else ball)} on the ball"
            axles = [float(kg) for kg in s.readings.axle_kg[row]]
            if total is None or tongue is None:
                told += f", axles {' + '.join(words.kg(kg) for kg in axles)}"
            else:
                told += f", axles {words.kg(total - tongue)} together"
        face = (
            "weighed"
            if total is not None and tongue is not None
            else "in part weighed"
            if total is not None or tongue is not None
            else "computed"
        )
        sheet.row(name, told, face + (f" {on}" if on else ""))


def hand_over(s: Studied, name: str, day: str) -> tuple[Page, ...]:
    """What was asked for, where it is, what it weighs and costs; and the checklists that go with it."""
    words = Words(s.build.brief.reading.shown())
    sheet = _sheet("Brief and hand-over", s, name, day)
    wishes = traced(s)
    sheet.head("What was asked for")
    if not wishes:
        sheet.words("No wish was written down.", ink="pencil")
    for each_traced in wishes:
        mass = words.kg(each_traced.mass_kg) if each_traced.mass_kg is not None else "weight not known"
        money = f"{each_traced.money:.0f}" if each_traced.money is not None else "price not known"
        sheet.row(
            each_traced.wish.says,
            f"{each_traced.where_name}, {mass}, {money}" if each_traced.met else "not met yet",
            "" if each_traced.met else "open",
        )
        if each_traced.wish.agreed:
            sheet.words(f"Agreed: {each_traced.wish.agreed}", 10, "pencil")
    sheet.head("What goes with it")
    for made in checklists(s.build, s.facts):
        sheet.row(made.name, f"{made.done} of {len(made.lines)} ticked")
        for check in made.lines:
            if check.tick is None:
                sheet.words(f"open: {check.says}", 10, "pencil")
    if s.build.brief.nobody_on_roof:
        sheet.head("The roof")
        sheet.words("Nobody goes on this roof: it was not asked to bear anybody, and was not checked for it.")
    sheet.head("Handed over")
    sheet.sign(f"builder: {s.build.road.builder or ''}")
    sheet.sign(f"owner: {s.build.road.owner or ''}")
    return sheet.done()


def standing_pages(made: Stands, s: Studied, name: str, day: str) -> tuple[Page, ...]:
    """Blocks and levels on a page. Nothing where no body stands."""
    words = Words(s.build.brief.reading.shown())
    if not made.blocks:
        return ()
    sheet = _sheet("Standing for good", s, name, day)
    sheet.picture(330.0, standing_drawn(made, s, words, sheet.room[0], 330.0))
    for k, block in enumerate(made.blocks, 1):
        load = words.newtons(block.load_n) if block.load_n > 9999 else words.fine_newtons(block.load_n)
        sheet.row(
            f"Pair {k}",
            f"{words.m(block.at_m)} from the front, {load} each, pad {words.cut(block.pad_m)}, {words.cut(block.up_m)} higher",
            "computed",
        )
    sheet.row("Weight", words.kg(made.mass_kg), "computed")
    if made.wind_n:
        sheet.row("Wind on the side", words.newtons(made.wind_n))
        sheet.row("Each of four anchors", words.fine_newtons(made.anchor_n) if made.anchor_n else "none wanted by this sum")
    if made.assumed:
        sheet.words(words.told(f"Taken where nobody said: {', '.join(made.assumed)}."), 10, "pencil")
    sheet.words(
        "Axles and ball free, never on corner jacks alone; ground and anchors are for those who know them, and for the law of the place.",
        10,
        "pencil",
    )
    return sheet.done()
