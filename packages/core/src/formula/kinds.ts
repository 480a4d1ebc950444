import { z } from "zod";

export const kinds = [
  "loaf", "muffin", "scone", "bun", "biscuit", "cornbread-plain", "cornbread-sweet", "bar", "tray-bread", "flatbread",
  "pourable-batter", "drop",
] as const; // prettier-ignore
export const kindSchema = z.enum(kinds);
export type Kind = z.infer<typeof kindSchema>;

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

const signs: [RegExp, Kind][] = [
  [/\bmuffins?\b|\bcup ?cakes?\b/i, "muffin"],
  [/\bscones?\b/i, "scone"],
  [/\bdrop(?:ped)?\b.*\b(?:biscuits?|cookies?)\b|\bfritters?\b|\brock cakes?\b/i, "drop"],
  [/\bbiscuits?\b/i, "biscuit"],
  [/\b(?:sweet|honey|cake[- ]like)\b.*\b(?:corn|millet|polenta)\s?bread\b/i, "cornbread-sweet"],
  [/\b(?:corn|millet|polenta)\s?bread\b/i, "cornbread-plain"],
  [/\bpancakes?\b|\bgriddle|\bcr[eê]pes?\b|\bwaffles?\b|\bflapjacks?\b|\bblinis?\b/i, "pourable-batter"],
  [/\bbrownies?\b|\bblondies?\b|\bbars?\b|\bslice\b|\btraybakes?\b/i, "bar"],
  [/\bflat ?breads?\b|\btortillas?\b|\bwraps?\b|\bskillet bread\b/i, "flatbread"],
  [/\btray\b.*\bbread\b|\btray ?bread\b|\bsheet\b.*\bcake\b|\bfocaccia\b/i, "tray-bread"],
  [/\bbuns?\b|\brolls?\b/i, "bun"],
  [/\bloaf\b|\bbread\b|\bcake\b/i, "loaf"],
];

/** The kind of bake that a title or a text speaks of, or null. */
export function kindFromWords(text: string): Kind | null {
  return signs.find(([pattern]) => pattern.test(text))?.[1] ?? null;
}
