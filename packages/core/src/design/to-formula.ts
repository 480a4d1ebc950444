import { capital } from "../measure/list-words";
import type { BakedFill } from "../bake/bake-schema";
import { fillVessel } from "../bake/geometry";
import { LIKED } from "../bake/liked-fill";
import type { Formula } from "../formula/formula";
import { kindName } from "../formula/kinds";
import type { Kind } from "../formula/kinds";
import { exactly } from "../measure/range";
import type { Measures } from "../measure/units";
import type { NamedVessel } from "../pantry/vessel";
import type { Vessel } from "../pantry/vessel-schema";
import type { Design } from "./design";

/** A design as a formula for the bench; what it brings and gives up stands in its notes. */
export function formulaOf(
  design: Pick<Design, "title" | "why" | "kind" | "lines" | "vessel" | "oven" | "process" | "trades">,
  measures: Measures,
): Formula {
  const { title, why, kind, lines, vessel, oven, process, trades } = design;
  return {
    shape: 2,
    title: `${kindName[kind].replace(/ and other.*/, "")}, ${title.replace(/^./, (c) => c.toLowerCase())}`,
    kind,
    measures,
    lines: lines.map(({ ingredientId, grams }, index) => ({ id: `l${index + 1}`, ingredientId, grams: exactly(grams) })),
    vessel,
    oven,
    process,
    notes: [why, ...trades.map((trade) => `${capital(trade)}.`)].join("\n"),
  };
}

/** Which shapes of pan a kind is baked in, the usual first. */
const SHAPES: Record<Kind, readonly Vessel["shape"][]> = {
  loaf: ["rectangular", "ring", "round"],
  muffin: ["muffin"],
  scone: ["free"],
  bun: ["free", "rectangular", "round"],
  biscuit: ["free", "round"],
  "cornbread-plain": ["round", "rectangular", "muffin"],
  "cornbread-sweet": ["rectangular", "round", "muffin"],
  bar: ["rectangular", "round"],
  "tray-bread": ["rectangular"],
  flatbread: ["round", "free", "griddle"],
  "pourable-batter": ["griddle"],
  drop: ["free"],
};

/** A pan as full as a batter likes it, with a crown as it usually comes: for a drawing before there is a batter. */
export function filledAsLiked(vessel: Vessel): BakedFill {
  const filled = fillVessel(vessel, 500, 1);
  const share = filled.heightMm === null || filled.fillFraction <= 0 ? 1 : LIKED.mid / filled.fillFraction;
  const mass = 500 * share;
  const { fillFraction, depthMm, pieces, pieceG, heightMm, widthMm } = fillVessel(vessel, mass, 1);
  const crown = heightMm === null ? 1.5 * depthMm : 1.05 * heightMm;
  return {
    fillFraction,
    depthMm,
    crownMm: { low: 0.97 * crown, mid: crown, high: 1.03 * crown },
    overflow: false,
    pieces,
    pieceG,
    rimMm: heightMm,
    widthMm,
  };
}

/** Pans that a kind may be designed for, those of its usual shape first. */
export const designVessels = (kind: Kind, pans: readonly NamedVessel[]): NamedVessel[] =>
  SHAPES[kind].flatMap((shape) => pans.filter(({ vessel }) => vessel.shape === shape));
