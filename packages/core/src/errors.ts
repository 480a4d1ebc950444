/** Stable codes of everything the core refuses. A message says what was wrong, with what value, and what would be right. */
export type CoreErrorCode =
  | "unknown-ingredient"
  | "unknown-component"
  | "unknown-part"
  | "unknown-unit"
  | "bad-amount"
  | "bad-vessel"
  | "empty-formula"
  | "formula-cycle"
  | "no-batch"
  | "not-a-batter"
  | "bad-time"
  | "no-oven"
  | "no-place"
  | "empty-day"
  | "stopped"
  | "bad-table"
  | "bad-file"
  | "no-recipe"
  | "no-space";

export class CoreError extends Error {
  constructor(
    readonly code: CoreErrorCode,
    message: string,
    /** Where in the request it stands, such as `lines.3.grams`. */
    readonly path = "",
  ) {
    super(message);
    this.name = "CoreError";
  }
}
