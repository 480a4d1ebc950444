import { createHash, randomBytes, randomUUID, scrypt, timingSafeEqual } from "node:crypto";
import { existsSync, readFileSync } from "node:fs";
import { chmod, mkdir, rename, writeFile } from "node:fs/promises";
import { join } from "node:path";
import type { Role } from "@uprise/contract";
import { z } from "zod";
import { Unusable } from "../errors";

/** scrypt as OWASP's cheat sheet on storing passwords has it: N = 2^15, r = 8, p = 3, 32 MB for one try. */
const COST = { N: 2 ** 15, r: 8, p: 3, maxmem: 64 * 1024 * 1024 } as const;
const KEY_BYTES = 32;
/** A device that was not seen for so long is let in anew by the passcode. */
export const IDLE_DAYS = 60;
const MOST_DEVICES = 60;

const hashSchema = z.object({ salt: z.string(), key: z.string() });
const fileSchema = z.object({
  shape: z.literal(1),
  /** Signs cookies. */
  secret: z.string().min(32),
  baker: hashSchema,
  helper: hashSchema.nullable(),
  recovery: hashSchema,
  devices: z.array(
    z.object({
      id: z.string(),
      device: z.string(),
      role: z.enum(["baker", "helper"]),
      /** SHA-256 of the token in its cookie; the token itself is nowhere here. */
      token: z.string(),
      since: z.string(),
      seen: z.string(),
    }),
  ),
});
type AccessFile = z.infer<typeof fileSchema>;
type Hash = z.infer<typeof hashSchema>;
export type Device = AccessFile["devices"][number];

const keyOf = (passcode: string, salt: Buffer): Promise<Buffer> =>
  new Promise((done, fail) =>
    scrypt(passcode.normalize("NFKC"), salt, KEY_BYTES, COST, (error, key) => (error ? fail(error) : done(key))),
  );

async function hashed(passcode: string): Promise<Hash> {
  const salt = randomBytes(16);
  return { salt: salt.toString("hex"), key: (await keyOf(passcode, salt)).toString("hex") };
}

const fits = async (passcode: string, hash: Hash): Promise<boolean> =>
  timingSafeEqual(await keyOf(passcode, Buffer.from(hash.salt, "hex")), Buffer.from(hash.key, "hex"));

const tokenHash = (token: string): string => createHash("sha256").update(token).digest("hex");

/** A code to be written down: five groups of five signs that cannot be mistaken for one another, 120 bits. */
function newCode(): string {
  const signs = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789";
  const text = [...randomBytes(25)].map((byte) => signs[byte % signs.length]).join("");
  return text.match(/.{5}/g)?.join("-") ?? text;
}
const bareCode = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, "");

export interface Access {
  isSet(): boolean;
  /** For signing; another one after every start where no passcode is set. */
  secret(): string;
  /** Sets the baker's passcode, lets every device go, and gives the recovery code, which is shown once. */
  set(passcode: string): Promise<string>;
  setHelper(passcode: string | null): Promise<void>;
  hasHelper(): boolean;
  isBaker(passcode: string): Promise<boolean>;
  /** A new device, with the token for its cookie; null where the passcode is another one. */
  enter(passcode: string, device: string): Promise<{ device: Device; token: string } | null>;
  /** Sets a new passcode by the recovery code; null where the code is another one. */
  recover(code: string, passcode: string): Promise<string | null>;
  /** The device that a token belongs to; null where it was let go or was away too long. */
  known(token: string): Device | null;
  devices(): Device[];
  letGo(id: string): Promise<boolean>;
  /** Calls with the id of every device that is let go. */
  whenLetGo(does: (id: string) => void): void;
}

