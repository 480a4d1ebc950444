import { type Kind, type Oven, type Process, profileOf, type Vessel } from "../src/index";
import table from "../src/bake/data/kitchen-windows.json";

/** A kitchen window: what bakers' books and kitchens say of a typical batter of a kind in such a pan and oven. */
export interface Window {
  name: string;
  /** Half of them by the parity of a hash of their name: what the constants were fitted to, and what only checks them. */
  use: "fit" | "check";
  kind: Kind;
  batchG?: number;
  lines?: { ingredientId: string; grams: number }[];
  vessel: Vessel;
  celsius: number;
  mode?: NonNullable<Oven["mode"]>;
  method?: NonNullable<Process["method"]>;
  doneWhen?: NonNullable<Process["doneWhen"]>;
  /** Minutes; loss in the oven, %; baked volume, mL/g. */
  minutes: [number, number];
  loss?: [number, number];
  mlPerG?: [number, number];
  /** % wider; words for colours, from and to. */
  spread?: [number, number];
  top?: [string, string];
  base?: [string, string];
  rim?: [string, string];
}

export const windows = table as unknown as Window[];

export const inputOf = ({ kind, batchG, lines, vessel, celsius, mode, method, doneWhen }: Window) => ({
  kind,
  ...(lines ? { lines } : { batchG: batchG ?? 900 }),
  vessel,
  oven: { celsius, mode: mode ?? ("still" as const) },
  process: { method: method ?? profileOf(kind).method, ...(doneWhen ? { doneWhen } : {}) },
});
