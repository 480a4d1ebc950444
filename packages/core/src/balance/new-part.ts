import { fillVessel } from "../bake/geometry";
import type { Formula, Part } from "../formula/formula";
import { defaultsOf } from "./defaults";

/** Share of the batter that no part takes. */
export const leftOf = (formula: Formula): number => 1 - (formula.parts ?? []).reduce((all, { share }) => all + share, 0);

/** A part to begin with: half of the batter or what is left of it, as muffins. `id` must be new. */
export function newPart(formula: Formula, id: string): Part {
  const { vessel, oven } = defaultsOf("muffin");
  const first = (formula.parts ?? []).length === 0;
  const share = first ? 0.5 : Math.min(1, Math.max(0, Math.round(100 * leftOf(formula)) / 100));
  return { id, name: first ? "First part" : "Another part", share, additions: [], kind: "muffin", vessel, oven };
}

/** What changing the kind of a part brings with it: its usual pan and oven. */
export const partOfKind = (part: Part, kind: Part["kind"]): Partial<Part> => {
  if (kind === part.kind) return {};
  const { vessel, oven } = defaultsOf(kind);
  return { kind, vessel, oven };
};

/** What a vessel holds to its rim, mL; null where it has no wall. */
function holdsMl({ vessel }: Part): number | null {
  const { capacityMl } = fillVessel(vessel, 1, 1);
  return Number.isFinite(capacityMl) ? capacityMl : null;
}

/**
 * Shares by which tins of several sizes are filled to the same part of their height, in whole percents that add up to what the parts without a wall
 * leave; null where fewer than two have a wall, or nothing is left for them.
 */
export function sharesByTins(parts: readonly Part[]): { id: string; share: number }[] | null {
  const tins = parts.flatMap((part) => {
    const ml = holdsMl(part);
    return ml === null ? [] : [{ id: part.id, ml }];
  });
  const others = parts.filter(({ id }) => !tins.some((tin) => tin.id === id)).reduce((sum, { share }) => sum + share, 0);
  const percents = Math.round(100 * (1 - others));
  if (tins.length < 2 || percents < tins.length) return null;
  const all = tins.reduce((sum, { ml }) => sum + ml, 0);
  // Where one ends the next begins, so that the rounding of one is made good by the next.
  let before = 0;
  return tins.map(({ id, ml }) => {
    const from = Math.round((percents * before) / all);
    before += ml;
    return { id, share: (Math.round((percents * before) / all) - from) / 100 };
  });
}
