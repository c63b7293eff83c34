"""Settings as declared data: the dialog, the help and the storage read this one table."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import msgspec

from uncle_sled.core.errors import FileError
from uncle_sled.exchange.places import config_folder
from uncle_sled.exchange.whole_file import write_whole


class Setting(msgspec.Struct, frozen=True):
    """One setting: its key, title, what it may be, what it is at first, and what it does."""

    key: str
    title: str
    choices: tuple[tuple[str, str], ...]
    default: str
    tip: str


SETTINGS = (
    Setting("theme", "Light", (("light", "by day"), ("dark", "night shop")), "light", "The colours of the window"),
    Setting(
        "text_size",
        "Text size",
        (("1", "as made"), ("1.15", "a little larger"), ("1.3", "larger"), ("1.5", "half as large again"), ("2", "twice as large")),
        "1",
        "Everything larger, from the next start on; as far as the screen has room",
    ),
    Setting(
        "region",
        "Practice of a new build",
        (("European", "European"), ("North American", "North American"), ("Australian/New Zealand", "Australian, NZ")),
        "European",
        "Where a new build is towed",
    ),
    Setting(
        "length",
        "Lengths of a new build",
        (("mm", "millimetres"), ("m", "metres"), ("ft-in", "feet and inches"), ("in", "inches")),
        "mm",
        "The build's own units are on its Brief",
    ),
    Setting(
        "walk",
        "A first walk",
        (("ask", "at the next new build"), ("done", "only when asked for")),
        "ask",
        "Six cards that show what stands where",
    ),
    Setting("mass", "Weights of a new build", (("kg", "kilograms"), ("lb", "pounds")), "kg", ""),
    Setting("volume", "Volumes of a new build", (("L", "litres"), ("gal", "gallons (US)")), "L", ""),
)
MOST_RECENT = 10


class Settings:
    """What was set, the recent files and the changed keys; read once, written whole."""

    def __init__(self, path: Path | None = None) -> None:
        self.path = path or config_folder() / "settings.json"
        self.values: dict[str, str] = {}
        self.recent: list[str] = []
        self.keys: dict[str, str] = {}
        self.trouble = ""
        self._read()

    def _read(self) -> None:
        try:
            raw = json.loads(self.path.read_text(encoding="utf-8"))
        except FileNotFoundError:
            return
        except (OSError, ValueError):
            self.trouble = f"{self.path} could not be read; the settings begin anew, the file is left until you change one."
            return
        if not isinstance(raw, dict):
            return
        known = {s.key: {value for value, _ in s.choices} for s in SETTINGS}
        self.values = {k: v for k, v in _texts(raw.get("values")).items() if v in known.get(k, set())}
        self.recent = [path for path in raw.get("recent", []) if isinstance(path, str)][:MOST_RECENT]
        self.keys = _texts(raw.get("keys"))

    def get(self, key: str) -> str:
        return self.values.get(key, next(s.default for s in SETTINGS if s.key == key))

    def set(self, key: str, value: str) -> None:
        """Raises: FileError: where it cannot be kept."""
        self.values[key] = value
        self._write()

    def set_key(self, act: str, key: str) -> None:
        self.keys[act] = key
        self._write()

    def opened(self, path: Path) -> None:
        """Remember a file as the newest of the recent ones."""
        word = str(path.absolute())
        self.recent = [word, *(old for old in self.recent if old != word)][:MOST_RECENT]
        self._write()

    def _write(self) -> None:
        try:
            self.path.parent.mkdir(parents=True, exist_ok=True)
            data = {"values": self.values, "recent": self.recent, "keys": self.keys}
            write_whole(self.path, json.dumps(data, indent=1, ensure_ascii=False).encode())
        except OSError as fault:
            raise FileError(f"The settings could not be kept in {self.path.parent}: {fault.strerror or fault}.") from None


def _texts(raw: Any) -> dict[str, str]:
    return {k: v for k, v in raw.items() if isinstance(k, str) and isinstance(v, str)} if isinstance(raw, dict) else {}
