import { unitMm } from "./grammar/lengths";
import { value } from "./grammar/numbers";
import { plainText, type Token, tokensOf } from "./grammar/tokens";
import { piecesIn } from "./pieces-text";

/** A pan as a text names it; the shape words are those of a vessel in the pantry. Only what the text says has a measure. */
export interface ReadPan {
  shape: "rectangular" | "round" | "muffin" | "ring" | "free" | "griddle";
  lengthMm?: number;
  widthMm?: number;
  heightMm?: number;
  diameterMm?: number;
  pieces?: number;
  material?: "dark-steel" | "cast-iron" | "glass" | "ceramic" | "silicone";
  lining?: "greased" | "greased-base" | "paper" | "paper-cups" | "none";
  preheated?: boolean;
  touching?: boolean;
}

const panWord =
  /\b(?:tins?|pans?|trays?|dish(?:es)?|sheets?|skillets?|mou?lds?|cases|griddle|loaf|springform|rounds?|bundt|casserole|wells?|ramekins?|darioles?|muffin cups?|tawa|gastronorms?|GN ?1\/[123])\b/i;
const vesselWord = /\b(?:tins?|pans?|trays?|dish(?:es)?|sheets?|skillets?|mou?lds?|griddle|springform|stone)\b/i;
/** A can of something, or where a thing is kept. */
const noPan =
  /\b(?:tin|can)s? of\b(?!\s*\d+(?:\.\d+)?\s*(?:x|by|cm|mm|in))|\bin (?:a|an airtight) tin\b|\bkeeps?\b|\bcutters?\b|\bcool(?:s|ing|ed)? (?:it |them )?(?:completely )?in the (?:tin|pan|tray)\b|\bin the (?:tin|pan|tray)\b[^.;]{0,16}\bcool/i;

interface Length {
  mm: number;
  start: number;
  next: number;
  /** It had a unit of its own. */
  own: boolean;
}

const round = (mm: number): number => Math.round(mm);

/** The shortest side of a tin's base, mm. */
const LEAST_SIDE_MM = 50;

/** "9x5x3-inch", "8½ x 4½-inch", "30 x 20 cm", "nine by thirteen", "25 cm long, 11 cm wide". */
function sidesIn(tokens: readonly Token[]): { sides: number[]; at: number; next: number } | null {
  for (let at = 0; at < tokens.length; at++) {
    const numbers: { n: number; unit: number | null }[] = [];
    let next = at;
    for (;;) {
      const found = value(tokens, next);
      if (!found || found.value <= 0) break;
      let after = found.next;
      if (tokens[after]?.text === "-") after++;
      const unit = unitMm(tokens[after], tokens[after + 1]);
      if (unit !== null) after++;
      numbers.push({ n: found.value, unit });
      const by = tokens[after]?.lower ?? "";
      if (by !== "x" && by !== "by" && by !== "*") {
        next = after;
        break;
      }
      next = after + 1;
    }
    if (numbers.length < 2) continue;
    const unit =
      numbers.map((each) => each.unit).find((each) => each !== null) ??
      (numbers.every(({ n }) => n <= 20) ? 25.4 : numbers.every(({ n }) => n <= 60) ? 10 : 1);
    const sides = numbers.map((each) => each.n * (each.unit ?? unit));
    // "One by one" is no tin: its base is wider than that, its rim may be low.
    if (sides.every((mm, k) => mm >= (k < 2 ? LEAST_SIDE_MM : 20) && mm <= 900)) return { sides, at, next };
  }
  return null;
}

function lengthsIn(tokens: readonly Token[]): Length[] {
  const out: Length[] = [];
  for (let at = 0; at < tokens.length; at++) {
    const found = value(tokens, at);
    if (!found) continue;
    let next = found.next;
    if (tokens[next]?.text === "-") next++;
    const unit = unitMm(tokens[next], tokens[next + 1]);
    if (unit === null) continue;
    out.push({ mm: found.value * unit, start: at, next: next + 1, own: true });
    at = next;
  }
  return out;
}

const notACount = /^(?:x|by|lbs?|pounds?|g|kg|oz|ounces?|ml|l|litres?|liters?|quarts?|pints?|cups?|minutes?|mins?|hours?)$/;

