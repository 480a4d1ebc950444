import type { Process } from "../formula/process-schema";
import type { Item } from "../formula/resolve";
import { product, range, scaled, sum } from "../measure/range";
import type { Range } from "../measure/range-schema";
import type { LeaveningAcidId } from "../pantry/ingredient-words";
import { leaveningAcids, mmolPerGram, ML_PER_MMOL_25C } from "./acids";
import { acidFractions } from "./charge";
import { type GasReaction, bufferReaction, crystalReaction, dissolvedReaction, heatReaction, releasedAfter } from "./kinetics";
import type { Ledger } from "./ledger";

/** One source of carbon dioxide in a batter. */
export interface GasSource {
  id: "dissolved" | "buffers" | "heat" | LeaveningAcidId;
  name: string;
  /** mmol it gives when it has run to its end. */
  mmol: number;
  reaction: GasReaction;
}

export interface Gas {
  sources: GasSource[];
  /** mmol of carbon dioxide that fizzy liquids bring and that survives mixing. */
  fizz: Range;
  /** mmol of fizz lost in pouring and whisking. */
  fizzLost: number;
  /** mmol of soda's carbon that stays behind as carbonate. */
  carbonate: number;
}

/** What of the closed bottle's gas is left after pouring and mixing (kitchen knowledge). */
const FIZZ_KEPT = range(0.1, 0.2, 0.35);

/** Time from wetting the leavening to the oven, without any rest: mixing, filling, carrying. s */
export const HANDLING_S = 180;

/** Air that a method beats in, as a share of the batter's volume. */
export const airShare: Record<NonNullable<Process["method"]>, Range> = {
  muffin: range(0.05, 0.08, 0.11),
  "one-bowl": range(0.06, 0.09, 0.12),
  "cut-in": range(0.04, 0.07, 0.1),
  blender: range(0.06, 0.1, 0.14),
  creaming: range(0.14, 0.19, 0.25),
  whisked: range(0.3, 0.4, 0.55),
};

/**
 * Shares the soda out among its acids, the faster first, and what the hot crumb does not hold (`carbonMmol`, by the balance that gives its pH) to its
 * buffers and to heat. Carbon is conserved: the sources, the carbonate and the soda are equal.
 */
export function gasOf(items: readonly Item[], ledger: Ledger, carbonMmol: number): Gas {
  let soda = ledger.soda.mid;
  const sources: GasSource[] = [];
  const take = (id: GasSource["id"], name: string, available: number, reaction: GasReaction): void => {
    const mmol = Math.min(Math.max(0, available), soda);
    if (mmol <= 0) return;
    soda -= mmol;
    sources.push({ id, name, mmol, reaction });
  };
  take(
    "dissolved",
    "acids of the ingredients",
    ledger.entries.reduce((all, entry) => all + entry.dissolved, 0),
    dissolvedReaction,
  );
  const crystals = new Map<LeaveningAcidId, number>();
  for (const item of items) {
    for (const [id, fraction] of acidFractions(item.ingredient)) {
      crystals.set(id, (crystals.get(id) ?? 0) + item.massG * fraction * mmolPerGram(leaveningAcids[id]));
    }
  }
  const benchSpeed = (id: LeaveningAcidId): number => releasedAfter(crystalReaction(id), 300, 22);
  for (const id of [...crystals.keys()].sort((a, b) => benchSpeed(b) - benchSpeed(a))) {
    take(id, leaveningAcids[id].name, crystals.get(id) ?? 0, crystalReaction(id));
  }
  // What finds no acid meets the batter's buffers when it is hot, and only the rest splits by heat alone.
  const carbonate = Math.min(soda, carbonMmol);
  const driven = soda - carbonate;
  take("buffers", "buffers of the batter", Math.min(ledger.reserve, driven), bufferReaction);
  take("heat", "soda split by heat", driven - Math.min(ledger.reserve, driven), heatReaction);
  const bottled = sum(
    items.map((item) => (item.ingredient.carbonation ? scaled(item.ingredient.carbonation, item.massG / 100) : range(0, 0, 0))),
  );
  const fizz = bottled.mid > 0 ? product(bottled, FIZZ_KEPT) : range(0, 0, 0);
  return { sources, fizz, fizzLost: bottled.mid - fizz.mid, carbonate };
}

/** mmol released on the bench after `seconds` at a temperature. */
export const benchGas = (gas: Gas, seconds: number, celsius: number): number =>
  gas.sources.reduce((all, source) => all + source.mmol * releasedAfter(source.reaction, seconds, celsius), 0);

export interface Stages {
  /** Shares of all the carbon dioxide that the soda and the fizz hold; they add up to 1 (0 where there is none). */
  bench: number;
  oven: number;
  never: number;
}

export function stagesOf(gas: Gas, seconds: number, celsius: number): Stages {
  const reacting = gas.sources.reduce((all, source) => all + source.mmol, 0);
  const whole = reacting + gas.carbonate + gas.fizz.mid + gas.fizzLost;
  if (whole <= 0) return { bench: 0, oven: 0, never: 0 };
  const bench = benchGas(gas, seconds, celsius) + gas.fizzLost;
  return { bench: bench / whole, oven: (reacting + gas.fizz.mid - (bench - gas.fizzLost)) / whole, never: gas.carbonate / whole };
}

/** Gas in mL at 25 °C per 100 g of batter, chemical and fizz, all that is ever released in batter or oven. */
export function gasVolume(gas: Gas, soda: Range, massG: number): Range {
  const chemical = gas.sources.reduce((all, source) => all + source.mmol, 0);
  const share = soda.mid > 0 ? chemical / soda.mid : 0;
  return scaled(sum([scaled(soda, share), gas.fizz]), massG > 0 ? (ML_PER_MMOL_25C * 100) / massG : 0);
}

/** Minutes on the bench until `share` of the oven's lift is lost, or null when a day is not enough. */
export function minutesUntilLost(gas: Gas, share: number, celsius: number): number | null {
  const whole = gas.sources.reduce((all, source) => all + source.mmol, 0);
  if (whole <= 0) return null;
  const atStart = benchGas(gas, HANDLING_S, celsius);
  const limit = share * (whole - atStart);
  let low = 0;
  let high = 24 * 60;
  if (benchGas(gas, HANDLING_S + high * 60, celsius) - atStart < limit) return null;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (benchGas(gas, HANDLING_S + middle * 60, celsius) - atStart < limit) low = middle;
    else high = middle;
  }
  return high;
}
