import type { BakeRecord, Slip } from "../live/events-schema";
import { type BakeState, toWeigh } from "../live/fold";
import { scales } from "./scales";
import type { Measured } from "./measured-schema";
import type { Trial } from "./trial";

const minutesBetween = (from: string | null | undefined, to: string | null | undefined): number | undefined =>
  from && to ? Math.max(0, Math.round((10 * (Date.parse(to) - Date.parse(from))) / 60_000) / 10) : undefined;

/** What went into the oven by the counter's scale, g: told only where everything before the oven was weighed. */
function massIn(record: BakeRecord, state: BakeState): number | undefined {
  // What was weighed for several parts is not the mass of one.
  if (record.part) return undefined;
  const after = new Set(record.steps.filter(({ kind }) => kind === "glaze" || kind === "serve").map(({ id }) => id));
  const before = toWeigh(record, state.lines).filter(({ stepId }) => !after.has(stepId));
  const weighed = before.flatMap(({ id }) => state.weighed[id]?.grams ?? []);
  return before.length > 0 && weighed.length === before.length
    ? Math.round(weighed.reduce((sum, grams) => sum + grams, 0))
    : undefined;
}

/** Off by less than this, share and g, is what scales and hands do. */
const OFF = { share: 0.15, grams: 1 };

/** Grams of an ingredient in a formula. */
const inFormula = ({ lines }: BakeRecord["formula"], ingredientId: string): number =>
  lines.reduce((sum, line) => (line.ingredientId === ingredientId && line.off !== true ? sum + (line.grams?.mid ?? 0) : sum), 0);

/** What went in otherwise than the formula says: what was called a slip, what a remedy changed after it, and what the scale showed without a word. */
function slipsOf(record: BakeRecord, state: BakeState): Slip[] {
  const wanted = new Map<string, number>();
  for (const { ingredientId, grams } of toWeigh(record, null)) wanted.set(ingredientId, (wanted.get(ingredientId) ?? 0) + grams);
  const told = new Map<string, Slip>(state.slips.map(({ slip }) => [slip.ingredientId, slip]));
  // What went otherwise into a batter that was mixed for several parts went into each by its share.
  const share = (ingredientId: string): number => (record.part?.whole ? inFormula(record.formula, ingredientId) / Math.max(1e-9, inFormula(record.part.whole, ingredientId)) : 1);
  const amount = (ingredientId: string, grams: number): void => void told.set(ingredientId, { what: "amount", ingredientId, grams });
  const isOff = (grams: number, of: number): boolean => Math.abs(grams - of) > OFF.grams && Math.abs(grams - of) > OFF.share * of;
  for (const { ingredientId, grams } of state.lines ?? []) if (told.has(ingredientId) || isOff(grams, wanted.get(ingredientId) ?? 0)) amount(ingredientId, grams);
  const scale = new Map<string, { wanted: number; weighed: number; whole: boolean }>();
  for (const { id, ingredientId, grams } of toWeigh(record, state.lines)) {
    const sum = scale.get(ingredientId) ?? { wanted: 0, weighed: 0, whole: true };
    const weighed = state.weighed[id]?.grams;
    scale.set(ingredientId, { wanted: sum.wanted + grams, weighed: sum.weighed + (weighed ?? 0), whole: sum.whole && weighed !== undefined });
  }
  for (const [ingredientId, sum] of scale) if (sum.whole && isOff(sum.weighed, sum.wanted) && !told.has(ingredientId)) amount(ingredientId, sum.weighed);
  return [...told.values()].map((slip) => ("grams" in slip && slip.grams !== undefined && record.part?.whole ? { ...slip, grams: slip.grams * share(slip.ingredientId) } : slip));
} // prettier-ignore

/** The counter's answers on the scales of the log; what is on no scale is let go. */
const scoresFrom = (answers: Readonly<Record<string, number>> = {}): Trial["scores"] =>
  Object.fromEntries(
    scales.flatMap(({ id, steps }) => (answers[id] !== undefined && answers[id] < steps.length ? [[id, answers[id]]] : [])),
  );
/** Scores from 1 to 5 of an older counter, which no scale of the log has. */
const inWords = (scores: Readonly<Record<string, number>> = {}): string[] =>
  Object.entries(scores).length === 0
    ? []
    : [
        `At the counter, of 5: ${Object.entries(scores)
          .map(([name, n]) => `${name} ${n}`)
          .join(", ")}.`,
      ];

/** A trial as the counter's record has it: everything that was measured on the way stands in it already, to be judged. `at` in ISO 8601. */
export function trialFromBake(record: BakeRecord, state: BakeState, bakeId: string, at: string): Trial {
  const last = (what: string): number | undefined => state.measured.filter((one) => one.what === what).at(-1)?.value;
  const { steps } = record;
  const idOf = (kind: string): string | undefined => steps.find((step) => step.kind === kind)?.id;
  const coolTin = idOf("cool-tin");
  const wetAt = state.done[steps.find(({ kind }) => kind === "bake")?.within?.of ?? idOf("combine") ?? ""];
  const peak = state.probe.length > 0 ? Math.max(...state.probe.slice(-3).map(({ celsius }) => celsius)) : undefined;
  const measured: Measured = {
    massInG: massIn(record, state),
    massOutG: last("massOutG"),
    heightMm: last("heightMm"),
    coreC: peak === undefined ? undefined : Math.round(10 * peak) / 10,
    minutes: minutesBetween(state.inOvenAt, state.outAt) || undefined,
    crumbPh: last("ph"),
    batterDensityGPerMl: last("densityGPerMl"),
    batterC: last("batterC"),
    stoodMinutes: minutesBetween(wetAt, state.inOvenAt),
    inPanMinutes: coolTin === undefined ? undefined : minutesBetween(state.outAt, state.done[coolTin]),
    cutAfterMinutes: minutesBetween(state.outAt, state.cutAt),
    doorSeconds: state.opened.length > 0 ? Math.min(3600, state.opened.reduce((sum, { seconds }) => sum + seconds, 0)) : undefined,
  };
  return {
    title: record.title,
    ...(record.formulaId === undefined ? {} : { formulaId: record.formulaId }),
    ...(record.formulaVersion === undefined ? {} : { formulaVersion: record.formulaVersion }),
    bakeId,
    formula: record.formula,
    at: state.outAt ?? state.startedAt ?? at,
    ...(record.ovenId === undefined ? {} : { ovenId: record.ovenId }),
    ...(state.outBy === null || state.outBy === "signs" ? {} : { doneBy: state.outBy }),
    measured: Object.fromEntries(Object.entries(measured).filter(([, value]) => value !== undefined)) as Measured,
    seen: [],
    scores: scoresFrom(state.judged?.scales),
    slips: slipsOf(record, state),
    notes: [...state.notes.map(({ text }) => text), ...inWords(state.judged?.scores), state.judged?.notes ?? ""].filter((text) => text !== "").join("\n"),
    photos: state.photos.slice(0, 12),
    tags: [],
  };
} // prettier-ignore
