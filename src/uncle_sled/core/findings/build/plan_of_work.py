"""Judged of the plan of work; silent until somebody has begun to plan."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, add_to, remove, set_to
from uncle_sled.core.document.work import Work
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.brought import brought
from uncle_sled.core.studies.build.chance import chance_of
from uncle_sled.core.studies.build.days import days_of, parsed
from uncle_sled.core.studies.build.gluing import CAUTION as GLUE_CAUTION
from uncle_sled.core.studies.build.gluing import beads_of
from uncle_sled.core.studies.build.lifting import lifts_of
from uncle_sled.core.studies.build.log import photo_fault
from uncle_sled.core.studies.build.order import sprung
from uncle_sled.core.studies.build.panel_press import CAUTION as PRESS_CAUTION
from uncle_sled.core.studies.build.panel_press import VACUUM_KPA, panels_pressed, vacuum_is_enough
from uncle_sled.core.studies.build.schedule import Placed, Schedule, late_costs_d, schedule_of
from uncle_sled.core.studies.build.tasks import shipped_tasks, tasks_of
from uncle_sled.core.studies.build.what_it_is import START, bringers
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.words import Words, lower_first, upper_first

SOURCE = "the order of the work, and what waits for what"  # of every rule here, said after its reason

LEAST_KG = 0.5  # that a task which is left out would have brought
LATE_DAYS = 10.0  # that something keeps a task waiting
DRAWS = 1000  # of the judging: the bench draws five thousand


def _wait(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """Let the later task wait for the earlier one."""
    before, after = finding.where[1], finding.where[2]
    tasks = {task.id: task for task in tasks_of(s.build, s.facts)}
    if before not in tasks or after not in tasks:
        return None
    waits = [*tasks[after].after, before]
    known = any(change.id == after for change in s.build.work.changes)
    op = set_to(f"work.changes.{after}.after", waits) if known else add_to("work.changes", {"id": after, "after": waits})
    return (op,), f"Let {lower_first(tasks[after].name)} wait for {lower_first(tasks[before].name)}"


def _slower(s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """An adhesive that stays open as long as the slowest piece takes."""
    beads = beads_of(s.build.work.glue, take_off(s.build, s.facts), library_of(s.facts.materials), 20.0)
    if not beads:
        return None
    wanted = float(int(beads[0].takes_min / 5) * 5 + 5)
    return (set_to("work.glue.bead_open_min", wanted),), f"Take an adhesive that stays open for {wanted:.0f} min"


def _take_in(_s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """The task that was left out, done here after all."""
    return (set_to(f"work.changes.{finding.where[1]}.off", value=False),), "Take the task in again"


def _usual(_s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """What was said of a part that comes with no task."""
    return (remove(f"work.brings.{finding.where[1]}"),), "Let its usual task bring it"


LEFT_OUT = Rule(
    "left-out-brings",
    "mind",
    "Build",
    "A task that is left out though it brings weight",
    "What nobody brings counts as there from the first day, and the half-built trailer weighs wrong.",
    helps="edit",
    cure=_take_in,
)
BROUGHT_BY_NONE = Rule(
    "brought-by-none",
    "mind",
    "Build",
    "A part that was said to come with a task that is not there",
    "Its usual task brings it instead, on another day.",
    helps="edit",
    cure=_usual,
)
ORDER_TRAP = Rule("order-trap", "mind", "Build", "Two tasks in an order that spoils work", "Work is done twice.", helps="edit", cure=_wait)
TASK_LOOP = Rule(
    "task-loop",
    "stop",
    "Build",
    "Tasks that wait for each other in a ring",
    "None of them can ever begin.",
    why_none="Take one of the waits out on Calendar.",
)
NEVER = Rule(
    "task-never",
    "mind",
    "Build",
    "A task for which no day is found",
    "What follows it waits for ever.",
    why_none="More hands, other days, or a warmer shop; on Calendar.",
)
LATE = Rule(
    "late-on-path",
    "mind",
    "Build",
    "Something late that moves the end",
    "Every day that it is late the finish is late.",
    why_none="Order it now, or take what it holds up out of its way: what can be prebuilt is listed on Today.",
)
CRANE = Rule(
    "booked-too-early",
    "mind",
    "Build",
    "Something booked before what it needs is there",
    "A crane that stands is paid, and comes again.",
    why_none="Book it later, or hurry what it waits for.",
)
CHANCE = Rule(
    "deadline-unlikely",
    "mind",
    "Build",
    "A chance under half of the deadline",
    "People are late by weeks, and always together.",
    why_none="Leave something for later, find hands, or move the date.",
)
LIFT = Rule(
    "lift-over-limit",
    "stop",
    "Build",
    "A lift over one of its limits",
    "What falls kills.",
    "A qualified lifter decides.",
    why_none="Longer legs, a spreader, more hands, less wind: change it on Lift.",
)
SLING = Rule(
    "lift-unchecked",
    "mind",
    "Build",
    "A lift whose sling, hoist or machine nobody rated",
    "What is not marked is not lifted with.",
    "A qualified lifter decides.",
    why_none="Type what stands on its mark or plate, on Lift.",
)
BOND = Rule(
    "bond-too-slow",
    "mind",
    "Build",
    "A bonded piece that takes longer than its adhesive stays open",
    "A skin on the bead does not hold.",
    GLUE_CAUTION,
    helps="edit",
    cure=_slower,
)
PRESS = Rule(
    "panel-glue-slow",
    "mind",
    "Build",
    "A panel whose glue skins before the press is shut",
    "What has skinned does not bond, and a panel comes apart from inside.",
    PRESS_CAUTION,
    why_none="More hands, a slower glue, or a panel in parts (Glue).",
)
PRESS_WEAK = Rule(
    "panel-press-weak",
    "mind",
    "Build",
    "A press that does not press as hard as the glue's papers want",
    "A thin bond line is what holds; where it is not pressed it is foam and air.",
    PRESS_CAUTION,
    why_none="Another glue, or weights as well as the bag.",
)
PHOTO = Rule(
    "photo-outside",
    "note",
    "Build",
    "A photo that is not beside the file",
    "It is gone when the file moves.",
    why_none="Put it beside the file and write its path from there.",
)


def _else_from(schedule: Schedule, placed: Placed) -> float:
    """The day from which a task could have begun if what it waits for were there."""
    free = [other.free for other in schedule.placed if other.task.id in placed.task.after]
    return max([float(schedule.now), *free])


def begun(s: Studied) -> bool:
    """Whether anybody has planned the work at all."""
    return s.build.work != Work()


def build_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Can the work be done in this order, in these days, with these hands? Silent until somebody plans."""
    if not begun(s):
        return
    tasks = tasks_of(s.build, s.facts)
    names = {task.id: task.name for task in tasks}
    schedule = schedule_of(s.build, s.facts)
    if schedule.loop:
        ring = " waits for ".join(names.get(id, id) for id in schedule.loop)
        yield TASK_LOOP.found("Tasks wait for each other", f"{ring}.", ("work", *schedule.loop[:-1]))
    for trap in sprung(tasks):
        yield ORDER_TRAP.found(
            f"{names[trap.after]} before {lower_first(names[trap.before])}",
            f"Nothing keeps {lower_first(names[trap.after])} until {lower_first(names[trap.before])} is done.",
            ("work", trap.before, trap.after),
            why=trap.why,
        )
    yield from _brings_findings(s, words, names)
    own = [one for one in schedule.never if not one[1].startswith("it waits for")]
    if own:
        id, why = own[0]
        more = f" {len(schedule.never) - 1} more wait with it." if len(schedule.never) > 1 else ""
        yield NEVER.found(f"{names[id]}: no day is found", f"{why[:1].upper()}{why[1:]}.{more}", ("work", id))
    for placed in schedule.placed:
        task = placed.task
        if task.fixed and not task.done:
            late = [other for other in schedule.placed if other.task.id in task.after and other.free > placed.begin + 0.01]
            if late:
                worst = max(late, key=lambda other: other.free)
                days = int(worst.free - placed.begin) + 1
                yield CRANE.found(
                    f"{task.name} is booked too early",
                    f"It is on {task.ready}; {lower_first(worst.task.name)} is ready {days} days after that.",
                    ("work", task.id),
                    number=float(days),
                )
        elif task.because and placed.why == task.because and not task.done and placed.begin - _else_from(schedule, placed) >= LATE_DAYS:
            costs = late_costs_d(s.build, s.facts, task.id)
            if costs >= 1.0:
                yield LATE.found(
                    f"{task.name} waits",
                    f"{upper_first(task.because)}, {task.ready}; were it there, all of it would be done {costs:.0f} days sooner.",
                    ("work", task.id),
                    number=costs,
                )
    if parsed(s.build.work.deadline) is not None and not schedule.never and not schedule.loop:
        chance = chance_of(schedule, days_of(s.build), s.build.work.deadline, DRAWS)
        if chance is not None and chance.by is not None and chance.by < 0.5:
            yield CHANCE.found(
                "The deadline is unlikely",
                f"{chance.by * 100:.0f} % by {s.build.work.deadline}; half by {chance.p50.isoformat()}, four of five by {chance.p80.isoformat()}.",
                ("work", "deadline"),
                number=0.5 - chance.by,
            )
    for lift in lifts_of(s):
        if lift.refusals and not lift.lift.done:
            yield LIFT.found(
                f"{upper_first(lift.name)}: not like this", f"{lift.refusals[0][:1].upper()}{lift.refusals[0][1:]}.", ("lift", lift.lift.id)
            )
        for unknown in (said for said in lift.said if said.verdict == "not checked" and not lift.lift.done):
            if unknown.unit == "kg":
                yield SLING.found(
                    f"{upper_first(lift.name)}: what the machine lifts",
                    f"{words.kg(unknown.value)} hang on its hook with the slings; nobody said which machine, or how far it reaches.",
                    ("lift", lift.lift.id, "machine"),
                    number=unknown.value,
                )
                continue
            yield SLING.found(
                f"{upper_first(lift.name)}: what the sling holds",
                f"{words.fine_newtons(unknown.value)} hang on one; nobody said what sling, shackle or hoist is marked for.",
                ("lift", lift.lift.id, "sling"),
                number=unknown.value,
            )
    slow = [bead for bead in beads_of(s.build.work.glue, take_off(s.build, s.facts), library_of(s.facts.materials), 20.0) if bead.too_slow]
    if slow:
        yield BOND.found(
            f"{slow[0].name}: bonded too slowly",
            f"{slow[0].takes_min:.0f} min to set {slow[0].rivets} rivets on {words.m(slow[0].bead_m)}; it stays open {slow[0].open_min:.0f} min. {len(slow)} such.",
            ("glue", "open"),
            number=slow[0].takes_min - slow[0].open_min,
        )
    yield from _press_findings(s)
    for entry in s.build.work.log:
        fault = photo_fault(entry.photo)
        if fault is not None:
            yield PHOTO.found("A photo outside of the folder", fault, ("log", entry.id))


