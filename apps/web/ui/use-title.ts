import { useEffect } from "react";

/** The name of the page in the browser's tab and history. */
export function useTitle(title: string): void {
  useEffect(() => {
    document.title = title === "" ? "Uprise" : `${title} – Uprise`;
  }, [title]);
}
