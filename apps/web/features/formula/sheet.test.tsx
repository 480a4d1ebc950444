import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import {
  analyse,
  type AmountMode,
  applyEdit,
  bareKitchen,
  builtInShelf,
  type Edit,
  type Formula,
  formulaFrom,
  isOpen,
  openFormula,
  readings,
  readRecipe,
} from "@uprise/core";
import { fireEvent, render, screen, within, waitFor } from "@testing-library/react";
import { useState } from "react";
import { ThemeProvider } from "../../theme/theme";
import { figureOf, sentenceOf } from "../instruments/sentences";
import { keys } from "../wire/keys";
import { groupsOf, withoutText } from "./groups";
import { PartsRoom } from "./parts-room";
import { RecipeWord } from "./recipe-word";
import { Sheet } from "./sheet";
import { bareHere } from "../wire/bare.fixture";

const text = `Pier loaf
200 g sorghum flour
100 g tapioca starch
whole milk
100 g egg
80 g sunflower oil
2 g xanthan
12 g baking powder
2 tbsp moonbean syrup
For the plum filling:
200 g plums
30 g sugar
Bake in a 900 g loaf tin at 175 °C for 45 minutes.`;
const formula = formulaFrom(readRecipe(text, "metric"), "metric", "loaf", undefined, { text, measures: "metric" });
const idOf = (source: string): string => formula.lines.find((line) => line.source === source)?.id ?? "";

/** The sheet as it lives: every edit is made. */
function Living({ from, seen }: { from: Formula; seen: (formula: Formula) => void }) {
  const [now, setNow] = useState(from);
  const [mode, setMode] = useState<AmountMode>("grams");
  const edit = (made: Edit): void =>
    setNow((before) => {
      const next = applyEdit(before, made);
      seen(next);
      return next;
    });
  return (
    <Sheet
      formula={now}
      analysis={readings(openFormula(now, bareKitchen))}
      kitchen={bareKitchen}
      id="pier"
      mode={mode}
      onMode={setMode}
      edit={edit}
      onSwap={() => undefined}
      faults={new Map()}
    />
  );
}

const clientWith = (): QueryClient => {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } });
  client.setQueryData(keys.formulas.list(""), { pages: [{ items: [], page: 1, pageSize: 50, total: 0 }], pageParams: [1] });
  client.setQueryData(keys.vessels.all, []);
  return client;
};
function show(from: Formula = formula): { now: () => Formula } {
  let last = from;
  render(
    <QueryClientProvider client={clientWith()}>
      <ThemeProvider>
        <Living from={from} seen={(next) => (last = next)} />
      </ThemeProvider>
    </QueryClientProvider>,
  );
  return { now: () => last };
}
const answerOf = (name: string): HTMLElement => screen.getByRole("group", { name: `Answer ${name}` });

describe("open lines", () => {
  test("stand in their place; a liquid is offered by the body it gives, and taking one closes the line", async () => {
    const { now } = show();
    expect(screen.getAllByRole("img", { name: "open" })).toHaveLength(2);
    const offers = await within(answerOf("Whole milk")).findAllByRole("button", { name: /^Take \d+ g of Whole milk, the batter/ });
    expect(offers.map((offer) => offer.textContent)).toEqual([
      expect.stringMatching(/^\d+ g: the batter spoons$/),
      expect.stringMatching(/^\d+ g: the batter scoops$/),
    ]);
    fireEvent.click(offers[0] as HTMLElement);
    expect(now().lines.filter(isOpen)).toHaveLength(1);
    expect(readings(openFormula(now(), bareKitchen)).body.consistency).toBe("spoonable");
  });
  test("an amount can be typed as one says it: in cups, in grams", () => {
    const { now } = show();
    fireEvent.change(screen.getByLabelText("Amount of Whole milk"), { target: { value: "1 cup" } });
    expect(now().lines.find(({ id }) => id === idOf("whole milk"))).toMatchObject({
      unit: "cup",
      grams: { mid: expect.closeTo(257, -1) },
    });
  });
  test("what is not known is named, and weighed as its recipe says; left out it is open no more", async () => {
    const { now } = show();
    const answer = answerOf("Moonbean syrup");
    fireEvent.change(within(answer).getByLabelText(/is not known here/), { target: { value: "honey" } });
    fireEvent.click((await within(answer).findAllByRole("option"))[0] as HTMLElement);
    // Two tablespoons of 15 mL at 1.4 g/mL.
    expect(now().lines.find(({ id }) => id === idOf("2 tbsp moonbean syrup"))).toMatchObject({
      ingredientId: "honey",
      name: "Moonbean syrup",
      grams: { mid: expect.closeTo(42, -1) },
    });
    fireEvent.click(screen.getByRole("button", { name: "Leave out Whole milk" }));
    expect(now().lines.some(isOpen)).toBe(false);
    expect(screen.getByText("left out, weighs nothing")).toBeTruthy();
  });
  test("make every figure a question and say what is missing, until nothing that matters is open", () => {
    const reading = analyse(openFormula(formula, bareKitchen));
    expect(withoutText(formula, bareKitchen)).toBe("Without whole milk and moonbean syrup. Nothing here is final yet.");
    expect(figureOf("lift", reading)).toMatch(/\?$/);
    expect(sentenceOf("bake", reading)).toMatch(/The recipe says 45 min\. Not final: something is still open\.$/);
    const whole = { ...formula, lines: formula.lines.filter((line) => !isOpen(line)) };
    expect(figureOf("lift", readings(openFormula(whole, bareKitchen)))).not.toMatch(/\?/);
    expect(withoutText(whole, bareKitchen)).toBeNull();
  });
});

