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
