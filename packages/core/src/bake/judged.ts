/**
 * What a bake is judged by beside its inside: nothing more (loaf, muffin); a light, dry crust (bar); a golden top (scone, bun, drop); rim and top of a skillet bread;
 * the edge of a drop; colour on both faces of a flatbread; dry enough to snap.
 */
export const judgedBy = ["inside", "crust", "top", "rim", "edge", "faces", "snaps"] as const;
export type JudgedBy = (typeof judgedBy)[number];
