import { blank, type Gray, parting } from "./gray";
import { type Box, heightOf } from "./words";

/**
 * A fraction in one sign is too small for the reader of letters: it comes as a per cent, a V, another number. It is known by its shape (a small figure at
 * the upper left, another at the lower right), and its two figures are cut out, made larger and read one by one.
 */
export interface Halves {
  over: Gray;
  under: Gray;
  /** How many figures stand before it in the same word. */
  before: number;
}

/** Height of a figure that is looked at, px, and the paper around it. */
const [TALL, MARGIN] = [44, 14];
/** A figure of a fraction is at most so high, as a share of the sign, and at least so many px; what is smaller is dust. */
const SMALL = { share: 0.64, px: 5 };
/** Its upper figure ends, its lower one begins, by this share of the height. */
const PARTED = { over: 0.66, under: 0.34 };
/** Ink is darker than this where the page has been lit evenly. */
const INK = 150;

interface Piece {
  box: Box;
  size: number;
}

/** Connected pieces of ink, from left to right. */
export function piecesOf({ width, height, data }: Gray, level: number): Piece[] {
  const seen = new Uint8Array(data.length);
  const out: Piece[] = [];
  for (let first = 0; first < data.length; first++) {
    if (seen[first] === 1 || data[first]! > level) continue;
    const open = [first];
    seen[first] = 1;
    const piece: Piece = { size: 0, box: { x0: width, y0: height, x1: 0, y1: 0 } };
    const { box } = piece;
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      piece.size++;
      const [x, y] = [at % width, Math.floor(at / width)];
      box.x0 = Math.min(box.x0, x);
      box.x1 = Math.max(box.x1, x + 1);
      box.y0 = Math.min(box.y0, y);
      box.y1 = Math.max(box.y1, y + 1);
      for (const [i, j] of [[x - 1, y], [x + 1, y], [x, y - 1], [x, y + 1]] as const) {
        const next = j * width + i;
        if (i < 0 || j < 0 || i >= width || j >= height || seen[next] === 1 || data[next]! > level) continue;
        seen[next] = 1;
        open.push(next);
      }
    }
    out.push(piece);
  }
  return out.sort((a, b) => a.box.x0 - b.box.x0);
} // prettier-ignore

/**
 * The two figures of a fraction at the end of a word's picture; null where there is none. Where `text`, what it was read as, holds a strange sign, a slash
 * that touches its figures is cut away first.
 */
export function halvesOf(word: Gray, text: string): Halves | null {
  for (const level of [Math.min(INK, parting(word)), 90]) {
    const found = halvesAt(word, level);
    if (found) return found;
  }
  return /[^\p{L}\d.,]|^[VvYy]/u.test(text) ? halvesAt(withoutSlash(word), INK) : null;
}

/** A sign is about as wide as this share of its height; its slash runs through it in a band so wide, as a share of both sides together. */
const [WIDE, BAND] = [0.95, 0.085];

/** The last sign of a word with what lies on its diagonal from the lower left to the upper right made paper. */
function withoutSlash(word: Gray): Gray {
  const pieces = piecesOf(word, INK).filter(({ box }) => heightOf(box) >= SMALL.px);
  if (pieces.length === 0) return word;
  const [y0, y1] = [Math.min(...pieces.map(({ box }) => box.y0)), Math.max(...pieces.map(({ box }) => box.y1))];
  const x1 = Math.max(...pieces.map(({ box }) => box.x1));
  const x0 = Math.max(Math.min(...pieces.map(({ box }) => box.x0)), x1 - Math.round(WIDE * (y1 - y0)));
  const out: Gray = { ...word, data: word.data.slice() };
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++)
      if (Math.abs((x + 0.5 - x0) / (x1 - x0) + (y + 0.5 - y0) / (y1 - y0) - 1) < BAND) out.data[y * word.width + x] = 255;
  return out;
}

function halvesAt(word: Gray, level: number): Halves | null {
  const pieces = piecesOf(word, level).filter(({ box }) => heightOf(box) >= SMALL.px);
  const top = Math.min(...pieces.map(({ box }) => box.y0));
  const tall = Math.max(...pieces.map(({ box }) => box.y1)) - top;
  if (!(tall > 8)) return null;
  const isSmall = ({ box }: Piece): boolean => heightOf(box) <= SMALL.share * tall;
  const over = pieces.filter((one) => isSmall(one) && one.box.y1 - top <= PARTED.over * tall);
  const under = pieces.filter((one) => isSmall(one) && one.box.y0 - top >= PARTED.under * tall && heightOf(one.box) >= 0.3 * tall);
  // A short slash is small too, and lies between them.
  const [upper] = over.filter(({ box }) => heightOf(box) >= 0.3 * tall).sort((a, b) => a.box.x0 + a.box.y0 - b.box.x0 - b.box.y0);
  const [lower] = under
    .filter(({ box }) => upper !== undefined && box.x0 > upper.box.x0)
    .sort((a, b) => b.box.x1 + b.box.y1 - a.box.x1 - a.box.y1);
  if (!upper || !lower || lower.box.x0 - upper.box.x1 > 0.7 * tall) return null;
  const before = pieces.filter(({ box }) => box.x1 <= upper.box.x0 + 1 && heightOf(box) > SMALL.share * tall).length;
  // Behind a fraction in an amount stands nothing.
  const after = pieces.filter(({ box }) => box.x0 >= lower.box.x1 - 1 && heightOf(box) > 0.3 * tall).length;
  return after > 0 ? null : { over: enlarged(word, upper.box), under: enlarged(word, lower.box), before };
}

function enlarged(picture: Gray, box: Box): Gray {
  const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
  const factor = TALL / h;
  const out = blank(Math.round(w * factor) + 2 * MARGIN, TALL + 2 * MARGIN);
  const at = (p: number, q: number): number => picture.data[(box.y0 + Math.min(h - 1, Math.max(0, q))) * picture.width + box.x0 + Math.min(w - 1, Math.max(0, p))]!; // prettier-ignore
  for (let y = 0; y < TALL; y++)
    for (let x = 0; x < Math.round(w * factor); x++) {
      const [u, v] = [(x + 0.5) / factor - 0.5, (y + 0.5) / factor - 0.5];
      const [i, j] = [Math.floor(u), Math.floor(v)];
      const [fx, fy] = [u - i, v - j];
      out.data[(y + MARGIN) * out.width + x + MARGIN] = Math.round(
        (1 - fy) * ((1 - fx) * at(i, j) + fx * at(i + 1, j)) + fy * ((1 - fx) * at(i, j + 1) + fx * at(i + 1, j + 1)),
      );
    }
  return out;
}

const signs: Record<string, string> = {
  "1/2": "½",
  "1/3": "⅓",
  "2/3": "⅔",
  "1/4": "¼",
  "3/4": "¾",
  "1/8": "⅛",
  "3/8": "⅜",
  "5/8": "⅝",
  "7/8": "⅞",
};

/** The fraction that two figures are; null where they are none that is written as one sign. */
export const fractionOf = (over: string, under: string): string | null => signs[`${over.charAt(0)}/${under.charAt(0)}`] ?? null;

/** Whether a word may be an amount, or what an amount was taken for: short, with a figure or a strange sign in it. */
export const mayBeAmount = (text: string): boolean => text.length <= 6 && (/[\d½⅓⅔¼¾⅛⅜⅝⅞]/.test(text) || /^\W|^[VvYy]\w?$/.test(text)); // prettier-ignore
