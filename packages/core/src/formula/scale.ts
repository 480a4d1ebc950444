import { CoreError } from "../errors";
import { scaled } from "../measure/range";
import type { Range } from "../measure/range-schema";

/** The same lines, every amount times `factor`; a line without one stays without. Throws `bad-amount` unless the factor is above 0. */
export function scaleLines<L extends { grams?: number | Range | undefined }>(lines: readonly L[], factor: number): L[] {
  if (!(factor > 0) || !Number.isFinite(factor)) {
    throw new CoreError(
      "bad-amount",
      `A formula cannot be scaled by ${factor}; a factor above 0, such as 1.5, would be right.`,
      "factor",
    );
  }
  return lines.map((line) =>
    line.grams === undefined
      ? line
      : { ...line, grams: typeof line.grams === "number" ? line.grams * factor : scaled(line.grams, factor) },
  );
}

/** Every amount times a factor, of the batter and of every component, cooked masses too. Throws as `scaleLines`. */
export function scaledWhole<L extends { grams?: number | Range | undefined }, C extends { cookedG?: number | undefined }>(
  { lines, components }: { lines: readonly L[]; components?: readonly C[] | undefined },
  factor: number,
): { lines: L[]; components?: C[] } {
  return {
    lines: scaleLines(lines, factor),
    ...(components
      ? {
          components: components.map((component) =>
            component.cookedG === undefined ? component : { ...component, cookedG: component.cookedG * factor },
          ),
        }
      : {}),
  };
}
