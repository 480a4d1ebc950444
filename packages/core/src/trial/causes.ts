import table from "./data/causes.json";
import type { ClueId } from "./clues";
import type { GroupName } from "./groups";
import type { SymptomId } from "./symptoms";

export const causeFamilies = ["lift", "acid", "water", "binder", "richness", "mixing", "standing", "pan", "oven", "core", "cooling", "ingredients"] as const; // prettier-ignore
export type CauseFamily = (typeof causeFamilies)[number];

/** What a cause changes of a bake, where the simulation can show it: of what, by how much or to what. */
export interface DeviationKind {
  what: "soda" | "acid" | "leavening" | "powder" | "stood" | "water" | "binder" | "fat" | "sugar" | "egg" | "flour" | "salt" | "batterC" | "pan" | "panMaterial" | "ovenK" | "coldStart" | "door" | "shelf" | "minutes"; // prettier-ignore
  by: number;
  of?: string;
}

export interface CauseRemedy {
  kind: "lines" | "process" | "oven" | "pan";
  aim: string;
}

/** Something that can go wrong: how likely by itself, what it does to a bake, what of a bake tells for it. */
export interface Cause {
  id: string;
  family: CauseFamily;
  words: string;
  /** Chance before anything is known of this bake. */
  prior: number;
  /** Chance that it alone brings a symptom. */
  does: Partial<Record<SymptomId, number>>;
  /** Clues: a curve weight × tanh((clue − at) / per), counted from what a sound bake shows (`clueWeight`). */
  clues: { of: ClueId; at: number; per: number; weight: number }[];
  /** What must be in the bake, as written or as it went in, for the cause to be possible at all. */
  needs?: GroupName | "pieces" | "wetPieces" | "pulses";
  /** Facts that exclude it. */
  not?: { of: ClueId; below?: number; above?: number }[];
  /** What would tell it from the next one. */
  tell: string;
  deviation?: DeviationKind;
  remedy?: CauseRemedy;
  experiment?: string;
  source: string;
  confidence: string;
}

/** The causes with what is known of them; strengths and priors are kitchen knowledge unless their source says otherwise. */
export const causes = table as unknown as Cause[];
const byId = new Map(causes.map((one) => [one.id, one]));
export const causeIds: readonly string[] = causes.map(({ id }) => id);

/** Throws where there is no such cause. */
export function causeOf(id: string): Cause {
  const found = byId.get(id);
  if (!found) throw new Error(`causes.json has no entry for ${id}`);
  return found;
}
