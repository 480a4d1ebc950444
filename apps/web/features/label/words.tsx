import type { Label, RegionId, Values } from "@uprise/core";
import { regions } from "@uprise/core/page-bench";
import { Fragment } from "react";
import { Body } from "../../ui/words";

/** The list of ingredients as it is printed, allergens in heavy capitals. */
export function IngredientsText({ ingredients }: Pick<Label, "ingredients">) {
  return (
    <Body>
      {"Ingredients: "}
      {ingredients.map((spans, k) => (
        <Fragment key={spans.map(({ text }) => text).join("")}>
          {spans.map(({ text, strong }, n) =>
            strong ? (
              <Body key={n} strong>
                {text.toUpperCase()}
              </Body>
            ) : (
              text
            ),
          )}
          {k < ingredients.length - 1 ? ", " : "."}
        </Fragment>
      ))}
    </Body>
  );
}

interface Row {
  key: string;
  name: string;
  per100g: string;
  piece: string;
  /** How far per 100 g it may be off. */
  spread: string;
}

const figure = (value: number, unit: string): string =>
  unit === "kJ" || unit === "kcal" || unit === "mg"
    ? `${Math.round(value)} ${unit}`
    : `${value < 0.05 ? "0" : value < 10 ? (Math.round(value * 10) / 10).toFixed(1) : Math.round(value)} ${unit}`;

/** The rows of a table of nutrition in the order and words of a region; for sodium in mg where the law asks for it. */
export function nutritionRows({ per100g, perPiece }: Label["nutrition"], regionId: RegionId): Row[] {
  const region = regions[regionId];
  const row = (key: string, name: string, unit: string, of: (values: Values) => { low: number; mid: number; high: number }, factor = 1): Row => {
    const [all, one] = [of(per100g), of(perPiece)];
    return { key, name, per100g: figure(all.mid * factor, unit), piece: figure(one.mid * factor, unit), spread: `${figure(all.low * factor, unit).replace(` ${unit}`, "")}–${figure(all.high * factor, unit)}` };
  };
  const total = region.carbohydrate === "total";
  const carbohydrate = ({ carbohydrate: c, fibre: f }: Values) => (total ? { low: c.low + f.low, mid: c.mid + f.mid, high: c.high + f.high } : c);
  return [
    ...(region.energy === "kcal" ? [] : [row("kj", "Energy", "kJ", ({ kj }) => kj)]),
    ...(region.energy === "kJ" ? [] : [row("kcal", region.energy === "kcal" ? "Calories" : "", "kcal", ({ kcal }) => kcal)]),
    row("fat", "Fat", "g", ({ fat }) => fat),
    row("saturated", "of it saturated", "g", ({ saturated }) => saturated),
    row("carbohydrate", total ? "Carbohydrate, fibre in it" : "Carbohydrate", "g", carbohydrate),
    row("sugars", "of it sugars", "g", ({ sugars }) => sugars),
    row("fibre", "Fibre", "g", ({ fibre }) => fibre),
    row("protein", "Protein", "g", ({ protein }) => protein),
    region.salt === "salt" ? row("salt", "Salt", "g", ({ salt }) => salt) : row("sodium", "Sodium", "mg", ({ salt }) => salt, 1000 / 2.5),
  ];
} // prettier-ignore
