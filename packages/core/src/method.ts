import { capital } from "./measure/list-words";
import { inHotPan, MOST_WRITTEN, type WrittenKind } from "./formula/written";
import type { WrittenStep } from "./formula/written-schema";
import { plainText } from "./measure/grammar/tokens";
import { timesIn } from "./measure/time-text";
import type { Ingredient } from "./pantry/ingredient-schema";
import { type MixingRole, mixingRole } from "./pantry/mixing-role";

/** A food of a formula's list, by the id of its line; `aside` where it is beside the batter, `late` where that is put on when the bake is out. */
export interface MethodFood {
  lineId: string;
  name: string;
  ingredient: Ingredient;
  aside?: "pan" | "early" | "late" | undefined;
  /** What its component is called, where that is put on or poured over as a whole. */
  part?: string | undefined;
}

/** One sentence of a method as written, and how a stretch of it is said in English; absent, it is English. */
export interface MethodSentence {
  words: string;
  inEnglish?: ((words: string) => string) | undefined;
}

const VERBS =
  "pre-?heat|heat|bind|line|sift|sieve|whisk|whip|beat|cream(?! (?:cheese|of))|rub|cut|stir|mix|combine|blend|whizz|whiz|blitz|process|pulse|add|tip|pour|fold|melt|toast|roast|simmer|boil|cook|mash|grate|chop|peel|core|soak|steep|bloom|leave|let|rest|chill|refrigerate|cover|knead|bring|gather|shape|form|roll|pat|press|flatten|divide|scoop|drop|dollop|fill|scrape|turn|tip|transfer|spread|level|smooth|brush|sprinkle|scatter|sit|bake|fry|griddle|flip|cool|lift|remove|take|serve|eat|slice|wrap|store|keep|freeze|drizzle|ice|frost|put|place|join|work|make|crumble|crush|separate|dissolve|warm|reserve|drain|squeeze|score|stamp|poke|layer|swirl|ladle|tap|dust|spoon|grease|prove|proof|decorate|glaze|dip|set aside|set|stand|spin|loosen|invert|unmou?ld|dot|stud|incorporate|swell|introduce|moisten|wet|dump|throw|chuck|swish|stamp|mould|dab|strain|discard|grind|mill|sweeten|season";
/** Verbs that are as well things: they begin a step only where something is done to what follows. */
const VERBAL_NOUNS =
  "butter|oil|flour|paper|top|cover|ice|dust|glaze|line|score|spoon|drop|heat|sit|core|wet|set|press|roll|form|work|process|grind";
const ADVERBS =
  "gently|gradually|slowly|lightly|quickly|carefully|immediately|finally|now|first|next|then|afterwards|again|briefly|thoroughly|loosely|evenly|generously|well|just|also|straight away|at once|please";
const leads = new RegExp(
  `^(?:(?:${ADVERBS})[\\s,]+)*(?:(?!(?:${VERBAL_NOUNS})\\b)(?:${VERBS})|(?:${VERBAL_NOUNS})(?=\\s+(?:the|a|an|your|it|them|each|over|with|out|in|two|\\d|generously|lightly)\\b))\\b`,
  "i",
);

const anyVerb = new RegExp(`\\b(?:${VERBS})\\b`, "i");
const joints = /(?:[,;–—]\s*(?:(?:and|then|&)\s+)*|\s+(?:and|&|then)\s+(?:then\s+)?)/gi;
const jointsOfOthers = /[,;–—]\s*(?:(?:und|et|e|y|puis|dann|poi|luego|después)\s+)*|\s+(?:und|et|e|y|puis|dann|poi|luego)\s+/giu;

