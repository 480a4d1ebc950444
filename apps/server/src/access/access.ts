import { createHash, randomBytes, randomUUID, timingSafeEqual } from "node:crypto";
import type { Role } from "@uprise/contract";
import { Refusal } from "../errors";
import { derivedKey } from "./derive";
import { type AccessFile, type Hash, openKeptFile } from "./file";

/** A device that was not seen for so long is let in anew by the passcode. */
export const IDLE_DAYS = 60;
/** Devices of each role; helpers who come and go never take a baker's place. */
const MOST_DEVICES = 60;
const DAY_MS = 86_400_000;

export type Device = AccessFile["devices"][number];

async function hashed(passcode: string): Promise<Hash> {
  const salt = randomBytes(16).toString("hex");
  return { salt, key: await derivedKey(passcode, salt) };
}

const fits = async (passcode: string, hash: Hash): Promise<boolean> =>
  timingSafeEqual(Buffer.from(await derivedKey(passcode, hash.salt), "hex"), Buffer.from(hash.key, "hex"));

const tokenHash = (token: string): string => createHash("sha256").update(token).digest("hex");

/** A code to be written down: five groups of five signs that cannot be mistaken for one another, 120 bits. */
function newCode(): string {
  const signs = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789";
  const text = [...randomBytes(25)].map((byte) => signs[byte % signs.length]).join("");
  return text.match(/.{5}/g)?.join("-") ?? text;
}
const bareCode = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, "");

/** Why a cookie opens nothing: its device was let go, or it is none of this kitchen's present passcode. */
export type Stranger = "let-go" | "unknown";

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
  /** The device that a token belongs to, or why there is none. */
  known(token: string): Device | Stranger;
  devices(): Device[];
  /** True when the device is let go and that is on the disk. */
  letGo(id: string): Promise<boolean>;
  /** Calls with the id of every device that is let go, by whatever process. */
  whenLetGo(does: (id: string) => void): void;
}

const isIdle = ({ seen }: Device): boolean => Date.now() - Date.parse(seen) > IDLE_DAYS * DAY_MS;

/** The devices with one more; where its role has too many, the one that was away longest goes. */
function withDevice(devices: readonly Device[], entered: Device): Device[] {
  const same = devices.filter((one) => one.role === entered.role && !isIdle(one));
  const kept = new Set([...same].sort((a, b) => Date.parse(b.seen) - Date.parse(a.seen)).slice(0, MOST_DEVICES - 1));
  return [...devices.filter((one) => !isIdle(one) && (one.role !== entered.role || kept.has(one))), entered];
}

/** Who may come in: passcodes as scrypt hashes and devices, in a file of its own beside the database, which no archive holds. Throws `Unusable` where it is damaged. */
export function openAccess(dataFolder: string): Access {
  const kept = openKeptFile(dataFolder);
  const passing = randomBytes(32).toString("hex");
  const must = (file: AccessFile | null = kept.now()): AccessFile => {
    if (!file)
      throw new Refusal(
        "unprocessable",
        "No passcode is set in this kitchen. npm run passcode on the server's own machine sets one.",
      );
    return file;
  };
  return {
    isSet: () => kept.now() !== null,
    secret: () => kept.now()?.secret ?? passing,
    async set(passcode) {
      const code = newCode();
      const [baker, recovery] = [await hashed(passcode), await hashed(bareCode(code))];
      const secret = randomBytes(32).toString("hex");
      await kept.update((now) => ({ shape: 1, secret, baker, helper: now?.helper ?? null, recovery, devices: [] }));
      return code;
    },
    async setHelper(passcode) {
      const helper = passcode === null ? null : await hashed(passcode);
      // Helpers that are in by the old one are let go.
      await kept.update((now) => ({ ...must(now), helper, devices: must(now).devices.filter(({ role }) => role !== "helper") }));
    },
    hasHelper: () => kept.now()?.helper != null,
    async isBaker(passcode) {
      const file = kept.now();
      return file !== null && fits(passcode, file.baker);
    },
    async enter(passcode, device) {
      const { baker, helper, secret } = must();
      // Both are tried, so that the time taken tells nothing.
      const isBaker = await fits(passcode, baker);
      const isHelper = await fits(passcode, helper ?? baker);
      const role: Role | null = isBaker ? "baker" : helper && isHelper ? "helper" : null;
      if (role === null) return null;
      const token = randomBytes(32).toString("base64url");
      const now = new Date().toISOString();
      const entered: Device = { id: randomUUID(), device, role, token: tokenHash(token), since: now, seen: now };
      let stillFits = true;
      await kept.update((file) => {
        // Another passcode was set while this one was tried.
        stillFits = must(file).secret === secret && (role === "baker" || must(file).helper?.key === helper?.key);
        return stillFits ? { ...must(file), devices: withDevice(must(file).devices, entered) } : must(file);
      });
      return stillFits ? { device: entered, token } : null;
    },
    async recover(code, passcode) {
      const file = kept.now();
      if (!file || !(await fits(bareCode(code), file.recovery))) return null;
      return this.set(passcode);
    },
    known(token) {
      const hash = tokenHash(token);
      const device = kept.now()?.devices.find((one) => one.token === hash);
      if (!device) return "let-go";
      if (isIdle(device)) return "unknown";
      // Written once a day: a device's last day is enough, and a day that cannot be written is no harm.
      if (Date.now() - Date.parse(device.seen) > DAY_MS) {
        const seen = new Date().toISOString();
        kept
          .update((now) => ({
            ...must(now),
            devices: must(now).devices.map((one) => (one.id === device.id ? { ...one, seen } : one)),
          }))
          .catch(() => undefined);
      }
      return device;
    },
    devices: () => kept.now()?.devices ?? [],
    async letGo(id) {
      let there = false;
      await kept.update((now) => {
        there = must(now).devices.some((one) => one.id === id);
        return { ...must(now), devices: must(now).devices.filter((one) => one.id !== id) };
      });
      return there;
    },
    whenLetGo(does) {
      kept.whenChanged((before, after) => {
        const still = new Set(after?.devices.map(({ id }) => id));
        for (const { id } of before?.devices ?? []) if (!still.has(id)) does(id);
      });
    },
  };
}
