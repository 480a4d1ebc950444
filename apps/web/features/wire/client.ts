import {
  appendedSchema,
  bakeEventsSchema,
  bakeInputSchema,
  type BakeInput,
  bakeSummarySchema,
  analysisSchema,
  deviceCommandSchema,
  type DeviceCommand,
  deviceInputSchema,
  type DeviceInput,
  formulaRequestSchema,
  type FormulaRequest,
  slipAnswerSchema,
  slipRequestSchema,
  type SlipRequest,
  storedBakeSchema,
  storedDeviceSchema,
  designRequestSchema,
  designsSchema,
  familySchema,
  formulaInputSchema,
  type FormulaInput,
  formulaSummarySchema,
  formulaVersionSchema,
  ingredientInputSchema,
  type FaultsRequest,
  faultsRequestSchema,
  diagnosisSchema,
  learntAnswerSchema,
  type NextRequest,
  nextRequestSchema,
  nextSchema,
  type Photo,
  photoSchema,
  type PracticeRequest,
  practiceRequestSchema,
  practiceSchema,
  storedTastingSchema,
  storedTrialSchema,
  type Tasting,
  tastingInputSchema,
  trialInputSchema,
  ovenInputSchema,
  packetInputSchema,
  storedPacketSchema,
  type OvenProfile,
  pageOf,
  planInputSchema,
  type PlanInput,
  planRequestSchema,
  type PlanRequest,
  problemSchema,
  storedFormulaSchema,
  type StoredFormula,
  storedIngredientSchema,
  storedOvenSchema,
  storedPlanSchema,
  storedVesselSchema,
  type VesselInput,
  vesselInputSchema,
  accessSchema,
  enterSchema,
  type ExportRequest,
  exportRequestSchema,
  healthSchema,
  helperSchema,
  importAnswerSchema,
  type ImportRequest,
  importRequestSchema,
  recoverySchema,
  type RestoreAnswer,
  restoreAnswerSchema,
  type ScaleUpRequest,
  scaleUpRequestSchema,
  scaleUpSchema,
  sessionSchema,
  undoneSchema,
} from "@uprise/contract";
import type { BakeEvent, Ingredient, Packet, Trial, Wish } from "@uprise/core";
import { every, PAGE, raw, send, sendTold, toldPlanSchema, WireError } from "./send";
import { noAnswer, notUnderstood, refusalWords } from "./words";

export { newId, sendKept, whenLocked, WireError } from "./send";

const at = (path: string, id: string): string => `${path}/${encodeURIComponent(id)}`;

/** Checks a formula by the contract before it is sent, so that a fault is told at the place where it was made. */
const checked = <T extends FormulaInput>(input: T): FormulaInput => {
  const parsed = formulaInputSchema.safeParse(input);
  if (parsed.success) return parsed.data;
  throw new WireError(400, parsed.error.issues[0]?.message ?? "Something in the formula is not as it should be.");
};

