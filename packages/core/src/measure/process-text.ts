import { coolingIn } from "./cooling-text";
import { elsewhereIn } from "./elsewhere";
import { value } from "./grammar/numbers";
import { plainText, tokensOf } from "./grammar/tokens";
import type { ReadProcess, ReadRest } from "./reading-schema";
import { MOST_TIMES, type SaidTime, timesIn } from "./time-text";

/**
 * What a text says of the way a batter is made: how it is mixed, where it rests and what soaks, how it is shaped. Each act has its verbs; a time
 * belongs to the act whose verb stands nearest before it in its sentence, or else behind it.
 */
const acts = {
  soak: /\b(?:soak(?:s|ed|ing)?|steep(?:s|ed|ing)?|bloom(?:s|ed)?|plump|gels?|swells? in)\b/i,
  rest: /\b(?:rest(?:s|ed|ing)?|stand(?:s|ing)?|sit(?:s)?|leave|left|chill(?:s|ed)?|refrigerat\w+|swell|hydrate|fridge|refrigerator|thicken|relax|sleep)\b/i,
  bake: /\b(?:bak(?:e[sd]?|ing)|cook(?:s|ed)?|oven|grill|fry|dry|roast|toast|uncovered|covered)\b/i,
  other: /\b(?:whisk|beat|mix|knead|stir|blend|whi[sz]z|simmer|boil|melt|preheat|heat|take (?:the \w+ )?out|soften|keeps?|freeze|prep|total|check)\b/i,
  after: /\b(?:cool(?:s|ed|ing)?|slic\w+|rack|unmou?ld|turn(?:ed)? out|out of the tin|in the (?:tin|pan|form)|on the (?:sheet|tray)|serve|tea towel)\b/i,
} as const; // prettier-ignore
type Act = keyof typeof acts;

