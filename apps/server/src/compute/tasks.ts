import {
  analyse,
  analyseText,
  type AnalyseInput,
  balanceWithout,
  design,
  family,
  type Book,
  type BookEntry,
  type Ingredient,
  inputFrom,
  type Kitchen,
  type Language,
  type Measures,
  openInput,
  type Day,
  planDay,
  openParts,
  labelOf,
  type Nutrition,
  type Packet,
  type RegionId,
  scaleUp,
  outgoing,
  formulaCsv,
  formulaJsonLd,
  formulaMarkdown,
  formulaText,
  type Formula,
  glance,
  type Glance,
  openFormula,
  type Slip,
  slipAnswer,
  type Opened,
  type OvenKnown,
  type Allergen,
  type BakeAsked,
  laidOut,
  readRecipe,
  shelfWith,
  simulate,
  swap,
  calibrate,
  CoreError,
  madeUp,
  diagnose,
  type FiguresAre,
  type Goal,
  type KitchenFacts,
  type Logged,
  type Measured,
  nextFor,
  predictedFor,
  type SeasonAsked,
  seasonDesign,
  seasonNext,
  seasonNow,
  type Seen,
  type WholeWish,
  type Wish,
} from "@uprise/core";
import type { ImportRequest, Practice, PracticeRequest, SeasonDesignRequest, SeasonNextRequest } from "@uprise/contract";
import { imported } from "./import";

/** What a kitchen has of its own, as plain data that goes to a thread. */
export interface KitchenData {
  ingredients: Ingredient[];
  formulas: [id: string, entry: BookEntry][];
  ovens: [id: string, known: OvenKnown][];
}

export type FormulaRequestInput = AnalyseInput & { text?: string | undefined };
interface Choices {
  locked?: string[] | undefined;
  avoid?: Allergen[] | undefined;
  onHand?: string[] | undefined;
}

/** The calls that compute and store nothing, by name: what is asked and, by inference, what is answered. */
export interface Asked {
  read: {
    text: string;
    measures?: Measures | undefined;
    title?: string | undefined;
    language?: Language | undefined;
    batch?: number | undefined;
    figures?: FiguresAre | undefined;
  };
  analyse: FormulaRequestInput;
  simulate: FormulaRequestInput & { minutes?: number | undefined };
  balance: FormulaRequestInput & Choices & { wish?: WholeWish | undefined; prices?: Record<string, number> | undefined };
  swap: FormulaRequestInput & Choices & { replace: string; with?: string | undefined };
  design: Wish;
  family: Wish;
  counter: BakeAsked;
  slip: FormulaRequestInput & { slip: Slip };
  faults: FormulaRequestInput & {
    seen: Seen[];
    measured?: Measured | undefined;
    slips?: Slip[] | undefined;
    kitchen?: KitchenFacts | undefined;
  };
  next: FormulaRequestInput & { goal: Goal; tried?: string[] | undefined };
  practice: PracticeRequest;
  predict: { formula: Formula };
  /** What a list shows of a formula; null where it cannot be read. */
  glance: { formula: Formula };
  label: FormulaRequestInput & { region: RegionId; packets: Packet[] };
  "scale-up": FormulaRequestInput & { times: number; bowlMl: number; placesPerLoad: number; packets: Packet[] };
  import: ImportRequest;
  /** Formulas as they go out, one text each; JSON-LD as JSON. */
  carry: { formulas: { id: string; version: number; formula: Formula }[]; format: "jsonld" | "markdown" | "csv" | "text" };
  calibrate: { trials: LoggedTrial[] };
  season: SeasonAsked;
  "season-design": SeasonDesignRequest & { packets: Packet[] };
  "season-next": SeasonNextRequest & { packets: Packet[] };
  plan: Omit<Day, "bakes"> & {
    bakes: (Omit<Day["bakes"][number], "input" | "parts"> & { input: FormulaRequestInput; split?: Formula | undefined })[];
  };
}
/** A trial as calibration reads it, before its formula is opened. */
export type LoggedTrial = Omit<Logged, "input"> & { formula: Formula };
export type TaskName = keyof Asked;

