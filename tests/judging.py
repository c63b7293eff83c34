"""Findings with their remedies, as tests ask for them: of one code alone, or of a demo once for all."""

import hashlib
import os
import pickle
from pathlib import Path

import msgspec

from uncle_sled.core.engine import keep
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.remedies.remedies import settled, with_remedies

SHARED: list[Path] = []  # the folder of a run of tests, one for all of its processes


def settled_one(studied, code):
    """The first finding of a code, with its remedy or why there is none; nothing else is looked for."""
    found = [finding for finding in findings(studied) if finding.code == code]
    assert found, f"{code} is not found"
    return settled(studied, found[:1])[0]


@keep("studied.build", "studied.facts", most=12)
def judged_once(studied):
    """All findings of a build with their remedies: a demo is judged once a run, not once a test or process."""
    if not SHARED:
        return with_remedies(studied)
    of = hashlib.sha256(msgspec.msgpack.encode((studied.build, studied.facts))).hexdigest()
    file = SHARED[0] / f"judged-{of}"
    if file.exists():
        return pickle.loads(file.read_bytes())
    made = with_remedies(studied)
    half = file.with_suffix(f".{os.getpid()}")
    half.write_bytes(pickle.dumps(made))
    half.replace(file)
    return made
