import { capital } from "../list-words";
import de from "./de.json";
import es from "./es.json";
import fr from "./fr.json";
import it from "./it.json";
import { unitOf } from "../units";
import { type Language, languages } from "./names";

/**
 * A text in another language is read in English: word by word and phrase by phrase, by data. Only what a recipe is made of stands there: amounts,
 * foods, heats, times, pans and what is done; a word that is not known stays as it is, and is asked about like any other.
 */
export type { Language };

interface Data {
  words: Record<string, string>;
  /** "farine de X" is "X flour"; in German the head stands last within the word. */
  heads: Record<string, string>;
  stems: Record<string, string>;
  of: string[];
  /** What stands between two figures of a range. */
  joints: string[];
}

interface Dictionary {
  words: Map<string, string>;
  heads: Map<string, string>;
  stems: Map<string, string>;
  of: Set<string>;
  joints: Set<string>;
  /** Heads that end a compound, the longest first. */
  ends: string[];
}

const even = (text: string): string =>
  text
    .toLowerCase()
    .replace(/œ/g, "oe")
    .replace(/ß/g, "ss")
    .replace(/’/g, "'")
    .normalize("NFD")
    .replace(/[\u0300-\u036f]/g, "");

interface Word {
  even: string;
  start: number;
  end: number;
}

