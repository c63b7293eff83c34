"""171 small wrong changes of the studies, one line each: where, what stands there, what stands there instead.

A change of a sign, a factor, a unit or a limit, of the kind that a hurried hand makes and that a formula's own check case
may let pass. ``can_hurt`` marks those whose number somebody tows, lifts, cooks, sleeps or wires by.
"""

from __future__ import annotations

from typing import NamedTuple


class Wrong(NamedTuple):
    """One change. ``file`` under the core, ``was`` stands in it once."""

    file: str
    was: str
    becomes: str
    can_hurt: bool = False


READING = (
    Wrong("reading/balance.py", "tongue = total - moment / effective", "tongue = total - moment / (effective + 0.02)", True),
    Wrong(
        "reading/balance.py", "half, lean = total / 2, roll / support.track_m", "half, lean = total / 2, roll / 2 / support.track_m", True
    ),
    Wrong("reading/balance.py", "axle_kg2 = (group / effective * AXLE_M) ** 2", "axle_kg2 = (group / effective * AXLE_M)"),
    Wrong(
        "reading/balance.py",
        "load, total, both = load + t**2, total + w**2, both + t * w",
        "load, total, both = load + t**2, total + w**2, both - t * w",
    ),
    Wrong("reading/balance.py", "variance = (table.sigma_kg**2).sum(axis=1)", "variance = (table.sigma_kg**2).sum(axis=1) / 2"),
    Wrong("reading/balance.py", "end = np.minimum(load + 7 * sigma, most_kg)", "end = load + 7 * sigma", True),
    Wrong(
        "reading/band.py",
        "return low, np.minimum(np.maximum(band.high * total_kg, low), band.limit_kg)",
        "return low, np.maximum(band.high * total_kg, low)",
        True,
    ),
    Wrong("reading/band.py", 'min(known, default=(None, ""))', 'max(known, default=(None, ""))', True),
    Wrong("reading/limits.py", "carried = sum(kg * at for kg, at in loads) / base", "carried = sum(kg for kg, at in loads) / base", True),
    Wrong(
        "reading/load_cases.py",
        "laid.mass[:, tank], laid.sigma[:, tank] = full * levels, CONTENTS_SHARE * full * (levels > 0)",
        "laid.mass[:, tank], laid.sigma[:, tank] = full * levels, 0.0 * full * (levels > 0)",
    ),
    Wrong(
        "reading/load_cases.py",
        "sigma[:, columns:] = CONTENTS_SHARE * full * (levels > 0)",
        "sigma[:, columns:] = 0.1 * CONTENTS_SHARE * full * (levels > 0)",
    ),
)
BALANCE = (
    Wrong("studies/balance/tow_vehicle.py", "left += [rig.gross_total.si - total]", "left += [rig.gross_total.si - sum(axles)]", True),
    Wrong("studies/balance/tow_vehicle.py", "left += [rig.axle_group.si - wheels]", "left += [rig.axle_group.si - total]", True),
    Wrong("studies/balance/tow_vehicle.py", "left += [car.tow_limit.si - total for", "left += [car.tow_limit.si - sum(axles) for", True),
    Wrong("studies/balance/axle_placing.py", "share = (s.band.low + s.band.high) / 2", "share = s.band.low"),
    Wrong(
        "studies/balance/axle_placing.py",
        "moment = moments[None, :] + shift[:, None] * with_axle",
        "moment = moments[None, :] - shift[:, None] * with_axle",
        True,
    ),
    Wrong("studies/balance/axle_conflicts.py", "drawn = rig.track.si / 2 - wide / 2 - inner", "drawn = rig.track.si / 2 - inner"),
    Wrong("studies/balance/axle_conflicts.py", "rig.frame_length.si - reach", "rig.frame_length.si + reach", True),
    Wrong("studies/balance/emptying.py", "out = np.maximum(low - load, load - high)", "out = load - high", True),
    Wrong("studies/balance/frame_beam.py", "return [(foot, total - wheels), *forces]", "return [(foot, total), *forces]", True),
    Wrong("studies/balance/frame_beam.py", '(ROAD if how == "road" else 1.0)', "1.0", True),
    Wrong("studies/balance/frame_beam.py", "limits = (span / SINKS, 2 * tail / SINKS)", "limits = (span / SINKS, 4 * tail / SINKS)"),
    Wrong("studies/balance/frame_beam.py", "ball = more * (1 - at / axle)", "ball = more * at / axle"),
    Wrong("studies/balance/hitch_height.py", "total - axles.sum(axis=1)", "total - axles.max(axis=1)"),
    Wrong("studies/balance/moves.py", "(tongue - most) * axle / mass", "(most - tongue) * axle / mass"),
    Wrong(
        "studies/balance/road_checks.py",
        "push * (self.cg_height_m - self.hitch_m) / self.axle_m",
        "push * self.cg_height_m / self.axle_m",
        True,
    ),
    Wrong("studies/balance/road_checks.py", "return track * (1 - share) / (2 * arm)", "return track / (2 * arm)", True),
    Wrong("studies/balance/road_checks.py", "by = (diameter_m - rig.tyre.diameter.si) / 2", "by = diameter_m - rig.tyre.diameter.si"),
    Wrong(
        "studies/balance/road_checks.py", "tyre.rated_kpa * limit.value / limit.limit", "tyre.rated_kpa * limit.limit / limit.value", True
    ),
    Wrong("studies/balance/road_checks.py", "abs(y) - car.width.si / 2", "abs(y) - car.width.si", True),
    Wrong(
        "studies/balance/road_size.py", "2 * np.maximum(corners[:, 1, 1], -corners[:, 0, 1])", "corners[:, 1, 1] - corners[:, 0, 1]", True
    ),
    Wrong("studies/balance/road_size.py", "far <= radius_m", "far <= 0.0"),
    Wrong(
        "studies/balance/sureness.py",
        "return Lever(1 - s.table.x_m[row] / axle, 1 / axle, placed)",
        "return Lever(1 - s.table.x_m[row] / axle, 1 / axle, 0.0)",
    ),
    Wrong("studies/balance/sureness.py", 'SURENESS["weighed"] * np.abs', '2 * SURENESS["weighed"] * np.abs'),
    Wrong("studies/balance/sway.py", "return float((kg * (r2 + _own_m2(s))).sum())", "return float((kg * r2).sum())", True),
    Wrong("studies/balance/sway.py", "top[..., 0, 1] -= v", "top[..., 0, 1] += v", True),
    Wrong("studies/balance/sway.py", "m1 * a1 * b1,", "m1 * a1 * b1 / 2,", True),
)
SHELL = (
    Wrong(
        "studies/shell/strength.py",
        "even_n_m * span_m**2 / 8 + point_n * span_m / 4",
        "even_n_m * span_m**2 / 10 + point_n * span_m / 4",
        True,
    ),
    Wrong("studies/shell/strength.py", "(0.7 if heated else 0.84)", "(0.84 if heated else 0.7)", True),
    Wrong("studies/shell/strength.py", "load * (2.0 if valley else 1.0)", "load", True),
    Wrong("studies/shell/strength.py", "lasts * (TOGETHER if together else 1.0)", "lasts * TOGETHER", True),
    Wrong("studies/shell/strength.py", "min(face_pa, wrinkle) / 2", "min(face_pa, wrinkle)", True),
    Wrong("studies/shell/strength.py", "(AIR * CD_PARKED * area_m2 * height_m)", "(AIR * area_m2 * height_m)", True),
    Wrong("studies/shell/strength.py", "EDGE_CP * TOWING_PA * area_m2", "TOWING_PA * area_m2", True),
    Wrong(
        "studies/shell/roof_holds.py",
        "span = max(member.length_m - bearing_m(s), 0.1) * (1.0 if surface.swept else flat)",
        "span = max(member.length_m - _bearing(s), 0.1)",
    ),
    Wrong(
        "studies/shell/roof_holds.py",
        "limit = st.allowable_pa(stuff, deep, st.SNOW, len(spars) >= 3 and pitch <= 0.61)",
        "limit = st.allowable_pa(stuff, deep, st.SNOW, False)",
        True,
    ),
    Wrong(
        "studies/shell/roof_holds.py",
        "made = st.beam(section, span, (snow + dead) * pitch)",
        "made = st.beam(section, span, snow * pitch)",
        True,
    ),
    Wrong("studies/shell/openings_hold.py", "over * body.width / 2 + above", "over * body.width + above", True),
    Wrong("studies/shell/walls_hold.py", "limit = st.RACKING_N_M * min(thin / st.RACKING_M, 1.0)", "limit = st.RACKING_N_M", True),
    Wrong("studies/shell/wind_holds.py", "made.shear_n / made.many, made.uplift_n / made.many", "made.shear_n, made.uplift_n", True),
    Wrong("studies/shell/roof_loads.py", "pull = st.uplift_n(area) - weight", "pull = st.uplift_n(area)", True),
    Wrong("studies/shell/ridge.py", "load_pa * pitch.wide_m**2 / (8 * left)", "load_pa * pitch.wide_m**2 / (4 * left)", True),
    Wrong("studies/shell/ridge.py", "return load_pa * pitch.wide_m / 2", "return load_pa * pitch.wide_m", True),
    Wrong(
        "studies/shell/shell_measures.py",
        "GUST_PA * UPLIFT * body.length * body.width",
        "GUST_PA * UPLIFT * body.length * body.length",
        True,
    ),
    Wrong("studies/shell/wind_holds.py", "shear = pushed / BOLT_SHEAR_N >= pulled / BOLT_TENSION_N", "shear = pushed >= pulled", True),
    Wrong(
        "studies/shell/bought_panels.py",
        "mass = (surface.area_m2 - holes) * (sums.build.kg_m2 + ",
        "mass = surface.area_m2 * (sums.build.kg_m2 + ",
    ),
    Wrong("studies/shell/built_sections.py", "per_m2 = face.mass.si / sums.area_m2", "per_m2 = face.mass.si / sums.area_m2 / 2", True),
    Wrong("studies/shell/holes.py", "many = int(long / SCREW_PITCH_M) + 1", "many = int(long / SCREW_PITCH_M)"),
)
STOW = (
    Wrong("studies/stow/carries.py", "PERSON_N / sharing", "PERSON_N", True),
    Wrong("studies/stow/carries.py", "sleepers_kg * GRAVITY * LIVELY / bearers / long_m", "sleepers_kg * GRAVITY / bearers / long_m", True),
    Wrong("studies/stow/carries.py", "(winch.parts * LOSS**winch.sheaves)", "winch.parts", True),
    Wrong("studies/stow/carries.py", "bare + LEANS_N * travel_m", "bare", True),
    Wrong("studies/stow/carries.py", "heavy = max(corner, pull)", "heavy = min(corner, pull)", True),
    Wrong("studies/stow/carries.py", "holds = holder.mass_kg * GRAVITY * across / 2", "holds = holder.mass_kg * GRAVITY * across", True),
    Wrong("studies/stow/latches.py", "GRAVITY * (ALONG_G if along else ACROSS_G)", "GRAVITY * (ACROSS_G if along else ALONG_G)", True),
    Wrong("studies/stow/latches.py", '(LIP_SHARE if latch.kind == "lip" else 1.0)', "1.0", True),
    Wrong("studies/stow/beds.py", "if many and bed.wide_m / many + TOL < WIDE_M", "if many and bed.wide_m + TOL < WIDE_M"),
    Wrong("studies/stow/hinged.py", "mx + long * (ax + bx) / 2", "mx + long * (ax + bx)", True),
    Wrong("studies/stow/at_hand.py", "left = free.buffer(-wide / 2", "left = free.buffer(-wide / 4", True),
    Wrong("studies/stow/at_hand.py", "spare = min(wide - need[0], high - need[1])", "spare = max(wide - need[0], high - need[1])"),
    Wrong(
        "studies/stow/conversions.py",
        "/ max(min(_volume(before), _volume(after)), 1e-9)",
        "/ max(max(_volume(before), _volume(after)), 1e-9)",
    ),
    Wrong("studies/stow/floating.py", 'floor = body.under + thickness_m(s.build.shell, "floor")', "floor = body.under"),
    Wrong("studies/stow/inner_doors.py", "return k / len(room.steps)", "return (k + 1) / len(room.steps)"),
    Wrong("studies/stow/dangers.py", "far < CLOTH_M", "far < CLOTH_M / 10", True),
    Wrong("studies/stow/dangers.py", "far < WATER_M", "far < WATER_M / 10", True),
)
SYSTEMS = (
    Wrong("studies/systems/stay.py", "hours /= (drawn / hourly_w) ** (PEUKERT - 1)", "hours /= (drawn / hourly_w) ** PEUKERT"),
    Wrong("studies/systems/bank.py", "own + 2 * cable_m * 0.0175", "own + cable_m * 0.0175", True),
    Wrong("studies/systems/bank.py", "capacity = min(known) * rows", "capacity = max(known) * rows", True),
    Wrong("studies/systems/bank.py", "return watts / (eta * low_v(volts, chemistry))", "return watts / low_v(volts, chemistry)", True),
    Wrong(
        "studies/systems/gas.py",
        "d, h = min(first.length.si, first.width.si), first.height.si * 0.75 * SHARE_FULL",
        "d, h = min(first.length.si, first.width.si), first.height.si * SHARE_FULL",
    ),
    Wrong("studies/systems/gas.py", '(0.8 if thing.burns != "wood" else 0.65)', "1.0"),
    Wrong(
        "studies/systems/gas.py",
        "if each_burner.kw is not None and not each_burner.sealed and not each_burner.flued",
        "if each_burner.kw is not None and not each_burner.sealed and each_burner.flued",
        True,
    ),
    Wrong("studies/systems/glaser.py", "lacking = saturation_pa(DRY_C) * (1 - DRY_RH)", "lacking = saturation_pa(DRY_C) * DRY_RH"),
    Wrong(
        "studies/systems/glaser.py",
        "temps = [inside_c - at / whole * (inside_c - outside_c)",
        "temps = [outside_c + at / whole * (inside_c - outside_c)",
    ),
    Wrong("studies/systems/heat.py", "flow = vent * (1 - (air.recovery or 0.0))", "flow = vent"),
    Wrong("studies/systems/heat.py", "k = ua + AIR_WH_M3K * flow", "k = ua", True),
    Wrong("studies/systems/heat.py", "body = PERSON_W * people", "body = PERSON_W"),
    Wrong("studies/systems/heat.py", "most = outside_c + power_w / k_w_k", "most = power_w / k_w_k"),
    Wrong("studies/systems/sizing.py", "beta_pct_k / 100 * (25 - coldest_c)", "beta_pct_k / 100 * (coldest_c - 25)", True),
    Wrong("studies/systems/sizing.py", "self.cold_v * VOLTS_IN_HAND > self.limit_v", "self.cold_v > self.limit_v", True),
    Wrong("studies/systems/sizing.py", "whole = needed_wh / depth / (cold or 1.0)", "whole = needed_wh / depth"),
    Wrong("studies/systems/stay.py", "/ (INVERTER_ETA if appliance.ac else 1.0)", "/ 1.0"),
    Wrong(
        "studies/systems/stay.py",
        "reserve = min(float(demand.wh[must].sum()), RESERVE_MOST * bank.cold_wh)",
        "reserve = 0.0 * min(float(demand.wh[must].sum()), RESERVE_MOST * bank.cold_wh)",
        True,
    ),
    Wrong("studies/systems/stay.py", "stored = min(takes * bank.stores, full - soc)", "stored = min(takes, full - soc)"),
    Wrong("studies/systems/stay.py", "(need / hourly_w) ** (PEUKERT - 1)", "(need / hourly_w) ** PEUKERT"),
    Wrong("studies/systems/sun.py", "far = 1 + 0.033 * math.cos", "far = 1 - 0.033 * math.cos"),
    Wrong("studies/systems/sun.py", "diffuse * (1 + math.cos(tilt)) / 2", "diffuse * (1 - math.cos(tilt)) / 2"),
    Wrong("studies/systems/sweat.py", "return made_g_h / 1000 / room", "return made_g_h / 500 / room"),
    Wrong("studies/systems/sweat.py", "dew = dew_c(held * saturation_pa(inside))", "dew = dew_c(saturation_pa(inside))"),
    Wrong("studies/systems/sweat.py", "wanted = air.fan_m3h / 3600 / 1.5 * 1e4", "wanted = air.fan_m3h / 3600 / 3.0 * 1e4"),
    Wrong(
        "studies/systems/together.py",
        "start = watts + (hardest.power_w or 0.0) * (hardest.surge - 1)",
        "start = watts + (hardest.power_w or 0.0)",
        True,
    ),
    Wrong("studies/systems/together.py", "+ direct / bank.volts", "+ 0.0 * direct / bank.volts", True),
    Wrong("studies/systems/water.py", "grey = max(need - DRUNK_L * people, 0.0)", "grey = need"),
    Wrong("studies/systems/water.py", "kpa = HEAD_KPA_M * tall + loss * long + TAP_KPA", "kpa = HEAD_KPA_M * tall + loss + TAP_KPA"),
    Wrong("studies/systems/water.py", "w.drink_l + w.dishes_l", "w.drink_l"),
)
CUT = (
    Wrong("studies/cut/bars.py", "at_most], float(worth @ self.want)", "at_most], 1.02 * float(worth @ self.want)"),
    Wrong("studies/cut/boards.py", "first = (long_m - (many - 2) * cover_m) / 2", "first = (long_m - (many - 1) * cover_m) / 2"),
    Wrong(
        "studies/cut/consumables.py",
        'base["glue_m2"] += piece.length_m * piece.thickness_m',
        'base["glue_m2"] += piece.length_m * piece.width_m',
    ),
    Wrong("studies/cut/consumables.py", "spread.area_m2 / 1.5 if", "spread.area_m2 / 1.2 if"),
    Wrong(
        "studies/cut/buying.py",
        "packs = max(math.ceil((need - said.at_hand) / pack - 1e-9), 0)",
        "packs = max(math.ceil(need / pack - 1e-9), 0)",
    ),
    Wrong("studies/cut/buying.py", "each = table.likely * stock.length_m", "each = table.likely"),
    Wrong("studies/cut/mitres.py", "wide_m * math.tan(angle) - kerf_m / math.cos(angle) + kerf_m", "wide_m * math.tan(angle) + kerf_m"),
    Wrong("studies/cut/money.py", "(1 - RHO) * squares + RHO * plain * plain", "squares"),
    Wrong("studies/cut/money.py", "cut.months * math.log1p(cut.rise)", "cut.months / 12 * math.log1p(cut.rise)"),
    Wrong("studies/cut/money.py", "to_come = total.mean - spent - committed", "to_come = total.mean - spent"),
    Wrong("studies/cut/sawing.py", "area > carry_m2 + 1e-9 or", "area > 2 * carry_m2 or", True),
    Wrong("studies/cut/sticks.py", "each = (high - low + lap * (many - 1)) / many", "each = (high - low) / many"),
    Wrong("studies/cut/things_cut.py", "inner = long - 2 * thick_m", "inner = long - thick_m"),
    Wrong("studies/cut/sticks.py", "long = member.length_m + 2 * STRIP_OVER_M", "long = member.length_m"),
)
BUILD = (
    Wrong("studies/build/chance.py", "normal(-(common**2) / 2, common, draws)", "normal(0.0, common, draws)"),
    Wrong("studies/build/chance.py", "return u * both, (1 - u) * both", "return (1 - u) * both, u * both"),
    Wrong(
        "studies/build/days.py",
        "wet.append(is_wet(latitude, when.month, work.wet_months))",
        "wet.append(is_wet(latitude, when.month, None))",
    ),
    Wrong("studies/build/schedule.py", "% RAIN_EVERY == 0", "% RAIN_EVERY >= 0"),
    Wrong("studies/build/standing.py", "since[None, :] <= np.arange", "since[None, :] < np.arange"),
    Wrong("studies/build/standing.py", "np.array([-1 if piece.by == START else", "np.array([never if piece.by == START else"),
    Wrong("studies/build/brought.py", "gathered.get(what, 0.0) + mass / whole", "mass / whole"),
    Wrong("studies/build/days.py", "2.0 ** ((temperature - 20.0) / 10.0)", "2.0 ** ((temperature - 25.0) / 10.0)"),
    Wrong("studies/build/days.py", "0.0 if floor_c is not None and temperature < floor_c else", "0.0 if floor_c is None else"),
    Wrong("studies/build/gluing.py", "* (1 + glue.coats) if batch_m2", "if batch_m2"),
    Wrong(
        "studies/build/gluing.py",
        "at25_min * 2.0 ** ((25.0 - temperature_c) / 10.0)",
        "at25_min * 2.0 ** ((temperature_c - 25.0) / 10.0)",
        True,
    ),
    Wrong("studies/build/gluing.py", "math.pi * glue.bead_mm**2 / 4", "math.pi * glue.bead_mm**2"),
    Wrong("studies/build/lifting.py", "return self.mass_kg + 2 * self.sigma_kg", "return self.mass_kg", True),
    Wrong(
        "studies/build/lifting.py",
        "said, refusals, hands, crew = made(words, lift, mass + 2 * sigma, size, cg, area)",
        "said, refusals, hands, crew = made(words, lift, mass, size, cg, area)",
        True,
    ),
    Wrong("studies/build/lifting.py", "(2 * math.cos(math.radians(deg))) * START", "math.cos(math.radians(deg)) * START", True),
    Wrong("studies/build/lifting.py", "bad = wind * GUST > hold + 1e-9", "bad = wind > hold + 1e-9", True),
    Wrong(
        "studies/build/lifting.py",
        "weight * b_m / (a_m + b_m), weight * a_m / (a_m + b_m)",
        "weight * a_m / (a_m + b_m), weight * b_m / (a_m + b_m)",
        True,
    ),
)
ROAD_STOP = (
    Wrong("studies/road/weighing.py", 'cov = share * sigma("whole") ** 2', 'cov = 0.0 * share * sigma("whole") ** 2'),
    Wrong(
        "studies/road/weighing.py",
        'math.hypot(sigma_tongue, sigma("trailer")), sigma_tongue**2',
        'math.hypot(sigma_tongue, sigma("trailer")), 0.0',
    ),
    Wrong("studies/road/weighing.py", "return jack_kg * (axle_m - jack_m) / axle_m", "return jack_kg * axle_m / (axle_m - jack_m)", True),
    Wrong("studies/road/weighing.py", "return (reading - bare) * scale_m / coupler_m", "return reading * scale_m / coupler_m", True),
    Wrong("studies/road/weighing.py", "step_kg / math.sqrt(12.0)", "step_kg / 12.0"),
    Wrong(
        "studies/road/standing.py",
        "wind * (high / 2 + body.under), mass * GRAVITY * wide / 2 * HOLD_SHARE",
        "wind * high / 2, mass * GRAVITY * wide / 2 * HOLD_SHARE",
        True,
    ),
    Wrong("studies/road/standing.py", "load_n / (bearing_kpa * 1000.0)", "load_n / (bearing_kpa * 10000.0)", True),
    Wrong("studies/road/standing.py", "snow = snow_kpa * 1000.0 * roof", "snow = snow_kpa * 1000.0", True),
    Wrong("studies/road/reconcile.py", "cov = cov0 - gain @ h @ cov0", "cov = cov0 + gain @ h @ cov0"),
    Wrong(
        "studies/road/reconcile.py",
        "doubt[a, a] += float(((reaches * table.sigma_kg[row, rest]) ** 2).sum())",
        "doubt[a, a] += float((table.sigma_kg[row, rest] ** 2).sum())",
    ),
    Wrong(
        "studies/road/trips.py",
        "days = sum(trip.nights * (trip.people if a_person else 1) for trip in told)",
        "days = sum(trip.nights for trip in told)",
    ),
    Wrong("studies/road/drills.py", "1 - off / max(abs(drill.after_kg - drill.before_kg), 8.0)", "1 - off / 8.0"),
)

