import { bareKitchen } from "@uprise/core";
import type { KitchenHere } from "./queries";

/** A kitchen with nothing of its own, as the page has it. */
export const bareHere = (ovens: KitchenHere["ovens"] = new Map()): KitchenHere => ({
  ...bareKitchen,
  ovens,
  data: { own: [], entries: [], ovens: [...ovens].map(([id, { biasK, swingK }]) => [id, { biasK, swingK }]), measures: "us" },
});
