"""Judgements on power: how long it lasts, what is too small, and what nobody said."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, add_to, apply, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.bank import inverter_a
from uncle_sled.core.studies.systems.panel_strings import UNLIKE, VOLTS_IN_HAND, Strung, strung
from uncle_sled.core.studies.systems.sizing import battery_ops, least_of, needs_under, panel_ops
from uncle_sled.core.studies.systems.stay import Stay, String, panels_wp, shade_on, stay_of
from uncle_sled.core.studies.systems.sun import HOURS, sun_stays
from uncle_sled.core.studies.systems.systems_as_built import stay_mode, the_stay
from uncle_sled.core.wiring.appliances import INVERTER_ETA, figures_of, units_of
from uncle_sled.core.wiring.rows import in_series, nominal_v
from uncle_sled.core.words import Words, lower_first

SOURCE = "hourly balance of sun, loads and battery"  # of every rule here, said after its reason

CAUTION = "Reckoned from typed watts and usual weather; batteries and mains are for those who know them."
ORDINALS = ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth")
Made = tuple[tuple[Op, ...], str]
OLDER_BY = 2  # years


def day_words(hours: float) -> str:
    """Which day of the stay an hour falls on: the third day."""
    day = int(hours // HOURS)
    return f"the {ORDINALS[day]} day" if day < len(ORDINALS) else f"day {day + 1}"


def _needed(s: Studied, sky: str) -> tuple[float | None, float | None]:
    found = needs_under(s.build, stay_mode(s.build), sky)
    return (None, None) if found is None else (found.battery_wh, found.panel_wp)


def _more_panel(s: Studied, finding: Finding) -> Made | None:
    _, wanted = _needed(s, finding.where[1])
    panels = units_of(s.build, "panel")
    if wanted is None or not panels:
        return None
    last = max(panels, key=lambda t: figures_of(t).solar_wp or 0.0)
    rest = panels_wp(s.build) - (figures_of(last).solar_wp or 0.0)
    made = panel_ops(last, wanted - rest)
    if made is None:
        return None
    ops = list(made[0])
    for charger in units_of(s.build, "solar charger"):  # a controller that holds it back grows with it
        watts = figures_of(charger).charge_w
        if watts is not None and watts < rest + made[1]:
            ops.append(set_to(f"stow.things.{charger.id}.figures.charge_w", rest + made[1]))
    return tuple(ops), f"Take a {made[1]:.0f} W panel for the {lower_first(last.name)}"


def _more_battery(s: Studied, finding: Finding) -> Made | None:
    wanted, _ = _needed(s, finding.where[1])
    batteries = units_of(s.build, "battery")
    stay = the_stay(s)
    if wanted is None or not batteries or stay.bank is None:
        return None
    share = wanted / len(batteries)
    made = [battery_ops(thing, share) for thing in batteries]
    if any(one_of is None for one_of in made):
        return None
    told = [one_of for one_of in made if one_of is not None]
    many = f"{len(told)} batteries of" if len(told) > 1 else "a battery of"
    return tuple(op for ops, _ in told for op in ops), f"Take {many} {told[0][1]:.0f} Ah"


def _leave_off(s: Studied, finding: Finding) -> Made | None:
    """The fewest watt hours that must stay at home: what need not run, largest last that is enough alone."""
    stay = the_stay(s)
    rows = [(float(stay.demand.wh[k].sum()), load) for k, load in enumerate(stay.demand.loads) if not load.must_run]
    for _, load in sorted(rows, key=lambda pair: pair[0]):
        ops = _off_ops(s.build, load.id)
        after = stay_of(apply(s.build, ops), stay_mode(s.build)).of(finding.where[1])
        if after is not None and after.first_dark_h is None:
            return ops, f"Leave the {lower_first(load.name)} off for the stay"
    return None


def _off_ops(build: Build, id: str) -> tuple[Op, ...]:
    if any(off_.id == id for off_ in build.systems.off):
        return (set_to(f"systems.off.{id}.stay", value=True),)
    return (add_to("systems.off", {"id": id, "stay": True}),)


def _lasts_words(tried: Studied, finding: Finding) -> str:
    stay = the_stay(tried)
    string = stay.of(finding.where[1])
    if string is None:
        return "the stay is not known"
    ball = tried.readings.tongue_kg[tried.towing_rows[0]] if tried.towing_rows else None
    words = Words(tried.build.brief.reading.shown())
    weighs = f", {words.kg(float(ball))} on the ball" if ball is not None and ball == ball else ""
    return f"all {stay.nights} nights in {string.name.lower()} weather{weighs}"


def _bigger_controller(s: Studied, _finding: Finding) -> Made | None:
    found = next((least for least in least_of(s.build) if "solar charger" in least.units), None)
    chargers = units_of(s.build, "solar charger")
    if found is None or found.wanted is None or not chargers:
        return None
    watts = found.wanted * s.build.systems.volts / len(chargers)
    ops = tuple(set_to(f"stow.things.{t.id}.figures.charge_w", watts) for t in chargers)
    return ops, f"Take a controller of {found.wanted:.0f} A"


def _fewer_in_series(s: Studied, _finding: Finding) -> Made | None:
    if s.build.systems.panels_in_series < 2:
        return None
    return (set_to("systems.panels_in_series", s.build.systems.panels_in_series - 1),), "Put one panel fewer in a row"


def _more_in_series(s: Studied, _finding: Finding) -> Made | None:
    """Another panel in each row, where that comes out even and the controller stands it."""
    wanted = s.build.systems.panels_in_series + 1
    ops = (set_to("systems.panels_in_series", wanted),)
    if len(units_of(s.build, "panel")) % wanted:
        return None
    tried = strung(apply(s.build, ops))
    return (ops, f"Put {wanted} panels in a row") if all(one.charges and one.fits is not False for one in tried) else None


GOES_DARK = Rule(
    "goes-dark",
    "mind",
    "Systems",
    "Something goes dark before the stay without a hookup is over",
    "A bank that runs empty every trip is worn out in a year; what must run has a reserve of its own.",
    CAUTION,
    helps="edit",
    cure=_more_panel,
    more=(_more_battery, _leave_off),
    after=_lasts_words,
)
STAY_UNKNOWN = Rule(
    "stay-unknown",
    "note",
    "Systems",
    "How long the power lasts cannot be told",
    "Without place, month and nights nobody knows what sun there is, and for how long it has to do.",
    why_none="Say it on Brief, or type the missing figure.",
)
LOAD_UNKNOWN = Rule(
    "load-unknown",
    "note",
    "Systems",
    "A load without watts or hours",
    "It is left out of the day, and nothing it hangs on is sure.",
    why_none="Type its watts and hours in the loads.",
)
DRAWN_HARD = Rule(
    "battery-overdrawn",
    "stop",
    "Systems",
    "An inverter that asks the battery for more than it gives",
    "The battery shuts off, or is ruined; its own limit stands on its data sheet.",
    CAUTION,
    why_none="A smaller inverter, a larger bank, or a higher voltage.",
)
STRING_HIGH = Rule(
    "panel-volts",
    "stop",
    "Systems",
    "Panels in a row that pass the controller's volts on the coldest day",
    "Cold panels give more volts than their plate says; over its limit the controller dies at once.",
    CAUTION,
    helps="edit",
    cure=_fewer_in_series,
    after=lambda tried, _finding: _volts_words(tried),
)
STRING_LOW = Rule(
    "panel-volts-low",
    "mind",
    "Systems",
    "Panels whose volts in the heat do not fill the bank",
    "A controller that seeks the panels' best lets go below the bank's own volts: at noon in summer nothing comes.",
    CAUTION,
    helps="edit",
    cure=_more_in_series,
    after=lambda tried, _finding: _volts_words(tried),
    why_none="Another panel in the row, as far as the controller's volts allow.",
)
STRING_UNLIKE = Rule(
    "panels-unlike",
    "mind",
    "Systems",
    "Unlike panels in one row, or unlike rows at one controller",
    "In a row the weakest current is everybody's; side by side the lowest volts are.",
    why_none="Like panels in a row, as many in each row, or a controller of its own.",
)
STRING_UNSAID = Rule(
    "panel-volts-unsaid",
    "note",
    "Systems",
    "Volts of panels in a row, or of their controller, that nobody said",
    "Over its limit a controller dies at once.",
    CAUTION,
    why_none="Type open volts (panel) and what it takes at the most (controller) from their plates, In hand.",
)
BANK_AGES = Rule(
    "battery-ages",
    "mind",
    "Systems",
    "Batteries of one bank whose age differs by two years or more",
    "The old one sets what the new one gives, and wears it to its own age.",
    CAUTION,
    why_none="Batteries bought together, or banks of their own.",
)
CLIPS = Rule(
    "controller-small",
    "note",
    "Systems",
    "A charge controller that holds the panels back",
    "What it cannot pass on is lost at the best hours.",
    helps="edit",
    cure=_bigger_controller,
    after=lambda _tried, _finding: "nothing is held back",
)
SHADED = Rule(
    "panel-shaded",
    "mind",
    "Systems",
    "Panels that lie in full shade all day",
    "They give nothing there.",
    why_none="Take the shade off the hours that have sun, or put the panels elsewhere.",
)
NO_CONTROLLER = Rule(
    "panel-loose",
    "mind",
    "Systems",
    "Panels without a charge controller",
    "A panel straight on a battery boils it.",
    CAUTION,
    why_none="Add a charge controller from the catalogue.",
)
BANK_ODD = Rule(
    "bank-odd",
    "stop",
    "Systems",
    "Batteries that do not make rows of the bank's volts",
    "Rows in series hold equal batteries, and as many as the volts want.",
    CAUTION,
    why_none="Another number of batteries, or other volts.",
)
LEAD_INSIDE = Rule(
    "battery-in-room",
    "mind",
    "Systems",
    "A lead battery in the air that people breathe",
    "It gives off hydrogen while it charges, and acid mist when it is overcharged.",
    CAUTION,
    why_none="A box that is vented outside, or a battery that gives off none.",
)


def _volts_words(tried: Studied) -> str:
    told = [one.open_v for one in strung(tried.build) if one.open_v is not None]
    return f"{max(told, default=0.0):.0f} V on the coldest day"


def _strings(build: Build, words: Words) -> Iterator[Finding]:
    """Rows of panels against their controllers: too much in the cold, too little in the heat, unlike ones, what nobody said."""
    for one in strung(build):
        high = max(one.rows, key=lambda row: row.open_v or 0.0)
        if one.fits is False and one.open_v is not None:
            yield STRING_HIGH.found(
                f"{one.open_v:.0f} V on a cold morning" if one.cold_said else f"{one.open_v:.0f} V, and more in the cold",
                f"{high.name} open at {words.degrees(one.coldest_c)}{'' if one.cold_said else ' (how cold it gets nobody said)'}: {one.open_v:.1f} V, with 5 % in hand {one.open_v * VOLTS_IN_HAND:.1f} V; the controller takes {one.most_v:.0f} V.",
                (high.panels[0],),
                number=one.open_v,
            )
        if one.charges is False:
            low = min(one.rows, key=lambda row: row.runs_v or 0.0)
            yield STRING_LOW.found(
                f"{low.runs_v or 0.0:.0f} V at a hot noon",
                f"{low.name} with cells at {words.degrees(one.hot_c)}: a bank of {build.systems.volts} V wants {one.needs_v:.1f} V at its controller to be filled.",
                (low.panels[0],),
                number=one.needs_v - (low.runs_v or 0.0),
            )
        yield from _unlike(one)


def _unlike(one: Strung) -> Iterator[Finding]:
    lost = one.lost_w
    if lost is not None and one.plate_w and lost > UNLIKE * one.plate_w:
        worst = max(one.rows, key=lambda row: (row.plate_w or 0.0) - (row.gives_w or 0.0))
        within = (worst.plate_w or 0.0) - (worst.gives_w or 0.0) > 0.5
        yield STRING_UNLIKE.found(
            f"{lost:.0f} W of {one.plate_w:.0f} W lost",
            f"{worst.name} in one row: the weakest current is everybody's."
            if within
            else f"{len(one.rows)} rows of unlike volts side by side: the controller finds one voltage for all.",
            (worst.panels[0],),
            number=lost,
        )
    blank = next((row for row in one.rows if row.open_v is None), None)
    if one.controllers and (blank is not None or (one.most_v is None and max(len(row.panels) for row in one.rows) > 1)):
        what = f"the open volts of {lower_first(blank.name)}" if blank is not None else f"what {lower_first(one.name)} takes at the most"
        yield STRING_UNSAID.found(
            "Volts of panels: nobody said",
            f"Whether cold panels ruin the controller is not checked: {what} nobody said.",
            (one.rows[0].panels[0],),
        )


def power_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Does the stay last on this battery and sun, and is the battery fit for it? Yields what is not."""
    build = s.build
    stay = the_stay(s)
    if not (stay.bank is not None or stay.demand.loads or stay.panels_wp > 0):
        return
    yield from _dark(s, stay, words)
    yield from _unknown(s, stay)
    yield from _hard(build, stay)
    yield from _strings(build, words)
    clipped = max((string.held_back_wh for string in stay.strings if string.id == "clear"), default=0.0)
    controller = next((least for least in least_of(build) if "solar charger" in least.units), None)
    if (
        controller is not None
        and controller.there is not None
        and controller.wanted is not None
        and controller.there < controller.wanted * 0.99
        and clipped > 1
    ):
        yield CLIPS.found(
            "The controller holds the sun back",
            f"{controller.there:.0f} A where {controller.wanted:.0f} A would be right: {words.wh(clipped)} held back in {stay.nights} clear days.",
            tuple(t.id for t in units_of(build, "solar charger")),
            number=controller.wanted - controller.there,
        )
    panels = units_of(build, "panel")
    dark = [panel for panel in panels if float(shade_on(build, panel)[6:18].min()) >= 1.0]
    if stay.panels_wp > 0 and dark:
        whole = len(dark) == len(panels)
        yield SHADED.found(
            "The panels lie in the dark" if whole else f"{dark[0].name} lies in the dark",
            "Full shade at every hour of the day: no sun comes in.",
            ("power",) if whole else ("power", dark[0].id),
            severity="mind",
        )
    if panels and not units_of(build, "solar charger", "station"):
        yield NO_CONTROLLER.found("No charge controller", f"{panels[0].name} has nothing between it and the battery.", (panels[0].id,))
    yield from _rows(build)
    yield from _lead(s)


