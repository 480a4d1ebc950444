import { capital } from "../measure/list-words";
import { CoreError } from "../errors";
import { gramsOf, type InputLine } from "../formula/components";
import type { Opened } from "../formula/open";
import { type Item, resolve } from "../formula/resolve";
import { baked } from "./analyse";
import { readings } from "./readings";
import { allergensInWords } from "../pantry/allergen-words";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import type { Allergen } from "../pantry/ingredient-schema";
import { balance, type BalanceOptions } from "./balance";
import { allergensOf, movableOf, type Proposal, proposedLine, type Proposals, readingsOf, withoutOf } from "./proposal";
import { keptAndLost, swap } from "./swap";
import { type WholeWish, wishWords } from "./wish-words";
import { asStiffAs, movedBy, refusedBy } from "./wishes";

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

const MOST_SWAPS = 12;
type Held = NonNullable<Proposals["stillHolds"]>;

/** Swaps out one thing after the other; what nothing stands in for stays. */
function swappedOut(input: Opened, heldIn: (lines: readonly InputLine[]) => Held, options: BalanceOptions, shelf: Shelf): { lines: readonly InputLine[]; told: string[]; lost: string[] } {
  let lines: readonly InputLine[] = input.lines;
  const told: string[] = [];
  const lost: string[] = [];
  const tried = new Set<string>();
  for (let n = 0; n < MOST_SWAPS; n++) {
    const next = heldIn(lines).find(({ ingredientId }) => !tried.has(ingredientId) && !options.locked?.includes(ingredientId));
    if (!next) break;
    tried.add(next.ingredientId);
    try {
      const { proposals } = swap({ ...input, lines }, { replace: next.ingredientId }, options, shelf);
      // The one that leaves the least wrong.
      const best = [...proposals].sort((a, b) => a.after.findings.length - b.after.findings.length)[0];
      if (!best) continue;
      lines = best.lines;
      told.push(best.title);
      // What an arrow tells is the sum of one swap; all of them are summed up at the end.
      lost.push(...(best.lost ?? []).filter((text) => !text.includes("→")));
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
    }
  }
  return { lines, told, lost: [...new Set(lost)] };
} // prettier-ignore

const nameOf = (shelf: Shelf, id: string): string => (shelf.get(id)?.name ?? id).toLowerCase();

/** A bake in short; null for what cannot be baked. */
function bakedInShort(input: Opened, shelf: Shelf): NonNullable<Proposal["baked"]>["before"] | null {
  try {
    const { analysis, simulation } = baked(input, shelf, { frames: 0 }, "plain");
    return {
      minutes: analysis.bake.minutes,
      crownMm: Math.max(...simulation.crownMm),
      lossPercent: Math.max(...simulation.lossPercent),
    };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return null;
  }
}

/** What was swapped may drink more or less: where the batter is called otherwise than it was, its liquid is moved, unless that brings something to mend. */
function asThick(input: Opened, lines: readonly InputLine[], options: BalanceOptions, shelf: Shelf): readonly InputLine[] {
  const [was, is] = [readings(input, shelf), readings({ ...input, lines }, shelf)];
  if (was.body.consistency === is.body.consistency) return lines;
  const poured = asStiffAs(input, lines, options, shelf);
  return poured && readings({ ...input, lines: poured }, shelf).findings.length <= is.findings.length ? poured : lines;
}

/** A batter that is called otherwise than it was, in words. */
const bodyChange = (was: string, is: string): string[] =>
  was === is ? [] : [`the batter: ${was.replaceAll("-", " ")} → ${is.replaceAll("-", " ")}`];

/** A change of the whole formula as a proposal: what it moves, what it keeps and gives up, and with `bake` what its bake comes to beside the present one. */
function proposalOf(input: Opened, after: readonly InputLine[], said: { title: string; why: string; lost: readonly string[] }, shelf: Shelf, bake: boolean): Proposal {
  const [before, final] = [readings(input, shelf), readings({ ...input, lines: after }, shelf)];
  const [had, has] = [allergensOf(input.lines, shelf), allergensOf(after, shelf)];
  const batterOf = (lines: readonly InputLine[]): Item[] => resolve(movableOf({ ...input, lines }, shelf).batter, shelf);
  const { kept, lost } = keptAndLost(batterOf(input.lines), batterOf(after));
  const grave = new Set(before.findings.filter(({ severity }) => severity !== "note").map(({ id }) => id));
  const brings = final.findings.filter(({ id, severity }) => severity !== "note" && !grave.has(id)).map(({ message }) => message);
  const [was, is] = bake ? [bakedInShort(input, shelf), bakedInShort({ ...input, lines: after }, shelf)] : [null, null];
  return {
    title: said.title,
    why: brings.length > 0 ? `${said.why} With it comes: ${brings.join(" ")}` : said.why,
    changes: changesBetween(input.lines, after),
    lines: after.map(proposedLine),
    before: readingsOf(before),
    after: readingsOf(final),
    kept,
    lost: [...said.lost, ...lost, ...bodyChange(before.body.consistency, final.body.consistency)],
    allergensAdded: [...has].filter((one) => !had.has(one)),
    allergensRemoved: [...had].filter((one) => !has.has(one)),
    ...(was && is ? { baked: { before: was, after: is } } : {}),
  };
} // prettier-ignore

