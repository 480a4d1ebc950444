import { around, type Box, heightOf, median, type PageWord } from "./words";

/** A line of a page: its words from left to right. */
export interface Row {
  words: PageWord[];
  box: Box;
}
/** Rows that stand under each other, in the order in which they are read. */
export interface Block {
  rows: Row[];
  /** Whether its rows are cells of a table beside each other. */
  isTable: boolean;
}

/** Two words stand on one line when they share so much of the lower one's height. */
const SHARED = 0.5;
/** A gutter is at least so wide, in heights of a line, and has at least so many rows on either side of it. */
const GUTTER = { wide: 1.3, rows: 3 };
/** In a table so many of the rows have something in both of its columns, and in one of them so many cells are amounts. */
const TABLE = { both: 0.6, amounts: 0.6 };

const rowOf = (words: PageWord[]): Row => {
  const sorted = [...words].sort((a, b) => a.box.x0 - b.box.x0);
  return { words: sorted, box: around(sorted.map(({ box }) => box)) };
};

/** A row that goes on is at least so wide, as a share of its block. */
const FULL = 0.8;

/** Words by the line on which they stand, from top to bottom. A word joins the line of its nearest neighbour, so that a line may sag. */
export function rowsOf(words: readonly PageWord[]): Row[] {
  const rows: PageWord[][] = [];
  for (const word of [...words].sort((a, b) => a.box.x0 - b.box.x0)) {
    let best = SHARED;
    let at: PageWord[] | null = null;
    for (const row of rows) {
      const last = row.at(-1)?.box;
      if (!last) continue;
      const shared = Math.min(last.y1, word.box.y1) - Math.max(last.y0, word.box.y0);
      const share = shared / Math.max(1, Math.min(heightOf(last), heightOf(word.box)));
      if (share <= best || word.box.x0 <= last.x0) continue;
      best = share;
      at = row;
    }
    if (at) at.push(word);
    else rows.push([word]);
  }
  return rows.map(rowOf).sort((a, b) => a.box.y0 + a.box.y1 - b.box.y0 - b.box.y1);
}

type Span = [from: number, to: number];

/** What of some spans is free in a row as well. */
function freeIn(spans: readonly Span[], { words }: Pick<Row, "words">, least: number): Span[] {
  let left = [...spans];
  for (const { box } of words)
    left = left.flatMap(([from, to]): Span[] => {
      if (box.x1 <= from || box.x0 >= to) return [[from, to]];
      return ([[from, box.x0], [box.x1, to]] as Span[]).filter(([a, b]) => b - a >= least);
    }); // prettier-ignore
  return left;
}

const amount = /^(?:[\d½⅓⅔¼¾⅛⅜⅝⅞.,/×x–-]+\p{L}{0,4}|\p{L}{1,4}\.?|%)$/iu;
const isAmount = (words: readonly PageWord[]): boolean =>
  words.length > 0 &&
  words.length <= 3 &&
  words.every(({ text }) => amount.test(text)) &&
  words.some(({ text }) => /[\d½⅓⅔¼¾⅛%]/.test(text));

/** The longest run of rows that a gutter goes through, with that gutter: rows on both sides of it, none across. */
function gutterIn(rows: readonly Row[], height: number): { from: number; to: number; at: number } | null {
  if (rows.length < GUTTER.rows) return null;
  const { x0, x1 } = around(rows.map(({ box }) => box));
  let best: { from: number; to: number; at: number; worth: number } | null = null;
  for (let from = 0; from < rows.length; from++) {
    let spans: Span[] = [[x0, x1]];
    for (let to = from; to < rows.length && spans.length > 0; to++) {
      spans = freeIn(spans, rows[to] ?? { words: [] }, GUTTER.wide * height);
      for (const [a, b] of spans) {
        const run = rows.slice(from, to + 1);
        const at = (a + b) / 2;
        const left = run.filter(({ words }) => words.some(({ box }) => box.x1 <= at)).length;
        const right = run.filter(({ words }) => words.some(({ box }) => box.x0 >= at)).length;
        const worth = Math.min(left, right);
        // One side may go on where the other has ended.
        const longer = best !== null && worth === best.worth && from === best.from;
        if (worth >= GUTTER.rows && (best === null || worth > best.worth || longer)) best = { from, to: to + 1, at, worth };
      }
    }
  }
  return best;
}

