import { resolve } from "node:path";
import { Unusable } from "./errors";

export interface Settings {
  port: number;
  host: string;
  /** Folder with the database and photographs. */
  dataFolder: string;
  demo: boolean;
  /** Folder with the exported web application; null when only the API is served. */
  webFolder: string | null;
  /** Bundle of the compute threads; null where everything runs in this thread. */
  workerFile?: string | null;
  /** Whether a copy is made into the data folder every night; left out, it is. */
  copies?: boolean;
  /** The address of a proxy before this server, such as https://kitchen.example; left out, there is none. */
  origin?: string | null;
}

/** Settings from the environment. Throws with the right form when PORT is no port. */
export function settingsFrom(
  env: Record<string, string | undefined>,
  webFolder: string | null,
  workerFile: string | null = null,
): Settings {
  const port = Number(env["PORT"] ?? 4173);
  if (env["PORT"]?.trim() === "" || !Number.isInteger(port) || port < 0 || port > 65535)
    throw new Unusable(`PORT is "${env["PORT"]}"; a whole number from 0 to 65535 would be right.`);
  const origin = env["UPRISE_ORIGIN"] ?? "";
  if (origin !== "" && !/^https?:\/\/[a-z0-9.-]+(?::\d+)?$/i.test(origin))
    throw new Unusable(`UPRISE_ORIGIN is "${origin}"; an address such as https://kitchen.example would be right, without a path.`);
  return {
    port,
    origin: origin === "" ? null : origin,
    host: env["HOST"] ?? "127.0.0.1",
    dataFolder: resolve(env["UPRISE_DATA"] ?? "data"),
    demo: env["UPRISE_DEMO"] === "1",
    webFolder,
    workerFile,
    copies: env["UPRISE_COPIES"] !== "0",
  };
}
