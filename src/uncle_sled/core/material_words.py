"""What kind of stuff a material is, and as what it is bought and cut: two closed sets of the trade's words."""

from __future__ import annotations

from typing import Literal, get_args

Family = Literal[
    "",
    "timber",
    "plywood",
    "strand board",
    "foam",
    "wool",
    "cork",
    "honeycomb",
    "laminate",
    "cloth",
    "metal",
    "plastic",
    "covering",
    "membrane",
    "paint",
    "air",
]
Form = Literal["", "sheet", "fill", "roll", "coat", "board"]
FAMILIES: tuple[Family, ...] = get_args(Family)
FORMS: tuple[Form, ...] = get_args(Form)
FORM_WORDS: dict[Form, str] = {
    "": "nobody said",
    "sheet": "sheets, sawn",
    "fill": "boards, by knife",
    "roll": "rolls",
    "coat": "tins or a spray",
    "board": "boards side by side",
}
# What is screwed on; sheets of anything else are bonded.
WOOD_SHEETS: tuple[Family, ...] = ("plywood", "strand board")
