import type { Draft } from "./drafts";
import { measuredOf } from "./line-items";
import type { WrittenItem } from "./line";
import { nameOf, type Names } from "./meaning";
import type { Mention } from "./mentions";
import type { Line } from "./reading-schema";
import type { Section } from "./roles";

/** What a text's list holds, by ids and by the words of its names; null where it has none, and what it says must be gathered from its sentences. */
export function listedIn(drafts: readonly Draft[], names: Names): Listed | null {
  const ids = new Set<string>();
  const called = new Map<string, string[]>();
  const families = new Set<string>();
  for (const { role, items, gathered } of drafts) {
    if (role !== "ingredient" || gathered) continue;
    for (const item of items) {
      const found = item.measures.length > 0 ? nameOf(item, names)?.found : null;
      if (!found) continue;
      ids.add(found.ingredientId);
      if (found.what.family !== undefined) families.add(found.what.family);
      for (const name of [item.name, found.name]) if (!called.has(name)) called.set(name, wordsIn(name));
    }
  }
  return ids.size > 1 ? { ids, called: [...called.values()], families } : null;
}

export interface Listed {
  ids: ReadonlySet<string>;
  called: readonly string[][];
  families?: ReadonlySet<string>;
}

/** A word for a whole family: who folds in "the nuts" means those of the list. */
const groups: [RegExp, readonly string[]][] = [
  [/^nuts?$/i, ["nut"]],
  [/^seeds?$/i, ["seed"]],
  [/^(?:fruits?|berries)$/i, ["fruit", "dried-fruit", "puree"]],
  [/^spices?$/i, ["spice"]],
  [/^cheeses?$/i, ["cheese", "dairy"]],
  [/^chocolate(?: chips)?$/i, ["chocolate"]],
  [/^sugars?$/i, ["sugar"]],
];

const wordsIn = (name: string): string[] => name.toLowerCase().split(/[^\p{L}]+/u).map((word) => word.replace(/s$/, "")).filter((word) => word !== ""); // prettier-ignore

/** Whether the list holds what a sentence calls by a shorter name: "the oil" of "sunflower oil". */
function isListed({ ingredientId, item }: Pick<Mention, "ingredientId" | "item">, { ids, called, families }: Listed): boolean {
  if (ingredientId === null || ids.has(ingredientId)) return true;
  const group = groups.find(([pattern]) => pattern.test(item.name.trim()))?.[1];
  if (group?.some((family) => families?.has(family))) return true;
  const said = wordsIn(item.name);
  return called.some((words) => said.every((word) => words.includes(word)));
}

/** "sifted with the flour", where the list holds flour: no thing of its own. One that the list does not hold goes in, and is asked about. */
export function isHeldAlready(item: WrittenItem, listed: Listed | null, names: Names): boolean {
  const ingredientId = item.namedAgain && item.measures.length === 0 ? names.find(item.name)?.ingredientId : undefined;
  return ingredientId !== undefined && listed !== null && isListed({ ingredientId, item }, listed);
}

const addedBefore = /\b(?:add|fold(?: in)?|(?:stir|mix|whisk|beat|tip|work|throw) in)\s+(?:in\s+)?(?:the\s+|your\s+|some\s+)?$/i;

/**
 * Foods that sentences speak of without an amount, by where their line begins; each once. Where there is no list, all that the text does not measure
 * elsewhere; where there is one, what the method adds and the list does not hold.
 */
