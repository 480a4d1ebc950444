import type { CauseFamily } from "@uprise/core";
import { causeFamilies } from "@uprise/core/page-log";
import { readDevice, writeDevice } from "../../device/local";

/** How it went so far, by family of fault: guesses, those that were right, and how soon it should come again (in bakes). */
export interface Score {
  asked: number;
  right: number;
  /** Bakes until it comes again; a miss brings it back soon, a hit puts it off for twice as long. */
  due: number;
  gap: number;
}
/** What is guessed at: a family of faults, or that nothing was wrong. */
export type Asked = CauseFamily | "sound";
export type Scores = Partial<Record<Asked, Score>>;

const NAME = "practice";
const FIRST_GAP = 2;
const LONGEST_GAP = 24;

export function readScores(): Scores {
  try {
    const read = JSON.parse(readDevice(NAME) ?? "{}") as unknown;
    if (typeof read !== "object" || read === null) return {};
    return Object.fromEntries(
      Object.entries(read).filter(([name]) => name === "sound" || (causeFamilies as readonly string[]).includes(name)),
    );
  } catch {
    // What cannot be read is a fresh beginning.
    return {};
  }
}

/** The scores after a guess: what was asked is put off or brought back, all others come one bake nearer. */
export function afterGuess(scores: Scores, asked: Asked, right: boolean): Scores {
  const out: Scores = {};
  for (const [name, score] of Object.entries(scores) as [Asked, Score][]) out[name] = { ...score, due: Math.max(0, score.due - 1) };
  const before = out[asked] ?? { asked: 0, right: 0, due: 0, gap: FIRST_GAP };
  const gap = right ? Math.min(LONGEST_GAP, 2 * before.gap) : FIRST_GAP;
  out[asked] = { asked: before.asked + 1, right: before.right + (right ? 1 : 0), gap, due: right ? gap : 1 };
  return out;
}

export const keepScores = (scores: Scores): void => writeDevice(NAME, JSON.stringify(scores));

/** Families that may come now: those that are due, and those never asked; all where none is. */
export function dueFamilies(scores: Scores): CauseFamily[] {
  const due = causeFamilies.filter((family) => (scores[family]?.due ?? 0) <= 0);
  const missed = due.filter((family) => scores[family] && (scores[family]?.right ?? 0) < (scores[family]?.asked ?? 0));
  return missed.length > 0 ? missed : due.length > 0 ? due : [...causeFamilies];
}
