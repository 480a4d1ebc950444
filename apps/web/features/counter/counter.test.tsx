import "fake-indexeddb/auto";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { StoredBake } from "@uprise/contract";
import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { bareKitchen, type BakeEvent, beginKind, openFormula, readyForCounter, slipAnswer } from "@uprise/core";
import type { ReactElement } from "react";
import { waitingEvents } from "../../device/outbox";
import { ThemeProvider } from "../../theme/theme";
import { wire, WireError } from "../wire/client";
import { timerText } from "./figures";
import { requestOf } from "./request";
import { CounterScreen } from "./screen";

jest.mock("expo-keep-awake", () => ({
  activateKeepAwakeAsync: () => Promise.reject(new Error("not now")),
  deactivateKeepAwake: () => Promise.resolve(),
}));
jest.mock("expo-router", () => ({ useRouter: () => ({ navigate: jest.fn() }) }));

const formula = beginKind("muffin", "metric", 700);
const made = readyForCounter(openFormula(formula, bareKitchen));
const bakeStep = made.steps.find(({ kind }) => kind === "bake")?.id ?? "";
let count = 0;
/** A bake of its own for each test: what waits on the device outlives a page. */
const stored = (events: BakeEvent[] = []): StoredBake => ({
  id: `bake-${++count}`,
  version: 1,
  createdAt: "2026-11-28T05:00:00Z",
  updatedAt: "2026-11-28T05:00:00Z",
  record: { title: "Pier muffins", formula, steps: made.steps, expected: made.expected },
  events,
  phase: "ready",
  last: 0,
});

function show(element: ReactElement) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <QueryClientProvider client={client}>
      <ThemeProvider>{element}</ThemeProvider>
    </QueryClientProvider>,
  );
}
const press = (name: string | RegExp): void => void fireEvent.click(screen.getAllByRole("button", { name })[0] as HTMLElement);

let sent: BakeEvent[];
beforeEach(() => {
  sent = [];
  jest.spyOn(wire, "ingredients").mockResolvedValue([]);
  jest.spyOn(wire, "ovens").mockResolvedValue([]);
  jest.spyOn(wire, "devices").mockResolvedValue([]);
  jest.spyOn(wire, "bakes").mockResolvedValue({ items: [], page: 1, pageSize: 60, total: 0 });
  jest.spyOn(wire, "appendEvents").mockImplementation(async (_, events) => {
    sent.push(...events);
    return { fresh: events.map(({ id }) => id), refused: [] };
  });
});
afterEach(() => jest.restoreAllMocks());

const open = async (bake: StoredBake): Promise<void> => {
  jest.spyOn(wire, "readBake").mockResolvedValue(bake);
  show(<CounterScreen id={bake.id} />);
  await screen.findByRole("heading", { name: "Pier muffins" });
};
/** Up to the first amount that is weighed. */
const toTheScale = async (): Promise<void> => {
  for (let k = 0; k < 6 && screen.queryByRole("button", { name: "By spoon" }) === null; k++) {
    const next = screen.queryByRole("button", { name: "Done" }) ?? screen.queryByRole("button", { name: "Begun" });
    await act(async () => void (next && fireEvent.click(next)));
  }
  await screen.findByRole("button", { name: "By spoon" });
};

test("a step that is done is written down with the time it happened, and the next one comes", async () => {
  const bake = stored();
  await open(bake);
  const first = made.steps[0];
  await screen.findByText(first?.words ?? "");
  press("Done");
  await waitFor(() => expect(sent).toMatchObject([{ kind: "step", stepId: first?.id, done: true }]));
  expect(Math.abs(Date.parse(sent[0]?.at ?? "") - Date.now())).toBeLessThan(60_000);
});

test("what happens with no answer from the server is kept, in order, and sent once when it answers", async () => {
  const bake = stored();
  const append = jest.spyOn(wire, "appendEvents").mockRejectedValue(new WireError(0, "no answer"));
  await open(bake);
  press("Done");
  await toTheScale();
  press("By spoon");
  await waitFor(async () => expect((await waitingEvents(bake.id)).length).toBeGreaterThan(1));
  const kept = (await waitingEvents<BakeEvent>(bake.id)).map(({ event }) => event.id);
  append.mockImplementation(async (_, events) => {
    sent.push(...events);
    return { fresh: [], refused: [] };
  });
  await act(async () => void globalThis.dispatchEvent(new Event("online")));
  await waitFor(async () => expect(await waitingEvents(bake.id)).toEqual([]));
  expect(sent.map(({ id }) => id).sort()).toEqual([...kept].sort());
  const times = sent.map(({ at }) => Date.parse(at));
  expect([...times].sort((a, b) => a - b)).toEqual(times);
});

test("what the server refuses for good is told, and stays on the device", async () => {
  const bake = stored();
  jest.spyOn(wire, "appendEvents").mockRejectedValue(new WireError(422, "This bake has 20000 events already"));
  await open(bake);
  press("Done");
  await screen.findByText(/does not take something that happened here: This bake has 20000 events/);
  expect((await waitingEvents(bake.id)).length).toBe(1);
});

