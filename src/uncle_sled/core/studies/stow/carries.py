"""Does it carry people: bed boards, slats and bearers, lids to sit on; winches and pins of lifting beds; slides pulled out.

Screening only. A point of 1.2 kN on 0.3 m of board, or one slat's share of it (two share where a mattress ties them and they
lie at most 60 mm apart); bearers half of the sleepers each, times 1.5, spread over their length. Plywood 15 MPa, softwood 9,
limit L/150. Source: stow notes; their checks are tests.
"""

from __future__ import annotations

import math
from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.joinery import PullOut, Winch
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.part import Part
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.strength import PERSON_N, Beam, beam, solid
from uncle_sled.core.studies.stow.beds import people_of
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.words import Words

PLY_PA, SOFT_PA, E_PA = 15e6, 9e6, 9e9
FOOT_M, SINKS, SHARE_GAP_M, LIVELY = 0.3, 150.0, 0.060, 1.5
SLEEPER_KG = 90.0  # where nobody said
SAFE = 5.0  # ropes, eyes, sheaves and fittings break at that times what they carry
LOSS = 0.9  # of a rope's pull over a sheave
CRANK = 0.75  # efficiency
HAND_N = 150.0  # at a crank
LEANS_N = 200.0  # of a hand on a pulled-out tray


class Carry(msgspec.Struct, frozen=True):
    """One check. value and limit in SI (unit: Pa, m, N, Nm, kg), None where it cannot be said, with why."""

    id: str
    thing: str
    name: str
    value: float | None
    limit: float | None
    unit: str
    how: str
    why: str = ""

    @property
    def use(self) -> float | None:
        """Share of its limit that is used; None where it was not checked."""
        return self.value / self.limit if self.value is not None and self.limit else None

    @property
    def face(self) -> str:
        """How it is known."""
        return "not checked" if self.use is None else "computed"


def board_under_a_knee(thick_m: float, span_m: float) -> Beam:
    """Check 15 mm over 0.60: 16.0 MPa, 7.1 mm; 18 mm: 11.1, 4.1."""
    return beam(solid(FOOT_M, thick_m, E_PA), span_m, 0.0, PERSON_N)


def slat_under_a_knee(wide_m: float, thick_m: float, span_m: float, sharing: int) -> Beam:
    """Check 70 x 20 over 0.65: alone 41.8 MPa, three sharing 13.9."""
    return beam(solid(wide_m, thick_m, E_PA), span_m, 0.0, PERSON_N / sharing)


def bearer(thick_m: float, deep_m: float, span_m: float, sleepers_kg: float, long_m: float, bearers: int = 2) -> Beam:
    """Check 45 x 70 upright over 1.35, half of two of 90 kg x 1.5 on 1.9 m: 697 N/m, 4.3 MPa, 2.6 mm."""
    return beam(solid(thick_m, deep_m, E_PA), span_m, sleepers_kg * GRAVITY * LIVELY / bearers / long_m)


def line_pull_n(mass_kg: float, winch: Winch) -> float:
    """Check 75 kg, one part, three sheaves: 1,009 N."""
    return mass_kg * GRAVITY / (winch.parts * LOSS**winch.sheaves)


def crank_n(pull_n: float, winch: Winch) -> float:
    """Check 1,009 N, drum 22 mm, crank 180, gear 3.1: 53 N."""
    return pull_n * winch.drum.si / (winch.crank.si * winch.gear * CRANK)


def corners_n(mass_kg: float, long_m: float, wide_m: float, x_m: float, y_m: float) -> tuple[float, float, float, float]:
    """What each corner of a lifted bed carries by its centre of gravity. Check 75 kg, 1.9 x 1.3, (1.05, 0.70): 152 to 219 N."""
    w = mass_kg * GRAVITY / (long_m * wide_m)
    near, far = long_m - x_m, x_m
    return w * near * (wide_m - y_m), w * far * (wide_m - y_m), w * near * y_m, w * far * y_m