def _dark(s: Studied, stay: Stay, words: Words) -> Iterator[Finding]:
    if stay.why or not stay.nights_said:
        return
    for string in stay.strings:
        if string.first_dark_h is not None:
            yield GOES_DARK.found(
                f"Dark on {day_words(string.first_dark_h)}: {string.name.lower()} weather",
                f"{string.first_dark} goes dark after {string.first_dark_h} hours of {stay.nights * HOURS}; {_balance(s, stay, string, words)}.",
                ("power", string.id),
                number=stay.nights - string.first_dark_h / HOURS,
            )


def _balance(s: Studied, stay: Stay, string: String, words: Words) -> str:
    comes = float((string.sun_wh + string.car_wh + string.generator_wh + string.mains_wh).sum()) / stay.nights
    assert stay.bank is not None
    latitude = s.build.brief.latitude_deg
    stays = sun_stays(latitude, stay.day) if latitude is not None and stay.day is not None and stay.panels_wp > 0 else ""
    sun = {"down": "; the sun does not rise there then", "up": "; the sun does not set there then", "": ""}[stays]
    return f"{words.wh(stay.demand.daily_wh)} a day go out, {words.wh(comes)} come in, the battery holds {words.wh(stay.bank.cold_wh)}{sun}"


def _unknown(s: Studied, stay: Stay) -> Iterator[Finding]:
    why = [one for one in stay.why if "battery or power station" not in one or stay.panels_wp > 0]
    if not stay.why and not stay.nights_said and stay.bank is not None and not s.build.systems.plugged:
        why.append("Nights without hookup are not said on Brief.")
    if why:
        yield STAY_UNKNOWN.found("How long it lasts is not known", " ".join(why), ("power",))
    missing = [run for run in stay.demand.loads if run.unsaid]
    if missing:
        more = f" and {len(missing) - 1} more" if len(missing) > 1 else ""
        yield LOAD_UNKNOWN.found(
            "A load nobody knows",
            f"{missing[0].name}{more}: {missing[0].unsaid} nobody said, so the day is more than {stay.demand.daily_wh:.0f} Wh.",
            tuple([run.id for run in missing[:3]]),
        )


