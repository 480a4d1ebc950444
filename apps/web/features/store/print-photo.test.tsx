import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import type { PacketPrint } from "@uprise/core";
import { builtInShelf } from "@uprise/core/src/pantry/catalogue";
import { readPicturesWith } from "../../device/picture";
import { ThemeProvider } from "../../theme/theme";
import { PrintPhoto } from "./print-photo";

const words = (lines: readonly string[]) =>
  lines.flatMap((line, k) => [...line.matchAll(/\S+/g)].map(({ 0: text, index }) => ({ text, confidence: 96, box: { x0: 40 + 10 * index, y0: 40 + 30 * k, x1: 40 + 10 * (index + text.length), y1: 60 + 30 * k } }))); // prettier-ignore
const taken: PacketPrint[] = [];
const show = (): void => {
  taken.length = 0;
  render(
    <ThemeProvider>
      <PrintPhoto shelf={builtInShelf} onTake={(print) => taken.push(print)} />
    </ThemeProvider>,
  );
  fireEvent.change(screen.getByLabelText("Read it from a photograph"), { target: { files: [new File(["x"], "packet.jpg", { type: "image/jpeg" })] } }); // prettier-ignore
};
afterEach(() => {
  cleanup();
  readPicturesWith(null);
});

test("a packet's print is shown to be looked over, and filled in with what it says; what is not known stays open", async () => {
  readPicturesWith(() => ({
    open: () => Promise.resolve({ ok: true, pages: 1 }),
    read: () => Promise.resolve({ ok: true, page: { picture: new Blob(), width: 1, height: 1, corners: null, quarters: 0, confidence: 96, written: false, words: words(["Ingredients: white rice flour, moonlight.", "May contain soya. Lot AB-12"]) } }),
    stop: () => undefined,
  })); // prettier-ignore
  show();
  const field = await screen.findByLabelText("What is printed on it");
  expect((field as HTMLTextAreaElement).value).toContain("May contain soya.");
  fireEvent.change(field, { target: { value: `${(field as HTMLTextAreaElement).value} Best before 24.11.2027` } });
  fireEvent.click(screen.getByText("Fill in what it says"));
  await waitFor(() => expect(taken[0]).toMatchObject({ lot: "AB-12", bestBefore: "2027-11-24", statement: "May contain soya." }));
  expect(taken[0]?.ingredients.map(({ id }) => id)).toEqual(["white-rice-flour", null]);
  await screen.findByText("“moonlight” is not known for certain.");
  await screen.findByText(/Allergens that it names: .*soy/);
});

test("what cannot be read is told, and the button is there again", async () => {
  readPicturesWith(() => ({
    open: () => Promise.resolve({ ok: false, why: "These bytes are no picture." }),
    read: () => Promise.reject(new Error("never asked")),
    stop: () => undefined,
  }));
  show();
  await screen.findByText("These bytes are no picture.");
  expect(screen.getByText("Read it from a photograph")).toBeTruthy();
  expect(taken).toEqual([]);
});
