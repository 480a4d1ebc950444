import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import {
  type Analysis,
  analyse,
  applyEdit,
  bareKitchen,
  builtInShelf,
  type Edit,
  type Formula,
  openFormula,
  readings,
  type Simulation,
  simulate,
} from "@uprise/core";
import { fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import type { ReactElement } from "react";
import { ThemeProvider } from "../../theme/theme";
import { BakeRoom } from "../bake/room";
import { BodyRoom } from "../body/room";
import { Dividing } from "../fill/dividing";
import { PanShelf } from "../fill/pan-shelf";
import { FillRoom } from "../fill/room";
import { LiftRoom } from "../lift/room";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { bareHere } from "../wire/bare.fixture";
import { Stages } from "../bake/stages";

// The charts come by a dynamic import, which Jest's virtual machine does not know; they are seen in the browser's journeys.
jest.mock("react", () => ({ ...jest.requireActual<object>("react"), lazy: () => () => null }));

const formula: Formula = {
  shape: 2,
  title: "Pier loaf",
  kind: "loaf",
  measures: "metric",
  lines: Object.entries({
    "gf-blend-plain": 300,
    xanthan: 2,
    "whole-milk": 230,
    egg: 110,
    "sunflower-oil": 80,
    "white-sugar": 130,
    soda: 4,
    blueberries: 80,
  }).map(([ingredientId, mid], i) => ({ id: `l${i}`, ingredientId, grams: { low: mid, mid, high: mid } })),
  vessel: { shape: "rectangular", lengthMm: 230, widthMm: 130, heightMm: 70, material: "light-metal", lining: "greased" },
  oven: { celsius: 175, mode: "still" },
  process: { method: "muffin", restMinutes: 0 },
  notes: "",
};
const input = openFormula(formula, bareKitchen);
const analysis = analyse(input);
const loaf = simulate(input, builtInShelf, { spread: 0.12, frames: 6 });
const open = () => input;

const kitchen = bareHere(new Map([["pier", { name: "Pier oven", modes: ["still" as const], biasK: -6, swingK: 9 }]]));
/** The formula after the last edit that was asked for. */
const after = (edit: jest.Mock): Formula => applyEdit(formula, edit.mock.calls.at(-1)?.[0] as Edit);

function show(element: ReactElement) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } });
  client.setQueryData(keys.vessels.all, []);
  return render(
    <QueryClientProvider client={client}>
      <ThemeProvider>{element}</ThemeProvider>
    </QueryClientProvider>,
  );
}
const why = (name: RegExp): string => {
  const button = screen.getByRole("button", { name });
  fireEvent.click(button);
  return button.parentElement?.textContent ?? "";
};

describe("the room of lift", () => {
  test("who brings soda and who brings acid stand in a ledger that adds up", () => {
    show(<LiftRoom analysis={analysis} shelf={builtInShelf} />);
    const tables = screen.getAllByRole("table");
    const ledger = tables.find((table) => within(table).queryByText("Baking soda"));
    const row = within(ledger as HTMLElement).getByRole("row", { name: /^Baking soda/ });
    const soda = analysis.lift.entries.find((entry) => entry.ingredientId === "soda");
    // In grams of soda, as it is weighed: 84.007 g are one mole.
    expect(row.textContent).toContain(`${((soda?.sodaMmol ?? 0) * 0.084007).toFixed(1).replace(/\.0$/, "")} g`);
    expect(screen.getByText(/short of acid/)).toBeTruthy();
  });
  test("on a plate nothing goes into an oven", () => {
    const { oven } = analysis.given;
    show(
      <LiftRoom analysis={{ ...analysis, given: { ...analysis.given, oven: { ...oven, mode: "hob" } } }} shelf={builtInShelf} />,
    );
    expect(screen.getByText(/is out before the plate; .* on the plate/)).toBeTruthy();
    expect(screen.queryByText(/before the oven/)).toBeNull();
  });
  test("what the pH means is said, with the colour of the fruit that is in it", () => {
    show(<LiftRoom analysis={analysis} shelf={builtInShelf} />);
    expect(screen.getByText("What that means")).toBeTruthy();
    expect(screen.getByText(/^Taste: .*soap/)).toBeTruthy();
    expect(screen.getByText(/^Colour: red fruit turns/)).toBeTruthy();
  });
});

describe("the room of body", () => {
  test("consistency while it stands, the way to the next word, and the bands with where it is out", () => {
    show(<BodyRoom analysis={analysis} shelf={builtInShelf} />);
    const standing = screen.getByRole("table", { name: "Consistency while the batter stands" });
    expect(within(standing).getAllByRole("row")).toHaveLength(1 + analysis.body.atMinutes.length);
    for (const next of analysis.body.next)
      expect(screen.getByText(new RegExp(`${Math.round(next.toG)} g of .*(more|less), it`))).toBeTruthy();
    const bands = screen.getByRole("list", { name: "Bands of this kind of bake" });
    const said = within(bands)
      .getAllByRole("listitem")
      .map((item) => item.getAttribute("aria-label") ?? "");
    expect(said).toHaveLength(analysis.bands.length);
    analysis.bands.forEach(({ low, high, value }, i) =>
      expect([said[i], /, outside$/.test(said[i] ?? "")]).toEqual([
        expect.stringContaining(`usual ${low} to ${high}`),
        value < low || value > high,
      ]),
    );
  });
});

