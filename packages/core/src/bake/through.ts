import { browned, COLOUR, GOLDEN } from "./browning";
import { drawIn, type Hot, wallOf } from "./cool";
import {
  allowance,
  type Brown,
  coloured,
  lingersTo,
  mark,
  type Marks,
  noMarks,
  noProgress,
  outOfPatience,
  waitsForColour,
} from "./done";
import type { Leg } from "./course";
import { type Air, airAfter, enter } from "./enter";
import { prepare, step, tablesFor } from "./kernel";
import { layOn } from "./lay-on";
import { type Model, standardModel } from "./model";
import { BETWEEN_FACES, coldestInside, meanSet, type Phase, type Sample, sampleOf } from "./probe";
import { type Frame, Recorder } from "./recorder";
import type { Run } from "./run";
import { type Section, stack, turnOver } from "./section";
import { brush, slabsForLater } from "./slabs";
import { onHob, type Start, type Steps, topsLater, wholeKg } from "./start";
import { aroundKitchen, laidShare } from "./surroundings";

export interface Trace {
  run: Run;
  start: Start;
  samples: Sample[];
  frames: Frame[];
  /** s in the oven until it was done: inside and what its kind is judged by; null when it was not. */
  doneS: number | null;
  marks: Marks;
  /** °C inside at which it was done: its target, or less where a skewer had long been clean. */
  insideC: number;
  /** It was taken out before it had its colour, because it would have dried out. */
  pale: boolean;
  /** s when it left the oven, and the index of that sample. */
  outS: number;
  outSample: number;
  /** What the section was like when it left the oven. */
  out: { height: Float64Array; set: Float64Array; water: Float64Array; widening: number };
  /** s when a griddle cake was turned. */
  turnedS: number | null;
  /** s when it was turned again, on a plate. */
  againS: number[];
  passed: Passed[];
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

/** A bake that is not done after so long will not be, s: in an oven and on a griddle. */
const LONGEST_S = 4 * 3600;
const LONGEST_ON_PLATE_S = 25 * 60;
/** A step is no longer than this share of the time since the bake went in or was turned: what has just met heat changes fast. */
const RAMP = 1 / 8;
const FIRST_MINUTE_S = 60;
/** Steps of the cooling, s: they double as `RAMP` lets them, since nothing but heat and steam that leave is left to follow. */
const COOLING: Steps["dt"][] = [30, 60, 120];
/** A griddle cake that was poured is turned when this share of it has set, dough that is laid on earlier, for it holds together. */
const TURN_AT_SET = { poured: 0.55, laid: 0.35 };
/** It has had its colour when its second side is so brown as against the first. */
const SECOND_SIDE = 0.5;
/** On a hob a face is coloured from so many minutes at 150 °C on (spots of gold); what is thin waits no longer than until it has lost this share of itself. */
const FACE = 0.6;
const FACE_LOSS = 0.26;
/** Heated from one side at a time a middle does not come near the boiling point: what has set there and has swollen its starch is done, °C; confidence C. */
const ON_PLATE_C = 78;
/** What is thick is turned again and again until its middle is done, each time when the face below has gained so much, minutes at 150 °C. */
const AGAIN = 2;
/** Nobody turns it sooner than so many s after the last time. */
const AGAIN_S = 90;
/** A step as long as this, s, is parted when what it waits for comes within it: it leaves the oven when it is done, not at the end of a step. */
const LONG_STEP_S = 4;
/** A stage is not followed in shorter steps than this, s. */
const SHORTEST_S = 0.25;
/** Samples, s: early and late. */
const SAMPLE_S = { early: 15, late: 30, lateFrom: 1200 };

/** A stage that is over, as it went. */
export interface Passed {
  leg: Leg;
  fromS: number;
  toS: number;
}

/** A wet topping has set when its coldest is this hot (starch and egg, 78 to 85 °C; confidence C); with less water it is crumbs and only warms. */
const TOPPING = { celsius: 80, wet: 0.3 };

/** Whether what was put on top is hot enough to hold. */
function toppingHolds({ section }: Run, rows: number): boolean {
  const { layers, columns, celsius, water, dry } = section;
  for (let j = 0; j < columns >> 1; j++) {
    for (let i = layers - rows; i < layers; i++) {
      const cell = j * layers + i;
      if (water[cell]! > TOPPING.wet * (water[cell]! + dry[cell]!) && celsius[cell]! < TOPPING.celsius) return false;
    }
  }
  return true;
}

/** A rim is what is seen of it: a ring so wide, m; the last millimetre at a hot wall is a line. */
const RIM_M = 0.01;

/** The shade of the rim of a top, minutes at 150 °C: the mean of its ring by area, on the scale of logarithms by which eyes tell colours apart. */
function rimShade({ columns, outer, inner, area }: Section, shades: Float64Array): number {
  let sum = 0;
  let whole = 0;
  for (let j = columns - 1; j >= 0 && outer[columns - 1]! - outer[j]! < RIM_M; j--) {
    const ring = Math.min(1, (RIM_M - outer[columns - 1]! + outer[j]!) / (outer[j]! - inner[j]!)) * area[j]!;
    sum += ring * Math.log(shades[j]! + COLOUR.pale);
    whole += ring;
  }
  return whole > 0 ? Math.exp(sum / whole) - COLOUR.pale : 0;
}

/** The step so many s after the heat has changed: the first one doubled as often as the ramp lets it, and no longer than the whole. */
function stepAfter({ dt, firstDt }: Steps, since: number): number {
  let step = firstDt;
  while (step < dt && 2 * step <= RAMP * since + 1e-9) step *= 2;
  return Math.min(step, dt);
}

/** Bakes until the core reaches its target (or for so many minutes), then cools in the tin and on a rack when asked. */
export function bakeThrough(start: Start, steps: Steps, through: Through = {}): Trace {
  const model = through.model ?? standardModel;
  const run = prepare(start, steps.grid, model);
  const { section, around } = run;
  const later = tablesFor(start, model, steps.dt);
  const recorder = new Recorder(through.frames ?? 0);
  const samples: Sample[] = [];
  const hob = onHob(start);
  /** What a skewer and a finger wait for. */
  const aim = hob ? Math.min(ON_PLATE_C, start.targetC) : start.targetC;
  const coldest = () => coldestInside(section, hob ? BETWEEN_FACES : undefined);
  const { course } = start;
  const longest = hob ? LONGEST_ON_PLATE_S : LONGEST_S;
  const limit = through.minutes === undefined ? longest : through.minutes * 60;
  const brown: Brown = { top: 0, base: 0, rim: 0, line: 0 };
  /** The same of every column of the top. */
  const shades = new Float64Array(section.columns);
  const marks = noMarks();
  const progress = noProgress();
  const slips = start.shape.rim > 0 && wallOf(start.vessel) === "lets go";
  let pale = false;
  let washed = topsLater(start) ? 1 : (start.brushed?.faster ?? 1);
  const see = (second: number, phase: Phase, cell: number): void => {
    samples.push(sampleOf(run, start, second, phase, cell, brown));
  };
  const colour = (dt: number): void => {
    const reacting = start.browns * dt;
    brown.top += browned(run.topC[0]!, model.brownEnergy, washed * reacting);
    brown.base += browned(run.baseC[0]!, model.brownEnergy, reacting);
    for (let j = 0; j < section.columns; j++) shades[j]! += browned(run.topC[j]!, model.brownEnergy, washed * reacting);
    brown.rim = rimShade(section, shades);
    brown.line = shades[section.columns - 1]!;
  };
  let second = 0;
  let nextSample = SAMPLE_S.early;
  let turnedS: number | null = null;
  const againS: number[] = [];
  /** How brown the face below was when it came to lie there. */
  let laidBrown = 0;
  let doneS: number | null = null;
  let insideC = start.targetC;
  let core = { cell: coldest().cell, celsius: start.batterC };
  const turn = (): void => {
    turnOver(section);
    if (turnedS === null) turnedS = second;
    else againS.push(second);
    settlesFrom = second;
    [brown.top, brown.base] = [brown.base, brown.top];
    laidBrown = brown.base;
    shades.fill(brown.top);
    core = coldest();
    for (let j = 0; j < section.columns; j++) run.topC[j] = section.celsius[(j + 1) * section.layers - 1]!;
  };
  const liftable = TURN_AT_SET.poured + (TURN_AT_SET.laid - TURN_AT_SET.poured) * laidShare(start.stiffness);
  /** On a plate: the first time when it holds together and its face has colour, and again while the middle waits. */
  const turns = (): boolean => {
    if (turnedS !== null) return marks.coreS === null && brown.base - laidBrown >= AGAIN && second - settlesFrom >= AGAIN_S;
    const coloured = brown.base >= FACE || run.account.vapourOutKg >= (FACE_LOSS / 2) * wholeKg(start);
    return coloured && meanSet(section) >= liftable;
  };
  /** Rows that were put on top in a later stage. */
  let laid = 0;
  const passed: Passed[] = [];
  const stageEnds = (leg: Leg, inLeg: number, last: boolean): boolean => {
    if (leg.lastsS !== null) return inLeg >= leg.lastsS - 1e-9;
    const patience = marks.coreS !== null && outOfPatience(second, marks.coreS, run.account.vapourOutKg / wholeKg(start), depthM);
    if (leg.until === "set") return marks.coreS !== null;
    if (leg.until === "golden") return marks.goldenS !== null || patience;
    if (leg.until === "dry") return marks.dryS !== null || patience;
    return last && doneS !== null && (laid === 0 || toppingHolds(run, laid));
  };
  const depthM = section.height[0]!;
  let at = 0;
  let legStart = 0;
  let air: Air = { insideC: around.airC, door: 0, dial: 0 };
  let settlesFrom = 0;
  /** s until the next thing that it waits for, core or colour, at the pace of the last step. */
  let awaited = Infinity;
  const begin = (before: Leg | null): void => {
    const leg = course[at]!;
    air = enter(run, start, leg, before && { leg: before, airC: around.airC }, model);
    legStart = second;
    if (leg.turned && second > 0) turn();
    if (!leg.topped) return;
    for (const slab of slabsForLater(start)) {
      const rows = layOn(run, slab);
      laid += rows;
      recorder.grow(section.columns, rows);
    }
    if (start.brushed) {
      brush(section, start.brushed.waterKg);
      washed = start.brushed.faster;
    }
    brown.top = 0;
    shades.fill(0);
    core = coldest();
  };
  begin(null);
  see(0, "oven", core.cell);
  recorder.see(run, 0, "oven");
  while (second < limit - 1e-9) {
    const leg = course[at]!;
    const last = at === course.length - 1;
    const settled = stepAfter(steps, second - settlesFrom);
    const whole = settled >= LONG_STEP_S && awaited < settled ? settled / 4 : settled;
    // A stage ends to the second, and so does a bake that is told its minutes.
    const told = through.minutes === undefined ? whole : limit - second;
    const left = Math.min(told, leg.lastsS === null ? whole : leg.lastsS - (second - legStart));
    const dt = left < whole - 1e-9 ? Math.max(left, SHORTEST_S) : whole;
    around.airC = airAfter(air, second - legStart, model);
    step(run, dt === steps.dt ? later : tablesFor(start, model, dt), dt);
    second += dt;
    colour(dt);
    const before = core.celsius;
    core = coldest();
    const lossShare = run.account.vapourOutKg / wholeKg(start);
    if (hob && turns()) turn();
    const wanted = hob && progress.setS !== null ? aim : start.targetC - allowance(progress, second);
    if (marks.coreS === null && core.celsius >= wanted) {
      insideC = wanted;
      const over = core.celsius - wanted;
      marks.coreS = hob ? second : second - dt * Math.min(1, over / Math.max(1e-9, core.celsius - before));
    }
    const colourBefore = progress.colour;
    mark(marks, progress, run, start, brown, second, dt, slips, aim - core.celsius);
    awaited =
      marks.coreS === null
        ? (dt * (wanted - core.celsius)) / Math.max(1e-9, core.celsius - before)
        : waitsForColour(start.judged) && marks.goldenS === null
          ? (dt * (1 - progress.colour)) / Math.max(1e-9, progress.colour - colourBefore)
          : Infinity;
    const wet = laid > 0 && !toppingHolds(run, laid);
    if (doneS === null && marks.coreS !== null && !wet && !(topsLater(start) && laid === 0)) {
      const signs = {
        turned: turnedS !== null && (brown.base >= SECOND_SIDE * FACE || lossShare >= FACE_LOSS),
        brown,
        start,
        marks,
        second,
      };
      if (isDone(signs)) doneS = hob || laid > 0 ? second : lastOf(marks, start);
      else if (
        waitsForColour(start.judged) &&
        !hob &&
        last &&
        outOfPatience(second, marks.coreS, run.account.vapourOutKg / wholeKg(start), depthM)
      ) {
        doneS = second;
        pale = true;
      }
    }
    const over = stageEnds(leg, second - legStart, last);
    const ends = through.minutes === undefined ? over && last : second >= limit - 1e-9;
    recorder.see(run, second, "oven");
    if (second >= nextSample || ends) {
      see(second, "oven", core.cell);
      nextSample = second + (second < SAMPLE_S.lateFrom ? SAMPLE_S.early : SAMPLE_S.late);
    }
    if (ends || over) passed.push({ leg, fromS: legStart, toS: second });
    if (ends) break;
    if (over && !last) {
      at++;
      begin(leg);
    }
  }
  if (passed.length <= at) passed.push({ leg: course[at]!, fromS: legStart, toS: second });
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
    const slow = COOLING.map((dt) => ({ dt, tables: tablesFor(start, model, dt) }));
    const free = course[at]!.free;
    Object.assign(around, aroundKitchen(start.kitchenC, model));
    const hot: Hot = {
      gasVolume: section.gasVolume.slice(),
      celsius: section.celsius.slice(),
      roomC: start.kitchenC,
      wall: wallOf(start.vessel),
      hangs: start.hangs === true,
    };
    let warmest = Infinity;
    while (warmest > untilC && second - outS < longestS) {
      const outside = second - outS;
      around.onRack = free || outside >= tinS || start.shape.rim <= 0;
      // In its tin it is followed closely until it is turned out.
      const since = Number.isFinite(tinS) ? (around.onRack ? outside - (start.shape.rim <= 0 ? 0 : tinS) : 0) : outside;
      const settled = slow.findLast(({ dt }) => dt <= Math.max(COOLING[0]!, RAMP * since))!;
      const { dt, tables } = outside < FIRST_MINUTE_S ? { dt: steps.dt, tables: later } : settled;
      step(run, tables, dt);
      drawIn(run, hot);
      stack(section);
      second += dt;
      colour(dt);
      warmest = -Infinity;
      for (let cell = 0; cell < section.cells; cell++) warmest = Math.max(warmest, section.celsius[cell]!);
      const phase = around.onRack ? "rack" : "tin";
      see(second, phase, core.cell);
      recorder.see(run, second, phase);
    }
  }
  return {
    run,
    start,
    insideC,
    samples,
    frames: recorder.frames,
    doneS,
    marks,
    pale,
    outS,
    outSample,
    out,
    turnedS,
    againS,
    passed,
  };
}

interface Signs {
  turned: boolean;
  brown: Brown;
  start: Start;
  marks: Marks;
  second: number;
}

/** Inside at its target, and what this kind is judged by; on a hob the second side's colour against the first. */
function isDone({ turned, brown, start, marks, second }: Signs): boolean {
  if (onHob(start)) return turned && brown.base >= SECOND_SIDE * Math.min(brown.top, GOLDEN);
  if (start.judged === "snaps") return marks.dryS !== null;
  if (waitsForColour(start.judged)) return coloured(start, brown) >= 1;
  return marks.coreS !== null && second >= lingersTo(marks, marks.coreS, start) - 1e-9;
}

/** When the last sign that its kind waits for was there, s. */
function lastOf(marks: Marks, start: Start): number {
  const core = marks.coreS ?? 0;
  if (start.judged === "inside") return lingersTo(marks, core, start);
  return Math.max(core, (start.judged === "snaps" ? marks.dryS : marks.goldenS) ?? 0);
}
