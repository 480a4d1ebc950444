import { type Run, solve } from "./run";
import { WATER_CAPACITY } from "./steam-tables";

/** Copies of imported constants: in tests an import is a call, and these are read in every cell of every step. */
const CAPACITY = WATER_CAPACITY;

/**
 * Liquid comes back slowly where a cell has dried: j = D ρ_dry (X − X′) / distance, X the water per kilogram of dry matter, between
 * neighbours up and down and across. Backward Euler line by line, so that a thin cell takes what reaches it however long the step is; what crosses a face
 * is booked on both sides and takes its enthalpy along.
 */
export function seep(run: Run, dt: number): void {
  const { section } = run;
  const { layers, columns, area, face, inner, outer, thickness, widening } = section;
  const { spacing } = run;
  for (let j = 0; j < columns; j++) {
    const first = j * layers;
    for (let i = 0; i < layers - 1; i++) {
      const cell = first + i;
      spacing[i] = (2 * area[j]! * widening[cell]!) / (thickness[cell]! + thickness[cell + 1]!);
    }
    along(run, first, layers, 1, dt);
  }
  for (let i = 0; i < layers; i++) {
    for (let j = 0; j < columns - 1; j++) {
      const cell = j * layers + i;
      spacing[j] = (face[j]! * (thickness[cell]! + thickness[cell + layers]!)) / (outer[j + 1]! - inner[j]!);
    }
    along(run, i, columns, layers, dt);
  }
}

/** One line of cells; `spacing` holds the area of every face over the distance between the middles of its cells, m. */
function along({ section, model, solver, spacing }: Run, start: number, count: number, stride: number, dt: number): void {
  const { dry, water, enthalpy, celsius, batter, set, area, thickness, widening, layers, perDry } = section;
  const { capillarity, wetDiffusivity } = model;
  const { lower, middle, upper, right, x } = solver;
  let before = 0;
  let massPerM3 = 0;
  for (let k = 0, cell = start; k < count; k++, cell += stride) {
    const column = (cell / layers) | 0;
    const own = k > 0 ? massPerM3 : dry[cell]! / (area[column]! * widening[cell]! * thickness[cell]!);
    let after = 0;
    if (k < count - 1) {
      const next = cell + stride;
      massPerM3 = dry[next]! / (area[(next / layers) | 0]! * widening[next]! * thickness[next]!);
      // Crumb draws from crumb; a filling keeps its own.
      if (batter[cell] === batter[next]) {
        const held = set[cell]! > set[next]! ? set[cell]! : set[next]!;
        after = dt * (capillarity + wetDiffusivity * (1 - held)) * spacing[k]! * 0.5 * (own + massPerM3);
      }
    }
    lower[k] = -before;
    middle[k] = dry[cell]! + before + after;
    upper[k] = -after;
    right[k] = water[cell]!;
    before = after;
  }
  solve(solver, count);
  for (let k = 0, cell = start; k < count - 1; k++, cell += stride) {
    const next = cell + stride;
    const moved = -upper[k]! * (x[k]! - x[k + 1]!);
    const along = moved * CAPACITY * (moved > 0 ? celsius[cell]! : celsius[next]!);
    water[cell]! -= moved;
    water[next]! += moved;
    enthalpy[cell]! -= along;
    enthalpy[next]! += along;
  }
  for (let k = 0, cell = start; k < count; k++, cell += stride)
    celsius[cell] = enthalpy[cell]! / (dry[cell]! * perDry.capacity[cell]! + water[cell]! * CAPACITY);
}
