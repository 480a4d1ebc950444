import { COLOUR } from "../bake/browning";

export const findingIds = [
  "soda-unmet",
  "acid-excess",
  "powder-high",
  "lift-low",
  "lift-early",
  "no-binder",
  "binder-doubled",
  "binder-high",
  "too-wet",
  "too-dry",
  "sugar-high",
  "fat-high",
  "salt-high",
  "pan-overfull",
  "pan-shallow",
  "core-late",
  "colour-shift",
  "gluten-check",
  "oats-check",
  "leavening-counted-twice",
  "temperature-mismatch",
  "oven-too-cool",
  "top-sinks",
  "not-weighed",
  "cooked-mass",
  "recipe-differs",
  "fat-smokes",
  "ferment",
  "heat-elsewhere",
  "fizz",
] as const;
// prettier-ignore
export type FindingId = (typeof findingIds)[number];
const ofTheOven = new Set<FindingId>(["core-late", "oven-too-cool", "top-sinks", "recipe-differs", "temperature-mismatch"]);
/** Whether a finding is of the bake, and not of what is on the sheet. */
export const isOfTheOven = ({ id }: { id: FindingId }): boolean => ofTheOven.has(id);

/** The limits at which something deserves a word. Reason and source of each in docs/science/findings.md. */
export const findingLimits = {
  /** Unmet soda as a share of the batter: tasted, and plainly soapy. */
  sodaTasted: 0.0015,
  sodaSoapy: 0.004,
  /** Crumb pH under which it is tangy and pale. */
  tangyPh: 6,
  /** Powder and soda in % of flour. */
  powderHigh: 8,
  sodaHigh: 1.9,
  /** What is gone back to: a teaspoon and a half of powder to a cup of flour, and as much soda as bakes with much acid have (C). */
  powderUsual: 5.5,
  sodaUsual: 1.5,
  /** Share of the wanted binder. */
  binderLeast: 0.35,
  binderMost: 2.2,
  /** Gum alone, over the most that its kind has: told from here on, and a caution from there. */
  gumMost: 1.6,
  gumPlainly: 2.4,
  /** % of gum on the flour that no kind is scolded for less than. */
  gumUsual: 0.8,
  fillMost: 0.8,
  fillLeast: 0.3,
  /** Browning of the top, in minutes at 150 °C, that is plainly dark. */
  darkTop: COLOUR.dark,
  /** pH at which red fruit turns grey-blue and seeds turn green. */
  anthocyaninPh: 7.2,
  chlorogenicPh: 8,
};
