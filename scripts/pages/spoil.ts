import { seeded, normalFrom } from "@uprise/core";
import { type Gray, sampled, turned } from "@uprise/core/src/picture/gray";
import { Matrix, solve } from "ml-matrix";

export const harms = ["clean", "skew", "perspective", "shadow", "noise", "coffee", "all"] as const;
export type Harm = (typeof harms)[number];

const each = (picture: Gray, change: (value: number, x: number, y: number) => number): Gray => ({
  ...picture,
  data: picture.data.map((value, k) => Math.max(0, Math.min(255, change(value, k % picture.width, Math.floor(k / picture.width))))),
});

/** A page lying on a dark table, seen from the side: its corners moved by up to a share of the picture. */
function onTable(picture: Gray, random: () => number): Gray {
  const { width, height } = picture;
  const [w, h] = [Math.round(width * 1.16), Math.round(height * 1.16)];
  const shift = (): number => 0.02 + 0.07 * random();
  const to = [
    [w * shift(), h * shift()],
    [w * (1 - shift()), h * shift()],
    [w * (1 - shift()), h * (1 - shift())],
    [w * shift(), h * (1 - shift())],
  ] as [number, number][];
  const from = [[0, 0], [width, 0], [width, height], [0, height]] as [number, number][]; // prettier-ignore
  const rows: number[][] = [];
  const right: number[] = [];
  to.forEach(([x, y], k) => {
    const [u, v] = from[k] as [number, number];
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]);
    right.push(u, v);
  });
  const m = solve(new Matrix(rows), Matrix.columnVector(right)).to1DArray() as [number, number, number, number, number, number, number, number]; // prettier-ignore
  const data = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const t = m[6] * x + m[7] * y + 1;
      const [u, v] = [(m[0] * x + m[1] * y + m[2]) / t, (m[3] * x + m[4] * y + m[5]) / t];
      data[y * w + x] = u < 0 || v < 0 || u >= width || v >= height ? 60 + 20 * Math.sin(x / 40) : sampled(picture, u, v);
    }
  return { width: w, height: h, data };
}

function shaded(picture: Gray, random: () => number): Gray {
  const angle = random() * 2 * Math.PI;
  const [deep, at] = [0.35 + 0.25 * random(), 0.3 + 0.4 * random()];
  return each(picture, (value, x, y) => {
    const along = (Math.cos(angle) * (x / picture.width - 0.5) + Math.sin(angle) * (y / picture.height - 0.5)) / 1.2 + 0.5;
    return value * (1 - deep / (1 + Math.exp((at - along) * 18)));
  });
}

/** Rings of coffee and a spot of it. */
function stained(picture: Gray, random: () => number): Gray {
  const rings = Array.from({ length: 2 }, () => ({ x: picture.width * (0.2 + 0.6 * random()), y: picture.height * (0.2 + 0.5 * random()), r: 120 + 160 * random() })); // prettier-ignore
  return each(picture, (value, x, y) => {
    let light = 1;
    for (const { x: cx, y: cy, r } of rings) {
      const from = Math.hypot(x - cx, y - cy);
      light *= 1 - 0.3 * Math.exp(-(((from - r) / 12) ** 2)) - (from < r ? 0.06 : 0);
    }
    return value * light;
  });
}

function noisy(picture: Gray, random: () => number): Gray {
  const normal = normalFrom(random);
  const { width, height } = picture;
  const soft = each(picture, (_, x, y) => (sampled(picture, x - 0.6, y) + sampled(picture, x + 0.6, y) + sampled(picture, x, y - 0.6) + sampled(picture, x, y + 0.6)) / 4); // prettier-ignore
  return { width, height, data: soft.data.map((value) => Math.max(0, Math.min(255, value + 14 * normal()))) };
}

/** The page as somebody's phone gets it. */
export function spoilt(picture: Gray, harm: Harm, seed: number): Gray {
  const random = seeded(seed);
  const skew = (): Gray => turned(picture, (random() < 0.5 ? -1 : 1) * (1 + 3 * random()));
  switch (harm) {
    case "clean":
      return picture;
    case "skew":
      return skew();
    case "perspective":
      return onTable(picture, random);
    case "shadow":
      return shaded(picture, random);
    case "noise":
      return noisy(picture, random);
    case "coffee":
      return stained(picture, random);
    case "all":
      return noisy(shaded(onTable(stained(picture, random), random), random), random);
  }
}
