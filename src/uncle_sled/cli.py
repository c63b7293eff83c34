"""The command line. Only the application itself and ``shots`` need Qt."""

from __future__ import annotations

import argparse
import errno
import io
import json
import os
import re
import sys
from pathlib import Path
from typing import TYPE_CHECKING

from uncle_sled import __version__
from uncle_sled.core.document.project import Project
from uncle_sled.core.errors import FileError, SledError
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, open_named
from uncle_sled.exchange.exports import EXPORTS
from uncle_sled.exchange.kept_reports import told_before

if TYPE_CHECKING:  # a report that was made before waits for no study
    from uncle_sled.core.findings.finding import Finding
    from uncle_sled.core.reading.studied import Studied

OK, STOPS, UNREADABLE, UNANSWERED = 0, 1, 2, 3


VERBS = ("open", "demo", "report", "takes", "check", "export", "cut", "stand-in", "codes", "fields", "man", "install-desktop", "shots")


def main(argv: list[str] | None = None) -> int:
    _any_terminal()
    parser, words = _parser(), list(sys.argv[1:] if argv is None else argv)
    if words and words[0] not in VERBS and (words[0].endswith(".sled") or os.path.isfile(words[0])):
        words = ["open", *words]  # a file by itself is opened
    args = parser.parse_args(words)
    try:
        code = int(args.run(args))
        if sys.stdout is not None:
            sys.stdout.flush()  # what cannot be written is said here, and not while Python ends
        return code
    except SledError as fault:
        _complain(fault)
        return UNREADABLE
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), 1)
        return OK
    except OSError as fault:
        if fault.errno not in (errno.ENOSPC, errno.EIO, errno.EBADF, errno.EDQUOT):
            raise
        _complain(f"What was asked for could not be written out: {fault.strerror}.")
        os.dup2(os.open(os.devnull, os.O_WRONLY), 1)
        return UNREADABLE


def _any_terminal() -> None:
    """A terminal that has no sign for a letter shows a stand-in for it; a closed one is written to nowhere."""
    if sys.stdout is None:
        sys.stdout = open(os.devnull, "w")  # noqa: SIM115 (as long as the program runs)
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):
            stream.reconfigure(errors="backslashreplace")


def _complain(says: object) -> None:
    if sys.stderr is not None:
        print(says, file=sys.stderr)


