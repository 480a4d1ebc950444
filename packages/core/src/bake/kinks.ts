import { type Run, solve } from "./run";
import { latentHeat } from "./steam-tables";

/** A line is solved again as often as this, and in the first of its passes a cell may come to its boiling line. */
const MOST_PASSES = 6;
const MAY_REACH = 3;
/** What is nearer to each other than this, as a share, is the same. */
const SAME = 0.01;
/** Heat of steam that would move a cell by less than this, K, is left for the next step. */
const STEAM_K = 0.3;
/** Water over what is bound, as a share of that, from which a cell boils. */
const LEAST_SPARE = 1e-4;

/** A line of cells: the first of them, how many and how far apart, and its row in the solver; the share of its steam that warms the cells after it. */
export interface Line {
  start: number;
  count: number;
  stride: number;
  row: number;
  passes: number;
}

/**
 * Heat against temperature has kinks in a cell: it begins to boil on its line, gives no latent heat back where it cools (its vapour is gone) unless steam rises
 * to it, and has no more than its water. Where the solution lies beyond one, the row of the cell gets the capacity, or the heat, that holds there, and the line is
 * to be solved again. Going up a column the share of the steam that finds no way out warms the cold cells over it, in the same solution: what it will do at the
 * end of the step is what heat has to flow against. Without that the minutes depend on the step. Whether anything was changed.
 */
function beyondKink(run: Run, { start, count, stride, row, passes }: Line, perStep: number, mayReach: boolean): boolean {
  const { capacity, sensible, boilsFrom, condenses, section, solver, model, boilingC, boilingSpread } = run;
  const { water, dry, perDry } = section;
  const { middle, right, x } = solver;
  const base = boilingC - boilingSpread;
  let any = false;
  let rising = 0;
  for (let k = 0, cell = start; k < count; k++, cell += stride) {
    const solved = x[row + k]!;
    const latent = capacity[cell]! - sensible[cell]!;
    const given = condenses[cell]!;
    if (latent <= 0 && rising <= 0 && given === 0 && solved <= base) continue;
    const w = water[cell]!;
    const first = dry[cell]! * perDry.water[cell]!;
    // A filling that came without water has no boiling line.
    if (first <= 0) continue;
    const bound = model.boundShare * first;
    const spare = w - bound;
    if (latent > 0) {
      const from = boilsFrom[cell]!;
      const warmer = solved - from;
      let heat = 0;
      if (warmer >= 0) {
        const most = spare > 0 ? latentHeat(from) * spare : 0;
        if (latent * warmer <= most * (1 + SAME)) {
          rising += passes * latent * warmer;
          continue;
        }
        heat = -most;
        rising += passes * most;
      } else {
        if (-latent * warmer <= rising) {
          rising += latent * warmer;
          continue;
        }
        heat = rising;
        rising = 0;
      }
      middle[row + k]! -= latent * perStep;
      right[row + k]! += (heat - latent * from) * perStep;
      condenses[cell] = heat;
      capacity[cell] = sensible[cell]!;
      any = true;
      continue;
    }
    // All of its water boils in this step; where that would cool it, it does not.
    if (given < 0) {
      if (solved >= boilsFrom[cell]!) rising -= passes * given;
      else {
        right[row + k]! -= given * perStep;
        condenses[cell] = 0;
        any = true;
      }
      continue;
    }
    const line = base + (boilingSpread * first) / (spare > 0 ? w : bound);
    let reaches = solved > line;
    if (given > 0 || (rising > 0 && !reaches)) {
      const room = given + sensible[cell]! * (line - solved);
      reaches = given === 0 && room < rising && mayReach;
      if (reaches) rising -= room;
      else {
        const takes = room <= 0 ? 0 : room < rising ? room : rising;
        rising -= takes;
        const more = takes - given;
        const least = STEAM_K * sensible[cell]!;
        if (more > least || more < -least) {
          right[row + k]! += more * perStep;
          condenses[cell] = takes;
          any = true;
        }
        continue;
      }
    }
    if (!reaches || !mayReach || spare <= LEAST_SPARE * bound) continue;
    const latentThere = (latentHeat(line) * w * w) / (boilingSpread * first);
    if (solved > line) rising += passes * latentThere * (solved - line);
    boilsFrom[cell] = line;
    middle[row + k]! += latentThere * perStep;
    right[row + k]! += latentThere * perStep * line;
    capacity[cell] = sensible[cell]! + latentThere;
    any = true;
  }
  return any;
}

/** Whether any cell of a line would boil more water than it has; then none gets latent heat nor steam, and `recover` boils what comes too hot. */
function overdrawn(run: Run, { start, count, stride, row }: Line, perStep: number): boolean {
  const { capacity, sensible, boilsFrom, condenses, section, solver, model } = run;
  const { water, dry, perDry } = section;
  const { middle, right, x } = solver;
  let any = false;
  for (let k = 0, cell = start; k < count && !any; k++, cell += stride) {
    const latent = capacity[cell]! - sensible[cell]!;
    if (latent <= 0) continue;
    const spare = water[cell]! - model.boundShare * dry[cell]! * perDry.water[cell]!;
    any = latent * (x[row + k]! - boilsFrom[cell]!) > latentHeat(boilsFrom[cell]!) * spare * (1 + SAME);
  }
  if (!any) return false;
  for (let k = 0, cell = start; k < count; k++, cell += stride) {
    const latent = capacity[cell]! - sensible[cell]!;
    right[row + k]! -= (condenses[cell]! + latent * (latent > 0 ? boilsFrom[cell]! : 0)) * perStep;
    middle[row + k]! -= latent * perStep;
    condenses[cell] = 0;
    capacity[cell] = sensible[cell]!;
  }
  return true;
}

/** Solves the first `n` rows, those of a line of cells and of the wall before or after it, with what its kinks say; `latent`, where a cell of it boils already. */
export function solveLine(run: Run, n: number, line: Line, perStep: number, latent: boolean): void {
  const { solver, condenses } = run;
  const { start, count, stride, row } = line;
  solve(solver, n);
  if (!latent) {
    const base = run.boilingC - run.boilingSpread;
    let hot = false;
    for (let k = row; k < row + count && !hot; k++) hot = solver.x[k]! > base;
    if (!hot) return;
  }
  let pass = 0;
  while (pass < MOST_PASSES && beyondKink(run, line, perStep, pass < MAY_REACH)) {
    solve(solver, n);
    pass++;
  }
  if (pass === MOST_PASSES && overdrawn(run, line, perStep)) solve(solver, n);
  if (pass > 0) for (let k = 0, cell = start; k < count; k++, cell += stride) condenses[cell] = 0;
}
