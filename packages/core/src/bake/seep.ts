import type { Run } from "./run";
import { WATER_CAPACITY } from "./steam-tables";

/** Copies of imported constants: in tests an import is a call, and these are read in every cell of every step. */
const CAPACITY = WATER_CAPACITY;

/**
 * Liquid comes back slowly where a cell has dried: j = D ρ_dry (X − X′) / distance, X the water per kilogram of dry matter, between
 * neighbours up and down and across. Explicit, with no more than half of the difference in a step; water takes its enthalpy along.
 */
export function seep(run: Run, dt: number): void {
  const { section, model } = run;
  const { layers, columns, area, face, inner, outer, thickness, widening, set } = section;
  const { capillarity, wetDiffusivity } = model;
  const draws = (a: number, b: number): number =>
    dt * (capillarity + wetDiffusivity * (1 - (set[a]! > set[b]! ? set[a]! : set[b]!)));
  for (let j = 0; j < columns; j++) {
    const first = j * layers;
    for (let i = 0; i < layers - 1; i++) {
      const cell = first + i;
      const open = area[j]! * widening[cell]!;
      pull(run, cell, cell + 1, (draws(cell, cell + 1) * open) / ((thickness[cell]! + thickness[cell + 1]!) / 2));
    }
    if (j === columns - 1) continue;
    const across = (outer[j + 1]! - inner[j]!) / 2;
    for (let i = 0; i < layers; i++) {
      const cell = first + i;
      pull(
        run,
        cell,
        cell + layers,
        (draws(cell, cell + layers) * face[j]! * (thickness[cell]! + thickness[cell + layers]!)) / 2 / across,
      );
    }
  }
}

/** `reach` is D dt area / distance, m³. */
function pull(run: Run, a: number, b: number, reach: number): void {
  const { dry, water, enthalpy, celsius, batter, area, thickness, widening, layers, perDry } = run.section;
  // Crumb draws from crumb; a filling keeps its own.
  if (batter[a] !== batter[b]) return;
  const inA = water[a]! / dry[a]!;
  const inB = water[b]! / dry[b]!;
  const apart = inA - inB;
  if (apart < 1e-3 && apart > -1e-3) return;
  const column = (a / layers) | 0;
  const density = dry[a]! / (area[column]! * widening[a]! * thickness[a]!);
  const most = (0.5 * apart * dry[a]! * dry[b]!) / (dry[a]! + dry[b]!);
  const wanted = reach * density * apart;
  const moved = apart > 0 ? Math.min(wanted, most) : Math.max(wanted, most);
  const t = moved > 0 ? celsius[a]! : celsius[b]!;
  water[a]! -= moved;
  water[b]! += moved;
  enthalpy[a]! -= moved * CAPACITY * t;
  enthalpy[b]! += moved * CAPACITY * t;
  celsius[a] = enthalpy[a]! / (dry[a]! * perDry.capacity[a]! + water[a]! * CAPACITY);
  celsius[b] = enthalpy[b]! / (dry[b]! * perDry.capacity[b]! + water[b]! * CAPACITY);
}