/** A sentence by its acts: in English a new one begins with a verb behind a comma, an "and" or a "then"; elsewhere the verb may stand anywhere. */
function actsIn({ words, inEnglish }: MethodSentence): string[] {
  const sentence = inEnglish ? words : plainText(words);
  const at = [...sentence.matchAll(inEnglish ? jointsOfOthers : joints)];
  const out: string[] = [];
  let from = 0;
  at.forEach((match, k) => {
    const next = match.index + match[0].length;
    const until = sentence.slice(next, at[k + 1]?.index);
    const begins = inEnglish
      ? anyVerb.test(inEnglish(until)) && anyVerb.test(inEnglish(sentence.slice(from, match.index)))
      : leads.test(sentence.slice(next));
    // Behind "then" comes something else, with a verb or without.
    if (match.index <= from || !(begins || /[,;]\s*(?:and\s+)?then\s/i.test(match[0]))) return;
    out.push(sentence.slice(from, match.index));
    from = next;
  });
  out.push(sentence.slice(from));
  return out.map((part) => part.trim()).filter((part) => part !== "");
}

const tin =
  "(?:tins?|pans?|trays?|sheets?|mou?lds?|dish|skillet|cups?|griddle|ramekins?|papers?|cases|wells|parchment|form|wrappers|liners)";
const heats =
  /\b(?:pre-?heat|turn|set|heat|get|have)\b[^.]{0,30}\b(?:oven|griddle|grill|air.?fryer|hob)\b|^\s*(?:oven|gas|fan)\b.{0,16}\d|^\s*\d{2,3}\s*(?:°|degrees|c\b|f\b)/i;
const bakes =
  /\b(?:bake[sd]?|baking(?! (?:powder|soda|sheet|tray|paper|parchment|tin|dish|pan))|into (?:a|the) (?:hot |heated )?oven|in (?:a|the) (?:hot )?oven|put (?:it|them) in the oven|oven for)\b|^\s*(?:fry|griddle|cook)\b/i;
const onlyTime = /^\s*(?:for |about |around |approx\S* )*\d[\d\s.,½¼¾/-]*(?:to \d+ )?(?:min|hour|hr)/i;
const lines = new RegExp(`^(?:the )?${tin}(?: \\w+)? (?:greased|brushed|dressed|oiled|buttered|lined|floured|papered)\\b|^(?:\\w+ly )?(?:line|grease|butter|oil|flour|paper|dust|brush|spray|put papers?|place (?:paper|cases|liners)|prepare)\\b[^.]*\\b${tin}\\b`, "i"); // prettier-ignore
/** The pan goes into the oven to heat; what was mixed goes into it. */
const potHeats =
  /^(?:put|place|set|leave|heat)\b[^.;]{0,40}\b(?:skillet|pan|tin|pot|dish)\b[^.;]{0,24}\bin (?:a|the)\b[^.;]{0,16}\boven\b(?=[^.;]*\b(?:heat|warm|hot)|\s*$)/i;
const pouredBatter =
  /^(?:pour|scrape|tip|turn|spoon|ladle|spread)\b(?! [^.;]*\bbowl\b)[^.;]{0,20}\b(?:batter|mixture)\b(?! (?:into|over) the (?:dry|wet|flour))/i;
/** The evening before. */
const eve = /\b(?:the )?(?:night|evening|day) before\b|\bthe previous (?:night|evening|day)\b/i;
const waits = /\b(?:leave|left|let|rest|stand|sit|chill|refrigerate|overnight|set aside|prove|proof|rise|hydrate|thicken|swell)\b/i;
const cold = /\b(?:fridge|refrigerat\w+|chill\w*|cold)\b/i;
const soaks = /\b(?:soaks?|steeps?|bloom|plump|gels?)\b/i;
const softens = /^(?:take|get|have)\b[^.]*\bout\b/i;
const finishing = /^(?:\w+ly )?(?:brush|sprinkle|scatter|dust|top|glaze|decorate|dot|stud|egg|drizzle|dab|press .{0,30}\b(?:on|over|top))\b|\b(?:on|over) (?:the )?top\b|\bto (?:brush|glaze|finish)\b/i; // prettier-ignore
const shapesFirst = /^(?:\w+ly )?(?:shape|form|roll|pat|press|flatten|divide|scoop|drop|dollop|fill|stamp|score|ladle|level|smooth|mou?ld)\b|^cut (?:out|into|in (?:\d+(?!\d|\s*(?:g|ml|tbsp|tablespoons?|oz|ounces?|cups?|sticks?)\b)|two|four|six|eight|ten|twelve))|^cut \d/i; // prettier-ignore
const shapes = new RegExp(`${shapesFirst.source}|\\b(?:into|onto|on to|between|among|in|on) (?:[\\w.-]+ ){0,6}${tin}\\b`, "i");
const prepares =
  /^(?:\w+ly )?(?:melt|toast|roast|simmer|boil|mash|grate|chop|peel|core|crush|dissolve|warm|cook|drain|squeeze|separate|grind|strain|heat|reserve)\b/i;
