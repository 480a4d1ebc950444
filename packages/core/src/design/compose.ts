import { bandReadings, profileOf } from "../balance/bands";
import { defaultsOf } from "../balance/defaults";
import { readings } from "../balance/readings";
import { targetOf } from "../balance/target";
import { freeAcid } from "../balance/trade";
import { binderPerGram } from "../body/binder";
import type { Consistency } from "../body/consistency";
import type { Process } from "../formula/process-schema";
import { crumbOf, type Item, massOf, resolve } from "../formula/resolve";
import { SODA_MMOL_PER_G } from "../lift/acids";
import { sodaPerGram } from "../lift/charge";
import { acidPerGram } from "../lift/ledger";
import { measurable } from "../measure/amounts";
import type { Shelf } from "../pantry/shelf";
import { addedFatPerGram, addedSugarPerGram } from "../pantry/crumb";
import type { Ingredient } from "../pantry/ingredient-schema";
import { isInclusion } from "../pantry/pieces";
import { withStart } from "../pantry/vessel";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import { endsOf, knobbed } from "./knobs";
import { massFor, panFor } from "./mass";
import { blendOf, isGround, type Share } from "./flours";
import type { Style } from "./style";
import { USUAL_SHELF, type WishedLift } from "./wish";
import type { Wish } from "./wish-schema";

export interface Line {
  ingredientId: string;
  grams: number;
}

/** A composed batter with where it bakes; nothing of it has been judged. */
export interface Composed {
  lines: Line[];
  blend: Share[];
  vessel: Vessel;
  oven: Oven;
  process: Process;
  /** What was to be used up and does not all go in: how much of it does, g. */
  short: { ingredientId: string; grams: number; of: number }[];
  /** Larger cups than the usual ones were taken for pieces of this mass. */
  otherPan: boolean;
}

/** A dry mix that several bakes share: flours, and what goes with them per gram of flour. */
export interface Mix {
  blend: Share[];
  per: readonly { ingredientId: string; perFlour: number }[];
}

/** What a design cannot do without and the shelf has not, in words and as what may be bought for it, the most usual first. */
export interface Lack {
  what: string;
  buy: string[];
}

/** The shelf as it may be used: on hand, and not to be avoided. */
export interface Stock {
  all: Ingredient[];
  has: (id: string) => Ingredient | null;
  first: (ids: readonly string[]) => Ingredient | null;
}

const ALWAYS = ["water", "salt"];

export function stockOf({ have, useUp = [], avoid = [] }: Wish, shelf: Shelf): Stock {
  const ids = new Set([...(have ?? USUAL_SHELF), ...useUp.map(({ ingredientId }) => ingredientId), ...ALWAYS]);
  const all = [...ids]
    .map((id) => shelf.get(id))
    .filter((one): one is Ingredient => one !== undefined && !one.allergens.some((allergen) => avoid.includes(allergen)))
    .filter(({ gluten }) => gluten !== "contains");
  const byId = new Map(all.map((one) => [one.id, one]));
  const has = (id: string): Ingredient | null => byId.get(id) ?? null;
  return { all, has, first: (wanted) => wanted.map(has).find((one) => one !== null) ?? null };
}

const bodyWords: Record<Consistency, string> = {
  pourable: "a batter that pours",
  spoonable: "a batter for a spoon",
  scoopable: "a batter for a scoop",
  "soft-dough": "a soft dough",
  "firm-dough": "a firm dough",
  crumbly: "crumbs",
};

/** In the order in which a baker reaches for them. */
const SWEET_LIQUIDS = ["whole-milk", "semi-skimmed-milk", "skimmed-milk", "lactose-free-milk", "oat-milk", "soy-milk", "almond-milk", "rice-milk", "pea-milk", "cashew-milk", "hazelnut-milk", "hemp-milk", "coconut-drink", "water"]; // prettier-ignore
const SOUR_LIQUIDS = ["buttermilk", "kefir", "soured-milk", "acid-whey"];
const SOLID_FATS = ["butter", "plant-butter", "margarine", "ghee", "coconut-oil", "shortening", "lard"];
const LIQUID_FATS = ["sunflower-oil", "rapeseed-oil", "vegetable-oil", "olive-oil", "avocado-oil", "corn-oil", "grapeseed-oil", "rice-bran-oil", "groundnut-oil"]; // prettier-ignore
const SUGARS = ["white-sugar", "caster-sugar", "light-brown-sugar", "coconut-sugar", "demerara-sugar", "dark-brown-sugar", "palm-sugar", "honey", "maple-syrup", "golden-syrup", "agave-syrup", "date-syrup", "rice-syrup"]; // prettier-ignore
const BINDERS = ["xanthan", "psyllium-husk", "guar", "psyllium-powder", "ground-flax", "ground-chia", "chia"];
const BREAD_BINDERS = ["psyllium-husk", "psyllium-powder", "xanthan", "guar", "ground-flax", "ground-chia"];
const POWDERS = ["powder-aluminium-free", "powder-double-acting", "powder-phosphate", "powder-single-acting"];
const ACIDS = ["cream-of-tartar", "vinegar", "rice-vinegar", "malt-vinegar", "lemon-juice", "citric-acid"];
const FIZZ = ["seltzer", "beer-gf", "cider", "tonic-water"];

