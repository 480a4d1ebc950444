import { evenBlanks, passagesOf, WHOLE_SENTENCES } from "./grammar/passages";
import { asScanned, type Scanned } from "./grammar/scanned";
import { plainText } from "./grammar/tokens";
import { inEnglish, type Language, languageOfLine } from "./languages/language";
import { measuresIn, speaker, withoutBullet, type WrittenItem } from "./line";
import { amountFirst, asRows, ofBatch, withoutColumns } from "./rows";
import { inGrams, sharesOf } from "./shares";
import { nameOf, type Names } from "./meaning";
import { type Mention, mentionsIn } from "./mentions";
import { readTemperatures } from "./oven-text";
import { piecesIn, readPan } from "./pan-text";
import type { FiguresAre } from "./reading";
import type { Line } from "./reading-schema";
import { beginsAStep, componentOf, isHeading, isMeta, methodHeading, notesHeading, type Section } from "./roles";
import { isPutRight, itemsOf, sideBySide } from "./several";
import { readStages, timesIn } from "./time-text";
import { unitOf } from "./units";

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
  /** Its figures have no unit and are read as grams, which nobody has said. */
  isBare: boolean;
  /** Where the text was before this line. */
  began: Section;
  /** The items were gathered from a sentence; it is no line of a list. */
  gathered: boolean;
  mentions: Mention[];
  /** It says something of oven, time, pan or yield. */
  about: boolean;
}

