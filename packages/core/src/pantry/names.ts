/** Words of names, as the pantry compares them: plain, singular, one spelling each. */

const singular = (word: string): string => {
  if (word.length < 4 || /ss$|us$|is$|as$/.test(word)) return word;
  if (/ies$/.test(word)) return `${word.slice(0, -3)}y`;
  if (/(?:ch|sh|x|s|o)es$/.test(word)) return word.slice(0, -2);
  if (/ves$/.test(word) && word !== "olives" && word !== "chives" && word !== "cloves") return `${word.slice(0, -3)}f`;
  return /s$/.test(word) ? word.slice(0, -1) : word;
};

/** Two words that are one, before anything is compared. */
const joined: [RegExp, string | ((match: string) => string)][] = [
  [/\bgluten[\s-]free\b|\bg[./]?f\.?\b|\bfree[\s-]from\b/g, "glutenfree"],
  [/\blactose[\s-]free\b/g, "lactosefree"],
  [/\b(?:dairy|milk)[\s-]free\b|\bnon[\s-]?dairy\b/g, "dairyfree"],
  [/\bplant[\s-]based\b/g, "plantbased"],
  [/\begg[\s-]free\b/g, "eggfree"],
  [/\bwheat[\s-]free\b/g, "wheatfree"],
  [/\bnut[\s-]free\b/g, "nutfree"],
  [/\bsoya?[\s-]free\b/g, "soyfree"],
  [/\bsugar[\s-]free\b/g, "sugarfree"],
  [/\bfreeze[\s-]dried\b/g, "freezedried"],
  [/\bap flour\b/g, "allpurpose flour"],
  [/\ball[\s-]purpose\b/g, "allpurpose"],
  [/\bs[./]?r\.? flour\b/g, "selfraising flour"],
  [/\bbs\b/g, "baking soda"],
  [/\bself[\s-](?:raising|rising)\b/g, "selfraising"],
  [
    /\bflour,? ((?:glutenfree,? )?)(?:s[./]?r|selfraising)\b/g,
    (match) => `${/glutenfree/.test(match) ? "glutenfree " : ""}selfraising flour`,
  ],
  [/\b(?:1|one)[\s-](?:to|for)[\s-](?:1|one)\b|\b1:1\b|\bcup[\s-]for[\s-]cup\b/g, "onetoone"],
  [/\bwhole[\s-](?:grain|meal|wheat)\b/g, (match) => match.replace(/[\s-]/g, "")],
  [/\bbi[\s-]carb(?:onate)?\b/g, "bicarb"],
  // A slip of the ear; other flowers are flowers.
  [
    /\b(?:rice|corn|potato|oat|almond|coconut|buckwheat|sorghum|millet|teff|cassava|chickpea|tapio[ck]a) flower\b/g,
    (match) => match.replace("flower", "flour"),
  ],
  [/\bfree[\s-]range\b/g, "freerange"],
  [/\bfull[\s-]fat\b|\blow[\s-]fat\b|\bhalf[\s-]fat\b|\bfat[\s-]free\b/g, "fatness"],
  [/\bready[\s-]rolled\b/g, "rolled"],
  [/\bb\.\s?p\.?(?=\s|$)|\bbp\b|\bb(?:kg|ak)?\.? ?p(?:ow|wd|d)(?:de)?r\b/g, "baking powder"],
  [/\b(?:of|to) (?:your |own )?(?:choice|choosing|liking)\b|\b(?:as|if) (?:needed|required)\b/g, " "],
];

const spelled: Record<string, string> = {
  yogurt: "yoghurt", yoghourt: "yoghurt", castor: "caster", chili: "chilli", chile: "chilli", chilies: "chilli", chilly: "chilli",
  aluminum: "aluminium", fibre: "fiber", grey: "gray", flax: "flaxseed", linseed: "flaxseed", soya: "soy", maize: "corn",
  purée: "puree", pureed: "puree", blitzed: "ground", milled: "ground", powdered: "powder", dessicated: "desiccated",
  crystallized: "crystallised", caramelised: "caramelized", courgette: "courgette", omelette: "omelet", yolks: "yolk",
  plain: "plain", unbleached: "plain", fl: "flour", flr: "flour", st: "starch",
  pdr: "powder", pwd: "powder", pwdr: "powder", powd: "powder", marg: "margarine", choc: "chocolate", evap: "evaporated", cond: "condensed", veg: "vegetable", parm: "parmesan",
  cinn: "cinnamon", xanth: "xanthan", sult: "sultana", dess: "desiccated", cocon: "coconut", psyll: "psyllium", sug: "sugar", sr: "selfraising", yog: "yoghurt",
}; // prettier-ignore

