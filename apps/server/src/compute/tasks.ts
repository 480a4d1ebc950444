import {
  analyse,
  analyseText,
  type AnalyseInput,
  balance,
  design,
  family,
  type Book,
  type BookEntry,
  type Ingredient,
  inputFrom,
  type Kitchen,
  type Measures,
  openInput,
  type Day,
  planDay,
  readyForCounter,
  type Formula,
  openFormula,
  type Slip,
  slipAnswer,
  type Opened,
  type OvenKnown,
  type Allergen,
  readRecipe,
  shelfWith,
  simulate,
  swap,
  type Wish,
} from "@uprise/core";

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
  read: { text: string; measures?: Measures | undefined; title?: string | undefined };
  analyse: FormulaRequestInput;
  simulate: FormulaRequestInput & { minutes?: number | undefined };
  balance: FormulaRequestInput & Choices;
  swap: FormulaRequestInput & Choices & { replace: string; with?: string | undefined };
  design: Wish;
  family: Wish;
  counter: { formula: Formula; warmMinutes?: number | undefined };
  slip: FormulaRequestInput & { slip: Slip };
  plan: Omit<Day, "bakes"> & { bakes: (Omit<Day["bakes"][number], "input"> & { input: FormulaRequestInput })[] };
}
export type TaskName = keyof Asked;

function kitchenFrom({ ingredients, formulas, ovens }: KitchenData): Kitchen {
  const entries = new Map(formulas);
  const book: Book = (id) => entries.get(id);
  return { shelf: shelfWith(ingredients), book, ovens: new Map(ovens), measures: "us" };
}

const opened = (input: FormulaRequestInput, kitchen: Kitchen): Opened => openInput(inputFrom(input, kitchen.shelf), kitchen);

/** Told what share is done; true from it ends the work. */
export type Tell = (done: number) => boolean;

const tasks = {
  read: ({ text, measures, title }: Asked["read"], { shelf }: Kitchen) => readRecipe(text, measures ?? "us", title, shelf),
  analyse: (input: Asked["analyse"], kitchen: Kitchen) => {
    const { text, ...rest } = input;
    if (text !== undefined && !input.lines) return analyseText(text, openInput({ ...rest, lines: [] }, kitchen), kitchen.shelf);
    return analyse(opened(input, kitchen), kitchen.shelf);
  },
  simulate: ({ minutes, ...input }: Asked["simulate"], kitchen: Kitchen) =>
    simulate(opened(input, kitchen), kitchen.shelf, { minutes }),
  balance: ({ locked, avoid, onHand, ...input }: Asked["balance"], kitchen: Kitchen) =>
    balance(opened(input, kitchen), { locked, avoid, onHand }, kitchen.shelf),
  swap: ({ locked, avoid, onHand, replace, with: by, ...input }: Asked["swap"], kitchen: Kitchen) =>
    swap(opened(input, kitchen), { replace, with: by }, { locked, avoid, onHand }, kitchen.shelf),
  design: (wish: Asked["design"], { shelf }: Kitchen) => design(wish, shelf),
  counter: ({ formula, warmMinutes }: Asked["counter"], kitchen: Kitchen) => {
    const { steps, expected } = readyForCounter(openFormula(formula, kitchen), kitchen.shelf, warmMinutes);
    return { steps, expected };
  },
  slip: ({ slip, ...input }: Asked["slip"], kitchen: Kitchen) => slipAnswer(opened(input, kitchen), slip, kitchen.shelf),
  plan: (day: Asked["plan"], kitchen: Kitchen, onProgress?: Tell) =>
    planDay(
      { ...day, bakes: day.bakes.map((bake) => ({ ...bake, input: opened(bake.input, kitchen) })) },
      kitchen.shelf,
      onProgress ? { onProgress } : {},
    ),
  family: (wish: Asked["family"], { shelf }: Kitchen) => family(wish, shelf),
};

export type Answer<K extends TaskName> = ReturnType<(typeof tasks)[K]>;

/** Does one task here and now. Throws the core's errors. */
export function perform<K extends TaskName>(name: K, asked: Asked[K], kitchen: KitchenData, tell?: Tell): Answer<K> {
  const task = tasks[name] as unknown as (asked: Asked[K], kitchen: Kitchen, tell?: Tell) => Answer<K>;
  return task(asked, kitchenFrom(kitchen), tell);
}
