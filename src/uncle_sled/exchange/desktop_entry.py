"""Makes the desktop know the application: its entry, its icon, and the .sled file type."""

from __future__ import annotations

import shutil
import subprocess
import sys
from pathlib import Path

from uncle_sled.core.errors import FileError
from uncle_sled.exchange.places import data_home
from uncle_sled.exchange.whole_file import write_whole
from uncle_sled.shipped import shipped

ENTRY = """[Desktop Entry]
Type=Application
Name=Uncle Sled
GenericName=Trailer and camper body workbench
Comment=Frame it, stow it, and know the weight on the ball
Exec={program} open %f
Icon=uncle-sled
Terminal=false
Categories=Engineering;Science;
MimeType=application/x-uncle-sled;
StartupWMClass=uncle-sled
"""
MIME = """<?xml version="1.0" encoding="UTF-8"?>
<mime-info xmlns="http://www.freedesktop.org/standards/shared-mime-info">
  <mime-type type="application/x-uncle-sled">
    <comment>Uncle Sled build</comment>
    <sub-class-of type="application/json"/>
    <glob pattern="*.sled"/>
  </mime-type>
</mime-info>
"""


def install_desktop(home: Path | None = None) -> list[Path]:
    """Write the entry, icon and MIME type under a data folder; the files written. Raises: FileError."""
    home = home or data_home()
    program = Path(sys.argv[0]).resolve() if Path(sys.argv[0]).name == "uncle-sled" else Path(sys.executable).with_name("uncle-sled")
    word = str(program).replace("\\", "\\\\").replace('"', '\\"').replace("%", "%%")
    icon = shipped("desk/icon.svg")
    files = {
        home / "applications" / "uncle-sled.desktop": ENTRY.format(program=f'"{word}"').encode(),
        home / "icons" / "hicolor" / "scalable" / "apps" / "uncle-sled.svg": icon,
        home / "icons" / "hicolor" / "scalable" / "mimetypes" / "application-x-uncle-sled.svg": icon,
        home / "mime" / "packages" / "uncle-sled.xml": MIME.encode(),
    }
    for path, data in files.items():
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            write_whole(path, data)
        except OSError as fault:
            raise FileError(f"{path} could not be written: {fault.strerror or fault}.") from None
    for tool, folder in (("update-desktop-database", home / "applications"), ("update-mime-database", home / "mime")):
        if shutil.which(tool):
            subprocess.run([tool, str(folder)], check=False, capture_output=True)
    return list(files)
