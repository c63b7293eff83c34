"""Files that ship inside the package: tables, fonts, demos. Plain reading; importlib.resources alone costs a start 20 ms."""

from __future__ import annotations

from pathlib import Path

_ROOT = Path(__file__).parent


def shipped_folder(name: str) -> Path:
    """Where a shipped folder lies, for what reads its files itself."""
    return _ROOT / name


def shipped(name: str) -> bytes:
    """The bytes of a shipped file. Args: name: its place inside the package, such as ``fonts/widths.json``."""
    return (_ROOT / name).read_bytes()
