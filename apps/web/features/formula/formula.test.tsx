import { applyEdit, builtInShelf, type Edit, type Formula, type FormulaLine, ingredientOf, faultsIn } from "@uprise/core";
import type { StoredFormula } from "@uprise/contract";
import { fireEvent, render, screen } from "@testing-library/react";
import type { JSX } from "react";
import { ThemeProvider } from "../../theme/theme";
import { Findings } from "../balance/findings";
import { AmountField } from "./amount-field";
import { beginDraft, type Draft, draftFrom, draftReducer, formulaOf, isDirty, keptOf, unsavedCount } from "./draft";
import { roomFrom } from "./rooms";
import { Stale } from "./stale";

const line = (id: string, ingredientId: string, grams: number): FormulaLine => ({
  id,
  ingredientId,
  grams: { low: grams, mid: grams, high: grams },
});
const formula: Formula = {
  shape: 2,
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
const heavier: Edit = { edit: "set-amount", lineId: "l1", grams: { low: 1, mid: 1, high: 1 }, unit: "g" };
const overTheDevice = (draft: Draft): unknown => JSON.parse(JSON.stringify(keptOf(draft)));

describe("the draft", () => {
  const opened = (): Draft => beginDraft(stored, null);
  const with_ = (...edits: Edit[]): Draft =>
    edits.reduce((draft, edit, n) => draftReducer(draft, { do: "edit", edit, at: n * 10_000 }), opened());

  test("undo goes back step by step and no farther than the beginning", () => {
    const two = with_(heavier, { edit: "rename", title: "Other" });
    expect(formulaOf(draftReducer(two, { do: "undo" })).title).toBe("Pier loaf");
    expect(formulaOf(draftReducer(opened(), { do: "undo" }))).toEqual(formula);
  });
  test("neither the order of fields nor a blank at the end of a title is a difference", () => {
    const turned = Object.fromEntries(Object.entries(formula).reverse()) as unknown as Formula;
    expect(isDirty({ ...opened(), base: { ...stored, formula: turned } })).toBe(false);
    expect(isDirty(with_({ edit: "rename", title: "Pier loaf " }))).toBe(false);
    expect(isDirty(with_({ edit: "rename", title: "Pier loaf 2" }))).toBe(true);
  });
  test("kept on the device it comes back with its undo and the version it was made from", () => {
    const changed = with_(heavier, { edit: "rename", title: "Other" });
    const again = draftFrom(overTheDevice(changed), { ...stored, version: 5 }) as Draft;
    expect([formulaOf(again), again.base.version, unsavedCount(again)]).toEqual([formulaOf(changed), 3, 2]);
    expect(formulaOf(draftReducer(draftReducer(again, { do: "undo" }), { do: "undo" }))).toEqual(formula);
  });
  test("saved it still can be undone; nothing of an untouched one is kept", () => {
    const changed = with_(heavier);
    const done = draftReducer(changed, { do: "saved", stored: { ...stored, version: 4, formula: formulaOf(changed) } });
    expect([isDirty(done), unsavedCount(done)]).toEqual([false, 0]);
    expect(formulaOf(draftReducer(done, { do: "undo" }))).toEqual(formula);
    expect(keptOf(opened())).toBeNull();
    // Somebody saved a fifth version meanwhile, and nothing here was unsaved: that one is opened.
    expect(beginDraft({ ...stored, version: 5 }, overTheDevice(done)).base.version).toBe(5);
  });
  test("one's own edits are put on what somebody else saved", () => {
    const theirs = { ...stored, version: 4, formula: applyEdit(formula, { edit: "set-oven", set: { celsius: 160 } }) };
    const both = draftReducer(with_(heavier), { do: "rebase", stored: theirs });
    expect([formulaOf(both).oven.celsius, formulaOf(both).lines[0]?.grams?.mid, both.base.version]).toEqual([160, 1, 4]);
  });
  test("one of an older program is opened in today's shape, with its edits", () => {
    const old = { ...(overTheDevice(with_(heavier)) as object), root: { ...formula, shape: 1 } };
    const again = draftFrom(old, stored) as Draft;
    expect(formulaOf(again)).toEqual(applyEdit(formula, heavier));
  });
  test.each([
    ["an empty title", { edit: "rename", title: "" } as Edit, "title", /needs a name/],
    ["an over-long note", { edit: "note-line", lineId: "l2", note: "x".repeat(501) } as Edit, "lines.1.note", /./],
    ["half a piece", { edit: "set-vessel", set: { pieces: 2.5 } } as Edit, "vessel.pieces", /./],
  ])("%s is kept as it was typed, and told where it stands", (_, edit, path, message) => {
    const again = draftFrom(overTheDevice(with_(edit)), stored) as Draft;
    expect(formulaOf(again)).toEqual(applyEdit(formula, edit));
    expect([...faultsIn(formulaOf(again))]).toEqual([[path, expect.stringMatching(message) as string]]);
  });
  test.each([
    [null],
    ["{"],
    [{ shape: 2 }],
    [{ shape: 2, version: 3, root: { ...formula, lines: "none" }, steps: [], savedAfter: 0 }],
    [{ shape: 2, version: 3, root: formula, steps: [{ at: 1, edit: { edit: "conjure" } }], savedAfter: 0 }],
    [{ shape: 2, version: 3, root: formula, steps: [{ at: 1, edit: { edit: "add" } }], savedAfter: 0 }],
  ])("what is no draft is set aside, not opened: %#", (body) => {
    expect(draftFrom(body, stored)).toBeNull();
    expect(formulaOf(beginDraft(stored, body))).toEqual(formula);
  });
});

test("an address names a room, the sheet, or nothing there is", () => {
  expect([roomFrom("lift"), roomFrom(undefined), roomFrom("cellar")]).toEqual(["lift", null, undefined]);
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
    expect(onAmount.mock.calls.map(([read]) => [read.unit, Math.round(read.grams.mid * 10) / 10])).toEqual([
      ["tsp", 4.9],
      ["tsp", 7.3],
    ]);
  });
  test("a percentage stands on the flour as it was when the field was entered, typed or pasted", () => {
    const flour = ingredientOf(builtInShelf, "sorghum-flour");
    const typed = (keys: string[]): number => {
      let grams = 200;
      // Every key changes the flour itself, and with it what a percentage would stand on.
      const field = (): JSX.Element => (
        <ThemeProvider>
          <AmountField
            line={line("l1", "sorghum-flour", grams)}
            ingredient={flour}
            context={{ measures: "us", mode: "percent", flourG: grams + 200 }}
            onAmount={(read) => {
              grams = read.grams.mid;
            }}
          />
        </ThemeProvider>
      );
      const { rerender, unmount } = render(field());
      const input = screen.getByLabelText("Amount of Sorghum flour");
      fireEvent.focus(input);
      for (const value of keys) {
        fireEvent.change(input, { target: { value } });
        rerender(field());
      }
      unmount();
      return grams;
    };
    expect(typed(["6", "60"])).toBeCloseTo(240, 9);
    expect(typed(["60"])).toBeCloseTo(240, 9);
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

test("a stale write shows both sides and the ways on", () => {
  const onMine = jest.fn();
  const onMerge = jest.fn();
  render(
    <ThemeProvider>
      <Stale
        mine={formula}
        theirs={{ ...stored, version: 4, formula: applyEdit(formula, heavier) }}
        nameOf={(id) => builtInShelf.get(id)?.name ?? id}
        onMerge={onMerge}
        onMine={onMine}
        onTheirs={jest.fn()}
        onBoth={jest.fn()}
      />
    </ThemeProvider>,
  );
  expect(screen.getByText("Sorghum flour: theirs 1 g, yours 200 g")).toBeTruthy();
  fireEvent.click(screen.getByText("Save mine on top"));
  expect(onMine).toHaveBeenCalled();
  fireEvent.click(screen.getByText("Put my changes on it"));
  expect(onMerge).toHaveBeenCalled();
});
