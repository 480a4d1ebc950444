import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import type { ImportAnswer, StoredPacket } from "@uprise/contract";
import {
  analyse,
  bareKitchen,
  beginKind,
  formulaFrom,
  type Formula,
  gramsText,
  openFormula,
  packetSchema,
  readRecipe,
  type ScaleUp,
} from "@uprise/core";
import type { ReactElement } from "react";
import { ThemeProvider } from "../../theme/theme";
import { SendRoom } from "../exchange/send-room";
import { BringFile } from "../reader/bring-file";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { bareHere } from "../wire/bare.fixture";
import { ManyRoom } from "./many-room";
import { LabelRoom } from "./room";

jest.mock("expo-router", () => ({ useRouter: () => ({ navigate: jest.fn() }), usePathname: () => "/" }));

const formula: Formula = {
  ...beginKind("loaf", "metric", 800),
  title: "Pier loaf",
  lines: Object.entries({ "buckwheat-flour": 200, water: 240, egg: 110, "almond-flour": 60, "sunflower-oil": 50, "powder-aluminium-free": 12 }).map(([ingredientId, mid], k) => ({ id: `l${k}`, ingredientId, grams: { low: mid, mid, high: mid } })),
}; // prettier-ignore
const kitchen = bareHere();
const input = openFormula(formula, bareKitchen);
const analysis = analyse(input);
const packet = (id: string, more: object): StoredPacket => ({ id, version: 1, createdAt: "", updatedAt: "", packet: packetSchema.parse({ name: id, sizeG: 1000, ...more }) }); // prettier-ignore

function show(element: ReactElement, packets: StoredPacket[] = []) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } });
  client.setQueryData(keys.packets.all, packets);
  return render(
    <QueryClientProvider client={client}>
      <ThemeProvider>{element}</ThemeProvider>
    </QueryClientProvider>,
  );
}
const label = (packets: StoredPacket[] = []) =>
  show(<LabelRoom id="x" formula={formula} open={() => input} kitchen={kitchen} />, packets);

beforeEach(() => localStorage.clear());

test("the law of the place moves words and figures: statement, sodium, energy", () => {
  label();
  fireEvent.click(screen.getByRole("radio", { name: "European Union" }));
  const table = screen.getByRole("table", { name: "Nutrition" });
  expect(within(table).getByText("Salt")).toBeTruthy();
  expect(screen.queryByText(/^Contains:/)).toBeNull();
  fireEvent.click(screen.getByRole("radio", { name: "United States" }));
  expect(screen.getByText("Contains: egg, almonds.")).toBeTruthy();
  expect(within(table).getByText("Sodium")).toBeTruthy();
  fireEvent.click(screen.getByRole("radio", { name: "Australia and New Zealand" }));
  expect(screen.getByText(/no detectable gluten/)).toBeTruthy();
  expect(within(table).queryByText(/kcal$/)).toBeNull();
});

test("what no packet says is asked, what one says against it stands first, and nothing is promised", () => {
  label([packet("Mill sack", { ingredientId: "buckwheat-flour", gluten: "certified" }), packet("Almonds, bag", { ingredientId: "almond-flour", statement: "May contain traces of wheat." })]); // prettier-ignore
  expect(screen.getByText("As this shelf is, the words may not stand on it.")).toBeTruthy();
  const checks = within(screen.getByRole("list", { name: "What each packet must say" }));
  expect(checks.getByText(/Buckwheat flour: its packet says so/)).toBeTruthy();
  expect(checks.getByText(/Almond flour: speaks against it/)).toBeTruthy();
  expect(checks.getByText(/Baking powder, aluminium-free: not confirmed/)).toBeTruthy();
  expect(document.body.textContent).not.toMatch(/\bsafe\b/i);
});

test("cost adds up what has a price and names what has none", () => {
  label([packet("Flour", { ingredientId: "buckwheat-flour", price: 4 }), packet("Eggs", { ingredientId: "egg", price: 3 })]);
  // 200 g at 4 and 110 g at 3 a kilo.
  expect(screen.getByText(/^At least 1\.13 EUR for it/)).toBeTruthy();
  expect(screen.getByText(/for want of a price: .*sunflower oil/)).toBeTruthy();
});

test("a part of the batter has a label of its own, with what is added to it", () => {
  const raisins = { id: "r", ingredientId: "raisins", grams: { low: 80, mid: 80, high: 80 } };
  const { vessel, oven } = beginKind("muffin", "metric", 500);
  const split: Formula = { ...formula, parts: [{ id: "p", name: "with raisins", share: 0.5, additions: [raisins], kind: "muffin", vessel, oven }] }; // prettier-ignore
  show(<LabelRoom id="x" formula={split} open={() => input} kitchen={kitchen} />);
  const packetShown = screen.getByRole("group", { name: "On the packet" });
  expect(packetShown.textContent).not.toMatch(/raisins/i);
  fireEvent.click(screen.getByRole("radio", { name: "with raisins" }));
  expect(packetShown.textContent).toMatch(/Pier loaf, with raisins.*raisins/i);
});