def pulled_out_nm(mass_kg: float, travel_m: float, centre_m: float) -> tuple[float, float]:
    """Moment at the slide's front edge, bare and with a hand leaning on it. Check 38 kg, 0.60, 0.30: 111.8 and 231.8."""
    bare = mass_kg * GRAVITY * (travel_m - centre_m)
    return bare, bare + LEANS_N * travel_m


@keep("s.build.stow", "s.build.brief", "s.build.shell", "s.facts", "s.parts", most=3)
def carries(s: Studied) -> tuple[Carry, ...]:
    """Every bed, lid, winch and pull-out, in the order of the build."""
    words = Words(s.build.brief.reading.shown())
    parts = {part.id: part for part in s.parts}
    made: list[Carry] = []
    for thing in s.build.stow.things:
        if thing.taken_out:
            continue
        if thing.kind == "bed" or thing.base is not None:
            made += _bed(s, thing, words)
        made += _sat_on(s, thing, words)
        if thing.winch is not None:
            made += _winch(s, thing, thing.winch, parts[thing.id], words)
        if thing.pull_out is not None:
            made += _pulled(thing, thing.pull_out, parts, s, words)
    return tuple(made)


def sleepers_kg(s: Studied) -> tuple[float, int, bool]:
    """Of all who sleep: kilograms, how many, and whether everybody's weight is known."""
    people = people_of(s.build, s.facts)
    known = [p.mass.si for p in people if p.mass is not None]
    return sum(known) + SLEEPER_KG * (len(people) - len(known)), len(people), len(known) == len(people)


def _none(id: str, thing: str, name: str, why: str) -> Carry:
    return Carry(id, thing, name=name, value=None, limit=None, unit="", how="", why=why)


def _beam(id: str, thing: str, name: str, got: Beam, limit_pa: float, span_m: float, how: str) -> Iterator[Carry]:
    yield Carry(id, thing, name=name, value=got.stress_pa, limit=limit_pa, unit="Pa", how=how)
    yield Carry(f"{id}/sinks", thing, name=f"{name}, sinking", value=got.sinks_m, limit=span_m / SINKS, unit="m", how=f"{how}; span/150")


def _bed(s: Studied, thing: Thing, words: Words) -> Iterator[Carry]:
    base, id = thing.base, thing.id
    if base is None:
        on = next((t for t in s.build.stow.things if t.base is not None and t.id != id), None)
        if on is None:  # a mattress on something that carries it
            yield _none(f"{id}/base", id, f"{thing.name}, what carries it", "boards, slats and bearers are not said (Bed base, on Built)")
        return
    if base.span is None or base.span.si <= 0:
        yield _none(f"{id}/base", id, f"{thing.name}, {base.kind}", "how far it spans between bearers is not said")
    elif base.kind == "board":
        how = f"{words.thick(base.thick.si)} over {words.m(base.span.si)}, {words.fine_newtons(PERSON_N)} on {words.cut(FOOT_M)}"
        yield from _beam(
            f"{id}/base", id, f"{thing.name}, board", board_under_a_knee(base.thick.si, base.span.si), PLY_PA, base.span.si, how
        )
    else:
        share = 2 if base.tied and base.gap.si <= SHARE_GAP_M + 1e-9 else 1
        how = f"{words.section((base.slat.si, base.thick.si))} over {words.m(base.span.si)}, {words.fine_newtons(PERSON_N)} on {'two' if share == 2 else 'one'}"
        yield from _beam(
            f"{id}/base",
            id,
            f"{thing.name}, slat",
            slat_under_a_knee(base.slat.si, base.thick.si, base.span.si, share),
            SOFT_PA,
            base.span.si,
            how,
        )
    if base.bearers < 1:
        yield _none(f"{id}/bearer", id, f"{thing.name}, bearers", "a bed without bearers: two or more would be right")
    elif (
        base.bearer_thick is None
        or base.bearer_deep is None
        or base.bearer_span is None
        or min(base.bearer_thick.si, base.bearer_deep.si, base.bearer_span.si) <= 0
    ):
        yield _none(f"{id}/bearer", id, f"{thing.name}, bearers", "their section and span are not said")
    else:
        kg, many, known = sleepers_kg(s)
        if many == 0:
            yield _none(f"{id}/bearer", id, f"{thing.name}, bearers", "nobody is said to sleep here (Brief)")
            return
        long = max(thing.length.si, thing.width.si)
        got = bearer(base.bearer_thick.si, base.bearer_deep.si, base.bearer_span.si, kg, long, base.bearers)
        whose = "" if known else ", {90 kg} where nobody said"
        how = f"{words.section((base.bearer_thick.si, base.bearer_deep.si))} upright over {words.m(base.bearer_span.si)}; {words.kg(kg)} × 1.5 on {base.bearers}{whose}"
        yield from _beam(f"{id}/bearer", id, f"{thing.name}, bearers", got, SOFT_PA, base.bearer_span.si, how)


