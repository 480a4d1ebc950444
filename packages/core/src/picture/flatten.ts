import { Matrix, solve } from "ml-matrix";
import { evenlyLit } from "./light";
import { blank, type Gray, parting, type Point, sampled, shrunk } from "./gray";

/** The corners of a page in a picture: top left, top right, bottom right, bottom left. */
export type Corners = readonly [Point, Point, Point, Point];

const SIDE = 320;
/** A page fills at least this share of its photograph; over the other one it is the photograph. */
const SHARE = { least: 0.2, most: 0.96 };
/** Its light fills its corners to at least this share, else what was found is no page; around it so little is as light. */
const [FILLED, OUTSIDE] = [0.82, 0.12];
/** Its corners lie inside of the picture, by so many of the small picture's pixels: where the light ends at the edge, it may be a shadow. */
const INSIDE = 2;

/** The whole picture. */
export const wholeOf = ({ width, height }: { width: number; height: number }): Corners => [
  { x: 0, y: 0 },
  { x: width, y: 0 },
  { x: width, y: height },
  { x: 0, y: height },
];

const areaOf = (corners: Corners): number =>
  Math.abs(corners.reduce((sum, a, k) => sum + a.x * corners[(k + 1) % 4]!.y - corners[(k + 1) % 4]!.x * a.y, 0)) / 2;

/** The light page on a darker table: its four corners; null where none stands out. */
export function cornersOf(picture: Gray): Corners | null {
  const small = shrunk(picture, SIDE);
  // With its shadows taken out a page stands out from whatever it lies on; where that leaves none, as it was taken.
  const found = lightestOf(evenlyLit(small)) ?? lightestOf(small);
  const factor = picture.width / small.width;
  return found && (found.map(({ x, y }) => ({ x: (x + 0.5) * factor, y: (y + 0.5) * factor })) as unknown as Corners);
}

/** The largest light piece of a small picture, where it is a page: its corners there. */
function lightestOf(small: Gray): Corners | null {
  const { width, height, data } = small;
  const level = parting(small);
  const seen = new Uint8Array(data.length);
  let best: number[] = [];
  for (let first = 0; first < data.length; first++) {
    if (seen[first] === 1 || data[first]! <= level) continue;
    const found: number[] = [];
    const open = [first];
    seen[first] = 1;
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      found.push(at);
      const x = at % width;
      for (const next of [at - width, at + width, x > 0 ? at - 1 : -1, x < width - 1 ? at + 1 : -1]) {
        if (next < 0 || next >= data.length || seen[next] === 1 || data[next]! <= level) continue;
        seen[next] = 1;
        open.push(next);
      }
    }
    if (found.length > best.length) best = found;
  }
  if (best.length === 0) return null;
  const farthest = (worth: (x: number, y: number) => number): Point => {
    let [most, at] = [-Infinity, best[0]!];
    for (const one of best) {
      const value = worth(one % width, Math.floor(one / width));
      if (value > most) [most, at] = [value, one];
    }
    return { x: at % width, y: Math.floor(at / width) };
  };
  const found: Corners = [
    farthest((x, y) => -x - y),
    farthest((x, y) => x - y),
    farthest((x, y) => x + y),
    farthest((x, y) => y - x),
  ];
  const area = areaOf(found);
  const share = area / (width * height);
  if (share < SHARE.least || share > SHARE.most || best.length < FILLED * area) return null;
  const isInside = ({ x, y }: Point): boolean => Math.min(x, y, width - 1 - x, height - 1 - y) >= INSIDE;
  if (!found.every(isInside)) return null;
  let light = 0;
  for (const value of data) if (value > level) light++;
  if (light - best.length > OUTSIDE * (width * height - area)) return null;
  return found;
}

/** Whether four corners are a page that can be made flat: none inside of the others, not too thin. */
export function isPage(corners: Corners): boolean {
  const turns = corners.map((a, k) => {
    const [b, c] = [corners[(k + 1) % 4]!, corners[(k + 2) % 4]!];
    return (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);
  });
  return turns.every((turn) => turn > 0) && areaOf(corners) > 2500;
}

/** The projective map that takes the corners of a width × height page to four points: eight numbers of x' = (ax + by + c)/(gx + hy + 1). */
function mapTo(width: number, height: number, to: Corners): number[] {
  const from = wholeOf({ width, height });
  const rows: number[][] = [];
  const right: number[] = [];
  from.forEach(({ x, y }, k) => {
    const { x: u, y: v } = to[k]!;
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]);
    right.push(u, v);
  });
  return solve(new Matrix(rows), Matrix.columnVector(right)).to1DArray();
}

const between = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** The page between four corners as it lies flat, as large as its longer edges. Throws a plain error for corners that are no page. */
export function flattened(picture: Gray, corners: Corners): Gray {
  if (!isPage(corners)) throw new Error("these corners are no page");
  const [a, b, c, d] = corners;
  const width = Math.round(Math.max(between(a, b), between(d, c)));
  const height = Math.round(Math.max(between(a, d), between(b, c)));
  const m = mapTo(width, height, corners);
  const out = blank(width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const w = m[6]! * (x + 0.5) + m[7]! * (y + 0.5) + 1;
      const u = (m[0]! * (x + 0.5) + m[1]! * (y + 0.5) + m[2]!) / w;
      const v = (m[3]! * (x + 0.5) + m[4]! * (y + 0.5) + m[5]!) / w;
      out.data[y * width + x] = Math.round(sampled(picture, u - 0.5, v - 0.5));
    }
  return out;
}
