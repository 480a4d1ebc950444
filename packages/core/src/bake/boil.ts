import type { Run } from "./run";
import { latentHeat, vapourEnthalpy, WATER_CAPACITY } from "./steam-tables";

/** Copies of imported constants: in tests an import is a call, and these are read in every cell of every step. */
const CAPACITY = WATER_CAPACITY;

/**
 * Temperatures of `count` cells from their enthalpy. Below the boiling line T_b(w) = T_boil − d + d·w₀/w it is H/C; above it water leaves until the
 * rest stands on the line, down to the bound share; what is bound stays and the cell rises above boiling. The steam is noted, not lost.
 */
export function recover(run: Run, start: number, count: number, stride: number): void {
  const { section, boilingC, boilingSpread } = run;
  const { dry, water, enthalpy, celsius, perDry } = section;
  const surelyBelow = boilingC - boilingSpread;
  for (let k = 0, cell = start; k < count; k++, cell += stride) {
    const t = enthalpy[cell]! / (dry[cell]! * perDry.capacity[cell]! + CAPACITY * water[cell]!);
    celsius[cell] = t;
    if (t > surelyBelow) boil(run, cell, t);
  }
}

function boil(run: Run, cell: number, celsius: number): void {
  const { section, model, boilingC, boilingSpread } = run;
  const dry = section.dry[cell]!;
  const water = section.water[cell]!;
  const first = dry * section.perDry.water[cell]!;
  const bound = model.boundShare * first;
  if (water <= bound * 1.0000001) return;
  const dryCapacity = dry * section.perDry.capacity[cell]!;
  const enthalpy = section.enthalpy[cell]!;
  const base = boilingC - boilingSpread;
  const rise = boilingSpread * first;
  const line = base + rise / water;
  if (celsius <= line) return;
  // Newton on H − h_v·(w − x) = C(x)·T_b(x), x the water that stays.
  const vapour = vapourEnthalpy(line);
  const capacity = dryCapacity + CAPACITY * water;
  let x = Math.max(bound, water - (enthalpy - capacity * line) / (latentHeat(line) + (capacity * rise) / (water * water)));
  for (let k = 0; k < 2; k++) {
    const t = base + rise / x;
    const residual = (dryCapacity + CAPACITY * x) * t + vapour * (water - x) - enthalpy;
    const slope = CAPACITY * t - ((dryCapacity + CAPACITY * x) * rise) / (x * x) - vapour;
    x -= residual / slope;
    if (x < bound) {
      x = bound;
      break;
    }
  }
  if (x > water) x = water;
  const made = water - x;
  section.water[cell] = x;
  section.enthalpy[cell] = enthalpy - vapour * made;
  section.celsius[cell] = section.enthalpy[cell]! / (dryCapacity + CAPACITY * x);
  run.steam[cell]! += made;
  run.steamJ[cell]! += vapour * made;
}

/**
 * Steam rises in its column and condenses in the colder cells above, as much as brings each to its boiling line. A share of it finds a way
 * out where it is made, charged there only; what reaches the top leaves.
 */
export function riseOfSteam(run: Run): void {
  const { section, model, boilingC, boilingSpread, steam, steamJ, account } = run;
  const { layers, columns } = section;
  const base = boilingC - boilingSpread;
  for (let j = 0; j < columns; j++) {
    let rising = 0;
    let risingJ = 0;
    // At the wall it finds its way up between crumb and pan.
    const out = j === columns - 1 && section.shape.rim > 0 ? model.wallEscape : model.steamEscape;
    for (let i = 0; i < layers; i++) {
      const cell = j * layers + i;
      if (rising > 0) {
        const dry = section.dry[cell]!;
        const water = section.water[cell]!;
        const first = dry * section.perDry.water[cell]!;
        const line = base + (boilingSpread * first) / Math.max(water, model.boundShare * first);
        const room = (dry * section.perDry.capacity[cell]! + CAPACITY * water) * (line - section.celsius[cell]!);
        if (room > 0) {
          const perKg = risingJ / rising;
          const taken = Math.min(rising, room / (perKg - CAPACITY * line));
          section.water[cell]! += taken;
          section.enthalpy[cell]! += taken * perKg;
          section.celsius[cell] =
            section.enthalpy[cell]! / (dry * section.perDry.capacity[cell]! + CAPACITY * section.water[cell]!);
          rising -= taken;
          risingJ -= taken * perKg;
        }
      }
      const made = steam[cell]!;
      if (made > 0) {
        const escaped = out * made;
        const escapedJ = out * steamJ[cell]!;
        account.vapourOutKg += escaped;
        account.vapourOutJ += escapedJ;
        rising += made - escaped;
        risingJ += steamJ[cell]! - escapedJ;
        steam[cell] = 0;
        steamJ[cell] = 0;
      }
    }
    account.vapourOutKg += rising;
    account.vapourOutJ += risingJ;
  }
}
