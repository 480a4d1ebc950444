import * as contract from "@uprise/contract";
import {
  type Allergen,
  analyse,
  type Analysis,
  baked,
  type BakeAsked,
  type BakedAnalysis,
  balanceWithout,
  beginKind,
  beliefsOf,
  type BlendLabel,
  blendFrom,
  blendFromLabel,
  likelyShares,
  catalogue,
  type Consistency,
  CoreError,
  type Design,
  faultsIn,
  type Fidelity,
  floursOf,
  type Formula,
  formulaFrom,
  type Ingredient,
  type Kind,
  type Kitchen,
  type Language,
  labelOf,
  laidOut,
  learntFlour,
  type Measures,
  mended,
  type Mending,
  moved,
  type Opened,
  type OpenedPart,
  type OwnNames,
  type Packet,
  packetSchema,
  pricesPerKg,
  readings,
  readRecipe,
  ready,
  type RegionId,
  searchIngredients,
  seasonCsv,
  seasonNow,
  type SeasonAsked,
  seasonResults,
  type Shelf,
  shelfWith,
  shortestMinutes,
  type SimulateOptions,
  type Simulation,
  splitOf,
  stepsOfWhole,
  swap,
  targetOf,
  trialSchema,
  usualAmounts,
  type WholeWish,
  type SaidOfText,
  type Wish,
  wishFrom,
} from "@uprise/core";
import { rangeOfFactors } from "@uprise/core/src/bake/sensitivity";
import { sampleStart, simulateStart } from "@uprise/core/src/bake/simulate";
import { judgeOf } from "@uprise/core/src/picture/judge";
import { packetPrint } from "@uprise/core/src/picture/packet";
import { pageLines } from "@uprise/core/src/picture/page-lines";
import type { PageWord } from "@uprise/core/src/picture/words";
import { languageOf } from "@uprise/core/src/measure/languages/language";
import { measureCutFace, type Picture, readCutFace } from "@uprise/core/src/trial/cut-face";
import type { z } from "zod";
import { drawingsOf, isolinesOf } from "./isotherms";

/** A kitchen's own ingredients, as they go to a worker. */
type Own = readonly Ingredient[];
/** What a formula is opened in, as plain data. */
export interface KitchenData {
  own: Own;
  entries: [id: string, entry: NonNullable<ReturnType<Kitchen["book"]>>][];
  ovens: [id: string, known: { biasK: number; swingK: number }][];
  measures: Measures;
}

/** A bake as it was computed; without a simulation what is on the sheet cannot be baked, and the analysis says why. */
export type Bench = { analysis: BakedAnalysis; simulation: Simulation } | { analysis: Analysis; simulation: null };

const shelves = new Map<string, Shelf>();
const MOST_SHELVES = 8;

/** The shelf with a kitchen's own on it; the same object for the same things, so that what is kept by shelf is found again. */
function shelfOf(own: Own): Shelf {
  if (own.length === 0) return shelfWith([]);
  const key = JSON.stringify(own);
  const known = shelves.get(key) ?? shelfWith(own);
  shelves.delete(key);
  shelves.set(key, known);
  const oldest = shelves.keys().next().value;
  if (shelves.size > MOST_SHELVES && oldest !== undefined) shelves.delete(oldest);
  return known;
}

function kitchenOf({ own, entries, ovens, measures }: KitchenData): Kitchen {
  const book = new Map(entries);
  return { shelf: shelfOf(own), book: (id) => book.get(id), ovens: new Map(ovens), measures };
}

function bench(input: Opened, own: Own, fidelity: Fidelity): Bench {
  const shelf = shelfOf(own);
  try {
    return baked(input, shelf, { fidelity });
  } catch (error) {
    if (!(error instanceof CoreError) || error.code !== "not-a-batter") throw error;
    return { analysis: { ...readings(input, shelf), unbaked: error.message }, simulation: null };
  }
}

const RUNS = 32;

const schemas = { ...contract, packetSchema, trialSchema };
/** The schemas that something may be checked by. */
export type SchemaName = {
  [N in keyof typeof schemas]: (typeof schemas)[N] extends z.ZodType ? N : never;
}[keyof typeof schemas];
export interface Issue {
  path: PropertyKey[];
  message: string;
}
export type Checked = { ok: true; value: unknown } | { ok: false; message: string; issues: Issue[] };

