/** Small things this device remembers at once, by name. A browser that refuses storage simply forgets. */
const key = (name: string): string => `uprise.${name}`;

export function readDevice(name: string): string | null {
  try {
    return globalThis.localStorage?.getItem(key(name)) ?? null;
  } catch {
    return null;
  }
}

export function writeDevice(name: string, value: string | null): void {
  try {
    if (value === null) globalThis.localStorage?.removeItem(key(name));
    else globalThis.localStorage?.setItem(key(name), value);
  } catch {
    // A full or forbidden store must not stop the work on the bench.
  }
}
