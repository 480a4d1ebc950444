import { celsiusFromFahrenheit } from "./units";
import { plainText, quantityAtStart } from "./quantity";

/** What a field of one number is in; what is typed may carry another unit of the same kind. */
export const numberUnits = ["mm", "°C", "K", "g", "min", "%", "mL", "m", ""] as const;
export type NumberUnit = (typeof numberUnits)[number];

const factors: Record<NumberUnit, Record<string, number>> = {
  mm: { mm: 1, cm: 10, m: 1000, in: 25.4, inch: 25.4, inches: 25.4, '"': 25.4, ft: 304.8 },
  "°C": { c: 1, celsius: 1, "°c": 1, "°": 1 },
  K: { k: 1, "°c": 1, c: 1, "°": 1 },
  g: { g: 1, kg: 1000, oz: 28.349523, lb: 453.59237, lbs: 453.59237 },
  min: {
    min: 1,
    mins: 1,
    minutes: 1,
    minute: 1,
    h: 60,
    hr: 60,
    hrs: 60,
    hours: 60,
    hour: 60,
    s: 1 / 60,
    sec: 1 / 60,
    d: 1440,
    days: 1440,
  },
  "%": { "%": 1, "per cent": 1, percent: 1 },
  mL: { ml: 1, cl: 10, dl: 100, l: 1000 },
  m: { m: 1, metres: 1, ft: 0.3048, feet: 0.3048 },
  "": {},
};

const fahrenheit = new Set(["f", "°f", "fahrenheit"]);

export interface ReadNumber {
  value: number;
  /** The number was said in °F. */
  fahrenheit?: true;
}

/**
 * A number as people type it into a field: with comma or point, as a fraction, below zero, and with a unit of the field's kind, which is
 * converted. Null when it is none.
 */
export function readNumber(text: string, unit: NumberUnit): ReadNumber | null {
  const plain = plainText(text);
  const negative = /^-\s*(?=[\d.])/.exec(plain);
  const found = quantityAtStart(negative ? plain.slice(negative[0].length) : plain.replace(/^\+/, ""));
  if (!found || found.value.low !== found.value.high || !/^[-+]?[\d.]/.test(plain)) return null;
  const number = (negative ? -1 : 1) * found.value.mid;
  const word = found.rest.trim().toLowerCase().replace(/\.$/, "");
  if (word === "") return { value: number };
  if (unit === "°C" && fahrenheit.has(word)) return { value: celsiusFromFahrenheit(number), fahrenheit: true };
  const factor = factors[unit][word];
  return factor === undefined ? null : { value: number * factor };
}
