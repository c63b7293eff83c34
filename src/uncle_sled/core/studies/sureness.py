"""Which few masses own the doubt on the ball? Weighing those first narrows it most."""

from __future__ import annotations

import numpy as np

from uncle_sled.core.studies.balance import doubt_shares
from uncle_sled.core.studies.reading import Studied


def weigh_first(s: Studied, row: int, most: int) -> list[tuple[str, str, float]]:
    """Ids, names and shares of the masses that own the ball's doubt in one case, largest first."""
    shares = doubt_shares(s.table, row, float(s.readings.effective_axle_m[row]))
    order = [int(at) for at in np.argsort(-shares)[:most] if shares[at] > 0.01]
    return [(s.table.ids[at].split("/")[0], s.table.names[at], float(shares[at])) for at in order]
