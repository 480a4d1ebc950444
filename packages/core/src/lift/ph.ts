import type { Item } from "../formula/resolve";
import type { Range } from "../measure/range-schema";
import type { LeaveningAcidId } from "../pantry/ingredient-words";
import { KELVIN, solubility } from "../physics";
import { CARBONIC_PKA, givenUp, POWDER_SPREAD, titrationOf, type Titration } from "./charge";

/** Where nothing is said a mixture is at room temperature, °C. */
const ROOM_C = 22;
/**
 * A crumb at its hottest, °C, and the CO2 over it, atm: bubbles that steam has flushed and that are open by then (0.02 to 0.15, confidence C). What carbon
 * stays dissolved here is all that a cooled crumb can hold.
 */
const HOT = { celsius: 95, co2Atm: 0.05 };

/** CO2 over the batter on the bench (bubbles of nearly pure gas) and in a cooled crumb, atm. */
export const BENCH_CO2_ATM = 1;
export const CRUMB_CO2_ATM: Range = { low: 0.001, mid: 0.01, high: 0.05 };

export interface Mixture {
  parts: { titration: Titration; massG: number; factor: number }[];
  /** mmol of sodium ions that came with soda, and of the carbonate that came with it. */
  sodaMmol: number;
  waterL: number;
  /** Ionic strength, mol/L; absent is none. */
  ionic?: number;
  /** °C; absent is room temperature. */
  celsius?: number;
  /** The carbon that is left in it, mmol; absent is all that the soda brought. */
  carbonMmol?: number;
}

const SODIUM = 22.99;
/** The Davies equation holds to about this, mol/L. */
const MOST_IONIC = 0.5;

/** Ionic strength of a batter, mol/L, from its sodium as a one-to-one salt: table salt and leavening are most of it. */
export const ionicStrength = (items: readonly Item[], waterG: number): number =>
  Math.min(
    MOST_IONIC,
    items.reduce((mmol, { ingredient, massG }) => mmol + (massG * (ingredient.sodiumMg ?? 0)) / 100 / SODIUM, 0) /
      Math.max(waterG, 1),
  );

/** Davies: −log10 of the activity coefficient of an ion of charge 1 in water of 25 °C at an ionic strength, mol/L. */
const davies = (ionic: number): number => 0.509 * (Math.sqrt(ionic) / (1 + Math.sqrt(ionic)) - 0.3 * ionic);

/** Dissociation constants of a neutral acid at an ionic strength: the k-th falls by (2k − 1) of the Davies term. */
export const pKaAt = (pKa: readonly number[], ionic: number): number[] => {
  const term = ionic > 0 ? davies(ionic) : 0;
  return pKa.map((value, k) => value - (2 * k + 1) * term);
};

export function mixtureOf(items: readonly Item[], waterG: number): Mixture {
  const parts = items.map((item) => ({ titration: titrationOf(item.ingredient), massG: item.massG, factor: 1 }));
  return {
    parts,
    sodaMmol: parts.reduce((n, p) => n + p.massG * p.titration.soda, 0),
    waterL: Math.max(waterG, 1) / 1000,
    ionic: ionicStrength(items, waterG),
  };
}

/**
 * Dissociation of carbonic acid over temperature, as the change of its pK from 25 °C. Source: Plummer and Busenberg 1982, 0 to 90 °C; the few kelvins
 * beyond are drawn on.
 */
export function carbonicShift(celsius: number): [first: number, second: number] {
  const logs = (t: number): [number, number] => [
    -356.3094 - 0.06091964 * t + 21834.37 / t + 126.8339 * Math.log10(t) - 1684915 / t ** 2,
    -107.8871 - 0.03252849 * t + 5151.79 / t + 38.92561 * Math.log10(t) - 563713.9 / t ** 2,
  ];
  const [here, there] = [logs(celsius + KELVIN), logs(25 + KELVIN)];
  return [there[0] - here[0], there[1] - here[1]];
}

/** −log10 of the ion product of water; 14 at 25 °C and 12.3 at 95, nearly in a straight line. */
const waterPk = (celsius: number): number => 14 - 0.0245 * (celsius - 25);