def _parser() -> argparse.ArgumentParser:
    top = argparse.ArgumentParser(prog="uncle-sled", description="A workbench for people who build their own trailer body or camper.")
    top.set_defaults(run=_desk, file=None)
    top.add_argument("--version", action="version", version=f"Uncle Sled {__version__}")
    verbs = top.add_subparsers(metavar="VERB")
    file_help = f"a .sled file, or a demo: {', '.join(DEMOS)}"

    verb = verbs.add_parser("open", help="open a file in the application")
    verb.add_argument("file", nargs="?", help=file_help)
    verb.set_defaults(run=_desk)
    verb = verbs.add_parser("demo", help="open the application on a demo")
    verb.add_argument("file", nargs="?", default="marsh-heron", choices=DEMOS, metavar="NAME", help=", ".join(DEMOS))
    verb.set_defaults(run=_desk)
    verb = verbs.add_parser("report", help="the reading of every load case")
    verb.add_argument("file", help=file_help)
    verb.add_argument("--json", action="store_true", help="as JSON, by docs/report.schema.json")
    verb.add_argument("--case", metavar="ID", help="one load case only, by id or name")
    verb.add_argument(
        "--searches", action="store_true", help="with --json: also what takes a search, minutes: arrangements, trades, steps, tolerances"
    )
    verb.set_defaults(run=_report)
    verb = verbs.add_parser("takes", help="what it would take: the cheapest known changes that reach a wish")
    verb.add_argument("file", metavar="FILE", help="a build, or the name of a demo")
    verb.add_argument("wish", metavar="WISH", help="10 nights; 200 kg less; a second battery; rolls by May")
    verb.set_defaults(run=_takes)
    verb = verbs.add_parser("check", help="exit 0: nothing stops it; 1: something does; 2: unreadable; 3: no answer")
    verb.add_argument("file", help=file_help)
    verb.set_defaults(run=_check)
    verb = verbs.add_parser("export", help="the balance sheet, the masses or the framing drawings as a file")
    verb.add_argument("file", help=file_help)
    verb.add_argument("--to", required=True, choices=tuple(EXPORTS), metavar="KIND", help=", ".join(EXPORTS))
    verb.add_argument("--out", metavar="PATH", help="where to; beside the file by default")
    verb.set_defaults(run=_export)
    verb = verbs.add_parser("cut", help="lay pieces out on bars and sheets; exit 1: something fits nowhere")
    verb.add_argument("pieces", metavar="PIECES.csv", help="id, kind, material, length_mm, width_mm, qty, grain, outline")
    verb.add_argument("--stock", required=True, metavar="STOCK.csv", help="id, kind, material, length_mm, width_mm, qty, price")
    verb.add_argument("--kerf", type=float, default=3.2, metavar="MM", help="what the saw takes, 3.2 by default")
    verb.add_argument("--trim", type=float, default=0.0, metavar="MM", help="cut off every edge and end first")
    verb.add_argument("--free", action="store_true", help="along the outlines (router, jigsaw) instead of edge to edge")
    verb.add_argument("--seconds", type=float, default=10.0, metavar="S", help="how long to look for better, 10 by default")
    verb.add_argument("--json", action="store_true", help="as JSON, in metres")
    verb.set_defaults(run=_cut)
    verb = verbs.add_parser("stand-in", help="a simulated device on this computer, to try without one")
    verb.add_argument("device", choices=("scale",), metavar="DEVICE", help="scale: a pad scale, see docs/scale.md")
    verb.add_argument("--from", required=True, dest="loads", metavar="FILE", help="a weight in kg and seconds a line")
    verb.add_argument("--port", type=int, default=0, metavar="N", help="on 127.0.0.1; any free one by default")
    verb.set_defaults(run=_stand_in)
    verb = verbs.add_parser("codes", help="every finding's code, its stop and what is tried for it, as a table")
    verb.set_defaults(run=_codes)
    verb = verbs.add_parser("fields", help="every field of a file: what it is, as what it is kept, what is usual")
    verb.set_defaults(run=_fields)
    verb = verbs.add_parser("man", help="the manual page, for man -l")
    verb.set_defaults(run=_man)
    verb = verbs.add_parser("install-desktop", help="make the desktop know the application, its icon and .sled files")
    verb.set_defaults(run=_install_desktop)
    verb = verbs.add_parser("shots", help="pictures of every main view, from the demo")
    verb.add_argument("dir", metavar="DIR")
    verb.add_argument("--theme", choices=("light", "dark"), default="light")
    verb.add_argument("--size", default="1280x800", help="window size, such as 1100x700")
    verb.add_argument("--scale", type=float, default=1.0, help="device pixels per logical pixel, such as 1.5")
    verb.add_argument("--demo", choices=DEMOS, default="marsh-heron")
    verb.add_argument("--small", metavar="DIR", help="also the guide's small pictures, one a stop")
    verb.set_defaults(run=_shots)
    return top


def _opened(word: str) -> Project:
    opened = open_named(word)
    for said in opened.said:
        print(f"mended on reading: {said}", file=sys.stderr)
    return opened.project


def _studied(word: str) -> tuple[Project, Studied]:
    from uncle_sled.core.reading.studied import study

    project = _opened(word)
    return project, study(project.build, project.facts)


def _found(s: Studied, with_cures: bool = True) -> tuple[Finding, ...]:
    """What is wrong; remedies are searched only where they are told."""
    from uncle_sled.core.findings.all_findings import findings
    from uncle_sled.core.findings.cut.shop import on_the_whole_plan
    from uncle_sled.core.remedies.remedies import with_remedies

    return on_the_whole_plan(s, with_remedies(s) if with_cures else findings(s))


def _case_rows(s: Studied, wanted: str | None) -> list[int]:
    if wanted is None:
        return list(range(len(s.table.cases)))
    low = wanted.lower()
    rows = [
        row
        for row, case in enumerate(s.table.cases)
        if low in (case.id.lower(), case.name.lower(), *(name.lower() for name in case.same_as))
    ]
    if not rows:
        raise FileError(f"There is no load case “{wanted}”; there are {', '.join(c.id for c in s.table.cases)}.")
    return rows


