import { z } from "zod";
import { readDevice, writeDevice } from "./local";

/** What a baker said that a name means, by the name in lower case; kept on this device for the next recipe. */
const MOST = 400;
const schema = z.array(z.tuple([z.string().min(1).max(200), z.string().min(1).max(120)])).max(MOST);

export function ownNames(): Map<string, string> {
  try {
    const kept = schema.safeParse(JSON.parse(readDevice("own-names") ?? "[]"));
    return new Map(kept.success ? kept.data : []);
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
