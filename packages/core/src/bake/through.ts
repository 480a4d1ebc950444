import { browned } from "./browning";
import { drawIn, type Hot, wallOf } from "./cool";
import { type Brown, isColoured, mark, type Marks, noMarks, outOfPatience, waitsForColour } from "./done";
import { prepare, step, tablesFor } from "./kernel";
import { type Model, standardModel } from "./model";
import { coldestInside, meanSet, type Phase, type Sample, sampleOf } from "./probe";
import type { Run } from "./run";
import { stack, turnOver } from "./section";
import { type Start, type Steps, wholeKg } from "./start";

/** The section in one moment, cells as in `Section`. */
export interface Frame {
  second: number;
  phase: Phase;
  celsius: Float64Array;
  bottom: Float64Array;
  thickness: Float64Array;
  widening: Float64Array;
  set: Float64Array;
}

export interface Trace {
  run: Run;
  start: Start;
  samples: Sample[];
  frames: Frame[];
  /** s in the oven until it was done: inside and what its kind is judged by; null when it was not. */
  doneS: number | null;
  marks: Marks;
  /** It was taken out before it had its colour, because it would have dried out. */
  pale: boolean;
  /** s when it left the oven, and the index of that sample. */
  outS: number;
  outSample: number;
  /** What the section was like when it left the oven. */
  out: { height: Float64Array; set: Float64Array; water: Float64Array; widening: number };
  /** s when a griddle cake was turned. */
  turnedS: number | null;
}

export interface Cooling {
  /** s in the tin before it is turned out. */
  tinS: number;
  /** The run ends when the warmest point is cooler than this, °C, or after so long, s. */
  untilC: number;
  longestS: number;
}

export interface Through {
  model?: Model;
  /** Takes it out after so many minutes, done or not. */
  minutes?: number | undefined;
  cooling?: Cooling;
  /** Keeps about so many frames of the section. */
  frames?: number;
}

/** A bake that is not done after so many steps will not be: 4 h in a tin, 25 min on a griddle. */
const MOST_STEPS = 3000;
const LONGEST_S = 4 * 3600;
const FIRST_MINUTE_S = 60;
const COOLING_DT = 30;
/** A griddle cake is turned when this share of it has set, and has had its colour when its second side is so brown as against the first. */
const TURN_AT_SET = 0.65;
const SECOND_SIDE = 0.5;
/** Samples, s: early and late. */
const SAMPLE_S = { early: 15, late: 30, lateFrom: 1200 };

/** Keeps frames at even distances: when there are twice as many as wanted, every other one is dropped. */
class Reel {
  frames: Frame[] = [];
  private every = 10;
  private next = 0;
  constructor(private wanted: number) {}
  see(run: Run, second: number, phase: Phase): void {
    if (this.wanted <= 0 || second < this.next) return;
    const { celsius, bottom, thickness, widening, set } = run.section;
    this.frames.push({
      second,
      phase,
      celsius: celsius.slice(),
      bottom: bottom.slice(),
      thickness: thickness.slice(),
      widening: widening.slice(),
      set: set.slice(),
    });
    if (this.frames.length > 2 * this.wanted) {
      this.frames = this.frames.filter((_, i) => i % 2 === 0);
      this.every *= 2;
    }
    this.next = second + this.every;
  }
}