def _report(args: argparse.Namespace) -> int:
    project = _opened(args.file)

    def tell() -> str:
        from uncle_sled.core.reading.studied import study

        s = study(project.build, project.facts)
        rows = _case_rows(s, args.case)
        found = _found(s)
        if not args.json:
            return report_text(project.name, s, found, rows)
        from uncle_sled.exchange.report import report

        told = report(s, found, project, rows)
        if args.searches:
            from uncle_sled.exchange.searched_report import searched_report

            told["searched"] = searched_report(s, project)
        return json.dumps(told, indent=1, ensure_ascii=False, allow_nan=False)

    text = told_before(project, f"{'json' if args.json else 'text'}{' searched' if args.searches else ''} {args.case or ''}", tell)
    if args.json and (sys.stdout.encoding or "").lower().replace("-", "") != "utf8":
        # letters that the terminal or pipe cannot take are written as JSON writes them
        text = json.dumps(json.loads(text), indent=1)
    print(text)
    return OK


def _takes(args: argparse.Namespace) -> int:
    from uncle_sled.core.remedies.deciding.points import told
    from uncle_sled.core.remedies.deciding.takes import what_it_takes
    from uncle_sled.core.words import Words

    project = _opened(args.file)
    takes, words = what_it_takes(project, text=args.wish), Words(project.build.brief.reading.shown())
    measure = takes.goal.measure
    print(takes.goal.says + (f", now {told(measure, takes.now, words)}" if measure and takes.now is not None else ""))
    for one in takes.found:
        costs = "money not known" if one.costs is None else f"{one.costs:+.0f} money"
        reaches = f", {told(measure, one.value, words)}" if measure else ""
        print(f"- {'; '.join(one.says)}: {costs}{reaches}, {one.minds} new to mind")
    if takes.why:
        print(takes.why)
    print(f"{takes.reckoned} sets reckoned whole of {takes.sets} ranked; not proven least.")
    return OK


def report_text(name: str, s: Studied, found: tuple[Finding, ...], rows: list[int]) -> str:
    """The report for reading in a terminal, in the build's units."""
    from uncle_sled.core.findings.sources import why_of

    words = Words(s.build.brief.reading.shown())
    b, bed = s.readings, s.build.rig.carrier == "vehicle bed"
    lines = [f"{name} ({s.build.name}), {s.build.brief.region} practice"]
    wide = max((len(c.name) for c in s.table.cases), default=4)
    for row in rows:
        case = s.table.cases[row]
        text = f"  {case.name:<{wide}}  {words.kg(float(b.total_kg[row])):>9}"
        if bed and b.axle_kg.shape[1]:
            text += f"  front {words.kg(float(b.axle_kg[row, 0]))}, rear {words.kg(float(b.axle_kg[row, 1]))}"
        elif not case.mode.towing and s.at_rest is not None:
            text += f"  on the jack {words.kg(float(s.at_rest.jack_kg[row]))}"
        elif case.mode.towing and b.tongue_kg[row] == b.tongue_kg[row]:
            low, high = (float(kg) for kg in b.band_kg[row])
            text += (
                f"  on the ball {words.kg(float(b.tongue_kg[row]))} ({words.share(float(b.share[row]))}), want {words.bare_kg(low)} to {words.kg(high)},"
                f" chance {words.share(float(b.chance[row]), 0)}"
            )
        lines.append(f"{text}  [{case.says}]" + (f"  same as {', '.join(case.same_as)}" if case.same_as else ""))
    for finding in found:
        lines += [
            "",
            f"{finding.severity.upper()}  {finding.title}",
            f"  {finding.says}",
            f"  {why_of(finding)}",
            f"  {finding.remedy.says if finding.remedy else finding.why_none or ''}",
        ]
        if finding.caution:
            lines.append(f"  {finding.caution}")
    return "\n".join(lines)


def _check(args: argparse.Namespace) -> int:
    from uncle_sled.core.studies.balance.road_size import every_limit

    _, s = _studied(args.file)
    found = _found(s, with_cures=False)
    for finding in found:
        print(f"{finding.severity}: {finding.title}{'' if finding.title.endswith(('?', '.')) else '.'} {finding.says}")
    stops = [each for each in found if each.severity == "stop"]
    limits = every_limit(s)
    held, every = len(limits.limits), len(limits.limits) + len(limits.unchecked)
    for missing in limits.unchecked:
        print(f"not checked: {missing.name}, {missing.why}")
    print(f"{len(stops)} to stop for, {len(found) - len(stops)} to mind or note; {held} of {every} limits checked")
    if s.trouble is None and s.support is None and not stops:
        hidden = next((unknown.says for unknown in s.unknown if unknown.hides == "reading"), "where the axle stands")
        print(f"no reading: {hidden} is not known", file=sys.stderr)
        return UNANSWERED
    return STOPS if stops else OK


