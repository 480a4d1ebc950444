import type { Vessel } from "./vessel-schema";

const cm = (mm: number): string => String(Math.round(mm) / 10);

/** A pan as a recipe says it. */
export function panText({ shape, lengthMm, widthMm, heightMm, diameterMm, pieces = 1, material }: Vessel): string {
  const of = material ? `${material.replace("-", " ")} ` : "";
  const deep = heightMm ? `, ${cm(heightMm)} cm deep` : "";
  if (shape === "muffin") return `${pieces}-cup ${of}muffin tin`;
  if (shape === "griddle") return `a ${of}griddle`;
  if (shape === "free") return `${pieces} ${pieces === 1 ? "piece" : "pieces"} on a ${of}baking sheet`;
  const many = pieces > 1 ? `${pieces} tins of ` : "a ";
  if (diameterMm) return `${many}${cm(diameterMm)} cm ${of}${shape === "ring" ? "ring tin" : "round tin"}${deep}`;
  if (lengthMm && widthMm) return `${many}${cm(lengthMm)} × ${cm(widthMm)} cm ${of}tin${deep}`;
  return `a ${of}tin`;
}
