import { scaled, within } from "../measure/range";
import type { Range } from "../measure/range-schema";
import type { Vessel } from "../pantry/vessel-schema";
import { brownWord } from "./browning";
import { fillVessel } from "./geometry";
import type { Simulation } from "./simulation-schema";
import { signs } from "./signs";
import type { Fill, BakedFill, Bake } from "./bake-schema";

/** What the kind of bake says of its end. */
export interface BakeTargets {
  targetCoreC: number;
  signs: string[];
  lossPercent: { low: number; mid: number; high: number };
  restBeforeCuttingMinutes: number;
  /** It is cut in slices, which want a cool crumb; else it is eaten as soon as it does not burn. */
  sliced: boolean;
}
/** How a batter lies in its vessel before any oven, lengths in mm. Throws `bad-vessel`. */
export function pouredFill(vessel: Vessel, massG: number, density: number): Fill {
  const { fillFraction, depthMm, pieces, pieceG, heightMm, widthMm } = fillVessel(vessel, massG, density);
  return {
    fillFraction,
    depthMm,
    crownMm: null,
    overflow: heightMm !== null && fillFraction > 1,
    pieces,
    pieceG,
    rimMm: heightMm,
    widthMm,
  };
}
/** How well a simulated growth is known, as a share of it; loss of water, as a share. */
const GROWTH_SPREAD = 0.12;
const LOSS_SPREAD = 0.25;
/** It waits when it is out later than its inside was done, by more than a grid or a clock tells. */
const WAITS = 1.04;
function waitOf({ judged, marks, minutes }: Simulation): Pick<Bake, "waitsFor" | "setAtMinutes"> {
  const golden = judged === "inside" && marks.golden !== null && marks.golden <= (marks.core ?? 0);
  if (golden || marks.core === null || minutes <= WAITS * marks.core) return { waitsFor: "core" };
  return { waitsFor: judged === "snaps" ? "dryness" : "colour", setAtMinutes: marks.core };
}
/** Every sign with its minute; those that are judged with the range of the whole bake. */
function signsOf(simulation: Simulation): Partial<Bake> {
  const { marks, done, browning } = simulation;
  const about = (minute: number | null): Range | null =>
    minute === null ? null : scaled({ low: done.low / done.mid, mid: 1, high: done.high / done.mid }, minute);
  const set = about(marks.core);
  return {
    ...(set ? { setMinutes: set } : {}),
    goldenMinutes: about(marks.golden),
    dryMinutes: about(marks.dry),
    signMinutes: signs.flatMap((sign) => {
      const minutes = marks[sign];
      return minutes === null ? [] : [{ sign, minutes }];
    }),
    outOfTinMinutes: simulation.outOfTinMinutes,
    firstBiteMinutes: simulation.biteAfterMinutes,
    cleanCutMinutes: simulation.cutAfterMinutes,
    top: brownWord(browning.top),
    base: brownWord(browning.base),
  };
}
/** Fill and bake read from a simulation. */
export function bakeOf(poured: Fill, targets: BakeTargets, simulation: Simulation): { fill: BakedFill; bake: Bake } {
  const growth = GROWTH_SPREAD * Math.max(0, simulation.highestMm - poured.depthMm);
  return {
    fill: {
      ...poured,
      crownMm: { low: simulation.highestMm - growth, mid: simulation.highestMm, high: simulation.highestMm + growth },
      overflow: poured.overflow || (poured.rimMm !== null && simulation.top === "over the rim"),
    },
    bake: {
      minutes: simulation.done,
      checkAtMinutes: simulation.checkAtMinutes,
      targetCoreC: simulation.targetC,
      // The probe and the words beside it say one figure.
      signs: targets.signs.map((sign) => sign.replace(/^\d+(?:–\d+)? °C/, `${Math.round(simulation.targetC)} °C`)),
      lossPercent: within(simulation.loss.oven, LOSS_SPREAD),
      restBeforeCuttingMinutes: targets.sliced ? simulation.cutAfterMinutes : simulation.biteAfterMinutes,
      ...waitOf(simulation),
      ...signsOf(simulation),
      fidelity: simulation.fidelity,
    },
  };
}
