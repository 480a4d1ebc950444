import type * as contract from "@uprise/contract";
import type {
  BakeInput,
  DeviceCommand,
  DeviceInput,
  ExportRequest,
  FaultsRequest,
  FormulaInput,
  FormulaRequest,
  ImportRequest,
  NextRequest,
  OvenProfile,
  Photo,
  PlanInput,
  PlanRequest,
  PracticeRequest,
  RestoreAnswer,
  ScaleUpRequest,
  SlipRequest,
  StoredFormula,
  Tasting,
  VesselInput,
} from "@uprise/contract";
import type { BakeEvent, Ingredient, Packet, Plan, Season, Trial, Wish } from "@uprise/core";
import type { z } from "zod";
import { formulaPath, ingredientsPath, listPath, ovensPath, SESSION } from "../../device/first-asks";
import { ask } from "../../device/workers";
import type { SchemaName } from "../../workers/tasks";
import { every, PAGE, problemIn, raw, send, sendTold, WireError } from "./send";
import { noAnswer, notUnderstood, refusalWords } from "./words";

export { newId, sendKept, whenLocked, WireError } from "./send";

const at = (path: string, id: string): string => `${path}/${encodeURIComponent(id)}`;

/** What the server answers by a schema of the contract. */
type Told<N extends keyof typeof contract> = z.infer<(typeof contract)[N]>;
interface Page<N extends keyof typeof contract> {
  items: Told<N>[];
  page: number;
  pageSize: number;
  total: number;
}

/** What is sent, checked by the contract in a worker before it leaves, so that a fault is told at the place where it was made. */
async function checked(schema: SchemaName, body: unknown): Promise<unknown> {
  const answer = await ask("check", schema, body);
  if (answer.ok) return answer.value;
  throw new WireError(400, answer.message);
}

