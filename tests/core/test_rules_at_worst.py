"""What the table of findings calls the worst of a rule is the worst that its check ever gives."""

from __future__ import annotations

import ast
import importlib
import inspect
import pkgutil
from collections.abc import Iterator

from uncle_sled.core import findings
from uncle_sled.core.findings.finding import RANK
from uncle_sled.core.findings.rule import Rule


def _given() -> Iterator[tuple[Rule, str]]:
    """Every severity that a check says in so many words, with its rule."""
    for info in pkgutil.walk_packages(findings.__path__, findings.__name__ + "."):
        if info.ispkg:
            continue
        module = importlib.import_module(info.name)
        for call in ast.walk(ast.parse(inspect.getsource(module))):
            if not (isinstance(call, ast.Call) and isinstance(call.func, ast.Attribute) and call.func.attr == "found"):
                continue
            rule = getattr(module, getattr(call.func.value, "id", ""), None)
            said = next((word.value for word in call.keywords if word.arg == "severity"), None)
            for one in ast.walk(said) if isinstance(rule, Rule) and said is not None else ():
                if isinstance(one, ast.Constant) and one.value in RANK:
                    yield rule, str(one.value)


def test_no_check_is_worse_than_its_rule() -> None:
    given = list(_given())
    assert len(given) > 8
    assert [(rule.code, said) for rule, said in given if RANK[said] < RANK[rule.severity]] == []
