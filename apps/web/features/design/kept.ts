import { USUAL_SHELF } from "@uprise/core/page-bench";
import { useState } from "react";
import { readDevice, writeDevice } from "../../device/local";

const NAME = "shelf-ticked";

function kept(): string[] {
  const text = readDevice(NAME);
  if (text === null) return [...USUAL_SHELF];
  try {
    const list: unknown = JSON.parse(text);
    return Array.isArray(list) ? list.filter((id): id is string => typeof id === "string") : [...USUAL_SHELF];
  } catch {
    // What cannot be read is no shelf: the usual one stands in.
    return [...USUAL_SHELF];
  }
}

/** What is on hand, as it was ticked last on this device. */
export function useTicked(): { ticked: readonly string[]; tick: (id: string, on: boolean) => void } {
  const [ticked, setTicked] = useState(kept);
  return {
    ticked,
    tick: (id, on) => {
      const next = on ? [...ticked.filter((other) => other !== id), id] : ticked.filter((other) => other !== id);
      setTicked(next);
      writeDevice(NAME, JSON.stringify(next));
    },
  };
}
