import { readDevice, writeDevice } from "./local";

/** What a baker said that a name means, by the name in lower case; kept on this device for the next recipe. */
const MOST = 400;
const isName = (pair: unknown): pair is [string, string] =>
  Array.isArray(pair) && pair.length === 2 && pair.every((word) => typeof word === "string" && word !== "" && word.length <= 200);

export function ownNames(): Map<string, string> {
  try {
    const kept: unknown = JSON.parse(readDevice("own-names") ?? "[]");
    return new Map(Array.isArray(kept) && kept.length <= MOST && kept.every(isName) ? kept : []);
  } catch {
    // What cannot be read was not written here.
    return new Map();
  }
}

/** The latest are kept where there are too many. */
export function rememberName(name: string, ingredientId: string): Map<string, string> {
  const names = ownNames();
  const key = name.trim().toLowerCase().slice(0, 200);
  if (key === "") return names;
  names.delete(key);
  names.set(key, ingredientId);
  const kept = [...names].slice(-MOST);
  writeDevice("own-names", JSON.stringify(kept));
  return new Map(kept);
}
