/** Rows of tables: of pipes, semicolons or commas as files have them, or of columns that tabs or runs of blanks set apart. */

const anAmount =
  /^(?:about |ca\.? |~)?[\d./,½¼¾⅓⅔⅛\s-]*\d[\d./,½¼¾⅓⅔⅛\s]*(?:\p{L}{1,12}\.?)?(?:\s*\([^)]*\))?$|^[½¼¾⅓⅔⅛]\s*\p{L}{1,12}\.?$/u;

/** A row of a table as a line: "| tapioca starch | 60 g | sifted |" is "60 g tapioca starch, sifted"; of several amounts the first counts. */
export function withoutTable(text: string): string {
  if (
    !/^\s*\|.*\||\|[^|]*\|/.test(text) &&
    !/\|\s*[\d.,/]+\s*\|?\s*\p{L}{1,5}\.?\s*$|^\s*[\d.,/]+\s*\|\s*\p{L}{1,5}\.?\s*\|/u.test(text)
  )
    return text;
  const cells = text
    .split("|")
    .map((cell) => cell.trim())
    .filter((cell) => cell !== "");
  const flat = cells.join(" ");
  // A number and its unit may stand in cells of their own.
  const at = cells.findIndex((cell) => anAmount.test(cell));
  const figures = (cell: string | undefined): boolean => /^[\d./,\s]+$/.test(cell ?? "x");
  const isUnit = (k: number): boolean => cells.length > 2 && figures(cells[k - 1]) && /^\p{L}{1,5}\.?$/u.test(cells[k] ?? "");
  const name = cells.find((cell, k) => !figures(cell) && !anAmount.test(cell) && !isUnit(k));
  if (at < 0 || name === undefined) return flat;
  const amount = figures(cells[at]) && isUnit(at + 1) ? `${cells[at]} ${cells[at + 1]}` : (cells[at] ?? "");
  const rest = cells.filter((cell) => cell !== name && !amount.includes(cell) && !anAmount.test(cell));
  return [`${amount} ${name}`, ...rest].join(", ");
}

const cellsOf = (line: string): string[] =>
  line.includes("|") ? line.split("|").map((cell) => cell.trim()).filter((cell) => cell !== "") : line.trim().split(/\t+|\s{2,}/); // prettier-ignore

/** The amounts of a row that has one for each of several batches; none where it is no such row. A number whose unit has a cell of its own is one amount. */
function amountsIn(line: string): string[] {
  const cells = cellsOf(line);
  const amounts = cells.filter((cell) => anAmount.test(cell));
  const apart = cells.some((cell, k) => /^[\d./,\s]+$/.test(cell) && /^\p{L}{1,5}\.?$/u.test(cells[k + 1] ?? ""));
  return amounts.length > 1 && !apart && amounts.length >= cells.length - 2 && /^\p{L}/u.test(cells[0] ?? "") ? amounts : [];
}

const FEWEST_ROWS = 3;

/** The batches that a table gives amounts for, by their heads or in their order; none where it gives one. */
export function batchesIn(text: string): string[] {
  const lines = text.split("\n");
  const rows = lines.map((line) => amountsIn(line).length);
  const many = Math.max(0, ...rows);
  if (many < 2 || rows.filter((count) => count === many).length < FEWEST_ROWS) return [];
  const first = rows.indexOf(many);
  const head = lines.slice(0, first).reverse().map(cellsOf).find((cells) => cells.length === many + 1 && cells.every((cell) => /\p{L}/u.test(cell))); // prettier-ignore
  return Array.from({ length: many }, (_, k) => head?.[k + 1] ?? `batch ${k + 1}`);
}

/** A row with the amount of one of several batches alone; any other line as it stands. */
export function ofBatch(line: string, batch: number): string {
  const amounts = amountsIn(line);
  const amount = amounts[batch];
  if (amount === undefined) return line;
  const rest = cellsOf(line).filter((cell) => !amounts.includes(cell));
  return line.includes("|") ? `| ${[rest[0], amount, ...rest.slice(1)].join(" | ")} |` : `${amount} ${rest.join(", ")}`;
}

/** Columns that blanks set apart: a name, and an amount for each of several batches, of which the first counts. */
export function withoutColumns(text: string): string {
  const set = text.trim().split(/\t+|\s{2,}/);
  return set.length > 2 && /^\p{L}/u.test(set[0] ?? "") && set.slice(1).every((cell) => anAmount.test(cell))
    ? `${set[1] ?? ""} ${set[0] ?? ""}`
    : text;
}

const bareNumber = /^\s*[\d./,½¼¾⅓⅔⅛]+\s*$/;
const isFileRow = (line: string, sign: string): boolean => {
  const cells = line.split(sign);
  const unsigned = cells.every((cell) => cell.length < 40);
  return unsigned && cells.length > 1 && cells.some((cell) => /\p{L}{3}/u.test(cell)) && cells.some((cell) => bareNumber.test(cell) || anAmount.test(cell.trim()));
}; // prettier-ignore

