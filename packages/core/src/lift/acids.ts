import type { Range } from "../measure/range-schema";
import leaveningTable from "./data/leavening-acids.json";
import solutionTable from "./data/solution-acids.json";
import type { LeaveningAcidId, SolutionAcidId } from "../pantry/ingredient-words";

/** Molar mass of sodium hydrogen carbonate, g/mol. */
export const SODA_MOLAR_MASS = 84.007;

/** mmol of bicarbonate in a gram of soda. */
export const SODA_MMOL_PER_G = 1000 / SODA_MOLAR_MASS;

export { ML_PER_MMOL_25C } from "../physics";

export interface SolutionAcid {
  name: string;
  pKa: number[];
}

/** Acids dissolved in ingredients. pKa at 25 °C and zero ionic strength, from chemical handbooks. */
export const solutionAcids = Object.fromEntries(
  (solutionTable as (SolutionAcid & { id: SolutionAcidId })[]).map((acid) => [acid.id, acid]),
) as unknown as Record<SolutionAcidId, SolutionAcid>;

export interface LeaveningAcid {
  name: string;
  /** Molar mass, g/mol. */
  molarMass: number;
  /** Neutralising value: g of soda met by 100 g of the acid. */
  neutralisingValue: Range;
  /**
   * Acid groups that a titration in batter sees, and how many of each one mole brings. For phosphates and pyrophosphates these are
   * effective: calcium and magnesium of the batter take up the anion and release the proton earlier than in pure water.
   */
  groups: { pKa: number; share: number }[];
  /** First stage of its gas: share given off fast, rate at 22 °C in 1/s. */
  fastShare: number;
  fastRate: number;
  /** Second stage: rate 1/60 per s at `actC`, activation energy in J/mol. */
  actC: number;
  energy: number;
}

/**
 * Leavening acids as crystals. Neutralising values and their ranges as the trade uses them, kinetics from dough rates of
 * reaction (shares within 10 points, temperatures within 5 K); see docs/science/lift.md. The table has the time of the fast stage in seconds.
 */
export const leaveningAcids = Object.fromEntries(
  (leaveningTable as (Omit<LeaveningAcid, "fastRate"> & { id: LeaveningAcidId; fastSeconds: number })[]).map(
    ({ id, fastSeconds, ...acid }) => [id, { ...acid, fastRate: 1 / fastSeconds }],
  ),
) as Record<LeaveningAcidId, LeaveningAcid>;

/** mmol of soda that one gram of a leavening acid meets. */
export const mmolPerGram = (acid: LeaveningAcid, value = acid.neutralisingValue.mid): number => (value / 100) * SODA_MMOL_PER_G;
