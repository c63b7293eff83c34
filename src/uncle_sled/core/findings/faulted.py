"""A check that raises is told as a finding of its own: what it judges stands unchecked, and all others go on.

Nothing that can hurt is silent because its check fell: it counts as a stop until it can be judged again.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

from uncle_sled.core.errors import fault_words
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words

Check = Callable[[Studied, Words], Iterable[Finding]]
SOURCE = "how the program itself is made"
STRICT = False  # tests want the fault itself
NOT_WORKED_OUT = Rule(
    "not-worked-out",
    "stop",
    "Brief",
    "A check of the program itself failed",
    "What it judges is not checked now, however it looks.",
    why_none="Undo what changed last, and send the file with this line; nothing of the build is lost.",
)


def checked(check: Check, s: Studied, words: Words) -> Iterator[Finding]:
    """What a check finds; where it raises, what it found before and that it could not be worked out."""
    try:
        yield from check(s, words)
    except Exception as fault:
        if STRICT:
            raise
        name = check.__name__.removesuffix("_findings").replace("_", " ")
        yield NOT_WORKED_OUT.found(f"Could not be worked out: {name}", f"{fault_words(fault)}.", (check.__name__,))
