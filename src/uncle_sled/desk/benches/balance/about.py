"""Balance, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Deed, Shot, View


def standing(_project: Project, s: Studied) -> tuple[str, str]:
    from uncle_sled.core.studies.balance.road_size import every_limit

    if s.support is None:
        return "no reading", "none"
    if s.trouble:
        return "no reading", "none"
    unchecked = every_limit(s).unchecked
    if unchecked:
        return f"{len(unchecked)} not checked", "none"
    return "all in band", "good"


ABOUT = About(
    "Balance",
    "uncle_sled.desk.benches.balance.bench:BalanceBench",
    standing,
    views=(
        View("Axle", "the axle's place", "The ball over the axle's place, drawn", panel="axle_panel:AxlePanel"),
        View("Moves", "what to move", "What to slide or swap so that every case is right", panel="moves_panel:MovesPanel"),
        View("Sure", "how sure", "How far the ball can be trusted, and what to weigh first", panel="sure_panel:SurePanel"),
        View("True", "how true each measure must be", "Which measure must be true, and which need not", panel="true_panel:TruePanel"),
        View("Limits", "the limits", "Every rating with its worst case, the cars side by side", panel="limits_and_driving:LimitsPanel"),
        View(
            "Sway",
            "how fast before it wags",
            "Damping of the swing over the speed, and the swing after a gust",
            panel="sway_panel:SwayPanel",
        ),
        View(
            "Frame",
            "what the frame feels",
            "Moment, stress and sinking of the rails, and which section would do",
            panel="frame_panel:FramePanel",
        ),
        View(
            "Driving",
            "what driving does",
            "What a stop, a grade, a lean, a person on the tail and a tight bend do",
            panel="limits_and_driving:DrivingPanel",
        ),
    ),
    deeds=(Deed("find-moves", "Find moves", "M", lambda bench: bench.find_moves()),),
    mouse=("Drag the axle on its chart while it is not welded; Ctrl: free", "The pointer reads the charts off"),
    shots=(
        Shot("5a-balance-axle", "Axle"),
        Shot("5d-balance-true", "True", demo="ferry-bell"),
        Shot("5b-balance-moves", "Moves", lambda bench: bench.panel("Moves").try_first(), lambda bench: bench.session.put_back()),
    ),
)
