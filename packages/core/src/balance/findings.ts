import { capital, listWords } from "../measure/list-words";
import type { Body } from "../body/body";
import { gumIn } from "../body/binder";
import { consistencies, type Consistency, consistencyOf } from "../body/consistency";
import type { OpenLine } from "../formula/components-schema";
import { type Kind, oneOf } from "../formula/kinds";
import { crumbOf, type Item } from "../formula/resolve";
import { gramsText, measurable } from "../measure/amounts";
import { elsewhereWords } from "../measure/elsewhere-words";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import { bandReadings, consistencyAgainst, offBy, profileOf } from "./bands";
import { findingLimits as limits } from "./finding";
import type { Finding } from "./finding-schema";
import type { Findable } from "./findable";
import { fermentsIn, idsOf, liftFindings } from "./findings-lift";
import { panFindings } from "./findings-pan";
import { binderWays, gumWays, lessGumWays, liquidWays, type Trimmed, trimmed, trimWays } from "./remedies";

/** Everything that deserves a word about a formula, the gravest first. */
export function findingsOf(read: Findable): Finding[] {
  // A line of nothing is not in the batter, whatever it would be.
  const given = { ...read, items: read.items.filter((item) => item.massG > 0) };
  const computed = [...liftFindings(given), ...binderFindings(given), ...bodyFindings(given), ...panFindings(given)];
  const open = read.open.some(({ matters }) => matters);
  const all = [
    // Where the bake is none of this recipe's, that comes before what is said of it.
    ...elsewhereFindings(read),
    ...openFindings(read),
    ...(open ? computed.map((finding): Finding => ({ ...finding, provisional: true })) : computed),
    ...cookedFindings(read),
    ...smokeFindings(read),
    ...fermentFindings(given),
    ...safetyFindings(given),
  ];
  return byGravity(all);
}

const gravity = { stop: 0, caution: 1, note: 2 };

/** The gravest first; among equals as they came. */
export const byGravity = (findings: readonly Finding[]): Finding[] =>
  [...findings].sort((a, b) => gravity[a.severity] - gravity[b.severity]);

/** What is not weighed yet is said first: everything else is without it. */
function openFindings({ open, asides }: Findable): Finding[] {
  const told = (lines: readonly OpenLine[]): string => listWords(lines.map(({ name }) => `“${name}”`));
  // Nobody weighs what greases a tin or stands on the table.
  const beside = new Set(asides.filter(({ place }) => place === "apart").map(({ component }) => component.id));
  const matter = open.filter(({ matters }) => matters);
  const rest = open.filter(({ matters, component }) => !matters && !beside.has(component ?? ""));
  const out: Finding[] = [];
  if (matter.length > 0)
    out.push({
      id: "not-weighed",
      severity: "caution",
      message: `${told(matter)} ${matter.length === 1 ? "is" : "are"} still open: everything here is without ${matter.length === 1 ? "it" : "them"}.`,
      why: "A flour, a liquid or a leavener that is missing moves every reading; until it is there none of them is final.",
      fix: "Answer it on the sheet, or leave it out.",
      ingredientIds: [],
    });
  if (rest.length > 0)
    out.push({
      id: "not-weighed",
      severity: "note",
      message: `Without ${told(rest)}, still open.`,
      why: "It is on the sheet in its place and weighs nothing until it is answered.",
      ingredientIds: [],
    });
  return out;
}

function cookedFindings({ asides }: Findable): Finding[] {
  return asides.flatMap(({ mass: { name, leastG, weighedG } }): Finding[] =>
    leastG === undefined
      ? []
      : [
          {
            id: "cooked-mass",
            severity: "caution",
            message: `“${name}” cannot weigh that little once it is cooked: of its ${gramsText(weighedG)} ${gramsText(leastG)} are no water.`,
            why: "Cooking drives water out; sugar, starch and fat stay.",
            fix: `Weigh it again; more than ${gramsText(leastG)} would be right.`,
            ingredientIds: [],
          },
        ],
  );
}

/** From this share of pulse flour on, what it holds in itself holds a slice too. */
const PULSE_HOLDS = 0.5;

