"""Where the application keeps its own files, by the XDG rules."""

from __future__ import annotations

from pathlib import Path

import platformdirs

APP = "uncle-sled"


def config_folder() -> Path:
    return Path(platformdirs.user_config_dir(APP))


def recovery_folder() -> Path:
    return Path(platformdirs.user_state_dir(APP)) / "recovery"


def data_home() -> Path:
    """Where the desktop looks for applications, icons and MIME types of this user."""
    return Path(platformdirs.user_data_dir(APP)).parent
