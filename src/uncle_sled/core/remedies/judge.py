"""Whether an edit settles what it is for and spoils nothing else: the whole build after it, judged like any other."""

from __future__ import annotations

from uncle_sled.core.findings.all_findings import findings, judged
from uncle_sled.core.findings.balance.ball import LEAN_SHARE
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.remedies.linear_moves import state
from uncle_sled.core.remedies.spans import spans_of

ROUND_KG_M = 0.02  # stations are rounded to a tenth of a millimetre
# told beside every offer by the chance in its case; and a ticket of how it stood before says nothing of how it stands after
UNSURE = {"ball-unsure", "ticket-odd"}
WEIGHT_ONLY = ("gross", "towed", "train", "chains")  # limits that no move can better


class Judge:
    """Judges builds that were made of one by moving things."""

    def __init__(self, s: Studied) -> None:
        self.before = {finding.key for finding in findings(s) if finding.severity != "note"}
        self.lean = float(state(s).lean.max(initial=0.0))

    def leans_more(self, after: Studied) -> bool:
        """Whether it leans more than before and more than is allowed."""
        return float(state(after).lean.max(initial=0.0)) > max(LEAN_SHARE, self.lean) + 1e-6

    def spoiled(self, after: Studied) -> Finding | None:
        """The first thing to mind or to stop at that was not there before; None where nothing is."""
        new = (finding for finding in judged(after, "ball-light") if finding.severity != "note" and finding.key not in self.before)
        return next((finding for finding in new if finding.code not in UNSURE), None)

    def settled(self, after: Studied) -> bool:
        """Whether every case is within its limits."""
        low, high = spans_of(after)
        lean = float(state(after).lean.max(initial=0.0))
        in_band = bool(((low <= ROUND_KG_M) & (high >= -ROUND_KG_M)).all()) and lean <= LEAN_SHARE + 1e-6
        over = (limit for limit in after.limits if limit.severity == "stop")
        return in_band and not any(limit.id.split("/")[0] not in WEIGHT_ONLY for limit in over)
