import type { Problem } from "@uprise/contract";

/** What a refusal of the server means to the one at the screen. The server's own words are for those who write scripts. */
const words: Record<string, string> = {
  "not-found": "It is not in this kitchen any more; it may have been taken off the list.",
  conflict: "Something else has that name inside the kitchen already. Nothing was changed.",
  stale: "A newer version was saved meanwhile. Yours is still here.",
  "too-large": "This is more than the server takes in one go.",
  "built-in": "That one ships with Uprise and stays as it is.",
  busy: "The server has its hands full. Try again in a moment.",
  "took-too-long": "That took too long and was stopped. A smaller batch may help.",
  "disk-full": "The disk of the server is full; what you wrote is kept on this device. Make room there, then save again.",
  internal: "The server could not finish this. Nothing was changed; try again.",
  "not-allowed": "That is for a baker to do; this device came in as a helper.",
  "unknown-ingredient": "One of the lines names something that is not in this kitchen's store.",
  "formula-cycle": "A formula cannot hold itself, not even through another one.",
};

export const noAnswer = "The server does not answer. What you wrote is kept on this device; try again when it is back.";
export const tooSlow = "The server takes too long to answer. What you wrote is kept on this device; try again.";
export const notUnderstood =
  "The server answered something that this page does not know. Load the page anew; what you wrote is kept.";

export const codeOf = (problem: Problem | undefined): string => problem?.type.split(":").at(-1) ?? "";

/** A refusal in words: by its code, and for a faulty field what would be right in it. */
export function refusalWords(status: number, problem: Problem | undefined): string {
  const known = words[codeOf(problem)];
  if (known) return known;
  const first = problem?.errors?.[0];
  if (first) return first.message;
  return status >= 500 ? (words["internal"] ?? "") : (problem?.detail ?? `The server answered ${status}.`);
}
