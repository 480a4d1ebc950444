import { useCallback, useEffect, useLayoutEffect, useRef } from "react";
import type { NativeScrollEvent, NativeSyntheticEvent, ScrollView } from "react-native";

const places = new Map<string, number>();

/** What stands at the top of the scrolled part, and how far below its edge. */
interface Held {
  element: Element;
  below: number;
}

const topOf = (element: Element): number => element.getBoundingClientRect().top;

function heldIn(frame: HTMLElement): Held | null {
  const { left, top, width, height } = frame.getBoundingClientRect();
  // Between two lines lies what holds them both: it may grow above what is read, so it is no mark.
  for (let below = 1; below < height; below += 16) {
    const element = document.elementFromPoint(left + width / 2, top + below);
    if (element && frame.contains(element) && element.getBoundingClientRect().height < height / 4)
      return { element, below: topOf(element) - top };
  }
  return null;
}

/**
 * How far a place was scrolled is found again when one comes back to it. Give the result to a ScrollView. While it is not shown, the browser does not
 * hold what is read in its place; so what stood at the top is found again by itself, whatever has come above it meanwhile.
 */
export function useKeptScroll(place: string, shown = true) {
  const ref = useRef<ScrollView>(null);
  const held = useRef<Held | null>(null);
  useEffect(() => {
    const kept = places.get(place) ?? 0;
    if (kept > 0) ref.current?.scrollTo({ y: kept, animated: false });
  }, [place]);
  useLayoutEffect(() => {
    const frame = ref.current as unknown as HTMLElement | null;
    const was = held.current;
    if (shown && frame && was?.element.isConnected && frame.scrollTop > 0)
      frame.scrollTop += topOf(was.element) - topOf(frame) - was.below;
  }, [shown]);
  const onScroll = useCallback(
    ({ nativeEvent }: NativeSyntheticEvent<NativeScrollEvent>) => {
      places.set(place, nativeEvent.contentOffset.y);
      const frame = ref.current as unknown as HTMLElement | null;
      if (frame && frame.offsetParent !== null) held.current = heldIn(frame);
    },
    [place],
  );
  return { ref, onScroll, scrollEventThrottle: 100 };
}
