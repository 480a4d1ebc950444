import type { Vessel } from "../pantry/vessel-schema";
import type { Run } from "./run";

/**
 * Share of the gas of a set crumb that it gives up on its way to room temperature, as its steam condenses and its elasticity draws it in (2 to 8 % of the
 * height, confidence C): always, and more where it is under-set, torn or over-wet.
 */
const SHRINKS = { always: 0.06, underSet: 0.4, torn: 0.35, wet: 0.25, wetFrom: 1.1, most: 0.5 };
/**
 * How much of that a wall that holds the crumb leaves, at the wall and in the middle; paper follows it and gives way. Upside down its own weight draws it out, as
 * long as the wall holds it (confidence C).
 */
const GRIP = { edge: 0.25, middle: 0.7, paper: 0.6, hung: 0.1 };

/** What a wall does to a crumb that draws in. */
export type Wall = "holds" | "follows" | "lets go";

/** A bare or base-greased wall holds the edge; a greased or rubber one lets it go; paper follows. */
export function wallOf({ shape, lining, material }: Vessel): Wall {
  if (shape === "free" || shape === "griddle") return "lets go";
  if (lining === "paper" || lining === "paper-cups") return "follows";
  return lining === "greased" || material === "silicone" ? "lets go" : "holds";
}

/** What the crumb was like when it left the oven. */
export interface Hot {
  gasVolume: Float64Array;
  celsius: Float64Array;
  roomC: number;
  wall: Wall;
  /** Upside down in its tin. */
  hangs: boolean;
}

/** Draws a cooling crumb in, cell by cell, by how far it has cooled; never out again. */
export function drawIn({ section, model }: Run, hot: Hot): void {
  const { layers, columns, set, torn, water, dry, perDry, celsius, gasVolume, batter, outer } = section;
  const reach = outer[columns - 1]!;
  for (let j = 0; j < columns; j++) {
    const across = outer[j]! / reach;
    const held =
      hot.hangs && hot.wall === "holds"
        ? GRIP.hung
        : hot.wall === "holds"
          ? GRIP.middle + (GRIP.edge - GRIP.middle) * across
          : hot.wall === "follows"
            ? GRIP.paper
            : 1;
    for (let i = 0; i < layers; i++) {
      const cell = j * layers + i;
      if (batter[cell] === 0 || set[cell]! < model.setShare) continue;
      const cooled = Math.min(1, Math.max(0, (hot.celsius[cell]! - celsius[cell]!) / Math.max(1, hot.celsius[cell]! - hot.roomC)));
      const wet = water[cell]! / (dry[cell]! * perDry.water[cell]!) - SHRINKS.wetFrom;
      const share =
        SHRINKS.always + SHRINKS.underSet * (1 - set[cell]!) + SHRINKS.torn * torn[cell]! + SHRINKS.wet * Math.max(0, wet);
      const now = hot.gasVolume[cell]! * (1 - held * Math.min(SHRINKS.most, share) * cooled);
      if (now < gasVolume[cell]!) gasVolume[cell] = now;
    }
  }
}
