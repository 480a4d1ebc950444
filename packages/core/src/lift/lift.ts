import { z } from "zod";
import type { Process } from "../formula/process-schema";
import { type Item, massOf, totalOf } from "../formula/resolve";
import { rangeSchema } from "../measure/range-schema";
import { type Gas, gasOf, gasVolume, HANDLING_S, minutesUntilLost, stagesOf } from "./gas";
import { type Ledger, ledgerOf } from "./ledger";
import { crystalReaction, releasedAfter } from "./kinetics";
import { meaningOf } from "./meaning";
import { phOf } from "./ph";

export const verdicts = ["balanced", "short-of-acid", "acid-heavy", "no-lift"] as const;
export type Verdict = (typeof verdicts)[number];

/** Limits of the verdict, and what they are measured in. Reason and source in docs/science/lift.md. */
export const verdictLimits = {
  /** mmol of soda per 100 g of batter under which there is no chemical lift to speak of. */
  noLiftMmol: 1,
  /** mmol of kept fizz per 100 g that counts as a lift of its own. */
  fizzMmol: 0.25,
  shortRatio: 0.85,
  /** Unmet soda as a share of the batter. */
  shortShare: 0.0008,
  heavyRatio: 1.35,
  /** A crumb over this is plainly alkaline, whatever the titration to the ledger's pH says; one over the other is not sour. */
  shortPh: 7.8,
  heavyPh: 7,
};

export const liftSchema = z.object({
  verdict: z.enum(verdicts),
  sodaMmol: rangeSchema,
  acidMmol: rangeSchema,
  neutralised: rangeSchema,
  residualSodaG: z.number(),
  /** pH of the cooled crumb. */
  ph: rangeSchema,
  batterPh: z.number(),
  /** What that pH means, in words; colours only where there are pigments. */
  meaning: z.array(z.object({ aspect: z.enum(["taste", "browning", "crumb", "colour"]), text: z.string() })),
  /** mL at 25 °C. */
  gasMlPer100g: rangeSchema,
  /** Shares of the carbon dioxide that went in; they add up to 1. */
  stages: z.object({ bench: z.number(), oven: z.number(), never: z.number() }),
  entries: z.array(z.object({ ingredientId: z.string(), sodaMmol: z.number(), acidMmol: z.number() })),
  sources: z.array(z.object({ id: z.string(), name: z.string(), mmol: z.number() })),
  /** Minutes the mixed batter may stand before a tenth and a quarter of its lift is gone; null when a day is not enough. */
  standMinutes: z.object({ tenth: z.number().nullable(), quarter: z.number().nullable() }),
});
export type Lift = z.infer<typeof liftSchema>;

export interface LiftParts {
  lift: Lift;
  ledger: Ledger;
  gas: Gas;
}

/** The whole of the lift: ledger, pH, gas by stage, verdict. Amounts per batch in mmol. */
export function liftOf(items: readonly Item[], process: Process): LiftParts {
  const massG = massOf(items);
  const ledger = ledgerOf(items);
  const celsius = process.batterC ?? process.kitchenC ?? 22;
  const seconds = HANDLING_S + (process.restMinutes ?? 0) * 60;
  const ph = phOf(items, totalOf(items, "water"), (acid) => releasedAfter(crystalReaction(acid), seconds, celsius));
  const gas = gasOf(items, ledger, ph.carbonMmol);
  const lift: Lift = {
    verdict: verdictOf(ledger, gas, massG, ph.crumb.mid),
    sodaMmol: ledger.soda,
    acidMmol: ledger.acid,
    neutralised: ledger.neutralised,
    residualSodaG: ledger.residualSodaG,
    ph: ph.crumb,
    batterPh: ph.batter,
    meaning: meaningOf(items, ph.crumb),
    gasMlPer100g: gasVolume(gas, ledger.soda, massG),
    stages: stagesOf(gas, seconds, celsius),
    entries: ledger.entries.map((entry) => ({
      ingredientId: entry.ingredientId,
      sodaMmol: entry.soda.mid,
      acidMmol: entry.acid.mid,
    })),
    sources: gas.sources.map(({ id, name, mmol }) => ({ id, name, mmol })),
    standMinutes: { tenth: minutesUntilLost(gas, 0.1, celsius), quarter: minutesUntilLost(gas, 0.25, celsius) },
  };
  return { lift, ledger, gas };
}

/** By the ledger, and never against the pH of the crumb. */
function verdictOf(ledger: Ledger, gas: Gas, massG: number, crumbPh: number): Verdict {
  const per100 = massG > 0 ? 100 / massG : 0;
  const soda = ledger.soda.mid * per100;
  const { noLiftMmol, fizzMmol, shortRatio, shortShare, shortPh, heavyRatio, heavyPh } = verdictLimits;
  if (soda < noLiftMmol) return gas.fizz.mid * per100 >= fizzMmol ? "balanced" : "no-lift";
  const isShort = ledger.neutralised.mid < shortRatio && ledger.residualSodaG > shortShare * massG;
  if (isShort || crumbPh > shortPh) return "short-of-acid";
  return ledger.neutralised.mid > heavyRatio && crumbPh < heavyPh ? "acid-heavy" : "balanced";
}
