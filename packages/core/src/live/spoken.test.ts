import { spokenWords } from "./spoken";

test("a step is said as one says it", () => {
  expect(spokenWords("Whisk 193 g oat flour; 2.4 g soda")).toBe("Whisk 193 grams oat flour, 2 point 4 grams soda");
  expect(spokenWords("Into the oven: 63–77 min, 94 °C inside")).toBe("Into the oven: 63 to 77 minutes, 94 degrees inside");
  expect(spokenWords("Let it stand 1 min")).toBe("Let it stand 1 minute");
});
