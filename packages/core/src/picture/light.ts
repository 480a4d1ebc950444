import { blank, type Gray } from "./gray";

/** The light of a page is looked at in squares of this share of its long side. */
const SQUARE = 1 / 60;
/** In each square paper is what so many of its pixels are darker than. */
const PAPER = 0.85;
/** Against its paper, ink is black from here down and paper white from here up. */
const [INK, WHITE] = [0.3, 0.76];
/** So dark a square, against the lightest of the page, is no paper: a picture, a spoon. */
const LEAST = 0.2;

/** The page with its shadows taken out: each pixel against the paper around it. */
export function evenlyLit(picture: Gray): Gray {
  const { width, height, data } = picture;
  const side = Math.max(8, Math.round(SQUARE * Math.max(width, height)));
  const [columns, rows] = [Math.ceil(width / side), Math.ceil(height / side)];
  let paper = new Float64Array(columns * rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const counts = new Uint32Array(256);
      let all = 0;
      for (let y = r * side; y < Math.min(height, (r + 1) * side); y++)
        for (let x = c * side; x < Math.min(width, (c + 1) * side); x++) {
          counts[data[y * width + x]!]!++;
          all++;
        }
      let [seen, value] = [0, 0];
      while (value < 255 && (seen += counts[value]!) < PAPER * all) value++;
      paper[r * columns + c] = value;
    }
  const lightest = paper.reduce((a, b) => Math.max(a, b), 1);
  // A square full of ink takes its paper from its neighbours, and edges of squares are smoothed away.
  for (const take of [Math.max, mean]) {
    const next = new Float64Array(paper.length);
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < columns; c++) {
        const around: number[] = [];
        for (let j = Math.max(0, r - 1); j <= Math.min(rows - 1, r + 1); j++)
          for (let i = Math.max(0, c - 1); i <= Math.min(columns - 1, c + 1); i++) around.push(paper[j * columns + i]!);
        next[r * columns + c] = take(...around);
      }
    paper = next;
  }
  const out = blank(width, height);
  for (let y = 0; y < height; y++) {
    const v = Math.min(rows - 1, Math.max(0, (y + 0.5) / side - 0.5));
    const [r, fr] = [Math.floor(v), v - Math.floor(v)];
    const r1 = Math.min(rows - 1, r + 1);
    for (let x = 0; x < width; x++) {
      const u = Math.min(columns - 1, Math.max(0, (x + 0.5) / side - 0.5));
      const [c, fc] = [Math.floor(u), u - Math.floor(u)];
      const c1 = Math.min(columns - 1, c + 1);
      const here =
        (1 - fr) * ((1 - fc) * paper[r * columns + c]! + fc * paper[r * columns + c1]!) +
        fr * ((1 - fc) * paper[r1 * columns + c]! + fc * paper[r1 * columns + c1]!);
      const share = data[y * width + x]! / Math.max(LEAST * lightest, here);
      out.data[y * width + x] = Math.round(255 * Math.min(1, Math.max(0, (share - INK) / (WHITE - INK))));
    }
  }
  return out;
}
const mean = (...all: number[]): number => all.reduce((a, b) => a + b, 0) / all.length;
