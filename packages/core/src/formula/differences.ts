import { stageText } from "./stage-words";
import { gramsText } from "../measure/amounts";
import type { Range } from "../measure/range-schema";
import { fieldWords } from "./edit-words";
import type { FormulaComponent } from "./components-schema";
import type { Formula, FormulaLine, Part } from "./formula";
import { kindName } from "./kinds";
import { isOwnStep } from "./step-change";
import type { StepChange } from "./step-change-schema";

export interface Difference {
  /** Unique within one comparison. */
  what: string;
  before: string;
  after: string;
}

const NONE = "–";
const LONGEST = 80;

const rangeText = (grams: Range | undefined): string => (grams ? spreadText(grams) : "open");

const spreadText = ({ low, mid, high }: Range): string =>
  high - low > 0.02 * mid ? `${gramsText(mid)} (${gramsText(low)} to ${gramsText(high)})` : gramsText(mid);

const short = (text: string): string => (text.length > LONGEST ? `${text.slice(0, LONGEST - 1)}…` : text === "" ? NONE : text);

const fieldText = (value: unknown): string =>
  value === undefined
    ? NONE
    : typeof value === "boolean"
      ? value
        ? "yes"
        : "no"
      : typeof value === "number"
        ? String(Math.round(value * 100) / 100)
        : String(value);

/** Every field of two flat objects that differs. */
function fieldsOf(prefix: string, before: object, after: object): Difference[] {
  const a = before as Record<string, unknown>;
  const b = after as Record<string, unknown>;
  return [...new Set([...Object.keys(a), ...Object.keys(b)])]
    .filter((key) => a[key] !== b[key])
    .map((key) => ({ what: `${prefix}: ${fieldWords[key] ?? key}`, before: fieldText(a[key]), after: fieldText(b[key]) }));
}

/** Lines matched by their id first, then by their ingredient, so that a line begun anew is not called another one. */
function pairsOf(
  before: readonly FormulaLine[],
  after: readonly FormulaLine[],
): [FormulaLine | undefined, FormulaLine | undefined][] {
  const left = new Set(before);
  const take = (find: (line: FormulaLine) => boolean): FormulaLine | undefined => {
    const found = [...left].find(find);
    if (found) left.delete(found);
    return found;
  };
  const byId = new Map(after.map((line) => [line, take((old) => old.id === line.id && old.ingredientId === line.ingredientId)]));
  const pairs = after.map((line): [FormulaLine | undefined, FormulaLine | undefined] => [
    byId.get(line) ?? take((old) => old.ingredientId === line.ingredientId),
    line,
  ]);
  return [...pairs, ...[...left].map((line): [FormulaLine, undefined] => [line, undefined])];
}

/** What a line is called: by the pantry, or by the recipe where the pantry does not know it. */
const wordOf = (line: FormulaLine, nameOf: (id: string) => string): string =>
  line.ingredientId === undefined ? (line.name ?? "a line") : nameOf(line.ingredientId);

