"""What lies and stands on the roof: feet and screws of things up there, and somebody who steps on it."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.holding import FRICTION, capacities_n
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell import strength as st
from uncle_sled.core.studies.shell.check import Check, unchecked
from uncle_sled.core.studies.shell.roof_holds import ROOF_SPARS
from uncle_sled.core.studies.shell.shell_measures import BOLT_TENSION_N
from uncle_sled.core.studies.shell.walls_hold import SCREW_N
from uncle_sled.core.studies.shell.what_carries import bearing_m, section_of, source_of, stuff_of
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.words import Words

SCREW_IN_STICK_N = 500.0  # one of 4.8 mm, 30 mm deep in a softwood stick, pulled


ROAD_DOWN = 2.5  # of a weight over a bump, as the frame study takes it


FOOT_M = 0.3  # on which somebody stands


POINT_IN_M = 0.003  # a screw's point stays that far inside


ON_ROOF = 0.75  # what stands outside and higher than this share of the body lies on its roof


def on_the_roof(s: Studied) -> tuple[Thing, ...]:
    """What stands outside so high that it lies on the roof; nothing without a body."""
    body = s.framed.body
    if body is None:
        return ()
    low = body.under + ON_ROOF * body.height
    return tuple([t for t in s.build.stow.things if t.outside and t.z.si >= low and not t.taken_out and not t.rides])


def roof_load_checks(s: Studied) -> Iterator[Check]:
    """Panels, racks and boxes on the roof, pulled up by towing air, against what holds them upward."""
    words = Words(s.build.brief.reading.shown())
    for thing in on_the_roof(s):
        id, name = f"uplift/{thing.id}", f"{thing.name}, pulled up"
        hold, weight = thing.hold, thing.mass.si * GRAVITY
        rated = hold is not None and hold.rated is not None and hold.rated.si > 0
        up = capacities_n(hold, weight, FRICTION[thing.floor])["up"] if hold is not None and rated else None
        whose = "its holding as rated on Stow"
        if up is None and hold is not None and hold.kind in ("bolt", "built in") and hold.many > 0:
            # nobody typed a rating: as many screws as are said, into what they go
            each = BOLT_TENSION_N if hold.into == "frame" else SCREW_IN_STICK_N if hold.into == "framing" else SCREW_N
            up, whose = hold.many * each, f"{hold.many} screws of {{{each:.0f} N}} each, screening"
        area = thing.length.si * thing.width.si
        pull = st.uplift_n(area) - weight
        spot = (thing.x.si + thing.length.si / 2, thing.y.si, thing.z.si)
        if pull > 0:
            if up is None:
                yield unchecked(id, name, "what holds it is not rated (Held, on Stow)", (thing.id,))
            else:
                how = f"{{735 Pa}} x 1.2 on {words.m2(area)}, less its weight"
                yield Check(id, name, where=(thing.id,), value=pull, limit=up, unit="N", how=how, source=whose, spot=spot)
        yield from _pressed_down(s, thing, spot)


def _two_feet_nm(foot_n: float, feet_m: list[float], span_m: float) -> float:
    """Greatest moment of a beam on two ends under equal loads at places along it [N m]; those off its ends weigh on the ends."""
    on = [min(max(at, 0.0), span_m) for at in feet_m]
    left = sum(foot_n * (span_m - at) / span_m for at in on)
    return max((left * at - sum(foot_n * max(at - other, 0.0) for other in on) for at in on), default=0.0)


def _pressed_down(s: Studied, thing: Thing, spot: tuple[float, float, float]) -> Iterator[Check]:
    """What lies on the roof, pressed into the sticks under its feet: 2.5 times its weight over a bump, and people in a tent parked.

    Its four feet stand at its corners: two sticks carry two feet each, where they stand along their span. Source: statics;
    the road factor of the frame study; 1.0 parked.
    """
    words = Words(s.build.brief.reading.shown())
    roofs = [face for face in s.framed.body.surfaces if face.kind == "roof"] if s.framed.body is not None else []
    sticks = [m for face in roofs for m in s.framed.on(face.id) if m.role in ROOF_SPARS and not m.along_s and not m.strips]
    people = sum(p.mass.si for p in s.facts.people if p.mass) if "sleeps on the roof" in thing.roles else 0.0
    unweighed = "sleeps on the roof" in thing.roles and any(p.mass is None for p in s.facts.people)
    for id, name, newtons, lasts in (
        (f"down/{thing.id}", f"{thing.name}, pressed down by a bump", ROAD_DOWN * thing.mass.si * GRAVITY, st.MINUTES),
        (f"parked/{thing.id}", f"{thing.name}, with people in it", (thing.mass.si + people) * GRAVITY, st.MINUTES),
    ):
        if id.startswith("parked/"):
            if "sleeps on the roof" not in thing.roles:
                continue
            if not s.facts.people or unweighed:
                yield unchecked(id, name, "what the people weigh is not said (Brief)", (thing.id,))
                continue
        if not sticks:
            yield unchecked(id, name, "the roof has no sticks that are known", (thing.id,))
            continue
        at = min(sticks, key=lambda m: abs(m.at_m[0] - spot[0]))
        span = max(at.length_m - bearing_m(s), 0.1)
        stuff = stuff_of(s, at)
        across = thing.width.si if thing.turn % 180 == 0 else thing.length.si
        feet = [span / 2 + spot[1] - at.at_m[1] + side * across / 2 for side in (-1, 1)]
        moment = _two_feet_nm(newtons / 4, feet, span)
        stress = moment / section_of(at, stuff).modulus_m3
        limit = st.allowable_pa(stuff, at.section_m[1], lasts, together=False)
        factor = f"{ROAD_DOWN:g} x its weight" if id.startswith("down/") else f"{words.kg(thing.mass.si + people)}"
        how = f"{factor}, half of it on {words.section(at.section_m)} over {words.m(span)}; {words.of(moment, 'N m', 0)}"
        yield Check(id, name, where=(thing.id, at.id), value=stress, limit=limit, unit="Pa", how=how, source=source_of(stuff), spot=spot)
