import type { WeighedLine } from "../formula/components";
import type { Process } from "../formula/process-schema";
import { type Item, resolve } from "../formula/resolve";
import type { WrittenKind } from "../formula/written";
import type { WrittenStep } from "../formula/written-schema";
import { listWords } from "../measure/list-words";
import { isFlour } from "../pantry/ingredient";
import { mixingRole } from "../pantry/mixing-role";
import type { Shelf } from "../pantry/shelf";
import { combineWords, dryWords, wetStep } from "./bowl";
import { exactly, listed, nameOf, type Sheet, takes } from "./sheet";
import type { StepKind } from "./work-step";
import type { WorkStep } from "./work-step-schema";

/** So long a wait in the cold begins the race of the leavening anew: in the cold little happens. */
const NIGHT_MIN = 240;

const mixes: ReadonlySet<WrittenKind> = new Set<WrittenKind>([
  "combine",
  "blend",
  "fold",
  "dry",
  "cut-in",
  "cream",
  "whisk",
  "wet",
]);
const stepKind = (kind: WrittenKind): Exclude<StepKind, "bake" | "change" | "look" | "turn" | "out" | "cool-tin" | "cool-rack" | "cool-through" | "own"> => (kind === "blend" ? "combine" : kind === "finish" ? "glaze" : kind); // prettier-ignore

export interface WrittenPlan {
  /** Steps up to the last that mixes or waits, then what is done to what is filled, then what is done when it is out. */
  bowl: WrittenStep[];
  pan: WrittenStep[];
  filling: WrittenStep[];
  top: WrittenStep[];
  after: WrittenStep[];
}

/** A written method by where its steps stand to the oven; null where nothing is written. Where it mixes nothing its bowl is empty. */
export function writtenPlan({ written = [] }: Process): WrittenPlan | null {
  if (written.length === 0) return null;
  const late = written.filter(({ kind }) => kind === "finish" || kind === "serve");
  const early = written.filter((step) => !late.includes(step) && step.kind !== "pan");
  const lastMix = early.findLastIndex(({ kind }) => mixes.has(kind));
  const isFilling = (step: WrittenStep, k: number): boolean => k > lastMix && step.kind === "portion";
  const isTop = (step: WrittenStep, k: number): boolean => k > lastMix && step.kind === "top";
  return {
    // What is scooped or laid before the mixing is over is made ready.
    bowl: lastMix < 0 ? [] : early.flatMap((step, k) => (isFilling(step, k) || isTop(step, k) ? [] : [step.kind === "portion" || step.kind === "top" ? { ...step, kind: "prepare" as const } : step])),
    pan: written.filter(({ kind }) => kind === "pan"),
    filling: early.filter(isFilling),
    top: early.filter(isTop),
    after: late,
  };
} // prettier-ignore

/** What cooks beforehand and says no time, minutes; kitchen habit, confidence C. */
const cooks: [RegExp, WorkStep["minutes"]][] = [
  [/\b(?:bake|roast)\b/i, { low: 20, mid: 40, high: 60 }],
  [/\b(?:simmer|boil|cook|steam|stew)\b/i, { low: 8, mid: 15, high: 30 }],
];
const minutesOf = ({ minutes, kind, words }: WrittenStep, much: number): WorkStep["minutes"] => {
  const usual = kind === "rest" ? takes("soak") : takes(stepKind(kind) as Parameters<typeof takes>[0], much);
  if (!minutes && kind === "prepare") return cooks.find(([pattern]) => pattern.test(words))?.[1] ?? usual;
  return minutes ? { low: minutes.low, mid: (minutes.low + minutes.high) / 2, high: minutes.high } : usual;
};

/** A written step's words with what is weighed for it; what the words do not name stands behind them as well. */
export const withAmounts = (words: string, items: readonly Item[]): string => {
  const amounts = listed(items);
  return amounts === "" ? words : `${words}: ${amounts}`;
};

const outOfCold = /^take\b.*\bout\b/i;
const yeasty = /\b(?:prove|proof|rise)\b/i;

/** The lines that no written step takes, by what they are: sieved, stirred or folded in beside what is written. */
function leftOf(lines: readonly WeighedLine[], steps: readonly WrittenStep[]): WeighedLine[] {
  const taken = new Set(steps.flatMap((step) => step.lines));
  return lines.filter(({ id }) => id === undefined || !taken.has(id));
}

/**
 * Everything up to a batter in the bowl as the recipe tells it, with what came to the formula later beside it; ids of the step that it may be
 * portioned after, and of the one that wets the leavening.
 */
