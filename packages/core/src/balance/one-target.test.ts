import { kinds } from "../formula/kinds";
import { analyse } from "./analyse";
import { balance } from "./balance";
import { typicalLines } from "./bands";

/** Amounts to which a text would bring the soda, g. */
const targetsIn = (text: string): number[] =>
  [...text.matchAll(/(?:drop|raise|bring) the soda to ([\d.]+) g/gi)].map(([, grams]) => Number(grams));

test("what a finding would bring the soda to is what Balance brings it to", () => {
  let told = 0;
  for (const kind of kinds)
    for (const sodaG of [6, 9]) {
      const input = { kind, lines: [...typicalLines(kind, 800).filter(({ ingredientId }) => ingredientId !== "soda"), { ingredientId: "soda", grams: sodaG }] }; // prettier-ignore
      const said = analyse(input).findings.flatMap(({ fix }) => targetsIn(fix ?? ""));
      if (said.length === 0) continue;
      const moved = balance(input).proposals.flatMap(({ changes }) =>
        changes.filter(({ ingredientId }) => ingredientId === "soda").map(({ toG }) => toG),
      );
      for (const grams of said) {
        told++;
        expect({ kind, sodaG, grams, moved, same: moved.some((toG) => Math.abs(toG - grams) < 0.051) }).toMatchObject({
          same: true,
        });
      }
    }
  expect(told).toBeGreaterThan(8);
});
