import { dividedIn } from "./divided";
import { plainText } from "./grammar/tokens";
import { measuresIn, type WrittenItem } from "./line";
import { nameOf, type Names } from "./meaning";
import type { Mention } from "./mentions";
import { componentOf, type Section } from "./roles";
import { isPutRight, itemsOf, sideBySide } from "./several";

/** What was found on a line. */
interface Found {
  items: WrittenItem[];
  /** The part that it opens for what stands behind it on the same line. */
  inline: ReturnType<typeof componentOf>;
  /** The items were gathered from a sentence; it is no line of a list. */
  gathered: boolean;
}

/** The things on a line by whichever reading finds more of them: as a line of a list, or as the foods that it speaks of. */
export function itemsOfLine(source: string, plain: string, mentions: readonly Mention[], section: Section, names: Names): Found {
  const parts = section === "method" ? null : dividedIn(source, names);
  if (parts) return { items: parts, inline: null, gathered: false };
  const [, head, rest] = /^((?:for|to|on)\s[^:\d]{2,40}|\p{L}[\p{L} ]{2,24}):\s+(\S.*)$/iu.exec(plain) ?? [];
  const inline = head === undefined || section === "method" ? null : componentOf(`${head}:`, true);
  const items = sharedHead(
    sharedChoice(itemsIn(inline && rest !== undefined ? rest : source, inline && rest !== undefined ? rest : plain, names), names),
    source,
    names,
  );
  const measured = measuredOf(mentions);
  const explained = items.filter((item) => item.measures.length > 0 && nameOf(item, names) !== null);
  const same = sameOf(plain, mentions, items);
  // "flours (120 g white rice, 80 g sorghum)": of each the flour is meant.
  const isFlours = /^\W*(?:[\p{L}-]+ ){0,2}flours?\s*(?:mix|blend)?\s*[(:]/iu.test(plain);
  const named = ({ item }: Mention): WrittenItem =>
    isFlours && !/(?:flour|starch|meal)s?$/i.test(item.name) && names.known(`${item.name} flour`)
      ? { ...item, name: `${item.name} flour` }
      : item;
  const covered = explained.reduce((all, { alternatives }) => all + 1 + alternatives.length, 0);
  const known = measured.filter(({ ingredientId }) => ingredientId !== null).length;
  // In one breath an amount is put right in place of the one before; over several sentences each is of its own food.
  return known > covered && (!isPutRight(plain) || /[.;]\s+\S/.test(plain))
    ? {
        items: [...measured.map(named), ...same.filter(({ name }) => measured.every(({ item }) => item.name !== name))],
        inline,
        gathered: known > 1 || plain.slice(0, measured[0]?.from).trim().split(" ").length > 2,
      }
    : { items: [...items, ...same], inline, gathered: false };
}

const theSame =
  /\b(?:the|an?)?\s*(?:same|equal)(?: again| amounts?| weights?| quantit(?:y|ies))?(?: each)? of\b|\bas much again of\b/i;

/** "3 eggs, then the same of sugar, butter and flour": what stands behind has the mass before it; a count is no mass of another, and is asked for. */
function sameOf(plain: string, mentions: readonly Mention[], items: readonly WrittenItem[]): WrittenItem[] {
  const said = theSame.exec(plain);
  if (!said) return [];
  const { measures } = mentions.findLast(({ from, measured }) => measured && from < said.index)?.item ?? { measures: [] };
  const isMass =
    measures.length > 0 && measures.every((measure) => measure.every((term) => term.withUnit && term.unit !== "piece"));
  return mentions
    .filter(
      ({ from, measured, aside, item }) =>
        from > said.index && !measured && !aside && items.every(({ name }) => name !== item.name),
    )
    .map(({ item }) => (isMass ? { ...item, measures } : item));
}

/** "oat or soya drink", "lemon or lime juice": what the last of two choices is, the first is, where the pantry has it so. */
const sharedChoice = (items: WrittenItem[], names: Names): WrittenItem[] =>
  items.map((item) => {
    const words = item.alternatives[0]?.split(" ") ?? [];
    const head = words.at(-1);
    if (words.length < 2 || words.length > 3 || head === undefined || /\d/.test(words.join("")) || item.name.split(" ").length > 2)
      return item;
    const whole = `${item.name} ${head}`;
    return item.name.endsWith(head) || names.known(whole) === null || names.known(words.join(" ")) === null
      ? item
      : { ...item, name: whole };
  });

/** "millet, sorghum and teff flour", "sunflower, pumpkin and sesame seeds": what the last is, all are, where the pantry has them so. */
function sharedHead(items: WrittenItem[], source: string, names: Names): WrittenItem[] {
  const last = items.at(-1);
  const head = last?.name.split(" ").at(-1);
  if (items.length < 2 || !last || !head || head === last.name || !/\b(?:each|apiece)\b/i.test(source)) return items;
  return items.map((item) => {
    const same = item !== last && JSON.stringify(item.measures) === JSON.stringify(last.measures) && !item.name.includes(" ");
    return same && names.known(`${item.name} ${head}`) !== null ? { ...item, name: `${item.name} ${head}` } : item;
  });
}

export const measuredOf = (mentions: readonly Mention[]): Mention[] => mentions.filter(({ measured, aside }) => measured && !aside);

/** The items of a line; names without an amount that stand side by side are several where each is a thing. */
function itemsIn(source: string, plain: string, names: Names): WrittenItem[] {
  const items = sidesIn(source, plain, names);
  // What a thing is soaked, tossed or rolled in is a thing of its own.
  return [...items, ...items.flatMap((item) => [...within(item.preparation ?? "", names), ...besides(item, names)])];
}

/** Parts of a thing, and what is said of a thing by another: no food of its own. */
const ofTheThing = /\d|%|\b(?:only|yolks?|whites?|zest|juice|peel|rind|skins?|stones?|seeds?|leaves|flavou?r(?:ed)?|free|style|type|like|no|not|without|or|if)\b/i; // prettier-ignore

/** "Icing sugar, toasted flaked almonds": what stands behind a comma is no preparation where it is another food by its full name. */
function besides({ name, preparation = "" }: WrittenItem, names: Names): WrittenItem[] {
  const thing = names.find(name);
  if (!thing || preparation === "") return [];
  return preparation.split(/[,;]/).flatMap((part) => {
    const words = part.trim().split(/\s+/).length;
    if (
      !part.split(/[^\p{L}]+/u).some((word) => word.length > 2 && names.isNameWord(word) && !names.passesOver(word.toLowerCase()))
    )
      return [];
    if (words < 2 || words > 4 || ofTheThing.test(part) || lyingIn.test(part)) return [];
    const other = names.find(part.trim());
    const isOther = other !== null && other.certainty >= 0.9 && other.what.family !== thing.what.family && other.ingredientId !== thing.ingredientId; // prettier-ignore
    return isOther && names.known(`${part.trim()} ${name}`) === null ? itemsOf(part) : [];
  });
}

const lyingIn =
  /\b(?:sifted|sieved|soaked|steeped|tossed|coated|rolled|dipped|dredged|dusted|mixed|blended|whisked|combined|cooked|simmered|boiled|poached|plumped|stirred|folded|covered|brushed|spread|topped|filled|sprinkled|drizzled)\b[^,;()]*?\b(?:in(?:to)?|with)\s+([^;()]+)/i;
const ofTheKitchen = /\b(?:water|oven|pan|pot|microwave|fridge|freezer|bowl|towel|cloth|foil|half|pieces|halves|quarters)\b/i;

/** The things that another lies in, as a preparation says: known ones, with their amount or asked for it. */
function within(preparation: string, names: Names): WrittenItem[] {
  const rest = lyingIn.exec(preparation)?.[1];
  if (rest === undefined) return [];
  const isNamedAgain = /^(?:the|your|this|that)\b/i.test(rest);
  const items = itemsOf(rest).map((item): WrittenItem => (isNamedAgain ? { ...item, namedAgain: true } : item));
  return items.filter((item) => {
    const measured = isMeasured(item);
    if (!measured && ofTheKitchen.test(item.name)) return false;
    return (names.find(item.name)?.certainty ?? 0) >= (measured ? 0.7 : 1);
  });
}

/** "teff flour 50 %", "teff flour 50 % = 125 g": a food with its share of the flour, which says no amount of its own. */
const shareBehind = /^(\p{L}.*?)[\s:=]+(\d+(?:[.,]\d+)?\s*%)$/u;
const withoutShare = (item: WrittenItem): WrittenItem => {
  const [, name, share] = shareBehind.exec(item.name) ?? [];
  return name === undefined || share === undefined ? item : { ...item, name, preparation: [share, item.preparation].filter((one) => one !== undefined).join("; ") }; // prettier-ignore
};

/** A food behind a joint, what it is for, and a bracket: "1 egg, and enough milk to make a thick batter (a quarter of a pint)". */
const heldBehind =
  /(^|[,;]|(?<=\s)(?:and|plus|with)\b)\s*(?:and\s+)?((?:just )?enough |some |a (?:little|bit of|splash of|drop of) )?(\p{L}[\p{L}' -]{1,30}?)(\s+to\s[^(),;]{2,40})?\s*\(([^()]{2,40})\)/giu;

/** So many signs before a joint tell what it joins. */
const NEAR = 80;
/** No line holds more of them. */
const MOST_HELD = 60;
/** Whether what stands before is measured by a unit: then a bracket behind "and" may be of both. */
const hasUnit = (text: string): boolean => itemsOf(text.slice(-NEAR)).some(isMeasured);

/** A line before each food whose amount stands in a bracket behind it, so that no other food takes that amount; such a food with its amount alone. */
function apart(source: string, names: Names): string[] {
  const out: string[] = [];
  let from = 0;
  let seen = 0;
  for (const found of source.matchAll(heldBehind)) {
    if (++seen > MOST_HELD) break;
    const [whole, joint = "", manner = "", food = "", aim = "", inside = ""] = found;
    const loose = manner !== "" || aim !== "";
    const before = source.slice(from, found.index);
    const isFirst = before.trim() === "";
    if (isFirst ? !loose : joint === "" || (/\p{L}/u.test(joint) && !loose && hasUnit(before))) continue;
    const said = measuresIn(inside);
    if (names.known(plainText(food)) === null || !said?.measures.every((measure) => measure.every((term) => term.withUnit)))
      continue;
    if (!isFirst) out.push(before);
    out.push(`${food.trim()} (${inside})`);
    from = found.index + whole.length;
  }
  return out.length === 0 ? [source] : [...out, source.slice(from)].filter((part) => /\p{L}/u.test(part));
}

function sidesIn(source: string, plain: string, names: Names): WrittenItem[] {
  const said = apart(source, names).flatMap(itemsOf).map(withoutShare);
  // "80 ml milk, plus 1 tbsp to brush": of the same.
  const items = said.map((item, k) => {
    const before = said[k - 1];
    // "1 egg plus 1 to glaze": a bare count is one of the same.
    const count = /^(?:\d{1,2}|one|two|three)$/i.test(item.name.trim()) ? `${item.name} pieces` : item.name;
    const more = item.purpose !== undefined && item.measures.length === 0 ? measuresIn(count) : null;
    return more && before ? { ...item, name: before.name, measures: more.measures } : item;
  });
  const [only] = items;
  if (items.length !== 1 || !only || only.measures.length > 0 || only.name === "" || plain.length > 80) return items;
  // "baking powder, baking soda and salt": what stands behind a comma is no preparation where each is a thing.
  const several = /\d/.test(plain) ? [] : sideBySide(plain.replace(/[.:]$/, ""));
  if (several.length > 1 && several.length <= 8 && several.every((part) => names.known(part) !== null)) return several.map((name) => ({ ...only, name, glosses: [], alternatives: [] })).map(({ preparation: _, ...item }) => item); // prettier-ignore
  const parts = sideBySide(only.name);
  if (parts.length < 2 || parts.length > 4 || names.find(only.name)?.certainty === 1) return items;
  return parts.every((part) => (names.find(part)?.certainty ?? 0) === 1 || names.mayMean(part).length > 0)
    ? parts.map((name) => ({ ...only, name }))
    : items;
}

export const isMeasured = (item: WrittenItem): boolean =>
  item.measures.some((measure) => measure.some((term) => term.withUnit && term.unit !== "piece"));
