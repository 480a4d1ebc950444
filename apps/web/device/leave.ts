import { forgetAnswers } from "./answers";
import { forgetDevice } from "./local";
import { forgetEvents } from "./outbox";
import { forgetPapers } from "./papers";
import { forgetWrites } from "./writes";

/** Takes everything of the one who leaves off this device: drafts, what waits to be sent, answers that were kept, what it remembers. */
export async function forgetAll(): Promise<void> {
  await Promise.all([forgetPapers(), forgetEvents(), forgetWrites(), forgetAnswers()]);
  forgetDevice();
}
