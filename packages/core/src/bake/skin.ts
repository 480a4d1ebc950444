import { NEARLY_DRY } from "./front";
import type { Run } from "./run";

/** The outermost cell that is not dry, seen from one end of a line, and its resistance to heat towards that end and inwards, m²K/W. */
export const skin = { cell: -1, outer: 0, inner: 0 };

/**
 * A line dries from its ends, and the front lies within a cell: the part of it that has dried, as against the next cell inwards, is crust on the outer
 * side of what is wet. Without that the crust would be half a cell too thin on the average, and its resistance would depend on the mesh.
 */
export function findSkin(run: Run, start: number, count: number, stride: number, size: Float64Array, perSize: number): void {
  const { section, model, resistivity } = run;
  const { water, dry, perDry } = section;
  const boils = run.boilingC - run.boilingSpread;
  skin.cell = -1;
  for (let k = 0, cell = start; k < count - 1; k++, cell += stride) {
    const share = water[cell]! / (dry[cell]! * perDry.water[cell]!);
    if (!(share > model.boundShare + NEARLY_DRY)) continue;
    // What only loses vapour at its surface does so over a depth: it is no crust before it boils.
    if (k === 0 && section.celsius[cell]! < boils) return;
    const inwards = cell + stride;
    const inside = water[inwards]! / (dry[inwards]! * perDry.water[inwards]!);
    const whole = k === 0 && inside > 1 ? 1 : inside;
    if (!(whole > share)) return;
    const dried = (whole - share) / (whole - model.boundShare);
    const length = size[(cell / perSize) | 0]!;
    const wet = 0.5 * (1 - dried) * length * resistivity[inwards]!;
    skin.cell = cell;
    skin.outer = (dried * length) / model.crustConductivity + wet;
    skin.inner = wet;
    return;
  }
}