export function openFoods(drafts: readonly Draft[], listed: Listed | null, names: Names): ReadonlyMap<number, WrittenItem[]> {
  const out = new Map<number, WrittenItem[]>();
  const measured = drafts.flatMap(({ mentions }) => measuredOf(mentions));
  const bare = drafts.flatMap(({ mentions }) =>
    mentions.filter((one) => !one.measured && !one.aside && one.item.measures.length > 0),
  );
  if (listed === null && measured.length === 0 && bare.length < 2) return out;
  const ids = new Set(listed?.ids ?? measured.flatMap(({ ingredientId }) => ingredientId ?? []));
  const called = listed
    ? [...listed.called]
    : measured.flatMap(({ ingredientId, item }) => [wordsIn(item.name), wordsIn(names.find(ingredientId ?? "")?.name ?? "")]);
  for (const { from, role, section, mentions, gathered, items } of drafts) {
    if (
      // Dictation that runs on in one line may stand where a title does.
      (role === "title" && !mentions.some(({ measured }) => measured)) ||
      role === "heading" ||
      section === "notes" ||
      (role === "ingredient" && !gathered) ||
      (listed !== null && role !== "step")
    )
      continue;
    for (const mention of mentions) {
      if (
        mention.measured ||
        mention.aside ||
        // "fifty cornflour": where there is no list, a bare number of what is not counted is asked about, never passed over.
        (listed !== null && mention.item.measures.length > 0) ||
        mention.item.purpose !== undefined ||
        isListed(mention, { ids, called, ...(listed?.families ? { families: listed.families } : {}) })
      )
        continue;
      if (listed !== null && !addedBefore.test(mention.before)) continue;
      if (items.some(({ name }) => name === mention.item.name)) continue;
      if (mention.ingredientId !== null) ids.add(mention.ingredientId);
      called.push(wordsIn(mention.item.name));
      out.set(from, [...(out.get(from) ?? []), mention.item]);
    }
  }
  return out;
}

/** What is weighed for a tin, a pan or the table is none of the bake's, where a list says what goes into it. */
const ofTheTin: ReadonlySet<string> = new Set(["pan", "fry", "serve"]);

/** "flour with xanthan gum" says what is in the flour; "topped up with milk" says what goes in. */
const isPartOf = (before: string): boolean =>
  /\b(?:with|without|contain(?:s|ing)|includ(?:es|ing)|incl\.?)\s+(?:the |an? )?$/i.test(before) && !/\b(?:top(?:ped)?|made|make|fill(?:ed)?)\b[^,;.]*$/i.test(before); // prettier-ignore

/** Foods that a line of a list speaks of and none of its things accounts for, by name or by what they are: they are asked about, so that none falls silently. */
export function leftOn(items: readonly WrittenItem[], mentions: readonly Mention[], names: Names): WrittenItem[] {
  const said = items.map((item) => JSON.stringify(item).toLowerCase());
  const ids = new Set(items.map(({ name }) => names.find(name)?.ingredientId));
  return mentions.flatMap(({ ingredientId, aside, before, item }) => {
    if (aside || ingredientId === null || ids.has(ingredientId) || isPartOf(before)) return [];
    const name = item.name.toLowerCase();
    // "finely grated zest of 2 limes" is the zest of limes.
    const last = name.split(" ").at(-1) ?? "";
    return said.some((one) => one.includes(name) || (/^(?:zest|juice|rind|peel)$/.test(last) && one.includes(last))) ? [] : [item];
  });
}

/** What a sentence brings that no list holds: all of it where there is none, otherwise what only the method speaks of. */
export function strayIn(mentions: readonly Mention[], role: Line["role"], section: Section, listed: Listed | null): Mention[] {
  if (section === "notes") return [];
  if (listed === null) return measuredOf(mentions);
  return role === "step"
    ? measuredOf(mentions).filter((mention) => !ofTheTin.has(mention.item.purpose ?? "") && !isListed(mention, listed))
    : [];
}

/** What is told before a list is no part of it: several sentences, or what somebody once did, over a list that stands by itself. */
export const isTale = (
  { gathered, began, mentions }: Pick<Draft, "gathered" | "began" | "mentions">,
  plain: string,
  listed: Listed | null,
): boolean =>
  listed !== null &&
  gathered &&
  began === "start" &&
  // "Dates 200 g, chopped; 250 ml water. Leave 15 min.": a line that begins with its first thing is one of the list.
  ((/[.!?]\s+\S/.test(plain) && !(mentions[0]?.from === 0 && mentions[0].measured)) ||
    /\b(?:once|used to|last (?:time|year|week|spring|summer|autumn|winter)|tried|took|swapped|was|were|had)\b/i.test(plain));
