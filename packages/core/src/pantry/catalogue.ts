import dairy from "./data/dairy.json";
import eggs from "./data/eggs.json";
import fats from "./data/fats.json";
import flavours from "./data/flavours.json";
import flours from "./data/flours.json";
import fruit from "./data/fruit.json";
import binders from "./data/binders.json";
import leaveners from "./data/leaveners.json";
import liquids from "./data/liquids.json";
import plantMilks from "./data/plant-milks.json";
import powderTable from "./data/powders.json";
import sugars from "./data/sugars.json";
import type { LeaveningAcidId, PowderId } from "./ingredient-words";
import type { Ingredient } from "./ingredient-schema";
import type { Shelf } from "./shelf";

/** Every ingredient that ships with Uprise. The shape of each entry is checked by a test, not at every start. */
export const catalogue: readonly Ingredient[] = [
  flours, binders, leaveners, dairy, plantMilks, eggs, fats, sugars, fruit, liquids, flavours,
].flat() as unknown as Ingredient[]; // prettier-ignore

export interface Powder {
  id: PowderId;
  name: string;
  /** Mass fraction of sodium bicarbonate. */
  soda: number;
  /** Mass fractions of its leavening acids. */
  acids: Partial<Record<LeaveningAcidId, number>>;
}

export const powders = new Map((powderTable as Powder[]).map((powder) => [powder.id, powder]));

const byId = new Map(catalogue.map((entry) => [entry.id, entry]));

export const builtInShelf: Shelf = { get: (id) => byId.get(id), all: () => catalogue };

/** A shelf with a kitchen's own ingredients before the built-in ones; an own one with a known id replaces it. */
export function shelfWith(own: readonly Ingredient[]): Shelf {
  if (own.length === 0) return builtInShelf;
  const mine = new Map(own.map((entry) => [entry.id, entry]));
  const all = [...own, ...catalogue.filter((entry) => !mine.has(entry.id))];
  return { get: (id) => mine.get(id) ?? byId.get(id), all: () => all, own };
}
