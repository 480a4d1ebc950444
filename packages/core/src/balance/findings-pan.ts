import { LIKED, LIKED_CROWN } from "../bake/liked-fill";
import { type Item, massOf } from "../formula/resolve";
import { gramsText, measurable } from "../measure/amounts";
import { scaled } from "../measure/range";
import type { Process } from "../formula/process-schema";
import type { Vessel } from "../pantry/vessel-schema";
import { findingLimits as limits } from "./finding";
import type { Finding } from "./finding-schema";
import type { Findable } from "./findable";
import { type Way, withMass } from "./ways";

/** How the pan is filled, and what the simulated bake shows. */
export function panFindings(given: Findable): Finding[] {
  const { items, fill, kind, vessel, isPanAssumed, prove } = given;
  const out: Finding[] = [];
  const walled = fill.rimMm !== null;
  const mass = massOf(items);
  if (walled && (fill.fillFraction > limits.fillMost || fill.overflow)) {
    // As full as a pan likes it, and so that its crown stays near the rim.
    const crownMm = fill.crownMm?.mid ?? 0;
    const crown = fill.overflow && fill.rimMm !== null && crownMm > 0 ? (LIKED_CROWN * fill.rimMm) / crownMm : 1;
    const most = Math.min(LIKED.high / fill.fillFraction, crown) * mass;
    const fits = (share: number): Way => ({
      say: `this pan takes about ${gramsText(measurable(share * most))}; bake the other ${gramsText(measurable(mass - share * most))} as muffins`,
      items: scaledItems(items, (share * most) / mass),
    });
    const second: Way = {
      say: "share it over two such pans",
      vessel: { ...vessel, pieces: 2 * (vessel.pieces ?? fill.pieces) },
    };
    out.push({
      id: "pan-overfull",
      severity: isPanAssumed ? "note" : fill.fillFraction > 0.95 || fill.overflow ? "stop" : "caution",
      message: `The batter fills ${Math.round(100 * fill.fillFraction)} % of the ${isPanAssumed ? "usual pan, since none is named" : "pan"}${crownMm === 0 ? "" : ` and the crown is expected ${crownMm > (fill.rimMm ?? 0) ? `${Math.round(crownMm - (fill.rimMm ?? 0))} mm over the rim` : "at the rim"}`}.`,
      why: "A gluten-free batter has little skin of its own: over the rim it runs instead of doming.",
      ...prove("pan-overfull", () => [fits(1), fits(0.92), fits(0.82), second], "oven"),
      ingredientIds: [],
    });
  }
  if (walled && fill.fillFraction < limits.fillLeast && kind !== "flatbread" && kind !== "pourable-batter") {
    out.push({
      id: "pan-shallow",
      severity: "note",
      message: `The batter stands ${Math.round(fill.depthMm)} mm deep, ${Math.round(100 * fill.fillFraction)} % of the pan: it will be flat and dry early.`,
      why: "A shallow layer loses its water before it browns, and high walls shade it.",
      ...prove(
        "pan-shallow",
        () =>
          [0.6, 0.5, 0.42].flatMap((aim): Way[] => {
            const percent = Math.round((fill.fillFraction / aim) * 100);
            const times = (aim / fill.fillFraction).toFixed(1);
            return [
              { say: `take a pan of about ${percent} % of this one's base`, vessel: smallerBase(vessel, percent / 100) },
              { say: `make ${times} times the batch`, items: scaledItems(items, Number(times)) },
            ];
          }),
        "oven",
      ),
      ingredientIds: [],
    });
  }
  return out.concat(bakeFindings(given));
}

const scaledItems = (items: readonly Item[], factor: number): Item[] =>
  items.map((item) => ({ ...item, massG: item.massG * factor, grams: scaled(item.grams, factor) }));

/** A pan of the same shape whose base is so much of this one's. */
function smallerBase({ lengthMm, widthMm, diameterMm, ...vessel }: Vessel, share: number): Vessel {
  const side = Math.sqrt(share);
  const { baseLengthMm: _l, baseWidthMm: _w, baseDiameterMm: _d, capacityMl: _c, ...rest } = vessel;
  return {
    ...rest,
    ...(lengthMm === undefined ? {} : { lengthMm: lengthMm * side }),
    ...(widthMm === undefined ? {} : { widthMm: widthMm * side }),
    ...(diameterMm === undefined ? {} : { diameterMm: diameterMm * side }),
  };
}

