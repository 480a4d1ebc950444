import { capital } from "./measure/list-words";
import { stagesFromText } from "./formula/stage-schema";
import { analyse, type Analysis, type AnalyseInput } from "./balance/analyse";
import { defaultsOf } from "./balance/defaults";
import type { Finding } from "./balance/finding-schema";
import { profileOf, typicalLines } from "./balance/bands";
import type { Formula, FormulaLine, Pasted, Said } from "./formula/formula";
import type { Process } from "./formula/process-schema";
import { namedBeside } from "./formula/named";
import { placeOf, sortLines } from "./formula/components";
import type { WrittenStep } from "./formula/written-schema";
import type { FormulaComponent } from "./formula/components-schema";
import type { Opened } from "./formula/open";
import { kindSchema } from "./formula/kinds-schema";
import type { Kind } from "./formula/kinds";
import type { Line, Question, Reading } from "./measure/reading-schema";
import type { Measure } from "./measure/grammar/amounts";
import { plainText } from "./measure/grammar/tokens";
import { inEnglish, languageOfLine } from "./measure/languages/language";
import { mainMeasure } from "./measure/line";
import { sentencesOf } from "./measure/process-text";
import { beginsAStep, notesHeading } from "./measure/roles";
import { itemsOf } from "./measure/several";
import type { Measures } from "./measure/units";
import { weighMeasure } from "./measure/weigh";
import { builtInShelf } from "./pantry/catalogue";
import { ingredientOf, type Shelf } from "./pantry/shelf";
import { exactly, scaled } from "./measure/range";
import { vesselOf } from "./pantry/vessel";
import type { Oven, Vessel } from "./pantry/vessel-schema";
import { isLeftOpen, mendingKey } from "./measure/mending";
import { type MethodFood, type MethodSentence, writtenSteps } from "./method";
import { readRecipe } from "./read";
import { vesselFrom } from "./vessel-read";

/** A reading with one of its questions answered by a choice. The reading itself is not changed. */
export function answered(reading: Reading, question: Question, choice: Question["choices"][number]): Reading {
  const questions = reading.questions.filter((q) => q.id !== question.id);
  const lines = reading.lines.map((line, index): Line => {
    if (index !== question.line) return line;
    const open = questions.some((q) => q.line === index);
    return {
      ...line,
      ...(choice.grams ? { grams: choice.grams } : {}),
      ...(choice.ingredientId ? { ingredientId: choice.ingredientId } : {}),
      // The baker's own word stays where something stands in for it, and goes where another thing was chosen.
      ...(choice.ingredientId && (question.kind === "which-one" || question.kind === "spelling") ? { name: choice.label } : {}),
      state: open ? "asked" : "read",
    };
  });
  const oven = choice.celsius === undefined ? reading.oven : { ...reading.oven, celsius: choice.celsius };
  return { ...reading, lines, questions, ...(oven ? { oven } : {}) };
}

/** What the baker said of lines by hand: which ingredient a text means, or what it weighs. Keyed by the line's own text. */
export type Mending = Record<
  string,
  { ingredientId?: string; grams?: number; choice?: Record<string, number>; taken?: boolean; left?: boolean }
>;

/**
 * A reading with everything the baker said of it by hand: an ingredient for a line that could not be read is weighed as the text
 * says, a mass replaces any other, a choice answers its question. What no longer applies is ignored.
 */
export function mended(reading: Reading, mending: Mending, measures: Measures, shelf: Shelf = builtInShelf): Reading {
  let result = reading;
  reading.questions.forEach((question) => {
    const line = reading.lines[question.line];
    const choice = question.choices[(line ? mending[mendingKey(line)]?.choice?.[question.kind] : undefined) ?? -1];
    if (choice) result = answered(result, question, choice);
  });
  const questions = new Set(result.questions);
  const lines = result.lines.map((given, index): Line => {
    let line = given;
    const said = mending[mendingKey(line)];
    if (said?.left) {
      for (const q of result.questions) if (q.line === index) questions.delete(q);
      return { ...line, state: "read", optional: true, left: true };
    }
    if (said?.taken) line = { ...line, optional: false };
    const ingredient = said?.ingredientId === undefined ? undefined : shelf.get(said.ingredientId);
    if (!said || (!ingredient && said.grams === undefined)) return line;
    const open = result.questions.filter((q) => q.line === index && !(said.grams !== undefined && q.kind !== "which-ingredient"));
    for (const q of result.questions) if (q.line === index && !open.includes(q)) questions.delete(q);
    const measure = measureOf(line);
    const weighed = ingredient && measure ? weighMeasure(measure, ingredient, measures) : line.grams;
    const grams = said.grams === undefined ? weighed : { low: said.grams, mid: said.grams, high: said.grams };
    const known = ingredient?.id ?? line.ingredientId;
    return {
      ...line,
      role: "ingredient",
      ingredientId: known,
      grams,
      state: known === null ? "unread" : open.length > 0 || grams === null ? "asked" : "read",
    };
  });
  return { ...result, lines, questions: result.questions.filter((q) => questions.has(q)) };
}

