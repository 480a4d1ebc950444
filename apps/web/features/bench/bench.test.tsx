import { builtInShelf, type Formula, type FormulaLine, ingredientOf } from "@uprise/core";
import type { StoredFormula } from "@uprise/contract";
import { fireEvent, render, screen } from "@testing-library/react";
import fc from "fast-check";
import { ThemeProvider } from "../../theme/theme";
import { readDevice } from "../../ui/device";
import { AmountField } from "./amount-field";
import { type Draft, draftReducer, isDirty, keepDraft, openDraft } from "./draft";
import * as edit from "./edits";
import { Findings } from "./findings";
import { Stale } from "./stale";

const line = (id: string, ingredientId: string, grams: number): FormulaLine => ({
  id,
  ingredientId,
  grams: { low: grams, mid: grams, high: grams },
});
const formula: Formula = {
  shape: 1,
  title: "Pier loaf",
  kind: "loaf",
  measures: "us",
  lines: [line("l1", "sorghum-flour", 200), line("l2", "kefir", 220), line("l3", "soda", 2)],
  vessel: { shape: "round", diameterMm: 200 },
  oven: { celsius: 180 },
  process: {},
  notes: "",
};
const stored: StoredFormula = {
  id: "pier",
  version: 3,
  createdAt: "2026-11-01T00:00:00Z",
  updatedAt: "2026-11-01T00:00:00Z",
  formula,
};
const heavier = (f: Formula): Formula => edit.setAmount(f, "l1", { low: 1, mid: 1, high: 1 }, "g");

beforeEach(() => localStorage.clear());

describe("edits", () => {
  test("moving there and back, locking twice, adding and removing leave the formula as it was", () => {
    expect(edit.moveLine(edit.moveLine(formula, "l1", 1), "l1", -1)).toEqual(formula);
    expect(edit.moveLine(formula, "l1", -1)).toBe(formula);
    const added = edit.addLine(formula, { ingredientId: "salt", grams: { low: 3, mid: 3, high: 3 } });
    expect(added.lines.at(-1)?.id).toBe("l4");
    expect(edit.removeLine(added, "l4")).toEqual(formula);
    expect(edit.toggleLock(edit.toggleLock(formula, "l2"), "l2").lines[1]?.locked).toBe(false);
    expect(edit.renameLine(edit.renameLine(formula, "l2", "Pier kefir"), "l2", " ")).toEqual(formula);
  });
  test("a line that was removed never lends its id to a new one that is still there", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom("add", "l1", "l2", "l3", "l4", "l5"), { maxLength: 20 }), (steps) => {
        const after = steps.reduce(
          (f, step) =>
            step === "add"
              ? edit.addLine(f, { ingredientId: "water", grams: { low: 1, mid: 1, high: 1 } })
              : edit.removeLine(f, step),
          formula,
        );
        return new Set(after.lines.map((l) => l.id)).size === after.lines.length;
      }),
    );
  });
});

describe("the draft", () => {
  const opened = (): Draft => openDraft(stored);
  test("undo goes back step by step; a folded change has no step of its own", () => {
    const one = draftReducer(opened(), { do: "edit", make: heavier });
    const two = draftReducer(one, { do: "refine", make: (f) => ({ ...f, title: "Other" }) });
    expect(two.past).toHaveLength(1);
    expect(draftReducer(two, { do: "undo" }).formula).toEqual(formula);
    expect(draftReducer(opened(), { do: "undo" }).formula).toEqual(formula);
  });
  test("the order in which fields stand makes no difference", () => {
    const turned = Object.fromEntries(Object.entries(formula).reverse()) as unknown as Formula;
    expect(isDirty({ ...opened(), formula: turned })).toBe(false);
  });
  test("what is unsaved is kept on the device with the version it was made from, and forgotten once saved", () => {
    const changed = draftReducer(opened(), { do: "edit", make: heavier });
    expect(isDirty(changed)).toBe(true);
    keepDraft(changed);
    const again = openDraft({ ...stored, version: 5 });
    expect(again.formula).toEqual(changed.formula);
    expect(again.base.version).toBe(3);
    keepDraft(draftReducer(changed, { do: "saved", stored: { ...stored, version: 4, formula: changed.formula } }));
    expect(readDevice("draft.pier")).toBeNull();
  });
});

describe("the amount of a line", () => {
  const show = (onAmount: jest.Mock) =>
    render(
      <ThemeProvider>
        <AmountField
          line={line("l3", "soda", 2)}
          ingredient={ingredientOf(builtInShelf, "soda")}
          context={{ measures: "us", mode: "grams", flourG: 200 }}
          onAmount={onAmount}
        />
      </ThemeProvider>,
    );
  test("every readable key stroke is an amount, the first one starts a step of undo", () => {
    const onAmount = jest.fn();
    show(onAmount);
    const field = screen.getByLabelText("Amount of Baking soda");
    fireEvent.change(field, { target: { value: "1 tsp" } });
    fireEvent.change(field, { target: { value: "1.5 tsp" } });
    expect(onAmount.mock.calls.map(([read, first]) => [read.unit, Math.round(read.grams.mid * 10) / 10, first])).toEqual([
      ["tsp", 4.9, true],
      ["tsp", 7.3, false],
    ]);
  });
  test("what is no amount stays as typed, is told, and changes nothing", () => {
    const onAmount = jest.fn();
    show(onAmount);
    const field = screen.getByLabelText("Amount of Baking soda");
    fireEvent.change(field, { target: { value: "plenty" } });
    fireEvent.blur(field);
    expect(onAmount).not.toHaveBeenCalled();
    expect((field as HTMLInputElement).value).toBe("plenty");
    expect(screen.getByText(/would be right/)).toBeTruthy();
  });
});

test("findings show the gravest first and the rest on a tap", () => {
  render(
    <ThemeProvider>
      <Findings
        onBalance={jest.fn()}
        findings={[
          { id: "soda-unmet", severity: "stop", message: "Soda is left.", why: "Because.", fix: "Do this.", ingredientIds: [] },
          { id: "oats-check", severity: "note", message: "Check the oats.", why: "Label.", ingredientIds: [] },
        ]}
      />
    </ThemeProvider>,
  );
  expect(screen.queryByText("Check the oats.")).toBeNull();
  fireEvent.click(screen.getByText("What to do, and 1 more"));
  expect(screen.getByText("Check the oats.")).toBeTruthy();
  expect(screen.getByText("Do this.")).toBeTruthy();
});

test("a stale write shows both sides and three ways on", () => {
  const onMine = jest.fn();
  render(
    <ThemeProvider>
      <Stale
        mine={formula}
        theirs={{ ...stored, version: 4, formula: heavier(formula) }}
        shelf={builtInShelf}
        onMine={onMine}
        onTheirs={jest.fn()}
        onBoth={jest.fn()}
      />
    </ThemeProvider>,
  );
  expect(screen.getByText("Sorghum flour: theirs 1 g, yours 200 g")).toBeTruthy();
  fireEvent.click(screen.getByText("Save mine on top"));
  expect(onMine).toHaveBeenCalled();
});