/** Who may come in: passcodes as scrypt hashes and devices, in a file of its own beside the database, which no archive holds. Throws `Unusable` where it is damaged. */
export function openAccess(dataFolder: string): Access {
  const path = join(dataFolder, "access.json");
  let file: AccessFile | null = null;
  if (existsSync(path)) {
    const parsed = fileSchema.safeParse(
      ((): unknown => {
        try {
          return JSON.parse(readFileSync(path, "utf8"));
        } catch {
          return null;
        }
      })(),
    );
    if (!parsed.success)
      throw new Unusable(
        `${path} is damaged, so nobody can be let in. Take it away and set a passcode anew with npm run passcode; nothing else is lost.`,
      );
    file = parsed.data;
  }
  const passing = randomBytes(32).toString("hex");
  let writing: Promise<unknown> = Promise.resolve();
  const save = (next: AccessFile): Promise<void> => {
    const before = file;
    file = next;
    gone(before);
    const write = writing.then(async () => {
      await mkdir(dataFolder, { recursive: true });
      const half = `${path}.half`;
      await writeFile(half, JSON.stringify(next, null, 1), { mode: 0o600 });
      await chmod(half, 0o600);
      await rename(half, path);
    });
    writing = write.catch(() => undefined);
    return write;
  };
  const listeners: ((id: string) => void)[] = [];
  const gone = (before: AccessFile | null): void => {
    const still = new Set(file?.devices.map(({ id }) => id));
    for (const { id } of before?.devices ?? []) if (!still.has(id)) for (const does of listeners) does(id);
  };
  const must = (): AccessFile => {
    if (!file) throw new Error("no passcode is set");
    return file;
  };
  const isIdle = ({ seen }: Device): boolean => Date.now() - Date.parse(seen) > IDLE_DAYS * 86_400_000;
  return {
    isSet: () => file !== null,
    secret: () => file?.secret ?? passing,
    async set(passcode) {
      const code = newCode();
      await save({
        shape: 1,
        secret: randomBytes(32).toString("hex"),
        baker: await hashed(passcode),
        helper: file?.helper ?? null,
        recovery: await hashed(bareCode(code)),
        devices: [],
      });
      return code;
    },
    async setHelper(passcode) {
      const helper = passcode === null ? null : await hashed(passcode);
      // Helpers that are in by the old one are let go.
      await save({ ...must(), helper, devices: must().devices.filter(({ role }) => role !== "helper") });
    },
    hasHelper: () => file?.helper != null,
    isBaker: async (passcode) => file !== null && fits(passcode, file.baker),
    async enter(passcode, device) {
      const { baker, helper } = must();
      // Both are tried, so that the time taken tells nothing.
      const [isBaker, isHelper] = await Promise.all([fits(passcode, baker), fits(passcode, helper ?? baker)]);
      const role: Role | null = isBaker ? "baker" : helper && isHelper ? "helper" : null;
      if (role === null) return null;
      const token = randomBytes(32).toString("base64url");
      const now = new Date().toISOString();
      const entered: Device = { id: randomUUID(), device, role, token: tokenHash(token), since: now, seen: now };
      await save({ ...must(), devices: [...must().devices.filter((one) => !isIdle(one)), entered].slice(-MOST_DEVICES) });
      return { device: entered, token };
    },
    async recover(code, passcode) {
      if (!file || !(await fits(bareCode(code), file.recovery))) return null;
      return this.set(passcode);
    },
    known(token) {
      const hash = tokenHash(token);
      const device = file?.devices.find((one) => one.token === hash);
      if (!device || isIdle(device)) return null;
      // Written once a day: a device's last day is enough.
      if (Date.now() - Date.parse(device.seen) > 86_400_000) {
        const seen = new Date().toISOString();
        void save({ ...must(), devices: must().devices.map((one) => (one.id === device.id ? { ...one, seen } : one)) });
      }
      return device;
    },
    devices: () => file?.devices ?? [],
    async letGo(id) {
      if (!file?.devices.some((one) => one.id === id)) return false;
      await save({ ...file, devices: file.devices.filter((one) => one.id !== id) });
      return true;
    },
    whenLetGo: (does) => void listeners.push(does),
  };
}
