export const shapes = ["rectangular", "round", "muffin", "ring", "free", "griddle"] as const;
export const materials = ["light-metal", "dark-steel", "cast-iron", "glass", "ceramic", "silicone", "paper"] as const;
export const linings = ["none", "greased", "greased-base", "paper", "paper-cups"] as const;
/** What a piece that stands by itself is: rolled or rounded, dropped, patted, cut; `sheet` is rolled thin. */
export const pieceForms = ["ball", "drop", "disc", "wedge", "log", "slice", "sheet"] as const;
export type PieceForm = (typeof pieceForms)[number];
/** Racks of an oven, from below. */
export const ovenShelves = ["low", "middle", "high"] as const;
export const ovenModes = ["still", "fan", "air-fryer", "hob"] as const;
/** What a kitchen oven does, °C. */
export const ovenLimits = { least: 60, most: 320 } as const;