describe("components", () => {
  const plums = (): HTMLElement => screen.getByRole("group", { name: "Plum filling" });
  test("have a heading with mass and place that folds", () => {
    show();
    expect(within(plums()).getByText("230 g")).toBeTruthy();
    expect(within(plums()).getByText("in the middle")).toBeTruthy();
    fireEvent.click(within(plums()).getByRole("button", { name: "Plum filling, fold" }));
    expect(within(plums()).queryByLabelText(/Amount of/)).toBeNull();
    expect(within(plums()).getByText("in the middle, 2 lines")).toBeTruthy();
  });
  test("a line goes to another one by choice, up and down over the edge, and comes back", () => {
    const { now } = show();
    const powder = idOf("12 g baking powder");
    fireEvent.click(screen.getByTestId(`line-${powder}`));
    fireEvent.click(screen.getByRole("radio", { name: "Plum filling" }));
    expect(now().lines.find(({ id }) => id === powder)?.component).toBe(now().components?.[0]?.id);
    fireEvent.click(screen.getByRole("radio", { name: "Batter" }));
    expect(now().lines.find(({ id }) => id === powder)?.component).toBeUndefined();
    fireEvent.click(screen.getByRole("button", { name: "Move Baking powder, aluminium-free down" }));
    expect(groupsOf(now())[1]?.lines[0]?.line.id).toBe(powder);
  });
  test("are set up where they stand: what it is, where it bakes, what it weighs once cooked; and one can be added and removed", () => {
    const { now } = show();
    fireEvent.click(screen.getByRole("button", { name: "Set up Plum filling" }));
    fireEvent.change(screen.getByLabelText(/Once cooked/), { target: { value: "160" } });
    fireEvent.click(screen.getByRole("radio", { name: "under the batter" }));
    expect(now().components?.[0]).toMatchObject({ cookedG: 160, place: "base" });
    expect(within(plums()).getByText("230 g, cooked 160 g")).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "Topping" }));
    // What it is brings its usual place.
    expect(now().components?.[0]).not.toHaveProperty("place");
    fireEvent.click(screen.getByTestId("add-component"));
    fireEvent.click(screen.getByRole("button", { name: "Glaze" }));
    expect(now().components?.map(({ name }) => name)).toEqual(["Plum filling", "Glaze"]);
    fireEvent.click(screen.getByRole("button", { name: "Remove Plum filling with its 2 lines" }));
    expect([now().components?.length, now().lines.some(({ ingredientId }) => ingredientId === "plum")]).toEqual([1, false]);
  });
});

test("the recipe's own word stands beside the bench, and its text is read again with other cups", async () => {
  const edit = jest.fn();
  render(
    <ThemeProvider>
      <RecipeWord formula={formula} analysis={analyse(openFormula(formula, bareKitchen))} shelf={builtInShelf} edit={edit} />
    </ThemeProvider>,
  );
  expect(screen.getByRole("table", { name: "The recipe and this bench" }).textContent).toMatch(/Minutes45 min\d+–\d+ min/);
  fireEvent.click(screen.getByRole("button", { name: "The text as pasted" }));
  fireEvent.click(screen.getByRole("radio", { name: "Australian" }));
  fireEvent.click(screen.getByRole("button", { name: "Read it again" }));
  await waitFor(() => expect(edit).toHaveBeenCalled());
  const next = applyEdit(formula, edit.mock.calls[0]?.[0] as Edit);
  expect([next.measures, next.lines.length, next.pasted?.measures]).toEqual(["au", formula.lines.length, "au"]);
});

test("a part of the batter says which components it gets", () => {
  const edit = jest.fn();
  const split: Formula = {
    ...formula,
    parts: [
      {
        id: "p",
        name: "Filled",
        share: 0.5,
        additions: [],
        kind: "muffin",
        vessel: { shape: "muffin", pieces: 6 },
        oven: { celsius: 190 },
      },
    ],
  };
  render(
    <QueryClientProvider client={clientWith()}>
      <ThemeProvider>
        <PartsRoom formula={split} kitchen={bareHere()} edit={edit} faults={new Map()} />
      </ThemeProvider>
    </QueryClientProvider>,
  );
  fireEvent.click(screen.getByRole("checkbox", { name: "Plum filling" }));
  expect(applyEdit(split, edit.mock.calls[0]?.[0] as Edit).parts?.[0]?.components).toEqual([]);
});
