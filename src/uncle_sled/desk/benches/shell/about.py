"""Shell, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Deed, Export, Shot, View


def standing(project: Project, s: Studied) -> tuple[str, str]:
    shell = project.build.shell
    if shell.form == "none":
        return "not begun", "none"
    school = shell.framing.school.replace("cut plywood sides", "plywood sides")
    if school != "none":
        return school, "good"
    return "drawn" if shell.form == "profile" else shell.form, "good"


def _an_opening(build: Build, s: Studied) -> tuple[str, ...]:
    doors = [o.id for o in build.shell.openings if o.kind == "door"]
    return tuple((doors or [o.id for o in build.shell.openings])[:1])


def _a_stick(build: Build, s: Studied) -> tuple[str, ...]:
    uprights = [m.id for m in s.framed.members if m.face == "left side" and not m.along_s]
    return tuple(uprights[1:2] or [m.id for m in s.framed.members][:1])


ABOUT = About(
    "Shell",
    "uncle_sled.desk.benches.shell.bench:ShellBench",
    standing,
    views=(
        View("Profile", "profile"),
        View("Openings", "openings", picks=_an_opening),
        View("Framing", "framing", picks=_a_stick),
        View("Faces", "faces"),
    ),
    deeds=(
        Deed("cut-in", "Cut in an opening", "C", lambda bench: bench.cut_menu()),
        Deed("close-up", "Close up the chosen opening", "Shift+Delete", lambda bench: bench.close_up()),
        Deed("add-point", "Add a point to the profile", "P", lambda bench: bench.sheet.add_point()),
    ),
    exports=(
        Export("framing-pdf", "Framing drawings as PDF…", "framing-pdf"),
        Export("framing-svg", "Framing drawings as SVG…", "framing-svg"),
        Export("dxf", "Faces laid flat as DXF…", "dxf"),
    ),
    mouse=(
        "Drag a blue diamond of the profile, or its handles; Shift breaks them, Ctrl: free",
        "Drag an opening: it snaps; type a number: exact",
        "Arrows nudge what is chosen, Shift ten times",
    ),
    shots=(
        Shot("3-shell", "Profile"),
        Shot("3b-shell-openings", "Openings"),
        Shot("3c-shell-framing", "Framing"),
        Shot("3d-shell-faces", "Faces"),
    ),
    drawn=True,
)
