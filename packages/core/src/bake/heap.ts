/**
 * What a heap of a stuff with a yield stress does on a plate: at rest h(r)² = (2 τ/ρ g)(R − r), the profile at which its weight just no longer moves it
 * (Nye; thin-layer plasticity). Volume of the round heap: 2π √(2τ/ρg) · 4/15 · R^(5/2). SI units.
 */

const GRAVITY = 9.81;

/** 2τ/ρg, m. */
const stands = (yieldPa: number, density: number): number => (2 * yieldPa) / (density * GRAVITY);

/** Radius of a round heap of a volume, m. */
export const heapRadius = (volume: number, yieldPa: number, density: number): number =>
  ((15 * volume) / (8 * Math.PI) / Math.sqrt(stands(yieldPa, density))) ** 0.4;

/** Height of its middle, m. */
export const heapHeight = (radius: number, yieldPa: number, density: number): number =>
  Math.sqrt(stands(yieldPa, density) * radius);

/** The tallest upright side that carries itself, m: half of its weight is what its stuff bears. */
export const standsUpright = (yieldPa: number, density: number): number => stands(yieldPa, density);
