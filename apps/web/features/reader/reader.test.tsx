import "fake-indexeddb/auto";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { FormulaInput } from "@uprise/contract";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { ThemeProvider } from "../../theme/theme";
import { dropPaper, papersOf } from "../../device/papers";
import { waitingWrites } from "../../device/writes";
import { wire, WireError } from "../wire/client";
import { ReaderScreen } from "./screen";

const mockNavigate = jest.fn();
jest.mock("expo-router", () => ({ useRouter: () => ({ navigate: mockNavigate }), useLocalSearchParams: () => ({}) }));

const recipe = `Sorghum and honey muffins

1 1/2 cups sorghum flour
2 tsp baking powder
a fistful of moonlight
1 cup (400 g) buttermilk
2 large eggs
1/3 cup oil

Bake at 190 °C for 20 minutes in a 12-hole muffin tin.`;

async function show(): Promise<void> {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <ThemeProvider>
        <ReaderScreen />
      </ThemeProvider>
    </QueryClientProvider>,
  );
  await screen.findByLabelText("Recipe");
}
const paste = (text: string): void => void fireEvent.change(screen.getByLabelText("Recipe"), { target: { value: text } });
const rowOf = (source: string): HTMLElement =>
  screen
    .getAllByText(source)
    .map((found) => found.closest("[role=listitem]"))
    .find((row) => row !== null) as HTMLElement;

beforeEach(async () => {
  for (const { paper } of await papersOf("reader", "recipe")) await dropPaper(paper);
  mockNavigate.mockClear();
  jest.spyOn(wire, "ingredients").mockResolvedValue([]);
  jest.spyOn(wire, "ovens").mockResolvedValue([]);
});
afterEach(() => jest.restoreAllMocks());

test("every line of the paste is shown with what it weighs, or as not read", async () => {
  await show();
  paste(recipe);
  for (const line of recipe.split("\n").filter((text) => text !== "")) expect(screen.getByText(line)).toBeTruthy();
  expect(within(rowOf("1 1/2 cups sorghum flour")).getByText(/^\d+ g$/)).toBeTruthy();
  expect(screen.getByText(/^Not read: /)).toBeTruthy();
  expect(screen.getByText(/5 lines weighed, \d questions?, 1 not read/)).toBeTruthy();
});

test("a question is answered in place and is gone; its answer counts", async () => {
  await show();
  paste(recipe);
  const row = rowOf("1 cup (400 g) buttermilk");
  const before = screen.getByText(/lines weighed/).textContent ?? "";
  const choices = within(row)
    .getAllByRole("button")
    .filter((button) => /\d+ g|cup/i.test(button.textContent ?? ""));
  fireEvent.click(choices.at(-1) as HTMLElement);
  await waitFor(() => expect(screen.getByText(/lines weighed/).textContent).not.toBe(before));
});

test("a line that was not read is mended by another name, and then weighs", async () => {
  await show();
  paste(recipe);
  const row = rowOf("a fistful of moonlight");
  fireEvent.change(within(row).getByLabelText("Or write the line anew"), { target: { value: "2 tbsp honey" } });
  fireEvent.click(within(row).getByRole("button", { name: "Read it again" }));
  expect(screen.queryByText(/Not read/)).toBeNull();
  expect(within(rowOf("2 tbsp honey")).getByText(/^\d+ g$/)).toBeTruthy();
  expect((screen.getByLabelText("Recipe") as HTMLTextAreaElement).value).toContain("2 tbsp honey");
});

test("the same cup weighs more in a larger measure", async () => {
  await show();
  paste("1 cup sorghum flour");
  const grams = (): number => Number(/(\d+) g/.exec(rowOf("1 cup sorghum flour").textContent ?? "")?.[1]);
  const us = grams();
  fireEvent.click(screen.getByRole("radio", { name: "Metric" }));
  expect(grams() / us).toBeCloseTo(250 / 236.588, 1);
});

test("what was pasted, answered and chosen survives a reload and is forgotten once it is on the bench", async () => {
  const create = jest.spyOn(wire, "createFormula").mockImplementation(async (input: FormulaInput) => ({
    id: "new",
    version: 1,
    createdAt: "2026-01-01T00:00:00Z",
    updatedAt: "2026-01-01T00:00:00Z",
    formula: { ...input, shape: 2 },
  }));
  await show();
  paste(recipe);
  fireEvent.click(screen.getByRole("radio", { name: "Australian" }));
  fireEvent.change(within(rowOf("a fistful of moonlight")).getByLabelText("It means"), { target: { value: "salt" } });
  fireEvent.click((await within(rowOf("a fistful of moonlight")).findAllByRole("option"))[0] as HTMLElement);
  cleanup();
  await show();
  expect((screen.getByLabelText("Recipe") as HTMLTextAreaElement).value).toBe(recipe);
  expect(screen.getByRole("radio", { name: "Australian" }).getAttribute("aria-checked")).toBe("true");
  expect(screen.queryByText(/^Not read: /)).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: /bench/i }));
  await waitFor(() => expect(mockNavigate).toHaveBeenCalledWith("/bench/new"));
  const sent = create.mock.calls[0]?.[0];
  expect([sent?.title, sent?.kind, sent?.oven.celsius, sent?.vessel.shape]).toEqual([
    "Sorghum and honey muffins",
    "muffin",
    190,
    "muffin",
  ]);
  expect((await papersOf("reader", "recipe")).filter(({ paper }) => (paper.body as { text: string }).text !== "")).toEqual([]);
});

