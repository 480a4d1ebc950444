/** Colours by role. Every role that carries meaning has a mark or a pattern beside it, so that nothing depends on hue. */
export interface Colours {
  paper: string;
  /** A surface set into the paper: fields, the strip. */
  sunk: string;
  ink: string;
  /** Second ink, still 4.5:1 on paper. */
  faint: string;
  rule: string;
  strongRule: string;
  soda: string;
  acid: string;
  gas: string;
  set: string;
  heat: string;
  caution: string;
  stop: string;
  good: string;
  focus: string;
}

export const light: Colours = {
  paper: "#eef1ec",
  sunk: "#e2e7e0",
  ink: "#14201d",
  faint: "#4a5955",
  rule: "#c3ccc5",
  strongRule: "#14201d",
  soda: "#1d4f91",
  acid: "#7d6100",
  gas: "#3f6570",
  set: "#7a4320",
  heat: "#b93413",
  caution: "#8a4a00",
  stop: "#a3122b",
  good: "#1f6a3f",
  focus: "#1d4f91",
};

export const dark: Colours = {
  paper: "#111917",
  sunk: "#1a2421",
  ink: "#e8eee9",
  faint: "#a6b5af",
  rule: "#33413c",
  strongRule: "#e8eee9",
  soda: "#8cb8f2",
  acid: "#d9b53c",
  gas: "#8fbcc8",
  set: "#d79a6c",
  heat: "#f58562",
  caution: "#f0a850",
  stop: "#ff8a93",
  good: "#7fcf9d",
  focus: "#8cb8f2",
};

/** Black on white, for the printer. */
export const paper: Colours = {
  ...light,
  paper: "#ffffff",
  sunk: "#ffffff",
  ink: "#000000",
  faint: "#333333",
  rule: "#999999",
  strongRule: "#000000",
};

/** A crust from white to burnt, the same in light and dark: it is what a crust looks like. */
export const crustColours = ["#f6efdc", "#efdcb0", "#e3bf7a", "#c98f3f", "#8f5522", "#55301a", "#24150c"] as const;

/** A colour between two, both as #rrggbb; `share` of the second. */
export function mixed(a: string, b: string, share: number): string {
  const part = (hex: string, at: number): number => parseInt(hex.slice(at, at + 2), 16);
  return `#${[1, 3, 5]
    .map((at) => Math.round(part(a, at) * (1 - share) + part(b, at) * share))
    .map((value) => value.toString(16).padStart(2, "0"))
    .join("")}`;
}
