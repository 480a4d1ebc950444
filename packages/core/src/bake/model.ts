import { SETTING } from "../physics";

/**
 * The constants of the bake, one set for all kinds. Each has a unit, a range in which literature or kitchen knowledge places it, a source
 * class and a confidence (A fixed, B within 30 %, C a factor 2). docs/science/bake.md says what each does to the result.
 */
interface Constant {
  value: number;
  low: number;
  high: number;
  unit: string;
  source: string;
  confidence: "A" | "B" | "C";
}

const constant = (
  value: number,
  low: number,
  high: number,
  unit: string,
  source: string,
  confidence: Constant["confidence"],
): Constant => ({ value, low, high, unit, source, confidence });

export const modelTable = {
  condensedShare: constant(0.88, 0.65, 0.95, "", "conductivity of batter over the volume-weighted sum of its parts; fitted", "B"),
  vapourShare: constant(
    0.17,
    0.08,
    0.6,
    "",
    "share of the ideal vapour transport in bubbles; fitted, not apart from the above",
    "C",
  ),
  capillarity: constant(7e-10, 1e-10, 1e-9, "m²/s", "liquid water drawn through wet crumb, on its content", "C"),
  wetDiffusivity: constant(5e-9, 5e-10, 6e-9, "m²/s", "the same while it has not set; water at 60 °C by itself has 5e−9", "C"),
  crustConductivity: constant(0.135, 0.06, 0.2, "W/mK", "dry porous bread crust", "B"),
  boundShare: constant(0.15, 0.08, 0.2, "", "share of the first water that boiling does not drive out", "C"),
  desorptionS: constant(
    1000,
    200,
    3000,
    "s",
    "time in which a crust gives up what boiling leaves: r²/π²D of its grains, 0.1 mm and 1e−12 m²/s",
    "C",
  ),
  waterActivityRate: constant(11, 5, 12, "", "a_w = 1 − exp(−rate · water/solids); sorption of starchy crumb", "B"),
  boilingSpread: constant(0.3, 0.2, 1, "K", "least rise of the boiling point while water leaves", "C"),
  boilingPerMolal: constant(0.6, 0.51, 0.7, "K kg/mol", "ebullioscopic constant of water, raised for syrups", "B"),
  surfaceEmissivity: constant(0.9, 0.8, 0.95, "", "moist and browned food", "A"),
  skinResistanceM: constant(1.4e-4, 5e-5, 1e-3, "m", "first skin that vapour passes", "C"),
  crustDiffusivity: constant(3.4e-6, 2e-6, 1.2e-5, "m²/s", "vapour in dry crust: air 3e−5 by porosity and tortuosity", "C"),
  lewis: constant(895, 850, 1200, "J/m³K", "h over mass transfer coefficient (Lewis, moist air at 100 °C)", "B"),
  ovenVapourPa: constant(4000, 1500, 10000, "Pa", "water vapour in a vented cabinet", "C"),
  roomVapourPa: constant(1200, 600, 2000, "Pa", "kitchen air, 20 to 24 °C at half humidity", "B"),
  topCup: constant(1.38, 1.3, 1.4, "", "area of the top of a tapered cup with its cap, over its foot", "B"),
  topLoaf: constant(1.085, 1.05, 1.15, "", "the same of a domed loaf", "B"),
  topBroad: constant(1, 1, 1.08, "", "the same of a broad tin", "B"),
  topFree: constant(1.15, 1, 1.15, "", "the same of a piece without walls, its rounded edge", "B"),
  sheetGathers: constant(
    1.4,
    0.4,
    2,
    "",
    "heat that the bare sheet around a piece brings under it, over that of its own foot: a fin as wide as the piece",
    "C",
  ),
  webGathers: constant(0.38, 0.1, 0.6, "", "the same of the web between cups", "C"),
  contact: constant(760, 200, 800, "W/m²K", "batter on a pan", "C"),
  griddleContact: constant(375, 200, 600, "W/m²K", "batter on a hot plate", "C"),
  plateWatts: constant(
    10000,
    6000,
    30000,
    "W/m²",
    "what a burner or an electric plate gives under a cake: 1 to 2 kW over 20 to 30 cm, and less while it is throttled",
    "C",
  ),
  laidContact: constant(160, 80, 250, "W/m²K", "dough laid on a hot plate, with the air between", "C"),
  paperResistance: constant(0.0043, 0.002, 0.008, "m²K/W", "paper cup or liner with its air", "C"),
  doorDropK: constant(30, 10, 40, "K", "fall of the oven's air when the door was open", "C"),
  doorDecayS: constant(108, 90, 300, "s", "time in which it comes back", "C"),
  ovenLagS: constant(420, 200, 900, "s", "time in which an oven's air follows another setting of its dial", "C"),
  shelfK: constant(
    12,
    5,
    25,
    "K",
    "how much hotter an underside's surroundings are on a low shelf than in the middle, and how much cooler those of a top; a fan halves it",
    "C",
  ),
  grillView: constant(
    0.2,
    0.1,
    0.35,
    "",
    "share of what a top sees under a grill that is its element: 8 to 20 kW/m² a hand's breadth under it",
    "C",
  ),
  coverGap: constant(9, 6, 14, "W/m²K", "air and radiation between a top and the lid or foil over it", "C"),
  coverLeak: constant(0.2, 0.05, 0.5, "", "share of the vapour that finds its way past a lid or foil", "C"),
  steamEscape: constant(0.26, 0.1, 0.6, "", "share of steam made in the crumb that finds a way out at once; fitted", "C"),
  wallEscape: constant(0.75, 0.4, 1, "", "the same of steam that is made along the wall of a pan", "C"),
  gasTimeS: constant(15, 5, 40, "s", "time in which a bubble follows its equilibrium while the crumb is soft", "C"),
  setShare: constant(0.65, 0.5, 0.8, "", "share set at which the crumb no longer flows", "C"),
  setSeconds: constant(SETTING.seconds, 20, 80, "s", "time constant of setting at the setting temperature", "C"),
  setEnergy: constant(SETTING.energy, 180e3, 320e3, "J/mol", "gelatinisation and egg protein", "B"),
  loss: constant(1e-4, 5e-5, 3e-4, "1/s", "gas lost through an unset batter at 22 °C, doubling every 20 K", "C"),
  coalescence: constant(
    0.029,
    0.01,
    0.04,
    "1/s",
    "gas lost as bubbles meet, times the fourth power of the share of gas; fitted",
    "C",
  ),
  bursting: constant(0.25, 0.1, 0.4, "1/s", "gas lost as films between bubbles burst, times the square of what is over", "C"),
  burstFrom: constant(0.56, 0.45, 0.6, "", "share of gas at which films burst", "C"),
  tearing: constant(
    0.02,
    0.005,
    0.1,
    "1/s",
    "films that tear, times what is over the share of gas at which they burst; they stay torn",
    "C",
  ),
  tornLoss: constant(0.02, 0.005, 0.1, "1/s", "gas lost through a crumb whose films are all torn", "C"),
  mixingKept: constant(0.15, 0.05, 0.4, "", "share of the gas in bubbles that stays while batter is mixed and filled", "C"),
  consistencyPower: constant(0.4, 0.3, 1, "", "decades of consistency per unit of the body's reading", "C"),
  levelling: constant(1.5e-3, 5e-4, 6e-3, "m/s", "flow of unset batter between columns", "C"),
  flowSeconds: constant(1800, 400, 4000, "s", "time of flow of a heap over how much it is overloaded", "C"),
  brownEnergy: constant(97.5e3, 70e3, 120e3, "J/mol", "browning of crust", "B"),
  roomH: constant(6, 4, 10, "W/m²K", "natural convection on a cooling bake", "B"),
} as const satisfies Record<string, Constant>;

export type Model = Record<keyof typeof modelTable, number>;

/** The one parameter set that every bake is computed with. */
export const standardModel: Model = Object.fromEntries(
  Object.entries(modelTable).map(([name, entry]) => [name, entry.value]),
) as Model;
