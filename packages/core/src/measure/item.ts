import type { Measure } from "./grammar/amounts";
import { mainMeasure, type WrittenItem } from "./line";
import { itemsOf } from "./several";
import { type Meant, type Names, nameOf, type Naming } from "./meaning";
import { inWholes, likenedMl, sizedByName } from "./part-of-whole";
import { mapRange, product } from "./range";
import type { Range } from "./range-schema";
import type { Line, Question } from "./reading-schema";
import { isMass, unitLabel } from "./units";
import type { Measures } from "./units";
import { type Measurable, weighMeasure } from "./weigh";

/** What stands at a thing in its line. */
const nearby = (source: string, own: string): string => {
  const at = Math.max(0, source.indexOf(own));
  return source.slice(at, at + 200);
};

/** The largest share by which two amounts of the same thing may differ. */
const PAIR_TOLERANCE = 0.2;

export function readItem(
  item: WrittenItem,
  source: string,
  index: number,
  measures: Measures,
  names: Names,
): { line: Line; questions: Question[] } {
  const titled = item.preparation === undefined ? null : names.titled(`${item.name}, ${item.preparation}`);
  const naming: Naming | null = titled
    ? { found: { ...titled, certainty: 1, respelled: false }, mayMean: [] }
    : nameOf(item, names);
  const questions: Question[] = [];
  const eachOf = perPiece(item, naming?.found ?? null, measures);
  const main = eachOf ?? mainMeasure(item.measures);
  const first = main?.[0];
  const own = item.own ?? source;
  const remarks = [item.preparation, ...item.glosses].filter((text) => text !== undefined).join("; ");
  let meant: Meant | null = naming?.found ?? null;
  const sizes = (meant?.what.pieces ?? []).map(({ size }) => size);
  const counted = (measure: Measure): Measure | null => inWholes(sizedByName(measure, item.name, sizes), item.name, sizes);
  const wholes = main && counted(main);
  let grams = wholes ? weighMeasure(wholes, meant?.what ?? unknownThing, measures) : null;
  if (main && !meant && !main.every((term) => isMass(term.unit) && term.unit !== "stick")) grams = null;
  const like = meant && (first?.unit === "lump" || first?.unit === "knob") ? likenedMl(nearby(source, own)) : null;
  if (like && meant && first) grams = product(product(first.quantity, like), meant.what.gPerMl);
  const made = meant && !titled ? names.prepared(meant.ingredientId, `${remarks} ${item.name} ${first?.unit ?? ""}`) : null;
  if (made && main) {
    const size = made.weighedAs;
    const sized = size && size !== "piece" ? main.map((term) => (term.withUnit ? term : { ...term, size })) : main;
    const weighed = size ? weighMeasure(sized, made.what, measures) : grams;
    grams = weighed ? product(weighed, made.keeps) : null;
  }
  if (made) meant = made;
  const canned =
    item.measures.some((measure) => measure.some((term) => term.unit === "can")) || /\b(?:cans?|tins?|jars?)\b/i.test(own);
  if (
    meant &&
    grams &&
    canned &&
    item.net !== true &&
    /\bdrained\b/i.test(own) &&
    !/\([^)]*\bdrained\b|\bdrained\s*\(\s*\d/i.test(own)
  )
    grams = product(grams, names.drained(meant.ingredientId, main?.every(({ unit }) => unit === "can") === true));
  const line: Line = {
    source,
    role: "ingredient",
    ingredientId: meant?.ingredientId ?? null,
    name: item.name === "" ? source.trim() : item.name,
    grams: item.measures.length === 0 ? null : grams,
    state: "read",
  };
  if (first) {
    line.quantity = first.quantity.mid;
    line.unit = first.unit;
    if (first.filling !== undefined) line.filling = first.filling;
  }
  if (item.preparation !== undefined) line.preparation = item.preparation;
  if (item.optional || item.toTaste) line.optional = true;
  if (main?.some((term) => term.spoken && term.unit !== "piece") === true) line.spoken = true;
  if (item.alternatives.length > 0) line.alternatives = item.alternatives;
  if (!meant) return unsure(line, item, main, index, measures, names);
  const { found, mayMean } = naming ?? { found: null, mayMean: [] };
  const beside = item.measures.find((measure) => measure !== main && !measure.every((term) => isMass(term.unit)));
  const other = beside && counted(beside);
  if (main && other && main.every((term) => isMass(term.unit)) && !made)
    questions.push(...pairQuestion(main, other, meant.what, measures, index));
  if (main && line.grams === null) questions.push(massQuestion(meant, main, index, wholes ? null : item.name));
  const openPurpose = item.purpose !== undefined && item.measures.length === 0;
  if (!main && !(item.optional && !item.toTaste)) questions.push(amountQuestion(meant, index, openPurpose));
  if (mayMean.length > 1) questions.push(whichQuestion(mayMean, main, measures, index));
  if (found?.respelled) questions.push(spellingQuestion(item.name, meant, main, measures, names, index));
  if (item.alternatives.length > 0) questions.push(...alternativeQuestion(item, meant, main, measures, names, index));
  if (questions.length > 0) line.state = "asked";
  const holding = mayMean.length > 1 ? [] : names.mayHold(meant.ingredientId);
  if (holding.length > 1) questions.push(holdsQuestion(item.name, holding, main, measures, index));
  return { line, questions };
}

/** "3 eggs, size M (53–63 g)": a mass that is far too small for all of them is that of one. */
function perPiece({ measures: all }: WrittenItem, meant: Meant | null, measures: Measures): Measure | null {
  const [counted, weighed] = all;
  const count = counted?.length === 1 && counted[0]?.withUnit === false ? counted[0].quantity.mid : 1;
  if (!meant || count < 2 || !counted || weighed?.length !== 1 || !weighed.every(({ unit }) => isMass(unit))) return null;
  const usual = weighMeasure(counted, meant.what, measures);
  const said = weighMeasure(weighed, meant.what, measures);
  if (!usual || !said || said.mid * 1.6 > usual.mid) return null;
  return weighed.map((term) => ({ ...term, quantity: mapRange(term.quantity, (q) => q * count) }));
}

/** A name that is not sure: it is asked, with what it may mean; where nothing is near, it is not read. */
function unsure(
  line: Line,
  item: WrittenItem,
  main: Measure | undefined,
  index: number,
  measures: Measures,
  names: Names,
): { line: Line; questions: Question[] } {
  const alternatives = item.alternatives.flatMap((text) => itemsOf(text).flatMap((other) => nameOf(other, names)?.found ?? []));
  const candidates = [...alternatives, ...names.candidates(item.name)].slice(0, 4);
  if (candidates.length === 0) return { line: { ...line, state: "unread" }, questions: [] };
  return {
    line: { ...line, state: "asked" },
    questions: [
      {
        id: `which-${index}`,
        kind: "which-ingredient",
        line: index,
        message: `“${item.name}” is not known here. Is it one of these, or something else?`,
        choices: choicesOf(candidates, main, measures),
      },
    ],
  };
}

const choicesOf = (options: readonly Meant[], main: Measure | undefined, measures: Measures): Question["choices"] =>
  options.map((option) => {
    const grams = main ? weighMeasure(main, option.what, measures) : null;
    return { label: option.name, ingredientId: option.ingredientId, ...(grams ? { grams } : {}) };
  });

/** Without an ingredient only a mass can be told. */
const unknownThing: Measurable = { behaviour: "liquid", gPerMl: { low: 1, mid: 1, high: 1 } };

const writtenOf = (measure: Measure): string =>
  measure
    .map((term, n) => `${n === 0 ? "" : term.sign > 0 ? " + " : " − "}${rounded(term.quantity.mid)} ${unitLabel[term.unit]}`)
    .join("");

function pairQuestion(weight: Measure, other: Measure, what: Measurable, measures: Measures, line: number): Question[] {
  const byOther = weighMeasure(other, what, measures);
  const byWeight = weighMeasure(weight, what, measures);
  if (!byOther || !byWeight || byWeight.mid === 0) return [];
  const nearest = Math.min(Math.max(byWeight.mid, byOther.low), byOther.mid);
  if (Math.abs(nearest - byWeight.mid) / byWeight.mid <= PAIR_TOLERANCE) return [];
  return [
    {
      id: `amounts-${line}`,
      kind: "amounts-disagree",
      line,
      message: `${writtenOf(weight)} and ${writtenOf(other)} do not agree: ${writtenOf(other)} weighs ${rangeText(byOther)}. Which one counts?`,
      choices: [
        { label: writtenOf(weight), grams: byWeight },
        { label: `${writtenOf(other)}, ${rangeText(byOther)}`, grams: byOther },
      ],
    },
  ];
}

const massQuestion = (meant: Meant, measure: Measure, line: number, part: string | null): Question => ({
  id: `mass-${line}`,
  kind: "how-much",
  line,
  message:
    part === null
      ? `No usual mass is known for ${writtenOf(measure)} of ${meant.name}. How many grams is it?`
      : `How much of a whole one “${part}” is, nobody can tell. How many grams of ${meant.name} is it?`,
  choices: [],
});

const amountQuestion = (meant: Meant, line: number, aside: boolean): Question => ({
  id: `amount-${line}`,
  kind: "how-much",
  line,
  message: `How much ${meant.name}? The line gives no amount.${aside ? " It does not go into the batter." : ""}`,
  choices: [],
});

const whichQuestion = (options: readonly Meant[], main: Measure | undefined, measures: Measures, line: number): Question => ({
  id: `which-${line}`,
  kind: "which-ingredient",
  line,
  message: `That name stands for different things: ${options.map(({ name }) => name).join(", ")}. Which one is it? The first is taken until you say.`,
  choices: choicesOf(options, main, measures),
});

/** The name is understood, its composition is not: the line stays read, and the question stands beside it. */
const holdsQuestion = (
  name: string,
  options: readonly Meant[],
  main: Measure | undefined,
  measures: Measures,
  line: number,
): Question => ({
  id: `holds-${line}`,
  kind: "holds",
  line,
  message: `Does this “${name}” hold a gum or a raising agent? The packet says. None is taken until you do.`,
  choices: choicesOf(options, main, measures),
});

function spellingQuestion(
  name: string,
  meant: Meant,
  main: Measure | undefined,
  measures: Measures,
  names: Names,
  line: number,
): Question {
  const others = names.candidates(name).filter(({ ingredientId }) => ingredientId !== meant.ingredientId);
  return {
    id: `spelling-${line}`,
    kind: "spelling",
    line,
    message: `“${name}” was taken for ${meant.name}. Is that right?`,
    choices: choicesOf([meant, ...others.slice(0, 2)], main, measures),
  };
}

/** "A or B": the first is taken, the others may be. */
function alternativeQuestion(
  item: WrittenItem,
  meant: Meant,
  main: Measure | undefined,
  measures: Measures,
  names: Names,
  line: number,
): Question[] {
  const others = item.alternatives.flatMap((text) => {
    const [other] = itemsOf(text);
    const found = other ? (nameOf(other, names)?.found ?? null) : null;
    return found && found.ingredientId !== meant.ingredientId ? [found] : [];
  });
  if (others.length === 0) return [];
  return [
    {
      id: `one-${line}`,
      kind: "which-one",
      line,
      message: `${meant.name}, or ${others.map(({ name }) => name.toLowerCase()).join(", or ")}? The first is taken until you say.`,
      choices: choicesOf([meant, ...others], main, measures),
    },
  ];
}

const rounded = (value: number): string => String(Math.round(value * 100) / 100);
const rangeText = (r: Range): string =>
  r.high - r.low < 1.5 ? `${Math.round(r.mid)} g` : `${Math.round(r.low)}–${Math.round(r.high)} g`;
