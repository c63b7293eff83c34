"""The manual page, printed from the command line's own words, so that it cannot say otherwise."""

from __future__ import annotations

import argparse


def man_page(parser: argparse.ArgumentParser) -> str:
    """In roff, section 1."""
    lines = ['.TH UNCLE-SLED 1 "" "" "Uncle Sled"', ".SH NAME", f"uncle-sled \\- {_safe((parser.description or '').rstrip('.').lower())}"]
    lines += [".SH SYNOPSIS", ".B uncle-sled", "[VERB] [ARGUMENTS]", ".SH DESCRIPTION", _safe(parser.description or "")]
    lines += ["Without a verb the window opens. Every verb has help of its own: uncle-sled VERB \\-\\-help.", ".SH VERBS"]
    verbs = next(action for action in parser._actions if isinstance(action, argparse._SubParsersAction))
    helps = {choice.dest: choice.help or "" for choice in verbs._choices_actions}
    for name, verb in verbs.choices.items():
        lines += [f".SS {_safe(name)}", _safe(helps.get(name, ""))]
        for action in verb._actions:
            if isinstance(action, argparse._HelpAction):
                continue
            word = ", ".join(action.option_strings) or str(action.metavar or action.dest)
            if action.option_strings and action.nargs != 0:
                word += f" {action.metavar or action.dest.upper()}"
            lines += [".TP", f".B {_safe(word)}", _safe(action.help or "")]
    lines += [".SH FILES", ".TP", ".B *.sled", "A build, as JSON; docs/file\\-format.md tells it."]
    lines += [".SH EXIT STATUS", "0: done. 1: something stops the build, or fits nowhere. 2: the file is not readable. 3: no answer."]
    return "\n".join(lines) + "\n"


def _safe(text: str) -> str:
    return text.replace("\\", "\\\\").replace("-", "\\-").replace("%%", "%")
