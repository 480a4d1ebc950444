import { evenBlanks, passagesOf, WHOLE_SENTENCES } from "./grammar/passages";
import { asScanned, type Scanned } from "./grammar/scanned";
import { plainText } from "./grammar/tokens";
import { inEnglish, type Language, languageOfLine } from "./languages/language";
import { withoutBullet, withoutColumns, type WrittenItem } from "./line";
import { nameOf, type Names } from "./meaning";
import { type Mention, mentionsIn } from "./mentions";
import { readTemperatures } from "./oven-text";
import { piecesIn, readPan } from "./pan-text";
import type { Line } from "./reading-schema";
import { beginsAStep, componentOf, isHeading, isMeta, methodHeading, notesHeading, type Section } from "./roles";
import { isPutRight, itemsOf, sideBySide } from "./several";
import { readStages } from "./time-text";

/** A line of the text before it is weighed: what it is, and the things on it. */
export interface Draft {
  source: string;
  plain: string;
  /** Where it begins in the text as sent. */
  from: number;
  /** The part of the bake that it opens. */
  opened: ReturnType<typeof componentOf>;
  /** The part that it opens for what stands behind it on the same line. */
  inline: ReturnType<typeof componentOf>;
  role: Line["role"];
  section: Section;
  items: WrittenItem[];
  /** What stands otherwise in the text than it was read, as a scan leaves it. */
  changed: Scanned["changed"];
  /** Where the text was before this line. */
  began: Section;
  /** The items were gathered from a sentence; it is no line of a list. */
  gathered: boolean;
  mentions: Mention[];
  /** It says something of oven, time, pan or yield. */
  about: boolean;
}

