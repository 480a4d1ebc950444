import { analyse, builtInShelf, type Edit, type Formula, type Opened, type Simulation, simulate } from "@uprise/core";
import { fireEvent, render, screen, within } from "@testing-library/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { ReactElement } from "react";
import { ThemeProvider } from "../../theme/theme";
import { FillRoom } from "../fill/room";
import { happenings } from "../instruments/bake-words";
import { DoneLine } from "../instruments/done-line";
import { FromAbove } from "../instruments/from-above";
import { sentenceOf } from "../instruments/sentences";

const baked = (input: Opened): Simulation => simulate(input, builtInShelf, { spread: 0.1, frames: 4 });
const show = (element: ReactElement) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <ThemeProvider>{element}</ThemeProvider>
    </QueryClientProvider>,
  );

const thin: Opened = {
  kind: "cornbread-plain",
  lines: analyseLines("cornbread-plain", 850),
  vessel: { shape: "round", diameterMm: 285, heightMm: 55, material: "cast-iron", lining: "greased", preheated: true },
  oven: { celsius: 220 },
};

function analyseLines(kind: "cornbread-plain" | "bun", batchG: number): Opened["lines"] {
  const share: Record<string, number> =
    kind === "bun"
      ? { "gf-blend-plain": 45, "psyllium-husk": 2, "whole-milk": 38, egg: 8, butter: 5, "powder-aluminium-free": 2 }
      : { cornmeal: 35, buttermilk: 43, egg: 13, butter: 6, "powder-aluminium-free": 1.5, soda: 0.4, salt: 0.6 };
  const whole = Object.values(share).reduce((all, part) => all + part, 0);
  return Object.entries(share).map(([ingredientId, part]) => ({ ingredientId, grams: (batchG * part) / whole }));
}

describe("the marks of a bake", () => {
  const simulation = baked(thin);
  test("every happening stands at its minute, in the order of time, those on the counter after those in the oven", () => {
    const rows = happenings(simulation, false);
    expect(rows.map(({ key }) => key)).toEqual(expect.arrayContaining(["look", "core", "golden", "out", "bite", "cut"]));
    const minutes = rows.filter(({ when }) => !/after/.test(when)).map(({ when }) => Number.parseFloat(when));
    expect([...minutes].sort((a, b) => a - b)).toEqual(minutes);
    expect(rows.findIndex(({ key }) => key === "out")).toBeLessThan(rows.findIndex(({ key }) => key === "bite"));
    expect(rows.find(({ key }) => key === "golden")?.what).toBe("Rim and top golden");
  });
  test("nothing that did not come is told as coming", () => {
    const rows = happenings({ ...simulation, marks: { ...simulation.marks, golden: null, skewer: null } }, false);
    expect(rows.some(({ key }) => key === "golden" || key === "skewer")).toBe(false);
  });
  test("what it waits for is said beside its minutes", () => {
    const analysis = analyse(thin);
    expect(analysis.bake?.waitsFor).toBe("colour");
    expect(sentenceOf("bake", analysis)).toMatch(/Set inside at \d+, it waits for its colour\./);
  });
  test("the line carries the words of what came, and where it is taken out", () => {
    const { container } = show(<DoneLine simulation={simulation} width={340} />);
    const words = [...container.querySelectorAll("text")].map((text) => text.textContent);
    expect(words).toEqual(expect.arrayContaining(["set", "golden", "dry", "look", "out"]));
    const none = show(
      <DoneLine simulation={{ ...simulation, marks: { ...simulation.marks, dry: null, golden: null } }} width={340} />,
    );
    expect([...none.container.querySelectorAll("text")].map((text) => text.textContent)).not.toContain("golden");
  });
});

describe("pieces without walls", () => {
  const formula: Formula = {
    shape: 2,
    title: "Quay buns",
    kind: "bun",
    measures: "metric",
    lines: analyseLines("bun", 720).map((line, i) => {
      const mid = "grams" in line && typeof line.grams === "number" ? line.grams : 0;
      return { id: `l${i}`, ingredientId: line.ingredientId ?? "water", grams: { low: mid, mid, high: mid } };
    }),
    vessel: { shape: "free", pieces: 9, thicknessMm: 36, piece: "ball" },
    oven: { celsius: 200, mode: "still" },
    process: {},
    notes: "",
  };
  const input: Opened = { kind: "bun", lines: analyseLines("bun", 720), vessel: formula.vessel, oven: formula.oven };
  const simulation = baked(input);
  const analysis = analyse(input);

  test("from above they are drawn as they were set and as they come out, in words too", () => {
    show(<FromAbove simulation={simulation} vessel={formula.vessel} />);
    const said = screen.getByTestId("from-above").getAttribute("aria-label") ?? "";
    const [before, after] = (/Each (\d+) mm wide when it is set, (\d+)/.exec(said) ?? []).slice(1).map(Number);
    expect(after).toBeGreaterThan(before ?? Infinity);
    expect((after ?? 0) / (before ?? 1)).toBeCloseTo(1 + simulation.spreadPercent / 100, 1);
  });
  test("what a piece is and how close they stand is chosen, and the bake follows", () => {
    const edit = jest.fn<undefined, [Edit]>();
    show(
      <FillRoom
        formula={formula}
        analysis={analysis}
        simulation={simulation}
        open={() => input}
        shelf={builtInShelf}
        edit={edit}
        faults={new Map()}
      />,
    );
    fireEvent.click(within(screen.getByRole("radiogroup", { name: "A piece is a" })).getByRole("radio", { name: "Drop" }));
    fireEvent.click(within(screen.getByRole("radiogroup", { name: "They stand" })).getByRole("radio", { name: "Close, touching" }));
    expect(edit.mock.calls.map(([made]) => made)).toEqual([
      { edit: "set-vessel", set: { piece: "drop" } },
      { edit: "set-vessel", set: { touching: true } },
    ]);
    const close = baked({ ...input, vessel: { ...formula.vessel, touching: true } });
    expect(close.spreadPercent).toBe(0);
    expect(close.minutes).toBeGreaterThan(simulation.minutes);
  });
  test("a pan goes in cold, warm or hot; warm and hot exclude each other", () => {
    const edit = jest.fn<undefined, [Edit]>();
    const skillet: Formula = { ...formula, kind: "cornbread-plain", vessel: { ...thin.vessel, shape: "round" } };
    show(
      <FillRoom
        formula={skillet}
        analysis={analyse(thin)}
        simulation={null}
        open={() => thin}
        shelf={builtInShelf}
        edit={edit}
        faults={new Map()}
      />,
    );
    const choice = within(screen.getByRole("radiogroup", { name: "The pan goes in" }));
    expect(choice.getByRole("radio", { name: "As hot as the oven" }).getAttribute("aria-checked")).toBe("true");
    fireEvent.click(choice.getByRole("radio", { name: /^Warm/ }));
    expect(edit.mock.calls[0]?.[0]).toMatchObject({ edit: "set-vessel", set: { warmC: 100, preheated: false } });
  });
});