export const wire = {
  listFormulas: (q: string, page: number, signal?: AbortSignal) =>
    send(pageOf(formulaSummarySchema), "GET", `/api/formulas?whole=true&pageSize=30&page=${page}&q=${encodeURIComponent(q)}`, {
      signal,
    }),
  design: (wish: Wish) => send(designsSchema, "POST", "/api/design", { body: designRequestSchema.parse(wish) }),
  family: (wish: Wish) => send(familySchema, "POST", "/api/family", { body: designRequestSchema.parse(wish) }),
  analyse: (body: FormulaRequest, signal?: AbortSignal) =>
    send(analysisSchema, "POST", "/api/analyse", { body: formulaRequestSchema.parse(body), signal }),
  slip: (body: SlipRequest) => send(slipAnswerSchema, "POST", "/api/slip", { body: slipRequestSchema.parse(body) }),
  bakes: (signal?: AbortSignal) => send(pageOf(bakeSummarySchema), "GET", "/api/bakes?pageSize=60", { signal }),
  readBake: (id: string, signal?: AbortSignal) => send(storedBakeSchema, "GET", at("/api/bakes", id), { signal }),
  createBake: (bake: BakeInput & { id: string }) =>
    send(storedBakeSchema, "POST", "/api/bakes", { body: bakeInputSchema.parse(bake) }),
  removeBake: (id: string, version: number) => send(null, "DELETE", at("/api/bakes", id), { version }),
  appendEvents: (id: string, events: BakeEvent[]) =>
    send(appendedSchema, "POST", `${at("/api/bakes", id)}/events`, {
      body: bakeEventsSchema.parse({ events }),
    }),
  devices: (signal?: AbortSignal) =>
    every((page) => send(pageOf(storedDeviceSchema), "GET", `/api/devices?pageSize=${PAGE}&page=${page}`, { signal })),
  createDevice: (device: DeviceInput & { id: string }) =>
    send(storedDeviceSchema, "POST", "/api/devices", { body: deviceInputSchema.parse(device) }),
  changeDevice: (id: string, version: number, device: DeviceInput) =>
    send(storedDeviceSchema, "PUT", at("/api/devices", id), { body: deviceInputSchema.parse(device), version }),
  removeDevice: (id: string, version: number) => send(null, "DELETE", at("/api/devices", id), { version }),
  tellDevice: (id: string, command: DeviceCommand) =>
    send(null, "POST", `${at("/api/devices", id)}/command`, { body: deviceCommandSchema.parse(command) }),
  /** A plan as it comes: told how far it is; who lets go stops it on the server too. */
  plan: (day: PlanRequest, signal?: AbortSignal, onProgress: (done: number) => void = () => undefined) =>
    sendTold(toldPlanSchema, "/api/plan", planRequestSchema.parse(day), signal, ({ progress }) => {
      if (progress !== undefined) onProgress(progress);
    }),
  plans: (signal?: AbortSignal) =>
    every((page) => send(pageOf(storedPlanSchema), "GET", `/api/plans?pageSize=${PAGE}&page=${page}`, { signal })),
  readPlan: (id: string, signal?: AbortSignal) => send(storedPlanSchema, "GET", at("/api/plans", id), { signal }),
  createPlan: (plan: PlanInput & { id: string }) =>
    send(storedPlanSchema, "POST", "/api/plans", { body: planInputSchema.parse(plan) }),
  changePlan: (id: string, version: number, plan: PlanInput) =>
    send(storedPlanSchema, "PUT", at("/api/plans", id), { body: planInputSchema.parse(plan), version }),
  removePlan: (id: string, version: number) => send(null, "DELETE", at("/api/plans", id), { version }),
  readFormula: (id: string, signal?: AbortSignal) => send(storedFormulaSchema, "GET", at("/api/formulas", id), { signal }),
  createFormula: (input: FormulaInput & { id: string }) =>
    send(storedFormulaSchema, "POST", "/api/formulas", { body: checked(input) }),
  changeFormula: (id: string, version: number, input: FormulaInput) =>
    send(storedFormulaSchema, "PUT", at("/api/formulas", id), { body: checked(input), version }),
  removeFormula: (id: string, version: number) => send(null, "DELETE", at("/api/formulas", id), { version }),
  restoreFormula: (id: string) => send(storedFormulaSchema, "POST", `${at("/api/formulas", id)}/restore`),
  versions: (id: string, signal?: AbortSignal) =>
    every((page) =>
      send(pageOf(formulaVersionSchema), "GET", `${at("/api/formulas", id)}/versions?pageSize=${PAGE}&page=${page}`, { signal }),
    ),
  ingredients: (signal?: AbortSignal) =>
    every((page) =>
      send(pageOf(storedIngredientSchema), "GET", `/api/ingredients?own=true&pageSize=${PAGE}&page=${page}`, { signal }),
    ),
  createIngredient: (ingredient: Ingredient) =>
    send(storedIngredientSchema, "POST", "/api/ingredients", { body: ingredientInputSchema.parse(ingredient) }),
  changeIngredient: (ingredient: Ingredient, version: number) =>
    send(storedIngredientSchema, "PUT", at("/api/ingredients", ingredient.id), {
      body: ingredientInputSchema.parse(ingredient),
      version,
    }),
  removeIngredient: (id: string, version: number) => send(null, "DELETE", at("/api/ingredients", id), { version }),
  vessels: (signal?: AbortSignal) =>
    every((page) => send(pageOf(storedVesselSchema), "GET", `/api/vessels?own=true&pageSize=${PAGE}&page=${page}`, { signal })),
  createVessel: (vessel: VesselInput & { id: string }) =>
    send(storedVesselSchema, "POST", "/api/vessels", { body: vesselInputSchema.parse(vessel) }),
  removeVessel: (id: string, version: number) => send(null, "DELETE", at("/api/vessels", id), { version }),
  trials: (signal?: AbortSignal) =>
    every((page) => send(pageOf(storedTrialSchema), "GET", `/api/trials?pageSize=${PAGE}&page=${page}`, { signal })),
  readTrial: (id: string, signal?: AbortSignal) => send(storedTrialSchema, "GET", at("/api/trials", id), { signal }),
  createTrial: (id: string, trial: Trial) =>
    send(storedTrialSchema, "POST", "/api/trials", { body: trialInputSchema.parse({ ...trial, id }) }),
  changeTrial: (id: string, version: number, trial: Trial) =>
    send(storedTrialSchema, "PUT", at("/api/trials", id), { body: trialInputSchema.parse(trial), version }),
  removeTrial: (id: string, version: number) => send(null, "DELETE", at("/api/trials", id), { version }),
  faults: (body: FaultsRequest, signal?: AbortSignal) =>
    send(diagnosisSchema, "POST", "/api/faults", { body: faultsRequestSchema.parse(body), signal }),
  next: (body: NextRequest, signal?: AbortSignal) =>
    send(nextSchema, "POST", "/api/next", { body: nextRequestSchema.parse(body), signal }),
  practice: (body: PracticeRequest, signal?: AbortSignal) =>
    send(practiceSchema, "POST", "/api/practice", { body: practiceRequestSchema.parse(body), signal }),
  calibrate: (signal?: AbortSignal) => send(learntAnswerSchema, "POST", "/api/calibrate", { signal }),
  acceptLearnt: (id: string) => send(learntAnswerSchema, "POST", "/api/learnt", { body: { id } }),
  undoLearnt: (id: string) => send(learntAnswerSchema, "DELETE", at("/api/learnt", id)),
  tastings: (signal?: AbortSignal) =>
    every((page) => send(pageOf(storedTastingSchema), "GET", `/api/tastings?pageSize=${PAGE}&page=${page}`, { signal })),
  createTasting: (id: string, tasting: Tasting) =>
    send(storedTastingSchema, "POST", "/api/tastings", { body: tastingInputSchema.parse({ ...tasting, id }) }),
  changeTasting: (id: string, version: number, tasting: Tasting) =>
    send(storedTastingSchema, "PUT", at("/api/tastings", id), { body: tastingInputSchema.parse(tasting), version }),
  keepPhoto: async (picture: Blob): Promise<Photo> => {
    const response = await fetch("/api/photos", { method: "POST", headers: { "content-type": picture.type }, body: picture }).catch(
      () => {
        throw new WireError(0, noAnswer);
      },
    );
    const json: unknown = await response.json().catch(() => undefined);
    if (!response.ok) {
      const problem = problemSchema.safeParse(json).data;
      throw new WireError(response.status, refusalWords(response.status, problem), problem);
    }
    const parsed = photoSchema.safeParse(json);
    if (!parsed.success) throw new WireError(0, notUnderstood);
    return parsed.data;
  },
  session: (signal?: AbortSignal) => send(sessionSchema, "GET", "/api/session", { signal }),
  enter: (passcode: string, device: string) =>
    send(sessionSchema, "POST", "/api/session", { body: enterSchema.parse({ passcode, device }) }),
  leave: () => send(null, "DELETE", "/api/session"),
  recover: (code: string, passcode: string) => send(recoverySchema, "POST", "/api/recover", { body: { code, passcode } }),
  access: (signal?: AbortSignal) => send(accessSchema, "GET", "/api/access", { signal }),
  letGo: (id: string) => send(null, "DELETE", at("/api/access/devices", id)),
  setHelper: (passcode: string | null) => send(null, "PUT", "/api/access/helper", { body: helperSchema.parse({ passcode }) }),
  setPasscode: (old: string, passcode: string) => send(recoverySchema, "PUT", "/api/access/passcode", { body: { old, passcode } }),
  health: (signal?: AbortSignal) => send(healthSchema, "GET", "/api/health", { signal }),
  scaleUp: (body: ScaleUpRequest, signal?: AbortSignal) =>
    send(scaleUpSchema, "POST", "/api/scale-up", { body: scaleUpRequestSchema.parse(body), signal }),
  /** A file to be kept, with the name the server gives it. */
  exportFile: async (asked: ExportRequest): Promise<{ name: string; content: Blob }> => {
    const response = await raw("/api/export", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(exportRequestSchema.parse(asked)),
    });
    return {
      name: /filename="([^"]+)"/.exec(response.headers.get("content-disposition") ?? "")?.[1] ?? "uprise",
      content: await response.blob(),
    };
  },
  importText: (asked: ImportRequest, take = false) =>
    send(importAnswerSchema, "POST", `/api/import${take ? "?take=1" : ""}`, { body: importRequestSchema.parse(asked) }),
  restore: async (archive: Blob, take: boolean): Promise<RestoreAnswer> => {
    const response = await raw(`/api/restore${take ? "?take=1" : ""}`, {
      method: "POST",
      headers: { "content-type": "application/zip" },
      body: archive,
    });
    return restoreAnswerSchema.parse(await response.json());
  },
  undoRestore: (id: string) => send(undoneSchema, "DELETE", at("/api/restore", id)),
  packets: (signal?: AbortSignal) =>
    every((page) => send(pageOf(storedPacketSchema), "GET", `/api/packets?pageSize=${PAGE}&page=${page}`, { signal })),
  createPacket: (id: string, packet: Packet) =>
    send(storedPacketSchema, "POST", "/api/packets", { body: packetInputSchema.parse({ ...packet, id }) }),
  changePacket: (id: string, version: number, packet: Packet) =>
    send(storedPacketSchema, "PUT", at("/api/packets", id), { body: packetInputSchema.parse(packet), version }),
  removePacket: (id: string, version: number) => send(null, "DELETE", at("/api/packets", id), { version }),
  ovens: (signal?: AbortSignal) =>
    every((page) => send(pageOf(storedOvenSchema), "GET", `/api/ovens?pageSize=${PAGE}&page=${page}`, { signal })),
  createOven: (id: string, oven: OvenProfile) =>
    send(storedOvenSchema, "POST", "/api/ovens", { body: ovenInputSchema.parse({ ...oven, id }) }),
  changeOven: (id: string, version: number, oven: OvenProfile) =>
    send(storedOvenSchema, "PUT", at("/api/ovens", id), { body: ovenInputSchema.parse(oven), version }),
  removeOven: (id: string, version: number) => send(null, "DELETE", at("/api/ovens", id), { version }),
};

/** The stored formula that came with a refusal of a stale write. */
export function currentOf(error: unknown): StoredFormula | null {
  if (!(error instanceof WireError) || error.status !== 412) return null;
  const parsed = storedFormulaSchema.safeParse(error.problem?.current);
  return parsed.success ? parsed.data : null;
}