const wordsIn = (text: string): Word[] =>
  [...text.matchAll(/\p{L}+['’](?=\p{L})|\p{L}[\p{L}\p{M}]*/gu)].map((match) => ({
    even: even(match[0]).replace(/'$/, ""),
    start: match.index,
    end: match.index + match[0].length,
  }));

const keyOf = (phrase: string): string =>
  wordsIn(phrase)
    .map((word) => word.even)
    .join(" ");
/** In a phrase one word for "of" is as good as another: "fiocchi d'avena", "fiocchi di avena". */
const sameOf = (key: string, of: ReadonlySet<string>): string =>
  key.includes(" ")
    ? key
        .split(" ")
        .map((word, k, all) => (k > 0 && k < all.length - 1 && of.has(word) ? "~" : word))
        .join(" ")
    : key;
const mapOf = (record: Record<string, string>, of: ReadonlySet<string>): Map<string, string> =>
  new Map(Object.entries(record).map(([key, value]) => [sameOf(keyOf(key), of), value]));

const dictionaryOf = ({ words, heads, stems, of, joints }: Data): Dictionary => {
  const joins = new Set(of.map(keyOf));
  const made = {
    words: mapOf(words, joins),
    heads: mapOf(heads, joins),
    stems: mapOf(stems, joins),
    of: joins,
    joints: new Set(joints.map(keyOf)),
  };
  return { ...made, ends: [...made.heads.keys()].sort((a, b) => b.length - a.length) };
};
const dictionaries = new Map<Language, Dictionary>();
const data: Record<Exclude<Language, "en">, Data> = { de, fr, es, it };
const dictionaryFor = (language: Exclude<Language, "en">): Dictionary => {
  const before = dictionaries.get(language);
  if (before) return before;
  const made = dictionaryOf(data[language]);
  dictionaries.set(language, made);
  return made;
};

const MOST_WORDS = 5;

/** The English of what begins at a word, and how many words it takes. */
function phraseAt(
  words: readonly Word[],
  text: string,
  at: number,
  dictionary: Dictionary,
): { english: string; taken: number } | null {
  let most = 1;
  // A phrase runs over blanks, points of abbreviations, strokes and hyphens, and over nothing else.
  while (
    most < MOST_WORDS + 1 &&
    at + most < words.length &&
    /^[\s.\-/]{0,3}$/.test(text.slice(words[at + most - 1]?.end, words[at + most]?.start))
  )
    most++;
  const key = (from: number, count: number): string =>
    words
      .slice(from, from + count)
      .map((word) => word.even)
      .join(" ");
  for (let taken = most; taken >= 1; taken--) {
    // What a flour may be of is a thing by itself too: "pommes de terre".
    const phrase = taken > 2 ? sameOf(key(at, taken), dictionary.of) : key(at, taken);
    const english = dictionary.words.get(phrase) ?? (taken > 1 ? dictionary.stems.get(phrase) : undefined);
    if (english !== undefined) return { english, taken };
    const made = taken >= 3 ? headAt(key, at, taken, dictionary) : null;
    if (made !== null) return { english: made, taken };
  }
  const one = words[at]?.even ?? "";
  // "Zeste d'un citron": a head by itself is what it heads.
  const english = compoundOf(one, dictionary) ?? dictionary.heads.get(one) ?? dative(one, dictionary) ?? (dictionary.of.size > 0 ? dictionary.stems.get(one) : undefined) ?? null; // prettier-ignore
  return english === null ? null : { english, taken: 1 };
}

/** "farine de riz complet": brown rice flour. */
function headAt(
  key: (from: number, count: number) => string,
  at: number,
  taken: number,
  { heads, stems, of }: Dictionary,
): string | null {
  const head = heads.get(key(at, 1));
  if (head === undefined) return null;
  for (let joint = 1; joint <= 2 && joint < taken - 1; joint++) {
    if (!of.has(key(at + 1, joint))) continue;
    const stem = stems.get(sameOf(key(at + 1 + joint, taken - 1 - joint), of));
    if (stem !== undefined) return `${stem} ${head}`;
  }
  return null;
}

/** "Mit Haselnüssen": of many in the dative, which only German writes. */
const dative = (word: string, { of, words }: Dictionary): string | null =>
  of.size === 0 && word.length > 5 && word.endsWith("n") ? (words.get(word.slice(0, -1)) ?? null) : null;

/** "Buchweizenmehl": buckwheat flour. */
function compoundOf(word: string, { ends, heads, stems, of }: Dictionary): string | null {
  if (of.size > 0) return null;
  for (const end of ends) {
    if (!word.endsWith(end) || word.length <= end.length + 1) continue;
    const before = word.slice(0, -end.length);
    for (const stem of [before, before.replace(/(?:en|es|n|s|e)$/, "")]) {
      const english = stems.get(stem);
      if (english !== undefined) return `${english} ${heads.get(end) ?? ""}`;
    }
  }
  return null;
}

/** "noci di X": what is of something that is not known is no nut; it stays as it is, and is asked about. A unit is one of anything. */
function isOfUnknown(said: string, words: readonly Word[], text: string, at: number, dictionary: Dictionary): boolean {
  if (!dictionary.of.has(words[at + 1]?.even ?? "") || unitOf(said) !== null) return false;
  let next = at + 1;
  while (next < words.length && next < at + 3 && dictionary.of.has(words[next]?.even ?? "")) next++;
  const thing = words[next];
  if (next === at + 1 || !thing || /[^\s'’]/.test(text.slice(words[at]?.end, thing.start).replace(/\p{L}/gu, ""))) return false;
  return !shared.has(thing.even) && !english.has(thing.even) && phraseAt(words, text, next, dictionary) === null;
}

/** A line in English, as far as it is known. */
export function inEnglish(text: string, language: Language): string {
  if (language === "en") return text;
  const dictionary = dictionaryFor(language);
  const words = wordsIn(text);
  let out = "";
  let done = 0;
  for (let at = 0; at < words.length;) {
    const here = words[at];
    if (!here) break;
    const between = dictionary.joints.has(here.even) && /\d\s*$/.test(text.slice(done, here.start)) && /^\s*\d/.test(text.slice(here.end)); // prettier-ignore
    const phrase = between ? { english: "to", taken: 1 } : phraseAt(words, text, at, dictionary);
    const found = !between && phrase?.taken === 1 && isOfUnknown(phrase.english, words, text, at, dictionary) ? null : phrase;
    const last = words[at + (found?.taken ?? 1) - 1] ?? here;
    const apart = text.slice(done, here.start);
    // "d'amandes": what was joined stands apart.
    out += apart === "" && /[\p{L}]$/u.test(out) ? " " : apart;
    const said = found?.english ?? text.slice(here.start, here.end);
    out += found && opens(text, here.start, language) ? capital(said) : said;
    done = last.end;
    at += found?.taken ?? 1;
  }
  return (out + text.slice(done)).replace(abbreviated, "$1");
}

/** What an abbreviation stood for keeps no point: "1 gestr. TL" is a level one, not the end of a sentence. */
const abbreviated = /\b(level|heaped|scant|about)\.(?=\s)/g;

/** Where a capital behind a full stop begins a sentence, not a noun behind an abbreviation: "4 ore. Teglia", but "1 Pck. Zucker". */
const opens = (text: string, at: number, language: Language): boolean =>
  /\p{Lu}/u.test(text[at] ?? "") &&
  (language === "de" ? /\p{Ll}{5}[.!?]\s+$/u : /\p{Ll}{3}[.!?]\s+$/u).test(text.slice(Math.max(0, at - 12), at));

/** Words that are as good as certain to be English. */
const english = new Set(
  "the and of with cup cups tbsp tsp tablespoon tablespoons teaspoon teaspoons flour sugar bake oven into until for minutes butter egg eggs milk water salt baking powder soda oil at it is you to in add stir mix whisk".split(
    " ",
  ),
);
/** Words of other languages that are English ones too, or are too short to tell. */
const shared = new Set(
  "a an in on o e y un me die form min rum polenta la le al ei el a six orange vanille margarine teff chia quinoa tapioca xanthan natron pot six image date dates nature doce ora sale salt banana ricotta parmesan vapeur minute minutes cacao et de im".split(
    " ",
  ),
);

const LEAST_SHARE = 0.25;
/** A line alone must be surer. */
const LEAST_OF_A_LINE = 0.42;

/** Words that only another language has, by themselves or at the beginning of a phrase. */
const foreign = new Set<string>();
function isForeign(word: string): boolean {
  if (foreign.size === 0)
    for (const language of languages) {
      if (language === "en") continue;
      const { words, heads, stems } = dictionaryFor(language);
      for (const key of [...words.keys(), ...heads.keys(), ...stems.keys()]) {
        const [begins = ""] = key.split(" ");
        if (begins.length > 1 && !english.has(begins) && (key !== begins || !shared.has(begins))) foreign.add(begins);
      }
    }
  return foreign.has(word) || (word.length > 6 && compoundOf(word, dictionaryFor("de")) !== null);
}

const MOST_KEPT = 400;
const kept = new Map<string, Language>();

/** The language of a line in a text of a language: that of the text, or another that the line is surely in. */
export function languageOfLine(line: string, text: Language): Language {
  if (text !== "en") return text;
  const before = kept.get(line);
  if (before !== undefined) return before;
  if (kept.size >= MOST_KEPT) kept.clear();
  const found = wordsIn(line.slice(0, 400)).some((word) => isForeign(word.even)) ? languageOf(line, LEAST_OF_A_LINE) : "en";
  kept.set(line, found);
  return found;
}

/** Letters of a text that only a language has, in its words and phrases. */
function lettersIn(text: string, dictionary: Dictionary): number {
  const words = wordsIn(text);
  let all = 0;
  for (let at = 0; at < words.length;) {
    const found = phraseAt(words, text, at, dictionary);
    const own = words.slice(at, at + (found?.taken ?? 1)).filter(({ even: word }) => word.length > 1 && !english.has(word));
    // A phrase is surer than its words.
    if (found)
      all += own
        // What is the same word in English tells nothing.
        .filter(({ even: word }) => found.taken > 1 || !(shared.has(word) || found.english === word))
        .reduce((sum, { even: word }) => sum + word.length, 0);
    at += found?.taken ?? 1;
  }
  return all;
}

/** The language of a text, by the letters of the words that only it has. */
export function languageOf(text: string, least = LEAST_SHARE): Language {
  const words = wordsIn(text.slice(0, 6000)).filter((word) => word.even.length > 1);
  const letters = words.reduce((all, word) => all + word.even.length, 0);
  if (letters === 0) return "en";
  // Phrases are a few words long: where hardly a word is another language's, no phrase is.
  const other = words.reduce((all, word) => all + (isForeign(word.even) ? word.even.length : 0), 0);
  if (MOST_WORDS * other < least * letters) return "en";
  const own = words.reduce((all, word) => all + (english.has(word.even) ? word.even.length : 0), 0) / letters;
  let best: Language = "en";
  let most = Math.max(least, own);
  for (const language of languages) {
    if (language === "en") continue;
    const known = lettersIn(text.slice(0, 6000), dictionaryFor(language)) / letters;
    if (known >= most) {
      most = known;
      best = language;
    }
  }
  return best;
}
