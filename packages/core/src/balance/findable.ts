import type { Fill } from "../bake/bake-schema";
import type { Simulation } from "../bake/simulation-schema";
import type { Body } from "../body/body";
import type { Kind } from "../formula/kinds";
import type { Process } from "../formula/process-schema";
import type { Weighed } from "../formula/component-mass";
import type { OpenLine } from "../formula/components-schema";
import type { Item } from "../formula/resolve";
import type { LiftParts } from "../lift/lift";
import type { Measures } from "../measure/units";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import type { Prove } from "./ways";

/** All that findings are read from. */
export interface Findable {
  /** The batter. */
  items: readonly Item[];
  /** What is beside it. */
  asides: readonly Weighed[];
  open: readonly OpenLine[];
  kind: Kind;
  measures: Measures;
  vessel: Vessel;
  /** Nobody named the pan: what is wrong with it is no fault of the formula. */
  isPanAssumed: boolean;
  oven: Oven;
  process: Process;
  lift: LiftParts;
  body: Body;
  fill: Fill;
  /** Where it is baked. */
  simulation?: Simulation | undefined;
  prove: Prove;
}
