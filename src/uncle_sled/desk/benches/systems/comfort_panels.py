"""Water, frost, gas and warmth: the drawing first, what it hangs on beside it."""

from __future__ import annotations

from collections.abc import Callable, Hashable

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.systems.air_rows import alarm_words, cooler_words, noise_chart, slots_chart
from uncle_sled.core.drawing.systems.carried_rows import carried_rows
from uncle_sled.core.drawing.systems.frost_chart import frost_bars
from uncle_sled.core.drawing.systems.frost_words import CAUTION, drain_words, frost_words
from uncle_sled.core.drawing.systems.gas_chart import boil_chart, fuel_bars
from uncle_sled.core.drawing.systems.hot_walls_chart import hot_walls_chart, hot_words
from uncle_sled.core.drawing.systems.warmth_chart import loss_bars, summer_bars
from uncle_sled.core.drawing.systems.water_chart import litres_chart, water_line
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.carried_out import carried_out
from uncle_sled.core.studies.systems.fridge_slots import fridge_slots
from uncle_sled.core.studies.systems.frost import frost_of
from uncle_sled.core.studies.systems.gas import AIR_M3H_KW, CO2_M3_KWH, WATER_G_KWH
from uncle_sled.core.studies.systems.heat import ducts_of
from uncle_sled.core.studies.systems.hot_walls import hot_walls
from uncle_sled.core.studies.systems.noise import DOUBT_DB, noise_at_heads
from uncle_sled.core.studies.systems.sweat import fan_of
from uncle_sled.core.studies.systems.systems_as_built import the_gains, the_gas, the_losses, the_water
from uncle_sled.core.studies.systems.wall_cooler import wall_coolers
from uncle_sled.core.studies.systems.water import uncounted
from uncle_sled.core.words import Words, all_of
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Group, Panel, across, card, rows
from uncle_sled.desk.kit.parts import Cards, Drawing, Fields, Remade, Says

SIDE_PX = 274
Maker = Callable[[Studied, Words, float, float], tuple[Primitive, ...]]


class Comfort(Panel):
    """Drawings at the left, one over the other; what they hang on and a few sentences at the right."""

    def beside(self, drawings: tuple[Drawing, ...], *cards: Fields) -> Group:
        side = rows(Says(self.told), Cards(cards, share=1), wide=SIDE_PX)
        return across(rows(*drawings, gap=8, share=1), side, gap=8)

    def drawing(self, name: str, title: str, make: Maker, why: Callable[[], str], share: int, high: int = 90) -> Drawing:
        def made(width: float, height: float) -> tuple[Primitive, ...]:
            return make(self.studied, self.words, width, height)

        return Drawing(name, made, title, why, least=(0, high), share=share)

    @property
    def studied(self) -> Studied:
        """As it is, or as what is tried would have it."""
        return self.session.ghost_studied or self.session.studied

    def told(self) -> list[str]:
        return []


class WaterPanel(Comfort):
    def laid(self) -> Group:
        return self.beside(
            (
                self.drawing(
                    "Litres over the days",
                    "How long it lasts",
                    lambda s, words, w, h: litres_chart(the_water(s), words, w, h),
                    self._why,
                    3,
                ),
                self.drawing(
                    "The way of the water",
                    "From fill point to grey",
                    lambda s, words, w, h: water_line(s.build, the_water(s), words, w, h),
                    lambda: "",
                    2,
                    high=156,
                ),
                self.drawing(
                    "What fills up and what is carried",
                    "Filled and carried out",
                    lambda s, words, w, h: carried_rows(carried_out(s), words, w, h),
                    lambda: "No tank, jug or toilet is aboard yet.",
                    3,
                ),
            ),
            Fields(
                "What it is used for",
                plain("systems.water", "drink_l dishes_l basin_l showers_day shower_l laundry_l days"),
                "Systems",
                112,
            ),
            Fields("Toilet", plain("systems.water", "toilet_share flush_l flush_from"), "Systems", 112),
            Fields(
                "How it runs",
                plain("systems.water", "hose_bore hose_length tap_height fall drain_length trap vented overflow low_drain fill_lockable"),
                "Systems",
                112,
            ),
        )

    def _why(self) -> str:
        return " ".join(the_water(self.studied).why) or "Nothing to draw yet."

    def told(self) -> list[str]:
        made, words = the_water(self.studied), self.words
        told = [f"{made.people} aboard use {words.m3(made.need_l_day / 1000)} a day; {words.m3(made.grey_l_day / 1000)} come back."]
        if made.people and (missing := uncounted(self.studied.build)):
            told.append(f"Not counted, since nobody said: {all_of(missing)}.")
        if made.days_fresh is not None:
            told.append(f"Fresh for {made.days_fresh:.1f} days.")
        if made.pump_kpa is not None and made.pump_w is not None:
            way = "as typed" if made.hose_said else "by where tank and tap stand"
            told.append(f"Hose {words.m(made.hose_m)}, {way}.")
            told.append(
                f"The pump lifts {words.of(made.pump_kpa, 'kPa', 0)} with {made.pump_w:.0f} W; {words.of(made.speed_m_s, 'm/s', 1)} in the hose."
            )
        if made.heat_wh is not None:
            told.append(f"A warm shower takes {made.heat_wh:.0f} Wh.")
        return told


