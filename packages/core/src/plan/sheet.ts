import { listWords } from "../measure/list-words";
import { eighthsText, gramsText } from "../measure/amounts";
import type { Range } from "../measure/range-schema";
import type { Item } from "../formula/resolve";
import type { StepKind } from "./work-step";
import type { WorkStep } from "./work-step-schema";

/** Minutes that kitchens take, from quick to slow; confidence C. */
const TAKES: Record<Exclude<StepKind, "bake" | "change" | "look" | "turn" | "out" | "cool-tin" | "cool-rack" | "cool-through" | "rest" | "own">, [number, number, number]> = {
  temper: [45, 60, 90],
  soak: [15, 20, 30],
  sour: [5, 8, 10],
  component: [10, 15, 25],
  pan: [1, 2, 4],
  preheat: [12, 15, 25],
  dry: [2, 4, 6],
  cream: [3, 5, 7],
  "cut-in": [3, 5, 8],
  whisk: [4, 6, 9],
  wet: [2, 3, 5],
  combine: [1, 2, 3],
  fold: [1, 1, 2],
  prepare: [3, 6, 12],
  portion: [1, 3, 6],
  top: [1, 2, 3],
  serve: [1, 2, 3],
  glaze: [2, 4, 6],
  cut: [1, 3, 5],
  wrap: [1, 2, 4],
}; // prettier-ignore
export const takes = (kind: keyof typeof TAKES, times = 1): Range => {
  const [low, mid, high] = TAKES[kind];
  return { low: low * times, mid: mid * times, high: high * times };
};
export const exactly = (minutes: number): Range => ({ low: minutes, mid: minutes, high: minutes });

/** An ingredient within a sentence: what stands behind its comma goes in brackets. */
export const nameOf = ({ ingredient }: Item): string =>
  ingredient.name.replace(/, (?:whole|5 %).*$/, "").replace(/, (.+)$/, " ($1)").toLowerCase(); // prettier-ignore

/** Less than this, g, is nothing that is weighed. */
const LEAST_G = 0.05;

const weighed = (items: readonly Item[]): WorkStep["lines"] =>
  items.filter(({ massG }) => massG > 0).map(({ ingredient, massG }) => ({ ingredientId: ingredient.id, grams: massG }));

/** A half more or less than so much of a piece is no number of pieces any more. */
const NEARLY = 0.12;

/** An amount as one says it: eggs by their number with their grams, all else by the scale. */
function amountOf(item: Item): string {
  const piece = item.ingredient.family === "egg" ? item.ingredient.pieces?.[0]?.grams.mid : undefined;
  const halves = piece ? Math.round((2 * item.massG) / piece) : 0;
  if (piece === undefined || halves === 0 || Math.abs((2 * item.massG) / piece - halves) > 2 * NEARLY)
    return `${gramsText(item.massG)} ${nameOf(item)}`;
  return `${eighthsText(halves / 2)} ${nameOf(item)}${halves > 2 ? "s" : ""} (${gramsText(item.massG)})`;
}

/** With their amounts; what is not there is not told. */
export const listed = (items: readonly Item[]): string => listWords(items.filter(({ massG }) => massG >= LEAST_G).map(amountOf));

/** What a kind of step needs where nothing else is said. */
const NEEDS: Partial<Record<StepKind, WorkStep["needs"]>> = {
  temper: "nothing",
  soak: "nothing",
  sour: "nothing",
  rest: "nothing",
  "cool-tin": "nothing",
  "cool-rack": "nothing",
  "cool-through": "nothing",
  preheat: "oven",
  bake: "oven",
  cream: "mixer",
  whisk: "mixer",
};

/** Steps as they are written down, each under its id. */
export class Sheet {
  readonly steps: WorkStep[] = [];
  /** Adds one, with what is weighed for it; gives back its id. */
  add(kind: StepKind, words: string, minutes: Range, items: readonly Item[] = [], more: Partial<WorkStep> = {}): string {
    const step = { id: kind, kind, words, minutes, needs: NEEDS[kind] ?? "hands", after: [], lines: weighed(items), ...more };
    this.steps.push(step);
    return step.id;
  }
}