/** Carbon that stays dissolved at a pH under a CO2 pressure, mmol; never more than there is. 10^pH is `h`. */
function carbonIn({ mixture, carbonic, henry }: Compiled, h: number, co2Atm: number): number {
  const h1 = h * (carbonic[0] ?? 0);
  const h2 = h1 * h * (carbonic[1] ?? 0);
  const open = henry * co2Atm * (1 + h1 + h2) * 1000 * mixture.waterL;
  return Math.min(open, mixture.carbonMmol ?? mixture.sodaMmol);
}

/** Negative charge of that carbon, mmol. */
const carbonateCharge = (compiled: Compiled, h: number, co2Atm: number): number =>
  carbonIn(compiled, h, co2Atm) * chargeAt(compiled.carbonic, h);

/** Carbon that a mixture holds when its charges cancel under a CO2 pressure, mmol. */
export const carbonAt = (mixture: Mixture, co2Atm: number): number =>
  carbonIn(compile(mixture), 10 ** solvePh(mixture, co2Atm), co2Atm);

/** A mixture added up: its linear buffers, each dissolved acid and each group of the crystals once. Amounts in mmol. */
interface Compiled {
  mixture: Mixture;
  slope: number;
  /** What does not depend on pH. */
  constant: number;
  acids: { k: number[]; mmol: number }[];
  crystals: { k: number; mmol: number }[];
  /** Dissociation constants of carbonic acid in this mixture, mol/(L atm) of CO2 over it, and the ion product of water. */
  carbonic: number[];
  henry: number;
  water: number;
}

/** Mean negative charge of an acid with dissociation constants k where 10^pH is `h`; `acidCharge` without its powers. */
function chargeAt(k: readonly number[], h: number): number {
  let term = 1;
  let whole = 1;
  let charged = 0;
  for (let i = 0; i < k.length; i++) {
    term *= h * (k[i] ?? 0);
    whole += term;
    charged += (i + 1) * term;
  }
  return charged / whole;
}

const constants = (pKa: readonly number[], ionic: number): number[] => pKaAt(pKa, ionic).map((value) => 10 ** -value);

/** By itself every ingredient keeps its own pH, whatever the ionic strength: its charge there is what its charge is counted from. */
function compile(mixture: Mixture): Compiled {
  const ionic = mixture.ionic ?? 0;
  const celsius = mixture.celsius ?? ROOM_C;
  const shift = mixture.celsius === undefined ? [] : carbonicShift(celsius);
  const acids = new Map<readonly number[], { k: number[]; mmol: number }>();
  const crystals = new Map<number, { k: number; mmol: number }>();
  let slope = 0;
  let constant = mixture.sodaMmol;
  for (const { titration, massG, factor } of mixture.parts) {
    const amount = factor * massG;
    slope += amount * titration.buffer;
    constant += amount * titration.buffer * titration.ph;
    for (const { pKa, mmol, chargeAtOwn } of titration.acids) {
      const known = acids.get(pKa) ?? { k: constants(pKa, ionic), mmol: 0 };
      known.mmol += amount * mmol;
      acids.set(pKa, known);
      constant += amount * mmol * (ionic > 0 ? chargeAt(known.k, 10 ** titration.ph) : chargeAtOwn);
    }
    for (const { pKa, mmol } of titration.crystals) {
      const known = crystals.get(pKa) ?? { k: 10 ** -pKa, mmol: 0 };
      known.mmol += amount * mmol;
      crystals.set(pKa, known);
    }
  }
  return {
    mixture,
    slope,
    constant,
    acids: [...acids.values()],
    crystals: [...crystals.values()],
    carbonic: constants(
      CARBONIC_PKA.map((pKa, k) => pKa + (shift[k] ?? 0)),
      ionic,
    ),
    henry: solubility(celsius),
    water: mixture.celsius === undefined ? 1e-14 : 10 ** -waterPk(celsius),
  };
}

