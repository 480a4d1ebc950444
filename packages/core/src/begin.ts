import { analyse, type Analysis, type AnalyseInput, defaultsOf } from "./analyse";
import type { Finding } from "./balance/finding";
import { profileOf, typicalLines } from "./balance/bands";
import type { Formula, FormulaLine } from "./formula/formula";
import { type Kind, kindFromWords } from "./formula/kinds";
import type { WeighedLine } from "./formula/resolve";
import type { Line, Question, Reading } from "./measure/reading";
import { readLine } from "./measure/line";
import { mainAmount } from "./measure/reader";
import type { Measures } from "./measure/units";
import { weigh } from "./measure/weigh";
import { builtInShelf, ingredientOf, type Shelf } from "./pantry/catalogue";
import { scaled } from "./measure/range";
import { type Oven, type Vessel, vesselLibrary, vesselOf } from "./pantry/vessel";
import { readRecipe } from "./read";

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
      state: open ? "asked" : "read",
    };
  });
  const oven = choice.celsius === undefined ? reading.oven : { ...reading.oven, celsius: choice.celsius };
  return { ...reading, lines, questions, ...(oven ? { oven } : {}) };
}

/** What the baker said of lines by hand: which ingredient a text means, or what it weighs. Keyed by the line's own text. */
export type Mending = Record<string, { ingredientId?: string; grams?: number; choice?: Record<string, number> }>;

/**
 * A reading with everything the baker said of it by hand: an ingredient for a line that could not be read is weighed as the text
 * says, a mass replaces any other, a choice answers its question. What no longer applies is ignored.
 */
export function mended(reading: Reading, mending: Mending, measures: Measures, shelf: Shelf = builtInShelf): Reading {
  let result = reading;
  reading.questions.forEach((question) => {
    const source = reading.lines[question.line]?.source ?? "";
    const choice = question.choices[mending[source]?.choice?.[question.kind] ?? -1];
    if (choice) result = answered(result, question, choice);
  });
  const questions = new Set(result.questions);
  const lines = result.lines.map((line, index): Line => {
    const said = mending[line.source];
    const ingredient = said?.ingredientId === undefined ? undefined : shelf.get(said.ingredientId);
    if (!said || (!ingredient && said.grams === undefined)) return line;
    const open = result.questions.filter((q) => q.line === index && !(said.grams !== undefined && q.kind !== "which-ingredient"));
    for (const q of result.questions) if (q.line === index && !open.includes(q)) questions.delete(q);
    const amount = mainAmount(readLine(line.source).amounts);
    const weighed = ingredient && amount ? weigh(amount, ingredient, measures) : line.grams;
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

/** The vessel a reading names, filled up from the library where the text gives no measures. */
function vesselFrom(reading: Reading, kind: Kind): Vessel {
  const { pan } = reading;
  const usual = defaultsOf(kind).vessel;
  if (!pan) return usual;
  const like = vesselLibrary.find((entry) => entry.vessel.shape === pan.shape)?.vessel;
  return { ...(usual.shape === pan.shape ? usual : like), ...pan };
}

export interface Begun {
  formula: Formula;
  /** Lines that carry no ingredient or no mass and so stand outside the formula; they go into its notes. */
  left: Line[];
}

/** A formula from a reading: its weighed lines, and what else the text said of pan, oven and kind. The rest goes into the notes. */
export function formulaFrom(reading: Reading, measures: Measures, kind?: Kind): Begun {
  const title = reading.title ?? "Untitled formula";
  const text = reading.lines.map((line) => line.source).join(" ");
  const chosen = kind ?? kindFromWords(title) ?? kindFromPan(reading) ?? kindFromWords(text) ?? "loaf";
  const weighed = reading.lines.filter((line) => line.role === "ingredient" && line.ingredientId !== null && line.grams !== null);
  const left = reading.lines.filter((line) => line.role === "ingredient" && !weighed.includes(line));
  const steps = reading.lines.filter((line) => line.role === "step" || line.role === "note");
  const defaults = defaultsOf(chosen);
  const oven: Oven = reading.oven
    ? { ...defaults.oven, ...(reading.oven.mode ? { mode: reading.oven.mode } : {}), celsius: clampOven(reading.oven.celsius) }
    : defaults.oven;
  const lines = weighed.map((line, index): FormulaLine => ({
    id: `l${index + 1}`,
    ingredientId: line.ingredientId ?? "",
    grams: line.grams ?? { low: 0, mid: 0, high: 0 },
    ...(line.unit ? { unit: line.unit } : {}),
    ...(line.filling ? { filling: line.filling } : {}),
    ...(line.preparation ? { note: line.preparation.slice(0, 500) } : {}),
  }));
  const notes = [...left.map((line) => `Not weighed: ${line.source.trim()}`), ...steps.map((line) => line.source.trim())]
    .join("\n")
    .slice(0, 20_000);
  const formula: Formula = {
    shape: 1,
    title: title.slice(0, 160),
    kind: chosen,
    measures,
    lines: lines.slice(0, 200),
    vessel: vesselFrom(reading, chosen),
    oven,
    process: defaults.process,
    notes,
  };
  return { formula, left };
}

const clampOven = (celsius: number): number => Math.min(320, Math.max(60, celsius));

function kindFromPan(reading: Reading): Kind | null {
  const shape = reading.pan?.shape;
  if (shape === "muffin") return "muffin";
  return shape === "griddle" ? "pourable-batter" : null;
}

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
    shape: 1,
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
export function inputFrom(
  request: AnalyseInput & { text?: string | undefined },
  shelf: Shelf = builtInShelf,
): AnalyseInput & { lines: readonly WeighedLine[] } {
  const { text, ...input } = request;
  if (input.lines && input.lines.length > 0) return { ...input, lines: input.lines };
  if (text === undefined) return { ...input, lines: typicalLines(input.kind ?? "loaf", input.batchG ?? 0) };
  const measures = input.measures ?? "us";
  const { formula } = formulaFrom(readRecipe(text, measures, undefined, shelf), measures, input.kind);
  return {
    ...input,
    lines: formula.lines,
    kind: input.kind ?? formula.kind,
    vessel: input.vessel ?? formula.vessel,
    oven: input.oven ?? formula.oven,
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
