import { activateKeepAwakeAsync, deactivateKeepAwake } from "expo-keep-awake";
import { useEffect } from "react";

const TAG = "counter";

/** The screen stays awake as long as the counter is open; a browser that does not let it says nothing. */
export function useAwake(): void {
  useEffect(() => {
    const held = activateKeepAwakeAsync(TAG).catch(() => undefined);
    // A lock that has not come yet cannot be let go.
    return () => void held.then(() => deactivateKeepAwake(TAG)).catch(() => undefined);
  }, []);
}
