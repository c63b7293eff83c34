"""What holds a ridge or valley, as rows: a beam of a size, ties, or collars at a height."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import msgspec

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Ridge, Section
from uncle_sled.core.studies.shell.ridge import PITCHED
from uncle_sled.desk.kit.form import NUMBER, Row
from uncle_sled.desk.session import Session

WAYS: list[tuple[object, str]] = [
    ("", "nobody said"),
    ("beam", "a beam"),
    ("ties", "ties"),
    ("collars", "collars"),
]
USUAL = Section(Length(0.045), Length(0.195))


def is_pitched(build: Build) -> bool:
    return build.shell.form in PITCHED


def _now(build: Any) -> Ridge:
    ridge = build.shell.ridge
    return ridge if ridge is not None else Ridge()


def ridge_rows(session: Session) -> list[Row]:
    """Each row writes the whole record, since there may be none yet."""

    def put(**changes: Any) -> list[Op]:
        return [set_to("shell.ridge", msgspec.to_builtins(msgspec.structs.replace(_now(session.build), **changes)))]

    def of(*ways: str) -> Callable[[Any], bool]:
        return lambda build: _now(build).held_by in ways

    def side(name: str) -> Callable[[Any], list[Op]]:
        return lambda value: put(beam=msgspec.structs.replace(_now(session.build).beam or USUAL, **{name: value}))

    def held(value: Any) -> list[Op]:
        ridge = _now(session.build)
        return put(held_by=value, beam=ridge.beam or (USUAL if value == "beam" else None))

    path = "shell.ridge"
    return [
        Row("Held by", path, WAYS, "A beam on posts or walls, ties at the plates, or collars over them; rafters that only lean on each other push the walls apart", ops=held, read=lambda b: _now(b).held_by),
        Row("Beam thick", path, Length, "Of softwood, on edge", 0.01, False, of("beam"), side("thick"), lambda b: (_now(b).beam or USUAL).thick),
        Row("Beam deep", path, Length, "Its depth carries", 0.02, False, of("beam"), side("deep"), lambda b: (_now(b).beam or USUAL).deep),
        Row("Longest span", path, Length, "Between what carries the beam; empty: the body's length", 0.1, True, of("beam"), lambda v: put(span=v), lambda b: _now(b).span, blank="body length"),
        Row("One every", path, Length, "Empty: 1.2 m", 0.1, True, of("ties", "collars"), lambda v: put(tie_pitch=v), lambda b: _now(b).tie_pitch, blank=Length(1.2)),
        Row("Collar up", path, Length, "Over the plates; the higher, the more it pulls", 0.0, True, of("collars"), lambda v: put(collar_up=v), lambda b: _now(b).collar_up),
        Row("Each holds, N", path, NUMBER, "One with its joints, by its maker or its bolts", when=of("ties", "collars"), ops=lambda v: put(tie_holds_n=v), read=lambda b: _now(b).tie_holds_n),
    ]  # fmt: skip