/**
 * Balances; with a wish of the whole or something to leave out, all of it is done first and the rest balanced again, in one proposal. What nothing
 * stands in for is named in `stillHolds`; a wish that cannot be met says why in `conflict`. Throws as `balance`.
 */
export function balanceWithout(input: Opened, { wish, ...given }: BalanceOptions & { wish?: WholeWish | undefined } = {}, shelf: Shelf = builtInShelf): Proposals {
  const refuses = wish && refusedBy(wish, given);
  // A line that is locked on the sheet stays, whoever asks.
  const locked = [...new Set([...(given.locked ?? []), ...input.lines.flatMap((line: InputLine) => (line.locked && line.ingredientId !== undefined ? [line.ingredientId] : []))])];
  const options: BalanceOptions = { ...given, ...(locked.length > 0 ? { locked } : {}), ...(refuses ? { refuses } : {}) };
  const heldIn = (lines: readonly InputLine[]): Held => {
    const allergic = stillHeld(lines, options.avoid ?? [], shelf);
    const ids = new Set(lines.flatMap(({ ingredientId, off }) => (ingredientId === undefined || off ? [] : [ingredientId])));
    const others = refuses ? [...ids].filter((id) => { const one = shelf.get(id); return one !== undefined && refuses(one) && !allergic.some(({ ingredientId }) => ingredientId === id); }) : [];
    const all = [...allergic, ...others.map((ingredientId) => ({ ingredientId, allergens: shelf.get(ingredientId)?.allergens ?? [] }))];
    return all.map((one) => (locked.includes(one.ingredientId) ? { ...one, locked: true } : one));
  };
  const held = heldIn(input.lines);
  const none = (message: string): Proposals => ({ proposals: [], conflict: { message, bands: [], unlock: [] }, ...withoutOf(movableOf(input, shelf).open) });
  const moved = wish ? movedBy(wish, input, options, shelf) : null;
  if (moved && "no" in moved) return none(moved.no);
  if (held.length === 0 && !moved) return wish ? none(`${wishWords[wish]}: it is so already.`) : balance(input, options, shelf);
  const begun = { ...input, lines: moved?.lines ?? input.lines };
  const { lines, told, lost } = swappedOut(begun, heldIn, options, shelf);
  if (told.length === 0 && !moved) return wish ? { ...none(`${wishWords[wish]}: ${held.map(({ ingredientId, locked }) => `${locked ? "locked is" : "nothing on the shelf stands in for"} ${nameOf(shelf, ingredientId)}`).join(", ")}.`), stillHolds: held } : { ...balance(input, options, shelf), stillHolds: held };
  // A wish of amounts is what it is; what was swapped is balanced again.
  const balanced = told.length > 0 ? balance({ ...input, lines }, options, shelf) : null;
  const best = balanced?.proposals[0];
  const mended = best && best.after.findings.length < readings({ ...input, lines }, shelf).findings.length ? best.lines : lines;
  const after = told.length > 0 ? asThick(input, mended, options, shelf) : mended;
  const stillHolds = heldIn(after);
  const gone = (options.avoid ?? []).filter((one) => allergensOf(input.lines, shelf).has(one) && !allergensOf(after, shelf).has(one));
  const met = wish && stillHolds.length === 0 ? wishWords[wish] : null;
  const staysFor = (locked: boolean): string => stillHolds.filter((one) => (one.locked === true) === locked).map(({ ingredientId }) => nameOf(shelf, ingredientId)).join(", ");
  const [names, kept] = [staysFor(false), staysFor(true)];
  const title = met ?? (wish ? `${wishWords[wish]}, as far as it goes` : gone.length > 0 ? `Without ${gone.join(", ")}` : `With less of it: ${told.length} swapped`);
  const why = capital(`${[...(moved ? [moved.told] : []), ...told].join("; ")}${mended === lines ? "" : "; then balanced again"}.${names === "" ? "" : ` Nothing on the shelf stands in for ${names}.`}${kept === "" ? "" : ` Locked, and left as it is: ${kept}.`}`);
  return {
    proposals: [proposalOf(input, after, { title, why, lost }, shelf, wish !== undefined)],
    ...(balanced?.without ? { without: balanced.without } : withoutOf(movableOf(input, shelf).open)),
    ...(stillHolds.length > 0 ? { stillHolds } : {}),
  };
} // prettier-ignore
