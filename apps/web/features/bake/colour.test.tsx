import { bareKitchen, beginKind, builtInShelf, type Edit, type Formula, openFormula, simulate } from "@uprise/core";
import { fireEvent, render, screen, within } from "@testing-library/react";
import { ThemeProvider } from "../../theme/theme";
import { Colour } from "./colour";

const loaf = beginKind("loaf", "metric", 950);
const show = (formula: Formula, edits: Edit[] = []): void => {
  const open = () => openFormula(formula, bareKitchen);
  const simulation = simulate(open(), builtInShelf, { spread: 0, frames: 0, withoutCooling: true });
  render(
    <ThemeProvider>
      <Colour formula={formula} simulation={simulation} open={open} shelf={builtInShelf} edit={(edit) => edits.push(edit)} />
    </ThemeProvider>,
  );
};

test("a bake of good colour is told as it is, and nothing is offered", () => {
  show(loaf);
  screen.getByText(/^Comes out (deep brown|golden) on top and golden beneath\.$/);
  expect(screen.queryByRole("button")).toBeNull();
});

test("a dark top is named; what was baked and helps is offered with its cost, and taken as edits", async () => {
  const edits: Edit[] = [];
  show({ ...loaf, oven: { celsius: 205 } }, edits);
  screen.getByText("The top is dark before the middle is done.");
  fireEvent.click(screen.getByRole("button", { name: "Bake what would help" }));
  const list = screen.getByRole("list", { name: /^Ways out/ });
  await within(list).findByText("Cover it with foil once it is golden.", {}, { timeout: 20_000 });
  await within(list).findAllByText(/^Bake at 1\d\d °C\.$/, {}, { timeout: 20_000 });
  for (const item of within(list).getAllByRole("listitem")) expect(item.textContent).toMatch(/\d+ min.*Costs: /);
  fireEvent.click(screen.getByRole("button", { name: "Take it: cover it with foil once it is golden" }));
  expect(edits).toEqual([{ edit: "set-process", set: { stages: [{ until: "golden" }, { covered: true }] } }]);
}, 60_000);
