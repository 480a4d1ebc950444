import { bareKitchen } from "../formula/bare-kitchen";
import { seeded } from "../random";
import { fractionOf, halvesOf, mayBeAmount } from "./closer";
import { type Corners, cornersOf, flattened, isPage, wholeOf } from "./flatten";
import { blank, cropped, type Gray, grayOf, parting, quarterTurned, shrunk, turned } from "./gray";
import { judgeOf } from "./judge";
import { evenlyLit } from "./light";
import { prepared, type RawWord, readPage, type Recogniser } from "./recognise";
import { liesOnItsSide, skewOf } from "./skew";

const filled = (picture: Gray, x0: number, y0: number, x1: number, y1: number, value = 0): Gray => {
  for (let y = y0; y < y1; y++) picture.data.fill(value, y * picture.width + x0, y * picture.width + x1);
  return picture;
};
/** A page of print: rows of dashes as words are long, in lines of 20 px. */
const print = (width = 600, height = 800): Gray => {
  const page = blank(width, height);
  const random = seeded(3);
  for (let y = 60; y < height - 60; y += 20)
    for (let x = 50; x < width - 90;) {
      const long = 10 + Math.floor(30 * random());
      filled(page, x, y, x + long, y + 8);
      x += long + 8;
    }
  return page;
};
const same = (a: Gray, b: Gray): number =>
  a.data.reduce((sum, value, k) => sum + Math.abs(value - (b.data[k] ?? 0)), 0) / a.data.length;

test("a colour is as light as the standard's weights say, and what is transparent is paper", () => {
  const { data } = grayOf({
    width: 4,
    height: 1,
    data: Uint8Array.from([255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 0, 0, 0, 0]),
  });
  expect([...data]).toEqual([76, 150, 29, 255]);
});

test("made smaller, a picture keeps its mean; four quarters bring it back; two quarters turn it about", () => {
  const page = print(400, 300);
  const mean = ({ data }: Gray): number => data.reduce((sum, value) => sum + value, 0) / data.length;
  expect(Math.abs(mean(shrunk(page, 100)) - mean(page))).toBeLessThan(1);
  expect(shrunk(page, 1000)).toBe(page);
  expect(quarterTurned(quarterTurned(page, 1), 3)).toEqual(page);
  expect(quarterTurned(page, 2)).toEqual(quarterTurned(quarterTurned(page, 1), 1));
  const corner = quarterTurned(filled(blank(3, 2), 0, 0, 1, 1), 1);
  expect([corner.width, corner.height, corner.data.indexOf(0)]).toEqual([2, 3, 1]);
});

test("what parts dark from light lies between two levels", () => {
  const level = parting(filled(blank(20, 20, 200), 0, 0, 20, 6, 40));
  expect(level).toBeGreaterThanOrEqual(40);
  expect(level).toBeLessThan(200);
});

test.each([-6.3, -2.5, -1, 0.8, 3.7])(
  "print that was turned by %d degrees is found to be, to a tenth, and lies level again",
  (degrees) => {
    expect(Math.abs(skewOf(turned(print(), degrees)) + degrees)).toBeLessThan(0.11);
  },
);

test("a page without lines is not turned; one on its side is told", () => {
  expect(skewOf(blank(300, 400))).toBe(0);
  expect(liesOnItsSide(print())).toBe(false);
  expect(liesOnItsSide(quarterTurned(print(), 1))).toBe(true);
  // A dark table around it is no print.
  const onTable = filled(blank(900, 1100, 60), 0, 0, 900, 1100, 60);
  const page = print();
  for (let y = 0; y < page.height; y++)
    onTable.data.set(page.data.subarray(y * page.width, (y + 1) * page.width), (y + 150) * 900 + 150);
  expect(liesOnItsSide(evenlyLit(onTable))).toBe(false);
});

const corners: Corners = [{ x: 60, y: 40 }, { x: 560, y: 75 }, { x: 590, y: 720 }, { x: 30, y: 690 }]; // prettier-ignore
const inside = (x: number, y: number): boolean =>
  corners.every((a, k) => {
    const b = corners[(k + 1) % 4] as (typeof corners)[0];
    return (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x) > 0;
  });

test("a light page on a dark table is found by its corners; a whole page, or one whose light ends in a shadow, is not cut", () => {
  const picture = blank(640, 760, 50);
  for (let y = 0; y < 760; y++) for (let x = 0; x < 640; x++) if (inside(x, y)) picture.data[y * 640 + x] = 230;
  const found = cornersOf(picture) as Corners;
  for (const [k, { x, y }] of found.entries())
    expect(Math.hypot(x - (corners[k]?.x ?? 0), y - (corners[k]?.y ?? 0))).toBeLessThan(9);
  expect(cornersOf(print())).toBeNull();
  const shadow = blank(640, 760);
  for (let k = 0; k < shadow.data.length; k++) shadow.data[k] = k % 640 > 400 ? 90 : 235;
  expect(cornersOf(shadow)).toBeNull();
});

test("made flat, a page is as it lay: straight lines, its own corners; the whole picture stays itself", () => {
  const page = print(300, 300);
  expect(same(flattened(page, wholeOf(page)), page)).toBeLessThan(0.5);
  // A cross from corner to corner meets in the middle of the flat page, as projections keep lines.
  const picture = blank(640, 760);
  const drawn = (a: { x: number; y: number }, b: { x: number; y: number }): void => {
    for (let t = 0; t <= 1; t += 0.0005) {
      const [x, y] = [Math.round(a.x + t * (b.x - a.x)), Math.round(a.y + t * (b.y - a.y))];
      filled(picture, x - 1, y - 1, x + 2, y + 2);
    }
  };
  drawn(corners[0], corners[2]);
  drawn(corners[1], corners[3]);
  const flat = flattened(picture, corners);
  for (const share of [0.2, 0.5, 0.8]) {
    const [x, y] = [Math.round(share * flat.width), Math.round(share * flat.height)];
    expect(Math.min(...cropped(flat, { x0: x - 3, y0: y - 3, x1: x + 4, y1: y + 4 }).data)).toBeLessThan(100);
  }
  expect(isPage([corners[0], corners[2], corners[1], corners[3]])).toBe(false);
  expect(() => flattened(picture, [corners[0], corners[2], corners[1], corners[3]])).toThrow("no page");
});