/** A number of vessels or wells that stands before one of some words, with up to four words or a measure between. */
function countBefore(text: string, words: string): number | null {
  const word = new RegExp(`^(?:${words})$`, "i");
  const tokens = tokensOf(text);
  for (let at = 0; at < tokens.length; at++) {
    const number = value(tokens, at);
    if (!number || !Number.isInteger(number.value) || number.value < 1 || number.value > 200) continue;
    // "Makes 16 in an 8 in tin" counts what comes out of it.
    if (/^(?:makes?|serves?|yields?|gives?)$/.test(tokens[at - 1]?.lower ?? "")) continue;
    // The second side of "9 x 5 pan" is no count of pans.
    if (/^(?:x|by|\*)$/.test(tokens[at - 1]?.lower ?? tokens[at - 1]?.text ?? "")) continue;
    let next = tokens[number.next]?.text === "-" ? number.next + 1 : number.next;
    const behind = tokens[next]?.lower ?? "";
    // Behind a measure, a mass or a content it is none; nor where minutes are meant ("45'").
    if (/^['’′]$/.test(tokens[next]?.text ?? "")) continue;
    if (unitMm(tokens[next]) !== null || (notACount.test(behind) && !word.test(behind))) continue;
    for (let steps = 0; steps < 7 && next < tokens.length; steps++, next++) {
      const here = tokens[next];
      if (here?.kind === "word" && word.test(here.lower)) return number.value;
      if (here?.kind === "sign" && /^[,.;:|·•]$/.test(here.text)) break;
      const inner = value(tokens, next);
      const unit = inner ? tokens[tokens[inner.next]?.text === "-" ? inner.next + 1 : inner.next] : undefined;
      // "two 450 g loaf tins": the mass that a tin is named for.
      const named = steps <= 1 && /^(?:g|kg|lb|lbs|pounds?)$/.test(unit?.lower ?? "");
      if (inner && unitMm(unit) === null && !named) break;
    }
  }
  return null;
}

/** Loaf tins by the mass they are named for: inner length and width at the rim, mm; trade sizes. */
const loafByMass: [most: number, length: number, width: number, height: number][] = [
  [600, 155, 90, 65],
  [1100, 215, 115, 68],
  [2000, 260, 130, 75],
];

/** Width and height that a loaf tin of a length has, where only that is said: 20 × 10, 25 × 11, 30 × 11 cm and 7 deep; trade sizes, confidence C. */
const loafBeside = (lengthMm: number): { widthMm: number; heightMm: number } => ({
  widthMm: Math.round(Math.min(115, Math.max(55, 0.5 * lengthMm))),
  heightMm: Math.round(Math.min(70, 0.35 * lengthMm)),
});

/** "stamp out 6 cm rounds", "cut into 2-inch rounds": what a cutter makes. */
const stamped =
  /\b(?:cut|stamp|punch)\w*\b(?: (?:out|in|into|it|them|the|dough|as))*(?: \w+)??(?: \d+ [x×])? \d+(?:\.\d+)?\s*-?(?:cm|mm|in(?:ch(?:es)?)?|")\s*-?(?:rounds?|circles?|squares?|discs?|hearts?|stars?)\b(?!\s+(?:\w+\s+)?(?:tins?|pans?|trays?|dish))/gi;

/** "Into a buttered 8x8": a tin by its sides alone. */
const intoSides = /\b(?:in|into|to|use|using|take|grab)\s+(?:an?|the|your|my)\s+(?:\w+\s+)?\d+\s*(?:x|by)\s*\d+\b/i;

/** "8" square": a tin by its shape alone, and nothing else. */
const byShape =
  /^\W*\d+(?:\.\d+)?\s*-?(?:"|in(?:ch(?:es)?)?|cm)\s*-?(?:square|round)(?:\s*[x×]\s*\d|,\s*\d+(?:\.\d+)?\s*(?:"|in(?:ch(?:es)?)?|cm)\s*deep)?\W*$/i;

/** The pan said in a text, or null. Measures in mm. */
export function readPan(source: string): ReadPan | null {
  // The full stop of "1 in." ends no sentence.
  const whole = plainText(source).replace(/(?<=\d ?)ins?\./gi, "inch");
  // What it cools or keeps in says nothing, and takes nothing from what the other sentences say.
  const told = whole.split(/(?<=[.;!?])\s+/);
  const text = told.some((sentence) => noPan.test(sentence)) ? told.filter((sentence) => !noPan.test(sentence)).join(" ") : whole;
  if (!panWord.test(text) && !intoSides.test(text) && !byShape.test(text)) return null;
  // What is rolled or patted to a circle says nothing of the tin.
  const rest = text
    .replace(/\b(?:pat|flatten|shape|roll|press)\w*\b[^.,;]*\b(?:circles?|discs?|disks?)\b[^.,;]*/gi, " ")
    .replace(stamped, " ");
  if (rest !== text) return readPan(rest);
  // A round that is patted out is a shape of the dough, not a tin.
  if (/\b(?:pat|flatten|shape|roll|press)\w*\b[^.]*\b(?:round|circle|disc)/i.test(text) && !vesselWord.test(text)) return null;
  const about = surface(text);
  const tokens = tokensOf(text);
  const sides = sidesIn(tokens);
  const lengths = lengthsIn(tokens);
  const times = /\b(?:rounds?|squares?|tins?|pans?)\s*[x×]\s*([2-9])\b/i.exec(text)?.[1];
  const several = times === undefined ? countBefore(text, "tins?|pans?|mou?lds?|dishes|rounds|gastronorms?") : Number(times);
  const wells = countBefore(text, "holes?|cups?|wells?|compartments?");
  if (
    /\b(?:muffin|cupcake|bun|fairy cake|popover)s?\s+(?:tins?|pans?|trays?|cases|cups?|mou?lds?)\b|\b(?:paper|muffin|cupcake|silicone) cases\b/i.test(
      text,
    )
  ) {
    const inBrackets = Number(/\btins?\s*\((\d{1,2})\)/i.exec(text)?.[1] ?? NaN);
    const count = wells ?? countBefore(text, "(?:muffin|cupcake|bun|case)s?") ?? (Number.isNaN(inBrackets) ? null : inBrackets);
    const size = /\bmini\b/i.test(text)
      ? { diameterMm: 45, heightMm: 22 }
      : /\bjumbo|giant|large cup/i.test(text)
        ? { diameterMm: 90, heightMm: 48 }
        : null;
    const lined = /\b(?:cases|liners|paper)\b/i.test(text.replace(/\bsilicone cases\b/gi, ""))
      ? { lining: "paper-cups" as const }
      : {};
    return { shape: "muffin", ...(size ?? {}), ...(count ? { pieces: count } : {}), ...about, ...lined };
  }
  const little = /\b(?:dariole|ramekin|friand|financier|timbale|pudding)s?(?:\s+(?:mou?lds?|tins?|dishes))?\b/i.test(text)
    ? countBefore(text, "darioles?|ramekins?|friands?|financiers?|timbales?|mou?lds?|tins?")
    : null;
  if (little !== null && sides === null) return { shape: "muffin", pieces: little, ...about };
  const onTray =
    /\b(?:scones?|biscuits?|buns?|rolls?|wedges|cookies|spoonfuls|mounds|drops?|pieces|pat (?:it|the dough|into)|pats?)\b/i.test(
      text,
    );
  const atSides =
    sides === null ? "" : text.slice(Math.max(0, (tokens[sides.at]?.start ?? 0) - 14), (tokens[sides.next - 1]?.end ?? 0) + 14);
  if (sides && (!/\bpat\b|\broll(?:ed)? (?:out|to)\b/i.test(text) || vesselWord.test(atSides))) {
    const [a = 0, b = 0, c] = sides.sides;
    const [lengthMm, widthMm] = [round(Math.max(a, b)), round(Math.min(a, b))];
    const pieces = several ?? wells ?? (/\beach\b/i.test(text) ? countBefore(text, "loaves|tins|pans") : null);
    return {
      shape: "rectangular",
      lengthMm,
      widthMm,
      ...(c === undefined ? {} : { heightMm: round(c) }),
      ...(pieces && pieces > 1 ? { pieces } : {}),
      ...about,
    };
  }
  const said = (word: RegExp): number | undefined => {
    const found = lengths.find(({ next }) => word.test(tokens[next]?.lower ?? "") || word.test(tokens[next + 1]?.lower ?? ""));
    return found ? round(found.mm) : undefined;
  };
  const long = said(/^(?:long|length)$/);
  const wide = said(/^(?:wide|width)$/);
  const high = said(/^(?:high|deep|tall|depth|height)$/);
  if (long !== undefined && wide !== undefined)
    return { shape: "rectangular", lengthMm: long, widthMm: wide, ...(high === undefined ? {} : { heightMm: high }), ...about };
  const across = lengths.find(({ mm }) => mm >= 40)?.mm;
  const pieces = several && several > 1 ? { pieces: several } : {};
  const ofTin = tinByMass.exec(text)?.[0];
  // The mass that a loaf tin is named for stands beside it; another of the text is that of a food.
  const mass = massIn(ofTin ?? /.{0,20}\bloaf\b.{0,20}/i.exec(text)?.[0] ?? "");
  if ((ofTin !== undefined || /\bloaf\b/i.test(text)) && mass !== null && mass >= 200) {
    const [, lengthMm, widthMm, heightMm] = loafByMass.find(([most]) => mass <= most) ?? loafByMass[2] ?? [0, 260, 130, 75];
    return { shape: "rectangular", lengthMm, widthMm, heightMm, ...pieces, ...about };
  }
  if (across !== undefined && /\bsquare\b/i.test(text))
    return {
      shape: "rectangular",
      lengthMm: round(across),
      widthMm: round(across),
      ...(high === undefined ? {} : { heightMm: high }),
      ...pieces,
      ...about,
    };
  if (/\bbundt|\bring (?:tin|pan|mou?ld)|\btube pan/i.test(text))
    return { shape: "ring", ...(across === undefined ? {} : { diameterMm: round(across) }), ...about };
  if (onTray && /\b(?:tray|sheet|stone)\b/i.test(text)) {
    const count = piecesIn(text);
    return { shape: "free", ...(count ? { pieces: count } : {}), ...about };
  }
  if (/\bmini loaf\b/i.test(text) && (several ?? 0) > 1)
    return { shape: "rectangular", lengthMm: 100, widthMm: 60, pieces: several ?? 1, ...about };
  if (/\bloaf\b/i.test(text) && (countBefore(text, "holes?|wells?|compartments?") ?? 0) > 1)
    return { shape: "rectangular", lengthMm: 100, widthMm: 60, pieces: wells ?? 1, ...about };
  if (across !== undefined && /\bloaf\s+(?:tin|pan|dish(?:e)?|mou?ld|case)s?\b/i.test(text) && !/\bround\b/i.test(text))
    return { shape: "rectangular", lengthMm: round(across), ...loafBeside(across), ...pieces, ...about };
  if (
    across !== undefined &&
    /\b(?:round|springform|cake|sandwich|skillet|frying|pies?|tarts?|deep|tins?|pans?|rounds|casserole|dish(?:es)?|circles?)\b/i.test(
      text,
    ) &&
    !/\b(?:tray|sheet)\b/i.test(text)
  )
    return { shape: "round", diameterMm: round(across), ...(high === undefined ? {} : { heightMm: high }), ...pieces, ...about };
  if (/\bloaf\s+(?:tins?|pans?)\b/i.test(text))
    return { shape: "rectangular", lengthMm: 230, widthMm: 130, heightMm: 70, ...pieces, ...about };
  if (/\b(?:griddle|frying pan|tawa|comal|dry (?:pan|skillet))\b/i.test(text)) return { shape: "griddle", ...about };
  const gastronorm = hotelPans.find(([pattern]) => pattern.test(text));
  if (gastronorm) return { shape: "rectangular", lengthMm: gastronorm[1], widthMm: gastronorm[2], ...pieces, ...about };
  if (/\b(?:half|quarter) sheet\b|\bsheet pan\b/i.test(text))
    return /\bquarter\b/i.test(text)
      ? { shape: "rectangular", lengthMm: 330, widthMm: 240, heightMm: 25, ...about }
      : { shape: "rectangular", lengthMm: 450, widthMm: 330, heightMm: 25, ...about };
  if (
    /\b(?:baking|cookie|oven|lined|papered|oiled|greased|floured|rimmed|one|the|a|onto)\s+(?:\w+\s+)?(?:sheets?|trays?)\b/i.test(
      text,
    )
  ) {
    const count = piecesIn(text);
    // A batter that is spread or poured there fills it to its rim.
    if (
      count === null &&
      /\b(?:spread|pour|smooth|level|stretch)\w*\b[^.;]*\b(?:sheets?|trays?)\b|\b(?:sheets?|trays?)\s+(?:spread|pour|smooth)\b/i.test(
        text,
      )
    )
      return { shape: "rectangular", ...about };
    return { shape: "free", ...(count ? { pieces: count } : {}), ...about };
  }
  return null;
}

/** Pans of a canteen by their share of the full one, 530 × 325 mm (EN 631). */
const hotelPans: [RegExp, length: number, width: number][] = [
  [/\bhalf[ -]?(?:size )?(?:hotel pan|steam(?: table)? pan|gastronorm)|\b(?:GN ?1\/2|1\/2 ?GN)\b/i, 325, 265],
  [/\bthird[ -]?(?:size )?(?:hotel pan|steam(?: table)? pan|gastronorm)|\b(?:GN ?1\/3|1\/3 ?GN)\b/i, 325, 176],
  [/\b(?:full[ -]?(?:size )?)?(?:hotel pan|steam table pan|gastronorm)|\b(?:GN ?1\/1|1\/1 ?GN)\b/i, 530, 325],
];

/** What is said of the lining of a tin that has no other measure: a sentence about a tin, a tray or cases. */
export function liningIn(source: string): ReadPan["lining"] {
  const text = plainText(source);
  if (/\b(?:paper|muffin) (?:cases|liners|cups)\b/i.test(text)) return "paper-cups";
  for (const sentence of text.split(/[.;]\s/)) {
    if (!panWord.test(sentence) && !/\b(?:parchment|silpat|grease(?:d)?)\b/i.test(sentence)) continue;
    const { lining } = surface(sentence);
    if (lining) return lining;
  }
  return undefined;
}

/** "900 g tin": a tin named for the mass of its loaf, not one of tomatoes. */
const tinByMass =
  /\b(?:450|500|675|900|1000)\s*g[\s-]+(?:\w+\s+)?(?:tin|pan)s?\b(?!\s+(?:of\b|\p{Ll}))|\btins?\s*\(?(?:450|500|675|900|1000)\s*g\b|\b(?:[123](?:\.5)?|one|two|three)[\s-]*(?:lb|pound)s?\b[\s-]+(?:\w+\s+)?tins?\b(?!\s+of\b)|\b\d+\s*k?g[\s-]+loaf[\s-]+(?:tin|pan)s?\b/iu;

const massIn = (text: string): number | null => {
  const metric = /(\d+(?:\.\d+)?)\s*(g|kg)\b/i.exec(text);
  if (metric?.[1]) return Number(metric[1]) * (/kg/i.test(metric[2] ?? "") ? 1000 : 1);
  const pounds = /(?:(\d+(?:\.\d+)?)|(one|two|three))[\s-]*(?:lb|pound)s?\b/i.exec(text);
  if (!pounds) return null;
  return 453.6 * (pounds[1] ? Number(pounds[1]) : ({ one: 1, two: 2, three: 3 }[(pounds[2] ?? "").toLowerCase()] ?? 1));
};

function surface(text: string): Pick<ReadPan, "material" | "lining" | "preheated" | "touching"> {
  const out: Pick<ReadPan, "material" | "lining" | "preheated" | "touching"> = {};
  if (/cast[\s-]?iron|skillet/i.test(text)) out.material = "cast-iron";
  else if (/\bglass\b(?! of\b)|pyrex/i.test(text)) out.material = "glass";
  else if (/ceramic|stoneware/i.test(text)) out.material = "ceramic";
  else if (/silicone/i.test(text)) out.material = "silicone";
  else if (
    /\bdark(?:,?\s+(?:[\d.x×-]+(?:cm|mm|in)?|cm|mm|by|inch|loaf|cake|round|square|muffin|metal|steel|old|baking|heavy|thin|deep|non-?stick))*\s+(?:tins?|pans?|trays?|sheets?|steel|metal|mou?lds?|non-?stick)\b|\b(?:tins?|pans?|trays?) (?:is|are) dark\b|\bdark (?:one|ones)\b|\((?:a )?dark\)/i.test(
      text,
    )
  )
    out.material = "dark-steel";
  if (/\bbase[\s-](?:lined|greased)\b|\bbase only\b/i.test(text)) out.lining = "greased-base";
  else if (
    /\b(?:bottom|base) only\b|\b(?:grease|butter|oil) only the (?:base|bottom)\b|\bon the (?:bottom|base) only\b/i.test(text)
  )
    out.lining = "greased-base";
  else if (/\b(?:lin(?:e|ed|ing)|papered|parchment|baking paper|with paper|silpat)\b/i.test(text)) out.lining = "paper";
  else if (/\b(?:un-?greased|do not grease|don't grease)\b/i.test(text)) out.lining = "none";
  else if (
    /\b(?:greased?|buttered|oiled|dressed)\b|(?<!\b(?:the|of|in|with|soft|cold|melted|g) )\b(?:butter|oil) (?:and \w+ )?(?:the|an?|your|it|well|generously|lightly|two|\d)\b|\bwith (?:a little |some |plenty of |soft |melted )*(?:butter|oil)\b/i.test(
      text,
    )
  )
    out.lining = "greased";
  if (
    /\bhot (?:skillet|pan|tin)|preheated (?:skillet|pan|tin)|\b(?:heated|hot) in the oven\b|\bheat the (?:skillet|pan|tin)\b|\b(?:skillet|pan|tin|griddle) (?:in|into) the (?:hot )?oven\b|\bin the hot (?:skillet|pan|tin)\b|\bsmoking[\s-]hot\b|\b(?:set|put|place|heat)\b[^.;]{0,24}\b(?:skillet|pan|tin)\b[^.;]{0,20}\bin (?:a|the)\b[^.;]{0,16}\boven\b/i.test(
      text,
    )
  )
    out.preheated = true;
  if (/\b(?:touching|close together|set close|side by side)\b/i.test(text)) out.touching = true;
  return out;
}
