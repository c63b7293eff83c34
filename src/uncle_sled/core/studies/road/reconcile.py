"""What tickets teach: masses by group before and after, surprise in sigmas, and what they cannot tell apart.

Posterior m = m0 + K (z - H m0), K = S H' (H S H' + R)^-1, covariance S - K H S (Kalman update of a static state); R holds
the scale's doubt and the doubt of stations. Surprise: Mahalanobis distance of each ticket and of all of them. Check: the
work notes' 30 kg.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.road import Correction, GroupFactor, Seen, Ticket
from uncle_sled.core.engine import keep
from uncle_sled.core.reading.balance import balance
from uncle_sled.core.reading.learnt import GROUP_WORDS, GROUPS, columns_of, stands, with_what_was_learnt
from uncle_sled.core.reading.load_cases import mass_table
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.sureness import lever
from uncle_sled.core.studies.road.weighing import Weighed, case_row, stale, weighed
from uncle_sled.core.words import Words

Floats = NDArray[np.float64]
ODD = 3.0  # sigmas
MATTERS = 0.02  # share of a group that is worth a word


class Posterior(msgspec.Struct, frozen=True):
    """mass: (g,) after; cov: (g, g); surprise: of each row of readings together, in sigmas; predicted: (k,) after."""

    mass: Floats
    cov: Floats
    surprise: float
    predicted: Floats
    predicted_cov: Floats


def update(m0: Floats, cov0: Floats, h: Floats, z: Floats, r: Floats) -> Posterior:
    """One static Kalman update. Args: m0: (g,) masses; cov0: (g, g); h: (k, g); z: (k,) readings; r: (k, k) their doubt."""
    spread = h @ cov0 @ h.T + r
    off = z - h @ m0
    gain = np.linalg.solve(spread, h @ cov0).T
    mass = m0 + gain @ off
    cov = cov0 - gain @ h @ cov0
    cov = (cov + cov.T) / 2
    surprise = math.sqrt(max(float(off @ np.linalg.solve(spread, off)), 0.0))
    return Posterior(mass, cov, surprise, h @ mass, h @ cov @ h.T)


class GroupSaid(msgspec.Struct, frozen=True):
    """One group: what it was thought to weigh and what it weighs by the tickets, with their sigmas."""

    id: str
    name: str
    before_kg: float
    sigma_before_kg: float
    after_kg: float
    sigma_kg: float


class TicketSaid(msgspec.Struct, frozen=True):
    """One ticket beside the model: row of its case, what was thought and weighed, how many sigmas apart; old: out of date."""

    weighed: Weighed
    row: int | None
    model_total_kg: float | None
    model_tongue_kg: float | None
    surprise: float | None
    old: bool = False


class Reconciled(msgspec.Struct, frozen=True):
    """groups in their order; cov: of factors, row by row; says: in words what it means; surprise: of all tickets together."""

    tickets: tuple[TicketSaid, ...]
    groups: tuple[GroupSaid, ...]
    cov: tuple[float, ...]
    surprise: float
    says: tuple[str, ...]
    fights: tuple[str, ...]


def accepted(s: Studied) -> set[str]:
    """Ids of tickets that a correction holds already."""
    return {id for correction in s.build.road.corrections for id in correction.tickets}


@keep(most=4)
def reconcile(s: Studied, tickets: Sequence[Ticket] | None = None) -> Reconciled | None:
    """All tickets that are not in a correction yet, together; None where none says anything.

    Args: tickets: these instead.
    """
    known = accepted(s)
    chosen = [each_ticket for each_ticket in s.build.road.tickets if each_ticket.id not in known] if tickets is None else list(tickets)
    said = [_said(s, each_ticket) for each_ticket in chosen]
    usable = [each_ticket for each_ticket in said if each_ticket.row is not None and not each_ticket.weighed.faults and not each_ticket.old]
    if not usable or s.support is None or s.support.carrier != "ball":
        return None
    columns = columns_of(s.parts)
    names = [name for name in GROUPS if columns[name] and _mass(s, usable, columns[name]) > 0.01]
    rows, z, r = [], [], []
    for ticket in usable:
        hs, zs, rs = _rows(s, ticket, [columns[name] for name in names])
        rows += hs
        z += zs
        r.append(rs)
    h, readings = np.array(rows), np.array(z)
    doubt = _blocks(r)
    base = np.array([_mass(s, usable, columns[name]) for name in names])
    cov0 = _prior(s, usable, [columns[name] for name in names], base)
    # in factors: what all groups would weigh over what they are thought to
    scaled = h * base
    p = update(np.ones(len(names)), cov0, scaled, readings, doubt)
    groups = tuple(
        GroupSaid(
            name,
            GROUP_WORDS[name],
            float(base[k]),
            float(base[k] * math.sqrt(cov0[k, k])),
            float(base[k] * p.mass[k]),
            float(base[k] * math.sqrt(max(p.cov[k, k], 0.0))),
        )
        for k, name in enumerate(names)
    )
    judged, words = [], Words(s.build.brief.reading.shown())
    for ticket in said:
        surprise = None
        if ticket in usable:
            hs, zs, rs = _rows(s, ticket, [columns[name] for name in names])
            alone = update(np.ones(len(names)), cov0, np.array(hs) * base, np.array(zs), rs)
            surprise = alone.surprise
        judged.append(msgspec.structs.replace(ticket, surprise=surprise))
    return Reconciled(
        tuple(judged),
        groups,
        tuple(float(one) for one in p.cov.ravel()),
        p.surprise,
        _words(groups, p.cov, judged, words),
        _fights(judged, words),
    )


def _said(s: Studied, ticket: Ticket) -> TicketSaid:
    what = weighed(ticket, s)
    row = None if what.faults else case_row(s, ticket)
    if row is None:
        return TicketSaid(what, None, None, None, None)
    return TicketSaid(what, row, float(s.readings.total_kg[row]), float(s.readings.tongue_kg[row]), None, stale(ticket, s, row) is not None)


def _mass(s: Studied, usable: list[TicketSaid], at: list[int]) -> float:
    """What a group weighs in the fullest of the cases that were weighed."""
    return max(float(s.table.mass_kg[ticket.row, at].sum()) for ticket in usable if ticket.row is not None)


def _rows(s: Studied, ticket: TicketSaid, groups: list[list[int]]) -> tuple[list[list[float]], list[float], Floats]:
    """Rows of H by group as shares of what the group weighs at most, readings less what is in no group, and their doubt."""
    assert ticket.row is not None
    table, row = s.table, ticket.row
    arm = lever(s, row)
    inside = [at for some in groups for at in some]
    rest = [at for at in range(table.mass_kg.shape[1]) if at not in set(inside)]
    hs: list[list[float]] = []
    zs: list[float] = []
    most = [max(float(table.mass_kg[k, at].sum()) for k in range(len(table.cases))) for at in groups]
    kinds = []
    if ticket.weighed.total_kg is not None:
        hs.append([float(table.mass_kg[row, at].sum()) / max(m, 1e-9) for at, m in zip(groups, most, strict=True)])
        zs.append(ticket.weighed.total_kg - float(table.mass_kg[row, rest].sum()))
        kinds.append("total")
    if ticket.weighed.tongue_kg is not None and arm is not None:
        hs.append([float((arm.of_mass[at] * table.mass_kg[row, at]).sum()) / max(m, 1e-9) for at, m in zip(groups, most, strict=True)])
        zs.append(ticket.weighed.tongue_kg - float((arm.of_mass[rest] * table.mass_kg[row, rest]).sum()))
        kinds.append("tongue")
    doubt = np.zeros((len(kinds), len(kinds)))
    w = ticket.weighed
    for a, kind in enumerate(kinds):
        doubt[a, a] = (w.sigma_total_kg if kind == "total" else w.sigma_tongue_kg) ** 2
        if kind == "tongue" and arm is not None:
            doubt[a, a] += float(((table.mass_kg[row] * arm.of_place * table.sigma_x_m) ** 2).sum()) + arm.axle_kg2
        reaches = arm.of_mass[rest] if kind == "tongue" and arm is not None else 1.0  # of what is in no group, as water
        doubt[a, a] += float(((reaches * table.sigma_kg[row, rest]) ** 2).sum())
        doubt[a, a] = max(doubt[a, a], 0.01)
    if len(kinds) == 2:
        doubt[0, 1] = doubt[1, 0] = w.cov_kg2
        top = 0.98 * math.sqrt(doubt[0, 0] * doubt[1, 1])
        doubt[0, 1] = doubt[1, 0] = min(max(doubt[0, 1], -top), top)
    return hs, zs, doubt


def _blocks(parts: list[Floats]) -> Floats:
    size = sum(len(row) for row in parts)
    made, at = np.zeros((size, size)), 0
    for point in parts:
        made[at : at + len(point), at : at + len(point)] = point
        at += len(point)
    return made


def _prior(s: Studied, usable: list[TicketSaid], groups: list[list[int]], base: Floats) -> Floats:
    """Covariance of the factors before: own doubts, and what is wrong together, in the fullest case that was weighed."""
    table = s.table
    row = max((ticket.row for ticket in usable if ticket.row is not None), key=lambda k: float(table.mass_kg[k].sum()))
    cov = np.diag([float((table.sigma_kg[row, at] ** 2).sum()) for at in groups]) / np.outer(base, base)
    for columns, shares in table.together():
        weight = dict(zip(columns, shares, strict=True))
        both = np.array([sum(weight.get(at, 0.0) * float(table.mass_kg[row, at]) for at in some) for some in groups])
        cov = cov + np.outer(both / base, both / base)
    return cov + np.eye(len(groups)) * 1e-6


def _words(groups: tuple[GroupSaid, ...], cov: Floats, tickets: list[TicketSaid], words: Words) -> tuple[str, ...]:
    """What it means: what is heavier, what cannot be told apart, what to weigh next."""
    told: list[str] = []
    odd = [each_ticket for each_ticket in tickets if each_ticket.surprise is not None and each_ticket.surprise > ODD]
    for ticket in odd:
        told.append(
            f"The ticket of {ticket.weighed.ticket.on or 'no date'} is {ticket.surprise:.1f} sigmas away: something is missing from the list, or a tank was not empty."
        )
    off = [(group.after_kg - group.before_kg, group, k) for k, group in enumerate(groups)]
    moved = sorted(
        (one for one in off if abs(one[0]) > MATTERS * max(one[1].before_kg, 1.0) and abs(one[0]) > 1.0), key=lambda one: -abs(one[0])
    )
    if not moved:
        told.append("Nothing is odd: the tickets agree with the model.")
        return tuple(told)
    by, first, at = moved[0]
    way = "heavier" if by > 0 else "lighter"
    sure = abs(by) > 2 * first.sigma_kg
    twins = [groups[k].name for other, _, k in moved[1:] if (other > 0) == (by > 0) and abs(other) > 0.25 * abs(by) and cov[at, k] < 0]
    if twins and not sure:
        told.append(
            f"{first.name[:1].upper()}{first.name[1:]} or {twins[0]} is {way}: it cannot tell which. Weigh it bare first, nothing in it."
        )
    elif sure:
        told.append(
            f"{first.name[:1].upper()}{first.name[1:]} is {words.kg(abs(by))} {way} than thought, give or take {words.kg(2 * first.sigma_kg)}."
        )
    else:
        told.append(
            f"{first.name[:1].upper()}{first.name[1:]} may be {words.kg(abs(by))} {way}; the doubt of {words.kg(2 * first.sigma_kg)} is as large."
        )
    return tuple(told)


def _fights(tickets: list[TicketSaid], words: Words) -> tuple[str, ...]:
    """Tickets of one case that differ by more than three sigmas: which pair, and by how much."""
    told = []
    for i, a in enumerate(tickets):
        for b in tickets[i + 1 :]:
            if a.row is None or a.row != b.row:
                continue
            for what in ("total", "tongue"):
                x, y = getattr(a.weighed, f"{what}_kg"), getattr(b.weighed, f"{what}_kg")
                if x is None or y is None:
                    continue
                sigma = math.hypot(getattr(a.weighed, f"sigma_{what}_kg"), getattr(b.weighed, f"sigma_{what}_kg"))
                if abs(x - y) > ODD * max(sigma, 0.5):
                    word = "total" if what == "total" else "ball"
                    told.append(
                        f"{a.weighed.ticket.on} and {b.weighed.ticket.on}: the {word} differs by {words.kg(abs(x - y))} in one case; one of them is wrong, or something was aboard."
                    )
    return tuple(told)


def correction_of(s: Studied, made: Reconciled, id: str) -> Correction:
    """What is kept when it is accepted: factors over all that was learnt before, with their covariance."""
    last = s.build.road.corrections[-1] if s.build.road.corrections else None
    was = {factor.id: factor.factor for factor in last.groups} if last is not None else {}
    groups, factors = [], []
    for group in made.groups:
        factor = group.after_kg / group.before_kg if group.before_kg > 0 else 1.0
        groups.append(GroupFactor(group.id, max(factor * was.get(group.id, 1.0), 0.05)))
        factors.append(was.get(group.id, 1.0))
    many = len(groups)
    cov = np.array(made.cov).reshape(many, many) * np.outer(factors, factors)
    stood = [ticket for ticket in made.tickets if ticket.row is not None and not ticket.old]
    tickets = (*(last.tickets if last is not None else ()), *(ticket.weighed.ticket.id for ticket in stood))
    bare = Correction(id, tickets, tuple(groups), tuple(float(one) for one in cov.ravel()))
    corrected = with_what_was_learnt(mass_table(s.build, s.parts), s.parts, (bare,))
    ball = balance(corrected, s.support, s.band).tongue_kg

    def said_of(row: int) -> dict[str, float]:
        return {"model_kg": float(corrected.mass_kg[row].sum()), "model_tongue_kg": float(ball[row])}

    rows = {case.id: row for row, case in enumerate(s.table.cases)}
    seen = {seen.case: seen for seen in last.seen if seen.case in rows} if last is not None else {}
    for key, old in tuple(seen.items()):  # what still stands, stands by what is known now
        if stands(old, float(s.table.mass_kg[rows[key]].sum()), float(s.readings.tongue_kg[rows[key]])):
            seen[key] = msgspec.structs.replace(old, **said_of(rows[key]))
        else:
            del seen[key]
    for ticket in stood:
        row = ticket.row
        assert row is not None
        case, what = s.table.cases[row].id, ticket.weighed
        before = seen.get(case)
        total_kg = what.total_kg if what.total_kg is not None or before is None else before.total_kg
        tongue_kg = what.tongue_kg if what.tongue_kg is not None or before is None else before.tongue_kg
        seen[case] = Seen(case, **said_of(row), total_kg=total_kg, tongue_kg=tongue_kg)
    return msgspec.structs.replace(bare, seen=tuple(seen.values()))
