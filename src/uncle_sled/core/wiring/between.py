"""What two ends want of a wire between them: what it carries, and whether it has a fuse of its own."""

from __future__ import annotations

from uncle_sled.core.document.systems import Fused, WireKind
from uncle_sled.core.wiring.network import End

MAINS = ("inlet", "AC board", "RCD", "transfer switch", "AC socket", "inverter", "generator")
GIVES_MAINS = ("inlet", "AC board", "RCD", "transfer switch", "generator")
GUARDED = ("inlet", "RCD", "main switch", "shunt")  # what is behind these is guarded before them


def wire_between(start: End, end: End) -> tuple[WireKind, Fused]:
    """Kind of a wire, and where its fuse is, for two ends of the network; earths and panels have none."""
    kind = _kind(start, end)
    return kind, "none" if kind in ("earth", "panel") or start.kind in GUARDED else "start"


def _kind(start: End, end: End) -> WireKind:
    if "earth stud" in (start.kind, end.kind):
        return "earth"
    if start.kind == "panel":
        return "panel"
    if start.kind in GIVES_MAINS or (start.kind == "inverter" and end.kind in MAINS):
        return "AC"
    return "AC" if end.runs is not None and end.runs.ac else "DC"
