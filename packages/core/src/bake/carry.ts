import type { Bake, Fill } from "./bake";
import { scaled } from "../measure/range";

interface FillAndBake {
  fill: Fill;
  bake: Bake;
}

/** What the last simulation made of a first estimate: factors that carry over to the next estimate until it is simulated itself. */
export interface Carry {
  minutes: number;
  crown: number;
  loss: number;
}

const ratio = (a: number, b: number): number => (b > 0 && Number.isFinite(a / b) ? a / b : 1);

export const carryOf = (estimate: FillAndBake, simulated: FillAndBake): Carry => ({
  minutes: ratio(simulated.bake.minutes.mid, estimate.bake.minutes.mid),
  crown: ratio(simulated.fill.crownMm.mid, estimate.fill.crownMm.mid),
  loss: ratio(simulated.bake.lossPercent.mid, estimate.bake.lossPercent.mid),
});

/** An estimate as the last simulation corrects it, so that a drawing does not jump twice on one change. */
export function carried<T extends FillAndBake>(estimate: T, carry: Carry): T {
  const minutes = scaled(estimate.bake.minutes, carry.minutes);
  return {
    ...estimate,
    fill: { ...estimate.fill, crownMm: scaled(estimate.fill.crownMm, carry.crown) },
    bake: {
      ...estimate.bake,
      minutes,
      checkAtMinutes: Math.max(1, Math.floor(minutes.low)),
      lossPercent: scaled(estimate.bake.lossPercent, carry.loss),
    },
  };
}