def _sat_on(s: Studied, thing: Thing, words: Words) -> Iterator[Carry]:
    """A lid or top of boards on which somebody sits or kneels, from end to end of its bays."""
    if thing.cabinet is None or thing.cabinet.top not in ("lid", "board"):
        return
    if "seat" not in thing.roles and thing.kind != "bed" and thing.cabinet.top != "lid":
        return
    board = cabinets_of(s.build, s.facts).get(thing.id)
    if board is None or not board.good:
        return
    span = max((b - a for _, a, b in board.carcass.clear), default=0.0)
    depth = board.carcass.size[1]
    span = min(span, depth)  # it spans the shorter way
    if span <= 0:
        return
    thick = thing.cabinet.thick.si
    how = f"{words.thick(thick)} over {words.m(span)}, {words.fine_newtons(PERSON_N)} on {words.cut(FOOT_M)}"
    yield from _beam(f"{thing.id}/lid", thing.id, f"{thing.name}, sat on", board_under_a_knee(thick, span), PLY_PA, span, how)


def _winch(s: Studied, thing: Thing, winch: Winch, part: Part, words: Words) -> Iterator[Carry]:
    id, name = thing.id, thing.name
    if winch.parts < 1:
        yield _none(f"{id}/winch", id, f"{name}, winch", "no part of rope: one or more would be right")
        return
    if min(winch.drum.si, winch.crank.si, winch.gear) <= 0:
        yield _none(f"{id}/winch", id, f"{name}, winch", "drum, crank and gear want a size")
        return
    if part.mass_kg <= 0:
        yield _none(f"{id}/winch", id, f"{name}, winch", "what it weighs is not known")
        return
    pull = line_pull_n(part.mass_kg, winch)
    yield Carry(
        f"{id}/crank",
        id,
        name=f"{name}, at the crank",
        value=crank_n(pull, winch),
        limit=HAND_N,
        unit="N",
        how=f"line pull {words.fine_newtons(pull)}: {words.kg(part.mass_kg)}, {winch.parts} part, {winch.sheaves} sheaves",
    )
    long, wide = thing.length.si, thing.width.si
    dx = thing.cg_dx.si if thing.cg_dx else 0.0
    dy = thing.cg_dy.si if thing.cg_dy else 0.0
    if min(long, wide) <= 0:
        return
    corner = max(corners_n(part.mass_kg, long, wide, long / 2 + dx, wide / 2 + dy))
    heavy = max(corner, pull)
    if winch.rope_n is None:
        yield _none(
            f"{id}/rope",
            id,
            f"{name}, ropes",
            f"what a rope breaks at is not said; {words.fine_newtons(SAFE * heavy)} or more would be right",
        )
    else:
        yield Carry(
            f"{id}/rope",
            id,
            name=f"{name}, ropes",
            value=SAFE * heavy,
            limit=winch.rope_n,
            unit="N",
            how=f"5 × {words.fine_newtons(heavy)}, the most that one carries",
        )
    if not winch.brake:
        yield _none(f"{id}/brake", id, f"{name}, winch holds", "it must hold by itself without a hand: a brake, not a ratchet alone")
    kg, many, _ = sleepers_kg(s)
    share = LIVELY * (part.mass_kg + (kg if many else 0.0)) * GRAVITY / 4 * max(1.0, 4 * corner / (part.mass_kg * GRAVITY))
    if winch.pin_n is None:
        yield _none(
            f"{id}/pins", id, f"{name}, pins", f"what a pin carries is not said; four of {words.fine_newtons(share)} each would be right"
        )
    else:
        yield Carry(
            f"{id}/pins",
            id,
            name=f"{name}, pins",
            value=share,
            limit=winch.pin_n,
            unit="N",
            how=f"bed and {words.kg(kg)} of sleepers × 1.5 on four, by its centre",
        )