function binderFindings({ items, kind, body, prove }: Findable): Finding[] {
  const { adequacy, percent, kind: word } = body.binder;
  const wanted = profileOf(kind).binderPercent;
  const flour = crumbOf(items);
  const out: Finding[] = [];
  const pulses = items.reduce((g, item) => g + (item.ingredient.family === "pulse-flour" ? item.massG : 0), 0);
  if (wanted.low > 0 && flour > 0 && adequacy < limits.binderLeast && pulses < PULSE_HOLDS * flour) {
    const grams = measurable(((wanted.low + wanted.high) / 200) * flour - (percent / 100) * flour);
    out.push({
      id: "no-binder",
      severity: "caution",
      message:
        word === "none"
          ? "Nothing here binds: the crumb will fall apart."
          : `The ${word} binds like ${percent.toFixed(1)} % xanthan; ${oneOf[kind]} usually has ${wanted.low} to ${wanted.high} %.`,
      why: "Without gluten a gum, psyllium, flax, chia or egg must hold the gas and the slice. Some bakers do without; this is no ban.",
      ...prove("no-binder", () => binderWays(items, grams)),
      ingredientIds: [],
    });
  }
  const gummed = items.filter((item) => item.ingredient.family === "blend" && (item.ingredient.xanthanEquivalent ?? 0) > 0.2);
  const added = items.filter((item) => item.ingredient.family === "binder");
  const most = Math.max(wanted.high, 0.4) * limits.binderMost;
  if (gummed.length > 0 && added.length > 0) {
    out.push({
      id: "binder-doubled",
      severity: percent > most ? "caution" : "note",
      message: `The blend holds a gum already; with what is added it binds like ${percent.toFixed(1)} % xanthan.`,
      why: `${capital(oneOf[kind])} wants about ${wanted.low} to ${wanted.high} %. Too much gum gives a tight, gummy crumb.`,
      ...prove("binder-doubled", () => gumWays(items)),
      ingredientIds: [...gummed, ...added].map((item) => item.ingredient.id),
    });
  } else {
    // Eggs and flours that bind are no rubber; gum and husk by themselves are.
    const gum = flour > 0 ? (100 * gumIn(items)) / flour : 0;
    const usual = Math.max(wanted.high, limits.gumUsual);
    if (gum > limits.gumMost * usual) {
      out.push({
        id: "binder-high",
        severity: gum > limits.gumPlainly * usual ? "caution" : "note",
        message: `It is bound by ${gum.toFixed(1)} % of gum on the flour (as xanthan); ${oneOf[kind]} has ${wanted.low} to ${wanted.high} %.`,
        why: "Too much gum holds water and gas so tightly that the crumb is gummy and rubbery.",
        ...prove("binder-high", () => lessGumWays(items, wanted, flour)),
        ingredientIds: added.map((item) => item.ingredient.id),
      });
    }
  }
  return out;
} // prettier-ignore

/** Closer than this to a word that the kind may have, as a share of its edge, is within what the reading knows. */
const CLOSE = 0.08;

const OVER = 1.04;
/** Salt is to taste, and cheese brings its own: a word is said where it is far over what is usual. */
const SALTED = 1.3;
const PLAINLY = 1.4;

/** Under this share of the least water that is usual a batter is dry. */
const PARCHED = 0.7;

/** Over this share of the most water that is usual a batter is wet. */
const SOAKED = 1.15;

/** Under this share of what the dry things drink nothing is a batter. */
const STARVED = 0.5;

/** So many words from every one that its kind has is no nearness. */
const FAR_WORDS = 2;
const wordsAway = (here: Consistency, kind: Kind): number =>
  Math.min(...profileOf(kind).consistencies.map((word) => Math.abs(consistencies.indexOf(word) - consistencies.indexOf(here))));

/** Under this share of ordinary flour the model of flour that drinks does not hold. */
const ORDINARY = 0.5;

/** Share of what builds the crumb that is flour and starch, not nut, coconut, cocoa, milk powder or purée. */
function ordinaryShare(items: readonly Item[]): number {
  const base = crumbOf(items);
  const plain = items.reduce(
    (g, { ingredient, massG }) =>
      g + (isFlour(ingredient) && ingredient.family !== "nut-flour" && ingredient.id !== "coconut-flour" ? massG : 0),
    0,
  );
  return base > 0 ? plain / base : 0;
}