describe("the room of fill", () => {
  const shown = (edit = jest.fn(), simulation: Simulation | null = loaf, read: Analysis = analysis) => {
    show(
      <FillRoom
        formula={formula}
        analysis={read}
        simulation={simulation}
        open={open}
        shelf={builtInShelf}
        edit={edit}
        faults={new Map()}
      />,
    );
    return edit;
  };
  test("a measure is taken when it makes sense, and otherwise says what would", () => {
    const edit = shown();
    fireEvent.change(screen.getByLabelText("Height inside"), { target: { value: "8 cm" } });
    expect(after(edit)).toEqual({ ...formula, vessel: { ...formula.vessel, heightMm: 80 } });
    edit.mockClear();
    fireEvent.change(screen.getByLabelText("Height inside"), { target: { value: "0.8" } });
    expect(edit).not.toHaveBeenCalled();
    expect(screen.getByText("From 5 to 300 mm would be right.")).toBeTruthy();
  });
  test("crown and cooled height come from the simulation, with their reason", () => {
    shown();
    expect(why(/^Crown, expected/)).toMatch(/highest the middle stands in the simulated bake/);
    expect(screen.getByText(`${Math.round(loaf.cooledMm.middle)} mm, edge ${Math.round(loaf.cooledMm.edge)}`)).toBeTruthy();
  });
  test("without a bake there is no crown to tell of", () => {
    shown(jest.fn(), null, readings(input));
    expect(screen.queryByText("Crown, expected")).toBeNull();
    expect(screen.queryByText("When it has cooled")).toBeNull();
  });
});

test("the body that one wants is a press away: the liquid that gives it is computed and taken", () => {
  const edit = jest.fn();
  show(<BodyRoom analysis={analysis} shelf={builtInShelf} open={open} edit={edit} />);
  const room = within(screen.getByTestId("body-target"));
  const wanted = analysis.body.consistency === "scoopable" ? "spoons" : "scoops";
  fireEvent.click(room.getByRole("radio", { name: wanted }));
  expect(room.getByText(/^\d+ g of whole milk, \d+ g (more|less) than now/)).toBeTruthy();
  fireEvent.click(room.getByRole("button", { name: "Take that much" }));
  const next = readings(openFormula(after(edit), bareKitchen));
  expect(next.body.consistency).toBe(wanted === "spoons" ? "spoonable" : "scoopable");
});

test("“mine is like this” keeps the baker's own flour and takes it on the sheet", async () => {
  const edit = jest.fn();
  const create = jest.spyOn(wire, "createIngredient").mockImplementation(async (ingredient) => ({
    id: ingredient.id,
    version: 1,
    createdAt: "",
    updatedAt: "",
    own: true,
    ingredient,
  }));
  jest.spyOn(wire, "ingredients").mockResolvedValue([]);
  show(<BodyRoom analysis={analysis} shelf={builtInShelf} open={open} edit={edit} lines={formula.lines} />);
  const room = within(screen.getByTestId("body-target"));
  fireEvent.click(room.getByRole("radio", { name: analysis.body.consistency === "scoopable" ? "spoons" : "scoops" }));
  expect(room.getByText(/your gluten-free flour blend.* drinks [\d.]+ times what the table has/)).toBeTruthy();
  fireEvent.click(room.getByRole("button", { name: "Mine is like this" }));
  await waitFor(() => expect(edit).toHaveBeenCalled());
  expect(create).toHaveBeenCalledTimes(1);
  expect(edit).toHaveBeenCalledWith({ edit: "set-ingredient", lineId: "l0", ingredientId: "my-gf-blend-plain" });
});

describe("the pan shelf", () => {
  test("a pan is baked in before it is taken; taking it keeps the lines and sets count and heat", async () => {
    const edit = jest.fn();
    show(<PanShelf formula={formula} analysis={analysis} open={open} shelf={builtInShelf} edit={edit} />);
    fireEvent.click(screen.getByRole("button", { name: /^All \d+ pans/ }));
    fireEvent.click(screen.getByRole("button", { name: /^Glass loaf dish 23 × 13 cm/ }));
    await waitFor(() => expect(screen.getByTestId("pan-chosen").textContent).toMatch(/At 160 °C: \d+–\d+ min, up to \d+ mm/), {
      timeout: 40_000,
    });
    expect(screen.getByTestId("pan-chosen").textContent).toMatch(/Glass holds heat/);
    fireEvent.click(screen.getByRole("button", { name: "Bake it in this" }));
    const next = after(edit);
    expect([next.oven.celsius, next.vessel.material, next.vessel.pieces, next.lines]).toEqual([160, "glass", 1, formula.lines]);
  }, 60_000);
  test("the batch may be scaled to suit the pan instead", async () => {
    const edit = jest.fn();
    show(<PanShelf formula={formula} analysis={analysis} open={open} shelf={builtInShelf} edit={edit} />);
    fireEvent.click(screen.getByRole("button", { name: /^All \d+ pans/ }));
    fireEvent.click(screen.getByRole("button", { name: /^Loaf tin 1 lb/ }));
    const make = await screen.findByRole("button", { name: /^Make \d+ % of the batch to suit it/ });
    const percent = Number(/\d+/.exec(make.textContent ?? "")?.[0]);
    fireEvent.click(make);
    const next = after(edit);
    expect((100 * (next.lines[0]?.grams?.mid ?? 0)) / 300).toBeCloseTo(percent, -0.5);
  }, 60_000);
});

