import type { Run } from "./run";
import { vapourEnthalpy, WATER_CAPACITY } from "./steam-tables";

/** Up to here, as a share of what boiling leaves, water is bound. */
const BOUND = 1.02;

/**
 * What boiling leaves is bound in the grains of a crust and comes out of them by diffusion, dw/dt = −w/τ, as long as it is hotter than water boils. It leaves
 * with the enthalpy of vapour.
 */
export function desorb({ section, model, boilingC, account }: Run, dt: number): void {
  const { cells, dry, water, enthalpy, celsius, perDry } = section;
  const share = 1 - Math.exp(-dt / model.desorptionS);
  for (let cell = 0; cell < cells; cell++) {
    const t = celsius[cell]!;
    if (t <= boilingC) continue;
    const w = water[cell]!;
    if (w > BOUND * model.boundShare * dry[cell]! * perDry.water[cell]!) continue;
    const gone = share * w;
    const joules = gone * vapourEnthalpy(t);
    water[cell] = w - gone;
    enthalpy[cell]! -= joules;
    celsius[cell] = enthalpy[cell]! / (dry[cell]! * perDry.capacity[cell]! + water[cell]! * WATER_CAPACITY);
    account.vapourOutKg += gone;
    account.vapourOutJ += joules;
  }
}
