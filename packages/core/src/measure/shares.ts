/** Bench sheets that give each thing as a share of the flour, with the mass of the flour or of the whole batter said once. */

/** A thing and its share of the flour. */
const share = /^\s*(?:[-*•]\s*)?(\p{L}(?:[^\d%:|]{0,60}?[^\d%:|\s])?)[\s:|=–-]+(\d+(?:[.,]\d+)?)\s*(%?)\s*\|?\s*$/u;
/** A sheet that says what its figures are needs no sign behind each. */
const sheet = /\bbakers?['’]?s?['’]?\s*(?:%|per\s?cents?\b|percentages?\b)|(?:%|per\s?cent)\s+(?:of|on)\s+(?:the\s+)?flour\b/i;
const mass = "(\\d+(?:[.,]\\d+)?)\\s*(g|gr|kg)\\b";
const ofFlour = new RegExp(`^(?=[^%\\n]*$)[^\\n]*?\\b(?:total|all|flours?)\\b[^\\d\\n]{0,30}${mass}|^[^%\\n\\d]*${mass}\\s+(?:of\\s+)?(?:total\\s+)?flours?\\b|\\b100\\s*%\\s*=\\s*${mass}`, "im"); // prettier-ignore
const ofBatter = new RegExp(`\\b(?:batter|dough|batch|scale[ds]?(?:\\s+at)?|total)\\b[^\\d%\\n]{0,20}${mass}`, "i");
const FEWEST = 4;
const bracket = /\([^()]*\)/g;

/** The things of a row with their shares, one or several behind commas; null where it holds anything else. */
function sharesIn(line: string, signless: boolean): { name: string; percent: number }[] | null {
  // A bracket that says of how much they are is no part of a name; any other is: "milk (oat) 90 %".
  const parts = line.replace(bracket, (inside) => (ofFlour.test(inside) ? " " : inside)).split(/,\s/).map((part) => share.exec(part));
  const read = parts.map((found) => (found && (signless || found[3] === "%") ? { name: found[1] ?? "", percent: figure(found[2] ?? "") } : null));
  return read.every((one) => one !== null) ? read : null;
} // prettier-ignore

const figure = (text: string): number => Number(text.replace(",", "."));
const gramsIn = (found: RegExpExecArray | null): number | null => {
  const at = found ? found.findIndex((part, k) => k > 0 && part !== undefined) : -1;
  return found && at > 0 ? figure(found[at] ?? "") * (/^kg$/i.test(found[at + 1] ?? "") ? 1000 : 1) : null;
};

export interface Shares {
  /** g that one per cent is. */
  gramsPerPercent: number;
  /** Its figures are shares without a sign. */
  signless: boolean;
  /** The line that says of how much the shares are: no thing of the list. */
  saidIn: string;
}

/** What a per cent of a sheet is in grams: of the flour where its mass is said, else of the batter by the sum of its shares. Null where no such sheet is read. */
export function sharesOf(text: string): Shares | null {
  const lines = text.split("\n");
  const signless = sheet.test(text);
  const percents = lines.flatMap((line) => sharesIn(line, signless)?.map(({ percent }) => percent) ?? []);
  if (percents.length < FEWEST) return null;
  // Of how much they are stands in a line of its own, or in the bracket of a row.
  const others = lines.flatMap((line) => (sharesIn(line, signless) === null ? [line] : (line.match(bracket) ?? [])));
  for (const [said, per] of [[ofFlour, 100], [ofBatter, percents.reduce((sum, one) => sum + one, 0)]] as const) {
    const line = others.find((one) => gramsIn(said.exec(one)) !== null);
    const grams = line === undefined ? null : gramsIn(said.exec(line));
    if (line !== undefined && grams !== null && grams > 20) return { gramsPerPercent: grams / per, signless, saidIn: line };
  }
  return null;
} // prettier-ignore

/** A row of shares as one with its grams; any other as it stands. */
export const inGrams = (line: string, { gramsPerPercent, signless }: Shares): string =>
  sharesIn(line, signless)
    ?.map(({ name, percent }) => `${Math.round(percent * gramsPerPercent * 100) / 100} g ${name}`)
    .join(", ") ?? line;
