/**
 * What a scan makes of figures: l and I for 1, O for 0, within a number or where only a number can stand. Each is a reading of its own, not what
 * is written: whoever takes it asks.
 */
const figure =
  /(?<![\p{L}\d'’])(?=[\dlIO]*\d|[lIO]+(?:[lIO\d]|\/\d))([\dlIO]+)(?=\/|(?:\s?(?:g|kg|ml|cl|cm|mm|oz|lb|°|C\b|F\b|min|%|x\b))|\s|$|[-–.,;:)])/gu;
/** A lone l before a measure, or before a fraction: "l cup", "l 1/2 cups". */
const lone = /(?<![\p{L}\d.,'’])[lI](?=\/[2-8](?!\d)|\s+(?:\d\/\d|[lI]\/\d|cups?\b|c\.\s|tsps?\b|tbsps?\b|teaspoons?\b|tablespoons?\b|pinch|large\b|medium\b|small\b|eggs?\b|stick\b|pkg|lb\b|oz\b))/gu; // prettier-ignore
const inWord = /(?<=\p{L}{2})1(?![\p{L}\d])|(?<=\p{L})1(?=\p{L})|(?<!\p{L}|\d)0(?=\p{L}{2})|(?<=\p{L})0(?=\p{L}{2})/gu;

const digit: Record<string, string> = { l: "1", I: "1", O: "0" };

/** A litre stays one: "5l", "1 l". */
const isLitre = (text: string): boolean => /^\d+l$/.test(text) || text === "l";

export interface Scanned {
  text: string;
  /** What was read otherwise than it stands, and as what. */
  changed: [string, string][];
}

export function asScanned(text: string): Scanned {
  if (!/\d[lIO]|(?<!\p{L})[lIO]+(?:[\d/lIO]|\s)|\p{L}[01]|0\p{L}/u.test(text)) return { text, changed: [] };
  const changed: [string, string][] = [];
  const take = (was: string, is: string): string => {
    if (was !== is) changed.push([was, is]);
    return is;
  };
  const mended = text
    .replace(lone, (was) => take(was, "1"))
    .replace(figure, (was) =>
      isLitre(was)
        ? was
        : take(
            was,
            was.replace(/[lIO]/g, (sign) => digit[sign] ?? sign),
          ),
    )
    .replace(inWord, (was) => take(was, was === "1" ? "l" : "o"));
  return { text: mended, changed };
}