export const wire = {
  listFormulas: (q: string, page: number, signal?: AbortSignal) =>
    send<Page<"formulaSummarySchema">>("GET", listPath(q, page), { signal }),
  design: (wish: Wish) => send<Told<"designsSchema">>("POST", "/api/design", { body: checked("designRequestSchema", wish) }),
  family: (wish: Wish) => send<Told<"familySchema">>("POST", "/api/family", { body: checked("designRequestSchema", wish) }),
  analyse: (body: FormulaRequest, signal?: AbortSignal) =>
    send<Told<"analysisSchema">>("POST", "/api/analyse", { body: checked("formulaRequestSchema", body), signal }),
  slip: (body: SlipRequest) => send<Told<"slipAnswerSchema">>("POST", "/api/slip", { body: checked("slipRequestSchema", body) }),
  bakes: (signal?: AbortSignal) => send<Page<"bakeSummarySchema">>("GET", "/api/bakes?pageSize=60", { signal }),
  readBake: (id: string, signal?: AbortSignal) => send<Told<"storedBakeSchema">>("GET", at("/api/bakes", id), { signal }),
  createBake: (bake: BakeInput & { id: string }) =>
    send<Told<"storedBakeSchema">>("POST", "/api/bakes", { body: checked("bakeInputSchema", bake) }),
  removeBake: (id: string, version: number) => send<null>("DELETE", at("/api/bakes", id), { version }),
  appendEvents: (id: string, events: BakeEvent[]) =>
    send<Told<"appendedSchema">>("POST", `${at("/api/bakes", id)}/events`, {
      body: checked("bakeEventsSchema", { events }),
    }),
  devices: (signal?: AbortSignal) =>
    every((page) => send<Page<"storedDeviceSchema">>("GET", `/api/devices?pageSize=${PAGE}&page=${page}`, { signal })),
  createDevice: (device: DeviceInput & { id: string }) =>
    send<Told<"storedDeviceSchema">>("POST", "/api/devices", { body: checked("deviceInputSchema", device) }),
  changeDevice: (id: string, version: number, device: DeviceInput) =>
    send<Told<"storedDeviceSchema">>("PUT", at("/api/devices", id), { body: checked("deviceInputSchema", device), version }),
  removeDevice: (id: string, version: number) => send<null>("DELETE", at("/api/devices", id), { version }),
  tellDevice: (id: string, command: DeviceCommand) =>
    send<null>("POST", `${at("/api/devices", id)}/command`, { body: checked("deviceCommandSchema", command) }),
  /** A plan as it comes: told how far it is; who lets go stops it on the server too. */
  plan: (day: PlanRequest, signal?: AbortSignal, onProgress: (done: number) => void = () => undefined) =>
    sendTold<Plan>("/api/plan", "plan", checked("planRequestSchema", day), signal, onProgress),
  seasons: (signal?: AbortSignal) =>
    every((page) => send<Page<"storedSeasonSchema">>("GET", `/api/seasons?pageSize=${PAGE}&page=${page}`, { signal })),
  readSeason: (id: string, signal?: AbortSignal) => send<Told<"storedSeasonSchema">>("GET", at("/api/seasons", id), { signal }),
  createSeason: (id: string, season: Season) =>
    send<Told<"storedSeasonSchema">>("POST", "/api/seasons", { body: checked("seasonInputSchema", { ...season, id }) }),
  changeSeason: (id: string, version: number, season: Season) =>
    send<Told<"storedSeasonSchema">>("PUT", at("/api/seasons", id), { body: checked("seasonInputSchema", season), version }),
  restoreSeason: (id: string) => send<Told<"storedSeasonSchema">>("POST", `${at("/api/seasons", id)}/restore`),
  removeSeason: (id: string, version: number) => send<null>("DELETE", at("/api/seasons", id), { version }),
  plans: (signal?: AbortSignal) =>
    every((page) => send<Page<"storedPlanSchema">>("GET", `/api/plans?pageSize=${PAGE}&page=${page}`, { signal })),
  readPlan: (id: string, signal?: AbortSignal) => send<Told<"storedPlanSchema">>("GET", at("/api/plans", id), { signal }),
  createPlan: (plan: PlanInput & { id: string }) =>
    send<Told<"storedPlanSchema">>("POST", "/api/plans", { body: checked("planInputSchema", plan) }),
  changePlan: (id: string, version: number, plan: PlanInput) =>
    send<Told<"storedPlanSchema">>("PUT", at("/api/plans", id), { body: checked("planInputSchema", plan), version }),
  removePlan: (id: string, version: number) => send<null>("DELETE", at("/api/plans", id), { version }),
  readFormula: (id: string, signal?: AbortSignal) => send<Told<"storedFormulaSchema">>("GET", formulaPath(id), { signal }),
  createFormula: (input: FormulaInput & { id: string }) =>
    send<Told<"storedFormulaSchema">>("POST", "/api/formulas", { body: checked("formulaInputSchema", input) }),
  changeFormula: (id: string, version: number, input: FormulaInput) =>
    send<Told<"storedFormulaSchema">>("PUT", at("/api/formulas", id), { body: checked("formulaInputSchema", input), version }),
  removeFormula: (id: string, version: number) => send<null>("DELETE", at("/api/formulas", id), { version }),
  restoreFormula: (id: string) => send<Told<"storedFormulaSchema">>("POST", `${at("/api/formulas", id)}/restore`),
  versions: (id: string, signal?: AbortSignal) =>
    every((page) =>
      send<Page<"formulaVersionSchema">>("GET", `${at("/api/formulas", id)}/versions?pageSize=${PAGE}&page=${page}`, { signal }),
    ),
  ingredients: (signal?: AbortSignal) =>
    every((page) => send<Page<"storedIngredientSchema">>("GET", ingredientsPath(page), { signal })),
  createIngredient: (ingredient: Ingredient) =>
    send<Told<"storedIngredientSchema">>("POST", "/api/ingredients", { body: checked("ingredientInputSchema", ingredient) }),
  changeIngredient: (ingredient: Ingredient, version: number) =>
    send<Told<"storedIngredientSchema">>("PUT", at("/api/ingredients", ingredient.id), {
      body: checked("ingredientInputSchema", ingredient),
      version,
    }),
  removeIngredient: (id: string, version: number) => send<null>("DELETE", at("/api/ingredients", id), { version }),
  vessels: (signal?: AbortSignal) =>
    every((page) => send<Page<"storedVesselSchema">>("GET", `/api/vessels?own=true&pageSize=${PAGE}&page=${page}`, { signal })),
  createVessel: (vessel: VesselInput & { id: string }) =>
    send<Told<"storedVesselSchema">>("POST", "/api/vessels", { body: checked("vesselInputSchema", vessel) }),
  removeVessel: (id: string, version: number) => send<null>("DELETE", at("/api/vessels", id), { version }),
  trials: (signal?: AbortSignal) =>
    every((page) => send<Page<"storedTrialSchema">>("GET", `/api/trials?pageSize=${PAGE}&page=${page}`, { signal })),
  readTrial: (id: string, signal?: AbortSignal) => send<Told<"storedTrialSchema">>("GET", at("/api/trials", id), { signal }),
  createTrial: (id: string, trial: Trial) =>
    send<Told<"storedTrialSchema">>("POST", "/api/trials", { body: checked("trialInputSchema", { ...trial, id }) }),
  changeTrial: (id: string, version: number, trial: Trial) =>
    send<Told<"storedTrialSchema">>("PUT", at("/api/trials", id), { body: checked("trialInputSchema", trial), version }),
  removeTrial: (id: string, version: number) => send<null>("DELETE", at("/api/trials", id), { version }),
  faults: (body: FaultsRequest, signal?: AbortSignal) =>
    send<Told<"diagnosisSchema">>("POST", "/api/faults", { body: checked("faultsRequestSchema", body), signal }),
  next: (body: NextRequest, signal?: AbortSignal) =>
    send<Told<"nextSchema">>("POST", "/api/next", { body: checked("nextRequestSchema", body), signal }),
  practice: (body: PracticeRequest, signal?: AbortSignal) =>
    send<Told<"practiceSchema">>("POST", "/api/practice", { body: checked("practiceRequestSchema", body), signal }),
  calibrate: (signal?: AbortSignal) => send<Told<"learntAnswerSchema">>("POST", "/api/calibrate", { signal }),
  acceptLearnt: (id: string) => send<Told<"learntAnswerSchema">>("POST", "/api/learnt", { body: { id } }),
  undoLearnt: (id: string) => send<Told<"learntAnswerSchema">>("DELETE", at("/api/learnt", id)),
  tastings: (signal?: AbortSignal) =>
    every((page) => send<Page<"storedTastingSchema">>("GET", `/api/tastings?pageSize=${PAGE}&page=${page}`, { signal })),
  createTasting: (id: string, tasting: Tasting) =>
    send<Told<"storedTastingSchema">>("POST", "/api/tastings", { body: checked("tastingInputSchema", { ...tasting, id }) }),
  changeTasting: (id: string, version: number, tasting: Tasting) =>
    send<Told<"storedTastingSchema">>("PUT", at("/api/tastings", id), { body: checked("tastingInputSchema", tasting), version }),
  keepPhoto: async (picture: Blob): Promise<Photo> => {
    const response = await fetch("/api/photos", { method: "POST", headers: { "content-type": picture.type }, body: picture }).catch(
      () => {
        throw new WireError(0, noAnswer);
      },
    );
    const json: unknown = await response.json().catch(() => undefined);
    if (!response.ok) {
      const problem = problemIn(json);
      throw new WireError(response.status, refusalWords(response.status, problem), problem);
    }
    if (json === undefined) throw new WireError(0, notUnderstood);
    return json as Photo;
  },
  session: (signal?: AbortSignal) => send<Told<"sessionSchema">>("GET", SESSION, { signal }),
  enter: (passcode: string, device: string) =>
    send<Told<"sessionSchema">>("POST", "/api/session", { body: checked("enterSchema", { passcode, device }) }),
  leave: () => send<null>("DELETE", "/api/session"),
  recover: (code: string, passcode: string) => send<Told<"recoverySchema">>("POST", "/api/recover", { body: { code, passcode } }),
  access: (signal?: AbortSignal) => send<Told<"accessSchema">>("GET", "/api/access", { signal }),
  letGo: (id: string) => send<null>("DELETE", at("/api/access/devices", id)),
  setHelper: (passcode: string | null) => send<null>("PUT", "/api/access/helper", { body: checked("helperSchema", { passcode }) }),
  setPasscode: (old: string, passcode: string) =>
    send<Told<"recoverySchema">>("PUT", "/api/access/passcode", { body: { old, passcode } }),
  health: (signal?: AbortSignal) => send<Told<"healthSchema">>("GET", "/api/health", { signal }),
  scaleUp: (body: ScaleUpRequest, signal?: AbortSignal) =>
    send<Told<"scaleUpSchema">>("POST", "/api/scale-up", { body: checked("scaleUpRequestSchema", body), signal }),
  /** A file to be kept, with the name the server gives it. */
  exportFile: async (asked: ExportRequest): Promise<{ name: string; content: Blob }> => {
    const response = await raw("/api/export", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(await checked("exportRequestSchema", asked)),
    });
    return {
      name: /filename="([^"]+)"/.exec(response.headers.get("content-disposition") ?? "")?.[1] ?? "uprise",
      content: await response.blob(),
    };
  },
  importText: (asked: ImportRequest, take = false) =>
    send<Told<"importAnswerSchema">>("POST", `/api/import${take ? "?take=1" : ""}`, {
      body: checked("importRequestSchema", asked),
    }),
  restore: async (archive: Blob, take: boolean): Promise<RestoreAnswer> => {
    const response = await raw(`/api/restore${take ? "?take=1" : ""}`, {
      method: "POST",
      headers: { "content-type": "application/zip" },
      body: archive,
    });
    return (await response.json()) as RestoreAnswer;
  },
  undoRestore: (id: string) => send<Told<"undoneSchema">>("DELETE", at("/api/restore", id)),
  packets: (signal?: AbortSignal) =>
    every((page) => send<Page<"storedPacketSchema">>("GET", `/api/packets?pageSize=${PAGE}&page=${page}`, { signal })),
  createPacket: (id: string, packet: Packet) =>
    send<Told<"storedPacketSchema">>("POST", "/api/packets", { body: checked("packetInputSchema", { ...packet, id }) }),
  changePacket: (id: string, version: number, packet: Packet) =>
    send<Told<"storedPacketSchema">>("PUT", at("/api/packets", id), { body: checked("packetInputSchema", packet), version }),
  removePacket: (id: string, version: number) => send<null>("DELETE", at("/api/packets", id), { version }),
  ovens: (signal?: AbortSignal) => every((page) => send<Page<"storedOvenSchema">>("GET", ovensPath(page), { signal })),
  createOven: (id: string, oven: OvenProfile) =>
    send<Told<"storedOvenSchema">>("POST", "/api/ovens", { body: checked("ovenInputSchema", { ...oven, id }) }),
  changeOven: (id: string, version: number, oven: OvenProfile) =>
    send<Told<"storedOvenSchema">>("PUT", at("/api/ovens", id), { body: checked("ovenInputSchema", oven), version }),
  removeOven: (id: string, version: number) => send<null>("DELETE", at("/api/ovens", id), { version }),
};

/** Whether what came with a refusal is a stored formula. */
export const isStoredFormula = (current: unknown): current is StoredFormula =>
  typeof current === "object" && current !== null && "formula" in current && "version" in current;

/** The stored formula that came with a refusal of a stale write. */
export function currentOf(error: unknown): StoredFormula | null {
  if (!(error instanceof WireError) || error.status !== 412) return null;
  const current = error.problem?.current;
  return isStoredFormula(current) ? current : null;
}