function kitchenFrom({ ingredients, formulas, ovens }: KitchenData): Kitchen {
  const entries = new Map(formulas);
  const book: Book = (id) => entries.get(id);
  return { shelf: shelfWith(ingredients), book, ovens: new Map(ovens), measures: "us" };
}

const opened = (input: FormulaRequestInput, kitchen: Kitchen): Opened => openInput(inputFrom(input, kitchen.shelf), kitchen);

/** A formula in one of the forms in which it goes out, and what another reader may take otherwise. */
function carried(
  formula: Formula,
  from: { id: string; version: number },
  format: Asked["carry"]["format"],
  kitchen: Kitchen,
): { title: string; text: string; warnings: string[] } {
  const out = outgoing(formula, kitchen, from);
  const { title } = formula;
  const { warnings } = out;
  switch (format) {
    case "markdown":
      return { title, text: formulaMarkdown(out), warnings };
    case "text":
      return { title, text: formulaText(out), warnings };
    case "csv":
      return { title, text: formulaCsv(out, kitchen), warnings };
    case "jsonld":
      return { title, text: JSON.stringify(formulaJsonLd(out, nutritionFor(formula, kitchen)), null, 2), warnings };
  }
}

/** Nutrition of a formula that can be baked; what cannot has none. */
function nutritionFor(formula: Formula, kitchen: Kitchen): Nutrition | null {
  try {
    const input = openFormula(formula, kitchen);
    return labelOf(input, analyse(input, kitchen.shelf), formula.kind, "eu", [], kitchen.shelf).nutrition;
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
}

const MOST_DRAWS = 40;

/** Told what share is done; true from it ends the work. */
export type Tell = (done: number) => boolean;

const tasks = {
  read: ({ text, measures, title, ...told }: Asked["read"], { shelf }: Kitchen) =>
    readRecipe(text, measures ?? "us", title, shelf, undefined, told),
  analyse: (input: Asked["analyse"], kitchen: Kitchen) => {
    const { text, ...rest } = input;
    if (text !== undefined && !input.lines) return analyseText(text, openInput({ ...rest, lines: [] }, kitchen), kitchen.shelf);
    return analyse(opened(input, kitchen), kitchen.shelf);
  },
  simulate: ({ minutes, ...input }: Asked["simulate"], kitchen: Kitchen) =>
    simulate(opened(input, kitchen), kitchen.shelf, { minutes }),
  balance: ({ locked, avoid, onHand, wish, prices, ...input }: Asked["balance"], kitchen: Kitchen) =>
    balanceWithout(opened(input, kitchen), { locked, avoid, onHand, wish, prices }, kitchen.shelf),
  swap: ({ locked, avoid, onHand, replace, with: by, ...input }: Asked["swap"], kitchen: Kitchen) =>
    swap(opened(input, kitchen), { replace, with: by }, { locked, avoid, onHand }, kitchen.shelf),
  design: (wish: Asked["design"], { shelf }: Kitchen) => design(wish, shelf),
  counter: laidOut,
  slip: ({ slip, ...input }: Asked["slip"], kitchen: Kitchen) => slipAnswer(opened(input, kitchen), slip, kitchen.shelf),
  plan: (day: Asked["plan"], kitchen: Kitchen, onProgress?: Tell) =>
    planDay(
      {
        ...day,
        bakes: day.bakes.map(({ split, ...bake }) => ({
          ...bake,
          input: opened(bake.input, kitchen),
          parts: split && openParts(split, kitchen),
        })),
      },
      kitchen.shelf,
      onProgress ? { onProgress } : {},
    ),
  faults: ({ seen, measured, slips, kitchen: facts, ...input }: Asked["faults"], kitchen: Kitchen) =>
    diagnose(opened(input, kitchen), { seen, measured, slips, kitchen: facts }, kitchen.shelf),
  next: ({ goal, tried, ...input }: Asked["next"], kitchen: Kitchen) =>
    nextFor(opened(input, kitchen), goal, new Set(tried ?? []), kitchen.shelf),
  practice: ({ seed, families, sound = false }: Asked["practice"], { shelf }: Kitchen): Practice => {
    // A cause that can do nothing to the formula drawn for it is passed over for the next seed.
    for (let n = 0; n < MOST_DRAWS; n++) {
      const made = madeUp(seed + n, { families, shelf, sound });
      if (!made || (!sound && made.seen.every(({ degree }) => degree === 0))) continue;
      const { formula, seen, measured, kitchen, planned, cause } = made;
      const { middle, edge } = planned.simulation.cooledMm;
      const between = (share: number): number => edge + share * (middle - edge);
      return {
        seed: seed + n, formula, seen, measured, kitchen,
        planned: { heightsMm: [0, 0.7, 1, 0.7, 0].map(between), minutes: planned.simulation.minutes, targetCoreC: planned.analysis.bake.targetCoreC, lossPercent: planned.simulation.loss.oven },
        heightsMm: measured.heightsMm ?? [], widthMm: planned.analysis.fill.widthMm,
        answer: { id: cause.id, family: sound ? null : cause.family, words: cause.words, tell: cause.tell },
      };
    }
    throw new CoreError("not-a-batter", "No bake could be made up for these families; others would be right.", "families");
  }, // prettier-ignore
  glance: ({ formula }: Asked["glance"], kitchen: Kitchen): Glance | null => {
    try {
      return glance(openFormula(formula, kitchen), kitchen.shelf);
    } catch (error) {
      if (error instanceof CoreError) return null;
      throw error;
    }
  },
  predict: ({ formula }: Asked["predict"], kitchen: Kitchen) => predictedFor(openFormula(formula, kitchen), kitchen.shelf),
  label: ({ region, packets, ...request }: Asked["label"], kitchen: Kitchen) => {
    const input = opened(request, kitchen);
    return labelOf(input, analyse(input, kitchen.shelf), input.kind ?? "loaf", region, packets, kitchen.shelf);
  },
  "scale-up": ({ times, bowlMl, placesPerLoad, packets, ...input }: Asked["scale-up"], kitchen: Kitchen) =>
    scaleUp(opened(input, kitchen), times, { bowlMl, placesPerLoad }, packets, kitchen.shelf),
  import: (request: Asked["import"], { shelf }: Kitchen) => imported(request, shelf),
  carry: ({ formulas, format }: Asked["carry"], kitchen: Kitchen) =>
    formulas.map(({ formula, ...from }) => carried(formula, from, format, kitchen)),
  calibrate: ({ trials }: Asked["calibrate"], kitchen: Kitchen) =>
    calibrate(
      trials.map(({ formula, ...trial }) => ({ ...trial, input: openFormula(formula, kitchen) })),
      kitchen.shelf,
    ),
  family: (wish: Asked["family"], { shelf }: Kitchen) => family(wish, shelf),
  season: (asked: Asked["season"], kitchen: Kitchen, tell?: Tell) => seasonNow(asked, kitchen, tell),
  "season-design": ({ done = [], packets, ...asked }: Asked["season-design"], kitchen: Kitchen, tell?: Tell) =>
    seasonDesign(asked, done, packets, kitchen, tell),
  "season-next": ({ season: { done = [], ...asked }, results, packets }: Asked["season-next"], kitchen: Kitchen, tell?: Tell) =>
    seasonNext(asked, results, done, packets, kitchen, tell),
};

export type Answer<K extends TaskName> = ReturnType<(typeof tasks)[K]>;

/** Does one task here and now. Throws the core's errors. */
export function perform<K extends TaskName>(name: K, asked: Asked[K], kitchen: KitchenData, tell?: Tell): Answer<K> {
  const task = tasks[name] as unknown as (asked: Asked[K], kitchen: Kitchen, tell?: Tell) => Answer<K>;
  return task(asked, kitchenFrom(kitchen), tell);
}
