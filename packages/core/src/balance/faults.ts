import type { FindingId } from "./finding";

/** Findings that balancing is there to clear, with what is said of one that stays. */
export const faultWords = {
  "soda-unmet": "soda without acid",
  "acid-excess": "acid without soda",
  "powder-high": "too much leavening",
  "leavening-counted-twice": "leavening counted twice",
  "lift-low": "too little lift",
  "no-binder": "no binder",
  "binder-doubled": "binder doubled",
  "binder-high": "much gum",
  "too-wet": "too wet",
  "too-dry": "too dry",
  "sugar-high": "much sugar",
  "fat-high": "much fat",
  "salt-high": "much salt",
  "colour-shift": "colour that turns",
} as const satisfies Partial<Record<FindingId, string>>;
export type Fault = keyof typeof faultWords;
export const isFault = (id: FindingId): id is Fault => id in faultWords;
