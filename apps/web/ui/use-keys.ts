import { useEffect, useRef } from "react";

export interface Keys {
  /** Leaves what is open. */
  escape?: (() => void) | undefined;
  save?: (() => void) | undefined;
  undo?: (() => void) | undefined;
}

/** In a field the browser takes back what was typed there. */
const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(?:INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Escape, Ctrl+S and Ctrl+Z of a page; whoever has taken a key for himself (a list, a hold) keeps it. */
export function useKeys(keys: Keys): void {
  const now = useRef(keys);
  useEffect(() => {
    now.current = keys;
  });
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      const { escape, save, undo } = now.current;
      if (event.defaultPrevented || event.isComposing) return;
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      const does =
        event.key === "Escape"
          ? escape
          : command && key === "s"
            ? save
            : command && key === "z" && !event.shiftKey && !isTyping(event.target)
              ? undo
              : undefined;
      // The browser's own page-saving never helps here, whether there is anything to save or not.
      if (does || (command && key === "s" && save !== undefined)) event.preventDefault();
      does?.();
    };
    globalThis.addEventListener("keydown", press);
    return () => globalThis.removeEventListener("keydown", press);
  }, []);
}
