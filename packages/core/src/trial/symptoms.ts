import table from "./data/symptoms.json";

export const symptomIds = [
  "dense",
  "flat-top",
  "peaked",
  "cracked-top",
  "sunk-middle",
  "collapsed-cooling",
  "overflowed",
  "uneven-rise",
  "spread-wide",
  "raw-centre",
  "gummy-line",
  "wet-sticky",
  "dry",
  "crumbly",
  "rubbery",
  "tough",
  "gritty",
  "tunnels",
  "coarse-crumb",
  "large-holes",
  "lumps",
  "pieces-sank",
  "soapy",
  "metallic",
  "sour",
  "bitter",
  "beany",
  "bland",
  "too-sweet",
  "salty",
  "pale-top",
  "dark-top",
  "pale-base",
  "burnt-base",
  "thick-crust",
  "soggy-base",
  "stuck",
  "shrunk-sides",
  "green-spots",
  "blue-grey-fruit",
  "yellow-spots",
  "batter-too-thick",
  "batter-too-thin",
  "took-longer",
  "done-sooner",
] as const;
// prettier-ignore
export type SymptomId = (typeof symptomIds)[number];
export const symptomGroups = ["top", "shape", "crumb", "feel", "taste", "colour", "batter", "time"] as const;
export type SymptomGroup = (typeof symptomGroups)[number];
/** Something that a baker sees, feels or tastes. `leak` is how often it is there without any of the causes that are known. */
export interface Symptom {
  id: SymptomId;
  group: SymptomGroup;
  words: string;
  leak: number;
  /** What a little of it, a plain case and a strong one look like. */
  degrees: [string, string, string];
}
/** Symptoms with their words; leaks are kitchen knowledge, confidence C. */
export const symptoms = table as Symptom[];
const byId = new Map(symptoms.map((one) => [one.id, one]));
/** Throws where there is no such symptom. */
export function symptomOf(id: SymptomId): Symptom {
  const found = byId.get(id);
  if (!found) throw new Error(`symptoms.json has no entry for ${id}`);
  return found;
}
