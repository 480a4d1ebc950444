import { placeOf } from "./components";
import type { FormulaComponent } from "./components-schema";
import type { Formula } from "./formula";

/** The components that can go to one part or another: what is beside the batter. */
export const dividable = ({ components = [] }: Formula): FormulaComponent[] =>
  components.filter((component) => placeOf(component) !== "batter");
