import { readProcess } from "./process-text";

const minutes = (low: number, high = low) => ({ minutes: { low, high } });
const cold = { minutes: null };

test.each<[string, unknown]>([
  ["Leave in the tin 20 minutes.", minutes(20)],
  ["Cool in the tin for 10 minutes, then wait 2 hours before slicing.", minutes(10)],
  ["Let it stand in its pan for 5-10 min, then turn out onto a wire rack.", minutes(5, 10)],
  ["Turn out after 5 minutes.", minutes(5)],
  ["Leave it 10 minutes before turning it out.", minutes(10)],
  ["Let the muffins sit in the cups for a quarter of an hour.", minutes(15)],
  ["Cool 15 minutes, turn out, and leave 1 hour on the rack.", minutes(15)],
  ["Leave to cool completely in the tin.", cold],
  ["Cool in the tin before slicing.", cold],
  ["Leave to cool in the tin.", cold],
])("%s is time in the tin", (text, tin) => expect(readProcess(["Bake for 40 minutes at 180°C.", text]).tin).toEqual(tin));

test.each([
  "Let the batter rest in the tin for 10 minutes.",
  "Bake in the tin for 40 minutes.",
  "Cool slightly in the tin.",
  "Cool on a wire rack for 30 minutes.",
  "Leave in the turned-off oven for 10 minutes.",
  "Keeps in a tin for 3 days.",
  "Leave in the tin a few minutes.",
  "Bake 25 minutes, then turn out.",
  "Leave to rise in the tin for 40 minutes.",
  "Keep in a tin somewhere cold.",
  "Leave in the tin in the fridge for 2 hours.",
])("%s is none", (text) => expect(readProcess([text]).tin).toBeUndefined());

test("what waits in the tin after the oven is no rest of the batter", () => {
  const { rests, tin } = readProcess([
    "Stand the batter 15 minutes.",
    "Bake 30 minutes at 180°C.",
    "Stand in the tin for 20 minutes.",
  ]);
  expect(rests.map((rest) => rest.minutes)).toEqual([{ low: 15, high: 15 }]);
  expect(tin).toEqual(minutes(20));
});
