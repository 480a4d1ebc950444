/** Spacing in px, on a grid of four. */
export const space = { hair: 2, xs: 4, s: 8, m: 12, l: 16, xl: 24, xxl: 40 } as const;

/** Type sizes in px with their line heights. Body is 16; the counter's figures are 40 and more. */
export const type = {
  small: { fontSize: 14, lineHeight: 19 },
  body: { fontSize: 16, lineHeight: 23 },
  lead: { fontSize: 18, lineHeight: 25 },
  heading: { fontSize: 20, lineHeight: 25 },
  title: { fontSize: 27, lineHeight: 31 },
  figure: { fontSize: 22, lineHeight: 26 },
  large: { fontSize: 44, lineHeight: 48 },
} as const;

/** Until a font is there, one of the device's own stands in, drawn to the same measure (public/index.html). */
export const fonts = {
  body: "AtkinsonHyperlegibleNext_400Regular, BodyMeanwhile, sans-serif",
  strong: "AtkinsonHyperlegibleNext_700Bold, StrongMeanwhile, sans-serif",
  display: "BricolageGrotesque_700Bold, DisplayMeanwhile, sans-serif",
} as const;

/** Touch targets: 48 everywhere, 64 at the counter. */
export const touch = { least: 48, counter: 64 } as const;

/** From this width on, sheet and room stand side by side. */
export const wideFrom = 960;
