/** Where something stands on a page, px. */
export interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** A word as it was read from a picture. */
export interface PageWord {
  text: string;
  box: Box;
  /** How sure it was read, 0 to 100. */
  confidence: number;
  /** Other readings of it, the likeliest first, with what each is worth against the first, 0 to 1. */
  others?: { text: string; worth: number }[];
}

export const around = (boxes: readonly Box[]): Box => ({
  x0: Math.min(...boxes.map(({ x0 }) => x0)),
  y0: Math.min(...boxes.map(({ y0 }) => y0)),
  x1: Math.max(...boxes.map(({ x1 }) => x1)),
  y1: Math.max(...boxes.map(({ y1 }) => y1)),
});
export const heightOf = ({ y0, y1 }: Box): number => y1 - y0;
export const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
