import { leaveningAcids } from "./acids";
import { GAS_CONSTANT, KELVIN } from "../physics";
import type { LeaveningAcidId } from "../pantry/ingredient-words";

const BENCH_K = 295.15;

/** A gas reaction in two first-order stages; rates in 1/s at the temperatures given, energies in J/mol. */
export interface GasReaction {
  fastShare: number;
  /** Rate at 22 °C. */
  fastRate: number;
  /** The second stage runs at `actRate` at `actC`. */
  actC: number;
  actRate: number;
  energy: number;
}

/** Activation energy of the fast stage, dissolution-limited. */
const FAST_ENERGY = 40e3;

/** Soda with acid that is dissolved already: at once, but for what must still find each other. */
export const dissolvedReaction: GasReaction = { fastShare: 0.9, fastRate: 1 / 40, actC: 55, actRate: 1 / 60, energy: 50e3 };

/** Soda that meets only weak buffers: as with dissolved acid, but not before the batter is hot (above 60 °C). */
export const bufferReaction: GasReaction = { fastShare: 0, fastRate: 1 / 40, actC: 66, actRate: 1 / 60, energy: 110e3 };

/** Soda without acid, split by heat alone. */
export const heatReaction: GasReaction = { fastShare: 0, fastRate: 1 / 60, actC: 90, actRate: 1 / 420, energy: 105e3 };

export function crystalReaction(id: LeaveningAcidId): GasReaction {
  const acid = leaveningAcids[id];
  return { fastShare: acid.fastShare, fastRate: acid.fastRate, actC: acid.actC, actRate: 1 / 60, energy: acid.energy };
}

const arrhenius = (energy: number, kelvin: number, at: number): number =>
  Math.exp((-energy / GAS_CONSTANT) * (1 / kelvin - 1 / at));

export const fastRateAt = (reaction: GasReaction, celsius: number): number =>
  reaction.fastRate * arrhenius(FAST_ENERGY, celsius + KELVIN, BENCH_K);

export const slowRateAt = (reaction: GasReaction, celsius: number): number =>
  reaction.actRate * arrhenius(reaction.energy, celsius + KELVIN, reaction.actC + KELVIN);

/** Share of a reaction's gas given off after `seconds` at a constant temperature. */
export function releasedAfter(reaction: GasReaction, seconds: number, celsius: number): number {
  const fast = 1 - Math.exp(-fastRateAt(reaction, celsius) * seconds);
  const slow = 1 - Math.exp(-slowRateAt(reaction, celsius) * seconds);
  return reaction.fastShare * fast + (1 - reaction.fastShare) * slow;
}

/** Shares given off along a temperature curve, at each of its times (s, °C; the first time is the start). */
export function releasedAlong(reaction: GasReaction, times: readonly number[], celsius: readonly number[]): number[] {
  let fast = 1;
  let slow = 1;
  return times.map((time, i) => {
    if (i > 0) {
      const step = time - (times[i - 1] ?? 0);
      const middle = ((celsius[i] ?? 0) + (celsius[i - 1] ?? 0)) / 2;
      fast *= Math.exp(-fastRateAt(reaction, middle) * step);
      slow *= Math.exp(-slowRateAt(reaction, middle) * step);
    }
    return reaction.fastShare * (1 - fast) + (1 - reaction.fastShare) * (1 - slow);
  });
}