function check(name: SchemaName, value: unknown): Checked {
  const parsed = (schemas[name] as z.ZodType).safeParse(value);
  if (parsed.success) return { ok: true, value: parsed.data };
  const issues = parsed.error.issues.map(({ path, message }) => ({ path, message }));
  return { ok: false, message: issues[0]?.message ?? "Something in it is not as it should be.", issues };
}

/** What was said of a text, without what was not. */
const said = ({ language, batch, figures }: SaidOfText): SaidOfText => ({
  ...(language ? { language } : {}),
  ...(batch === undefined ? {} : { batch }),
  ...(figures ? { figures } : {}),
});

/** Everything that is asked of a worker, by name: pure functions of plain data. */
export const tasks = {
  pantry: () => catalogue,
  check,
  search: (query: string, own: Own, most: number) => searchIngredients(query, shelfOf(own), most),
  /** One line as it would stand in a recipe. */
  line: (text: string, measures: Measures, own: Own) =>
    readRecipe(`Ingredients\n${text.replace(/\n/g, " ")}`, measures, undefined, shelfOf(own)).lines[1] ?? null,
  /** A pasted text with everything that was said of it by hand, as it is read and as the formula that it would begin. */
  read: (
    text: string,
    measures: Measures,
    mending: Mending,
    kind: Kind | undefined,
    own: Own,
    names: OwnNames,
    told: SaidOfText = {},
  ) => {
    const shelf = shelfOf(own);
    const reading = mended(readRecipe(text, measures, undefined, shelf, names, told), mending, measures, shelf);
    return {
      reading,
      begun: formulaFrom(reading, measures, kind, shelf, { text, measures, mending, ...said(told) }),
    };
  },
  /** The words of a page as lines, each as the pantry and the grammar like it best, and what language they seem to be. */
  page: (words: readonly PageWord[], language: Language, own: Own) => {
    const lines = pageLines(words, judgeOf(language, shelfOf(own)));
    return { lines, language: languageOf(lines.map(({ text }) => text).join("\n")) ?? ("en" as const) };
  },
  /** The words of a packet as its print, and what that says. */
  "packet-print": (words: readonly PageWord[], language: Language, own: Own) =>
    pageLines(words, judgeOf(language, shelfOf(own)))
      .map(({ text }) => text)
      .join("\n"),
  "packet-says": (text: string, own: Own) => packetPrint(text, shelfOf(own)),
  begin: (kind: Kind, measures: Measures, grams: number) => beginKind(kind, measures, grams),
  faults: (formula: Formula) => faultsIn(formula),
  readings: (input: Opened, own: Own) => readings(input, shelfOf(own)),
  bake: bench,
  /** The same with what would mend each finding. */
  ways: (input: Opened, own: Own) => analyse(input, shelfOf(own), { frames: 0 }, "ways").findings,
  simulate: (input: Opened, own: Own, options: SimulateOptions) => {
    const { start, massSpread } = ready(input, shelfOf(own));
    return simulateStart(start, massSpread, options);
  },
  /** Factors of the minutes over all that is uncertain, and the range that holds four in five of them. */
  runs: (input: Opened, own: Own) => {
    const { start, massSpread } = ready(input, shelfOf(own));
    const factors = sampleStart(start, massSpread, 1, RUNS + 1);
    return factors && { factors, ...rangeOfFactors(factors) };
  },
  draw: drawingsOf,
  isolines: isolinesOf,
  "season-csv": seasonCsv,
  "season-results": seasonResults,
  beliefs: (analysis: Analysis, simulation: Simulation | null, own: Own) => beliefsOf(analysis, simulation, shelfOf(own)),
  usual: (ingredientId: string, input: Opened, own: Own) => usualAmounts(ingredientId, input, shelfOf(own)),
  target: (word: Consistency, input: Opened, own: Own) => ({
    target: targetOf(word, input, shelfOf(own)),
    learnt: learntFlour(word, input, shelfOf(own)),
  }),
  steps: (
    input: Opened,
    analysis: BakedAnalysis,
    simulation: Simulation | null,
    parts: readonly OpenedPart[],
    own: Own,
    warmMinutes?: number,
  ) => {
    const steps = stepsOfWhole(input, analysis, simulation, parts, shelfOf(own), warmMinutes);
    return { steps, wholeMinutes: shortestMinutes(steps) };
  },
  /** A formula for its paper: its bake and its steps. */
  paper: (input: Opened, parts: readonly OpenedPart[], own: Own, warmMinutes?: number) => {
    const shelf = shelfOf(own);
    const { analysis, simulation } = baked(input, shelf, { frames: 0 });
    return { analysis, steps: stepsOfWhole(input, analysis, simulation, parts, shelf, warmMinutes) };
  },
  /** A bake for the counter, where nobody answers who would lay it out. */
  "lay-out": (asked: BakeAsked, kitchen: KitchenData) => laidOut(asked, kitchenOf(kitchen)),
  balance: (input: Opened, own: Own, avoid: readonly Allergen[], locked: readonly string[]) =>
    balanceWithout(input, { avoid, locked }, shelfOf(own)),
  /** The whole formula at once, by one wish; `onHand` and `packets` for those that ask the shelf. */
  wished: (
    input: Opened,
    own: Own,
    wish: WholeWish,
    avoid: readonly Allergen[],
    locked: readonly string[],
    onHand: readonly string[],
    packets: readonly Packet[],
  ) =>
    balanceWithout(
      input,
      { wish, avoid, locked, prices: pricesPerKg(packets), ...(wish === "on-hand" ? { onHand } : {}) },
      shelfOf(own),
    ),
  swap: (input: Opened, own: Own, replace: string, avoid: readonly Allergen[], locked: readonly string[]) =>
    swap(input, { replace }, { avoid, locked }, shelfOf(own)),
  split: (formula: Formula, kitchen: KitchenData) => splitOf(formula, kitchenOf(kitchen)),
  label: (input: Opened, own: Own, kind: Kind, region: RegionId, packets: readonly Packet[]) => {
    const shelf = shelfOf(own);
    return labelOf(input, analyse(input, shelf, { frames: 0 }, "plain"), kind, region, packets, shelf);
  },
  moved: (wish: Wish, id: Design["id"], own: Own) => moved(wish, id, shelfOf(own)),
  wish: (formula: Formula, have: readonly string[], own: Own) => wishFrom(formula, have, shelfOf(own)),
  flours: (lines: Design["lines"], own: Own) => floursOf(lines, shelfOf(own)),
  blend: (id: string, name: string, lines: Design["lines"], own: Own) => blendFrom(id, name, lines, shelfOf(own)),
  "blend-shares": (label: BlendLabel, own: Own) => likelyShares(label, shelfOf(own)),
  "blend-of-label": (label: BlendLabel, own: Own) => blendFromLabel(label, shelfOf(own)),
  slice: (picture: Picture, mmAcross: number | undefined) => readCutFace(picture, mmAcross),
  /** How a season stands by the log, or which bakes it begins with; `tell` hears how far it is, 0 to 1. */
  season: (asked: SeasonAsked, kitchen: KitchenData, tell?: Tell) =>
    seasonNow(asked, kitchenOf(kitchen), (done) => (tell?.(done), false)),
  "measure-slice": (kinds: Uint8Array, width: number, height: number, mmAcross: number | undefined) =>
    measureCutFace(kinds, width, height, mmAcross),
};

/** Hears how far a task is. */
export type Tell = (done: number) => unknown;
export type Tasks = typeof tasks;
export type TaskName = keyof Tasks;
/** What a task is asked with; who is told how far it is goes beside it. */
export type Args<N extends TaskName> =
  Parameters<Tasks[N]> extends [...infer A, tell?: Tell] ? (A extends unknown[] ? A : never) : Parameters<Tasks[N]>;
export type Result<N extends TaskName> = ReturnType<Tasks[N]>;

/** Why something could not be done; `code` where the core says so. */
export interface Fault {
  code: string | null;
  message: string;
}
export type Outcome<N extends TaskName> = { result: Result<N> } | { fault: Fault };

/** Does one task, here and now; what fails is told, not thrown, since an error loses its code on the way out of a worker. */
export function perform<N extends TaskName>(name: N, args: Args<N>, tell?: Tell): Outcome<N> {
  try {
    const told = tell ? [...args, tell] : args;
    return { result: (tasks[name] as (...args: unknown[]) => Result<N>)(...told) };
  } catch (error) {
    if (error instanceof CoreError) return { fault: { code: error.code, message: error.message } };
    return { fault: { code: null, message: error instanceof Error ? error.message : String(error) } };
  }
}