def _pulled(thing: Thing, pull_out: PullOut, parts: dict[str, Part], s: Studied, words: Words) -> Iterator[Carry]:
    id, name = thing.id, thing.name
    part, holder = parts[id], parts.get(thing.inside or "")
    deep = thing.length.si if pull_out.side in ("front", "rear") else thing.width.si
    if pull_out.travel.si > deep + 1e-6:
        yield _none(
            f"{id}/slides",
            id,
            f"{name}, slides",
            f"they run {words.m(pull_out.travel.si)} out of {words.m(deep)}: no longer than it would be right",
        )
        return
    kg = part.mass_kg + sum(parts[t.id].mass_kg for t in s.build.stow.things if t.inside == id and t.id in parts)
    if kg <= 0 or pull_out.travel.si <= 0:
        yield _none(f"{id}/slides", id, f"{name}, slides", "what it weighs, or how far it comes out, is not known")
        return
    if pull_out.rated is None:
        yield _none(f"{id}/slides", id, f"{name}, slides", "what the pair is rated for, pulled out, is not said")
    else:
        yield Carry(f"{id}/slides", id, name=f"{name}, slides", value=kg, limit=pull_out.rated.si, unit="kg", how="the pair at full travel")
    _bare, leaning = pulled_out_nm(kg, pull_out.travel.si, deep / 2)
    screws = leaning / pull_out.rows.si if pull_out.rows.si > 0 else math.inf
    if holder is None:
        yield _none(f"{id}/tips", id, f"{name}, tips what it is in", "what it slides out of is not said (In it, In hand)")
    elif pull_out.screwed:
        yield Carry(
            f"{id}/screws",
            id,
            name=f"{name}, its cabinet's screws",
            value=screws,
            limit=2 * 1600.0,
            unit="N",
            how=f"{words.of(leaning, 'N m', 0)} with a hand leaning, rows {words.m(pull_out.rows.si)} apart; two screws of 8 mm",
        )
    else:
        box = next(t for t in s.build.stow.things if t.id == thing.inside)
        across = box.length.si if pull_out.side in ("front", "rear") else box.width.si
        holds = holder.mass_kg * GRAVITY * across / 2
        yield Carry(
            f"{id}/tips",
            id,
            name=f"{name}, tips its cabinet",
            value=max(leaning, 0.0),
            limit=holds,
            unit="Nm",
            how=f"a hand leans on it; {words.kg(holder.mass_kg)} stand {words.m(across)} deep, not screwed",
        )
    if pull_out.latch_n is None:
        yield _none(
            f"{id}/latch", id, f"{name}, latch", f"what keeps it in is not rated; {words.fine_newtons(kg * GRAVITY)} or more would be right"
        )
    else:
        yield Carry(
            f"{id}/latch", id, name=f"{name}, latch", value=kg * GRAVITY, limit=pull_out.latch_n, unit="N", how="1.0 g of what slides"
        )
