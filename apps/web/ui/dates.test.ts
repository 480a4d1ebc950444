import fc from "fast-check";
import {
  ago,
  dayOfYear,
  dayOfYearClock,
  daysLater,
  isoDay,
  isoWithOffset,
  longDay,
  longDayClock,
  monthDayClock,
  shortDay,
  shortDayClock,
} from "./dates";

const at = new Date(2026, 10, 29, 4, 5, 9);

test("days and times as one writes them", () => {
  expect([shortDay(at), shortDayClock(at), dayOfYear(at), dayOfYearClock(at)]).toEqual([
    "29 Nov",
    "29 Nov, 04:05",
    "29 Nov 2026",
    "29 Nov 2026, 04:05",
  ]);
  expect([longDay(at), longDayClock(at), monthDayClock(at)]).toEqual([
    "Sunday 29 November",
    "Sunday 29 November, 04:05",
    "29 November, 04:05",
  ]);
  expect(shortDay(new Date(2026, 8, 3))).toBe("3 Sep");
});

test("a moment with its offset is that moment, and a day later is the same clock", () => {
  fc.assert(
    fc.property(
      fc.date({ min: new Date(2000, 0, 1), max: new Date(2100, 0, 1), noInvalidDate: true }),
      fc.integer({ min: -400, max: 400 }),
      (day, n) => {
        day.setMilliseconds(0);
        expect(Date.parse(isoWithOffset(day))).toBe(day.getTime());
        expect(isoDay(day)).toMatch(/^\d{4}-\d\d-\d\d$/);
        const then = daysLater(day, n);
        // A day on which the clock is put forward may have no such hour.
        expect(Math.abs(then.getTime() - day.getTime() - n * 86_400_000)).toBeLessThanOrEqual(3_600_000 * 2);
      },
    ),
  );
});

test("how long ago, in the largest unit that fits", () => {
  const before = (seconds: number): string => ago(new Date(at.getTime() - 1000 * seconds), at);
  expect([before(5), before(60), before(3600), before(2 * 86_400), before(70 * 86_400)]).toEqual([
    "5 seconds ago",
    "1 minute ago",
    "1 hour ago",
    "2 days ago",
    "2 months ago",
  ]);
});
