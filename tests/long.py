"""The long runs: what the suite does for a moment, for as long as one likes, seed after seed. It ends with 1 on a fault.

    python -m tests.long edits|files|builds [--many 20000] [--seed 1]

edits: random edits of the demos, undone and done again, each saved and read back. files: demos with values put to anything,
read and written. builds: demos with fields put to anything, judged, drawn and reported. Hands, kills and the sweep of all
fields have commands of their own: tests.desk.hands, tests.exchange.kills, tests.core.sweep.
"""

from __future__ import annotations

import argparse
import os
import sys
import time
import traceback

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
AT_ONCE = 100  # edits of one session


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asked.add_argument("what", choices=("edits", "files", "builds"))
    asked.add_argument("--many", type=int, default=20_000)
    asked.add_argument("--seed", type=int, default=1)
    wanted = asked.parse_args()
    from tests.core.test_hostile_builds import judge_and_draw_spoilt
    from tests.desk.test_random_use import edit_often
    from tests.exchange.test_read_as_meant import read_spoilt
    from uncle_sled.core.findings import faulted
    from uncle_sled.desk.app import application
    from uncle_sled.exchange.demos import DEMOS

    application()
    faulted.STRICT = True  # a check that falls is a fault here, and no finding
    first, step = wanted.seed * 1_000_000, AT_ONCE if wanted.what == "edits" else 1
    faults, begin = [], time.monotonic()
    for at in range(0, wanted.many, step):
        seed = first + at
        try:
            if wanted.what == "edits":
                edit_often(DEMOS[at // step % len(DEMOS)], seed, step)
            else:
                {"files": read_spoilt, "builds": judge_and_draw_spoilt}[wanted.what](seed)
        except Exception:
            faults.append(seed)
            print(f"seed {seed}:", file=sys.stderr)
            traceback.print_exc()
        if at % 1000 < step:
            print(f"{at + step} {wanted.what}, {len(faults)} faults, {time.monotonic() - begin:.0f} s", flush=True)
    print(f"{wanted.many} {wanted.what}, {len(faults)} faults{': seeds ' if faults else ''}{', '.join(map(str, faults))}")
    return int(bool(faults))


if __name__ == "__main__":
    raise SystemExit(main())