const coveredLater = (process: Process): Way => ({
  say: "cover it with foil once it is golden",
  process: { ...process, stages: [{ until: "golden" }, { covered: true }] },
});

/** Foil, cooler ovens, and the same batter in two pans: what keeps the top light until the middle is done. */
const laterCrust = ({ oven, vessel, fill, process }: Findable): Way[] => [
  ...(process.stages ? [] : [coveredLater(process)]),
  ...[20, 40, 60, 80].flatMap((by): Way[] => {
    const celsius = Math.round((oven.celsius - by) / 5) * 5;
    return celsius >= 140 ? [{ say: `bake at ${celsius} °C`, oven: { ...oven, celsius } }] : [];
  }),
  { say: "bake it in two pans", vessel: { ...vessel, pieces: 2 * (vessel.pieces ?? fill.pieces) } },
];

/** Less powder, and a hotter oven that sets it sooner. */
function firmer({ items, oven }: Findable): Way[] {
  const powder = items.find(({ ingredient }) => ingredient.family === "leavener" && ingredient.leavening?.powder);
  const less = powder
    ? [0.8, 0.65, 0.5].map((share): Way => {
        const grams = Math.floor(powder.massG * share * 10) / 10;
        return {
          say: `drop the ${powder.ingredient.name.toLowerCase()} to ${gramsText(grams)}`,
          items: withMass(items, powder.ingredient, grams),
        };
      })
    : [];
  const hotter = [10, 20].map((by): Way => ({
    say: `bake at ${oven.celsius + by} °C`,
    oven: { ...oven, celsius: oven.celsius + by },
  }));
  return [...less, ...hotter];
}

/** Degrees that an oven which is too cool might be set to. */
const atCelsius = (oven: Findable["oven"], celsius: readonly number[]): Way[] =>
  celsius.map((one) => ({ say: `bake at ${one} °C`, oven: { ...oven, celsius: one } }));

/** What the bake shows. */
function bakeFindings(given: Findable): Finding[] {
  const { oven, simulation, prove } = given;
  if (!simulation) return [];
  const out: Finding[] = [];
  const minutes = Math.round(simulation.minutes);
  if (!simulation.reached && simulation.marks.core !== null) {
    // Its inside is done: what it waits for is no matter of safety.
    out.push({
      id: "oven-too-cool",
      severity: "caution",
      message: `At ${oven.celsius} °C it is not ${simulation.judged === "snaps" ? "dry enough to snap" : "golden"} after ${minutes} min; its middle is done after ${Math.round(simulation.marks.core)}.`,
      why: "Colour and dryness come late and faster with heat; the inside is done without them.",
      ...prove(
        "oven-too-cool",
        () =>
          atCelsius(
            oven,
            [10, 20, 30].map((by) => oven.celsius + by),
          ),
        "oven",
      ),
      ingredientIds: [],
    });
  } else if (!simulation.reached) {
    out.push({
      id: "oven-too-cool",
      severity: "stop",
      message: `At ${oven.celsius} °C the middle does not reach ${Math.round(simulation.targetC)} °C in ${minutes} min.`,
      why: "The crumb of such a bake sets, and is safe to eat, only when its middle has been that hot.",
      ...prove("oven-too-cool", () => atCelsius(oven, [150, 160, 175, 190]), "oven"),
      ingredientIds: [],
    });
  } else if (oven.mode !== "hob" && simulation.browning.top > limits.darkTop) {
    out.push({
      id: "core-late",
      severity: "caution",
      message: `At ${oven.celsius} °C the top is dark well before the middle reaches ${Math.round(simulation.targetC)} °C, after ${minutes} min.`,
      why: "Heat needs time in proportion to the depth squared; a hotter oven mostly hurries the crust. A dark top does not mean a done centre.",
      ...prove("core-late", () => laterCrust(given), "oven"),
      ingredientIds: [],
    });
  }
  if (simulation.reached && simulation.top === "sunken") {
    out.push({
      id: "top-sinks",
      severity: "caution",
      message: `The middle rises to ${Math.round(simulation.highestMm)} mm and is left at ${Math.round(simulation.cooledMm.middle)} mm.`,
      why: "Its gas is gone before the crumb has set: too much lift too early, or a crumb too weak for it.",
      ...prove("top-sinks", () => firmer(given), "oven"),
      ingredientIds: [],
    });
  }
  return out;
}