/** Egg: one weighs so much; half of one is the least step. */
const EGG_G = 50;
/** Soda may find so much of the acid there is, and be no more than this share of what builds the crumb. */
const MEETS = 0.92;
const MOST_SODA = 0.012;
/** A batter that is this sour by itself, over the gas that is wanted, asks for soda whatever lifts it. */
const SOUR_ITSELF = 0.12;
const MOST_POWDER = 0.074;
/** Drops of sour that no one tastes, as a share of what builds the crumb. */
const MOST_SOUR = 0.1;
/** Pieces in a batter that a crumb still carries, on what builds it. */
const MOST_PIECES = 0.7;
/** Purée, on the same. */
const MOST_PUREE = 0.9;
/** Of the most sugar of a kind so much may come with what is used up. */
const SWEET_SHARE = 0.75;
/** Of a wanted binder this much is enough. */
const BOUND = 0.9;
/** Less gum than this is no spoon of anything, g; where so much of what is wanted is there already it is left out. */
const LEAST_BINDER_G = 0.5;
const ENOUGH = 0.7;
const BOUND_BY_EGG = 0.6;
/** Rounds in which mass, liquid and leavening settle. */
const ROUNDS = 5;

const grams = (lines: readonly Line[], id: string): number =>
  lines.reduce((all, line) => all + (line.ingredientId === id ? line.grams : 0), 0);

/** Where nothing says how it is to be lifted, by what there is: without powder soda with an acid, without either a self-raising blend. */
function liftFrom(lift: WishedLift, stock: Stock): WishedLift {
  if (stock.first(POWDERS)) return lift;
  if (stock.has("soda") && (stock.first(ACIDS) || stock.first(SOUR_LIQUIDS))) return "soda-acid";
  return stock.all.some(({ id }) => id.includes("self-raising")) ? "self-raising" : lift;
}

interface Leavening {
  lift: WishedLift;
  /** mmol of gas that are wanted. */
  needMmol: number;
  /** The batter without an acid that was added for the soda. */
  items: readonly Item[];
  /** g of what builds the crumb. */
  crumbG: number;
  soda: Ingredient | null;
  powder: Ingredient | null;
  acid: Ingredient | null;
}

/** Soda for nine tenths of the acid there is, an acid added where soda is to do it alone, powder for the rest; g. */
function leavenings({ lift, needMmol, items, crumbG, soda, powder, acid }: Leavening): {
  powderG: number;
  sodaG: number;
  acidG: number;
} {
  const natural = freeAcid(items);
  const most = Math.min(MOST_SODA * crumbG, needMmol / SODA_MMOL_PER_G);
  const wanted = soda !== null && (lift === "soda-acid" || lift === "both" || natural > SOUR_ITSELF * needMmol);
  let sodaG = wanted ? Math.max(0, Math.min(most, (MEETS * natural) / SODA_MMOL_PER_G)) : 0;
  let acidG = 0;
  if (lift === "soda-acid" && soda && acid && most > sodaG) {
    const sourest = acid.family === "acid" ? Infinity : MOST_SOUR * crumbG;
    acidG = Math.min(sourest, ((most - sodaG) * SODA_MMOL_PER_G) / MEETS / acidPerGram(acid));
    sodaG += (acidG * acidPerGram(acid) * MEETS) / SODA_MMOL_PER_G;
  }
  if (sodaG < LEAST_SODA_G) {
    sodaG = 0;
    acidG = 0;
  }
  const fizz =
    items.reduce((all, { ingredient, massG }) => all + (massG * (ingredient.carbonation?.mid ?? 0)) / 100, 0) * FIZZ_LEFT;
  const rest = needMmol - sodaG * SODA_MMOL_PER_G - fizz;
  const powderG = powder && lift !== "soda-acid" && rest > 0 ? Math.min(MOST_POWDER * crumbG, rest / sodaPerGram(powder)) : 0;
  return { powderG, sodaG, acidG };
}

