import { simulateStart } from "../bake/simulate";
import type { Simulation } from "../bake/simulation-schema";
import { ready } from "../balance/readings";
import type { Opened } from "../formula/open";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { coreAtOut } from "./outcome";
import type { Predicted } from "./trial";

/** Height at a place across, 0 at the middle and 1 at the edge, mm, from the last frame's upper faces. */
function heightAt({ section }: Simulation, share: number): number {
  const frame = section.frames.at(-1);
  if (!frame) return 0;
  const { rows, columns, xMm } = section;
  const half = xMm.at(-1) ?? 1;
  const at = xMm.findIndex((edge) => edge >= share * half - 1e-9);
  const column = at < 0 ? columns - 1 : at;
  return frame.z[column * rows + rows - 1] ?? 0;
}

/** What a bake is expected to be: minutes, core, loss, the profile when it has cooled. mm, °C, %. Throws as `readings`. */
export function predictedFor(input: Opened, shelf: Shelf = builtInShelf): Predicted {
  const { start, massSpread, conclude } = ready(input, shelf);
  const simulation = simulateStart(start, massSpread, { frames: 8, spread: 0.1 });
  const { lift, fill } = conclude(simulation, "plain");
  const [edge, quarter, middle] = [heightAt(simulation, 0.96), heightAt(simulation, 0.5), heightAt(simulation, 0)];
  return {
    minutes: simulation.minutes,
    coreC: coreAtOut(simulation),
    lossPercent: simulation.loss.oven,
    heightsMm: [edge, quarter, middle, quarter, edge],
    widthMm: fill.widthMm,
    ph: lift.ph.mid,
  };
}
