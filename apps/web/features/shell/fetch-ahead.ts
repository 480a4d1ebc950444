import { useEffect } from "react";
import { whenIdle } from "../../device/idle";

/** Written by the build: every part of the application that comes when it is needed. */
const LIST = "/parts.json";

let fetched = false;

/** Brings every part that a place or a room may need into the browser's store, one after the other, when the line is idle; says on the document when all are here. */
async function fetchAll(): Promise<void> {
  const answer = await fetch(LIST);
  if (!answer.ok) return;
  const parts = (await answer.json()) as unknown;
  if (!Array.isArray(parts)) return;
  for (const part of parts) if (typeof part === "string") await fetch(part);
  document.documentElement.dataset.parts = "here";
}

const AGAIN_MS = 20_000;

/** Begins when the page is idle; what an absent network cuts short is taken up when it is back, and after a while in any case. */
function begin(): void {
  if (fetched) return;
  fetched = true;
  whenIdle(
    () =>
      void fetchAll().catch(() => {
        fetched = false;
        const timer = setTimeout(begin, AGAIN_MS);
        const back = (): void => {
          clearTimeout(timer);
          begin();
        };
        globalThis.addEventListener("online", back, { once: true });
      }),
    8000,
  );
}

/** After this, every place and room opens without a network. What does not come now comes when it is opened. */
export function useFetchAhead(): void {
  useEffect(() => {
    if (process.env.NODE_ENV === "production") begin();
  }, []);
}
