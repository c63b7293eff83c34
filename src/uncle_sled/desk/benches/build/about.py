"""Build, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Deed, Shot, View


def standing(project: Project, _s: Studied) -> tuple[str, str]:
    work = project.build.work
    done = sum(1 for change in work.changes if change.done)
    if done:
        return f"{done} done", "good"
    if work.begin or work.deadline or work.log:
        return "planned", "good"
    return "not begun", "none"


VIEW_OF = {"work": "Calendar", "deadline": "Chance", "lift": "Lift", "glue": "Glue", "log": "Log"}


def shows(_s: Studied, id: str) -> str | None:
    return VIEW_OF.get(id)


ABOUT = About(
    "Build",
    "uncle_sled.desk.benches.build.bench:BuildBench",
    standing,
    views=(
        View("Calendar", "the working calendar", "Every task with its bar and its wait; drag a bar", panel="calendar_panel:CalendarPanel"),
        View("Today", "the next three things", "What can be taken up next, and what it needs", panel="plain_panels:TodayPanel"),
        View(
            "Chance",
            "the chance of the date",
            "How likely it is finished by when, and what moves it most",
            panel="plain_panels:ChancePanel",
        ),
        View("Round", "the body in the round", "All pieces on any day of the work, turned by the hand", panel="round_panel:RoundPanel"),
        View("Lift", "lift day", "What is lifted, by what, by whom, and when not", panel="lift_panel:LiftPanel"),
        View(
            "Glue", "glue, resin and coatings", "How much, in which pots, how fast, and when it has cured", panel="plain_panels:GluePanel"
        ),
        View("Checks", "checklists", "What is ticked before it is closed, towed or left", panel="checks_panel:ChecksPanel"),
        View("Log", "the log", "What happened, beside what was planned", panel="log_panel:LogPanel"),
    ),
    deeds=(
        Deed("own-task", "Add a task of my own", "A", lambda bench: bench.add_task()),
        Deed("task-done", "The chosen task is done, or is not", "D", lambda bench: bench.turn_done()),
        Deed("keep-ghost", "Keep what the dragged bar would do", "K", lambda bench: bench.keep()),
        Deed("add-lift", "Plan a lift", "P", lambda bench: bench.add_lift()),
        Deed("write-log", "Write into the log", "W", lambda bench: bench.write_log()),
    ),
    mouse=(
        "Over the bars of Calendar, or on the days of Round: what stands there on that day, and what is on the ball",
        "Round: drag turns it, Shift drags it aside, the wheel brings it nearer; arrows turn, + and − too, Home as at first",
        "Drag a bar: what it would do is dashed; Keep (K), or click elsewhere",
        "Click a bar: its task is in hand beside it",
    ),
    shots=(
        Shot("9-build-calendar", "Calendar"),
        Shot(
            "9b-build-round",
            "Round",
            ready=lambda bench: bench.made["Round"].as_a_picture(),
            after=lambda bench: bench.session.show_day(None),
        ),
    ),
    shows=shows,
)
