import { CoreError, type CoreErrorCode } from "@uprise/core";
import { type Asked, type KitchenData, perform, type TaskName } from "./tasks";

/** What comes back from a thread: an answer, or the core's own refusal, whose class does not survive the way. */
export type Outcome = { answer: unknown } | { refused: { code: CoreErrorCode; message: string; path: string } };

/** One task in a thread of the pool. */
export default function work({ name, asked, kitchen }: { name: TaskName; asked: Asked[TaskName]; kitchen: KitchenData }): Outcome {
  try {
    return { answer: perform(name, asked, kitchen) };
  } catch (error) {
    if (error instanceof CoreError) return { refused: { code: error.code, message: error.message, path: error.path } };
    throw error;
  }
}
