import { baseArea, type Section, type SectionShape, volumeTo, wideningAt } from "./section";
import type { Simulation } from "./simulation-schema";
import { depthAtStart, onHob, type Start, wholeKg } from "./start";
import { INSIDE, type Sample } from "./probe";
import type { Frame } from "./recorder";
import type { Trace } from "./through";

/** Edges of words, as shares of the crown: a hollow in the cooled top, a fall from its highest, a dome, a peak. Confidence C. */
const WORD = { hollow: 0.12, slumped: 0.22, fallen: 0.18, domed: 0.1, peaked: 0.42 };
/** A crumb counts as gummy under this share set, or over this much of its first water. */
const GUMMY = { set: 0.9, water: 1.35 };
/** Batter stands over a rim as a cap: so high over the half-width. A cup's top is held by its own crust all around and mushrooms. */
const CAP = { broad: 0.45, cup: 0.7, cupUnderM: 0.06 };
/** What stands over a rim by less than this, as a share of what the pan holds, no one sees; volumes are known within a tenth. */
const SEEN_OVER = 0.08;
/** The crumb carries itself when so much of it has set. */
const CARRIES = 0.9;
/** A clean cut wants a crumb whose amylose has gelled, °C. */
export const CUT_C = 50;
/** A first bite wants a surface that does not burn, °C, and no one eats sooner, min. */
const BITE_C = 60;
const LEAST_BITE_MIN = 2;
/** s in the tin after the oven, where nothing is said: cups are freed sooner than loaves. */
const IN_TIN_S = { cup: 300, tin: 600 };
export const tinS = ({ shape, inTinS }: Pick<Start, "shape" | "inTinS">): number =>
  inTinS ?? (shape.form === "axial" && shape.reach < CAP.cupUnderM ? IN_TIN_S.cup : IN_TIN_S.tin);

const mm = (metres: number): number => Math.round(metres * 1e4) / 10;
const rounded = (value: number, digits: number): number => Math.round(value * 10 ** digits) / 10 ** digits;

/** Volume that a vessel holds with a cap over its rim, m³; Infinity without a wall. */
export function holdsWithCap(shape: SectionShape): number {
  if (shape.rim <= 0) return Infinity;
  const flare = wideningAt(shape, shape.rim);
  const area = baseArea(shape) * flare;
  const half = shape.form === "axial" ? shape.reach * Math.sqrt(flare) : shape.reach;
  const cap = (shape.form === "axial" && half < CAP.cupUnderM ? CAP.cup : CAP.broad) * half;
  return (
    volumeTo(shape, shape.rim) +
    (shape.form === "axial" ? (Math.PI * cap * (3 * half * half + cap * cap)) / 6 : (2 / 3) * cap * area)
  );
}

function frameOf(frame: Frame, free: boolean): Simulation["section"]["frames"][number] {
  return {
    time: rounded(frame.second, 1),
    phase: frame.phase,
    z: Array.from(frame.bottom, (bottom, cell) => mm(bottom + frame.thickness[cell]!)),
    spread: free ? rounded(Math.sqrt(frame.widening[0]!), 3) : 1,
    celsius: Array.from(frame.celsius, (t) => rounded(t, 1)),
    set: Array.from(frame.set, (s) => rounded(s, 2)),
  };
}

/** Rows in a row that are no batter. */
function layersIn({ layers: rows, batter }: Section): Simulation["section"]["layers"] {
  const out: { from: number; to: number }[] = [];
  for (let row = 0; row < rows; row++) {
    if (batter[row] === 1) continue;
    const last = out.at(-1);
    if (last && last.to === row - 1) last.to = row;
    else out.push({ from: row, to: row });
  }
  return out;
}

/** The crumb that has not set or holds too much water when it leaves the oven. On a plate the open side is soft beside a middle that is done; it is told apart. */
function gummyOf({ run, out, start }: Trace): Simulation["gummy"] {
  const { section } = run;
  const across = onHob(start) ? INSIDE.across * (section.outer[section.columns - 1] ?? 0) : Infinity;
  let gummy = 0;
  let side = 0;
  let whole = 0;
  let height = 0;
  for (let cell = 0; cell < section.cells; cell++) {
    if (section.batter[cell] === 0) continue;
    const dry = section.dry[cell]!;
    whole += dry;
    if (out.set[cell]! >= GUMMY.set && out.water[cell]! <= GUMMY.water * dry * section.perDry.water[cell]!) continue;
    const column = Math.floor(cell / section.layers);
    if ((section.inner[column]! + section.outer[column]!) / 2 > across) side += dry;
    else gummy += dry;
    if (column === 0) height += section.thickness[cell]!;
  }
  return { share: rounded(gummy / whole, 3), side: rounded(side / whole, 3), mm: mm(height) };
}

function topOf(trace: Trace, overflowMl: number): Simulation["top"] {
  const { height, columns } = trace.run.section;
  const middle = height[0]!;
  const edge = height[columns - 1]!;
  let highest = 0;
  for (let j = 0; j < columns; j++) highest = Math.max(highest, height[j]!);
  if (overflowMl > 1) return "over the rim";
  const once = trace.samples.reduce((all, sample) => Math.max(all, sample.middleM), 0);
  if (highest - middle > WORD.hollow * highest || once - middle > (trace.start.shape.rim > 0 ? WORD.fallen : WORD.slumped) * once)
    return "sunken";
  // A ball or a heap is higher in its middle from the beginning.
  if (trace.start.shape.profile) return "domed";
  const dome = (middle - edge) / highest;
  return dome > WORD.peaked ? "peaked" : dome > WORD.domed ? "domed" : "flat";
}

