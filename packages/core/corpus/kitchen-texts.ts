import { inputFrom, type Kind, type Oven, type Process, type Vessel } from "../src/index";
import table from "../src/bake/data/kitchen-texts.json";

/** A bake by its written recipe, and the minutes in which kitchens take it out. None of them was used to fit a constant of heat or water. */
export interface TextBake {
  id: string;
  kind: Kind;
  formula: string;
  vessel: Vessel;
  celsius: number;
  mode?: NonNullable<Oven["mode"]>;
  doneWhen?: NonNullable<Process["doneWhen"]>;
  minutes: [number, number];
}

const { formulas, bakes } = table as unknown as { formulas: Record<string, string>; bakes: TextBake[] };

export const textBakes = bakes;

/** One of the written recipes. */
export const textOf = (formula: string): string => formulas[formula] ?? "";

export const openedText = ({ kind, formula, vessel, celsius, mode, doneWhen }: Omit<TextBake, "id" | "minutes">) =>
  inputFrom({
    text: textOf(formula),
    kind,
    vessel,
    oven: { celsius, mode: mode ?? "still" },
    ...(doneWhen ? { process: { doneWhen } } : {}),
  });
