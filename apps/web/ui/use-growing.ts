import { useEffect, useState } from "react";
import { whenIdle } from "../device/idle";

const FIRST = 30;
const MORE = 30;

/** How many of a long list are drawn: what fills a screen at once, the rest little by little when the page has time. */
export function useGrowing(whole: number): number {
  const [drawn, setDrawn] = useState(FIRST);
  useEffect(() => (drawn < whole ? whenIdle(() => setDrawn(drawn + MORE)) : undefined), [drawn, whole]);
  return Math.min(drawn, whole);
}