function balanceOf(compiled: Compiled, ph: number, co2Atm: number): number {
  const { mixture, slope, constant, acids, crystals } = compiled;
  const h = 10 ** ph;
  let balance = constant - carbonateCharge(compiled, h, co2Atm) - slope * ph;
  for (const { k, mmol } of acids) balance -= mmol * chargeAt(k, h);
  for (const { k, mmol } of crystals) balance -= (mmol * h * k) / (1 + h * k);
  return balance + mixture.waterL * 1000 * (1 / h - h * compiled.water);
}

/** Positive minus negative charge at a pH, mmol. It falls as pH rises. */
export const chargeBalance = (mixture: Mixture, ph: number, co2Atm: number): number => balanceOf(compile(mixture), ph, co2Atm);

/** Half a unit on either side of a guess holds the root of most neighbours of a solved mixture. */
const NEAR = 0.75;

/**
 * The pH at which the charges of a mixture cancel: bisection to half a unit, then the Illinois form of false position, closed to
 * 1e-10 mmol or `close` pH. The balance is monotone, so there is one root between 0 and 14. `guess` only saves time.
 */
export function solvePh(mixture: Mixture, co2Atm: number, guess?: number, close = 1e-13): number {
  const compiled = compile(mixture);
  let low = 0;
  let high = 14;
  if (guess !== undefined) {
    if (balanceOf(compiled, guess - NEAR, co2Atm) > 0) low = guess - NEAR;
    if (balanceOf(compiled, guess + NEAR, co2Atm) < 0) high = guess + NEAR;
  }
  while (high - low > 2 * NEAR) {
    const middle = (low + high) / 2;
    if (balanceOf(compiled, middle, co2Atm) > 0) low = middle;
    else high = middle;
  }
  let fLow = balanceOf(compiled, low, co2Atm);
  let fHigh = balanceOf(compiled, high, co2Atm);
  let at = low;
  for (let i = 0; i < 80; i++) {
    at = fLow === fHigh ? (low + high) / 2 : (low * fHigh - high * fLow) / (fHigh - fLow);
    const f = balanceOf(compiled, at, co2Atm);
    if (Math.abs(f) < 1e-10 || high - low < close) return at;
    if (f > 0) {
      low = at;
      fLow = f;
      fHigh /= 2;
    } else {
      high = at;
      fHigh = f;
      fLow /= 2;
    }
    if (i % 4 === 3) {
      const middle = (low + high) / 2;
      const fMiddle = balanceOf(compiled, middle, co2Atm);
      if (fMiddle > 0) [low, fLow] = [middle, fMiddle];
      else [high, fHigh] = [middle, fMiddle];
    }
  }
  return at;
}

const SAMPLES = 32;
/** A sample's pH is found to this. */
const CLOSE_ENOUGH = 1e-4;
/** As many ingredients are varied as move the pH; the rest differ by less than is shown. */
const VARIED = 7;
/** The range holds nine in ten of the samples. */
const TAIL = 0.05;

/**
 * Steps of an additive low-discrepancy sequence in `dimensions`: the powers of 1/φ, φ the positive root of φ^(d+1) = φ + 1, which generalises
 * the golden ratio (Roberts' R sequence). Its points cover the cube evenly without a random number.
 */
export function evenSteps(dimensions: number): number[] {
  let root = 2;
  for (let i = 0; i < 40; i++) root = (1 + root) ** (1 / (dimensions + 1));
  return Array.from({ length: dimensions }, (_, k) => root ** -(k + 1) % 1);
}

const between = (u: number, low: number, high: number): number =>
  u < 0.5 ? low + (1 - low) * 2 * u : 1 + (high - 1) * (2 * u - 1);

/** The value under which a share of sorted ones lies, between neighbours in proportion. */
export function quantile(sorted: readonly number[], share: number): number {
  const at = share * (sorted.length - 1);
  const below = Math.floor(at);
  const low = sorted[below] ?? NaN;
  return low + (at - below) * ((sorted[below + 1] ?? low) - low);
}

interface Spread {
  mass: { low: number; high: number };
  acid: { low: number; high: number };
  /** How much of the charge balance its spread moves, mmol. */
  moves: number;
}

