import { CoreError } from "../errors";
import { range, scaled } from "../measure/range";
import type { Range } from "../measure/range-schema";
import { ingredientOf, type Shelf } from "../pantry/shelf";
import type { Ingredient } from "../pantry/ingredient-schema";
import { type InputLine, isWeighed, sortLines, type WeighedLine } from "./components";
import type { Formula } from "./formula";
import { formulaLineId, nestedId } from "./nested-id";

export * from "./nested-id";

/** A formula that may stand on a line: what counts of its batter. */
export interface BookEntry {
  title: string;
  lines: readonly WeighedLine[];
  /** What is not weighed in it yet. */
  open?: readonly string[] | undefined;
}

/** Where nested formulas are looked up by id. */
export type Book = (id: string) => BookEntry | undefined;

/** A book without formulas. */
export const noBook: Book = () => undefined;

const rangeOf = (grams: number | Range): Range => (typeof grams === "number" ? { low: grams, mid: grams, high: grams } : grams);

/**
 * Lines with every nested formula opened into its ingredients, in the proportions of that formula; what came out of one is locked, since only
 * the whole of it can be changed here. Lines that are open or left out stay as they are, and what is open within a formula is open here.
 * Throws `formula-cycle` with the path, `unknown-ingredient`, `empty-formula`.
 */
export function expand<L extends InputLine>(
  lines: readonly L[],
  book: Book,
  path: readonly { id: string; title: string }[] = [],
): (L | WeighedLine | InputLine)[] {
  return lines.flatMap((line, index): (L | WeighedLine | InputLine)[] => {
    const id = nestedId(line.ingredientId ?? "");
    if (id === null || !isWeighed(line)) return [line];
    const entry = book(id);
    if (!entry)
      throw new CoreError(
        "unknown-ingredient",
        `No formula has the id "${id}"; it may have been taken off the list.`,
        `lines.${index}.ingredientId`,
      );
    const here = [...path, { id, title: entry.title }];
    const from = path.findIndex((step) => step.id === id);
    if (from >= 0) {
      const round = [...path.slice(from), { id, title: entry.title }].map((step) => `“${step.title}”`).join(" → ");
      throw new CoreError(
        "formula-cycle",
        `A formula cannot hold itself: ${round}. Take one of them out of the other.`,
        `lines.${index}.ingredientId`,
      );
    }
    const inner = expand(entry.lines, book, here);
    const weighed = inner.filter(isWeighed);
    const whole = weighed.reduce((g, part) => g + rangeOf(part.grams).mid, 0);
    if (whole <= 0)
      throw new CoreError(
        "empty-formula",
        `“${entry.title}” weighs nothing, so nothing can be taken of it.`,
        `lines.${index}.ingredientId`,
      );
    const grams = rangeOf(line.grams);
    const place = {
      ...(line.component === undefined ? {} : { component: line.component }),
      ...(line.id === undefined ? {} : { outOf: line.id }),
    };
    return [
      ...weighed.map((part): WeighedLine => {
        const share = rangeOf(part.grams).mid / whole;
        return { ingredientId: part.ingredientId, grams: scaled(grams, share), locked: true, ...place };
      }),
      ...(entry.open ?? []).map((name): InputLine => ({ name: `${name} in “${entry.title}”`, ...place })),
      ...inner.filter((part) => !isWeighed(part)).map((part): InputLine => ({ ...part, ...place })),
    ];
  });
}

/** What is weighed among lines with their nested formulas opened. Throws as `expand`. */
export const expandWeighed = (
  lines: readonly InputLine[],
  book: Book,
  path: readonly { id: string; title: string }[] = [],
): WeighedLine[] => expand(lines, book, path).filter(isWeighed);

/** Ids of the formulas that lines name directly. */
export const nestedIds = (lines: readonly InputLine[]): string[] => [
  ...new Set(lines.flatMap((line) => nestedId(line.ingredientId ?? "") ?? [])),
];

