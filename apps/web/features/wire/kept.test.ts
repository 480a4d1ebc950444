import "fake-indexeddb/auto";
import { dehydrate, QueryClient } from "@tanstack/react-query";
import { keepAnswers, keptAnswers } from "../../device/answers";
import { waitingWrites } from "../../device/writes";
import { hear } from "./changes";
import { WireError } from "./client";
import { forgetKitchen, isSettled, keepAnswersOf } from "./kept";
import { keys } from "./keys";
import { sendOrKeep } from "./outbox";

const until = async (does: () => Promise<boolean>): Promise<void> => {
  for (let k = 0; k < 100; k++) {
    if (await does()) return;
    await new Promise((done) => setTimeout(done, 50));
  }
  throw new Error("it did not come to that");
};
const client = (): QueryClient => new QueryClient({ defaultOptions: { queries: { retry: false } } });

test("what the kitchen has is kept, what was computed is not; brought back it counts as old, and what is newer stays", async () => {
  const before = client();
  const stop = keepAnswersOf(before);
  before.setQueryData(keys.packets.all, [{ id: "soda" }]);
  before.setQueryData(keys.formula.of("pier"), { id: "pier", version: 1 });
  before.setQueryData(keys.faults.of("x"), { causes: [] });
  await until(async () => JSON.stringify((await keptAnswers())?.state ?? "").includes("pier"));
  stop();
  expect(JSON.stringify((await keptAnswers())?.state)).not.toContain("causes");
  const after = client();
  after.setQueryData(keys.formula.of("pier"), { id: "pier", version: 2 });
  const end = keepAnswersOf(after);
  await until(async () => after.getQueryData(keys.packets.all) !== undefined);
  expect(after.getQueryData(keys.formula.of("pier"))).toEqual({ id: "pier", version: 2 });
  const dataUpdatedAt = after.getQueryState(keys.packets.all)?.dataUpdatedAt ?? 0;
  // Shown at once, asked for anew, and built upon only when that has ended one way or the other.
  expect(after.getQueryCache().find({ queryKey: keys.packets.all })?.isStaleByTime(60_000)).toBe(true);
  expect([isSettled({ dataUpdatedAt, isFetching: true }), isSettled({ dataUpdatedAt, isFetching: false }), isSettled({ dataUpdatedAt: Date.now(), isFetching: true })]).toEqual([false, true, true]); // prettier-ignore
  await forgetKitchen(after);
  end();
  expect(after.getQueryData(keys.packets.all)).toBeUndefined();
});

test("where everything was forgotten nothing is written again, not even an empty sheet", async () => {
  const at = client();
  const stop = keepAnswersOf(at);
  at.setQueryData(keys.packets.all, [{ id: "soda" }]);
  await until(async () => JSON.stringify((await keptAnswers())?.state ?? "").includes("soda"));
  await forgetKitchen(at, true);
  at.setQueryData(keys.session.all, { needed: true, here: null });
  await new Promise((done) => setTimeout(done, 2600));
  expect(await keptAnswers()).toBeUndefined();
  stop();
}, 15_000);

test("that somebody stood before the door is not kept, and of a page that kept it not believed; who came in is", async () => {
  const session = { needed: true, here: null };
  const at = client();
  const stop = keepAnswersOf(at);
  at.setQueryData(keys.session.all, session);
  at.setQueryData(keys.packets.all, [{ id: "powder" }]);
  await until(async () => JSON.stringify((await keptAnswers())?.state ?? "").includes("powder"));
  expect(JSON.stringify((await keptAnswers())?.state)).not.toContain("needed");
  stop();
  const { state, ...kept } = (await keptAnswers()) ?? { shape: "", at: 0, state: null };
  const old = client();
  old.setQueryData(keys.session.all, session);
  old.setQueryData(keys.packets.all, [{ id: "powder" }]);
  await keepAnswers({ ...kept, state: dehydrate(old) });
  const after = client();
  const end = keepAnswersOf(after);
  await until(async () => after.getQueryData(keys.packets.all) !== undefined);
  expect(after.getQueryData(keys.session.all)).toBeUndefined();
  after.setQueryData(keys.session.all, { needed: true, here: { id: "d", device: "Desk", role: "baker" } });
  await until(async () => JSON.stringify((await keptAnswers())?.state ?? "").includes("Desk"));
  end();
});

test("what others write makes stale what it may have changed, and nothing else", () => {
  const queries = client();
  for (const key of [keys.formula.of("a"), keys.formula.of("b"), keys.formulas.list(""), keys.packets.all, keys.trials.all]) queries.setQueryData(key, []);
  const stale = (): string[] => queries.getQueryCache().getAll().filter(({ state }) => state.isInvalidated).map(({ queryKey }) => queryKey.join("/")).sort(); // prettier-ignore
  hear(queries, { what: "formulas", id: "a" });
  expect(stale()).toEqual(["formula/a", "formulas/list/"]);
  hear(queries, { what: "something new", id: null });
  expect(stale()).toHaveLength(2);
  hear(queries, { what: "anything", id: null });
  expect(stale()).toHaveLength(5);
}); // prettier-ignore

test("a write without an answer is kept under its name; one that is refused is told; one that arrives takes what waited of it along", async () => {
  const write = { key: "formulas/pier", name: "Pier loaf", method: "PUT" as const, path: "/api/formulas/pier", body: {} };
  expect(await sendOrKeep(write, () => Promise.reject(new WireError(0, "nobody")))).toBeNull();
  expect((await waitingWrites()).map(({ name }) => name)).toEqual(["Pier loaf"]);
  await expect(sendOrKeep(write, () => Promise.reject(new WireError(412, "stale")))).rejects.toThrow("stale");
  expect(await waitingWrites()).toHaveLength(1);
  expect(await sendOrKeep(write, async () => "there")).toBe("there");
  expect(await waitingWrites()).toEqual([]);
});
