import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { design, type Wish } from "@uprise/core";
import { ThemeProvider } from "../../theme/theme";
import { wire, WireError } from "../wire/client";
import { DesignScreen } from "./screen";

const mockNavigate = jest.fn();
jest.mock("expo-router", () => ({ useRouter: () => ({ navigate: mockNavigate }), useLocalSearchParams: () => ({}) }));

const times = { version: 1, createdAt: "2026-11-20T06:00:00Z", updatedAt: "2026-11-20T06:00:00Z" };
const designed: ReturnType<typeof design> = design({ kind: "muffin" });

beforeEach(() => {
  localStorage.clear();
  mockNavigate.mockReset();
  for (const name of ["ingredients", "vessels", "ovens", "packets"] as const) jest.spyOn(wire, name).mockResolvedValue([]);
});
afterEach(() => jest.restoreAllMocks());

async function show(): Promise<void> {
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <ThemeProvider>
        <DesignScreen />
      </ThemeProvider>
    </QueryClientProvider>,
  );
  await screen.findByTestId("design");
}

test("what is wished for is what is asked: kind, variant, pieces, lift, body, binder, allergens, what is on hand", async () => {
  const asked = jest.spyOn(wire, "design").mockResolvedValue(designed);
  await show();
  fireEvent.click(screen.getByRole("button", { name: "Scones" }));
  fireEvent.click(screen.getByRole("radio", { name: "Savoury" }));
  fireEvent.change(screen.getByLabelText("Pieces"), { target: { value: "8" } });
  fireEvent.click(await screen.findByRole("checkbox", { name: "Tapioca starch" }));
  fireEvent.click(screen.getByText("What lifts and binds it, body, allergens"));
  fireEvent.click(screen.getByRole("radio", { name: "Soda and acid" }));
  fireEvent.click(screen.getByRole("radio", { name: "A soft dough" }));
  fireEvent.click(screen.getByRole("radio", { name: "No gum" }));
  fireEvent.click(screen.getByRole("checkbox", { name: "Milk" }));
  fireEvent.click(screen.getByTestId("design"));
  await waitFor(() => expect(asked).toHaveBeenCalledTimes(1));
  const wish = asked.mock.calls[0]?.[0] as Wish;
  expect(wish).toMatchObject({ kind: "scone", variant: "savoury", pieces: 8, lift: "soda-acid", body: "soft-dough", binder: "none", avoid: ["milk"] });
  expect(wish.have).not.toContain("tapioca-starch");
  expect(wish.have).toContain("soda");
}); // prettier-ignore

test("designs stand side by side with their lines; one is taken to the bench as a formula of its own", async () => {
  jest.spyOn(wire, "design").mockResolvedValue(designed);
  const create = jest.spyOn(wire, "createFormula").mockImplementation(async (formula) => ({ ...times, id: formula.id, formula: { ...formula, shape: 2 } })); // prettier-ignore
  await show();
  fireEvent.click(screen.getByTestId("design"));
  const [first] = designed.designs;
  if (!first) throw new Error("nothing was designed");
  const region = await screen.findByRole("region", { name: `Design: ${first.title}` });
  expect(within(region).getByRole("list", { name: `Lines of ${first.title}` }).children.length).toBe(first.lines.length);
  expect(screen.getAllByRole("region", { name: /^Design: / }).length).toBe(designed.designs.length);
  expect(screen.queryByText(/by your packets/)).toBeNull();
  fireEvent.click(within(region).getByRole("button", { name: `Take ${first.title} to the bench` }));
  await waitFor(() => expect(create).toHaveBeenCalledTimes(1));
  const taken = create.mock.calls[0]?.[0];
  expect(taken?.lines.map(({ ingredientId }) => ingredientId).sort()).toEqual(first.lines.map(({ ingredientId }) => ingredientId).sort()); // prettier-ignore
  await waitFor(() => expect(mockNavigate).toHaveBeenCalledWith(`/bench/${taken?.id}`));
});

test("a shelf that cannot is told what to buy; a server that does not answer is told", async () => {
  const bare = design({ kind: "muffin", have: ["white-rice-flour", "salt"] });
  expect(bare.designs).toEqual([]);
  const asked = jest.spyOn(wire, "design").mockResolvedValue(bare);
  await show();
  fireEvent.click(screen.getByTestId("design"));
  await waitFor(() => expect(asked).toHaveBeenCalled());
  await screen.findByText(new RegExp((bare.missing?.why ?? "").slice(0, 24).replace(/[.*+?^${}()|[\]\\]/g, "\\$&")));
  asked.mockRejectedValue(new WireError(0, "No answer from the server."));
  fireEvent.click(screen.getByTestId("design"));
  await screen.findByText(/No answer from the server/);
});

test("a design says what it costs by the packets, and of what it has no price", async () => {
  jest.spyOn(wire, "design").mockResolvedValue(designed);
  const [first] = designed.designs;
  const [dearest, ...others] = first?.lines.filter(({ ingredientId }) => ingredientId !== "water") ?? [];
  if (!dearest) throw new Error("nothing was designed");
  const packet = {
    ingredientId: dearest.ingredientId,
    name: "A kilo",
    sizeG: 1000,
    price: 8,
    currency: "EUR",
    lot: "",
    bestBefore: "2027-05-01",
  };
  jest.spyOn(wire, "packets").mockResolvedValue([{ ...times, id: "p", packet }] as never);
  await show();
  fireEvent.click(screen.getByTestId("design"));
  const region = await screen.findByRole("region", { name: `Design: ${first?.title}` });
  const told = await within(region).findByText(/by your packets/);
  expect(told.textContent).toContain(`At least ${((8 * dearest.grams) / 1000).toFixed(2)} EUR`);
  expect(told.textContent?.split(", ").length).toBeGreaterThanOrEqual(others.length - 1);
});
