import { type Measure, measuresAt } from "./grammar/amounts";
import { lower } from "./grammar/manners";
import { type Token, tokensOf } from "./grammar/tokens";
import { namedItem, type Purpose, tailOf, type WrittenItem } from "./line";
import { bareGrams, elided, inBracket, saidAgain, saysAnew } from "./mention-amounts";
import { weighMeasure } from "./weigh";
import type { Meant, Names } from "./meaning";

/**
 * Foods anywhere in a text, with the amounts that stand at them: what a sentence, a chat, a dictation or a second column says, where no list does.
 *
 *   mention = measures ("of" | article | manner)* food bracket* | food (":" | "-" | "," | "=")? measures | food
 *   food    = the longest run of words that the pantry knows by its very name
 */
export interface Mention {
  item: WrittenItem;
  /** Null where an amount is of something that the pantry does not know. */
  ingredientId: string | null;
  /** An amount of it is said, and it can be weighed or counted. */
  measured: boolean;
  /** Its amount is a figure without a unit, taken for grams. */
  bare?: true;
  /** It is one of two that may be taken, or is said to be left out or elsewhere. */
  aside: boolean;
  /** The words before it. */
  before: string;
  /** Where it stands in the plain text. */
  from: number;
  to: number;
}

/** The longest name of a food, in words. */
const MOST_WORDS = 6;
const between = /^(?:of|the|your|that|those|a|an|some|more|each|extra)$/;
/** What a food holds none of is part of its name. */
const freeFrom = /^(?:gf|free|based|glutenfree|dairyfree|vegan|plantbased|eggfree|nutfree)$/;
/** What joins a name to another word. */
const joints = /^(?:and|or|with|of|in|for|to|then|plus|the|an?|your|my)$/;
/** What stands before a food that does not go in with it: another choice, a denial, a comparison. */
const asideBefore = /^(?:or|no|not|without|instead|than|never|skip|omit|minus|like|nor|if|swapped|used|size)$/;
/** A food's name that is a verb where something to work on follows it. */
const verbs =
  /^(?:butter|oil|cream|flour|salt|sugar|water|ice|pepper|dust|glaze|date|jam|milk|spread|season|cook|egg|squash|mash|mince|whip|grate|beet)$/;
const workedOn = /^(?:the|a|an|your|it|them|two|both|each|well|tins?|pans?|trays?|moulds?|together)$/;

/** "butter and GF": what stands before the joint is a food by itself, so the name ends there. */
function joinsTwo(tokens: readonly Token[], text: string, at: number, next: number, names: Names): boolean {
  const joint = tokens.findIndex((_, k) => k > at && k < next && /^(?:and|or)$/.test(lower(tokens, k)));
  return joint > 0 && names.known(text.slice(tokens[at]?.start, tokens[joint - 1]?.end)) !== null && !names.titled(text.slice(tokens[at]?.start, tokens[next - 1]?.end)); // prettier-ignore
}