const creams =
  /\bcream(?:ing|ed)?\b(?=\s+(?:the|it|them|butter|together|until|your|in|sugar|margarine|fat|with|\d))|\bbeat\b[^.]{0,24}\b(?:butter|margarine)\b[^.]{0,24}\bsugar|\buntil (?:light and )?fluffy/i;
const rubs = /\brub\b|\bcut (?:in|the|cold|butter)\b|\bfingertips\b|\bbread ?crumbs\b|\bpastry (?:cutter|blender)\b/i;
const foams =
  /\b(?:whites?\b[^.]{0,120}\b(?:peaks|stiff|foam)|ribbon|until (?:thick|pale|tripled|foamy|frothy)|(?:thick and pale|pale and thick))/i;
const machines = /\b(?:blender|food processor|liquidi[sz]er|whi[sz]z|blitz|pulse)\b/i;
const intoDry = /\b(?:into|onto|to|over|on) (?:the |that |your )?(?:dry|flours?|powders?|dry ingredients|bowl of)\b|\bwet\b.{0,16}\bdry\b|\bdry\b.{0,16}\bwet\b|\bwell\b|\bjoin\b|\bcombine (?:both|the two|them)\b|\b(?:the two|both)\b|\b(?:the lot|everything|all (?:the )?(?:ingredients|together))\b|\b(?:dough|batter) (?:comes|holds|forms)|\bpour (?:in|it|this|that|them)\b|\bstir (?:it|that|this|them|the wet) in/i; // prettier-ignore
const stirredIn = /\b(?:into|to|add|bind|moisten)\b|\bin\b(?!\s+(?:a|an|another|the|your|one)\b)|\buntil .*(?:dough|batter)\b/i;
const mixes = /^(?:[\w\s,]{0,40}\b)?(?:stir|mix|combine|bind|whisk|whip|beat|add|tip|pour|blend|bring|work|join|knead|gather|make|sift|sieve|incorporate|moisten|dump|throw|chuck|introduce|put|place|in goes?|in with|goes? in)\b/i; // prettier-ignore
const afterIt =
  /\b(?:when|once|while|after)\b[^.]{0,24}\b(?:cool|cold|baked|hot|warm|out)\b|\b(?:cool(?:ed)?|rack|turn(?:ed)? out|unmou?ld)\b/i;
const keeps = /\b(?:keeps?|store[ds]?|airtight|freezes?|freezer|wrap(?:ped)?|best (?:eaten|on the day))\b/i;
const serves = /^(?:\w+ly )?(?:serve|eat|slice|cut|enjoy)\b|\bserve\b|\beat (?:it|them|warm|with)\b/i;

