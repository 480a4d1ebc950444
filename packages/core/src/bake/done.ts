import { CRUST_C, GOLDEN } from "./browning";
import type { JudgedBy } from "./judged";
import { meanSet } from "./probe";
import type { Run } from "./run";

/** Browning in minutes at 150 °C. */
export interface Brown {
  top: number;
  base: number;
  rim: number;
}

/** Seconds from the oven door at which each sign was first there; null while it is not. */
export interface Marks {
  /** The probe in the coldest of the middle is at its target. */
  coreS: number | null;
  /** Colour where this kind is judged by it; where it is not, a golden top. */
  goldenS: number | null;
  /** The top is dry; for what must snap, the whole. */
  dryS: number | null;
  /** A skewer from the middle comes out clean, the top springs back, the edge has drawn away from the wall. */
  skewerS: number | null;
  springsS: number | null;
  edgeS: number | null;
}

export const noMarks = (): Marks => ({ coreS: null, goldenS: null, dryS: null, skewerS: null, springsS: null, edgeS: null });

/** What is enough elsewhere, as a share of golden: on both faces of a flatbread, on top of a drop whose edge is golden. */
const ENOUGH = { faces: 0.2, drop: 0.2 };
/** Water per dry matter at which a thin thing snaps (about 4 % moisture); confidence C. */
const SNAPS_AT = 0.04;
/** A surface is dry when its outermost cell holds no more than this share of its first water. */
const DRY_TOP = 0.3;
const CLEAN = { set: 0.9, water: 1.12, from: 0.25, to: 0.85 };
const SPRINGS = 0.9;
/** The edge draws away when the outermost column has set and has lost so much of its water. */
const DRAWN = { set: 0.97, water: 0.96 };
/** How much water, as a share of the whole, it may lose while it waits for colour, by its depth, m; and how long, times the time to the core. */
const PATIENCE = { thinM: 0.016, thin: 0.3, thick: 0.17, longest: 4 };

/** How far it is on the way to the colour that its kind waits for: 1 and more when it is there. */
export function coloured(by: JudgedBy, { top, base, rim }: Brown): number {
  switch (by) {
    case "rim":
      return Math.min(rim, top) / GOLDEN;
    case "edge":
      return Math.min(rim, top / ENOUGH.drop) / GOLDEN;
    case "faces":
      return Math.min(top, base) / (ENOUGH.faces * GOLDEN);
    default:
      return top / GOLDEN;
  }
}

export const waitsForColour = (by: JudgedBy): boolean => by !== "inside" && by !== "snaps";

/** Whether it may not wait for its colour any longer: it would dry out. */
export const outOfPatience = (second: number, coreS: number, lossShare: number, depthM: number): boolean =>
  second > PATIENCE.longest * coreS || lossShare > (depthM < PATIENCE.thinM ? PATIENCE.thin : PATIENCE.thick);

/** Whether a skewer from the middle comes out clean: everything there has set, and nothing is over-wet. */
function comesClean({ section }: Run): boolean {
  const { layers, columns, set, water, dry, perDry, batter, outer, inner, bottom, height } = section;
  for (let j = 0; j < columns; j++) {
    if ((inner[j]! + outer[j]!) / 2 > outer[columns - 1]! / 3) break;
    for (let i = 0; i < layers; i++) {
      const cell = j * layers + i;
      if (batter[cell] === 0 || bottom[cell]! < CLEAN.from * height[j]! || bottom[cell]! > CLEAN.to * height[j]!) continue;
      if (set[cell]! < CLEAN.set || water[cell]! > CLEAN.water * dry[cell]! * perDry.water[cell]!) return false;
    }
  }
  return true;
}

function upperSet({ section }: Run): number {
  const { layers, columns, set, dry, batter } = section;
  let held = 0;
  let all = 0;
  for (let j = 0; j < columns; j++) {
    for (let i = layers >> 1; i < layers; i++) {
      const cell = j * layers + i;
      if (batter[cell] === 0) continue;
      held += set[cell]! * dry[cell]!;
      all += dry[cell]!;
    }
  }
  return all > 0 ? held / all : 1;
}

function hasDrawnAway({ section }: Run): boolean {
  const { layers, columns, set, water, dry, perDry } = section;
  let held = 0;
  let wet = 0;
  let first = 0;
  let all = 0;
  for (let cell = (columns - 1) * layers; cell < columns * layers; cell++) {
    held += set[cell]! * dry[cell]!;
    wet += water[cell]!;
    first += dry[cell]! * perDry.water[cell]!;
    all += dry[cell]!;
  }
  return held >= DRAWN.set * all && wet <= DRAWN.water * first;
}

/** The same for what must snap and dries as a whole. */
function dried({ section }: Run): number {
  const { cells, water, dry } = section;
  let wet = 0;
  let all = 0;
  for (let cell = 0; cell < cells; cell++) {
    wet += water[cell]!;
    all += dry[cell]!;
  }
  return (SNAPS_AT * all) / Math.max(wet, 1e-12);
}

function hasDryTop({ section, topC }: Run): boolean {
  const { layers, water, dry, perDry } = section;
  const top = layers - 1;
  return water[top]! <= DRY_TOP * dry[top]! * perDry.water[top]! && topC[0]! >= CRUST_C;
}

/** How far colour and dryness had come a step before: a sign is there between two steps, not at the end of one. */
export interface Progress {
  colour: number;
  dryness: number;
}

export const noProgress = (): Progress => ({ colour: 0, dryness: 0 });

/** s at which what stands at `now` after this step was at 1; null where it is not yet. */
const since = (second: number, dt: number, before: number, now: number): number | null =>
  now < 1 ? null : before < 1 ? second - (dt * (now - 1)) / (now - before) : second;

/** Notes every sign that is there for the first time after a step of `dt` s. A pan that `slips` lets the edge draw away. */
export function mark(
  marks: Marks,
  progress: Progress,
  run: Run,
  by: JudgedBy,
  brown: Brown,
  second: number,
  dt: number,
  slips: boolean,
): void {
  const colour = coloured(by, brown);
  marks.goldenS ??= since(second, dt, progress.colour, colour);
  progress.colour = colour;
  if (by === "snaps") {
    const dryness = dried(run);
    marks.dryS ??= since(second, dt, progress.dryness, dryness);
    progress.dryness = dryness;
  } else if (marks.dryS === null && hasDryTop(run)) marks.dryS = second;
  if (marks.springsS === null && upperSet(run) >= SPRINGS) marks.springsS = second;
  if (marks.skewerS === null && meanSet(run.section) >= SPRINGS && comesClean(run)) marks.skewerS = second;
  if (slips && marks.edgeS === null && marks.springsS !== null && hasDrawnAway(run)) marks.edgeS = second;
}
