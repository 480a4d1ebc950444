import { readProcess } from "./process-text";

const of = (...lines: string[]) => readProcess(lines);

test.each([
  ["Rub the butter into the flour.", "cut-in"],
  ["Cut in the cold lard until it looks like crumbs.", "cut-in"],
  ["Cream the butter with the sugar until pale.", "creaming"],
  ["Whisk the eggs and sugar until thick and pale.", "whisked"],
  ["Pour the wet into the dry and fold.", "muffin"],
  ["Put everything in one bowl and stir.", "one-bowl"],
  ["Blitz everything in a food processor.", "blender"],
] as const)("%s is %s", (text, method) => expect(of(text).method).toBe(method));

test("a rest is of the batter, a soak is of what lies in a liquid, and what cools after the bake is neither", () => {
  expect(of("Let the batter stand for 20 minutes.").rests).toEqual([{ minutes: { low: 20, high: 20 }, of: "batter" }]);
  expect(of("Chill the dough for an hour.").rests).toEqual([{ minutes: { low: 60, high: 60 }, of: "dough", place: "fridge" }]);
  expect(of("Leave the dough overnight in the fridge.").rests).toMatchObject([
    { minutes: { low: 480, high: 720 }, place: "fridge" },
  ]);
  expect(of("Soak the raisins in the tea for 2 hours.")).toMatchObject({
    rests: [],
    soaks: [{ minutes: { low: 120, high: 120 }, of: "raisins" }],
  });
  expect(of("Stir the oats into the buttermilk and leave for 30 minutes.").soaks).toMatchObject([{ of: "oats" }]);
  for (const text of [
    "Cool in the tin for 10 minutes.",
    "Leave in the tin 5 minutes, then turn out on a rack.",
    "Bake 40 minutes at 180 °C.",
    "Whisk for 5 minutes.",
    "Bake at once – do not let the batter stand 20 minutes.",
    "Take the butter out 30 minutes before.",
  ])
    expect([text, of(text)]).toEqual([text, expect.objectContaining({ rests: [], soaks: [] })]);
});

test("the shape is what is done to the dough, in millimetres and grams", () => {
  expect(of("Roll it 2.5 cm thick, stamp out 8 rounds of 6 cm.").shape).toEqual({ thicknessMm: 25, count: 8, diameterMm: 60, cut: "rounds" });
  expect(of("Shape six buns of about 100 g.").shape).toEqual({ count: 6, pieceG: 100 });
  expect(of("Pat out 1 inch thick and cut into 8 wedges.").shape).toEqual({ thicknessMm: 25.4, count: 8, cut: "wedges" });
  expect(of("Bake in a 23 x 13 cm tin.").shape).toBeUndefined();
  expect(of("Bake in an 18 cm round tin.").shape).toBeUndefined();
}); // prettier-ignore
