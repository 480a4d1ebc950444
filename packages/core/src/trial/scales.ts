import type { SymptomId } from "./symptoms";
import type { Seen } from "./symptoms-schema";

/** One step of a scale: its word, how good it is (0 to 1), and what it says as a symptom. */
export interface ScaleStep {
  word: string;
  worth: number;
  says?: { symptomId: SymptomId; degree: 1 | 2 | 3 }[];
}
export interface Scale {
  id: string;
  name: string;
  group: "seen" | "crumb" | "eaten" | "taste";
  steps: ScaleStep[];
  /** A step that is neither good nor bad where nothing is said. */
  usual: number;
}
const fault = (symptomId: SymptomId, ...words: [string, string, string]): ScaleStep[] => [
  { word: "none", worth: 1, says: [] },
  ...words.map((word, k) => ({ word, worth: [0.7, 0.35, 0][k] ?? 0, says: [{ symptomId, degree: (k + 1) as 1 | 2 | 3 }] })),
];
const colour = (pale: SymptomId, dark: SymptomId): ScaleStep[] => [
  { word: "white", worth: 0.1, says: [{ symptomId: pale, degree: 3 }] },
  { word: "pale", worth: 0.4, says: [{ symptomId: pale, degree: 2 }] },
  { word: "light gold", worth: 0.8 },
  { word: "golden", worth: 1 },
  { word: "deep brown", worth: 0.7, says: [{ symptomId: dark, degree: 1 }] },
  { word: "dark", worth: 0.2, says: [{ symptomId: dark, degree: 2 }] },
  { word: "burnt", worth: 0, says: [{ symptomId: dark, degree: 3 }] },
];
/** The short anchored scales of the judging form. The step that is good stands where the eye expects it; the worth of steps is a house rule. */
export const scales: readonly Scale[] = [
  {
    id: "top",
    name: "Top",
    group: "seen",
    usual: 2,
    steps: [
      { word: "sunken", worth: 0.1, says: [{ symptomId: "sunk-middle", degree: 2 }] },
      { word: "flat", worth: 0.5, says: [{ symptomId: "flat-top", degree: 2 }] },
      { word: "domed", worth: 1 },
      { word: "peaked", worth: 0.6, says: [{ symptomId: "peaked", degree: 2 }] },
      { word: "cracked", worth: 0.5, says: [{ symptomId: "cracked-top", degree: 2 }] },
    ],
  },
  { id: "colour-top", name: "Colour on top", group: "seen", usual: 3, steps: colour("pale-top", "dark-top") },
  { id: "colour-base", name: "Colour underneath", group: "seen", usual: 3, steps: colour("pale-base", "burnt-base") },
  {
    id: "crust",
    name: "Crust",
    group: "seen",
    usual: 1,
    steps: [
      { word: "soft", worth: 0.8 },
      { word: "thin", worth: 1 },
      { word: "firm", worth: 0.7, says: [{ symptomId: "thick-crust", degree: 1 }] },
      { word: "thick", worth: 0.3, says: [{ symptomId: "thick-crust", degree: 2 }] },
      { word: "a shell", worth: 0, says: [{ symptomId: "thick-crust", degree: 3 }] },
    ],
  },
  {
    id: "crumb-size",
    name: "Crumb",
    group: "crumb",
    usual: 2,
    steps: [
      { word: "a brick", worth: 0, says: [{ symptomId: "dense", degree: 3 }] },
      { word: "close", worth: 0.5, says: [{ symptomId: "dense", degree: 2 }] },
      { word: "fine", worth: 1 },
      { word: "open", worth: 0.8 },
      { word: "coarse", worth: 0.4, says: [{ symptomId: "coarse-crumb", degree: 2 }] },
      {
        word: "holes",
        worth: 0.1,
        says: [
          { symptomId: "large-holes", degree: 2 },
          { symptomId: "coarse-crumb", degree: 1 },
        ],
      },
    ],
  },
  {
    id: "evenness",
    name: "Evenness",
    group: "crumb",
    usual: 0,
    steps: [
      { word: "even", worth: 1 },
      { word: "a little uneven", worth: 0.7, says: [{ symptomId: "uneven-rise", degree: 1 }] },
      { word: "one side higher", worth: 0.3, says: [{ symptomId: "uneven-rise", degree: 2 }] },
    ],
  },
  { id: "tunnels", name: "Tunnels", group: "crumb", usual: 0, steps: fault("tunnels", "one or two", "several", "many") },
  { id: "gummy", name: "Gummy line", group: "crumb", usual: 0, steps: fault("gummy-line", "a shine", "a band", "thick") },
  {
    id: "moistness",
    name: "Moistness",
    group: "eaten",
    usual: 3,
    steps: [
      { word: "sawdust", worth: 0, says: [{ symptomId: "dry", degree: 3 }] },
      { word: "dry", worth: 0.35, says: [{ symptomId: "dry", degree: 2 }] },
      { word: "a little dry", worth: 0.75, says: [{ symptomId: "dry", degree: 1 }] },
      { word: "moist", worth: 1 },
      { word: "a little wet", worth: 0.7, says: [{ symptomId: "wet-sticky", degree: 1 }] },
      { word: "sticky", worth: 0.3, says: [{ symptomId: "wet-sticky", degree: 2 }] },
      {
        word: "raw",
        worth: 0,
        says: [
          { symptomId: "raw-centre", degree: 2 },
          { symptomId: "wet-sticky", degree: 3 },
        ],
      },
    ],
  },
  { id: "crumble", name: "Crumble", group: "eaten", usual: 0, steps: fault("crumbly", "sheds crumbs", "breaks", "falls apart") },
  {
    id: "chew",
    name: "Chew",
    group: "eaten",
    usual: 0,
    steps: [
      { word: "tender", worth: 1 },
      { word: "springy", worth: 0.75, says: [{ symptomId: "rubbery", degree: 1 }] },
      { word: "rubbery", worth: 0.3, says: [{ symptomId: "rubbery", degree: 2 }] },
      { word: "tough", worth: 0.2, says: [{ symptomId: "tough", degree: 2 }] },
    ],
  },
  { id: "grit", name: "Grit", group: "eaten", usual: 0, steps: fault("gritty", "a trace", "gritty", "sandy") },
  { id: "soapy", name: "Soapy", group: "taste", usual: 0, steps: fault("soapy", "a trace", "plain", "strong") },
  { id: "metallic", name: "Metallic", group: "taste", usual: 0, steps: fault("metallic", "a trace", "plain", "strong") },
  { id: "tangy", name: "Tangy", group: "taste", usual: 0, steps: fault("sour", "tangy", "sour", "sharp") },
  { id: "flat", name: "Flat taste", group: "taste", usual: 0, steps: fault("bland", "a little", "bland", "of nothing") },
  { id: "sweet", name: "Too sweet", group: "taste", usual: 0, steps: fault("too-sweet", "a little", "plain", "cloying") },
  { id: "beany", name: "Beany", group: "taste", usual: 0, steps: fault("beany", "a trace", "plain", "raw") },
];
// prettier-ignore

