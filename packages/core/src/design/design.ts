import { z } from "zod";
import { bakedFillSchema, bakeSchema } from "../bake/bake-schema";
import { simulateStart } from "../bake/simulate";
import { balance } from "../balance/balance";
import { profileOf } from "../balance/bands";
import { readingsOf, readingsSchema } from "../balance/proposal";
import { type Analysis, type BakedAnalysis, ready, readings } from "../balance/readings";
import { CoreError } from "../errors";
import { kindSchema } from "../formula/kinds-schema";
import { processSchema } from "../formula/process-schema";
import { gramsText } from "../measure/amounts";
import { listWords } from "../measure/list-words";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { ovenSchema, type Vessel, vesselSchema } from "../pantry/vessel-schema";
import { type Composed, compose, type Lack, type Line, type Stock, stockOf } from "./compose";
import type { Style } from "./style";
import { insteadOf, isGround, roleOf } from "./flours";
import type { Wish } from "./wish-schema";

export const designSchema = z.object({
  /** Which of the styles it is; a slider moves within it. */
  id: z.enum(["mild", "sour", "wholegrain", "tender", "eggless"]),
  title: z.string(),
  why: z.string(),
  lines: z.array(z.object({ ingredientId: z.string(), grams: z.number() })),
  kind: kindSchema,
  vessel: vesselSchema,
  oven: ovenSchema,
  process: processSchema,
  readings: readingsSchema,
  fill: bakedFillSchema,
  bake: bakeSchema,
  /** Each flour of it: its share of the flours, %, what it brings here, and what of the shelf would do most nearly the same. */
  flours: z.array(z.object({ ingredientId: z.string(), percent: z.number(), brings: z.string(), instead: z.string().optional() })),
  /** What this one gives up, or asks, against others. */
  trades: z.array(z.string()),
});
export type Design = z.infer<typeof designSchema>;

export const designsSchema = z.object({
  designs: z.array(designSchema),
  /** Where the shelf cannot do it: what of these one would have to be bought, and why. */
  missing: z.object({ ingredientIds: z.array(z.string()), why: z.string() }).optional(),
});
export type Designs = z.infer<typeof designsSchema>;

const MOST_DESIGNS = 4;

/** The styles that are tried for a wish, in the order of preference. */
export function stylesOf(wish: Wish): Style[] {
  const { lift, kind, variant, sour = 0.5 } = wish;
  const solid = kind === "scone" || kind === "biscuit" || kind === "bar" || kind === "cornbread-plain";
  const fat = solid ? ("solid" as const) : ("liquid" as const);
  const eggs = variant !== "eggless";
  const other = fat === "solid" && kind !== "scone" && kind !== "biscuit" ? ("liquid" as const) : ("solid" as const);
  const all: Style[] = [
    { id: "mild", lift: lift ?? "powder", tilt: "mild", sour: sour > 0.65, eggs, fat },
    { id: "sour", lift: lift ?? "both", tilt: "mild", sour: true, eggs, fat: other },
    { id: "wholegrain", lift: lift ?? "both", tilt: "wholegrain", sour: sour > 0.35, eggs, fat },
    { id: "tender", lift: lift ?? "powder", tilt: "tender", sour: sour > 0.65, eggs, fat: "solid" },
    ...(eggs ? [{ id: "eggless" as const, lift: lift ?? ("powder" as const), tilt: "mild" as const, sour: false, eggs: false, fat }] : []),
  ]; // prettier-ignore
  // A sour wish puts the sour one first, a sweet one leaves it for last.
  return sour > 0.65 ? [...all.slice(1, 2), ...all.slice(0, 1), ...all.slice(2)] : all;
}

export interface Judged {
  composed: Composed;
  analysis: BakedAnalysis;
}

const grave = ({ findings }: Pick<Analysis, "findings">): boolean => findings.some(({ severity }) => severity !== "note");

/** Whether every reading stands inside the bands of its kind, by a hair. */
const inBands = ({ bands }: Analysis): boolean =>
  bands.every(({ low, high, value }) => value >= 0.995 * low - 0.01 && value <= 1.005 * high + 0.01);

const NOT_SOUND = "Nothing sound comes of it.";
const gravest = ({ findings }: Analysis): string =>
  [...findings].sort((a, b) => order.indexOf(a.severity) - order.indexOf(b.severity))[0]?.message ?? NOT_SOUND;
const order = ["stop", "caution", "note"];

const bandWords: Record<Analysis["bands"][number]["name"], string> = {
  waterPercent: "water",
  fatPercent: "fat",
  sugarPercent: "sugar",
  eggPercent: "egg",
  gasMlPer100g: "lift",
  saltPercent: "salt",
};

