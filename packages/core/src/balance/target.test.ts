import { readings } from "./analyse";
import { consistencies } from "../body/consistency";
import type { Opened } from "../formula/open";
import { builtInShelf, shelfWith } from "../pantry/catalogue";
import { learntFlour, targetOf } from "./target";

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

describe("mine is like this", () => {
  const word = readings(scone).body.consistency;
  const others = consistencies.filter((other) => other !== word);
  test("a flour is learnt with which the same sheet reads as the bowl does, and moves no further than that needs", () => {
    const learnt = others.flatMap((other) => {
      const flour = learntFlour(other, scone);
      return flour ? [{ other, flour }] : [];
    });
    expect(learnt.length).toBeGreaterThan(0);
    for (const { other, flour } of learnt) {
      const shelf = shelfWith([flour.ingredient]);
      const lines = scone.lines.map((line) =>
        line.ingredientId === flour.from ? { ...line, ingredientId: flour.ingredient.id } : line,
      );
      expect(readings({ ...scone, lines }, shelf).body.consistency).toBe(other);
      expect(flour.factor).toBeGreaterThanOrEqual(flour.range.low - 0.01);
      expect(flour.factor).toBeLessThanOrEqual(flour.range.high + 0.01);
      // Stiffer than it reads is a thirstier flour.
      expect(flour.factor > 1).toBe(consistencies.indexOf(other) > consistencies.indexOf(word));
      expect(shelf.get(flour.from)).toBe(builtInShelf.get(flour.from));
    }
  });
  test("what reads so already teaches nothing, nor does what no mill's flour would do, nor a batter without flour", () => {
    expect(learntFlour(word, scone)).toBeNull();
    expect(learntFlour("pourable", scone)).toBeNull();
    expect(learntFlour("crumbly", { kind: "bar", lines: [{ ingredientId: "egg", grams: 100 }] })).toBeNull();
  });
  test("learnt again it takes the same place", () => {
    const [other] = others.filter((each) => learntFlour(each, scone));
    const first = learntFlour(other ?? "crumbly", scone);
    if (!first) throw new Error("Nothing was learnt.");
    const shelf = shelfWith([first.ingredient]);
    const lines = scone.lines.map((line) =>
      line.ingredientId === first.from ? { ...line, ingredientId: first.ingredient.id } : line,
    );
    const back = learntFlour(word, { ...scone, lines }, shelf);
    expect(back?.ingredient.id).toBe(first.ingredient.id);
    expect(back?.ingredient.name).toBe(first.ingredient.name);
  });
});