WHOLE = (
    "tests/validation/test_whole_cases_systems.py",
    "tests/validation/test_whole_cases.py",
    "tests/validation/test_whole_cases_balance.py",
    "tests/validation/test_sums_by_hand.py",
    "tests/validation/test_corrections.py",
)
# what is changed of a stop, and the tests that answer for it, the quick ones first
BODIES = (
    Wrong("studies/shell/frame_hours.py", "2 * END_H + FOLD_H * len(member.cuts)", "END_H + FOLD_H * len(member.cuts)"),
    Wrong("studies/shell/compare_ways.py", "+ frame_hours(s) if whole else None", "if whole else None"),
    Wrong("geometry/outline_taken.py", "ring = ring[::-1]  # clockwise", "pass  # clockwise"),
    Wrong("geometry/outline_taken.py", "off = float(max(simple.hausdorff_distance(line), 0.0))", "off = 0.0"),
    Wrong("studies/shell/rafters.py", "level * math.sin(turn), level * math.tan(turn)", "level * math.tan(turn), level * math.sin(turn)"),
    Wrong("studies/shell/rafters.py", "at_m=over / math.cos(math.radians(slope))", "at_m=over"),
    Wrong("studies/cut/skins.py", "each = (y1 - y0 + END_LAP_M * (many - 1)) / many", "each = (y1 - y0) / many"),
    Wrong("parts/panel_rails.py", "long = RAILS * (max(", "long = (max("),
    Wrong("parts/fillets.py", "(1 - math.pi / 4) * radius_m(shell) ** 2", "(math.pi / 4) * radius_m(shell) ** 2"),
    Wrong("framing/member.py", "(1 if channel else 2) * wall_m", "2 * wall_m"),
    Wrong("studies/shell/strength.py", "BUCKLES * inertia / (deep_m / 2)", "inertia / (deep_m / 2)", can_hurt=True),
    Wrong(
        "parts/face_build.py",
        "Slice(material.resistance_m2k_w(t), through, layer.steel_share)",
        "Slice(material.resistance_m2k_w(t), None, 0.0)",
    ),
    Wrong("studies/shell/screws.py", "thread_m=wall + TURNS_M", "thread_m=wall"),
    Wrong("parts/rising.py", "cloth = 2 * rise * (long + wide)", "cloth = rise * (long + wide)"),
    Wrong("parts/rising.py", "math.floor(rising.guys / 2) * rising.guy_n", "rising.guys * rising.guy_n", can_hurt=True),
    Wrong(
        "studies/shell/wind_holds.py", "wind_m_s**2 * st.CD_PARKED * risen.side_m2 / 2", "wind_m_s**2 * risen.side_m2 / 2", can_hurt=True
    ),
    Wrong("studies/stow/rising_roof.py", "steep = dz / np.maximum(long, 1e-9)", "steep = dx / np.maximum(long, 1e-9)", can_hurt=True),
    Wrong("studies/stow/rising_roof.py", "share = float(cold.gas_n[-1]) / weight", "share = float(hot.gas_n[-1]) / weight", can_hurt=True),
    Wrong("parts/rising.py", "not mode.towing and not mode.roof_down", "not mode.roof_down"),
    Wrong("studies/build/panel_press.py", "takes = lines * area_m2 / pace + SHUT_MIN if", "takes = area_m2 / pace + SHUT_MIN if"),
    Wrong("studies/build/panel_press.py", "weights_kg=press_n / GRAVITY,", "weights_kg=press_n,"),
    Wrong("parts/panel_glue.py", "line_kg_m2(shell) * max(len(face.layers) - 1, 0)", "line_kg_m2(shell) * max(len(face.layers), 0)"),
    Wrong("studies/cut/sheet_seams.py", "if other > k:", "if other >= k:"),
    Wrong("studies/cut/within_faces.py", "long = area / ROLL_WIDE_M if", "long = area * ROLL_WIDE_M if"),
    Wrong("studies/cut/within_faces.py", "many=math.ceil(joint.many * long / total)", "many=math.ceil(joint.many)"),
    Wrong("studies/cut/within_faces.py", "whole=bool(cover) or glued", "whole=bool(cover) and glued"),
    Wrong("studies/cut/consumables.py", 'SEAL_LINES = {"bulb": 1.0, "two lines": 2.0}', 'SEAL_LINES = {"bulb": 1.0, "two lines": 1.0}'),
    Wrong("parts/inner_doors.py", "far = near + sign * wall.leaf.thick_m", "far = near - sign * wall.leaf.thick_m"),
    Wrong("parts/inner_leaf.py", "section = (RAIL_M, LEAF_M - 2 * thick_skin)", "section = (RAIL_M, LEAF_M - thick_skin)"),
    Wrong(
        "studies/stow/inner_doors.py",
        "return most_m(skin_m(partition), PLAY_M)",
        "return most_m(skin_m(partition), 2 * PLAY_M)",
        can_hurt=True,
    ),
    Wrong(
        "parts/bent_leaf.py",
        "lines = [inside_of(outer, depth) for depth in (skin, skin + deep, 2 * skin + deep)]",
        "lines = [inside_of(outer, depth) for depth in (skin, deep, 2 * skin + deep)]",
    ),
    Wrong("parts/bent_leaf.py", "clear = (wide_m - many * seen) / (many - 1)", "clear = wide_m / (many - 1)"),
    Wrong("parts/bent_leaf.py", "inner_radius_m=radius - skin - deep", "inner_radius_m=radius", True),
    Wrong("parts/bent_leaf.py", "inward = np.array([along[1], -along[0]])", "inward = np.array([-along[1], along[0]])"),
    Wrong("parts/leaf.py", "wide = opening.width.si - 2 * side\n    high = float(np", "wide = opening.width.si\n    high = float(np"),
    Wrong(
        "parts/from_shell.py",
        "x, y, z = _middle(surface, cut.shape, own.thick_m / 2 if",
        "x, y, z = _middle(surface, cut.shape, own.thick_m if",
    ),
    Wrong("parts/face_build.py", "R_VENTED = 0.13", "R_VENTED = 0.04"),
    Wrong("parts/face_build.py", "layer.open_mm2_m >= SHUT_MM2_M", "layer.open_mm2_m > SHUT_MM2_M"),
    Wrong("parts/face_build.py", "return min(wide / max(pitch, 1e-6), 1.0)", "return min(wide / 2 / max(pitch, 1e-6), 1.0)"),
    Wrong("parts/ridge_sticks.py", "body.under + top - under - deep / 2", "body.under + top - under"),
    Wrong("parts/ridge_sticks.py", "body.width * (1 - up / rise)", "body.width * (1 - up / rise / 2)"),
    Wrong("geometry/surfaces.py", "low = u + body.under - found[0].origin[2]", "low = u"),
    Wrong(
        "studies/cut/panel_pieces.py",
        "kg_m2=sum(material.weight_kg_m2(thickness) for material, thickness in of)",
        "kg_m2=outer.weight_kg_m2(thick)",
    ),
    Wrong("studies/cut/panel_pieces.py", "BOND_H_M = 0.15", "BOND_H_M = 0.30"),
    Wrong("studies/cut/skins.py", "if end - wide / 2 - at[-1] > wide:", "if end - wide / 2 - at[-1] > 10 * wide:"),
    Wrong("studies/shell/bought_panels.py", "back[where] = max(back[where], narrower)", "back[where] = max(back[where], 2 * narrower)"),
    Wrong("studies/shell/screws.py", "return most_m(self.held_m, self.into_m)", "return self.held_m + self.into_m", True),
    Wrong("studies/shell/screws.py", "return held_m + into_m - POINT_IN_M", "return held_m + into_m", True),
    Wrong("studies/shell/screws.py", "many = math.ceil(run_m / pitch_m)", "many = math.ceil(run_m / pitch_m / 2)"),
    Wrong(
        "studies/shell/wind_holds.py",
        "value=st.facing_n(area) / (long * BOND_WIDE_M)",
        "value=st.uplift_n(area) / (long * BOND_WIDE_M)",
        True,
    ),
    Wrong("studies/balance/other_wheels.py", "rises = (then - now) / 2", "rises = then - now", True),
    Wrong("studies/balance/other_wheels.py", "gearing=now / then", "gearing=then / now"),
    Wrong(
        "studies/balance/thresholds.py",
        "return None if self.value is None else self.most - self.value",
        "return None if self.value is None else self.value - self.most",
        True,
    ),
    Wrong(
        "studies/balance/thresholds.py",
        "return float(np.max(s.readings.total_kg[towing]))",
        "return float(np.min(s.readings.total_kg[towing]))",
        True,
    ),
    Wrong("studies/balance/offers.py", "offer.rating.si - heaviest", "heaviest - offer.rating.si", True),
    Wrong("document/taking_off.py", 'x = front + length - long if where == "tail"', 'x = front + length if where == "tail"'),
)

