import { useCallback, useEffect, useRef } from "react";
import type { NativeScrollEvent, NativeSyntheticEvent, ScrollView } from "react-native";

const places = new Map<string, number>();

/** How far a place was scrolled is found again when one comes back to it. Give the result to a ScrollView. */
export function useKeptScroll(place: string) {
  const ref = useRef<ScrollView>(null);
  useEffect(() => {
    const kept = places.get(place) ?? 0;
    if (kept > 0) ref.current?.scrollTo({ y: kept, animated: false });
  }, [place]);
  const onScroll = useCallback(
    (event: NativeSyntheticEvent<NativeScrollEvent>) => void places.set(place, event.nativeEvent.contentOffset.y),
    [place],
  );
  return { ref, onScroll, scrollEventThrottle: 100 };
}
