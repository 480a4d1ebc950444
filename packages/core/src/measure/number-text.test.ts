import fc from "fast-check";
import { readNumber } from "./number-text";

test.each([
  ["23", "mm", 23],
  ["23 cm", "mm", 230],
  ["9 in", "mm", 228.6],
  ['9½"', "mm", 241.3],
  ["2,5", "min", 2.5],
  ["1 1/2 h", "min", 90],
  ["¾ hour", "min", 45],
  ["-8", "K", -8],
  ["−8 °C", "K", -8],
  ["190 °C", "°C", 190],
  ["12,5 %", "%", 12.5],
  ["1.5 kg", "g", 1500],
  ["2 l", "mL", 2000],
  ["12", "", 12],
] as const)("%s in %s is %d", (text, unit, value) => expect(readNumber(text, unit)?.value).toBeCloseTo(value, 6));

test.each([
  ["hot", "°C"],
  ["", "g"],
  ["12 cups", "mm"],
  ["3-4", "min"],
  ["a few", ""],
  ["half", "mm"],
  ["12 g", "mm"],
] as const)("%j in %s is none", (text, unit) => expect(readNumber(text, unit)).toBeNull());

test("350 °F stays 350 °F there and back", () => {
  const read = readNumber("350 F", "°C");
  expect(read).toEqual({ value: expect.closeTo(176.667, 2) as number, fahrenheit: true });
  expect(Math.round(((read?.value ?? 0) * 9) / 5 + 32)).toBe(350);
});

test("any number written out is read as itself, with point or comma", () => {
  fc.assert(
    fc.property(fc.integer({ min: -99_999, max: 99_999 }), (n) => {
      const text = String(n / 10);
      expect(readNumber(text, "g")?.value).toBeCloseTo(n / 10, 9);
      expect(readNumber(text.replace(".", ","), "g")?.value).toBeCloseTo(n / 10, 9);
    }),
  );
});
