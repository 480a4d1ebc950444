import { hostname, networkInterfaces } from "node:os";

const LOOPBACK = ["localhost", "127.0.0.1", "[::1]"];

export const isLoopback = (host: string): boolean => /^(?:localhost|127(?:\.\d{1,3}){3}|::1|\[::1\])$/i.test(host);

/** The name in a Host header, without its port, in lower case; null for none. */
export function nameIn(header: string | undefined): string | null {
  if (header === undefined) return null;
  const match = /^(\[[0-9a-f:.]+\]|[a-z0-9.-]+)(?::\d{1,5})?$/i.exec(header.trim());
  return match?.[1]?.toLowerCase().replace(/\.$/, "") ?? null;
}

/** The names by which this server may be called: its own addresses, its machine's name, that of the proxy before it. A page of another name that points here is none of them. */
export function placesOf(host: string, origin: string | null): (name: string) => boolean {
  const fixed = new Set([...LOOPBACK, ...(origin === null ? [] : [new URL(origin).hostname.toLowerCase()])]);
  if (isLoopback(host)) return (name) => fixed.has(name);
  const machine = hostname().toLowerCase();
  for (const name of [host.toLowerCase(), machine, `${machine}.local`]) if (name !== "0.0.0.0" && name !== "::") fixed.add(name);
  return (name) => {
    if (fixed.has(name)) return true;
    // Addresses come and go with networks; they are looked up when they are asked for.
    const own = Object.values(networkInterfaces()).flatMap((some) => some ?? []);
    return own.some(({ address, family }) => (family === "IPv6" ? `[${address.toLowerCase()}]` : address) === name);
  };
}