export const scaleIds = scales.map(({ id }) => id);
/** Scores by scale: the index of the step. */
export type Scores = Record<string, number>;
/** What the scores say as symptoms: those that are there, and those that were looked for and are not. */
export function seenFrom(scores: Scores): Seen[] {
  const out = new Map<SymptomId, Seen["degree"]>();
  for (const { id, steps } of scales) {
    const score = scores[id];
    if (score === undefined) continue;
    for (const { says = [] } of steps) for (const { symptomId } of says) if (!out.has(symptomId)) out.set(symptomId, 0);
    for (const { symptomId, degree } of steps[score]?.says ?? []) out.set(symptomId, Math.max(degree, out.get(symptomId) ?? 0));
  }
  return [...out].map(([symptomId, degree]) => ({ symptomId, degree }));
}
/** Symptoms from scores and those that were ticked besides; what was ticked by hand counts before what a scale says. */
export function allSeen(scores: Scores, ticked: readonly Seen[]): Seen[] {
  const byHand = new Set(ticked.map(({ symptomId }) => symptomId));
  return [...ticked, ...seenFrom(scores).filter(({ symptomId }) => !byHand.has(symptomId))];
}
/** One bad thing spoils the whole: so much of what the worst step lacks is taken off the mean. House rule. */
const SPOILS = 0.35;
/** How good a trial came out, 0 to 1: the mean worth of what was scored, less what its worst fault spoils, less a tenth for every plain fault that no scale covers. Null where nothing was scored. */
export function worthOf(scores: Scores, ticked: readonly Seen[] = []): number | null {
  const scored = scales.flatMap(({ id, steps }) => {
    const score = scores[id];
    return score === undefined ? [] : [steps[score]?.worth ?? 0];
  });
  if (scored.length === 0) return null;
  const mean = scored.reduce((sum, worth) => sum + worth, 0) / scored.length;
  const besides = ticked.filter(({ degree }) => degree >= 2).length;
  const worst = Math.min(...scored);
  return Math.max(0, mean - SPOILS * (1 - worst) - 0.1 * besides);
}
