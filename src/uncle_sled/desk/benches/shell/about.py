"""Shell, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Deed, Shot, View


def standing(project: Project, s: Studied) -> tuple[str, str]:
    from uncle_sled.core.studies.shell.screening import screening

    shell = project.build.shell
    if shell.form == "none":
        return "not begun", "none"
    checks = screening(s)
    known = [check for check in checks if check.use is not None]
    over = [check for check in known if (check.use or 0.0) > 1]
    if over:
        return f"{len(over)} over on Holds", "none"
    if len(known) < len(checks):
        return f"{len(known)} of {len(checks)} checked", "none"
    school = shell.framing.school.replace("cut plywood sides", "plywood sides")
    if school != "none":
        return school, "good"
    return "drawn" if shell.form == "profile" else shell.form, "good"


def _an_opening(build: Build, _s: Studied) -> tuple[str, ...]:
    doors = [o.id for o in build.shell.openings if o.kind == "door"]
    return tuple((doors or [o.id for o in build.shell.openings])[:1])


def _a_stick(_build: Build, s: Studied) -> tuple[str, ...]:
    uprights = [m.id for m in s.framed.members if m.face == "left side" and not m.along_s]
    return tuple(uprights[1:2] or [m.id for m in s.framed.members][:1])


def _a_wall(build: Build, _s: Studied) -> tuple[str, ...]:
    return tuple([inner.id for inner in build.shell.inner][:1])


def shows(s: Studied, id: str) -> str | None:
    shell = s.build.shell
    if any(opening.id == id for opening in shell.openings):
        return "Openings"
    if any(face.id == id for face in shell.faces):
        return "Faces"
    if any(inner.id == id for inner in shell.inner):
        return "Walls"
    if "/" in id and any(member.id == id for member in s.framed.members):
        return "Framing"
    return {"shell": "Profile", "survey": "Survey", "reline": "Reline", "holds": "Holds", "seams": "Joints", "rising": "Roof up"}.get(id)


ABOUT = About(
    "Shell",
    "uncle_sled.desk.benches.shell.bench:ShellBench",
    standing,
    views=(
        View("Profile", "profile", panel="profile_panel:ProfilePanel"),
        View("Openings", "openings", picks=_an_opening, panel="openings_panel:OpeningsPanel"),
        View("Framing", "framing", picks=_a_stick, panel="framing_panel:FramingPanel"),
        View("Faces", "faces", panel="faces_panel:FacesPanel"),
        View(
            "Holds",
            "does it hold",
            "Snow, somebody on the roof, floors, wind: how near each is to its limit",
            panel="holds_panel:HoldsPanel",
        ),
        View(
            "Joints",
            "joints of the faces",
            "Seams and how they are kept dry, sections built apart, panels",
            panel="joints_panel:JointsPanel",
        ),
        View("Walls", "walls and lofts inside", "Walls across and along, doors, lofts", picks=_a_wall, panel="walls_panel:WallsPanel"),
        View(
            "Roof up",
            "a roof that goes up",
            "Where one camps: head room, cloth, what lifts it, what holds it",
            panel="rising_panel:RisingPanel",
        ),
        View("Survey", "the survey", "What a tape says of a bought shell: square, flat, posts, state", panel="survey_panel:SurveyPanel"),
        View(
            "Reline", "stripping and relining", "What other lining does to ball, room, warmth and purse", panel="reline_panel:RelinePanel"
        ),
    ),
    deeds=(
        Deed("cut-in", "Cut in an opening", "C", lambda bench: bench.cut_menu()),
        Deed("close-up", "Close up the chosen opening", "Shift+Delete", lambda bench: bench.close_up()),
        Deed("add-point", "Add a point to the profile", "P", lambda bench: bench.sheet.add_point()),
    ),
    mouse=(
        "Drag a blue diamond of the profile, or its handles; Shift breaks them, Ctrl: free",
        "Drag an opening: it snaps; type a number: exact",
        "Arrows nudge what is chosen, Shift ten times",
    ),
    shots=(Shot("3-shell", "Profile"),),
    drawn=True,
    shows=shows,
)
