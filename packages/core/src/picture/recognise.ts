import { fractionOf, halvesOf, mayBeAmount } from "./closer";
import { type Corners, cornersOf, flattened } from "./flatten";
import { blank, cropped, type Gray, quarterTurned, sampled, shrunk, turned } from "./gray";
import { evenlyLit } from "./light";
import { liesOnItsSide, skewOf } from "./skew";
import { missedBefore } from "./missed";
import { type Box, median, type PageWord } from "./words";

/** A word as the reader of letters gives it, with the signs that it is made of. */
export interface RawWord {
  text: string;
  /** 0 to 100. */
  confidence: number;
  box: Box;
  symbols: { text: string; confidence: number; box: Box }[];
}
/** What reads letters: a whole page, one word, or one figure. */
export interface Recogniser {
  page: (picture: Gray) => Promise<RawWord[]>;
  word: (picture: Gray) => Promise<{ text: string; confidence: number }>;
  figure: (picture: Gray) => Promise<{ text: string; confidence: number }>;
}
export interface PageAsked {
  /** The corners of the page that the baker set; found where they are left out, null for the whole picture. */
  corners?: Corners | null | undefined;
  /** Quarters clockwise that the baker turned it by. */
  quarters?: number | undefined;
}
export interface PageRead {
  /** The page as it was read, upright, level and evenly lit: boxes are places on it. */
  picture: Gray;
  words: PageWord[];
  /** The corners that were taken; null for the whole picture. */
  corners: Corners | null;
  /** Quarters that it was turned by in all. */
  quarters: number;
  /** Median confidence of its words, 0 to 100. */
  confidence: number;
}

/** Larger pages are made smaller, smaller ones larger, px on the long side: letters are read best at twenty to forty pixels. */
const [MOST, LEAST] = [2400, 1300];
/** Under such a confidence a page may stand on its head. */
const UPSIDE_DOWN = 60;
/** A sign or two that are read less surely are specks. */
const NOISE = 30;
/** The edge of a page, as a share of its width, and so many words on it. */
const [EDGE, CUT] = [0.006, 2];
/** A figure that is read less surely than this is not read; a word that is read again less surely says nothing. */
const [FIGURE, LEAST_AGAIN] = [60, 40];
/** Paper around a word that is looked at again, px, and how much larger it is then. */
const [AROUND, LARGER] = [5, 1.6];

function enlarged(picture: Gray, factor: number): Gray {
  const out = blank(Math.round(picture.width * factor), Math.round(picture.height * factor));
  for (let y = 0; y < out.height; y++)
    for (let x = 0; x < out.width; x++) out.data[y * out.width + x] = Math.round(sampled(picture, (x + 0.5) / factor - 0.5, (y + 0.5) / factor - 0.5)); // prettier-ignore
  return out;
}
const long = ({ width, height }: Gray): number => Math.max(width, height);
const sized = (picture: Gray): Gray => (long(picture) > MOST ? shrunk(picture, MOST) : long(picture) < LEAST ? enlarged(picture, LEAST / long(picture)) : picture); // prettier-ignore

/** A photograph made ready: the page cut out and flat, upright but for being upside down, level, its shadows gone. */
export function prepared(
  photograph: Gray,
  { corners, quarters }: PageAsked,
): { picture: Gray; corners: Corners | null; quarters: number } {
  const found = corners === undefined ? cornersOf(photograph) : corners;
  const lit = evenlyLit(sized(found ? flattened(photograph, found) : photograph));
  const turns = quarters ?? (liesOnItsSide(lit) ? 1 : 0);
  const upright = quarterTurned(lit, turns);
  return { picture: turned(upright, skewOf(upright)), corners: found, quarters: turns };
}

const sureness = (words: readonly { confidence: number }[]): number => median(words.map(({ confidence }) => confidence));

/** How much of a page was read well: its sure letters. */
const worthOf = (words: readonly RawWord[]): number =>
  words.reduce((sum, { text, confidence }) => sum + (confidence > UPSIDE_DOWN ? text.length : 0), 0);
/** Long words that are higher than wide. */
const isSideways = (words: readonly RawWord[]): boolean => {
  const long = words.filter(({ text, confidence }) => text.length >= 4 && confidence > UPSIDE_DOWN);
  return long.length >= 3 && median(long.map(({ box }) => (box.x1 - box.x0) / Math.max(1, box.y1 - box.y0))) < 1;
};
/** Text that runs into an edge was cut by corners that are not the page's. */
const isCut = ({ width }: Gray, words: readonly RawWord[]): boolean =>
  words.filter(({ box }) => box.x0 < EDGE * width || box.x1 > (1 - EDGE) * width).length >= CUT;

