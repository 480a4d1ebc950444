/** How full a pan may be and likes to be, by its volume; kitchen habit, confidence B. */
export const FULLEST = 0.75;
export const LIKED = { low: 0.5, mid: 0.62, high: 0.7 } as const;
/** A crown is liked up to so many times the height of the rim (1.0 to 1.3 by pan); over it a slice has no shape. */
export const LIKED_CROWN = 1.1;
