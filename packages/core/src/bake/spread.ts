import { heapRadius } from "./heap";
import type { Run } from "./run";
import { volumeOf } from "./section";

/** Fat melts between these, °C. */
const MELTS = { from: 25, to: 50 };
const GRAVITY = 9.81;

/**
 * The share of the yield stress that warmth takes away as fat melts (C): fat that is rubbed in leaves pockets and the dough between them stands; creamed or
 * stirred in it is the dough.
 */
export const meltingShare = (fatShare: number, cutIn: boolean): number => (cutIn ? 0.3 : Math.min(0.9, 0.4 + 3 * fatShare));

/**
 * The rim of an unset piece flows outward towards the radius at which its heap comes to rest, the slower the stiffer it is, and less and less as
 * the rim sets: d ln R/dt = (1 − R/R_rest) · ρ g h/(c τ) · soft.
 */
export function flowOut(run: Run, dt: number): void {
  const { flow, section, model } = run;
  if (!flow) return;
  const { layers, columns, set, celsius, dry, shape, height } = section;
  let held = 0;
  let warm = 0;
  let mass = 0;
  for (let cell = (columns - 2) * layers; cell < columns * layers; cell++) {
    held += set[cell]! * dry[cell]!;
    warm += celsius[cell]! * dry[cell]!;
    mass += dry[cell]!;
  }
  const soft = 1 - held / mass / model.setShare;
  if (soft <= 0) {
    run.flow = null;
    return;
  }
  const melted = Math.min(1, Math.max(0, (warm / mass - MELTS.from) / (MELTS.to - MELTS.from)));
  const tau = flow.yieldPa * (1 - flow.melts * melted);
  const volume = volumeOf(section);
  const reach = shape.reach * Math.sqrt(run.flown);
  const rest = heapRadius(volume, tau, flow.density);
  if (rest <= reach) return;
  const rate = (soft * flow.density * GRAVITY * height[0]!) / (model.flowSeconds * tau);
  run.flown *= Math.exp(2 * Math.min(rate * dt, 0.5) * (1 - reach / rest));
}
