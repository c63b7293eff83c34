"""Does the body hold? Every check by its worst place: value, limit, and how it came; what cannot be said is not checked.

Screening only: local code and a licensed engineer decide. Spans are those of the drawn members, loads those of the brief;
skins help no stick. Source: shell notes (strength.py), the figures named with each check.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.engine import keep
from uncle_sled.core.parts.rising import up_in
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.check import Check
from uncle_sled.core.studies.shell.floors_hold import floor_checks, loft_checks
from uncle_sled.core.studies.shell.openings_hold import header_checks
from uncle_sled.core.studies.shell.roof_holds import roof_checks
from uncle_sled.core.studies.shell.roof_loads import on_the_roof
from uncle_sled.core.studies.shell.walls_hold import racking_checks
from uncle_sled.core.studies.shell.what_carries import heated, standing_kg
from uncle_sled.core.studies.shell.wind_holds import held_down_checks, risen_checks, wind_checks
from uncle_sled.core.words import Words


def _aboard(s: Studied) -> tuple[object, ...]:
    """What of all that is aboard any check reads: whether it is warm, what stands on the frame, what lies on the roof."""
    return _stands_with_roof_up(s), heated(s), standing_kg(s, heaviest=True), standing_kg(s, heaviest=False), *on_the_roof(s)


def _stands_with_roof_up(s: Studied) -> bool:
    return any(up_in(s.build.shell, mode) for mode in s.build.stow.modes)


@keep(*("s.build.shell", "s.build.rig", "s.build.brief", "s.facts.materials", "s.facts.people", "s.framed"), _aboard, most=4)
def screening(s: Studied) -> tuple[Check, ...]:
    """All checks of a body, the nearest to its limit first, then those that could not be made; none without a body."""
    if s.framed.body is None or s.framed.body.width <= 0:
        return ()
    made = [
        *roof_checks(s),
        *header_checks(s),
        *floor_checks(s),
        *loft_checks(s),
        *racking_checks(s),
        *wind_checks(s),
        *risen_checks(s),
        *held_down_checks(s),
    ]
    words = Words(s.build.brief.reading.shown())
    made = [
        msgspec.structs.replace(check, how=words.told(check.how), why=words.told(check.why), source=words.told(check.source))
        for check in made
    ]
    known = sorted((check for check in made if check.use is not None), key=lambda check: -(check.use or 0.0))
    return (*known, *(check for check in made if check.use is None))
