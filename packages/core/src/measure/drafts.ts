import { evenBlanks, passagesOf, WHOLE_SENTENCES } from "./grammar/passages";
import { asScanned, type Scanned } from "./grammar/scanned";
import { plainText } from "./grammar/tokens";
import { inEnglish, type Language, languageOfLine } from "./languages/language";
import { speaker, withoutBullet, type WrittenItem } from "./line";
import { bareFigures, bareList, bareRow, brackets, counts } from "./bare-figures";
import { isMeasured, itemsOfLine } from "./line-items";
import { amountFirst, asRows, ofBatch, withoutColumns } from "./rows";
import { inGrams, sharesOf } from "./shares";
import { nameOf, type Names } from "./meaning";
import { type Mention, mentionsIn } from "./mentions";
import { readTemperatures } from "./oven-text";
import { readPan } from "./pan-text";
import { withoutLikeness } from "./part-of-whole";
import { piecesIn } from "./pieces-text";
import type { FiguresAre } from "./reading";
import type { Line } from "./reading-schema";
import { beginsAStep, componentOf, isHeading, isMeta, methodHeading, notesHeading, type Section, namesABake } from "./roles";
import { itemsOf } from "./several";
import { readStages, readStagesByDefault } from "./time-text";

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
  const shares = sharesOf(text);
  const rows = asRows(text)
    .split("\n")
    .map((row) => ofBatch(row, batch));
  const bare = figuresAre === "unknown" ? null : bareFigures(rows.join("\n"), names);
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
    const read = asScanned(spoken(own.replace(speaker, ""), language));
    const listed = figuresAre === "unknown" ? null : bareInside(read.text, names, bare !== null);
    const scanned = listed ?? read.text;
    const { changed } = read;
    const [, called = "", figure, done] = (bare && bareRow(scanned, names)) || [];
    const behind = `${figure === undefined ? "" : (scanned.match(brackets) ?? []).map((one) => ` ${one}`).join("")}${done === undefined ? "" : `, ${done}`}`;
    // "egg 1" is one egg; "egg 150" is its mass.
    const counted = figure !== undefined && counts(Number(figure), called, names.known(plainText(called))?.what);
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
    const plain = withoutLikeness(plainText(withoutBullet(evenBlanks(figures))).replace(/^#+\s*/, ""));
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
      isBare: isBare || (figuresAre === undefined && mentions.some(({ bare }) => bare === true)),
      about: role !== "ingredient" && isAboutBaking(plain),
    });
  }
  return drafts;
}

/** A line of foods with bare figures as one with grams, in the bracket of what they are together too: "flour (white rice 120, sorghum 80, tapioca 50)"; two are enough where the whole text has its figures so. */
function bareInside(line: string, names: Names, isBareText: boolean): string | null {
  const [, head, inside] = /^(\s*\p{L}[\p{L} ]{2,24})\(([^()]+)\)\s*$/u.exec(line) ?? [];
  if (head === undefined || inside === undefined) return bareList(line, names, isBareText ? 2 : undefined);
  const list = bareList(inside, names);
  return list && `${head}(${list})`;
}

/** What a speaker says while thinking, and the short ways of a card, as they are meant. */
const spoken = (line: string, language: Language): string =>
  language === "en"
    ? line
        .replace(/\b(?:u+h+|u+m+|er+m+|hmm+)\b,?\s*/gi, "")
        .replace(/\bg(?:\.\s?|[-/])f\b\.?(?=\s)/gi, "gluten-free")
        .replace(/\bs\/r\b/gi, "self-raising")
        .replace(/\bb['’/] ?milk\b/gi, "buttermilk")
        .replace(/\bh2o\b/gi, "water")
        .replace(/\b(?:b|bk|bkg|bak)\.\s?(?=(?:powder|pdr|soda)\b)/gi, "baking ")
        // "2 eggs M", "3 eggs (L)"
        .replace(/\b([Ee]ggs?),?\s+\(?(S|M|L|XL)\)?(?=[\s,;.]|$)/g, "size $2 $1")
    : line;

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

/** The line that was asked about last, and what it says. */
const last = { plain: "", about: false };

/** Whether a line says something of oven, time, pan or yield. */
function isAboutBaking(plain: string): boolean {
  if (last.plain === plain) return last.about;
  last.plain = plain;
  last.about = /\d|\b(?:tins?|pans?|trays?|sheets?|skillet|springform|bundt|oven|hours?|minutes?|makes?|into|dozen|griddle|grill|mou?lds?|cases|degrees|gas|fan)\b/i.test(plain) && passagesOf(plain, WHOLE_SENTENCES).some(saysOfBaking); // prettier-ignore
  return last.about;
}

function saysOfBaking(passage: string): boolean {
  const { celsius, coreC } = readTemperatures(passage);
  return (
    celsius !== undefined ||
    coreC !== undefined ||
    readStages(passage).length > 0 ||
    readStagesByDefault(passage).length > 0 ||
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

const beginsWithAmount = /^\W*(?:\d|[½¼¾⅓⅔]|(?:an?|one|two|three|four|half|some|about)\b)/i;
/** "Two-tin chocolate cake", "3-ingredient cookies": a number that is part of a name. */
const numberedName = /^\W*(?:\d+|one|two|three|four|five|six|seven)-\p{L}{3}/iu;

function roleOf(plain: string, items: readonly WrittenItem[], section: Section, first: boolean, names: Names): Line["role"] {
  if (isHeading(plain)) return "heading";
  if (isMeta(plain)) return "note";
  if (section === "method") return "step";
  if (section === "notes") return "note";
  if (plain === "" || !/[\p{L}\d]/u.test(plain)) return "note";
  // What a recipe boasts of before its list: "no gum needed", "only 1 bowl".
  if (section === "start" && /^(?:no|only|just|zero|without|ready in)\b/i.test(plain) && !items.some(isMeasured))
    return first ? "title" : "note";
  // "Bench sheet 14 - carrot loaf x4": the first line names what is baked; its figures are no amounts.
  if (
    first &&
    plain.length <= 80 &&
    namesABake(plain) &&
    (numberedName.test(plain) || (!beginsWithAmount.test(plain) && !items.some(isMeasured)))
  )
    return "title";
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
