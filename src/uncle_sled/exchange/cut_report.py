"""A cutting plan as JSON and as a page for the bench: what to take, where to set fence and stop, what is left."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.studies.cut.bars import BarPlan
from uncle_sled.core.studies.cut.layouts import Layout, SheetPlan
from uncle_sled.core.studies.cut.plan import CutPlan

CAUTION = "Saws maim and dust harms: guards on, eyes, ears and lungs kept; the saw's own papers decide."


def cut_report(plan: CutPlan) -> dict[str, Any]:
    """The plan in metres; sums over all materials, and each material by itself."""
    return {
        "sheets": {
            "used": sum(one.used for one in plan.sheets),
            "bound": sum(one.bound for one in plan.sheets),
            "gap": sum(one.gap for one in plan.sheets),
            "waste_share": _waste(plan.sheets),
            "layouts": [_layout(one.material, layout) for one in plan.sheets for layout in one.layouts],
        },
        "bars": {
            "used": sum(one.used for one in plan.bars),
            "bound": sum(one.bound for one in plan.bars),
            "gap": sum(one.gap for one in plan.bars),
            "over_share": max((one.over for one in plan.bars), default=None),
            "patterns": [
                {
                    "material": one.material,
                    "stock": pattern.stock,
                    "times": pattern.times,
                    "pieces": list(pattern.pieces),
                    "left_m": round(pattern.left_m, 6),
                    "overlaps": [[at, round(by, 6)] for at, by in pattern.overlaps],
                }
                for one in plan.bars
                for pattern in one.patterns
            ],
        },
        "unplaced": [{"piece": name, "qty": many} for name, many in plan.unplaced],
        "money": None if plan.cost is None else round(plan.cost, 2),
    }


def _waste(plans: tuple[SheetPlan, ...]) -> float | None:
    whole = [sum(layout.length_m * layout.width_m for layout in one.layouts) for one in plans]
    if not sum(whole):
        return None
    return round(sum(one.waste_share * area for one, area in zip(plans, whole, strict=True)) / sum(whole), 6)


def _layout(material: str, layout: Layout) -> dict[str, Any]:
    return {
        "material": material,
        "stock": layout.stock,
        "pieces": [{"piece": one.piece, "x_m": round(one.x_m, 6), "y_m": round(one.y_m, 6), "turned": one.turned} for one in layout.pieces],
        "cuts": [
            {"along": one.along, "fence_m": round(one.fence_m, 6), "part": [round(v, 6) for v in one.part], "level": one.level}
            for one in layout.cuts
        ],
    }


def cut_text(plan: CutPlan) -> str:
    """For reading beside the saw, in millimetres."""
    lines: list[str] = []
    for bars in plan.bars:
        lines += [_head(bars, "bar"), *(_bar(pattern) for pattern in bars.patterns), ""]
    for sheets in plan.sheets:
        lines += [_head(sheets, "sheet")]
        for number, layout in enumerate(sheets.layouts, 1):
            lines.append(f"  sheet {number}: {layout.stock}, {layout.length_m * 1e3:.0f} x {layout.width_m * 1e3:.0f} mm")
            lines += [f"    {'  ' * min(cut.level, 12)}{_cut(cut.along)} at {cut.fence_m * 1e3:.1f} mm" for cut in layout.cuts]
            lines += [
                f"    {one.piece}: {one.w_m * 1e3:.1f} x {one.h_m * 1e3:.1f} mm at {one.x_m * 1e3:.1f}, {one.y_m * 1e3:.1f}"
                + (", turned" if one.turned else "")
                for one in layout.pieces
            ]
        lines.append("")
    if plan.cost is not None:
        lines.append(f"Stock for {plan.cost:.2f}.")
    else:
        lines.append("What it costs is not known: not every stock has a price; the least material was sought.")
    lines += [f"NOT PLACED: {many} of {name}: no stock is large enough, or there is too little of it." for name, many in plan.unplaced]
    return "\n".join([*lines, CAUTION])


def _head(plan: BarPlan | SheetPlan, what: str) -> str:
    waste = f"{plan.waste_share:.1%} is offcut and dust"
    what += "" if plan.used == 1 else "s"
    if isinstance(plan, SheetPlan):
        gap = f"at least {plan.bound} by reckoning, {plan.gap} between not settled" if plan.gap > 0 else "there can be no fewer"
        return f"{plan.material}: {plan.used} {what}, {gap}; {waste}"
    sought = "length" if plan.cost is None else "money"
    how = f"within {plan.over:.2%} of the least {sought} there can be" if plan.over else f"the least {sought} there can be"
    return f"{plan.material}: {plan.used} {what}, {how}; {waste}"


def _bar(pattern: Any) -> str:
    cut = ", ".join(pattern.pieces)
    return f"  {pattern.times} x {pattern.stock}: {cut}; {pattern.left_m * 1e3:.1f} mm left"


def _cut(along: str) -> str:
    return "across the length" if along == "x" else "along the length"
