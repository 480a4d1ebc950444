import { evenBlanks, passagesOf, WHOLE_SENTENCES } from "./grammar/passages";
import { asScanned, type Scanned } from "./grammar/scanned";
import { plainText } from "./grammar/tokens";
import { type Mention, mentionsIn } from "./mentions";
import { readItem } from "./item";
import { inEnglish, type Language, languageOf, languageOfLine } from "./languages/language";
import { type Purpose, withoutBullet, type WrittenItem } from "./line";
import { nameOf, type Names } from "./meaning";
import { readTemperatures } from "./oven-text";
import { piecesIn, readPan } from "./pan-text";
import type { Component, Line, Question, Reading } from "./reading-schema";
import { beginsAStep, componentOf, isHeading, isMeta, methodHeading, notesHeading, type Section } from "./roles";
import { isPutRight, itemsOf, sideBySide } from "./several";
import { readSurroundings } from "./surroundings";
import { readStages } from "./time-text";
import type { Measures } from "./units";

/**
 * Reads a pasted text: every non-empty line comes back, in order, with what it is, what it weighs with its spread, and what must be asked. One
 * line may give several. Nothing is guessed silently: a name that is not sure, an amount that is missing, two amounts that disagree and a
 * temperature of unknown scale are questions. Errors: none.
 */
