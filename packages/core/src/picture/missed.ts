import { piecesOf } from "./closer";
import { cropped, type Gray } from "./gray";
import { around, type Box, heightOf, median } from "./words";

/** A sign before a word is looked for so far to its left, and where so much is free; in heights of a word. */
const [REACH, FREE] = [3.2, 0.65];
/** What is lower than this is a dot, a dash or dust; what is wider is a picture. */
const [LOW, WIDE] = [0.5, 2.2];
/** Ink is darker than this where the page has been lit evenly. */
const INK = 150;

/**
 * Ink before a word that no word was read from: letters that the reader of letters passes over, above all fractions in one sign. Boxes on the picture, one
 * for each word that has some before it.
 */
export function missedBefore(picture: Gray, words: readonly { box: Box }[]): Box[] {
  const tall = median(words.map(({ box }) => heightOf(box)));
  if (!(tall > 8)) return [];
  const middle = ({ y0, y1 }: Box): number => (y0 + y1) / 2;
  return words.flatMap(({ box }) => {
    const mid = middle(box);
    const before = words.filter(
      (one) => one.box !== box && Math.abs(middle(one.box) - mid) < 0.6 * tall && one.box.x1 <= box.x0 + 2,
    );
    const from = Math.max(0, box.x0 - REACH * tall, ...before.map((one) => one.box.x1));
    if (box.x0 - from < FREE * tall) return [];
    const frame: Box = { x0: Math.round(from) + 2, x1: Math.round(box.x0) - 1, y0: Math.round(mid - 0.85 * tall), y1: Math.round(mid + 0.85 * tall) }; // prettier-ignore
    const piece = cropped(picture, frame);
    // What runs on above or below is a rule or the next line.
    const ink = piecesOf(piece, INK).filter(
      (one) => heightOf(one.box) >= 0.2 * tall && one.box.y0 > 0 && one.box.y1 < piece.height,
    );
    if (ink.length === 0) return [];
    const { x0, y0, x1, y1 } = around(ink.map((one) => one.box));
    if (y1 - y0 < LOW * tall || x1 - x0 > WIDE * tall) return [];
    return [{ x0: x0 + frame.x0, x1: x1 + frame.x0, y0: y0 + frame.y0, y1: y1 + frame.y0 }];
  });
}
