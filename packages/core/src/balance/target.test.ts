import { readings } from "../analyse";
import { consistencies } from "../body/consistency";
import type { Opened } from "../formula/open";
import { targetOf } from "./target";

const scone: Opened = {
  kind: "scone",
  lines: [
    { ingredientId: "gf-blend-plain", grams: 280 },
    { ingredientId: "xanthan", grams: 2 },
    { ingredientId: "butter", grams: 70 },
    { ingredientId: "caster-sugar", grams: 40 },
    { ingredientId: "whole-milk", grams: 200 },
    { ingredientId: "powder-aluminium-free", grams: 15 },
  ],
};
const withMilk = (grams: number): Opened => ({
  ...scone,
  lines: scone.lines.map((line) => (line.ingredientId === "whole-milk" ? { ...line, grams } : line)),
});

test("each word is reached by the amount that is said, and stiffer ones by less", () => {
  const reached = consistencies.flatMap((word) => {
    const target = targetOf(word, scone);
    if (!target) return [];
    expect(target.fromG).toBe(200);
    expect(readings(withMilk(target.toG)).body.consistency).toBe(word);
    return [target.toG];
  });
  expect(reached.length).toBeGreaterThanOrEqual(4);
  expect([...reached].sort((a, b) => b - a)).toEqual(reached);
});
test("a locked liquid is not moved; where there is none it is water", () => {
  const locked = {
    ...scone,
    lines: scone.lines.map((line) => (line.ingredientId === "whole-milk" ? { ...line, locked: true } : line)),
  };
  expect(targetOf("pourable", locked)).toBeNull();
  const dry = { ...scone, lines: scone.lines.filter(({ ingredientId }) => ingredientId !== "whole-milk") };
  expect(targetOf("soft-dough", dry)).toMatchObject({ ingredientId: "water", fromG: 0 });
});
