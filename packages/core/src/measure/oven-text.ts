import { withHeatsSaid } from "./grammar/passages";
import { value } from "./grammar/numbers";
import { plainText, type Token, tokensOf } from "./grammar/tokens";
import { celsiusFromFahrenheit, celsiusFromGasMark } from "./units";

/** Temperatures in a text: of the oven, and of the core when it is done. What else is warmed, chilled or boiled is neither. */
export interface ReadTemperatures {
  celsius?: number;
  mode?: "fan" | "air-fryer";
  /** The dial was said in °F. */
  fahrenheit?: boolean;
  coreC?: number;
  /** Set when °C and °F stand side by side and differ by more than 8 °C. */
  conflict?: { celsius: number; fahrenheit: number };
  /** A bare number that may be either scale. */
  ambiguous?: { celsius: number; fahrenheit: number };
}

/** The largest difference in °C at which a pair of temperatures is taken for the same. */
const PAIR_TOLERANCE = 8;
/** Bare numbers over the first are °F, under the second °C; between them both are possible. */
const SURELY_F = 275;
const SURELY_C = 240;

/** A figure under this beside pieces is grams, not °C. */
const COOL_OVEN = 120;
const weighedEach = /\b(?:pcs?|pieces|portions?|cases|scones|muffins|rolls|buns|rounds|balls)\s*(?:@|at)\s*$/i;
const core = /\b(?:internal|core|centre|center|thermometer|probe|middle|inside|instant-read)\b/i;
const otherThings =
  /\b(?:warm|hold|chill|boil|simmer|melt|cool|scald|bloom|prov(?:e|ing)|rise|kcal|calories|serves|keeps?|frozen|freeze|fridge|water boils|syrup|milk to|butter to|cream to|kitchen|room|dough temperature|at \d[\d.]* ?m\b)/i;
const ovenish =
  /\b(?:oven|bake|baked|baking|preheat|pre-heat|roast|heat|gas|fan|convection|conventional|shelf|rack|air[\s-]?fr(?:yer|y|ied)|set|grill)\b|@/i;
const notAbove = /\b(?:above|over|exceed|hotter than|more than|beyond|past)\s*$/i;

/** How an oven is spoken of, °C; kitchen habit. */
const moods: [RegExp, number][] = [
  [/\bvery (?:slow|cool|low) oven\b/i, 120],
  [/\bvery hot oven\b/i, 230],
  [/\b(?:moderately|fairly) hot oven\b/i, 195],
  [/\b(?:slow|cool|low) oven\b/i, 150],
  [/\b(?:warm) oven\b/i, 160],
  [/\bmoderate oven\b|\bmedium oven\b/i, 180],
  [/\bhot oven\b/i, 215],
];

interface Said {
  value: number;
  high: number;
  scale: "C" | "F" | "gas" | null;
  degrees: boolean;
  fan: boolean;
  /** Where the number stands and where what belongs to it ends, in signs. */
  start: number;
  end: number;
}

const isDegree = (token: Token | undefined): boolean =>
  token !== undefined && (/^[°º˚]$/.test(token.text) || /^(?:degrees?|degs?|dgrs?|grad)$/.test(token.lower));

