"""A check that raises is a finding, and every other check goes on."""

from __future__ import annotations

import inspect
import sys

import pytest

from uncle_sled.core.engine import forget
from uncle_sled.core.findings import all_findings, faulted
from uncle_sled.core.findings.all_findings import AT_REST, IN_FRAME, findings, judged
from uncle_sled.core.findings.stow import clash
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.remedies import with_remedies
from uncle_sled.exchange.demos import demo

PROJECT = demo("rosin-box")


def fallen(*_args, **_named):
    raise IndexError("a list\nthat is empty")


@pytest.mark.parametrize("at", range(len(IN_FRAME) + len(AT_REST)))
def test_one_that_falls_takes_no_other_along(at, monkeypatch):
    monkeypatch.setattr(faulted, "STRICT", False)
    s = study(PROJECT.build, PROJECT.facts)
    place, check = (*IN_FRAME, *AT_REST)[at]
    whole = {f.key for f in judged(s, "ball-light")}
    mine = {f.key for f in check(s, all_findings._words(s))}
    fallen.__name__ = check.__name__
    tier = "IN_FRAME" if at < len(IN_FRAME) else "AT_REST"
    monkeypatch.setattr(all_findings, tier, tuple((p, fallen if p is place else c) for p, c in getattr(all_findings, tier)))
    found = tuple(judged(s, "ball-light"))
    told = [f for f in found if f.code == "not-worked-out"]
    assert len(told) == 1 and told[0].severity == "stop" and told[0].says == "IndexError: a list that is empty."
    assert {f.key for f in found} - {told[0].key} >= whole - mine


def test_a_report_with_fallen_checks_is_whole_and_says_so(monkeypatch):
    monkeypatch.setattr(faulted, "STRICT", False)

    def clash_findings(*_args, **_named):
        raise KeyError("no such mode")

    monkeypatch.setattr(clash, "clash_findings", clash_findings)
    monkeypatch.setattr(all_findings, "AT_REST", tuple((p, fallen if at == 3 else c) for at, (p, c) in enumerate(AT_REST)))
    forget()
    try:
        found = with_remedies(study(PROJECT.build, PROJECT.facts))
        assert sum(f.code == "not-worked-out" for f in found) == 2 and len(found) > 5
        assert len({f.key for f in found}) == len(found) == len(findings(study(PROJECT.build, PROJECT.facts)))
    finally:
        forget()


def studies_in_findings():
    """Every function of a study that a check calls by name: by stop, with the places where it is bound."""
    bound = {}
    for module in [m for name, m in sys.modules.items() if name.startswith("uncle_sled.core.findings.")]:
        for name, value in vars(module).items():
            home = getattr(value, "__module__", "") or ""
            if callable(value) and not inspect.isclass(value) and home.startswith("uncle_sled.core.studies."):
                bound.setdefault(home.split(".")[3], {}).setdefault((home, getattr(value, "__name__", name)), []).append((module, name))
    return bound


STUDIES = studies_in_findings()


@pytest.mark.parametrize("stop", sorted(STUDIES))
def test_a_study_that_falls_takes_only_the_checks_along_that_ask_it(stop, monkeypatch):
    monkeypatch.setattr(faulted, "STRICT", False)
    project = demo("marsh-heron")
    s = study(project.build, project.facts)
    words = all_findings._words(s)
    each = {check.__name__: {f.key for f in check(s, words)} for _, check in (*IN_FRAME, *AT_REST)}
    asked = 0
    for (home, name), places in STUDIES[stop].items():
        with monkeypatch.context() as planted:
            for module, bound in places:
                planted.setattr(module, bound, fallen)
            found = [f for _, check in (*IN_FRAME, *AT_REST) for f in faulted.checked(check, s, words)]
        told = {f.where[0] for f in found if f.code == "not-worked-out"}
        asked += bool(told)
        keys = {f.key for f in found}
        for check, its in each.items():
            assert check in told or its <= keys, (home, name, check)
    assert len(STUDIES) >= 7 and asked >= len(STUDIES[stop]) // 3, (asked, len(STUDIES[stop]))