/** A nested formula as one thing on the sheet: its mean composition and density, for amounts and facts. */
export function asIngredient(id: string, entry: BookEntry, book: Book, shelf: Shelf): Ingredient {
  const parts = expandWeighed(entry.lines, book, [{ id, title: entry.title }]).map((line) => ({
    ingredient: ingredientOf(shelf, line.ingredientId),
    massG: rangeOf(line.grams).mid,
  }));
  return mixtureAsIngredient(formulaLineId(id), entry.title, parts);
}

/** Mass-weighted mean of ingredients as an ingredient of family `blend`; density by volumes. */
export function mixtureAsIngredient(
  id: string,
  name: string,
  parts: readonly { ingredient: Ingredient; massG: number }[],
): Ingredient {
  const whole = Math.max(
    parts.reduce((g, part) => g + part.massG, 0),
    1e-9,
  );
  const mean = (of: (i: Ingredient) => number): number =>
    parts.reduce((sum, { ingredient, massG }) => sum + of(ingredient) * massG, 0) / whole;
  const component = (key: keyof Ingredient["per100g"]): number => mean((i) => i.per100g[key] ?? 0);
  const volume = (end: "low" | "mid" | "high"): number =>
    whole /
    Math.max(
      parts.reduce((ml, { ingredient, massG }) => ml + massG / ingredient.gPerMl[end], 0),
      1e-9,
    );
  const starch = Math.max(
    parts.reduce((g, { ingredient, massG }) => g + (massG * ingredient.per100g.starch) / 100, 0),
    1e-9,
  );
  return {
    id,
    name,
    aliases: [],
    family: "blend",
    behaviour: "powder",
    per100g: {
      water: component("water"),
      fat: component("fat"),
      protein: component("protein"),
      sugars: component("sugars"),
      starch: component("starch"),
      fibre: component("fibre"),
      ash: component("ash"),
      other: component("other"),
    },
    gPerMl: range(volume("low"), volume("mid"), volume("high")),
    absorbs: { fast: mean((i) => i.absorbs?.fast ?? 0), slow: mean((i) => i.absorbs?.slow ?? 0) },
    ph: 6.2,
    acidity: {
      low: mean((i) => i.acidity?.low ?? 0),
      mid: mean((i) => i.acidity?.mid ?? 0),
      high: mean((i) => i.acidity?.high ?? 0),
      confidence: "C",
    },
    gelatinisationC:
      parts.reduce(
        (sum, { ingredient, massG }) => sum + ((massG * ingredient.per100g.starch) / 100) * (ingredient.gelatinisationC ?? 70),
        0,
      ) / starch,
    xanthanEquivalent: mean((i) => i.xanthanEquivalent ?? 0),
    gumShare: Math.min(
      1,
      mean((i) => i.gumShare ?? 0),
    ),
    sodiumMg: mean((i) => i.sodiumMg ?? 0),
    allergens: [...new Set(parts.flatMap((part) => part.ingredient.allergens))],
    gluten:
      (["contains", "oats", "check", "free"] as const).find((state) => parts.some((part) => part.ingredient.gluten === state)) ??
      "check",
    contains: parts.map((part) => part.ingredient.id),
    source: "estimate",
    confidence: "C",
  };
}

/** A formula as it stands on a line of another one: what is weighed of its batter, and what is not. */
export function bookEntryOf(
  { title, lines, components }: Pick<Formula, "title" | "lines" | "components">,
  shelf: Shelf,
): BookEntry {
  const { batter, open } = sortLines(lines, components, shelf);
  const names = open.flatMap(({ name, component }) => (component === undefined ? [name] : []));
  return {
    title,
    lines: batter.map(({ ingredientId, grams, locked }) => ({ ingredientId, grams, ...(locked ? { locked } : {}) })),
    ...(names.length > 0 ? { open: names } : {}),
  };
}
