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

/** Slices that are thin at both ends, symmetric. */
export function twoSidedMesh(length: number, first: number, n: number): number[] {
  const half = Math.floor(n / 2);
  if (n % 2 === 0) {
    const lower = geometricMesh(length / 2, first, half);
    return [...lower, ...[...lower].reverse()];
  }
  const lower = geometricMesh(length / 2, first, half + 1);
  const middle = lower[half] ?? 0;
  return [...lower.slice(0, half), 2 * middle, ...lower.slice(0, half).reverse()];
}
