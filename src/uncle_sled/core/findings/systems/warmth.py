"""Judgements on warmth and vapour: the heater, the cooler, what sweats, and what gets wet inside a wall."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.glaser import LEAST_G_M2, Profile, profiles_of
from uncle_sled.core.studies.systems.heat import MOST_DUCT_M_S, MOST_RETURN_M_S, ducts_of, heaters_of
from uncle_sled.core.studies.systems.sweat import Surface, fan_of
from uncle_sled.core.studies.systems.systems_as_built import the_gains, the_losses, the_night
from uncle_sled.core.words import Words, lower_first

SOURCE = "ISO 6946, Glaser's steady vapour"  # of every rule here, said after its reason

Made = tuple[tuple[Op, ...], str]
MOST_VENT_M3H = 90.0  # more is a draught nobody sleeps in
THICKER_M = 0.02
BEDDING_GAP_M = 0.08
MOST_TOLD = 4
ALIKE_K = 0.05  # surfaces as cold as that are told together
CAUTION = "Air against sweat is not the air that a flame wants."
SCREEN = "Reckoned from typed layers and usual figures."


def _surface(s: Studied, finding: Finding) -> Surface | None:
    return next((found for found in the_night(s).surfaces if found.id == finding.where[1]), None)


def _more_air(s: Studied, finding: Finding) -> Made | None:
    """The air change that dries this surface and all that are warmer."""
    surface = _surface(s, finding)
    if surface is None or surface.vent_m3h is None or surface.vent_m3h > MOST_VENT_M3H:
        return None
    flow = float(int(surface.vent_m3h * 1.02) + 1)
    return (set_to("systems.air.vent_m3h", flow),), f"Let {{{flow:.0f} m3/h}} of air through at night, {surface.price_w or 0:.0f} W of heat"


def _double(s: Studied, finding: Finding) -> Made | None:
    opening = next((o for o in s.build.shell.openings if o.id == finding.where[1]), None)
    if opening is None or opening.kind not in ("window", "light", "vent") or opening.glazing == "double":
        return None
    alike = [o for o in s.build.shell.openings if o.kind == opening.kind and o.glazing == opening.glazing]
    ops = tuple(set_to(f"shell.openings.{o.id}.glazing", "double") for o in alike)
    more = f" and {len(alike) - 1} more" if len(alike) > 1 else ""
    return ops, f"Take double glass for the {lower_first(opening.name)}{more}"


def _clad(s: Studied, finding: Finding) -> Made | None:
    """A door or hatch of bare wood with foam on it: its U as a figure of its own."""
    opening = next((o for o in s.build.shell.openings if o.id == finding.where[1]), None)
    if opening is None or opening.kind not in ("door", "hatch") or opening.u_w_m2k is not None:
        return None
    return (set_to(f"shell.openings.{opening.id}.u_w_m2k", 1.0),), f"Clad the {lower_first(opening.name)} with {{25 mm}} of foam inside"


def _thicker(s: Studied, finding: Finding) -> Made | None:
    """The thickest layer of foam or wool 20 mm thicker."""
    surface = _surface(s, finding)
    face = next((f for f in s.build.shell.faces if surface is not None and f.id == finding.where[1].split("/")[0]), None)
    if face is None or not face.layers:
        return None
    layer = max(face.layers, key=lambda one_of: one_of.thickness.si)
    thick = round(layer.thickness.si + THICKER_M, 4)
    return (
        set_to(f"shell.faces.{face.id}.layers.{layer.id}.thickness", {"si": thick, "typed": None}),
    ), f"Make the foam of the {lower_first(face.name)} {{{thick * 1000:.0f} mm}}"


def _gap(s: Studied, finding: Finding) -> Made | None:
    """A mattress away from the wall it lies against."""
    wall, _, thing = finding.where[1].partition("/")
    bed = next((t for t in s.build.stow.things if t.id == thing), None)
    face = next((f for f in s.build.shell.faces if f.id == wall), None)
    if bed is None or face is None or face.kind not in ("left side", "right side"):
        return None
    by = BEDDING_GAP_M * (1 if face.kind == "left side" else -1)
    return (
        set_to(f"stow.things.{bed.id}.y", {"si": round(bed.y.si + by, 3), "typed": None}),
    ), f"Leave a gap between the {lower_first(bed.name)} and the wall"


def _barrier(s: Studied, finding: Finding) -> Made | None:
    """A foil behind the lining, on the warm side."""
    face = next((f for f in s.build.shell.faces if f.id == finding.where[1]), None)
    if face is None or not face.layers or any(layer.material == "vapour-barrier" for layer in face.layers):
        return None
    taken = [layer.id for layer in face.layers]
    id = next(f"l{k}" for k in range(1, 99) if f"l{k}" not in taken)
    foil = {"id": id, "material": "vapour-barrier", "thickness": {"si": 0.0002, "typed": None}}
    told = [msgspec.to_builtins(layer) for layer in face.layers]
    return (
        set_to(f"shell.faces.{face.id}.layers", [*told[:-1], foil, told[-1]]),
    ), f"Put a vapour barrier behind the lining of the {lower_first(face.name)}"


def _dry(tried: Studied, _finding: Finding) -> str:
    night = the_night(tried)
    if night.inside_rh is None:
        return "the night is not known"
    wet = len(night.wet)
    left = "nothing sweats" if not wet else f"{wet} surface{'s' if wet > 1 else ''} still sweat{'s' if wet == 1 else ''}"
    ball = tried.readings.tongue_kg[tried.towing_rows[0]] if tried.towing_rows else None
    words = Words(tried.build.brief.reading.shown())
    weighs = f", {words.kg(float(ball))} on the ball" if ball is not None and ball == ball else ""
    return f"{min(night.inside_rh, 1.0) * 100:.0f} % damp inside, {left}{weighs}"


HEATER_SMALL = Rule(
    "heater-small",
    "mind",
    "Systems",
    "A heater that does not hold the coldest night with a quarter in hand",
    "It runs flat out and the room sinks towards morning.",
    SCREEN,
    why_none="A stronger heater, thicker foam, or less air through.",
)
HEATER_UNRATED = Rule(
    "heater-unrated",
    "note",
    "Systems",
    "A heater whose watts nobody said",
    "Whether it holds the night is not checked.",
    why_none="Type what it gives (W) In hand.",
)
WARMTH_UNKNOWN = Rule(
    "warmth-unknown",
    "note",
    "Systems",
    "Warmth and sweat that cannot be told",
    "Unknown walls lose an unknown heat.",
    why_none="Say it on Brief or Shell, as the sentence says.",
)
COOLER_SMALL = Rule(
    "cooler-small",
    "mind",
    "Systems",
    "A cooler that does not hold the hottest day",
    "It runs all day and the room stays hot.",
    SCREEN,
    why_none="Shade, a white roof, or a stronger cooler.",
)
SWEATS = Rule(
    "sweats",
    "mind",
    "Systems",
    "A surface that sweats on the coldest night",
    "What drips there ends in the bedding, or in the wood behind it.",
    CAUTION,
    helps="edit",
    cure=_double,
    more=(_clad, _gap, _more_air, _thicker),
    after=_dry,
)
WET_INSIDE = Rule(
    "wet-inside",
    "mind",
    "Systems",
    "A wall that gets wet inside and does not dry by day",
    "Wood behind a tight skin rots unseen.",
    SCREEN,
    helps="edit",
    cure=_barrier,
    more=(_more_air,),
    after=_dry,
)
FAN_STARVED = Rule(
    "fan-starved",
    "mind",
    "Systems",
    "A roof fan with too small an inlet",
    "It roars and moves little.",
    why_none="Open a window or a vent of the size that it says.",
)
DUCT_FAST = Rule(
    "duct-fast",
    "note",
    "Systems",
    f"Air faster than {{{MOST_DUCT_M_S:.0f} m/s}} in a duct, or {{{MOST_RETURN_M_S} m/s}} at the return",
    "It whistles, and the heater starves and shuts off.",
    why_none="More or wider ducts, a larger return.",
)
NO_HEATER = Rule(
    "no-heater",
    "mind",
    "Systems",
    "A wished warmth and nothing aboard that warms",
    "It is as cold inside as outside by the small hours.",
    CAUTION,
    why_none="Add a heater from the catalogue, or say In hand what warms the room; or wish for less on Brief.",
)


def _asked(s: Studied) -> bool:
    """Whether anybody wants to know of warmth: a wish, or a heater aboard."""
    brief = s.build.brief
    return brief.inside is not None or brief.humidity_out is not None


def warmth_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Does it keep warm, dry and breathable? Yields what does not, and what nobody said."""
    made = the_losses(s)
    fan = fan_of(s.build)
    if fan is not None and (fan.speed_m_s is None or fan.speed_m_s > 3.0):
        air = s.build.systems.air
        have = (
            f"{words.of(fan.pressure_pa, 'Pa', 0)} and {words.of(fan.speed_m_s, 'm/s', 1)} at {words.of(air.inlet_cm2 or 0.0, 'cm2', 0)}"
            if fan.speed_m_s is not None and fan.pressure_pa is not None
            else "no inlet is typed"
        )
        yield FAN_STARVED.found(
            "The fan has no inlet",
            f"{words.of(air.fan_m3h or 0.0, 'm3/h', 0)}: {have}; {words.of(fan.wanted_cm2, 'cm2', 0)} would be right.",
            ("warmth", "fan"),
            number=fan.speed_m_s,
        )
    ducts = ducts_of(s.build)
    if ducts is not None and ((ducts.speed_m_s or 0) > MOST_DUCT_M_S or (ducts.return_m_s or 0) > MOST_RETURN_M_S):
        told = [f"{words.of(ducts.speed_m_s, 'm/s', 1)} in the ducts"] if ducts.speed_m_s else []
        told += [f"{words.of(ducts.return_m_s, 'm/s', 1)} at the return"] if ducts.return_m_s else []
        yield DUCT_FAST.found(
            "The heater's air is fast",
            f"{' and '.join(told)}; a return of {words.of(ducts.return_cm2, 'cm2', 0)} would be right.",
            ("warmth", "ducts"),
        )
    if not _asked(s) or s.framed.body is None:
        return
    if made.why or made.unknown:
        told_why = [*made.why, *made.unknown]
        more = f" And {len(told_why) - 1} more." if len(told_why) > 1 else ""
        yield WARMTH_UNKNOWN.found("Warmth is not fully known", f"{told_why[0].rstrip('.')}.{more}", ("warmth", "unknown"))
    cold = s.build.brief.coldest
    if s.build.brief.inside is not None and cold is not None and cold.si < s.build.brief.inside.si and not heaters_of(s.build):
        out = f": at least {words.heat(made.loss_w)} go out" if made.loss_w else ""
        yield NO_HEATER.found(
            "No heater aboard",
            f"{words.degrees(cold.si)} outside, {words.degrees(s.build.brief.inside.si)} wished{out}. What sweats is told as if it were so warm.",
            ("warmth", "heater"),
            number=s.build.brief.inside.si - cold.si,
        )
    if made.unrated:
        yield HEATER_UNRATED.found("A heater without watts", f"{made.unrated[0]}: what it gives is not said.", ("warmth", "rating"))
    if made.heater_w is not None and made.there_w is not None and made.there_w < made.heater_w - 0.5:
        least = "at least " if made.unknown else ""
        yield HEATER_SMALL.found(
            f"{words.heat(made.there_w)} for a night of {words.heat(made.heater_w)}",
            f"{words.degrees(made.outside_c or 0)} outside, {words.degrees(made.inside_c or 0)} wished: {least}{words.heat(made.loss_w or 0)} go out, {made.heater_w:.0f} W with a quarter in hand.",
            ("warmth", "heater"),
            number=made.heater_w - made.there_w,
        )
    hot = the_gains(s)
    if hot.cooling_w is not None and hot.there_w is not None and hot.there_w < hot.cooling_w:
        yield COOLER_SMALL.found(
            "The cooler is small",
            f"{words.heat(hot.cooling_w)} come in on the hottest day; it takes {words.heat(hot.there_w)} away.",
            ("warmth", "cooler"),
            number=hot.cooling_w - hot.there_w,
        )
    yield from _sweat(s, words)
    for profile in profiles_of(s.build, s.facts, s.framed):
        if profile.condenses_g_m2 > LEAST_G_M2 and not profile.dries:
            yield WET_INSIDE.found(
                f"{profile.name} gets wet inside", _wet_words(profile, words), ("inside", profile.id), number=profile.condenses_g_m2
            )


