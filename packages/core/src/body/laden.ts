import type { Item } from "../formula/resolve";
import { isInclusion } from "../pantry/pieces";
import { yieldStressPa } from "./consistency";

/** Densities of what lies in a batter as pieces, and of the batter between them, g/mL. */
const PIECE = 1.1;
const BETWEEN = 1.15;
/** Pieces that hinder each other do so by the law below up to this share of their packing; from the first to the second share of it they come to lie on each other. */
const HINDERS_TO = 0.9;
const LIES = { from: 0.85, to: 1.15 };
/** What is full of pieces that lie on each other stands as a soft dough does, Pa. */
const STANDS_PA = 500;

/** How far a batter is packed with pieces: the volume that they fill by themselves (measured in a cup) over that of the whole, and their own share of it. */
export function packedWith(items: readonly Item[]): { packed: number; share: number } {
  let heaped = 0;
  let own = 0;
  let between = 0;
  for (const { ingredient, massG } of items) {
    if (isInclusion(ingredient)) {
      own += massG / PIECE;
      heaped += Math.max(massG / PIECE, ingredient.gPerMl ? massG / ingredient.gPerMl.mid : 0);
    } else between += massG / BETWEEN;
  }
  const whole = own + between;
  return whole > 0 ? { packed: heaped / whole, share: own / whole } : { packed: 0, share: 0 };
}

/**
 * Yield stress of a batter with its pieces, Pa: that of what lies between them, times √((1 − φ)(1 − φ/φm)^(−2.5 φm)) for coarse grains in a yield-stress
 * paste (Chateau, Ovarlez and Trung 2008); φm is what a cup of the pieces alone holds of them. Once they lie on each other they carry themselves.
 */
export function ladenYieldPa(items: readonly Item[], reading: number): number {
  const paste = yieldStressPa(reading);
  const { packed, share } = packedWith(items);
  if (packed <= 0) return paste;
  const most = share / packed;
  const near = Math.min(packed, HINDERS_TO);
  const hindered = paste * Math.sqrt((1 - near * most) * (1 - near) ** (-2.5 * most));
  const lie = Math.min(1, Math.max(0, (packed - LIES.from) / (LIES.to - LIES.from)));
  return hindered * Math.max(1, STANDS_PA / hindered) ** lie;
}