/** Composes a batter in one style; `lack` says what the shelf has not. */
export function compose(wish: Wish, asked: Style, stock: Stock, shelf: Shelf, mix: Mix | null = null): Composed | { lack: Lack } {
  const style = wish.lift === undefined ? { ...asked, lift: liftFrom(asked.lift, stock) } : asked;
  const { kind } = wish;
  const profile = profileOf(kind);
  const { bands } = profile;
  const typicalPercent = (wanted: (i: Ingredient) => boolean): number =>
    profile.typical.reduce((all, { ingredientId, percent }) => {
      const ingredient = shelf.get(ingredientId);
      return all + (ingredient && wanted(ingredient) ? percent : 0);
    }, 0);

  const selfRaising = stock.all.find(({ id }) => id.includes("self-raising"));
  if (style.lift === "self-raising" && !selfRaising)
    return { lack: { what: "self-raising blend", buy: ["gf-blend-self-raising"] } };
  const flours = stock.all.filter((one) => isGround(one) && !one.id.includes("self-raising"));
  const blend = mix
    ? mix.blend
    : style.lift === "self-raising" && selfRaising
      ? [{ flour: selfRaising, share: 1 }]
      : blendOf(flours, kind, style.tilt, new Set(wish.prefer));
  if (!blend) return { lack: { what: "a flour", buy: ["gf-blend-plain", "brown-rice-flour"] } };

  const savoury = wish.variant === "savoury";
  const fizzy = style.lift === "fizzy" ? stock.first(FIZZ) : null;
  if (style.lift === "fizzy" && !fizzy) return { lack: { what: "something that fizzes", buy: ["seltzer"] } };
  const sourLiquid = style.sour || (style.lift === "soda-acid" && !stock.first(ACIDS)) ? stock.first(SOUR_LIQUIDS) : null;
  const liquid = fizzy ?? sourLiquid ?? stock.first(SWEET_LIQUIDS);
  if (!liquid) return { lack: { what: "a liquid", buy: ["whole-milk"] } };
  const egg = style.eggs ? stock.has("egg") : null;
  const fat = stock.first(style.fat === "solid" ? [...SOLID_FATS, ...LIQUID_FATS] : [...LIQUID_FATS, ...SOLID_FATS]);
  const sugar = stock.first(SUGARS);
  const powder = stock.first(POWDERS);
  const soda = stock.has("soda");
  const cocoa = stock.has(
    profile.typical.find(({ ingredientId }) => shelf.get(ingredientId)?.family === "cocoa")?.ingredientId ?? "",
  );
  const binders = wish.binder === "none" ? [] : wish.binder !== undefined ? [wish.binder] : kind === "bun" || kind === "flatbread" ? BREAD_BINDERS : BINDERS; // prettier-ignore
  const binder = stock.first(binders);
  if (wish.binder !== undefined && wish.binder !== "none" && !binder) return { lack: { what: "the binder", buy: [wish.binder] } };

  const ends = endsOf(kind, shelf);
  const fatPercent = knobbed(ends.fat.usual, ends.fat.low, ends.fat.high, wish.rich);
  const sugarPercent = savoury ? ends.sugar.low : knobbed(ends.sugar.usual, ends.sugar.low, ends.sugar.high, wish.sweet);
  const usualEgg = typicalPercent(({ family }) => family === "egg") * knobbed(1, 0.7, 1.3, wish.rich);
  const wantedBinder = (profile.binderPercent.low + profile.binderPercent.high) / 2;
  // Where there is no gum, eggs hold.
  const holding = egg && !binder ? (BOUND_BY_EGG * wantedBinder) / binderPerGram(egg) : 0;
  const eggPercent = egg ? Math.min(0.95 * bands.eggPercent.high, Math.max(usualEgg, holding)) : 0;
  if (fatPercent > 1 && !fat) return { lack: { what: "a fat", buy: ["sunflower-oil", "butter"] } };
  if (sugarPercent > 1 && !sugar) return { lack: { what: "sugar", buy: ["white-sugar"] } };
  if (eggPercent < bands.eggPercent.low) return { lack: { what: "egg", buy: ["egg"] } };
  const saltPercent = typicalPercent(({ family }) => family === "salt");
  const cocoaPercent = cocoa ? typicalPercent(({ family }) => family === "cocoa") : 0;

  const vessel = withStart(wish.vessel ?? panFor(wish, defaultsOf(kind).vessel));
  const sized: Vessel = wish.pieces !== undefined && (vessel.shape === "muffin" || vessel.shape === "free" || vessel.shape === "griddle") ? { ...vessel, pieces: wish.pieces } : vessel; // prettier-ignore
  const oven: Oven = wish.oven ?? { celsius: profile.celsius, mode: profile.mode };
  const process: Process = { method: style.lift === "air" ? "whisked" : profile.method, restMinutes: 0 };
  const word: Consistency = wish.body ?? profile.consistencies[0] ?? "scoopable";
  const input = { kind, vessel: sized, oven, process };

  const typicalGas = readings({ kind, batchG: 1000 }).lift.gasMlPer100g.mid;
  const gasAim = knobbed(
    Math.max(typicalGas, 1.1 * bands.gasMlPer100g.low),
    Math.max(1.12 * bands.gasMlPer100g.low, 0.75 * typicalGas),
    Math.min(0.9 * bands.gasMlPer100g.high, 1.3 * typicalGas),
    wish.tall,
  );
  const short: Composed["short"] = [];

  let flourG = 400;
  let powderG = 0;
  let sodaG = 0;
  let acidG = 0;
  let liquidG = 300;
  let wholeEggs: number | null = null;
  const acid = stock.first(ACIDS);
  let lines: Line[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const base: Line[] = blend.map(({ flour, share }) => ({ ingredientId: flour.id, grams: flourG * share }));
    short.length = 0;
    for (const { ingredientId, grams: wanted } of wish.useUp ?? []) {
      const one = stock.has(ingredientId);
      if (!one) {
        // What is to be avoided cannot be used up.
        short.push({ ingredientId, grams: 0, of: wanted });
        continue;
      }
      let most = isInclusion(one) ? MOST_PIECES * flourG : one.family === "puree" ? MOST_PUREE * flourG : Infinity;
      const sweet = addedSugarPerGram(one);
      // What is to be used up may bring no more sugar than its kind has; fruit that is much of it goes in in part.
      if (sweet > 0.02) most = Math.min(most, (SWEET_SHARE * bands.sugarPercent.high * flourG) / 100 / sweet);
      if (wanted > most) short.push({ ingredientId, grams: measurable(most), of: wanted });
      base.push({ ingredientId, grams: Math.min(wanted, most) });
    }
    if (cocoa && cocoaPercent > 0) base.push({ ingredientId: cocoa.id, grams: (flourG * cocoaPercent) / 100 });
    const put = (one: Ingredient | null, amount: number): void => {
      if (one && amount > 0) base.push({ ingredientId: one.id, grams: amount });
    };
    // What is to be used up counts for itself: eggs, fat and sugar that are there already are not added again.
    const crumb = crumbOf(resolve(base, shelf));
    const eggThere = grams(base, "egg");
    const eggG = Math.max(0, (crumb * eggPercent) / 100 - eggThere);
    put(egg, wholeEggs === null ? eggG : wholeEggs * EGG_G);
    if (mix) base.push(...mix.per.map(({ ingredientId, perFlour }) => ({ ingredientId, grams: flourG * perFlour })));
    else put(stock.has("salt"), (crumb * saltPercent) / 100);
    put(liquid, Math.max(liquidG, 1));
    const added = (per: (i: Ingredient) => number): number =>
      resolve(base, shelf).reduce((all, { ingredient, massG }) => all + massG * per(ingredient), 0);
    put(fat, fat ? ((crumb * fatPercent) / 100 - added(addedFatPerGram)) / Math.max(0.3, addedFatPerGram(fat)) : 0);
    if (sugarPercent > 1 && sugar)
      put(sugar, ((crumb * sugarPercent) / 100 - added(addedSugarPerGram)) / Math.max(0.3, addedSugarPerGram(sugar)));
    const wanted = (wantedBinder / 100) * crumb;
    const bound = added(binderPerGram);
    if (!mix && binder && bound < BOUND * wanted) {
      const more = (wanted - bound) / binderPerGram(binder);
      if (more >= LEAST_BINDER_G || bound < ENOUGH * wanted) put(binder, Math.max(LEAST_BINDER_G, more));
    }
    if (!mix && !binder && wish.binder !== "none" && bound < 0.4 * wanted)
      return { lack: { what: "a binder", buy: ["xanthan", "psyllium-husk", "egg"] } };
    if (!mix) put(powder, powderG);
    put(soda, sodaG);
    put(acid, acidG);
    lines = base;

    const body = targetOf(word, { ...input, lines }, shelf);
    if (!body) return { lack: { what: `flours that come to ${bodyWords[word]}`, buy: ["brown-rice-flour", "tapioca-starch"] } };
    liquidG = body.range.low + (body.range.high - body.range.low) * (0.5 + 0.5 * ((wish.moist ?? 0.5) - 0.5));
    // The water band is the kind's: a body that would want more liquid than it has stays inside.
    const items = withLiquid(resolve(lines, shelf), liquid, liquidG);
    const water = bandReadings(items, 0).waterPercent;
    const aimed = Math.min(0.97 * bands.waterPercent.high, Math.max(1.04 * bands.waterPercent.low, water));
    liquidG = Math.max(0, liquidG + (((aimed - water) / 100) * crumbOf(items)) / (liquid.per100g.water / 100));
    const settled = withLiquid(items, liquid, liquidG);

    const mass = massOf(settled);
    if (!mix) {
      const own = style.lift === "self-raising" && selfRaising ? grams(lines, selfRaising.id) * sodaPerGram(selfRaising) : 0;
      ({ powderG, sodaG, acidG } = leavenings({
        lift: style.lift,
        needMmol: ((gasAim / 100) * mass) / ML_PER_MMOL - own,
        items: acidG > 0 ? settled.filter(({ ingredient }) => ingredient !== acid) : settled,
        crumbG: crumbOf(settled),
        soda,
        powder,
        acid,
      }));
    }
    // How much of it all: the pan as full as it likes to be, or so many pieces of so much.
    const target = massFor(wish, sized, readings({ ...input, lines }, shelf), profile.lossPercent.mid, mass);
    flourG *= target / mass;
    liquidG *= target / mass;
    powderG *= target / mass;
    sodaG *= target / mass;
    acidG *= target / mass;
    if (round === ROUNDS - 3 && egg) {
      const count = Math.round((eggG * target) / mass / EGG_G);
      wholeEggs = count >= 1 || eggG < 0.2 * EGG_G ? count : Math.round((eggG * target) / mass / (EGG_G / 2)) / 2;
    }
  }
  if (!mix && gasAim > bands.gasMlPer100g.low && powderG + sodaG === 0 && style.lift !== "self-raising" && bands.gasMlPer100g.low > 0)
    return { lack: style.lift === "soda-acid" && soda ? { what: "an acid for the soda", buy: ["cream-of-tartar", "buttermilk", "vinegar"] } : { what: "something that lifts", buy: ["powder-aluminium-free"] } }; // prettier-ignore
  const rounded = lines
    .map(({ ingredientId, grams: amount }) => ({
      ingredientId,
      grams: final(ingredientId, amount, { liquid, liquidG, powder, powderG, soda, sodaG, acid, acidG }),
    })) // prettier-ignore
    .filter(({ grams: amount }) => amount > 0);
  for (const [one, amount] of [
    [powder, powderG],
    [soda, sodaG],
    [acid, acidG],
  ] as const)
    if (one && amount > 0 && !rounded.some(({ ingredientId }) => ingredientId === one.id))
      rounded.push({ ingredientId: one.id, grams: rounding(amount) });
  return {
    lines: rounded,
    blend,
    vessel: sized,
    oven,
    process,
    short,
    otherPan: wish.vessel === undefined && vessel.diameterMm !== withStart(defaultsOf(kind).vessel).diameterMm,
  };
}

