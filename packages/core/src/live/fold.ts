import type { WorkStep } from "../plan/work-step-schema";
import { inOrderOfTime } from "./events";
import type { BakeEvent, BakeRecord, Slip } from "./events-schema";

export const bakePhases = ["ready", "making", "baking", "cooling", "judged"] as const;

/** One amount that is weighed at the counter. */
export interface ToWeigh {
  /** `<stepId>:<ingredientId>` */
  id: string;
  stepId: string;
  ingredientId: string;
  grams: number;
}

/** What went into the bowl by ingredient, g: as it was weighed, else as it was to be. */
export function wentIn(
  record: Pick<BakeRecord, "steps">,
  { weighed, lines }: Pick<BakeState, "weighed" | "lines">,
): Map<string, number> {
  const out = new Map<string, number>();
  for (const { id, ingredientId, grams } of toWeigh(record, lines))
    out.set(ingredientId, (out.get(ingredientId) ?? 0) + (weighed[id]?.grams ?? grams));
  return out;
}

export interface BakeState {
  phase: (typeof bakePhases)[number];
  startedAt: string | null;
  weighed: Record<string, { grams: number; by: string; at: string }>;
  /** When each step was begun and done; ISO 8601. */
  begun: Record<string, string>;
  done: Record<string, string>;
  inOvenAt: string | null;
  outAt: string | null;
  /** The sign by which it was taken out. */
  outBy: string | null;
  cutAt: string | null;
  probe: { at: string; minutes: number; celsius: number }[];
  ovenC: { at: string; celsius: number }[];
  opened: { at: string; seconds: number }[];
  lookedAt: string[];
  turnedAt: string | null;
  measured: { what: string; value: number; at: string }[];
  slips: { at: string; slip: Slip; words: string }[];
  remedies: { at: string; remedyId: string; words: string }[];
  /** What is really in the bowl where a remedy changed what is to be weighed, by ingredient. */
  lines: { ingredientId: string; grams: number }[] | null;
  notes: { at: string; text: string }[];
  /** What was taken off packets of the store, g. */
  used: { packetId: string; name: string; grams: number }[];
  /** Hashes of photographs. */
  photos: string[];
  judged: { at: string; scores: Record<string, number>; scales: Record<string, number>; notes?: string | undefined } | null;
}

/** Everything that is weighed, in the order of the steps; after a remedy, as that has it. */
export function toWeigh({ steps }: Pick<BakeRecord, "steps">, lines: BakeState["lines"]): ToWeigh[] {
  const whole = new Map<string, number>();
  for (const step of steps)
    for (const { ingredientId, grams } of step.lines) whole.set(ingredientId, (whole.get(ingredientId) ?? 0) + grams);
  const wanted = lines ? new Map(lines.map(({ ingredientId, grams }) => [ingredientId, grams])) : whole;
  const out = steps.flatMap((step) =>
    step.lines.map(({ ingredientId, grams }): ToWeigh => {
      const share = grams / Math.max(1e-9, whole.get(ingredientId) ?? grams);
      return { id: `${step.id}:${ingredientId}`, stepId: step.id, ingredientId, grams: share * (wanted.get(ingredientId) ?? 0) };
    }),
  );
  // What a remedy adds that was in no step goes in with what is stirred last.
  const combine = steps.find(({ kind }) => kind === "combine")?.id ?? steps[0]?.id ?? "combine";
  for (const [ingredientId, grams] of wanted)
    if (!whole.has(ingredientId)) out.push({ id: `${combine}:${ingredientId}`, stepId: combine, ingredientId, grams });
  return out.filter(({ grams }) => grams > 0.005);
}

const empty = (): BakeState => ({
  phase: "ready",
  startedAt: null,
  weighed: {},
  begun: {},
  done: {},
  inOvenAt: null,
  outAt: null,
  outBy: null,
  cutAt: null,
  probe: [],
  ovenC: [],
  opened: [],
  lookedAt: [],
  turnedAt: null,
  measured: [],
  slips: [],
  remedies: [],
  lines: null,
  notes: [],
  used: [],
  photos: [],
  judged: null,
});