/** Which band is not kept. */
function outside({ bands }: Analysis): string {
  const off = bands.find(({ low, high, value }) => value < low || value > high);
  return off ? `It would have ${off.value < off.low ? "too little" : "too much"} ${bandWords[off.name]} for its kind.` : NOT_SOUND;
}

/** A crown just over the rim, over it; near enough, and the most that one try takes more or less. */
const RIM = { aim: 1.04, most: 1.2, least: 0.8 };
const AT_RIM = 0.03;

/** How much more batter brings the crown to the rim: growth is in proportion to what is there. */
function towardsRim({ fill }: BakedAnalysis): number {
  if (fill.rimMm === null || fill.crownMm.mid <= 0) return 1;
  return Math.min(RIM.most, Math.max(RIM.least, (RIM.aim * fill.rimMm) / fill.crownMm.mid));
}

const TRIES = 5;
const SMALLER = 0.92;

const scaledBy = (lines: readonly Line[], factor: number): Line[] =>
  lines.map(({ ingredientId, grams }) => ({ ingredientId, grams: Math.round(grams * factor * 10) / 10 }));

/** A design baked in the computer and mended where a finding says how; where it stays unsound, the finding that stands in its way. */
export function judged(composed: Composed, wish: Wish, stock: Stock, shelf: Shelf, mend = true): Judged | { why: string } {
  const onHand = stock.all.map(({ id }) => id);
  let { lines, oven } = composed;
  let toRim = wish.toRim === true && wish.pieceG === undefined;
  for (let round = 0; round < TRIES; round++) {
    const input = { lines, kind: wish.kind, vessel: composed.vessel, oven, process: composed.process };
    if (grave(readings(input, shelf))) {
      if (!mend) return { why: gravest(readings(input, shelf)) };
      const [proposal] = balance(input, { onHand, ...(wish.avoid ? { avoid: wish.avoid } : {}) }, shelf).proposals;
      const next = proposal?.lines.flatMap(({ ingredientId, grams }) =>
        ingredientId !== undefined && grams !== undefined ? [{ ingredientId, grams }] : [],
      );
      if (!next || next.length === 0) return { why: gravest(readings(input, shelf)) };
      lines = next;
      continue;
    }
    const { start, conclude } = ready(input, shelf);
    const analysis = conclude(simulateStart(start, 0, { frames: 0, spread: BAKE_SPREAD }), "plain");
    const rise = toRim ? towardsRim(analysis) : 1;
    if (!grave(analysis) && Math.abs(rise - 1) > AT_RIM && round < TRIES - 1) {
      lines = scaledBy(lines, rise);
      continue;
    }
    if (!grave(analysis))
      return inBands(analysis) ? { composed: { ...composed, lines, oven }, analysis } : { why: outside(analysis) };
    const ids = new Set(analysis.findings.filter(({ severity }) => severity !== "note").map(({ id }) => id));
    if (ids.has("pan-overfull") && wish.pieceG === undefined) {
      lines = scaledBy(lines, SMALLER);
      // What runs over sooner than its crown reaches the rim stays lower.
      toRim = false;
    } else if (ids.has("core-late") && !wish.oven) oven = { ...oven, celsius: oven.celsius - 15 };
    else if (ids.has("oven-too-cool") && !wish.oven) oven = { ...oven, celsius: oven.celsius + 15 };
    else return { why: gravest(analysis) };
  }
  return { why: NOT_SOUND };
}

/** What a quarter more or less is for a bake whose oven nobody has measured, as ln of the factor. */
const BAKE_SPREAD = 0.12;

const lower = (text: string): string => text.replace(/^./, (c) => c.toLowerCase());

export function nameOf(id: string, shelf: Shelf): string {
  return lower(shelf.get(id)?.name ?? id);
}

const titles: Record<Style["id"], string> = {
  mild: "Mild and even",
  sour: "Sour milk and soda",
  wholegrain: "Wholegrain",
  tender: "Tender",
  eggless: "Without egg",
};

function liftWords(lines: readonly Line[], shelf: Shelf): string {
  const has = (id: string): boolean => lines.some((line) => line.ingredientId === id);
  const powder = lines.some(({ ingredientId }) => shelf.get(ingredientId)?.leavening?.powder);
  if (has("soda") && powder) return "soda for the acid and powder for the rest";
  if (has("soda")) return "soda with its acid";
  return powder ? "baking powder" : "air and steam";
}

