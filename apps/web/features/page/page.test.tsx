import "fake-indexeddb/auto";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { dropPaper, papersOf } from "../../device/papers";
import { type PictureReader, readPicturesWith } from "../../device/picture";
import { ThemeProvider } from "../../theme/theme";
import type { PageSettings, PictureRead } from "../../workers/picture.worker";
import { wire, WireError } from "../wire/client";
import { PageScreen } from "./screen";

const mockNavigate = jest.fn();
jest.mock("expo-router", () => ({ useRouter: () => ({ navigate: mockNavigate }) }));

const HASH = "a".repeat(64);
/** Words of lines of print, each letter 10 px wide. */
const words = (lines: readonly string[], confidence = 96): PictureRead["words"] =>
  lines.flatMap((line, k) => [...line.matchAll(/\S+/g)].map(({ 0: text, index }) => ({ text, confidence, box: { x0: 40 + 10 * index, y0: 40 + 30 * k, x1: 40 + 10 * (index + text.length), y1: 60 + 30 * k } }))); // prettier-ignore

const asked: { letters: string; settings: PageSettings }[] = [];
let stopped = 0;
/** A reader of pictures that gives what it is told to. */
function readsAs(page: Partial<PictureRead>, opened: Awaited<ReturnType<PictureReader["open"]>> = { ok: true, pages: 1, shown: new Blob(["x"]), size: { width: 600, height: 800 } }, waits = false): void {
  readPicturesWith(() => ({
    open: () => Promise.resolve(opened),
    read: (_, letters, settings, tell) => {
      asked.push({ letters, settings });
      tell(0.4);
      const read: PictureRead = { picture: new Blob(["x"]), width: 600, height: 800, words: [], corners: null, quarters: 0, confidence: 96, written: false, ...page };
      return waits ? new Promise(() => undefined) : Promise.resolve({ ok: true, page: read });
    },
    stop: () => void stopped++,
  }));
} // prettier-ignore

function show(): void {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <ThemeProvider>
        <PageScreen />
      </ThemeProvider>
    </QueryClientProvider>,
  );
}
const bring = (type = "image/jpeg"): void => void fireEvent.change(screen.getByLabelText("Open a picture or PDF"), { target: { files: [new File(["x"], "page", { type })] } }); // prettier-ignore
const pasted = async (): Promise<{ text: string; pages?: string[] }> =>
  (await papersOf("reader", "recipe"))[0]?.paper.body as never;

beforeEach(async () => {
  for (const { paper } of await papersOf("reader", "recipe")) await dropPaper(paper);
  mockNavigate.mockClear();
  asked.length = 0;
  stopped = 0;
  URL.createObjectURL = () => "blob:page";
  URL.revokeObjectURL = () => undefined;
  jest.spyOn(wire, "ingredients").mockResolvedValue([]);
  jest.spyOn(wire, "ovens").mockResolvedValue([]);
});
afterEach(() => {
  cleanup();
  readPicturesWith(null);
  jest.restoreAllMocks();
});

test("a page's lines stand beside their pieces of the picture; what is open is asked first; then they are pasted, with the photograph", async () => {
  const list = words(["Pear loaf", "200 g buckwheat flour", "2 large eggs"]);
  const egg = list.find(({ text }) => text === "2");
  if (egg) egg.others = [{ text: "3", worth: 0.9 }];
  readsAs({ words: list });
  jest.spyOn(wire, "keepPhoto").mockResolvedValue({ hash: HASH } as never);
  show();
  bring();
  const rows = await screen.findByRole("list", { name: "Lines as read" });
  expect(within(rows).getAllByRole("textbox").map((field) => (field as HTMLInputElement).value)).toEqual(["Pear loaf", "200 g buckwheat flour", "2 large eggs"]); // prettier-ignore
  expect(screen.queryByText("Weigh these lines")).toBeNull();
  expect(screen.getByText(/1 to be looked at first/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "It is: 3 large eggs" }));
  fireEvent.click(screen.getByRole("button", { name: "Leave out line 1" }));
  fireEvent.click(screen.getByText("Weigh these lines"));
  await waitFor(() => expect(mockNavigate).toHaveBeenCalledWith("/read"));
  await waitFor(async () => expect(await pasted()).toMatchObject({ text: "200 g buckwheat flour\n3 large eggs", pages: [HASH] }));
});

