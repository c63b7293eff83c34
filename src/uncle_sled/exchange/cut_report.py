"""A cutting plan as JSON and as a page for the bench: what to take, where to set fence and stop, what is left."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.studies.cut.bars import BarPlan
from uncle_sled.core.studies.cut.cut_plan import CutPlan
from uncle_sled.core.studies.cut.layouts import Layout, SheetPlan

CAUTION = "Saws maim and dust harms: guards on, eyes, ears and lungs kept; the saw's own papers decide."


def cut_report(plan: CutPlan) -> dict[str, Any]:
    """The plan in metres; sums over all materials, and each material by itself."""
    return {
        "sheets": {
            "used": sum(sheet.used for sheet in plan.sheets),
            "bound": sum(sheet.bound for sheet in plan.sheets),
            "gap": sum(sheet.gap for sheet in plan.sheets),
            "waste_share": _waste(plan.sheets),
            "layouts": [_layout(sheet.material, layout) for sheet in plan.sheets for layout in sheet.layouts],
        },
        "bars": {
            "used": sum(bar_plan.used for bar_plan in plan.bars),
            "bound": sum(bar_plan.bound for bar_plan in plan.bars),
            "gap": sum(bar_plan.gap for bar_plan in plan.bars),
            "over_share": max((bar_plan.over for bar_plan in plan.bars), default=None),
            "patterns": [
                {
                    "material": bar_plan.material,
                    "stock": pattern.stock,
                    "times": pattern.times,
                    "pieces": list(pattern.pieces),
                    "left_m": round(pattern.left_m, 6),
                    "overlaps": [[at, round(by, 6)] for at, by in pattern.overlaps],
                }
                for bar_plan in plan.bars
                for pattern in bar_plan.patterns
            ],
        },
        "unplaced": [{"piece": name, "qty": many} for name, many in plan.unplaced],
        "money": None if plan.cost is None else round(plan.cost, 2),
    }


def _waste(plans: tuple[SheetPlan, ...]) -> float | None:
    whole = [sum(layout.length_m * layout.width_m for layout in sheet.layouts) for sheet in plans]
    if not sum(whole):
        return None
    return round(sum(sheet.waste_share * area for sheet, area in zip(plans, whole, strict=True)) / sum(whole), 6)


def _layout(material: str, layout: Layout) -> dict[str, Any]:
    return {
        "material": material,
        "stock": layout.stock,
        "pieces": [
            {
                "piece": piece.piece,
                "x_m": round(piece.x_m, 6),
                "y_m": round(piece.y_m, 6),
                "turned": piece.turned,
                "turn_deg": piece.turn_deg,
            }
            for piece in layout.pieces
        ],
        "cuts": [
            {"along": cut.along, "fence_m": round(cut.fence_m, 6), "part": [round(v, 6) for v in cut.part], "level": cut.level}
            for cut in layout.cuts
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
                f"    {piece.piece}: {piece.w_m * 1e3:.1f} x {piece.h_m * 1e3:.1f} mm at {piece.x_m * 1e3:.1f}, {piece.y_m * 1e3:.1f}"
                + (f", turned {piece.turn_deg} degrees" if piece.turn_deg else "")
                for piece in layout.pieces
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
