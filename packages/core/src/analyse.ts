import { z } from "zod";
import { type BakeTargets, bakeSchema, fillSchema, firstBake } from "./bake/bake";
import { raceOf, raceSchema } from "./bake/race";
import { bandNames, bandReadings, profileOf, typicalLines } from "./balance/bands";
import { findingSchema } from "./balance/finding";
import { findingsOf } from "./balance/findings";
import { bodyOf, bodySchema } from "./body/body";
import { CoreError } from "./errors";
import { type Kind, kindSchema } from "./formula/kinds";
import { type Process, processSchema } from "./formula/process";
import { batchOf, batchSchema, type Item, massOf, resolve, type WeighedLine } from "./formula/resolve";
import { HANDLING_S } from "./lift/gas";
import { liftOf, liftSchema } from "./lift/lift";
import type { Measures } from "./measure/units";
import { builtInShelf, type Shelf } from "./pantry/catalogue";
import { type Oven, ovenSchema, type Vessel, vesselOf, vesselSchema } from "./pantry/vessel";

export interface AnalyseInput {
  lines?: readonly WeighedLine[] | undefined;
  kind?: Kind | undefined;
  vessel?: Vessel | undefined;
  oven?: Oven | undefined;
  process?: Process | undefined;
  measures?: Measures | undefined;
  /** Without lines: so many grams of a typical batter of the kind. */
  batchG?: number | undefined;
}

export const analysisSchema = z.object({
  /** What was analysed, with the defaults that were filled in. */
  given: z.object({ kind: kindSchema, vessel: vesselSchema, oven: ovenSchema, process: processSchema }),
  batch: batchSchema,
  lift: liftSchema,
  body: bodySchema,
  fill: fillSchema,
  bake: bakeSchema,
  race: raceSchema,
  /** The bands of the kind with where this formula stands; percentages on flour and starch, gas in mL per 100 g. */
  bands: z.array(z.object({ name: z.enum(bandNames), low: z.number(), high: z.number(), value: z.number() })),
  findings: z.array(findingSchema),
});
export type Analysis = z.infer<typeof analysisSchema>;

/** What the kind of bake takes where nothing is said. */
export function defaultsOf(kind: Kind): { vessel: Vessel; oven: Oven; process: Process } {
  const profile = profileOf(kind);
  return {
    vessel: vesselOf(profile.vesselId)?.vessel ?? { shape: "rectangular", lengthMm: 230, widthMm: 130, heightMm: 70 },
    oven: { celsius: profile.celsius, mode: profile.mode },
    process: { method: profile.method, restMinutes: 0 },
  };
}

/**
 * Everything Uprise knows of a formula in one pure call: batch, lift, body, fill, bake, findings. Masses in g, amounts in mmol per batch,
 * lengths in mm, times in minutes, temperatures in °C.
 * Throws `no-batch` without lines and batch, `empty-formula` when nothing weighs anything, `unknown-ingredient`, `bad-amount`, `bad-vessel`.
 */
export function analyse(input: AnalyseInput, shelf: Shelf = builtInShelf): Analysis {
  const kind = input.kind ?? "loaf";
  const defaults = defaultsOf(kind);
  const vessel = input.vessel ?? defaults.vessel;
  const oven: Oven = { ...defaults.oven, ...input.oven };
  const process: Process = { ...defaults.process, ...input.process };
  const items = resolve(linesOf(input, kind), shelf);
  if (massOf(items) <= 0) {
    throw new CoreError("empty-formula", "The formula weighs 0 g; at least one line with an amount would be right.", "lines");
  }
  const profile = profileOf(kind);
  const lift = liftOf(items, process);
  const body = bodyOf(items, process, (profile.binderPercent.low + profile.binderPercent.high) / 2);
  const targets: BakeTargets = profile;
  const { fill, bake } = firstBake(items, vessel, oven, process, body.densityGPerMl, lift.gas, targets);
  const measures = input.measures ?? "us";
  return {
    given: { kind, vessel, oven, process },
    batch: batchOf(items),
    lift: lift.lift,
    body,
    fill,
    bake,
    race: raceOf({
      gas: lift.gas,
      benchSeconds: HANDLING_S + (process.restMinutes ?? 0) * 60,
      benchC: process.batterC ?? process.kitchenC ?? 22,
      bakeMinutes: bake.minutes.mid,
      targetC: bake.targetCoreC,
      settingC: body.settingC.mid,
    }),
    bands: bandsOf(items, kind, lift.lift.gasMlPer100g.mid),
    findings: findingsOf({ items, kind, measures, oven, process, lift, body, fill, bake }),
  };
}

function bandsOf(items: readonly Item[], kind: Kind, gas: number): Analysis["bands"] {
  const { bands } = profileOf(kind);
  const values = bandReadings(items, gas);
  return bandNames.map((name) => ({ name, ...bands[name], value: values[name] }));
}

function linesOf(input: AnalyseInput, kind: Kind): readonly WeighedLine[] {
  if (input.lines && input.lines.length > 0) return input.lines;
  if (input.batchG !== undefined) return typicalLines(kind, input.batchG);
  throw new CoreError("no-batch", "There is nothing to analyse: send text, lines, or a kind with batchG.", "lines");
}
