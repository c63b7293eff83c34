"""What a build that is read in one family of units must not say in the other: on screen, on paper, in a report."""

import re

from uncle_sled.core.document.edits import apply, set_to

UNITS = {
    "feet": {"length": "ft-in", "mass": "lb", "volume": "gal"},
    "inches": {"length": "in", "mass": "lb", "volume": "gal"},
    "metres": {"length": "m", "mass": "kg", "volume": "L"},
    "millimetres": {"length": "mm", "mass": "kg", "volume": "L"},
}
METRIC = re.compile(
    r"(?<![\w.])[\d.,]+ ?(kPa|Pa|kN|N|Nm|N m|kN m|MPa|mm|mm²|cm|cm²|m²|m³|m|m/s|m³/h|m3/h|km|km/h|kg|kg/m²|kg/m³|g/h|g/m²|L|ml|mL|"
    r"L/min|litres?|°C|degC|W/m²K|W/m2K|m²K/W|W/mK|kN/m|N/mm|metres?|kilograms?|grams?|millimetres?|newtons?)(?![\w²³/])"
    r"|(?<![\w])(kPa|kN|mm|mm²|cm²|m²|m³/h|m/s|km/h|kg|°C|litres?|millimetres?|kilograms?|grams|newtons?|W/m²K|Newtons|Litres)(?![\w])"
)
IMPERIAL = re.compile(r'\d ?(lb|lbf|ft|ft²|gal|in(?! (?:all|the|four|every|\d))|psi|psf|mph|cfm|°F|Btu|oz)\b|\d"')
# Said in both families on purpose: what a thing is called, sizes that are bought so everywhere, what a plate or a rule says.
MEANT = re.compile(
    r"metres and feet|M\d+|millimetres|feet and inches|kilograms|pounds|litres|gallons \(US\)|load index \d+ ?[A-Z]"
    r"|\(?62 mph|100 km/h or|\d mm² wire|[\d.]* ?mm²|^\d+ [NS]$|54 N or 36 S|100 mm (?:bar|when|print)|^100 mm|strap, 1 kN|any other unit may be typed"
)


def foreign(text, wrong, names):
    """What of a text is said in the other units; None where nothing is."""
    if wrong.search(text) is None:
        return None  # the rest takes words out, and puts none in
    for name in names:
        for form in (name, name[:1].lower() + name[1:], name.lower()):
            text = text.replace(form, "")
    if "…" in text or any(name.endswith(text.strip()) for name in names if text.strip()):  # a name cut short, or its second line
        return None
    found = wrong.search(MEANT.sub("", text))
    return found.group(0) if found else None


def names_of(project):
    """Names that people gave, longest first: they stay as they are."""
    build, facts = project.build, project.facts
    named = (
        *build.stow.things,
        *build.stow.modes,
        *build.shell.openings,
        *build.shell.faces,
        *build.shell.partitions,
        *build.shell.lofts,
        *build.systems.loads,
        *build.systems.devices,
        *facts.people,
        *facts.vehicles,
    )
    told = [entry.says for entry in build.work.log] + [entry.cure for entry in build.work.log] + [t.says for t in build.road.trips]
    return sorted({one.name for one in named} | {one for one in told if one} | {project.name}, key=len, reverse=True)


def read_in(project, units):
    """A project whose open build is read in some units."""
    return apply(project, [set_to(f"variants.{project.open_variant}.brief.reading", UNITS[units])])
