"""What tickets taught, put on the masses of every case: a factor for each group, and doubts that hang together.

A correction scales with later edits: it multiplies whatever a group weighs now. The covariance of its factors is kept as
independent directions (eigenvectors), in each of which the masses of all groups are wrong together.
"""

from __future__ import annotations

import msgspec
import numpy as np

from uncle_sled.core.document.road import Correction, Seen
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.part import Part
from uncle_sled.core.reading.load_cases import Bools, Floats, MassTable

GROUPS = ("frame", "body", "systems", "fittings", "cargo")
GROUP_WORDS = {
    "frame": "the frame",
    "body": "the body",
    "systems": "tanks and power",
    "fittings": "furniture and fittings",
    "cargo": "the cargo",
}
LEAST = 1e-9
STANDS = 0.005  # share by which a case may weigh otherwise since it stood on the scale and still be the one weighed


class Measured(msgspec.Struct, frozen=True):
    """Cases, shape (c,) each: every mass of them was weighed; their total was, and their ball, by a ticket that stands."""

    parts: Bools
    total: Bools
    ball: Bools


def group_of(part: Part) -> str:
    """Which group of the reconciling a part belongs to."""
    if part.cargo:
        return "cargo"
    if part.group == "frame":
        return "frame"
    if part.group == "shell":
        return "body"
    return "systems" if part.group in ("fresh", "grey", "gas", "fuel", "power") else "fittings"


def columns_of(parts: tuple[Part, ...]) -> dict[str, list[int]]:
    """Columns of every group in the table of masses; contents are in none, their levels are known."""
    made: dict[str, list[int]] = {name: [] for name in GROUPS}
    for at, part in enumerate(parts):
        made[group_of(part)].append(at)
    return made


@keep(most=8)
def with_what_was_learnt(table: MassTable, parts: tuple[Part, ...], corrections: tuple[Correction, ...]) -> MassTable:
    """The table with the last correction on it; the very same where nothing was learnt."""
    if not corrections:
        return table
    last = corrections[-1]
    columns = columns_of(parts)
    named = [each_factor for each_factor in last.groups if columns.get(each_factor.id)]
    where = [k for k, each_factor in enumerate(last.groups) if columns.get(each_factor.id)]
    many = len(last.groups)
    if not named or len(last.cov) != many * many:
        return table
    cov = np.array(last.cov).reshape(many, many)[np.ix_(where, where)]
    mass, sigma = table.mass_kg.copy(), table.sigma_kg.copy()
    taught: list[int] = []
    share = np.zeros((len(named), mass.shape[1]))
    for k, factor in enumerate(named):
        at = columns[factor.id]
        mass[:, at] *= factor.factor
        sigma[:, at] = 0.0  # all of its doubt is in the factors now
        share[k, at] = 1.0 / max(factor.factor, LEAST)
        taught += at
    values, vectors = np.linalg.eigh((cov + cov.T) / 2)
    directions = []
    for value, vector in zip(values, vectors.T, strict=True):
        if value > LEAST:
            shares = (np.sqrt(value) * vector) @ share
            hit = np.flatnonzero(shares)
            directions.append((tuple(int(one) for one in hit), tuple(float(share) for share in shares[hit])))
    known = set(taught)
    bias = tuple((name, tuple(at for at in some if at not in known)) for name, some in table.bias)
    return msgspec.structs.replace(
        table, mass_kg=mass, sigma_kg=sigma, bias=tuple(item for item in bias if item[1]), learnt=tuple(directions)
    )


def stands(seen: Seen, total_kg: float, tongue_kg: float) -> bool:
    """Whether a case still is the one that was weighed: its total within half a per cent, its ball within that of the total."""
    if seen.model_kg <= 0 or abs(total_kg / seen.model_kg - 1) > STANDS:
        return False
    return seen.model_tongue_kg is None or abs(tongue_kg - seen.model_tongue_kg) <= STANDS * seen.model_kg


def measured(table: MassTable, tongue_kg: Floats, parts: tuple[Part, ...], corrections: tuple[Correction, ...]) -> Measured:
    """What of every case was on a scale, and not only computed; a case that was changed since is computed again.

    Args: tongue_kg: on the ball in every case, shape (c,).
    """
    told = {part.id for part in parts if part.source == "weighed"}
    guessed = np.array([id not in told for id in table.ids], dtype=bool)
    all_of = np.asarray(~((table.mass_kg != 0) & guessed).any(axis=1))
    total, ball = all_of.copy(), np.zeros(len(table.cases), dtype=bool)
    rows = {key: row for row, case in enumerate(table.cases) for key in (case.id, *case.same_as)}
    for seen in corrections[-1].seen if corrections else ():
        row = rows.get(seen.case)
        if row is not None and stands(seen, float(table.mass_kg[row].sum()), float(tongue_kg[row])):
            total[row] |= seen.total_kg is not None
            ball[row] |= seen.tongue_kg is not None
    return Measured(all_of, total, ball)
