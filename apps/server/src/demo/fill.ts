import {
  type Formula,
  formulaSchema,
  type Kind,
  type Measures,
  type Oven,
  type Process,
  type UnitId,
  vesselOf,
} from "@uprise/core";
import type { OvenProfile } from "@uprise/contract";
import type { Store } from "../store/store";
import table from "./formulas.json";

interface DemoFormula {
  id: string;
  title: string;
  kind: Kind;
  measures: Measures;
  vesselId: string;
  celsius: number;
  mode: NonNullable<Oven["mode"]>;
  method: NonNullable<Process["method"]>;
  restMinutes: number;
  notes: string;
  lines: [ingredientId: string, grams: number, unit?: UnitId][];
}

/** The formulas of the kiosk on the ferry pier, checked against the schema that every formula must meet. */
export const demoFormulas: { id: string; formula: Formula }[] = (table as DemoFormula[]).map((demo) => ({
  id: demo.id,
  formula: formulaSchema.parse({
    shape: 2,
    title: demo.title,
    kind: demo.kind,
    measures: demo.measures,
    lines: demo.lines.map(([ingredientId, grams, unit], index) => ({
      id: `l${index + 1}`,
      ingredientId,
      grams: { low: grams, mid: grams, high: grams },
      unit: unit ?? "g",
    })),
    vessel: vesselOf(demo.vesselId)?.vessel,
    oven: { celsius: demo.celsius, mode: demo.mode },
    process: { method: demo.method, restMinutes: demo.restMinutes },
    notes: demo.notes,
  }),
}));

/** Fills an empty store with the demo, the oldest first so that the pear loaf is on top of the list. */
export async function fillDemo(store: Store): Promise<void> {
  for (const { id, formula } of [...demoFormulas].reverse()) await store.formulas.create(formula, "as baked for the kiosk", id);
  const ovens = store.things<OvenProfile>("ovens");
  await ovens.create("kiosk-oven", {
    name: "Kiosk oven, runs hot",
    modes: ["still", "fan"],
    biasK: 14,
    swingK: 8,
    warmMinutes: 18,
    racks: 3,
    widthMm: 520,
    depthMm: 400,
  });
  await ovens.create("home-oven", {
    name: "Home oven",
    modes: ["still", "fan"],
    biasK: 0,
    swingK: 6,
    warmMinutes: 12,
    racks: 2,
    widthMm: 450,
    depthMm: 380,
  });
}