class FrostPanel(Comfort):
    def laid(self) -> Group:
        bars = self.drawing(
            "When water freezes", "No heat: hours to ice", lambda s, words, w, h: frost_bars(frost_of(s), words, w, h), self._why, 3
        )
        side = rows(
            Says(self.told),
            Cards(
                (
                    Fields(
                        "The night",
                        [Row("brief.coldest", tip="Outside; also on Brief"), *plain("brief", "inside"), *plain("systems.air", "vent_m3h")],
                        "Systems",
                        112,
                    ),
                    Fields("Its ways", plain("systems.water", "low_drain hose_bore hose_length trap"), "Systems", 112),
                ),
                share=1,
            ),
            wide=SIDE_PX,
        )
        return across(rows(bars, card("Empty it in this order", Says(self._drains, face="small")), gap=8, share=1), side, gap=8)

    def _why(self) -> str:
        return " ".join(self.told())

    def _drains(self) -> list[str]:
        return list(drain_words(self.studied, frost_of(self.studied))) or ["Nothing to empty."]

    def told(self) -> list[str]:
        made = frost_of(self.studied)
        return [*frost_words(made, self.words), *([] if made.why else [CAUTION])]


class AirPanel(Comfort):
    def laid(self) -> Group:
        slots = self.drawing(
            "Free air behind fridges",
            "Free air behind fridges, of each opening",
            lambda s, words, w, h: slots_chart(fridge_slots(s.build, s.framed), words, w, h),
            lambda: "No fridge with a machine stands inside.",
            1,
            high=104,
        )
        noise = self.drawing(
            "Noise at heads by night",
            "Noise at each end of the beds, by night",
            lambda s, _words, w, h: noise_chart(noise_at_heads(s), w, h),
            lambda: "Nobody lies where something runs by night.",
            3,
        )
        drawings = rows(slots, noise, card("Air conditioners and alarms", Says(self._coolers, face="small")), gap=8, share=1)
        side = rows(Says(self.told), Cards((Remade(self._whose, self._figures),), share=1), wide=SIDE_PX)
        return across(drawings, side, gap=8)

    def _named(self) -> list[Thing]:
        """Whose free air or noise is typed here: what is judged on this view."""
        s = self.studied
        ids = {slots.id for slots in fridge_slots(s.build, s.framed)} | {each.id for head in noise_at_heads(s) for each in head.heard}
        return [thing for thing in self.session.build.stow.things if thing.id in ids]

    def _whose(self) -> Hashable:
        return tuple((thing.id, thing.name) for thing in self._named())

    def _figures(self) -> Fields:
        fridges = {slots.id for slots in fridge_slots(self.studied.build, self.studied.framed)}
        made = []
        for thing in self._named():
            path = f"stow.things.{thing.id}.figures"
            made += [Row(f"{path}.slot_cm2", title=f"{thing.name}, free air")] if thing.id in fridges else []
            made.append(Row(f"{path}.noise_db", title=f"{thing.name}, noise"))
        return Fields("By their data sheets", made, "Systems", 132)

    def _coolers(self) -> list[str]:
        s, words = self.studied, self.words
        return [*cooler_words(wall_coolers(s.build, s.facts), words), *alarm_words(s, words)] or ["None aboard."]

    def told(self) -> list[str]:
        return [
            "A built-in fridge is rid of its heat by two openings, low and high, while it runs.",
            f"Noise by data sheets at {self.words.m(1.0)}, by distance, room and walls; give or take {DOUBT_DB:.0f} dB.",
            "Papers of the maker go first.",
        ]