test("an amount that is far off is a slip: what it does, and the remedy that is taken changes what is weighed", async () => {
  const bake = stored();
  const slip = jest
    .spyOn(wire, "slip")
    .mockImplementation(async ({ slip: told }) => slipAnswer(openFormula(formula, bareKitchen), told));
  await open(bake);
  await toTheScale();
  fireEvent.change(screen.getByLabelText("Or what your own scale shows"), { target: { value: "400" } });
  press("Take that");
  await screen.findByRole("heading", { name: /400 g of .* went in/ });
  await waitFor(() => expect(slip).toHaveBeenCalledTimes(1));
  await screen.findAllByRole("button", { name: /^Do that/ });
  press(/^Do that/);
  await waitFor(() => expect(sent.map(({ kind }) => kind)).toEqual(expect.arrayContaining(["weighed", "slip", "remedy"])));
});

test("in the oven the time that is left is told by what is expected, and out goes to cooling and judging", async () => {
  const at = (minutes: number): string => new Date(Date.now() - minutes * 60_000).toISOString();
  const bake = stored([
    { id: "a", at: at(20), kind: "step", stepId: "combine", done: true },
    { id: "b", at: at(5), kind: "step", stepId: bakeStep, done: false },
  ]);
  await open(bake);
  expect(screen.getByRole("status", { name: "Remaining time" }).textContent).toMatch(/\d+–\d+ min/);
  expect(screen.getByRole("img", { name: /The probe over the expected curve/ })).toBeTruthy();
  press(/^Out/);
  await screen.findByText(/earliest clean cut/);
  const create = jest.spyOn(wire, "createTrial").mockImplementation(async (id, trial) => ({ id, version: 1, createdAt: trial.at, updatedAt: trial.at, trial })); // prettier-ignore
  press("Top: domed");
  press("Moistness: moist");
  press("Keep it in the log");
  await screen.findByText("Top: domed");
  await waitFor(() => expect(sent.map(({ kind }) => kind)).toEqual(["out", "judged"]));
  // With the minutes of the oven, and what was answered on the log's own scales.
  expect(create.mock.calls[0]?.[1]).toMatchObject({ bakeId: bake.id, scores: { top: 2, moistness: 3 } });
  expect(create.mock.calls[0]?.[1].measured.minutes).toBeCloseTo(5, 0);
});

test("what a stand-in shows is nobody's number in a real bake; one's own probe is typed", async () => {
  const at = (minutes: number): string => new Date(Date.now() - minutes * 60_000).toISOString();
  const bake = stored([{ id: "b", at: at(5), kind: "step", stepId: bakeStep, done: false }]);
  jest.spyOn(wire, "devices").mockResolvedValue([{ id: "p", version: 1, createdAt: at(99), updatedAt: at(99), name: "Stand-in probe", kind: "probe", simulated: true } as never]); // prettier-ignore
  const sockets = jest.fn();
  const before = globalThis.WebSocket;
  globalThis.WebSocket = class {
    constructor() {
      sockets();
    }
    close(): void {}
  } as never;
  await open(bake);
  fireEvent.change(screen.getByLabelText("Your probe shows"), { target: { value: "61" } });
  press("Note it");
  await screen.findByText(/61 °C inside/);
  await waitFor(() => expect(sent).toMatchObject([{ kind: "probe", celsius: 61, by: "hand" }]));
  expect(sockets).not.toHaveBeenCalled();
  globalThis.WebSocket = before;
});

test("where everything waits for a timer, the one button ends what the timer is for", async () => {
  const at = (minutes: number): string => new Date(Date.now() - minutes * 60_000).toISOString();
  const before = made.steps
    .slice(
      0,
      made.steps.findIndex(({ kind }) => kind === "bake"),
    )
    .filter(({ kind }) => kind !== "preheat");
  const bake = stored([
    ...before.map(({ id }, k): BakeEvent => ({ id: `d${k}`, at: at(20 - k), kind: "step", stepId: id, done: true })),
    { id: "heat", at: at(3), kind: "step", stepId: "preheat", done: false },
  ]);
  await open(bake);
  press("It is hot");
  await waitFor(() => expect(sent).toMatchObject([{ kind: "step", stepId: "preheat", done: true }]));
  await screen.findByRole("button", { name: "It is in the oven" });
});

test("timers are written as a kitchen clock does; what is over counts up", () => {
  expect([3_905_000, 61_000, 9_000, 0, -75_000].map(timerText)).toEqual(["1:05:05", "1:01", "0:09", "0:00", "+1:15"]);
});

test("after a remedy the calls are asked with what is really meant", () => {
  const [first] = formula.lines;
  const asked = requestOf(formula, [{ ingredientId: first?.ingredientId ?? "", grams: 5 }, { ingredientId: "cream-of-tartar", grams: 3 }]); // prettier-ignore
  expect(asked.lines?.find(({ ingredientId }) => ingredientId === first?.ingredientId)?.grams).toBe(5);
  expect(asked.lines?.at(-1)).toEqual({ ingredientId: "cream-of-tartar", grams: 3 });
});
