"""Where every judgement comes from: one line a place of rules, said after its reason."""

from __future__ import annotations

from uncle_sled.core.findings.finding import Finding

# The last word of the module that the rules stand in.
SOURCES = {
    "ball": "moments about the axle; advised bands of the region",
    "clearances": "plane geometry of rig, ground and car",
    "road": "plates and papers; tyre load and speed tables; statics on a grade and in a stop",
    "towing": "linear car and trailer; Euler and Bernoulli's beam",
    "body": "carpenters' rules and the geometry of the drawing",
    "holds": "statics, NDS habit for softwood, Allen's sandwich theory",
    "joints": "shop rules for seams and sections",
    "inner": "model house code for tiny houses; the local rule decides",
    "surveyed": "what was measured, against what was planned",
    "things": "the geometry of what is aboard",
    "tanks": "volumes and moments of what the tanks hold",
    "clash": "volumes of what overlaps",
    "dangerous": "the usual habit with flames, gas and mains; licensed people decide",
    "fitting": "layout practice for beds, aisles and ways out",
    "held": "direct lashing, EN 12195-1, and cargo practice",
    "built": "statics; gas struts by their data; shop rules for drawers and beds",
    "inner_doors": "plane geometry of a leaf that turns",
    "power": "hourly balance of sun, loads and battery",
    "wiring": "ISO 10133 and NEC habit for conductors and fuses",
    "water": "litres a day against what is aboard",
    "gas": "boiling of butane and propane; air for flames",
    "warmth": "ISO 6946, Glaser's steady vapour",
    "shop": "the take-off of the drawing against what is sold and paid",
    "plan": "the order of the work, and what waits for what",
    "scale": "what was weighed and written down",
}


def source_of(code: str) -> str:
    """The source of a rule. Raises: KeyError: no rule has that code."""
    from uncle_sled.core.findings.all_findings import PLACES

    for place in PLACES:
        if any(rule.code == code for rule in place.RULES):
            return SOURCES[place.__name__.rpartition(".")[2]]
    raise KeyError(code)


def why_of(one: Finding) -> str:
    """Its reason, and where that comes from."""
    return f"{one.why} Source: {source_of(one.code)} (docs/methods.md)."
