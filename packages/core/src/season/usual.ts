import type { Factor } from "./season-schema";

/** What is scale-worthy: whole grams for a lot, tenths for a little. */
export const toScale = (grams: number): number => (grams >= 20 ? Math.round(grams) : Math.round(10 * grams) / 10);

/** A scale of the log that must stay good may lose so much of its worth: a small fault at most. House rule. */
export const STILL_GOOD = 0.7;
/*
 * How far things move where nobody has said it yet: wide enough that a tape sees it, narrow enough that most of it stays sound (confidence C).
 * An amount by 15 %, a share by 12 points, an oven by 10 K, a rest to half an hour or twice as long.
 */
const AMOUNT = 0.15;
const SHARE_POINTS = 12;
const OVEN_K = 10;
const REST_MINUTES = 30;

/** A range that is proposed for what may move, by what it is now: g, %, °C or minutes. */
export function usualRange(
  kind: Exclude<Factor["kind"], "pan" | "method" | "minutes">,
  now: number,
): { low: number; high: number } {
  if (kind === "rest") return { low: 0, high: Math.max(REST_MINUTES, 2 * now) };
  const by = kind === "amount" ? AMOUNT * now : kind === "share" ? SHARE_POINTS : OVEN_K;
  const high = toScale(now + by);
  return { low: Math.max(0, toScale(now - by)), high: kind === "share" ? Math.min(100, high) : high };
}

/** So many of the newest bakes of a formula are looked through for those of a season: years of them. */
export const MOST_TRIALS = 200;
