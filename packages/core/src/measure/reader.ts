import { type WrittenAmount, type WrittenLine, readLine, withoutBullet } from "./line";
import { readMinutes, readTemperature } from "./oven-text";
import { readPan } from "./pan-text";
import { plainText } from "./quantity";
import { type Range } from "./range";
import type { Line, Question, Reading } from "./reading";
import { type Measures, celsiusFromFahrenheit, isMass, millilitresPer, unitLabel } from "./units";
import { type Measurable, weigh } from "./weigh";

/** What a name on a line was found to mean. The pantry answers this; the reader only asks. */
export interface Found {
  ingredientId: string;
  name: string;
  certainty: number;
  what: Measurable;
  /** Others that the same word may mean, the assumed one first; empty when the word is clear. */
  mayMean: { ingredientId: string; name: string; what: Measurable }[];
}
export type LookUp = (name: string) => Found | null;

type Section = "start" | "ingredients" | "method" | "notes";

const ingredientsHeading = /^(?:the\s+)?(?:ingredients?|you(?:'ll| will) need|what you need|shopping list)\b[^.]{0,30}$/i;
const methodHeading = /^(?:the\s+)?(?:method|instructions?|directions?|preparation|steps|procedure|how to(?: make)?\b.*)\s*:?$/i;
const notesHeading = /^(?:notes?|tips?|storage|nutrition\b.*|variations?|equipment)\s*:?$/i;
const partHeading =
  /^(?:for\s+)?(?:the\s+)?(?:[a-z-]+\s+){0,2}(?:batter|dough|glaze|topping|filling|crumble|icing|frosting|streusel|decoration|dry|wet|dry ingredients|wet ingredients)\s*:?$/i;
const meta =
  /^(?:serves|makes|yields?|servings?|portions?|prep(?:aration)?(?: time)?|cook(?:ing)?(?: time)?|bak(?:e|ing)(?: time)|total(?: time)?|time|difficulty|oven|temperature|tin|pan|source|author|from)\b\s*[:\d-]/i;
const stepVerb =
  /^(?:then\s+|now\s+|meanwhile,?\s+|next,?\s+)?(?:pre-?heat|heat|mix|whisk|stir|add|bake|pour|combine|beat|fold|line|grease|butter and|leave|let|cool|remove|place|put|spoon|scrape|scoop|transfer|divide|cut|turn|serve|sprinkle|rub|cream (?:the|butter|together)|melt|blend|sift|make|in an?|using|use|knead|shape|roll|rest|allow|set|take|bring|drop|brush|toss|soak|store|enjoy|slice|check|test|once|when|while|if|until|after|with)\b/i;
const temperatureFirst = /^\D{0,12}\d{2,3}\s*(?:°|º|degrees?\b|C\b|F\b)|^gas(?: mark)?\s*\d/i;
const timeFirst = /^(?:about\s+)?\d+(?:\s*(?:-|to)\s*\d+)?\s*(?:min|minutes?|mins|hours?|hrs?)\b/i;

/** A volume and a weight may differ by this share of the weight before the baker is asked. */
const pairTolerance = 0.2;

/**
 * Reads a pasted recipe. Every non-empty line comes back in `lines`, in order, with what was understood of it.
 * Masses in g with the spread of the way they were measured; temperatures in °C; times in minutes. Never throws: what
 * cannot be read is a line with state `unread`.
 */
export function readText(text: string, measures: Measures, lookUp: LookUp, title?: string): Reading {
  const reading: Reading = { lines: [], questions: [] };
  if (title !== undefined && title.trim() !== "") reading.title = title.trim();
  let section: Section = "start";
  for (const source of text.split(/\r\n|\r|\n/)) {
    if (source.trim() === "") continue;
    const index = reading.lines.length;
    const plain = plainText(withoutBullet(source))
      .replace(/^#+\s*|\*\*/g, "")
      .trim();
    const role = roleOf(plain, source, section, index, lookUp);
    section = nextSection(plain, role, section);
    if (role === "ingredient") {
      const { line, questions } = readIngredient(source, index, measures, lookUp);
      reading.lines.push(line);
      reading.questions.push(...questions);
      continue;
    }
    if (role === "title" && reading.title === undefined) reading.title = plain.replace(/[\s:]+$/, "");
    reading.lines.push({ source, role, ingredientId: null, name: plain, grams: null, state: "read" });
  }
  readSurroundings(reading);
  return reading;
}

function nextSection(plain: string, role: Line["role"], section: Section): Section {
  if (role === "ingredient") return section === "start" ? "ingredients" : section;
  if (role !== "heading") return section;
  if (methodHeading.test(plain)) return "method";
  if (notesHeading.test(plain)) return "notes";
  return "ingredients";
}

function roleOf(plain: string, source: string, section: Section, index: number, lookUp: LookUp): Line["role"] {
  const heading =
    ingredientsHeading.test(plain) || methodHeading.test(plain) || notesHeading.test(plain) || partHeading.test(plain);
  if (heading) return "heading";
  if (meta.test(plain) || temperatureFirst.test(plain) || timeFirst.test(plain)) return "note";
  if (section === "method") return "step";
  if (section === "notes") return "note";
  if (plain === "" || !/[\p{L}\d]/u.test(plain)) return "note";
  const written = readLine(source);
  if (written.amounts.length > 0) {
    if (stepVerb.test(plain) && plain.split(" ").length > 5) return "step";
    return "ingredient";
  }
  if (/:$/.test(plain) && plain.length < 60) return index === 0 ? "title" : "heading";
  const words = plain.split(" ").length;
  if (stepVerb.test(plain) && words > 2) return "step";
  if (words > 12) return index === 0 ? "title" : "step";
  const found = lookUp(written.name);
  if (index === 0 && !written.toTaste && (found === null || found.certainty < 1 || words > 2)) return "title";
  return section === "start" && found === null ? "note" : "ingredient";
}

function readIngredient(source: string, index: number, measures: Measures, lookUp: LookUp): { line: Line; questions: Question[] } {
  const written = readLine(source);
  const found = findWritten(written, lookUp);
  const line: Line = {
    source,
    role: "ingredient",
    ingredientId: found?.ingredientId ?? null,
    name: written.name === "" ? source.trim() : written.name,
    grams: null,
    state: "read",
  };
  if (written.preparation !== undefined) line.preparation = written.preparation;
  if (written.optional || written.toTaste) line.optional = true;
  const questions: Question[] = [];
  const main = mainAmount(written.amounts);
  if (main) {
    line.quantity = main.quantity.mid;
    line.unit = main.unit;
    if (main.filling !== undefined) line.filling = main.filling;
    line.grams = found || isMass(main.unit) ? weigh(main, found?.what ?? unknownThing, measures) : null;
  }
  if (!found) {
    line.state = "unread";
    return { line, questions };
  }
  const other = written.amounts.find((amount) => amount !== main && !isMass(amount.unit));
  if (main && isMass(main.unit) && other) questions.push(...pairQuestion(main, other, found.what, measures, index));
  if (main && line.grams === null) questions.push(massQuestion(found, main, index));
  if (!main && !written.toTaste && !written.optional) questions.push(amountQuestion(found, index));
  if (found.mayMean.length > 1) questions.push(whichQuestion(found, main, measures, index));
  if (questions.length > 0) line.state = "asked";
  return { line, questions };
}

/** The ingredient of a line; "2 eggs, separated" and "1 lemon, juiced" say in the preparation what the name leaves out. */
function findWritten(written: WrittenLine, lookUp: LookUp): Found | null {
  const first = written.name.split(/\s+or\s+/i)[0] ?? written.name;
  return lookUp(written.name) ?? lookUp(first);
}

/** The amount that counts: a weight stands above a volume, a volume above a count. */
export function mainAmount(amounts: WrittenAmount[]): WrittenAmount | undefined {
  return (
    amounts.find((a) => isMass(a.unit)) ??
    amounts.find((a) => millilitresPer[a.unit] !== undefined && amounts.length > 1) ??
    amounts[0]
  );
}

/** Without an ingredient only a mass can be told. */
const unknownThing: Measurable = { behaviour: "liquid", gPerMl: { low: 1, mid: 1, high: 1 } };

function pairQuestion(weight: WrittenAmount, other: WrittenAmount, what: Measurable, measures: Measures, line: number): Question[] {
  const byOther = weigh(other, what, measures);
  const byWeight = weigh(weight, what, measures);
  if (!byOther || !byWeight || byWeight.mid === 0) return [];
  const nearest = Math.min(Math.max(byWeight.mid, byOther.low), byOther.mid);
  if (Math.abs(nearest - byWeight.mid) / byWeight.mid <= pairTolerance) return [];
  const written = (a: WrittenAmount): string => `${rounded(a.quantity.mid)} ${unitLabel[a.unit]}`;
  return [
    {
      id: `amounts-${line}`,
      kind: "amounts-disagree",
      line,
      message: `${written(weight)} and ${written(other)} do not agree: ${written(other)} weighs ${rangeText(byOther)}. Which one counts?`,
      choices: [
        { label: `${written(weight)}`, grams: byWeight },
        { label: `${written(other)}, ${rangeText(byOther)}`, grams: byOther },
      ],
    },
  ];
}

function massQuestion(found: Found, amount: WrittenAmount, line: number): Question {
  return {
    id: `mass-${line}`,
    kind: "how-much",
    line,
    message: `No usual mass is known for ${rounded(amount.quantity.mid)} ${unitLabel[amount.unit]} of ${found.name}. How many grams is it?`,
    choices: [],
  };
}

function amountQuestion(found: Found, line: number): Question {
  return {
    id: `amount-${line}`,
    kind: "how-much",
    line,
    message: `How much ${found.name}? The line gives no amount.`,
    choices: [],
  };
}

function whichQuestion(found: Found, amount: WrittenAmount | undefined, measures: Measures, line: number): Question {
  return {
    id: `which-${line}`,
    kind: "which-ingredient",
    line,
    message: `That name stands for different things. Which one is it?`,
    choices: found.mayMean.map((option) => {
      const grams = amount ? weigh(amount, option.what, measures) : null;
      return { label: option.name, ingredientId: option.ingredientId, ...(grams ? { grams } : {}) };
    }),
  };
}

const rounded = (value: number): string => String(Math.round(value * 100) / 100);
const rangeText = (r: Range): string =>
  r.high - r.low < 1.5 ? `${Math.round(r.mid)} g` : `${Math.round(r.low)}–${Math.round(r.high)} g`;

function readSurroundings(reading: Reading): void {
  reading.lines.forEach((line, index) => {
    if (line.role === "ingredient") return;
    if (reading.oven === undefined) {
      const temperature = readTemperature(line.source);
      if (temperature) {
        reading.oven = temperature.mode
          ? { celsius: temperature.celsius, mode: temperature.mode }
          : { celsius: temperature.celsius };
        if (temperature.conflict) reading.questions.push(temperatureQuestion(temperature.conflict, index, line));
      }
    }
    reading.minutes ??= readMinutes(line.source) ?? undefined;
    reading.pan ??= readPan(line.source) ?? undefined;
  });
  if (reading.minutes === undefined) delete reading.minutes;
  if (reading.pan === undefined) delete reading.pan;
}

function temperatureQuestion(pair: { celsius: number; fahrenheit: number }, index: number, line: Line): Question {
  line.state = "asked";
  const converted = Math.round(celsiusFromFahrenheit(pair.fahrenheit));
  return {
    id: `oven-${index}`,
    kind: "temperatures-disagree",
    line: index,
    message: `${pair.celsius} °C is not ${pair.fahrenheit} °F: that would be ${converted} °C. Which one is meant?`,
    choices: [
      { label: `${pair.celsius} °C`, celsius: pair.celsius },
      { label: `${pair.fahrenheit} °F, ${converted} °C`, celsius: converted },
    ],
  };
}
