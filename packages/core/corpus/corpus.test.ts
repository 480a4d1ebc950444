import { readRecipe } from "../src/read";
import facts from "./facts.json";
import { type FactCase, framed, judgeFacts, judgeLine, judgeRecipe, type LineCase, type RecipeCase } from "./judge";
import lines from "./lines.json";
import recipes from "./recipes.json";

/** Cases written from what bakers write and what kitchens weigh, not from what the reader gives. */
test.each((lines as unknown as LineCase[]).map((wanted) => [wanted.text, wanted] as const))("%s", (_, wanted) =>
  expect(judgeLine(wanted, readRecipe(framed(wanted.text), wanted.measures))).toBeNull(),
);
test.each((facts as unknown as FactCase[]).map((wanted) => [wanted.text, wanted] as const))("%s", (_, wanted) =>
  expect(judgeFacts(wanted, readRecipe(framed(wanted.text), wanted.measures))).toEqual([]),
);
test.each((recipes as unknown as RecipeCase[]).map((wanted) => [wanted.id, wanted] as const))("%s", (_, wanted) =>
  expect(judgeRecipe(wanted, readRecipe(wanted.text, wanted.measures))).toEqual([]),
);