/** mL of gas at 25 °C in a mmol. */
const ML_PER_MMOL = 24.5;
/** Less soda than this is no spoon of anything, g. */
const LEAST_SODA_G = 0.6;
/** Of the gas in the bottle so much reaches the oven. */
const FIZZ_LEFT = 0.15;

const withLiquid = (items: readonly Item[], liquid: Ingredient, amount: number): Item[] =>
  items.map((item) =>
    item.ingredient.id === liquid.id ? { ...item, massG: amount, grams: { low: amount, mid: amount, high: amount } } : item,
  );

const rounding = (amount: number): number =>
  amount < 20 ? Math.round(amount * 10) / 10 : amount < 100 ? Math.round(amount) : measurable(amount);

interface Settled {
  liquid: Ingredient;
  liquidG: number;
  powder: Ingredient | null;
  powderG: number;
  soda: Ingredient | null;
  sodaG: number;
  acid: Ingredient | null;
  acidG: number;
}

/** The last round's amount of what settles last, rounded to what a kitchen measures. */
function final(id: string, amount: number, settled: Settled): number {
  const { liquid, liquidG, powder, powderG, soda, sodaG, acid, acidG } = settled;
  if (id === liquid.id) return rounding(liquidG);
  if (id === powder?.id && powderG > 0) return rounding(powderG);
  if (id === soda?.id && sodaG > 0) return rounding(sodaG);
  if (id === acid?.id && acidG > 0) return rounding(acidG);
  return rounding(amount);
}
