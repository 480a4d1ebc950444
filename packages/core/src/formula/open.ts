import type { Range } from "../measure/range";
import type { Measures } from "../measure/units";
import { builtInShelf, type Shelf } from "../pantry/catalogue";
import { type Oven, type Vessel, withProfile } from "../pantry/vessel";
import type { Formula } from "./formula";
import type { Kind } from "./kinds";
import { type Book, expand, noBook } from "./nested";
import type { Process } from "./process";
import type { WeighedLine } from "./resolve";

/** What every reading is made of. Lines may name formulas until they are opened. */
export interface AnalyseInput {
  lines?: readonly WeighedLine[] | undefined;
  kind?: Kind | undefined;
  vessel?: Vessel | undefined;
  oven?: Oven | undefined;
  process?: Process | undefined;
  measures?: Measures | undefined;
  /** Without lines: so many grams of a typical batter of the kind. */
  batchG?: number | undefined;
}

/** How far an oven is off and swings, K. */
export interface OvenKnown {
  biasK: number;
  swingK: number;
}

/** What a formula is opened in: the ingredients, the formulas it may hold, the ovens by id, whose cups it means where it does not say. */
export interface Kitchen {
  shelf: Shelf;
  book: Book;
  ovens: ReadonlyMap<string, OvenKnown>;
  measures: Measures;
}

/** A kitchen with nothing of its own. */
export const bareKitchen: Kitchen = { shelf: builtInShelf, book: noBook, ovens: new Map(), measures: "us" };

export type Opened = AnalyseInput & { lines: readonly WeighedLine[] };

/**
 * An input as the readings take it: nested formulas among its lines opened, the oven with what is known of that very oven. With `self` it
 * may not hold itself. Throws `formula-cycle`, `unknown-ingredient`, `empty-formula`.
 */
export function openInput<T extends AnalyseInput & { lines: readonly WeighedLine[] }>(
  input: T,
  { book, ovens, measures }: Kitchen,
  self?: { id: string; title: string },
): T {
  const oven = input.oven && withProfile(input.oven, ovens.get(input.oven.ovenId ?? ""));
  return {
    ...input,
    lines: expand(input.lines, book, self ? [self] : []),
    ...(oven ? { oven } : {}),
    measures: input.measures ?? measures,
  };
}

/** The one way to open a formula: what `readings`, `analyse`, `simulate`, `balance` and `swap` take. Throws as `openInput` does. */
export function openFormula(formula: Formula, kitchen: Kitchen, id?: string): Opened {
  const { lines, kind, vessel, oven, process, measures } = formula;
  return openInput<Opened>(
    { lines, kind, vessel, oven, process, measures },
    kitchen,
    id === undefined ? undefined : { id, title: formula.title },
  );
}

/** The likely grams of a line. */
export const gramsOf = (line: { grams: number | Range }): number => (typeof line.grams === "number" ? line.grams : line.grams.mid);