function bodyFindings({ items, kind, body, process, lift, prove }: Findable): Finding[] {
  const out: Finding[] = [];
  const profile = profileOf(kind);
  const against = consistencyAgainst(body.consistency, kind);
  // Where it has not half of what its dry things drink it is dry, whatever they are.
  const isJudged = ordinaryShare(items) >= ORDINARY || (against > 0 && body.loading.mid < STARVED);
  const readings = bandReadings(items, lift.lift.gasMlPer100g.mid);
  const water = profile.bands.waterPercent;
  // A word just beside its kind's is near enough, unless the water is far from what is usual to the same side.
  const agrees = against < 0 ? readings.waterPercent > SOAKED * water.high : readings.waterPercent < PARCHED * water.low;
  const side = (offBy(body.stiffness.mid, kind) < CLOSE && !agrees) || !isJudged ? 0 : against;
  const parched = readings.waterPercent < PARCHED * water.low && ordinaryShare(items) >= ORDINARY;
  if (side !== 0) {
    const edge = (body.stiffness.mid + (side < 0 ? body.stiffness.high : body.stiffness.low)) / 2;
    const nearly = consistencyAgainst(consistencyOf(edge), kind) !== side;
    const id = side < 0 ? ("too-wet" as const) : ("too-dry" as const);
    out.push({
      id,
      severity: nearly && wordsAway(body.consistency, kind) < FAR_WORDS && !agrees ? "note" : "caution",
      message: `The batter comes out ${words[body.consistency]}; ${oneOf[kind]} wants it ${profile.consistencies
        .slice(0, 2)
        .map((c) => words[c])
        .join(" or ")}.`,
      why: `${profile.why} Its water and syrup are ${body.loading.mid.toFixed(2)} times what the dry things drink.`,
      ...prove(id, () => liquidWays(items, kind, process, side)),
      ingredientIds: [],
    });
  }
  // Coarse meal hides how little water there is: far under what is usual it is dry, whatever it reads.
  if (side === 0 && parched)
    out.push({
      id: "too-dry",
      severity: "caution",
      message: `${Math.round(readings.waterPercent)} % water on the flour is little for ${oneOf[kind]}; ${water.low} to ${water.high} % is usual.`,
      why: `${profile.why} What is not wetted neither swells nor sets.`,
      ...prove("too-dry", () => liquidWays(items, kind, process, 1)),
      ingredientIds: [],
    });
  const over = (name: Trimmed, id: Finding["id"], what: string, why: string, sure = OVER): void => {
    const band = profile.bands[name];
    // What is over by less than its measuring is sure of is not over.
    if (readings[name] <= sure * band.high || crumbOf(items) <= 0) return;
    out.push({
      id,
      severity: readings[name] > band.high * PLAINLY ? "caution" : "note",
      message: `${name === "saltPercent" ? readings[name].toFixed(1) : Math.round(readings[name])} % ${what} on the flour is much for ${oneOf[kind]}; ${band.low} to ${band.high} % is usual.`,
      why,
      ...prove(id, () => trimWays(items, name, (band.high / 100) * crumbOf(items))),
      ingredientIds: idsOf(items, (item) => trimmed[name].of(item.ingredient) > 0.3),
    });
  };
  over(
    "sugarPercent",
    "sugar-high",
    "sugar",
    "Sugar raises the temperature at which the crumb sets, so the middle may sink, and it browns early.",
  );
  over("fatPercent", "fat-high", "fat", "Fat shortens the crumb; too much lets it crumble and run.");
  over("saltPercent", "salt-high", "salt", "More than a bread bears is tasted before anything else.", SALTED);
  return out;
}

const words: Record<Body["consistency"], string> = {
  pourable: "pourable",
  spoonable: "spoonable",
  scoopable: "stiff enough to scoop",
  "soft-dough": "a soft dough",
  "firm-dough": "a firm dough",
  crumbly: "crumbly",
};

/** A fat begins to smoke some kelvin before the point that tables give: refining and what it has met move it. */
const SMOKE_K = 5;