/** The food whose name begins at a token, by as many words as it has. */
function foodAt(tokens: readonly Token[], text: string, at: number, names: Names): { meant: Meant; next: number } | null {
  const figures = tokens[at]?.kind === "number" && tokens[at + 1]?.text === ":" && tokens[at + 2]?.kind === "number";
  if ((tokens[at]?.kind !== "word" && !figures) || between.test(lower(tokens, at))) return null;
  if (!figures && (!names.isNameWord(lower(tokens, at)) || /^(?:and|or|plus)$/.test(lower(tokens, at)))) return null;
  // "GF AP flour", "nut-free milk chocolate": without its first words it would be another thing.
  for (let k = at - 1; k >= 0 && k >= at - 3 && tokens[k]?.kind === "word"; k--) {
    if (freeFrom.test(lower(tokens, k))) return null;
    if (!names.isNameWord(lower(tokens, k)) || joints.test(lower(tokens, k))) break;
    // "gf flour sugar": a thing has ended there, and another begins.
    const before = tokens[k - 1];
    if (before && freeFrom.test(before.lower) && names.known(text.slice(before.start, tokens[at - 1]?.end)) !== null) break;
  }
  let most = at;
  while (most < tokens.length && most - at < MOST_WORDS * 2) {
    const here = tokens[most];
    // A name runs over words, hyphens within them, and figures such as those of "1:1".
    if (here?.kind === "sign" && !(/^[-:%]$/.test(here.text) && !here.spaced && tokens[most + 1]?.spaced === false)) break;
    if (here?.kind === "number" && here.spaced && !/^[:-]$/.test(tokens[most + 1]?.text ?? "")) break;
    if (most > at && here?.kind === "word" && !names.isNameWord(here.lower)) break;
    // Where another amount begins, the name has ended: "powder half a teaspoon salt".
    if (
      most > at &&
      here?.kind === "word" &&
      measuresAt(tokens, most)?.value.some((measure) => measure.some((term) => term.withUnit))
    )
      break;
    most++;
  }
  for (let next = most; next > at; next--) {
    // What joins it to the next is no part of a name.
    if (tokens[next - 1]?.kind === "sign" || joints.test(lower(tokens, next - 1))) continue;
    const name = text.slice(tokens[at]?.start, tokens[next - 1]?.end);
    // "White gf mix": it says what the next word is like.
    if (/^(?:white|brown)$/i.test(name) && tokens[next]?.kind === "word" && names.isNameWord(lower(tokens, next)) && !/(?:ed|en|ly)$|^(?:and|or|with|in|into|to|for|of|from|plus)$/.test(lower(tokens, next))) continue; // prettier-ignore
    // "sugar-free marzipan": what it holds none of is no food.
    const free = tokens[next]?.text === "-" ? next + 1 : next;
    const isRange = /^(?:range|from)$/.test(lower(tokens, tokens[free + 1]?.text === "-" ? free + 2 : free + 1));
    if (lower(tokens, free) === "free" && !isRange) continue;
    const meant = names.known(name);
    if (meant && !joinsTwo(tokens, text, at, next, names)) return { meant, next };
  }
  return null;
}

const goesTo: [Purpose, RegExp][] = [
  ["pan", /^(?:grease|greasing|line|butter|oil|coat)$/],
  ["fry", /^(?:fry|frying)$/],
  ["brush", /^(?:brush|glaze|brushed|brushing)$/],
  ["dust", /^(?:dust|dusting|dredge)$/],
  ["top", /^(?:sprinkle|scatter|top|drizzle|sprinkled|scattered)$/],
  ["serve", /^(?:serve|eat|spread)$/],
]; // prettier-ignore

/** What is done with a food is said by the verb before it: one that is brushed or sprinkled on does not go into the bowl. */
function purposeBefore(tokens: readonly Token[], at: number): Purpose | undefined {
  for (let k = at - 1; k >= 0 && k >= at - 8; k--) {
    const here = lower(tokens, k);
    if (/^[.;]$/.test(tokens[k]?.text ?? "") || /^(?:then|and)$/.test(here)) return undefined;
    const found = goesTo.find(([, verb]) => verb.test(here));
    // It is a verb where something begins: "butter" behind an amount is a food.
    const begins = k === 0 || tokens[k - 1]?.kind === "sign" || /^(?:to|for|then|and|now|lightly)$/.test(lower(tokens, k - 1));
    if (found && begins) return found[0];
  }
  return undefined;
}

/** Up to three words before a place, in its own clause. */
function wordsBefore(tokens: readonly Token[], at: number): string[] {
  const words: string[] = [];
  for (let k = at - 1; k >= at - 3 && tokens[k]?.kind === "word"; k--) words.push(lower(tokens, k));
  return words;
}

const weighable = (measures: readonly Measure[], { what }: Meant): boolean =>
  measures.some((measure) => measure.every((term) => term.withUnit) || weighMeasure(measure, what, "metric") !== null);

