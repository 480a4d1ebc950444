import { readFileSync } from "node:fs";
import { join } from "node:path";
import { readings } from "../src/balance/analyse";
import { findingIds, findingLimits } from "../src/balance/finding";
import { fillVessel } from "../src/bake/geometry";
import { catalogue, shelfWith } from "../src/pantry/catalogue";
import { type Ingredient, ingredientSchema } from "../src/pantry/ingredient-schema";
import { vesselLibrary, type NamedVessel } from "../src/pantry/vessel";
import { vesselSchema } from "../src/pantry/vessel-schema";
import { readRecipe } from "../src/read";

/** Follows the examples of CONTRIBUTING.md, so that the page stays true. */
const root = join(__dirname, "../../..");
const page = readFileSync(join(root, "CONTRIBUTING.md"), "utf8");
const part = (title: string): string => page.split(`## ${title}`)[1]?.split("\n## ")[0] ?? "";
const example = <T>(title: string): T => JSON.parse(/```json\n([\s\S]*?)```/.exec(part(title))?.[1] ?? "null") as T;

test("the ingredient of the page passes the schema, adds up, is read from text and is analysed", () => {
  const kelp = ingredientSchema.parse(example("Add an ingredient")) as Ingredient;
  expect(Math.abs(Object.values(kelp.per100g).reduce((all, x) => all + x, 0) - 100)).toBeLessThanOrEqual(3);
  expect(catalogue.some(({ id }) => id === kelp.id)).toBe(false);
  const shelf = shelfWith([kelp]);
  const reading = readRecipe("Pier bake\n200 g ground kelp\n230 g water", "metric", undefined, shelf);
  expect(reading.lines[1]).toMatchObject({ ingredientId: "kelp-flour", grams: { mid: 200 } });
  const lines = [
    { ingredientId: kelp.id, grams: 200 },
    { ingredientId: "water", grams: 400 },
    { ingredientId: "egg", grams: 100 },
  ];
  expect(readings({ lines, kind: "loaf" }, shelf).batch.flourG).toBeCloseTo(200, 9);
});

test("the line of the page is a case of the corpus and is read as it says", () => {
  const line = example<{ text: string; measures: "us"; expect: { grams: [number, number] }[] }>("Add a form of speech");
  const [low, high] = line.expect[0]?.grams ?? [0, 0];
  const grams = readRecipe(`Pier bake\n${line.text}`, line.measures).lines[1]?.grams?.mid ?? 0;
  expect(grams).toBeGreaterThanOrEqual(low);
  expect(grams).toBeLessThanOrEqual(high);
});

test("the vessel of the page passes the schema and holds what its measures say", () => {
  const { id, vessel } = example<NamedVessel>("Add a vessel");
  expect(vesselLibrary.some((entry) => entry.id === id)).toBe(false);
  const { capacityMl } = fillVessel(vesselSchema.parse(vessel), 100, 1);
  expect(capacityMl).toBeGreaterThan((185 * 85 * 65) / 1000);
  expect(capacityMl).toBeLessThan((200 * 100 * 65) / 1000);
});

test("the places that the page names for a finding are there", () => {
  expect(findingIds.length).toBeGreaterThan(15);
  expect(Object.keys(findingLimits).length).toBeGreaterThan(5);
});

test.each([...page.matchAll(/`((?:packages|apps|scripts|docs)\/[\w./-]+\.(?:ts|tsx|json|md))`/g)].map((match) => match[1] ?? ""))(
  "%s is where the page says it is",
  (path) => expect(readFileSync(join(root, path), "utf8").length).toBeGreaterThan(0),
);
