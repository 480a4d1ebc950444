import { useEffect } from "react";

/** The name of the page in the browser's tab and history; what stands beside something else leaves the name to that. */
export function useTitle(title: string, mine = true): void {
  useEffect(() => {
    if (mine) document.title = title === "" ? "Uprise" : `${title} – Uprise`;
  }, [title, mine]);
}
