/** Thickness of n slices that fill a length and grow geometrically from `first`; uniform where that would not fit. Any unit of length. */
export function geometricMesh(length: number, first: number, n: number): number[] {
  const uniform = length / n;
  if (first >= uniform || n === 1) return Array.from({ length: n }, () => uniform);
  let low = 1;
  let high = 3;
  const sumFor = (q: number): number => (first * (q ** n - 1)) / (q - 1);
  while (sumFor(high) < length) high *= 1.5;
  for (let i = 0; i < 80; i++) {
    const q = (low + high) / 2;
    if (sumFor(q) < length) low = q;
    else high = q;
  }
  const slices = Array.from({ length: n }, (_, i) => first * low ** i);
  const whole = slices.reduce((all, slice) => all + slice, 0);
  return slices.map((slice) => (slice * length) / whole);
}

/**
 * n slices that fill a length, `low` thin at its beginning and `high` at its end and in between thicker by one and the same rate with the distance from the
 * nearer end; uniform where that would leave none thicker. Any unit of length.
 */
export function gradedMesh(length: number, low: number, high: number, n: number): number[] {
  const uniform = length / n;
  /** Where both sides are equally thick, and how many slices come before and after it. */
  const sides = (rate: number): { meet: number; before: number; after: number } => {
    const meet = Math.min(length, Math.max(0, (high - low + rate * length) / (2 * rate)));
    return {
      meet,
      before: Math.log1p((rate * meet) / low) / rate,
      after: Math.log1p((rate * (length - meet)) / high) / rate,
    };
  };
  const slices = (rate: number): number => {
    const { before, after } = sides(rate);
    return before + after;
  };
  let least = 1e-6;
  if (slices(least) <= n) return Array.from({ length: n }, () => uniform);
  let most = 1;
  while (slices(most) > n) most *= 2;
  for (let i = 0; i < 60; i++) {
    const rate = (least + most) / 2;
    if (slices(rate) > n) least = rate;
    else most = rate;
  }
  const { before, after } = sides(most);
  const share = n / (before + after);
  const edges = Array.from({ length: n + 1 }, (_, k) =>
    k / share <= before
      ? (low * Math.expm1((most * k) / share)) / most
      : length - (high * Math.expm1((most * (n - k)) / share)) / most,
  );
  return edges.slice(1).map((edge, k) => edge - (edges[k] ?? 0));
}