/** When a cooling sample first is as cool as this, s, between two of them in proportion; the last of them where none is. */
function cooledTo(samples: readonly Sample[], at: "coreC" | "surfaceC", celsius: number): number {
  const k = samples.findIndex((sample) => sample[at] <= celsius);
  const [before, after] = [samples[k - 1], samples[k]];
  if (!after) return samples.at(-1)!.second;
  if (!before) return after.second;
  return before.second + ((after.second - before.second) * (before[at] - celsius)) / (before[at] - after[at]);
}
const minutesAfter = (outS: number, second: number): number => Math.ceil((second - outS) / 60 - 1e-9);

function marksOf({ marks }: Trace): Simulation["marks"] {
  const minute = (second: number | null): number | null => (second === null ? null : rounded(second / 60, 1));
  return {
    core: minute(marks.coreS),
    golden: minute(marks.goldenS),
    dry: minute(marks.dryS),
    skewer: minute(marks.skewerS),
    springs: minute(marks.springsS),
    edge: minute(marks.edgeS),
  };
}

/** Everything that is read from a trace, but for the range of `done` and its sensitivities. */
export function outcomeOf(trace: Trace): Omit<Simulation, "fidelity" | "done" | "sensitivity" | "notes" | "checkAtMinutes"> {
  const { run, start, samples, outSample, outS, doneS } = trace;
  const { section } = run;
  const out = samples[outSample]!;
  const last = samples.at(-1)!;
  const edge = section.columns - 1;
  const largest = samples.reduce((all, sample) => Math.max(all, sample.volumeM3), 0);
  const overflowMl = Math.max(0, largest - (1 + SEEN_OVER) * holdsWithCap(start.shape)) * 1e6;
  const carries = samples.find((sample) => sample.phase === "oven" && sample.set >= CARRIES);
  const afterOut = samples.slice(outSample);
  const carried = afterOut.find(({ set }) => set >= CARRIES)?.second ?? last.second;
  const cutAfterMinutes = minutesAfter(outS, cooledTo(afterOut, "coreC", CUT_C));
  const biteAfterMinutes = minutesAfter(outS, Math.max(carried, cooledTo(afterOut, "surfaceC", BITE_C)));
  return {
    times: samples.map((sample) => rounded(sample.second, 1)),
    phases: samples.map((sample) => sample.phase),
    coreC: samples.map((sample) => rounded(sample.coreC, 2)),
    crownMm: samples.map((sample) => mm(sample.crownM)),
    edgeMm: samples.map((sample) => mm(sample.edgeM)),
    gas: samples.map((sample) => rounded(sample.gas, 4)),
    set: samples.map((sample) => rounded(sample.set, 4)),
    surfaceC: samples.map((sample) => rounded(sample.surfaceC, 1)),
    lossPercent: samples.map((sample) => rounded(100 * sample.lossShare, 2)),
    section: {
      rows: section.layers,
      columns: section.columns,
      form: start.shape.form,
      xMm: Array.from(section.outer, mm),
      flare: start.shape.form === "axial" ? start.shape.flare : Math.sqrt(start.shape.flare),
      rimMm: start.shape.rim > 0 ? mm(start.shape.rim) : null,
      layers: layersIn(section),
      frames: trace.frames.map((frame) => frameOf(frame, start.shape.rim <= 0)),
    },
    reached: doneS !== null,
    targetC: rounded(trace.insideC, 1),
    minutes: rounded(outS / 60, 2),
    turnAtMinutes: trace.turnedS !== null ? rounded(trace.turnedS / 60, 1) : carries ? Math.ceil(carries.second / 60) : null,
    againAtMinutes: trace.againS.map((second) => rounded(second / 60, 1)),
    depthMm: mm(depthAtStart(start)),
    top: topOf(trace, overflowMl),
    highestMm: samples.reduce((all, sample) => Math.max(all, mm(sample.crownM)), 0),
    outMm: { middle: mm(trace.out.height[0]!), edge: mm(trace.out.height[edge]!) },
    cooledMm: { middle: mm(section.height[0]!), edge: mm(section.height[edge]!) },
    overflowMl: rounded(overflowMl, 0),
    volumeMlPerG: rounded((out.volumeM3 * 1000) / (wholeKg(start) * (1 - out.lossShare)), 2),
    loss: { oven: rounded(100 * out.lossShare, 1), cooled: rounded(100 * last.lossShare, 1) },
    browning: { top: rounded(out.brownTop, 2), base: rounded(out.brownBase, 2), rim: rounded(out.brownRim, 2) },
    judged: start.judged,
    marks: marksOf(trace),
    stages: trace.passed.map(({ leg, fromS, toS }) => ({
      from: rounded(fromS / 60, 1),
      to: rounded(toS / 60, 1),
      mode: leg.heat,
      celsius: rounded(leg.celsius, 0),
      covered: leg.covered,
      free: leg.free,
      turned: leg.turned,
      topped: leg.topped,
    })),
    pale: trace.pale,
    spreadPercent: start.shape.rim > 0 ? 0 : rounded(100 * (Math.sqrt(trace.out.widening) - 1), 0),
    gummy: gummyOf(trace),
    carryOverK: rounded(Math.max(0, ...afterOut.map((sample) => sample.coreC - out.coreC)), 1),
    cutAfterMinutes,
    outOfTinMinutes: start.shape.rim <= 0 ? 0 : Number.isFinite(tinS(start)) ? tinS(start) / 60 : cutAfterMinutes,
    biteAfterMinutes: Math.max(LEAST_BITE_MIN, biteAfterMinutes),
  };
}
