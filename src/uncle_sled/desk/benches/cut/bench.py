"""Cut: the drawing as pieces, pieces as cuts, and all of it as a list to buy and a sum of money."""

from __future__ import annotations

from uncle_sled.core.document.edits import Op, add_to, fresh_id, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.studies.cut.cut_from_stock import BuildPlan, first_laid, laid_out
from uncle_sled.core.studies.cut.handed import Handed, handed
from uncle_sled.core.studies.cut.numbers import numbers_of, print_ops
from uncle_sled.core.studies.cut.sawing import offcuts_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.bench import PanelBench
from uncle_sled.desk.kit.panel import PanelOf
from uncle_sled.desk.session import Session

CAUTION = (
    "Saws maim and dust harms: guards on, eyes, ears and lungs kept; the saw's own papers decide. Prices are as sure as their words say."
)


class CutBench(PanelBench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop, CAUTION)
        self.marked: tuple[str, ...] = ()  # keys of pieces that are lit
        session.answers.changed.connect(self._answered)
        self.show_view("Pieces")

    def refresh(self) -> None:
        if self.isVisible() and self.view != "Pieces":
            self._ask()
        super().refresh()

    # the plan
    def _ask(self) -> None:
        """A first plan, and the one with all patience after it."""
        answers = self.session.answers
        if not answers.of(laid_out).fresh:
            if not answers.in_place:
                answers.ask(first_laid)
            answers.ask(laid_out)

    def _answered(self, study: object) -> None:
        if study in (laid_out, first_laid):
            self.refresh_plan()

    def refresh_plan(self) -> None:
        if self.view != "Pieces":
            super().refresh()

    def plan(self) -> BuildPlan | None:
        """The best plan there is for the build as it is; None while none is there yet."""
        for study in (laid_out, first_laid):
            answer = self.session.answers.of(study)
            if answer.fresh and answer.value is not None:
                return answer.value
        return None

    def hand_out(self) -> Handed | None:
        """The plan with its pieces by name."""
        made = self.plan()
        if made is None:
            return None
        return handed(made, self.session.build, self.session.facts)

    def still(self) -> str:
        """What is to be said while no plan is there."""
        answer = self.session.answers.of(laid_out)
        if answer.fault:
            return answer.words
        if answer.working or self.session.answers.of(first_laid).working:
            return "Laying the pieces out …"
        return "Stopped. Lay out again (L) looks on."

    # what can be done
    def mark(self, keys: tuple[str, ...]) -> None:
        if keys != self.marked:
            self.marked = keys
            self.made[self.view].marked()

    def lay_out(self) -> None:
        self._ask()
        self.refresh()

    def number_and_print(self) -> bool:
        """The explicit edit after which numbers stay; then the pages can be printed."""
        session = self.session
        numbers = numbers_of(session.build, session.project.facts)
        if not numbers.named:
            session.said.emit("There is nothing to number yet: draw a body on Shell first.", "note")
            return False
        if not numbers.drafts and not numbers.changed and session.build.cut.prints:
            session.said.emit(f"Every number is as on print {session.build.cut.prints}; export the PDF again to print it.", "note")
            return False
        done = session.edit("Number and print", list(print_ops(session.build, session.project.facts)), "Cut")
        if done:
            session.said.emit(
                f"Print {session.build.cut.prints}: {len(numbers.named)} pieces have their numbers for good. Sheets, bars and labels are under Export.",
                "note",
            )
        return bool(done)

    def step(self, by: int) -> None:
        self.show_view("Sheets")
        self.made["Sheets"].step(by)

    def hold(self) -> None:
        self.show_view("Sheets")
        self.made["Sheets"].hold()

    def show_fullest(self) -> None:
        """The sheet with most pieces, two cuts made: for pictures."""
        self.show_view("Sheets")
        panel = self.made["Sheets"]
        sheets = panel.sheets()
        if sheets:
            panel.at = max(range(len(sheets)), key=lambda k: len(sheets[k].layout.pieces))
            self.step(2)

    def keep_offcuts(self) -> None:
        """Offcuts of the plan that are worth keeping, as boards of the rack; what is cut from the rack goes off it."""
        made, build = self.plan(), self.session.build
        if made is None:
            self.session.said.emit(self.still(), "note")
            return
        words = Words(self.session.shown)
        taken = [size.id for size in build.cut.sizes]
        ops: list[Op] = []
        stuff = {piece.material: piece.stuff for piece in take_off(build, self.session.project.facts).pieces}
        many = 0
        for plan in made.plan.sheets:
            for layout in plan.layouts:
                for off in offcuts_of(layout, build.cut.kerf.si, build.cut.keep_m2):
                    id = fresh_id("rk", taken)
                    taken.append(id)
                    long, wide = sorted((off.w_m, off.h_m), reverse=True)
                    record = {
                        "id": id,
                        "kind": "sheet",
                        "material": plan.material,
                        "stuff": stuff.get(plan.material, ""),
                        "length": {"si": round(long, 4)},
                        "width": {"si": round(wide, 4)},
                        "qty": 1,
                        "rack": True,
                    }
                    ops.append(add_to("cut.sizes", record))
                    many += 1
        if not ops:
            least = words.m2(build.cut.keep_m2, 2)
            self.session.said.emit(f"No offcut is as large as {least}; the limit stands on Stock.", "note")
            return
        self.session.said.emit(
            f"{many} offcuts are on the rack. Do this when the sheets are cut: the next layout takes them first.", "note"
        )
        self.session.edit(f"{many} offcuts to the rack", ops, "Cut")

    def pin(self, key: str, stock: str, sheet: int, x_m: float, y_m: float, turned: bool) -> bool:
        """Hold a piece on a sheet."""
        pins = self.session.build.cut.pins
        old = next((pin for pin in pins if pin.piece == key), None)
        id = old.id if old is not None else fresh_id("pn", [pin.id for pin in pins])
        record = {
            "id": id,
            "piece": key,
            "stock": stock,
            "sheet": sheet,
            "x": {"si": round(x_m, 5)},
            "y": {"si": round(y_m, 5)},
            "turned": turned,
        }
        of = numbers_of(self.session.build, self.session.project.facts).of
        op = set_to(f"cut.pins.{id}", record) if old is not None else add_to("cut.pins", record)
        return bool(self.session.edit(f"Hold {of[key].label}", [op], "Cut"))


def length(si: float) -> Length:
    return Length(round(si, 5))


class CutPanel(PanelOf[CutBench]):
    """A view of this stop; what is marked on one is marked on all."""

    def marked(self) -> None:
        """Other pieces are lit."""