/** Bakes until the core reaches its target (or for so many minutes), then cools in the tin and on a rack when asked. */
export function bakeThrough(start: Start, steps: Steps, through: Through = {}): Trace {
  const model = through.model ?? standardModel;
  const run = prepare(start, steps.grid, model);
  const { section, around } = run;
  const first = tablesFor(start, model, steps.firstDt);
  const later = tablesFor(start, model, steps.dt);
  const reel = new Reel(through.frames ?? 0);
  const samples: Sample[] = [];
  const hob = start.oven.mode === "hob";
  const insideC = start.oven.celsius + (start.oven.biasK ?? 0);
  const limit = through.minutes === undefined ? Math.min(LONGEST_S, MOST_STEPS * steps.dt) : through.minutes * 60;
  const brown: Brown = { top: 0, base: 0, rim: 0 };
  const marks = noMarks();
  const slips = start.shape.rim > 0 && wallOf(start.vessel) === "lets go";
  let pale = false;
  const washed = start.brushed?.faster ?? 1;
  const see = (second: number, phase: Phase, cell: number): void => {
    samples.push(sampleOf(run, start, second, phase, cell, brown));
  };
  const colour = (dt: number): void => {
    brown.top += washed * browned(run.topC[0]!, model.brownEnergy, dt);
    brown.base += browned(run.baseC[0]!, model.brownEnergy, dt);
    brown.rim += washed * browned(run.topC[section.columns - 1]!, model.brownEnergy, dt);
  };
  const depthM = section.height[0]!;
  let second = 0;
  let nextSample = SAMPLE_S.early;
  let turnedS: number | null = null;
  let doneS: number | null = null;
  let core = { cell: coldestInside(section).cell, celsius: start.batterC };
  see(0, "oven", core.cell);
  reel.see(run, 0, "oven");
  while (second < limit - 1e-9) {
    const dt = second < FIRST_MINUTE_S - 1e-9 ? steps.firstDt : steps.dt;
    if (!hob) around.airC = insideC - model.doorDropK * Math.exp(-second / model.doorDecayS);
    step(run, dt === steps.firstDt ? first : later, dt);
    second += dt;
    colour(dt);
    const before = core.celsius;
    core = coldestInside(section);
    if (hob && turnedS === null && meanSet(section) >= TURN_AT_SET) {
      turnOver(section);
      turnedS = second;
      brown.top = brown.base;
      brown.base = 0;
      core = coldestInside(section);
      for (let j = 0; j < section.columns; j++) run.topC[j] = section.celsius[(j + 1) * section.layers - 1]!;
    }
    if (marks.coreS === null && core.celsius >= start.targetC) {
      const over = core.celsius - start.targetC;
      marks.coreS = hob ? second : second - dt * Math.min(1, over / Math.max(1e-9, core.celsius - before));
    }
    mark(marks, run, start.judged, brown, second, slips);
    if (doneS === null && marks.coreS !== null) {
      const signs = { turned: turnedS !== null, brown, start, marks };
      if (isDone(signs)) doneS = hob || waitsForColour(start.judged) || start.judged === "snaps" ? second : marks.coreS;
      else if (
        waitsForColour(start.judged) &&
        !hob &&
        outOfPatience(second, marks.coreS, run.account.vapourOutKg / wholeKg(start), depthM)
      ) {
        doneS = second;
        pale = true;
      }
    }
    const ends = through.minutes === undefined ? doneS !== null : second >= limit - 1e-9;
    reel.see(run, second, "oven");
    if (second >= nextSample || ends) {
      see(second, "oven", core.cell);
      nextSample = second + (second < SAMPLE_S.lateFrom ? SAMPLE_S.early : SAMPLE_S.late);
    }
    if (ends) break;
  }
  const outS = second;
  const outSample = samples.length - 1;
  const out = {
    height: section.height.slice(),
    set: section.set.slice(),
    water: section.water.slice(),
    widening: section.widening[0]!,
  };
  if (through.cooling) {
    const { tinS, untilC, longestS } = through.cooling;
    const slow = tablesFor(start, model, COOLING_DT);
    around.airC = start.kitchenC;
    around.h = model.roomH;
    around.vapourPa = model.roomVapourPa;
    around.plateC = null;
    const hot: Hot = {
      gasVolume: section.gasVolume.slice(),
      celsius: section.celsius.slice(),
      roomC: start.kitchenC,
      wall: wallOf(start.vessel),
    };
    let warmest = Infinity;
    while (warmest > untilC && second - outS < longestS) {
      const outside = second - outS;
      around.onRack = outside >= tinS || start.shape.rim <= 0;
      const quick = outside < FIRST_MINUTE_S;
      const dt = quick ? steps.dt : COOLING_DT;
      step(run, quick ? later : slow, dt);
      drawIn(run, hot);
      stack(section);
      second += dt;
      colour(dt);
      warmest = -Infinity;
      for (let cell = 0; cell < section.cells; cell++) warmest = Math.max(warmest, section.celsius[cell]!);
      const phase = around.onRack ? "rack" : "tin";
      see(second, phase, core.cell);
      reel.see(run, second, phase);
    }
  }
  return { run, start, samples, frames: reel.frames, doneS, marks, pale, outS, outSample, out, turnedS };
}

/** Inside at its target, and what this kind is judged by; on a hob the second side's colour against the first. */
function isDone({ turned, brown, start, marks }: { turned: boolean; brown: Brown; start: Start; marks: Marks }): boolean {
  if (start.oven.mode === "hob") return turned && brown.base >= SECOND_SIDE * brown.top;
  if (start.judged === "snaps") return marks.dryS !== null;
  return !waitsForColour(start.judged) || isColoured(start.judged, brown);
}
