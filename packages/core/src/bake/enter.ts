import type { Heat } from "../formula/stage-kinds";
import type { Leg } from "./course";
import type { Model } from "./model";
import type { Run } from "./run";
import type { Start } from "./start";
import { convectionOf } from "./surroundings";

/** Whether the door is opened between two stages, beyond a turn of the dial. */
const opens = (from: Leg, to: Leg): boolean =>
  to.turned || to.topped || from.covered !== to.covered || from.free !== to.free || inOven(from) !== inOven(to);

const inOven = ({ heat }: Leg): boolean => heat !== "hob" && heat !== "counter";

/** A fan evens out half of what the shelves differ by. */
const FAN_EVENS = 0.5;
const tiltOf = ({ shelf }: Start["oven"], fan: boolean, model: Model): number =>
  (shelf === "low" ? 1 : shelf === "high" ? -1 : 0) * model.shelfK * (fan ? FAN_EVENS : 1);

/** The air of one stage: what it comes to, and by how much it is under that for the door and for the dial, K. */
export interface Air {
  insideC: number;
  door: number;
  dial: number;
}

/** Sets the surroundings of a stage. `before` is the stage it follows and the air then. */
export function enter(run: Run, start: Start, leg: Leg, before: { leg: Leg; airC: number } | null, model: Model): Air {
  const { around } = run;
  const { oven, kitchenC } = start;
  const hob = leg.heat === "hob";
  const outside = hob || leg.heat === "counter";
  const mode = leg.heat === "grill" ? "still" : leg.heat;
  around.h = mode === "counter" ? model.roomH : (start.convection ?? convectionOf(mode).h);
  around.plateC = hob ? leg.celsius : null;
  around.vapourPa = outside ? model.roomVapourPa : model.ovenVapourPa;
  around.onRack = leg.free;
  around.tilt = outside || leg.heat === "air-fryer" ? 0 : tiltOf(oven, leg.heat === "fan", model);
  around.grill = leg.heat === "grill" ? model.grillView : 0;
  around.cover = leg.covered ? 1 / model.coverGap : 0;
  around.lets = leg.covered ? model.coverLeak : 1;
  const insideC = outside ? kitchenC : leg.celsius + (oven.biasK ?? 0);
  // Another oven than before is hot already; so is the first.
  const same = before !== null && inOven(before.leg) && !outside && sameOven(before.leg.heat, leg.heat);
  const door = outside || (before !== null && !opens(before.leg, leg)) ? 0 : model.doorDropK;
  const air = { insideC, door, dial: same ? insideC - before.airC : 0 };
  around.airC = airAfter(air, 0, model);
  return air;
}

const sameOven = (a: Heat, b: Heat): boolean => (a === "air-fryer") === (b === "air-fryer");

/** The air so many s into a stage, °C. */
export const airAfter = ({ insideC, door, dial }: Air, second: number, model: Model): number =>
  insideC - door * Math.exp(-second / model.doorDecayS) - dial * Math.exp(-second / model.ovenLagS);
