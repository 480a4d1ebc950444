import { spokenWords } from "@uprise/core/page-live";
import { useEffect } from "react";

/** Reads a step when it comes, in the browser's own voice; where there is none it is only to be read. */
export function useReadAloud(on: boolean, words: string | null): void {
  useEffect(() => {
    if (!on || words === null || globalThis.speechSynthesis === undefined) return;
    globalThis.speechSynthesis.cancel();
    globalThis.speechSynthesis.speak(new SpeechSynthesisUtterance(spokenWords(words)));
    return () => globalThis.speechSynthesis.cancel();
  }, [on, words]);
}
