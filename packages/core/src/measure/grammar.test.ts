import { measuresAt, type Term } from "./grammar/amounts";
import { span } from "./grammar/numbers";
import { plainText, tokensOf } from "./grammar/tokens";

const termsOf = (text: string): Term[][] => measuresAt(tokensOf(plainText(text)), 0)?.value ?? [];
const told = (text: string): string =>
  termsOf(text)
    .map((measure) => measure.map(({ sign, quantity, unit }) => `${sign * Math.round(quantity.mid * 1000)}m ${unit}`).join(" "))
    .join(" | ");

test.each([
  ["1 lb 4 oz", "1000m lb 4000m oz"],
  ["1 cup plus 2 tbsp", "1000m cup 2000m tbsp"],
  ["1 cup less 1 tbsp", "1000m cup -1000m tbsp"],
  ["240g/8½oz/2 cups", "240000m g | 8500m oz | 2000m cup"],
  ["60 ml = 4 tbsp", "60000m ml | 4000m tbsp"],
  ["2 x 400 g tins", "800000m g"],
  ["a 150 g pot", "150000m g"],
  ["1 (14-oz) can", "14000m oz"],
  ["a cup and a half", "1500m cup"],
  ["half a dozen", "6000m piece"],
  ["1.200 g", "1200000m g"],
  ["0,25 kg", "250m kg"],
  ["a fourth of a cup", "250m cup"],
  ["a drop", "1000m splash"],
  ["3 drops", "3000m drop"],
])("%s is %s", (text, want) => expect(told(text)).toBe(want));

test.each([
  ["a heaped tsp", "heaped"],
  ["1 scant cup", "scant"],
  ["just under 1 cup", "scant"],
  ["2 cups firmly packed", "packed"],
  ["1 cup spooned and levelled", "spooned"],
  ["a generous cup", "rounded"],
])("%s is filled %s", (text, filling) => expect(termsOf(text)[0]?.[0]?.filling).toBe(filling));

test.each([
  ["2 large", "large"],
  ["1 extra-large", "extra-large"],
  ["3 medium-sized", "medium"],
  ["a small", "small"],
])("%s is of that size", (text, size) => expect(termsOf(text)[0]?.[0]).toMatchObject({ unit: "piece", size }));

test.each([
  ["2-3", 2, 3],
  ["two or three", 2, 3],
  ["between 4 and 6", 4, 6],
  ["a few", 2, 4],
  ["1½ to 2", 1.5, 2],
  ["a hundred and eighty", 180, 180],
  ["three-fifty", 350, 350],
  ["forty-five", 45, 45],
])("%s is from %d to %d", (text, low, high) => expect(span(tokensOf(plainText(text)), 0)?.value).toMatchObject({ low, high }));

test.each(["flour", "of", "1/0", "oz", "-", "()"])("“%s” is no amount", (text) => expect(measuresAt(tokensOf(text), 0)).toBeNull());