/** The fat that greases a hot pan or a griddle, where it begins to smoke at the heat that it meets. */
function smokeFindings({ asides, vessel, oven }: Findable): Finding[] {
  const hot = oven.mode === "hob" || vessel.preheated === true;
  if (!hot) return [];
  const greasing = asides.filter(({ component }) => component.role === "pan").flatMap((aside) => aside.items);
  return greasing.flatMap(({ ingredient }): Finding[] => {
    const { smokeC } = ingredient;
    if (smokeC === undefined || oven.celsius <= smokeC - SMOKE_K) return [];
    const better = ["sunflower-oil", "rapeseed-oil", "ghee", "avocado-oil"]
      .map((id) => ingredientOf(builtInShelf, id))
      .filter((fat) => (fat.smokeC ?? 0) > oven.celsius + SMOKE_K);
    return [
      {
        id: "fat-smokes",
        severity: "caution",
        message: `${ingredient.name} begins to smoke at about ${smokeC} °C; the pan meets it at ${Math.round(oven.celsius)} °C.`,
        why: "Smoking fat tastes burnt, irritates eyes and lungs, and is not far from catching fire.",
        fix:
          better.length > 0
            ? `Grease it with ${better.map((fat) => `${fat.name.toLowerCase()} (${fat.smokeC} °C)`).join(" or ")}.`
            : `Let the pan cool to ${Math.round(smokeC - 2 * SMOKE_K)} °C first, or grease it after it is heated.`,
        ingredientIds: [ingredient.id],
      },
    ];
  });
}

/** What lifts by the hour is not computed here, which is another thing than no lift. */
function fermentFindings({ items }: Findable): Finding[] {
  const found = fermentsIn(items);
  if (found.length === 0) return [];
  const names = listWords(found.map(({ ingredient }) => ingredient.name));
  return [
    {
      id: "ferment",
      severity: "note",
      message: `${names} ${found.length === 1 ? "lifts" : "lift"} by the hour; what it gives is not computed here.`,
      why: "Lift, race and rise are of soda, powder, fizz, whisked air and steam alone. A yeast that works makes more of each.",
      ingredientIds: found.map(({ ingredient }) => ingredient.id),
    },
  ];
}

/** Uprise bakes in ovens and on plates; for what is cooked otherwise lift and body hold, and the bake is that of an oven. */
function elsewhereFindings({ process, oven }: Pick<Findable, "process" | "oven">): Finding[] {
  if (process.elsewhere === undefined) return [];
  return [
    {
      id: "heat-elsewhere",
      severity: "caution",
      message: `This is ${elsewhereWords[process.elsewhere]}, which is not computed here: the minutes, the core and the crust shown are those of an oven at ${Math.round(oven.celsius)} °C.`,
      why: "Uprise bakes in ovens and on plates. Lift, body and what is on the label hold for any heat; how long it takes, how it colours and what it loses do not.",
      ingredientIds: [],
    },
  ];
}

/** Whatever is eaten with the batter counts: a glaze with malt is a bake with gluten. */
function safetyFindings({ items: batter, asides }: Findable): Finding[] {
  const items = [...batter, ...asides.flatMap((aside) => aside.items.filter(({ massG }) => massG > 0))].filter(
    (item, index, all) => all.findIndex(({ ingredient }) => ingredient.id === item.ingredient.id) === index,
  );
  const out: Finding[] = [];
  const wheat = items.filter((item) => item.ingredient.gluten === "contains");
  const check = items.filter((item) => item.ingredient.gluten === "check");
  const oats = items.filter((item) => item.ingredient.gluten === "oats");
  const names = (list: Item[]): string => list.map((item) => item.ingredient.name).join(", ");
  if (wheat.length > 0) {
    out.push({
      id: "gluten-check",
      severity: "stop",
      message: `${names(wheat)} contains gluten.`,
      why: "This formula is not gluten-free as it stands.",
      fix: "Swap it for a gluten-free blend with a binder.",
      ingredientIds: wheat.map((i) => i.ingredient.id),
    });
  }
  if (check.length > 0) {
    out.push({
      id: "gluten-check",
      severity: "note",
      message: `Read the label of ${names(check)}.`,
      why: "Some makers' versions hold barley, wheat starch or malt; the label must say gluten-free.",
      ingredientIds: check.map((i) => i.ingredient.id),
    });
  }
  if (oats.length > 0) {
    out.push({
      id: "oats-check",
      severity: "note",
      message: `${names(oats)}: the label must say certified gluten-free.`,
      why: "Ordinary oats carry wheat and barley from field and mill, and some coeliacs cannot eat even pure oats.",
      ingredientIds: oats.map((i) => i.ingredient.id),
    });
  }
  return out;
}
