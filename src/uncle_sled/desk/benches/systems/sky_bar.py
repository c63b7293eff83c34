"""One button a sky, one of them pressed."""

from __future__ import annotations

from collections.abc import Callable

from uncle_sled.core.studies.systems.sun import skies
from uncle_sled.core.words import lower_first
from uncle_sled.desk.kit.panel import Group, tools
from uncle_sled.desk.kit.parts import Says, one_of


def sky_bar(before: str, reads: Callable[[], str], takes: Callable[[str], None], in_sentence: bool = False) -> Group:
    """A row that says something and goes on with the skies, by their ids."""
    named = [(sky.id, f"{lower_first(sky.name) if in_sentence else sky.name} sky", "") for sky in skies()]
    return tools(Says(before, "pencil"), *one_of(named, reads, takes))
