"""The JSON Schema of the .sled file, and the faults of a file by it."""

from __future__ import annotations

import json
from typing import Any

import msgspec

from uncle_sled.core.document.bounds import inner_fields
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

    raw = _without_the_sound(raw, Project)
    faults = []
    for fault in sorted(
        Draft202012Validator(schema()).iter_errors(raw), key=lambda f: [(isinstance(step, str), step) for step in f.absolute_path]
    ):
        leaf = max(fault.context, key=lambda f: len(f.absolute_path)) if fault.context else fault
        faults.append(f"{_named(raw, list(leaf.absolute_path))}: {_says(leaf)}")
    return tuple(dict.fromkeys(faults))[:MOST_FAULTS] or ("the values could not be matched to the schema",)


def _without_the_sound(raw: dict[str, Any], kind: Any) -> dict[str, Any]:
    """Less the items of lists that are as they should be: a schema is held against one item in the time of a thousand readings."""
    made = dict(raw)
    for name, what, model in inner_fields(kind):
        value = raw.get(name)
        if what == "model" and isinstance(value, dict):
            made[name] = _without_the_sound(value, model)
        elif what == "list" and isinstance(value, list) and all(isinstance(item, dict) and "id" in item for item in value):
            wrong = [_without_the_sound(item, model) for item in value if not _is_sound(item, model)]
            made[name] = wrong or value[:1]  # an empty list may be a fault of its own
    return made


def _is_sound(item: dict[str, Any], model: Any) -> bool:
    try:
        msgspec.convert(item, model, strict=True)
    except (msgspec.ValidationError, RecursionError):
        return False
    return True


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