/** Every number of a text with the scale that stands behind it. */
function numbersIn(text: string): Said[] {
  const tokens = tokensOf(text);
  const out: Said[] = [];
  for (let at = 0; at < tokens.length; at++) {
    const found = value(tokens, at);
    const here = tokens[at];
    if (!found || !here) continue;
    let next = found.next;
    let low = found.value;
    // "three seventy-five": hundreds without the word, as ovens are spoken of.
    const rest = here.kind === "word" && low >= 1 && low <= 5 && tokens[next]?.kind === "word" ? value(tokens, next) : null;
    if (rest && rest.value >= 10 && rest.value < 100) {
      low = low * 100 + rest.value;
      next = rest.next;
    }
    let high = low;
    if (/^(?:-|to)$/.test(tokens[next]?.lower ?? "")) {
      const second = value(tokens, next + 1);
      if (second && second.value > low && second.value < 2 * low + 20) {
        high = second.value;
        next = second.next;
      }
    }
    const degrees = isDegree(tokens[next]);
    if (degrees) next++;
    const letter = tokens[next];
    const word = letter?.lower ?? "";
    const scale = /^(?:c|celsius|centigrade)$/.test(word) ? "C" : /^(?:f|fahrenheit)$/.test(word) ? "F" : null;
    if (scale) next++;
    const before = text.slice(Math.max(0, here.start - 30), here.start);
    const gas = /\bgas(?:\s*mark)?\s*$/i.test(before) || /\bmark\s*$/i.test(before);
    // "th. 6": the French dial, by thirties of °C.
    const dial = low <= 10 && scale === null && /(?:^|[\s(,])th(?:ermostat)?\.?\s*$/i.test(before) ? 30 : null;
    const after = text.slice(tokens[next - 1]?.end ?? here.end, (tokens[next - 1]?.end ?? here.end) + 16);
    const fan =
      /^\s*[,(]?\s*(?:(?:with (?:the )?)?fan|convection|hot air)(?!(?:[\s-]forced)?(?:\s+oven)?[\s:]*\d)/i.test(after) ||
      /\b(?:fan|convection)(?:[\s-]forced)?(?:[\s-]ovens?)?(?:\s*bake)?\s*(?:at|to|:)?\s*$/i.test(before);
    out.push({
      value: (dial ?? 1) * low,
      high: (dial ?? 1) * high,
      scale: gas ? "gas" : dial !== null ? "C" : scale,
      degrees: degrees || dial !== null || scale !== null,
      fan,
      start: here.start,
      end: tokens[next - 1]?.end ?? here.end,
    });
    at = next - 1;
  }
  return out;
}

const asCelsius = (said: number, scale: "C" | "F"): number => (scale === "C" ? said : celsiusFromFahrenheit(said));

/** A word behind a figure that says nothing of heat or time. */
const namesAThing =
  /^\s+(?!(?:for|fan|oven|conventional|convection|until|till|then|in|on|at|and|or|to|about|with|bake|top|bottom|both|middle|static|circulating|gas|steady|falling|rising|a|an|the|about)\b)\p{L}{2,}/iu;

/** A heat that is another's: of what is warmed again, toasted or roasted before, of a liquid. */
const isOfAnother = (before: string): boolean =>
  /\b(?:re-?heat|refresh|toast|roast|poach|dry out)(?:ed|ing|s)?\b(?!.*\bbak(?:e|ing)\b)[^.;]*$/i.test(before) ||
  /\b(?:water|milk|butter|syrup|cream|liquid)\s+(?:at|of|to|is|about|around|should be)\s*(?:about\s+)?$/i.test(before);

/** Clauses: what is said of the core in one is not said of the oven in the next. */
const clausesOf = (text: string): string[] => text.split(/(?<=[.;!])\s+|;\s*|\s+·\s+/);

/** The temperatures that a text says. */
export function readTemperatures(source: string): ReadTemperatures {
  const out: ReadTemperatures = {};
  const candidates: { said: Said; celsius: number; scale: "C" | "F" | "gas"; bake: boolean; preheat: boolean; sure: boolean }[] =
    [];
  for (const clause of clausesOf(withHeatsSaid(plainText(source)))) {
    const said_ = numbersIn(clause).filter(({ degrees }) => degrees);
    for (const said of numbersIn(clause)) {
      const before = clause.slice(0, said.start);
      const after = clause.slice(said.end);
      const near = `${before.slice(-34)} ${after.slice(0, 34)}`;
      if (said.scale === "gas") {
        if (said.value <= 10)
          candidates.push({
            said,
            celsius: celsiusFromGasMark((said.value + said.high) / 2),
            scale: "gas",
            bake: false,
            preheat: false,
            sure: true,
          });
        continue;
      }
      // Behind a time, a mass or a count it is none.
      if (
        !said.degrees &&
        /^\s*(?:min|hour|hr|h\b|g\b|kg|ml|cm|mm|inch|in\b(?!\s+(?:an?|the|my|your|\d))|"|%|kcal|cal|days?|m\b|x\b|lb|oz|people|muffins|slices)/i.test(
          after,
        )
      )
        continue;
      // What was said before another temperature is said of that one.
      const past = Math.max(0, ...said_.filter(({ end }) => end <= said.start).map(({ end }) => end));
      const since = before
        .slice(past)
        .replace(past > 0 ? /^\s*(?:inside|internal(?:ly)?|core|in the (?:middle|cent(?:re|er)))\b/i : /^$/, "")
        .slice(-44);
      const ofCore =
        (core.test(since) && !/\b(?:tray|pan|tin|skillet|rack)\s+inside\b/i.test(since)) ||
        /^\s*(?:or so\s+)?(?:in the (?:middle|cent(?:re|er))|(?:on the )?inside|internal|on the thermometer|(?:in the |at the )?core)\b/i.test(
          after,
        );
      const middling = (said.value + said.high) / 2;
      // "Done when it sings at 96": no oven bakes at that.
      const done = /\bdone (?:when|at|once|by)\b/i.test(since) && middling >= 85 && middling <= 105 && said.scale !== "F" && !/^\s*(?:min|%|g\b)/i.test(after); // prettier-ignore
      if ((ofCore || done) && !/\b(?:middle (?:shelf|rack|of the oven)|centre of the oven|center of the oven)\b/i.test(near)) {
        const scale = said.scale ?? (middling > 115 ? "F" : "C");
        const celsius = asCelsius(middling, scale);
        if (celsius >= 60 && celsius <= 115) out.coreC ??= Math.round(celsius * 10) / 10;
        continue;
      }
      const sentence = clause;
      const ovenHere = ovenish.test(sentence);
      // "an hour at 160": a time beside it says whose heat it is.
      const timed =
        /\b(?:min(?:ute)?s?|hours?|hrs?)\s+at\s+$/i.test(before) ||
        (/\bat\s+$/i.test(before) && /^\s*(?:for\s+)?(?:about\s+)?\d+\s*min/i.test(after));
      // "375 for 20 min", "four hundred degrees": no other heat of a kitchen is so high.
      const high =
        middling >= 120 &&
        (said.degrees ||
          // "180 (160 fan)": the one beside a fan's is the oven's own.
          /^\s*[(/,]\s*(?:\d{3}\s*(?:°\s*)?c?\s*fan|fan\s*:?\s*\d{3})\b/i.test(after) ||
          /^\s*for\s+(?:about\s+)?(?:\d+(?:\s*(?:-|to)\s*\d+)?|an?|half an|one|two|\w+)\s*(?:min|hour|hr)/i.test(after));
      if (said.scale === null && !ovenHere && !timed && !high) continue;
      if (
        said.scale === null &&
        !said.degrees &&
        !/(?:oven|bake[sd]?|baking|preheat|heat|at|to|set|@|fan|convection|conventional|:|,)\s*[-(]?\s*(?:it )?(?:at|to|of)?\s*(?:about |around )?$|^\s*(?:oven|conventional|fan|convection)/i.test(
          `${before.slice(-30)}`,
        ) &&
        !/^\s*(?:oven|conventional|fan)/i.test(after) &&
        !high
      )
        continue;
      // ", 100 soft brown sugar": behind a comma a figure alone is a heat where nothing is counted or weighed by it.
      if (said.scale === null && !said.degrees && /[,:]\s*$/.test(before) && namesAThing.test(after)) continue;
      if (otherThings.test(before.slice(-40)) && !/\b(?:oven|bake)\b/i.test(before.slice(-40))) continue;
      if (notAbove.test(before)) continue;
      // "30 pcs @ 85": what each of them weighs.
      if (said.scale === null && !said.degrees && middling < COOL_OVEN && weighedEach.test(before)) continue;
      if (isOfAnother(before)) continue;
      let scale: "C" | "F" | null = said.scale;
      if (scale === null) {
        if (middling >= SURELY_F) scale = "F";
        else if (middling <= SURELY_C) scale = "C";
        else {
          out.ambiguous ??= { celsius: middling, fahrenheit: middling };
          scale = "C";
        }
      }
      const celsius = asCelsius(middling, scale);
      if (celsius < 60 || celsius > 320) continue;
      const preheat =
        /\b(?:pre-?heat|heat|warm)\b[^.]*$/i.test(before) && !/\bbak(?:e|ing)\b[^.]*$/i.test(before.replace(/.*\bheat/i, ""));
      const bake = /\b(?:bake[sd]?|baking|cook)\b[^.]{0,40}$/i.test(before) || /\bis right\b/i.test(after);
      candidates.push({ said, celsius, scale, bake, preheat, sure: said.scale !== null });
    }
  }
  const airFryer = /\bair[\s-]?fr(?:yer|y|ied|ying)\b/i.test(source);
  const still = candidates.filter(({ said }) => !said.fan);
  const pool = still.length > 0 ? still : candidates;
  const c = pool.find(({ scale }) => scale === "C");
  const f = pool.find(({ scale }) => scale === "F");
  const chosen = pool.find(({ bake }) => bake) ?? c ?? f ?? pool[0];
  const beside = c && f && c.sure && f.sure && Math.abs(c.said.end - f.said.start) < 12;
  if (beside && Math.abs(c.celsius - f.celsius) > PAIR_TOLERANCE) {
    out.celsius = c.celsius;
    out.conflict = { celsius: c.said.value, fahrenheit: f.said.value };
  } else if (chosen) {
    const taken = beside ? c : chosen;
    out.celsius = taken.scale === "F" ? Math.round(taken.celsius * 10) / 10 : Math.round(taken.celsius);
    if (taken.scale === "F") out.fahrenheit = true;
    if (taken.said.fan || (still.length === 0 && candidates.length > 0)) out.mode = "fan";
  } else {
    const mood = moods.find(([pattern]) => pattern.test(source));
    if (mood) out.celsius = mood[1];
  }
  if (out.celsius === undefined) delete out.ambiguous;
  if (airFryer && out.celsius !== undefined) out.mode = "air-fryer";
  return out;
}