test("a server that does not answer costs nothing: the recipe is on the bench and waits to go out; one that refuses leaves the paste", async () => {
  const create = jest.spyOn(wire, "createFormula").mockRejectedValue(new WireError(0, "The server does not answer."));
  await show();
  paste(recipe);
  fireEvent.click(screen.getByRole("button", { name: /bench/i }));
  await waitFor(() => expect(mockNavigate).toHaveBeenCalledTimes(1));
  const [waiting] = await waitingWrites();
  expect(waiting).toMatchObject({ name: "Sorghum and honey muffins", method: "POST", path: "/api/formulas" });
  expect(mockNavigate.mock.calls[0]).toEqual([`/bench/${(waiting?.body as { id: string }).id}`]);
  create.mockRejectedValue(new WireError(400, "A formula needs a name."));
  mockNavigate.mockClear();
  paste(recipe);
  fireEvent.click(screen.getByRole("button", { name: /bench/i }));
  await screen.findByText("A formula needs a name.");
  expect((screen.getByLabelText("Recipe") as HTMLTextAreaElement).value).toBe(recipe);
  expect(mockNavigate).not.toHaveBeenCalled();
});

test("what is left aside says why and can be picked up; what a sentence holds is gathered; the way it is made is told", async () => {
  await show();
  paste("Pier loaf\nMy aunt once took 300 g walnuts for it. Far too many.\n200 g teff flour\n2 eggs\n100 ml milk\n8 g baking powder\nMethod\nWhisk all in one bowl with 30 g honey, rest the batter 15 minutes.\nBake 40 minutes at 180 °C.");
  expect(await screen.findByText(/^Left aside\. It speaks of walnuts/)).toBeTruthy();
  expect(screen.getByText("The method speaks of honey, and the list does not. Does it go in?")).toBeTruthy();
  expect(screen.getByText("Mixed by: one bowl")).toBeTruthy();
  expect(screen.getByText(/^Rests: batter, 15 min/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "It does not" }));
  expect(screen.queryByText("The method speaks of honey, and the list does not. Does it go in?")).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "It goes in" }));
  expect(screen.getByLabelText("Or write the line anew")).toBeTruthy();
}); // prettier-ignore

test("a recipe in German is read, and says so; a text without a food offers no bench", async () => {
  await show();
  paste("Kuchen\n250 g Buchweizenmehl\n3 Eier\n150 ml Milch\n2 TL Backpulver\n50 Minuten bei 180 °C backen");
  expect(await screen.findByText(/^Read as German/)).toBeTruthy();
  expect(screen.getByText("Buckwheat flour")).toBeTruthy();
  // Said to be in another language it is read anew, and taken back the same way.
  fireEvent.click(screen.getByRole("radio", { name: "Spanish" }));
  expect(await screen.findByText(/^Read as Spanish/)).toBeTruthy();
  expect(screen.queryByText("Buckwheat flour")).toBeNull();
  fireEvent.click(screen.getByRole("radio", { name: "German" }));
  expect(await screen.findByText("Buckwheat flour")).toBeTruthy();
  paste("Nothing to see\nMove along at 180 °C");
  expect(await screen.findByText(/^No food with an amount was found/)).toBeTruthy();
  expect(screen.getByRole("button", { name: "Put on the bench" }).getAttribute("aria-disabled")).toBe("true");
});

test("a table for two batches says that the first is taken, until it is told which", async () => {
  await show();
  paste("| Ingredient | Small | Large |\n|---|---|---|\n| buckwheat flour | 90 g | 160 g |\n| kefir | 80 g | 140 g |\n| honey | 10 g | 20 g |");
  expect(await screen.findByText("It has 2 amounts on each line; the first is taken until you say which.")).toBeTruthy();
  expect(screen.getByText("90 g")).toBeTruthy();
  fireEvent.click(screen.getByRole("radio", { name: "Large" }));
  expect(await screen.findByText("160 g")).toBeTruthy();
  expect(screen.getByText("It has 2 amounts on each line.")).toBeTruthy();
}); // prettier-ignore

test("figures without a unit are asked once over the list, and kept as told", async () => {
  await show();
  paste("sorghum flour 160\ntapioca starch 60\nsalt 4\nwater 230");
  await screen.findByText("4 figures without a unit were read as grams. Is that right?");
  expect(screen.getByText(/4 lines weighed, 1 question/)).toBeTruthy();
  fireEvent.click(screen.getByRole("radio", { name: "They are grams" }));
  await waitFor(() => expect(screen.queryByText(/figures without a unit were read/)).toBeNull());
  expect(screen.getByRole("radio", { name: "They are grams" }).getAttribute("aria-checked")).toBe("true");
  expect(screen.getByText("4 lines weighed")).toBeTruthy();
});
