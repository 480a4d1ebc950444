import { crumbWater, type Outcome } from "../trial/outcome";

/** What the bake in the computer says of a quality, in the quality's own unit: the mean that a kitchen is held against. */
export const bakedQualities: Readonly<Record<string, (outcome: Outcome) => number>> = {
  height: ({ simulation }) => simulation.cooledMm.middle,
  loss: ({ simulation }) => simulation.loss.oven,
  minutes: ({ simulation }) => simulation.done.mid,
  sodium: ({ analysis: { batch }, simulation: { loss } }) => (100 * batch.sodiumMg) / (batch.massG * (1 - loss.oven / 100)),
};

/** What of the bake in the computer a tasted quality leans on, where there is no such number: how strongly is learnt. */
export const leanings: Readonly<Record<string, (outcome: Outcome) => number>> = {
  moistness: crumbWater,
  "crumb-size": ({ simulation }) => simulation.cooledMm.middle,
  top: ({ simulation }) => simulation.cooledMm.middle - simulation.cooledMm.edge,
  crumble: ({ analysis }) => Math.min(1.5, analysis.body.binder.adequacy),
  soapy: ({ analysis }) => -analysis.lift.ph.mid,
  tangy: ({ analysis }) => analysis.lift.ph.mid,
};