/** What a word for several foods takes of those that nothing else names. */
const groups: [RegExp, (role: MixingRole, ingredient: Ingredient) => boolean][] = [
  [/\b(?:everything|all (?:but|except)|all (?:the |of the )?(?:rest|ingredients|others?|remaining)|the rest|the remaining|remaining (?:dry |wet )?ingredients|the lot|all together|it all|mix all)\b/i, () => true],
  [/\b(?:dry|dries)\b(?! (?:pan|frying|skillet|place|hands?))|\bpowders\b/i, (role) => role === "dry" || role === "sugar"],
  [/\b(?:wet|liquids?)\b(?! (?:hands?|spoon|spatula|knife))/i, (role) => role === "wet" || role === "fat" ],
  [/\bflours\b|\bflour mix\w*\b/i, (role, { family }) => role === "dry" && (family.includes("flour") || family === "starch" || family === "blend")],
  [/\bspices?\b/i, (_, { family }) => family === "spice"],
  [/\b(?:leaveners?|leavenings?|raising agents?)\b/i, (_, { family }) => family === "leavener"],
  [/\bnuts\b/i, (_, { family }) => family === "nut"],
  [/\bseeds\b/i, (_, { family }) => family === "seed"],
  [/\bberries\b/i, (_, { id, family }) => family === "fruit" && /berr|currant/.test(id)],
  [/\bfruits?\b/i, (_, { family }) => family === "fruit" || family === "dried-fruit"],
]; // prettier-ignore

/** What stays with what is mixed in a text: "butter the tin" is no butter of the batter. */
const stop = new Set("fresh ground whole large small medium plain fine dry dried soft light dark raw hot cold warm baking icing brown white black golden sour self free gluten no added extra ripe unsalted salted virgin pure mixed melted chopped diced".split(" ")); // prettier-ignore

/** A word with and without its plural; letters, figures and hyphens. */
const stemOf = (word: string): string => word.replace(/(?:oes|es|s)$/, "");
const wordPattern = (word: string): string => `${stemOf(word).replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}(?:e?s)?`;
const phrasePattern = (words: readonly string[]): RegExp =>
  new RegExp(`(?<![\\p{L}-])${words.map(wordPattern).join("[\\s-]+")}(?![\\p{L}-])`, "giu");

interface Call {
  words: number;
  pattern: RegExp;
  /** What of its last word stands in each text that it is found in, in small letters. */
  stem: string;
}

