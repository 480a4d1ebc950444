import type { Token } from "./tokens";

/** "16 in a tin" has no inches in it. */
const isPlace = (token: Token, after: Token | undefined): boolean =>
  token.lower === "in" && /^(?:an?|one|two|the|your|each|it|this)$/.test(after?.lower ?? "");

/** Millimetres in a unit of length that a token is; null where it is none. */
export const unitMm = (token: Token | undefined, after?: Token): number | null => {
  if (!token || isPlace(token, after)) return null;
  if (/^(?:cm|centimetres?|centimeters?)$/.test(token.lower)) return 10;
  if (/^(?:mm|millimetres?)$/.test(token.lower)) return 1;
  return /^(?:in|inch|inches|ins)$/.test(token.lower) || token.text === '"' || token.text === "''" ? 25.4 : null;
};
