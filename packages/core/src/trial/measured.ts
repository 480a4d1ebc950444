import type { Measured } from "./measured-schema";

/** Indices of a profile as cereal laboratories define them on a template of five points, mm. */
export interface Profile {
  /** B + C + D: how much there is of it. */
  volumeIndex: number;
  /** 2 C − B − D: above 0 it is domed, under 0 sunken. */
  symmetryIndex: number;
  /** B − D: how far one side stands above the other. */
  uniformityIndex: number;
  /** Middle over the mean of the edges. */
  domeRatio: number;
}
/**
 * Volume, symmetry and uniformity index from five heights across, mm, the middle third. Source: the template method for layer cakes of cereal
 * laboratories.
 */
export function profileOfHeights(heightsMm: readonly number[]): Profile | null {
  const [a, b, c, d, e] = heightsMm;
  if (a === undefined || b === undefined || c === undefined || d === undefined || e === undefined) return null;
  const edges = (a + e) / 2;
  return {
    volumeIndex: b + c + d,
    symmetryIndex: 2 * c - b - d,
    uniformityIndex: b - d,
    domeRatio: edges > 0 ? c / edges : Infinity,
  };
}
/** Bake loss, % of what went in; null without both masses, or where more came out than went in. */
export function lossOf({ massInG, massOutG }: Measured): number | null {
  if (massInG === undefined || massOutG === undefined || massOutG > massInG) return null;
  return (100 * (massInG - massOutG)) / massInG;
}
/** Height of the middle, mm, however it was measured. */
export const middleOf = ({ heightsMm, heightMm }: Measured): number | null => heightsMm?.[2] ?? heightMm ?? null;
/** What cannot be as it was written down, in words. */
export function doubtsOf(measured: Measured): string[] {
  const out: string[] = [];
  const { massInG, massOutG, heightsMm } = measured;
  if (massInG !== undefined && massOutG !== undefined && massOutG > massInG)
    out.push(
      `More came out (${massOutG} g) than went in (${massInG} g); were the two exchanged, or was the pan on the scale once?`,
    );
  const loss = lossOf(measured);
  if (loss !== null && loss > 45)
    out.push(`A loss of ${Math.round(loss)} % is more than a bake loses; was the pan weighed with it at first?`);
  if (heightsMm && Math.max(...heightsMm) > 5 * Math.max(1, Math.min(...heightsMm)) && Math.min(...heightsMm) > 0)
    out.push("One height is five times another; are all of them in mm?");
  return out;
}
