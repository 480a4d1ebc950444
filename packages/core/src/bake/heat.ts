import { boundFront, dryOut, findSideFront, findTopFront, front as dryingFront } from "./front";
import { outer as outerFilm, over, radiation, type Run, solve } from "./run";
import { approach, latentHeat, placeOf, saturationTable, vapourConductivityTable, WATER_CAPACITY } from "./steam-tables";
import { recover } from "./boil";
import { WATER_DENSITY } from "./section";

/** Copies of imported constants: in tests an import is a call, and these are read in every cell of every step. */
const DENSITY = WATER_DENSITY;
const CAPACITY = WATER_CAPACITY;
const saturations = saturationTable;
const vapourConductivities = vapourConductivityTable;
const front = dryingFront;
const reached = outerFilm;

/** Conductivity of still air in a bubble, W/mK, and the greatest factor of the vapour's own flow. */
const AIR_CONDUCTIVITY = 0.028;
const MOST_FLOW = 10;
const WATER_CONDUCTIVITY = 0.653;
/** Share of the drying over which a crust's conductivity takes over. */
const CRUST_OVER = 0.3;

/** Capacities of `count` cells, J/K; on its boiling line heat makes steam and the capacity of a cell is that of the line. */
function heatCapacities(run: Run, start: number, count: number): void {
  const { section, capacity, sensible, boilingC, boilingSpread } = run;
  const { dry, water, celsius, perDry } = section;
  const { capacity: perKg, water: firstPerDry } = perDry;
  const { boundShare } = run.model;
  const base = boilingC - boilingSpread - 1e-3;
  for (let cell = start; cell < start + count; cell++) {
    const solids = dry[cell]!;
    const w = water[cell]!;
    let c = solids * perKg[cell]! + w * CAPACITY;
    sensible[cell] = c;
    const t = celsius[cell]!;
    if (t > base) {
      const first = solids * firstPerDry[cell]!;
      if (w > boundShare * first * 1.0001) {
        const rise = (boilingSpread * first) / w;
        if (t >= base + rise) c += (latentHeat(base + rise) * w) / rise;
      }
    }
    capacity[cell] = c;
  }
}

/**
 * Capacity and conductivity of every cell. Conductivity: condensed matter by volume, bubbles with the vapour that evaporates on their warm side and condenses on the
 * cold one, joined by Maxwell and Eucken with the bubbles dispersed.
 */
export function conduct(run: Run): void {
  const { section, model, pressurePa, waterActivity, resistivity, vapour } = run;
  const { cells, dry, water, gasVolume, celsius, perDry } = section;
  const { condensedShare, waterActivityRate, vapourShare, boundShare, crustConductivity } = model;
  const { water: firstPerDry, volume: dryVolume, conductance } = perDry;
  const psat = saturations;
  const vapours = vapourConductivities;
  for (let cell = 0; cell < cells; cell++) {
    const solids = dry[cell]!;
    const w = water[cell]!;
    const first = solids * firstPerDry[cell]!;
    const waterVolume = w / DENSITY;
    const condensed = waterVolume + solids * dryVolume[cell]!;
    const kc = (condensedShare * (waterVolume * WATER_CONDUCTIVITY + solids * conductance[cell]!)) / condensed;
    const gas = gasVolume[cell]!;
    let k = kc;
    let still = kc;
    const active = w > 0 ? approach((waterActivityRate * w) / solids) : 0;
    waterActivity[cell] = active;
    if (gas > 0) {
      const place = placeOf(celsius[cell]!);
      const at = place | 0;
      const part = place - at;
      const saturated = psat[at]! + part * (psat[at + 1]! - psat[at]!);
      const byVapour = vapours[at]! + part * (vapours[at + 1]! - vapours[at]!);
      const pw = active * saturated;
      const flow = pw >= 0.9 * pressurePa ? MOST_FLOW : pressurePa / (pressurePa - pw);
      const kb = AIR_CONDUCTIVITY + active * vapourShare * byVapour * flow;
      const share = gas / (gas + condensed);
      k = (kc * (2 * kc + kb - 2 * share * (kc - kb))) / (2 * kc + kb + share * (kc - kb));
      still =
        (kc * (2 * kc + AIR_CONDUCTIVITY - 2 * share * (kc - AIR_CONDUCTIVITY))) /
        (2 * kc + AIR_CONDUCTIVITY + share * (kc - AIR_CONDUCTIVITY));
    }
    let carried = k - still;
    if (first > 0) {
      const wet = (w / first - boundShare) / CRUST_OVER;
      if (wet < 1) {
        k = crustConductivity + (k - crustConductivity) * Math.max(0, wet);
        carried *= Math.max(0, wet);
      }
    }
    vapour[cell] = carried / k;
    resistivity[cell] = 1 / k;
  }
  heatCapacities(run, 0, cells);
}

/**
 * Moves the water whose vapour carried its share of the heat that crossed a face, from the warm cell to the cold one: the heat is booked by the
 * sweep, the water takes what liquid of its temperature holds besides. Never below the bound share, and after the cell has boiled: water that
 * takes up latent heat is not carried off.
 */