function whyOf({ composed, analysis }: Judged, shelf: Shelf): string {
  const { lines, blend } = composed;
  const egg = lines.find(({ ingredientId }) => ingredientId === "egg");
  const binder = lines.find(({ ingredientId }) => shelf.get(ingredientId)?.family === "binder");
  const held = [...(egg ? [egg.grams >= 75 ? `${Math.round(egg.grams / 50)} eggs` : "egg"] : []), ...(binder ? [nameOf(binder.ingredientId, shelf)] : [])]; // prettier-ignore
  return `${listWords(blend.map(({ flour, share }) => `${Math.round(100 * share)} % ${lower(flour.name)}`))}, lifted by ${liftWords(lines, shelf)}${held.length > 0 ? `, held by ${listWords(held)}` : ""}; about ${Math.round(analysis.bake.minutes.mid)} min.`; // prettier-ignore
}

/** What a style gives up or asks, by what is in it. */
function tradesOf(style: Style, { composed, analysis }: Judged, first: Judged | null, shelf: Shelf): string[] {
  const { lines, short } = composed;
  const out: string[] = [];
  const has = (id: string): boolean => lines.some((line) => line.ingredientId === id);
  if (style.id === "wholegrain") out.push("more flavour and thirst, a darker and closer crumb");
  if (style.id === "tender") out.push("a softer crumb that is drier on the second day");
  if (!style.eggs) out.push("no egg: it browns less, and slices less cleanly");
  if (has("soda") && style.sour) out.push("soda browns it; mix and bake without a pause");
  if (first && first.composed !== composed) {
    const minutes = analysis.bake.minutes.mid - first.analysis.bake.minutes.mid;
    if (Math.abs(minutes) >= 3) out.push(`${Math.round(Math.abs(minutes))} min ${minutes > 0 ? "longer" : "shorter"} in the oven`);
    const crown = analysis.fill.crownMm.mid - first.analysis.fill.crownMm.mid;
    if (Math.abs(crown) >= 3) out.push(`${Math.round(Math.abs(crown))} mm ${crown > 0 ? "taller" : "lower"}`);
  }
  if (composed.otherPan) out.push("the usual cups are too small for such a piece: larger ones are taken");
  for (const { ingredientId, grams, of } of short)
    out.push(
      grams === 0
        ? `${nameOf(ingredientId, shelf)} stays out: it holds what is to be avoided`
        : `only ${gramsText(grams)} of the ${gramsText(of)} of ${nameOf(ingredientId, shelf)} go in: more would sink or stay wet`,
    );
  return out;
}

export function shown(style: Style, judgement: Judged, first: Judged | null, stock: Stock, wish: Wish, shelf: Shelf): Design {
  const { composed, analysis } = judgement;
  const grounds = stock.all.filter(isGround);
  return {
    id: style.id,
    title: titles[style.id],
    why: whyOf(judgement, shelf),
    lines: composed.lines,
    kind: wish.kind,
    vessel: composed.vessel,
    oven: composed.oven,
    process: composed.process,
    readings: readingsOf(analysis),
    fill: analysis.fill,
    bake: analysis.bake,
    flours: composed.blend.map(({ flour, share }) => {
      const instead = insteadOf(flour, grounds);
      return {
        ingredientId: flour.id,
        percent: Math.round(100 * share),
        brings: roleOf(flour).brings,
        ...(instead ? { instead: instead.id } : {}),
      };
    }),
    trades: tradesOf(style, judgement, first, shelf),
  };
}

/** What tells two designs apart: how they rise, what wets them, whether eggs hold them, which flours carry them. */
function signature({ composed }: Judged, shelf: Shelf): string {
  const { lines, blend } = composed;
  const liquid = lines.find(({ ingredientId }) => ["dairy", "cultured", "plant-milk", "water", "fizzy"].includes(shelf.get(ingredientId)?.family ?? "")); // prettier-ignore
  return [
    liftWords(lines, shelf),
    liquid?.ingredientId ?? "",
    lines.some(({ ingredientId }) => ingredientId === "egg"),
    blend
      .map(({ flour, share }) => `${flour.id} ${Math.round(5 * share)}`)
      .sort()
      .join("+"),
  ].join("|");
}

