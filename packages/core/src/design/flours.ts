import type { Kind } from "../formula/kinds";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import table from "./data/flour-roles.json";

/** What a flour does in a crumb: structure and flavour from 0 to 3, the most of it that a blend takes, %, and what it brings in words. */
export interface FlourRole {
  id: string;
  structure: number;
  flavour: number;
  most: number;
  brings: string;
  source: string;
  confidence: string;
}

const roles = new Map((table as FlourRole[]).map((role) => [role.id, role]));

export const knownRole = (id: string): FlourRole | undefined => roles.get(id);

/** Mostly starch and hardly any protein: it makes tender and lends no structure. */
export const isStarch = ({ family, per100g }: Ingredient): boolean =>
  family === "starch" || (per100g.starch > 78 && per100g.protein < 2);

/** What a flour does by its table, or, where it is not in it (one of the baker's own), by its composition. */
export function roleOf(flour: Ingredient): FlourRole {
  const known = roles.get(flour.id) ?? roles.get(flour.id.replace(/^my-/, ""));
  if (known) return known;
  const { protein, fat, fibre } = flour.per100g;
  return {
    id: flour.id,
    structure: isStarch(flour) ? 0 : protein > 17 ? 3 : protein > 11 ? 2 : 1,
    flavour: isStarch(flour) ? 0 : fat > 20 ? 2 : 1,
    most: fibre > 20 ? 15 : isStarch(flour) ? 40 : protein > 17 ? 30 : fat > 20 ? 40 : flour.family === "blend" ? 100 : 50,
    brings: isStarch(flour) ? "a tender crumb" : protein > 17 ? "protein that sets firm" : "body",
    source: "by its composition",
    confidence: "C",
  };
}

/** Grains left whole, flakes and crumbs are no ground of a crumb. */
const noGround = /whole$|groats|flakes|rolled|steel-cut|jumbo|cooked|pearls|crumbs|fibre|coffee-flour|grape-seed|acorn/;
const CORN = new Set(["cornmeal", "cornflour-fine", "masa-harina", "pearl-millet-flour", "millet-flour"]);

/** Whether a blend may be built on an ingredient. */
export const isGround = (ingredient: Ingredient): boolean =>
  isFlour(ingredient) && ingredient.family !== "wheat" && ingredient.gluten !== "contains" && !noGround.test(ingredient.id);

/** Blends that were bought, or mixed, are finished: nothing is mixed into them. */
export const isBlend = ({ family }: Ingredient): boolean => family === "blend";

export type Tilt = "mild" | "wholegrain" | "tender";

/** What a blend is to have: shares of starch and of corn, protein in %, flavour and structure on the roles' scale. Confidence C. */
interface Aim {
  starch: number;
  corn: number;
  protein: number;
  flavour: number;
  structure: number;
}

const STARCH: Record<Kind, number> = {
  loaf: 0.32, muffin: 0.36, scone: 0.36, bun: 0.34, biscuit: 0.36, "cornbread-plain": 0.05, "cornbread-sweet": 0.22, bar: 0.3,
  "tray-bread": 0.32, flatbread: 0.36, "pourable-batter": 0.28, drop: 0.32,
}; // prettier-ignore
const TILT: Record<Tilt, { starch: number; flavour: number }> = {
  mild: { starch: 0, flavour: 0.7 },
  wholegrain: { starch: -0.12, flavour: 1.5 },
  tender: { starch: 0.12, flavour: 0.5 },
};

/** Kinds that carry their own weight in a tall tin or by themselves. */
const BREADY: ReadonlySet<Kind> = new Set<Kind>(["loaf", "bun", "tray-bread"]);
/** Corn in a bake that is no corn bread, %: ground fine it is one flour of several, coarse it is bite. */
const CORN_ELSEWHERE: Record<string, number> = { cornmeal: 10, "cornflour-fine": 25, "masa-harina": 20 };
/** Two starches do better than one: one stretches, one keeps soft. From this share on a single one counts against a blend. */
const TWO_STARCHES = { from: 0.25, cost: 0.3 };

function aimOf(kind: Kind, tilt: Tilt): Aim {
  const corn = kind === "cornbread-plain" ? 0.9 : kind === "cornbread-sweet" ? 0.5 : 0;
  return {
    starch: Math.max(0.05, STARCH[kind] + TILT[tilt].starch),
    corn,
    protein: BREADY.has(kind) ? 8.5 : 7,
    flavour: TILT[tilt].flavour + 1.2 * corn,
    structure: BREADY.has(kind) ? 1.2 : 0.85,
  };
}

export interface Share {
  flour: Ingredient;
  /** Of the whole blend, 0 to 1. */
  share: number;
}

/** What a wholly preferred blend may be off and is still taken. */
const PREFERRED = 3;

