import type { BalanceCase, SwapCase } from "./advice-judge";

/** Seven sound formulas of one kitchen, as ids with their grams. */
const sound = {
  sorghumLoaf: [
    "loaf",
    "sorghum-flour 180, tapioca-starch 90, whole-milk 240, egg 110, sunflower-oil 60, white-sugar 100, powder-aluminium-free 9, xanthan 2.5, salt 3",
  ],
  berryMuffins: [
    "muffin",
    "brown-rice-flour 160, potato-starch 70, plain-yoghurt 180, egg 100, butter 70, light-brown-sugar 90, powder-aluminium-free 5, soda 1.5, xanthan 2, salt 2, blueberries 120",
  ],
  scones: [
    "scone",
    "gf-blend-plain 300, butter 80, whole-milk 170, egg 50, caster-sugar 30, powder-aluminium-free 14, xanthan 3, salt 3",
  ],
  chocolateMuffins: [
    "muffin",
    "teff-flour 120, tapioca-starch 60, cocoa-natural 35, buttermilk 200, egg 100, rapeseed-oil 70, white-sugar 140, soda 2.6, powder-aluminium-free 2, salt 2, xanthan 1.5",
  ],
  griddleCakes: [
    "pourable-batter",
    "buckwheat-flour 150, whole-milk 250, egg 100, powder-aluminium-free 6, butter 20, honey 20, salt 2",
  ],
  cheeseMuffins: [
    "muffin",
    "chickpea-flour 120, cornmeal 80, cheddar 60, fresh-herbs 15, garlic 8, onion 40, whole-milk 100, egg 100, olive-oil 50, powder-aluminium-free 9, salt 3",
  ],
  orangeLoaf: [
    "loaf",
    "almond-flour 120, sweet-rice-flour 90, tapioca-starch 50, orange-juice 120, orange-zest 6, egg 150, olive-oil 60, caster-sugar 110, powder-aluminium-free 6, soda 1, salt 1.5, xanthan 1.5",
  ],
} as const;
type Sound = keyof typeof sound;

const linesOf = (name: Sound): { ingredientId: string; grams: number }[] =>
  sound[name][1].split(", ").map((line) => {
    const [ingredientId = "", grams] = line.split(" ");
    return { ingredientId, grams: Number(grams) };
  });

