import { Worker } from "node:worker_threads";

/** scrypt as OWASP's cheat sheet on storing passwords has it: N = 2^15, r = 8, p = 3, 32 MB for one try. */
const COST = { N: 2 ** 15, r: 8, p: 3, maxmem: 64 * 1024 * 1024 } as const;
const KEY_BYTES = 32;

/** Runs in the thread: the synchronous derivation, so that it takes none of the threads that the database and the files share. */
const SOURCE = `
const { parentPort, workerData } = require("node:worker_threads");
const { scryptSync } = require("node:crypto");
const { passcode, salt, bytes, cost } = workerData;
parentPort.postMessage(scryptSync(passcode, Buffer.from(salt, "hex"), bytes, cost).toString("hex"));
`;

let last: Promise<unknown> = Promise.resolve();

/** The key of a passcode, as hexadecimal; derived in a thread of its own, one at a time. */
export function derivedKey(passcode: string, salt: string): Promise<string> {
  const next = last.then(
    () =>
      new Promise<string>((done, fail) => {
        const workerData = { passcode: passcode.normalize("NFKC"), salt, bytes: KEY_BYTES, cost: COST };
        const worker = new Worker(SOURCE, { eval: true, workerData });
        worker.once("message", (key: string) => done(key));
        worker.once("error", fail);
        worker.once("exit", () => fail(new Error("the derivation of a key ended without one")));
      }),
  );
  last = next.catch(() => undefined);
  return next;
}
