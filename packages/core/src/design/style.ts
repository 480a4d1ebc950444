import type { Tilt } from "./flours";
import type { WishedLift } from "./wish";

/** One way of making what is wished for. */
export interface Style {
  id: "mild" | "sour" | "wholegrain" | "tender" | "eggless";
  lift: WishedLift;
  tilt: Tilt;
  sour: boolean;
  eggs: boolean;
  /** Which fat is reached for first. */
  fat: "solid" | "liquid";
}