def _brings_findings(s: Studied, words: Words, names: dict[str, str]) -> Iterator[Finding]:
    """Tasks that are not there and what they would have brought."""
    pieces = brought(s.build, s.facts)
    called = {task.id: task.name for task in shipped_tasks()}
    for change in s.build.work.changes:
        kinds = {line.what for line in bringers().values() if change.id in line.tasks} if change.off else set()
        kg = sum(piece.mass_kg for piece in pieces if piece.what in kinds and piece.by == START)
        if kg >= LEAST_KG:
            yield LEFT_OUT.found(
                f"{called.get(change.id, change.id)} is left out",
                f"{words.kg(kg)} that it would bring count as there from the first day.",
                ("work", change.id),
                number=kg,
            )
    parts = {piece.part.id for piece in pieces}
    for own in s.build.work.brings:
        if own.task and own.task not in names:
            missing = called.get(own.task, own.task)
            yield BROUGHT_BY_NONE.found(
                f"{upper_first(own.what)}: no {lower_first(missing)}",
                f"It was said to come with “{missing}”, which is not done here.",
                ("work", own.id),
            )
        elif own.part not in parts and own.part:
            yield BROUGHT_BY_NONE.found(
                f"{upper_first(own.what)}: not there any more", "What was said to come with a task is gone.", ("work", own.id)
            )


def _press_findings(s: Studied) -> Iterator[Finding]:
    """Panels that are glued up by oneself: open time against hands, and what presses them."""
    glue = s.build.work.glue
    made = panels_pressed(s.build, s.facts, 20.0)
    slow = [panel for panel in made if panel.too_slow]
    if slow:
        worst = max(slow, key=lambda panel: panel.takes_min - panel.open_min)
        yield PRESS.found(
            f"{upper_first(worst.id)}: glued too slowly",
            f"{worst.takes_min:.0f} min to spread {worst.lines} lines and shut the press; the glue stays open {worst.open_min:.0f} min. {len(slow)} such.",
            ("glue", "press"),
            number=worst.takes_min - worst.open_min,
        )
    if made and glue.press_by == "vacuum" and not vacuum_is_enough(glue):
        words = Words(s.build.brief.reading.shown())
        yield PRESS_WEAK.found(
            "A vacuum bag does not press so hard",
            f"{words.of(glue.press_kpa, 'kPa', 0)} are wanted, a bag gives {words.of(VACUUM_KPA, 'kPa', 0)} at the most.",
            ("glue", "bag"),
            number=glue.press_kpa - VACUUM_KPA,
        )