function tried(wish: Wish, style: Style, stock: Stock, shelf: Shelf): Judged | { lack: Lack } | { why: string } {
  try {
    let first: { lack: Lack } | { why: string } | null = null;
    // Where the body that is usual for the kind cannot be had from these flours, or nothing sound comes of it, another that the kind has may do.
    for (const body of wish.body ? [wish.body] : profileOf(wish.kind).consistencies)
      for (const gentler of [wish, { ...wish, tall: 0.4 * (wish.tall ?? 0.5), moist: 0.6 * (wish.moist ?? 0.5) }]) {
        const composed = compose({ ...gentler, body }, style, stock, shelf);
        const result = "lack" in composed ? composed : judged(composed, wish, stock, shelf);
        if (!("lack" in result) && !("why" in result)) return result;
        first ??= result;
        if ("lack" in result) break;
      }
    return first ?? { why: NOT_SOUND };
  } catch (error) {
    // A batter that weighs nothing or fits in no pan is no design.
    if (error instanceof CoreError && error.code !== "unknown-ingredient") return { why: error.message };
    throw error;
  }
}

/**
 * Two to four formulas for what is wished and on hand, differing in kind: each is weighed out for its pan, baked in the computer, mended where a finding
 * says how, and shown only when nothing is found of it but remarks and every reading stands inside the bands of its kind. The same wish has the
 * same answer everywhere. Where none is sound, `missing` says what one thing to buy would do it. Throws `unknown-ingredient`, `bad-vessel`.
 */
export function design(wish: Wish, shelf: Shelf = builtInShelf): Designs {
  for (const id of [...(wish.have ?? []), ...(wish.useUp ?? []).map(({ ingredientId }) => ingredientId)])
    if (!shelf.get(id)) throw new CoreError("unknown-ingredient", `No ingredient has the id "${id}".`, "have");
  const found = sound(wish, shelf);
  if (found.designs.length > 0) return { designs: found.designs };
  return { designs: [], missing: toBuy(wish, found.lacks, found.whys, shelf) };
}

function sound(wish: Wish, shelf: Shelf, most = MOST_DESIGNS): { designs: Design[]; lacks: Lack[]; whys: string[] } {
  const stock = stockOf(wish, shelf);
  const kept: { style: Style; judgement: Judged }[] = [];
  const lacks: Lack[] = [];
  const whys: string[] = [];
  const seen = new Set<string>();
  for (const style of stylesOf(wish)) {
    if (kept.length >= most) break;
    const result = tried(wish, style, stock, shelf);
    if ("why" in result) {
      whys.push(result.why);
      continue;
    }
    if ("lack" in result) {
      lacks.push(result.lack);
      continue;
    }
    const mark = signature(result, shelf);
    if (seen.has(mark)) continue;
    seen.add(mark);
    kept.push({ style, judgement: result });
  }
  const first = kept[0]?.judgement ?? null;
  return { designs: kept.map(({ style, judgement }) => shown(style, judgement, first, stock, wish, shelf)), lacks, whys };
}

/** What is most often missing, where no style said what. */
const OFTEN = ["egg", "xanthan", "psyllium-husk", "powder-aluminium-free", "gf-blend-plain", "whole-milk", "oat-milk", "sunflower-oil", "white-sugar"]; // prettier-ignore

/** The one thing that would make it possible; where no single one does, what the first style lacks. */
function toBuy(wish: Wish, lacks: readonly Lack[], whys: readonly string[], shelf: Shelf): NonNullable<Designs["missing"]> {
  const have = wish.have ?? [];
  const avoided = (id: string): boolean => (shelf.get(id)?.allergens ?? []).some((allergen) => wish.avoid?.includes(allergen));
  const wanted = [...new Set([...lacks.flatMap(({ buy }) => buy), ...OFTEN])].filter((id) => !have.includes(id) && !avoided(id));
  for (const id of wanted) {
    if (sound({ ...wish, have: [...have, id] }, shelf, 1).designs.length === 0) continue;
    return { ingredientIds: [id], why: `With ${nameOf(id, shelf)} there is a design; nothing on the shelf does its work.` };
  }
  const [lack] = lacks;
  return lack
    ? { ingredientIds: lack.buy.filter((id) => !avoided(id)).slice(0, 1), why: `It needs ${lack.what}, and more than that: no one thing alone would do it.` }
    : { ingredientIds: [], why: `What is wished for does not go together. ${whys[0] ?? NOT_SOUND}` }; // prettier-ignore
}

/** One style alone with its sliders moved, weighed out and read, not baked: quick enough to follow a finger. Null where it cannot be composed. */
export function moved(
  wish: Wish,
  id: Design["id"],
  shelf: Shelf = builtInShelf,
): { lines: Line[]; vessel: Vessel; analysis: Analysis } | null {
  const style = stylesOf(wish).find((one) => one.id === id);
  if (!style) return null;
  const composed = compose(wish, style, stockOf(wish, shelf), shelf);
  if ("lack" in composed) return null;
  const { lines, vessel, oven, process } = composed;
  return { lines, vessel, analysis: readings({ lines, kind: wish.kind, vessel, oven, process }, shelf) };
}
