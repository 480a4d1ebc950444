import { range } from "./range";
import type { Range } from "./range-schema";

/** How a cup or spoon was filled. */
export const fillings = ["sifted", "spooned", "dipped", "packed", "heaped", "rounded", "scant", "level"] as const;
export type Filling = (typeof fillings)[number];
/** How a thing takes to being filled into a measure: a powder by its filling, a liquid always level, pieces loosely. */
export const fillBehaviours = ["powder", "liquid", "paste", "pieces", "leavener", "crystals"] as const;
export type FillBehaviour = (typeof fillBehaviours)[number];
/**
 * Mass against the same measure spooned and levelled. Kitchen habit, compiled; widths are what repeated filling by
 * different people gives. Heaped and rounded are for spoons.
 */
const powderFactor: Record<Filling, Range> = {
  sifted: range(0.88, 0.92, 0.95),
  spooned: range(0.97, 1, 1.03),
  dipped: range(1.1, 1.15, 1.2),
  packed: range(1.25, 1.3, 1.35),
  heaped: range(1.25, 1.4, 1.6),
  rounded: range(1.1, 1.17, 1.25),
  scant: range(0.88, 0.92, 0.95),
  level: range(0.96, 1, 1.04),
};
/** Without a stated way a powder may have been spooned or dipped. */
const powderUnstated = range(0.97, 1.06, 1.2);
const looseUnstated: Record<Exclude<FillBehaviour, "powder">, Range> = {
  liquid: range(0.98, 1, 1.02),
  paste: range(0.94, 1, 1.06),
  pieces: range(0.85, 1, 1.15),
  leavener: range(1, 1.04, 1.2),
  // Sugar runs into a cup as it falls; however it is filled, it hardly packs.
  crystals: range(0.97, 1, 1.05),
};
/** The factor on the spooned-and-levelled mass, with its spread. Unit: none. */
export function fillFactor(behaviour: FillBehaviour, filling: Filling | undefined): Range {
  if (behaviour === "liquid") {
    return filling === "scant" || filling === "heaped" || filling === "rounded"
      ? filling === "scant"
        ? powderFactor.scant
        : range(1, 1.05, 1.15)
      : looseUnstated.liquid;
  }
  if (behaviour === "crystals" && filling && /^(?:sifted|spooned|dipped|packed)$/.test(filling)) return looseUnstated.crystals;
  if (filling === undefined) return behaviour === "powder" ? powderUnstated : looseUnstated[behaviour];
  if (behaviour === "paste" && filling === "packed") return looseUnstated.paste;
  return powderFactor[filling];
}