/** The amount that a line was read with: as it stands, or where that was gathered, translated or put right, as it was understood. */
function measureOf({ source, item = 0, quantity, unit, filling }: Line): Measure | undefined {
  const written = mainMeasure(itemsOf(source)[item]?.measures ?? []);
  const same = written?.some((term) => term.unit === unit && term.quantity.mid === quantity) === true;
  if (same || quantity === undefined || unit === undefined) return written;
  return [
    { quantity: exactly(quantity), unit, sign: 1, withUnit: unit !== "piece", spoken: false, ...(filling ? { filling } : {}) },
  ];
}

/** The baker's own word stays on the line where the pantry's name is another. */
function labelOf(line: Line, shelf: Shelf): { name?: string } {
  const known = shelf.get(line.ingredientId ?? "");
  const own = line.name.trim();
  const same = known && [known.name, ...known.aliases].some((name) => name.toLowerCase() === own.toLowerCase());
  return known && !same && own !== "" && own.length <= 120 ? { name: capital(own) } : {};
}

/** How the text says that it is mixed, and how long the batter stands in the kitchen; in the cold little happens. */
function processFrom({ process }: Reading): Partial<Process> {
  const standing = (process?.rests ?? []).filter(({ place }) => place !== "fridge" && place !== "freezer");
  const restMinutes = Math.min(2880, standing.reduce((all, { minutes }) => all + (minutes.low + minutes.high) / 2, 0)); // prettier-ignore
  const tin = process?.tin;
  const cooling: Partial<Process> = tin ? (tin.minutes === null ? { cooling: "in-tin" } : { tinMinutes: Math.min(720, (tin.minutes.low + tin.minutes.high) / 2) }) : {}; // prettier-ignore
  return {
    ...cooling,
    ...(process?.elsewhere ? { elsewhere: process.elsewhere } : {}),
    ...(process?.method ? { method: process.method } : {}),
    ...(standing.length > 0 ? { restMinutes } : {}),
  };
}

/** A method of more sentences is none. */
const MOST_SENTENCES = 200;
/** A sentence of more signs is none: what is looked for in one takes no longer than it is long. */
const MOST_SIGNS = 2000;
const tells =
  /\b(?:off the heat|stir|beat|whisk|mix|fold|sieve|sift|rub|cream the|melt|blend|knead)\b.*\b(?:in|into|with|until|to|and|together)\b/i;
/** A paragraph that opens with what the bake is called, without that. */
const withoutTitle = (source: string, title: string | undefined): string =>
  title !== undefined && source.startsWith(title) ? source.slice(title.length).replace(/^\s*(?:\([^)]*\))?[.:!]?\s*/, "") : source;
/** What a text says of mixing, filling and finishing, sentence by sentence, up to its comments. */
function sentencesIn(reading: Reading): MethodSentence[] {
  const first = reading.lines.findIndex(({ role }) => role === "ingredient");
  const end = reading.lines.findIndex(
    ({ role, source }, k) => k > first && role === "heading" && notesHeading.test(plainText(source)),
  );
  const text = reading.language ?? "en";
  const foods = reading.lines.filter(({ role }) => role === "ingredient").map(({ source }) => source.trim());
  const told = reading.lines.slice(0, end < 0 ? undefined : end).filter(
    ({ role, source }, k) =>
      (role === "step" && (k > first || foods.some((food) => source.includes(food)))) ||
      (k > first && role === "note") ||
      // A sentence that tells what is done, and what with.
      (role === "ingredient" && (beginsAStep(plainText(source)) || tells.test(source))),
  );
  return [...new Set(told.map(({ source }) => source))]
    .flatMap((source) =>
      sentencesOf(withoutTitle(source.trim(), reading.title).replace(/^\s*(?:step\s*)?\d{1,2}\s*[.):-]\s+/i, "")).map(
        (sentence): MethodSentence => {
          const words = sentence.trim().slice(0, MOST_SIGNS);
          const language = languageOfLine(words, text);
          return { words, ...(language === "en" ? {} : { inEnglish: (part: string) => inEnglish(part, language) }) };
        },
      ),
    )
    .slice(0, MOST_SENTENCES);
}

