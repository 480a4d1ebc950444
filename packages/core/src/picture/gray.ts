import type { Picture } from "../trial/cut-face";

/** A picture in one channel, 0 black to 255 white, row by row. */
export interface Gray {
  width: number;
  height: number;
  data: Uint8Array;
}
export interface Point {
  x: number;
  y: number;
}

export const blank = (width: number, height: number, value = 255): Gray => ({ width, height, data: new Uint8Array(width * height).fill(value) }); // prettier-ignore

/** Luma of an RGBA picture; what is transparent is paper. Weights of ITU-R BT.601. */
export function grayOf({ width, height, data }: Picture): Gray {
  const out = blank(width, height);
  for (let k = 0; k < out.data.length; k++) {
    const [r, g, b, a] = [data[4 * k]!, data[4 * k + 1]!, data[4 * k + 2]!, data[4 * k + 3]!];
    out.data[k] = Math.round(255 + ((0.299 * r + 0.587 * g + 0.114 * b - 255) * a) / 255);
  }
  return out;
}

/** No larger than so many pixels on its long side, by the mean of what falls on each pixel. */
export function shrunk(picture: Gray, most: number): Gray {
  const factor = most / Math.max(picture.width, picture.height);
  if (factor >= 1) return picture;
  const [width, height] = [Math.max(1, Math.round(picture.width * factor)), Math.max(1, Math.round(picture.height * factor))];
  const out = blank(width, height);
  for (let y = 0; y < height; y++) {
    const [y0, y1] = [Math.floor((y * picture.height) / height), Math.max(Math.floor((y * picture.height) / height) + 1, Math.floor(((y + 1) * picture.height) / height))]; // prettier-ignore
    for (let x = 0; x < width; x++) {
      const x0 = Math.floor((x * picture.width) / width);
      const x1 = Math.max(x0 + 1, Math.floor(((x + 1) * picture.width) / width));
      let sum = 0;
      for (let j = y0; j < y1; j++) for (let i = x0; i < x1; i++) sum += picture.data[j * picture.width + i]!;
      out.data[y * width + x] = Math.round(sum / ((x1 - x0) * (y1 - y0)));
    }
  }
  return out;
}

/** What stands at a place between pixels; paper outside. */
export function sampled({ width, height, data }: Gray, x: number, y: number): number {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  if (i < -1 || j < -1 || i >= width || j >= height) return 255;
  const at = (p: number, q: number): number => (p < 0 || q < 0 || p >= width || q >= height ? 255 : data[q * width + p]!);
  const [fx, fy] = [x - i, y - j];
  return (1 - fy) * ((1 - fx) * at(i, j) + fx * at(i + 1, j)) + fy * ((1 - fx) * at(i, j + 1) + fx * at(i + 1, j + 1));
}

/** Turned by quarters clockwise. */
export function quarterTurned(picture: Gray, quarters: number): Gray {
  const turns = ((quarters % 4) + 4) % 4;
  if (turns === 0) return picture;
  const { width, height, data } = picture;
  const out = turns === 2 ? blank(width, height) : blank(height, width);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [i, j] = turns === 1 ? [height - 1 - y, x] : turns === 2 ? [width - 1 - x, height - 1 - y] : [y, width - 1 - x];
      out.data[j * out.width + i] = data[y * width + x]!;
    }
  return out;
}

/** Turned by so many degrees clockwise about its middle, in a frame that holds all of it. */
export function turned(picture: Gray, degrees: number): Gray {
  if (Math.abs(degrees) < 1e-9) return picture;
  const { width, height } = picture;
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const [w, h] = [Math.ceil(width * Math.abs(cos) + height * Math.abs(sin)), Math.ceil(width * Math.abs(sin) + height * Math.abs(cos))];
  const out = blank(w, h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const [dx, dy] = [x - (w - 1) / 2, y - (h - 1) / 2];
      out.data[y * w + x] = Math.round(sampled(picture, cos * dx + sin * dy + (width - 1) / 2, -sin * dx + cos * dy + (height - 1) / 2)); // prettier-ignore
    }
  return out;
} // prettier-ignore

/** A piece of it; what lies outside is paper. */
export function cropped(picture: Gray, { x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number }): Gray {
  const out = blank(Math.max(1, Math.round(x1 - x0)), Math.max(1, Math.round(y1 - y0)));
  for (let y = 0; y < out.height; y++)
    for (let x = 0; x < out.width; x++) {
      const [i, j] = [Math.round(x0) + x, Math.round(y0) + y];
      if (i >= 0 && j >= 0 && i < picture.width && j < picture.height) out.data[y * out.width + x] = picture.data[j * picture.width + i]!; // prettier-ignore
    }
  return out;
}

/** The level that parts dark from light best. Source: N. Otsu, IEEE Transactions on Systems, Man and Cybernetics 9, 1979. */
export function parting({ data }: Gray): number {
  const counts = new Float64Array(256);
  for (const value of data) counts[value]!++;
  let [all, sum] = [0, 0];
  for (let v = 0; v < 256; v++) {
    all += counts[v]!;
    sum += v * counts[v]!;
  }
  let [below, sumBelow, best, at] = [0, 0, -1, 127];
  for (let v = 0; v < 255; v++) {
    below += counts[v]!;
    sumBelow += v * counts[v]!;
    if (below === 0 || below === all) continue;
    const apart = sumBelow / below - (sum - sumBelow) / (all - below);
    const between = below * (all - below) * apart * apart;
    if (between > best) [best, at] = [between, v];
  }
  return at;
}
