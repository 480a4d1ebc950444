/**
 * A slice read from a photograph: which of it is crumb, which are pores. Thresholds stand against the mean of the neighbourhood (Bradley and Roth), so
 * that a shadow over the slice is no pore; pores are what hangs together (union-find over eight neighbours). Lengths in pixels, or in mm where the
 * width of the slice is known.
 */
export interface CutFace {
  /** 0 background, 1 crumb, 2 pore. */
  kinds: Uint8Array;
  width: number;
  height: number;
  /** Share of the slice that is pore. */
  porosity: number;
  /** Number of pores, and for each 100 mm² where the scale is known. */
  pores: number;
  poresPerCm2: number | null;
  /** Mean diameter of pores by area, and the spread of ln area: 0 is all alike. */
  poreDiameter: number;
  unevenness: number;
  unit: "px" | "mm";
  /** Height of the slice at five places across, edge to edge. */
  heights: number[];
  /** Dense band along the base: its height over the slice's, and how much less porous it is; null where there is none. */
  band: { share: number; porosity: number } | null;
}

/** Spread of ln area up to which pores are called even, and a little uneven; confidence C. */
const EVEN = { even: 0.6, little: 1 };

export const evennessWord = ({ unevenness }: Pick<CutFace, "unevenness">): string =>
  unevenness < EVEN.even ? "even" : unevenness < EVEN.little ? "a little uneven" : "uneven";

export type CutFaceResult = { ok: true; face: CutFace } | { ok: false; why: string };

export interface Picture {
  width: number;
  height: number;
  /** RGBA, 8 bits. */
  data: Uint8ClampedArray | Uint8Array;
}

/** Limits of a picture that can be used, and of what is a pore. Kitchen and camera knowledge, confidence C. */
const USE = { leastPx: 120, mostPx: 4_000_000, leastShare: 0.08, contrast: 14, touches: 0.5 };
const WINDOW = 0.06;
const DARKER = 0.1;
const LEAST_PORE_PX = 4;
const BAND = { height: 0.16, under: 0.5 };
const PLACES = [0.06, 0.25, 0.5, 0.75, 0.94];

function greyOf({ width, height, data }: Picture): Float32Array {
  const grey = new Float32Array(width * height);
  for (let k = 0; k < grey.length; k++) grey[k] = 0.299 * data[4 * k]! + 0.587 * data[4 * k + 1]! + 0.114 * data[4 * k + 2]!;
  return grey;
}

/** Otsu's threshold: the grey that parts the two classes best, and how far their means lie apart. */
function otsu(grey: Float32Array): { at: number; apart: number } {
  const counts = new Float64Array(256);
  for (const g of grey) counts[Math.min(255, Math.max(0, Math.round(g)))]! += 1;
  const total = grey.length;
  let sum = 0;
  for (let g = 0; g < 256; g++) sum += g * counts[g]!;
  let [below, sumBelow, best, at, apart] = [0, 0, -1, 127, 0];
  for (let g = 0; g < 256; g++) {
    below += counts[g]!;
    if (below === 0 || below === total) continue;
    sumBelow += g * counts[g]!;
    const [m0, m1] = [sumBelow / below, (sum - sumBelow) / (total - below)];
    const between = below * (total - below) * (m0 - m1) ** 2;
    if (between > best) [best, at, apart] = [between, g, m1 - m0];
  }
  return { at, apart };
}

/** What hangs together in a mask (8 neighbours): a label for every pixel, 0 outside, and the area of each. */
function labelled(mask: Uint8Array, width: number, height: number): { labels: Int32Array; areas: number[] } {
  const parent: number[] = [0];
  const labels = new Int32Array(mask.length);
  const root = (k: number): number => {
    while (parent[k] !== k) k = parent[k] = parent[parent[k]!]!;
    return k;
  };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const k = y * width + x;
      if (mask[k] === 0) continue;
      let label = 0;
      for (const [dx, dy] of [[-1, 0], [-1, -1], [0, -1], [1, -1]] as const) {
        const [nx, ny] = [x + dx, y + dy];
        if (nx < 0 || nx >= width || ny < 0) continue;
        const other = labels[ny * width + nx]!;
        if (other === 0) continue;
        if (label === 0) label = root(other);
        else parent[root(other)] = label;
      }
      if (label === 0) parent.push((label = parent.length));
      labels[k] = label;
    }
  const areas: number[] = [];
  const compact = new Map<number, number>();
  for (let k = 0; k < labels.length; k++) {
    if (labels[k] === 0) continue;
    const r = root(labels[k]!);
    let at = compact.get(r);
    if (at === undefined) compact.set(r, (at = compact.size + 1));
    labels[k] = at;
    areas[at] = (areas[at] ?? 0) + 1;
  }
  return { labels, areas };
} // prettier-ignore