/** How far a blend is from its aim; 0 is on it, less where it is of what is preferred. */
function missOf(shares: readonly Share[], aim: Aim, prefer: ReadonlySet<string>): number {
  let starch = 0;
  let corn = 0;
  let protein = 0;
  let flavour = 0;
  let structure = 0;
  let over = 0;
  let fibre = 0;
  let starches = 0;
  let preferred = 0;
  for (const { flour, share } of shares) {
    const role = roleOf(flour);
    if (isStarch(flour)) {
      starch += share;
      starches++;
    }
    if (CORN.has(flour.id)) corn += share;
    protein += share * flour.per100g.protein;
    fibre += share * flour.per100g.fibre;
    flavour += share * role.flavour;
    structure += share * role.structure;
    if (prefer.has(flour.id)) preferred += share;
    const most = aim.corn > 0 ? role.most : (CORN_ELSEWHERE[flour.id] ?? role.most);
    over += Math.max(0, share - most / 100);
  }
  const square = (x: number): number => x * x;
  return (
    square((starch - aim.starch) / 0.12) +
    square(Math.max(0, aim.corn - corn) / 0.15) +
    square((protein - aim.protein) / 3) +
    square((flavour - aim.flavour) / 0.6) +
    square(Math.max(0, aim.structure - structure) / 0.4) +
    square(Math.max(0, fibre - 9) / 4) +
    400 * over +
    (starches === 1 && starch >= TWO_STARCHES.from ? TWO_STARCHES.cost : 0) +
    0.12 * shares.length -
    PREFERRED * preferred
  );
}

const PARTS = 10;

/** Every way of cutting ten tenths into so many parts, each at least one. */
function cuts(parts: number, left = PARTS): number[][] {
  if (parts === 1) return [[left]];
  const out: number[][] = [];
  for (let first = 1; first <= left - parts + 1; first++)
    for (const rest of cuts(parts - 1, left - first)) out.push([first, ...rest]);
  return out;
}
const cutsOf = [1, 2, 3, 4].map((parts) => cuts(parts));

/** Of so many flours of a role the nearest to the aim alone are tried together. */
const TRIED = { starch: 3, ground: 5, strong: 2 };

function candidates(flours: readonly Ingredient[], aim: Aim, prefer: ReadonlySet<string>): Ingredient[] {
  const alone = (flour: Ingredient): number => {
    const role = roleOf(flour);
    return (
      Math.abs(role.flavour - aim.flavour) +
      Math.abs(flour.per100g.protein - aim.protein) / 6 -
      (CORN.has(flour.id) ? 4 * aim.corn : 0) -
      (prefer.has(flour.id) ? 10 : 0)
    );
  };
  const of = (wanted: (flour: Ingredient) => boolean, most: number): Ingredient[] =>
    flours
      .filter(wanted)
      .sort((a, b) => alone(a) - alone(b) || a.id.localeCompare(b.id))
      .slice(0, most);
  const strong = (flour: Ingredient): boolean => roleOf(flour).structure === 3;
  return [
    ...of(isStarch, TRIED.starch),
    ...of((flour) => !isStarch(flour) && !strong(flour), TRIED.ground),
    ...of((flour) => !isStarch(flour) && strong(flour), TRIED.strong),
  ];
}

/** The blend of up to four flours that comes nearest to what a kind wants of its crumb; the same flours give the same blend. Null without any. */
export function blendOf(
  flours: readonly Ingredient[],
  kind: Kind,
  tilt: Tilt,
  prefer: ReadonlySet<string> = new Set(),
): Share[] | null {
  const aim = aimOf(kind, tilt);
  const blends = flours.filter(isBlend);
  const ground = flours.filter((flour) => !isBlend(flour));
  const tried = candidates(ground, aim, prefer);
  let best: Share[] | null = null;
  let least = Infinity;
  const judge = (shares: Share[], worse = 0): void => {
    const miss = missOf(shares, aim, prefer) + worse;
    if (miss < least - 1e-9) {
      least = miss;
      best = shares;
    }
  };
  const choose = (from: number, chosen: Ingredient[]): void => {
    if (chosen.length > 0) {
      for (const cut of cutsOf[chosen.length - 1] ?? []) judge(chosen.map((flour, k) => ({ flour, share: (cut[k] ?? 0) / PARTS })));
    }
    if (chosen.length === cutsOf.length) return;
    for (let next = from; next < tried.length; next++) {
      const flour = tried[next];
      if (flour) choose(next + 1, [...chosen, flour]);
    }
  };
  choose(0, []);
  // A bought blend is as good as one that is a little off; it saves the weighing.
  for (const flour of blends) judge([{ flour, share: 1 }], tried.length > 1 ? 1.5 : 0);
  return best && [...(best as Share[])].sort((a, b) => b.share - a.share);
}

/** The flour of a shelf that does most nearly what another does; null where none is near. */
export function insteadOf(flour: Ingredient, among: readonly Ingredient[]): Ingredient | null {
  const role = roleOf(flour);
  const far = (other: Ingredient): number => {
    const its = roleOf(other);
    return (
      Math.abs(its.structure - role.structure) +
      Math.abs(its.flavour - role.flavour) / 2 +
      (isStarch(other) === isStarch(flour) ? 0 : 3) +
      Math.abs((other.absorbs?.slow ?? 1) - (flour.absorbs?.slow ?? 1)) / 2
    );
  };
  const near = among
    .filter((other) => other.id !== flour.id && isGround(other) && !isBlend(other))
    .sort((a, b) => far(a) - far(b) || a.id.localeCompare(b.id))[0];
  return near && far(near) < 2 ? near : null;
}
