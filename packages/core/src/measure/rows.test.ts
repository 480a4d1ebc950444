import { readRecipe } from "../read";
import { amountFirst, asRows } from "./rows";
import { sharesOf } from "./shares";

const gramsOf = (text: string): [string | null, number][] =>
  readRecipe(text, "metric").lines.flatMap(({ ingredientId, grams }) => (grams ? [[ingredientId, Math.round(grams.mid)]] : []));

test("rows of a file become those of a table, sign for sign; a list with commas is none", () => {
  const file = "ingredient;amount;unit\nteff flour;200;g\npotato starch;60;g\nsalt;4;g";
  expect(asRows(file)).toBe(file.replaceAll(";", "|"));
  expect(asRows(file.replaceAll(";", ","))).toBe(file.replaceAll(";", "|"));
  expect(asRows('"teff flour","200","g"\n"potato starch","60","g"\n"salt","4","g"')).toBe(
    " teff flour | 200 | g \n potato starch | 60 | g \n salt | 4 | g ",
  );
  const list = "200 g teff flour, sifted\n2 eggs, beaten\n100 g butter, soft, diced";
  expect(asRows(list)).toBe(list);
  const wanted = [["teff-flour", 200], ["potato-starch", 60], ["salt", 4]]; // prettier-ignore
  expect(gramsOf(file)).toEqual(wanted);
  expect(gramsOf(file.replaceAll(";", ","))).toEqual(wanted);
});

test("a unit before its number stands behind the name in some kitchens", () => {
  expect(amountFirst("farina di riso g 150")).toBe("150 g farina di riso");
  expect(amountFirst("uova n. 2")).toBe("2 uova");
  expect(amountFirst("latte ml 125, tiepido")).toBe("125 ml latte, tiepido");
  // A run of blanks is no name, and is passed over in a time that grows with its length: this took a minute once.
  const blanks = `latte,${" ".repeat(100_000)}(2 ml)`;
  expect(amountFirst(blanks)).toBe(blanks);
  for (const other of ["200 g teff flour", "Bake at gas 4", "Oven 180 C", "teff flour 200 g", "Serves 4"]) expect(amountFirst(other)).toBe(other); // prettier-ignore
});

describe("shares of the flour", () => {
  const sheet = "Teff 60%\nSorghum flour 40%\nWater 95%\nSalt 1.8%\nBaking powder 4,5 %";
  test.each([
    ["Total flour 500 g", 5],
    ["Flour weight: 0.5 kg", 5],
    ["500 g flour", 5],
    ["100 % = 500 g", 5],
    ["Scale 900 g", 900 / 201.3],
    ["Batter 2 kg", 2000 / 201.3],
  ])("“%s” says what a per cent is", (said, gramsPerPercent) => {
    expect(sharesOf(`${sheet}\n${said}`)?.gramsPerPercent).toBeCloseTo(gramsPerPercent, 6);
  });
  test("by hand: 500 g of flour, so 300, 200, 475, 9 and 22.5; nothing is asked of their amounts, and the flour is no line of its own", () => {
    expect(gramsOf(`${sheet}\nTotal flour 500 g`)).toEqual([["teff-flour", 300], ["sorghum-flour", 200], ["water", 475], ["salt", 9], ["powder-aluminium-free", 23]]); // prettier-ignore
  });
  test("a sheet that says it is of bakers' percentages needs no sign behind its figures, and several may stand in a row", () => {
    const signless = "Bakers % - tin loaf\nteff 60, sorghum 40 (flour 500 g)\nwater 95\nsalt 1.8\nbaking powder 4.5";
    expect(gramsOf(signless)).toEqual([["teff-flour", 300], ["sorghum-flour", 200], ["water", 475], ["salt", 9], ["powder-aluminium-free", 23]]); // prettier-ignore
    // What a bracket says of a thing stays with it: oat milk is no milk.
    expect(gramsOf("Teff 60%\nSorghum 40%\nMilk (oat) 90%\nSalt 2%\nFlour 500 g")[2]).toEqual(["oat-milk", 450]);
    // Without those words they are figures that nobody has explained.
    expect(sharesOf(signless.replace("Bakers % - ", ""))).toBeNull();
  });
  test("without a mass they are asked, and three of them are no sheet", () => {
    expect(sharesOf(sheet)).toBeNull();
    expect(readRecipe(sheet, "metric").questions.length).toBeGreaterThanOrEqual(5);
    expect(sharesOf("Teff 60%\nWater 95%\nSalt 2%\nTotal flour 500 g")).toBeNull();
  });
});