/** The recipe's own steps with the lines that each takes; none where it tells too little. */
function writtenFrom(
  reading: Reading,
  lines: readonly FormulaLine[],
  components: readonly FormulaComponent[],
  shelf: Shelf,
): WrittenStep[] {
  const places = new Map(
    components.map((component) => [component.id, component.role === "pan" ? ("pan" as const) : placeOf(component)]),
  );
  const parts = new Map(components.filter((component) => component.role === "glaze" || placeOf(component) === "after").map(({ id, name }) => [id, name])); // prettier-ignore
  const foods = lines.flatMap(({ id, ingredientId, name, component }): MethodFood[] => {
    const ingredient = shelf.get(ingredientId ?? "");
    if (!ingredient) return [];
    const place = places.get(component ?? "") ?? "batter";
    const aside =
      place === "batter" ? undefined : place === "pan" ? "pan" : place === "after" || place === "apart" ? "late" : "early";
    return [{ lineId: id, name: name ?? ingredient.name, ingredient, aside, part: parts.get(component ?? "") }];
  });
  return writtenSteps(sentencesIn(reading), foods);
}

/** A line of a reading as a line of a formula: in its component, open where it is not answered, off where it may be left out. */
function lineFrom(reading: Reading, line: Line, index: number, shelf: Shelf): FormulaLine {
  const at = reading.lines.indexOf(line);
  const unsure = line.state === "asked" && line.ingredientId !== null && line.grams !== null;
  // Which of several things it is stays asked, with its amount or without.
  const question = reading.questions.find(
    (q) => q.line === at && (unsure || (line.ingredientId !== null && q.kind === "which-ingredient")),
  );
  const own = capital((line.name.trim() === "" ? line.source.trim() : line.name.trim()).slice(0, 120));
  return {
    id: `l${index + 1}`,
    ...(line.ingredientId === null ? { name: own } : { ingredientId: line.ingredientId, ...labelOf(line, shelf) }),
    ...(line.grams === null ? {} : { grams: line.grams }),
    ...(line.unit ? { unit: line.unit } : {}),
    ...(line.filling ? { filling: line.filling } : {}),
    ...(line.preparation ? { note: line.preparation.slice(0, 500) } : {}),
    ...(line.component === undefined ? {} : { component: line.component }),
    ...(isLeftOpen(line) ? { off: true } : {}),
    ...(question ? { unsure: question.message.slice(0, 300) } : {}),
    source: line.source.trim().slice(0, 500),
  };
}

/** A formula keeps no longer bake than this; a longer time was no time of a bake. */
const longestMin = 10_000;

/** What the recipe says of its bake, as far as it does. */
function saidIn(reading: Reading, vessel: Vessel, batterG: number): Said | null {
  const { minutes, oven, coreC, stages, pan } = reading;
  const { pieces, pieceG } = reading.yield ?? {};
  if (minutes === undefined && oven === undefined && coreC === undefined && pieces === undefined && pan === undefined) return null;
  return {
    ...(minutes && minutes.high <= longestMin ? { minutes } : {}),
    ...(oven ? { celsius: clampOven(oven.celsius), ...(oven.mode ? { mode: oven.mode } : {}) } : {}),
    ...(coreC === undefined ? {} : { coreC }),
    ...(pieces === undefined ? {} : { pieces }),
    ...(pieceG === undefined ? {} : { pieceG }),
    ...(stages && stages.length > 1 ? { stages: stages.slice(0, 12) } : {}),
    vessel,
    panNamed: pan !== undefined,
    batterG,
  };
}

/**
 * A formula from a reading: every ingredient in its place and component, open where it is not answered, what the text says of pan, oven, time
 * and kind, and with `pasted` the text itself. Steps and remarks go into the notes.
 */
