import Papa from "papaparse";
import { CoreError } from "../errors";

/** A cell that a spreadsheet would take for a formula begins with one of these; it is told by an apostrophe that it is none. */
const LIKE_FORMULA = /^[=+\-@\t\r]/;
const MOST_ROWS = 20_000;
const MOST_COLUMNS = 200;

export type Cell = string | number | boolean | null;

/** A table as CSV by RFC 4180: head first, lines end in CR LF, every cell safe in a spreadsheet, UTF-8 with its mark. */
export function tableText(head: readonly string[], rows: readonly (readonly Cell[])[]): string {
  const safe = (cell: Cell): Cell => (typeof cell === "string" && LIKE_FORMULA.test(cell) ? `'${cell}` : cell);
  const body = Papa.unparse(
    { fields: head.map((cell) => String(safe(cell))), data: rows.map((row) => row.map(safe)) },
    { newline: "\r\n" },
  );
  return `\uFEFF${body}\r\n`;
}

export interface ReadTable {
  head: string[];
  rows: string[][];
  delimiter: string;
}

/** A table out of a text, with its head; comma, semicolon or tab as it is. Throws `bad-table` where it is none. */
export function readTable(text: string): ReadTable {
  const { data, meta, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { skipEmptyLines: "greedy" });
  const quotes = errors.find(({ type }) => type === "Quotes");
  if (quotes)
    throw new CoreError("bad-table", `A quotation mark in line ${(quotes.row ?? 0) + 1} is not closed; two marks inside of one cell would be right.`, "text");
  const [head, ...rows] = data;
  if (!head || head.length < 2 || rows.length === 0)
    throw new CoreError("bad-table", "A table has a line of headings and one line or more under it, with two columns or more.", "text");
  if (rows.length > MOST_ROWS || head.length > MOST_COLUMNS)
    throw new CoreError("bad-table", `This table has ${rows.length} lines and ${head.length} columns; up to ${MOST_ROWS} and ${MOST_COLUMNS} would be right.`, "text");
  const plain = (cell: string): string => (cell.startsWith("'") && LIKE_FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell).trim();
  return { head: head.map(plain), rows: rows.map((row) => head.map((_, k) => plain(row[k] ?? ""))), delimiter: meta.delimiter };
} // prettier-ignore

/** Whether a text looks like a table: its first lines have the same number of cells, two at least, by one mark. */
export function looksLikeTable(text: string): boolean {
  const lines = text.replace(/^\uFEFF/, "").split(/\r?\n/).filter((line) => line.trim() !== "").slice(0, 6); // prettier-ignore
  return [",", ";", "\t"].some((mark) => {
    const counts = lines.map((line) => line.replace(/"[^"]*"/g, "").split(mark).length);
    return lines.length > 1 && (counts[0] ?? 0) > 1 && counts.every((count) => count === counts[0]);
  });
}