/** Reads a page: what letters stand where, with other readings of what is doubtful. `tell` is told what share is done. */
export async function readPage(photograph: Gray, asked: PageAsked, recogniser: Recogniser, tell: (share: number) => void = () => undefined): Promise<PageRead> {
  let page = prepared(photograph, asked);
  tell(0.15);
  let raw = await recogniser.page(page.picture);
  tell(0.6);
  const orElse = async (other: typeof page, better = 1.1): Promise<void> => {
    const again = await recogniser.page(other.picture);
    if (worthOf(again) > better * worthOf(raw)) [page, raw] = [other, again];
  };
  // Letters on their side are read, and stand higher than they are wide.
  if (asked.quarters === undefined && isSideways(raw)) await orElse({ ...prepared(photograph, { ...asked, quarters: page.quarters === 0 ? 1 : 0 }) }, 0.8);
  // What was found by itself is tried otherwise where little is to be read.
  if (asked.corners === undefined && page.corners && (sureness(raw) < UPSIDE_DOWN || isCut(page.picture, raw))) await orElse(prepared(photograph, { ...asked, corners: null }));
  if (asked.quarters === undefined && sureness(raw) < UPSIDE_DOWN) await orElse({ ...page, picture: quarterTurned(page.picture, 2), quarters: (page.quarters + 2) % 4 });
  tell(0.85);
  const words: PageWord[] = [];
  const kept = raw.filter((word) => word.confidence >= NOISE || /[\p{L}\d]{2}/u.test(word.text));
  for (const box of missedBefore(page.picture, kept)) {
    const found = await signIn(page.picture, box, recogniser);
    if (found) words.push(found);
  }
  for (const [k, word] of kept.entries()) {
    words.push(await lookedCloser(page.picture, word, recogniser));
    tell(0.85 + (0.15 * k) / kept.length);
  }
  return { ...page, words, confidence: sureness(words) };
} // prettier-ignore

/** What was passed over, looked at by itself: a fraction, or a number that is then asked about; null where it is neither. */
async function signIn(picture: Gray, box: Box, recogniser: Recogniser): Promise<PageWord | null> {
  const seen = await lookedCloser(picture, { text: "?", box, confidence: 0, symbols: [] }, recogniser);
  if (seen.text !== "?") return seen;
  const close = cropped(picture, { x0: box.x0 - AROUND, y0: box.y0 - AROUND, x1: box.x1 + AROUND, y1: box.y1 + AROUND });
  const { text, confidence } = await recogniser.word(enlarged(close, LARGER));
  return confidence >= LEAST_AGAIN && /^[\d½⅓⅔¼¾⅛⅜⅝⅞][\d.,/½⅓⅔¼¾⅛⅜⅝⅞]*$/.test(text.trim())
    ? { text: text.trim(), box, confidence: Math.min(confidence, FIGURE - 1) }
    : null;
}

/** An amount is looked at twice: by its shape for a fraction in one sign, and as a word of its own, larger. What differs is another reading. */
async function lookedCloser(picture: Gray, { text, box, confidence }: RawWord, recogniser: Recogniser): Promise<PageWord> {
  const plain: PageWord = { text, box, confidence };
  if (!mayBeAmount(text)) return plain;
  const close = cropped(picture, { x0: box.x0 - AROUND, y0: box.y0 - AROUND, x1: box.x1 + AROUND, y1: box.y1 + AROUND });
  const halves = halvesOf(close, text);
  if (halves) {
    const [over, under] = await Promise.all([recogniser.figure(halves.over), recogniser.figure(halves.under)]);
    const fraction = under.confidence < FIGURE ? null : fractionOf(over.text, under.text);
    const whole = [...text].slice(0, halves.before).join("");
    // A % has figures too: two noughts, which are no fraction.
    if (fraction !== null && /^\d*$/.test(whole)) return { text: whole + fraction, box, confidence: Math.min(over.confidence + FIGURE, under.confidence) };
    if (over.text.charAt(0) !== "0") return { text, box, confidence: Math.min(confidence, FIGURE - 1) };
  }
  if (!/\d/.test(text)) return plain;
  const again = await recogniser.word(enlarged(close, LARGER));
  const figures = (word: string): string => word.replace(/[^\d.,/]/g, "").replace(/[.,/]+$/, "");
  if (again.confidence < LEAST_AGAIN || figures(again.text) === "" || figures(again.text) === figures(text)) return plain;
  return { ...plain, confidence: Math.min(confidence, again.confidence), others: [{ text: again.text, worth: 0.9 }] };
} // prettier-ignore
