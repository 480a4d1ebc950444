import type { Opened } from "@uprise/core";
import { CoreError } from "@uprise/core/page";

/** What is opened of a sheet, or why it cannot be. */
export function opened(make: () => Opened): { input: Opened; fault: null } | { input: null; fault: string } {
  try {
    return { input: make(), fault: null };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { input: null, fault: error.message };
  }
}