/** How a method may call a food: by its name, by what is left of it from the left on, by the pantry's other names. */
function callsOf({ name, ingredient, part }: MethodFood): Call[] {
  const out = new Map<string, Call>();
  const put = (words: readonly string[]): void => {
    const last = words.at(-1);
    if (last === undefined || last.length < 3 || stop.has(last)) return;
    // A fruit is its zest only where that is said: "the juice of 2 oranges" takes none.
    if (ingredient.id.endsWith("-zest") && !words.some((word) => /^(?:zests?|rind|peel)$/.test(word))) return;
    const key = words.join(" ");
    if (!out.has(key)) out.set(key, { words: words.length, pattern: phrasePattern(words), stem: stemOf(last) });
  };
  const short = ingredient.id === "soda" ? ["bicarb", "bicarbonate"] : [];
  for (const one of [name, ingredient.name, ...ingredient.aliases, ...short]) {
    const words = (one.toLowerCase().split(/,| \(/)[0] ?? "").match(/[\p{L}\d]+/gu) ?? [];
    for (let at = 0; at < words.length; at++) put(words.slice(at));
    // "brown rice flour" is as well "the rice" where nothing else is; "oil of sunflower" is not.
    if (one === name && words.length > 1) put(words.slice(0, 1).filter((word) => !stop.has(word)));
  }
  const whole = part
    ?.toLowerCase()
    .match(/[\p{L}\d]+/gu)
    ?.at(-1);
  if (whole !== undefined && whole.length > 3) put([whole]);
  return [...out.values()].sort((a, b) => b.words - a.words);
}

/** Which foods a stretch names, by their longest call; a word that is part of another food's longer name is not theirs. */
function namedIn(text: string, calls: readonly { lineId: string; calls: readonly Call[] }[]): Set<string> {
  const found: { lineId: string; from: number; to: number }[] = [];
  const small = text.toLowerCase();
  for (const { lineId, calls: own } of calls)
    for (const { pattern, stem } of own) {
      if (!small.includes(stem)) continue;
      const all = [...text.matchAll(pattern)];
      for (const match of all) found.push({ lineId, from: match.index, to: match.index + match[0].length });
      if (all.length > 0) break;
    }
  return new Set(
    found
      .filter(
        (one) => !found.some((other) => other.from <= one.from && other.to >= one.to && other.to - other.from > one.to - one.from),
      )
      .map(({ lineId }) => lineId),
  );
}

const amount = /(?<![\p{L}\d])(?:about |approx\S* |a scant |a heaped )?(?:\d+\s+)?\d+(?:[.,/]\d+)?\s?(?:kg|g|grams?|ml|cl|dl|l|litres?|cups?|tsps?|teaspoons?|tbsps?|tablespoons?|oz|ounces?|lbs?|pounds?|sticks?)\b\.?(?:\s+of\b)?(?:\s+the\b)?\s*/giu; // prettier-ignore
/** The words without the amounts that stand with the lines; a part of an amount ("2 tbsp of it", "half") stays. */
function withoutAmounts(words: string): string {
  return words
    .replace(amount, (all, at: number) =>
      /\b(?:all but|remaining|reserved?|other|but|half|except|rest of|last|of|an?|each)\s*(?:the\s*)?$/i.test(words.slice(0, at)) ||
      new RegExp(
        `^(?:(?:loaf |cake |round |square |muffin |bread |bundt |deep |small |large |springform )*${tin}|each|pieces?|portions?|balls?|buns?|rolls?|scoops?|measures?)\\b`,
        "i",
      ).test(words.slice(at + all.length))
        ? all
        : "the ",
    )
    .replace(/\bthe (?:the|a|an|your)\b/gi, "the")
    .replace(/\s+([,.;])/g, "$1")
    .replace(/\s{2,}/g, " ");
}

/** "all but the walnuts": what stands behind it is not meant; "all but 2 tablespoons of the sugar" is. */
const butFor =
  /\b(?:(?:all|everything) (?:but|except|apart from)|except(?: for)?|apart from)\b(?!\s*(?:\d|an?\b|half|one|two|three|four)).*/i;

interface Act {
  words: string;
  english: string;
  kind: WrittenKind | "skip" | "bake" | "same";
  lines: string[];
  group: ((role: MixingRole, ingredient: Ingredient) => boolean)[];
}

/** Everything about a place in a method that says what its words mean there. */
interface Seen {
  baked: boolean;
  filled: boolean;
  mixed: boolean;
  dry: boolean;
  wet: boolean;
}

const rolesAre = (foods: readonly MethodFood[], ...roles: MixingRole[]): boolean =>
  foods.length > 0 && foods.every(({ ingredient }) => roles.includes(mixingRole(ingredient)));

/** What an act does, by its verb, by what is in it and by where it stands. */
function kindOf(
  english: string,
  named: readonly MethodFood[],
  fresh: readonly MethodFood[],
  group: boolean,
  seen: Seen,
): Act["kind"] {
  const late = fresh.some(({ aside }) => aside === "late");
  if (seen.baked) {
    if (bakes.test(english) || onlyTime.test(english)) return "bake";
    if (keeps.test(english)) return "skip";
    if (/^(?:\w+ly )?(?:serve|eat|enjoy)\b/i.test(english)) return "serve";
    if (late || /\b(?:brush|drizzle|dust|ice|frost|spread|glaze|top|pour|poke|spoon|sprinkle|dip|sandwich|syrup|icing)\b/i.test(english)) return "finish"; // prettier-ignore
    if (late || serves.test(english)) return "serve";
    return afterIt.test(english) || !mixes.test(english) ? "skip" : late || fresh.length > 0 ? "finish" : "skip";
  }
  if (potHeats.test(english) || (fresh.length === 0 && named.some(({ aside }) => aside === "pan") && inHotPan.test(english))) return "pan"; // prettier-ignore
  if (eve.test(english) && fresh.length > 0 && !seen.mixed) return "soak";
  if (seen.mixed && pouredBatter.test(english)) return "portion";
  if (heats.test(english) && !prepares.test(english.replace(/^heat/i, ""))) return timesIn(english).length > 0 && (seen.mixed || seen.filled) ? "bake" : "skip"; // prettier-ignore
  if (lines.test(english)) return "pan";
  const cooks = /^\s*(?:\w+ly )?(?:cook|fry|griddle)\b/i.test(english) && !seen.mixed && fresh.length > 0;
  const heat = /\d{2,3}\s*(?:°|degrees|c\b|f\b)/i.test(english);
  if (/^(?:fry|griddle|cook)\b[^.]*\b(?:pan|skillet|griddle|iron)\b/i.test(english) && fresh.length === 0) return "bake";
  if (bakes.test(english) && !cooks && !seen.mixed && !seen.filled) return heat && timesIn(english).length > 0 && named.length === 0 ? "bake" : "prepare"; // prettier-ignore
  if ((bakes.test(english) && !cooks) || (heat && timesIn(english).length > 0)) return "bake";
  if (seen.filled && onlyTime.test(english)) return "bake";
  if (late) return "finish";
  if (softens.test(english)) return "prepare";
  if (seen.mixed && /^cool\b/i.test(english)) return "skip";
  const still = timesIn(english).length > 0 && (waits.test(english) || !mixes.test(english));
  if (!seen.mixed && fresh.length > 0 && (soaks.test(english) || (still && !prepares.test(english)))) return "soak";
  if (soaks.test(english) && !seen.mixed) return "soak";
  if (waits.test(english) && (timesIn(english).length > 0 || /\bovernight|while|until|cover/i.test(english))) return seen.wet && !seen.mixed ? "soak" : "rest"; // prettier-ignore
  if (keeps.test(english) && fresh.length === 0) return "skip";
  if (shapesFirst.test(english) && seen.mixed && (fresh.length === 0 || !finishing.test(english))) return "portion";
  if (finishing.test(english) && (seen.mixed || seen.filled) && !/\bfold\b/i.test(english)) return "top";
  if (rubs.test(english) && !seen.filled && (fresh.length > 0 || /butter|fat|lard|margarine/i.test(english)) && !shapes.test(english)) return "cut-in"; // prettier-ignore
  if (prepares.test(english) && !seen.mixed) return "prepare";
  const filling = shapes.test(english) && !/\b(?:in|into) (?:a|the|another|your) (?:small |large |big |mixing )?(?:pan|saucepan|pot)\b/i.test(english); // prettier-ignore
  if (filling && (seen.mixed || fresh.length === 0)) return "portion";
  if (foams.test(english) && fresh.some(({ ingredient }) => ingredient.family.startsWith("egg"))) return "whisk";
  if (creams.test(english)) return "cream";
  if (/\bfold\b/i.test(english)) return fresh.length > 0 && !rolesAre(fresh, "piece") ? "combine" : seen.mixed || rolesAre(fresh, "piece") ? "fold" : "combine"; // prettier-ignore
  if (machines.test(english)) return "blend";
  if (mixes.test(english) || fresh.length > 0 || group) {
    if (group && /\bdry\b/i.test(english) && /\bwet\b/i.test(english) && /\b(?:another|separate\w*|apart|second|other)\b/i.test(english)) return "wet"; // prettier-ignore
    if (/^(?:take|get|have)\b/i.test(english) && !seen.mixed) return "prepare";
    if (intoDry.test(english) && (seen.dry || seen.wet || group)) return "combine";
    if (rolesAre(fresh, "dry", "sugar") && !seen.wet) return "dry";
    if (group && fresh.length === 0 && /\b(?:dry|powders)\b/i.test(english) && !/\bwet\b/i.test(english))
      return seen.wet ? "combine" : "dry";
    if (group && fresh.length === 0 && /\b(?:wet|liquids?)\b/i.test(english) && !/\bdry\b/i.test(english) && !/\binto\b/i.test(english)) return "wet"; // prettier-ignore
    if (rolesAre(fresh, "wet", "fat", "sugar") && (!seen.dry || !stirredIn.test(english))) return "wet"; // prettier-ignore
    if (rolesAre(fresh, "piece") && (seen.dry || seen.mixed)) return "fold";
    if (fresh.length > 0 || group) return "combine";
    // "Whisk egg and milk, add, stir briefly": to the dry that stands ready.
    if (seen.dry && seen.wet && !seen.mixed && english.split(" ").length < 6 && /\b(?:add|pour|stir|mix|combine)\b/i.test(english)) return "combine"; // prettier-ignore
    return named.length > 0 || /^(?:stir|mix|combine|beat|whisk|knead|work|bring|join|pour)\b/i.test(english) ? (seen.mixed && !/\b(?:dough|batter|smooth|knead)\b/i.test(english) && seen.filled ? "same" : "combine") : "same"; // prettier-ignore
  }
  return "same";
}

/** What is named and not yet taken; where a word may mean a food of the batter or one beside it, the batter's, or where something is put on, the other. */
function freshOf(named: readonly MethodFood[], open: ReadonlySet<string>, beside: boolean): MethodFood[] {
  const fresh = named.filter(({ lineId }) => open.has(lineId));
  const likely = fresh.filter(({ aside }) => (aside !== undefined) === beside);
  return likely.length > 0 ? likely : fresh;
}

/** Which of several neighbouring acts of one sentence become one. */
const joins = (a: Act, b: Act): boolean =>
  b.kind === "same" ||
  (a.kind === b.kind && a.kind !== "rest" && (a.kind !== "prepare" || (b.lines.length === 0 && !bakes.test(b.english))));
/** A sentence goes on with what the one before did: it fills, or stirs what is in the bowl. */
const goesOn = (a: Act | undefined, b: Act): a is Act =>
  a?.kind === b.kind && (b.kind === "portion" || (b.kind === "combine" && b.lines.length === 0 && b.group.length === 0));

const mixing: ReadonlySet<Act["kind"]> = new Set<Act["kind"]>([
  "dry",
  "wet",
  "cream",
  "cut-in",
  "whisk",
  "fold",
  "combine",
  "blend",
]);
const halfMinutes = (minutes: number): number => Math.min(2880, Math.max(0.5, Math.round(minutes * 2) / 2));

/**
 * The steps of a method as it is written: each sentence by its acts, with the lines of the list that it takes. What is named first takes a line;
 * a word for several ("the dry", "everything else") takes what nothing names. Heats, bakes and
 * cooling are left to what is computed.
 */
export function writtenSteps(sentences: readonly MethodSentence[], foods: readonly MethodFood[]): WrittenStep[] {
  const calls = foods.map((food) => ({ lineId: food.lineId, calls: callsOf(food) }));
  const byId = new Map(foods.map((food) => [food.lineId, food]));
  const open = new Set(foods.filter(({ aside }) => aside !== "pan").map(({ lineId }) => lineId));
  const seen: Seen = { baked: false, filled: false, mixed: false, dry: false, wet: false };
  const acts: Act[] = [];
  for (const sentence of sentences) {
    const inSentence: Act[] = [];
    let lead = "";
    for (const part of actsIn(sentence)) {
      const own = `${lead}${part}`;
      const text = plainText(sentence.inEnglish ? sentence.inEnglish(own) : own);
      // "In a large bowl" is the beginning of what follows.
      const opens =
        lead === "" && /^(?:in|with|using|on|off|to|for|when|once|while|as soon|meanwhile|at)\b/i.test(text) && !leads.test(text);
      if (opens && text.split(" ").length < 8 && namedIn(text, calls).size === 0 && !sentence.inEnglish) {
        lead = `${part}, `;
        continue;
      }
      lead = "";
      const named = [...namedIn(text.replace(butFor, ""), calls)].flatMap((id) => byId.get(id) ?? []);
      let fresh = freshOf(named, open, seen.baked || finishing.test(text));
      const group = groups.filter(([pattern]) => pattern.test(text)).map(([, takes]) => takes);
      const meant = kindOf(text, named, fresh, group.length > 0, seen);
      // What is stirred of a filling alone is no batter yet.
      const kind = !seen.filled && !seen.baked && mixing.has(meant) && fresh.length > 0 && fresh.every(({ aside }) => aside === "early") ? "prepare" : meant; // prettier-ignore
      // What is laid in or between was made before.
      if (kind === "portion") fresh = fresh.filter(({ aside }) => aside === undefined);
      // A brush takes nothing of what is still to be stirred in; pieces may be strewn.
      if (kind === "top" || kind === "finish") fresh = fresh.filter(({ aside, ingredient }) => aside !== undefined || mixingRole(ingredient) === "piece"); // prettier-ignore
      const takes = kind !== "skip" && kind !== "pan" && kind !== "bake" && kind !== "rest" && !softens.test(text);
      if (takes) for (const { lineId } of fresh) open.delete(lineId);
      const act: Act = { words: own, english: text, kind, lines: takes ? fresh.map(({ lineId }) => lineId) : [], group: takes ? group : [] }; // prettier-ignore
      if (kind === "bake") seen.baked = true;
      if (kind === "portion") seen.filled = seen.mixed = true;
      if (kind === "combine" || kind === "blend") seen.mixed = true;
      if (kind === "dry" || kind === "cut-in") seen.dry = true;
      if (
        kind === "wet" ||
        kind === "cream" ||
        kind === "whisk" ||
        ((kind === "soak" || kind === "prepare") && fresh.length > 0 && !rolesAre(fresh, "dry", "piece"))
      )
        seen.wet = true;
      const before = inSentence.at(-1);
      if (before && before.kind !== "bake" && before.kind !== "skip" && before.kind !== "pan" && joins(before, act)) {
        before.words += `, ${act.words}`;
        before.english += `, ${act.english}`;
        before.lines.push(...act.lines);
        before.group.push(...act.group);
      } else inSentence.push(act);
    }
    for (const act of inSentence) {
      const last = acts.at(-1);
      if (goesOn(last, act))
        last.words = `${last.words.replace(/[.;,\s]+$/, "")}; ${act.words.replace(/^\p{Lu}(?=\p{Ll})/u, (c) => c.toLowerCase())}`;
      else acts.push(act);
    }
  }
  const kept = acts.filter(
    (act): act is Act & { kind: WrittenKind } => act.kind !== "skip" && act.kind !== "bake" && act.kind !== "same",
  );
  for (const act of kept)
    for (const takes of act.group)
      for (const { lineId, ingredient, aside } of foods)
        if (aside === undefined && open.has(lineId) && takes(mixingRole(ingredient), ingredient)) {
          act.lines.push(lineId);
          open.delete(lineId);
        }
  return kept.slice(0, MOST_WRITTEN).map(({ kind, words, english, lines: taken }): WrittenStep => {
    const said = kind === "soak" || kind === "rest" || kind === "prepare" || kind === "cream" || kind === "whisk" || kind === "blend" ? timesIn(english)[0] : undefined; // prettier-ignore
    const night =
      /\bovernight|all night|until (?:the )?(?:next day|morning)\b/i.test(english) || (kind === "soak" && eve.test(english))
        ? { low: 480, high: 720 }
        : undefined;
    const minutes = said ?? night;
    return {
      kind,
      words: capital(withoutAmounts(words.slice(0, 800)))
        .replace(/[.;:,\s]+$/, "")
        .slice(0, 500),
      lines: taken,
      ...(minutes ? { minutes: { low: halfMinutes(minutes.low), high: halfMinutes(minutes.high) } } : {}),
      ...((kind === "rest" || kind === "soak") && cold.test(english) ? { cold: true as const } : {}),
    };
  });
}
