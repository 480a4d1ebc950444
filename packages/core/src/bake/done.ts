import { CRUST_C, GOLDEN } from "./browning";
import type { JudgedBy } from "./judged";
import { meanSet } from "./probe";
import type { Run } from "./run";
import type { Start } from "./start";

/** Browning in minutes at 150 °C: of the middle of the top, of the base, of the top's outer centimetre, and of the line along the wall. */
export interface Brown {
  top: number;
  base: number;
  rim: number;
  line: number;
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

/** What is enough elsewhere, as a share of golden: on both faces of a flatbread, on the light crust of a bar. */
const ENOUGH = { faces: 0.15, crust: 0.6 };
/**
 * The same on top of a drop whose edge is golden, by the water of its batter: a biscuit, which holds little, is baked until its top is light gold too, a
 * moist mound is done when its edge is. Shares of water and of golden; confidence C.
 */
const DROP = { dry: 0.15, moist: 0.35, biscuit: 0.7, mound: 0.2 };
const dropTop = (water: number): number => {
  const { dry, moist, biscuit, mound } = DROP;
  return biscuit + (mound - biscuit) * Math.min(1, Math.max(0, (water - dry) / (moist - dry)));
};
/** Water per dry matter at which the wettest of a thin thing snaps (about 3 % moisture); confidence C. */
const SNAPS_AT = 0.03;
/** A surface is dry when its outermost cell holds no more than this share of its first water. */
const DRY_TOP = 0.3;
const CLEAN = { set: 0.9, water: 1.2, from: 0.25, to: 0.85 };
const SPRINGS = 0.9;
/** A crumb that has set still clings to a skewer and stays dented while its starch is this much, K, short of what it is done at. */
const CLINGS = { skewer: 4, springs: 7 };
/** The edge draws away when the outermost column has set and has lost so much of its water. */
const DRAWN = { set: 0.97, water: 0.96 };
/** How much water, as a share of the whole, it may lose while it waits for colour, by its depth, m; and how long, times the time to the core. */
const PATIENCE = { thinM: 0.01, thickM: 0.022, thin: 0.3, thick: 0.17, longest: 4 };
const patienceAt = (depthM: number): number => {
  const { thinM, thickM, thin, thick } = PATIENCE;
  return thick + (thin - thick) * Math.min(1, Math.max(0, (thickM - depthM) / (thickM - thinM)));
};

/** How far it is on the way to the colour that its kind waits for: 1 and more when it is there. */
export function coloured({ judged, material }: Pick<Start, "judged" | "material">, { top, base, rim, line }: Brown): number {
  switch (judged) {
    case "rim":
      return Math.min(rim, top) / GOLDEN;
    case "crust":
      return Math.min(line, top / ENOUGH.crust) / GOLDEN;
    case "edge":
      return Math.min(line, top / dropTop(material.water)) / GOLDEN;
    case "faces":
      return Math.min(top, base) / (ENOUGH.faces * GOLDEN);
    default:
      return top / GOLDEN;
  }
}

/**
 * The last kelvins come slowly, and no baker waits for them beside a crumb that has set: a middle is done so much under its target, K, the more the
 * longer it has been set, as a share of that time. 93 to 99 °C is the range that kitchens give for one and the same crumb.
 */
const ALLOWED = { kelvin: 2.4, past: 0.25 };
export const allowance = ({ setS }: Progress, second: number): number =>
  setS === null ? 0 : ALLOWED.kelvin * Math.min(1, Math.max(0, (second / setS - 1) / ALLOWED.past));

/** What is judged by its inside is left in for a golden top too, but no longer than this over the time to its core. */
const LINGERS = 1.07;
/** s at which a middle that was done at `coreS` has waited long enough. */
export const lingersTo = ({ goldenS }: Marks, coreS: number, { insideAlone }: Pick<Start, "insideAlone">): number =>
  insideAlone ? coreS : Math.max(coreS, Math.min(goldenS ?? Infinity, LINGERS * coreS));

export const waitsForColour = (by: JudgedBy): boolean => by !== "inside" && by !== "snaps";

/** Whether it may not wait for its colour any longer: it would dry out. */
export const outOfPatience = (second: number, coreS: number, lossShare: number, depthM: number): boolean =>
  second > PATIENCE.longest * coreS || lossShare > patienceAt(depthM);

/** Slices of the middle that a skewer passes: what is thinner than one of them leaves nothing on it, on any grid. */
const SLICES = 6;
const sliced = {
  water: new Float64Array(SLICES),
  first: new Float64Array(SLICES),
  set: new Float64Array(SLICES),
  dry: new Float64Array(SLICES),
};

/** What a skewer passes in the middle, slice by slice: how much of the least set has set, and whether any is over-wet. */
function probed({ section, around }: Run): { set: number; wet: boolean } {
  const { layers, columns, set, water, dry, perDry, batter, outer, inner, bottom, thickness, height } = section;
  for (const sums of Object.values(sliced)) sums.fill(0);
  // On a plate either face has been below.
  const to = around.plateC === null ? CLEAN.to : 1 - CLEAN.from;
  for (let j = 0; j < columns; j++) {
    if (j > 0 && (inner[j]! + outer[j]!) / 2 > outer[columns - 1]! / 3) break;
    const from = CLEAN.from * height[j]!;
    const slice = ((to - CLEAN.from) * height[j]!) / SLICES;
    for (let i = 0; i < layers; i++) {
      const cell = j * layers + i;
      if (batter[cell] === 0) continue;
      const low = bottom[cell]! - from;
      const high = low + thickness[cell]!;
      for (let k = Math.max(0, Math.floor(low / slice)); k < SLICES && k * slice < high; k++) {
        const share = (Math.min(high, (k + 1) * slice) - Math.max(low, k * slice)) / thickness[cell]!;
        if (share <= 0) continue;
        sliced.water[k]! += share * water[cell]!;
        sliced.first[k]! += share * dry[cell]! * perDry.water[cell]!;
        sliced.set[k]! += share * set[cell]! * dry[cell]!;
        sliced.dry[k]! += share * dry[cell]!;
      }
    }
  }
  let least = 1;
  let wet = false;
  for (let k = 0; k < SLICES; k++) {
    if (sliced.dry[k]! <= 0) continue;
    least = Math.min(least, sliced.set[k]! / sliced.dry[k]!);
    if (sliced.water[k]! > CLEAN.water * sliced.first[k]!) wet = true;
  }
  return { set: least, wet };
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

/** The same for what must snap: where it is wettest it bends while the rest is dry. */
function dried({ section }: Run): number {
  const { cells, water, dry } = section;
  let most = 0;
  for (let cell = 0; cell < cells; cell++) most = Math.max(most, water[cell]! / dry[cell]!);
  return SNAPS_AT / Math.max(most, 1e-12);
}

function hasDryTop({ section, topC }: Run): boolean {
  const { layers, water, dry, perDry } = section;
  const top = layers - 1;
  return water[top]! <= DRY_TOP * dry[top]! * perDry.water[top]! && topC[0]! >= CRUST_C;
}

/** How far colour, dryness and the setting of the middle had come a step before: a sign is there between two steps, not at the end of one. */
export interface Progress {
  colour: number;
  dryness: number;
  set: number;
  /** s when the whole middle had set, wet or not. */
  setS: number | null;
}

export const noProgress = (): Progress => ({ colour: 0, dryness: 0, set: 0, setS: null });

/** s at which what stands at `now` after this step was at 1; null where it is not yet. */
const since = (second: number, dt: number, before: number, now: number): number | null =>
  now < 1 ? null : before < 1 ? second - (dt * (now - 1)) / (now - before) : second;

/** Notes every sign that is there for the first time after a step of `dt` s; the middle is `short` of its target by so many K. A pan that `slips` lets the edge draw away. */
export function mark(
  marks: Marks,
  progress: Progress,
  run: Run,
  start: Pick<Start, "judged" | "material">,
  brown: Brown,
  second: number,
  dt: number,
  slips: boolean,
  short: number,
): void {
  const colour = coloured(start, brown);
  marks.goldenS ??= since(second, dt, progress.colour, colour);
  progress.colour = colour;
  if (start.judged === "snaps") {
    const dryness = dried(run);
    marks.dryS ??= since(second, dt, progress.dryness, dryness);
    progress.dryness = dryness;
  } else if (marks.dryS === null && hasDryTop(run)) marks.dryS = second;
  if (marks.springsS === null && short <= CLINGS.springs && upperSet(run) >= SPRINGS) marks.springsS = second;
  if (marks.skewerS === null && meanSet(run.section) >= SPRINGS) {
    const { set, wet } = probed(run);
    progress.setS ??= since(second, dt, progress.set / CLEAN.set, set / CLEAN.set);
    progress.set = set;
    if (progress.setS !== null && !wet && short <= CLINGS.skewer) marks.skewerS = second;
  }
  if (slips && marks.edgeS === null && marks.springsS !== null && hasDrawnAway(run)) marks.edgeS = second;
}
