import type { Measure } from "./grammar/amounts";
import { value } from "./grammar/numbers";
import { plainText, tokensOf } from "./grammar/tokens";
import { itemFrom, scaledBy, textFrom, type WrittenItem } from "./line";
import type { Names } from "./meaning";
import { exactly } from "./range";
import { isMass, gramsPer, isVolume, millilitresPer } from "./units";

/**
 * A whole with its parts in a bracket or behind a colon: "300 g flour blend (150 g rice, 100 g tapioca, 50 g sorghum)", "100 g nuts (half
 * walnuts, half pecans)". The parts go in, not the whole and the parts.
 *
 *   divided = measure name ("(" | ":") part (("," | "and" | "+" | "/") part)+ ")"?
 *   part    = measure name | share name
 */
const shape =
  /^(.+?)\s*(?:\(\s*(?:(?:a|any)? ?(?:mix(?:ture)?|blend) of|made (?:up )?(?:of|from|with)|that is|i\.?e\.?|say)?:?\s*([^()]+)\)|:\s*([^()]+))\s*\.?$/i;
const joint = /\s*[,;+]\s*(?:and\s+)?|\s*\/\s*(?=[^/]*\p{L})(?<!\d\s*\/\s*)|\s+(?:and|&|plus)\s+/iu;
/** What is left of a thing when it is made ready is no other thing. */
const ofTheThing = /\b(?:drained|peeled|net|liquid|liquor|skins?|stones?|stoned|shells?|shelled|cooked|dry|raw|weight)\b/i;
/** Parts that add up to their whole do so within what is rounded. */
const TOLERANCE = 0.03;
const MOST_PARTS = 8;
/** A longer line is no line of a list. */
const MOST_SIGNS = 300;

/** "675 rice", "rice 675". */
const bareFigure = /^(?:(\d+(?:\.\d+)?)\s+(\p{L}[\p{L} -]*)|(\p{L}[\p{L} -]*?)\s*:?\s+(\d+(?:\.\d+)?))$/u;
const inGrams = (grams: number): Measure[] => [[{ quantity: exactly(grams), unit: "g", sign: 1, withUnit: true, spoken: false }]];

interface Part {
  name: string;
  /** Grams or millilitres; the share of the whole where that is said. */
  size: number;
  measures: Measure[];
}

/** What a measure comes to in grams or in millilitres of a metric kitchen; null where it counts. */
function sizeOf([measure]: readonly Measure[]): { kind: "g" | "ml"; size: number } | null {
  if (!measure || measure.length === 0) return null;
  const kind = measure.every(({ unit }) => isMass(unit)) ? "g" : measure.every(({ unit }) => isVolume(unit)) ? "ml" : null;
  if (kind === null) return null;
  const per = (unit: Measure[number]["unit"]): number => (kind === "g" ? gramsPer[unit] : millilitresPer[unit]?.metric) ?? 0;
  return { kind, size: measure.reduce((all, { quantity, unit, sign }) => all + sign * quantity.mid * per(unit), 0) };
}

/** "half walnuts", "60 % rice": a share of the whole. */
function shareAt(text: string): { share: number; name: string } | null {
  const percent = /^(\d+(?:\.\d+)?)\s*%\s+(?:of\s+)?(\p{L}.*)$/u.exec(text);
  if (percent?.[1] && percent[2]) return { share: Number(percent[1]) / 100, name: percent[2] };
  const tokens = tokensOf(text);
  const found = value(tokens, 0);
  const name = found ? textFrom(text, tokens, found.next).replace(/^of\s+/i, "") : "";
  return found && found.value < 1 && /^\p{L}/u.test(name) ? { share: found.value, name } : null;
}

/** A part's name with what the whole is: "white rice" of a flour is white rice flour, where the pantry has it so. */
function namedAs(name: string, whole: string, names: Names): string | null {
  const words = whole.split(" ").filter((word) => !/^(?:blend|mix|mixture|mixed)s?$/i.test(word));
  const head = words.at(-1);
  const full = head === undefined || name.toLowerCase().endsWith(head.toLowerCase()) ? name : `${name} ${head}`;
  return names.known(full) ? full : name === "" ? null : name;
}

/** The parts of a line that says a whole and how it is divided; null where it says none, or they do not add up. */
export function dividedIn(source: string, names: Names): WrittenItem[] | null {
  if (source.length > MOST_SIGNS) return null;
  const [, before, inside, behind] = shape.exec(plainText(source)) ?? [];
  const list = inside ?? behind;
  if (before === undefined || list === undefined) return null;
  const thing = itemFrom(before);
  const whole = sizeOf(thing.measures);
  const called = thing.name;
  const said = list.split(joint).filter((part) => part !== "");
  if (!whole || called === "" || said.length < 2 || said.length > MOST_PARTS) return null;
  const parts = said.map((text): Part | null => {
    const item = itemFrom(text);
    // "1.35 kg (rice 675, sorghum 405)": figures without a unit are grams of a mass that is said.
    const isMeasured = item.measures.some((measure) => measure.some(({ withUnit }) => withUnit));
    const bare = whole.kind === "g" && !isMeasured ? bareFigure.exec(text) : null;
    if (bare) {
      const [, ahead, after, first, last] = bare;
      const grams = Number(ahead ?? last);
      const named = namedAs((after ?? first ?? "").trim(), called, names);
      return named === null ? null : { name: named, size: grams, measures: inGrams(grams) };
    }
    const share = isMeasured ? null : shareAt(text);
    const size = share ? { kind: whole.kind, size: share.share * whole.size } : sizeOf(item.measures);
    const name = namedAs(share?.name ?? item.name, called, names);
    return size?.kind === whole.kind && name !== null
      ? { name, size: size.size, measures: share ? scaledBy(thing.measures, share.share) : item.measures }
      : null;
  });
  const sum = parts.reduce((all, part) => all + (part?.size ?? NaN), 0);
  if (!(sum <= (1 + TOLERANCE) * whole.size) || said.some((text) => ofTheThing.test(text))) return null;
  const left = 1 - sum / whole.size;
  if (left > TOLERANCE) {
    // What is over is of the whole's own name, where every part is a thing.
    if (!parts.every((part) => part && names.known(part.name) !== null)) return null;
    parts.push({ name: called, size: left * whole.size, measures: scaledBy(thing.measures, left) });
  }
  const items = parts.flatMap((part): WrittenItem[] =>
    part
      ? [
          {
            measures: part.measures,
            name: part.name,
            preparation: `part of ${before}`,
            glosses: [],
            alternatives: [],
            optional: false,
            toTaste: false,
          },
        ]
      : [],
  );
  // What is in a bracket and is no food is a remark: "2 x 200 g tins (200 g large, 200 g small)".
  return items.some(({ name }) => names.known(name) !== null) ? items : null;
}