/** Sums over rectangles from one pass. */
function integral(values: Float32Array, width: number, height: number): Float64Array {
  const out = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += values[y * width + x]!;
      out[(y + 1) * (width + 1) + x + 1] = out[y * (width + 1) + x + 1]! + row;
    }
  }
  return out;
}

const boxSum = (sums: Float64Array, width: number, x0: number, y0: number, x1: number, y1: number): number =>
  sums[y1 * (width + 1) + x1]! - sums[y0 * (width + 1) + x1]! - sums[y1 * (width + 1) + x0]! + sums[y0 * (width + 1) + x0]!;

/** The slice: the largest thing that stands out from the background, with everything inside of its outline. */
function sliceOf(grey: Float32Array, width: number, height: number): { mask: Uint8Array; why: string | null } {
  const { at, apart } = otsu(grey);
  const mask = new Uint8Array(grey.length);
  if (apart < USE.contrast) return { mask, why: "The slice does not stand out from what it lies on. Lay it on something much darker or much lighter." };
  // The corners are background: the slice is the other side of the threshold.
  const corners = [0, width - 1, (height - 1) * width, height * width - 1];
  const light = corners.filter((k) => grey[k]! > at).length >= 2;
  for (let k = 0; k < grey.length; k++) mask[k] = (grey[k]! > at) !== light ? 1 : 0;
  const { labels, areas } = labelled(mask, width, height);
  let largest = 0;
  for (let label = 1; label < areas.length; label++) if ((areas[label] ?? 0) > (areas[largest] ?? 0)) largest = label;
  if (largest === 0 || areas[largest]! < USE.leastShare * grey.length) return { mask, why: "There is no slice to be seen: it should fill a tenth of the picture or more." };
  const inside = new Uint8Array(grey.length);
  for (let k = 0; k < labels.length; k++) inside[k] = labels[k] === largest ? 1 : 0;
  // Pores inside are of the colour of the background: what cannot be reached from the picture's edge belongs to the slice.
  const outside = new Uint8Array(grey.length);
  const queue: number[] = [];
  const reach = (k: number): void => {
    if (outside[k] === 0 && inside[k] === 0) {
      outside[k] = 1;
      queue.push(k);
    }
  };
  let touching = 0;
  for (let x = 0; x < width; x++) {
    for (const k of [x, (height - 1) * width + x]) { reach(k); touching += inside[k]!; }
  }
  for (let y = 0; y < height; y++) for (const k of [y * width, y * width + width - 1]) { reach(k); touching += inside[k]!; }
  while (queue.length > 0) {
    const k = queue.pop()!;
    const x = k % width;
    if (x > 0) reach(k - 1);
    if (x < width - 1) reach(k + 1);
    if (k >= width) reach(k - width);
    if (k < grey.length - width) reach(k + width);
  }
  for (let k = 0; k < grey.length; k++) inside[k] = outside[k] === 1 ? 0 : 1;
  if (touching > USE.touches * (width + height)) return { mask: inside, why: "The slice runs out of the picture. Stand back, so that all of it is seen." };
  return { mask: inside, why: null };
} // prettier-ignore

/** Rim that is crust and shadow, as a share of the slice's height: no pores are counted there. */
const CRUST = 0.04;

/** Sums up a picture whose pixels are sorted already: by `readCutFace`, or by hand after it. `mmAcross` is the width of the slice. */
export function measureCutFace(kinds: Uint8Array, width: number, height: number, mmAcross?: number): CutFace {
  let [x0, x1, y0, y1, slice, pore] = [width, -1, height, -1, 0, 0];
  const poreMask = new Uint8Array(kinds.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const kind = kinds[y * width + x]!;
      if (kind === 0) continue;
      slice++;
      if (kind === 2) {
        pore++;
        poreMask[y * width + x] = 1;
      }
      [x0, x1, y0, y1] = [Math.min(x0, x), Math.max(x1, x), Math.min(y0, y), Math.max(y1, y)];
    }
  const across = x1 - x0 + 1;
  const scale = mmAcross !== undefined && across > 0 ? mmAcross / across : 1;
  const { areas } = labelled(poreMask, width, height);
  const counted = areas.filter((area) => area >= LEAST_PORE_PX);
  const logs = counted.map((area) => Math.log(area));
  const mean = logs.reduce((sum, log) => sum + log, 0) / Math.max(1, logs.length);
  const whole = counted.reduce((sum, area) => sum + area, 0);
  const columnHeight = (share: number): number => {
    const x = Math.round(x0 + share * (across - 1));
    let [top, bottom] = [-1, -1];
    for (let y = 0; y < height; y++) if (kinds[y * width + x]! > 0) [top, bottom] = [top < 0 ? y : top, y];
    return top < 0 ? 0 : bottom - top + 1;
  };
  const porosityOf = (from: number, to: number): number => {
    let [all, pores] = [0, 0];
    for (let y = Math.max(0, from); y < Math.min(height, to); y++)
      for (let x = x0; x <= x1; x++) {
        const kind = kinds[y * width + x]!;
        if (kind > 0) all++;
        if (kind === 2) pores++;
      }
    return all === 0 ? 0 : pores / all;
  };
  const tall = y1 - y0 + 1;
  const crust = Math.round(CRUST * tall);
  const middle = porosityOf(y0 + Math.round(0.2 * tall), y1 - Math.round(0.35 * tall));
  // From the base up as long as it is much less porous than the middle.
  const step = Math.max(2, Math.round(0.02 * tall));
  let end = 0;
  while (end + step < 0.5 * tall && porosityOf(y1 - crust - end - step, y1 - crust - end) < BAND.under * middle) end += step;
  const share = end / Math.max(1, tall);
  return {
    kinds, width, height,
    porosity: slice === 0 ? 0 : pore / slice,
    pores: counted.length,
    poresPerCm2: mmAcross === undefined || slice === 0 ? null : counted.length / ((slice * scale * scale) / 100),
    poreDiameter: counted.length === 0 ? 0 : 2 * Math.sqrt(counted.reduce((sum, area) => sum + area * area, 0) / Math.max(1, whole) / Math.PI) * scale,
    unevenness: Math.sqrt(logs.reduce((sum, log) => sum + (log - mean) ** 2, 0) / Math.max(1, logs.length)),
    unit: mmAcross === undefined ? "px" : "mm",
    heights: PLACES.map((place) => columnHeight(place) * scale),
    band: middle > 0.02 && share > BAND.height / 3 ? { share, porosity: porosityOf(y1 - crust - end, y1 - crust) } : null,
  };
} // prettier-ignore

