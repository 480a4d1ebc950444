import type { QueryClient } from "@tanstack/react-query";
import type { StoredTrial } from "@uprise/contract";
import type { Trial } from "@uprise/core";
import { wire } from "./client";
import { keys } from "./keys";
import { sendOrKeep } from "./outbox";

/** Keeps a trial in the log, a new one or one that is there; where nobody answers it is sent later and stands here as it was written. */
export async function keepTrial(queries: QueryClient, id: string, trial: Trial, stored: StoredTrial | null): Promise<StoredTrial> {
  const write = stored
    ? {
        key: `trials/${id}`,
        name: trial.title,
        method: "PUT" as const,
        path: `/api/trials/${id}`,
        body: trial,
        version: stored.version,
      }
    : { key: `trials/${id}/new`, name: trial.title, method: "POST" as const, path: "/api/trials", body: { ...trial, id } };
  const now = new Date().toISOString();
  const answer = await sendOrKeep(write, () =>
    stored ? wire.changeTrial(id, stored.version, trial) : wire.createTrial(id, trial),
  );
  const saved = answer ?? { id, version: stored?.version ?? 1, createdAt: stored?.createdAt ?? now, updatedAt: now, trial };
  queries.setQueryData(keys.trial.of(saved.id), saved);
  await Promise.all([
    queries.invalidateQueries({ queryKey: keys.trials.all }),
    queries.invalidateQueries({ queryKey: keys.learnt.all }),
  ]);
  return saved;
}