/** The state of a bake from everything that happened, in the order of time; an event that is there twice counts once. Pure. */
export function foldBake({ steps }: Pick<BakeRecord, "steps">, events: readonly BakeEvent[]): BakeState {
  const state = empty();
  const seen = new Set<string>();
  const bakeId = steps.find(({ kind }) => kind === "bake")?.id;
  const outId = steps.find(({ kind }) => kind === "out")?.id;
  const minutesIn = (at: string): number => (state.inOvenAt === null ? 0 : (Date.parse(at) - Date.parse(state.inOvenAt)) / 60_000);
  const leave = (at: string): void => {
    state.outAt ??= at;
    if (bakeId) state.done[bakeId] ??= at;
    if (outId) state.done[outId] ??= at;
  };
  for (const event of [...events].sort(inOrderOfTime)) {
    if (seen.has(event.id)) continue;
    seen.add(event.id);
    if (event.kind !== "note") state.startedAt ??= event.at;
    switch (event.kind) {
      case "started":
        break;
      case "weighed":
        state.weighed[event.lineId] = { grams: event.grams, by: event.by, at: event.at };
        break;
      case "step":
        if (event.done) {
          state.begun[event.stepId] ??= event.at;
          state.done[event.stepId] = event.at;
          if (event.stepId === outId || event.stepId === bakeId) leave(event.at);
        } else {
          state.begun[event.stepId] ??= event.at;
          if (event.stepId === bakeId) state.inOvenAt ??= event.at;
        }
        break;
      case "slip":
        state.slips.push({ at: event.at, slip: event.slip, words: event.words });
        break;
      case "remedy":
        state.remedies.push({ at: event.at, remedyId: event.remedyId, words: event.words });
        if (event.lines) state.lines = event.lines;
        break;
      case "measured":
        state.measured.push({ what: event.what, value: event.value, at: event.at });
        break;
      case "oven":
        state.ovenC.push({ at: event.at, celsius: event.celsius });
        break;
      case "probe":
        if (state.inOvenAt !== null && state.outAt === null)
          state.probe.push({ at: event.at, minutes: minutesIn(event.at), celsius: event.celsius });
        break;
      case "opened":
        state.opened.push({ at: event.at, seconds: event.seconds });
        break;
      case "looked":
        state.lookedAt.push(event.at);
        break;
      case "turned":
        state.turnedAt = event.at;
        break;
      case "out":
        leave(event.at);
        state.outBy ??= event.by ?? null;
        break;
      case "used":
        state.used = event.packets;
        break;
      case "cut":
        state.cutAt ??= event.at;
        break;
      case "note":
        state.notes.push({ at: event.at, text: event.text });
        break;
      case "photo":
        state.photos = [...state.photos.filter((hash) => hash !== event.hash), ...(event.off === true ? [] : [event.hash])];
        break;
      case "judged":
        state.judged = {
          at: event.at,
          scores: event.scores,
          scales: event.scales ?? {},
          ...(event.notes === undefined ? {} : { notes: event.notes }),
        };
        break;
    }
  }
  state.phase = state.judged
    ? "judged"
    : state.outAt
      ? "cooling"
      : state.inOvenAt
        ? "baking"
        : state.startedAt
          ? "making"
          : "ready";
  return state;
}

/** Something that runs by itself: until when, ms. */
export interface Running {
  step: WorkStep;
  since: number;
  until: number;
}

/** What runs by itself now, what the hands do next, and what comes after it. Steps beside the bake come up at their minute. */
export function counterOf(
  { steps, expected }: Pick<BakeRecord, "steps" | "expected">,
  state: BakeState,
  now: number,
): { running: Running[]; current: WorkStep | null; next: WorkStep | null; due: WorkStep[] } {
  const isDone = (id: string): boolean => state.done[id] !== undefined;
  const running: Running[] = [];
  const due: WorkStep[] = [];
  const open: WorkStep[] = [];
  for (const step of steps) {
    if (isDone(step.id)) continue;
    const begunAt = state.begun[step.id];
    const byItself = step.needs === "nothing" || step.needs === "oven";
    if (step.at !== undefined) {
      if (state.inOvenAt !== null && state.outAt === null && now >= Date.parse(state.inOvenAt) + step.at * 60_000) due.push(step);
      continue;
    }
    if (begunAt !== undefined && byItself) {
      const minutes = step.kind === "bake" ? expected.minutes.mid : step.minutes.mid;
      running.push({ step, since: Date.parse(begunAt), until: Date.parse(begunAt) + minutes * 60_000 });
      continue;
    }
    open.push(step);
  }
  const waitsFor = (step: WorkStep): boolean => step.after.some((id) => !isDone(id) && steps.some((one) => one.id === id));
  const can = open.filter((step) => !waitsFor(step));
  return { running, due, current: can[0] ?? null, next: can[1] ?? open.find((step) => step !== can[0]) ?? null };
}
