import { isOwnStep } from "../formula/step-change";
import type { StepChange } from "../formula/step-change-schema";
import type { Range } from "../measure/range-schema";
import type { StepKind } from "./work-step";
import type { WorkStep } from "./work-step-schema";

/** What cannot be left out or timed by hand: without it there is no bake, or the simulation gives its minutes. */
const ESSENTIAL: ReadonlySet<StepKind> = new Set<StepKind>(["combine", "portion", "bake", "change", "out"]);
const TIMED_BY_BAKE: ReadonlySet<StepKind> = new Set<StepKind>(["bake", "change", "look", "turn", "out"]);

/** A step may be left out where nothing is weighed for it and the bake does not hang on it. */
export const mayLeaveOut = ({ kind, lines }: Pick<WorkStep, "kind" | "lines">): boolean =>
  !ESSENTIAL.has(kind) && lines.length === 0;
/** A step's minutes may be said by hand where the simulated bake does not give them. */
export const mayTime = ({ kind, at }: Pick<WorkStep, "kind" | "at">): boolean => at === undefined && !TIMED_BY_BAKE.has(kind);

const exactly = (minutes: number): Range => ({ low: minutes, mid: minutes, high: minutes });

/** What waited for a step waits for what that step waited for. */
const without = (steps: readonly WorkStep[], gone: WorkStep): WorkStep[] =>
  steps
    .filter(({ id }) => id !== gone.id)
    .map((step) => ({
      ...step,
      after: [...new Set(step.after.flatMap((id) => (id === gone.id ? gone.after : [id])))],
      ...(step.within?.of === gone.id ? { within: undefined } : {}),
    }));

/** What waited for a step waits for the one that was put after it. Where the one before goes on beside the bake, nothing can follow it. */
function inserted(steps: readonly WorkStep[], change: Extract<StepChange, { own: string }>): WorkStep[] {
  const at = steps.findIndex(({ id }) => id === change.follows);
  const before = steps[at];
  if (!before || before.at !== undefined || steps.some(({ id }) => id === change.own)) return [...steps];
  const own: WorkStep = {
    id: change.own,
    kind: "own",
    words: change.words,
    minutes: exactly(change.minutes),
    needs: change.needs,
    after: [before.id],
    ...(before.ahead === true ? { ahead: true } : {}),
    lines: [],
  };
  const held = (step: WorkStep): WorkStep =>
    step.after.includes(before.id) ? { ...step, after: step.after.map((id) => (id === before.id ? own.id : id)) } : step;
  return [...steps.slice(0, at + 1), own, ...steps.slice(at + 1).map(held)];
}

/**
 * The derived steps with what the baker changed of them. A change of a step that is not derived any more changes nothing, and comes back with it;
 * everything stays weighed, no step waits for itself.
 */
export function withOwnSteps(derived: readonly WorkStep[], changes: readonly StepChange[] = []): WorkStep[] {
  let steps = [...derived];
  for (const change of changes) {
    if (isOwnStep(change)) {
      steps = inserted(steps, change);
      continue;
    }
    const step = steps.find(({ id }) => id === change.step);
    if (!step) continue;
    if (change.off === true && mayLeaveOut(step)) {
      steps = without(steps, step);
      continue;
    }
    const said: WorkStep = {
      ...step,
      ...(change.words === undefined ? {} : { words: change.words }),
      ...(change.minutes === undefined || !mayTime(step) ? {} : { minutes: exactly(change.minutes) }),
    };
    steps = steps.map((one) => (one === step ? said : one));
  }
  return steps;
}
