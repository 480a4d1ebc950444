import { plainText } from "./quantity";
import { celsiusFromFahrenheit, celsiusFromGasMark } from "./units";

export interface ReadTemperatures {
  celsius: number;
  mode?: "fan";
  /** Set when °C and °F stand side by side and differ by more than 8 °C. */
  conflict?: { celsius: number; fahrenheit: number };
}

const aboutTheCore = /\b(?:internal|core|centre|center|thermometer|probe|middle reads|inside reads)\b/i;
const number = (m: RegExpMatchArray): number => Number(m[1] ?? m[2]);

/** The largest difference in °C at which a pair of temperatures is taken for the same. */
const pairTolerance = 8;

/** The oven temperature said in a text, or null. Core temperatures are left out. */
export function readTemperature(source: string): ReadTemperatures | null {
  const text = plainText(source)
    .split(/(?<=[.;])\s+/)
    .filter((sentence) => !aboutTheCore.test(sentence))
    .join(" ");
  const unit = String.raw`\s*(?:°|º|degrees?|deg\.?)?\s*`;
  const fanPattern = new RegExp(
    String.raw`(\d{3})${unit}C?(?:elsius)?\s*\(?(?:fan|convection)|(?:fan|convection)(?:\s+oven)?\s*:?\s*(\d{3})${unit}C?`,
    "gi",
  );
  const fans = [...text.matchAll(fanPattern)].map(number);
  const rest = text.replace(fanPattern, " ");
  const celsii = [...rest.matchAll(new RegExp(String.raw`(\d{3})${unit}C(?:elsius)?\b`, "gi"))]
    .map(number)
    .filter((c) => c >= 100 && c <= 320);
  const fahrenheits = [...rest.matchAll(new RegExp(String.raw`(\d{3})${unit}F(?:ahrenheit)?\b`, "gi"))]
    .map(number)
    .filter((f) => f >= 200 && f <= 600);
  const marks = [...rest.matchAll(/gas(?:\s*mark)?\s*(\d{1,2})\b/gi)].map(number).filter((m) => m <= 10);
  const c = celsii[0];
  const f = fahrenheits[0];
  if (c !== undefined && f !== undefined && Math.abs(celsiusFromFahrenheit(f) - c) > pairTolerance) {
    return { celsius: c, conflict: { celsius: c, fahrenheit: f } };
  }
  if (c !== undefined) return { celsius: c };
  if (f !== undefined) return { celsius: Math.round(celsiusFromFahrenheit(f)) };
  if (fans[0] !== undefined) return { celsius: fans[0], mode: "fan" };
  if (marks[0] !== undefined) return { celsius: Math.round(celsiusFromGasMark(marks[0])) };
  const bare = /\b(?:oven|bake|preheat)\b[^.\d]*(\d{3})\s*(?:°|º|degrees)/i.exec(rest);
  if (bare?.[1]) {
    const value = Number(bare[1]);
    return { celsius: value > 300 ? Math.round(celsiusFromFahrenheit(value)) : value };
  }
  return null;
}

export interface Minutes {
  low: number;
  high: number;
}

const span =
  /(?:(\d+(?:\.\d+)?(?:\s+\d\/\d)?)\s*(?:-|to)\s*)?(\d+(?:\.\d+)?(?:\s+\d\/\d)?|an|one|half an)\s*(hours?|hrs?|h|minutes?|mins?|m)\b(?:\s*(?:and\s+)?(\d+)\s*(?:minutes?|mins?|m)\b)?/gi;

const amount = (text: string): number => {
  if (/^half an$/i.test(text)) return 0.5;
  if (/^(?:an|one)$/i.test(text)) return 1;
  const mixed = /^(\S+)\s+(\d)\/(\d)$/.exec(text);
  return mixed ? Number(mixed[1]) + Number(mixed[2]) / Number(mixed[3]) : Number(text);
};

/** The bake time said in a text: the first time in a sentence about baking or cooking. Minutes. */
export function readMinutes(source: string): Minutes | null {
  for (const sentence of plainText(source).split(/(?<=[.;])\s+/)) {
    const from = sentence.search(/\b(?:bake|baking|cook|cooking|oven for)\b/i);
    if (from < 0) continue;
    span.lastIndex = 0;
    const match = span.exec(sentence.slice(from));
    if (!match?.[2]) continue;
    const factor = /^h/i.test(match[3] ?? "") ? 60 : 1;
    const high = amount(match[2]) * factor + Number(match[4] ?? 0);
    const low = match[1] === undefined ? high : amount(match[1]) * factor;
    if (high > 0 && high <= 600) return { low: Math.min(low, high), high };
  }
  return null;
}