test("many of it asks with the pieces wanted, and says what does not grow", async () => {
  const asked = jest.spyOn(wire, "scaleUp").mockResolvedValue({ factor: 40, pieces: 40, massG: 26_880, batches: 7, perBatch: { massG: 4032, pieces: 6, lastPieces: 4, bowlShare: 0.5, minutes: { low: 10, mid: 20, high: 30 }, waits: 6, tenth: 3, quarter: 23 }, loads: 7, loadMinutes: { low: 50, mid: 57, high: 64 }, ovenMinutes: 400, kWhPerLoad: 1.2, wholePackets: [], otherwise: ["Standing: it waits."] } satisfies ScaleUp);
  show(<ManyRoom formulaId="x" formula={formula} analysis={analysis} name={(id) => id} />);
  await screen.findByText("7 batches of 4030 g");
  expect(asked.mock.calls[0]?.[0]).toMatchObject({ times: 40, bowlMl: 10_000, placesPerLoad: 6 });
  expect(screen.getByText("7 loads, each 50–64 min")).toBeTruthy();
  // Amounts of a batch of six, of the last one of four and of all forty of one loaf.
  const first = formula.lines.find(({ grams }) => (grams?.mid ?? 0) > 10);
  const cells = screen.getAllByRole("row").map((row) => row.textContent ?? "");
  const of = (many: number): string => gramsText((first?.grams?.mid ?? 0) * many);
  expect(cells.some((text) => text.includes(of(6)) && text.includes(of(4)) && text.includes(of(40)))).toBe(true);
  expect(screen.getByRole("link", { name: "This on one page of paper" }).getAttribute("href")).toBe("/print/many/x?pieces=40&bowl=10&places=6");
  fireEvent.change(screen.getByLabelText("Pieces wanted"), { target: { value: "20" } });
  await waitFor(() => expect(asked.mock.calls.at(-1)?.[0]).toMatchObject({ times: 20 }));
  expect(screen.getByText("Standing: it waits.")).toBeTruthy();
}); // prettier-ignore

test("what goes out is what is saved, and a browser without a clipboard is told as one", async () => {
  jest.spyOn(wire, "exportFile").mockResolvedValue({ name: "pier-loaf.txt", content: { text: async () => "Pier loaf" } as Blob });
  show(<SendRoom id="x" unsaved />);
  expect(screen.getByText(/the bench has changes that are not/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Copy it as plain text" }));
  expect(await screen.findByText("This browser lets nothing onto its clipboard.")).toBeTruthy();
});

test("a file is shown as it is read, its columns are said, and only what is chosen is kept", async () => {
  const text = "# Tide loaf\n\n## Ingredients\n\n- 200 g rice flour\n- 100 g water";
  const reading = readRecipe(text, "metric");
  const found = (title: string): ImportAnswer["recipes"][number] => ({ title, form: "text", text, mending: {}, reading, formula: formulaFrom(reading, "metric"), notes: [] }); // prettier-ignore
  const send = jest.spyOn(wire, "importText").mockImplementation(async ({ columns }, take) => ({
    recipes: columns ? [found("Tide loaf"), found("Ebb loaf")] : [],
    table: { head: ["A", "B"], sample: [["rice flour", "200"]], columns: columns ?? {}, ...(columns ? {} : { fault: "Which column names the ingredients?" }) },
    notes: [],
    taken: take ? [{ id: "t", title: "Tide loaf", version: 1 }] : [],
  })); // prettier-ignore
  const read = jest.fn();
  show(<BringFile measures="metric" onRead={read} />);
  const file = Object.assign(new File(["A,B\nrice flour,200\n"], "sheet.csv", { type: "text/csv" }), { text: async () => "A,B\nrice flour,200\n" }); // prettier-ignore
  fireEvent.change(screen.getByLabelText("Open a file"), { target: { files: [file] } });
  expect(await screen.findByText("Which column names the ingredients?")).toBeTruthy();
  const columns = screen.getByRole("radiogroup", { name: "What A holds" });
  fireEvent.click(within(columns).getByRole("radio", { name: "ingredient" }));
  expect(await screen.findByText("Ebb loaf")).toBeTruthy();
  expect(send.mock.calls.at(-1)?.[0]).toMatchObject({ columns: { ingredient: 0 }, name: "sheet.csv" });
  fireEvent.click(screen.getByRole("button", { name: "Look at it line by line: Tide loaf" }));
  expect(read).toHaveBeenCalledWith(expect.objectContaining({ text }));
  fireEvent.click(screen.getByRole("checkbox", { name: "Keep Ebb loaf" }));
  fireEvent.click(screen.getByRole("button", { name: "Keep 1 as they are read" }));
  await waitFor(() => expect(send.mock.calls.at(-1)).toEqual([expect.objectContaining({ only: [0] }), true]));
});