test("a shadow is taken out: print and paper are as without it", () => {
  const page = print();
  const shaded: Gray = {
    ...page,
    data: page.data.map((value, k) => Math.round((value === 0 ? 25 : 240) * (1 - (0.55 * (k % page.width)) / page.width))),
  };
  const lit = evenlyLit(shaded);
  const wrong = lit.data.filter((value, k) => value < 128 !== (page.data[k] ?? 0) < 128).length;
  expect(wrong / page.data.length).toBeLessThan(0.002);
});

/** Figures on a grid: # is ink, each sign 4 px. */
const drawn = (rows: string[]): Gray => {
  const scale = 4;
  const page = blank((rows[0] ?? "").length * scale, rows.length * scale);
  rows.forEach((row, y) =>
    [...row].forEach((sign, x) => sign === "#" && filled(page, x * scale, y * scale, (x + 1) * scale, (y + 1) * scale)),
  );
  return page;
};
const quarter = [
  ".#....#", //
  ".#...#.",
  ".#..#..",
  "...#...",
  "..#.#.#",
  ".#..###",
  "#.....#",
];

test("a fraction in one sign is known by its shape, alone and behind a figure; numbers and signs that are none are not", () => {
  expect(halvesOf(drawn(quarter), "%")?.before).toBe(0);
  const behind = quarter.map((row) => `##..${row}`);
  expect(halvesOf(drawn(behind), "1%")?.before).toBe(1);
  const fourteen = ["##..#.#", "##..#.#", "##..#.#", "##..###", "##....#", "##....#", "##....#"];
  expect(halvesOf(drawn(fourteen), "14")).toBeNull();
  expect(halvesOf(blank(30, 30), "%")).toBeNull();
  expect([fractionOf("1", "2"), fractionOf("17", "4"), fractionOf("3", "4"), fractionOf("0", "0"), fractionOf("2", "1")]).toEqual([
    "½",
    "¼",
    "¾",
    null,
    null,
  ]);
  expect(["1%", "V2", "½", "200", "%"].map(mayBeAmount)).toEqual([true, true, true, true, true]);
  expect(["flour", "buckwheat", "of"].map(mayBeAmount)).toEqual([false, false, false]);
});

const raw = (text: string, confidence: number, at = 0): RawWord => ({
  text,
  confidence,
  box: { x0: 60, y0: 60 + at, x1: 100, y1: 68 + at },
  symbols: [],
});
const reading = (pages: RawWord[][], again = ""): Recogniser & { asked: number } => ({
  asked: 0,
  page(): Promise<RawWord[]> {
    return Promise.resolve(pages[Math.min(this.asked++, pages.length - 1)] ?? []);
  },
  word: () => Promise.resolve({ text: again, confidence: 90 }),
  figure: () => Promise.resolve({ text: "", confidence: 0 }),
});

test("a page that is hardly read is tried upside down, and the better reading is taken; one that was set by hand is not", async () => {
  const [poor, good] = [
    [raw("xq", 20), raw("wz", 30)],
    [raw("flour", 95), raw("butter", 95)],
  ];
  const tried = await readPage(print(), {}, reading([poor, good]));
  expect([tried.words.map(({ text }) => text), tried.quarters]).toEqual([["flour", "butter"], 2]);
  const set = reading([poor, good]);
  expect((await readPage(print(), { quarters: 0, corners: null }, set)).words.map(({ text }) => text)).toEqual(["xq", "wz"]);
  expect(set.asked).toBe(1);
});

test("an amount is looked at twice: what differs is another reading and less sure; how far it is is told", async () => {
  const told: number[] = [];
  const { words } = await readPage(print(), {}, reading([[raw("250", 96), raw("flour", 96)]], "260"), (share) => told.push(share));
  expect(words[0]).toMatchObject({ text: "250", confidence: 90, others: [{ text: "260", worth: 0.9 }] });
  expect(words[1]?.others).toBeUndefined();
  expect(told.every((share, k) => k === 0 || share >= (told[k - 1] ?? 0))).toBe(true);
  const agreed = await readPage(print(), {}, reading([[raw("250", 96)]], "250"));
  expect(agreed.words[0]).toEqual({ text: "250", box: raw("250", 96).box, confidence: 96 });
});

test("a page is turned, level and evenly lit before it is read", () => {
  const onSide = quarterTurned(turned(print(), 2), 1);
  const { picture, corners: found, quarters } = prepared(onSide, {});
  expect([found, quarters]).toEqual([null, 1]);
  expect(Math.abs(skewOf(picture))).toBeLessThanOrEqual(0.1);
});

test("the judge likes a known food with its amount best, and says what is weighed", () => {
  const judge = judgeOf("en", bareKitchen.shelf);
  const [flour, odd, none] = ["200 g buckwheat flour", "200 g bvckqheat f1our", "Serve warm."].map(judge);
  expect(flour?.worth).toBe(1);
  expect(flour?.says).toContain("buckwheat");
  expect(odd?.worth).toBeLessThan(1);
  expect(none?.worth).toBeLessThan(1);
  expect(judge("200 g buckwheat flour")).toBe(flour);
});
