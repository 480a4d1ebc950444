import type { Formula, FormulaComponent, FormulaLine, Kitchen, Shelf } from "@uprise/core";
import { CoreError, gramsText, nestedId, ownOf, placeOf, sortLines } from "@uprise/core/page";
import { listText } from "../instruments/sentences";

export interface Group {
  /** Null for the batter. */
  component: FormulaComponent | null;
  lines: { line: FormulaLine; index: number }[];
}

/** The lines under their headings, the batter first; a line of a component that is gone stands in the batter. */
export function groupsOf({ lines, components = [] }: Pick<Formula, "lines" | "components">): Group[] {
  const groups: Group[] = [null, ...components].map((component) => ({ component, lines: [] }));
  lines.forEach((line, index) => {
    const at = components.findIndex(({ id }) => id === line.component);
    groups[at + 1]?.lines.push({ line, index });
  });
  return groups;
}

/** What a line is called: by its own name, the pantry's, that of the formula it holds. */
export function lineName({ name, ingredientId }: FormulaLine, { shelf, book }: Pick<Kitchen, "shelf" | "book">): string {
  if (name !== undefined) return name;
  if (ingredientId === undefined) return "A line that is not read";
  return shelf.get(ingredientId)?.name ?? book(nestedId(ingredientId) ?? "")?.title ?? idInWords(ingredientId);
}

/** What ships is on the shelf; until then nothing can be said to be missing from it. */
export const isStocked = (shelf: Shelf): boolean => shelf.all().length > ownOf(shelf).length;

/** An id as words: what a line is called until the shelf is here. */
export const idInWords = (id: string): string => `${id.slice(0, 1).toUpperCase()}${id.slice(1).replaceAll("-", " ")}`;

/** What a line weighs in words; a line that is open has none. */
export const lineMass = ({ grams }: FormulaLine): string => (grams ? gramsText(grams.mid) : "open");

/** What is open, for the strip: everything that is shown is without it. Null where nothing is; what stands apart is nobody's loss. */
export function withoutText(
  { lines, components = [] }: Pick<Formula, "lines" | "components">,
  { shelf }: Pick<Kitchen, "shelf">,
): string | null {
  const apart = new Set(components.filter((component) => placeOf(component) === "apart").map(({ id }) => id));
  try {
    const open = sortLines(lines, components, shelf).open.filter(({ component }) => !apart.has(component ?? ""));
    if (open.length === 0) return null;
    const final = open.every(({ matters }) => !matters);
    return `Without ${listText(open.map(({ name }) => name.toLowerCase()))}.${final ? "" : " Nothing here is final yet."}`;
  } catch (error) {
    // A line of a component that is gone is told where the sheet is read.
    if (error instanceof CoreError) return null;
    throw error;
  }
}
