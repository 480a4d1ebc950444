import { type Range, range } from "../measure/range";
import type { LeaveningAcidId, SolutionAcidId } from "../pantry/ingredient";

/** Molar mass of sodium hydrogen carbonate, g/mol. */
export const SODA_MOLAR_MASS = 84.007;

/** mmol of bicarbonate in a gram of soda. */
export const SODA_MMOL_PER_G = 1000 / SODA_MOLAR_MASS;

/** Volume of a mmol of dry gas at 25 °C and 1 atm, mL. */
export const ML_PER_MMOL_25C = 24.465;

export interface SolutionAcid {
  name: string;
  pKa: number[];
}

/** Acids dissolved in ingredients. pKa at 25 °C and zero ionic strength, from chemical handbooks. */
export const solutionAcids: Record<SolutionAcidId, SolutionAcid> = {
  lactic: { name: "lactic acid", pKa: [3.86] },
  acetic: { name: "acetic acid", pKa: [4.76] },
  citric: { name: "citric acid", pKa: [3.13, 4.76, 6.4] },
  malic: { name: "malic acid", pKa: [3.4, 5.11] },
  tartaric: { name: "tartaric acid", pKa: [3.04, 4.37] },
  gluconic: { name: "gluconic acid", pKa: [3.86] },
  ascorbic: { name: "ascorbic acid", pKa: [4.17, 11.6] },
  phosphoric: { name: "phosphoric acid", pKa: [2.15, 7.2, 12.35] },
};

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

const one = (pKa: number): { pKa: number; share: number }[] => [{ pKa, share: 1 }];

/**
 * Leavening acids as crystals. Neutralising values and their ranges as the trade uses them, kinetics from dough rates of
 * reaction (shares within 10 points, temperatures within 5 K); see docs/science/lift.md.
 */
export const leaveningAcids: Record<LeaveningAcidId, LeaveningAcid> = {
  mcp: {
    name: "monocalcium phosphate",
    molarMass: 252.07,
    neutralisingValue: range(78, 80, 83),
    groups: [
      { pKa: 5, share: 0.75 },
      { pKa: 6.4, share: 0.25 },
    ],
    fastShare: 0.65,
    fastRate: 1 / 60,
    actC: 60,
    energy: 110e3,
  },
  "mcp-coated": {
    name: "coated monocalcium phosphate",
    molarMass: 234.05,
    neutralisingValue: range(80, 83, 86),
    groups: [
      { pKa: 5, share: 0.75 },
      { pKa: 6.4, share: 0.25 },
    ],
    fastShare: 0.5,
    fastRate: 1 / 420,
    actC: 60,
    energy: 110e3,
  },
  sapp: {
    name: "sodium acid pyrophosphate",
    molarMass: 221.94,
    neutralisingValue: range(70, 72, 76),
    groups: [
      { pKa: 5.6, share: 0.5 },
      { pKa: 6.5, share: 0.5 },
    ],
    fastShare: 0.28,
    fastRate: 1 / 110,
    actC: 52,
    energy: 140e3,
  },
  sas: {
    name: "sodium aluminium sulfate",
    molarMass: 242.09,
    neutralisingValue: range(98, 102, 104),
    groups: one(5),
    fastShare: 0.05,
    fastRate: 1 / 300,
    actC: 55,
    energy: 140e3,
  },
  salp: {
    name: "sodium aluminium phosphate",
    molarMass: 949.88,
    neutralisingValue: range(98, 100, 106),
    groups: [
      { pKa: 5, share: 0.7 },
      { pKa: 6.4, share: 0.3 },
    ],
    fastShare: 0.22,
    fastRate: 1 / 150,
    actC: 56,
    energy: 140e3,
  },
  dcp: {
    name: "dicalcium phosphate",
    molarMass: 172.09,
    neutralisingValue: range(30, 33, 35),
    groups: one(6.2),
    fastShare: 0,
    fastRate: 1 / 60,
    actC: 74,
    energy: 160e3,
  },
  tartrate: {
    name: "cream of tartar",
    molarMass: 188.18,
    neutralisingValue: range(44, 45, 50),
    groups: one(4.37),
    fastShare: 0.8,
    fastRate: 1 / 75,
    actC: 55,
    energy: 70e3,
  },
  gdl: {
    name: "glucono-delta-lactone",
    molarMass: 178.14,
    neutralisingValue: range(45, 47, 50),
    groups: one(3.86),
    fastShare: 0.2,
    fastRate: 1 / 900,
    actC: 55,
    energy: 70e3,
  },
  tartaric: {
    name: "tartaric acid",
    molarMass: 150.09,
    neutralisingValue: range(111, 111.9, 112),
    groups: [
      { pKa: 3.04, share: 0.5 },
      { pKa: 4.37, share: 0.5 },
    ],
    fastShare: 0.92,
    fastRate: 1 / 45,
    actC: 55,
    energy: 70e3,
  },
  citric: {
    name: "citric acid",
    molarMass: 192.12,
    neutralisingValue: range(130, 131.2, 132),
    groups: [
      { pKa: 3.13, share: 1 / 3 },
      { pKa: 4.76, share: 1 / 3 },
      { pKa: 6.4, share: 1 / 3 },
    ],
    fastShare: 0.92,
    fastRate: 1 / 45,
    actC: 55,
    energy: 70e3,
  },
  malic: {
    name: "malic acid",
    molarMass: 134.09,
    neutralisingValue: range(124, 125.3, 126),
    groups: [
      { pKa: 3.4, share: 0.5 },
      { pKa: 5.11, share: 0.5 },
    ],
    fastShare: 0.92,
    fastRate: 1 / 45,
    actC: 55,
    energy: 70e3,
  },
  fumaric: {
    name: "fumaric acid",
    molarMass: 116.07,
    neutralisingValue: range(142, 144.8, 146),
    groups: [
      { pKa: 3.03, share: 0.5 },
      { pKa: 4.44, share: 0.5 },
    ],
    fastShare: 0.3,
    fastRate: 1 / 200,
    actC: 50,
    energy: 70e3,
  },
  adipic: {
    name: "adipic acid",
    molarMass: 146.14,
    neutralisingValue: range(113, 115, 116),
    groups: [
      { pKa: 4.42, share: 0.5 },
      { pKa: 5.41, share: 0.5 },
    ],
    fastShare: 0.5,
    fastRate: 1 / 120,
    actC: 50,
    energy: 70e3,
  },
};

/** mmol of soda that one gram of a leavening acid meets. */
export const mmolPerGram = (acid: LeaveningAcid, value = acid.neutralisingValue.mid): number => (value / 100) * SODA_MMOL_PER_G;
