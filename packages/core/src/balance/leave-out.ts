import { CoreError } from "../errors";
import type { InputLine } from "../formula/components";
import { type Opened } from "../formula/open";
import { gramsOf } from "../formula/components";
import { readings as readings } from "./readings";
import { allergensInWords } from "../pantry/allergen-words";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import type { Allergen, Ingredient } from "../pantry/ingredient-schema";
import { balance, type BalanceOptions } from "./balance";
import { allergensOf, type Proposal, proposedLine, type Proposals, readingsOf } from "./proposal";
import { swap } from "./swap";

/** What a formula still holds of what should be left out: nothing of it is passed over in silence. */
function stillHeld(lines: readonly InputLine[], avoid: readonly Allergen[], shelf: Shelf): NonNullable<Proposals["stillHolds"]> {
  const ids = new Set(lines.flatMap(({ ingredientId, off }) => (ingredientId === undefined || off ? [] : [ingredientId])));
  // A line that is not known tells by its words.
  const strange = lines.flatMap(({ ingredientId, name = "", off }) => {
    const named = ingredientId === undefined && !off ? allergensInWords(name).allergens.map(({ allergen }) => allergen) : [];
    const allergens = [...new Set(named)].filter((one) => avoid.includes(one));
    return allergens.length > 0 ? [{ ingredientId: name, allergens }] : [];
  });
  const known = [...ids].flatMap((ingredientId) => {
    const allergens = (shelf.get(ingredientId)?.allergens ?? []).filter((one) => avoid.includes(one));
    return allergens.length > 0 ? [{ ingredientId, allergens }] : [];
  });
  return [...known, ...strange];
}

/** Grams by ingredient and component. */
function massesOf(lines: readonly InputLine[]): Map<string, { ingredientId: string; component?: string; grams: number }> {
  const masses = new Map<string, { ingredientId: string; component?: string; grams: number }>();
  for (const line of lines) {
    if (line.ingredientId === undefined || line.off) continue;
    const key = `${line.component ?? ""}/${line.ingredientId}`;
    const place = line.component === undefined ? {} : { component: line.component };
    masses.set(key, { ingredientId: line.ingredientId, ...place, grams: (masses.get(key)?.grams ?? 0) + gramsOf(line) });
  }
  return masses;
}

function changesBetween(before: readonly InputLine[], after: readonly InputLine[]): Proposal["changes"] {
  const [had, has] = [massesOf(before), massesOf(after)];
  return [...new Set([...had.keys(), ...has.keys()])].flatMap((key): Proposal["changes"] => {
    const one = had.get(key) ?? has.get(key);
    const [fromG, toG] = [had.get(key)?.grams ?? 0, has.get(key)?.grams ?? 0];
    if (!one || Math.abs(fromG - toG) < 0.005) return [];
    return [{ ingredientId: one.ingredientId, fromG, toG, ...(one.component === undefined ? {} : { component: one.component }) }];
  });
}

const MOST_SWAPS = 10;

/** Swaps out one thing after the other, then balances what is left; what nothing stands in for stays. */
function without(input: Opened, options: BalanceOptions & { avoid: readonly Allergen[] }, shelf: Shelf): { lines: readonly InputLine[]; told: string[] } {
  let lines: readonly InputLine[] = input.lines;
  const told: string[] = [];
  const tried = new Set<string>();
  for (let n = 0; n < MOST_SWAPS; n++) {
    const next = stillHeld(lines, options.avoid, shelf).find(({ ingredientId }) => !tried.has(ingredientId) && !options.locked?.includes(ingredientId));
    if (!next) break;
    tried.add(next.ingredientId);
    try {
      const { proposals } = swap({ ...input, lines }, { replace: next.ingredientId }, { ...options, avoid: [...options.avoid] }, shelf);
      // The one that leaves the least wrong.
      const best = [...proposals].sort((a, b) => a.after.findings.length - b.after.findings.length)[0];
      if (!best) continue;
      lines = best.lines;
      told.push(best.title);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
    }
  }
  return { lines, told };
} // prettier-ignore

const nameOf = (shelf: Shelf, id: string): string => (shelf.get(id)?.name ?? id).toLowerCase();

/**
 * Balances, and leaves out what is asked to be left out: first a proposal in which all of it is swapped out and the rest balanced again, then
 * those that only balance. What nothing stands in for is named in `stillHolds`. Throws as `balance`.
 */
export function balanceWithout(input: Opened, options: BalanceOptions = {}, shelf: Shelf = builtInShelf): Proposals {
  const avoid = options.avoid ?? [];
  const held = stillHeld(input.lines, avoid, shelf);
  if (held.length === 0) return balance(input, options, shelf);
  const { lines, told } = without(input, { ...options, avoid }, shelf);
  if (told.length === 0) return { ...balance(input, options, shelf), stillHolds: held };
  const balanced = balance({ ...input, lines }, options, shelf);
  const best = balanced.proposals[0];
  const after = best && best.after.findings.length < readings({ ...input, lines }, shelf).findings.length ? best.lines : lines;
  const stillHolds = stillHeld(after, avoid, shelf);
  const before = readings(input, shelf);
  const final = readings({ ...input, lines: after }, shelf);
  const [had, has] = [allergensOf(input.lines, shelf), allergensOf(after, shelf)];
  const gone = avoid.filter((one) => had.has(one) && !has.has(one));
  const names = (some: readonly (Pick<Ingredient, "id"> | { ingredientId: string })[]): string => some.map((one) => nameOf(shelf, "id" in one ? one.id : one.ingredientId)).join(", "); // prettier-ignore
  const proposal: Proposal = {
    title: gone.length > 0 ? `Without ${gone.join(", ")}` : `With less of it: ${told.length} swapped`,
    why: `${told.join("; ")}${after === lines ? "" : "; then balanced again"}.${stillHolds.length > 0 ? ` Nothing on the shelf stands in for ${names(stillHolds)}.` : ""}`,
    changes: changesBetween(input.lines, after),
    lines: after.map(proposedLine),
    before: readingsOf(before),
    after: readingsOf(final),
    allergensAdded: [...has].filter((one) => !had.has(one)),
    allergensRemoved: [...had].filter((one) => !has.has(one)),
  }; // prettier-ignore
  return {
    proposals: [proposal],
    ...(balanced.without ? { without: balanced.without } : {}),
    ...(stillHolds.length > 0 ? { stillHolds } : {}),
  };
}
