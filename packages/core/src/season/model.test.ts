import { normalFrom, seeded } from "../random";
import { leftOut, learn, mixed, normalBelow, type Told } from "./gaussian";
import { expectedGain } from "./next-bake";
import { usualRange } from "./usual";
import { likedBy, likingsOf } from "./preference";

const doubt = { offset: 2, slope: 1, bend: 0.6, noise: 0.8 };

test("shares under the normal are those of the tables", () => {
  for (const [z, share] of [[0, 0.5], [1, 0.841345], [1.6449, 0.95], [-1.96, 0.024998], [3, 0.99865]] as const) expect(normalBelow(z)).toBeCloseTo(share, 5); // prettier-ignore
  const one = mixed([{ weight: 1, mean: 3, variance: 4 }]);
  expect(one.low).toBeCloseTo(3 - 2 * 1.6449, 2);
  expect(one.high).toBeCloseTo(3 + 2 * 1.6449, 2);
});

test("with nothing baked nothing is known: no mean, and the whole doubt", () => {
  const { mean, low, high } = learn([], doubt).at([0.5], 0);
  expect(mean).toBeCloseTo(0, 9);
  expect(-low).toBeCloseTo(high, 6);
  expect(high).toBeGreaterThan(1.6 * doubt.offset);
});

test("many bakes of one truth are found back: a slope, and by how much single bakes scatter", () => {
  const random = seeded(3);
  const normal = normalFrom(random);
  const told = Array.from({ length: 36 }, (_, k): Told => {
    const x = [2 * random() - 1, 2 * random() - 1];
    return { x, z: 0, y: 1.5 + 1.2 * (x[0] ?? 0) - 0.4 * (x[1] ?? 0) + 0.5 * normal(), block: String(k) };
  });
  const known = learn(told, doubt);
  const rise = known.between({ x: [-1, 0], z: 0 }, { x: [1, 0], z: 0 });
  // Least squares on the same bakes, by the normal equations of one centred column: the second one is drawn apart from it.
  const [mx, my] = [0, 1].map((k) => told.reduce((sum, { x, y }) => sum + (k === 0 ? (x[0] ?? 0) : y), 0) / told.length) as [
    number,
    number,
  ];
  const slope =
    told.reduce((sum, { x, y }) => sum + ((x[0] ?? 0) - mx) * (y - my), 0) /
    told.reduce((sum, { x }) => sum + ((x[0] ?? 0) - mx) ** 2, 0);
  expect(Math.abs(rise.mean - 2 * slope)).toBeLessThan(0.3);
  expect(rise.high - rise.low).toBeLessThan(2);
  expect(Math.abs(known.at([0, 0], 0).mean - 1.5)).toBeLessThan(0.5);
  // Nothing is known of the far end that was not known of the middle.
  expect(known.at([1, 1], 0).sd).toBeGreaterThan(known.at([0, 0], 0).sd);
});

test("a shift of the whole day is not taken for an effect of what was baked on it", () => {
  const day = (block: string, shift: number, xs: readonly number[]): Told[] => xs.map((x) => ({ x: [x], z: 0, y: shift, block }));
  const shared = learn([...day("a", 0, [-1, -0.9, -1]), ...day("b", 1, [1, 0.9, 1])], doubt).between({ x: [-1], z: 0 }, { x: [1], z: 0 }); // prettier-ignore
  const apart = learn([...day("a", 0, [-1, -0.9, -1]), ...day("b", 1, [1, 0.9, 1])].map((one, k) => ({ ...one, block: String(k) })), doubt).between({ x: [-1], z: 0 }, { x: [1], z: 0 }); // prettier-ignore
  expect(shared.high - shared.low).toBeGreaterThan(apart.high - apart.low);
  expect(shared.low).toBeLessThan(0);
});

