import type { BakeRecord } from "../live/events-schema";
import { type BakeState, toWeigh } from "../live/fold";
import type { Measured } from "./measured-schema";
import type { Trial } from "./trial";

const minutesBetween = (from: string | null | undefined, to: string | null | undefined): number | undefined =>
  from && to ? Math.max(0, Math.round((10 * (Date.parse(to) - Date.parse(from))) / 60_000) / 10) : undefined;

/** What went into the oven by the counter's scale, g: told only where everything before the oven was weighed. */
function massIn(record: BakeRecord, state: BakeState): number | undefined {
  const after = new Set(record.steps.filter(({ kind }) => kind === "glaze").map(({ id }) => id));
  const before = toWeigh(record, state.lines).filter(({ stepId }) => !after.has(stepId));
  const weighed = before.flatMap(({ id }) => state.weighed[id]?.grams ?? []);
  return before.length > 0 && weighed.length === before.length
    ? Math.round(weighed.reduce((sum, grams) => sum + grams, 0))
    : undefined;
}

/** A trial as the counter's record has it: everything that was measured on the way stands in it already, to be judged. `at` in ISO 8601. */
export function trialFromBake(record: BakeRecord, state: BakeState, bakeId: string, at: string): Trial {
  const last = (what: string): number | undefined => state.measured.filter((one) => one.what === what).at(-1)?.value;
  const { steps } = record;
  const idOf = (kind: string): string | undefined => steps.find((step) => step.kind === kind)?.id;
  const coolTin = idOf("cool-tin");
  const wetAt = state.done[idOf("combine") ?? ""];
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
    measured: Object.fromEntries(Object.entries(measured).filter(([, value]) => value !== undefined)) as Measured,
    seen: [],
    scores: {},
    slips: state.slips.map(({ slip }) => slip),
    notes: [...state.notes.map(({ text }) => text), state.judged?.notes ?? ""].filter((text) => text !== "").join("\n"),
    photos: [],
    tags: [],
  };
} // prettier-ignore
