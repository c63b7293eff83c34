"""A body of 3,000 pieces turned by the hand: pictures a second in the window, and the reading of any day after the first.

The demo house four times side by side. Run: .venv/bin/python -m benchmarks.turning [pieces]
"""

from __future__ import annotations

import sys
import time

import msgspec
import numpy as np

from uncle_sled.core.drawing.build.round_look import RoundLook, shown_of, tones_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.round.round_piece import RoundPiece
from uncle_sled.core.round.round_pieces import round_pieces
from uncle_sled.core.round.seen import scene_of
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.studies.build.standing import on_day
from uncle_sled.desk.app import application, open_window
from uncle_sled.desk.kit.round_view import RoundView, Shown
from uncle_sled.exchange.demos import demo

APART_M = 9.0


def many_pieces(least: int) -> tuple[RoundPiece, ...]:
    """The pieces of the house as often as it takes, each house beside the last."""
    project = demo("orchard-keeper")
    one = round_pieces(project.build, project.facts)
    made: list[RoundPiece] = []
    while len(made) < least:
        aside = np.array([0.0, APART_M * (len(made) // len(one)), 0.0])
        made += [
            msgspec.structs.replace(piece, mesh=msgspec.structs.replace(piece.mesh, points=piece.mesh.points + aside)) for piece in one
        ]
    return tuple(made[:least])


def turned(least: int = 3000, frames: int = 60) -> tuple[float, float, int]:
    """Median and 95th percentile of a picture while it turns [ms], and how coarse it is drawn then [pixels]."""
    app = application()
    project = demo("orchard-keeper")
    window = open_window(project)
    pieces = many_pieces(least)
    shown = Shown(
        scene_of(pieces),
        shown_of(pieces, RoundLook()),
        None,
        lambda theme: tones_of(pieces, RoundLook(), (), theme),
        lambda number: pieces[number].id,
        "",
    )
    view = RoundView(window.session, "many pieces", lambda: shown)
    view.resize(820, 560)
    view.show()
    view.renew()
    for _ in range(8):
        view.turn(3.0, 0.0)
    took = []
    for _ in range(frames):
        begun = time.perf_counter()
        view.turn(4.0, 0.0)
        view.repaint()
        app.processEvents()
        took.append((time.perf_counter() - begun) * 1e3)
    return float(np.median(took)), float(np.percentile(took, 95)), view.coarse


def day_ms() -> float:
    """The reading of a day after the first one was asked for, mean over many [ms]."""
    project = demo("orchard-keeper")
    s = study(project.build, project.facts)
    schedule = schedule_of(s.build, s.facts)
    on_day(s, schedule, 10.0)
    begun = time.perf_counter()
    for day in range(200):
        on_day(s, schedule, float(day))
    return (time.perf_counter() - begun) / 200 * 1e3


def main() -> None:
    least = int(sys.argv[1]) if len(sys.argv) > 1 else 3000
    median, p95, coarse = turned(least)
    print(
        f"{least} pieces: a picture {median:.1f} ms, 95 % within {p95:.1f} ms ({1000 / median:.0f} a second), {coarse} pixels a side while it turns"
    )
    print(f"any day's reading after the first: {day_ms():.2f} ms")


if __name__ == "__main__":
    main()
