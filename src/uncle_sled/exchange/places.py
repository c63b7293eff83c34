"""Where the application keeps its own files, by the XDG rules."""

from __future__ import annotations

import os
from pathlib import Path

APP = "uncle-sled"


def this_host() -> str:
    """The name of this computer, as locks and autosaves keep it."""
    return os.uname().nodename


def config_folder() -> Path:
    import platformdirs  # only who reads or writes there waits for it

    return Path(platformdirs.user_config_dir(APP))


def recovery_folder() -> Path:
    import platformdirs  # only who reads or writes there waits for it

    return Path(platformdirs.user_state_dir(APP)) / "recovery"


def cache_folder() -> Path:
    import platformdirs  # only who reads or writes there waits for it

    return Path(platformdirs.user_cache_dir(APP))


def traces_folder() -> Path:
    import platformdirs  # only who reads or writes there waits for it

    return Path(platformdirs.user_state_dir(APP)) / "traces"


def data_home() -> Path:
    """Where the desktop looks for applications, icons and MIME types of this user."""
    import platformdirs  # only who reads or writes there waits for it

    return Path(platformdirs.user_data_dir(APP)).parent