describe("dividing", () => {
  test("each way asks for its own measures and answers with pieces, grams and millimetres", () => {
    show(<Dividing analysis={analysis} />);
    const mass = analysis.batch.massG;
    expect(screen.getByText(new RegExp(`^8 wedges of ${Math.round(mass / 8)} g: \\d+ mm thick, 100 mm long`))).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "Squares" }));
    expect(screen.getByText(/^16 squares of .*50 mm long, 50 mm wide/)).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "Balls" }));
    fireEvent.change(screen.getByLabelText("A ball weighs"), { target: { value: "100" } });
    const balls = Math.floor(mass / 100);
    expect(screen.getByText(new RegExp(`^${balls} balls of 100 g: .*${Math.round(mass - balls * 100)} g are left`))).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "Scoops" }));
    fireEvent.click(screen.getByRole("radio", { name: "60 mL" }));
    expect(screen.getByText(new RegExp(`^${Math.floor(mass / (60 * analysis.body.densityGPerMl))} scoops of`))).toBeTruthy();
  });
});

describe("the room of bake", () => {
  const shown = (changes: Partial<Formula> = {}, simulation: Simulation | null = loaf, baking = false) => {
    const edit = jest.fn();
    const at = { ...formula, ...changes };
    show(
      <BakeRoom
        stages={<Stages formula={at} minutes={50} edit={edit} />}
        formula={at}
        analysis={analysis}
        simulation={simulation}
        baking={baking}
        open={open}
        kitchen={kitchen}
        edit={edit}
      />,
    );
    return { edit, at };
  };
  test("oven, mode and wait are set here; another oven is remembered by its id and forgotten again", () => {
    const { edit } = shown();
    fireEvent.change(screen.getByRole("textbox", { name: "Oven" }), { target: { value: "190" } });
    expect(after(edit).oven).toEqual({ celsius: 190, mode: "still" });
    fireEvent.click(screen.getByRole("radio", { name: "Fan" }));
    expect(after(edit).oven).toEqual({ celsius: 175, mode: "fan" });
    fireEvent.click(screen.getByRole("radio", { name: "Pier oven" }));
    expect(after(edit).oven).toEqual({ celsius: 175, mode: "still", ovenId: "pier" });
  });
  test("350 °F comes back as 350 °F", () => {
    const { edit } = shown();
    fireEvent.change(screen.getByRole("textbox", { name: "Oven" }), { target: { value: "350 F" } });
    const { oven } = after(edit);
    expect([oven.dial, Math.round(oven.celsius)]).toEqual(["F", 177]);
    document.body.replaceChildren();
    const again = shown({ oven });
    const field = screen.getByRole("textbox", { name: "Oven" }) as HTMLInputElement;
    expect(field.value).toBe("350");
    fireEvent.change(field, { target: { value: "375" } });
    expect(Math.round(after(again.edit).oven.celsius)).toBe(191);
  });
  test("a known oven is described, and may be taken off", () => {
    const { edit, at } = shown({ oven: { celsius: 175, mode: "still", ovenId: "pier" } });
    expect(screen.getByText("It runs 6 °C cooler inside than its dial says and swings by 9.")).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "Any oven" }));
    expect(applyEdit(at, edit.mock.calls.at(-1)?.[0] as Edit).oven).toEqual({ celsius: 175, mode: "still" });
  });
  test("the range of the minutes is explained by what it depends on", () => {
    const full = simulate(input, builtInShelf, { frames: 4 });
    shown({}, full);
    const table = screen.getByRole("table", { name: "What the minutes depend on" });
    expect(within(table).getAllByRole("row")).toHaveLength(1 + full.sensitivity.length);
    expect(within(table).getByRole("row", { name: /^oven, not measured/ }).textContent).toMatch(/as if 10 °C cooler\+\d+ %/);
  });
  test("while it bakes it says so; before there is a simulation the arc stands in its place", () => {
    shown({}, null, true);
    expect(screen.getByText("Baking it in the computer")).toBeTruthy();
    expect(screen.queryByTestId("bake-moment")).toBeNull();
    expect(screen.queryByText("What if")).toBeNull();
  });
});