STOPS: dict[str, tuple[tuple[Wrong, ...], tuple[str, ...]]] = {
    "reading": (
        READING,
        (
            *WHOLE,
            "tests/validation/test_balance_check_cases.py",
            "tests/core/test_driving.py",
            "tests/core/test_balance_bench.py",
            "tests/core/test_road.py",
        ),
    ),
    "balance": (
        BALANCE,
        (
            *WHOLE,
            "tests/validation/test_balance_check_cases.py",
            "tests/validation/test_towing.py",
            "tests/core/test_driving.py",
            "tests/core/test_balance_bench.py",
            "tests/core/test_moves.py",
        ),
    ),
    "shell": (
        SHELL,
        (
            *WHOLE,
            "tests/validation/test_screening.py",
            "tests/validation/test_faces.py",
            "tests/core/test_joints.py",
            "tests/core/test_framing.py",
            "tests/core/test_shell_judged.py",
            "tests/core/test_nothing_silent.py",
        ),
    ),
    "stow": (
        STOW,
        (
            *WHOLE,
            "tests/validation/test_struts.py",
            "tests/validation/test_vessels.py",
            "tests/core/test_built_inside.py",
            "tests/core/test_clearances.py",
            "tests/core/test_fitting.py",
            "tests/core/test_nothing_silent.py",
            "tests/core/test_leaf.py",
        ),
    ),
    "systems": (
        SYSTEMS,
        (
            *WHOLE,
            "tests/validation/test_systems_check_cases.py",
            "tests/validation/test_comfort_check_cases.py",
            "tests/core/test_systems.py",
            "tests/core/test_nothing_silent.py",
        ),
    ),
    "cut": (
        CUT,
        (*WHOLE, "tests/core/test_cut_shop.py", "tests/core/test_cut_inside.py", "tests/core/test_take_off.py", "tests/core/test_cut.py"),
    ),
    "build": (BUILD, (*WHOLE, "tests/core/test_build.py", "tests/core/test_standing.py")),
    "road": (ROAD_STOP, (*WHOLE, "tests/core/test_road.py", "tests/core/test_drills.py", "tests/core/test_references.py")),
    "bodies": (
        BODIES,
        (
            "tests/core/test_bent_leaf.py",
            "tests/core/test_partitions.py",
            "tests/core/test_schools_compared.py",
            "tests/core/test_outline_taken.py",
            "tests/core/test_rafters_and_ribbed.py",
            "tests/core/test_without_sticks.py",
            "tests/core/test_rising_roof.py",
            "tests/core/test_within_faces.py",
            "tests/core/test_panel_pieces.py",
            "tests/core/test_gaps.py",
            "tests/core/test_screws.py",
            "tests/core/test_ridge_sticks.py",
            "tests/core/test_beside_the_rig.py",
            "tests/core/test_taking_off.py",
            "tests/validation/test_screening.py",
        ),
    ),
}
