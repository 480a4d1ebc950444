import type { Measures } from "../measure/units";
import type { Shelf } from "../pantry/shelf";
import { withProfile } from "../pantry/vessel";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import type { InputLine } from "./components";
import type { FormulaComponent } from "./components-schema";
import type { Formula, Said } from "./formula";
import type { Kind } from "./kinds";
import type { NamedBeside } from "./named-schema";
import { type Book, expand } from "./nested";
import type { Process } from "./process-schema";

/** What every reading is made of. Lines may name formulas until they are opened; they may be open, and stand in components. */
export interface AnalyseInput {
  lines?: readonly InputLine[] | undefined;
  components?: readonly FormulaComponent[] | undefined;
  /** What the recipe itself says of its bake. */
  said?: Said | undefined;
  kind?: Kind | undefined;
  vessel?: Vessel | undefined;
  oven?: Oven | undefined;
  process?: Process | undefined;
  measures?: Measures | undefined;
  /** What the formula is called, and the foods that its recipe named beside its list. */
  title?: string | undefined;
  named?: readonly NamedBeside[] | undefined;
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

export type Opened = AnalyseInput & { lines: readonly InputLine[] };

/**
 * An input as the readings take it: nested formulas among its lines opened, the oven with what is known of that very oven. With `self` it
 * may not hold itself. Throws `formula-cycle`, `unknown-ingredient`, `empty-formula`.
 */
export function openInput<T extends Opened>(input: T, { book, ovens, measures }: Kitchen, self?: { id: string; title: string }): T {
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
  const { title, lines, components, said, named, kind, vessel, oven, process, measures } = formula;
  return openInput<Opened>(
    { title, lines, components, said, named, kind, vessel, oven, process, measures },
    kitchen,
    id === undefined ? undefined : { id, title: formula.title },
  );
}
