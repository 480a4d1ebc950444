import { type Gray, parting, shrunk } from "./gray";

/** Looked for so far to either side, degrees, in steps, then in finer ones. */
const MOST = 8;
const [STEP, FINE] = [0.5, 0.05];
/** Big enough to tell lines of small print apart. */
const SIDE = 900;
/** With so little ink, or ink that no angle gathers, nothing is turned. */
const [LEAST_INK, LEAST_GAIN] = [40, 1.02];

/** Print leaves at least so much paper within so many pixels of each of its own; a table, a hand, a picture do not. */
const [PRINT, AROUND] = [0.45, 10];

/** Places of ink of a page made smaller, with its size. */
function inkOf(picture: Gray): { xs: Float32Array; ys: Float32Array; height: number; width: number } {
  const small = shrunk(picture, SIDE);
  const { width, height, data } = small;
  const level = parting(small);
  // Sums of ink from the upper left, to tell print from what is dark all over.
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      sums[(y + 1) * (width + 1) + x + 1] = (data[y * width + x]! <= level ? 1 : 0) + sums[y * (width + 1) + x + 1]! + sums[(y + 1) * (width + 1) + x]! - sums[y * (width + 1) + x]!; // prettier-ignore
  const [xs, ys]: [number[], number[]] = [[], []];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (data[y * width + x]! > level) continue;
      const [x0, x1, y0, y1] = [Math.max(0, x - AROUND), Math.min(width, x + AROUND + 1), Math.max(0, y - AROUND), Math.min(height, y + AROUND + 1)]; // prettier-ignore
      const dark = sums[y1 * (width + 1) + x1]! - sums[y0 * (width + 1) + x1]! - sums[y1 * (width + 1) + x0]! + sums[y0 * (width + 1) + x0]!; // prettier-ignore
      if (dark > PRINT * (x1 - x0) * (y1 - y0)) continue;
      xs.push(x);
      ys.push(y);
    }
  return { xs: Float32Array.from(xs), ys: Float32Array.from(ys), height: small.height, width: small.width };
}

/** How sharply ink gathers in rows at some angle: the sum of squared steps from row to row. Source: H. S. Baird, the skew of a page by its projections, 1987. */
function gathered({ xs, ys, height, width }: ReturnType<typeof inkOf>, degrees: number): number {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const offset = Math.abs(sin) * width + 1;
  const rows = new Float64Array(Math.ceil(height + 2 * offset) + 2);
  for (let k = 0; k < xs.length; k++) rows[Math.floor(ys[k]! * cos + xs[k]! * sin + offset)]!++;
  let sum = 0;
  for (let k = 1; k < rows.length; k++) sum += (rows[k]! - rows[k - 1]!) ** 2;
  return sum;
}

/** By how many degrees clockwise a page is to be turned so that its lines run level; 0 where it has no lines. */
export function skewOf(picture: Gray): number {
  const ink = inkOf(picture);
  if (ink.xs.length < LEAST_INK) return 0;
  const level = gathered(ink, 0);
  const bestOf = (from: number, to: number, step: number): number => {
    let [best, at] = [-1, 0];
    for (let angle = from; angle <= to + 1e-9; angle += step) {
      const worth = gathered(ink, angle);
      if (worth > best) [best, at] = [worth, angle];
    }
    return at;
  };
  const coarse = bestOf(-MOST, MOST, STEP);
  const fine = bestOf(coarse - STEP, coarse + STEP, FINE);
  return gathered(ink, fine) > LEAST_GAIN * level ? fine : 0;
}

/** Whether the lines of a page run from top to bottom: it lies on its side. */
export function liesOnItsSide(picture: Gray): boolean {
  const ink = inkOf(picture);
  if (ink.xs.length < LEAST_INK) return false;
  const across = gathered(ink, skewOf(picture));
  const down = Math.max(
    ...[-2, -1, 0, 1, 2].map((angle) => gathered({ xs: ink.ys, ys: ink.xs, height: ink.width, width: ink.height }, angle)),
  );
  return down > 1.3 * across;
}
