import { existsSync } from "node:fs";
import { resolve } from "node:path";
import { openAccess } from "./access/access";
import { askPasscode } from "./access/ask";
import { isLoopback } from "./access/places";
import { buildApp } from "./app";
import { codesOf, Unusable } from "./errors";
import { bareError } from "./problems";
import { settingsFrom } from "./settings";

/** A stopping server lets what it is doing come to an end for so long, ms. */
const GRACE_MS = 4000;

const there = (path: string): string | null => (existsSync(resolve(path)) ? resolve(path) : null);

// What a kitchen wrote is its own user's alone, the database and the photographs too.
process.umask(0o077);

/** The last net: a stream, a timer or a socket whose error nobody waited for is told in the log, and the kitchen goes on. */
const told = (error: unknown): void => console.error(bareError(error instanceof Error ? error : new Error("unknown")));
process.on("unhandledRejection", told);
process.on("uncaughtException", told);

async function main(): Promise<void> {
  const settings = settingsFrom(process.env, there("apps/web/dist"), there("apps/server/dist/compute.mjs"));
  const open = !isLoopback(settings.host) || settings.origin != null;
  // At the first start that others can reach, whoever sits before it is asked; without an answer it does not listen to them.
  if (open && process.stdin.isTTY && !openAccess(settings.dataFolder).isSet()) await askPasscode(settings.dataFolder);
  const app = await buildApp(settings, true);

  let stopping = false;
  const stop = async (): Promise<void> => {
    // Whoever asks twice means now.
    if (stopping) process.exit(1);
    stopping = true;
    setTimeout(() => process.exit(1), GRACE_MS).unref();
    await app.close();
    process.exit(0);
  };
  process.on("SIGTERM", () => void stop());
  process.on("SIGINT", () => void stop());

  try {
    await app.listen({ port: settings.port, host: settings.host });
  } catch (error) {
    await app.close();
    throw listening(error as NodeJS.ErrnoException, settings);
  }
  const address = app.server.address();
  const port = typeof address === "object" && address ? address.port : settings.port;
  process.stdout.write(`Uprise stands at http://${settings.host}:${port}\n`);
}

/** Why the server cannot be reached, as a sentence. */
function listening(error: NodeJS.ErrnoException, { host, port }: { host: string; port: number }): Error {
  switch (error.code) {
    case "EADDRINUSE":
      return new Unusable(`Port ${port} is taken, perhaps by another Uprise; stop that one, or start with PORT=${port + 1}.`);
    case "EACCES":
      return new Unusable(`Port ${port} may not be used by you; a port over 1024 would be right, such as PORT=4173.`);
    case "EADDRNOTAVAIL":
    case "ENOTFOUND":
      return new Unusable(`This machine has no address "${host}"; HOST=127.0.0.1 would be right for this machine alone.`);
    default:
      return error;
  }
}

main().catch((error: unknown) => {
  const full = codesOf(error).some((code) => /^(?:ENOSPC|SQLITE_FULL)$/.test(code));
  console.error(
    error instanceof Unusable
      ? error.message
      : full
        ? "The disk with the data folder is full; free some space and start again."
        : error,
  );
  process.exit(1);
});