export function draftsOf(text: string, names: Names, title: string | undefined, language: Language): Draft[] {
  const drafts: Draft[] = [];
  let section: Section = "start";
  let at = 0;
  const bare = bareFigures(text, names);
  for (const whole of text.split("\n")) {
    const from = at;
    at += whole.length + 1;
    const source = whole.replace(/\r$/, "");
    if (source.trim() === "") continue;
    const { text: scanned, changed } = asScanned(source);
    const [, called = "", figure] = bare ? (bareFigure.exec(scanned) ?? []) : [];
    // "egg 1" is one egg; "egg 150" is its mass.
    const counted = figure !== undefined && Number(figure) <= 12 && names.known(plainText(called))?.what.pieces !== undefined;
    if (figure !== undefined && !counted) changed.push([figure, `${figure} g`]);
    const figures = readAs(
      figure === undefined ? withoutColumns(scanned) : counted ? `${figure} ${called}` : `${scanned.trimEnd()} g`,
      language,
      names,
    );
    const plain = plainText(withoutBullet(evenBlanks(figures))).replace(/^#+\s*/, "");
    const first = drafts.length === 0 && title === undefined;
    const draft = {
      source,
      plain,
      from,
      changed,
      began: section,
      inline: null,
      items: [],
      gathered: false,
      mentions: [],
      about: false,
    };
    const opened = first && !/:\s*$/.test(plain) ? null : openedBy(plain, section, names);
    if (opened) {
      section = "ingredients";
      drafts.push({ ...draft, opened, role: "heading", section });
      continue;
    }
    const mentions = passagesOf(plain).flatMap((passage) => mentionsIn(passage, names));
    const { items, inline, gathered } = itemsOfLine(figures, plain, mentions, section, names);
    const role = first && isTitle(source, plain, text) ? "title" : roleOf(plain, items, section, first, names);
    section = nextSection(plain, role, section);
    drafts.push({
      ...draft,
      opened: null,
      inline,
      role,
      section,
      items,
      gathered,
      mentions,
      about: role !== "ingredient" && isAboutBaking(plain),
    });
  }
  return drafts;
}

/** "millet flour 620": a food and a figure, and nothing else. */
const bareFigure = /^\s*(\p{L}[^\d]{1,40}?)[\s:]+(\d{1,4}(?:[.,]\d{1,2})?)\s*$/u;
const FEW = 3;

/** Whether a text is a sheet of foods with figures without a unit, as bakers keep them: grams, and each is asked about. */
function bareFigures(text: string, names: Names): boolean {
  const rows = text.split("\n").flatMap((line) => bareFigure.exec(line)?.[1] ?? []);
  return rows.filter((name) => names.known(plainText(name)) !== null).length >= FEW;
}

/** A line in English: as it stands where its foods are known so, else in the language that it is surely in. */
function readAs(line: string, text: Language, names: Names): string {
  const language = languageOfLine(line, text);
  if (language === "en") return line;
  const items = itemsOf(line);
  const known =
    language === text
      ? items.every(({ name, measures }) => measures.length > 0 && names.known(name) !== null)
      : items.some((item) => nameOf(item, names) !== null);
  return known ? line : inEnglish(line, language);
}

/** The things on a line by whichever reading finds more of them: as a line of a list, or as the foods that it speaks of. */
function itemsOfLine(
  source: string,
  plain: string,
  mentions: readonly Mention[],
  section: Section,
  names: Names,
): Pick<Draft, "items" | "inline" | "gathered"> {
  const [, head, rest] = /^((?:for|to|on)\s[^:\d]{2,40}|\p{L}[\p{L} ]{2,24}):\s+(\S.*)$/iu.exec(plain) ?? [];
  const inline = head === undefined || section === "method" ? null : componentOf(`${head}:`, true);
  const items = sharedHead(
    itemsIn(inline && rest !== undefined ? rest : source, inline && rest !== undefined ? rest : plain, names),
    source,
    names,
  );
  const measured = measuredOf(mentions);
  const explained = items.filter((item) => item.measures.length > 0 && nameOf(item, names) !== null);
  const covered = explained.reduce((all, { alternatives }) => all + 1 + alternatives.length, 0);
  const known = measured.filter(({ ingredientId }) => ingredientId !== null).length;
  return known > covered && !isPutRight(plain)
    ? {
        items: measured.map(({ item }) => item),
        inline,
        gathered: known > 1 || plain.slice(0, measured[0]?.from).trim().split(" ").length > 2,
      }
    : { items, inline, gathered: false };
}

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

/** What the pantry knows by its very name is never a heading. */
function openedBy(plain: string, section: Section, names: Names): ReturnType<typeof componentOf> {
  if (isHeading(plain) || section === "method" || section === "notes") return null;
  const opened = componentOf(plain, /:\s*$/.test(plain));
  return opened && names.find(plain)?.certainty === 1 ? null : opened;
}

function nextSection(plain: string, role: Line["role"], section: Section): Section {
  if (role === "ingredient") return section === "start" ? "ingredients" : section;
  if (role !== "heading") return section;
  if (methodHeading.test(plain)) return "method";
  if (notesHeading.test(plain)) return "notes";
  return "ingredients";
}

/** The items of a line; names without an amount that stand side by side are several where each is a thing. */
function itemsIn(source: string, plain: string, names: Names): WrittenItem[] {
  const items = sidesIn(source, plain, names);
  // What a thing is soaked, tossed or rolled in is a thing of its own.
  return [...items, ...items.flatMap((item) => within(item.preparation ?? "", names))];
}

const lyingIn =
  /\b(?:soaked|steeped|tossed|coated|rolled|dipped|dredged|dusted|mixed|blended|whisked|combined|cooked|simmered|boiled|poached|plumped|stirred|folded|covered|brushed|spread|topped|filled|sprinkled|drizzled)\b[^,;()]*?\b(?:in(?:to)?|with)\s+([^;()]+)/i;
const ofTheKitchen = /\b(?:water|oven|pan|pot|microwave|fridge|freezer|bowl|towel|cloth|foil|half|pieces|halves|quarters)\b/i;

/** The things that another lies in, as a preparation says: known ones, with their amount or asked for it. */
function within(preparation: string, names: Names): WrittenItem[] {
  const rest = lyingIn.exec(preparation)?.[1];
  if (rest === undefined) return [];
  return itemsOf(rest).filter((item) => {
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

function sidesIn(source: string, plain: string, names: Names): WrittenItem[] {
  const items = itemsOf(source).map(withoutShare);
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

const isMeasured = (item: WrittenItem): boolean =>
  item.measures.some((measure) => measure.some((term) => term.withUnit && term.unit !== "piece"));

/** The line that was asked about last, and what it says. */
const last = { plain: "", about: false };

/** Whether a line says something of oven, time, pan or yield. */
function isAboutBaking(plain: string): boolean {
  if (last.plain === plain) return last.about;
  last.plain = plain;
  last.about = /\d|\b(?:tins?|pans?|trays?|sheets?|skillet|oven|hours?|minutes?|makes?|into|dozen|griddle|grill|mou?lds?|cases|degrees|gas|fan)\b/i.test(plain) && passagesOf(plain, WHOLE_SENTENCES).some(saysOfBaking); // prettier-ignore
  return last.about;
}

function saysOfBaking(passage: string): boolean {
  const { celsius, coreC } = readTemperatures(passage);
  return (
    celsius !== undefined ||
    coreC !== undefined ||
    readStages(passage).length > 0 ||
    readPan(passage) !== null ||
    piecesIn(passage) !== null
  );
}

/** Whether the first line names the whole: it is marked as a heading of the first order, or stands by itself over a blank line and says no amount. */
const isTitle = (source: string, plain: string, text: string): boolean =>
  /^\s*#\s+\p{L}/u.test(source) ||
  (!/\d|:$/.test(plain) &&
    !isHeading(plain) &&
    !beginsAStep(plain) &&
    plain.split(" ").length > 2 &&
    plain.split(" ").length <= 12 &&
    /^\s*[^\n]+\n[ \t]*\r?\n/.test(text));

function roleOf(plain: string, items: readonly WrittenItem[], section: Section, first: boolean, names: Names): Line["role"] {
  if (isHeading(plain)) return "heading";
  if (isMeta(plain)) return "note";
  if (section === "method") return "step";
  if (section === "notes") return "note";
  if (plain === "" || !/[\p{L}\d]/u.test(plain)) return "note";
  // What a recipe boasts of before its list: "no gum needed", "only 1 bowl".
  if (section === "start" && /^(?:no|only|just|zero|without|ready in)\b/i.test(plain) && !items.some(isMeasured))
    return first ? "title" : "note";
  const words = plain.split(" ").length;
  const known = items.some((item) => nameOf(item, names) !== null);
  const amounts = items.some((item) => item.measures.length > 0);
  if (beginsAStep(plain) && words > 5 && !(known && isMeasured(items[0] as WrittenItem) && /^\S*\d/.test(plain))) return "step";
  if (amounts && known && items.some(isMeasured)) return "ingredient";
  if (isAboutBaking(plain) && !(known && amounts && words < 9 && !/\b(?:tin|pan|tray|oven|minutes?|mins?|hours?)\b/i.test(plain)))
    return beginsAStep(plain) ? "step" : "note";
  if (amounts) return first && !known && !items.some(isMeasured) ? "title" : "ingredient";
  if (/:$/.test(plain) && plain.length < 60) return first ? "title" : "heading";
  if (beginsAStep(plain) && words > 2) return "step";
  // A sentence that ends in a full stop and names nothing that is known.
  if (/[^.]\.$/.test(plain) && words > 3 && !known && !amounts)
    return section === "start" || first ? (first ? "title" : "note") : "step";
  if (words > 12) return first ? "title" : "step";
  const open = items.some((item) => item.toTaste);
  const sure = items.some((item) => names.find(item.name)?.certainty === 1);
  if (first && !open && (!known || !sure || words > 2)) return "title";
  return section === "start" && !known && !open ? "note" : "ingredient";
}
