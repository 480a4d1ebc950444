import { recover } from "./boil";
import { heatCapacities } from "./conduct";
import { boundFront, dryOut, findSideFront, findTopFront, front as dryingFront } from "./front";
import { type Line, solveLine } from "./kinks";
import { outer as outerFilm, over, radiation, type Run } from "./run";
import { findSkin, skin as drySkin } from "./skin";
import { latentHeat } from "./steam-tables";
import { carry } from "./vapour";

/** In tests an import is a call, and these are read in every line of every step. */
const front = dryingFront;
const skin = drySkin;
const reached = outerFilm;

/** Heat along every column: plate or oven, base, layers, open top. Backward Euler; the fluxes of the solution are booked exactly. */
export function sweepColumns(run: Run, dt: number): void {
  const { section, model, pan, around, solver, topC, baseC, account, resistivity, capacity, crossed } = run;
  const { layers, columns, area, thickness, widening, celsius, enthalpy, base, baseCapacity, shape } = section;
  const { lower, middle, upper, right, x } = solver;
  const n = layers + 1;
  const perStep = 1 / dt;
  const line: Line = { start: 0, count: layers, stride: 1, row: 1, passes: 0 };
  for (let j = 0; j < columns; j++) {
    const a = area[j]!;
    const first = j * layers;
    const last = first + layers - 1;
    const boils = heatCapacities(run, first, layers);
    findSkin(run, first, layers, 1, thickness, 1);
    const low = skin.cell;
    const lowOuter = skin.outer;
    const lowInner = skin.inner;
    findSkin(run, last, layers, -1, thickness, 1);
    const high = skin.cell === low ? -1 : skin.cell;
    const under = first === low ? lowOuter : first === high ? skin.inner : (thickness[first]! * resistivity[first]!) / 2;
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
          : a * Math.min(pan.plateContact, model.plateWatts / Math.max(around.plateC - base[j]!, 1e-3));
      inside = a / (pan.resistance + under);
      if (around.plateC !== null) outsideC = around.plateC;
    }
    const baseStart = around.onRack ? around.airC : base[j]!;
    const hold = around.onRack ? 1e12 : baseCapacity[j]! * perStep;
    middle[0] = hold + outside + inside;
    upper[0] = -inside;
    right[0] = hold * baseStart + outside * outsideC;
    let below = inside;
    let half = first === low ? lowInner : first === high ? skin.outer : under;
    for (let i = 0; i < layers; i++) {
      const cell = first + i;
      const c = capacity[cell]! * perStep;
      let above = 0;
      if (i < layers - 1) {
        const next = cell + 1;
        const even = (thickness[next]! * resistivity[next]!) / 2;
        above = (a * widening[cell]!) / (half + (next === low ? lowOuter : next === high ? skin.inner : even));
        half = next === low ? lowInner : next === high ? skin.outer : even;
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
    line.start = first;
    line.passes = 1 - (j === columns - 1 && shape.rim > 0 ? model.wallEscape : model.steamEscape);
    solveLine(run, n, line, perStep, boils);
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
  const { section, model, pan, around, solver, sideC, account, resistivity, capacity, sensible, crossed } = run;
  const { layers, columns, face, width, thickness, bottom, widening, celsius, enthalpy, wall, wallCapacity, shape } = section;
  const { lower, middle, upper, right, x } = solver;
  const lastColumn = columns - 1;
  const perStep = 1 / dt;
  const line: Line = { start: 0, count: columns, stride: layers, row: 0, passes: 0 };
  for (let i = 0; i < layers; i++) {
    let boils = false;
    let before = 0;
    const edge = lastColumn * layers + i;
    findSkin(run, edge, columns, -layers, width, layers);
    const dry = skin.cell;
    let near = width[0]! * resistivity[i]!;
    for (let j = 0; j < columns; j++) {
      const cell = j * layers + i;
      const c = capacity[cell]! * perStep;
      if (capacity[cell]! > sensible[cell]!) boils = true;
      let after = 0;
      if (j < lastColumn) {
        const next = cell + layers;
        const even = width[j + 1]! * resistivity[next]!;
        after = (face[j]! * (thickness[cell]! + thickness[next]!)) / (near + (next === dry ? 2 * skin.inner : even));
        near = next === dry ? 2 * skin.outer : even;
      }
      lower[j] = -before;
      middle[j] = c + before + after;
      upper[j] = -after;
      right[j] = c * celsius[cell]!;
      before = after;
    }
    const scale = shape.form === "axial" ? Math.sqrt(widening[edge]!) : 1;
    const side = face[lastColumn]! * scale * thickness[edge]! * (1 + shape.ends) * (1 - shape.covered);
    const below = around.onRack ? 0 : Math.min(1, Math.max(0, (shape.rim - bottom[edge]!) / thickness[edge]!));
    const half = near / 2;
    const intoWall = (below * side) / (pan.resistance + half);
    const open = (1 - below) * side;
    over(around, model.surfaceEmissivity, sideC[i]!, false);
    const { film, celsius: reachedC } = reached;
    const air = film > 0 ? open / (1 / film + half) : 0;
    middle[lastColumn]! += intoWall + air;
    upper[lastColumn] = -intoWall;
    right[lastColumn]! += air * reachedC;
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
    line.start = i;
    solveLine(run, columns + 1, line, perStep, boils);
    let incoming = 0;
    for (let j = 0; j < columns; j++) {
      const outgoing = j < lastColumn ? -upper[j]! * (x[j]! - x[j + 1]!) * dt : 0;
      const cell = j * layers + i;
      enthalpy[cell]! += incoming - outgoing;
      crossed[j] = outgoing;
      incoming = outgoing;
    }
    const toWall = intoWall * (x[lastColumn]! - x[columns]!) * dt;
    const toAir = air * (x[lastColumn]! - reachedC) * dt;
    enthalpy[edge]! -= toWall + toAir;
    const fromOutside = outside * (around.airC - x[columns]!) * dt;
    wall[i]! += (toWall + fromOutside) / wallCapacity[i]!;
    account.heatIn += fromOutside - toAir;
    sideC[i] = film > 0 && open > 0 ? x[lastColumn]! + (air / open) * half * (reachedC - x[lastColumn]!) : x[columns]!;
    if (drying >= 0) dryOut(run, open, x[(drying - i) / layers]! - frontStart, dt);
    recover(run, i, columns, layers);
    carry(run, i, lastColumn, layers);
  }
}
