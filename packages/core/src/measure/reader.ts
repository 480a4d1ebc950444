import { evenBlanks, passagesOf, WHOLE_SENTENCES } from "./grammar/passages";
import { plainText } from "./grammar/tokens";
import { readItem } from "./item";
import { type Purpose, withoutBullet, type WrittenItem } from "./line";
import { nameOf, type Names } from "./meaning";
import { readTemperatures } from "./oven-text";
import { piecesIn, readPan } from "./pan-text";
import type { Component, Line, Reading } from "./reading-schema";
import { beginsAStep, componentOf, isHeading, isMeta, methodHeading, notesHeading, type Section } from "./roles";
import { itemsOf, sideBySide } from "./several";
import { readSurroundings } from "./surroundings";
import { readStages } from "./time-text";
import type { Measures } from "./units";

/**
 * Reads a pasted text: every non-empty line comes back, in order, with what it is, what it weighs with its spread, and what must be asked. One
 * line may give several. Nothing is guessed silently: a name that is not sure, an amount that is missing, two amounts that disagree and a
 * temperature of unknown scale are questions. Errors: none.
 */
export function readText(text: string, measures: Measures, names: Names, title?: string): Reading {
  const reading: Reading = { lines: [], questions: [] };
  if (title !== undefined) reading.title = title;
  const components: Component[] = [];
  let section: Section = "start";
  let here: string | undefined;
  const unsure = new Set<string>();
  const sources = text.split(/\r?\n/).filter((source) => source.trim() !== "");
  sources.forEach((source, order) => {
    const plain = plainText(withoutBullet(evenBlanks(source))).replace(/^#+\s*/, "");
    const opened = order === 0 && title === undefined && !/:\s*$/.test(plain) ? null : openedBy(plain, section, names);
    if (opened) {
      section = "ingredients";
      here =
        opened.role !== "batter"
          ? componentId(components, opened)
          : opened.unsure
            ? componentId(components, { name: opened.name, role: "topping" })
            : undefined;
      if (opened.unsure && here !== undefined) unsure.add(here);
      reading.lines.push(said(source, "heading", plain));
      return;
    }
    const items = itemsIn(source, plain, names);
    const first = order === 0 && title === undefined;
    const role = first && isTitle(source, plain, text) ? "title" : roleOf(plain, items, section, first, names);
    section = nextSection(plain, role, section);
    if (role !== "ingredient") {
      if (role === "heading") here = undefined;
      if (role === "title") reading.title ??= plain;
      reading.lines.push(said(source, role, plain));
      return;
    }
    items.forEach((item, n) => {
      const index = reading.lines.length;
      const { line, questions } = readItem(item, source, index, measures, names);
      if (items.length > 1) line.item = n;
      const part = item.purpose ? componentId(components, purposePart[item.purpose]) : here;
      if (part !== undefined) line.component = part;
      reading.lines.push(line);
      reading.questions.push(...questions);
    });
  });
  settle(reading, components, unsure);
  batterAmong(reading.lines, components);
  if (components.length > 0) reading.components = components;
  readSurroundings(reading, measures);
  return reading;
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

function sidesIn(source: string, plain: string, names: Names): WrittenItem[] {
  const items = itemsOf(source);
  const [only] = items;
  if (items.length !== 1 || !only || only.measures.length > 0 || only.name === "" || plain.length > 80) return items;
  const parts = sideBySide(only.name);
  if (parts.length < 2 || parts.length > 4 || names.find(only.name)?.certainty === 1) return items;
  return parts.every((part) => (names.find(part)?.certainty ?? 0) === 1 || names.mayMean(part).length > 0)
    ? parts.map((name) => ({ ...only, name }))
    : items;
}

const isMeasured = (item: WrittenItem): boolean =>
  item.measures.some((measure) => measure.some((term) => term.withUnit && term.unit !== "piece"));

/** What a line says of oven, time, pan or yield. */
const isAboutBaking = (plain: string): boolean =>
  passagesOf(plain, WHOLE_SENTENCES).some((passage) => {
    const { celsius, coreC } = readTemperatures(passage);
    return (
      celsius !== undefined ||
      coreC !== undefined ||
      readStages(passage).length > 0 ||
      readPan(passage) !== null ||
      piecesIn(passage) !== null
    );
  });

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
