"""Every number of every kind of item, at nothing, at next to nothing and at its most, in builds that the reader takes.

    python -m tests.core.sweep [--only WORD] [--demo NAME]

For each kind of item of a build one that is there is taken, or one is made; all of its numbers are put to one of these values,
and the build is studied, judged and reported. Where that raises, the field is looked for alone. It ends with 1 on a fault.
"""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Iterator
from typing import Any

from msgspec import inspect as kinds

from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.engine import forget
from uncle_sled.core.errors import SledError
from uncle_sled.core.findings import faulted
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.report import report

VALUES = ("nothing", "next to nothing", "most")
FAR = 1e6  # where nothing bounds it above


def plain(kind: Any) -> Any:
    """A type without its notes, and the one that is meant of one or none."""
    while isinstance(kind, kinds.Metadata):
        kind = kind.type
    if isinstance(kind, kinds.UnionType):
        return next((plain(one) for one in kind.types if not isinstance(one, kinds.NoneType)), kind)
    return kind


def worth(kind: Any, value: str) -> Any:
    """A value for a field that holds a number; None for any other."""
    kind = plain(kind)
    if isinstance(kind, kinds.StructType) and issubclass(kind.cls, Quantity):
        si = worth(next(field.type for field in kind.fields if field.name == "si"), value)
        return {"si": si, "typed": None}
    if not isinstance(kind, kinds.FloatType | kinds.IntType):
        return None
    low = kind.ge if kind.ge is not None else kind.gt if kind.gt is not None else 0.0
    high = kind.le if kind.le is not None else kind.lt if kind.lt is not None else FAR
    low = max(low, 0.0)
    number = {"nothing": low, "next to nothing": min(max(low, 1e-9), high), "most": high}[value]
    return int(number) if isinstance(kind, kinds.IntType) else float(number)


def made(kind: Any, deep: int = 0) -> Any:
    """An item of a kind with what it must have, as plain values."""
    kind = plain(kind)
    if isinstance(kind, kinds.StructType):
        if issubclass(kind.cls, Quantity):
            return {"si": 1.0, "typed": None}
        wanted = [field for field in kind.fields if field.required]
        return {field.encode_name: made(field.type, deep + 1) for field in wanted}
    if isinstance(kind, kinds.LiteralType):
        return kind.values[0]
    if isinstance(kind, kinds.StrType):
        return "swept"
    if isinstance(kind, kinds.BoolType):
        return False
    if isinstance(kind, kinds.FloatType | kinds.IntType):
        return worth(kind, "next to nothing") or 1
    return ()


def places(project: Project) -> Iterator[tuple[str, Any, Build]]:
    """One place of every kind of item: its path, its kind, and a build that has it."""
    seen: set[type] = set()

    def walk(kind: Any, path: str, build: Build) -> Iterator[tuple[str, Any, Build]]:
        kind = plain(kind)
        if isinstance(kind, kinds.StructType) and not issubclass(kind.cls, Quantity):
            if kind.cls in seen:
                return
            seen.add(kind.cls)
            yield path, kind, build
            for field in kind.fields:
                inner, at = plain(field.type), f"{path}.{field.name}" if path else field.name
                if isinstance(inner, kinds.VarTupleType):
                    one = plain(inner.item_type)
                    if isinstance(one, kinds.StructType) and not issubclass(one.cls, Quantity):
                        yield from item(one, at, build)
                elif isinstance(inner, kinds.StructType) and not issubclass(inner.cls, Quantity) and inner.cls not in seen:
                    there = with_it(build, at, made(inner))
                    if there is not None:
                        yield from walk(inner, at, there)

    def item(kind: kinds.StructType, at: str, build: Build) -> Iterator[tuple[str, Any, Build]]:
        if kind.cls in seen or not any(field.name == "id" for field in kind.fields):
            return
        held = value_at(build, at)
        if held:
            yield from walk(kind, f"{at}.{held[0].id}", build)
            return
        one = {**made(kind), "id": "swept"}
        there = with_it(build, at, [one])
        if there is not None:
            yield from walk(kind, f"{at}.swept", there)

    yield from walk(kinds.type_info(Build), "", project.build)


def value_at(build: Build, path: str) -> Any:
    node: Any = build
    for name in path.split("."):
        node = next((one for one in node if one.id == name), None) if isinstance(node, tuple) else getattr(node, name)
    return node


def with_it(build: Build, path: str, value: Any) -> Build | None:
    """A build that has something there; as it is where it has it already; None where the reader does not take it."""
    try:
        if value_at(build, path) not in (None, ()):
            return build
        return apply(build, [set_to(path, value)])
    except (SledError, StopIteration, AttributeError):
        return None


def put(build: Build, path: str, kind: kinds.StructType, value: str, only: str = "") -> tuple[Build, list[str]]:
    """All numbers of an item at a value, as far as the reader takes them, and which those are."""
    taken = []
    for field in kind.fields:
        number = worth(field.type, value)
        if number is None or (only and field.name != only):
            continue
        try:
            build = apply(build, [set_to(f"{path}.{field.name}" if path else field.name, number)])
            taken.append(field.name)
        except SledError:
            continue
    return build, taken


def fault_of(project: Project, build: Build) -> str:
    """What goes wrong with a build; "" where it is judged and told."""
    try:
        s = study(build, project.facts)
        told = report(s, findings(s), project.with_build(build))
        json.dumps(told, allow_nan=False)
    except SledError as said:
        return f"judging refuses what reading takes: {said}"
    except Exception as fault:  # whatever it is, it is told with its field
        return f"{type(fault).__name__}: {fault}"
    return ""


def faults_in(project: Project, path: str, kind: kinds.StructType, build: Build) -> list[str]:
    """The fields of one item that something cannot be worked out with, each with its value."""
    found = []
    for value in VALUES:
        whole, taken = put(build, path, kind, value)
        if not taken or not fault_of(project, whole):
            continue
        alone = [name for name in taken if fault_of(project, put(build, path, kind, value, name)[0])]
        for name in alone or ["all of them"]:
            why = fault_of(project, put(build, path, kind, value, name)[0] if alone else whole)
            found.append(f"{path}.{name} at {value}: {why}")
    return found


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--only", default="", help="places that have this word in them")
    asked.add_argument("--demo", default="", choices=["", *DEMOS])
    said = asked.parse_args()
    faulted.STRICT = True
    found, many = [], 0
    for name in [said.demo] if said.demo else DEMOS:
        project = demo(name)
        for path, kind, build in places(project):
            if said.only in path:
                many += 1
                found += [f"{name}: {one}" for one in faults_in(project, path, kind, build)]
                forget()
    print("\n".join([*found, f"{many} kinds of item, {len(found)} faults"]))
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
