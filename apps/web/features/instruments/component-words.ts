import type { ComponentMass, ComponentPlace, ComponentRole, FormulaComponent } from "@uprise/core";
import { gramsText } from "@uprise/core/page";

export const roleWord: Record<ComponentRole, string> = {
  batter: "Batter",
  filling: "Filling",
  topping: "Topping",
  glaze: "Glaze",
  paste: "Paste",
  soaker: "Soaker",
  sauce: "Sauce",
  serve: "To serve",
  pan: "For the pan",
};

export const placeWord: Record<ComponentPlace, string> = {
  base: "under the batter",
  inside: "in the middle",
  top: "on top in the oven",
  after: "put on when it is out",
  apart: "not with it in the oven",
};

/** Where a component is while the batter bakes, in words. */
export const whereText = (place: ComponentPlace | "batter", role: ComponentRole): string =>
  place === "batter" ? (role === "soaker" ? "soaked first, then in the batter" : "in the batter") : placeWord[place];

/** Its mass, and what it was before it was cooked. */
export const massText = ({ massG, weighedG }: Pick<ComponentMass, "massG" | "weighedG">): string =>
  Math.abs(massG - weighedG) < 0.5 ? gramsText(massG) : `${gramsText(weighedG)}, cooked ${gramsText(massG)}`;

/** Roles that one adds by hand, with the name each begins with. */
export const addable: readonly { role: ComponentRole; name: string }[] = [
  { role: "filling", name: "Filling" },
  { role: "topping", name: "Topping" },
  { role: "glaze", name: "Glaze" },
  { role: "soaker", name: "Soaker" },
  { role: "sauce", name: "Sauce" },
  { role: "serve", name: "To serve" },
];

export const newComponent = ({ role, name }: (typeof addable)[number], id: string): FormulaComponent => ({ id, name, role });