/** What a baker asks to stand for what, with the grams that a kitchen would give; written before the first answer was seen. */
const asked: [
  name: string,
  of: Sound,
  replace: string,
  by: string | { avoid: string[]; first: string },
  some: Record<string, [number, number]>,
  isLoss?: true,
][] = [
  ["swap-yoghurt-skyr", "berryMuffins", "plain-yoghurt", "skyr", { "^skyr$": [125, 185] }],
  ["swap-yoghurt-soured-milk", "berryMuffins", "plain-yoghurt", "soured-milk", { "^soured-milk$": [145, 190] }],
  ["swap-butter-coconut-oil", "berryMuffins", "butter", "coconut-oil", { "^coconut-oil$": [52, 63] }],
  ["swap-brown-coconut-sugar", "berryMuffins", "light-brown-sugar", "coconut-sugar", { "^coconut-sugar$": [85, 95] }],
  ["swap-brown-honey", "berryMuffins", "light-brown-sugar", "honey", { "^honey$": [85, 122] }],
  ["swap-berries-freeze-dried", "berryMuffins", "blueberries", "freeze-dried-blueberries", { "freeze-dried": [12, 36] }],
  ["swap-berries-raspberries", "berryMuffins", "blueberries", "raspberries", { "^raspberries$": [105, 135] }],
  ["swap-milk-evaporated", "sorghumLoaf", "whole-milk", "evaporated-milk", { evaporated: [85, 140], "^water$": [90, 160] }],
  ["swap-milk-powder", "sorghumLoaf", "whole-milk", "milk-powder", { "milk-powder": [22, 37], "^water$": [190, 226] }],
  [
    "swap-milk-soya-powder",
    "sorghumLoaf",
    "whole-milk",
    "soya-milk-powder",
    { "soya-milk-powder": [15, 37], "^water$": [190, 231] },
  ],
  ["swap-egg-duck", "sorghumLoaf", "egg", "duck-egg", { "duck-egg": [95, 116] }],
  ["swap-egg-chia", "sorghumLoaf", "egg", "chia", { "^chia$|ground-chia": [12, 36], "^water$|milk": [55, 115] }, true],
  ["swap-egg-whites", "sorghumLoaf", "egg", "egg-white", { "^egg-white$": [92, 152] }],
  ["swap-egg-psyllium", "sorghumLoaf", "egg", "psyllium-husk", { psyllium: [4, 13], "^water$|milk": [65, 112] }, true],
  ["swap-sugar-xylitol", "sorghumLoaf", "white-sugar", "xylitol", { xylitol: [90, 108] }],
  ["swap-sugar-allulose", "sorghumLoaf", "white-sugar", "allulose", { allulose: [95, 146] }],
  ["swap-sugar-date-syrup", "sorghumLoaf", "white-sugar", "date-syrup", { "date-syrup": [105, 155], "milk|water": [-50, 0] }],
  ["swap-xanthan-psyllium", "sorghumLoaf", "xanthan", "psyllium-husk", { psyllium: [3.5, 12] }],
  ["swap-xanthan-flax", "sorghumLoaf", "xanthan", "ground-flax", { flax: [7, 32] }],
  ["swap-tapioca-arrowroot", "sorghumLoaf", "tapioca-starch", "arrowroot", { arrowroot: [85, 95] }],
  ["swap-sorghum-coconut", "sorghumLoaf", "sorghum-flour", "coconut-flour", { "coconut-flour": [42, 80] }],
  ["swap-butter-lard-scone", "scones", "butter", "lard", { "^lard$": [62, 81] }],
  ["swap-milk-oat-scone", "scones", "whole-milk", "oat-milk", { "oat-milk": [160, 180] }],
  [
    "swap-plain-self-raising",
    "scones",
    "gf-blend-plain",
    "gf-blend-self-raising",
    { "self-raising": [290, 325], powder: [-14, -5] },
  ],
  ["swap-cocoa-chocolate", "chocolateMuffins", "cocoa-natural", "dark-chocolate", { "dark-chocolate": [45, 135] }],
  ["swap-buttermilk-acid-whey", "chocolateMuffins", "buttermilk", "acid-whey", { "acid-whey": [165, 220] }],
  ["swap-soda-powder-choc", "chocolateMuffins", "soda", "powder-aluminium-free", { "powder-aluminium": [4.5, 13] }],
  ["swap-herbs-dried", "cheeseMuffins", "fresh-herbs", "dried-herbs", { "dried-herbs": [1.5, 6] }],
  ["swap-garlic-powder", "cheeseMuffins", "garlic", "garlic-powder", { "garlic-powder": [0.5, 3.6] }],
  ["swap-onion-powder", "cheeseMuffins", "onion", "onion-powder", { "onion-powder": [1.8, 6.5] }],
  [
    "swap-cheddar-no-milk",
    "cheeseMuffins",
    "cheddar",
    { avoid: ["milk"], first: "vegan-cheese|nutritional-yeast|firm-tofu|olives|tahini" },
    {},
  ],
  ["swap-orange-lemon", "orangeLoaf", "orange-juice", "lemon-juice", { "lemon-juice": [12, 65], water: [45, 110] }],
  ["swap-zest-extract", "orangeLoaf", "orange-zest", "orange-extract", { "orange-extract": [0.8, 6.5] }],
  ["swap-almond-sunflower", "orangeLoaf", "almond-flour", "sunflower-flour", { "sunflower-flour": [105, 132] }],
  [
    "swap-almond-no-nuts",
    "orangeLoaf",
    "almond-flour",
    { avoid: ["nuts"], first: "sunflower-flour|pumpkin-seed-flour|sesame-flour|hemp-flour|oat-flour" },
    {},
  ],
  ["swap-honey-sugar-griddle", "griddleCakes", "honey", "white-sugar", { "^white-sugar$": [12, 20] }],
  ["swap-egg-aquafaba-griddle", "griddleCakes", "egg", "aquafaba", { aquafaba: [75, 115] }, true],
  [
    "swap-butter-no-milk-griddle",
    "griddleCakes",
    "butter",
    { avoid: ["milk"], first: "oil|margarine|plant-butter|lard|shortening" },
    {},
  ],
  ["swap-sugar-golden", "orangeLoaf", "caster-sugar", "golden-syrup", { "golden-syrup": [100, 150] }],
  ["swap-milk-water-powderless", "griddleCakes", "whole-milk", "hemp-milk", { "hemp-milk": [230, 262] }],
];

