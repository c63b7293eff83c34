"""Files that lie beside the build's file and are named in it, never put inside: photos, pictures to be traced."""

from __future__ import annotations

import re

MOST_BYTES = 20_000_000
PHOTO = re.compile(r"(?i)\.(jpe?g|png|webp|heic|gif)$")
SKETCH = re.compile(r"(?i)\.(jpe?g|png|bmp|svg|dxf)$")


def beside_fault(path: str, endings: re.Pattern[str], right: str, what: str) -> str | None:
    """Why such a path cannot be kept: it must be relative, must not climb out of the file's folder, and end as it should.

    Args: right: a path that would be right; what: what its name must say, in words.
    """
    if not path:
        return None
    if path.startswith(("/", "\\", "~")) or re.match(r"[A-Za-z]:", path) or "://" in path:
        return f"“{path[:60]}” is not beside the file; a path such as {right} would be right."
    if ".." in re.split(r"[/\\]", path):
        return f"“{path[:60]}” climbs out of the file's folder; a path such as {right} would be right."
    if not endings.search(path):
        return f"“{path[:60]}” {what} would be right."
    return None


def sketch_fault(path: str) -> str | None:
    """The same of a picture that lies under the profile."""
    return beside_fault(path, SKETCH, "sketches/side.jpg", "is no picture; a name that ends in jpg, png, svg or dxf")
