import type { QueryClient } from "@tanstack/react-query";
import type { BakeInput, BakeSummary, StoredBake, StoredFormula, StoredIngredient, StoredOven } from "@uprise/contract";
import type { BakeRecord, Formula } from "@uprise/core";
import { bookEntryOf, nestedIds, type Shelf } from "@uprise/core/page";
import { ask } from "../../device/workers";
import { waitingWrites } from "../../device/writes";
import type { KitchenData } from "../../workers/tasks";
import { wire, WireError } from "./client";
import { keys } from "./keys";
import { sendOrKeep } from "./outbox";
import { formulaHere, shelfFrom } from "./queries";

type Asked = BakeInput & { id: string };
const newBake = (id: string): string => `bakes/${id}/new`;

/** Whether a bake that began without a server has not been sent yet. */
export const isUnsent = async (id: string): Promise<boolean> =>
  (await waitingWrites()).some(({ key, refused }) => key === newBake(id) && refused === undefined);

/** Every formula that this one holds, as this device knows them; one that it never saw cannot be weighed. */
function entriesHere(queries: QueryClient, formula: Formula, shelf: Shelf): KitchenData["entries"] {
  const entries = new Map<string, ReturnType<typeof bookEntryOf>>();
  const wanted = nestedIds([...formula.lines, ...(formula.parts ?? []).flatMap(({ additions }) => additions)]);
  for (let id = wanted.pop(); id !== undefined; id = wanted.pop()) {
    if (entries.has(id)) continue;
    const stored = formulaHere(queries, id)?.formula;
    if (!stored)
      throw new WireError(0, `Nobody answers, and “${formula.title}” holds a formula that this device has not seen yet.`);
    const entry = bookEntryOf(stored.formula, shelf);
    entries.set(id, entry);
    wanted.push(...nestedIds(entry.lines));
  }
  return [...entries];
}

/** A bake as this device lays it out by itself, of what it knows of the kitchen. */
async function layOutHere(queries: QueryClient, { formula: sent, ovenId, ...of }: Asked, stored: StoredFormula | null): Promise<BakeRecord> {
  const formula = sent ?? stored?.formula;
  if (!formula) throw new WireError(0, "Nobody answers, and this device has not seen this formula yet.");
  const own = (queries.getQueryData<StoredIngredient[]>(keys.ingredients.all) ?? []).map(({ ingredient }) => ingredient);
  const ovens = queries.getQueryData<StoredOven[]>(keys.ovens.all) ?? [];
  const entries = entriesHere(queries, formula, shelfFrom(await ask("pantry"), own));
  const data: KitchenData = { own, entries, ovens: ovens.map(({ id, oven }) => [id, oven]), measures: formula.measures };
  const oven = ovenId ?? formula.oven.ovenId;
  const { warmMinutes } = ovens.find(({ id }) => id === oven)?.oven ?? {};
  const { rehearsal, id: _, ...rest } = of;
  const from = rehearsal?.from;
  return ask("lay-out", { ...rest, formula, ...(ovenId === undefined ? {} : { ovenId }), warmMinutes, ...(rehearsal && from !== undefined ? { rehearsal: { ...rehearsal, from } } : {}) }, data);
} // prettier-ignore

/** Lays a bake out; where nobody answers, this device does it, and the server hears of it when it is back. */
export async function beginBake(queries: QueryClient, asked: Asked): Promise<StoredBake> {
  const stored = asked.formulaId === undefined ? null : formulaHere(queries, asked.formulaId)?.formula ?? null;
  const now = new Date().toISOString();
  // What is kept says what it is of, as it stands now: the server may have another when it hears of it.
  const kept: Asked = {
    ...asked,
    ...(asked.formula ?? !stored ? {} : { formula: stored.formula, formulaVersion: stored.version }),
    ...(asked.rehearsal ? { rehearsal: { ...asked.rehearsal, from: now } } : {}),
  };
  let record: BakeRecord | null = null;
  const answer = await wire.createBake(asked).catch(async (error: unknown) => {
    if (!(error instanceof WireError) || error.status !== 0) throw error;
    // Laid out first: what cannot be is not kept to be refused later.
    record = await layOutHere(queries, kept, stored);
    const write = { key: newBake(asked.id), name: record.title, method: "POST" as const, path: "/api/bakes", body: kept };
    return sendOrKeep(write, () => wire.createBake(kept));
  });
  const saved = answer ?? (record && { id: asked.id, version: 1, createdAt: now, updatedAt: now, record, events: [], phase: "ready" as const, last: 0 });
  if (!saved) throw new WireError(0, "Nobody answers.");
  queries.setQueryData(keys.bake.of(saved.id), saved);
  if (answer) await queries.invalidateQueries({ queryKey: keys.bakes.all });
  else queries.setQueryData<{ items: BakeSummary[] }>(keys.bakes.all, (list) => list && { ...list, items: [summaryOf(saved), ...list.items] });
  return saved;
} // prettier-ignore

function summaryOf({ record, phase, events: _, last: _l, ...stored }: StoredBake): BakeSummary {
  const { title, formula, planId, planBakeId, batch, rehearsal } = record;
  return { ...stored, title, kind: formula.kind, phase, startedAt: null, ...(planId ? { planId } : {}), ...(planBakeId ? { planBakeId } : {}), ...(batch ? { batch } : {}), rehearsal: rehearsal !== undefined };
} // prettier-ignore

/** A bake as it is stored; one that was begun here and not sent yet stands as it was laid out. */
export async function readBake(queries: QueryClient, id: string, signal?: AbortSignal): Promise<StoredBake> {
  try {
    return await wire.readBake(id, signal);
  } catch (error) {
    const here = queries.getQueryData<StoredBake>(keys.bake.of(id));
    if (here && error instanceof WireError && error.status === 404 && (await isUnsent(id))) return here;
    throw error;
  }
}
