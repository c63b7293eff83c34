"""What holds a ridge or valley, as rows: a beam of a size, ties, or collars at a height."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import msgspec

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Ridge, Section
from uncle_sled.core.parts.ridge_sticks import PITCHED
from uncle_sled.desk.kit.form import Row
from uncle_sled.desk.session import Session

USUAL = Section(Length(0.045), Length(0.195))
USUAL_TIE = Section(Length(0.045), Length(0.095))


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

    def tie_side(name: str) -> Callable[[Any], list[Op]]:
        return lambda value: put(tie=msgspec.structs.replace(_now(session.build).tie or USUAL_TIE, **{name: value}))

    def tie_now(name: str) -> Callable[[Any], Any]:
        return lambda build: getattr(_now(build).tie or USUAL_TIE, name)

    def held(value: Any) -> list[Op]:
        ridge = _now(session.build)
        tie = ridge.tie or (USUAL_TIE if value in ("ties", "collars") else None)
        return put(held_by=value, beam=ridge.beam or (USUAL if value == "beam" else None), tie=tie)

    path, beam = "shell.ridge", of("beam")
    return [
        Row(f"{path}.held_by", ops=held),
        Row(
            f"{path}.beam.thick",
            title="Beam thick",
            tip="Of softwood, on edge",
            least=0.01,
            when=beam,
            ops=side("thick"),
            read=lambda b: (_now(b).beam or USUAL).thick,
        ),
        Row(
            f"{path}.beam.deep",
            title="Beam deep",
            tip="Its depth carries",
            least=0.02,
            when=beam,
            ops=side("deep"),
            read=lambda b: (_now(b).beam or USUAL).deep,
        ),
        Row(f"{path}.span", when=beam),
        *(
            Row(
                f"{path}.tie.{name}",
                title=f"Each {name}",
                tip="Of softwood, on edge: it is cut and weighed",
                least=0.005,
                when=of("ties", "collars"),
                ops=tie_side(name),
                read=tie_now(name),
            )
            for name in ("thick", "deep")
        ),
        Row(f"{path}.tie_pitch", when=of("ties", "collars")),
        Row(f"{path}.collar_up", when=of("collars")),
        Row(f"{path}.tie_holds_n", when=of("ties", "collars")),
    ]