function linesOf(
  prefix: string,
  before: readonly FormulaLine[],
  after: readonly FormulaLine[],
  nameOf: (id: string) => string,
): Difference[] {
  const pairs = pairsOf(before, after);
  const counts = new Map<string, number>();
  for (const [a, b] of pairs) {
    const line = b ?? a;
    const id = line ? wordOf(line, nameOf) : "";
    counts.set(id, (counts.get(id) ?? 0) + 1);
  }
  const seen = new Map<string, number>();
  return pairs.flatMap(([a, b]): Difference[] => {
    const line = b ?? a;
    if (!line) return [];
    const word = wordOf(line, nameOf);
    const nth = (seen.get(word) ?? 0) + 1;
    seen.set(word, nth);
    const several = (counts.get(word) ?? 1) > 1;
    const name = `${prefix}${word}${several ? ` (${nth})` : ""}`;
    if (!a || !b) return [{ what: name, before: a ? rangeText(a.grams) : NONE, after: b ? rangeText(b.grams) : NONE }];
    const out: Difference[] = [];
    const say = (what: string, old: string, now: string): void => void (old !== now && out.push({ what, before: old, after: now }));
    const same = a.grams?.low === b.grams?.low && a.grams?.mid === b.grams?.mid && a.grams?.high === b.grams?.high;
    if (!same) {
      const [old, now] = [rangeText(a.grams), rangeText(b.grams)];
      const exact = (grams: Range | undefined): string => `${grams?.mid.toPrecision(6)} g`;
      out.push({ what: name, before: old === now ? exact(a.grams) : old, after: old === now ? exact(b.grams) : now });
    }
    say(`${name}, measured by`, `${a.unit ?? "g"} ${a.filling ?? ""}`.trim(), `${b.unit ?? "g"} ${b.filling ?? ""}`.trim());
    say(`${name}, called`, a.name ?? NONE, b.name ?? NONE);
    say(`${name}, note`, short(a.note ?? ""), short(b.note ?? ""));
    say(`${name}, component`, a.component ?? "batter", b.component ?? "batter");
    say(`${name}, left out`, a.off ? "yes" : "no", b.off ? "yes" : "no");
    say(`${name}, unsure`, short(a.unsure ?? ""), short(b.unsure ?? ""));
    say(`${name}, in the recipe`, short(a.source ?? ""), short(b.source ?? ""));
    say(`${name}, locked`, a.locked ? "yes" : "no", b.locked ? "yes" : "no");
    return out;
  });
}

function orderOf(before: Formula, after: Formula, nameOf: (id: string) => string): Difference[] {
  const both = new Set(before.lines.map((line) => line.id).filter((id) => after.lines.some((line) => line.id === id)));
  const order = (formula: Formula): FormulaLine[] => formula.lines.filter((line) => both.has(line.id));
  const [a, b] = [order(before), order(after)];
  const first = a.findIndex((line, index) => line.id !== b[index]?.id);
  if (first < 0) return [];
  const from = (lines: FormulaLine[]): string =>
    short(
      lines
        .slice(first, first + 3)
        .map((line) => wordOf(line, nameOf))
        .join(", "),
    );
  return [{ what: "Order of lines", before: from(a), after: from(b) }];
}

function partsOf(before: readonly Part[], after: readonly Part[], nameOf: (id: string) => string): Difference[] {
  const ids = [...new Set([...after, ...before].map((part) => part.id))];
  return ids.flatMap((id): Difference[] => {
    const a = before.find((part) => part.id === id);
    const b = after.find((part) => part.id === id);
    const share = (part: Part | undefined): string => (part ? `${Math.round(100 * part.share)} %` : NONE);
    const name = `Part “${(b ?? a)?.name ?? id}”`;
    if (!a || !b) return [{ what: name, before: share(a), after: share(b) }];
    const flat = ({ additions: _a, vessel: _v, oven: _o, id: _i, components, ...rest }: Part): object => ({
      ...rest,
      ...(components ? { components: components.join(", ") } : {}),
    });
    return [
      ...fieldsOf(name, flat(a), flat(b)),
      ...fieldsOf(`${name}, pan`, a.vessel, b.vessel),
      ...fieldsOf(`${name}, oven`, a.oven, b.oven),
      ...linesOf(`${name}: `, a.additions, b.additions, nameOf),
    ];
  });
}

