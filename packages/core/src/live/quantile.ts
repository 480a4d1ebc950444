/** The value under which a share of the weight lies; between two points it is read from the line through them. */
export function quantile<K extends string>(
  points: readonly ({ weight: number } & Record<K, number>)[],
  of: K,
  share: number,
): number {
  const sorted = [...points].sort((a, b) => a[of] - b[of]);
  const whole = sorted.reduce((sum, { weight }) => sum + weight, 0);
  let below = 0;
  let before: { value: number; at: number } | null = null;
  for (const point of sorted) {
    const at = (below + point.weight / 2) / whole;
    if (at >= share) {
      if (!before || at === before.at) return point[of];
      return before.value + ((share - before.at) / (at - before.at)) * (point[of] - before.value);
    }
    before = { value: point[of], at };
    below += point.weight;
  }
  return before?.value ?? 0;
}
