import type { Item } from "../formula/resolve";
import type { Range } from "../measure/range-schema";

/** What a crumb's pH means to the tongue, the eye and the knife. */
export interface Meaning {
  aspect: "taste" | "browning" | "crumb" | "colour";
  text: string;
}

interface Step {
  /** Applies up to this pH. */
  upTo: number;
  text: string;
}

/** Edges in pH as the trade has them, confidence C; the words are one place for the whole application. */
const taste: Step[] = [
  { upTo: 5.5, text: "plainly sour" },
  { upTo: 6.3, text: "tangy" },
  { upTo: 7.6, text: "mild" },
  { upTo: 8.2, text: "flat, with a first hint of soda" },
  { upTo: 8.8, text: "soapy at the edge" },
  { upTo: 14, text: "soapy and metallic" },
];
const browning: Step[] = [
  { upTo: 6, text: "pale: browning is slow in a sour crumb" },
  { upTo: 7.6, text: "golden" },
  { upTo: 8.4, text: "dark" },
  { upTo: 14, text: "very dark before the middle is done" },
];
const crumb: Step[] = [
  { upTo: 5.5, text: "tight, since acid sets egg early" },
  { upTo: 8, text: "as its flours make it" },
  { upTo: 14, text: "coarse and tender, starch swells more in alkali" },
];
const anthocyanin: Step[] = [
  { upTo: 6, text: "red fruit stays pink" },
  { upTo: 7.2, text: "red fruit turns mauve" },
  { upTo: 14, text: "red fruit turns blue-grey" },
];
const cocoa: Step[] = [
  { upTo: 6.5, text: "cocoa stays light brown" },
  { upTo: 7.6, text: "cocoa turns red-brown" },
  { upTo: 14, text: "cocoa turns nearly black" },
];

const at = (steps: Step[], ph: number): string => steps.find((step) => ph <= step.upTo)?.text ?? "";

/** The word at the middle of the range, and the one at its end where that is another. */
function spread(steps: Step[], ph: Range): string {
  const mid = at(steps, ph.mid);
  const others = [at(steps, ph.low), at(steps, ph.high)].filter((text, i, all) => text !== mid && all.indexOf(text) === i);
  return others.length === 0 ? mid : `${mid}; perhaps ${others.join(" or ")}`;
}

/** What the pH of a crumb means, with the pigments that are really in it. */
export function meaningOf(items: readonly Item[], ph: Range): Meaning[] {
  const has = (pigment: string): boolean =>
    items.some((item) => item.massG > 0 && item.ingredient.pigments?.some((p) => p === pigment));
  const out: Meaning[] = [
    { aspect: "taste", text: spread(taste, ph) },
    { aspect: "browning", text: spread(browning, ph) },
    { aspect: "crumb", text: spread(crumb, ph) },
  ];
  if (has("anthocyanin")) out.push({ aspect: "colour", text: spread(anthocyanin, ph) });
  if (has("cocoa")) out.push({ aspect: "colour", text: spread(cocoa, ph) });
  if (has("betalain"))
    out.push({
      aspect: "colour",
      text: ph.mid > 8 ? "beetroot turns yellow-brown in alkali" : "beetroot keeps its red until heat browns it",
    });
  if (has("chlorogenic"))
    out.push({
      aspect: "colour",
      text: ph.high > 8 ? "sunflower seeds and some nuts may turn green" : "seeds and nuts keep their colour",
    });
  return out;
}
