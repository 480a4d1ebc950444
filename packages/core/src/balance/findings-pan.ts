import { LIKED, LIKED_CROWN } from "../bake/liked-fill";
import { massOf } from "../formula/resolve";
import { gramsText, measurable } from "../measure/amounts";
import { type Finding, findingLimits as limits } from "./finding";
import type { Findable } from "./findable";

/** How the pan is filled, and what the simulated bake shows. */
export function panFindings(given: Findable): Finding[] {
  const { items, fill, kind } = given;
  const out: Finding[] = [];
  const walled = fill.rimMm !== null;
  const mass = massOf(items);
  if (walled && (fill.fillFraction > limits.fillMost || fill.overflow)) {
    // As full as a pan likes it, and so that its crown stays near the rim.
    const crown = fill.overflow && fill.rimMm !== null ? (LIKED_CROWN * fill.rimMm) / fill.crownMm.mid : 1;
    const most = Math.min(LIKED.high / fill.fillFraction, crown) * mass;
    out.push({
      id: "pan-overfull",
      severity: fill.fillFraction > 0.95 || fill.overflow ? "stop" : "caution",
      message: `The batter fills ${Math.round(100 * fill.fillFraction)} % of the pan and the crown is expected ${fill.crownMm.mid > (fill.rimMm ?? 0) ? `${Math.round(fill.crownMm.mid - (fill.rimMm ?? 0))} mm over the rim` : "at the rim"}.`,
      why: "A gluten-free batter has little skin of its own: over the rim it runs instead of doming.",
      fix: `This pan takes about ${gramsText(measurable(most))}; bake the other ${gramsText(measurable(mass - most))} as muffins.`,
      ingredientIds: [],
    });
  }
  if (walled && fill.fillFraction < limits.fillLeast && kind !== "flatbread" && kind !== "pourable-batter") {
    out.push({
      id: "pan-shallow",
      severity: "note",
      message: `The batter stands ${Math.round(fill.depthMm)} mm deep, ${Math.round(100 * fill.fillFraction)} % of the pan: it will be flat and dry early.`,
      why: "A shallow layer loses its water before it browns, and high walls shade it.",
      fix: `Take a pan of about ${Math.round((fill.fillFraction / 0.6) * 100)} % of this one's base, or make ${(0.6 / fill.fillFraction).toFixed(1)} times the batch.`,
      ingredientIds: [],
    });
  }
  return out.concat(bakeFindings(given));
}

function bakeFindings({ oven, fill, bake, simulation }: Findable): Finding[] {
  const out: Finding[] = [];
  const walled = fill.rimMm !== null;
  const cooler = Math.max(150, oven.celsius - 20);
  const why =
    "Heat needs time in proportion to the depth squared; a hotter oven mostly hurries the crust. A dark top does not mean a done centre.";
  if (simulation) {
    const minutes = Math.round(simulation.minutes);
    if (!simulation.reached) {
      out.push({
        id: "oven-too-cool",
        severity: "stop",
        message: `At ${oven.celsius} °C the middle does not reach ${Math.round(simulation.targetC)} °C in ${minutes} min.`,
        why: "The crumb of such a bake sets, and is safe to eat, only when its middle has been that hot.",
        fix: `Bake at ${Math.max(150, oven.celsius + 40)} °C.`,
        ingredientIds: [],
      });
    } else if (oven.mode !== "hob" && simulation.browning.top > limits.darkTop) {
      out.push({
        id: "core-late",
        severity: "caution",
        message: `At ${oven.celsius} °C the top is dark well before the middle reaches ${Math.round(simulation.targetC)} °C, after ${minutes} min.`,
        why,
        fix: `Bake at ${cooler} °C, lay foil on top for the last third, or bake it in two pans.`,
        ingredientIds: [],
      });
    }
    if (simulation.reached && simulation.top === "sunken") {
      out.push({
        id: "top-sinks",
        severity: "caution",
        message: `The middle rises to ${Math.round(simulation.highestMm)} mm and is left at ${Math.round(simulation.cooledMm.middle)} mm.`,
        why: "Its gas is gone before the crumb has set: too much lift too early, or a crumb too weak for it.",
        fix: "Take less powder, bind more, or bake hotter so that it sets sooner.",
        ingredientIds: [],
      });
    }
    return out;
  }
  if (fill.depthMm > limits.deepMm && oven.celsius >= limits.deepOvenC && oven.mode !== "hob" && walled) {
    out.push({
      id: "core-late",
      severity: "caution",
      message: `At ${oven.celsius} °C a batter ${Math.round(fill.depthMm)} mm deep is brown long before its centre reaches ${bake.targetCoreC} °C.`,
      why,
      fix: `Bake at ${Math.max(160, oven.celsius - 20)} °C, or in two pans.`,
      ingredientIds: [],
    });
  }
  return out;
}
