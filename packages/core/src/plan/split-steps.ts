import { baked } from "../balance/analyse";
import type { BakedAnalysis } from "../balance/readings";
import type { Simulation } from "../bake/simulation-schema";
import type { Opened } from "../formula/open";
import type { OpenedPart } from "../formula/open-part";
import { resolve } from "../formula/resolve";
import { gramsText } from "../measure/amounts";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { withOwnSteps } from "./own-steps";
import { listed, takes } from "./sheet";
import { stepsOf } from "./steps";
import type { WorkStep } from "./work-step-schema";

/** One batter that becomes several things: it is mixed once, and each part is taken from it, filled and baked by itself. */
export interface SplitSteps {
  /** Up to the batter in the bowl. */
  bowl: WorkStep[];
  /** Ids of the step after which it may be parted, and of the one that wets the leavening. */
  ready: string;
  wetted: string;
  parts: { part: OpenedPart; steps: WorkStep[]; analysis: BakedAnalysis }[];
}

const inTin = new Set<WorkStep["kind"]>(["pan", "preheat", "top", "portion"]);

/** The steps before a step, through any chain. */
function before(steps: readonly WorkStep[], id: string): Set<string> {
  const out = new Set<string>();
  const visit = (one: string): void => {
    for (const next of steps.find((step) => step.id === one)?.after ?? [])
      if (!out.has(next)) {
        out.add(next);
        visit(next);
      }
  };
  visit(id);
  return out;
}

/** The steps of a part from its share of the batter on; its ids begin with its own. */
function partSteps({ id, name, share, additions }: OpenedPart, own: readonly WorkStep[], ready: string, wetted: string, batterG: number, shelf: Shelf): WorkStep[] {
  const prefixed = (step: string): string => `${id}:${step}`;
  const portion = own.find(({ kind }) => kind === "portion");
  const bake = own.find(({ kind }) => kind === "bake");
  if (!portion || !bake) return [];
  const at = own.indexOf(portion);
  const kept = own.filter((step, k) => k >= at || inTin.has(step.kind));
  const keptIds = new Set(kept.map((step) => step.id));
  const items = resolve(additions, shelf);
  const taken = `${gramsText(share * batterG)} of the batter`;
  const take: WorkStep = {
    id: prefixed("take"),
    kind: "fold",
    words: `${name}: take ${taken}${items.length > 0 ? `, and fold in ${listed(items)}` : ""}`,
    minutes: takes("fold"),
    needs: "hands",
    after: [ready],
    lines: items.map(({ ingredient, massG }) => ({ ingredientId: ingredient.id, grams: massG })),
  };
  return [
    take,
    ...kept.map((step): WorkStep => ({
      ...step,
      id: prefixed(step.id),
      words: `${name}: ${step.words.replace(/^\p{Lu}(?=\p{Ll})/u, (c) => c.toLowerCase())}`,
      after: [...new Set([...step.after.filter((one) => keptIds.has(one)).map(prefixed), ...(step === portion ? [take.id] : [])])],
      ...(step.within ? { within: { ...step.within, of: wetted } } : {}),
    })),
  ];
} // prettier-ignore

/** A split batter's steps. Each part is baked in the computer by itself. Throws as `readings`. */
export function splitSteps(
  input: Opened,
  analysis: BakedAnalysis,
  simulation: Simulation | null,
  parts: readonly OpenedPart[],
  shelf: Shelf = builtInShelf,
  warmMinutes?: number,
): SplitSteps {
  const { steps: _, ...process } = input.process ?? {};
  const plain = { ...input, process };
  const whole = stepsOf(plain, { ...analysis, given: { ...analysis.given, process: { ...analysis.given.process, steps: undefined } } }, simulation, shelf, warmMinutes); // prettier-ignore
  const portion = whole.find(({ kind }) => kind === "portion");
  const made = before(whole, portion?.id ?? "");
  const bowl = whole.filter(({ id, kind }) => made.has(id) && kind !== "pan");
  const tail = (portion?.after ?? []).filter((id) => bowl.some((step) => step.id === id && step.kind !== "component"));
  const ready = tail[0] ?? bowl.at(-1)?.id ?? "combine";
  const wetted = whole.find(({ kind }) => kind === "bake")?.within?.of ?? ready;
  return {
    bowl,
    ready,
    wetted,
    parts: parts.map((part) => {
      const own = baked(part.input, shelf, { frames: 0 }, "plain");
      const steps = stepsOf({ ...part.input, process }, own.analysis, own.simulation, shelf, warmMinutes);
      return { part, analysis: own.analysis, steps: partSteps(part, steps, ready, wetted, analysis.batch.massG, shelf) };
    }),
  };
}

/** The steps of a formula, split or whole, with what the baker changed of them: what sheet, paper and exports show. */
export function stepsOfWhole(
  input: Opened,
  analysis: BakedAnalysis,
  simulation: Simulation | null,
  parts: readonly OpenedPart[],
  shelf: Shelf = builtInShelf,
  warmMinutes?: number,
): WorkStep[] {
  if (parts.length === 0) return stepsOf(input, analysis, simulation, shelf, warmMinutes);
  const split = splitSteps(input, analysis, simulation, parts, shelf, warmMinutes);
  return withOwnSteps([...split.bowl, ...split.parts.flatMap(({ steps }) => steps)], input.process?.steps);
}