/** Words that make one with their neighbour (see `joined`): by themselves they may be in no name. */
export const joinable = new Set(
  "gluten gf g f free from lactose dairy milk non plant based egg wheat nut soy soya sugar freeze dried all purpose ap self raising rising sr s r one to for cup whole grain meal bi carb bicarbonate range full low half fat ready rolled".split(
    " ",
  ),
);

export const otherSpellings = Object.entries(spelled).filter(([other, word]) => other !== word && other.length > 4);
export const spellingOf = (word: string): string => spelled[word] ?? word;

/** Words that describe state, quality or cutting and do not change which thing is meant. */
const neutral = new Set(
  `fresh freshly organic good quality best large medium small big extra fine finely coarsely roughly thinly thickly chopped diced dice stiff frothy foamy fluffy sliced minced
  crumbled grated shredded peeled cored ripe room temperature temp softened soft melted cold warm hot chilled lukewarm tepid cooled boiling of
  the a an your favourite favorite some more plus about each drained rinsed toasted roasted raw natural certified unsalted salted
  unsweetened sweetened pure at level heaped beaten lightly well very freerange leftover firm such as tinned canned squeezed packed sifted
  cubed halved quartered pitted stoned seeded deseeded trimmed washed scrubbed hulled blanched slivered flaked snipped torn crushed bruised
  strong mild good-quality thick thin runny clear golden dark-skinned hand tap filtered long half halves quarter quarters eighths piece pieces fillet floret leaf wedge
  ring chunk strip cube slice generous heaping nice little tasty frozen thawed defrosted uncooked mature medium-sized tap hard lump-free old ordinary basic everyday usual himalayan pink
  floury waxy russet baking-potato cut unwaxed waxed proper local homemade shop bought shop-bought any kind type brand plump juicy whole-milk fatness level loose loosely
  separated sharp tart eating cooking bramley conference king edward heritage heirloom old-fashioned traditional smooth crunchy hulled lean
  and hand-hot ice iced icy squeeze light-tasting mild-tasting flavourless superfine-ground both more additional brewed barista`.split(
    /\s+/,
  ),
);

/** Words that are never passed over: they change allergens, water, acid or what the thing is. */
export const telling = new Set(
  `vegan dairyfree plantbased eggfree dried dry freezedried powder wholegrain wholemeal wholewheat selfraising onetoone smoked instant malted
  condensed evaporated fermented sour sweet green black white brown red yellow blue cooked whole ground bread strong pastry cake flour starch
  meal bran germ syrup cream cheese butter milk oil puree juice zest vinegar extract essence granule flake groat seed nut paste sauce chip
  sugarfree replacer substitute alternative style free mix blend concentrate protein fiber skinny diet light`.split(/\s+/),
);

/** Heads that say little: what stands before them is the thing. */
export const genericHeads = new Set(
  `flour starch powder milk butter cheese cream sugar oil seed nut spice syrup extract essence puree juice meal flake groat bran vinegar bean
  berry paste protein blend mix gum fiber yoghurt salt pepper spread sauce water replacer egg liqueur chip drink`.split(/\s+/),
);

export const isNeutral = (word: string): boolean => neutral.has(word);

const MOST_KEPT = 4000;
const kept = new Map<string, string[]>();

/** The words of a name in their order; names that were taken apart lately are remembered. */
export function wordsOf(text: string): string[] {
  const before = kept.get(text);
  if (before) return before;
  if (kept.size >= MOST_KEPT) kept.clear();
  const words = takenApart(text);
  kept.set(text, words);
  return words;
}

function takenApart(text: string): string[] {
  let plain = text
    .toLowerCase()
    .normalize("NFD")
    .replace(/[\u0300-\u036f']/g, "");
  for (const [pattern, word] of joined)
    plain = typeof word === "string" ? plain.replace(pattern, word) : plain.replace(pattern, word);
  return plain
    .replace(/[^a-z0-9%]+/g, " ")
    .trim()
    .split(" ")
    .filter((word) => word !== "")
    .map((word) => spelled[word] ?? singular(word))
    .map((word) => spelled[word] ?? word);
}
