import { CoreError } from "../errors";
import { type componentPlaces, type componentRoles } from "../measure/reading";
import type { Range } from "../measure/range-schema";
import type { Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import { nestedId } from "./nested-id";
import type { FormulaComponent, OpenLine } from "./components-schema";

export type ComponentPlace = (typeof componentPlaces)[number];
export type ComponentRole = (typeof componentRoles)[number];
const brushed = /\b(?:brush\w*|wash|milk|egg)\b/i;
/** Where a component is, said or usual: what is brushed on goes in with the batter, an icing comes when it is out. */
export function placeOf({ role, name, place }: Pick<FormulaComponent, "role" | "name" | "place">): ComponentPlace | "batter" {
  if (role === "batter" || role === "soaker") return "batter";
  if (place !== undefined) return place;
  if (role === "filling") return "inside";
  if (role === "topping" || role === "paste") return "top";
  if (role === "glaze") return brushed.test(name) ? "top" : "after";
  return "apart";
}
/** A line as a request sends it: without grams, or without an ingredient, it is open. */
export interface InputLine {
  /** Its own id, where it is a line of a formula: a written step names it. */
  id?: string | undefined;
  /** The line of the formula that it came out of, where a formula stood there. */
  outOf?: string | undefined;
  ingredientId?: string | undefined;
  grams?: number | Range | undefined;
  name?: string | undefined;
  /** How it is measured, where that was said. */
  unit?: string | undefined;
  locked?: boolean | undefined;
  component?: string | undefined;
  /** May be left out, and is. */
  off?: boolean | undefined;
}
/** A line that weighs something: grams as one number, or with their spread. */
export interface WeighedLine extends InputLine {
  ingredientId: string;
  grams: number | Range;
  /** It has stood with its water and has taken it up. */
  soaked?: boolean | undefined;
}
/** What is beside the batter: a component with its weighed lines. */
export interface AsideOf {
  component: FormulaComponent;
  lines: WeighedLine[];
}
export interface Sorted {
  /** The batter, soakers in it. */
  batter: WeighedLine[];
  asides: AsideOf[];
  open: OpenLine[];
}
/** Whether a line counts: it has an ingredient and a mass, and is not left out. */
export const isWeighed = <L extends InputLine>(line: L): line is L & { ingredientId: string; grams: NonNullable<L["grams"]> } =>
  line.ingredientId !== undefined && line.grams !== undefined && line.off !== true;
/** Whether a line waits for an answer. */
export const isOpen = (line: InputLine): boolean =>
  line.off !== true && (line.ingredientId === undefined || line.grams === undefined);
/** Families without which a batter is no batter. */
const carrying = new Set<Ingredient["family"]>([
  "leavener",
  "acid",
  "water",
  "dairy",
  "plant-milk",
  "cultured",
  "juice",
  "egg",
  "blend",
]);
/** Words by which something that is not known may be a flour, the liquid or a leavener. */
const mayCarry =
  /\b(?:flour|starch|meal|oatmeal|polenta|mix|blend|grain|milk|water|juice|tea|coffee|beer|cider|soda|powder|yeast|leaven\w*|starter|eggs?|yogh?urt|kefir|liquid)\b/i;
const matters = (line: InputLine, shelf: Shelf): boolean => {
  const known = line.ingredientId === undefined ? undefined : shelf.get(line.ingredientId);
  if (known) return isFlour(known) || carrying.has(known.family);
  // Something measured that is not known may be anything.
  return line.ingredientId !== undefined || (line.unit !== undefined && line.unit !== "piece") || mayCarry.test(line.name ?? "");
};
const nameOf = (line: InputLine, shelf: Shelf): string =>
  line.name ?? shelf.get(line.ingredientId ?? "")?.name ?? line.ingredientId ?? "a line that is not read";
/**
 * The lines of a formula as batter, components and what is open; nothing weighs twice and nothing is lost but what is left out. Throws
 * `unknown-component` for a line in a component that is not there.
 */
export function sortLines(lines: readonly InputLine[], components: readonly FormulaComponent[] = [], shelf: Shelf): Sorted {
  const byId = new Map(components.map((component) => [component.id, component]));
  const asides = new Map<string, AsideOf>();
  for (const component of components) if (placeOf(component) !== "batter") asides.set(component.id, { component, lines: [] });
  const sorted: Sorted = { batter: [], asides: [...asides.values()], open: [] };
  lines.forEach((line, index) => {
    const component = line.component === undefined ? undefined : byId.get(line.component);
    if (line.component !== undefined && !component)
      throw new CoreError(
        "unknown-component",
        `No component has the id "${line.component}"; ${components.length > 0 ? `one of ${[...byId.keys()].join(", ")}` : "a list of components"} would be right.`,
        `lines.${index}.component`,
      );
    const aside = component && asides.get(component.id);
    if (isOpen(line)) {
      sorted.open.push({
        name: nameOf(line, shelf),
        ...(aside ? { component: aside.component.id } : {}),
        matters: !aside && nestedId(line.ingredientId ?? "") === null && matters(line, shelf),
      });
    } else if (isWeighed(line)) {
      if (aside) aside.lines.push(line);
      else sorted.batter.push(component?.role === "soaker" ? { ...line, soaked: true } : line);
    }
  });
  return sorted;
}

/** The likely grams of a line; none where it is open or left out. */
export const gramsOf = ({ grams, off }: Pick<InputLine, "grams" | "off">): number =>
  grams === undefined || off === true ? 0 : typeof grams === "number" ? grams : grams.mid;
