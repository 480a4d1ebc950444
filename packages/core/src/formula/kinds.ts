export const kinds = [
  "loaf",
  "muffin",
  "scone",
  "bun",
  "biscuit",
  "cornbread-plain",
  "cornbread-sweet",
  "bar",
  "tray-bread",
  "flatbread",
  "pourable-batter",
  "drop",
] as const;
export type Kind = (typeof kinds)[number];
export const kindName: Record<Kind, string> = {
  loaf: "Loaf",
  muffin: "Muffins",
  scone: "Scones",
  bun: "Buns",
  biscuit: "Biscuits",
  "cornbread-plain": "Cornbread, plain",
  "cornbread-sweet": "Cornbread, sweet",
  bar: "Bars",
  "tray-bread": "Tray bread",
  flatbread: "Flatbread",
  "pourable-batter": "Griddle cakes and other pourable batters",
  drop: "Dropped pieces",
};
/** One of a kind in a sentence: "a scone usually has …". */
export const oneOf: Record<Kind, string> = {
  loaf: "a loaf",
  muffin: "a muffin",
  scone: "a scone",
  bun: "a bun",
  biscuit: "a biscuit",
  "cornbread-plain": "plain cornbread",
  "cornbread-sweet": "sweet cornbread",
  bar: "a bar",
  "tray-bread": "tray bread",
  flatbread: "a flatbread",
  "pourable-batter": "a batter that is poured",
  drop: "a dropped piece",
};
const signs: [RegExp, Kind][] = [
  [/\bmuffins?\b|\bcup ?cakes?\b/i, "muffin"],
  [/\bdrop(?:ped)? scones?\b|\bpikelets?\b|\bcrumpets?\b|\bscotch pancakes?\b/i, "pourable-batter"],
  [/\bscones?\b/i, "scone"],
  [/\bdrop(?:ped)?\b.*\b(?:biscuits?|cookies?)\b|\bfritters?\b|\brock (?:cakes?|buns?)\b|\bdrops\b/i, "drop"],
  [/\bbiscuits?\b/i, "biscuit"],
  [/\b(?:sweet|honey|cake[- ]like)\b.*\b(?:corn|millet|polenta)\s?bread\b/i, "cornbread-sweet"],
  [/\b(?:corn|millet|polenta)\s?bread\b.*\b(?:sweet|honey|cake[- ]like)\b/i, "cornbread-sweet"],
  [/\b(?:corn|millet|polenta)\s?bread\b/i, "cornbread-plain"],
  [/\bpancakes?\b|\bgriddle|\bcr[eê]pes?\b|\bwaffles?\b|\bflapjacks?\b|\bblinis?\b/i, "pourable-batter"],
  [/\bbrownies?\b|\bblondies?\b|\bbars?\b|\bslice\b|\btray ?bakes?\b|\bparkin\b/i, "bar"],
  [/\bflat ?breads?\b|\btortillas?\b|\bwraps?\b|\bskillet bread\b|\bfarls?\b|\bbannocks?\b/i, "flatbread"],
  [/\btray\b.*\bbread\b|\btray ?bread\b|\bsheet\b.*\bcake\b|\bfocaccia\b/i, "tray-bread"],
  [/\bbuns?\b|\brolls?\b/i, "bun"],
  [/\bloaf\b|\bbread\b|\bcake\b/i, "loaf"],
];
/** A tin this wide for its length, and this large, holds a tray of bread and no loaf. */
const TRAY = { longest: 1.75, squareMm: 45_000 };
interface Spoken {
  title?: string | undefined;
  text: string;
  pan?: { shape: string; lengthMm?: number | undefined; widthMm?: number | undefined } | undefined;
}
/** The kind of bake that a recipe is of, guessed by its title, its pan and its words; a loaf where nothing tells. */
export function guessKind({ title = "", text, pan }: Spoken): Kind {
  // What a thing is cut into is told in its name; in a method it is only how it is cut.
  const named =
    kindFromWords(title) ??
    (/\bsquares\b|\bfingers\b|\bslices\b/i.test(title) ? "bar" : /\btray\b/i.test(title) ? "tray-bread" : null);
  const { shape, lengthMm = 0, widthMm = lengthMm } = pan ?? {};
  // "Flapjacks" are griddle cakes here and oat bars there: a tin tells which, and so do bars.
  if (/\bflapjacks?\b/i.test(title) && (shape === "rectangular" || /\b(?:bars?|squares|tray ?bake)\b/i.test(title))) return "bar";
  // A tray bake that is lifted is a sponge; one that is not, bars.
  if (/\btray ?bakes?\b/i.test(title) && !/\b(?:brownies?|blondies?|flapjacks?|oat|granola|crispy)\b/i.test(title) && lifted.test(text)) return "tray-bread"; // prettier-ignore
  if (named !== null && named !== "loaf") return named;
  if (shape === "muffin") return "muffin";
  // What is rolled or flattened for a griddle is bread, what is poured is not.
  if (named === null && shape === "griddle")
    return /\b(?:flatten|roll|pat)(?:ted|ed)? (?:it |them |each |out|to |into )/i.test(text) ? "flatbread" : "pourable-batter";
  const low = shape === "rectangular" && lengthMm * widthMm > TRAY.squareMm && lengthMm / Math.max(1, widthMm) < TRAY.longest;
  if (low && !/\bloaf\b/i.test(title)) return "tray-bread";
  if (named === null && shape === "free" && spooned.test(text)) return "drop";
  return named ?? kindFromWords(text) ?? "loaf";
}
const lifted = /\bself[\s-]?(?:raising|rising)\b|\bbaking powder\b/i;
const spooned = /\b(?:spoonfuls?|mounds?|heaps?|dollops?|drop (?:them|it|the|onto|on)|rough (?:heaps|piles))\b/i;
/** The kind of bake that a title or a text speaks of, or null. */
export function kindFromWords(text: string): Kind | null {
  return signs.find(([pattern]) => pattern.test(text))?.[1] ?? null;
}