export function writtenBowl(
  sheet: Sheet,
  steps: readonly WrittenStep[],
  batter: readonly WeighedLine[],
  known: ReadonlySet<string>,
  shelf: Shelf,
  process: Process,
  much: number,
): { ready: string; wetted: string } {
  const itemsOf = (ids: readonly string[]): Item[] => resolve(ids.flatMap((id) => batter.filter((line) => line.id === id)), shelf); // prettier-ignore
  const left = resolve(leftOf(batter, steps), shelf);
  const role = ({ ingredient }: Item): ReturnType<typeof mixingRole> => mixingRole(ingredient);
  const combines = steps.findIndex(({ kind }) => kind === "combine" || kind === "blend");
  // "Fold in the flour" after eggs were whisked combines as well.
  const wets = (k: number): boolean => steps.slice(0, k).some(({ lines }) => itemsOf(lines).some((item) => role(item) === "wet"));
  const floured = (ids: readonly string[]): boolean => itemsOf(ids).some(({ ingredient }) => isFlour(ingredient));
  const into = combines >= 0 ? combines : steps.findIndex(({ kind, lines }, k) => kind === "fold" && floured(lines) && wets(k));
  const where = (kinds: readonly WrittenKind[], from = 0): number => steps.findIndex(({ kind, lines }, k) => k >= from && kinds.includes(kind) && lines.length > 0); // prettier-ignore
  // What nothing names goes where its like goes; where its like goes nowhere, it is made ready before.
  const extra = new Map<number, Item[]>();
  const before: { dry: Item[]; wet: Item[] } = { dry: [], wet: [] };
  const last = steps.findLastIndex(({ kind }) => mixes.has(kind));
  for (const item of left) {
    const is = role(item);
    const at =
      is === "dry"
        ? where(["dry", "cut-in"])
        : is === "piece"
          ? Math.max(
              where(["fold"]),
              steps.findIndex(({ kind }) => kind === "fold"),
              into < 0 ? last : -1,
            )
          : where(is === "fat" || is === "sugar" ? ["cream", "wet", "whisk"] : ["wet", "cream"]);
    const place = at >= 0 ? at : is === "piece" ? (into >= 0 ? into : last) : -1;
    if (place >= 0) extra.set(place, [...(extra.get(place) ?? []), item]);
    else before[is === "dry" ? "dry" : "wet"].push(item);
  }
  const waitsIn = steps.filter(({ kind }) => kind === "rest");
  let previous: string[] = [];
  const chain: string[] = [];
  if (before.dry.length > 0) chain.push(sheet.add("dry", dryWords(before.dry), takes("dry", much), before.dry));
  if (before.wet.length > 0) chain.push(wetStep(sheet, before.wet, process.method ?? "muffin"));
  previous = [...chain];
  let wetted: string | null = null;
  let wet = before.wet.length > 0;
  let lifts = before.dry.some(({ ingredient }) => ingredient.family === "leavener");
  let allAhead = before.dry.length + before.wet.length === 0;
  const cold = steps.flatMap(({ kind, lines }) => (kind === "cream" ? itemsOf(lines) : [])).filter(({ ingredient }) => ingredient.family === "fat" && ingredient.state === "solid"); // prettier-ignore
  const taken = steps.some(({ kind, words }) => kind === "prepare" && outOfCold.test(words));
  const temper = cold.length > 0 && !taken ? [sheet.add("temper", `Take ${listWords(cold.map(nameOf))} out of the cold`, takes("temper"), [], { ahead: true })] : []; // prettier-ignore
  steps.forEach((step, k) => {
    const own = itemsOf(step.lines);
    const more = extra.get(k) ?? [];
    const items = [...own, ...more];
    const rest = step.kind === "rest";
    // One wait of the batter is the one that the bake reckons with.
    const minutes = rest && !step.cold && waitsIn.length === 1 && process.restMinutes !== undefined && process.restMinutes > 0 ? exactly(process.restMinutes) : minutesOf(step, much); // prettier-ignore
    const note = rest && yeasty.test(step.words) ? " (what yeast does is not computed here)" : "";
    const others = more.length > 0 ? `${own.length > 0 ? "; with it" : ", with"} ${listed(more)}` : "";
    const gone = step.lines.some((line) => !known.has(line)) ? "; what the recipe names here and is not in it any more is left out" : ""; // prettier-ignore
    const words = `${withAmounts(step.words, own)}${others}${gone}${note}`;
    const long = minutes.mid >= NIGHT_MIN;
    const ahead = allAhead && (long || step.kind === "prepare" || step.kind === "soak");
    const soften = step.kind === "prepare" && outOfCold.test(step.words);
    const id = sheet.add(
      soften ? "temper" : stepKind(step.kind),
      words,
      soften ? (step.minutes ? minutes : takes("temper")) : minutes,
      items,
      {
        id: `w${k + 1}`,
        after: step.kind === "cream" ? [...previous, ...temper] : previous,
        ...(step.kind === "blend" || step.kind === "cream" || step.kind === "whisk" ? { needs: "mixer" as const } : {}),
        ...((ahead && (long || soften)) || (long && step.cold) ? { ahead: true } : {}),
      },
    );
    allAhead &&= ahead;
    previous = [id];
    wet ||= items.some((item) => role(item) === "wet");
    lifts ||= items.some(({ ingredient }) => ingredient.family === "leavener" || ingredient.family === "blend");
    // In the cold little happens: the clock begins when it comes out.
    if ((wetted === null && wet && lifts && (k >= into || into < 0)) || (wetted !== null && long && step.cold)) wetted = id;
  });
  if (into < 0) previous = [sheet.add("combine", combineWords[process.method ?? "muffin"], takes("combine", much), [], { after: previous })]; // prettier-ignore
  const stands = process.restMinutes ?? 0;
  if (stands > 0 && waitsIn.length === 0) previous = [sheet.add("rest", "Let it stand, covered", exactly(stands), [], { after: previous })]; // prettier-ignore
  const ready = previous[0] ?? "combine";
  return { ready, wetted: wetted ?? (into < 0 ? "combine" : `w${into + 1}`) };
}