/** The cells of a row in their places, empty ones too. */
const placesOf = (line: string): string[] =>
  line.includes("|")
    ? line.trim().replace(/^\||\|$/g, "").split("|").map((cell) => cell.trim())
    : line.trim().split(line.includes("\t") ? /\t/ : /\s{2,}/); // prettier-ignore
const nameHead = /^(?:ingredients?|items?|materials?|what|name|product|zutat(?:en)?|ingrédients?|ingredientes?|ingredienti)$/i;
const shareHead = /%|\bper ?cent\b|^baker'?s'?$/i;
const unitHead = /(?:^|[\s([/])(g|gr|grams?|gramm|grammes|kg|ml|oz|lbs?)\.?\s*[)\]]?$/i;

/** A table whose head says what its columns are: a share beside an amount is no amount, and a figure has the unit of its head. */
function withHeads(text: string): string {
  const lines = text.split("\n");
  const at = lines.findIndex((line) => {
    const heads = placesOf(line);
    return heads.length > 1 && heads.some((head) => nameHead.test(head)) && heads.every((head) => !/\d/.test(head)) && heads.some((head) => shareHead.test(head) || unitHead.test(head));
  });
  if (at < 0) return text;
  const heads = placesOf(lines[at] ?? "");
  const units = heads.map((head) => (shareHead.test(head) ? undefined : unitHead.exec(head)?.[1]));
  const drops = heads.map((head) => shareHead.test(head) && heads.some((other) => !shareHead.test(other) && !nameHead.test(other)));
  for (let n = at + 1; n < lines.length; n++) {
    const line = lines[n] ?? "";
    const cells = placesOf(line);
    if (cells.length !== heads.length || cells.every((cell) => !/\p{L}/u.test(cell))) {
      if (/\p{L}/u.test(line) || line.trim() === "") break;
      continue;
    }
    const kept = cells.map((cell, k) => (units[k] !== undefined && bareNumber.test(cell) ? `${cell} ${units[k]}` : cell)).filter((_, k) => !drops[k]);
    lines[n] = line.includes("|") ? `| ${kept.join(" | ")} |` : kept.join("   ");
  }
  return lines.join("\n");
} // prettier-ignore

/** "rice flour 150 • potato flour 100", "rice fl 90 | millet fl 60": signs between the things of one line, each with its figure. */
function dotted(line: string): string {
  if (/\S\s+[•●▪∙]\s+\S/.test(line)) return line.replace(/(\S)\s+[•●▪∙]\s+(?=\S)/g, "$1, ");
  const things = line.split("|");
  const items = things.filter((thing) => /\p{L}{2}/u.test(thing) && /\d/.test(thing) && !anAmount.test(thing.trim()));
  return things.length > 1 &&
    things.length - items.length <= (things.length > 2 ? 1 : 0) &&
    things.every((thing) => thing.trim() !== "")
    ? things.map((thing) => thing.trim()).join(", ")
    : line;
}

/**
 * A text line by line as its table says it: rows that semicolons or commas set apart, as spreadsheets write them, have strokes in their place; figures have
 * the unit of their head.
 */
export const asRows = (text: string): string => withHeads(stroked(text)).split("\n").map(dotted).join("\n");

function stroked(text: string): string {
  const lines = text.replace(/"/g, " ").split("\n");
  for (const sign of [";", ","]) {
    // "2 eggs, beaten" has a comma, too: a file has a number in a cell of its own, and the same cells in every row.
    const rows = lines.filter((line) => isFileRow(line, sign) && line.split(sign).length > (sign === "," ? 2 : 1) && (sign === ";" || line.split(sign).some((cell) => bareNumber.test(cell)))); // prettier-ignore
    const cells = rows[0]?.split(sign).length ?? 0;
    if (rows.length < FEWEST_ROWS || rows.some((line) => line.split(sign).length !== cells)) continue;
    return lines.map((line) => (line.split(sign).length === cells ? line.replaceAll(sign, "|") : line)).join("\n");
  }
  return text;
}

/** "farina di riso g 150", "uova n. 2": the unit before its number, behind the name; as a line that begins with its amount. */
const unitFirst =
  /^(\s*(?:[-*•]\s*)?)(\p{L}[^\d:;|()]{0,60}?)[\s,.]{1,8}(g|gr|kg|ml|cl|dl|l|n|nr|nº|n°)\.?\s*(\d+(?:[.,/]\d+)?)(?![\d%°])(.*)$/iu;
export const amountFirst = (line: string): string =>
  line.replace(unitFirst, (_, lead: string, name: string, unit: string, figure: string, rest: string) => `${lead}${figure} ${/^n/i.test(unit) ? "" : `${unit} `}${name}${rest}`); // prettier-ignore
