"""The small family of errors that a user may come to read.

Every message says what was wrong and what would be right. Bad designs are findings (data);
these are for calls that cannot go on.
"""


class SledError(Exception):
    """Root of the family; its text is fit to be shown as it is."""


class EntryError(SledError, ValueError):
    """What was typed cannot be read as a value of the field."""


class GeometryError(SledError, ValueError):
    """A shape or a station that no statics can answer for."""


class EditError(SledError, ValueError):
    """An edit names a place that is not in the build, or a value that does not belong there."""


class FileError(SledError):
    """A file that cannot be read or written; carries every fault with its place in the file."""

    def __init__(self, says: str, faults: tuple[str, ...] = ()) -> None:
        self.says = says
        self.faults = faults
        super().__init__("\n".join([says, *(f"  - {fault}" for fault in faults)]))


MOST_FAULT_LETTERS = 160


def fault_words(fault: Exception) -> str:
    """A fault of the program itself in one line, for who has to send it."""
    return " ".join(f"{type(fault).__name__}: {fault}".split())[:MOST_FAULT_LETTERS]