/** `batch` says which of several amounts of a row counts. */
export function draftsOf(
  text: string,
  names: Names,
  title: string | undefined,
  language: Language,
  batch = 0,
  figuresAre?: FiguresAre,
): Draft[] {
  const drafts: Draft[] = [];
  let section: Section = "start";
  let at = 0;
  const bare = figuresAre === "unknown" ? null : bareFigures(text, names);
  const shares = sharesOf(text);
  const rows = asRows(text).split("\n");
  for (const [n, whole] of text.split("\n").entries()) {
    const from = at;
    at += whole.length + 1;
    const source = whole.replace(/\r$/, "");
    if (source.trim() === "") continue;
    const row = (rows[n] ?? whole).replace(/\r$/, "");
    const own = shares ? inGrams(row, shares) : row;
    // Of how much the shares are is no thing of the list.
    const isOfShares = shares?.saidIn === whole && !isAboutBaking(plainText(whole));
    // Who says it in a chat, and when, is no part of what is said.
    const read = asScanned(ofBatch(spoken(own.replace(speaker, ""), language), batch));
    const listed = figuresAre === "unknown" ? null : bareList(read.text, names);
    const scanned = listed ?? read.text;
    const { changed } = read;
    const [, called = "", figure, done] = (bare && bareRow(scanned, names)) || [];
    const behind = `${figure === undefined ? "" : (scanned.match(brackets) ?? []).map((one) => ` ${one}`).join("")}${done === undefined ? "" : `, ${done}`}`;
    // "egg 1" is one egg; "egg 150" is its mass.
    const counted = figure !== undefined && Number(figure) <= 12 && names.known(plainText(called))?.what.pieces !== undefined;
    const isBare = figuresAre === undefined && (listed !== null || (figure !== undefined && !counted && bare === "asked"));
    const figures = readAs(
      figure === undefined
        ? amountFirst(withoutColumns(scanned))
        : counted
          ? `${figure} ${called}${behind}`
          : `${called} ${figure} g${behind}`,
      language,
      names,
    );
    const plain = plainText(withoutBullet(evenBlanks(figures))).replace(/^#+\s*/, "");
    // The head of a table names no recipe.
    const first = drafts.length === 0 && title === undefined && !/\|.*\|/.test(source);
    const draft = {
      source,
      plain,
      from,
      changed,
      isBare,
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
    if (isOfShares) {
      drafts.push({ ...draft, opened: null, role: "note", section, about: true });
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

/** What a speaker says while thinking, and the short ways of a card, as they are meant. */
const spoken = (line: string, language: Language): string =>
  language === "en"
    ? line
        .replace(/\b(?:u+h+|u+m+|er+m+|hmm+)\b,?\s*/gi, "")
        .replace(/\bg(?:\.\s?|-)f\b\.?(?=\s)/gi, "gluten-free")
        .replace(/\bb['’]milk\b/gi, "buttermilk")
        .replace(/\bh2o\b/gi, "water")
    : line;

/** "millet flour 620": a food and a figure, and nothing else. */
const bareFigure = /^\s*(\p{L}[^\d]{1,40}?)[\s:]+(\d{1,4}(?:[.,]\d{1,2})?)(?:\s+(\p{L}{4,}[\p{L} +&'-]{0,30}))?\s*$/u;
const brackets = /\([^()]*\)/g;
const FEW = 3;

/** The food of such a line, its figure and what is done to it; a time, a unit or a word of the oven behind the figure makes it none. */
function bareRow(line: string, names: Names): RegExpExecArray | null {
  // What a bracket says of it stands beside: "flour (rice/tapioca 2:1) 240".
  const found = bareFigure.exec(line.replace(brackets, " ").replace(/\s+/g, " "));
  const [first = ""] = (found?.[3] ?? "").toLowerCase().split(" ");
  const isFood = first === "" || (names.known(plainText(found?.[1] ?? "")) !== null && unitOf(first) === null && timesIn(`1 ${first}`).length === 0); // prettier-ignore
  return isFood ? found : null;
}

/** "600 sorghum", "water 780": a food and a figure in a list on one line. */
const bareItem = /^(?:(\d{1,4}(?:[.,]\d)?)\s+(\p{L}[\p{L} '-]{1,30})|(\p{L}[\p{L} '-]{1,30}?)\s+(\d{1,4}(?:[.,]\d)?))$/u;

/** A line of foods with bare figures, as one with grams; null where it is none. */
function bareList(line: string, names: Names): string | null {
  const apart = line.includes(",") ? /,\s*(?:and\s+)?/ : /\s\/\s/;
  if (line.split(apart).length < FEW) return null;
  const [, head = "", rest = line] = /^([^:\d]{2,40}:\s+)?(.+)$/.exec(line.trim()) ?? [];
  const parts = rest.split(apart).map((part) => part.trim());
  const read = parts.map((part) => {
    const [, before, behind, name, figure] = bareItem.exec(part) ?? [];
    const called = behind ?? name;
    // "2 eggs" is two of them.
    const found = called === undefined ? null : names.find(plainText(called));
    const thing = called === undefined ? null : (names.known(plainText(called)) ?? (found?.respelled ? found : null));
    return thing && thing.what.pieces === undefined ? { figure: before ?? figure ?? "", name: called } : null;
  });
  const known = read.filter((one) => one !== null).length;
  if (known < FEW - 1 || known < parts.length - 2) return null;
  // A name that nobody knows among them has a figure of the same kind.
  const all = parts.map((part, k) => {
    const [, before, behind, name, figure] = read[k] ? [] : (bareItem.exec(part) ?? []);
    const called = behind ?? name;
    const counted = called !== undefined && names.known(plainText(called)) !== null;
    return read[k] ?? (called === undefined || counted ? null : { figure: before ?? figure ?? "", name: called });
  });
  if (all.filter((one) => one !== null).length < FEW) return null;
  return `${head}${all.map((one, k) => (one ? `${one.figure} g ${one.name}` : (parts[k] ?? ""))).join(", ")}`;
}

const total = /^\s*(?:total|sum|together|batch|gesamt|summe|totale?)\b/i;

/**
 * Whether a text is a sheet of foods with figures without a unit, as bakers keep them: grams, and each is asked about; but where its own total is their
 * sum, the sheet itself says that they are one measure, and that of a scale.
 */
function bareFigures(text: string, names: Names): "asked" | "summed" | null {
  const rows = text.split("\n").flatMap((line) => {
    const [, name, figure] = bareRow(line, names) ?? [];
    return name === undefined ? [] : [{ name, figure: Number(figure?.replace(",", ".")) }];
  });
  const foods = rows.filter(({ name }) => !total.test(name));
  if (foods.filter(({ name }) => names.known(plainText(name)) !== null).length < FEW) return null;
  const sum = foods.reduce((all, { figure }) => all + figure, 0);
  return rows.some(({ name, figure }) => total.test(name) && figure > 100 && Math.abs(figure - sum) <= 0.01 * sum)
    ? "summed"
    : "asked";
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
    sharedChoice(itemsIn(inline && rest !== undefined ? rest : source, inline && rest !== undefined ? rest : plain, names), names),
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
  const said = itemsOf(source).map(withoutShare);
  // "80 ml milk, plus 1 tbsp to brush": of the same.
  const items = said.map((item, k) => {
    const more = item.purpose !== undefined && item.measures.length === 0 ? measuresIn(item.name) : null;
    const before = said[k - 1];
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
/** "(makes about 14)", "serves 8" behind a name. */
export const yieldBehind = /\s*[(,-]?\s*\b(?:makes|serves|yields?|gives|for)\s+(?:about |approx |around )?\d+[^)\d]{0,20}\)?\s*$/i;
const named = (plain: string): string => plain.replace(yieldBehind, "").trim();
const isTitle = (source: string, plain: string, text: string): boolean =>
  /^\s*#\s+\p{L}/u.test(source) ||
  (!/\d|:$/.test(named(plain)) &&
    named(plain).includes(" ") &&
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