function componentsOf(before: readonly FormulaComponent[], after: readonly FormulaComponent[]): Difference[] {
  const ids = [...new Set([...after, ...before].map(({ id }) => id))];
  const out = ids.flatMap((id): Difference[] => {
    const a = before.find((component) => component.id === id);
    const b = after.find((component) => component.id === id);
    const name = `Component “${(b ?? a)?.name ?? id}”`;
    if (!a || !b) return [{ what: name, before: a ? a.role : NONE, after: b ? b.role : NONE }];
    return fieldsOf(name, a, b);
  });
  const order = (list: readonly FormulaComponent[], other: readonly FormulaComponent[]): string =>
    list.flatMap(({ id, name }) => (other.some((one) => one.id === id) ? [`${name} (${id})`] : [])).join(", ");
  const ids1 = order(before, after).replace(/[^,(]*\(/g, "");
  if (ids1 !== order(after, before).replace(/[^,(]*\(/g, ""))
    out.push({ what: "Order of components", before: short(order(before, after)), after: short(order(after, before)) });
  return out;
}

const stepChangeText = (change: StepChange): string =>
  isOwnStep(change)
    ? `${change.words}, ${change.minutes} min, after ${change.follows}`
    : change.off
      ? `without ${change.step}`
      : [change.step, change.words, change.minutes === undefined ? undefined : `${change.minutes} min`].filter(Boolean).join(", ");

const flatProcess = ({ process: { stages, steps, written, ...rest }, oven }: Formula): object => ({
  ...rest,
  ...(steps && steps.length > 0 ? { steps: steps.map(stepChangeText).join("; ") } : {}),
  ...(written && written.length > 0 ? { written: written.map(({ words }) => words).join("; ") } : {}),
  ...(stages
    ? { stages: stages.map((stage) => stageText(stage, { mode: oven.mode ?? "still", celsius: oven.celsius })).join("; ") }
    : {}),
});

/** What the recipe said, and its text: any difference is one. */
function recipeOf(before: Formula, after: Formula): Difference[] {
  const out: Difference[] = [];
  const flat = ({ vessel: _v, minutes, stages, ...rest }: NonNullable<Formula["said"]>): object => ({
    ...rest,
    minutes: minutes ? `${minutes.low} to ${minutes.high}` : undefined,
    stages: stages ? JSON.stringify(stages) : undefined,
  });
  const [a, b] = [before.said, after.said];
  if (a && b) out.push(...fieldsOf("The recipe", flat(a), flat(b)), ...fieldsOf("The recipe, pan", a.vessel, b.vessel));
  else if (a || b) out.push({ what: "What the recipe says", before: a ? "kept" : NONE, after: b ? "kept" : NONE });
  const [was, now] = [before.pasted, after.pasted];
  const say = (what: string, old: string, next: string): void =>
    void (old !== next && out.push({ what, before: old, after: next }));
  say("Text as pasted", was ? short(was.text) : NONE, now ? short(now.text) : NONE);
  if (was && now && was.text !== now.text && short(was.text) === short(now.text))
    out.push({ what: "Text as pasted", before: `${was.text.length} signs`, after: `${now.text.length} signs, changed` });
  if (was && now) say("Text read with cups", was.measures, now.measures);
  if (was && now && hashed(was.mending) !== hashed(now.mending))
    out.push({ what: "Answers to the text", before: answers(was), after: `${answers(now)}, changed` });
  return out;
}

const answers = (pasted: Formula["pasted"]): string => `${Object.keys(pasted?.mending ?? {}).length} lines`;

/** A text that is the same for the same content, whatever the order of its fields. */
const hashed = (value: unknown): string =>
  JSON.stringify(value, (_, part: unknown) =>
    part !== null && typeof part === "object" && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  ) ?? "";

/**
 * Everything in which one version of a formula differs from another: empty exactly when they are the same. Masses as texts in g; `nameOf`
 * gives an ingredient's name.
 */
export function differencesOf(before: Formula, after: Formula, nameOf: (ingredientId: string) => string): Difference[] {
  const out: Difference[] = [];
  const say = (what: string, a: string, b: string): void => void (a !== b && out.push({ what, before: a, after: b }));
  say("Name", before.title, after.title);
  say("Kind of bake", kindName[before.kind], kindName[after.kind]);
  say("Cups and spoons", before.measures, after.measures);
  out.push(...linesOf("", before.lines, after.lines, nameOf), ...orderOf(before, after, nameOf));
  out.push(...fieldsOf("Pan", before.vessel, after.vessel));
  out.push(...fieldsOf("Oven", before.oven, after.oven));
  out.push(...fieldsOf("Process", flatProcess(before), flatProcess(after)));
  out.push(...componentsOf(before.components ?? [], after.components ?? []));
  out.push(...partsOf(before.parts ?? [], after.parts ?? [], nameOf));
  out.push(...recipeOf(before, after));
  if (before.notes !== after.notes) {
    const [a, b] = [short(before.notes), short(after.notes)];
    out.push(
      a === b
        ? { what: "Notes", before: `${before.notes.length} signs`, after: `${after.notes.length} signs, changed` }
        : { what: "Notes", before: a, after: b },
    );
  }
  return out;
}
