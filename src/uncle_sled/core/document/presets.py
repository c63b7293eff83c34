"""The usual silhouettes, front at the left, as shares of length and height."""

from __future__ import annotations

from uncle_sled.core.document.shell import ProfileNode


def _node(u: float, v: float, in_uv: tuple[float, float] | None = None, out_uv: tuple[float, float] | None = None) -> ProfileNode:
    return ProfileNode(u, v, *(in_uv or (u, v)), *(out_uv or (u, v)))


PRESETS: dict[str, tuple[ProfileNode, ...]] = {
    "round nose, straight tail": (
        _node(0.0, 0.0),
        _node(0.0, 0.24, None, (0.0, 0.62)),
        _node(0.38, 1.0, (0.16, 1.0), (0.60, 1.0)),
        _node(0.94, 0.79, (0.79, 0.92)),
        _node(1.0, 0.0),
    ),
    "classic round nose": (
        _node(0.0, 0.0),
        _node(0.0, 0.22, None, (0.0, 0.62)),
        _node(0.36, 1.0, (0.15, 1.0), (0.66, 1.0)),
        _node(1.0, 0.0, (0.94, 0.50)),
    ),
    "long and low": (
        _node(0.0, 0.0),
        _node(0.0, 0.40, None, (0.02, 0.80)),
        _node(0.22, 1.0, (0.10, 1.0), (0.70, 1.0)),
        _node(1.0, 0.62, (0.90, 0.84)),
        _node(1.0, 0.0),
    ),
    "square back": (_node(0.0, 0.0), _node(0.0, 0.35, None, (0.02, 0.80)), _node(0.25, 1.0, (0.10, 1.0)), _node(1.0, 1.0), _node(1.0, 0.0)),
    "wedge": (_node(0.0, 0.0), _node(0.0, 0.55), _node(0.30, 1.0), _node(1.0, 1.0), _node(1.0, 0.0)),
    "square, tail corner off": (_node(0.0, 0.0), _node(0.0, 1.0), _node(1.0, 1.0), _node(1.0, 0.35), _node(0.84, 0.0)),
    "square, both corners off": (_node(0.0, 0.0), _node(0.0, 0.62), _node(0.16, 1.0), _node(1.0, 1.0), _node(1.0, 0.35), _node(0.84, 0.0)),
}
BOX = (_node(0.0, 0.0), _node(0.0, 1.0), _node(1.0, 1.0), _node(1.0, 0.0))