def _hard(build: Build, stay: Stay) -> Iterator[Finding]:
    bank = stay.bank
    if bank is None or bank.limit_a is None:
        return
    for thing in units_of(build, "inverter", "inverter charger"):
        watts = figures_of(thing).power_w
        if watts is None:
            continue
        amps = inverter_a(watts, bank.volts, bank.chemistry, INVERTER_ETA)
        limit = bank.minute_a or bank.limit_a
        if amps > limit + 1e-9:
            yield DRAWN_HARD.found(
                f"{thing.name} draws {amps:.0f} A",
                f"{watts:.0f} W at the low battery: {amps:.0f} A; the bank gives {limit:.0f} A{' for a minute' if limit != bank.limit_a else ''}.",
                (thing.id,),
                number=amps - limit,
            )


def _rows(build: Build) -> Iterator[Finding]:
    batteries = units_of(build, "battery")
    series, own = in_series(build), nominal_v(figures_of(batteries[0])) if batteries else 12
    if batteries and own > build.systems.volts:
        yield BANK_ODD.found(
            f"{own} V battery on {build.systems.volts} V",
            f"{batteries[0].name} gives {own} V; what is wired for {build.systems.volts} V burns on it.",
            (batteries[0].id,),
        )
    elif batteries and len(batteries) % series:
        yield BANK_ODD.found(
            f"{len(batteries)} for {build.systems.volts} V",
            f"{build.systems.volts} V want rows of {series} batteries of {own} V; there are {len(batteries)}.",
            tuple(t.id for t in batteries),
            number=float(len(batteries)),
            severity="mind",
        )
    kinds = sorted({figures_of(t).chemistry or "unsaid" for t in batteries})
    if len(kinds) > 1 and "unsaid" not in kinds:
        yield BANK_ODD.found(
            f"{' and '.join(kinds)} in one bank",
            "They fill and empty at other volts: one is overcharged or the other never full.",
            tuple(t.id for t in batteries[:6]),
        )
    volts = sorted({nominal_v(figures_of(t)) for t in batteries})
    if len(volts) > 1:
        yield BANK_ODD.found(
            f"Batteries of {' and '.join(f'{v} V' for v in volts)}",
            "Side by side the higher one empties into the lower; in a row each wants what the other gets.",
            tuple(t.id for t in batteries[:6]),
        )
    years = [t.since for t in batteries if t.since is not None]
    if years and max(years) - min(years) >= OLDER_BY:
        yield BANK_AGES.found(
            f"Batteries of {min(years)} and {max(years)}",
            f"{max(years) - min(years)} years lie between the oldest and the newest of one bank.",
            tuple(t.id for t in batteries[:6]),
            number=float(max(years) - min(years)),
        )
    sizes = {figures_of(t).amp_hours for t in batteries} - {None}
    if len(sizes) > 1:
        told = " and ".join(f"{one:g} Ah" for one in sorted(size for size in sizes if size is not None))
        yield BANK_ODD.found(
            "Unequal batteries", f"{told} in one bank: the weaker is worn out by the stronger.", ("power",), severity="mind"
        )


def _lead(s: Studied) -> Iterator[Finding]:
    build = s.build
    shell = build.shell
    if shell.form == "none" or not (shell.front and shell.length):
        return
    for thing in units_of(build, "battery"):
        middle = thing.x.si + thing.length.si / 2
        inside = shell.front.si <= middle <= shell.front.si + shell.length.si and not thing.outside
        if inside and not thing.room_sealed and (thing.vents_gas or figures_of(thing).chemistry == "lead"):
            yield LEAD_INSIDE.found(
                f"{thing.name} gasses inside", f"{thing.name} stands inside and is in no box that is vented outside.", (thing.id,)
            )
