"""What the glue between the layers of panels weighs that are glued up by oneself; a bought panel's weight has it in its layers."""

from __future__ import annotations

from uncle_sled.core.document.shell import Face, Shell
from uncle_sled.core.framing.sandwich_panels import PANELS

LINE_G_M2 = 250.0


def glued_up(shell: Shell) -> bool:
    """Whether the body's panels are made by its builder."""
    return shell.framing.school == PANELS.name and shell.framing.panels == "own"


def line_kg_m2(shell: Shell) -> float:
    """One line of glue [kg/m2]."""
    said = shell.framing.glue_line_g_m2
    return (said if said is not None else LINE_G_M2) / 1e3


def glue_kg_m2(face: Face, shell: Shell) -> float:
    """All lines of a face [kg/m2]; none where its panel is bought or it is one layer."""
    return line_kg_m2(shell) * max(len(face.layers) - 1, 0) if glued_up(shell) else 0.0