test("a recipe of two pages: the second comes under the first, with both photographs; alone, it takes the place of what was pasted", async () => {
  const other = HASH.replace(/./g, "b");
  const keep = jest.spyOn(wire, "keepPhoto").mockResolvedValue({ hash: HASH } as never);
  readsAs({ words: words(["200 g buckwheat flour"]) });
  show();
  bring();
  fireEvent.click(await screen.findByText("And another page"));
  await screen.findByText("Take a photograph");
  expect(mockNavigate).not.toHaveBeenCalled();
  readsAs({ words: words(["Bake 40 minutes at 180 C"]) });
  keep.mockResolvedValue({ hash: other } as never);
  bring();
  await screen.findByDisplayValue(/^Bake 40 minutes/);
  expect(screen.getByRole("radio", { name: "Under it" }).getAttribute("aria-checked")).toBe("true");
  expect(screen.queryByText(/is replaced/)).toBeNull();
  fireEvent.click(screen.getByText("Weigh these lines"));
  await waitFor(() => expect(mockNavigate).toHaveBeenCalledWith("/read"));
  expect(await pasted()).toMatchObject({ text: "200 g buckwheat flour\nBake 40 minutes at 180 C", pages: [HASH, other] });
  fireEvent.click(screen.getByRole("radio", { name: "In place of what is pasted" }));
  await screen.findByText(/what is pasted now is replaced/);
  fireEvent.click(screen.getByText("Weigh these lines"));
  await waitFor(async () => expect(await pasted()).toMatchObject({ text: "Bake 40 minutes at 180 C", pages: [other] }));
});

test("what cannot be opened is told, and nothing else is shown; a page that is hardly read is told as one", async () => {
  readsAs({}, { ok: false, why: "These bytes are no picture that can be opened." });
  show();
  bring();
  await screen.findByText("These bytes are no picture that can be opened.");
  expect(screen.queryByRole("list", { name: "Lines as read" })).toBeNull();
  readsAs({ words: words(["scrwl hndwrt"], 20), confidence: 20 });
  bring();
  await screen.findByText(/Handwriting is not read/);
});

test("reading tells how far it is and can be stopped; what comes later of it is not shown", async () => {
  readsAs({}, undefined, true);
  show();
  bring();
  await waitFor(() => expect(screen.getByRole("progressbar").getAttribute("aria-valuenow")).toBe("40"));
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  await screen.findByText("Take a photograph");
  expect(stopped).toBe(1);
});

test("a page in another language is told, and read again in it at a press", async () => {
  readsAs({
    words: words(["Zutaten", "200 g Buchweizenmehl", "3 Eier", "250 ml Buttermilch", "Den Teig 15 Minuten ruhen lassen."]),
  });
  show();
  bring();
  fireEvent.click(await screen.findByRole("button", { name: "Read it in German" }));
  await waitFor(() => expect(asked.map(({ letters }) => letters)).toEqual(["eng", "deu"]));
  await screen.findByRole("list", { name: "Lines as read" });
  expect(screen.queryByText(/It looks German/)).toBeNull();
});

test("it is turned by quarters, and where the photograph cannot be kept that is said before it is left", async () => {
  readsAs({ words: words(["200 g buckwheat flour"]) });
  jest.spyOn(wire, "keepPhoto").mockRejectedValue(new WireError(0, "The kitchen's server does not answer."));
  show();
  bring();
  fireEvent.click(await screen.findByRole("button", { name: "Turn it" }));
  await waitFor(() => expect(asked.at(-1)?.settings.quarters).toBe(1));
  fireEvent.click(await screen.findByText("Weigh these lines"));
  await screen.findByText(/The photograph could not be kept/);
  expect(mockNavigate).not.toHaveBeenCalled();
  fireEvent.click(screen.getByText("Weigh these lines"));
  await waitFor(() => expect(mockNavigate).toHaveBeenCalledWith("/read"));
  expect((await pasted()).pages).toBeUndefined();
});
