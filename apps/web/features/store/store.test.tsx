import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { StoredOven } from "@uprise/contract";
import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import type { ReactElement } from "react";
import { ThemeProvider } from "../../theme/theme";
import { wire, WireError } from "../wire/client";
import { Ovens, ovenSentence } from "./ovens";
import { PanForm } from "./pan-form";
import { StoreScreen } from "./screen";
import { shelfFrom } from "./shelf-names";

const stored = { version: 1, createdAt: "2026-01-01T00:00:00Z", updatedAt: "2026-01-01T00:00:00Z" };
const mockReplace = jest.fn();
jest.mock("expo-router", () => ({ useRouter: () => ({ replace: mockReplace, navigate: mockReplace }) }));
const pier: StoredOven = {
  ...stored,
  id: "pier",
  version: 4,
  oven: { name: "Pier oven", modes: ["still", "fan"], biasK: 14, swingK: 8, warmMinutes: 18, racks: 3 },
};

function show(element: ReactElement) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <QueryClientProvider client={client}>
      <ThemeProvider>{element}</ThemeProvider>
    </QueryClientProvider>,
  );
}
const type = (label: string, value: string): void => void fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string): void => void fireEvent.click(screen.getByRole("button", { name }));

beforeEach(() => {
  jest.spyOn(wire, "ingredients").mockResolvedValue([]);
  jest.spyOn(wire, "ovens").mockResolvedValue([pier]);
  jest
    .spyOn(wire, "vessels")
    .mockResolvedValue([
      { ...stored, id: "mine", name: "Boat tin", own: true, vessel: { shape: "round", diameterMm: 200, heightMm: 60 } },
    ]);
});
afterEach(() => jest.restoreAllMocks());

describe("a pan of one's own", () => {
  const filled = (): void => {
    type("Its name", "Boat tin");
    type("Length at the rim", "240");
    type("Width at the rim", "120");
    type("Height inside", "70");
  };
  test("is sent as it was measured, without what was left open, and tells what it holds on the way", async () => {
    const create = jest
      .spyOn(wire, "createVessel")
      .mockResolvedValue({ ...stored, id: "x", name: "Boat tin", own: true, vessel: { shape: "rectangular" } });
    const onDone = jest.fn();
    show(<PanForm onDone={onDone} />);
    expect(screen.getByText(/^What it holds stands here/)).toBeTruthy();
    filled();
    expect(screen.getByText("It holds 2016 mL to the rim.")).toBeTruthy();
    type("Water it holds", "1,7 l");
    expect(screen.getByText("It holds 1700 mL to the rim.")).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "Cast iron" }));
    press("Keep this pan");
    await waitFor(() => expect(onDone).toHaveBeenCalled());
    expect(create).toHaveBeenCalledWith({
      id: expect.any(String) as string,
      name: "Boat tin",
      vessel: {
        shape: "rectangular",
        material: "cast-iron",
        lining: "greased",
        lengthMm: 240,
        widthMm: 120,
        heightMm: 70,
        capacityMl: 1700,
      },
    });
  });
  test("asks for what is missing, and keeps what was typed when the server refuses", async () => {
    const create = jest.spyOn(wire, "createVessel").mockRejectedValue(new WireError(0, "The server does not answer."));
    const onDone = jest.fn();
    show(<PanForm onDone={onDone} />);
    press("Keep this pan");
    await screen.findByText("A name by which you know it.");
    expect(screen.getByText("Measure it inside, in millimetres; 23 cm is 230.")).toBeTruthy();
    expect(screen.getByText("Measure the height inside, in millimetres; 7 cm is 70.")).toBeTruthy();
    filled();
    type("Length at the rim", "2,3");
    press("Keep this pan");
    expect(create).not.toHaveBeenCalled();
    expect(screen.getByText("From 10 to 900 mm would be right.")).toBeTruthy();
    type("Length at the rim", "240");
    press("Keep this pan");
    await screen.findByText("The server does not answer.");
    expect((screen.getByLabelText("Its name") as HTMLInputElement).value).toBe("Boat tin");
    expect(onDone).not.toHaveBeenCalled();
  });
  test("cups are counted and asked for by the cup", () => {
    show(<PanForm onDone={jest.fn()} />);
    fireEvent.click(screen.getByRole("radio", { name: "Cups" }));
    type("Across a cup's rim", "70");
    type("Across the base", "50");
    type("Height inside", "34");
    type("How many cups", "6");
    const cone = (Math.PI * 34 * (35 ** 2 + 35 * 25 + 25 ** 2)) / 3 / 1000;
    expect(screen.getByText(`A cup holds ${Math.round(cone)} mL, 6 of them ${Math.round(6 * cone)} mL.`)).toBeTruthy();
  });
});

