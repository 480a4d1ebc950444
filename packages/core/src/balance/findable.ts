import type { Bake, Fill } from "../bake/bake";
import type { Simulation } from "../bake/simulation";
import type { Body } from "../body/body";
import type { Kind } from "../formula/kinds";
import type { Process } from "../formula/process";
import type { Item } from "../formula/resolve";
import type { LiftParts } from "../lift/lift";
import type { Measures } from "../measure/units";
import type { Oven } from "../pantry/vessel";

/** All that findings are read from. */
export interface Findable {
  items: readonly Item[];
  kind: Kind;
  measures: Measures;
  oven: Oven;
  process: Process;
  lift: LiftParts;
  body: Body;
  fill: Fill;
  bake: Bake;
  /** Where the bake has been simulated. */
  simulation?: Simulation | undefined;
}
