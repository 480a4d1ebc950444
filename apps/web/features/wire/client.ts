import {
  formulaInputSchema,
  type FormulaInput,
  formulaSummarySchema,
  formulaVersionSchema,
  ingredientInputSchema,
  ovenInputSchema,
  type OvenProfile,
  pageOf,
  problemSchema,
  type Problem,
  storedFormulaSchema,
  type StoredFormula,
  storedIngredientSchema,
  storedOvenSchema,
  storedVesselSchema,
  type VesselInput,
  vesselInputSchema,
} from "@uprise/contract";
import type { Ingredient } from "@uprise/core";
import type { z } from "zod";

/** An answer that was no success, with the server's own words. */
export class WireError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problem?: Problem,
  ) {
    super(message);
    this.name = "WireError";
  }
}

async function send<S extends z.ZodType>(
  schema: S | null,
  method: string,
  path: string,
  body?: unknown,
  version?: number,
): Promise<z.infer<S>> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: {
        ...(body === undefined ? {} : { "content-type": "application/json" }),
        ...(version === undefined ? {} : { "if-match": `"${version}"` }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  } catch {
    throw new WireError(0, "The server does not answer. What you wrote is kept on this device; try again when it is back.");
  }
  if (!response.ok) {
    const parsed = problemSchema.safeParse(await response.json().catch(() => null));
    throw new WireError(
      response.status,
      parsed.success ? parsed.data.detail : `The server answered ${response.status}.`,
      parsed.success ? parsed.data : undefined,
    );
  }
  return schema === null ? (undefined as z.infer<S>) : (schema.parse(await response.json()) as z.infer<S>);
}

/** Checks a formula by the contract before it is sent, so that a fault is told at the place where it was made. */
const checked = (input: FormulaInput): FormulaInput => {
  const parsed = formulaInputSchema.safeParse(input);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0];
  throw new WireError(400, `${issue?.path.join(".") ?? ""}: ${issue?.message ?? "not as described"}`);
};

export const wire = {
  listFormulas: (q: string) => send(pageOf(formulaSummarySchema), "GET", `/api/formulas?pageSize=200&q=${encodeURIComponent(q)}`),
  readFormula: (id: string) => send(storedFormulaSchema, "GET", `/api/formulas/${encodeURIComponent(id)}`),
  createFormula: (input: FormulaInput) => send(storedFormulaSchema, "POST", "/api/formulas", checked(input)),
  changeFormula: (id: string, version: number, input: FormulaInput) =>
    send(storedFormulaSchema, "PUT", `/api/formulas/${encodeURIComponent(id)}`, checked(input), version),
  removeFormula: (id: string, version: number) =>
    send(null, "DELETE", `/api/formulas/${encodeURIComponent(id)}`, undefined, version),
  restoreFormula: (id: string) => send(storedFormulaSchema, "POST", `/api/formulas/${encodeURIComponent(id)}/restore`),
  versions: (id: string) =>
    send(pageOf(formulaVersionSchema), "GET", `/api/formulas/${encodeURIComponent(id)}/versions?pageSize=200`),
  ingredients: () => send(pageOf(storedIngredientSchema), "GET", "/api/ingredients?pageSize=500"),
  createIngredient: (ingredient: Ingredient) =>
    send(storedIngredientSchema, "POST", "/api/ingredients", ingredientInputSchema.parse(ingredient)),
  vessels: () => send(pageOf(storedVesselSchema), "GET", "/api/vessels?pageSize=500"),
  createVessel: (vessel: VesselInput) => send(storedVesselSchema, "POST", "/api/vessels", vesselInputSchema.parse(vessel)),
  removeVessel: (id: string, version: number) => send(null, "DELETE", `/api/vessels/${encodeURIComponent(id)}`, undefined, version),
  ovens: () => send(pageOf(storedOvenSchema), "GET", "/api/ovens?pageSize=500"),
  createOven: (oven: OvenProfile) => send(storedOvenSchema, "POST", "/api/ovens", ovenInputSchema.parse(oven)),
  changeOven: (id: string, version: number, oven: OvenProfile) =>
    send(storedOvenSchema, "PUT", `/api/ovens/${encodeURIComponent(id)}`, ovenInputSchema.parse(oven), version),
};

/** The stored formula that came with a refusal of a stale write. */
export function currentOf(error: unknown): StoredFormula | null {
  if (!(error instanceof WireError) || error.status !== 412) return null;
  const parsed = storedFormulaSchema.safeParse(error.problem?.current);
  return parsed.success ? parsed.data : null;
}
