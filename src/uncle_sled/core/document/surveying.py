"""What was measured takes the place of what was planned: the ops of one entry in the survey."""

from __future__ import annotations

from typing import Any

import msgspec
from msgspec.structs import replace

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Shell, Survey

WIDTHS = ("width_middle", "width_front", "width_rear")
SAME_M = 0.0005


def survey_ops(shell: Shell, field: str, value: Any) -> list[Op]:
    """Ops that write one field of the survey, and what follows: a measured length or width becomes the body's own.

    What the plan went by before is kept beside it, until it was looked over. A survey that is not there begins.
    """
    now = shell.survey or Survey()
    after = replace(now, **{field: value})
    more: list[Op] = []
    if field == "length" and value is not None:
        after = _planned(after, "planned_length", shell.length, value)
        more = [set_to("shell.length", _plain(value))]
    if field in WIDTHS:
        wide = next((one for name in WIDTHS if (one := getattr(after, name)) is not None), None)
        if wide is not None:
            after = _planned(after, "planned_width", shell.width, wide)
            more = [set_to("shell.width", _plain(wide))]
    return [set_to("shell.survey", _plain(after)), *more]


def _planned(survey: Survey, field: str, was: Length | None, now: Length) -> Survey:
    if was is None or getattr(survey, field) is not None or abs(was.si - now.si) < SAME_M:
        return survey
    return replace(survey, **{field: was})


def _plain(value: object) -> Any:
    return msgspec.to_builtins(value)
