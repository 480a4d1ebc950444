import type { BakedFill } from "../bake/bake-schema";
import type { JudgedBy } from "../bake/judged";
import { startOf } from "../bake/ready";
import { simulateStart } from "../bake/simulate";
import type { Simulation } from "../bake/simulation-schema";
import type { Start } from "../bake/start";
import type { Body } from "../body/body";
import type { Weighed } from "../formula/component-mass";
import type { Said } from "../formula/formula";
import type { Process } from "../formula/process-schema";
import { type Item, massOf } from "../formula/resolve";
import type { Gas } from "../lift/gas";
import { gramsText } from "../measure/amounts";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import { findingLimits as limits } from "./finding";
import type { Finding } from "./finding-schema";

/** What a bake was simulated from, and what came out. */
export interface BakedBy {
  items: readonly Item[];
  asides: readonly Weighed[];
  vessel: Vessel;
  oven: Oven;
  process: Process;
  body: Body;
  gas: Gas;
  crumbPh: number;
  targets: { targetCoreC: number; judgedBy: JudgedBy };
  fill: BakedFill;
  simulation: Simulation;
}

/** The recipe's minutes and the computed ones differ by more than this factor, and by so much that it wants more than a remark. */
const DIFFERS = 1.15;
const PLAINLY = 1.4;
/** The same batter still, as a share of it; the same heat, K. */
const SAME_MASS = 0.1;
const SAME_K = 3;
/** Cores that differ by less than this are the same, K. */
const SAME_CORE_K = 3;
/** Another number of pans is what the recipe meant when its minutes are within this factor. */
const MEANT = 1.3;
const MOST_PANS = 3;
/** A loss of water in the oven that leaves a dry bake, % of it. */
const DRY_LOSS = 22;

const vesselWord: Record<Vessel["shape"], string> = {
  rectangular: "this tin",
  round: "this tin",
  ring: "this ring",
  muffin: "these cups",
  free: "pieces of this size",
  griddle: "this griddle",
};
const countWord = ["", "One", "Two", "Three"];

const minutesText = (low: number, high: number): string =>
  Math.round(low) === Math.round(high) ? `${Math.round(low)} min` : `${Math.round(low)} to ${Math.round(high)} min`;

const same = (a: Vessel, b: Vessel): boolean =>
  a.shape === b.shape &&
  (["lengthMm", "widthMm", "heightMm", "diameterMm", "pieces", "material"] as const).every((key) => a[key] === b[key]);

/**
 * Where the recipe's own word and the bake of this formula disagree. What the baker has changed since is no contradiction. With `ways` what would
 * agree is baked too.
 */
export function recipeFindings(said: Said | undefined, baked: BakedBy, ways: boolean): Finding[] {
  if (!said) return [];
  const { items, vessel, oven, simulation } = baked;
  if (vessel.shape === "griddle" || oven.mode === "hob" || baked.process.elsewhere !== undefined || !simulation.reached) return [];
  const asRecipe =
    same(said.vessel, vessel) &&
    (said.celsius === undefined || Math.abs(said.celsius - oven.celsius) <= SAME_K) &&
    Math.abs(massOf(items) - said.batterG) <= SAME_MASS * Math.max(1, said.batterG);
  return asRecipe ? [...minutesFindings(said, baked, ways), ...yieldFindings(said, baked, ways), ...coreFindings(said, baked)] : [];
}

const startFor = ({ items, asides, oven, process, body, gas, crumbPh, targets }: BakedBy, vessel: Vessel): Start =>
  startOf(items, vessel, oven, process, body, gas, crumbPh, targets, asides);

/** Minutes when the same batter is in so many times the vessels, by simulation. */
function minutesIn(times: number, baked: BakedBy): number {
  const { vessel, fill } = baked;
  const more: Vessel = { ...vessel, pieces: Math.round((vessel.pieces ?? fill.pieces) * times) };
  const { pieceG: _, ...split } = more;
  return simulateStart(startFor(baked, split), 0, { frames: 0, spread: 0, withoutCooling: true }).done.mid;
}

