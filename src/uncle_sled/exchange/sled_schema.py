"""The JSON Schema of the .sled file, and the faults of a file by it."""

from __future__ import annotations

import json
from typing import Any

import msgspec

from uncle_sled.core.document.project import FORMAT, VERSION, Project
from uncle_sled.shipped import shipped

MOST_FAULTS = 12


def schema() -> dict[str, Any]:
    """The JSON Schema that is shipped beside this module."""
    made: dict[str, Any] = json.loads(shipped("exchange/sled.schema.json"))
    return made


def make_schema() -> dict[str, Any]:
    """The JSON Schema of this version, made from the models (a test holds the shipped one to it)."""
    made = msgspec.json.schema(Project, ref_template="#/$defs/{name}")
    definitions = made.pop("$defs")
    project = definitions.pop("Project")
    project["properties"].pop("unknown")
    project["properties"] = {"format": {"const": FORMAT}, "version": {"const": VERSION}, **project["properties"]}
    project["required"] = ["format", "version", *project["required"]]
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Uncle Sled build file", **project, "$defs": definitions}


def schema_faults(raw: dict[str, Any]) -> tuple[str, ...]:
    """What a file holds that its schema does not let in, each with its place."""
    from jsonschema import Draft202012Validator  # only a faulty file needs it

    faults = []
    for fault in sorted(Draft202012Validator(schema()).iter_errors(raw), key=lambda f: list(map(str, f.absolute_path))):
        leaf = max(fault.context, key=lambda f: len(f.absolute_path)) if fault.context else fault
        faults.append(f"{_named(raw, list(leaf.absolute_path))}: {_says(leaf)}")
    return tuple(dict.fromkeys(faults))[:MOST_FAULTS] or ("the values could not be matched to the schema",)


def _says(leaf: Any) -> str:
    if leaf.validator == "minItems":
        return "there is none; at least one is needed"
    if leaf.validator == "maxLength":
        return f"{len(leaf.instance)} letters are too many; {leaf.validator_value} at most"
    return str(leaf.message[:160])


def _named(raw: Any, path: list[Any]) -> str:
    words = []
    for step in path:
        raw = raw[step]
        words.append(str(raw["id"]) if isinstance(step, int) and isinstance(raw, dict) and "id" in raw else str(step))
    return ".".join(words) or "the file"
