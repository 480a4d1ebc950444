import fc from "fast-check";
import { blank, type Gray } from "./gray";
import { missedBefore } from "./missed";
import type { Box } from "./words";

const inked = (picture: Gray, { x0, y0, x1, y1 }: Box): Gray => {
  for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) picture.data[y * picture.width + x] = 0;
  return picture;
};
const box = (x0: number, x1: number, y0 = 40, y1 = 70): Box => ({ x0, x1, y0, y1 });
const words = [{ box: box(120, 200) }, { box: box(212, 300) }];
const page = (...ink: Box[]): Gray => ink.reduce(inked, blank(400, 120));

test("what stands before a word and was read as none is found where it stands", () => {
  expect(missedBefore(page(box(80, 104), ...words.map((one) => one.box)), words)).toEqual([box(80, 104)]);
});

test("two figures and a slash are one sign", () => {
  const fraction = [box(80, 90, 40, 54), box(94, 104, 56, 70), box(90, 94, 44, 68)];
  expect(missedBefore(page(...fraction), words)).toEqual([{ x0: 80, x1: 104, y0: 40, y1: 70 }]);
});

test.each<[string, Box[]]>([
  ["nothing", []],
  ["a bullet", [box(90, 98, 52, 60)]],
  ["a dash", [box(84, 104, 54, 57)]],
  ["a rule that runs past the line", [box(96, 99, 0, 120)]],
  ["what was read as a word already", [box(120, 200)]],
  ["a drawing", [box(20, 110, 30, 80)]],
  ["a blot in the usual gap of two words", [box(202, 210, 45, 68)]],
])("%s is none", (_, ink) => expect(missedBefore(page(...ink), words)).toEqual([]));

test("whatever is on the page, what is found lies in it, before a word, in no word", () => {
  const any = fc.record({ x: fc.integer({ min: 0, max: 360 }), y: fc.integer({ min: 0, max: 90 }), w: fc.integer({ min: 1, max: 60 }), h: fc.integer({ min: 1, max: 40 }) }); // prettier-ignore
  fc.assert(
    fc.property(fc.array(any, { maxLength: 6 }), (blots) => {
      const drawn = page(...blots.map(({ x, y, w, h }) => ({ x0: x, x1: Math.min(400, x + w), y0: y, y1: Math.min(120, y + h) })));
      for (const { x0, x1, y0, y1 } of missedBefore(drawn, words)) {
        expect([x0 >= 0, y0 >= 0, x1 <= 400, y1 <= 120]).toEqual([true, true, true, true]);
        expect(words.some((one) => x0 < one.box.x1 && x1 > one.box.x0 && y0 < one.box.y1 && y1 > one.box.y0)).toBe(false);
      }
    }),
    { numRuns: 60 },
  );
});
