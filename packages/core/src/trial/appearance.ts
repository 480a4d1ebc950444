import type { Simulation } from "../bake/simulation-schema";
import type { Shelf } from "../pantry/shelf";
import type { Clues } from "./clues";
import { coreAtOut, crumbWater, type Outcome } from "./outcome";
import type { SymptomId } from "./symptoms";

/** How a bake would look, feel and taste: degrees from 0 (not there) to 3 (strong), as fractions. */
export type Appearance = Partial<Record<SymptomId, number>>;

/**
 * From which value on a thing is seen a little (1) and strongly (3), between them in a straight line. Shares, K, mm, pH as named in `appearanceOf`;
 * kitchen knowledge, confidence C.
 */
const RAMPS = {
  dense: [0.07, 0.3],
  flat: [0.05, 0.2],
  peaked: [0.1, 0.35],
  hollow: [0.03, 0.18],
  fell: [0.05, 0.18],
  overflow: [0.06, 0.2],
  spread: [12, 45],
  rawK: [3, 12],
  gummy: [0.03, 0.16],
  wetter: [1.6, 5.5],
  drier: [1.6, 5.5],
  longer: [0.09, 0.4],
  sooner: [0.08, 0.3],
  darker: [0.4, 1.1],
  paler: [0.45, 1.5],
  thicker: [0.22, 0.8],
  unbound: [0.4, 0.95],
  overbound: [1.8, 3.2],
  overgas: [1.2, 2.4],
  undergas: [1.1, 2.2],
  sodaPercent: [0.12, 0.5],
  alkaline: [7.9, 9],
  acid: [6.15, 5.2],
  powder: [9.5, 15],
  over: [1.15, 2.2],
  unsalted: [0.78, 1],
  blue: [7.4, 8.4],
  green: [8, 8.8],
  cutEarly: [10, 45],
  inPan: [15, 60],
} as const;

const ramp = (value: number, name: keyof typeof RAMPS): number => {
  const [one, three] = RAMPS[name];
  const degree = 1 + (2 * (value - one)) / (three - one);
  // Less than what is seen a little is not seen.
  return degree < 0.8 ? 0 : Math.min(3, degree);
};

const dome = ({ cooledMm }: Simulation): number => cooledMm.middle / Math.max(1, cooledMm.edge);
const fallen = ({ cooledMm, outMm }: Simulation): number => 1 - cooledMm.middle / Math.max(1, outMm.middle);

/** What is seen of one bake and not, or less, of another. */
export function beyond(then: Appearance, base: Appearance): Appearance {
  const out: Appearance = {};
  for (const [id, degree] of Object.entries(then) as [SymptomId, number][]) {
    const more = degree - (base[id] ?? 0);
    if (more > 0.3) out[id] = more;
  }
  return out;
}

/**
 * What would be seen of a bake beside the one that was planned: size, crown, crumb, colour from the simulation, taste from what is left of soda and
 * acid, the rest from the bands. The same table reads made-up bakes, the effect of causes, and a remedy.
 */
export function appearanceOf(is: Outcome, planned: Outcome, shelf: Shelf, clues: Clues): Appearance {
  const out: Appearance = {};
  const see = (id: SymptomId, degree: number): void => {
    if (degree > (out[id] ?? 0)) out[id] = degree;
  };
  const [here, there] = [is.simulation, planned.simulation];
  const { analysis } = is;
  const size = here.volumeMlPerG / Math.max(0.2, there.volumeMlPerG);
  see("dense", ramp(1 - size, "dense"));
  see("dense", ramp(-(clues.gasBand ?? 0), "undergas"));
  const [domeHere, domeThere] = [dome(here), dome(there)];
  const sunken = here.top === "sunken";
  if (!sunken && is.analysis.fill.rimMm !== null) see("flat-top", ramp(1 - domeHere / domeThere, "flat"));
  if (!sunken) see("flat-top", 0.8 * ramp(1 - size, "dense"));
  see("peaked", ramp(domeHere / domeThere - 1, "peaked"));
  see("sunk-middle", ramp(1 - domeHere, "hollow"));
  see("collapsed-cooling", ramp(fallen(here) - fallen(there), "fell"));
  see("sunk-middle", 0.8 * ramp(fallen(here) - fallen(there), "fell"));
  see("overflowed", ramp(here.overflowMl / Math.max(1, analysis.batch.massG * here.volumeMlPerG), "overflow"));
  if (analysis.fill.rimMm === null) see("spread-wide", ramp(here.spreadPercent - there.spreadPercent, "spread"));
  see("raw-centre", ramp(here.targetC - coreAtOut(here), "rawK"));
  see("gummy-line", ramp(here.gummy.share - 0.8 * there.gummy.share, "gummy"));
  const water = crumbWater(is) - crumbWater(planned);
  see("wet-sticky", ramp(water, "wetter"));
  see("dry", ramp(-water, "drier"));
  see("thick-crust", 0.8 * ramp(-water, "drier"));
  const { adequacy } = analysis.body.binder;
  see("crumbly", ramp(1 - adequacy, "unbound"));
  see("crumbly", 0.6 * ramp(-water, "drier"));
  see("rubbery", ramp(adequacy, "overbound"));
  see("rubbery", ramp(clues.eggBand ?? 0, "over"));
  see("coarse-crumb", ramp(clues.gasBand ?? 0, "overgas"));
  see("soapy", ramp(clues.sodaUnmetPercent ?? 0, "sodaPercent"));
  see("soapy", ramp(analysis.lift.ph.mid, "alkaline"));
  see("sour", ramp(analysis.lift.ph.mid, "acid"));
  see("metallic", ramp(clues.powderPercent ?? 0, "powder"));
  see("too-sweet", ramp(clues.sugarBand ?? 0, "over"));
  see("bland", ramp(-(clues.saltBand ?? 0), "unsalted"));
  const tone = (a: number, b: number): number => Math.log((a + 0.15) / (b + 0.15));
  const [top, base] = [tone(here.browning.top, there.browning.top), tone(here.browning.base, there.browning.base)];
  see("dark-top", ramp(top, "darker"));
  see("pale-top", ramp(-top, "paler"));
  see("burnt-base", ramp(base, "darker"));
  see("pale-base", ramp(-base, "paler"));
  see("thick-crust", 0.7 * ramp(top, "darker"));
  const time = here.done.mid / Math.max(1, there.done.mid);
  see("took-longer", ramp(time - 1, "longer"));
  see("done-sooner", ramp(1 - time, "sooner"));
  const stiffer = analysis.body.stiffness.mid / Math.max(0.1, planned.analysis.body.stiffness.mid) - 1;
  see("batter-too-thick", ramp(stiffer, "thicker"));
  see("batter-too-thin", ramp(-stiffer * 1.3, "thicker"));
  const pigments = new Set(is.input.lines.flatMap(({ ingredientId }) => shelf.get(ingredientId ?? "")?.pigments ?? []));
  if (pigments.has("anthocyanin")) see("blue-grey-fruit", ramp(analysis.lift.ph.mid, "blue"));
  if (pigments.has("chlorogenic")) see("green-spots", ramp(analysis.lift.ph.mid, "green"));
  const cutEarly = ramp(clues.cutEarlyMinutes ?? 0, "cutEarly");
  see("gummy-line", 0.8 * cutEarly);
  see("wet-sticky", 0.8 * cutEarly);
  const steamed = ramp(clues.inPanOver ?? 0, "inPan");
  see("soggy-base", steamed);
  return out;
}
