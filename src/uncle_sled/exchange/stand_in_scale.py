"""A stand-in pad scale on this computer's loopback: readings of a file, one a line, with noise, settling over seconds.

Protocol (docs/scale.md): TCP on 127.0.0.1; the scale sends one reading a line, a number in kilograms with a point and two
digits, ended by a line feed, ten a second; nothing is sent to it. A line of the file is a weight in kg and, after a space,
how many seconds it stays; "fail" hangs up, "rubbish" sends what is no number, "drift" goes on rising.
"""

from __future__ import annotations

import random
import socket
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import msgspec

from uncle_sled.core.errors import FileError

PER_S, NOISE_KG, SETTLE_S, STAYS_S = 10.0, 0.06, 1.2, 8.0
WORDS = ("fail", "rubbish", "drift")


class Load(msgspec.Struct, frozen=True):
    """Something on the scale: a weight [kg] or a word of what goes wrong, and how long [s]."""

    kg: float
    seconds: float
    word: str = ""


def read_loads(path: Path) -> tuple[Load, ...]:
    """Lines of a file. Raises: FileError: with the line and what would be right."""
    try:
        text = path.read_text("utf-8")
    except (OSError, UnicodeDecodeError) as fault:
        raise FileError(f"{path} could not be read: {getattr(fault, 'strerror', None) or fault}.") from None
    made = []
    for number, line in enumerate(text.splitlines(), 1):
        body = line.partition("#")[0].split()
        if not body:
            continue
        try:
            seconds = float(body[1].replace(",", ".")) if len(body) > 1 else STAYS_S
            kg = 0.0 if body[0] in WORDS else float(body[0].replace(",", "."))
        except ValueError:
            raise FileError(
                f"{path.name}, line {number}: “{line.strip()[:60]}” is no load; a weight in kg and seconds, such as 412.5 8, or one of {', '.join(WORDS)} would be right."
            ) from None
        if not (-1e5 < kg < 1e5 and 0 < seconds <= 3600):
            raise FileError(f"{path.name}, line {number}: weights up to 100 t and 0 to 3600 seconds would be right.")
        made.append(Load(kg, seconds, body[0] if body[0] in WORDS else ""))
    if not made:
        raise FileError(f"{path.name} holds no loads; a line such as 412.5 8 would be right.")
    return tuple(made)


def lines(loads: tuple[Load, ...], seed: int = 5) -> Iterator[str | None]:
    """What the scale sends, line by line, ten a second; None where it hangs up."""
    rng = random.Random(seed)
    now = 0.0
    for load in loads:
        begin = now
        for k in range(int(load.seconds * PER_S)):
            t = k / PER_S
            if load.word == "fail":
                yield None
                return
            if load.word == "rubbish":
                yield rng.choice(("----", "E7", "12.4.5", "\x00\x7f", "OVERLOAD", ""))
                continue
            if load.word == "drift":
                now = begin + 1.5 * t
            else:
                now = load.kg + (begin - load.kg) * 2.718281828 ** (-3 * t / SETTLE_S)
            yield f"{now + rng.gauss(0.0, NOISE_KG):.2f}"
        if not load.word:
            now = load.kg


def serve(loads: tuple[Load, ...], port: int, said: Callable[[str], None], pace_s: float = 1.0 / PER_S, once: bool = False) -> None:
    """Serve on loopback until it is stopped. Args: said: told the port. Raises: FileError: where the port is taken."""
    with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as door:
        door.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            door.bind(("127.0.0.1", port))
        except (OSError, OverflowError) as fault:
            raise FileError(
                f"Port {port} cannot be had: {getattr(fault, 'strerror', None) or fault}. Another one, or none for any that is free, would be right."
            ) from None
        door.listen(1)
        said(f"The scale stands at 127.0.0.1, port {door.getsockname()[1]}; Ctrl+C takes it away.")
        while True:
            caller, _ = door.accept()
            with caller:
                try:
                    for line in lines(loads):
                        if line is None:
                            break
                        caller.sendall(f"{line}\n".encode())
                        time.sleep(pace_s)
                except OSError:
                    pass  # whoever listened has gone
            if once:
                return
