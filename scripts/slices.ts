/**
 * How far the reading of a cut face is off on made-up slices of known truth: pores of several sizes and numbers, a slope of light, noise, a dense band
 * along the base in every second one.
 */
import { madeSlice, readCutFace, seeded } from "@uprise/core";

const WIDTH_MM = 280;
const rows = [2, 3, 4, 6, 9].flatMap((radius) =>
  [0.06, 0.15, 0.25].flatMap((porosity) =>
    [0, 45].map((band) => {
      const pores = Math.max(8, Math.round((porosity * 280 * (180 - band)) / (Math.PI * radius ** 2)));
      const { picture, porosity: truth, count } = madeSlice(seeded(radius * 100 + pores + band), { pores, radius, band });
      const result = readCutFace(picture, WIDTH_MM);
      if (!result.ok) throw new Error(result.why);
      const { face } = result;
      return { radius, truth, porosity: face.porosity - truth, count: face.pores / count - 1, height: (face.heights[2] ?? 0) / 180 - 1, band: band > 0, found: face.band !== null };
    }),
  ),
); // prettier-ignore
const mean = (values: number[]): number => values.reduce((sum, value) => sum + Math.abs(value), 0) / values.length;
console.log("radius px   porosity  error   pores error   height error   band (is, found)");
for (const { radius, truth, porosity, count, height, band, found } of rows)
  console.log(`${String(radius).padStart(6)}     ${(100 * truth).toFixed(1).padStart(6)} % ${(100 * porosity).toFixed(1).padStart(5)}   ${(100 * count).toFixed(0).padStart(6)} %      ${(100 * height).toFixed(1).padStart(6)} %     ${band ? "yes" : "no"}, ${found ? "yes" : "no"}`); // prettier-ignore
console.log(`mean error: porosity ${(100 * mean(rows.map(({ porosity }) => porosity))).toFixed(1)} points, pores ${(100 * mean(rows.map(({ count }) => count))).toFixed(0)} %, height ${(100 * mean(rows.map(({ height }) => height))).toFixed(1)} %; band right in ${rows.filter(({ band, found }) => band === found).length} of ${rows.length}`); // prettier-ignore