def _export(args: argparse.Namespace) -> int:
    project, s = _studied(args.file)
    source = Path(args.file)
    # each kind has a name of its own, or one would take the place of the other
    ending = (
        "" if args.to == EXPORTS[args.to].ending else f"-{args.to.removesuffix('-pdf').removesuffix('-svg')}"
    ) + f".{EXPORTS[args.to].ending}"
    try:
        here = source.exists()
    except OSError:
        here = False
    out = Path(args.out) if args.out else Path(f"{source.with_suffix('') if here else source.name}{ending}")
    from uncle_sled.exchange.export import export_bytes, free_name, write_file

    data = export_bytes(args.to, project.name, s, _found(s) if EXPORTS[args.to].judged else ())
    if not args.out:
        out = free_name(out, data)
    write_file(out, data)
    print(out)
    return OK


def _cut(args: argparse.Namespace) -> int:
    import time

    from uncle_sled.core.studies.cut.cut_plan import cut_plan
    from uncle_sled.exchange.cut_lists import read_lists
    from uncle_sled.exchange.cut_report import cut_report, cut_text

    for word, value in (("kerf", args.kerf), ("trim", args.trim), ("seconds", args.seconds)):
        if not 0 <= value < 1e5:
            raise FileError(f"--{word} {value:g} is not possible; 0 or more would be right, as a plain number.")
    kerf_m, trim_m = args.kerf / 1e3, args.trim / 1e3
    pieces, stocks = read_lists(Path(args.pieces), Path(args.stock), kerf_m, trim_m)
    begin = time.monotonic()
    plan = cut_plan(pieces, stocks, kerf_m, trim_m, lambda share: time.monotonic() - begin > share * args.seconds, args.free)
    print(json.dumps(cut_report(plan), indent=1) if args.json else cut_text(plan))
    return STOPS if plan.unplaced else OK


def _stand_in(args: argparse.Namespace) -> int:
    from uncle_sled.exchange.stand_in_scale import read_loads, serve

    if not 0 <= args.port <= 65535:
        raise FileError(f"--port {args.port} is no port; 1 to 65535 would be right, or none for any that is free.")
    try:
        serve(read_loads(Path(args.loads)), args.port, lambda says: print(says, flush=True))
    except KeyboardInterrupt:
        print("taken away", flush=True)
    return OK


def _desk(args: argparse.Namespace) -> int:
    try:
        from uncle_sled.desk.app import run
    except ImportError as fault:
        raise FileError(
            f"The application needs PySide6 and its system libraries, and they are not all here ({fault}). `./sled` installs them."
        ) from None
    return run(args.file)


def _fields(_: argparse.Namespace) -> int:
    from uncle_sled.exchange.field_table import field_table

    print(field_table(), end="")
    return OK


def _codes(_: argparse.Namespace) -> int:
    from uncle_sled.core.findings.all_findings import table_of_codes

    print(table_of_codes(), end="")
    return OK


def _man(_: argparse.Namespace) -> int:
    from uncle_sled.exchange.man_page import man_page

    print(man_page(_parser()), end="")
    return OK


def _install_desktop(_: argparse.Namespace) -> int:
    from uncle_sled.exchange.desktop_entry import install_desktop

    for path in install_desktop():
        print(path)
    return OK


def _shots(args: argparse.Namespace) -> int:
    wide, _, high = args.size.partition("x")
    if not re.fullmatch(r"[0-9]{2,5}x[0-9]{2,5}", args.size) or not (320 <= int(wide) <= 8000 and 240 <= int(high) <= 8000):
        raise FileError(f"“{args.size[:40]}” is not a window size: write it like 1280x800, at most 8000x8000.")
    if not 0.5 <= args.scale <= 4:
        raise FileError(f"“{args.scale:g}” is not a scale: from 0.5 to 4 would be right, such as 1.5.")
    from uncle_sled.desk.shots import take_shots

    return take_shots(Path(args.dir), args.demo, args.theme, (int(wide), int(high)), args.scale, Path(args.small) if args.small else None)


if __name__ == "__main__":
    sys.exit(main())
