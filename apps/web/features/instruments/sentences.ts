import type { Analysis, Bake, Glance, Range } from "@uprise/core";
import { asSodaText, gramsText, minuteSpan } from "@uprise/core/page";

/** A range of minutes as a baker writes it. */
export const minutesText = (minutes: Range): string => `${minuteSpan(minutes)} min`;

export const consistencyWord: Record<Analysis["body"]["consistency"], string> = {
  pourable: "pours",
  spoonable: "spoons",
  scoopable: "scoops",
  "soft-dough": "soft dough",
  "firm-dough": "firm dough",
  crumbly: "crumbles",
};

const verdictWord: Record<Analysis["lift"]["verdict"], string> = {
  balanced: "balanced",
  "short-of-acid": "short of acid",
  "acid-heavy": "acid over",
  "no-lift": "no lift",
};

export type InstrumentName = "lift" | "body" | "fill" | "bake";
export const instrumentNames: readonly InstrumentName[] = ["lift", "body", "fill", "bake"];
export const instrumentTitle: Record<InstrumentName, string> = { lift: "Lift", body: "Body", fill: "Fill", bake: "Bake" };

/** What is coarse yet is marked in the number itself. */
const about = ({ fidelity }: Bake): string => (fidelity === "coarse" ? "≈ " : "");

/** The figure that stands under each drawing; with a question mark while something that matters is open. */
export const figureOf = (name: InstrumentName, analysis: Glance): string =>
  `${plainFigure(name, analysis)}${analysis.final ? "" : "?"}`;

function plainFigure(name: InstrumentName, { lift, body, fill, bake }: Glance): string {
  switch (name) {
    case "lift":
      return lift.verdict === "short-of-acid" ? `${gramsText(lift.residualSodaG)} over` : verdictWord[lift.verdict];
    case "body":
      return consistencyWord[body.consistency];
    case "fill":
      return fill.rimMm === null ? `${fill.pieces} × ${gramsText(fill.pieceG)}` : `${Math.round(100 * fill.fillFraction)} %`;
    case "bake":
      return bake ? `${about(bake)}${minutesText(bake.minutes)}` : "–";
  }
}

/** "a", "a and b", "a, b and c". */
export { listWords as listText } from "@uprise/core/page";

/** The same content as the drawing, in words, for those who do not see it. */
export const sentenceOf = (name: InstrumentName, analysis: Glance): string =>
  `${plainSentence(name, analysis)}${analysis.final ? "" : " Not final: something is still open."}`;

/** Set before it is done: what it waits for. */
const waitSentence = ({ waitsFor, setAtMinutes }: Bake): string =>
  waitsFor && waitsFor !== "core" && setAtMinutes !== undefined
    ? ` Set inside at ${Math.round(setAtMinutes)}, it waits for ${waitsFor === "colour" ? "its colour" : "dryness"}.`
    : "";

function plainSentence(name: InstrumentName, { lift, body, fill, bake, given, recipe }: Glance): string {
  switch (name) {
    case "lift":
      return `Lift: ${asSodaText(lift.sodaMmol.mid)} of soda, acid for ${asSodaText(Math.max(0, lift.acidMmol.mid))} of it, ${verdictWord[lift.verdict]}${lift.residualSodaG > 0.05 ? `; ${gramsText(lift.residualSodaG)} of soda finds no acid` : ""}.`;
    case "body":
      return `Body: the batter ${consistencyWord[body.consistency]}.`;
    case "fill":
      return fill.rimMm === null
        ? `Fill: ${fill.pieces} pieces of ${gramsText(fill.pieceG)}, ${Math.round(fill.depthMm)} millimetres thick${fill.crownMm ? `, rising to about ${Math.round(fill.crownMm.mid)}` : ""}.`
        : `Fill: the batter fills ${Math.round(100 * fill.fillFraction)} per cent of the pan, ${Math.round(fill.depthMm)} millimetres deep${fill.crownMm ? `; the crown is expected at ${Math.round(fill.crownMm.mid)}` : ""}, the rim is at ${Math.round(fill.rimMm)}${fill.overflow ? ". It runs over" : ""}.`;
    case "bake":
      if (!bake) return "Bake: there is nothing to bake yet.";
      return `Bake: ${about(bake) === "" ? "" : "about "}${minutesText(bake.minutes)} at ${given.oven.celsius} degrees; look first after ${bake.checkAtMinutes}.${waitSentence(bake)}${recipe?.minutes ? ` The recipe says ${minutesText({ ...recipe.minutes, mid: recipe.minutes.low })}.` : ""}`;
  }
}
