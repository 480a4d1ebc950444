import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { PlanRequest, StoredPlan } from "@uprise/contract";
import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import { bareKitchen, type BakeEvent, beginKind, openFormula, type Plan, planDay, readyForCounter } from "@uprise/core";
import { ThemeProvider } from "../../theme/theme";
import { wire, WireError } from "../wire/client";
import { DayScreen } from "./screen";
import { soFarOf } from "./so-far";
import { clockOf, dateOf, isoFrom, isoLike, lengthWords, markOf } from "./times";

jest.mock("expo-router", () => ({ useRouter: () => ({ navigate: jest.fn() }) }));

const start = "2026-11-28T05:30:00+01:00";
const times = { version: 1, createdAt: start, updatedAt: start };
const day: PlanRequest = { start, hands: 1, mixers: 1, ovens: [{ id: "deck", name: "Deck", racks: 2 }], bakes: [{ id: "a", formulaId: "muffins", batches: 1, readyBy: "2026-11-28T08:00:00+01:00" }] }; // prettier-ignore
const stored: StoredPlan = { ...times, id: "d", title: "Pier day", day };
const planOf = ({ bakes, ...rest }: PlanRequest): Plan =>
  planDay({ ...rest, bakes: bakes.map((bake) => ({ ...bake, title: "Pier muffins", input: openFormula(beginKind("muffin", "metric", 700), bareKitchen) })) }, undefined, { tries: 20 }); // prettier-ignore

beforeEach(() => {
  jest.spyOn(wire, "readPlan").mockResolvedValue(stored);
  jest.spyOn(wire, "plan").mockImplementation(async (asked) => planOf(asked));
  jest.spyOn(wire, "listFormulas").mockResolvedValue({ items: [{ ...times, id: "muffins", title: "Pier muffins", kind: "muffin", lines: 8, massG: 700 }], page: 1, pageSize: 50, total: 1 }); // prettier-ignore
  jest
    .spyOn(wire, "ovens")
    .mockResolvedValue([{ ...times, id: "deck", oven: { name: "Deck", modes: ["still"], biasK: 0, swingK: 6, racks: 2 } }]);
});
afterEach(() => jest.restoreAllMocks());

function show() {
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <ThemeProvider>
        <DayScreen id="d" />
      </ThemeProvider>
    </QueryClientProvider>,
  );
}

test("a day shows its ribbon, and an earlier deadline is saved and told to be missed, with what would help", async () => {
  const change = jest
    .spyOn(wire, "changePlan")
    .mockImplementation(async (_, version, { title, day: next }) => ({ ...stored, version: version + 1, title, day: next }));
  show();
  await screen.findByText(/Everything is ready by/, {}, { timeout: 10_000 });
  expect(screen.getByRole("group", { name: "The ribbon of the day" })).toBeTruthy();
  expect(screen.getByLabelText(/^A \d\d:\d\d to .*Into the oven/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText("All ready by"), { target: { value: "05:50" } });
  await screen.findByText(/Too late: Pier muffins by \d+ min/, {}, { timeout: 10_000 });
  expect(screen.getByText(/later deadline/i)).toBeTruthy();
  expect(change.mock.calls[0]?.[2].day.bakes[0]?.readyBy).toBe("2026-11-28T05:50:00+01:00");
  fireEvent.click(screen.getByRole("button", { name: "Take the last change back" }));
  await screen.findByText(/Everything is ready by/, {}, { timeout: 10_000 });
  await waitFor(() => expect(change.mock.calls.map(([, version]) => version)).toEqual([1, 2]));
}, 30_000);

test("a day that is not saved stays on the screen and says so", async () => {
  jest.spyOn(wire, "changePlan").mockRejectedValue(new WireError(0, "No answer from the server."));
  show();
  await screen.findByText(/Everything is ready by/, {}, { timeout: 10_000 });
  fireEvent.change(screen.getByLabelText("All ready by"), { target: { value: "09:15" } });
  await screen.findByText(/Not saved: No answer/);
  expect((screen.getByLabelText("All ready by") as HTMLInputElement).value).toBe("09:15");
}, 30_000);

test("planned again, what has begun at the counter is told with its times; what runs takes as long as it should", () => {
  const { steps, expected } = readyForCounter(openFormula(beginKind("muffin", "metric", 700), bareKitchen));
  const bake = steps.find(({ kind }) => kind === "bake")?.id ?? "";
  const at = (minute: number): string => new Date(Date.parse(start) + minute * 60_000).toISOString();
  const events: BakeEvent[] = [
    { id: "a", at: at(3), kind: "step", stepId: "pan", done: true },
    { id: "b", at: at(10), kind: "step", stepId: bake, done: false },
  ];
  const record = { title: "x", formula: beginKind("muffin", "metric", 700), steps, expected, batch: 2, ovenId: "deck" };
  const done = soFarOf({ record, events }, Date.parse(at(12)), start);
  expect(done).toEqual([
    { batch: 2, stepId: "pan", start: "2026-11-28T05:33:00+01:00", end: "2026-11-28T05:33:00+01:00", ovenId: "deck" },
    {
      batch: 2,
      stepId: bake,
      start: "2026-11-28T05:40:00+01:00",
      end: isoLike(Date.parse(at(10)) + expected.minutes.mid * 60_000, start),
      ovenId: "deck",
    },
  ]);
});

test("times are those of the day's own place, whatever the device's clock", () => {
  expect(clockOf(start)).toBe("05:30");
  expect(isoFrom(dateOf(start), "09:15", start)).toBe("2026-11-28T09:15:00+01:00");
  expect(isoFrom(dateOf(start), "25:99", start)).toBeNull();
  expect(isoLike(Date.parse(start), start)).toBe(start);
  expect(isoLike(Date.parse("2026-11-28T04:30:00Z"), "2026-01-01T00:00:00-07:00")).toBe("2026-11-27T21:30:00-07:00");
  expect([lengthWords(45), lengthWords(135), markOf(0), markOf(27)]).toEqual(["45 min", "2 h 15 min", "A", "B"]);
});