export function formulaFrom(
  reading: Reading,
  measures: Measures,
  kind?: Kind,
  shelf: Shelf = builtInShelf,
  pasted?: Pasted,
): Formula {
  const title = reading.title ?? "Untitled formula";
  const chosen = kind ?? kindSchema.safeParse(reading.kind).data ?? "loaf";
  const steps = reading.lines.filter((line) => line.role === "step" || line.role === "note");
  const defaults = defaultsOf(chosen);
  const oven: Oven = reading.oven
    ? {
        ...defaults.oven,
        ...(reading.oven.mode ? { mode: reading.oven.mode } : {}),
        ...(reading.oven.dial ? { dial: reading.oven.dial } : {}),
        celsius: clampOven(reading.oven.celsius),
      }
    : reading.pan?.shape === "griddle"
      ? // Nobody puts a griddle into an oven that no text names.
        defaultsOf("pourable-batter").oven
      : defaults.oven;
  const read = reading.lines
    .filter((line) => line.role === "ingredient")
    .slice(0, 200)
    .map((line, index) => lineFrom(reading, line, index, shelf));
  const used = new Set(read.map(({ component }) => component));
  const components = (reading.components ?? [])
    .filter(({ id }) => used.has(id))
    .slice(0, 24)
    .map(({ id, name, role, place }): FormulaComponent => ({
      id,
      name: capital(name.trim().slice(0, 80)),
      role,
      ...(place ? { place } : {}),
    }));
  // A formula keeps this many components; what stood in a later one is kept in the last.
  const last = components.at(-1)?.id;
  const lines = read.map((line) =>
    line.component === undefined || last === undefined || components.some(({ id }) => id === line.component)
      ? line
      : { ...line, component: last },
  );
  const vessel = vesselFrom(reading, chosen);
  const { batter } = sortLines(lines, components, shelf);
  const batterG = batter.reduce((g, { grams }) => g + (typeof grams === "number" ? grams : grams.mid), 0);
  const said = saidIn(reading, vessel, batterG);
  const stages = stagesFromText(reading.stages ?? []);
  const named = namedBeside(reading, shelf);
  const written = writtenFrom(reading, lines, components, shelf);
  return {
    shape: 2,
    title: title.slice(0, 160),
    kind: chosen,
    measures,
    ...(components.length > 0 ? { components } : {}),
    lines,
    vessel,
    oven,
    process: {
      ...defaults.process,
      ...processFrom(reading),
      ...(stages ? { stages } : {}),
      ...(written.length > 0 ? { written } : {}),
    },
    notes: steps
      .map((line) => line.source.trim())
      .join("\n")
      .slice(0, 20_000),
    ...(said ? { said } : {}),
    ...(named.length > 0 ? { named } : {}),
    ...(pasted ? { pasted } : {}),
  };
}

const clampOven = (celsius: number): number => Math.min(320, Math.max(60, celsius));

/** A formula to begin from: the typical batter of a kind, with the flours given in equal parts where there are any. */
export function beginKind(
  kind: Kind,
  measures: Measures,
  batchG: number,
  flourIds: readonly string[] = [],
  shelf: Shelf = builtInShelf,
): Formula {
  const defaults = defaultsOf(kind);
  const lines = typicalLines(kind, batchG).flatMap(({ ingredientId, grams }) =>
    ingredientId === "gf-blend-plain" && flourIds.length > 0
      ? flourIds.map((id) => ({ ingredientId: ingredientOf(shelf, id).id, grams: grams / flourIds.length }))
      : [{ ingredientId, grams }],
  );
  return {
    shape: 2,
    title: `New ${kind.replace("-", " ")}`,
    kind,
    measures,
    lines: lines.map(({ ingredientId, grams }, index) => ({
      id: `l${index + 1}`,
      ingredientId,
      grams: scaled({ low: 1, mid: 1, high: 1 }, Math.round(grams * 10) / 10),
    })),
    vessel: vesselOf(profileOf(kind).vesselId)?.vessel ?? defaults.vessel,
    oven: defaults.oven,
    process: defaults.process,
    notes: "",
  };
}

/** What a request sends as text, lines or a batch, as lines with all that the text said beside them. */
export function inputFrom(request: AnalyseInput & { text?: string | undefined }, shelf: Shelf = builtInShelf): Opened {
  const { text, ...input } = request;
  if (input.lines && input.lines.length > 0) return { ...input, lines: input.lines };
  if (text === undefined) return { ...input, lines: typicalLines(input.kind ?? "loaf", input.batchG ?? 0) };
  const measures = input.measures ?? "us";
  const formula = formulaFrom(readRecipe(text, measures, undefined, shelf), measures, input.kind);
  return {
    ...input,
    lines: formula.lines,
    components: formula.components,
    said: formula.said,
    title: formula.title,
    named: formula.named,
    kind: input.kind ?? formula.kind,
    vessel: input.vessel ?? formula.vessel,
    oven: input.oven ?? formula.oven,
    process: input.process ?? formula.process,
  };
}

/** `analyse` of a pasted text: what cannot be weighed is left out of the numbers, a false pair of temperatures becomes a finding. */
export function analyseText(text: string, input: Omit<AnalyseInput, "lines">, shelf: Shelf = builtInShelf): Analysis {
  const reading = readRecipe(text, input.measures ?? "us", undefined, shelf);
  const analysis = analyse(inputFrom({ ...input, text }, shelf), shelf);
  const pairs = reading.questions.filter((question) => question.kind === "temperatures-disagree");
  const findings: Finding[] = pairs.map((question) => ({
    id: "temperature-mismatch",
    severity: "caution",
    message: question.message,
    why: "The two temperatures in the text are more than 8 °C apart, so one of them is a slip; the first is used here.",
    fix: `Say which one: ${question.choices.map((choice) => choice.label).join(" or ")}.`,
    ingredientIds: [],
  }));
  return { ...analysis, findings: [...findings, ...analysis.findings] };
}
