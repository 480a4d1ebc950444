import { applyEdit, baked, bareKitchen, beginKind, type Formula, openFormula, stepsOf } from "@uprise/core";
import { fireEvent, render, screen, within } from "@testing-library/react";
import { useState } from "react";
import { ThemeProvider } from "../../theme/theme";
import { bareHere } from "../wire/bare.fixture";
import { stepTimes, StepsRoom } from "./steps-room";

const loaf = beginKind("loaf", "metric", 900);
const kitchen = bareHere(new Map([["deck", { name: "Deck", modes: ["still" as const], biasK: 0, swingK: 5, warmMinutes: 30 }]]));
function Shown({ first }: { first: Formula }) {
  const [formula, setFormula] = useState(first);
  const open = () => openFormula(formula, bareKitchen);
  const { analysis, simulation } = baked(open(), undefined, { frames: 0, spread: 0.1 });
  return (
    <ThemeProvider>
      <StepsRoom
        formula={formula}
        analysis={analysis}
        simulation={simulation}
        open={open}
        kitchen={kitchen}
        edit={(edit) => setFormula(applyEdit(formula, edit))}
      />
    </ThemeProvider>
  );
}
const show = (formula: Formula): void => void render(<Shown first={formula} />);

test("steps are numbered in their order, each with its time and what it needs", () => {
  show(loaf);
  const items = within(screen.getByRole("list", { name: "Steps" })).getAllByRole("listitem");
  expect(items.map((item) => Number.parseInt(item.textContent ?? "", 10))).toEqual(items.map((_, k) => k + 1));
  expect(items.some((item) => /Heat the oven to 175 °C\..*12–25 min, oven/.test(item.textContent ?? ""))).toBe(true);
  expect(items.some((item) => /begin within \d+ min of wetting it/.test(item.textContent ?? ""))).toBe(true);
  screen.getByText(/^About \d+ h \d+ min from the first hand to the last/);
});

test("the oven of the kitchen warms at its own rate, and what is not weighed is told to be in no step", () => {
  show({
    ...loaf,
    oven: { ...loaf.oven, ovenId: "deck" },
    lines: [...loaf.lines, { id: "open", ingredientId: "raisins" }],
  });
  screen.getByText(/^27–36 min, oven/);
  screen.getByText("Not weighed yet, and in no step: raisins.");
});

test("times in words: a range, a minute in the oven, the day before", () => {
  const input = openFormula({ ...loaf, process: { method: "creaming" } }, bareKitchen);
  const { analysis, simulation } = baked(input, undefined, { frames: 0, spread: 0.1 });
  const steps = stepsOf(input, analysis, simulation);
  const look = steps.find(({ id }) => id === "look");
  if (!look) throw new Error("no look");
  expect(stepTimes(look)).toMatch(/^after \d+ min in the oven$/);
  expect(stepTimes({ ...look, at: undefined, ahead: true, minutes: { low: 2, mid: 3, high: 4 } })).toBe(
    "2–4 min, hands; may be done the day before",
  );
});

test("a step is said otherwise, left out and taken in again, and one of one's own is put after it", () => {
  show(loaf);
  fireEvent.click(screen.getByText(/^Grease|^Line the tin/));
  const pan = screen.getByRole("group", { name: /^Change: / });
  fireEvent.click(within(pan).getByText("Put a step after it"));
  fireEvent.click(within(pan).getByText("Done"));
  fireEvent.click(screen.getByText("A step of your own."));
  fireEvent.change(screen.getByLabelText("What is done"), { target: { value: "Scatter seeds into the tin" } });
  fireEvent.change(screen.getByLabelText("Minutes"), { target: { value: "3" } });
  fireEvent.click(screen.getByText("Done"));
  const own = screen.getByText("Scatter seeds into the tin.");
  expect(own.parentElement?.textContent).toContain("3 min, hands");
  fireEvent.click(screen.getByText(/^Cool on the rack/));
  fireEvent.click(screen.getByText("Leave it out"));
  screen.getByText(/^Left out: /);
  fireEvent.click(screen.getByText("Take it in again"));
  expect(screen.queryByText(/^Left out: /)).toBeNull();
  fireEvent.click(screen.getByText("All steps as they are derived"));
  expect(screen.queryByText("Scatter seeds into the tin.")).toBeNull();
});