function minutesFindings(said: Said, baked: BakedBy, ways: boolean): Finding[] {
  const { minutes } = said;
  // A bake that the text lays out in stages is compared where it is computed in stages.
  if (!minutes || ((said.stages?.length ?? 0) > 1 && !baked.process.stages)) return [];
  const { low, high, mid } = baked.simulation.done;
  const longer = low / minutes.high;
  const shorter = minutes.low / high;
  const factor = Math.max(longer, shorter);
  if (factor < DIFFERS) return [];
  // Longer in the oven than its core needs is no fault, unless it burns or dries: many bakes wait for their colour.
  if (shorter > longer && !suffers(minutes.low, baked)) return [];
  const where = said.panNamed ? vesselWord[baked.vessel.shape] : `the recipe names no pan, and ${vesselWord[baked.vessel.shape]}`;
  const fix = ways && longer > shorter ? moreVessels(minutes, baked) : null;
  return [
    {
      id: "recipe-differs",
      severity: factor > PLAINLY ? "caution" : "note",
      message: `The recipe says ${minutesText(minutes.low, minutes.high)}; ${where} with ${gramsText(massOf(baked.items))} of batter ${baked.vessel.shape === "free" || baked.vessel.shape === "muffin" ? "take" : "takes"} ${minutesText(low, high)}.`,
      why: `The batter stands ${Math.round(baked.fill.depthMm)} mm deep at ${baked.oven.celsius} °C. A recipe's minutes are for its writer's pan and oven; time grows with the depth squared.`,
      fix:
        fix ??
        (longer > shorter
          ? `Go by the core, not by the clock: it is there after about ${Math.round(mid)} min.`
          : `Look at it from ${baked.simulation.checkAtMinutes} min on.`),
      ingredientIds: [],
    },
  ];
}

/** Whether a bake that stays in for so many minutes is dark, or has lost much more water than it should. */
function suffers(minutes: number, baked: BakedBy): boolean {
  const { browning, loss } = simulateStart(startFor(baked, baked.vessel), 0, {
    minutes,
    frames: 0,
    spread: 0,
    withoutCooling: true,
  });
  return browning.top > limits.darkTop || loss.oven > DRY_LOSS;
}

/** How many vessels would bake in the recipe's minutes; null where none of a few would. */
function moreVessels(minutes: { low: number; high: number }, baked: BakedBy): string | null {
  const { shape, pieces } = baked.vessel;
  if (shape === "muffin" || shape === "free") return null;
  for (let times = 2; times <= MOST_PANS; times++) {
    const found = minutesIn(times, baked);
    if (found <= MEANT * minutes.high && found >= minutes.low / MEANT) {
      const count = times * (pieces ?? 1);
      return `${countWord[count] ?? count} ${shape === "ring" ? "rings" : "tins"} would take about ${Math.round(found)} min.`;
    }
  }
  return null;
}

function yieldFindings({ pieces }: Said, baked: BakedBy, ways: boolean): Finding[] {
  const { vessel, fill, simulation, items } = baked;
  if (pieces === undefined || (vessel.shape !== "muffin" && vessel.shape !== "free") || fill.pieces === pieces) return [];
  const each = massOf(items) / pieces;
  return [
    {
      id: "recipe-differs",
      severity: "note",
      message: `The recipe makes ${pieces}; here it is ${fill.pieces}, of ${gramsText(fill.pieceG)} each.`,
      why: `${Math.round(simulation.done.mid)} min are for pieces of ${gramsText(fill.pieceG)}.`,
      ...(ways
        ? {
            fix: `${pieces} of them are ${gramsText(each)} each and take about ${Math.round(minutesIn(pieces / fill.pieces, baked))} min.`,
          }
        : {}),
      ingredientIds: [],
    },
  ];
}

function coreFindings({ coreC }: Said, { simulation, targets }: BakedBy): Finding[] {
  // A crumb that has long been set is done a little under what its kind is said to want: both are the same crumb.
  const [least, most] = [simulation.targetC, Math.max(simulation.targetC, targets.targetCoreC)];
  if (coreC === undefined || (coreC >= least - SAME_CORE_K && coreC <= most + SAME_CORE_K)) return [];
  const at = simulation.times.findIndex((_, i) => simulation.phases[i] === "oven" && (simulation.coreC[i] ?? 0) >= coreC);
  const when = at < 0 ? null : Math.round((simulation.times[at] ?? 0) / 60);
  return [
    {
      id: "recipe-differs",
      severity: "note",
      message: `The recipe stops at a core of ${Math.round(coreC)} °C; this kind is usually done at ${Math.round(simulation.targetC)} °C.`,
      why:
        when === null
          ? "In the computed bake the middle never gets there."
          : `The middle is at ${Math.round(coreC)} °C after ${when} min, at ${Math.round(simulation.targetC)} °C after ${Math.round(simulation.minutes)}.`,
      ingredientIds: [],
    },
  ];
}