/** A pore that is made by hand, px across from its middle. */
const BY_HAND_PX = 5;

/** What is pore corrected at one place: a pore there is crumb then, all of it; crumb becomes a small pore. The old array stays as it was. */
export function correctedAt(kinds: Uint8Array, width: number, height: number, x: number, y: number): Uint8Array {
  const next = Uint8Array.from(kinds);
  const at = y * width + x;
  if (next[at] === 2) {
    const queue = [at];
    next[at] = 1;
    while (queue.length > 0) {
      const k = queue.pop()!;
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          const [px, py] = [(k % width) + dx, Math.floor(k / width) + dy];
          if (px < 0 || py < 0 || px >= width || py >= height || next[py * width + px] !== 2) continue;
          next[py * width + px] = 1;
          queue.push(py * width + px);
        }
    }
  } else if (next[at] === 1)
    for (let dy = -BY_HAND_PX; dy <= BY_HAND_PX; dy++)
      for (let dx = -BY_HAND_PX; dx <= BY_HAND_PX; dx++) {
        const [px, py] = [x + dx, y + dy];
        const inside = dx * dx + dy * dy <= BY_HAND_PX ** 2 && px >= 0 && py >= 0 && px < width && py < height;
        if (inside && next[py * width + px] === 1) next[py * width + px] = 2;
      }
  return next;
}

/** Reads a slice from a picture, or says why that picture cannot be used. `mmAcross` is the width of the slice where it was measured. */
export function readCutFace(picture: Picture, mmAcross?: number): CutFaceResult {
  const { width, height } = picture;
  if (width < USE.leastPx || height < USE.leastPx) return { ok: false, why: `The picture has ${width} by ${height} pixels; ${USE.leastPx} or more on each side would be right.` };
  if (width * height > USE.mostPx) return { ok: false, why: "The picture is larger than it need be; four million pixels are enough." };
  const grey = greyOf(picture);
  const { mask, why } = sliceOf(grey, width, height);
  if (why !== null) return { ok: false, why };
  const counts = integral(Float32Array.from(mask), width, height);
  const within = integral(Float32Array.from(grey, (g, k) => g * mask[k]!), width, height);
  const half = Math.max(6, Math.round((WINDOW * Math.min(width, height)) / 2));
  const kinds = new Uint8Array(grey.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const k = y * width + x;
      if (mask[k] === 0) continue;
      const [a, b, c, d] = [Math.max(0, x - half), Math.max(0, y - half), Math.min(width, x + half + 1), Math.min(height, y + half + 1)];
      const mean = boxSum(within, width, a, b, c, d) / Math.max(1, boxSum(counts, width, a, b, c, d));
      kinds[k] = grey[k]! < (1 - DARKER) * mean ? 2 : 1;
    }
  // A rim of shadow along the outline is no pore.
  const rim = Math.max(2, Math.round(0.006 * Math.min(width, height)));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (kinds[y * width + x] !== 2) continue;
      const [a, b, c, d] = [Math.max(0, x - rim), Math.max(0, y - rim), Math.min(width, x + rim + 1), Math.min(height, y + rim + 1)];
      if (boxSum(counts, width, a, b, c, d) < (c - a) * (d - b)) kinds[y * width + x] = 1;
    }
  return { ok: true, face: measureCutFace(kinds, width, height, mmAcross) };
} // prettier-ignore
