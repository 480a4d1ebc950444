import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import type { StoredSeason } from "@uprise/contract";
import { bareKitchen, beginKind, type Formula, type Season, seasonNow, seasonSchema, type SeasonState } from "@uprise/core";
import type { ReactNode } from "react";
import { ThemeProvider } from "../../theme/theme";
import { wire, WireError } from "../wire/client";
import { BeginSeason } from "./begin-screen";
import { SeasonScreen } from "./screen";
import { evidenceOf, nextBlock } from "./use-season";

const mockNavigate = jest.fn();
const mockReplace = jest.fn();
jest.mock("expo-router", () => ({ useRouter: () => ({ navigate: mockNavigate, replace: mockReplace }) }));

const times = { version: 1, createdAt: "2026-11-20T06:00:00Z", updatedAt: "2026-11-20T06:00:00Z" };
const loaf: Formula = beginKind("loaf", "metric", 900);
const egg = loaf.lines.find(({ ingredientId }) => /egg/.test(ingredientId ?? ""));
const grams = egg?.grams?.mid ?? 0;
const asked: Season = seasonSchema.parse({ title: "A taller loaf", formulaId: "loaf", formula: loaf, goals: [{ quality: "height", wish: "more" }], factors: [{ id: "egg", kind: "amount", lineId: egg?.id, name: "Egg", low: grams * 0.8, high: grams * 1.2 }], bakes: 5, blocks: { size: 2, by: "day" }, seed: 2, runs: [], notes: "" }); // prettier-ignore
const stateOf = (season: Season): SeasonState => seasonNow({ season, trials: [], tastings: [], packets: [] }, bareKitchen);
const first = stateOf(asked);
const taken: Season = { ...asked, runs: first.proposed.map(({ id, settings, kind, block, why }) => ({ id, settings, kind: kind === "logged" ? "first" : kind, block, why })) }; // prettier-ignore

const show = (node: ReactNode): void =>
  void render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <ThemeProvider>{node}</ThemeProvider>
    </QueryClientProvider>,
  );
const kept = (season: Season): StoredSeason => ({ ...times, id: "s", season });

beforeEach(() => {
  localStorage.clear();
  jest.spyOn(wire, "ovens").mockResolvedValue([]);
  jest.spyOn(wire, "vessels").mockResolvedValue([]);
  jest.spyOn(wire, "ingredients").mockResolvedValue([]);
  jest.spyOn(wire, "trials").mockResolvedValue([]);
  jest.spyOn(wire, "tastings").mockResolvedValue([]);
  jest.spyOn(wire, "packets").mockResolvedValue([]);
});
afterEach(() => {
  jest.restoreAllMocks();
  mockNavigate.mockReset();
  mockReplace.mockReset();
});

test("the first bakes stand as a table and are taken as they are; from then on the first of them is the next", async () => {
  jest.spyOn(wire, "readSeason").mockResolvedValue(kept(asked));
  const change = jest.spyOn(wire, "changeSeason").mockImplementation(async (_, version, season) => ({ ...kept(season), version: version + 1 })); // prettier-ignore
  show(<SeasonScreen id="s" />);
  const table = await screen.findByRole("table", { name: "The first bakes" });
  expect(within(table).getAllByRole("row")).toHaveLength(1 + first.proposed.length);
  fireEvent.click(screen.getByRole("button", { name: `Take these ${first.proposed.length} bakes` }));
  await screen.findByText("Next: bake 1 of 5");
  const [, version, sent] = change.mock.calls[0] ?? [];
  expect(version).toBe(1);
  expect(sent?.runs.map(({ settings }) => settings)).toEqual(first.proposed.map(({ settings }) => settings));
  expect(Date.parse(sent?.since ?? "")).toBeGreaterThan(0);
});

test("another device was first: it is told, and nothing that stands here is lost", async () => {
  jest.spyOn(wire, "readSeason").mockResolvedValue(kept(asked));
  jest.spyOn(wire, "changeSeason").mockRejectedValue(new WireError(412, "Somebody else saved version 2 meanwhile."));
  show(<SeasonScreen id="s" />);
  fireEvent.click(await screen.findByRole("button", { name: /^Take these/ }));
  await screen.findByText("Somebody else saved version 2 meanwhile.");
  expect(screen.getByRole("table", { name: "The first bakes" })).toBeTruthy();
});

test("each bake stands on the table with its height in words; a season off the list can be put back", async () => {
  jest.spyOn(wire, "readSeason").mockResolvedValue(kept(taken));
  const remove = jest.spyOn(wire, "removeSeason").mockResolvedValue(null);
  const restore = jest.spyOn(wire, "restoreSeason").mockResolvedValue(kept(taken));
  show(<SeasonScreen id="s" />);
  const table = await screen.findByRole("list", { name: "The season's bakes" });
  expect(within(table).getAllByRole("img", { name: /^Bake \d: expected to stand \d+ mm in the middle$/ })).toHaveLength(taken.runs.length); // prettier-ignore
  fireEvent.click(screen.getByRole("button", { name: "Take it off the list" }));
  fireEvent.click(await screen.findByRole("button", { name: "Put it back" }));
  await waitFor(() => expect(restore).toHaveBeenCalledWith("s"));
  expect(remove).toHaveBeenCalledWith("s", 1);
});

test("what is wished and what may move goes out as it was chosen", async () => {
  jest.spyOn(wire, "readFormula").mockResolvedValue({ ...times, id: "loaf", formula: loaf });
  const create = jest.spyOn(wire, "createSeason").mockImplementation(async (id, season) => ({ ...times, id, season }));
  show(<BeginSeason formulaId="loaf" />);
  const off = await screen.findByRole("button", { name: "Choose what may move" });
  expect(off.getAttribute("aria-disabled")).toBe("true");
  fireEvent.click(screen.getByRole("checkbox", { name: /^Oven, now/ }));
  fireEvent.change(screen.getByLabelText("Oven, to"), { target: { value: "200" } });
  fireEvent.click(screen.getByRole("checkbox", { name: "Crumble" }));
  fireEvent.click(screen.getByRole("button", { name: "Choose the bakes" }));
  await waitFor(() => expect(create).toHaveBeenCalledTimes(1));
  const sent = seasonSchema.parse(create.mock.calls[0]?.[1]);
  expect(sent.goals).toEqual([{ quality: "height", wish: "more" }, { quality: "crumble", wish: "more" }, { quality: "moistness", keep: { low: 0.7 } }]); // prettier-ignore
  expect(sent.factors).toMatchObject([{ kind: "oven", high: 200 }]);
  expect(mockReplace).toHaveBeenCalledWith(expect.stringMatching(/^\/log\/season\//));
});

test("bakes of one block are planned together; evidence is told with its range", () => {
  const state = stateOf(taken);
  const block = nextBlock(state);
  expect(block.length).toBeGreaterThan(0);
  expect(new Set(block.map(({ block: of }) => of)).size).toBe(1);
  expect(evidenceOf(taken, state.now, 3)).toMatch(/^after 3 bakes: height \d+ mm \(\d+ to \d+\)$/);
});