describe("the ovens", () => {
  test.each([
    [pier.oven, /^14 °C hotter than its dial, swings by 8 °C; with a fan; 18 min to 180 °C; 3 racks$/],
    [{ name: "x", modes: ["still" as const], biasK: -5, swingK: 2 }, /^5 °C cooler than its dial.*without a fan$/],
    [{ name: "x", modes: ["fan" as const], biasK: 0, swingK: 0 }, /^True to its dial/],
  ])("in a sentence", (oven, sentence) => expect(ovenSentence(oven)).toMatch(sentence));
  test("one is measured again: the change goes with the version it was read in", async () => {
    const change = jest.spyOn(wire, "changeOven").mockResolvedValue(pier);
    show(<Ovens />);
    fireEvent.click(await screen.findByRole("button", { name: /^Pier oven/ }));
    type("Hotter than its dial", "99");
    expect(screen.getByText("From -60 to 60 K would be right.")).toBeTruthy();
    type("Hotter than its dial", "9");
    press("Keep this oven");
    await waitFor(() => expect(change).toHaveBeenCalledWith("pier", 4, { ...pier.oven, biasK: 9 }));
  });
  test("a new one wants a name; a refusal is shown and nothing typed is lost", async () => {
    const create = jest.spyOn(wire, "createOven").mockRejectedValue(new WireError(400, "swingK: too large"));
    show(<Ovens />);
    fireEvent.click(await screen.findByRole("button", { name: "Another oven" }));
    press("Keep this oven");
    await screen.findByText("A name by which you know it.");
    expect(create).not.toHaveBeenCalled();
    type("Its name", "  Deck oven ");
    press("Keep this oven");
    await screen.findByText("swingK: too large");
    expect(create).toHaveBeenCalledWith(expect.any(String), expect.objectContaining({ name: "Deck oven", biasK: 0 }));
    expect((screen.getByLabelText("Its name") as HTMLInputElement).value).toBe("  Deck oven ");
  });
  test("when they do not come, that is said, with a way to try again", async () => {
    const fetch = jest.spyOn(wire, "ovens").mockRejectedValue(new WireError(0, "The server does not answer."));
    show(<Ovens />);
    await screen.findByText("The ovens did not come.");
    fetch.mockResolvedValue([pier]);
    press("Try again");
    await screen.findByText("Pier oven");
  });
});

describe("the pans of the store", () => {
  test("show measures and what they hold; only one's own can be removed", async () => {
    const remove = jest.spyOn(wire, "removeVessel").mockResolvedValue(undefined as never);
    const back = jest
      .spyOn(wire, "createVessel")
      .mockResolvedValue({ ...stored, id: "mine", name: "Boat tin", own: true, vessel: { shape: "round" } });
    show(<StoreScreen shelf="pans" />);
    await screen.findByText("⌀ 200 × 60 mm, 1885 mL");
    expect(screen.getAllByRole("button", { name: /^Remove/ })).toHaveLength(1);
    press("Remove Boat tin");
    await waitFor(() => expect(remove).toHaveBeenCalledWith("mine", 1));
    await screen.findByText("“Boat tin” is off the shelf.");
    press("Put it back");
    await waitFor(() =>
      expect(back).toHaveBeenCalledWith({
        id: "mine",
        name: "Boat tin",
        vessel: { shape: "round", diameterMm: 200, heightMm: 60 },
      }),
    );
    await waitFor(() => expect(screen.queryByText(/is off the shelf/)).toBeNull());
  });
  test("each shelf has an address of its own", () => {
    show(<StoreScreen shelf="settings" />);
    fireEvent.click(screen.getByRole("radio", { name: "Ovens" }));
    expect(mockReplace).toHaveBeenLastCalledWith("/store/ovens");
    expect([shelfFrom("pans"), shelfFrom("cellar")]).toEqual(["pans", undefined]);
    fireEvent.click(screen.getByRole("radio", { name: /^Dark/ }));
    expect(document.documentElement.style.colorScheme).toBe("dark");
  });
});

describe("packets", () => {
  const packet = { ...stored, id: "p", packet: { ingredientId: "sorghum-flour", name: "Sorghum, sack", sizeG: 5000, currency: "EUR", price: 14.5, leftG: 3200 } }; // prettier-ignore
  test("stand with price and what is left; one is written down, what is missing is told at its place", async () => {
    jest.spyOn(wire, "packets").mockResolvedValue([packet]);
    const create = jest.spyOn(wire, "createPacket").mockResolvedValue(packet);
    show(<StoreScreen shelf="packets" />);
    await screen.findByText("5000 g for 14.50 EUR; 3200 g left.");
    press("Another packet");
    press("Keep this packet");
    await screen.findByText("Which ingredient is in it? Take one of the list.");
    expect(screen.getByText("A name, as on the packet.")).toBeTruthy();
    expect(create).not.toHaveBeenCalled();
    type("What is in it?", "millet fl");
    fireEvent.click(await screen.findByRole("option", { name: /^Millet flour/ }));
    type("A full packet", "1 kg");
    type("Price", "3,20");
    type("Currency", "eur");
    press("Keep this packet");
    await screen.findByText(/Three letters, such as EUR/);
    type("Currency", "EUR");
    press("Keep this packet");
    await waitFor(() => expect(create).toHaveBeenCalledTimes(1));
    expect(create.mock.calls[0]?.[1]).toEqual({ ingredientId: "millet-flour", name: "Millet flour", sizeG: 1000, price: 3.2, currency: "EUR" }); // prettier-ignore
  });
  test("one is taken off and put back", async () => {
    jest.spyOn(wire, "packets").mockResolvedValue([packet]);
    const remove = jest.spyOn(wire, "removePacket").mockResolvedValue(undefined as never);
    const create = jest.spyOn(wire, "createPacket").mockResolvedValue(packet);
    show(<StoreScreen shelf="packets" />);
    fireEvent.click(await screen.findByText("Sorghum, sack"));
    press("Remove Sorghum, sack");
    await waitFor(() => expect(remove).toHaveBeenCalledWith("p", 1));
    fireEvent.click(await screen.findByTestId("put-back"));
    await waitFor(() => expect(create.mock.calls[0]?.[1]).toEqual(packet.packet));
  });
});
