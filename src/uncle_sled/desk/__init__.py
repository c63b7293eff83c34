"""The desk: PySide6 Widgets over the core.

The core is imported here, before any module of the desk imports Qt: once PySide6 is loaded its
import hook reads the source of every module that is imported after it, which costs 1 ms each.
What judges is not needed for the first reading and comes when it was painted.
"""

import uncle_sled.core.document.delta
import uncle_sled.core.document.history
import uncle_sled.core.document.placing
import uncle_sled.core.drawing.backend
import uncle_sled.core.drawing.inks
import uncle_sled.core.drawing.rig.bobs
import uncle_sled.core.drawing.rig.rig_views
import uncle_sled.core.drawing.stow.people
import uncle_sled.core.drawing.stow.swings
import uncle_sled.core.findings.finding
import uncle_sled.core.slow
import uncle_sled.core.studies.balance.sureness
import uncle_sled.core.studies.balance.tow_vehicle
import uncle_sled.core.words
import uncle_sled.desk.helper
import uncle_sled.exchange.demos
import uncle_sled.exchange.file_guard
import uncle_sled.exchange.recovery  # noqa: F401
from uncle_sled.desk.benches.about import abouts

abouts()