def _wet_words(profile: Profile, words: Words) -> str:
    at = words.thick(profile.at_m or 0.0)
    return f"{words.of(profile.condenses_g_m2, 'g/m2 water', 1)} a night at {lower_first(profile.at_name)}, {at} deep; a mild day dries {words.of(profile.dries_g_m2, 'g/m2 water', 1)}."


def _sweat(s: Studied, words: Words) -> Iterator[Finding]:
    night = the_night(s)
    if night.inside_rh is None or night.dew_c is None:
        return
    groups: list[list[Surface]] = []
    for face in night.wet:
        if any(face.where == other.where for group in groups for other in group):
            continue
        if groups and abs(groups[-1][0].t_c - face.t_c) < ALIKE_K:
            groups[-1].append(face)
        else:
            groups.append([face])
    for group in groups[:MOST_TOLD]:
        face = group[0]
        more = "" if len(group) == 1 else f" and {len(group) - 1} more"
        stops = (
            f"{words.of(face.vent_m3h, 'm3/h', 0)} of air stop it, for {words.heat(face.price_w or 0.0)}"
            if face.vent_m3h is not None
            else "no air will stop it: it is damper outside"
        )
        yield SWEATS.found(
            f"{face.name}{more} sweat{'s' if len(group) == 1 else ''}",
            f"{words.degrees(face.t_c, 1)} there, dew at {words.degrees(night.dew_c, 1)} ({min(night.inside_rh, 1.0) * 100:.0f} % damp at {words.of(night.air_m3h, 'm3/h', 0)}{'' if night.air_said else ', a guess'}); {stops}.",
            ("sweat", face.id),
            number=night.dew_c - face.t_c,
        )
