import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import type { Ingredient } from "@uprise/core";
import { builtInShelf } from "@uprise/core/src/pantry/catalogue";
import { readPicturesWith } from "../../device/picture";
import { ThemeProvider } from "../../theme/theme";
import { wire } from "../wire/client";
import { BlendForm } from "./blend-form";

const words = (lines: readonly string[]) =>
  lines.flatMap((line, k) => [...line.matchAll(/\S+/g)].map(({ 0: text, index }) => ({ text, confidence: 96, box: { x0: 40 + 10 * index, y0: 40 + 30 * k, x1: 40 + 10 * (index + text.length), y1: 60 + 30 * k } }))); // prettier-ignore
const show = (): void =>
  void render(
    <QueryClientProvider client={new QueryClient()}>
      <ThemeProvider>
        <BlendForm shelf={builtInShelf} onDone={() => undefined} />
      </ThemeProvider>
    </QueryClientProvider>,
  );
afterEach(() => {
  cleanup();
  readPicturesWith(null);
  jest.restoreAllMocks();
});

const print = (lines: readonly string[]): void =>
  readPicturesWith(() => ({
    open: () => Promise.resolve({ ok: true, pages: 1 }),
    read: () => Promise.resolve({ ok: true, page: { picture: new Blob(), width: 1, height: 1, corners: null, quarters: 0, confidence: 96, written: false, words: words(lines) } }),
    stop: () => undefined,
  })); // prettier-ignore
const photograph = async (): Promise<void> => {
  fireEvent.change(screen.getByLabelText("Read it from a photograph"), { target: { files: [new File(["x"], "packet.jpg", { type: "image/jpeg" })] } }); // prettier-ignore
  await screen.findByLabelText("What is printed on it");
  fireEvent.click(screen.getByText("Fill in what it says"));
};

test("a blend from its photograph: the table and a printed percentage tell the shares; every allergen that is named stays, of things that are not known too", async () => {
  const created: Ingredient[] = [];
  jest.spyOn(wire, "createIngredient").mockImplementation((ingredient) => {
    created.push(ingredient as Ingredient);
    return Promise.resolve({ ...ingredient, version: 1 } as never);
  });
  print([
    "Ingredients: chickpea flour (60 %), tapioca starch, moonlight extract.",
    "May contain soya.",
    "Nutrition per 100 g: fat 3.4 g, protein 12.6 g.",
  ]);
  show();
  await photograph();
  const shown = await screen.findByText(/1\. Chickpea flour.*, about \d\d % \(\d+–\d+\)/);
  const share = Number(/about (\d\d) %/.exec(shown.textContent ?? "")?.[1]);
  expect(share).toBeGreaterThanOrEqual(57);
  expect(share).toBeLessThanOrEqual(63);
  expect((screen.getByLabelText("Protein") as HTMLInputElement).value).toMatch(/^12[.,]6/);
  fireEvent.change(screen.getByLabelText("Name"), { target: { value: "Corner shop flour" } });
  fireEvent.click(screen.getByText("Put it in the store"));
  await waitFor(() => expect(created).toHaveLength(1));
  expect(created[0]?.allergens.some((one) => /soy/.test(one))).toBe(true);
  const chickpea = builtInShelf.get("chickpea-flour")?.per100g.protein ?? NaN;
  expect(created[0]?.per100g.protein).toBeGreaterThan(0.55 * chickpea);
  expect(created[0]?.per100g.protein).toBeLessThan(0.65 * chickpea);
});

test("without a photograph and without a table it goes to the store by its order alone", async () => {
  const created: Ingredient[] = [];
  jest.spyOn(wire, "createIngredient").mockImplementation((ingredient) => {
    created.push(ingredient as Ingredient);
    return Promise.resolve({ ...ingredient, version: 1 } as never);
  });
  show();
  fireEvent.change(screen.getByLabelText("Name"), { target: { value: "Harbour mill flour" } });
  for (const [label, name] of [["First on the label", "White rice flour"], ["Next on the label", "Potato starch"]] as const) {
    fireEvent.change(screen.getByLabelText(label), { target: { value: name } });
    fireEvent.click((await screen.findAllByRole("option", { name: new RegExp(`^${name}`) }))[0] as HTMLElement);
  }
  await screen.findByText(/1\. White rice flour.*75 %/);
  fireEvent.click(screen.getByText("Put it in the store"));
  await waitFor(() => expect(created).toHaveLength(1));
}); // prettier-ignore

test("a table that no shares in that order give is said, and the shares are those of the order", async () => {
  print(["Ingredients: tapioca starch, potato starch.", "Nutrition per 100 g: protein 24 g."]);
  show();
  await photograph();
  await screen.findByText(/No shares in this order give that table/);
  expect(screen.getByText(/1\. Tapioca starch.*75 %/)).toBeTruthy();
});
