import type { Run } from "./run";
import { latentHeat, WATER_CAPACITY } from "./steam-tables";

/** Copies of imported constants: in tests an import is a call, and these are read in every cell of every step. */
const CAPACITY = WATER_CAPACITY;

/**
 * Moves the water whose vapour carried its share of the heat that crossed a face, from the warm cell to the cold one: the heat is booked by the
 * sweep, the water takes what liquid of its temperature holds besides. Never below the bound share, and after the cell has boiled: water that
 * takes up latent heat is not carried off.
 */
export function carry(run: Run, start: number, faces: number, stride: number): void {
  const { section, vapour, crossed } = run;
  const { dry, water, enthalpy, celsius, perDry } = section;
  const firstPerDry = perDry.water;
  const { boundShare } = run.model;
  for (let k = 0, cell = start; k < faces; k++, cell += stride) {
    const next = cell + stride;
    const share = vapour[cell]! < vapour[next]! ? vapour[cell]! : vapour[next]!;
    if (share <= 0) continue;
    const joules = crossed[k]!;
    const from = joules > 0 ? cell : next;
    const to = joules > 0 ? next : cell;
    const spare = water[from]! - boundShare * dry[from]! * firstPerDry[from]!;
    if (spare <= 0) continue;
    const t = celsius[from]!;
    const wanted = ((joules > 0 ? joules : -joules) * share) / latentHeat(t);
    const moved = wanted < spare ? wanted : spare;
    const along = moved * CAPACITY * t;
    water[from]! -= moved;
    water[to]! += moved;
    enthalpy[from]! -= along;
    enthalpy[to]! += along;
  }
}