function carry(run: Run, start: number, faces: number, stride: number): void {
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

const MOST_PASSES = 8;
/** Capacities that are nearer to each other than this, as a share, are the same. */
const SAME_CAPACITY = 0.01;

/**
 * A cell on its boiling line takes up latent heat, but gives none back (its vapour is gone) and no more than its water has. Where the solution cools
 * such a cell it gets its sensible capacity, where it would boil more than there is as much as that; the line is then solved again. In the last pass no
 * cell of the line has latent heat, as none may be left overdrawn: `recover` boils what comes too hot. Whether any.
 */
function overdrawn(run: Run, start: number, count: number, stride: number, row: number, perStep: number, last: boolean): boolean {
  const { capacity, sensible, section, solver, model } = run;
  const { celsius, water, dry, perDry } = section;
  let any = false;
  for (let k = 0, cell = start; k < count; k++, cell += stride) {
    const latent = capacity[cell]! - sensible[cell]!;
    if (latent <= 0) continue;
    const warmer = solver.x[row + k]! - celsius[cell]!;
    let most = 0;
    if (warmer > 0) {
      const spare = water[cell]! - model.boundShare * dry[cell]! * perDry.water[cell]!;
      most = spare > 0 ? (latentHeat(celsius[cell]!) * spare) / warmer : 0;
      if (last) most = 0;
      else if (latent <= most * (1 + SAME_CAPACITY)) continue;
    }
    const less = (latent - most) * perStep;
    solver.middle[row + k]! -= less;
    solver.right[row + k]! -= less * celsius[cell]!;
    capacity[cell] = sensible[cell]! + most;
    any = true;
  }
  return any;
}

/** Heat along every column: plate or oven, base, layers, open top. Backward Euler; the fluxes of the solution are booked exactly. */
export function sweepColumns(run: Run, dt: number): void {
  const { section, model, pan, around, solver, topC, baseC, account, resistivity, capacity, crossed } = run;
  const { layers, columns, area, thickness, widening, celsius, enthalpy, base, baseCapacity } = section;
  const { lower, middle, upper, right, x } = solver;
  const n = layers + 1;
  const perStep = 1 / dt;
  for (let j = 0; j < columns; j++) {
    const a = area[j]!;
    const first = j * layers;
    const last = first + layers - 1;
    const under = (thickness[first]! * resistivity[first]!) / 2;
    let outside: number;
    let inside: number;
    let outsideC = around.airC + around.tilt;
    if (around.onRack) {
      outside = 0;
      inside = a / (1 / (around.h + radiation(model.surfaceEmissivity, around.airC, celsius[first]!)) + under);
    } else {
      outside =
        around.plateC === null
          ? a * pan.gathers * (around.h + radiation(pan.emissivity, outsideC, base[j]!))
          : a * pan.plateContact;
      inside = a / (pan.resistance + under);
      if (around.plateC !== null) outsideC = around.plateC;
    }
    const baseStart = around.onRack ? around.airC : base[j]!;
    const hold = around.onRack ? 1e12 : baseCapacity[j]! * perStep;
    middle[0] = hold + outside + inside;
    upper[0] = -inside;
    right[0] = hold * baseStart + outside * outsideC;
    let below = inside;
    let half = under;
    for (let i = 0; i < layers; i++) {
      const cell = first + i;
      const c = capacity[cell]! * perStep;
      let above = 0;
      if (i < layers - 1) {
        const next = (thickness[cell + 1]! * resistivity[cell + 1]!) / 2;
        above = (a * widening[cell]!) / (half + next);
        half = next;
      }
      lower[i + 1] = -below;
      middle[i + 1] = c + below + above;
      upper[i + 1] = -above;
      right[i + 1] = c * celsius[cell]!;
      below = above;
    }
    const open = a * widening[last]! * run.topFactor;
    over(around, model.surfaceEmissivity, topC[j]!, true);
    const { film, celsius: aboveC } = reached;
    const top = film > 0 ? open / (1 / film + half) : 0;
    middle[layers]! += top;
    right[layers]! += top * aboveC;
    findTopFront(run, j);
    boundFront(run, open, dt);
    const drying = front.cell;
    let frontStart = 0;
    if (drying >= 0) {
      const row = drying - first + 1;
      frontStart = celsius[drying]!;
      const latent = latentHeat(frontStart) * open;
      middle[row]! += latent * front.slope;
      right[row]! += latent * (front.slope * frontStart - front.flux);
    }
    solve(solver, n);
    for (let pass = 0; pass < MOST_PASSES && overdrawn(run, first, layers, 1, 1, perStep, pass === MOST_PASSES - 1); pass++)
      solve(solver, n);
    const intoBase = outside * (outsideC - x[0]!) * dt;
    const fromBase = inside * (x[0]! - x[1]!) * dt;
    if (around.onRack) account.heatIn += fromBase;
    else {
      base[j]! += (intoBase - fromBase) / baseCapacity[j]!;
      account.heatIn += intoBase;
    }
    let incoming = fromBase;
    for (let i = 0; i < layers; i++) {
      const cell = first + i;
      const outgoing = i < layers - 1 ? -upper[i + 1]! * (x[i + 1]! - x[i + 2]!) * dt : top * (x[layers]! - aboveC) * dt;
      enthalpy[cell]! += incoming - outgoing;
      crossed[i] = outgoing;
      incoming = outgoing;
    }
    account.heatIn -= incoming;
    topC[j] = film > 0 ? x[layers]! + (top / open) * half * (aboveC - x[layers]!) : x[layers]!;
    baseC[j] = x[1]! + (inside / a) * under * (x[0]! - x[1]!);
    if (drying >= 0) dryOut(run, open, x[drying - first + 1]! - frontStart, dt);
    recover(run, first, layers, 1);
    carry(run, first, layers - 1, 1);
    heatCapacities(run, first, layers);
  }
}

/** Heat across every layer: from the middle to the wall of the pan, and to the air where there is no wall. */
export function sweepLayers(run: Run, dt: number): void {
  const { section, model, pan, around, solver, sideC, account, resistivity, capacity, crossed } = run;
  const { layers, columns, face, inner, outer, thickness, bottom, widening, celsius, enthalpy, wall, wallCapacity, shape } =
    section;
  const { lower, middle, upper, right, x } = solver;
  const lastColumn = columns - 1;
  const halfWall = (outer[lastColumn]! - inner[lastColumn]!) / 2;
  const perStep = 1 / dt;
  for (let i = 0; i < layers; i++) {
    let before = 0;
    let near = outer[0]! * resistivity[i]!;
    for (let j = 0; j < columns; j++) {
      const cell = j * layers + i;
      const c = capacity[cell]! * perStep;
      let after = 0;
      if (j < lastColumn) {
        const next = cell + layers;
        const beyond = (outer[j + 1]! - inner[j + 1]!) * resistivity[next]!;
        after = (face[j]! * (thickness[cell]! + thickness[next]!)) / (near + beyond);
        near = beyond;
      }
      lower[j] = -before;
      middle[j] = c + before + after;
      upper[j] = -after;
      right[j] = c * celsius[cell]!;
      before = after;
    }
    const edge = lastColumn * layers + i;
    const scale = shape.form === "axial" ? Math.sqrt(widening[edge]!) : 1;
    const side = face[lastColumn]! * scale * thickness[edge]! * (1 + shape.ends) * (1 - shape.covered);
    const below = around.onRack ? 0 : Math.min(1, Math.max(0, (shape.rim - bottom[edge]!) / thickness[edge]!));
    const half = halfWall * resistivity[edge]!;
    const intoWall = (below * side) / (pan.resistance + half);
    const open = (1 - below) * side;
    over(around, model.surfaceEmissivity, sideC[i]!, false);
    const { film } = reached;
    const air = film > 0 ? open / (1 / film + half) : 0;
    middle[lastColumn]! += intoWall + air;
    upper[lastColumn] = -intoWall;
    right[lastColumn]! += air * around.airC;
    const outside = below * side * pan.gathers * (around.h + radiation(pan.emissivity, around.airC, wall[i]!));
    const hold = wallCapacity[i]! * perStep;
    lower[columns] = -intoWall;
    middle[columns] = hold + intoWall + outside;
    right[columns] = hold * wall[i]! + outside * around.airC;
    let drying = -1;
    let frontStart = 0;
    if (open > 0) {
      findSideFront(run, i);
      boundFront(run, open, dt);
      drying = front.cell;
      if (drying >= 0) {
        const row = (drying - i) / layers;
        frontStart = celsius[drying]!;
        const latent = latentHeat(frontStart) * open;
        middle[row]! += latent * front.slope;
        right[row]! += latent * (front.slope * frontStart - front.flux);
      }
    }
    solve(solver, columns + 1);
    for (let pass = 0; pass < MOST_PASSES && overdrawn(run, i, columns, layers, 0, perStep, pass === MOST_PASSES - 1); pass++)
      solve(solver, columns + 1);
    let incoming = 0;
    for (let j = 0; j < columns; j++) {
      const outgoing = j < lastColumn ? -upper[j]! * (x[j]! - x[j + 1]!) * dt : 0;
      const cell = j * layers + i;
      enthalpy[cell]! += incoming - outgoing;
      crossed[j] = outgoing;
      incoming = outgoing;
    }
    const toWall = intoWall * (x[lastColumn]! - x[columns]!) * dt;
    const toAir = air * (x[lastColumn]! - around.airC) * dt;
    enthalpy[edge]! -= toWall + toAir;
    const fromOutside = outside * (around.airC - x[columns]!) * dt;
    wall[i]! += (toWall + fromOutside) / wallCapacity[i]!;
    account.heatIn += fromOutside - toAir;
    sideC[i] = film > 0 && open > 0 ? x[lastColumn]! + (air / open) * half * (around.airC - x[lastColumn]!) : x[columns]!;
    if (drying >= 0) dryOut(run, open, x[(drying - i) / layers]! - frontStart, dt);
    recover(run, i, columns, layers);
    carry(run, i, lastColumn, layers);
  }
}
