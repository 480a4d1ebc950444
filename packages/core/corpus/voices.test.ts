import { readRecipe } from "../src/read";
import type { Measures } from "../src/measure/units";
import voices from "./voices.json";

/**
 * Recipes in other voices than a list, written before the reader was asked: a card, a stall, a worksheet, a bench sheet, a voice note, one breath,
 * columns, a table, German, a scan, a method, a chat. Of each it is known what it holds.
 */
const verdicts = (voices as unknown as { id: string; measures: Measures; text: string; holds: [string, number, number][] }[]).map(({ id, measures, text, holds }) => {
  const { lines, accounted = [] } = readRecipe(text, measures);
  const taken = lines.filter(({ role, grams }) => role === "ingredient" && grams !== null);
  return holds.map(([is, low, high]) => {
    const mine = taken.filter(({ ingredientId }) => ingredientId !== null && new RegExp(is).test(ingredientId));
    const right = mine.some(({ grams }) => grams !== null && grams.mid >= low && grams.mid <= high);
    const wrong = !right && mine.some(({ state }) => state === "read");
    return { id, is, right, wrong, told: accounted.length > 0, came: mine.map(({ grams }) => Math.round(grams?.mid ?? 0)) };
  });
}); // prettier-ignore

test("nearly everything that they hold is found with its mass, and next to nothing is wrong and certain", () => {
  const all = verdicts.flat();
  const missed = all.filter(({ right }) => !right);
  expect(all.length).toBeGreaterThan(75);
  expect(missed.map(({ id, is, came }) => `${id} ${is} ${came.join(" ")}`)).toEqual([]);
  expect(all.filter(({ wrong }) => wrong)).toEqual([]);
});