/** Slips of the pen and of the spoon: what is written for what, and what mends it; without a slip nothing is to be said. */
const slips: [name: string, of: Sound, slip: Record<string, number>, want: BalanceCase["want"]][] = [
  ["balance-loaf-powder-28", "sorghumLoaf", { "powder-aluminium-free": 28 }, { some: { powder: [-22, -8] }, proposalsMin: 1 }],
  [
    "balance-loaf-no-lift",
    "sorghumLoaf",
    { "powder-aluminium-free": 0 },
    { some: [{ powder: [5, 14] }, { "^soda$": [1, 4] }], proposalsMin: 1 },
  ],
  [
    "balance-muffin-soda-6",
    "berryMuffins",
    { soda: 6 },
    { some: [{ "^soda$": [-5.4, -2.4] }, { "vinegar|lemon|tartar": [1, 80] }], proposalsMin: 1 },
  ],
  [
    "balance-choc-soda-6",
    "chocolateMuffins",
    { soda: 6 },
    { some: [{ "^soda$": [-4.6, -1.8] }, { "vinegar|lemon|tartar": [1, 80] }], proposalsMin: 1 },
  ],
  [
    "balance-choc-sweet-milk",
    "chocolateMuffins",
    { buttermilk: 0, "whole-milk": 200 },
    {
      some: [{ "vinegar|lemon|tartar": [2, 60] }, { "^soda$": [-2.6, -0.8] }, { "buttermilk|yoghurt|kefir": [60, 220] }],
      proposalsMin: 1,
    },
  ],
  [
    "balance-loaf-thin",
    "sorghumLoaf",
    { "whole-milk": 400 },
    { some: [{ "milk|water": [-220, -80] }, { "flour|starch": [40, 200] }], proposalsMin: 1 },
  ],
  ["balance-loaf-dry", "sorghumLoaf", { "whole-milk": 60 }, { some: { "milk|water": [60, 220] }, proposalsMin: 1 }],
  ["balance-loaf-gum-8", "sorghumLoaf", { xanthan: 8 }, { some: { xanthan: [-7, -3] }, proposalsMin: 1 }],
  [
    "balance-loaf-unbound",
    "sorghumLoaf",
    { water: 90, egg: 0, xanthan: 0 },
    { some: { "xanthan|psyllium|guar|egg|flax|chia": [1, 130] }, proposalsMin: 1 },
  ],
  ["balance-loaf-salt-12", "sorghumLoaf", { salt: 12 }, { some: { salt: [-10.6, -4.5] }, proposalsMin: 1 }],
  [
    "balance-scone-wet",
    "scones",
    { "whole-milk": 310 },
    { some: [{ "milk|water": [-170, -50] }, { "flour|starch|blend": [40, 200] }], proposalsMin: 1 },
  ],
  [
    "balance-muffin-lemon",
    "berryMuffins",
    { "lemon-juice": 80 },
    { some: [{ lemon: [-80, -20] }, { "^soda$": [0.3, 6] }], proposalsMin: 1 },
  ],
  ["balance-loaf-sugar-300", "sorghumLoaf", { "white-sugar": 300 }, { some: { sugar: [-240, -60] }, proposalsMin: 1 }],
  ["balance-loaf-oil-220", "sorghumLoaf", { "sunflower-oil": 220 }, { some: { oil: [-190, -50] }, proposalsMin: 1 }],
  ["balance-quiet-l", "sorghumLoaf", {}, { quiet: true }],
  ["balance-quiet-m", "berryMuffins", {}, { quiet: true }],
  ["balance-quiet-s", "scones", {}, { quiet: true }],
  ["balance-quiet-c", "chocolateMuffins", {}, { quiet: true }],
  ["balance-quiet-p", "griddleCakes", {}, { quiet: true }],
  ["balance-quiet-b", "cheeseMuffins", {}, { quiet: true }],
  ["balance-quiet-o", "orangeLoaf", {}, { quiet: true }],
];

export const askedSwaps: SwapCase[] = asked.map(([id, of, replace, by, some, isLoss]) => ({
  id,
  kind: sound[of][0],
  lines: linesOf(of),
  replace,
  ...(typeof by === "string" ? { with: by } : { avoid: by.avoid }),
  want: {
    first: typeof by === "string" ? 1 : 3,
    noNewCaution: true,
    noZeroLines: true,
    some,
    ...(typeof by === "string" ? {} : { firstAdds: by.first }),
    ...(isLoss ? { lost: true } : {}),
  },
}));

export const slippedBalances: BalanceCase[] = slips.map(([id, of, slip, want]) => ({
  id,
  kind: sound[of][0],
  lines: [
    ...linesOf(of).filter(({ ingredientId }) => !(ingredientId in slip)),
    ...Object.entries(slip).flatMap(([ingredientId, grams]) => (grams > 0 ? [{ ingredientId, grams }] : [])),
  ],
  want,
}));
