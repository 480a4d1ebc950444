import { baked } from "../analyse";
import { profileOf } from "../balance/bands";
import type { Kind } from "../formula/kinds";
import type { Process } from "../formula/process";
import type { Oven, Vessel } from "../pantry/vessel";
import table from "./data/kitchen-windows.json";

interface Window {
  name: string;
  kind: Kind;
  batchG: number;
  vessel: Vessel;
  celsius: number;
  mode?: NonNullable<Oven["mode"]>;
  method?: NonNullable<Process["method"]>;
  minutes: [number, number];
  loss?: [number, number];
  mlPerG?: [number, number];
}

const windows = table as unknown as Window[];
const bakes = windows.map((window) => {
  const { kind, batchG, vessel, celsius, mode, method } = window;
  const { simulation } = baked(
    { kind, batchG, vessel, oven: { celsius, mode: mode ?? "still" }, process: { method: method ?? profileOf(kind).method } },
    undefined,
    { frames: 0, spread: 0 },
  );
  return { window, simulation };
});
const inside = (value: number, [low, high]: [number, number], by = 0): boolean =>
  value >= low * (1 - by) && value <= high * (1 + by);

describe("kitchen windows, one parameter set for all kinds", () => {
  test("at least four of five bakes are done inside their window widened by a tenth, and none is off by a third", () => {
    const hits = bakes.filter(({ window, simulation }) => inside(simulation.minutes, window.minutes, 0.1));
    expect(hits.length).toBeGreaterThanOrEqual(Math.ceil(0.8 * bakes.length));
    for (const { window, simulation } of bakes)
      expect([window.name, inside(simulation.minutes, window.minutes, 0.33)]).toEqual([window.name, true]);
  });
  test("at least four of five losses and volumes are inside theirs, widened by a tenth", () => {
    const read = bakes.flatMap(({ window, simulation }) => [
      ...(window.loss ? [inside(simulation.loss.oven, window.loss, 0.1)] : []),
      ...(window.mlPerG ? [inside(simulation.volumeMlPerG, window.mlPerG, 0.1)] : []),
    ]);
    expect(read.length).toBeGreaterThan(9);
    expect(read.filter(Boolean).length).toBeGreaterThanOrEqual(Math.ceil(0.8 * read.length));
  });
  test("everything reaches its core, and no batter in order comes out raw", () => {
    for (const { window, simulation } of bakes.filter(({ window: w }) => w.mode !== "hob"))
      expect([window.name, simulation.reached, simulation.gummy.share < 0.06]).toEqual([window.name, true, true]);
  });
});