/** What of an ingredient is uncertain: its mass, its acidity; a leavening's soda and acid move together. */
function spreadOf(item: Item | undefined, part: Mixture["parts"][number], ph: number): Spread {
  const grams = item?.grams;
  const mass = grams && grams.mid > 0 ? { low: grams.low / grams.mid, high: grams.high / grams.mid } : { low: 1, high: 1 };
  const acid = item?.ingredient.leavening ? { low: 1 - POWDER_SPREAD, high: 1 + POWDER_SPREAD } : part.titration.spread;
  const given = givenUp(part.titration, ph);
  const net = Math.abs(given - part.titration.soda);
  const own = item?.ingredient.leavening ? net : Math.abs(given);
  return { mass, acid, moves: part.massG * (net * (mass.high - mass.low) + own * (acid.high - acid.low)) };
}

/**
 * pH of the batter as it goes into the oven, `dissolved` being the share of each leavening acid's crystals that has dissolved by then, and of
 * the cooled crumb with the carbon that the heat has left in it, mmol (`carbonMmol`); the crumb's range holds nine in ten of 32 even samples over masses, acidities, leavening and CO2.
 */
export function phOf(
  items: readonly Item[],
  waterG: number,
  dissolved?: Dissolved,
): { batter: number; crumb: Range; carbonMmol: number } {
  const raw = mixtureOf(items, waterG);
  const carbonMmol = carbonAt({ ...raw, celsius: HOT.celsius }, HOT.co2Atm);
  const mixture = { ...raw, carbonMmol };
  const mid = solvePh(mixture, CRUMB_CO2_ATM.mid);
  const wet = mixture.parts.map((part) => ({ ...part, titration: dissolvedSoFar(part.titration, dissolved) }));
  const batter = solvePh({ ...raw, parts: wet }, BENCH_CO2_ATM);
  const spreads = mixture.parts.map((part, i) => spreadOf(items[i], part, mid));
  const varied = spreads
    .map((spread, i) => ({ spread, i }))
    .filter(({ spread }) => spread.moves > 0)
    .sort((a, b) => b.spread.moves - a.spread.moves)
    .slice(0, VARIED);
  const steps = evenSteps(2 * varied.length + 1);
  const spanLog = Math.log(CRUMB_CO2_ATM.high / CRUMB_CO2_ATM.low);
  const found: number[] = [];
  for (let sample = 1; sample <= SAMPLES; sample++) {
    const u = (dimension: number): number => (0.5 + sample * (steps[dimension] ?? 0)) % 1;
    const parts = [...mixture.parts];
    let sodaMmol = mixture.sodaMmol;
    varied.forEach(({ spread, i }, k) => {
      const part = mixture.parts[i];
      if (!part) return;
      const mass = between(u(2 * k), spread.mass.low, spread.mass.high);
      const factor = between(u(2 * k + 1), spread.acid.low, spread.acid.high);
      parts[i] = { titration: part.titration, massG: part.massG * mass, factor };
      const strength = items[i]?.ingredient.leavening?.powder ? factor : 1;
      sodaMmol += part.massG * part.titration.soda * (mass * strength - 1);
    });
    const co2 = CRUMB_CO2_ATM.low * Math.exp(spanLog * u(2 * varied.length));
    // More soda keeps more carbon, in step with it.
    const carbon = raw.sodaMmol > 0 ? (carbonMmol * sodaMmol) / raw.sodaMmol : 0;
    found.push(solvePh({ ...mixture, parts, sodaMmol, carbonMmol: carbon }, co2, mid, CLOSE_ENOUGH));
  }
  found.sort((a, b) => a - b);
  const low = quantile(found, TAIL);
  const high = quantile(found, 1 - TAIL);
  return { batter, crumb: { low: Math.min(low, mid), mid, high: Math.max(high, mid) }, carbonMmol };
}

/** The share of a leavening acid that has dissolved. */
export type Dissolved = (acid: LeaveningAcidId) => number;

const dissolvedSoFar = (titration: Titration, dissolved?: Dissolved): Titration =>
  dissolved && titration.crystals.length > 0
    ? { ...titration, crystals: titration.crystals.map((crystal) => ({ ...crystal, mmol: crystal.mmol * dissolved(crystal.id) })) }
    : titration;
