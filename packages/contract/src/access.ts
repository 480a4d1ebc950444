import { z } from "zod";

export const roles = ["baker", "helper"] as const;
export type Role = (typeof roles)[number];

/** Length is what counts; ten signs by the kitchen's own rule, and none that everybody tries first. */
export const PASSCODE_LEAST = 10;
export const passcodeSchema = z
  .string({ error: `A passcode of ${PASSCODE_LEAST} signs or more.` })
  .min(PASSCODE_LEAST, { error: `A passcode of ${PASSCODE_LEAST} signs or more would be right; four words are good.` })
  .max(200, { error: "A passcode of up to 200 signs would be right." })
  .refine((text) => new Set(text.toLowerCase()).size >= 5, { error: "Five different signs at least would be right." })
  .refine((text) => !/^(?:password|passcode|1234567890|qwertyuiop|letmein)/i.test(text), {
    error: "That one is tried first by everybody; another would be right.",
  });

export const enterSchema = z.object({
  passcode: z.string().min(1, { error: "The passcode of this kitchen." }).max(200),
  /** A name by which this device can be let go again. */
  device: z.string().trim().min(1, { error: "A name for this device, such as “Counter phone”." }).max(60),
});
export const recoverSchema = z.object({ code: z.string().min(1).max(80), passcode: passcodeSchema });
export const newPasscodeSchema = z.object({ old: z.string().min(1).max(200), passcode: passcodeSchema });
export const helperSchema = z.object({ passcode: passcodeSchema.nullable() });

export const sessionSchema = z.object({
  /** Whether this server asks for a passcode. */
  needed: z.boolean(),
  here: z.object({ id: z.string(), device: z.string(), role: z.enum(roles) }).nullable(),
  /** This device was let go: what it keeps of the kitchen goes with that. */
  letGo: z.literal(true).optional(),
});
export type Session = z.infer<typeof sessionSchema>;

export const accessSchema = z.object({
  helper: z.boolean(),
  devices: z.array(
    z.object({ id: z.string(), device: z.string(), role: z.enum(roles), since: z.string(), seen: z.string(), here: z.boolean() }),
  ),
});
export type AccessList = z.infer<typeof accessSchema>;
export const recoverySchema = z.object({ recovery: z.string() });

/** What was written by somebody, for all who look: a kind of thing, which, its version, by which tab. */
export const changeSchema = z.object({
  what: z.string(),
  id: z.string().nullable(),
  version: z.number().nullable(),
  by: z.string().nullable(),
});
export type Change = z.infer<typeof changeSchema>;
