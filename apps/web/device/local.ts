import { ownerHere } from "./owner";

/** Small things this device remembers at once, by name. A browser that refuses storage simply forgets. */
const prefix = (): string => (ownerHere() === "helper" ? "uprise.helper." : "uprise.");
const key = (name: string): string => `${prefix()}${name}`;

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

/** What is the device's own, whoever is here. */
const OF_THE_DEVICE = ["uprise.owner", "uprise.device-name"];

/** Forgets all of it, but for the device's own name and whose it is. */
export function forgetDevice(): void {
  try {
    const store = globalThis.localStorage;
    const theirs = "uprise.helper.";
    const mine = Object.keys(store ?? {}).filter((name) => name.startsWith(prefix()) && !OF_THE_DEVICE.includes(name));
    for (const name of mine) if (prefix() === theirs || !name.startsWith(theirs)) store?.removeItem(name);
  } catch {
    // A store that cannot be read holds nothing of it.
  }
}