export function readText(text: string, measures: Measures, names: Names, title?: string, told?: Language): Reading {
  const reading: Reading = { lines: [], questions: [] };
  if (title !== undefined) reading.title = title;
  const components: Component[] = [];
  let here: string | undefined;
  const unsure = new Set<string>();
  const language = told ?? languageOf(text);
  const drafts = draftsOf(text, names, title, language);
  const listed = listedIn(drafts, names);
  const open = openFoods(drafts, listed, names);
  const accounted: Account[] = [];
  for (const { source, plain, opened, role, items, mentions, from, ...draft } of drafts) {
    const first = reading.lines.length;
    const asked = reading.questions.length;
    const enter = (item: WrittenItem, n: number, of: number, part: string | undefined): Line => {
      const { line, questions } = readItem(item, source, reading.lines.length, measures, names);
      if (of > 1) line.item = n;
      const own = item.purpose ? componentId(components, purposePart[item.purpose]) : part;
      if (own !== undefined) line.component = own;
      reading.lines.push(line);
      reading.questions.push(...questions);
      if (draft.changed.length > 0 && line.state === "read") {
        line.state = "asked";
        reading.questions.push(scannedQuestion(line, draft.changed, reading.lines.length - 1));
      }
      return line;
    };
    if (opened) {
      here =
        opened.role !== "batter"
          ? componentId(components, opened)
          : opened.unsure
            ? componentId(components, { name: opened.name, role: "topping" })
            : undefined;
      if (opened.unsure && here !== undefined) unsure.add(here);
    }
    if (role === "ingredient" && !isTale(draft, plain, listed)) {
      const part = draft.inline ? componentId(components, draft.inline) : here;
      const more = (open.get(from) ?? []).filter((item) => !items.some(({ name }) => name === item.name));
      [...items, ...more].forEach((item, n) => enter(item, n, items.length + more.length, part));
    } else {
      if (role === "heading" && !opened) here = undefined;
      if (role === "title") reading.title ??= plainText(withoutBullet(evenBlanks(source))).replace(/^#+\s*/, "");
      reading.lines.push(said(source, role === "ingredient" ? "note" : role, plain));
      const strays = [...strayIn(mentions, role, draft.section, listed).map(({ item }) => item), ...(open.get(from) ?? [])];
      strays.forEach((item, n) => {
        const index = reading.lines.length;
        const line = enter(item, n, strays.length, undefined);
        line.item = n + 1;
        if (listed === null || line.state !== "read") return;
        line.state = "asked";
        reading.questions.push(strayQuestion(line, index));
      });
    }
    const end = from + source.length;
    accounted.push(
      ...accountOf({ from, to: end, first, role, opened: opened !== null, mentions, about: draft.about }, reading, asked),
    );
  }
  settle(reading, components, unsure);
  batterAmong(reading.lines, components);
  if (components.length > 0) reading.components = components;
  readSurroundings(reading, measures, language);
  if (language !== "en") reading.language = language;
  reading.accounted = accounted;
  return reading;
}

type Account = NonNullable<Reading["accounted"]>[number];

/** A line of the text before it is weighed: what it is, and the things on it. */
interface Draft {
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

function draftsOf(text: string, names: Names, title: string | undefined, language: Language): Draft[] {
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
      figure === undefined ? scanned : counted ? `${figure} ${called}` : `${scanned.trimEnd()} g`,
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

const measuredOf = (mentions: readonly Mention[]): Mention[] => mentions.filter(({ measured, aside }) => measured && !aside);

/** What a text's list holds, by ids and by the words of its names; null where it has none, and what it says must be gathered from its sentences. */
function listedIn(drafts: readonly Draft[], names: Names): Listed | null {
  const ids = new Set<string>();
  const called = new Map<string, string[]>();
  for (const { role, items, gathered } of drafts) {
    if (role !== "ingredient" || gathered) continue;
    for (const item of items) {
      const found = item.measures.length > 0 ? nameOf(item, names)?.found : null;
      if (!found) continue;
      ids.add(found.ingredientId);
      for (const name of [item.name, found.name]) if (!called.has(name)) called.set(name, wordsIn(name));
    }
  }
  return ids.size > 1 ? { ids, called: [...called.values()] } : null;
}

interface Listed {
  ids: ReadonlySet<string>;
  called: readonly string[][];
}

const wordsIn = (name: string): string[] => name.toLowerCase().split(/[^\p{L}]+/u).map((word) => word.replace(/s$/, "")).filter((word) => word !== ""); // prettier-ignore

/** Whether the list holds what a sentence calls by a shorter name: "the oil" of "sunflower oil". */
function isListed({ ingredientId, item }: Mention, { ids, called }: Listed): boolean {
  if (ingredientId === null || ids.has(ingredientId)) return true;
  const said = wordsIn(item.name);
  return called.some((words) => said.every((word) => words.includes(word)));
}

const addedBefore = /\b(?:add|fold(?: in)?|(?:stir|mix|whisk|beat|tip|work|throw) in)\s+(?:in\s+)?(?:the\s+|your\s+|some\s+)?$/i;

/**
 * Foods that sentences speak of without an amount, by where their line begins; each once. Where there is no list, all that the text does not measure
 * elsewhere; where there is one, what the method adds and the list does not hold.
 */
function openFoods(drafts: readonly Draft[], listed: Listed | null, names: Names): ReadonlyMap<number, WrittenItem[]> {
  const out = new Map<number, WrittenItem[]>();
  const measured = drafts.flatMap(({ mentions }) => measuredOf(mentions));
  if (listed === null && measured.length === 0) return out;
  const ids = new Set(listed?.ids ?? measured.flatMap(({ ingredientId }) => ingredientId ?? []));
  const called = listed
    ? [...listed.called]
    : measured.flatMap(({ ingredientId, item }) => [wordsIn(item.name), wordsIn(names.find(ingredientId ?? "")?.name ?? "")]);
  for (const { from, role, section, mentions, gathered, items } of drafts) {
    if (
      role === "title" ||
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
        mention.item.measures.length > 0 ||
        mention.item.purpose !== undefined ||
        isListed(mention, { ids, called })
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

/** What a sentence brings that no list holds: all of it where there is none, otherwise what only the method speaks of. */
function strayIn(mentions: readonly Mention[], role: Line["role"], section: Section, listed: Listed | null): Mention[] {
  if (section === "notes") return [];
  if (listed === null) return measuredOf(mentions);
  return role === "step"
    ? measuredOf(mentions).filter((mention) => mention.item.purpose === undefined && !isListed(mention, listed))
    : [];
}

/** What is told before a list is no part of it: several sentences, or what somebody once did, over a list that stands by itself. */
const isTale = ({ gathered, began }: Pick<Draft, "gathered" | "began">, plain: string, listed: Listed | null): boolean =>
  listed !== null &&
  gathered &&
  began === "start" &&
  (/[.!?]\s+\S/.test(plain) ||
    /\b(?:once|used to|last (?:time|year|week|spring|summer|autumn|winter)|tried|took|swapped|was|were|had)\b/i.test(plain));

const scannedQuestion = (line: Line, changed: Scanned["changed"], index: number): Question => ({
  id: `scanned-${index}`,
  kind: "spelling",
  line: index,
  message: `${changed
    .slice(0, 3)
    .map(([was, is]) => `“${was}” was read as ${is}`)
    .join(", ")}. Is that right?`,
  choices: line.grams ? [{ label: `${line.quantity ?? ""} ${line.name}`.trim(), grams: line.grams }] : [],
});

const strayQuestion = (line: Line, index: number): Question => ({
  id: `stray-${index}`,
  kind: "how-much",
  line: index,
  message: `The method speaks of ${line.name}, and the list does not. Does it go in?`,
  choices: line.grams ? [{ label: "It goes in", grams: line.grams }] : [],
});

/** What became of a line of the text. What is nowhere in it holds no amount, no food, no heat, no time and no pan. */
function accountOf(
  {
    from,
    to,
    first,
    role,
    opened,
    mentions,
    about,
  }: { from: number; to: number; first: number; role: Line["role"]; opened: boolean; mentions: readonly Mention[]; about: boolean },
  { lines, questions }: Reading,
  asked: number,
): Account[] {
  const own = lines.slice(first);
  const open = questions.length > asked || own.some(({ state }) => state !== "read");
  const held = own.findIndex(({ role }) => role === "ingredient");
  if (held >= 0) return [{ from, to, as: open ? "question" : "line", ref: first + held }];
  if (opened) return [{ from, to, as: "part", ref: first }];
  if (role === "title") return [{ from, to, as: "fact", ref: first }];
  if (role === "step") return [{ from, to, as: "step", ref: first }];
  if (about) return [{ from, to, as: "fact", ref: first }];
  const [food] = mentions;
  if (food)
    return [
      { from, to, as: "aside", ref: first, why: `It speaks of ${food.item.name}, and stands outside the list and the method.` },
    ];
  return /\d/.test(lines[first]?.source ?? "")
    ? [{ from, to, as: "aside", ref: first, why: "It holds a number, and none that the bake needs." }]
    : [];
}

/**
 * A heading that only names what is in it (“for the pears”) opens a part of its own where the batter has lines elsewhere, and the batter where it
 * has none; in an upside-down bake it lies under the batter.
 */
function settle({ lines, title = "" }: Reading, components: Component[], unsure: ReadonlySet<string>): void {
  if (unsure.size === 0) return;
  const batter = lines.some((line) => line.role === "ingredient" && line.grams !== null && line.component === undefined);
  for (const component of [...components]) {
    if (!unsure.has(component.id)) continue;
    if (batter) {
      if (/upside|tatin/i.test(title)) component.place = "base";
      continue;
    }
    for (const line of lines) if (line.component === component.id) delete line.component;
    components.splice(components.indexOf(component), 1);
  }
}

/** A text whose every line stands under a part has its batter there: it is the heaviest part that can be one. */
function batterAmong(lines: Line[], components: Component[]): void {
  const weighed = lines.filter((line) => line.role === "ingredient" && line.grams !== null);
  if (weighed.length === 0 || weighed.some((line) => line.component === undefined)) return;
  const massOf = (id: string): number =>
    weighed.reduce((all, line) => all + (line.component === id ? (line.grams?.mid ?? 0) : 0), 0);
  const [heaviest] = components
    .filter(({ role }) => role !== "pan" && role !== "serve" && role !== "glaze")
    .sort((a, b) => massOf(b.id) - massOf(a.id));
  if (!heaviest) return;
  for (const line of lines) if (line.component === heaviest.id) delete line.component;
  components.splice(components.indexOf(heaviest), 1);
}

const said = (source: string, role: Line["role"], name: string): Line => ({
  source,
  role,
  ingredientId: null,
  name,
  grams: null,
  state: "read",
});

const purposePart: Record<Purpose, { name: string; role: Component["role"] }> = {
  pan: { name: "the pan", role: "pan" },
  fry: { name: "the pan", role: "pan" },
  dust: { name: "dusting", role: "pan" },
  brush: { name: "brushed on", role: "glaze" },
  top: { name: "topping", role: "topping" },
  serve: { name: "to serve", role: "serve" },
};

function componentId(components: Component[], { name, role }: { name: string; role: Component["role"] }): string {
  const same = components.find((component) => component.name === name && component.role === role);
  if (same) return same.id;
  const id = `${role}-${components.length + 1}`;
  components.push({ id, name, role });
  return id;
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

/** "teff flour 50 %": a food of which only the share is said. */
const shareBehind = /^(\p{L}.*?)[\s:=]+(\d+(?:[.,]\d+)?\s*%)$/u;
const withoutShare = (item: WrittenItem): WrittenItem => {
  const [, name, share] = item.measures.length === 0 ? (shareBehind.exec(item.name) ?? []) : [];
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
