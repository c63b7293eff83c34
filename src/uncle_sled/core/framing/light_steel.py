"""Studs of light steel: C sections folded of thin sheet, laid as studs of timber are, screwed and not welded.

Source: shell notes, light steel studs. Their webs lead through the insulation: both bounds of the wall's warmth are shown.
"""

from __future__ import annotations

from msgspec.structs import replace

from uncle_sled.core.framing import stick_timber
from uncle_sled.core.framing.school import SchoolOf, Sizes
from uncle_sled.core.framing.welded_tube import STEEL

STUD = replace(STEEL, id="steel-stud", name="Light steel stud", money_m3=14000.0, hours_m2=0.3)

LIGHT_STEEL = SchoolOf(
    "light steel",
    "Studs, tracks and rafters of C sections folded of thin steel, screwed",
    sizes=Sizes(
        0.40,
        0.40,
        stick=(0.040, 0.070),
        rib=(0.040, 0.070),
        joist=(0.040, 0.100),
        sheet_width=1.22,
        sheet_length=2.44,
        side_thick=0.0,
        wall=0.0012,
        channel=True,
    ),
    imperial=Sizes(
        0.4064,
        0.4064,
        stick=(0.0413, 0.0889),
        rib=(0.0413, 0.0889),
        joist=(0.0413, 0.0889),
        sheet_width=1.2192,
        sheet_length=2.4384,
        side_thick=0.0,
        wall=0.0011,
        channel=True,
    ),
    wall=stick_timber.wall,
    ribs=stick_timber.ribs,
    forms=("box", "flat", "shed", "gable", "butterfly", "bevelled"),
    feet=True,
    material=STUD,
)
