import { act, renderHook, waitFor } from "@testing-library/react";
import { beginKind, seasonSchema } from "@uprise/core";
import { perform } from "../workers/tasks";
import { useAsked } from "./use-asked";
import { ask, askTold, LIMIT_MS, runHere, TaskError } from "./workers";

interface Call {
  id: string;
  path: string[];
  argumentList: { value: unknown }[];
}

/** A worker that answers when it is told to, in the words of the library that calls it. */
class HandWorker {
  static made: HandWorker[] = [];
  static ended = 0;
  onerror: ((event: { preventDefault: () => void }) => void) | null = null;
  calls: Call[] = [];
  private hears: ((event: { data: unknown }) => void)[] = [];
  constructor(readonly url: string) {
    HandWorker.made.push(this);
  }
  addEventListener(_: string, hear: (event: { data: unknown }) => void): void {
    this.hears.push(hear);
  }
  removeEventListener(_: string, hear: (event: { data: unknown }) => void): void {
    this.hears = this.hears.filter((one) => one !== hear);
  }
  postMessage(call: Call): void {
    this.calls.push(call);
  }
  terminate(): void {
    HandWorker.ended++;
  }
  /** What was asked: the first argument of each task. */
  asked = (): unknown[] => this.calls.map(({ argumentList }) => (argumentList[1]?.value as unknown[])[0]);
  async answer(value: unknown): Promise<void> {
    const { id } = this.calls.at(-1) as Call;
    await act(async () => {
      for (const hear of [...this.hears]) hear({ data: { id, type: "RAW", value } });
      await Promise.resolve();
    });
  }
}

const { Worker: before } = globalThis as { Worker?: unknown };
beforeAll(() => {
  runHere(null);
  Object.assign(globalThis, { Worker: HandWorker });
});
afterAll(() => {
  Object.assign(globalThis, { Worker: before });
  runHere(perform);
});
const newest = (): HandWorker => HandWorker.made.at(-1) as HandWorker;
const own: never[] = [];

test("of many questions the one under way and the newest are put; answers say what they belong to", async () => {
  const { result, rerender, unmount } = renderHook(({ q }: { q: string }) => useAsked("search", [q, own, 3]), {
    initialProps: { q: "a" },
  });
  for (const q of ["b", "c", "d"]) rerender({ q });
  const worker = newest();
  expect([worker.url, worker.asked()]).toEqual(["/kitchen-worker.js", ["a"]]);
  await worker.answer({ result: ["A"] });
  // Nobody waits for the first any more: it is not shown.
  expect([result.current.data, result.current.pending, worker.asked()]).toEqual([null, true, ["a", "d"]]);
  await worker.answer({ result: ["D"] });
  expect([result.current.data, result.current.current, result.current.of?.[0]]).toEqual([["D"], true, "d"]);
  rerender({ q: "e" });
  expect([result.current.data, result.current.current, result.current.pending]).toEqual([["D"], false, true]);
  await worker.answer({ fault: { code: "bad-amount", message: "no such luck" } });
  expect([result.current.data, result.current.fault]).toEqual([null, { code: "bad-amount", message: "no such luck" }]);
  unmount();
});

test("a worker that does not start is told, and the next question has a new one", async () => {
  const { result, rerender, unmount } = renderHook(({ q }: { q: string }) => useAsked("search", [q, own, 3]), {
    initialProps: { q: "f" },
  });
  const made = HandWorker.made.length;
  act(() => newest().onerror?.({ preventDefault: () => undefined }));
  expect(result.current.fault?.message).toMatch(/worker did not start/);
  rerender({ q: "g" });
  expect([HandWorker.made.length, newest().asked()]).toEqual([made + 1, ["g"]]);
  await newest().answer({ result: ["G"] });
  expect([result.current.fault, result.current.data]).toEqual([null, ["G"]]);
  unmount();
});

test("a worker that hangs is ended and told, and the queue goes on", async () => {
  jest.useFakeTimers();
  const first = renderHook(() => useAsked("search", ["h", own, 3]));
  const second = renderHook(() => useAsked("search", ["i", own, 3]));
  const hung = newest();
  const { ended } = HandWorker;
  act(() => void jest.advanceTimersByTime(LIMIT_MS + 1));
  expect(HandWorker.ended).toBe(ended + 1);
  expect(first.result.current.fault?.message).toMatch(/takes too long/);
  expect(newest()).not.toBe(hung);
  expect(newest().asked()).toEqual(["i"]);
  jest.useRealTimers();
  await newest().answer({ result: ["I"] });
  expect(second.result.current.data).toEqual(["I"]);
  first.unmount();
  second.unmount();
});

test("a job that nobody waits for any more and that has run for long is ended; a short one is let finish", async () => {
  const now = jest.spyOn(Date, "now");
  const { rerender, unmount } = renderHook(({ q }: { q: string }) => useAsked("search", [q, own, 3]), {
    initialProps: { q: "j" },
  });
  const { ended } = HandWorker;
  rerender({ q: "k" });
  expect(HandWorker.ended).toBe(ended);
  await newest().answer({ result: [] });
  const at = Date.now();
  now.mockReturnValue(at + 3000);
  rerender({ q: "l" });
  expect(HandWorker.ended).toBe(ended + 1);
  expect(newest().asked()).toEqual(["l"]);
  now.mockRestore();
  await newest().answer({ result: [] });
  unmount();
});

test("what is asked once comes as a promise, and a refusal keeps its code", async () => {
  const asked = ask("begin", "loaf", "metric", 800).catch((caught: unknown) => caught);
  await waitFor(() => expect(newest().asked().at(-1)).toBe("loaf"));
  await newest().answer({ fault: { code: "empty-formula", message: "nothing" } });
  const error = await asked;
  expect(error).toBeInstanceOf(TaskError);
  expect((error as TaskError).fault.code).toBe("empty-formula");
});

test("what takes its time tells how far it is, and who takes it back waits no longer", async () => {
  runHere(perform);
  const formula = beginKind("loaf", "metric", 900);
  const flour = formula.lines[0];
  const grams = flour?.grams?.mid ?? 0;
  const season = seasonSchema.parse({ title: "A taller loaf", formula, goals: [{ quality: "height", wish: "more" }], factors: [{ id: "flour", kind: "amount", lineId: flour?.id, low: grams * 0.9, high: grams * 1.1 }], bakes: 4, seed: 1, runs: [], notes: "" }); // prettier-ignore
  const asked = [{ season, trials: [], tastings: [], packets: [] }, { own: [], entries: [], ovens: [], measures: "metric" }] as Parameters<typeof askTold<"season">>[1]; // prettier-ignore
  const told: number[] = [];
  const { proposed } = await askTold("season", asked, (done) => told.push(done));
  expect(proposed.length).toBeGreaterThan(2);
  expect(told.length).toBeGreaterThan(2);
  expect(told).toEqual([...told].sort((a, b) => a - b));
  expect(told.every((done) => done >= 0 && done <= 1)).toBe(true);
  const leave = new AbortController();
  const left = askTold("season", asked, undefined, leave.signal).catch((error: unknown) => error);
  leave.abort();
  expect(await left).toBe(leave.signal.reason);
  runHere(null);
});
