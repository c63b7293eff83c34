"""Whose days are working days: yours, and those of each helper."""

from __future__ import annotations

from functools import partial

from uncle_sled.core.document.edits import add_to, fresh_id, remove, set_to
from uncle_sled.desk.kit.panel import Gap, Group, Panel, across, card, rows
from uncle_sled.desk.kit.parts import Act, Entry, Remade, Says

WEEK = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


class WeekCard(Panel):
    def laid(self) -> Group:
        return card(
            "Whose days",
            Remade(lambda: tuple((helper.id, helper.name) for helper in self.session.build.work.helpers), self._lines),
            Act("Add a helper", "One more whose days are counted", self.add),
            gap=4,
        )

    def _lines(self) -> Group:
        """A row of seven days for oneself and each helper."""
        made = [self._line("", "You")]
        made += [self._line(helper.id, helper.name) for helper in self.session.build.work.helpers]
        return rows(*made, gap=3)

    def _line(self, id: str, name: str) -> Group:
        head = (
            [Says(name, "pencil", share=1)]
            if not id
            else [
                Entry(f"Name of helper {id}", partial(self._call, id), reads=lambda: name, share=1),
                Act("Off", "This helper comes no more", partial(self._no_more, id)),
            ]
        )
        days = [
            Act(word[0], word, partial(self.turn, id, at), down=partial(self._works, id, at), wide=29, name=f"{name}, {word}")
            for at, word in enumerate(WEEK)
        ]
        return rows(across(*head), across(Gap(), *days, gap=2), gap=2)

    def _days(self, id: str) -> tuple[int, ...]:
        work = self.session.build.work
        return work.days if not id else next((helper.days for helper in work.helpers if helper.id == id), ())

    def _works(self, id: str, weekday: int) -> bool:
        return weekday in self._days(id)

    def _call(self, id: str, text: str) -> None:
        self.session.edit(f"Helper: {text[:40]}", [set_to(f"work.helpers.{id}.name", text.strip()[:80])], "Build")

    def add(self) -> None:
        work = self.session.build.work
        id = fresh_id("h", [helper.id for helper in work.helpers])
        self.session.edit("Add a helper", [add_to("work.helpers", {"id": id, "name": f"Helper {len(work.helpers) + 1}"})], "Build")

    def _no_more(self, id: str) -> None:
        self.session.edit("A helper less", [remove(f"work.helpers.{id}")], "Build")

    def turn(self, id: str, weekday: int) -> None:
        after = tuple(sorted(set(self._days(id)) ^ {weekday}))
        path = "work.days" if not id else f"work.helpers.{id}.days"
        self.session.edit(f"{WEEK[weekday]}: {'works' if weekday in after else 'free'}", [set_to(path, list(after))], "Build")
