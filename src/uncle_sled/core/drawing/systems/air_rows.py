"""Free air behind fridges, noise at heads, and in words what air conditioners and alarms come to. In points, y up."""

from __future__ import annotations

from uncle_sled.core.document.roles import ALARMS
from uncle_sled.core.drawing.bar_rows import Scale, named, unchecked_bar
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.alarm_places import misplaced
from uncle_sled.core.studies.systems.fridge_slots import Slots
from uncle_sled.core.studies.systems.noise import DOUBT_DB, LIGHT_DB, SLEEPS_DB, AtHead
from uncle_sled.core.studies.systems.wall_cooler import Cooler
from uncle_sled.core.words import Words, all_of, lower_first

HEAD, PITCH, NAME_SHARE, LEAST_BAR = 46.0, 36.0, 0.3, 60.0
LOW_DB, HIGH_DB = 15.0, 70.0


def slots_chart(made: tuple[Slots, ...], words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """A row a fridge: what is open of what its heat wants, of each of two openings."""
    if not made:
        return ()
    says = max(text_width(_slots_says(slots, words)[0], 11) for slots in made) + 20
    left = 12 + min(max(text_width(slots.name, 12) for slots in made), width * NAME_SHARE) + 10
    most = max([slots.wanted_cm2 or 0.0 for slots in made] + [slots.there_cm2 or 0.0 for slots in made] + [1.0])
    scale = Scale(left, max(width - says - 12, left + LEAST_BAR), most)
    shapes: list[Primitive] = []
    y = height - HEAD
    for slots in made:
        if y < 8:
            break
        text, ink = _slots_says(slots, words)
        shapes.append(named(left - 10, y, slots.name, left - 20, 12, anchor="right", id=slots.id))
        if not slots.built_in:
            shapes.append(scale.whole(y))
        elif slots.there_cm2 is None or slots.wanted_cm2 is None:
            shapes.append(unchecked_bar(left, y, scale.room))
        else:
            shapes += [scale.whole(y), scale.bar(y, min(slots.there_cm2, most), "primer" if slots.short else "spruce", id=slots.id)]
        if slots.wanted_cm2 is not None and slots.built_in:
            shapes.append(scale.post(y, slots.wanted_cm2))
        shapes.append(Text((scale.right + 12, y), elided(text, 11, width - scale.right - 16), 11, ink, anchor="left"))
        y -= PITCH
    return tuple(shapes)


def _slots_says(slots: Slots, words: Words) -> tuple[str, str]:
    if not slots.built_in:
        return "stands free", "pencil"
    if slots.wanted_cm2 is None:
        return "its watts: nobody said", "ochre word"
    wanted = words.of(slots.wanted_cm2, "cm2", 0)
    if slots.there_cm2 is None:
        return f"wants {wanted} low and high: not checked", "ochre word"
    return f"{words.of(slots.there_cm2, 'cm2', 0)} of {wanted}", "primer" if slots.short else "ink"


def noise_chart(heads: tuple[AtHead, ...], width: float, height: float) -> tuple[Primitive, ...]:
    """A row a head: the level there between its doubts, marks at what light sleepers and most sleep through."""
    if not heads:
        return ()
    names = [f"{head.name}, {head.end}" for head in heads]
    left = 12 + min(max(text_width(name, 12) for name in names), width * NAME_SHARE) + 10
    says = max(text_width(text, 11) for head in heads for text in _noise_says(head)) + 20
    scale = Scale(left, max(width - says - 12, left + LEAST_BAR), HIGH_DB, LOW_DB)
    shapes: list[Primitive] = [
        Text((scale.x(LIGHT_DB) - 4, height - HEAD + 16), "light sleepers", 10, "pencil", anchor="right"),
        Text((scale.x(SLEEPS_DB) + 4, height - HEAD + 16), "most sleep through", 10, "pencil", anchor="left"),
    ]
    y = height - HEAD - 6
    for head, name in zip(heads, names, strict=True):
        if y < 10:
            break
        shapes.append(named(left - 10, y, name, left - 20, 12, anchor="right", id=head.bed))
        shapes.append(scale.whole(y))
        if head.db is not None:
            ink = "primer" if head.db > SLEEPS_DB else "ochre" if head.db > LIGHT_DB else "spruce"
            at = min(max(head.db, LOW_DB), HIGH_DB)
            shapes.append(scale.bar(y, at, ink, id=head.bed))
            low, high = (min(max(head.db + by, LOW_DB), HIGH_DB) for by in (-DOUBT_DB, DOUBT_DB))
            shapes.append(scale.span(y, low, high, half=2.0, stroke="ink", fill="", width=0.8))
        shapes += [scale.post(y, LIGHT_DB, "pencil", width=1.2), scale.post(y, SLEEPS_DB)]
        for at_row, text in enumerate(_noise_says(head)):
            ink = "ochre word" if "not checked" in text else "ink" if not at_row else "pencil"
            lift = 7 if len(_noise_says(head)) > 1 else 0
            shapes.append(
                Text((scale.right + 12, y + lift - 14 * at_row), elided(text, 11, width - scale.right - 16), 11, ink, anchor="left")
            )
        y -= PITCH
    return tuple(shapes)


def _noise_says(head: AtHead) -> tuple[str, ...]:
    """The level and what makes it; then what nobody gave a level of."""
    missing = f"{head.unknown[0]}: not checked" if head.unknown else ""
    if len(head.unknown) > 1:
        missing = f"{len(head.unknown)} not checked"
    loudest = head.loudest
    if loudest is None:
        return (missing,)
    through = f", through {lower_first(loudest.through[0])}" if loudest.through else ""
    first = f"{head.db:.0f} dB: {lower_first(loudest.name)}{through}"
    return (first, missing) if missing else (first,)


def cooler_words(made: tuple[Cooler, ...], words: Words) -> list[str]:
    """Where the heat and the water go, a line each."""
    told = []
    for cooler in made:
        where = {"outside": "outside", "hole": f"out by {lower_first(cooler.hole)}", "": "nobody knows where: no hole is drawn"}[cooler.hot]
        heat = "its heat (watts nobody said)" if cooler.rejects_w is None else words.of(cooler.rejects_w, "W heat", 0)
        told.append(f"{cooler.name}: {heat} blow {where}.")
        if cooler.water_l_h is None:
            told.append("Its condensate is not checked: how much it cools nobody said.")
        else:
            day = "" if cooler.water_l_day is None else f", {words.m3(cooler.water_l_day / 1000)} a day"
            told.append(
                f"In damp air {words.of(cooler.water_l_h * 1000, 'g/h', 0)} of water run from it{day}: a hose that falls, to outside."
            )
        if cooler.back_in:
            told.append(f"Warm air comes back in by {all_of(cooler.back_in)}.")
    return told


def alarm_words(s: Studied, words: Words) -> list[str]:
    """Whether each alarm hangs where its rule wants it."""
    wrong = {(place.id, place.role): place for place in misplaced(s)}
    told = []
    for thing in s.build.stow.things:
        for role in thing.roles:
            if role not in ALARMS or thing.taken_out:
                continue
            place = wrong.get((thing.id, role))
            how = "hangs where it should" if place is None else f"is {words.m(place.off_m)} too {'high' if role == 'gas alarm' else 'low'}"
            told.append(f"{thing.name} {how}.")
    return told
