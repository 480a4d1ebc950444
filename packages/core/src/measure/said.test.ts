import { readRecipe } from "../read";

/** Things on one line under a known one, as "id grams" with "?" where it is asked and "@part" where it is none of the batter. */
const read = (line: string): string[] =>
  readRecipe(`Pier bake\n200 g teff flour\n100 g water\n${line}`, "us").lines
    .slice(3)
    .map(({ ingredientId, grams, state, component }) => `${ingredientId ?? "-"}${grams ? ` ${Math.round(grams.mid * 10) / 10}` : ""}${state === "read" ? "" : "?"}${component ? `@${component.replace(/-\d+$/, "")}` : ""}`); // prettier-ignore

// Masses by hand: a US teaspoon of soda 4.9 g here, of lime juice 5.1 g; a cup of pear purée 246 g.
test.each([
  // Who puts himself right has said it once.
  ["1 tsp baking soda - no, half a teaspoon", ["soda 2.4"]],
  ["2 tbsp lime juice, I mean 2 tsp lime juice", ["lime-juice 10.2"]],
  // The same by two measures, or by a count beside, is one amount.
  ["1 cup or 240 g pear puree", ["pear-puree 240"]],
  ["8 g or roughly two teaspoons baking powder", ["powder-aluminium-free 8"]],
  ["1 cup pear puree, about two medium pears", ["pear-puree 246.1"]],
  ["3 eggs, size M (53-63 g)", ["egg 174"]],
  // What goes in is what is left.
  ["1 x 340g tin sweetcorn (285g drained)", ["sweetcorn 285"]],
  ["a 680 g jar of sour cherries, drained weight 350 g", ["cherries 350"]],
  ["400 g tin chickpeas, drained (240 g)", ["chickpeas-cooked 240"]],
  ["1 can white beans, drained", ["cooked-beans 240"]],
  // Several of a thing, by what each holds.
  ["2 cartons coconut cream, 200 ml each", ["coconut-cream 388"]],
  ["4 sachets of instant coffee, 2 g each", ["espresso-powder 8"]],
  // Nothing of a list of names is passed over.
  ["baking powder, baking soda and salt", ["powder-aluminium-free?", "soda?", "salt?"]],
  ["a little bit of milk", ["whole-milk?"]],
  // What is shared out, and what the last of a row is.
  ["80 g each of millet, sorghum and teff flour", ["millet-flour 80", "sorghum-flour 80", "teff-flour 80"]],
  ["cinnamon 1 tsp ginger 1 tsp cloves ¼ tsp", ["cinnamon 2.7", "ginger-ground 1.9", "cloves 0.6"]],
  // A part on one line.
  ["Topping: 30 g pecans, 20 g sugar", ["pecans 30@topping", "white-sugar 20@topping"]],
  ["For the glaze: 50 g icing sugar", ["icing-sugar 50@glaze"]],
  // A broken word and another choice.
  ["120 ml rnilk", ["whole-milk 123.6?"]],
  ["half a cup of rice drink plus two teaspoons (or in place of the two teaspoons use two teaspoons of agave)", ["rice-milk 132"]],
])("%s", (line, things) => expect(read(line)).toEqual(things));
