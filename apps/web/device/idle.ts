/** Does something when the page has nothing else to do, soon at the latest; what it gives calls it off. */
export function whenIdle(work: () => void, latestMs = 2000): () => void {
  if (typeof requestIdleCallback !== "function") {
    const timer = setTimeout(work, 0);
    return () => clearTimeout(timer);
  }
  const handle = requestIdleCallback(work, { timeout: latestMs });
  return () => cancelIdleCallback(handle);
}