class GasPanel(Comfort):
    def laid(self) -> Group:
        return self.beside(
            (
                self.drawing(
                    "What a cylinder keeps up over the temperature",
                    "What the cylinder keeps up, propane",
                    lambda s, words, w, h: boil_chart(the_gas(s), s.build.brief.coldest.si if s.build.brief.coldest else None, words, w, h),
                    lambda: "No gas cylinder aboard.",
                    3,
                ),
                self.drawing(
                    "How long each fuel lasts", "How long it lasts", lambda s, words, w, h: fuel_bars(the_gas(s), words, w, h), self._why, 2
                ),
                self.drawing(
                    "How warm walls beside fires get",
                    "Walls beside what burns, after an evening",
                    lambda s, words, w, h: hot_walls_chart(hot_walls(s.build, s.facts, s.framed), words, w, h),
                    lambda: "Nothing that burns stands within reach of a wall.",
                    3,
                ),
            ),
            Fields("Air for flames", plain("systems.air", "high_cm2 low_cm2 locker_drains gas_detector"), "Systems", 112),
        )

    def _why(self) -> str:
        made = the_gas(self.studied)
        return " ".join(f"{one}." for one in made.why) or "No gas, diesel or petrol is burnt aboard."

    def told(self) -> list[str]:
        made, words = the_gas(self.studied), self.words
        told = [f"{one}." for one in made.why]
        bottles = sum(1 for t in self.studied.build.stow.things if t.tank and t.tank.contents == "gas" and not t.taken_out)
        days = made.days.get("gas")
        if bottles and days is not None:
            told.append(f"A cylinder lasts {days / bottles:.1f} days; {bottles} {'is' if bottles == 1 else 'are'} aboard.")
        if made.open_kw > 0:
            told.append(
                f"{made.open_kw:.1f} kW burn into the room: {words.of(made.open_kw * WATER_G_KWH, 'g/h', 0)} of water, {words.of(made.open_kw * CO2_M3_KWH, 'm3/h', 2)} of carbon dioxide, {words.of(made.open_kw * AIR_M3H_KW, 'm3/h', 0)} of fresh air wanted."
            )
        told += hot_words(hot_walls(self.studied.build, self.studied.facts, self.studied.framed), words)
        told.append("Gas is for licensed people where the law says so. Sizes of a law are typed, never made up here.")
        return told


class WarmthPanel(Comfort):
    def laid(self) -> Group:
        return self.beside(
            (
                self.drawing(
                    "Where the warmth goes on the coldest night",
                    "The coldest night",
                    lambda s, words, w, h: loss_bars(the_losses(s), words, w, h),
                    self._cold,
                    3,
                ),
                self.drawing(
                    "Where the heat comes from on the hottest day",
                    "The hottest day",
                    lambda s, words, w, h: summer_bars(the_gains(s), words, w, h),
                    self._hot,
                    2,
                ),
            ),
            Fields("The night", [Row("brief.coldest", tip="Outside; also on Brief"), *plain("brief", "inside hottest")], "Systems", 112),
            Fields(
                "Air", plain("systems.air", "vent_m3h recovery heater_m3h ducts duct_bore return_cm2 fan_m3h inlet_cm2"), "Systems", 112
            ),
        )

    def _cold(self) -> str:
        return " ".join(the_losses(self.studied).why) or "Nothing to draw yet."

    def _hot(self) -> str:
        return "The hottest day is not said: type it beside."

    def told(self) -> list[str]:
        s = self.studied
        made, words = the_losses(s), self.words
        told = []
        if made.unknown:
            told.append(f"{len(made.unknown)} of {len(made.paths)} ways not checked: {made.unknown[0]}.")
        if made.warm_up_h is not None and made.outside_c is not None and made.inside_c is not None:
            told.append(f"From {words.degrees(made.outside_c)} to {words.degrees(made.inside_c)} in {made.warm_up_h:.1f} h.")
        elif (
            made.loss_w is not None
            and made.there_w is not None
            and made.holds_c is not None
            and made.inside_c is not None
            and made.holds_c < made.inside_c
        ):
            told.append(f"It holds {words.degrees(made.holds_c)} and never gets to {words.degrees(made.inside_c)}.")
        hot = the_gains(s)
        if hot.cooling_w is not None and hot.draws_w:
            told.append(f"A cooler draws {hot.draws_w:.0f} W; Together says how long the battery runs it.")
        ducts = ducts_of(s.build)
        if ducts is not None:
            told.append(
                f"Return of {words.of(ducts.return_cm2, 'cm2', 0)} keeps it under {words.of(2.5, 'm/s', 1)}."
                + (f" Holes to drill {words.thick(ducts.hole_m)}." if ducts.hole_m else "")
            )
        fan = fan_of(s.build)
        if fan is not None:
            told.append(f"The roof fan wants an inlet of {words.of(fan.wanted_cm2, 'cm2', 0)}.")
        return told
