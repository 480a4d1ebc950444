import fc from "fast-check";
import { capital, minuteSpan } from "./list-words";

test("a range of minutes: whole ones, halves under ten, one number where both are alike", () => {
  expect(minuteSpan({ low: 55.4, high: 64.6 })).toBe("55–65");
  expect(minuteSpan({ low: 3.56, high: 4.5 })).toBe("3.5–4.5");
  expect(minuteSpan({ low: 9.4, high: 10.2 }, " to ")).toBe("9 to 10");
  expect(minuteSpan({ low: 4.1, high: 4.2 })).toBe("4");
});

test("what it tells is no further than half a minute from what is meant, and never the wrong way round", () => {
  fc.assert(
    fc.property(fc.double({ min: 0.5, max: 200, noNaN: true }), fc.double({ min: 0, max: 30, noNaN: true }), (low, wide) => {
      const [from = NaN, to = from] = minuteSpan({ low, high: low + wide })
        .split("–")
        .map(Number);
      const off = low + wide < 10 ? 0.25 : 0.5;
      expect(Math.abs(from - low)).toBeLessThanOrEqual(off + 1e-9);
      expect(Math.abs(to - low - wide)).toBeLessThanOrEqual(off + 1e-9);
      expect(to).toBeGreaterThanOrEqual(from);
    }),
  );
});

test("a sentence begins large, whatever its letters", () => {
  expect(["a scone", "épinards", "3 g of soda", ""].map(capital)).toEqual(["A scone", "Épinards", "3 g of soda", ""]);
});