test("ranges of 90 % hold nine of ten, in kitchens of planes and squares and when each bake is left out in turn", () => {
  const random = seeded(17);
  const normal = normalFrom(random);
  let [inside, asked, within, of] = [0, 0, 0, 0];
  for (let kitchen = 0; kitchen < 60; kitchen++) {
    const [offset, a, b, c] = [2 * normal(), normal(), normal(), 0.5 * normal()];
    const truth = (x: readonly number[]): number => offset + a * (x[0] ?? 0) + b * (x[1] ?? 0) + c * (x[0] ?? 0) ** 2;
    const told = Array.from({ length: 7 }, (_, k): Told => {
      const x = [2 * random() - 1, 2 * random() - 1];
      return { x, z: 0, y: truth(x) + 0.8 * normal(), block: String(k) };
    });
    const known = learn(told, doubt);
    for (const x of [[-1, -1], [0, 0], [1, -1], [0.5, 1]]) {
      const { low, high } = known.at(x, 0);
      asked++;
      if (truth(x) >= low && truth(x) <= high) inside++;
    }
    const checked = leftOut(told, doubt);
    within += checked.within;
    of += checked.of;
  }
  expect(inside / asked).toBeGreaterThan(0.85);
  expect(inside / asked).toBeLessThan(0.98);
  expect(within / of).toBeGreaterThan(0.85);
}); // prettier-ignore

test("what another bake may gain is the mean of what it gains in ten thousand draws", () => {
  const normal = normalFrom(seeded(8));
  for (const [mean, sd, had] of [[1, 2, 2], [0, 1, 0], [3, 0.5, 1]] as const) {
    let sum = 0;
    for (let k = 0; k < 40_000; k++) sum += Math.max(0, mean + sd * normal() - had);
    expect(Math.abs(sum / 40_000 - expectedGain(mean, sd, had))).toBeLessThan(0.03 * sd);
  }
  expect(expectedGain(1, 0, 2)).toBe(0);
}); // prettier-ignore

test("liking is the mode of its posterior: no step in any direction betters it; twice as many tasters say it more firmly", () => {
  const prior = [[1, 0.3, 0], [0.3, 1, 0.3], [0, 0.3, 1]]; // prettier-ignore
  const likings = [...Array.from({ length: 6 }, () => ({ more: 2, less: 0 })), { more: 0, less: 2 }, { more: 1, less: 0 }, { more: 2, less: 1 }];
  const { mean, covariance } = likedBy(likings, prior);
  // The inverse of the prior by hand: det = 1 − 2·0.09 = 0.82.
  const precision = [[0.91, -0.3, 0.09], [-0.3, 1, -0.3], [0.09, -0.3, 0.91]].map((row) => row.map((value) => value / 0.82)); // prettier-ignore
  const posterior = (f: readonly number[]): number =>
    likings.reduce((sum, { more, less }) => sum + Math.log(normalBelow(((f[more] ?? 0) - (f[less] ?? 0)) / Math.SQRT2)), 0) -
    f.reduce((sum, a, i) => sum + f.reduce((row, b, j) => row + (a * b * (precision[i]?.[j] ?? 0)) / 2, 0), 0);
  for (let k = 0; k < 3; k++)
    for (const by of [-0.05, 0.05]) expect(posterior(mean.map((value, j) => (j === k ? value + by : value)))).toBeLessThan(posterior(mean));
  expect(mean[2]).toBeGreaterThan(mean[1] ?? 0);
  expect(mean[1]).toBeGreaterThan(mean[0] ?? 0);
  const twice = likedBy([...likings, ...likings], prior);
  expect((twice.mean[2] ?? 0) - (twice.mean[0] ?? 0)).toBeGreaterThan((mean[2] ?? 0) - (mean[0] ?? 0));
  expect(twice.covariance[2]?.[2] ?? 9).toBeLessThan(covariance[2]?.[2] ?? 0);
}); // prettier-ignore

test("scores of one taster are comparisons of two; equal and missing ones say nothing", () => {
  expect(likingsOf([7, 5, 5, null], [0, 1, 2, 3])).toEqual([{ more: 0, less: 1 }, { more: 0, less: 2 }]); // prettier-ignore
});

test("what is proposed to move is around what it is now, in amounts that a scale shows, and a share stays a share", () => {
  expect(usualRange("amount", 122)).toEqual({ low: 104, high: 140 });
  expect(usualRange("amount", 2.4)).toEqual({ low: 2, high: 2.8 });
  expect(usualRange("share", 95)).toEqual({ low: 83, high: 100 });
  expect(usualRange("oven", 175)).toEqual({ low: 165, high: 185 });
  expect(usualRange("rest", 0)).toEqual({ low: 0, high: 30 });
});
