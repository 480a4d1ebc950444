import { type Draft, draftsOf, yieldBehind } from "./drafts";
import { asRows, batchesIn } from "./rows";
import { evenBlanks } from "./grammar/passages";
import { plainText } from "./grammar/tokens";
import { readItem } from "./item";
import { type Language, languageOf } from "./languages/language";
import { type Purpose, withoutBullet, type WrittenItem } from "./line";
import { isHeldAlready, isTale, leftOn, listedIn, openFoods, strayIn } from "./listed";
import type { Names } from "./meaning";
import type { Mention } from "./mentions";
import type { FiguresAre } from "./reading";
import type { Component, Line, Question, Reading } from "./reading-schema";
import { readSurroundings } from "./surroundings";
import type { Measures } from "./units";

/** What the baker said of a text as a whole: its language, and which of several batches of a table is meant. */
export interface SaidOfText {
  language?: Language | undefined;
  batch?: number | undefined;
  /** What figures without a unit are. */
  figures?: FiguresAre | undefined;
}

/**
 * Reads a pasted text: every non-empty line comes back, in order, with what it is, what it weighs with its spread, and what must be asked. One
 * line may give several. Nothing is guessed silently: a name that is not sure, an amount that is missing, two amounts that disagree and a
 * temperature of unknown scale are questions. Errors: none.
 */
export function readText(text: string, measures: Measures, names: Names, title?: string, told: SaidOfText = {}): Reading {
  const reading: Reading = { lines: [], questions: [] };
  if (title !== undefined) reading.title = title;
  const components: Component[] = [];
  let here: string | undefined;
  const unsure = new Set<string>();
  const language = told.language ?? languageOf(text);
  const batches = batchesIn(asRows(text));
  const taken = Math.min(told.batch ?? 0, Math.max(0, batches.length - 1));
  if (batches.length > 0) reading.batches = { names: batches, taken, ...(told.batch === undefined ? { open: true as const } : {}) };
  const drafts = draftsOf(text, names, title, language, taken, told.figures);
  const bare: number[] = [];
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
      if (draft.isBare && line.unit === "g") {
        bare.push(reading.lines.length - 1);
        if (line.state === "read") line.state = "asked";
      }
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
    if (role === "ingredient" && !isTale({ ...draft, mentions }, plain, listed)) {
      // "Dry: …", "Wet: …" are the batter itself, as under a heading.
      const part = draft.inline
        ? draft.inline.role === "batter" && !draft.inline.unsure
          ? undefined
          : componentId(components, draft.inline)
        : here;
      const own = items.filter((item) => !isHeldAlready(item, listed, names));
      const told = [...own, ...(open.get(from) ?? [])];
      const more = [...told.slice(own.length), ...leftOn(told, mentions, names)].filter(
        (item) => !own.some(({ name }) => name === item.name),
      );
      [...own, ...more].forEach((item, n) => enter(item, n, own.length + more.length, part));
    } else {
      if (role === "heading" && !opened) here = undefined;
      if (role === "title")
        reading.title ??= plainText(withoutBullet(evenBlanks(source)))
          .replace(/^#+\s*/, "")
          .replace(yieldBehind, "");
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
  if (bare[0] !== undefined) reading.questions.push(figuresQuestion(bare.length, bare[0]));
  settle(reading, components, unsure);
  batterAmong(reading.lines, components);
  if (components.length > 0) reading.components = components;
  readSurroundings(reading, measures, language);
  if (language !== "en") reading.language = language;
  reading.accounted = accounted;
  return reading;
}

type Account = NonNullable<Reading["accounted"]>[number];

const scannedQuestion = (line: Line, changed: Draft["changed"], index: number): Question => ({
  id: `scanned-${index}`,
  kind: "spelling",
  line: index,
  message: `${changed
    .slice(0, 3)
    .map(([was, is]) => `“${was}” was read as ${is}`)
    .join(", ")}. Is that right?`,
  choices: line.grams ? [{ label: `${line.quantity ?? ""} ${line.name}`.trim(), grams: line.grams }] : [],
});

/** One question for all figures without a unit. */
const figuresQuestion = (many: number, line: number): Question => ({
  id: "figures",
  kind: "figures",
  line,
  message: `${many === 1 ? "A figure without a unit was" : `${many} figures without a unit were`} read as grams. Is that right?`,
  choices: [],
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
