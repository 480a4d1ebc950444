import { plainText } from "./quantity";

/** A pan as a text names it; the shape words are those of a vessel in the pantry. */
export interface ReadPan {
  shape: "rectangular" | "round" | "muffin" | "ring" | "free" | "griddle";
  lengthMm?: number;
  widthMm?: number;
  heightMm?: number;
  diameterMm?: number;
  pieces?: number;
  material?: "dark-steel" | "cast-iron" | "glass" | "ceramic" | "silicone";
  lining?: "greased" | "paper" | "paper-cups";
  preheated?: boolean;
}

const mm = (value: string | undefined, unit: string): number => {
  const factor = /^cm/i.test(unit) ? 10 : /^mm/i.test(unit) ? 1 : 25.4;
  return Math.round(Number(value) * factor);
};

const unit = String.raw`[\s-]*(inch(?:es)?|in\b\.?|"|''|cm|mm)`;
const sides = new RegExp(
  String.raw`(\d+(?:\.\d+)?)\s*(?:cm|inch|in|")?\s*(?:x|by)\s*(\d+(?:\.\d+)?)(?:\s*(?:x|by)\s*(\d+(?:\.\d+)?))?${unit}`,
  "i",
);
const across = new RegExp(
  String.raw`(\d+(?:\.\d+)?)${unit}[\s-]*(?:deep\s+|non-?stick\s+|light\s+|cast[\s-]iron\s+)*(round|square|springform|cake|sandwich|skillet|frying|ring|bundt|pie|tin|pan|tart)`,
  "i",
);

/** The pan said in a text, or null. Measures in mm. */
export function readPan(source: string): ReadPan | null {
  const text = plainText(source);
  if (!/\b(?:tin|pan|tray|dish|sheet|skillet|mou?ld|cases|griddle|loaf|springform|cups?[\s-]muffin)\b/i.test(text)) return null;
  const about = surface(text);
  const muffin = /\bmuffin\s+(?:tin|pan|tray|cases|cups?|mou?lds?)|\bcupcake\s+(?:tin|pan|cases)/i.test(text);
  if (muffin) {
    const holes = /(\d{1,2})[\s-]*(?:hole|cup|well)?s?[\s-]+(?:mini\s+|jumbo\s+|standard\s+|silicone\s+)?(?:muffin|cupcake)/i.exec(
      text,
    );
    const size = /\bmini\b/i.test(text)
      ? { diameterMm: 45, heightMm: 22 }
      : /\bjumbo|large cup/i.test(text)
        ? { diameterMm: 90, heightMm: 48 }
        : { diameterMm: 70, heightMm: 34 };
    const lined = /\b(?:cases|liners|paper)\b/i.test(text) ? { lining: "paper-cups" as const } : {};
    return { shape: "muffin", ...size, pieces: holes ? Number(holes[1]) : 12, ...about, ...lined };
  }
  const rectangle = sides.exec(text);
  if (rectangle?.[4]) {
    const [, a, b, c, u] = rectangle;
    const lengths = [mm(a, u ?? ""), mm(b, u ?? "")].sort((x, y) => y - x);
    const height = c === undefined ? (/loaf/i.test(text) ? 70 : 50) : mm(c, u ?? "");
    return { shape: "rectangular", lengthMm: lengths[0] ?? 0, widthMm: lengths[1] ?? 0, heightMm: height, ...about };
  }
  const one = across.exec(text);
  if (one?.[1] && one[2] && one[3]) {
    const size = mm(one[1], one[2]);
    if (/square/i.test(text)) return { shape: "rectangular", lengthMm: size, widthMm: size, heightMm: 50, ...about };
    if (/ring|bundt/i.test(one[3])) return { shape: "ring", diameterMm: size, heightMm: 90, ...about };
    return { shape: "round", diameterMm: size, heightMm: 50, ...about };
  }
  const pounds = /\b(1|2|one|two)[\s-]*lb\b[^.]*\bloaf/i.exec(text);
  if (pounds) {
    const big = /2|two/i.test(pounds[1] ?? "");
    return { shape: "rectangular", lengthMm: big ? 210 : 155, widthMm: big ? 110 : 90, heightMm: big ? 68 : 65, ...about };
  }
  if (/\bloaf\s+(?:tin|pan)\b/i.test(text)) return { shape: "rectangular", lengthMm: 230, widthMm: 130, heightMm: 70, ...about };
  if (/\b(?:griddle|frying pan)\b/i.test(text)) return { shape: "griddle", ...about };
  if (/\b(?:baking|cookie|oven)\s+(?:sheet|tray)\b/i.test(text)) return { shape: "free", ...about };
  return null;
}

function surface(text: string): Pick<ReadPan, "material" | "lining" | "preheated"> {
  const out: Pick<ReadPan, "material" | "lining" | "preheated"> = {};
  if (/cast[\s-]?iron|skillet/i.test(text)) out.material = "cast-iron";
  else if (/\bglass\b|pyrex/i.test(text)) out.material = "glass";
  else if (/ceramic|stoneware/i.test(text)) out.material = "ceramic";
  else if (/silicone/i.test(text)) out.material = "silicone";
  else if (/\bdark\b/i.test(text)) out.material = "dark-steel";
  if (/\b(?:lined?|parchment|baking paper)\b/i.test(text)) out.lining = "paper";
  else if (/\bgreased?\b/i.test(text)) out.lining = "greased";
  if (/\bhot (?:skillet|pan)|preheated (?:skillet|pan)/i.test(text)) out.preheated = true;
  return out;
}