/** Blocks of a page in the order in which it is read: what stands over columns, the columns one after the other, what stands under them; a table row by row. */
export function blocksOf(words: readonly PageWord[]): Block[] {
  const rows = rowsOf(words);
  if (rows.length === 0) return [];
  const height = median(words.map(({ box }) => heightOf(box)));
  const gutter = gutterIn(rows, height);
  if (!gutter) return [{ rows, isTable: false }];
  const { from, to, at } = gutter;
  const run = rows.slice(from, to);
  const sides = run.map((row) => [row.words.filter(({ box }) => box.x1 <= at), row.words.filter(({ box }) => box.x0 >= at)] as const);
  const both = sides.filter(([left, right]) => left.length > 0 && right.length > 0).length;
  const columns = ([0, 1] as const).map((side) => sides.map((cell) => cell[side]).filter((cell) => cell.length > 0));
  const amounts = columns.map((cells) => cells.filter(isAmount).length / Math.max(1, cells.length));
  const isTable = both >= TABLE.both * run.length && Math.max(...amounts) >= TABLE.amounts;
  const wordsIn = (some: readonly Row[]): PageWord[] => some.flatMap((row) => row.words);
  return [
    ...blocksOf(wordsIn(rows.slice(0, from))),
    ...(isTable ? [{ rows: run, isTable }] : columns.flatMap((cells) => blocksOf(cells.flat()))),
    ...blocksOf(wordsIn(rows.slice(to))),
  ];
} // prettier-ignore

const beginsAnew = /^(?:[\d½⅓⅔¼¾⅛⅜⅝⅞%•●▪*·–—-]|\p{Lu}[\p{L}’']*:?$)/u;
/** A word of an amount that opens a line. */
const opensWithAmount = ({ words }: Row): boolean => /^[•●▪*·–—-]?\s*[\d½⅓⅔¼¾⅛⅜⅝⅞%]/u.test(words[0]?.text ?? "");

/**
 * Rows that go on: the last word of the one was followed by a break only because the first of the next had no room on it, and the next does not begin
 * something new.
 */
export function goesOn(before: Row, next: Row, { x0, x1: right }: Pick<Box, "x0" | "x1">): boolean {
  const first = next.words[0];
  if (!first || before.box.x1 - x0 < FULL * (right - x0)) return false;
  const blank = 0.3 * heightOf(before.box);
  const roomless = before.box.x1 + blank + (first.box.x1 - first.box.x0) > right;
  const close = next.box.y0 - before.box.y1 < 0.9 * Math.max(heightOf(before.box), heightOf(next.box));
  if (!roomless || !close) return false;
  if (/[-‐]$/.test(before.words.at(-1)?.text ?? "")) return true;
  if (opensWithAmount(next)) return !opensWithAmount(before) && before.words.length > 4;
  return !beginsAnew.test(first.text) || (before.words.length > 4 && !/[.!?:]$/.test(before.words.at(-1)?.text ?? ""));
}

/** The written lines of a block: rows that go on are one. */
export function linesOf({ rows, isTable }: Block): Row[][] {
  if (isTable) return rows.map((row) => [row]);
  const block = around(rows.map(({ box }) => box));
  const out: Row[][] = [];
  for (const row of rows) {
    const line = out.at(-1);
    const before = line?.at(-1);
    if (line && before && goesOn(before, row, block)) line.push(row);
    else out.push([row]);
  }
  return out;
}
