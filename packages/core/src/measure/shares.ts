/** Bench sheets that give each thing as a share of the flour, with the mass of the flour or of the whole batter said once. */

const share = /^(\s*(?:[-*•]\s*)?)(\p{L}[^\d%:|]*?)[\s:|=–-]+(\d+(?:[.,]\d+)?)\s*%\s*\|?\s*$/u;
const mass = "(\\d+(?:[.,]\\d+)?)\\s*(g|gr|kg)\\b";
const ofFlour = new RegExp(`^(?=[^%\\n]*$)[^\\n]*?\\b(?:total|all|flours?)\\b[^\\d\\n]{0,30}${mass}|^[^%\\n\\d]*${mass}\\s+(?:of\\s+)?(?:total\\s+)?flours?\\b|\\b100\\s*%\\s*=\\s*${mass}`, "im"); // prettier-ignore
const ofBatter = new RegExp(`\\b(?:batter|dough|batch|scale[ds]?(?:\\s+at)?|total)\\b[^\\d%\\n]{0,20}${mass}`, "i");
const FEWEST = 4;

const figure = (text: string): number => Number(text.replace(",", "."));
const gramsIn = (found: RegExpExecArray | null): number | null => {
  const at = found ? found.findIndex((part, k) => k > 0 && part !== undefined) : -1;
  return found && at > 0 ? figure(found[at] ?? "") * (/^kg$/i.test(found[at + 1] ?? "") ? 1000 : 1) : null;
};

export interface Shares {
  /** g that one per cent is. */
  gramsPerPercent: number;
  /** The line that says of how much the shares are: no thing of the list. */
  saidIn: string;
}

/** What a per cent of a sheet is in grams: of the flour where its mass is said, else of the batter by the sum of its shares. Null where no such sheet is read. */
export function sharesOf(text: string): Shares | null {
  const lines = text.split("\n");
  const percents = lines.flatMap((line) => (share.exec(line)?.[3] === undefined ? [] : [figure(share.exec(line)?.[3] ?? "")]));
  if (percents.length < FEWEST) return null;
  const others = lines.filter((line) => !share.test(line));
  for (const [said, per] of [[ofFlour, 100], [ofBatter, percents.reduce((sum, one) => sum + one, 0)]] as const) {
    const line = others.find((one) => gramsIn(said.exec(one)) !== null);
    const grams = line === undefined ? null : gramsIn(said.exec(line));
    if (line !== undefined && grams !== null && grams > 20) return { gramsPerPercent: grams / per, saidIn: line };
  }
  return null;
} // prettier-ignore

/** A line with a share as one with its grams; any other as it stands. */
export const inGrams = (line: string, { gramsPerPercent }: Shares): string =>
  line.replace(
    share,
    (_, lead: string, name: string, percent: string) =>
      `${lead}${Math.round(figure(percent) * gramsPerPercent * 100) / 100} g ${name}`,
  );
