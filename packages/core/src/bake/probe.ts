import type { Run } from "./run";
import { type Section, volumeOf } from "./section";
import { type Start, wholeKg } from "./start";

export type Phase = "oven" | "tin" | "rack";

/** What is kept of a moment. SI units, °C, shares; browning in minutes at 150 °C; gas is the share of all bound gas that has come free. */
export interface Sample {
  second: number;
  phase: Phase;
  coreC: number;
  crownM: number;
  middleM: number;
  edgeM: number;
  volumeM3: number;
  gas: number;
  set: number;
  surfaceC: number;
  lossShare: number;
  brownTop: number;
  brownBase: number;
  brownRim: number;
}

/** The inside of a bake, where a probe is put: between these shares of its height, and of its half-width. Skin that dries stays cooler and is no core. */
export const INSIDE = { from: 0.25, to: 0.7, across: 0.7 };
/** On a plate either face has been below: as far from the one as from the other. */
export const BETWEEN_FACES = { ...INSIDE, from: 0.275, to: 0.725 };

/** The coldest temperature of the inside and the cell it is in; between cells it is read from the line through their middles. */
export function coldestInside(section: Section, inside = INSIDE): { cell: number; celsius: number } {
  const { layers, columns, celsius, bottom, thickness, height, inner, outer, batter } = section;
  const across = inside.across * outer[columns - 1]!;
  let found = layers >> 1;
  let coldest = Infinity;
  for (let j = 0; j < columns && (inner[j]! + outer[j]!) / 2 <= across; j++) {
    const low = inside.from * height[j]!;
    const high = inside.to * height[j]!;
    let below = -1;
    let belowC = 0;
    for (let i = 0; i < layers; i++) {
      const cell = j * layers + i;
      const middle = bottom[cell]! + thickness[cell]! / 2;
      const here = celsius[cell]!;
      // A filling is warm when the crumb beside it is; what is done is the batter.
      if (batter[cell] === 0) {
        below = -1;
        continue;
      }
      if (middle >= low && middle <= high && here < coldest) {
        coldest = here;
        found = cell;
      }
      for (let k = 0; k < 2 && below >= 0; k++) {
        const edge = k === 0 ? low : high;
        if (below >= edge || middle <= edge) continue;
        const t = belowC + ((here - belowC) * (edge - below)) / (middle - below);
        if (t < coldest) {
          coldest = t;
          found = cell;
        }
      }
      below = middle;
      belowC = here;
    }
  }
  return { cell: found, celsius: coldest === Infinity ? celsius[found]! : coldest };
}

/** Share of the batter's dry matter that has set. */
export function meanSet(section: Section): number {
  let set = 0;
  let dry = 0;
  for (let cell = 0; cell < section.cells; cell++) {
    if (section.batter[cell] === 0) continue;
    set += section.set[cell]! * section.dry[cell]!;
    dry += section.dry[cell]!;
  }
  return set / dry;
}

export function sampleOf(
  run: Run,
  start: Start,
  second: number,
  phase: Phase,
  coreCell: number,
  brown: { top: number; base: number; rim: number },
): Sample {
  const { section } = run;
  let bound = 0;
  for (let k = 0; k < section.bound.length; k++) bound += section.bound[k]!;
  const whole = start.risen.whole * start.massKg;
  let crownM = 0;
  for (let j = 0; j < section.columns; j++) crownM = Math.max(crownM, section.height[j]!);
  return {
    second,
    phase,
    coreC: section.celsius[coreCell]!,
    crownM,
    middleM: section.height[0]!,
    edgeM: section.height[section.columns - 1]!,
    volumeM3: volumeOf(section),
    gas: whole > 0 ? 1 - bound / whole : 0,
    set: meanSet(section),
    surfaceC: run.topC[0]!,
    lossShare: run.account.vapourOutKg / wholeKg(start),
    brownTop: brown.top,
    brownBase: brown.base,
    brownRim: brown.rim,
  };
}