/** Every food that a plain text (see `plainText`) speaks of, in its order. */
export function mentionsIn(text: string, names: Names): Mention[] {
  const tokens = tokensOf(text);
  const found: Mention[] = [];
  let at = 0;
  const add = (from: number, given: { meant: Meant; next: number; at: number }, said: Measure[], next: number): void => {
    const written = text.slice(tokens[given.at]?.start, tokens[given.next - 1]?.end);
    // "the zest of one lemon"
    const part = /\b(zest|juice|rind|peel)\s+(?:of|from)\s+(?:the\s+)?$/i
      .exec(text.slice(Math.max(0, (tokens[from]?.start ?? 0) - 24), tokens[from]?.start))?.[1]
      ?.toLowerCase();
    const size = part === "rind" || part === "peel" ? "zest" : part;
    // "zest of 3 clementines": the zest of what the pantry takes them for.
    const taken =
      size === undefined
        ? null
        : (names.known(`${written} ${size}`) ?? names.known(`${given.meant.name.split(",")[0] ?? ""} ${size}`));
    const food = taken ? { ...given, meant: taken } : given;
    const name = taken ? `${written} ${size ?? ""}` : written;
    const grams = bareGrams(
      said,
      food.meant,
      found.some(({ bare }) => bare === true),
    );
    // "1/3 of the butter above": it is counted where it stands.
    const isElsewhere = /^(?:above|below)$/.test(lower(tokens, given.next)) && said.every((measure) => measure.every(({ withUnit }) => !withUnit)); // prettier-ignore
    const measures = isElsewhere
      ? []
      : (grams ??
        (taken && size !== undefined
          ? said.map((measure) => measure.map((term) => (term.withUnit ? term : { ...term, size })))
          : said));
    const before = lower(tokens, from - 1) === "(" ? lower(tokens, from - 2) : lower(tokens, from - 1);
    const start = tokens[from]?.start ?? 0;
    const opening = text.lastIndexOf("(", start);
    const inOr = opening > text.lastIndexOf(")", start) && /^\(\s*(?:or|if|instead|in place|not)\b/i.test(text.slice(opening));
    // "a cup of purée, about two pears": the same once more.
    const again =
      /^(?:about|roughly|around|approximately)$/.test(lower(tokens, from)) &&
      tokens[from - 1]?.text === "," &&
      said.every((measure) => measure.every((term) => !term.withUnit));
    // "instead of", "in place of" and "also made it with": told of another time.
    const another = measures.length === 0 && (/\b(?:also|once|sometimes)\b[^.;]{0,24}\b(?:made|done|tried|works?|used?|baked)\b[^.;]*$/i.test(text.slice(Math.max(0, start - 70), start)) || /^[^.;,]{0,24}\b(?:instead of|in place of)\b/i.test(text.slice(tokens[next - 1]?.end))); // prettier-ignore
    const aside =
      another || inOr || again || asideBefore.test(before) || wordsBefore(tokens, from).some((word) => asideBefore.test(word));
    // "200 g yoghurt or 200 ml buttermilk": another choice for the one before it.
    const other = before === "or" ? found.at(-1) : undefined;
    if (other?.measured && measures.length > 0)
      other.item.alternatives.push(text.slice(tokens[from]?.start, tokens[next - 1]?.end));
    const purpose = purposeBefore(tokens, from);
    const tail = { ...tailOf(""), ...(purpose ? { purpose, toTaste: true } : {}) };
    found.push({
      item: namedItem(name, measures, tail, [], []),
      ingredientId: food.meant.ingredientId,
      measured: measures.length > 0 && weighable(measures, food.meant),
      ...(grams ? { bare: true as const } : {}),
      aside,
      before: text.slice(Math.max(0, (tokens[from]?.start ?? 0) - 60), tokens[from]?.start),
      from: tokens[from]?.start ?? 0,
      to: tokens[next - 1]?.end ?? text.length,
    });
    at = next;
  };
  // "cinnamon 1 tsp ginger 1 tsp": amounts stand behind, where the first food has none before it and the last word is one.
  const behindAll =
    !measuresAt(tokens, 0) &&
    foodAt(tokens, text, 0, names) !== null &&
    tokens.some((_, k) => measuresAt(tokens, k)?.next === tokens.length);
  /** What each of several foods has. */
  let shared: Measure[] | null = null;
  while (at < tokens.length) {
    // The end of another word or number is no amount: "1e999 g".
    const glued = at > 0 && tokens[at]?.spaced === false && tokens[at - 1]?.kind !== "sign";
    const amount = glued ? null : measuresAt(tokens, at);
    if (amount) {
      let start = amount.next;
      const measures = elided(tokens, amount, found) ?? [...amount.value];
      // "240 ml (1 cup) of milk": another measure of the same.
      const second = inBracket(tokens, text, start, measures[0]);
      if (second) {
        measures.push(...second.measures);
        start = second.next;
      }
      while (between.test(lower(tokens, start)) || tokens[start]?.text === '"') start++;
      const food = foodAt(tokens, text, start, names);
      // "1/2 tsp each nutmeg, ginger and salt": what follows has as much, up to an amount or another word.
      shared =
        /^each$/.test(lower(tokens, start - 1)) || (lower(tokens, start - 1) === "of" && lower(tokens, start - 2) === "each")
          ? measures
          : null;
      if (food && endsAt(tokens, food.next, names)) {
        const more = inBracket(tokens, text, food.next, measures[0]);
        if (more) measures.push(...more.measures);
        add(at, { ...food, at: start }, measures, more?.next ?? food.next);
        continue;
      }
      const isSure = amount.value.every((measure) => measure.every((term) => term.withUnit && term.unit !== "piece"));
      const behind = isSure ? wordsBehind(tokens, text, at, amount.next, found.at(-1)?.to ?? 0) : null;
      if (behind) {
        found.push({ item: namedItem(behind, measures, tailOf(""), [], []), ingredientId: null, measured: true, aside: false, before: "", from: tokens[at]?.start ?? 0, to: tokens[amount.next - 1]?.end ?? text.length }); // prettier-ignore
        at = amount.next;
        continue;
      }
      const unknown = isSure ? wordsAt(tokens, text, start) : null;
      if (unknown) {
        found.push({
          item: namedItem(unknown.name, measures, tailOf(""), [], []),
          ingredientId: null,
          measured: true,
          aside: false,
          before: text.slice(Math.max(0, (tokens[at]?.start ?? 0) - 60), tokens[at]?.start),
          from: tokens[at]?.start ?? 0,
          to: tokens[unknown.next - 1]?.end ?? text.length,
        });
        at = unknown.next;
      } else at = Math.max(at + 1, amount.next);
      continue;
    }
    const food = foodAt(tokens, text, at, names);
    if (!food || isVerb(tokens, at, food.next)) {
      at++;
      continue;
    }
    const behind = amountBehind(tokens, text, food.next, behindAll ? null : names);
    if (shared && !behind && joinsOn(tokens, at)) {
      add(at, { ...food, at }, shared, food.next);
      continue;
    }
    shared = null;
    if (behind) add(at, { ...food, at }, behind.measures, behind.next);
    else add(at, { ...food, at }, [], food.next);
  }
  // "three bananas, that's about 300 g, mashed": the words behind that amount are no food of their own.
  const own = found.filter(
    ({ ingredientId, from }, k) => ingredientId !== null || !saysAnew(text.slice(found[k - 1]?.to ?? from, from)),
  );
  return own.map((mention, k) => {
    const words = ownWords(text, mention.from, own[k + 1]?.from);
    return { ...mention, item: saidAgain({ ...mention.item, own: words }, words.slice(mention.to - mention.from)) };
  });
}

/** What is said of a food: from its amount to the end of its sentence, or to where the next one begins. */
function ownWords(text: string, from: number, next: number | undefined): string {
  const rest = text.slice(from, next);
  const end = /[.;!?](?=\s|$)/.exec(rest.slice(1));
  return end ? rest.slice(0, end.index + 1) : rest;
}

/** Whether a food is the next one of a list: behind a comma or "and", or both. */
const joinsOn = (tokens: readonly Token[], at: number): boolean => /^(?:,|&|and|\+|plus)$/.test(lower(tokens, at - 1) || (tokens[at - 1]?.text ?? "")); // prettier-ignore

/** No food: what is filled, where something goes, how it goes on. */
const noFood = /^(?:tins?|pans?|trays?|mou?lds?|loaf|scoops?|portions?|balls?|pieces?|rounds?|mounds?|cups?|cases?|each|more|less|at|in|into|for|to|and|or|on|onto|off|over|with|per|by|from|mark|apart|of|then|until|before|after|is|are|was|were|will|if|as|square|round|jars?|bowls?|dishe?s?|skillet|measure|serving|total|altogether)$/; // prettier-ignore

/** The words behind an amount that may be a food which the pantry does not know. */
function wordsAt(tokens: readonly Token[], text: string, at: number): { name: string; next: number } | null {
  let next = at;
  while (next < tokens.length && next - at < 4 && tokens[next]?.kind === "word" && !noFood.test(lower(tokens, next))) next++;
  return next === at ? null : { name: text.slice(tokens[at]?.start, tokens[next - 1]?.end), next };
}

/** "moon dust 5 g,": the words between two commas before an amount that may be a food which the pantry does not know. */
function wordsBehind(tokens: readonly Token[], text: string, at: number, next: number, taken: number): string | null {
  const ends = (token: Token | undefined): boolean => token === undefined || /^[,;/]$/.test(token.text);
  if (!ends(tokens[next])) return null;
  let from = at;
  while (from > 0 && tokens[from - 1]?.kind === "word" && at - from < 4) from--;
  const words = tokens.slice(from, at).map((token) => token.lower);
  if (words.length === 0 || !ends(tokens[from - 1]) || (tokens[from]?.start ?? 0) < taken || words.some((word) => noFood.test(word))) return null;
  return text.slice(tokens[from]?.start, tokens[at - 1]?.end);
} // prettier-ignore

/** Words that may stand behind a food, and are no part of its name. */
const goesOn = /^(?:and|or|with|in|into|to|for|until|till|plus|then|at|on|onto|over|from|as|by|if|the|a|an|while|when|before|after|is|are|goes?|will|which|that|so|but|because|it|them|through|gently|gradually|together|off|out|up|down|around|between|per|each|first|last|now|next|here|there|too|also|again|not|well|about|beaten|of|like|whole|straight|right|directly?|just|still|only|once|unless|though|although|since|where|whichever|whatever|maybe|perhaps|roughly|approx|please|thanks|yes|no|ok|okay|under|within|above|below|beside|behind|against|later|soon|too|mix|stir|whisk|beat|fold|pour|bake|tip|rest|you|we|i|my|she|he)$/; // prettier-ignore

/** Whether a food's name has ended: another word of a thing behind it would make it another one ("oat milk chocolate"). */
function endsAt(tokens: readonly Token[], at: number, names: Names): boolean {
  const here = tokens[at];
  return (
    here?.kind !== "word" ||
    goesOn.test(here.lower) ||
    names.passesOver(here.lower) ||
    /(?:ed|ly)$/.test(here.lower) ||
    measuresAt(tokens, at) !== null
  );
}

const isVerb = (tokens: readonly Token[], at: number, next: number): boolean =>
  next === at + 1 && ((verbs.test(lower(tokens, at)) && workedOn.test(lower(tokens, next))) || lower(tokens, at) === "sprinkle");

/** "flour: 200 g", "butter (115 g)", "salt 1 tsp": an amount behind the food, where it is not that of the next one. */
function amountBehind(
  tokens: readonly Token[],
  text: string,
  from: number,
  names: Names | null,
): { measures: Measure[]; next: number } | null {
  const bracket = inBracket(tokens, text, from, undefined);
  if (bracket) return bracket;
  const at = /^[:,=-]$/.test(tokens[from]?.text ?? "") ? from + 1 : from;
  const amount = measuresAt(tokens, at);
  if (!amount?.value.every((measure) => measure.every((term) => term.withUnit))) return null;
  let start = amount.next;
  while (between.test(lower(tokens, start))) start++;
  return names && foodAt(tokens, text, start, names) ? null : { measures: amount.value, next: amount.next };
}
