import type { Line } from "./reading-schema";

/** What is said of a line is kept under its text, and under its place in it where the text holds several things. */
export const mendingKey = (line: Pick<Line, "source" | "item">): string =>
  line.item === undefined ? line.source : `${line.source}#${line.item}`;

const ifYouLike = /\b(?:optional(?:ly)?|if (?:you|liked|desired|using|wanted))\b/i;
/** Whether a line is off until it is taken: it says so itself, or it stands in the batter and is no part of it. What has a component of its own is in it. */
export const isLeftOpen = ({
  optional,
  left,
  component,
  source,
}: Pick<Line, "optional" | "left" | "component" | "source">): boolean =>
  left === true || (optional === true && (component === undefined || ifYouLike.test(source)));
