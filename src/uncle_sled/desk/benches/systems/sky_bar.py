"""One button a sky, one of them pressed."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QWidget

from uncle_sled.core.studies.systems.sun import skies
from uncle_sled.core.words import lower_first
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.fields import label


def sky_bar(
    owner: QWidget, before: str, pressed: str, show: Callable[[str], None], in_sentence: bool = False
) -> tuple[QHBoxLayout, dict[str, QPushButton]]:
    """A row that says something and goes on with the skies; and its buttons by the sky's id."""
    bar = QHBoxLayout()
    bar.setSpacing(6)
    bar.addWidget(label(before, "", "pencil"))
    group = QButtonGroup(owner)
    buttons: dict[str, QPushButton] = {}
    for sky in skies():
        name = lower_first(sky.name) if in_sentence else sky.name
        button = act_button(f"{name} sky", "", partial(show, sky.id), down=sky.id == pressed)
        group.addButton(button)
        bar.addWidget(button)
        buttons[sky.id] = button
    bar.addStretch(1)
    return bar, buttons