const denied = /\b(?:do not|don't|no need to|without|never|not)\b[^.;]{0,24}$|\bno\s*$/i;
/** What is made wet before the batter is mixed. */
const soaked = /\b(oats?|oatmeal|flax(?:seeds?)?|linseeds?|chia(?: seeds?)?|psyllium(?: husks?)?|fruit|raisins|sultanas|currants|dates|figs|apricots|prunes|groats|buckwheat groats|buckwheat|cornmeal|polenta|millet|seeds|quinoa|rice|nuts|almonds|cashews|semolina|husks?|coconut|bran)\b/i; // prettier-ignore
const wet = /\b(?:water|milk|buttermilk|yoghurt|yogurt|kefir|juice|tea|coffee|rum|brandy|whisky|liquid)\b/i;
const wholeOf = /\b(?:dough|batter|mixture|mix|everything|all)\b/i;
const places: [RegExp, string][] = [
  [/\b(?:fridge|refrigerat\w+|chill\w*|cold place|kühlschrank)\b/i, "fridge"],
  [/\bfreez\w+\b/i, "freezer"],
  [/\bwarm (?:place|spot|corner|kitchen)\b|\bin the warm\b/i, "a warm place"],
  [/\broom temp\w*|\bon the (?:counter|worktop|bench|side)\b|\bat room\b|\bambient\b/i, "room temperature"],
];

/** A night, minutes: from the evening to the morning. */
const NIGHT = { low: 480, high: 720 };

interface Found {
  act: Act;
  at: number;
}

/** The verbs of a sentence, in their order. */
const verbsIn = (sentence: string): Found[] =>
  (Object.keys(acts) as Act[])
    .flatMap((act) => [...sentence.matchAll(new RegExp(acts[act].source, "gi"))].map((match) => ({ act, at: match.index })))
    .sort((a, b) => a.at - b.at);

/** Which act of a sentence a time belongs to. */
function actOf(sentence: string, verbs: readonly Found[], time: { start: number; end: number }): Act | null {
  const before = verbs.findLast(({ at }) => at < time.start);
  const behind = verbs.find(({ at }) => at >= time.end && !/[,;]/.test(sentence.slice(time.end, at)));
  return (before ?? behind)?.act ?? null;
}

/** A text by its sentences; a new line and a semicolon end one. */
export const sentencesOf = (text: string): string[] =>
  text
    .split(
      /(?<=[.!?])(?<!\b(?:min|mins|std|ca|approx|hrs?|c)\.)\s+(?=\p{L}|\d)|(?<=\b(?:min|mins|std|hrs?|c)\.)\s+(?=\p{Lu})|;\s+|\n+/u,
    )
    .filter((part) => part.trim() !== "");

/** The rests and soaks that a method tells, in its order; what cools or waits after the bake is none. */
function waitsIn(lines: readonly string[]): Pick<ReadProcess, "rests" | "soaks"> {
  const out: Pick<ReadProcess, "rests" | "soaks"> = { rests: [], soaks: [] };
  let before = "";
  /** It has been in the oven, and nothing has been mixed since: what waits now is no batter. */
  let baked = false;
  for (const sentence of lines.flatMap(sentencesOf)) {
    if (baked && acts.other.test(sentence)) baked = false;
    const nights = [...sentence.matchAll(/\b(?:overnight|over night|all night|until (?:the )?(?:next day|morning))\b/gi)].map(
      (match): SaidTime => ({ ...NIGHT, start: match.index, end: match.index + match[0].length }),
    );
    const times = [...timesIn(sentence), ...nights].slice(0, MOST_TIMES);
    const verbs = times.length > 0 ? verbsIn(sentence) : [];
    const intoSomeWet = /\b(?:in|into|with|over)\b/i.test(sentence) && wet.test(sentence) && soaked.test(sentence);
    const baking = acts.bake.test(sentence);
    for (const time of times) {
      if (time.high < 2 || /^\s*(?:°|degrees)/.test(sentence.slice(time.end))) continue;
      const upTo = sentence.slice(0, time.start);
      const clause = upTo.split(/[,;:](?=\s)/).at(-1) ?? "";
      const said = actOf(sentence, verbs, time);
      const act: Act | null = said === null && intoSomeWet && !baking && !wholeOf.test(clause) ? "soak" : said;
      // "Cool 10 minutes, then wait 2 hours": after the bake nothing rests.
      if (act !== "soak" && act !== "rest") continue;
      if (baked && act === "rest" && !wholeOf.test(sentence)) continue;
      if (
        acts.after.test(upTo) ||
        /^\s*(?:in the (?:tin|pan)|before (?:slicing|cutting|serving)|on (?:a|the) (?:rack|sheet|tray))/i.test(
          sentence.slice(time.end),
        )
      )
        continue;
      const verb = [...upTo.matchAll(new RegExp(`${acts.rest.source}|${acts.soak.source}`, "gi"))].at(-1);
      if (
        denied.test(upTo.slice(0, verb?.index ?? upTo.length)) ||
        /\bif you (?:like|wish|want)\b/i.test(sentence.slice(time.end, time.end + 24))
      )
        continue;
      // A wait after a sentence that stirs one thing into a liquid is that thing's.
      const around = `${/\b(?:stand|leave|sit|rest)\b/i.test(clause) && !soaked.test(sentence) && !wholeOf.test(sentence) ? `${before} ` : ""}${sentence}`;
      const thing = soaked.exec(around.replace(/\b(?:rice|corn|oat|almond|coconut) (?:flour|milk|drink|oil|starch)\b/gi, ""))?.[1];
      const soaks =
        (act === "soak" && !(thing === undefined && wholeOf.test(sentence))) ||
        (thing !== undefined &&
          wet.test(around) &&
          !wholeOf.test(sentence) &&
          !/\b(?:whisk|egg|eggs|flour|powder)\b/i.test(around) &&
          !/\bso (?:that )?the\b/i.test(sentence));
      const place = places.find(([pattern]) => pattern.test(sentence))?.[1];
      const rest: ReadRest = { minutes: { low: time.low, high: time.high }, ...(place === undefined ? {} : { place }) };
      if (soaks) out.soaks.push({ ...rest, ...(thing === undefined ? {} : { of: thing.toLowerCase() }) });
      else
        out.rests.push({
          ...rest,
          ...(/\bdough\b/i.test(sentence) ? { of: "dough" } : /\bbatter\b/i.test(sentence) ? { of: "batter" } : {}),
        });
    }
    // "rest 10": a number alone behind the verb.
    const bare = /\b(?:rest|chill|stand|soak)\s+(\d{1,3})\s*[.,;]?\s*$/i.exec(sentence);
    if (bare?.[1] && !denied.test(sentence.slice(0, bare.index))) {
      const minutes = { low: Number(bare[1]), high: Number(bare[1]) };
      if (/soak/i.test(bare[0])) out.soaks.push({ minutes });
      else out.rests.push({ minutes, ...(/chill/i.test(bare[0]) ? { place: "fridge" } : {}) });
    }
    before = sentence;
    if (/\bbak(?:e[sd]?|ing)\b|\d\s*°/i.test(sentence) && times.some((time) => !nights.includes(time) && !["rest", "soak"].includes(actOf(sentence, verbs, time) ?? ""))) baked = true; // prettier-ignore
  }
  return out;
}

/** How a batter is mixed, by what is done; the first that fits is the most telling. */
const methods: [NonNullable<ReadProcess["method"]>, RegExp][] = [
  ["blender", /\b(?:blender|food processor|liquidi[sz]er|whi[sz]z|blitz(?:ed)? (?:everything|all|until))\b/i],
  ["cut-in", /\b(?:rub(?:bed|bing)?)\b[^.]{0,40}\b(?:in|into|butter|fat|flour|lard|margarine)\b|\bcut (?:in\b(?! (?:\d|half|halves|two|three|four|six|eight|ten|twelve|sixteen|squares|wedges|slices|bars|fingers|quarters|pieces))|(?:the )?(?:cold )?(?:butter|lard|fat|shortening|margarine)\b)|\b(?:butter|fat|lard|margarine)\b[^.]{0,24}\b(?:in with|with) (?:your |the )?(?:fingertips|fingers|two knives)|\bpastry (?:cutter|blender)\b|\bbetween (?:the|your) fingers\b|\blike (?:bread)?crumbs\b/i],
  ["creaming", /\bcream(?:ed|ing)?\b (?:the |it |\d)?[^.]{0,24}\b(?:butter|sugar|margarine|fat|together|with)\b|\b(?:butter|margarine)\b[^.]{0,16}\b(?:and|with)\b[^.]{0,10}\bsugar\b[^.]{0,20}\b(?:beaten|till light|until (?:light|pale|fluffy))|\bbeat (?:the )?(?:soft )?(?:butter|margarine)\b[^.]{0,16}\bsugar\b|\bcreaming\b|\b(?:whisk|whip|beat)\w*\b(?! in\b)[^.]{0,8}\bbutter\b[^.]{0,14}\bsugar\b/i],
  ["whisked", /\bstiff egg whites\b|\b(?:whisk|beat|whip)\w*\b[^.]{0,24}\beggs?\b[^.]{0,36}\bsugar\b[^.]*\b(?:ribbon|thick|pale|foam\w*|tripled?|mousse|minutes)\b|\bribbon\b|\begg whites\b[^.]{0,30}\bpeaks\b/i],
  ["one-bowl", /\b(?:one|a single|the same|1) bowl\b|\ball[\s-]in[\s-]one\b|\b(?:everything|all)\b[^.]{0,14}\bin(?:to)? a bowl\b|\bone[\s-]bowl\b/i],
  ["muffin", /\b(?:into|onto|to|over) (?:the )*(?:dry|powders)\b[^.]{0,24}\b(?:pour|add|tip|stir)\b|\bwet\b[^.]{0,24}\b(?:in)?to\b[^.]{0,10}\bdry\b|\bdry\b[^.]{0,24}\b(?:in)?to\b[^.]{0,10}\bwet\b|\bmuffin method\b|\btwo[\s-]bowl|\bpour\b[^.]{0,40}\b(?:into|on(?:to)?|over)\b[^.]{0,14}\b(?:dry|flour|flours|powders?)\b|\bfold (?:that|it|them|the wet)\b[^.]{0,14}\binto\b[^.]{0,14}\b(?:dry|flour)|\bseparately?\b[^.]{0,30}\bpour\b/i],
]; // prettier-ignore

const number =
  "(?:\\d+(?:[.,]\\d+)?(?: \\d\\/\\d)?|\\d\\/\\d|one|two|three|four|five|six|seven|eight|nine|ten|twelve|sixteen|eighteen|twenty|a dozen)";
const length = `(${number})[\\s-]?(cm|mm|inch(?:es)?|in\\b|")`;
const pieces =
  "(?:rounds?|circles?|buns?|rolls?|balls?|heaps?|mounds?|wedges|squares|pieces|scones|biscuits|discs|disks|patties|stars|triangles|fingers|bars|pancakes|crackers|cookies|farls|dollops|panecillos|brötchen|kekse)";
const cuts: [RegExp, string][] = [
  [/\bstars?\b/i, "stars"],
  [/\bsquares?\b/i, "squares"],
  [/\bwedges?\b/i, "wedges"],
  [/\btriangles?\b/i, "triangles"],
  [/\bquarters?\b/i, "quarters"],
  [/\bfingers\b/i, "fingers"],
  [/\bdiamonds\b/i, "diamonds"],
  [/\b(?:rounds|circles|discs|disks)\b/i, "rounds"],
];

const numberOf = (words: string | undefined): number | null =>
  words === undefined ? null : (value(tokensOf(plainText(words)), 0)?.value ?? null);
const mmOf = (words: string | undefined, unit: string | undefined): number | null => {
  const n = numberOf(words);
  if (n === null || unit === undefined) return null;
  return Math.round(n * (unit === "mm" ? 1 : unit === "cm" ? 10 : 25.4) * 10) / 10;
};

/** How it is shaped: only what is done to the dough, never the size of a tin. */
function shapeIn(text: string): NonNullable<ReadProcess["shape"]> {
  const shape: NonNullable<ReadProcess["shape"]> = {};
  for (const sentence of sentencesOf(text)) {
    const worked = /\b(?:shape|form|roll|pat|press|flatten|cut|stamp|drop|score|divide|make[sn]?|heaps?|mounds?|scoop)\b/i.test(
      sentence,
    );
    const round =
      new RegExp(`\\b${pieces}\\b`, "i").test(sentence) &&
      !/\b(?:tins?|pans?|mou?lds?)\b/i.test(sentence.replace(/\bbutter the pan\b/i, ""));
    if (!worked && !round) continue;
    const thick = new RegExp(
      `${length}\\s*(?:thick|thin|high|deep)\\b|\\b(?:flatten|press|pat|roll)\\w*(?: (?:it|them|out|down|the dough))* to (?:about )?${length}`,
      "i",
    ).exec(sentence);
    const across = new RegExp(
      `\\b${pieces}\\s+(?:of|with|about)\\s+(?:about\\s+)?${length}|${length}\\s*(?:across|wide|in diameter|${pieces})|${length}\\s+(?:round |plain |fluted |pastry )*cutter`,
      "i",
    ).exec(sentence);
    const many = new RegExp(
      `\\b(?:into|in|out|shape|form|roll|makes?|about|drop|stamp(?: out)?|cut(?: out)?|and|^)\\s*(?:about )?(${number})(?!\\s*(?:cm|mm|g|kg|ml|inch|in|minutes?|hours?)\\b)\\s+(?:\\w+\\s+){0,2}?${pieces}\\b|\\b(?:about|makes)\\s+(${number})\\s*[.,]?\\s*$|^\\s*(${number})\\s+${pieces}\\b`,
      "i",
    ).exec(sentence);
    const each = /\b(?:of|each|at)\s+(?:about |around |roughly )?(\d+)\s*g\b|\b(\d+)\s*g\s+(?:each|apiece)\b/i.exec(sentence);
    const slicing = /\bslice\b/i.test(sentence);
    if (thick && !slicing) shape.thicknessMm ??= mmOf(thick[1] ?? thick[3], thick[2] ?? thick[4]) ?? undefined;
    const squares = /\bsquares?\b/i.test(across?.[0] ?? "");
    if (across && !squares)
      shape.diameterMm ??= mmOf(across[1] ?? across[3] ?? across[5], across[2] ?? across[4] ?? across[6]) ?? undefined;
    if (/\bround of \d/i.test(sentence))
      shape.diameterMm ??=
        mmOf(...((/\bround of (\d+(?:\.\d+)?)\s*(cm|mm)/i.exec(sentence)?.slice(1, 3) as [string?, string?]) ?? [])) ?? undefined;
    const count = numberOf(many?.[1] ?? many?.[2] ?? many?.[3]);
    if (count !== null && Number.isInteger(count) && count > 0 && count <= 500) shape.count ??= count;
    if (each) shape.pieceG ??= Number(each[1] ?? each[2]);
    if (
      /\b(?:cut|stamp|score)\w*\b/i.test(sentence) &&
      !/\bcut (?:in|the (?:butter|lard|fat))\b/i.test(
        sentence.replace(/\bcut in(?:to)? (?:\d+|\w+ )?(?:quarters|wedges|squares)/i, ""),
      )
    ) {
      const cut = cuts.find(([pattern]) => pattern.test(sentence))?.[1];
      if (cut !== undefined) shape.cut ??= cut;
      if (cut === "quarters") shape.count ??= 4;
    }
  }
  return Object.fromEntries(Object.entries(shape).filter(([, one]) => one !== undefined));
}

/** The process that the lines of a method tell; an answer with nothing in it says that nothing was told. */
export function readProcess(lines: readonly string[]): ReadProcess {
  const plain = lines.map(plainText);
  const text = plain.join(". ");
  const method = methods.find(([, pattern]) => pattern.test(text))?.[0];
  const shape = shapeIn(plain.join("\n"));
  const sentences = plain.flatMap(sentencesOf);
  const tin = coolingIn(sentences);
  const elsewhere = elsewhereIn(sentences);
  return {
    ...(method ? { method } : {}),
    ...waitsIn(plain),
    ...(tin ? { tin } : {}),
    ...(elsewhere ? { elsewhere } : {}),
    ...(Object.keys(shape).length > 0 ? { shape } : {}),
  };
}
